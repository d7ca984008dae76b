package knot

import "testing"

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
		if got := mirrorText(c.say, c.n); got != c.want {
			t.Errorf("%q became %q, want %q", c.say, got, c.want)
		}
		if again := mirrorText(mirrorText(c.say, c.n), c.n); again != c.say {
			t.Errorf("mirrored twice %q became %q", c.say, again)
		}
	}
}

// A diamond mirrored for the left hand has its joining hitch on the other side,
// and its words say so.
func TestADiamondForTheLeftHand(t *testing.T) {
	var leads []Lead
	for i := range 6 {
		leads = append(leads, Lead{Diameter: 3, At: Vec{X: float64(i)*3 - 7.5}, Dir: Vec{Y: 1}})
	}
	w := Work{Section: Section{Do: "diamond", Count: 1, Inside: "empty", Order: "in-turn", Close: "join"}, Leads: leads}
	for i := range leads {
		w.Leads[i].Stuff.Make = "leather"
	}
	right, err := Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	w.LeftHanded = true
	left, err := Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	for i := range right.Paths {
		for k, v := range right.Paths[i].Points {
			if u := left.Paths[5-i].Points[k]; u != (Vec{X: -v.X, Y: v.Y, Z: v.Z}) {
				t.Fatalf("strand %d runs through %v, for the left hand through %v", i+1, v, u)
			}
		}
	}
	a, b := right.Actions[len(right.Actions)-1], left.Actions[len(left.Actions)-1]
	if a.Moves != 5-b.Moves || a.Text == b.Text {
		t.Errorf("joined by %q, for the left hand by %q", a.Text, b.Text)
	}
}
