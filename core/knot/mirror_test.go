package knot_test

import (
	"nimblebight/core/knot"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"
)

// Sides and places change in a mirrored sentence, and lists stay in order.
func TestMirrorText(t *testing.T) {
	for _, c := range []struct {
		n         int
		say, want string
	}{
		{6, "Lay strand 3 to the left across the front of strands 1 and 2, slanting down.", "Lay strand 4 to the right across the front of strands 5 and 6, slanting down."},
		{4, "Put the bead on strands 1 to 3.", "Put the bead on strands 2 to 4."},
		{4, "Hitch the right filler twice over the left one.", "Hitch the left filler twice over the right one."},
		{4, "Nothing of sides.", "Nothing of sides."},
	} {
		if got := knot.MirrorText(c.say, c.n); got != c.want {
			t.Errorf("%q became %q, want %q", c.say, got, c.want)
		}
		if again := knot.MirrorText(knot.MirrorText(c.say, c.n), c.n); again != c.say {
			t.Errorf("mirrored twice %q became %q", c.say, again)
		}
	}
}

// A diamond mirrored for the left hand has its joining hitch on the other side,
// and its words say so.
func TestADiamondForTheLeftHand(t *testing.T) {
	w := knot.Work{Section: one(t, "diamond 1"), Leads: side(6, lace)}
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
	a, b := right.Actions[len(right.Actions)-1], left.Actions[len(left.Actions)-1]
	if a.Moves != 5-b.Moves || a.Text == b.Text {
		t.Errorf("joined by %q, for the left hand by %q", a.Text, b.Text)
	}
}
