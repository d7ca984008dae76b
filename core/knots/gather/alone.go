package gather

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// aloneTurns are those of the wrap by which one learns it: one turn is led like another.
const aloneTurns = 3

// alone is a wrap as it is tied round one strand, with the end through the eye and before the
// pull, diameters: that strand, and the cord. It is constructed: an eye along the strand, turns
// from the top down, the end up through the eye from behind; then what touches is parted.
func alone() ([]curve.Curve, error) {
	const leg, aside, face, radius, middle, first = 0.55, 1.6, 1.05, 1.8, 0.5, 20.0
	const low = aloneTurns + 1.2 // where the eye comes out below the turns
	at := func(x, y, z float64) r3.Vec { return r3.Vec{X: x, Y: y, Z: z} }
	way := []r3.Vec{at(-aside, -6, face), at(-aside, -4, face), at(-aside, -2.5, face), at(-leg, -0.5, face), at(-leg, low/2, face), at(-leg, low, face),
		at(-1.2, low+1.2, face), at(-0.9, low+2.5, face), at(0, low+3.1, face), at(0.9, low+2.5, face), at(1.2, low+1.2, face),
		at(leg, low, face), at(leg, low/2, face), at(leg, 0.2, face), at(0.9, -0.7, 1.2)}
	for k := 0; k <= 12*aloneTurns; k++ {
		s, c := math.Sincos((first + 30*float64(k)) * math.Pi / 180)
		way = append(way, at(radius*c, 0.4+float64(k)/12, middle+radius*s))
	}
	way = append(way, at(2.0, low+0.6, 0.6), at(1.6, low+1.6, -0.2), at(1.0, low+2.0, -0.3), at(0.5, low+1.8, 0.9), at(0.1, low+2.2, 1.6), at(0, low+3.2, 2.1),
		at(aside/2, low+4.4, 1.6), at(aside, low+6, face), at(aside, low+8, face), at(aside, low+10, face))
	strand := []r3.Vec{at(0, -6, 0), at(0, low+10, 0)}
	parted, gap := knot.Parted([]tighten.Strand{{Route: curve.Spline(way, false).Points, Diameter: 1}}, tighten.Strand{Route: strand, Diameter: 1})
	if gap < 0.95 {
		return nil, fmt.Errorf("a wrap of %d turns leaves %.2f of a diameter between its turns", aloneTurns, gap)
	}
	return []curve.Curve{{Points: strand}, {Points: parted[0]}}, nil
}
