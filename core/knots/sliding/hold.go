package sliding

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	open   = 1.8 // times as wide a half stands while it is tied
	before = 1.6 // and hangs so far before it
	middle = 0.4 // of the pair
	clear  = 1.0 // so far off it
	beside = 9.0 // so much of an end lies straight beside the other strand before it is led, diameters
)

// hold holds the pair: its ends are laid past each other, one half is led and then the other,
// open, and then both are drawn up. What finishes the ends comes after.
func hold(w knot.Work, action int, come float64) (knot.Tied, error) {
	const lays, first, second = 0, 1, 2 // its moves
	if action > second {
		t, _, err := lay(w, true, 1)
		return t, err
	}
	drawn := 0.0
	if action == second {
		drawn, come = math.Max(0, (come-knot.Led)/(1-knot.Led)), math.Min(1, come/knot.Led)
	}
	wide := open + (1-open)*drawn
	t, p, err := lay(w, true, wide)
	if err != nil {
		return t, err
	}
	t.Ends, t.Endings = false, nil // they are not finished yet
	for i := range t.Paths {
		pts := t.Paths[i].Points
		d := w.Strands[i].Diameter
		begins := along(wide) * d * (2*p.half - 0.5) // the turns of the other half
		turns := straight(pts, t.Paths[i].Lies, begins)
		if led := first + i; led > action { // through them, up to the middle
			turns = straight(pts, t.Paths[i].Lies, middle*d)
		}
		switch led := first + i; { // strand 0 ties the first half
		case led < action || led == action && come >= 1:
		case led == action:
			all := curve.Curve{Points: pts}.Length()
			begun := curve.Curve{Points: pts[:turns+1]}.Length() / all
			pts = knot.Tip(pts, begun+(1-begun)*come, d)
		default: // straight on, past the other
			side := float64(2*i - 1) // it comes from there
			from, on := pts[turns], r3.Vec{X: -side * beside * d, Y: side * clear * d}
			if action == lays {
				on = r3.Scale(come, on)
			}
			// Its end hangs before what lies below it.
			end := r3.Add(r3.Add(from, on), r3.Vec{Z: before * d})
			pts = append(pts[:turns+1:turns+1], curve.Spline([]r3.Vec{from, r3.Add(from, r3.Vec{X: on.X / 2, Y: on.Y}), end}, false).Points[1:]...)
		}
		t.Paths[i] = knot.Path{Points: pts}
	}
	t.Height = 0
	for _, p := range t.Paths {
		for _, v := range p.Points {
			t.Height = math.Max(t.Height, v.Y)
		}
	}
	return t, nil
}

// bare is how many nodes of a strand lie before the pair.
func bare(lies []knot.Lie) int {
	return max(1, slices.Index(lies, knot.Snug))
}

// straight is the last node of a strand that lies straight before the pair, which begins so far
// from its middle.
func straight(pts []r3.Vec, lies []knot.Lie, begins float64) int {
	k := bare(lies)
	for k < len(pts)-2 && math.Abs(pts[k+1].X) > begins {
		k++
	}
	return k
}
