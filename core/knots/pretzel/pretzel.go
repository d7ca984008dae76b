// Package pretzel ties the pretzel knot on two strands.
package pretzel

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ringin"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a pretzel knot.
type Settings struct {
	GapMM  float64          `json:"gap_mm,omitempty" typed:"gap" label:"bare between them" most:"500"`
	Start  knot.Side        `json:"start,omitempty" typed:"start" label:"starts" default:"right"`
	TakeIn TakeIn           `json:"take_in,omitempty" typed:"take" label:"takes in" default:"nothing"`
	Ring   *ringin.Settings `json:"ring,omitempty" for:"take_in=ring"`
}

// Pretzel knot (Spanish knot of the bead workers): a pretzel with one strand; the
// other over its end, behind everything at the top, up from behind through the
// lower loop and out over its edge.
//
// Right: a rounded cube, the same turned half round; close up, a row is slanting
// wraps of two colours that turn. Wrong: the second strand comes up on the far side
// of its own standing part; the knot is lopsided and takes more of one strand.
//
// Makers say only that the end comes up through the lower loop. Ours is the side on
// which both strands do alike.
func init() {
	knot.Add(knot.Knot{
		ID: "pretzel-knot", Name: "pretzel knot", Family: "two strands",
		OtherNames: []string{"Spanish knot"},
		For:        "a small cube of two strands: zip pulls, stops between beads, a slim turning sinnet close up",
		Schools: []knot.School{
			{Field: "start", Default: "right", Why: "the right strand is the first to hand; the same side first each time"},
			{Field: "take_in", Default: "nothing", Why: "makers leave open which turn the ring lies in; ours is the lower turn of the first strand, for both ends then hang beside it"},
			{Field: "gap_mm", Default: "0", Why: "close up they are a sinnet that turns by itself; with a gap each stands as a cube"},
		},
		Glyph:    "M8 2c0 5 9 4 9 9 0 4-5 4-5 0 0-3 4-5 4-9M12 11c0 4-5 4-5 0M8 22c0-4 4-6 8-8M16 22c0-4-4-6-8-8",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms:    func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 2, Most: 2}} },
		Tie:      tie,
		Sample:   knot.Sample{Line: "mount A, gap 8mm, pretzel-knot 3 gap=6mm", Cords: 1, Section: 2},
	})
	knot.AddRoute(knot.Route{
		Name: "pretzel-knot", Family: "two strands", About: "a pretzel of one strand, the other over its end, behind it and up through its lower loop",
		Problem: pretzel,
		Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: 7.4, Share: 0.02, Determinant: 3,
	})
}

func tie(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 2 {
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a pretzel knot takes two", knot.Strands(n))}
	}
	set := knot.Of[Settings](w.Section)
	count := max(1, w.Section.Count)
	var t knot.Tied
	var err error
	switch {
	case set.TakeIn == Ring && count > 1:
		return t, &knot.Refused{Field: "count", Why: fmt.Sprintf("%d; the knot that takes the ring in is a section of its own, below the others", count), Set: 1, Label: "Tie one"}
	case set.TakeIn == Ring && set.Ring == nil:
		return t, &knot.Refused{Field: "take_in", Why: "a ring, and says nothing of the ring", Set: Nothing, Label: "Take in nothing"}
	case set.TakeIn == Ring:
		t, err = tieRing(w, *set.Ring)
	case count == 1 || set.GapMM > 0:
		t, err = knot.Each(w, count, func(w knot.Work, k int) (knot.Tied, error) {
			t, err := tieOne(w)
			if k > 0 && err == nil {
				lower(&t, set.GapMM)
			}
			return t, err
		})
	default:
		t, err = tieRow(w, count)
	}
	if err != nil {
		return t, err
	}
	t.Workers = []int{0, 1}
	if set.Start == knot.Left {
		t.Mirror(2)
	}
	return t, nil
}

// lower leaves the strands bare for so much above a knot.
func lower(t *knot.Tied, mm float64) {
	for i, p := range t.Paths {
		pts := []r3.Vec{p.Points[0]}
		for _, v := range p.Points {
			pts = append(pts, r3.Vec{X: v.X, Y: v.Y + mm, Z: v.Z})
		}
		t.Paths[i] = knot.Path{Points: pts}
	}
	t.Height += mm
}

func tieOne(w knot.Work) (knot.Tied, error) {
	shape, err := family.Shape("pretzel", pretzel)
	if err != nil {
		return knot.Tied{}, err
	}
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	laid := knot.Lay(shape.Strands, d)
	return knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Paths: laid.Paths, Order: laid.Order, Moves: moves()}, nil
}

// tieRow ties so many close under one another; each lies turned by as much as the
// row turns.
func tieRow(w knot.Work, count int) (knot.Tied, error) {
	shape, err := family.Shape("row", row)
	if err != nil {
		return knot.Tied{}, err
	}
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	cell := tighten.Cell{Pitch: shape.Pitch, Twist: shape.Twist}
	const lead = 3.0 // diameters, straight into the row and out of it
	lines := make([][]r3.Vec, 2)
	for i, pts := range shape.Strands {
		for k := range count {
			for _, v := range pts {
				lines[i] = append(lines[i], tighten.Image(cell, k, v))
			}
		}
		first, last := lines[i][0], lines[i][len(lines[i])-1]
		lines[i] = append([]r3.Vec{{X: first.X, Y: first.Y - lead, Z: first.Z}}, lines[i]...)
		lines[i] = append(lines[i], r3.Vec{X: last.X, Y: last.Y + lead, Z: last.Z})
	}
	lines = knot.Clear(lines, 1)
	laid := knot.Lay(lines, d)
	t := knot.Tied{Loose: true, Snug: true, Repeats: count, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Paths: laid.Paths, Order: laid.Order, Moves: moves()}
	for k := range count {
		t.Cells = append(t.Cells, t.Height*float64(k)/float64(count))
		out := func(place int) float64 { // where the strand hangs below knot k
			pts := shape.Strands[laid.Of[place]]
			return tighten.Image(cell, k, pts[len(pts)-1]).X
		}
		order := knot.Identity(2)
		if out(0) > out(1) {
			order = []int{1, 0}
		}
		t.Orders = append(t.Orders, order)
	}
	t.Cells = append(t.Cells, t.Height)
	return t, nil
}

// moves are those of one knot that begins with the right strand.
func moves() []move.Move {
	const left, right = 0, 1
	out := []move.Move{
		{Strand: right, Naming: [][]int{{left}}, Passes: []move.Pass{{How: move.Under, Of: []int{left}}, {How: move.Over, Of: []int{left}}, {How: move.Over, Of: []int{right}}},
			To: move.Right, Text: "{me} {front 0}, up beside it, and back {above 1} both standing parts; its end lies to the {to}.",
			Detail: "Pinch it where it lies across: this is the pretzel's top."},
		{Strand: left, Naming: [][]int{{right}}, Passes: []move.Pass{{How: move.Over, Of: []int{right}}, {How: move.Under, Of: []int{right}}, {How: move.Under, Of: []int{left}}, {How: move.Over, Of: []int{right}}},
			From: move.Back, To: move.Left, Text: "{me} {above 0} that end, {face 1} everything at the top, up from the {from} through the lower loop, on the {to} of its own standing part, and out {above 3} the loop's edge.",
			Detail: "Draw both ends down by turns, then both at once.",
			Gate:   "A small cube; from the back it looks the same."},
	}
	return append(out, move.Rounds(out, 1, "where it comes in")...)
}
