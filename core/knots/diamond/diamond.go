// Package diamond lays diamonds of hitches.
package diamond

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/knots/row"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

// What stands inside a diamond, in which order its side strands come, and how its
// last tip is closed.
type (
	Inside string
	Order  string
	Close  string
)

// Choices are what can stand inside.
func (Inside) Choices() []string { return []string{"empty", "square-knot", "bead"} }

// Choices are the orders.
func (Order) Choices() []string { return []string{"in-turn", "outermost-first"} }

// Choices are the tips.
func (Close) Choices() []string { return []string{"join", "end", "end-doubled"} }

// Settings of diamonds.
type Settings struct {
	Inside Inside     `json:"inside,omitempty" typed:"inside" label:"inside" default:"empty"`
	Order  Order      `json:"order,omitempty" typed:"order" label:"side strands" default:"in-turn"`
	Close  Close      `json:"close,omitempty" typed:"close" label:"last tip" default:"join"`
	Bead   *knot.Bead `json:"bead,omitempty" for:"inside=bead"`
}

// Diamond in hitches: two diagonals of double half hitches lead apart from the
// middle and two lead back to it. At the first apex the left of the middle strands is
// hitched over the right one, and both go on as fillers. At a tip the left filler is
// hitched over the right one, whose rib goes on unbroken into the next diamond.
//
// Right: four straight sides of ribs, the fillers taut, the tips closed. Wrong: a side
// with a hitch too few; the diamond leans.
//
// Makers differ in what stands inside (nothing, a square knot over the four
// middle strands, a bead on the middle two), in which side strand comes first
// (outermost first tucks them in at the waist of two diamonds), and in the last
// tip: joined by a hitch, left open with both halves at one level, or closed and
// then edged by a second row right under it.
func init() {
	knot.Add(knot.Knot{
		ID: "diamond", Name: "diamond", Family: "hitches",
		OtherNames: []string{"lozenge", "diamond of hitches"},
		For:        "a frame of ribs on six strands or more, for a bead or a knot inside",
		Repeats:    true,
		Schools: []knot.School{
			{Field: "inside", Default: "empty", Why: "an empty diamond shows whether its sides are even"},
			{Field: "order", Default: "in-turn", Why: "in turn the strands hang free at the waist; outermost first tucks them in under the next diamond"},
			{Field: "close", Default: "join", Why: "one more hitch holds the tip; leave it open only where a knot follows that holds it; a second row makes a fuller edge"},
		},
		Glyph:    "M12 2l9 10-9 10-9-10zM12 7l4.500 5-4.500 5-4.500-5z",
		Places:   true,
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 4, Even: true}, Parts: func(n int) int { return n }}
		},
		Tie:    tieDiamonds,
		Sample: knot.Sample{Line: "mount A B C, diamond", Cords: 3, Section: 1},
	})
}

// tieDiamonds ties as many diamonds as the section counts, one under the other: laid out
// by their hitches, then parted where the lines laid between them press into one another.
// A row is worked out once for cords of a proportion, whatever their size.
func tieDiamonds(w knot.Work) (knot.Tied, error) {
	count := max(1, w.Section.Count)
	d := 0.0
	for _, l := range w.Strands {
		d = math.Max(d, l.Diameter)
	}
	unit := w
	unit.Strands = append([]knot.Strand{}, w.Strands...)
	set := knot.Of[Settings](w.Section)
	key := fmt.Sprintf("%d %s %s %s", count, set.Inside, set.Order, set.Close)
	for i := range unit.Strands {
		unit.Strands[i].Diameter /= d
		key += fmt.Sprintf(" %.4f %.3f", unit.Strands[i].Diameter, unit.Strands[i].Figures.Squeeze)
	}
	var threads []knot.Thread
	if set.Inside == "bead" {
		b := set.Bead
		if b == nil {
			b = &knot.Bead{}
		}
		if len(w.Strands) >= 4 && len(w.Strands)%2 == 0 { // told of the real sizes
			h := len(w.Strands) / 2
			passing, err := knot.Threads(b, []knot.Strand{w.Strands[h-2], w.Strands[h+1]}, "the middle two strands")
			if err != nil {
				return knot.Tied{}, err
			}
			threads = []knot.Thread{{Strands: []int{h - 2, h + 1}, Passing: passing}}
		}
		of := set
		of.Bead = &knot.Bead{HoleMM: b.HoleMM / d, LengthMM: b.LengthMM / d, WidthMM: b.WidthMM / d, Colour: b.Colour}
		unit.Section.Settings = of
		key += fmt.Sprintf(" bead %.4f %.4f", b.LengthMM/d, b.WidthMM/d)
	}
	t, err := diamonds.Get(key, func() (knot.Tied, error) {
		t, err := layDiamonds(unit, count)
		if err != nil {
			return t, err
		}
		t.Part(unit.Strands)
		t.Measure(unit.Strands)
		return t, nil
	})
	if err != nil {
		return t, err
	}
	out := t
	out.Height *= d
	out.Cells = slices.Clone(t.Cells)
	for i := range out.Cells {
		out.Cells[i] *= d
	}
	out.Paths = make([]knot.Path, len(t.Paths))
	for i, p := range t.Paths {
		out.Paths[i] = knot.Path{Points: knot.Curve(p.Points).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, v) }).Points}
	}
	out.Beads = nil
	for _, b := range t.Beads {
		out.Beads = append(out.Beads, knot.BeadAt{At: r3.Scale(d, b.At), Bead: *set.Bead})
	}
	out.Threads = threads
	return out, nil
}

