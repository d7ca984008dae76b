package ball

import (
	"context"
	"math"
	"slices"
	"sync"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// stopper is a knot that stands in a ball as its core.
type stopper struct {
	route, name string
	cords       float64
}

// The stoppers that two joined cords are knotted to, smallest first, by the
// route that is drawn up for them; of two cords tied together the knot is as
// much thicker as their bundle.
var stoppers = []stopper{
	{"overhand", "an overhand", 1},
	{"figure-eight-stopper", "a figure-eight", 1},
	{"overhand", "an overhand of both cords together", 2},
	{"figure-eight-stopper", "a figure-eight of both cords together", 2},
}

// Stoppers are the routes of the stoppers, to be embedded with the balls.
func Stoppers() []knot.Route {
	var out []knot.Route
	for _, r := range knot.Routes() {
		if slices.ContainsFunc(stoppers, func(s stopper) bool { return s.route == r.Name }) {
			out = append(out, r)
		}
	}
	return out
}

// StopperKey is the name that a stopper's shape is embedded under.
func StopperKey(route string) string { return "stopper " + route }

// StopperMade is the fingerprint that a stopper's shape carries.
func StopperMade(r knot.Route) string { return tighten.Fingerprint(r.Problem(), r.Settings(false)) }

// DrawStopper draws a stopper up.
func DrawStopper(ctx context.Context, r knot.Route) (shapes.Shape, error) {
	drawn, err := r.DrawUp(ctx, r.Settings(false))
	if err != nil {
		return shapes.Shape{}, err
	}
	return shapes.Shape{Gap: drawn.Gap, Strands: [][]r3.Vec{drawn.Strands[0].Points}, Made: StopperMade(r)}, nil
}

// stopperSizes are the diameters of the stoppers as balls of the same room, in
// cord diameters.
var stopperSizes = sync.OnceValue(func() []float64 {
	var out []float64
	for _, s := range stoppers {
		shape := embedded()[StopperKey(s.route)]
		size := 0.0
		if len(shape.Strands) > 0 {
			size = room(shape.Strands[0])
		}
		if s.cords > 1 {
			size *= math.Sqrt(s.cords / 0.8) // a bundle of n cords is sqrt(n/0.8) thick
		}
		out = append(out, size)
	}
	return out
})

// room is the diameter of the ball that takes as much room as a knot, without
// the ends that lead straight away from it: the mean of its three extents.
func room(pts []r3.Vec) float64 {
	var knotted []r3.Vec
	for _, k := range knottedOf(pts) {
		knotted = append(knotted, pts[k])
	}
	if len(knotted) == 0 {
		return 1
	}
	b := curve.Curve{Points: knotted}.Box()
	d := r3.Sub(b.Max, b.Min)
	return math.Cbrt((d.X + 1) * (d.Y + 1) * (d.Z + 1))
}

// knottedOf are the points of a knot that touch another part of it.
func knottedOf(pts []r3.Vec) []int {
	var out []int
	c := curve.Curve{Points: pts}
	step := c.Length() / float64(len(pts)-1)
	for i, a := range pts {
		for j, b := range pts {
			if math.Abs(float64(i-j))*step > math.Pi/2 && r3.Norm(r3.Sub(a, b)) < 1.2 {
				out = append(out, i)
				break
			}
		}
	}
	return out
}

// StopperPaths are the paths of the two cords through the stopper that joins them,
// mm, about the middle of the core, each from where it begins to where it leaves
// the knot; nil where the core is no stopper.
func (b Ball) StopperPaths() [][]r3.Vec {
	for i, s := range stoppers {
		if s.name != b.StopperKnot {
			continue
		}
		pts := embedded()[StopperKey(s.route)].Strands[0]
		knotted := knottedOf(pts)
		lo, hi := knotted[0], knotted[len(knotted)-1]
		middle := r3.Vec{}
		for _, k := range knotted {
			middle = r3.Add(middle, r3.Scale(1/float64(len(knotted)), pts[k]))
		}
		scale := b.Core.DiameterMM / stopperSizes()[i]
		if s.cords > 1 {
			scale *= math.Sqrt(s.cords / 0.8)
		}
		part := func(from, to int, off float64) []r3.Vec {
			step := 1
			if to < from {
				step = -1
			}
			var out []r3.Vec
			for k := from; k != to+step; k += step {
				v := r3.Scale(scale, r3.Sub(pts[k], middle))
				out = append(out, r3.Vec{X: v.X, Y: v.Y, Z: v.Z + off})
			}
			return out
		}
		if s.cords > 1 { // both go through it, side by side
			d := b.Cord.Hard() / 2
			return [][]r3.Vec{part(lo, hi, -d), part(lo, hi, d)}
		}
		half := (lo + hi) / 2 // the join lies in the middle of the knot
		return [][]r3.Vec{part(half, lo, 0), part(half, hi, 0)}
	}
	return nil
}

// stopperFor is the stopper that suits a range of cores best, and its size, mm.
func stopperFor(c Cord, r Range) (name string, mm float64) {
	best := math.Inf(1)
	for i, s := range stopperSizes() {
		size := s * c.Hard()
		off := math.Max(math.Max(r.LeastMM-size, size-r.MostMM), 0)
		if off < best {
			best, name, mm = off, stoppers[i].name, size
		}
	}
	return name, mm
}
