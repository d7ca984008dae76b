package coil

import (
	"fmt"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// aloneTurns are those of the coil by which one learns it: the fewest that hold.
const aloneTurns = 4

// alone is a coil as it is wound with the ring above and the ball below, diameters: its standing
// part, and from the eye on the end, round it and through the last turn. It is constructed, and
// what touches is parted.
func alone() ([]curve.Curve, error) {
	const aside, pitch = 1.7, 1.15
	at := func(x, y, z float64) r3.Vec { return r3.Vec{X: x, Y: y, Z: z} }
	way := []r3.Vec{at(aside, -7, 0), at(aside, -5, 0), at(aside, -3, 0), at(aside, -1, 0)}
	// It is turned upside down.
	round, through := winding(aloneTurns, 1.05, pitch)
	for _, v := range slices.Concat(round, through) {
		way = append(way, at(-v.X, -v.Y, v.Z))
	}
	low := -round[len(round)-1].Y
	front := low - 0.75*pitch // of the last turn at the face
	way = append(way, at(-2.4, front, 0.8), at(-2.5, front+1.2, 0.4), at(-2.1, low+1.5, 0.2), at(-aside, low+3, 0), at(-aside, low+5, 0), at(-aside, low+7, 0))
	standing := []r3.Vec{at(0, -7, 0), at(0, low+7, 0)}
	parted, gap := knot.Parted([]tighten.Strand{{Route: curve.Spline(way, false).Points, Diameter: 1}}, tighten.Strand{Route: standing, Diameter: 1})
	if gap < 0.95 {
		return nil, fmt.Errorf("a coil of %d turns leaves %.2f of a diameter between them", aloneTurns, gap)
	}
	return []curve.Curve{{Points: standing}, {Points: parted[0]}}, nil
}
