package berry

import (
	"math"
	"testing"

	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// Berries with their locks take the cord that others measured on one drawn up with the
// ends held out.
func TestBerriesAgainstOthersFigures(t *testing.T) {
	for squares, want := range map[int][4]float64{3: {67.6, 64.4, 12.7, 14.2}, 2: {51, 48, 10.7, 11.4}} {
		s, err := family.Shape(Berry{squares, 1}.String(), nil)
		if err != nil {
			t.Fatal(err)
		}
		for i, pts := range s.Strands {
			if got := knot.BeyondStraight(pts); math.Abs(got/want[i]-1) > 0.05 {
				t.Errorf("strand %d of a berry of %d takes %.1f, others measured %.1f", i, squares, got, want[i])
			}
		}
	}
}

// The lock is drawn up against the roll: with the tails hanging it touches it still.
func TestTheLockLiesAgainstTheRoll(t *testing.T) {
	for _, b := range All() {
		s, err := family.Shape(b.String(), nil)
		if err != nil {
			t.Fatal(err)
		}
		// Of each worker the lock is what it touches last: a square knot takes some 13 of it.
		const lockCord, between = 13.0, 4.0
		var roll, lock []r3.Vec
		for i, pts := range s.Strands[:2] {
			arc := arcs(pts)
			last := len(pts) - 1
			for nearest(s.Strands, i, pts[last]) > 1.1 {
				last--
			}
			for k, v := range pts[:last] {
				switch off := arc[last] - arc[k]; {
				case off < lockCord:
					lock = append(lock, v)
				case off > lockCord+between:
					roll = append(roll, v)
				}
			}
		}
		least := math.Inf(1)
		for _, u := range roll {
			for _, v := range lock {
				least = math.Min(least, r3.Norm(r3.Sub(u, v)))
			}
		}
		if least > 1.1 {
			t.Errorf("%s: the lock lies %.2f from the roll", b, least)
		}
	}
}
