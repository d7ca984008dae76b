package coil_test

import (
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots/coil"

	"gonum.org/v1/gonum/spatial/r3"
)

// The end is led as far as its move goes: after the first it has made the eye and no turn, after
// the second all its turns, and only then does it go through the last one.
func TestTheEndIsLedTurnByTurn(t *testing.T) {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
	s, err := knot.New("coil-loop")
	if err != nil {
		t.Fatal(err)
	}
	w := knot.Work{Section: s, BarMM: 2, RingMM: 16, Strands: []knot.Strand{{Stuff: stuff, Figures: stuff.Figures(), Diameter: stuff.DrawnUp(), Dir: r3.Vec{Y: 1}}}}
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
