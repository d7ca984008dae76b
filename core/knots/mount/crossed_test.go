package mount

import (
	"errors"
	"math"
	"slices"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"

	"gonum.org/v1/gonum/spatial/r3"
)

func crossed(cords int, d, bar float64, left bool) (knot.Tied, error) {
	w := knot.Work{Section: Of(Crossed), BarMM: bar, LeftHanded: left}
	for i := range 2 * cords {
		w.Own = append(w.Own, knot.Strand{Cord: i / 2, Leg: i % 2, Diameter: d, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d}, Figures: cord.Figures{DrawnUpMM: d, LabelMM: d, Squeeze: 1}})
	}
	return knot.Tie(w)
}

// Laid crosswise the cords touch where the second lies over the first, their legs stand
// by turns in a ring and hang straight down.
func TestTwoCordsAreLaidCrosswise(t *testing.T) {
	const d = 3.0
	for _, left := range []bool{false, true} {
		x, err := crossed(2, d, 0, left)
		if err != nil {
			t.Fatal(err)
		}
		gap := math.Inf(1)
		for i, p := range x.Own {
			end := p.Points[len(p.Points)-1]
			if r := math.Hypot(end.X, end.Z); math.Abs(r-1.45*d) > 1e-9 || end.Y != x.Height {
				t.Errorf("left hand %v: leg %d hangs at %v", left, i, end)
			}
			if dir := knot.Heading(p.Points, true); dir.Y < 0.9999 {
				t.Errorf("left hand %v: leg %d leaves along %v", left, i, dir)
			}
			for k, q := range x.Own[i+1:] {
				j := i + 1 + k
				if i/2 != j/2 {
					gap = math.Min(gap, curve.Gap(curve.Curve{Points: p.Points}, d, curve.Curve{Points: q.Points}, d)/d+1)
				}
				other := q.Points[len(q.Points)-1]
				if opposite := end.X*other.X+end.Z*other.Z < -0.9*end.X*end.X-0.9*end.Z*end.Z; opposite != (i/2 == j/2) {
					t.Errorf("left hand %v: legs %d and %d stand opposite: %v", left, i, j, opposite)
				}
			}
		}
		if math.Abs(gap-1) > 0.02 {
			t.Errorf("left hand %v: the cords lie %.3f of a diameter apart", left, gap)
		}
		places := ring.Clockwise(4, func(i int) r3.Vec { return x.Own[i].Points[len(x.Own[i].Points)-1] })
		if at := slices.Index(places, x.Order[0]); at < 0 || !slices.Equal(x.Order, slices.Concat(places[at:], places[:at])) {
			t.Errorf("left hand %v: clockwise they hang as %v, their places are %v", left, places, x.Order)
		}
	}
}

// On something, and of other than two cords, a cross is refused.
func TestACrossIsRefused(t *testing.T) {
	var r *knot.Refused
	if _, err := crossed(2, 3, 2, false); !errors.As(err, &r) || r.Set != string(LarksHead) {
		t.Errorf("on a wire: %v", err)
	}
	for _, n := range []int{1, 3} {
		if _, err := crossed(n, 3, 0, false); !errors.As(err, &r) || r.Field != "cords" {
			t.Errorf("%d cords: %v", n, err)
		}
	}
}
