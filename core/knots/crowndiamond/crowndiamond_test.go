package crowndiamond

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"
)

// Each form and gap is the knot that it is said to be, by its determinant; takes the
// cord that was measured of it by others, to two per cent; and is the same turned half
// round, to the grain in which shapes are kept.
func TestEachFormIsItsKnot(t *testing.T) {
	for _, c := range []struct {
		form        Form
		gap         Gap
		determinant int
		cord        float64 // beyond the straight, a strand; 0 where nobody measured it
	}{{Short, Lower, 63, 21.5}, {Long, Lower, 369, 33.4}, {Short, Upper, 35, 0}, {Long, Upper, 205, 30.5}} {
		s, err := family.Shape(nameOf(c.form, c.gap), nil)
		if err != nil {
			t.Fatal(err)
		}
		a, b := s.Strands[0], s.Strands[1]
		drawn := tighten.Result{Strands: []curve.Curve{{Points: a}, {Points: b}}}
		if _, det, err := (knot.Route{}).Told(drawn); err != nil || det != c.determinant {
			t.Errorf("%s, home %s: determinant %d, it is %d; %v", c.form, c.gap, det, c.determinant, err)
		}
		if got := knot.BeyondStraight(a); c.cord > 0 && math.Abs(got-c.cord) > 0.02*c.cord {
			t.Errorf("%s, home %s: %.2f diameters of cord, others measured %.1f", c.form, c.gap, got, c.cord)
		}
		for i, v := range a {
			if w := b[i]; math.Abs(v.X+w.X)+math.Abs(v.Y-w.Y)+math.Abs(v.Z+w.Z) > 0.004 {
				t.Fatalf("%s, home %s: at %v the second strand is not the first turned half round, it is at %v", c.form, c.gap, v, w)
			}
		}
		if s.Gap < 0.98 {
			t.Errorf("%s, home %s: strands come within %.3f", c.form, c.gap, s.Gap)
		}
	}
}

// As it is told, a form is the knot that it comes up to.
func TestItComesUpAsItIsTold(t *testing.T) {
	for form, determinant := range map[Form]int{Short: 63, Long: 369} {
		a := told(form, Lower)
		drawn := tighten.Result{Strands: []curve.Curve{{Points: a}, {Points: knot.TurnRoute(a, math.Pi)}}}
		for i, c := range drawn.Strands { // its straight corners lie one over the other
			drawn.Strands[i] = curve.TurnY(c, 0.02)
		}
		if _, det, err := (knot.Route{}).Told(drawn); err != nil || det != determinant {
			t.Errorf("%s as it is told: determinant %d, drawn up %d; %v", form, det, determinant, err)
		}
	}
}
