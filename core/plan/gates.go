package plan

import (
	"fmt"
	"strings"

	"nimblebight/core/knot"
)

// every is after how many knots of a row it is pushed up and looked at.
const every = 5

// When says after which rounds it is looked at.
func (g Gate) When() string {
	if g.Every > 0 {
		return fmt.Sprintf("after every %d", g.Every)
	}
	return fmt.Sprintf("after number %d", g.At)
}

// gates are what is looked at between the rounds of a section, tied of such strands: that
// a row is pushed up, that single strands are twisted back up, that flat ones keep their
// good side out.
func (w *walk) gates(t knot.Tied, who []*leg) []Gate {
	if t.Repeats <= every {
		return nil
	}
	var out []Gate
	if t.Row {
		out = append(out, Gate{Every: every, Says: "Push the knots up: they touch one another, and the row has not begun to turn."})
	}
	opens, flat := w.names(who, func(i int) bool { return w.d.Cords[i].Stuff.Make.Opens() }), w.names(who, func(i int) bool { return w.d.Cords[i].Stuff.Make.Flat() })
	if opens != "" {
		out = append(out, Gate{Every: every, Says: fmt.Sprintf("Twist the ends of %s back up: single strands open while they are tied.", opens)})
	}
	if flat != "" {
		out = append(out, Gate{Every: every, Says: fmt.Sprintf("The good side of %s looks out on every turn, and none of it is twisted.", flat)})
	}
	return out
}

// names are the cords of some legs of which something is true, as a sentence names them.
func (w *walk) names(who []*leg, is func(cord int) bool) string {
	var out []string
	seen := map[int]bool{}
	for _, l := range who {
		if !seen[l.cord] && is(l.cord) {
			out = append(out, w.d.Cords[l.cord].ID)
		}
		seen[l.cord] = true
	}
	if len(out) == 0 {
		return ""
	}
	return fmt.Sprintf("cord%s %s", plural(len(out), "", "s"), strings.Join(out, " and "))
}

// evenGate says how much of each leg hangs when the first knot is tied: while it still
// costs nothing to pull the fold to its place.
func (w *walk) evenGate() {
	for n := range w.plan.Steps {
		step := &w.plan.Steps[n]
		if step.Repeats == 0 || len(step.Actions) == 0 || !w.knotted[step.Section] {
			continue
		}
		k, _ := knot.Get(step.Do)
		if k.Mounts {
			continue
		}
		if k.First || k.Holds != knot.Nothing || k.Fold != nil || step.Section >= len(w.plan.Sections) {
			return // what holds others is looked at where it says so itself
		}
		if says := w.hangs(step.Section); says != "" {
			step.Gates = append([]Gate{{At: 1, Says: fmt.Sprintf("Before you go on there hang %s. Where a leg is off by more than a knot takes, pull the cord through its fold.", says)}}, step.Gates...)
		}
		return
	}
}

// hangs says how much of each leg of the folded cords hangs when one knot of a section is
// tied, "" where none of them is in it.
func (w *walk) hangs(section int) string {
	count := float64(max(1, w.plan.Sections[section].Count))
	var says []string
	for _, c := range w.plan.Cords {
		if len(c.Legs) != 2 {
			continue
		}
		hang, in := [2]float64{}, false
		for i, l := range c.Legs {
			hang[i] = l.CutMM
			for _, p := range l.Parts {
				switch {
				case p.Section < section:
					hang[i] -= p.MM
				case p.Section == section:
					hang[i] -= p.MM / count
					in = true
				}
			}
		}
		if !in || hang[0] <= 0 || hang[1] <= 0 {
			continue
		}
		if w.o.LeftHanded { // the first leg hangs on the right
			hang[0], hang[1] = hang[1], hang[0]
		}
		says = append(says, fmt.Sprintf("of cord %s {%.0fmm} left and {%.0fmm} right", c.ID, hang[0], hang[1]))
	}
	return strings.Join(says, ", ")
}
