package tighten_test

import (
	"context"
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// trefoilOn is a trefoil laid round a bar, two turns of it, from turn a to turn b.
func trefoilOn(a, b float64, n int) []r3.Vec {
	var out []r3.Vec
	for k := range n {
		t := 2 * math.Pi * (a + (b-a)*float64(k)/float64(n))
		s, c := math.Sincos(-t)
		r := 2.6 + 0.8*math.Cos(1.5*t)
		out = append(out, r3.Vec{X: r * c, Y: 1.2 * math.Sin(1.5*t), Z: r * s})
	}
	return out
}

// A ring of cells is the closed knot that they make: a third of a trefoil, closed round a
// bar, comes up as the whole one does.
func TestARingOfCellsIsTheClosedKnot(t *testing.T) {
	bar := []tighten.Bar{{From: r3.Vec{Y: -20}, To: r3.Vec{Y: 20}, Diameter: 2}}
	set := tighten.Settings{PerDiameter: []float64{4}}
	whole, err := tighten.DrawUp(context.Background(), tighten.Problem{Bars: bar, Strands: []tighten.Strand{{Route: trefoilOn(0, 2, 60), Diameter: 1, Closed: true}}}, set)
	if err != nil {
		t.Fatal(err)
	}
	p := tighten.Problem{Bars: bar, Cell: &tighten.Cell{Around: 3, On: 2}, Strands: []tighten.Strand{{Route: trefoilOn(0, 2.0/3, 20), Diameter: 1}}}
	third, err := tighten.DrawUp(context.Background(), p, set)
	if err != nil {
		t.Fatal(err)
	}
	if got, want := 3*third.Length, whole.Length; math.Abs(got/want-1) > 0.003 {
		t.Errorf("three cells take %.3f, the whole %.3f", got, want)
	}
	var ring []r3.Vec
	for k := range 3 {
		for _, v := range third.Strands[0].Points {
			ring = append(ring, tighten.Image(third.Cell, 2*k, v))
		}
	}
	closed := curve.Curve{Points: ring, Closed: true}
	q := tighten.Problem{Bars: bar, Strands: []tighten.Strand{{Route: ring, Diameter: 1, Closed: true}}}
	if gap := tighten.GapOf(q, []curve.Curve{closed}, tighten.Cell{}); gap < 0.99 {
		t.Errorf("put together the cells come within %.3f of one another", gap)
	}
}

// What cannot close to a ring is refused.
func TestARingThatDoesNotCloseIsRefused(t *testing.T) {
	good := tighten.Cell{Around: 3, On: 2}
	for name, change := range map[string]func(p *tighten.Problem){
		"of one cell":    func(p *tighten.Problem) { p.Cell.Around = 1 },
		"goes on none":   func(p *tighten.Problem) { p.Cell.On = 0 },
		"has a pitch":    func(p *tighten.Problem) { p.Cell.Pitch = 2 },
		"has a mirror":   func(p *tighten.Problem) { p.Cell.Mirror = true },
		"another strand": func(p *tighten.Problem) { p.Strands[0].Next, p.Strands[1].Next = 1, 0 },
	} {
		cell := good
		line := trefoilOn(0, 2.0/3, 20)
		p := tighten.Problem{Cell: &cell, Strands: []tighten.Strand{{Route: line, Diameter: 1}, {Route: line, Diameter: 1, Next: 1}}}
		change(&p)
		if _, err := tighten.DrawUp(context.Background(), p, tighten.Settings{}); err == nil {
			t.Errorf("a ring that %s was drawn up", name)
		}
	}
}
