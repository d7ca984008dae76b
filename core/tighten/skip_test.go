package tighten

import (
	"context"
	"math"
	"testing"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Passing over pairs that cannot meet yet changes nothing, to the last bit: a knot in the
// hand, alike strands and a ring of cells rest where they do when every pair is looked at.
func TestPassingOverPairsChangesNothing(t *testing.T) {
	around := func(from, to float64, n int) []r3.Vec {
		var out []r3.Vec
		for k := range n {
			a := 2 * math.Pi * (from + (to-from)*float64(k)/float64(n))
			s, c := math.Sincos(-a)
			r := 2.6 + 0.8*math.Cos(1.5*a)
			out = append(out, r3.Vec{X: r * c, Y: 1.2 * math.Sin(1.5*a), Z: r * s})
		}
		return out
	}
	clasp := []r3.Vec{{X: -0.7, Y: -9}, {X: -0.9, Y: 0.5}, {Y: 2}, {X: 0.9, Y: 0.5}, {X: 0.7, Y: -9}}
	var other []r3.Vec
	for _, v := range clasp {
		other = append(other, r3.Vec{X: -v.X, Y: -v.Y, Z: -v.X}) // half a turn about z, and aside
	}
	bar := []Bar{{From: r3.Vec{Y: -20}, To: r3.Vec{Y: 20}, Diameter: 2}}
	for name, p := range map[string]Problem{
		"a closed knot on a bar": {Bars: bar, Strands: []Strand{{Route: around(0, 2, 60), Diameter: 1, Closed: true}}},
		"a clasp":                {Strands: []Strand{{Route: clasp, Diameter: 1}, {Route: other, Diameter: 1}}},
		"a ring of cells":        {Bars: bar, Cell: &Cell{Around: 3, On: 2}, Strands: []Strand{{Route: around(0, 2.0/3, 20), Diameter: 1}}},
	} {
		rest := func(travel float64) *relaxer {
			var curves []curve.Curve
			for _, s := range p.Strands {
				curves = append(curves, curve.Spline(s.Route, s.Closed))
			}
			cell := Cell{}
			if p.Cell != nil {
				cell = p.Cell.ringed()
			}
			r := newRelaxer(p, curves, cell, 3)
			r.travel = travel // endless, nothing is passed over
			if err := r.relax(context.Background(), hardContact, 0, Settings{MaxSteps: 1500, Tolerance: 0.002}); err != nil {
				t.Fatal(err)
			}
			return r
		}
		quick, all := rest(0), rest(math.Inf(1))
		if quick.steps != all.steps || quick.residual != all.residual {
			t.Errorf("%s: %d steps to %g, with every pair looked at %d to %g", name, quick.steps, quick.residual, all.steps, all.residual)
		}
		for i, v := range quick.x {
			if v != all.x[i] {
				t.Fatalf("%s: node %d is at %v, with every pair looked at %v", name, i, v, all.x[i])
			}
		}
		over := 0
		for _, p := range quick.pairs {
			if p.until > quick.travel {
				over++
			}
		}
		if over == 0 {
			t.Errorf("%s: of %d pairs none is passed over", name, len(quick.pairs))
		}
	}
}
