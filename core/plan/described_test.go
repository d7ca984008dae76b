package plan_test

import (
	"strings"
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Said to those who do not see it, a piece has its length, its hardware, every cord's colour, and
// its sections in order with who ties over what; by both hands the same.
func TestAPieceIsDescribed(t *testing.T) {
	d := notation.With(piece.Begin("told", "zip-pull", piece.SplitRing(20, 2), 0), "mount A, mount B hitch=laid-behind, square-knot 5, gap 9mm, finish",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, "#101010")}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(2.2, "#d02020")})
	for _, left := range []bool{false, true} {
		p, err := plan.Make(d, plan.Options{LeftHanded: left})
		if err != nil {
			t.Fatal(err)
		}
		at := 0
		for _, want := range []string{"mm} long, on a split ring.", "Cord A is black.", "Cord B is red.", "1. mount: A.", "2. mount: A and B.", "3. square knot, 5 times: B over A.", "4. gap", "5. finish"} {
			i := strings.Index(p.Described[at:], want)
			if i < 0 {
				t.Fatalf("left-handed %v: %q does not follow in: %s", left, want, p.Described)
			}
			at += i + len(want)
		}
	}
}
