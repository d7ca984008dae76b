package coil

import (
	"fmt"
	"math"

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
	const radius, aside, pitch, open = 1.05, 1.7, 1.15, 1.1
	at := func(x, y, z float64) r3.Vec { return r3.Vec{X: x, Y: y, Z: z} }
	way := []r3.Vec{at(-aside, -7, 0), at(-aside, -5, 0), at(-aside, -3, 0), at(-aside, -1, 0)}
	for k := 0; k <= 12*aloneTurns; k++ {
		s, c := math.Sincos((180 - 30*float64(k)) * math.Pi / 180)
		r, y := radius, pitch*float64(k)/12
		if last := float64(k) - 12*(aloneTurns-1); last > 0 { // the last turn is left open at the face
			r += open * math.Max(0, math.Sin(math.Pi*last/6))
			y += 0.5 * math.Min(1, last/3)
		}
		way = append(way, at(r*c, y, r*s))
	}
	low := way[len(way)-1].Y
	front := low - 0.75*pitch // of the last turn at the face
	way = append(way, at(-0.8, low+0.15, 0.75), at(-0.35, low-0.3, 1.05), at(0.1, front, 1.05), at(0.5, front-0.75, 1.3),
		at(1.6, front-0.9, 1.2), at(2.4, front, 0.8), at(2.5, front+1.2, 0.4), at(2.1, low+1.5, 0.2), at(aside, low+3, 0), at(aside, low+5, 0), at(aside, low+7, 0))
	standing := []r3.Vec{at(0, -7, 0), at(0, low+7, 0)}
	parted, gap := knot.Parted([]tighten.Strand{{Route: curve.Spline(way, false).Points, Diameter: 1}}, tighten.Strand{Route: standing, Diameter: 1})
	if gap < 0.95 {
		return nil, fmt.Errorf("a coil of %d turns leaves %.2f of a diameter between them", aloneTurns, gap)
	}
	return []curve.Curve{{Points: standing}, {Points: parted[0]}}, nil
}
