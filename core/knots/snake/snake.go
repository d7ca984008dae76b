// Package snake ties the snake knot on two strands.
package snake

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// School is how makers lay the first loop.
type School string

// Choices are the schools.
func (School) Choices() []string { return []string{"over-one", "round-both"} }

// Settings of a snake knot.
type Settings struct {
	School School    `json:"school,omitempty" typed:"school" label:"first loop" default:"over-one"`
	Start  knot.Side `json:"start,omitempty" typed:"start" label:"starts" default:"left"`
}

// Of is a section of so many wraps.
func Of(count int) knot.Section {
	return knot.Section{Do: "snake-knot", Count: count, Settings: Settings{School: "over-one", Start: knot.Left}}
}

// Snake knot: each strand takes a turn round the other and is led through the
// loop that the other has just made; the work is turned over after each wrap.
//
// Right: the wraps lie close, each in the elbow of the one before. Makers
// differ in the first loop: over one strand, or round both.
func init() {
	knot.Add(knot.Knot{
		ID: "snake-knot", Name: "snake knot", Family: "two strands",
		OtherNames: []string{"snake sinnet", "snake weave"},
		For:        "a slim round sinnet of two strands: lanyards, the neck of a ball",
		Repeats:    true,
		LooseFrom:  2, // one wrap is a turn that pulls straight
		Schools: []knot.School{
			{Field: "school", Default: "over-one", Why: "the first loop over one strand is the quicker; round both it sits tighter against what is above it"},
			{Field: "start", Default: "left", Why: "the left strand is the first to hand"},
		},
		Glyph:    "M8 2c0 3 8 3 8 6s-8 3-8 6 8 3 8 8M16 2c0 3-8 3-8 6s8 3 8 6-8 3-8 8",
		Places:   true,
		Counted:  counted,
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 2, Most: 2}}
		},
		Tie:    tieSnake,
		Thumb:  &knot.Thumb{Works: 6},
		Sample: knot.Sample{Line: "mount A, snake-knot 5", Cords: 1, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "snake-knot", Family: "two strands", About: "each strand round the other and through its last loop, by turns", Sinnet: true,
		Problem: snakeCell,
		Measure: knot.PerStrand, Of: "a strand a wrap", Published: 6.03, Share: 0.05, Height: 1.13,
	})
}

// counted says wraps as some makers count them, singly, and as others do, in pairs.
func counted(wraps int) string {
	switch pairs := wraps / 2; {
	case wraps == 1:
		return "1 wrap, half a pair"
	case wraps%2 == 1:
		return fmt.Sprintf("%d wraps, %d pair%s and a half", wraps, pairs, knot.Plural(pairs))
	default:
		return fmt.Sprintf("%d wraps, %d pair%s", wraps, pairs, knot.Plural(pairs))
	}
}

// snakeCell is one wrap. The thread is written over two of them: down through
// the other strand's loop, behind the other's standing part, round it and its
// tuck, up through the loop above, over that loop's edge and down outside it.
func snakeCell() tighten.Problem {
	const p = 2.2
	first := []r3.Vec{ // the wrap, at level 0
		{X: 0.6, Y: -0.9 * p}, {X: 0.6, Y: -0.35 * p, Z: -0.2}, {X: 0, Y: 0, Z: -1}, {X: -1, Y: 0.08 * p, Z: -1.3},
		{X: -2.5, Y: 0.1 * p}, {X: -1.2, Y: 0.08 * p, Z: 1.3}, {X: 0.2, Y: -0.02 * p, Z: 1.1},
		{X: 1.3, Y: -0.35 * p, Z: 0.5}, {X: 1.6, Y: -0.9 * p}, {X: 1.9, Y: -1.2 * p},
	}
	second := []r3.Vec{ // over the edge and down to the next but one
		{X: 2.7, Y: -1.3 * p}, {X: 3.6, Y: -1.0 * p}, {X: 3.7, Y: -0.4 * p}, {X: 2.9, Y: 0.15 * p}, {X: 1.5, Y: 0.45 * p},
	}
	cell := tighten.Cell{Pitch: p, Twist: 3.14159265}
	var back []r3.Vec
	for _, v := range second {
		back = append(back, tighten.Image(cell, -1, v))
	}
	return tighten.Problem{Cell: &cell, Strands: []tighten.Strand{
		{Route: first, Diameter: 1, Next: 1}, {Route: back, Diameter: 1, Next: 0},
	}}
}

