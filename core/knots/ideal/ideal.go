// Package ideal holds the closed knots that the rope engine is proved on.
package ideal

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Knots and links without ends, tied by nobody and measured by many: the
// published least length over radius of each is what the rope engine is held
// against. The figures are those of the tables of ideal knots.
func init() {
	ideal := func(name, about string, lengthOverRadius float64, crossings, determinant int, strands func() []tighten.Strand) {
		knot.AddRoute(knot.Route{Name: name, Family: "ideal knots", About: about, Closed: true, Crossings: crossings, Determinant: determinant,
			Problem: func() tighten.Problem { return tighten.Problem{Strands: strands()} },
			Measure: func(r tighten.Result) float64 { return r.Length }, Of: "length", Published: lengthOverRadius / 2, Share: 0.005})
	}
	one := func(n int, f func(t float64) r3.Vec) func() []tighten.Strand {
		return func() []tighten.Strand { return []tighten.Strand{ringOf(n, f)} }
	}
	ideal("hopf-link", "two rings, each through the other", 25.13, 2, 2, func() []tighten.Strand {
		return []tighten.Strand{
			ringOf(16, func(t float64) r3.Vec { return r3.Vec{X: 2 * math.Cos(t), Y: 2 * math.Sin(t)} }),
			ringOf(16, func(t float64) r3.Vec { return r3.Vec{X: 2 + 2*math.Cos(t), Z: 2 * math.Sin(t)} }),
		}
	})
	ideal("trefoil", "an overhand with its ends joined", 32.74, 3, 3, one(60, torusKnot(2, 3)))
	ideal("figure-eight", "a figure-eight with its ends joined", 42.09, 4, 5, one(48, func(t float64) r3.Vec {
		r := 2 + math.Cos(2*t)
		return r3.Vec{X: r * math.Cos(3*t), Y: r * math.Sin(3*t), Z: math.Sin(4 * t)}
	}))
	ideal("cinquefoil", "a double overhand with its ends joined, 5_1", 47.20, 5, 5, one(60, torusKnot(2, 5)))
	ideal("three-twist", "the twist knot of three half turns, 5_2", 49.47, 5, 7, one(60, func(t float64) r3.Vec {
		return r3.Vec{X: 3 * math.Cos(2*t+0.2), Y: 3 * math.Cos(3*t+0.7), Z: 2 * math.Cos(7*t)}
	}))
	ideal("borromean-rings", "three rings, no two of them linked", 58.01, 6, 16, func() []tighten.Strand {
		return []tighten.Strand{
			ringOf(16, func(t float64) r3.Vec { return r3.Vec{X: 4 * math.Cos(t), Y: 2 * math.Sin(t)} }),
			ringOf(16, func(t float64) r3.Vec { return r3.Vec{Y: 4 * math.Cos(t), Z: 2 * math.Sin(t)} }),
			ringOf(16, func(t float64) r3.Vec { return r3.Vec{Z: 4 * math.Cos(t), X: 2 * math.Sin(t)} }),
		}
	})
}

func ringOf(n int, f func(t float64) r3.Vec) tighten.Strand {
	return tighten.Strand{Route: knot.Around(n, f), Closed: true, Diameter: 1}
}

// torusKnot winds p times round the axis and q times through the hole.
func torusKnot(p, q float64) func(t float64) r3.Vec {
	return func(t float64) r3.Vec {
		r := 2.5 + math.Cos(q*t)
		return r3.Vec{X: r * math.Cos(p*t), Y: r * math.Sin(p*t), Z: math.Sin(q * t)}
	}
}
