package knot

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Snake knot: each strand takes a turn round the other and is led through the
// loop that the other has just made; the work is turned over after each wrap.
//
// Right: the wraps lie close, each in the elbow of the one before. Makers
// differ in the first loop: over one strand, or round both.
func init() {
	add(Knot{
		ID: "snake-knot", Name: "snake knot", Family: "two strands",
		OtherNames: []string{"snake sinnet", "snake weave"},
		For:        "a slim round sinnet of two strands: lanyards, the neck of a ball",
		Repeats:    true,
		Schools: []School{
			{Field: "school", Default: "over-one", Why: "the first loop over one strand is the quicker; round both it sits tighter against what is above it"},
			{Field: "start", Default: "left", Why: "the left strand is the first to hand"},
		},
		Fields: []Field{
			{Key: "strands", Short: "strands", Label: "strands", Kind: "places"},
			{Key: "school", Short: "school", Label: "first loop", Kind: "choice", Choices: []string{"over-one", "round-both"}, Default: "over-one"},
			{Key: "start", Short: "start", Label: "starts", Kind: "choice", Choices: []string{"left", "right"}, Default: "left"},
		},
		fill: func(s *Section) { s.School, s.Start = "over-one", "left" },
		tie:  tieSnake,
	})
	addRoute(Route{
		Name: "snake-knot", Family: "two strands", About: "each strand round the other and through its last loop, by turns", Sinnet: true,
		Problem: snakeCell,
		Measure: perStrand, Of: "a strand a wrap", Published: 6.03, Share: 0.05, Height: 1.13,
	})
}

// snakeCell is one wrap. The thread is written over two of them: down through
// the other strand's loop, behind the other's standing part, round it and its
// tuck, up through the loop above, over that loop's edge and down outside it.
func snakeCell() tighten.Problem {
	const p = 2.2
	first := []Vec{ // the wrap, at level 0
		{X: 0.6, Y: -0.9 * p}, {X: 0.6, Y: -0.35 * p, Z: -0.2}, {X: 0, Y: 0, Z: -1}, {X: -1, Y: 0.08 * p, Z: -1.3},
		{X: -2.5, Y: 0.1 * p}, {X: -1.2, Y: 0.08 * p, Z: 1.3}, {X: 0.2, Y: -0.02 * p, Z: 1.1},
		{X: 1.3, Y: -0.35 * p, Z: 0.5}, {X: 1.6, Y: -0.9 * p}, {X: 1.9, Y: -1.2 * p},
	}
	second := []Vec{ // over the edge and down to the next but one
		{X: 2.7, Y: -1.3 * p}, {X: 3.6, Y: -1.0 * p}, {X: 3.7, Y: -0.4 * p}, {X: 2.9, Y: 0.15 * p}, {X: 1.5, Y: 0.45 * p},
	}
	cell := tighten.Cell{Pitch: p, Twist: 3.14159265}
	var back []Vec
	for _, v := range second {
		back = append(back, tighten.Image(cell, -1, v))
	}
	return tighten.Problem{Cell: &cell, Strands: []tighten.Strand{
		{Route: first, Diameter: 1, Next: 1}, {Route: back, Diameter: 1, Next: 0},
	}}
}

