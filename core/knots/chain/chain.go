// Package chain ties the chain sinnet on one strand.
package chain

import (
	"fmt"

	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a chain: there is nothing to set beside its count.
type Settings struct{}

// Chain sinnet: a running loop, then loop after loop drawn through the one
// before it, all from the back to the front; the end goes through the last and
// locks the chain. It takes up a long cord and comes undone in one pull when the
// end is taken out again.
//
// Right: two legs stand side by side on the face, one bar lies behind them, and
// every loop is as long as the one before. Wrong: a loop drawn through from the
// front; the chain twists there.
//
// Makers differ in how far each loop is drawn up; drawn hard, as here, it stands
// by itself.
func init() {
	knot.Add(knot.Knot{
		ID: "chain-sinnet", Name: "chain sinnet", Family: "one strand",
		OtherNames: []string{"chain stitch", "drummers plait"},
		For:        "a thick soft cord of one strand: the neck of a ball, a pull, cord kept short",
		Glyph:      "M9 2v3c0 3-3 3-3 6s6 3 6 0-3-3-3-6M9 11c0 3-2 2-2 5s6 3 6 0-3-2-3-5M10 18v4",
		Repeats:    true,
		Places:     true,
		Settings:   Settings{},
		Terms:      func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 1, Most: 1}} },
		Tie:        tie,
		Sample:     knot.Sample{Line: "mount A, chain-sinnet 6 strands=1", Cords: 1, Section: 1},
	})
}

// tie lays so many loops one below the other. The loops are drawn up; the running
// loop that they begin with and the end through the last one are constructed, and
// moved clear of what they lie against.
func tie(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 1 {
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a chain is of one", knot.Strands(n)), Set: firstOf(w), Label: "Take the first strand"}
	}
	shape, err := family.Shape("chain", stitch)
	if err != nil {
		return knot.Tied{}, err
	}
	d := w.Strands[0].Diameter
	count := max(1, w.Section.Count)
	cell := tighten.Cell{Pitch: shape.Pitch}
	const nodes = 56 // of a loop
	loop := knot.Curve(shape.Strands[0]).Resample(nodes).Points
	var line []r3.Vec
	for k := range count {
		for i, v := range loop {
			if k == 0 && i < skipped(nodes) { // its left leg hangs from above and not through a loop
				continue
			}
			line = append(line, tighten.Image(cell, k, v))
		}
	}
	line = head(line, nodes)
	line = foot(line, float64(count)*shape.Pitch)
	top := line[0].Y
	t := knot.Tied{Loose: true, Snug: true, Repeats: count, Gap: shape.Gap, Order: knot.Identity(1), Workers: []int{0}, Clear: 0.3 * d}
	t.Height = d * (line[len(line)-1].Y - top)
	pts := knot.Curve(line).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, r3.Vec{X: v.X, Y: v.Y - top, Z: v.Z}) }).Points
	t.Paths = []knot.Path{{Points: parted(pts, d)}}
	if count <= 12 { // in a longer one the ends are the same
		t.Measure(w.Strands)
	}
	for k := range count {
		t.Cells = append(t.Cells, d*(float64(k)*shape.Pitch-top))
	}
	t.Cells[0] = 0
	t.Cells = append(t.Cells, t.Height)
	t.Moves = []move.Move{{Strand: 0, From: move.Back, To: move.Front, Passes: []move.Pass{{How: move.Over, Of: []int{0}}},
		Text:   "Draw a loop of {me} through the last loop, from the {from} to the {to}, till its legs lie {above 0} that loop's foot.",
		Detail: "The first time make a running loop: the strand round its own part and behind, so that it slides. After the last loop put the end through it.",
		Gate:   "Two legs stand side by side on the face, as long as those above; one bar lies behind them."}}
	return t, nil
}

// skipped are the nodes of the first loop that are not led through one above.
func skipped(nodes int) int { return nodes / 8 }

// head leads the strand from straight above into the first loop, and the right
// leg of that loop round the standing part before it runs down behind.
func head(line []r3.Vec, nodes int) []r3.Vec {
	right := nodes*5/8 - skipped(nodes)    // where the right leg of the first loop is back beside the standing part
	behind := nodes*33/40 - skipped(nodes) // where it runs down behind
	out := []r3.Vec{{Y: -3}, {Y: -2}, {X: -0.05, Y: -1.2}, {X: -0.3, Y: -0.3, Z: 0.15}}
	out = append(out, line[:right]...)
	out = append(out, r3.Vec{X: 0.75, Y: 0.2, Z: 0.75}, r3.Vec{X: 0.35, Y: -0.5, Z: 1.1}, r3.Vec{X: -0.4, Y: -0.95, Z: 1.0},
		r3.Vec{X: -1.15, Y: -0.75, Z: 0.1}, r3.Vec{X: -0.7, Y: -0.35, Z: -0.85}, r3.Vec{Y: 0.1, Z: -1.15})
	return append(out, line[behind:]...)
}

// foot puts the end through the last loop, over its foot and straight down.
func foot(line []r3.Vec, y float64) []r3.Vec {
	return append(line, r3.Vec{X: -0.45, Y: y - 0.1}, r3.Vec{X: -0.2, Y: y + 0.7, Z: 0.95}, r3.Vec{X: -0.05, Y: y + 1.6, Z: 0.95},
		r3.Vec{Y: y + 2.4, Z: 0.4}, r3.Vec{Y: y + 3}, r3.Vec{Y: y + 3.6})
}

// parted moves the constructed ends clear of what they lie against, all of a short
// chain and so much of a long one at both ends.
func parted(pts []r3.Vec, d float64) []r3.Vec {
	const ends = 60 // diameters of cord, more than two loops
	n := 2
	for n < len(pts)-1 && knot.Curve(pts[:n]).Length() < ends*d {
		n++
	}
	m := len(pts) - 2
	for m > 1 && knot.Curve(pts[m:]).Length() < ends*d {
		m--
	}
	part := func(pts []r3.Vec) []r3.Vec {
		out, _ := tighten.Part([]tighten.Strand{{Route: pts, Diameter: d}})
		return out[0].Points
	}
	if m <= n {
		return part(pts)
	}
	return append(append(part(pts[:n]), pts[n:m]...), part(pts[m:])...)
}

// firstOf is the first of a section's strands.
func firstOf(w knot.Work) []int {
	if len(w.Section.Strands) > 0 {
		return w.Section.Strands[:1:1]
	}
	return []int{1}
}