var diamonds memo.Cache[knot.Tied] // in the greatest diameter

// standsInside gives how far the corners are led down for what stands inside a
// diamond, and the way of each inner strand through it, from the apex down. room is how
// far below the apex the corners are; hang are the strands from the left.
func standsInside(w knot.Work, hang []int, d, room float64) (extra float64, via func(side, near int) []r3.Vec, err error) {
	s := knot.Of[Settings](w.Section)
	switch s.Inside {
	case "square-knot":
		in := knot.Work{Section: row.Square(1, knot.Left),
			Strands: strandsOf(w, inner(sidesOf(hang, s), 2))}
		t, err := row.Tie(in, 2, knot.Left)
		if err != nil {
			return 0, nil, err
		}
		free := 2*room - 3.2*d // between the tips, less the ribs
		extra = math.Max(1.2*d, t.Height+6.6*d-free)
		// The knot stands in the middle between apex and lower tip.
		return extra, func(side, near int) []r3.Vec {
			if near > 1 {
				return nil
			}
			k := map[[2]int]int{{-1, 1}: 0, {-1, 0}: 1, {1, 0}: 2, {1, 1}: 3}[[2]int{side, near}]
			y := room + extra/2 - t.Height/2
			var out []r3.Vec
			for _, v := range t.Paths[k].Points {
				out = append(out, r3.Vec{X: v.X, Y: v.Y + y, Z: v.Z})
			}
			return out
		}, nil
	case "bead":
		b := *s.Bead
		free := 2*room - 3.2*d
		extra = math.Max(1.2*d, b.LengthMM+1.6*d-free)
		sit := knot.Seats(strandsOf(w, inner(sidesOf(hang, s), 1)))
		return extra, func(side, near int) []r3.Vec {
			if near > 0 {
				return nil
			}
			at := sit[(side+1)/2]
			y := room + extra/2
			return []r3.Vec{{X: at.X, Y: y - b.LengthMM/2, Z: at.Z}, {X: at.X, Y: y, Z: at.Z}, {X: at.X, Y: y + b.LengthMM/2, Z: at.Z}}
		}, nil
	}
	return 1.2 * d, nil, nil
}

// sidesOf are the strands of each side from the left as they stand inside a diamond: taken
// outermost first, they have changed their order.
func sidesOf(hang []int, s Settings) [2][]int {
	h := len(hang) / 2
	sides := [2][]int{slices.Clone(hang[:h-1]), slices.Clone(hang[h+1:])}
	if s.Order == "outermost-first" {
		slices.Reverse(sides[0])
		slices.Reverse(sides[1])
	}
	return sides
}

// inner are the innermost strands of each side, from the left.
func inner(sides [2][]int, each int) []int {
	l, r := sides[0], sides[1]
	return slices.Concat(l[len(l)-each:], r[:each])
}

func strandsOf(w knot.Work, strands []int) []knot.Strand {
	var out []knot.Strand
	for _, i := range strands {
		out = append(out, w.Strands[i])
	}
	return out
}

// evenPlaces are the places of a section less its last, so that they are even.
func evenPlaces(strands []int, n int) []int {
	if len(strands) == n {
		return append([]int{}, strands[:n-1]...)
	}
	return knot.Numbered(1, n-1)
}
