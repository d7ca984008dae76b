// Package braid braids four strands round.
package braid

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Round braid of four: two strands wind to the left and two to the right, each
// over one and under one; always the same hand, left over right, then front
// and back.
func init() {
	knot.AddRoute(knot.Route{
		Name: "round-braid", Family: "four strands", About: "two strands to the left and two to the right, over one and under one", Sinnet: true,
		Problem: braidCell,
		Measure: func(r tighten.Result) float64 { return knot.PerStrand(r) / 2 }, Of: "a strand a crossing", Published: 2.38, Share: 0.06,
	})
}

// braidCell, pulled as a braider pulls, is half a turn of every strand: two crossings each.
func braidCell() tighten.Problem {
	const radius, wave, pitch = 1.5, 0.55, 3.6
	p := tighten.Problem{Cell: &tighten.Cell{Pitch: pitch, Push: -2.5}}
	for i := range 4 {
		way, turn, next := 1.0, float64(i)*math.Pi, 1-i
		if i >= 2 {
			way, turn, next = -1, float64(i-2)*math.Pi+0.0, 5-i
		}
		var route []r3.Vec
		for k := range 10 {
			t := math.Pi * (float64(k) + 0.5) / 10
			r := radius + way*wave*math.Cos(2*t)
			s, c := math.Sincos(way*t + turn)
			route = append(route, r3.Vec{X: r * c, Y: pitch * t / math.Pi, Z: r * s})
		}
		p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: 1, Next: next})
	}
	return p
}
