// Package twostrand ties the two-strand diamond.
package twostrand

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Two-strand diamond knot (knife lanyard knot): a carrick bend with the ends
// leaving at opposite corners; each end then goes on round the outside past the
// next standing part and up through the middle.
//
// Right: the ends leave at opposite corners of the bend. Wrong: on the same
// side; it will not come up. Drawn up with the loop held to length, slack
// worked towards the free ends.
func init() {
	knot.Add(knot.Knot{
		ID: "two-strand-diamond", Name: "two-strand diamond", Family: "two strands",
		OtherNames: []string{"knife lanyard knot", "lanyard knot", "diamond knot"},
		For:        "one knot that holds two strands together: knife lanyards, pulls, the end of a loop",
		Schools:    []knot.School{{Field: "strands", Default: "all of them", Why: "two strands tie it; lead others past it, or tie it on the middle two"}},
		Glyph:      "M9 2v4M15 2v4M12 5l5 4v6l-5 4-5-4V9zM7 9l10 6M17 9L7 15M11 19v3M13 19v3",
		Repeats:    true,
		Places:     true,
		Settings:   struct{}{},
		Terms:      func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 2, Most: 2}} },
		Tie:        tie,
		Sample:     knot.Sample{Line: "mount A, gap 14mm, two-strand-diamond", Cords: 1, Section: 2},
	})
	knot.AddRoute(knot.Route{
		Name: "two-strand-diamond", Family: "two strands", About: "a carrick bend, each end round the outside and up the middle",
		Problem: diamondRoute,
		Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: 24.5, Share: 0.05, Determinant: 105,
	})
}

// diamondRoute lies in the plane across the work, standing parts from above
// (y below zero), ends leaving below.
func diamondRoute() tighten.Problem {
	half := diamondHalf()
	return tighten.Problem{Strands: []tighten.Strand{{Route: half, Diameter: 1}, {Route: knot.TurnRoute(half, math.Pi), Diameter: 1}}}
}

// diamondHalf is one of its strands; the other is that turned half round.
func diamondHalf() []r3.Vec {
	const far = 14.0
	at := func(angle, r, y float64) r3.Vec {
		s, c := math.Sincos(angle)
		return r3.Vec{X: r * c, Y: y, Z: r * s}
	}
	half := []r3.Vec{{X: 0.6, Y: -far}, {X: 0.9, Y: -6}, {X: 4, Y: -3}, {X: 5.2, Y: -0.7, Z: 0.1}}
	// The mat is a cover of three leads and four bights cut at two of them:
	// one strand runs from one cut to the other, over and under by turns.
	const n = 30
	for k := 1; k < n; k++ {
		t := 3 * math.Pi * float64(k) / n
		half = append(half, at(t, 3.4+1.6*math.Cos(4*t/3), -0.8*math.Sin(8*t/3)))
	}
	// Round the outside past the other standing part, under, up the middle.
	end := 3 * math.Pi
	half = append(half, at(end-0.1, 5.4, 0.7), at(end+0.12, 6.6, 0.1), at(end+0.5, 6.2, -1.3), at(end+0.8, 4.6, -2.3), at(end+0.9, 2.4, -2.7), at(end+0.9, 0.9, -2.3))
	return append(half, at(end+0.9, 0.6, 0), at(end+0.9, 0.6, 4), at(end+0.9, 0.6, far))
}

// tie ties as many as the section counts, one under the other.
func tie(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 2 {
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %d strands; a two-strand diamond takes two", n)}
	}
	t, err := knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) { return tieOne(w) })
	t.Workers = []int{0, 1}
	return t, err
}

// tieOne lays the drawn-up knot between where its strands leave the way straight
// down and where both run straight down again.
func tieOne(w knot.Work) (knot.Tied, error) {
	shape, err := family.Shape("two-strand diamond", diamondRoute)
	if err != nil {
		return knot.Tied{}, err
	}
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	laid := knot.Lay(shape.Strands, d)
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Paths: laid.Paths, Order: laid.Order}
	t.Moves = moves()
	// They are laid as the route lays them, its straight ends aside; drawn up, the
	// parts lie over one another.
	t.Flat = make([]knot.Path, 2)
	for i, of := range laid.Of {
		s := diamondRoute().Strands[of]
		t.Flat[i] = knot.Path{Points: curve.Spline(s.Route[2:len(s.Route)-2], false).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, v) }).Points}
	}
	return t, nil
}

// moves are those of one diamond, as seen from the side of its ends. Along the bend
// each strand meets the other, itself, the other four times, itself and the other.
func moves() []move.Move {
	by := func(me int) []move.Pass {
		other := 1 - me
		var out []move.Pass
		for k, of := range []int{other, me, other, other, other, other, me, other} {
			out = append(out, move.Pass{How: move.How(k%2 == 1), Of: []int{of}})
		}
		return out
	}
	end := func(me int) []move.Pass {
		return []move.Pass{{How: move.Under, Of: []int{1 - me}}}
	}
	return []move.Move{
		{Strand: 0, End: true, Text: "Lay {me} in a loop, its end leading away from you.", Detail: "Hold the loop above the knot to its length. From here on look at it from the side of its ends."},
		{Strand: 1, End: true, Passes: by(1), Naming: [][]int{{0}},
			Text: "Lead {me} through it to a carrick bend: {over 0}, {above 1} itself, {over 2}, {over 3}, and on by turns.",
			Gate: "Eight crossings, over and under by turns; the ends leave at opposite corners."},
		{Strand: 0, End: true, Passes: end(0), Text: "Lead the end of {me} on round the outside, past the other's standing part, in {above 0} everything and up through the middle.",
			Gate: "It lies outside the standing part before it goes in."},
		{Strand: 1, End: true, Passes: end(1), Text: "Do the same with the end of {me}: round the outside, past the other's standing part, in {above 0} everything, up through the same hole.",
			Detail: "Work the slack from the loop towards the ends, strand by strand, in two or three rounds; pull hard only in the last.",
			Gate:   "Both ends come out of the same hole; four parts stand round it."},
	}
}
