package coil_test

import (
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots/coil"

	"gonum.org/v1/gonum/spatial/r3"
)

// work is a coil loop of the usual turns on one strand.
func work(t *testing.T) knot.Work {
	t.Helper()
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
	s, err := knot.New("coil-loop")
	if err != nil {
		t.Fatal(err)
	}
	return knot.Work{Section: s, BarMM: 2, RingMM: 16, Strands: []knot.Strand{{Stuff: stuff, Figures: stuff.Figures(), Diameter: stuff.DrawnUp(), Dir: r3.Vec{Y: 1}}}}
}

// The end goes through the last turn: on the face it passes over the standing part and under that
// turn, once, and comes out between it and the turn before. Nothing passes through anything.
func TestTheEndGoesThroughTheLastTurn(t *testing.T) {
	w := work(t)
	x, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	d := w.Strands[0].Diameter
	line := curve.Curve{Points: x.Paths[0].Points}
	if gap := 1 + curve.SelfGap(line, d)/d; gap < 0.95 {
		t.Errorf("strands are %.2f diameters apart", gap)
	}
	long, turn := line.Length(), math.Hypot(2*math.Pi, 1)*d
	wound := x.Moves[1].UpTo * long // there the last turn ends
	arc := func(at float64) float64 {
		return curve.Curve{Points: line.Points[:int(at)+1]}.Length()
	}
	found, err := curve.Crossings([]curve.Curve{line})
	if err != nil {
		t.Fatal(err)
	}
	under, over, tops := 0, 0, math.Inf(-1)
	for _, c := range found {
		o, u := arc(c.OverAt), arc(c.UnderAt)
		switch {
		case u > wound && o > wound-1.3*turn:
			under++
			tops = math.Max(tops, c.Y)
		case o > wound && u < wound-turn:
			over++
		}
	}
	end := line.Points[len(line.Points)-1]
	if under != 1 || over == 0 || end.Y <= tops {
		t.Errorf("the end passes under the last turn %d times, over others %d times, and ends at %.1f of %.1f mm", under, over, end.Y, tops)
	}
}

// The end is led as far as its move goes: after the first it has made the eye and no turn, after
// the second all its turns, and only then does it go through the last one.
func TestTheEndIsLedTurnByTurn(t *testing.T) {
	w := work(t)
	x, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	// turned is how often a strand goes round the standing part after its lowest place.
	turned := func(pts []r3.Vec) float64 {
		low := 0
		for i, v := range pts {
			if v.Y > pts[low].Y {
				low = i
			}
		}
		sum := 0.0
		for i := low + 1; i < len(pts); i++ {
			a, b := math.Atan2(pts[i-1].Z, pts[i-1].X), math.Atan2(pts[i].Z, pts[i].X)
			sum += math.Remainder(b-a, 2*math.Pi)
		}
		return math.Abs(sum) / 2 / math.Pi
	}
	all := turned(x.Paths[0].Points)
	for n, want := range []float64{0, 6, all} {
		held, ok, err := knot.Hold(w, n, 1)
		if err != nil || !ok {
			t.Fatalf("move %d: %v, %v", n+1, ok, err)
		}
		if got := turned(held.Paths[0].Points); math.Abs(got-want) > 0.75 {
			t.Errorf("after move %d it has gone round %.1f times, not %.1f", n+1, got, want)
		}
	}
}
