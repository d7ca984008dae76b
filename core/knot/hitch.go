package knot

import (
	"math"

	"nimblebight/core/tighten"
)

// Double half hitch (clove hitch) over a filler laid across: in under the
// diagonal, round, the diagonal over both ends, round, out under.
//
// Right: the two ribs lie side by side and the strand comes and goes between
// them at the back. Wrong: the second turn on the same side of the first.
func init() {
	addRoute(Route{
		Name: "double-half-hitch", Family: "hitches", About: "one strand hitched twice over a filler of its own thickness",
		Problem: func() tighten.Problem { return hitchOver(1) },
		Measure: beyond, Of: "cord beyond the straight", Published: 10.1 + 5.9, Share: 0.06,
	})
}

// hitchOver is a double half hitch over a straight filler of the given
// diameter, along x.
func hitchOver(filler float64) tighten.Problem {
	r := filler/2 + 0.7
	at := func(x, degrees, out float64) Vec {
		s, c := math.Sincos(degrees * math.Pi / 180)
		return Vec{X: x, Y: -(r + out) * c, Z: (r + out) * s}
	}
	route := []Vec{
		{X: 0.55, Y: -12, Z: r}, {X: 0.55, Y: -4, Z: r}, at(0.5, 90, 0), at(0.8, 180, 0), at(1.1, 270, 0), at(1.3, 360, 0.1),
		at(1.4, 395, 0.6), at(0.8, 430, 1.4), at(0, 450, 1.6), at(-0.8, 470, 1.4), at(-1.4, 505, 0.6),
		at(-1.3, 540, 0.1), at(-1.1, 630, 0), at(-0.8, 720, 0), at(-0.5, 810, 0), {X: -0.55, Y: 4, Z: r}, {X: -0.55, Y: 12, Z: r},
	}
	return tighten.Problem{Strands: []tighten.Strand{{Route: route, Diameter: 1}},
		Bars: []tighten.Bar{{From: Vec{X: -40}, To: Vec{X: 40}, Diameter: filler}}}
}
