package inspect

import (
	"fmt"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Slip is a wrong state that the work can be in at a place at the vise, drawn as it looks
// there, with the way back.
type Slip struct {
	Says string `json:"says"`
	Back string `json:"back"`
	// Plan is the work in that state, as it hangs in hand.
	Plan plan.Plan `json:"-"`
}

// mostSlips is how many are offered at a place.
const mostSlips = 3

// At lists the likeliest wrong states of a piece when so many actions are done: the last knot
// begun on the wrong side, one too many or half a one, and what the knot itself knows. None
// before the first knot of a section is closed.
func At(d piece.Document, p plan.Plan, o plan.Options, done int) []Slip {
	n := &inspector{d: d, p: p, o: o}
	section, tied := p.At(done)
	out := []Slip{}
	if section < 0 || section >= len(d.Sequence) || tied < 1 {
		return out
	}
	sec := d.Sequence[section]
	k, ok := knot.Get(sec.Do)
	if !ok || k.Tie == nil {
		return out
	}
	i := slices.IndexFunc(p.Sections, func(s plan.Section) bool { return s.Index == section })
	if i < 0 {
		return out
	}
	count := max(1, p.Sections[i].Count)
	sec.Count, sec.FitMM = count, 0
	tied = min(tied, count)
	add := func(instead []knot.Section, parts int, more int, says string, back func(moves int, cord string) string) {
		q, moves, cord, ok := n.until(section, instead, parts, more)
		if ok && len(out) < mostSlips {
			out = append(out, Slip{says, back(moves, cord), q})
		}
	}
	pull := func(moves int, cord string) string {
		return fmt.Sprintf("Go %d moves back: pull the end of cord %s out first, for it was led last.", moves, cord)
	}
	if field, side, ok := begins(k, sec); ok && tied >= 2 {
		add([]knot.Section{with(sec, tied-1), with(sec, 1).With(field, knot.Opposite(side))}, 2, 0, fmt.Sprintf("The last one was begun %s, and not %s as those above it.", knot.Opposite(side), side),
			func(moves int, cord string) string { return pull(moves, cord) + " Then begin " + side + "." })
	}
	if k.Wrong != nil {
		for _, w := range k.Wrong(with(sec, tied)) {
			add(w.Instead, len(w.Instead), 0, w.Says, func(int, string) string { return w.Back })
		}
	}
	if tied < count {
		whole := 0
		for _, s := range p.Steps {
			if s.Section == section && s.Repeats > 0 {
				whole = len(s.Actions)
				if s.Half > 0 {
					add([]knot.Section{with(sec, tied), with(sec, 1)}, 1, s.Half, "Half a knot more is tied than the counter says.",
						func(_ int, cord string) string { return pull(s.Half, cord) })
				}
			}
		}
		add([]knot.Section{with(sec, tied+1)}, 1, 0, "One more is tied than the counter says.", func(int, string) string {
			return fmt.Sprintf("Count them. Then go on at the counter by %d moves, and untie nothing.", whole)
		})
	}
	return out
}

// with is a section so many times.
func with(s knot.Section, count int) knot.Section {
	s.Count = count
	return s
}

// until plans the piece with other sections instead of one, tied to the end of so many of
// them and some actions more; moves are those of the last knot tied, cord is whose end was
// led last. ok is false where it cannot be tied so.
func (n *inspector) until(section int, instead []knot.Section, parts, more int) (p plan.Plan, moves int, cord string, ok bool) {
	d := n.d
	d.Sequence = slices.Concat(n.d.Sequence[:section:section], instead, n.d.Sequence[section+1:])
	whole, err := plan.Make(d, n.o)
	if err != nil {
		return p, 0, "", false
	}
	o := n.o
	for _, s := range whole.Steps {
		if s.Section >= section+parts {
			break
		}
		o.Until += s.Repeats * len(s.Actions)
		if s.Repeats > 0 && len(s.Actions) > 0 {
			moves, cord = len(s.Actions), s.Actions[len(s.Actions)-1].Cord
		}
	}
	o.Until += more
	o.Along = 1
	if o.Until == 0 || o.Until > whole.Actions {
		return p, 0, "", false
	}
	p, err = plan.Make(d, o)
	return p, moves, cord, err == nil
}
