package knot

import (
	"nimblebight/core/tighten"
)

// Snake knot: each strand takes a turn round the other and is led through the
// loop that the other has just made; the work is turned over after each wrap.
//
// Right: the wraps lie close, each in the elbow of the one before. Makers
// differ in the first loop: over one strand, or round both.
func init() {
	addRoute(Route{
		Name: "snake-knot", Family: "two strands", About: "each strand round the other and through its last loop, by turns", Sinnet: true,
		Problem: snakeCell,
		Measure: perStrand, Of: "a strand a wrap", Published: 6.03, Share: 0.05, Height: 1.13,
	})
}

// snakeCell is one wrap. The thread is written over two of them: down through
// the other strand's loop, behind the other's standing part, round it and its
// tuck, up through the loop above, over that loop's edge and down outside it.
func snakeCell() tighten.Problem {
	const p = 2.2
	first := []Vec{ // the wrap, at level 0
		{X: 0.6, Y: -0.9 * p}, {X: 0.6, Y: -0.35 * p, Z: -0.2}, {X: 0, Y: 0, Z: -1}, {X: -1, Y: 0.08 * p, Z: -1.3},
		{X: -2.5, Y: 0.1 * p}, {X: -1.2, Y: 0.08 * p, Z: 1.3}, {X: 0.2, Y: -0.02 * p, Z: 1.1},
		{X: 1.3, Y: -0.35 * p, Z: 0.5}, {X: 1.6, Y: -0.9 * p}, {X: 1.9, Y: -1.2 * p},
	}
	second := []Vec{ // over the edge and down to the next but one
		{X: 2.7, Y: -1.3 * p}, {X: 3.6, Y: -1.0 * p}, {X: 3.7, Y: -0.4 * p}, {X: 2.9, Y: 0.15 * p}, {X: 1.5, Y: 0.45 * p},
	}
	cell := tighten.Cell{Pitch: p, Twist: 3.14159265}
	var back []Vec
	for _, v := range second {
		back = append(back, tighten.Image(cell, -1, v))
	}
	return tighten.Problem{Cell: &cell, Strands: []tighten.Strand{
		{Route: first, Diameter: 1, Next: 1}, {Route: back, Diameter: 1, Next: 0},
	}}
}
