package ropeball

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	open = 1.35 // times as wide its strands stand while they are led
	stub = 0.03 // of a strand lies there before it is led
)

// hold holds a rope ball: all its strands are led together, side by side, open round the former,
// till the slack is worked out of them.
func hold(w knot.Work, action int, along float64) (knot.Tied, error) {
	t, err := tieRopeBall(w)
	if err != nil || action >= len(t.Moves) {
		return t, err
	}
	thickest := w.Own[0]
	for _, l := range w.Own {
		if l.Diameter > thickest.Diameter {
			thickest = l
		}
	}
	b, err := ball.MakeRope(askOf(w.Section, ball.Of(thickest.Stuff, thickest.Figures)))
	if err != nil {
		return t, err
	}
	led := ledTo(b.RoundsMM)
	leads := len(led) - 1 // what is taken comes before them
	share, worked := 1.0, 0.0
	switch {
	case action < 1:
		share = stub
	case action <= leads:
		share = stub + (1-stub)*(led[action-1]+(led[action]-led[action-1])*along)
	default:
		worked = math.Min(1, (float64(action-leads-1)+along)/rounds)
	}
	wide := 1 + (open-1)*(1-worked)
	if t.Core != nil { // its top stays where it is
		c := *t.Core
		c.At = r3.Scale(wide, c.At)
		t.Core = &c
	}
	for i, p := range t.Own {
		pts := make([]r3.Vec, len(p.Points))
		for k, v := range p.Points {
			pts[k] = r3.Scale(wide, v)
		}
		t.Own[i] = knot.OnCore(knot.Tip(pts, share, w.Own[i].Diameter))
		for _, v := range t.Own[i].Points {
			t.Height = math.Max(t.Height, v.Y)
		}
		if share == 1 && worked == 1 {
			t.Own[i].Inside = p.Inside
		}
	}
	t.Ends = action == len(t.Moves)-1 // their ends are tucked at last
	return t, nil
}

// ledTo is up to which share of its way a strand is led after each move that leads: round by
// round, the first by its leads. It begins with 0.
func ledTo(roundsMM []float64) []float64 {
	all := 0.0
	for _, mm := range roundsMM {
		all += mm
	}
	out, sum := []float64{0}, 0.0
	for r, mm := range roundsMM {
		parts := 1
		if r == 0 {
			parts = ball.RopeLeads
		}
		for k := range parts {
			out = append(out, (sum+mm*float64(k+1)/float64(parts))/all)
		}
		sum += mm
	}
	return out
}
