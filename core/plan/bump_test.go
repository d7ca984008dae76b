package plan_test

import (
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// In a row of square knots the lowest bump stands at the side at which the next half begins, by
// turns left and right, and half a knot lower each time; the left hand has the mirror. After the
// first half no strand has come back from the edge yet.
func TestTheLowestBumpTellsTheSide(t *testing.T) {
	d := notation.With(piece.Begin("bumps", "key-fob", piece.SplitRing(30, 2), 0), "mount A B, square-knot 6, finish",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})
	for _, left := range []bool{false, true} {
		whole, err := plan.Make(d, plan.Options{LeftHanded: left})
		if err != nil {
			t.Fatal(err)
		}
		const half, halves = 2, 12 // moves of a half knot, halves of the row
		first := 0
		for done := 1; done < whole.Actions && first == 0; done++ {
			if _, side := whole.GoesOn(done); side != "" {
				first = done
			}
		}
		was, low := "", 0.0
		for k := 0; k < halves-1; k++ {
			done := first + k*half
			section, side := whole.GoesOn(done)
			if side == "" || side == was {
				t.Fatalf("left-handed %v: after %d moves the row goes on %q, before %q", left, done, side, was)
			}
			hand, err := plan.Make(d, plan.Options{LeftHanded: left, Until: done, Along: 1})
			if err != nil {
				t.Fatal(err)
			}
			l := hand.Look()
			at, ok := l.LowestBump(section, side)
			if ok != (k > 0) || ok && (at.X < 0) != (side == "left") {
				t.Errorf("left-handed %v: after %d moves the lowest bump %s is at %+v, %v", left, done, side, at, ok)
			}
			if k > 1 && (at.Y <= low || at.Y-low > 2*l.Thick) {
				t.Errorf("left-handed %v: after %d moves the lowest bump is at %.1f mm, before at %.1f", left, done, at.Y, low)
			}
			was, low = side, at.Y
		}
	}
	if _, side := (plan.Plan{}).GoesOn(3); side != "" {
		t.Errorf("an empty plan goes on %s", side)
	}
	if _, ok := (plan.Layout{}).LowestBump(0, "left"); ok {
		t.Error("an empty layout has a bump")
	}
}
