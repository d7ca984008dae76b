// Package braid braids four strands round.
package braid

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a round braid.
type Settings struct {
	Start knot.Side `json:"start,omitempty" typed:"start" label:"first pair turns" default:"right"`
}

// Round braid of four: two strands wind to the left and two to the right, each over one
// and under one. Two that stand opposite each other are exchanged, then the other two;
// each pair always turns its own way.
//
// Right: two colours chase each other in steps all round. Wrong: both pairs turned one
// way; that is another braid, and it unlays.
func init() {
	knot.Add(knot.Knot{
		ID: "round-braid", Name: "round braid", Family: "in a ring",
		Held: "Clipped or in the vise, taut from above.", HoldTools: []string{"clip or vise"},
		OtherNames: []string{"four-strand round braid"},
		For:        "a slim round neck of four strands that is quickly made: lanyards, handles, drops between knots",
		Schools:    []knot.School{{Field: "start", Default: "right", Why: "either pair may be first; keep to it"}},
		Glyph:      "M9 2c0 5 6 5 6 10s-6 5-6 10M15 2c0 5-6 5-6 10s6 5 6 10",
		Repeats:    true,
		Places:     true,
		Settings:   Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 4, Most: 4}, Bundles: true}
		},
		Tie:    tie,
		Thumb:  &knot.Thumb{Works: 1.5},
		Sample: knot.Sample{Line: "mount A B, round-braid 5", Cords: 2, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "round-braid", Family: "in a ring", About: "two strands to the left and two to the right, over one and under one", Sinnet: true,
		Problem: braidCell,
		Measure: func(r tighten.Result) float64 { return knot.PerStrand(r) / 2 }, Of: "a strand a crossing", Published: 2.38, Share: 0.06,
	})
}

// next tells as which strand of the next half turn each goes on.
var next = []int{1, 0, 3, 2}

// braidCell, pulled as a braider pulls, is half a turn of every strand: two crossings each.
func braidCell() tighten.Problem {
	const radius, wave, pitch = 1.5, 0.55, 3.6
	p := tighten.Problem{Cell: &tighten.Cell{Pitch: pitch, Push: -2.5}}
	for i := range 4 {
		way, turn := 1.0, float64(i)*math.Pi
		if i >= 2 {
			way, turn = -1, float64(i-2)*math.Pi
		}
		var route []r3.Vec
		for k := range 10 {
			t := math.Pi * ((float64(k)+0.5)/10 + 0.25) // between two crossings
			r := radius + way*wave*math.Cos(2*t)
			s, c := math.Sincos(way*t + turn)
			route = append(route, r3.Vec{X: r * c, Y: pitch * (t/math.Pi - 0.25), Z: r * s})
		}
		p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: 1, Next: next[i]})
	}
	return p
}

// tie braids so many exchanges of both pairs, one below the other.
func tie(w knot.Work) (knot.Tied, error) {
	if err := ring.Takes(w, "a round braid", 4, 4); err != nil {
		return knot.Tied{}, err
	}
	shape, err := family.Shape("round braid", braidCell)
	if err != nil {
		return knot.Tied{}, err
	}
	t, _, as := ring.Sinnet(w, shape, false, next, max(1, w.Section.Count), 0)
	t.Moves = moves(as)
	if knot.Of[Settings](w.Section).Start == knot.Left {
		t.Mirror(4)
	}
	return t, nil
}

// moves are those of one exchange of both pairs. The second pair lies before the first one, as
// seen from the working end.
func moves(as []int) []move.Move {
	return []move.Move{
		{Strand: as[2], With: []int{as[3]}, Turn: string(knot.Clockwise), Naming: [][]int{{as[2], as[3]}, {as[0], as[1]}}, Text: "Exchange {strands 0}, which stand opposite each other: both half a turn {turn}.",
			End: true, Detail: "Look at the working end. They pass each other between {strands 1}.", Gate: "This pair always turns this way."},
		{Strand: as[0], With: []int{as[1]}, Turn: string(knot.Anticlockwise), Naming: [][]int{{as[0], as[1]}, {as[2], as[3]}}, Text: "Exchange {strands 0}: both half a turn {turn}, {over 0}.",
			Passes: []move.Pass{{How: move.Over, Of: []int{as[2], as[3]}}}, End: true,
			Detail: "They pass each other between the ends of {strands 1}. Draw down all four before the next exchange.", Gate: "This pair always turns the other way; each strand lies over one and under one."},
	}
}
