// Package twostrand ties the two-strand diamond.
package twostrand

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Through is what runs through the middle of the knot.
type Through string

// Nothing, or the inner two of four strands.
const (
	None  Through = "none"
	Inner Through = "inner"
)

// Choices are what may run through it.
func (Through) Choices() []string { return []string{string(None), string(Inner)} }

// Settings of a two-strand diamond.
type Settings struct {
	Through Through `json:"through,omitempty" typed:"through" label:"led through its middle" default:"none"`
}

// strands is how many strands such a knot takes.
func (s Settings) strands() int {
	if s.Through == Inner {
		return 4
	}
	return 2
}

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
		Schools: []knot.School{{Field: "strands", Default: "all of them", Why: "two strands tie it; lead others past it, or tie it on the middle two"},
			{Field: "through", Default: "none", Why: "with four strands the inner two may run through its middle: the ends' side then shows a clear ring of four parts"}},
		Glyph:    "M9 2v4M15 2v4M12 5l5 4v6l-5 4-5-4V9zM7 9l10 6M17 9L7 15M11 19v3M13 19v3",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms: func(s knot.Section) knot.Terms {
			n := knot.Of[Settings](s).strands()
			return knot.Terms{Takes: knot.Takes{Least: n, Most: n}, Bundles: n > 2}
		},
		Tie:    tie,
		Sample: knot.Sample{Line: "mount A, gap 14mm, two-strand-diamond", Cords: 1, Section: 2},
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
	set := knot.Of[Settings](w.Section)
	if n := len(w.Strands); n != set.strands() {
		r := &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a two-strand diamond takes two", knot.Strands(n))}
		switch {
		case n == 4:
			r.Field, r.Why = "through", "tied with 4 strands; two tie it, and the inner two may run through its middle"
			r.Set, r.Label = Inner, "Lead the inner two through"
		case set.Through == Inner:
			r.Field, r.Why = "through", fmt.Sprintf("tied with %s; with the inner two led through it takes four", knot.Strands(n))
			r.Set, r.Label = None, "Lead nothing through"
		}
		return knot.Tied{}, r
	}
	t, err := knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) { return tieOne(w, set.Through) })
	t.Workers = []int{0, len(w.Strands) - 1}
	return t, err
}

// tieOne lays the drawn-up knot between where its strands leave the way straight
// down and where both run straight down again. The outermost strands tie it.
func tieOne(w knot.Work, through Through) (knot.Tied, error) {
	name, route := "two-strand diamond", diamondRoute
	if through == Inner {
		name, route = "through", throughRoute
	}
	shape, err := family.Shape(name, route)
	if err != nil {
		return knot.Tied{}, err
	}
	d := 0.0
	for _, l := range w.Strands {
		d = math.Max(d, l.Diameter)
	}
	laid := knot.Lay(shape.Strands, d)
	t := knot.Tied{Loose: true, Snug: true, AtEnd: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Paths: laid.Paths, Order: laid.Order}
	last := len(w.Strands) - 1
	t.Moves = moves(0, last)
	if through == Inner {
		t.Moves = slices.Insert(t.Moves, 2, move.Move{Strand: -1, Naming: [][]int{knot.Identity(len(w.Strands))[1:last]},
			Text: "Lead {strands 0} down through the middle of the bend, side by side.", Detail: "Before anything is drawn up.", Gate: "The bend lies round them; none of its parts runs between them."})
	}
	// They are laid as the route lays them, its straight ends aside; drawn up, the
	// parts lie over one another.
	for _, of := range laid.Of {
		s := route().Strands[of].Route
		if of < 2 {
			s = s[2 : len(s)-2]
		}
		t.Flat = append(t.Flat, knot.Path{Points: curve.Spline(s, false).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, v) }).Points})
	}
	return t, nil
}

// moves are those of one diamond by its two strands, as seen from the side of its ends. Along the bend
// each strand meets the other, itself, the other four times, itself and the other.
func moves(left, right int) []move.Move {
	by := func(me, other int) []move.Pass {
		var out []move.Pass
		for k, of := range []int{other, me, other, other, other, other, me, other} {
			out = append(out, move.Pass{How: move.How(k%2 == 1), Of: []int{of}})
		}
		return out
	}
	end := func(other int) []move.Pass {
		return []move.Pass{{How: move.Under, Of: []int{other}}}
	}
	out := []move.Move{
		{Strand: left, End: true, Text: "Lay {me} in a loop, its end leading away from you.", Detail: "Hold the loop above the knot to its length. From here on look at it from the side of its ends."},
		{Strand: right, End: true, Passes: by(right, left), Naming: [][]int{{left}},
			Text: "Lead {me} through it to a carrick bend: {over 0}, {above 1} itself, {over 2}, {over 3}, and on by turns.",
			Gate: "Eight crossings, over and under by turns; the ends leave at opposite corners."},
		{Strand: left, End: true, Passes: end(right), Text: "Lead the end of {me} on round the outside, past the other's standing part, in {above 0} everything and up through the middle.",
			Gate: "It lies outside the standing part before it goes in."},
		{Strand: right, End: true, Passes: end(left), Text: "Do the same with the end of {me}: round the outside, past the other's standing part, in {above 0} everything, up through the same hole.",
			Gate: "Both ends come out of the same hole; four parts stand round it."},
	}
	return append(out, move.Rounds(out, 3, "the loop")...)
}
