package berry

import (
	"math"
	"math/rand/v2"
	"testing"

	"nimblebight/core/cord"
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
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 3}
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
			w.Strands = append(w.Strands, knot.Strand{Cord: i, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: d * (float64(i) - 1.5)}, Dir: r3.Vec{Y: 1}})
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

// A row is rolled up by a map of space that shortens nothing behind the inner side of the row, and
// leaves what hangs above it where it is.
func TestARowIsRolledUp(t *testing.T) {
	const tall, inner, step = 16.0, 1.3, 1e-4
	src := rand.New(rand.NewPCG(7, 3))
	for range 4000 {
		v := r3.Vec{X: 6*src.Float64() - 3, Y: 0.1 + 0.9*tall*src.Float64(), Z: inner - 3*src.Float64()}
		by := r3.Scale(step, r3.Unit(r3.Vec{X: src.NormFloat64(), Y: src.NormFloat64(), Z: src.NormFloat64()}))
		round := rolledUp * src.Float64()
		if near := r3.Norm(r3.Sub(roll(r3.Add(v, by), tall, inner, round), roll(v, tall, inner, round))); near < 0.999*step {
			t.Fatalf("rolled by %.2f, places %g apart at %v are %g apart", round, step, v, near)
		}
		if at := roll(r3.Vec{X: v.X, Y: -v.Y, Z: v.Z}, tall, inner, round); at.Y != -v.Y || at.Z != v.Z {
			t.Fatalf("above the row %v goes to %v", v, at)
		}
	}
	s, err := knot.New("berry-knot")
	if err != nil {
		t.Fatal(err)
	}
	s.Count = 1
	w := knot.Work{Section: s, BarMM: 2, RingMM: 16}
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 3, Colour: "#0f5c63"}
	d := stuff.DrawnUp()
	for i := range 4 {
		w.Strands = append(w.Strands, knot.Strand{Cord: i, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: d * (float64(i) - 1.5)}, Dir: r3.Vec{Y: 1}})
	}
	const rolls = 13 // the move: six half knots are two moves each, and one leads the fillers up
	flat, _, err := knot.Hold(w, rolls-1, 1)
	if err != nil {
		t.Fatal(err)
	}
	least := 0.97 + curve.Gap(curve.Curve{Points: flat.Paths[0].Points}, d, curve.Curve{Points: flat.Paths[3].Points}, d)/d
	last := math.Inf(1)
	for _, along := range []float64{0.02, 0.15, 0.3, 0.45, 0.59} {
		held, ok, err := knot.Hold(w, rolls, along)
		if err != nil || !ok {
			t.Fatal(err)
		}
		// Of the workers' curves the row is all but their ends; it comes forward and up.
		front := 0.0
		row := func(i int) curve.Curve {
			pts := held.Paths[i].Points
			return curve.Curve{Points: pts[:len(pts)-7]}
		}
		for _, i := range []int{0, 3} {
			for _, v := range row(i).Points {
				front = math.Max(front, v.Z)
			}
		}
		gap := 1 + curve.Gap(row(0), d, row(3), d)/d
		low := 0.0
		for _, v := range row(0).Points {
			low = math.Max(low, v.Y)
		}
		if low >= last || front < d || gap < least {
			t.Errorf("rolled by %.2f it reaches %.1f mm down, before %.1f, %.1f mm forward; its workers are %.2f diameters apart", along, low, last, front, gap)
		}
		last = low
	}
}

// The lock is tied half knot by half knot: before each move the end of the strand that it leads
// is on its own side still, and led it is on the other.
func TestTheLockIsLedMoveByMove(t *testing.T) {
	s, err := knot.New("berry-knot")
	if err != nil {
		t.Fatal(err)
	}
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
	w := knot.Work{Section: s}
	for range 4 {
		w.Strands = append(w.Strands, knot.Strand{Stuff: stuff, Figures: stuff.Figures(), Diameter: stuff.DrawnUp()})
	}
	whole, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	for k := len(whole.Moves) - 4; k < len(whole.Moves); k++ {
		strand := whole.Moves[k].Strand
		end := func(along float64) float64 {
			held, ok, err := knot.Hold(w, k, along)
			if err != nil || !ok {
				t.Fatalf("move %d: %v, %v", k+1, ok, err)
			}
			pts := held.Paths[strand].Points
			return pts[len(pts)-1].X
		}
		if from, to := end(0.01), end(knot.Led); from*to >= 0 {
			t.Errorf("move %d leads an end from %.1f to %.1f mm beside the middle", k+1, from, to)
		}
	}
}
