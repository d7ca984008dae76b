// Package switching ties square knots between which workers and fillers change
// places.
package switching

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/knots/row"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of switch knots.
type Settings struct {
	GapMM float64   `json:"gap_mm,omitempty" typed:"gap" label:"gap" most:"500" needed:"yes" begin:"8"`
	Start knot.Side `json:"start,omitempty" typed:"start" label:"starts" default:"left"`
}

// Switch knot (alternating square knot): after each square knot workers and
// fillers change places, with a short gap in which the cords are seen to cross.
//
// Right: in every gap the two cords of a side cross, the one that has worked in
// front. Wrong: a gap in which they hang side by side; the same cords go on
// working and run out first.
//
// Makers differ in the length of the gap; two diameters show the crossing.
func init() {
	knot.Add(knot.Knot{
		ID: "switch-knot", Name: "switch knot", Family: "flat and spiral sinnets",
		OtherNames: []string{"alternating square knot", "switched square knot"},
		For:        "light sinnets that use all four cords alike",
		Repeats:    true,
		Schools: []knot.School{
			{Field: "gap_mm", Default: "8mm", Why: "two diameters of a common cord: long enough to show the crossing, short enough to hold its shape"},
			{Field: "start", Default: "left", Why: "as for the square knot"},
		},
		Glyph:    "M4 2v4l16 3v3L8 18v4M20 2v4L4 9v3l12 6v4M8 2v10l-4 6v4M16 2v10l4 6v4",
		Places:   true,
		Settings: Settings{},
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 4, Most: 4}, BareMM: knot.Of[Settings](s).GapMM}
		},
		Tie:    tieSwitch,
		Halves: halves,
		Wrong:  wrong,
		Sample: knot.Sample{Line: "mount A B, switch-knot 2", Cords: 2, Section: 1},
	})
}

// leastGap is how long a gap must be for cords to change places in it, in diameters of the
// thickest.
const leastGap = 1.2

func tieSwitch(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 4 {
		r := &knot.Refused{Field: "strands", Why: fmt.Sprintf("a switch knot changes two workers with two fillers, so it has four strands; it has %d", n)}
		if n > 4 {
			r.Set, r.Label = knot.Numbered(1, 4), "Take the first four"
		}
		return knot.Tied{}, r
	}
	set := knot.Of[Settings](w.Section)
	gap := set.GapMM
	if gap == 0 {
		gap = 8
	}
	t, err := knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) {
		w.Section.Count = 1
		one, err := row.Tie(w, 2, set.Start)
		if err != nil {
			return one, err
		}
		// Outer cords go in, inner ones out; who has worked passes in front.
		now := make([]knot.Strand, 4)
		var from []r3.Vec
		thick := 0.0
		for place, i := range one.Order {
			now[place] = w.Strands[i]
			p := one.Paths[i].Points
			from = append(from, p[len(p)-1])
			thick = math.Max(thick, w.Strands[i].Diameter)
		}
		if gap < leastGap*thick {
			return one, &knot.Refused{Field: "gap_mm", Why: fmt.Sprintf("the gap is %.1f mm, and cords %.1f mm thick need %.1f mm to change places", gap, thick, leastGap*thick), Set: math.Ceil(leastGap * thick)}
		}
		in, out := from[1], from[0]
		cross := knot.Tied{Height: gap, Gap: 1, Order: []int{1, 0, 3, 2}}
		for place, a := range from {
			a.Y = 0
			to, z := out, -0.62*now[place].Diameter
			if place == 0 || place == 3 {
				to, z = in, 0.62*now[place].Diameter
			}
			x := math.Abs(to.X)
			if place > 1 {
				x = math.Abs(x)
			} else {
				x = -x
			}
			z *= 1.02
			// Straight out of the knot, across in the middle of the gap.
			pts := []r3.Vec{a}
			for k := 1; k < 8; k++ {
				u := float64(k) / 8
				e := u * u * (3 - 2*u)
				bulge := math.Sin(math.Pi * u)
				pts = append(pts, r3.Vec{X: a.X + (x-a.X)*e, Y: gap * u, Z: a.Z*(1-e) + z*bulge})
			}
			cross.Paths = append(cross.Paths, knot.Path{Points: append(pts, r3.Vec{X: x, Y: gap})})
		}
		worked := slices.Clone(one.Order) // which strand is where before the gap
		cross.Part(now)
		one.Below(cross)
		one.Row = false
		for i := range one.Paths {
			for k, l := range one.Paths[i].Lies {
				if l == knot.Knotted {
					one.Paths[i].Lies[k] = knot.Snug
				}
			}
		}
		// Who has worked goes in, over who was tied over on that side.
		at := worked
		one.Moves = append(one.Moves,
			move.Move{Strand: at[0], From: move.Left, Order: at, Passes: []move.Pass{{How: move.Over, Of: []int{at[1]}}},
				Text: "Leave {length} bare; {me}, at the {from}, goes in, {front 0}, and that one out."},
			move.Move{Strand: at[3], From: move.Right, Order: at, Passes: []move.Pass{{How: move.Over, Of: []int{at[2]}}},
				Text: "{me}, at the {from}, goes in, {front 0}, and that one out.", Detail: "The cords that were tied over now do the tying.",
				Gate: "The cords cross in the gap on both sides."})
		return one, nil
	})
	if err != nil {
		return t, err
	}
	t.HalfKnots, t.Clear, t.Row = false, 0, false
	t.LengthMM = set.GapMM
	t.Workers = []int{0, 1, 2, 3}
	if t.Repeats == 1 {
		t.Workers = []int{0, 3}
	}
	return t, nil
}