// tieSnake ties a wrap for each count: half of them with either strand, by
// turns. Every wrap is the one before turned half round.
func tieSnake(w Work) (Tied, error) {
	if n := len(w.Leads); n != 2 {
		return Tied{}, &Refused{Field: "strands", Why: fmt.Sprintf("tied with %d strands; a snake knot takes two", n)}
	}
	shape, err := drawn("snake", snakeCell)
	if err != nil {
		return Tied{}, err
	}
	count := max(1, w.Section.Count)
	d := math.Max(w.Leads[0].Diameter, w.Leads[1].Diameter)
	cell := tighten.Cell{Pitch: shape.Pitch, Twist: shape.Twist}
	// Each wrap is made by one thread and ended by its way over the edge of the
	// next one, while the other thread makes that.
	var threads [2][]Vec
	for k := 0; k <= count; k++ {
		if k > 0 {
			t := (k + 1) % 2
			for _, v := range shape.Strands[1] {
				threads[t] = append(threads[t], tighten.Image(cell, k, v))
			}
		}
		if k < count {
			for _, v := range shape.Strands[0] {
				threads[k%2] = append(threads[k%2], tighten.Image(cell, k, v))
			}
		}
	}
	if count == 1 { // the other strand hangs straight through the one wrap
		v := tighten.Image(cell, 1, shape.Strands[0][0])
		threads[1] = []Vec{{X: v.X, Y: v.Y - cell.Pitch, Z: v.Z}, v}
	}
	top, low := math.Inf(1), math.Inf(-1)
	for _, pts := range threads {
		for _, v := range pts {
			top, low = math.Min(top, v.Y), math.Max(low, v.Y)
		}
	}
	t := Tied{Loose: true, Snug: true, Gap: shape.Gap, Repeats: count, Clear: 0.5 * d, Order: identity(2), Workers: []int{0, 1}, Height: d * (low - top)}
	const lead = 0.7 // of a diameter, straight into the first wrap and out of the last
	t.Height += 2 * lead * d
	var lines [2][]Vec
	for i, pts := range threads {
		line := asCurve(pts).Map(func(v Vec) Vec { return r3.Scale(d, Vec{X: v.X, Y: v.Y - top + lead, Z: v.Z}) }).Points
		first, last := line[0], line[len(line)-1]
		lines[i] = append(slices.Insert(line, 0, Vec{X: first.X, Z: first.Z}), Vec{X: last.X, Y: t.Height, Z: last.Z})
	}
	// Where they come in and go out there is no wrap before or after to lead
	// them: they are moved clear of one another there.
	clear := func(lines [2][]Vec) [2][]Vec {
		const ends = 9.0 // diameters of cord
		var heads [2]tighten.Strand
		var rest [2][]Vec
		for i, line := range lines {
			n := 2
			for n < len(line)-1 && asCurve(line[:n]).Length() < ends*d {
				n++
			}
			heads[i], rest[i] = tighten.Strand{Route: line[:n], Diameter: d}, line[n:]
		}
		parted, _ := tighten.Part(heads[:])
		for i := range lines {
			lines[i] = slices.Concat(parted[i].Points, rest[i])
		}
		return lines
	}
	lines = clear(lines)
	for i := range lines {
		slices.Reverse(lines[i])
	}
	lines = clear(lines)
	for i := range lines {
		slices.Reverse(lines[i])
		t.Paths = append(t.Paths, Path{Points: lines[i]})
	}
	for k := range count { // where its wraps are, so that one looks like the next
		t.Cells = append(t.Cells, d*math.Max(0, math.Min(t.Height/d, shape.Pitch*(float64(k)-0.5)-top+lead)))
	}
	t.Cells[0] = 0
	t.Cells = append(t.Cells, t.Height)
	// The thread that begins on the left is the left strand's.
	if t.Paths[0].Points[0].X > t.Paths[1].Points[0].X {
		t.Paths[0], t.Paths[1] = t.Paths[1], t.Paths[0]
	}
	end := func(i int) float64 { p := t.Paths[i].Points; return p[len(p)-1].X }
	if end(0) > end(1) {
		t.Order = []int{1, 0}
	}
	first := "Strand 1 round strand 2: behind it, round to the front and down through its own loop."
	if w.Section.School == "round-both" {
		first = "Strand 1 round both strands and down through its own loop."
	}
	t.Actions = []Action{{Moves: 0, Text: "Round the other strand, and through the loop that it made last.", Detail: "The first time there is no such loop yet. " + first,
		Gate: "Each wrap lies close in the elbow of the one before."}}
	if w.Section.Start == "right" {
		t.mirror(2)
		t.Actions[0].Moves = 1
		t.Actions[0].Detail = mirrorText(t.Actions[0].Detail, 2)
	}
	return t, nil
}
