package knot

import (
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Laid is a knot that was drawn up, laid into the work.
type Laid struct {
	Paths  []Path  // by place at the top, from the left, mm
	Of     []int   // the strand of the shape at each place
	Order  []int   // as in [Tied]
	Height float64 // mm
	Top    float64 // y in the shape that lies at zero here, diameters
}

// Lay lays strands that were drawn up, in diameters, from where the first of them
// leaves the way straight down to where the last of them takes it again, or, where all
// end in it, as far as they reach. d is the diameter in mm. Strands that hang one behind the other keep the order they have
// in the shape.
//
// Law: with d twice as large, every length doubles.
func Lay(strands [][]r3.Vec, d float64) Laid {
	const most = 25 * math.Pi / 180 // off straight down
	const lead = 0.5                // straight into the knot and out of it
	top, low := math.Inf(1), math.Inf(-1)
	for _, pts := range strands {
		for i := 1; i < len(pts); i++ {
			step := r3.Sub(pts[i], pts[i-1])
			if step.Y < math.Cos(most)*r3.Norm(step) {
				top, low = math.Min(top, pts[i-1].Y), math.Max(low, pts[i].Y)
			}
		}
	}
	top, low = top-lead, low+lead
	out := Laid{Height: d * (low - top), Top: top}
	lines := make([][]r3.Vec, len(strands))
	for i, pts := range strands {
		a, b := 0, len(pts)-1
		for pts[a+1].Y < top {
			a++
		}
		for pts[b-1].Y > low {
			b--
		}
		first := curve.Lerp(pts[a], pts[a+1], (top-pts[a].Y)/(pts[a+1].Y-pts[a].Y))
		last := pts[b] // of one that ends in the knot
		if last.Y > low {
			last = curve.Lerp(pts[b], pts[b-1], (low-pts[b].Y)/(pts[b-1].Y-pts[b].Y))
		}
		for _, v := range append(append([]r3.Vec{first}, pts[a+1:b]...), last) {
			lines[i] = append(lines[i], r3.Scale(d, r3.Vec{X: v.X, Y: v.Y - top, Z: v.Z}))
		}
	}
	out.Of, out.Order = Identity(len(strands)), Identity(len(strands))
	across := func(x func(i int) float64) func(a, b int) int {
		return func(a, b int) int {
			if u, v := x(a), x(b); math.Abs(u-v) > 0.05*d {
				return int(math.Copysign(1, u-v))
			}
			return 0
		}
	}
	slices.SortStableFunc(out.Of, across(func(i int) float64 { return lines[i][0].X }))
	for _, i := range out.Of {
		out.Paths = append(out.Paths, Path{Points: lines[i]})
	}
	slices.SortStableFunc(out.Order, across(func(k int) float64 { p := out.Paths[k].Points; return p[len(p)-1].X }))
	return out
}
