package knot

import (
	"context"
	_ "embed" // the shapes drawn up at build time
	"fmt"
	"math"
	"sync"

	"nimblebight/core/curve"
	"nimblebight/core/shape"
	"nimblebight/core/tighten"
)

//go:generate go run ./gen

// Shape is a knot drawn up, in diameters of its first strand.
type Shape = shape.Shape

//go:embed drawn.bin
var drawnBin []byte

var embedded = sync.OnceValue(func() map[string]Shape {
	m, err := shape.Unpack(drawnBin)
	if err != nil {
		panic("knot: the embedded shapes cannot be read: run go generate ./core/knot: " + err.Error())
	}
	return m
})

// drawn gives the shape of a problem that is drawn up at build time.
func drawn(key string, _ func() tighten.Problem) (Shape, error) {
	if s, ok := embedded()[key]; ok {
		return s, nil
	}
	return Shape{}, fmt.Errorf("the shape %q is not embedded: run go generate ./core/knot", key)
}

// DrawUp draws a problem up, as the shapes that are embedded were.
func DrawUp(ctx context.Context, p tighten.Problem, set tighten.Settings) (Shape, error) {
	r, err := tighten.Draw(ctx, p, set)
	if err != nil {
		return Shape{}, err
	}
	s := Shape{Pitch: r.Cell.Pitch, Twist: r.Cell.Twist, Gap: r.Gap}
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
func anchored(s Shape, c tighten.Cell) [][]Vec {
	const cells = 3
	type turn struct {
		at int
		y  float64
	}
	var threads [2][]Vec
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
	out := make([][]Vec, 2)
	for i, pts := range s.Strands {
		out[i] = append([]Vec{}, threads[i][from[i]:from[i]+len(pts)]...)
	}
	return out
}

// Generated names the shapes that are embedded, each with its problem.
func Generated() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, t := range familyThick {
		for _, n := range familyCount {
			if inFamily(n, t) {
				key, p := flatCell(1, same(n, t))
				out[key] = p()
			}
		}
	}
	unequalProblems(out)
	for _, t := range spiralThick {
		for n := 1; n <= mostSpiral; n++ {
			if inSpirals(n, t) {
				key, p := spiralCell(1, same(n, t))
				out[key] = p()
			}
		}
	}
	for _, t := range spiralPairs {
		key, p := pairCell(t)
		out[key] = p()
	}
	for _, d := range headBars {
		key, p := headOn(d)
		out[key] = p()
	}
	for _, d := range berryFillers {
		for squares := 2; squares <= 3; squares++ {
			key, p := berryRoute(squares, d)
			out[key] = p()
		}
	}
	out["overhand"] = overhandRoute()
	out["snake"] = snakeCell()
	for _, d := range legCores {
		key, p := overhandRound(d)
		out[key] = p()
	}
	for _, d := range hitchFillers {
		key, p := hitchOver(d)
		out[key] = p()
	}
	return out
}

// asCurve is a strand of a shape as an open curve.
func asCurve(pts []Vec) curve.Curve { return curve.Curve{Points: pts} }

// even takes a ratio of diameters that two scales would not tell from one as
// one.
func even(r float64) float64 {
	if math.Abs(r-1) < 0.03 {
		return 1
	}
	return r
}

// notch rounds a ratio of diameters up to the next fiftieth, so that nearly
// equal cords share a shape that is drawn up for them and none is drawn too
// thin.
func notch(r float64) float64 { return math.Ceil(even(r)*50-1e-6) / 50 }

// ShapesDigest names the embedded shapes: 16 hexadecimal digits.
func ShapesDigest() string { return shape.Digest(drawnBin) }
