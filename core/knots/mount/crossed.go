package mount

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// tieCrossed lays two cords crosswise at their folds, the second over the first; their
// four legs hang down in a ring, for a crown to begin with. It is constructed: straights
// and quarter turns that touch where the cords cross.
func tieCrossed(w knot.Work) (knot.Tied, error) {
	t := knot.Tied{Open: true, Repeats: 1, Gap: 1}
	switch {
	case len(w.Own) != 4:
		return t, &knot.Refused{Field: "cords", Why: fmt.Sprintf("%d; two are laid crosswise", len(w.Own)/2)}
	case w.BarMM > 0:
		return t, &knot.Refused{Field: "hitch", Why: "two cords laid crosswise are put on nothing, and the piece hangs on something", Set: string(LarksHead), Label: "Put them on by lark's heads"}
	}
	d := 0.0
	for _, l := range w.Own {
		d = math.Max(d, l.Diameter)
	}
	const out, bend = 1.45, 0.9 // of a leg from the middle, and of its turn, diameters
	t.Height = (1.5 + bend + 0.6) * d
	first, second := 0, 1 // across and over it
	if w.LeftHanded {
		first, second = 1, 0
	}
	t.Own = make([]knot.Path, 4)
	for leg := range 2 {
		side := float64(2*leg - 1)
		t.Own[2*first+leg] = knot.Path{Points: crossing(1.5*d, t.Height, out*d, bend*d, func(a float64) r3.Vec { return r3.Vec{X: side * a} })}
		front := side
		if w.LeftHanded { // its first leg is the one behind
			front = -side
		}
		t.Own[2*second+leg] = knot.Path{Points: crossing(0.5*d, t.Height, out*d, bend*d, func(a float64) r3.Vec { return r3.Vec{Z: front * a} })}
	}
	// As places of a ring are counted: clockwise from the working end. The one at the
	// back is the last of them, for a left hand the first.
	t.Order = []int{2 * first, 2*second + 1, 2*first + 1, 2 * second}
	if w.LeftHanded {
		t.Order = []int{2*second + 1, 2 * first, 2 * second, 2*first + 1}
	}
	t.Moves = []move.Move{
		{Strand: 2 * first, Folded: true, Text: "Lay cord {cord} across, its fold mark in the middle.", Detail: "Pin it there, or hold it between two fingers."},
		{Strand: 2 * second, Folded: true, Text: "Lay cord {cord} over it crosswise, both fold marks one on the other.", Gate: "Four legs stand out crosswise, as long as each other."},
	}
	return t, nil
}

// crossing is a leg from its fold at height y, out to a distance, round a quarter turn
// and straight down to a height; to gives the way out.
func crossing(y, down, out, bend float64, to func(a float64) r3.Vec) []r3.Vec {
	at := func(a, y float64) r3.Vec { v := to(a); v.Y = y; return v }
	pts := []r3.Vec{at(0, y), at((out-bend)/2, y)}
	const parts = 8
	for k := range parts + 1 {
		s, c := math.Sincos(math.Pi / 2 * float64(k) / parts)
		pts = append(pts, at(out-bend+bend*s, y+bend*(1-c)))
	}
	return append(pts, at(out, down))
}
