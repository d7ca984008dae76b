package turkshead

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/cover"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// The long form: of two strands the second goes round a straw and then down through it
// beside the first. It has two bights and any odd number of leads.

func (w work) refuseStraw() error {
	set := w.set
	switch n := len(w.Strands); {
	case n != 2:
		no := &knot.Refused{Field: "over", Why: fmt.Sprintf("a straw, which takes two strands: the standing part and the one that covers it; it is tied on %d", n)}
		if len(w.Own) > 0 {
			no.Set, no.Label = string(Strands), "Tie it round the strands"
		}
		return no
	case len(w.Own) > 0:
		return &knot.Refused{Field: "cords", Why: "named, but over a straw one of the strands covers the other", Set: []string{}, Label: "Leave the cord out"}
	case w.weave.Bights != 2:
		return &knot.Refused{Field: "bights", Why: fmt.Sprintf("%d; over a straw it has two, so that it closes on two cords", w.weave.Bights), Set: 2, Label: "Take 2 bights"}
	case w.weave.Leads%2 == 0:
		return &knot.Refused{Field: "leads", Why: fmt.Sprintf("%d; with two bights an even number shares a divisor, and it would be of two bands", w.weave.Leads), Set: min(w.weave.Leads+1, cover.MostLeads), Label: fmt.Sprintf("Take %d leads", min(w.weave.Leads+1, cover.MostLeads))}
	case set.LengthMM > 0 || set.OverMM > 0:
		field := "length_mm"
		if set.OverMM > 0 {
			field = "over_mm"
		}
		return &knot.Refused{Field: field, Why: "said, but over a straw it closes on its own two cords and is as long as its leads make it", Set: 0.0, Label: "Leave it out"}
	}
	return nil
}

// tieStraw lays the cover, drawn up round two straight cords, and leads the second strand
// out over its upper edge to where it begins, and from where it ends in under the first
// bight and down the middle. What is led is constructed, and moved clear.
func (w work) tieStraw() (knot.Tied, error) {
	if err := w.refuseStraw(); err != nil {
		return knot.Tied{}, err
	}
	w.thick = 2 * w.d
	// By hand the second trip goes over the first everywhere and the third over the second;
	// only the fourth is woven.
	for row := 1; row < w.weave.Leads; row++ {
		w.weave.Columns = append(w.weave.Columns, row%2 == 0)
	}
	c, err := w.weave.OnPair()
	if err != nil {
		return knot.Tied{}, err
	}
	const before = 0.7
	round := c.Ended(r3.Vec{X: 1}, before)
	top, low := -(c.High-1)/2, (c.High-1)/2+1
	const above = 2.2 // of straight strand over the upper edge
	in := r3.Vec{X: 0.5}
	out := func(v r3.Vec, r, y float64) r3.Vec { // above or below a place, so far out
		k := r / cover.Axial(v)
		return r3.Vec{X: k * v.X, Y: y, Z: k * v.Z}
	}
	first, last := round[0], round[len(round)-1]
	lead := []r3.Vec{{X: in.X, Y: top - above}, {X: in.X, Y: top - above + 0.6}, out(first, 0.9, top-1.05), out(first, 1.5, top-0.75)}
	home := []r3.Vec{out(last, 1.25, last.Y-0.35), out(last, 0.75, last.Y-0.2), {X: in.X, Y: last.Y + 0.9}, {X: in.X, Y: last.Y + 2}, {X: in.X, Y: low}}
	way := curve.Spline(slices.Concat(lead, round, home), false).Points
	standing := []r3.Vec{{X: -in.X, Y: top - above}, {X: -in.X}, {X: -in.X, Y: low}}
	parted, gap := tighten.Part([]tighten.Strand{{Route: way, Diameter: 1}}, tighten.Strand{Route: standing, Diameter: 1})
	lay := func(pts []r3.Vec) []r3.Vec {
		out := make([]r3.Vec, len(pts))
		for k, v := range pts {
			out[k] = r3.Vec{X: w.d * v.X, Y: w.d * (v.Y - top + above), Z: w.d * v.Z}
		}
		return out
	}
	t := knot.Tied{Loose: true, Around: true, Repeats: 1, Gap: gap, Height: w.d * (low - top + above), Order: knot.Identity(2), Workers: []int{1}, Clear: 0.3 * w.d}
	t.Paths = []knot.Path{{Points: lay(standing)}, {Points: lay(parted[0].Points)}}
	laid := cover.Lay(c, [][]r3.Vec{round}, 0, w.d, w.thick, 0)
	t.Flat = []knot.Path{{Points: c.Spread(curve.Curve{Points: standing}).Points}, {Points: laid.Web.Lines[0].Points}}
	moves, err := laid.Moves([]int{1})
	if err != nil {
		return t, err
	}
	for i := range moves {
		moves[i].Text = forStrand(moves[i].Text)
	}
	t.Moves = append([]move.Move{{Strand: 1, Text: "Put a straw over the standing part and lead {me} out over its upper end.", Detail: fmt.Sprintf("A straw or a pen's barrel of {%.0fmm} or so. The loop above it stays as long as it is to be.", math.Ceil(w.thick))}}, moves...)
	t.Moves = append(t.Moves, move.Move{Strand: 1, Text: "Lead {me} in under the last bight of its first round, and down through the straw beside the standing part.", Gate: "Both come out at the lower end side by side."},
		move.Move{Strand: move.All, Slack: true, Text: "Draw the straw out with the loop held, and work the slack from the loop's edge along the lead, last out at the bottom.", Detail: "Roll it between the palms; then once more along the lead.", Gate: "It is round and even, and no lead stands off."})
	t.Checks = []string{fmt.Sprintf("The cover is {%.1fmm} long and {%.1fmm} across.", laid.HighMM, w.d*c.Across)}
	return t, nil
}
