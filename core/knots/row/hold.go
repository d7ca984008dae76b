package row

import (
	_ "embed" // the ways drawn up at build time
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// holdRow holds the half knot in hand of a row.
func holdRow(w knot.Work, halves int, start knot.Side, action int, along float64) (knot.Tied, error) {
	n := len(w.Leads)
	if n < 3 {
		return knot.Tied{}, fmt.Errorf("%s needs two workers and a filler between them; it has %d strands", w.Section.Do, n)
	}
	leads := append([]knot.Lead{}, w.Leads...)
	right := start == "right"
	if right {
		knot.Flip(leads)
	}
	d := math.Max(leads[0].Diameter, leads[n-1].Diameter)
	thick := 0.0
	for _, l := range leads[1 : n-1] {
		thick = math.Max(thick, l.Diameter/d)
	}
	flat := halves == 2
	frames, err := framesOf(flat, n-2, thick)
	if err != nil {
		return knot.Tied{}, err
	}
	led, drawn := knot.Shares(2, action%2, along)
	cell := func(s shapes.Shape) tighten.Cell { return tighten.Cell{Pitch: s.Pitch, Twist: s.Twist, Mirror: flat} }
	s := shapes.FrameAt(frames, drawn)
	threads, _ := repeat(s, cell(s), 1)
	top := (threads[0][0].Y + threads[1][0].Y) / 2
	ky := 1 + (squeeze(leads)-1)*drawn
	t := knot.Tied{Loose: true, Repeats: 1, Gap: 1, Height: s.Pitch * d * ky, Order: knot.Identity(n)}
	mm := func(pts []r3.Vec) []r3.Vec {
		return knot.Curve(pts).Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: d * v.X, Y: d * ky * (v.Y - top), Z: d * v.Z} }).Points
	}
	// The worker that crosses in front is led first; with each half knot the
	// workers have changed sides.
	front, behind := mm(threads[0]), mm(threads[1])
	if led[0] < 1 {
		front = knot.Tip(front, led[0], d)
	}
	if led[1] < 1 {
		if led[1] == 0 { // it still hangs
			at := behind[0]
			behind = []r3.Vec{at, {X: at.X, Y: at.Y + 2*d, Z: at.Z}, {X: at.X, Y: at.Y + 5*d, Z: at.Z}}
		} else {
			behind = knot.Tip(behind, led[1], d)
		}
	}
	odd := flat && w.HalfKnots%2 == 1
	flip := func(pts []r3.Vec) []r3.Vec {
		if !odd {
			return pts
		}
		return knot.Curve(pts).Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: v.Y, Z: v.Z} }).Points
	}
	t.Paths = make([]knot.Path, n)
	first, last := 0, n-1
	if odd {
		first, last = last, first
	}
	t.Paths[first], t.Paths[last] = knot.Path{Points: flip(front)}, knot.Path{Points: flip(behind)}
	var fillers []float64
	for _, l := range leads[1 : n-1] {
		fillers = append(fillers, l.Diameter)
	}
	row, _ := rowOf(fillers)
	x := -row / 2
	for i, f := range fillers {
		at := r3.Vec{X: x + f/2}
		t.Paths[1+i] = knot.Path{Points: []r3.Vec{at, {X: at.X, Y: t.Height / 2}, {X: at.X, Y: t.Height}, {X: at.X, Y: t.Height + 3*d}}}
		x += f
	}
	if right {
		t.Mirror(n)
	}
	return t, nil
}

// framesOf are the key frames of a half knot over n fillers of a thickness, in
// workers: those of the nearest row that has them embedded.
func framesOf(flat bool, n int, thick float64) ([]shapes.Shape, error) {
	n = max(1, min(n, mostMoving))
	best := movingThick[0]
	for _, t := range movingThick {
		if math.Abs(math.Log(t/thick)) < math.Abs(math.Log(best/thick)) {
			best = t
		}
	}
	key, p := spiralCell(1, same(n, best))
	if flat {
		key, p = flatCell(1, same(n, best))
	}
	return family.KeyFrames(key, p)
}

var movingThick = []float64{0.56, 1, 1.86}

const mostMoving = 4

// moving are the rows whose key frames are embedded.
func moving() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, t := range movingThick {
		for n := 1; n <= mostMoving; n++ {
			key, p := flatCell(1, same(n, t))
			out[key] = p()
			key, p = spiralCell(1, same(n, t))
			out[key] = p()
		}
	}
	return out
}
