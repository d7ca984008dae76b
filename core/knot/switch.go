package knot

import (
	"fmt"
	"math"
)

// Switch knot (alternating square knot): after each square knot workers and
// fillers change places, with a short gap in which the cords are seen to cross.
//
// Right: in every gap the two cords of a side cross, the one that has worked in
// front. Wrong: a gap in which they hang side by side; the same cords go on
// working and run out first.
//
// Makers differ in the length of the gap; two diameters show the crossing.
func init() {
	add(Knot{
		ID: "switch-knot", Name: "switch knot", Family: "flat and spiral sinnets",
		OtherNames: []string{"alternating square knot", "switched square knot"},
		For:        "light sinnets that use all four cords alike",
		Repeats:    true,
		Schools: []School{
			{Field: "gap_mm", Default: "8mm", Why: "two diameters of a common cord: long enough to show the crossing, short enough to hold its shape"},
			{Field: "start", Default: "left", Why: "as for the square knot"},
		},
		Fields: []Field{
			{Key: "strands", Short: "strands", Label: "strands", Kind: "places"},
			{Key: "gap_mm", Short: "gap", Label: "gap", Kind: "length", Needed: true, Most: 500},
			{Key: "start", Short: "start", Label: "starts", Kind: "choice", Choices: []string{"left", "right"}, Default: "left"},
		},
		fill: func(s *Section) { s.GapMM, s.Start = 8, "left" },
		tie:  tieSwitch,
	})
}

func tieSwitch(w Work) (Tied, error) {
	if n := len(w.Leads); n != 4 {
		r := &Refused{Field: "strands", Why: fmt.Sprintf("a switch knot changes two workers with two fillers, so it has four strands; it has %d", n)}
		if n > 4 {
			r.Set, r.Label = numbered(1, 4), "Take the first four"
		}
		return Tied{}, r
	}
	gap := w.Section.GapMM
	if gap == 0 {
		gap = 8
	}
	t, err := tieEach(w, max(1, w.Section.Count), func(w Work, _ int) (Tied, error) {
		w.Section.Count = 1
		knot, err := tieRow(w, 2, w.Section.Start)
		if err != nil {
			return knot, err
		}
		// Outer cords go in, inner ones out; who has worked passes in front.
		now := make([]Lead, 4)
		var from []Vec
		thick := 0.0
		for place, i := range knot.Order {
			now[place] = w.Leads[i]
			p := knot.Paths[i].Points
			from = append(from, p[len(p)-1])
			thick = math.Max(thick, w.Leads[i].Diameter)
		}
		if gap < 1.2*thick {
			return knot, &Refused{Field: "gap_mm", Why: fmt.Sprintf("the gap is %.1f mm, and cords %.1f mm thick need %.1f mm to change places", gap, thick, 1.2*thick), Set: math.Ceil(1.2 * thick)}
		}
		in, out := from[1], from[0]
		cross := Tied{Height: gap, Gap: 1, Order: []int{1, 0, 3, 2}}
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
			pts := []Vec{a}
			for k := 1; k < 8; k++ {
				u := float64(k) / 8
				e := u * u * (3 - 2*u)
				bulge := math.Sin(math.Pi * u)
				pts = append(pts, Vec{X: a.X + (x-a.X)*e, Y: gap * u, Z: a.Z*(1-e) + z*bulge})
			}
			cross.Paths = append(cross.Paths, Path{Points: append(pts, Vec{X: x, Y: gap})})
		}
		knot.below(cross)
		knot.Row = false
		for i := range knot.Paths {
			for k, l := range knot.Paths[i].Lies {
				if l == Knotted {
					knot.Paths[i].Lies[k] = Snug
				}
			}
		}
		knot.Actions = append(knot.Actions, Action{Moves: -1, Text: "Leave {length} bare and let workers and fillers change places: the outer cords go in, in front, the inner ones out.",
			Detail: "The cords that were tied over now do the tying.", Gate: "The cords cross in the gap on both sides."})
		return knot, nil
	})
	if err != nil {
		return t, err
	}
	t.HalfKnots, t.Clear, t.Row = false, 0, false
	t.Workers = []int{0, 1, 2, 3}
	if t.Repeats == 1 {
		t.Workers = []int{0, 3}
	}
	return t, nil
}
