// Package wall walls strands.
package wall

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Wall knot of four: each strand under its neighbour, coming up.
//
// Right: all four leave upwards at one height, a bight between each two.
// Wrong: one of them comes up outside its neighbour's bight.
func init() {
	knot.AddRoute(knot.Route{
		Name: "wall", Family: "four strands", About: "each of four strands under its neighbour and up",
		Problem: wallRoute,
		Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: 5.95, Share: 0.06,
	})
}

// wallRoute has its standing parts below and its ends leaving above: out over
// the next leg's foot, round outside it, under its bight, up inside that.
func wallRoute() tighten.Problem {
	const far = 14.0
	at := func(r, degrees, height float64) r3.Vec {
		s, c := math.Sincos(degrees * math.Pi / 180)
		return r3.Vec{X: r * c, Y: -height, Z: r * s}
	}
	strand := []r3.Vec{
		at(0.75, 0, -far), at(0.75, 0, -3.5), at(0.9, 0, -0.6), at(1.7, 12, 0.35), at(2.5, 45, 0.45), at(3.0, 80, 0), at(3.0, 112, -0.7),
		at(2.2, 140, -0.75), at(1.3, 150, -0.1), at(0.9, 150, 1.2), at(0.75, 150, 4), at(0.75, 150, far),
	}
	p := tighten.Problem{}
	for i := range 4 {
		p.Strands = append(p.Strands, tighten.Strand{Route: knot.TurnRoute(strand, -float64(i)*math.Pi/2), Diameter: 1})
	}
	return p
}
