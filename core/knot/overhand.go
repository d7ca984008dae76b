package knot

import (
	"math"

	"nimblebight/core/tighten"
)

// Overhand and figure-eight knots in one strand: the stoppers that every cord
// worker knows.
//
// Overhand: the end round its own part and through the loop; three crossings.
// Figure-eight: half a turn more before it goes through; four crossings, comes
// undone more easily and stands a little larger.
func init() {
	addRoute(Route{
		Name: "overhand", Family: "stoppers", About: "the end round its own part and through the loop",
		Problem: func() tighten.Problem {
			trefoil := around(40, func(t float64) Vec {
				r := 2.6 + 1.2*math.Cos(3*t)
				return Vec{X: r * math.Cos(2*t+0.55), Y: r * math.Sin(2*t+0.55), Z: math.Sin(3 * t)}
			})
			return tighten.Problem{Strands: []tighten.Strand{{Route: openUp(trefoil, 14), Diameter: 1}}}
		},
		Measure: beyond, Of: "cord beyond the straight", Published: 10.2, Share: 0.03,
	})
	addRoute(Route{
		Name: "figure-eight-stopper", Family: "stoppers", About: "half a turn more than an overhand before it goes through",
		Problem: func() tighten.Problem {
			eight := around(56, func(t float64) Vec {
				r := 2.4 + 1.2*math.Cos(2*t)
				return Vec{X: r * math.Cos(3*t+0.3), Y: r * math.Sin(3*t+0.3), Z: math.Sin(4 * t)}
			})
			return tighten.Problem{Strands: []tighten.Strand{{Route: openUp(eight, 14), Diameter: 1}}}
		},
		Measure: beyond, Of: "cord beyond the straight", Published: 13.8, Share: 0.04,
	})
}
