package knot

import (
	"math"

	"nimblebight/core/tighten"
)

// Two-strand diamond knot (knife lanyard knot): a carrick bend with the ends
// leaving at opposite corners; each end then goes on round the outside past the
// next standing part and up through the middle.
//
// Right: the ends leave at opposite corners of the bend. Wrong: on the same
// side; it will not come up. Drawn up with the loop held to length, slack
// worked towards the free ends.
func init() {
	addRoute(Route{
		Name: "two-strand-diamond", Family: "two strands", About: "a carrick bend, each end round the outside and up the middle",
		Problem: diamondRoute,
		Measure: beyond, Of: "cord beyond the straight, a strand", Published: 24.5, Share: 0.05,
	})
}

// diamondRoute lies in the plane across the work, standing parts from above
// (y below zero), ends leaving below.
func diamondRoute() tighten.Problem {
	const far = 14.0
	at := func(angle, r, y float64) Vec {
		s, c := math.Sincos(angle)
		return Vec{X: r * c, Y: y, Z: r * s}
	}
	half := []Vec{{X: 0.6, Y: -far}, {X: 0.9, Y: -6}, {X: 4, Y: -3}, {X: 5.2, Y: -0.7, Z: 0.1}}
	// The mat is a cover of three leads and four bights cut at two of them:
	// one strand runs from one cut to the other, over and under by turns.
	const n = 30
	for k := 1; k < n; k++ {
		t := 3 * math.Pi * float64(k) / n
		half = append(half, at(t, 3.4+1.6*math.Cos(4*t/3), -0.8*math.Sin(8*t/3)))
	}
	// Round the outside past the other standing part, under, up the middle.
	end := 3 * math.Pi
	half = append(half, at(end-0.1, 5.4, 0.7), at(end+0.12, 6.6, 0.1), at(end+0.5, 6.2, -1.3), at(end+0.8, 4.6, -2.3), at(end+0.9, 2.4, -2.7), at(end+0.9, 0.9, -2.3))
	half = append(half, at(end+0.9, 0.6, 0), at(end+0.9, 0.6, 4), at(end+0.9, 0.6, far))
	return tighten.Problem{Strands: []tighten.Strand{{Route: half, Diameter: 1}, {Route: turnRoute(half, math.Pi), Diameter: 1}}}
}
