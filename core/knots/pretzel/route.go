package pretzel

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// lead is the strand that goes first, from the right: under the other one, up on
// the left, back over both standing parts, down and out. The other strand is the
// same turned half round: over that end, behind everything at the top, up from
// behind through the lower loop on the left of its own standing part, and out over
// the edge.
func lead() []r3.Vec {
	return []r3.Vec{
		{X: .8, Y: -16}, {X: .8, Y: -6}, {X: .8, Y: -2}, {X: .8}, {X: .5, Y: 1.1, Z: -.3}, {Y: 1.6, Z: -.6}, {X: -.9, Y: 2, Z: -.7},
		{X: -2.4, Y: 1.9, Z: -.4}, {X: -3.6, Y: .6}, {X: -3.3, Y: -1.4, Z: .3}, {X: -2, Y: -2.5, Z: .8}, {Y: -2.8, Z: 1.1},
		{X: 1.6, Y: -2.3, Z: 1}, {X: 2.4, Y: -1, Z: .6}, {X: 2.3, Y: .4, Z: .2}, {X: 2, Y: 1.7, Z: -.6}, {X: 1.8, Y: 3, Z: -.4},
		{X: 1.2, Y: 5}, {X: .8, Y: 9}, {X: .8, Y: 16},
	}
}

// pretzel is one knot.
func pretzel() tighten.Problem {
	a := lead()
	return tighten.Problem{Strands: []tighten.Strand{{Route: a, Diameter: 1}, {Route: knot.TurnRoute(a, math.Pi), Diameter: 1}}}
}

// row is one knot of a row tied close, the same strand first each time. It is free
// to turn: held from turning it did not come to rest.
func row() tighten.Problem {
	a := lead()
	a = append([]r3.Vec{{X: .8, Y: -3.6}}, a[3:len(a)-3]...)
	cell := tighten.Cell{Pitch: 7, FreeTwist: true}
	return tighten.Problem{Cell: &cell, Strands: []tighten.Strand{{Route: a, Diameter: 1, Next: 0}, {Route: knot.TurnRoute(a, math.Pi), Diameter: 1, Next: 1}}}
}
