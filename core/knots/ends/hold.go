package ends

import (
	"strings"

	"nimblebight/core/finish"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// done is from which share of a step on what it does is shown.
const done = 0.5

// holdEnds holds ends that are finished: they hang as they are till they are cut, are cut off
// plain, and have their form from the step after that on.
func holdEnds(w knot.Work, action int, along float64) (knot.Tied, error) {
	t, err := tieEnds(w)
	if err != nil {
		return t, err
	}
	f, _ := finish.Get(string(knot.Of[Settings](w.Section).How))
	cut, form := steps(f)
	come := float64(action) + along
	_, led := ways[f.Form]
	switch {
	case come >= float64(form)+done:
		return t, nil
	case come < done || cut < 0:
		const short = 1.0 // of what hangs on below, mm
		t.Paths, t.Beads, t.Own, t.Height = nil, nil, nil, short
		for _, l := range w.Strands {
			t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: short, Z: l.At.Z}}})
		}
		t.Ends, t.Endings = false, nil
	case come < float64(cut)+done:
		t.Ends, t.Endings = false, nil
	default:
		plain, _ := finish.Get(finish.Plain)
		for i := range t.Endings {
			t.Endings[i].Form = string(plain.Form)
			if led && f.Form != finish.Melted {
				continue
			}
			l := w.Strands[i]
			t.Paths[i] = knot.Path{Points: []r3.Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: t.Endings[i].CutMM, Z: l.At.Z}}}
			t.Height = max(t.Height, t.Endings[i].CutMM)
		}
	}
	return t, nil
}

// steps are those in which ends are cut, below 0 for none, and in which they get their form.
func steps(f finish.Finish) (cut, form int) {
	cut = -1
	for i, s := range f.Steps {
		if strings.Contains(s, "{cut}") {
			cut = i
		}
	}
	if f.Form == finish.Cut {
		return cut, cut
	}
	return cut, min(cut+1, len(f.Steps)-1)
}
