// Package ring lays knots of strands that stand in a ring about the work's axis, all
// led alike.
package ring

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// At is a place of a strand: its distance from the axis, diameters; how far round, in
// degrees; and how far down the work, diameters, towards the ends.
type At struct{ R, Degrees, Y float64 }

// point is the place in space; the first strand stands on the right.
func (a At) point() r3.Vec {
	s, c := math.Sincos(a.Degrees * math.Pi / 180)
	return r3.Vec{X: a.R * c, Y: a.Y, Z: a.R * s}
}

// Stands is how far from the axis n strands stand that just touch one another, with a
// little room, diameters.
func Stands(n int) float64 { return 0.53 / math.Sin(math.Pi/float64(n)) }

// Route is the way of the first strand of a ring of n, and of the others: the same,
// turned by their place. Seen from the working end each stands anticlockwise of the one
// before.
func Route(n int, first []At) tighten.Problem {
	var line []r3.Vec
	for _, a := range first {
		line = append(line, a.point())
	}
	p := tighten.Problem{Alike: true}
	for i := range n {
		p.Strands = append(p.Strands, tighten.Strand{Route: knot.TurnRoute(line, -2*math.Pi*float64(i)/float64(n)), Diameter: 1})
	}
	return p
}

// A Meet is what a strand of a ring passes, as seen from the working end: the strand so
// many steps on, over or under it.
type Meet struct {
	On   int // steps anticlockwise, from 0, itself, to n-1
	Over bool
}

// Others are meets without those of a strand with itself.
func Others(meets []Meet) []Meet {
	return slices.DeleteFunc(slices.Clone(meets), func(m Meet) bool { return m.On == 0 })
}

// Meets are what the first strand of a ring passes along its way, in order. Every other
// strand does the same.
func Meets(p tighten.Problem) ([]Meet, error) {
	var cs []curve.Curve
	for _, s := range p.Strands {
		cs = append(cs, curve.Spline(s.Route, false).Map(fromTheEnd))
	}
	found, err := curve.Crossings(cs)
	if err != nil {
		return nil, err
	}
	type met struct {
		Meet
		at float64
	}
	var all []met
	for _, x := range found {
		switch {
		case x.Over == x.Under && x.Over == 0:
			all = append(all, met{Meet{0, true}, x.OverAt}, met{Meet{0, false}, x.UnderAt})
		case x.Over == 0:
			all = append(all, met{Meet{x.Under, true}, x.OverAt})
		case x.Under == 0:
			all = append(all, met{Meet{x.Over, false}, x.UnderAt})
		}
	}
	slices.SortFunc(all, func(a, b met) int { return cmp.Compare(a.at, b.at) })
	var out []Meet
	for _, m := range all {
		out = append(out, m.Meet)
	}
	return out, nil
}

// fromTheEnd is a place as one sees it who looks at the working end.
func fromTheEnd(v r3.Vec) r3.Vec { return r3.Vec{X: v.X + 0.0007*v.Y, Y: v.Z + 0.0013*v.Y, Z: v.Y} }

// Passes are meets of strand i as a move says them, where as names each strand's place.
func Passes(meets []Meet, i int, as []int) []move.Pass {
	var out []move.Pass
	for _, m := range meets {
		out = append(out, move.Pass{How: move.How(m.Over), Of: []int{as[(i+m.On)%len(as)]}})
	}
	return out
}

// Tie lays a knot of a ring that was drawn up into the work, the thickest strand
// deciding its size. told is the way as hands lead it, loose; say gives the moves, where
// as is the place of each strand of the ring and meets what the first one passes.
func Tie(w knot.Work, shape shapes.Shape, told tighten.Problem, say func(as []int, meets []Meet) []move.Move) (knot.Tied, error) {
	meets, err := Meets(told)
	if err != nil {
		return knot.Tied{}, err
	}
	d := Thickest(w)
	// Turned a quarter of a step, no two hang straight behind one another.
	aside := -math.Pi / 2 / float64(len(w.Strands))
	strands := make([][]r3.Vec, len(shape.Strands))
	for i, pts := range shape.Strands {
		strands[i] = knot.TurnRoute(pts, aside)
	}
	laid := knot.Lay(strands, d)
	lines := make([][]r3.Vec, len(strands)) // as the shape numbers them
	for k, i := range laid.Of {
		lines[i] = laid.Paths[k].Points
	}
	t := knot.Tied{Loose: true, Snug: true, Around: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.1 * d, Workers: knot.Identity(len(w.Strands))}
	as := make([]int, len(lines))
	for place, i := range Clockwise(len(lines), func(i int) r3.Vec { return lines[i][0] }) {
		as[i] = place
		t.Paths = append(t.Paths, knot.Path{Points: lines[i]})
		way := curve.Spline(knot.TurnRoute(told.Strands[i].Route, aside), false).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, v) })
		t.Flat = append(t.Flat, knot.Path{Points: way.Points})
	}
	for _, i := range Clockwise(len(lines), func(i int) r3.Vec { return lines[i][len(lines[i])-1] }) {
		t.Order = append(t.Order, as[i])
	}
	t.Moves = say(as, meets)
	return t, nil
}

// Thickest is the diameter of the thickest strand, mm: it decides the size of a ring.
func Thickest(w knot.Work) float64 {
	d := 0.0
	for _, l := range w.Strands {
		d = math.Max(d, l.Diameter)
	}
	return d
}

// Led is a knot led in a direction: what ties it anticlockwise ties its mirror too.
func Led(w knot.Work, direction knot.Turn, tie func(w knot.Work) (knot.Tied, error)) (knot.Tied, error) {
	if direction != knot.Clockwise {
		return tie(w)
	}
	m := w
	m.Strands = slices.Clone(w.Strands)
	knot.Flip(m.Strands)
	t, err := tie(m)
	if err != nil {
		return t, err
	}
	t.Paths, t.Flat, t.Hanging = copied(t.Paths), copied(t.Flat), copied(t.Hanging)
	t.Mirror(len(w.Strands))
	return t, nil
}

// copied are paths whose points may be moved.
func copied(paths []knot.Path) []knot.Path {
	out := slices.Clone(paths)
	for i := range out {
		out[i].Points = slices.Clone(out[i].Points)
	}
	return out
}

// Takes refuses a knot of a ring on other than so many strands.
func Takes(w knot.Work, name string, least, most int) error {
	n := len(w.Strands)
	if n >= least && n <= most {
		return nil
	}
	takes := fmt.Sprint(most)
	if least < most {
		takes = fmt.Sprintf("%d to %d", least, most)
	}
	r := &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; %s takes %s", knot.Strands(n), name, takes)}
	switch {
	case n > most:
		r.Set, r.Label = knot.Numbered(1, most), fmt.Sprintf("Take the first %d", most)
	case n == 2: // two have a knot of their own that stands as round
		r.Field, r.Set, r.Label = "do", "two-strand-diamond", "Tie a two-strand diamond"
		r.Why = "a knot for strands that stand in a ring; " + r.Why
	case n == 3: // as long a neck of three is crowned
		r.Field, r.Set, r.Label = "do", "crown", "Tie a crown sinnet"
	}
	return r
}
