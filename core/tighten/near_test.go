package tighten

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"
)

// ballOf is n points spread evenly through a ball in which each has about as many
// near it as a link of a tight knot has.
func ballOf(n int, r *rand.Rand) []r3.Vec {
	side := cube(float64(n) / 4.5)
	out := make([]r3.Vec, n)
	for i := range out {
		out[i] = r3.Vec{X: side * r.Float64(), Y: side * r.Float64(), Z: side * r.Float64()}
	}
	return out
}

func cube(v float64) float64 {
	x := v
	for range 60 {
		x -= (x*x*x - v) / (3 * x * x)
	}
	return x
}

// brute is what the grid is held against.
func brute(ps []r3.Vec, reach float64) [][2]int {
	var out [][2]int
	for i, p := range ps {
		for j := i + 1; j < len(ps); j++ {
			if r3.Norm(r3.Sub(ps[j], p)) <= reach {
				out = append(out, [2]int{i, j})
			}
		}
	}
	return out
}

func gridded(ps []r3.Vec, reach float64) [][2]int {
	var out [][2]int
	g := newNear(ps, reach)
	for i, p := range ps {
		for _, j := range g.of(p, i+1) {
			if r3.Norm(r3.Sub(ps[j], p)) <= reach {
				out = append(out, [2]int{i, j})
			}
		}
	}
	return out
}

func TestTheGridFindsWhatLookingAtAllFinds(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 1))
	for _, n := range []int{1, 2, 30, 400} {
		for _, reach := range []float64{0.05, 0.7, 1.6, 40} {
			ps := ballOf(n, r)
			for i := range ps { // on both sides of zero
				ps[i].X -= 1
			}
			if a, b := brute(ps, reach), gridded(ps, reach); !slices.Equal(a, b) {
				t.Errorf("%d points, reach %g: %d pairs, the grid finds %d", n, reach, len(a), len(b))
			}
		}
	}
}

func BenchmarkContactSearch(b *testing.B) {
	for _, n := range []int{100, 1000, 10000} {
		ps := ballOf(n, rand.New(rand.NewPCG(7, 2)))
		b.Run(fmt.Sprintf("grid/%d", n), func(b *testing.B) {
			for b.Loop() {
				gridded(ps, 1.6)
			}
		})
		b.Run(fmt.Sprintf("brute/%d", n), func(b *testing.B) {
			for b.Loop() {
				brute(ps, 1.6)
			}
		})
	}
}
