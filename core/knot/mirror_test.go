package knot_test

import (
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// A diamond mirrored for the left hand has its joining hitch on the other side,
// and its words say so.
func TestADiamondForTheLeftHand(t *testing.T) {
	w := knot.Work{Section: one(t, "diamond 1"), Strands: side(6, lace)}
	right := tie(t, w)
	w.LeftHanded = true
	left := tie(t, w)
	for i := range right.Paths {
		for k, v := range right.Paths[i].Points {
			if u := left.Paths[5-i].Points[k]; u != (r3.Vec{X: -v.X, Y: v.Y, Z: v.Z}) {
				t.Fatalf("strand %d runs through %v, for the left hand through %v", i+1, v, u)
			}
		}
	}
	a, b := right.Moves[len(right.Moves)-1], left.Moves[len(left.Moves)-1]
	if a.Strand != 5-b.Strand || a.Say(move.Names{}) == b.Say(move.Names{}) {
		t.Errorf("joined by %q, for the left hand by %q", a.Say(move.Names{}).Text, b.Say(move.Names{}).Text)
	}
}
