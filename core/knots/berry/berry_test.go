package berry

import (
	"math"
	"testing"

	"nimblebight/core/curve"
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

// In hand it is a flat row, by either hand, till its fillers are pulled: they lie straight
// through it, it grows with every half knot, and of the bead nothing is seen.
func TestABerryInHandIsARowTillItIsRolled(t *testing.T) {
	for _, start := range []knot.Side{knot.Left, knot.Right} {
		s, err := knot.New("berry-knot")
		if err != nil {
			t.Fatal(err)
		}
		s.Count = 1
		s.Settings = Settings{Squares: 3, Start: start}
		w := knot.Work{Section: s, BarMM: 2, RingMM: 16}
		const d = 3.0
		for i := range 4 {
			w.Strands = append(w.Strands, knot.Strand{Cord: i, Diameter: d, At: r3.Vec{X: d * (float64(i) - 1.5)}, Dir: r3.Vec{Y: 1}})
		}
		taken := func(action int) (worker, filler, off float64) {
			held, ok, err := knot.Hold(w, action, 1)
			if err != nil || !ok || len(held.Paths) != 4 {
				t.Fatalf("begun %s, move %d: %v, %v", start, action+1, ok, err)
			}
			for i, p := range held.Paths {
				long := curve.Curve{Points: p.Points}.Length()
				if i == 1 || i == 2 {
					filler += long
					for _, v := range p.Points {
						off = math.Max(off, math.Abs(v.Z))
					}
				} else {
					worker += long
				}
			}
			return worker, filler, off
		}
		last, straight := 0.0, 0.0
		for k := 1; k < 12; k += 2 { // each half knot closed
			worker, filler, off := taken(k)
			if worker <= last || off > 0.1*d {
				t.Errorf("begun %s, after %d half knots: the workers took %.0f mm, before %.0f; the fillers lie %.1f mm off", start, (k+1)/2, worker, last, off)
			}
			last, straight = worker, filler
		}
		if _, filler, off := taken(12); filler < 1.5*straight || off < d {
			t.Errorf("begun %s: led up over the face the fillers took %.0f mm, before %.0f, %.1f mm off the row", start, filler, straight, off)
		}
		if worker, _, _ := taken(13); worker <= last*0.8 {
			t.Errorf("begun %s: rolled up the workers took %.0f mm, in the row %.0f", start, worker, last)
		}
	}
}
