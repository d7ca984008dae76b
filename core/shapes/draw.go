package shapes

import (
	"context"
	"math"

	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// DrawUp draws a problem up, as the shapes that are embedded were.
func DrawUp(ctx context.Context, p tighten.Problem, set tighten.Settings) (Shape, error) {
	r, err := tighten.DrawUp(ctx, p, set)
	if err != nil {
		return Shape{}, err
	}
	s := Shape{Pitch: r.Cell.Pitch, Twist: r.Cell.Twist, Gap: r.Gap, Made: tighten.Fingerprint(p, set)}
	for _, c := range r.Strands {
		s.Strands = append(s.Strands, c.Points)
	}
	if p.Cell != nil && p.Cell.Mirror && len(s.Strands) == 2 {
		s.Strands = anchored(s, r.Cell)
	}
	return s, nil
}

// anchored gives the two workers of a flat row from where the first is
// farthest to the left and the second farthest to the right: while it is drawn
// up a thread may slide along itself.
func anchored(s Shape, c tighten.Cell) [][]r3.Vec {
	const cells = 3
	type turn struct {
		at int
		y  float64
	}
	var threads [2][]r3.Vec
	var turns [2][]turn
	for i, pts := range s.Strands {
		for k := -cells; k <= cells; k++ {
			for _, v := range pts {
				threads[i] = append(threads[i], tighten.Image(c, k, v))
			}
		}
		side := float64(2*i - 1) // the first to the left, the second to the right
		n := len(pts)
		for at := n; at+n < len(threads[i]); at++ {
			best := true // of all within half a cell
			for k := at - n/2; k <= at+n/2 && best; k++ {
				best = side*threads[i][k].X <= side*threads[i][at].X
			}
			if best {
				turns[i] = append(turns[i], turn{at, threads[i][at].Y})
			}
		}
	}
	least := math.Inf(1)
	var from [2]int
	for _, a := range turns[0] {
		for _, b := range turns[1] {
			if d := 10*math.Abs(a.y-b.y) + math.Abs(a.y); d < least {
				least, from = d, [2]int{a.at, b.at}
			}
		}
	}
	out := make([][]r3.Vec, 2)
	for i, pts := range s.Strands {
		out[i] = append([]r3.Vec{}, threads[i][from[i]:from[i]+len(pts)]...)
	}
	return out
}
