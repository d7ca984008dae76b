package sliding

import (
	"math"

	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// half is one half of the pair, on the other strand's standing part, which runs
// down the axis: down beside it, back up round both in so many full turns, then
// down inside the turns, between them and the standing part.
func half(turns int) tighten.Problem {
	const far = 14.0
	at := func(degrees, r, y float64) r3.Vec {
		s, c := math.Sincos(degrees * math.Pi / 180)
		return r3.Vec{X: r * c, Y: y, Z: r * s}
	}
	var end, standing []r3.Vec
	for y := -far; y <= 2; y += 4 {
		end = append(end, at(180, 1.1, y))
	}
	end = append(end, at(200, 1.8, 3))
	sweep := 120 + 360*float64(turns) // from the outside to beside the standing part
	n := int(sweep / 42)
	for k := range n {
		u := float64(k) / float64(n-1)
		end = append(end, at(230+sweep*u, 2.4, 2.6-5.2*u))
	}
	for y := -2.0; y <= far; y += 4 {
		end = append(end, at(60, 1.1, y))
	}
	for y := -far; y <= far; y += 2 {
		standing = append(standing, r3.Vec{Y: y})
	}
	return tighten.Problem{Strands: []tighten.Strand{{Route: standing, Diameter: 1}, {Route: end, Diameter: 1}}}
}
