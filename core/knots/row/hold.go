package row

import (
	_ "embed" // the key frames drawn up at build time
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// holdRow holds the half knot in hand of a row.
func holdRow(w knot.Work, halves int, start knot.Side, action int, along float64) (knot.Tied, error) {
	n := len(w.Strands)
	if n < 3 {
		return knot.Tied{}, fmt.Errorf("%s needs two workers and a filler between them; it has %d strands", w.Section.Do, n)
	}
	strands := append([]knot.Strand{}, w.Strands...)
	right := start == "right"
	if right {
		knot.Flip(strands)
	}
	d := math.Max(strands[0].Diameter, strands[n-1].Diameter)
	thick := 0.0
	for _, l := range strands[1 : n-1] {
		thick = math.Max(thick, l.Diameter/d)
	}
	flat := halves == 2
	frames, has, err := framesOf(flat, n-2, thick)
	if err != nil {
		return knot.Tied{}, err
	}
	var fillers []float64
	for _, l := range strands[1 : n-1] {
		fillers = append(fillers, l.Diameter)
	}
	wide, _ := rowOf(fillers)
	led, drawn := knot.Shares(2, action%2, along)
	cell := func(s shapes.Shape) tighten.Cell { return tighten.Cell{Pitch: s.Pitch, Twist: s.Twist, Mirror: flat} }
	s := shapes.FrameAt(frames, drawn)
	threads, _ := repeat(s, cell(s), 1)
	top := (threads[0][0].Y + threads[1][0].Y) / 2
	fit := fitted(has, wide/d, thick)
	if !flat {
		fit = grown(threads[2:], has.thick, thick)
	}
	ky := 1 + (squeeze(strands)-1)*drawn
	t := knot.Tied{Loose: true, Repeats: 1, Gap: 1, Height: s.Pitch * d * ky, Order: knot.Identity(n)}
	mm := func(pts []r3.Vec) []r3.Vec {
		return knot.Curve(pts).Map(func(v r3.Vec) r3.Vec { v = fit(v); return r3.Vec{X: d * v.X, Y: d * ky * (v.Y - top), Z: d * v.Z} }).Points
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
	x := -wide / 2
	for i, f := range fillers {
		if !flat { // they turn with the workers
			line := mm(threads[2+i])
			at := line[len(line)-1]
			t.Paths[1+i] = knot.Path{Points: append(line, r3.Vec{X: at.X, Y: at.Y + 3*d, Z: at.Z})}
			continue
		}
		at := r3.Vec{X: x + f/2}
		t.Paths[1+i] = knot.Path{Points: []r3.Vec{at, {X: at.X, Y: t.Height / 2}, {X: at.X, Y: t.Height}, {X: at.X, Y: t.Height + 3*d}}}
		x += f
	}
	if right {
		t.Mirror(n)
	}
	return t, nil
}

// over are the fillers that a half knot goes over: how wide they lie and how thick
// they are, in workers.
type over struct{ wide, thick float64 }

// fitted takes a point of key frames that go over some fillers to where it is over
// others: across them it keeps its share of their width, beside them its distance
// from their edge, and before and behind them its distance from their surface.
func fitted(has over, wide, thick float64) func(r3.Vec) r3.Vec {
	return func(v r3.Vec) r3.Vec {
		x, edge := math.Abs(v.X), has.wide/2
		if x <= edge {
			x *= wide / has.wide
		} else {
			x += (wide - has.wide) / 2
		}
		// Over the edge it comes down again within a worker's thickness and a half.
		share := math.Max(0, math.Min(1, (edge+1.5-math.Abs(v.X))/1.5))
		off := share * (thick - has.thick) / 2
		switch {
		case v.Z > 0:
			v.Z = math.Max(0, v.Z+off)
		case v.Z < 0:
			v.Z = math.Min(0, v.Z-off)
		}
		v.X = math.Copysign(x, v.X)
		return v
	}
}

// grown takes a point of key frames of a spiral over fillers of a thickness to where
// it is over those of another: these lie as they lay, and what is outside of them
// keeps its distance from their surface.
func grown(fillers [][]r3.Vec, has, thick float64) func(r3.Vec) r3.Vec {
	bundle := 0.0
	for _, pts := range fillers {
		for _, v := range pts {
			bundle = math.Max(bundle, math.Hypot(v.X, v.Z)+has/2)
		}
	}
	return func(v r3.Vec) r3.Vec {
		r := math.Hypot(v.X, v.Z)
		by := thick / has
		if r > bundle {
			by = (r + bundle*(thick/has-1)) / r
		}
		return r3.Vec{X: by * v.X, Y: v.Y, Z: by * v.Z}
	}
}

// framesOf are the key frames of a half knot over n fillers of a thickness, in
// workers: those of the nearest row that has them embedded, and what that goes over.
func framesOf(flat bool, n int, thick float64) ([]shapes.Shape, over, error) {
	if flat { // wider ones are the same over their fillers
		n = min(n, mostMoving)
	}
	best := movingThick[0]
	for _, t := range movingThick {
		if (flat || inMoving(n, t)) && math.Abs(math.Log(t/thick)) < math.Abs(math.Log(best/thick)) {
			best = t
		}
	}
	key, p := spiralCell(1, same(n, best))
	if flat {
		key, p = flatCell(1, same(n, best))
	}
	frames, err := family.KeyFrames(key, p)
	return frames, over{float64(n) * best, best}, err
}

var movingThick = []float64{0.56, 1, 1.86}

const mostMoving = 4

// moving are the rows whose key frames are embedded.
func moving() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, t := range movingThick {
		for n := 1; n <= mostFillers; n++ {
			if n <= mostMoving {
				key, p := flatCell(1, same(n, t))
				out[key] = p()
			}
			if inMoving(n, t) {
				key, p := spiralCell(1, same(n, t))
				out[key] = p()
			}
		}
	}
	return out
}

// inMoving tells whether the key frames of a spiral over n fillers of a thickness are
// embedded.
func inMoving(n int, thick float64) bool { return n <= mostMoving || thick <= 1 }