// tieSnake ties a wrap for each count: half of them with either strand, by
// turns. Every wrap is the one before turned half round.
func tieSnake(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 2 {
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a snake knot takes two", knot.Strands(n))}
	}
	shape, err := family.Shape("snake", snakeCell)
	if err != nil {
		return knot.Tied{}, err
	}
	set := knot.Of[Settings](w.Section)
	if set.School == "" {
		set.School = "over-one"
	}
	first, err := family.Shape("first "+string(set.School), func() tighten.Problem { return firstLoop(shape, set.School) })
	if err != nil {
		return knot.Tied{}, err
	}
	count := max(1, w.Section.Count)
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	cell := tighten.Cell{Pitch: shape.Pitch, Twist: shape.Twist}
	// Each wrap is made by one thread and ended by its way over the edge of the
	// next one, while the other thread makes that.
	var threads [2][]r3.Vec
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
		threads[1] = lattice(shape, 1, 2)[:1]
	}
	for t := range threads {
		threads[t] = begun(first.Strands[t], threads[t], free(shape, t))
	}
	const off = 25 * math.Pi / 180 // from straight down, the work begins
	begins := math.Inf(1)
	for _, pts := range threads {
		for i := 1; i < len(pts); i++ {
			if step := r3.Sub(pts[i], pts[i-1]); step.Y < math.Cos(off)*r3.Norm(step) {
				begins = math.Min(begins, pts[i-1].Y)
			}
		}
	}
	top, low := math.Inf(1), math.Inf(-1)
	for t, pts := range threads {
		for len(pts) > 2 && pts[1].Y < begins-0.5 {
			pts = pts[1:]
		}
		threads[t] = pts
		for _, v := range pts {
			top, low = math.Min(top, v.Y), math.Max(low, v.Y)
		}
	}
	if threads[0][0].X > threads[1][0].X { // the one that begins is the left one
		for _, pts := range threads {
			for i, v := range pts {
				pts[i] = r3.Vec{X: -v.X, Y: v.Y, Z: -v.Z}
			}
		}
	}
	t := knot.Tied{Loose: true, Snug: true, Gap: math.Min(shape.Gap, first.Gap), Clear: 0.5 * d, Order: knot.Identity(2), Workers: []int{0, 1}, Height: d * (low - top)}
	const straight = 0.7 // of a diameter, straight into the first wrap and out of the last
	t.Height += 2 * straight * d
	var lines [2][]r3.Vec
	for i, pts := range threads {
		line := knot.Curve(pts).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, r3.Vec{X: v.X, Y: v.Y - top + straight, Z: v.Z}) }).Points
		first, last := line[0], line[len(line)-1]
		lines[i] = append(slices.Insert(line, 0, r3.Vec{X: first.X, Z: first.Z}), r3.Vec{X: last.X, Y: t.Height, Z: last.Z})
	}
	// Where they go out there is no wrap after to lead them: they are moved clear
	// of one another there.
	for _, pts := range knot.Clear(lines[:], d) {
		t.Paths = append(t.Paths, knot.Path{Points: pts})
	}
	if count == 1 { // the first loop alone has no wrap to lie on
		t.Part(w.Strands)
	}
	for k := range count { // where its wraps are, so that one looks like the next
		t.Cells = append(t.Cells, d*math.Max(0, math.Min(t.Height/d, shape.Pitch*(float64(k)-0.5)-top+straight)))
	}
	t.Cells[0] = 0
	t.Cells = append(t.Cells, t.Height)
	end := func(i int) float64 { p := t.Paths[i].Points; return p[len(p)-1].X }
	if end(0) > end(1) {
		t.Order = []int{1, 0}
	}
	t.Repeats, t.PerRound = 1, count // the first loop is none of the others
	for k := range t.PerRound {
		t.Moves = append(t.Moves, wrap(k%2))
	}
	t.Moves[0] = set.School.first()
	if set.Start == knot.Right {
		t.Mirror(2)
	}
	return t, nil
}

// begun is a thread that begins as the shape of the first loop has it, up to where
// that lies as the row does.
func begun(shape, thread []r3.Vec, free int) []r3.Vec {
	join := thread[free-1]
	best := 0
	for i, v := range shape {
		if r3.Norm2(r3.Sub(v, join)) < r3.Norm2(r3.Sub(shape[best], join)) {
			best = i
		}
	}
	return append(slices.Clone(shape[:best]), thread[free-1:]...)
}

// wrap is the wrap that a strand makes.
func wrap(me int) move.Move {
	return move.Move{Strand: me, Naming: [][]int{{1 - me}},
		Passes: []move.Pass{{How: move.Under, Of: []int{1 - me}}, {How: move.Over, Of: []int{1 - me}}},
		Text:   "{me} round {strands 0}: {infront 0} it, back {infront 1} it, and down through the loop that the other made last.",
		Gate:   "The wrap lies close in the elbow of the one before."}
}

// first is the first loop, made by the left strand: it has no loop above it to go
// down through.
func (s School) first() move.Move {
	m := move.Move{Strand: 0, Naming: [][]int{{1}}, Passes: []move.Pass{{How: move.Over, Of: []int{1}}},
		Text:   "The first time: {me} {infront 0} {strands 0}, and down beside it.",
		Detail: "Leave the loop open: the other goes down through it next."}
	if s == "round-both" {
		m.Passes = append(m.Passes, move.Pass{How: move.Under, Of: []int{1}})
		m.Text = "The first time: {me} {infront 0} {strands 0}, round its own standing part, {infront 1} {strands 0}, and down through its own loop."
	}
	return m
}
