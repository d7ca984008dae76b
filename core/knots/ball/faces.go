package ball

import (
	"cmp"
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// Face is one of the six faces of a ball as it is inspected: the turns that are
// seen on it, side by side.
type Face struct {
	Band  int    `json:"band"`  // whose turns they are, from 0
	Other int    `json:"other"` // the band that lies under them
	Cords []int  `json:"cords"` // of each turn, in order across
	Flaw  string `json:"flaw,omitempty"`

	normal r3.Vec
}

// Faces looks at the six faces of the ball, two for each band.
//
//	(1) a face shows as many turns as the ball has passes
//	(2) none of them crosses another
//	(3) all of them are of one band, the same as on the face across
func (b Ball) Faces() []Face {
	const swapped = 0.4 // of a diameter, by which turns that crossed have changed places
	out := make([]Face, 0, 6)
	for i, n := range faceNormals() {
		f := Face{Band: i / 2, Cords: []int{}, normal: n}
		f.Other = b.under(f)
		along, across := directions(f.Band, n)
		type turn struct {
			cord                  int
			before, middle, after float64 // its place across the face, at three lines over it
		}
		var turns []turn
		for _, s := range b.strands {
			for k := 1; k < len(s.Points); k++ {
				p, q := s.Points[k-1], s.Points[k]
				if r3.Dot(p, along) < 0 == (r3.Dot(q, along) < 0) || r3.Dot(p, n) < math.Abs(r3.Dot(p, across)) || math.Abs(r3.Cos(r3.Sub(q, p), along)) < 0.5 {
					continue // it lies on another face, or runs crosswise under this one
				}
				t := turn{cord: s.Cord, middle: r3.Dot(p, across)}
				edge := 0.3 * float64(b.Passes)
				// Walk to where it comes over the lines on either side.
				at := func(step int, side float64) float64 {
					for j := k; j > 0 && j < len(s.Points); j += step {
						if side*r3.Dot(s.Points[j], along) > edge {
							return r3.Dot(s.Points[j], across)
						}
						if math.Abs(float64(j-k)) > 60 {
							break
						}
					}
					return t.middle
				}
				forward := 1
				if r3.Dot(q, along) < 0 {
					forward = -1
				}
				t.before, t.after = at(-forward, -1), at(forward, 1)
				turns = append(turns, t)
			}
		}
		slices.SortFunc(turns, func(x, y turn) int { return cmp.Compare(x.middle, y.middle) })
		for k, t := range turns {
			f.Cords = append(f.Cords, t.cord)
			if k > 0 && (t.before < turns[k-1].before-swapped || t.after < turns[k-1].after-swapped) {
				f.Flaw = "two turns cross"
			}
		}
		switch {
		case len(turns) < b.Passes:
			f.Flaw = "a turn is missing"
		case len(turns) > b.Passes:
			f.Flaw = "a turn too many"
		}
		out = append(out, f)
	}
	return out
}

// directions are the ways along and across the turns of a band on a face.
func directions(band int, n r3.Vec) (along, across r3.Vec) {
	across = []r3.Vec{{Z: 1}, {X: 1}, {Y: 1}}[band]
	return r3.Cross(across, n), across
}

// Over tells whether one band lies over another where they cross, as the curve
// has it.
func (b Ball) Over(one, other int) bool {
	for _, f := range b.Faces() {
		if f.Band == one && f.Other == other {
			return true
		}
	}
	return false
}

// under is the band whose turns lie next under those seen on a face.
func (b Ball) under(f Face) int {
	var n [3]int
	for _, s := range b.strands {
		for k, v := range s.Points {
			if r3.Cos(v, f.normal) > 0.93 {
				n[s.Band[k]]++
			}
		}
	}
	best, at := 0.0, (f.Band+2)%3
	for i := range n {
		if i != f.Band && float64(n[i]) > best {
			best, at = float64(n[i]), i
		}
	}
	return at
}
