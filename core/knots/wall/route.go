package wall

import "nimblebight/core/knots/ring"

// once is the way of the first of n strands: out over the next one's foot, round outside
// it, under its bight, up inside that. s is the step from strand to strand, degrees.
func once(n int) []ring.At {
	s, b, q := 360/float64(n), ring.Stands(n), ring.Stands(n)-0.75
	return []ring.At{
		{R: b, Y: -14}, {R: b, Y: -3.5}, {R: 0.9 + q, Y: -0.6}, {R: 1.7 + q, Degrees: 0.13 * s, Y: 0.35}, {R: 2.5 + q, Degrees: 0.5 * s, Y: 0.45},
		{R: 3 + q, Degrees: 0.89 * s}, {R: 3 + q, Degrees: 1.24 * s, Y: -0.7}, {R: 2.3 + q, Degrees: 1.56 * s, Y: -0.8}, {R: 1.3 + q, Degrees: up(1) * s, Y: -0.1},
		{R: b + 0.15, Degrees: up(1) * s, Y: 1.2}, {R: b, Degrees: up(1) * s, Y: 4}, {R: b, Degrees: up(1) * s, Y: 14},
	}
}

// twice goes on, once round, beside the strand two steps on: over the next bight, round
// outside and below it, under the strand three steps on and up inside its bight.
func twice(n int) []ring.At {
	s, b, q := 360/float64(n), ring.Stands(n), ring.Stands(n)-0.75
	way := once(n)[:8]
	for _, a := range []ring.At{
		{R: 1.9, Degrees: 1.74, Y: -0.1}, {R: 2.15, Degrees: 1.9, Y: 0.8}, {R: 2.9, Degrees: 2.15, Y: 1.15}, {R: 3.5, Degrees: 2.5, Y: 0.75},
		{R: 4, Degrees: 2.9, Y: -0.2}, {R: 4.1, Degrees: 3.2, Y: -1.2}, {R: 3.6, Degrees: 3.42, Y: -1.9}, {R: 2.6, Degrees: 3.55, Y: -2.05},
		{R: 1.7, Degrees: 3.55, Y: -1.6}, {R: 1.2, Degrees: 3.5, Y: -0.4},
	} {
		way = append(way, ring.At{R: a.R + q, Degrees: a.Degrees * s, Y: a.Y})
	}
	return append(way, ring.At{R: b + 0.45, Degrees: up(2) * s, Y: 0.9}, ring.At{R: b + 0.1, Degrees: up(2) * s, Y: 2.5}, ring.At{R: b, Degrees: up(2) * s, Y: 5}, ring.At{R: b, Degrees: up(2) * s, Y: 14})
}
