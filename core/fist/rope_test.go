package fist

import (
	"errors"
	"math"
	"testing"

	"nimblebight/core/curve"
)

func rolled(t *testing.T, strands, rounds int, mm, former float64) RopeBall {
	t.Helper()
	b, err := MakeRope(RopeAsk{Cord: rope(mm), Strands: strands, Rounds: rounds, FormerMM: former})
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func TestRopeBallScales(t *testing.T) {
	a, b := rolled(t, 3, 2, 3, 0), rolled(t, 3, 2, 6, 0)
	for name, v := range map[string][2]float64{"former": {a.FormerMM, b.FormerMM}, "outside": {a.OuterMM, b.OuterMM}, "opening": {a.InnerMM, b.InnerMM}, "bare": {a.BareMM, b.BareMM}, "cord": {a.CordsMM[0], b.CordsMM[0]}} {
		near(t, name, v[1], 2*v[0], 1e-9)
	}
}

// Two layers lie on the former at every crossing, or ride a little off it; a strand that is followed
// takes its rounds one after the other; a larger former takes more of it and
// shows more.
func TestRopeBallLaws(t *testing.T) {
	for _, c := range [][2]int{{2, 1}, {3, 1}, {2, 2}, {3, 2}, {2, 3}} {
		b := rolled(t, c[0], c[1], 1, 0)
		if b.OuterMM < b.FormerMM+3.9 || b.OuterMM > b.FormerMM+7 {
			t.Errorf("%v: on %.1f it is %.1f wide", c, b.FormerMM, b.OuterMM)
		}
		if len(b.CordsMM) != c[0] || len(b.RoundsMM) != c[1] {
			t.Fatalf("%v: %d cords, %d rounds", c, len(b.CordsMM), len(b.RoundsMM))
		}
		sum := 0.0
		for _, l := range b.RoundsMM {
			sum += l
		}
		if math.Abs(b.CordsMM[0]-sum) > 6*float64(c[1]) { // between rounds it steps aside
			t.Errorf("%v: a strand takes %.1f, its rounds %.1f", c, b.CordsMM[0], sum)
		}
		if b.Gap < 0.98 {
			t.Errorf("%v: strands are %.2f apart", c, b.Gap)
		}
		larger := rolled(t, c[0], c[1], 1, 1.1*b.FormerMM)
		if larger.CordsMM[0] <= b.CordsMM[0] || larger.OuterMM <= b.OuterMM || larger.BareMM < b.BareMM {
			t.Errorf("%v: on a larger former a strand takes %.1f, it is %.1f wide and bare %.1f; on a smaller %.1f, %.1f and %.1f", c, larger.CordsMM[0], larger.OuterMM, larger.BareMM, b.CordsMM[0], b.OuterMM, b.BareMM)
		}
	}
}

// Stopping after the first round on the same former leaves the opening wider.
func TestNapkinRing(t *testing.T) {
	whole := rolled(t, 2, 2, 3, 0)
	ring := rolled(t, 2, 1, 3, 11)
	if ring.InnerMM <= 0 || ring.InnerMM >= ring.OuterMM || ring.InnerMM >= 11 {
		t.Errorf("a ring %v mm wide inside, %v outside", ring.InnerMM, ring.OuterMM)
	}
	if whole.CordsMM[0] <= 1.5*ring.CordsMM[0] {
		t.Errorf("twice round a strand takes %v, once %v", whole.CordsMM[0], ring.CordsMM[0])
	}
}

// Published: the knot of three leads and four bights, on one strand, has the
// determinant 45. Every track of a ball is that knot still.
func TestTracksAreTurksHeads(t *testing.T) {
	for _, m := range ropeTracks {
		for _, former := range formerSteps(m) {
			for j, pts := range embedded()[ropeKey(m, former)].Strands {
				c := curve.TurnY(curve.Curve{Points: pts, Closed: true}, 0.37).Map(func(v Vec) Vec { return Vec{X: v.X, Y: 0.9*v.Y + 0.43*v.Z, Z: 0.9*v.Z - 0.43*v.Y} })
				found, err := curve.Crossings([]curve.Curve{c})
				if err != nil {
					t.Fatal(err)
				}
				if det := curve.Determinant(found, 1); det != 45 {
					t.Errorf("track %d of %d on %.1f has the determinant %d", j+1, m, former, det)
				}
			}
		}
	}
}

func TestRopeBallRefusals(t *testing.T) {
	for name, a := range map[string]RopeAsk{
		"no strands": {Cord: rope(3), Rounds: 1}, "too many": {Cord: rope(3), Strands: 4, Rounds: 3}, "five": {Cord: rope(3), Strands: 5, Rounds: 1},
		"small former": {Cord: rope(3), Strands: 3, Rounds: 2, FormerMM: 4}, "large former": {Cord: rope(3), Strands: 3, Rounds: 2, FormerMM: 400},
		"no cord": {Cord: Cord{}, Strands: 3, Rounds: 2},
	} {
		_, err := MakeRope(a)
		var no *Refused
		if !errors.As(err, &no) {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if no.Passes > 0 && a.Strands > 0 {
			a.Rounds = no.Passes
			if _, err := MakeRope(a); err != nil {
				t.Errorf("%s: with the %d rounds that are offered: %v", name, no.Passes, err)
			}
		}
		if no.CoreMM > 0 {
			a.FormerMM = no.CoreMM
			if _, err := MakeRope(a); err != nil {
				t.Errorf("%s: on what is offered, %.1f mm: %v", name, no.CoreMM, err)
			}
		}
	}
}
