package ring_test

import (
	"math"
	"slices"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"

	"gonum.org/v1/gonum/spatial/r3"
)

// swirl is a way that each of n strands can be led: out, on past the next two and home.
func swirl(n int) []ring.At {
	s, b := 360/float64(n), ring.Stands(n)
	return []ring.At{{R: b, Y: -9}, {R: b, Y: -3}, {R: b + 1}, {R: b + 2, Degrees: 0.6 * s, Y: 1}, {R: b + 2, Degrees: 1.7 * s, Y: -1}, {R: b + 1, Degrees: 2.4 * s},
		{R: b, Degrees: 2.4 * s, Y: 3}, {R: b, Degrees: 2.4 * s, Y: 9}}
}

// What one strand passes over others pass under: of all the meets of a ring as many are
// over as under, and each has its other side as many steps back.
func TestMeetsHaveTwoSides(t *testing.T) {
	for n := 3; n <= 8; n++ {
		meets, err := ring.Meets(ring.Route(n, swirl(n)))
		if err != nil {
			t.Fatal(err)
		}
		var over, under []int
		for _, m := range ring.Others(meets) {
			if m.Over {
				over = append(over, m.On)
			} else {
				under = append(under, n-m.On)
			}
		}
		slices.Sort(over)
		slices.Sort(under)
		if len(over) == 0 || !slices.Equal(over, under) {
			t.Errorf("of %d strands: over those %v steps on, under those %v steps back", n, over, under)
		}
	}
}

// Led the other way a knot is its mirror, places and all, and what it is tied from stays
// as it was.
func TestTheOtherWayIsTheMirror(t *testing.T) {
	points := []r3.Vec{{X: -1}, {X: 2, Y: 3, Z: 1}}
	tie := func(w knot.Work) (knot.Tied, error) {
		return knot.Tied{Height: 3, Order: []int{1, 0}, Paths: []knot.Path{{Points: points}, {Points: []r3.Vec{{X: 1}, {X: -2, Y: 3}}}}}, nil
	}
	w := knot.Work{Strands: make([]knot.Strand, 2)}
	a, _ := ring.Led(w, knot.Anticlockwise, tie)
	b, _ := ring.Led(w, knot.Clockwise, tie)
	for i, p := range a.Paths {
		for k, v := range p.Points {
			if m := b.Paths[1-i].Points[k]; m.X != -v.X || m.Y != v.Y || m.Z != v.Z {
				t.Errorf("point %d of strand %d is %v, of its mirror %v", k, i, v, m)
			}
		}
	}
	if points[0].X != -1 {
		t.Error("the knot that was mirrored was changed")
	}
}

// Places go clockwise as seen from the working end, each strand once; in a mirror the same
// strands are counted the other way round.
func TestPlacesGoClockwise(t *testing.T) {
	for n := 3; n <= 8; n++ {
		for turned := range 7 {
			at := func(i int) r3.Vec { // every strand anticlockwise of the one before
				s, c := math.Sincos(0.1 + float64(turned) + 2*math.Pi*float64(i)/float64(n))
				return r3.Vec{X: c, Z: s}
			}
			places := ring.Clockwise(n, at)
			for k, i := range places {
				a, b := at(i), at(places[(k+1)%n])
				if a.X*b.Z-a.Z*b.X > 1e-9 {
					t.Errorf("of %d, turned %d: from place %d on it goes anticlockwise", n, turned, k+1)
				}
			}
			mirrored := ring.Clockwise(n, func(i int) r3.Vec { v := at(i); v.X = -v.X; return v })
			slices.Reverse(mirrored)
			if !slices.Equal(places, mirrored) {
				t.Errorf("of %d, turned %d: %v, and in a mirror %v", n, turned, places, mirrored)
			}
		}
	}
}
