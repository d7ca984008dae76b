package snake_test

import (
	"fmt"
	"strings"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots/snake"
	"nimblebight/core/notation"

	"gonum.org/v1/gonum/spatial/r3"
)

// tied is a snake knot on two strands of one diameter.
func tied(t *testing.T, line string) knot.Tied {
	t.Helper()
	seq, err := notation.Parse(line)
	if err != nil {
		t.Fatal(err)
	}
	k, _ := knot.Get(seq[0].Do)
	got, err := k.Tie(knot.Work{Section: seq[0], Strands: []knot.Strand{{Diameter: 1}, {Diameter: 1}}})
	if err != nil {
		t.Fatalf("%s: %v", line, err)
	}
	return got
}

// Told alone, with its ends joined far outside: a loop over the other strand is no
// knot, the trefoil has the determinant 3. Only round both leaves a knot in it.
func TestRoundBothIsAnOverhandRoundTheOther(t *testing.T) {
	for _, c := range []struct {
		line        string
		determinant int
	}{{"snake-knot 1", 1}, {"snake-knot 1 school=round-both", 3}, {"snake-knot 1 start=right", 1}, {"snake-knot 1 start=right school=round-both", 3}} {
		got := tied(t, c.line)
		pts := got.Paths[got.Moves[0].Strand].Points
		a, b := pts[len(pts)-1], pts[0]
		ring := curve.Curve{Points: append(pts, r3.Vec{X: a.X, Y: 1000}, r3.Vec{X: 1000, Y: 1000}, r3.Vec{X: 1000, Y: -1000}, r3.Vec{X: b.X, Y: -1000}), Closed: true}
		found, err := curve.Crossings([]curve.Curve{curve.TurnY(ring, 0.013)})
		if err != nil {
			t.Fatal(err)
		}
		if n := curve.Determinant(found, 1); n != c.determinant {
			t.Errorf("%s: the strand has the determinant %d, want %d", c.line, n, c.determinant)
		}
	}
}

// The school changes the first loop and nothing else: round both, its strand takes
// more cord, crosses itself more often, and each wrap more adds the same.
func TestTheSchoolIsInTheFirstLoop(t *testing.T) {
	length := func(line string, strand int) float64 { return knot.Curve(tied(t, line).Paths[strand].Points).Length() }
	for count := 1; count <= 9; count++ {
		one, both := fmt.Sprintf("snake-knot %d", count), fmt.Sprintf("snake-knot %d school=round-both", count)
		more := length(both, 0) - length(one, 0)
		if more < 7 || more > 11 {
			t.Errorf("%d wraps: round both takes %.2f diameters more", count, more)
		}
	}
	for _, school := range []string{"over-one", "round-both"} {
		at := func(n int) float64 {
			line := fmt.Sprintf("snake-knot %d school=%s", n, school)
			return length(line, 0) + length(line, 1)
		}
		if a, b := at(9)-at(7), at(11)-at(9); b < 0.98*a || b > 1.02*a {
			t.Errorf("%s: two wraps add %.2f, then %.2f", school, a, b)
		}
	}
}

// Whichever side starts makes the first wrap, and its cord crosses in front of and
// behind the other first.
func TestTheSideThatStartsMakesTheFirstWrap(t *testing.T) {
	for i, side := range []string{"left", "right"} {
		for _, school := range []string{"over-one", "round-both"} {
			got := tied(t, "snake-knot 5 start="+side+" school="+school)
			if got.Moves[0].Strand != i {
				t.Errorf("%s, %s: strand %d begins", side, school, got.Moves[0].Strand+1)
			}
			if a, b := got.Paths[0].Points[0].X, got.Paths[1].Points[0].X; a >= b {
				t.Errorf("%s, %s: the left strand begins at %.2f, the right at %.2f", side, school, a, b)
			}
			if !strings.Contains(got.Moves[0].Text, "first time") {
				t.Errorf("%s, %s: nothing is said of the first loop", side, school)
			}
		}
	}
}
