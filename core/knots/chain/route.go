package chain

import (
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// stitch is one loop of the chain, drawn through the one above it. The strand
// comes up from behind through the loop above, down the left of its own loop,
// round its foot, up the right of it, back through the loop above, and runs down
// behind to the next one.
func stitch() tighten.Problem {
	const p = 2.2
	return tighten.Problem{Cell: &tighten.Cell{Pitch: p}, Strands: []tighten.Strand{{Diameter: 1, Next: 0, Route: []r3.Vec{
		{X: -0.55, Y: -0.05, Z: 0.1}, {X: -0.65, Y: 0.7, Z: 1.05}, {X: -1, Y: 1.5, Z: 0.75}, {X: -1.6, Y: p - 0.1},
		{X: -1.1, Y: p + 0.95, Z: -0.05}, {Y: p + 1.3, Z: -0.1}, {X: 1.1, Y: p + 0.95, Z: -0.05},
		{X: 1.6, Y: p - 0.1}, {X: 1, Y: 1.5, Z: 0.75}, {X: 0.65, Y: 0.7, Z: 1.05}, {X: 0.55, Y: -0.05, Z: 0.1},
		{X: 0.5, Y: 0.15, Z: -0.85}, {X: 0.25, Y: 0.9, Z: -1.3}, {X: -0.25, Y: p - 0.7, Z: -1.2}, {X: -0.55, Y: p - 0.35, Z: -0.75},
	}}}}
}
