package plan

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// GoesOn tells at which side the section in hand goes on when so many actions are done, where
// the work itself shows it; "" where it does not, or where nothing of the section is tied yet.
func (p Plan) GoesOn(done int) (section int, side string) {
	step, into := p.stepAt(max(0, min(done, p.Actions)))
	if step < 0 || into < 0 {
		return 0, ""
	}
	s := p.Steps[step]
	n := len(s.Actions)
	if n == 0 || into == 0 || into >= n*s.Repeats {
		return s.Section, ""
	}
	if a := s.Actions[into%n]; a.Because != "" {
		return s.Section, a.From
	}
	return s.Section, ""
}

// A bump stands out beyond what is above and below it by so much, and is no nearer than so
// much of the farthest of its side; diameters and a share.
const bumpStands, bumpFar = 0.35, 0.8

// LowestBump is where, at the left or the right edge of a section, a strand bends back for the
// last time: by it a row is seen on which side it goes on. ok is false where none does.
func (l Layout) LowestBump(section int, side string) (at r3.Vec, ok bool) {
	out := map[string]float64{"left": -1, "right": 1}[side]
	if out == 0 || section < 0 || section >= len(l.Sections) {
		return at, false
	}
	from, to := l.Sections[section][0], l.Sections[section][1]
	var runs [][]r3.Vec
	for _, s := range l.Near(from, to) {
		var run []r3.Vec
		for i, v := range s.Points {
			if s.Section[i] != section {
				runs, run = append(runs, run), nil
				continue
			}
			run = append(run, v)
		}
		runs = append(runs, run)
	}
	stands, most := bumpStands*l.Thick, 0.0
	var bumps []r3.Vec
	for _, run := range runs {
		// Since its last dent a run has gone out as far as its top; behind it, it comes back.
		top, dent := -1, math.Inf(1)
		for i, v := range run {
			x := out * v.X
			switch {
			case top < 0 && x-dent > stands, top >= 0 && x > out*run[top].X:
				top = i
			case top < 0:
				dent = math.Min(dent, x)
			case out*run[top].X-x > stands:
				bumps = append(bumps, run[top])
				most = math.Max(most, out*run[top].X)
				top, dent = -1, x
			}
		}
	}
	for _, b := range bumps {
		if out*b.X > bumpFar*most && (!ok || b.Y > at.Y) {
			at, ok = b, true
		}
	}
	return at, ok
}
