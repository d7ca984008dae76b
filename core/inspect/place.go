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
	if section < 0 || section >= len(d.Sequence) {
		return out
	}
	if s, ok := n.astray(section, done); ok {
		out = append(out, s)
	}
	if tied < 1 {
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
		q, moves, cord, ok := n.until(section, instead, parts, more, nil)
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
	if c := n.crossed(p.Sections[i], k); c > 0 {
		instead, at := []knot.Section{with(sec, 1)}, section
		if tied > 1 {
			instead, at = []knot.Section{with(sec, tied-1), with(sec, 1)}, section+1
		}
		q, moves, cord, ok := n.until(section, instead, len(instead), 0, &plan.Slip{Section: at, Slip: knot.Slip{Crossed: c}})
		if ok && len(out) < mostSlips {
			out = append(out, Slip{"Two strands hang crossed above the last knot: each stands in the other's place.", pull(moves, cord) + " Lay them side by side again, and tie it anew.", q})
		}
	}
	return out
}

// crossed is the first of two neighbours, counted from 1, that could come to a section crossed:
// two of other colours where there are, for that is seen best. 0 where it has no three strands.
func (n *inspector) crossed(s plan.Section, k knot.Knot) int {
	terms := knot.TermsOf(n.d.Sequence[s.Index])
	if k.Bare || k.Ends || terms.Begins != knot.OnStrands {
		return 0
	}
	var colours []string
	for _, u := range s.Use {
		if u.Strand > 0 { // none of its own
			colours = append(colours, n.d.Cords[n.d.CordByID(u.Cord)].Stuff.Colour)
		}
	}
	if len(colours) < 3 {
		return 0
	}
	for c := 1; c < len(colours); c++ {
		if colours[c] != colours[c-1] {
			return c
		}
	}
	return 1
}

// astray is the state in which the last move that runs beside a part that was led before, as a
// second round does, lies on its other side for a stretch; not ok where none does.
func (n *inspector) astray(section, done int) (Slip, bool) {
	into := done
	for _, s := range n.p.Steps {
		all := s.Repeats * len(s.Actions)
		if s.Section != section || into > all {
			into -= all
			continue
		}
		if into == 0 {
			return Slip{}, false
		}
		o := n.o
		o.Until, o.Along, o.Slip = done, 1, &plan.Slip{Section: section, Slip: knot.Slip{Astray: true}}
		q, err := plan.Make(n.d, o)
		if err != nil || q.Slipped == 0 {
			return Slip{}, false
		}
		moves := (into-1)%len(s.Actions) + 2 - q.Slipped // of the round in hand
		return Slip{"The cord in hand lies on the other side of the part that it follows for a stretch: it crosses it there and back.",
			fmt.Sprintf("Go %d move%s back: pull the end of cord %s out to where it crosses the part that it follows. Then lead it beside that part on one side all along.", moves, knot.Plural(moves), s.Actions[q.Slipped-1].Cord), q}, true
	}
	return Slip{}, false
}

// with is a section so many times.
func with(s knot.Section, count int) knot.Section {
	s.Count = count
	return s
}

// until plans the piece with other sections instead of one, tied to the end of so many of
// them and some actions more, with a slip where there is one; moves are those of the last knot
// tied, cord is whose end was
// led last. ok is false where it cannot be tied so.
func (n *inspector) until(section int, instead []knot.Section, parts, more int, slip *plan.Slip) (p plan.Plan, moves int, cord string, ok bool) {
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
	o.Along, o.Slip = 1, slip
	if o.Until == 0 || o.Until > whole.Actions {
		return p, 0, "", false
	}
	p, err = plan.Make(d, o)
	return p, moves, cord, err == nil
}
