package mount

import (
	"math"

	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// While a lark's head is put on it stands so many times as wide, off the wire and about its
// middle; its fold lies there from the start, up to this share of a leg.
const (
	open   = 1.7
	folded = 0.3
)

// holdMount holds cords that are put on one after the other: those that wait are not there yet,
// and a lark's head is led, both its legs at once, and then drawn up.
func holdMount(w knot.Work, action int, along float64) (knot.Tied, error) {
	t, err := tieMount(w)
	if err != nil || action >= len(t.Moves) {
		return t, err
	}
	legs := max(1, len(w.Own)/len(t.Moves))
	begins := func(m int) int { return t.Moves[m].Strand - len(w.Strands) }
	for m := action + 1; m < len(t.Moves); m++ {
		for k := range legs {
			t.Own[begins(m)+k] = knot.Path{}
		}
	}
	if t.Moves[action].Folded {
		return t, nil
	}
	led, drawn := math.Min(1, along/knot.Led), math.Max(0, (along-knot.Led)/(1-knot.Led))
	wider := 1 + (open-1)*(1-drawn)
	first := begins(action)
	d := w.Own[first].Diameter
	reach := 0.0
	straight := w
	straight.RingMM = 0 // it is opened on a straight wire, and then bent round the ring
	flat, err := tieMount(straight)
	if err != nil {
		return t, err
	}
	middle := flat.Own[first].Points[0].X
	for k := range legs {
		for _, v := range flat.Own[first+k].Points {
			reach = math.Max(reach, math.Abs(v.X-middle))
		}
	}
	for k := range legs {
		var pts []r3.Vec
		for _, v := range flat.Own[first+k].Points {
			// Those that are on stay where they are: it opens away from them.
			pts = append(pts, r3.Vec{X: middle + (wider-1)*(reach+d/2) + wider*(v.X-middle), Y: wider * v.Y, Z: wider * v.Z})
		}
		bendRound(pts, w.RingMM)
		t.Own[first+k] = knot.Path{Points: knot.Tip(pts, folded+(1-folded)*led, d)}
		for _, v := range t.Own[first+k].Points {
			t.Height = math.Max(t.Height, v.Y)
		}
	}
	return t, nil
}
