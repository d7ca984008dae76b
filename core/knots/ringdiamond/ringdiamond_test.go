package ringdiamond

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/tighten"
)

// Diamonds of three to eight strands and ring collars take the cord, stand as wide and
// are the links that others drew up.
func TestDiamondsAgainstOthersFigures(t *testing.T) {
	for _, c := range []struct {
		n           int
		doubled     bool
		cord, wide  float64
		determinant int
	}{
		{3, false, 11.6, 5.7, 56}, {4, false, 10.5, 5.9, 140}, {5, false, 10.0, 6.5, 532}, {6, false, 9.7, 7.1, 1344},
		{3, true, 30.7, 6.8, 392}, {4, true, 28.6, 7.5, 252}, {5, true, 27.7, 8.4, 112},
	} {
		s, err := family.Shape(name(c.n, c.doubled), nil)
		if err != nil {
			t.Fatal(err)
		}
		drawn, wide := tighten.Result{}, 0.0
		for _, pts := range s.Strands {
			drawn.Strands = append(drawn.Strands, curve.Curve{Points: pts})
			if got := knot.BeyondStraight(pts); math.Abs(got-c.cord) > 0.02*c.cord {
				t.Errorf("%s: a strand takes %.2f, others measured %.2f", name(c.n, c.doubled), got, c.cord)
			}
			for _, v := range pts {
				wide = math.Max(wide, 2*math.Hypot(v.X, v.Z)+1)
			}
		}
		if math.Abs(wide-c.wide) > 0.03*c.wide {
			t.Errorf("%s: %.2f wide, others measured %.2f", name(c.n, c.doubled), wide, c.wide)
		}
		_, det, err := (knot.Route{}).Told(drawn)
		if err != nil || det != c.determinant {
			t.Errorf("%s: determinant %d, it is %d; %v", name(c.n, c.doubled), det, c.determinant, err)
		}
		if !c.doubled {
			continue
		}
		// Spread out flat, as hands lead it, it is the same link.
		flat := tighten.Result{}
		for _, strand := range ring.Route(c.n, told(c.n)).Strands {
			flat.Strands = append(flat.Strands, curve.Spline(strand.Route, false))
		}
		if _, again, err := (knot.Route{}).Told(flat); err != nil || again != det {
			t.Errorf("%s: told it has determinant %d, drawn up %d; %v", name(c.n, c.doubled), again, det, err)
		}
	}
}

// In a collar each strand meets pairs in either round, over and under by turns, and what
// lies at the rim: over it where the second round begins, under it where it ends.
func TestACollarIsOverTwoAndUnderTwo(t *testing.T) {
	for n := least; n <= most; n++ {
		meets, err := ring.Meets(ring.Route(n, told(n)))
		if err != nil || len(meets) != 18 {
			t.Fatalf("of %d strands it passes %+v, %v", n, meets, err)
		}
		for k, m := range meets {
			want := k < 8 && k/2%2 == 0 || k == 8 || k > 8 && k < 17 && (k-9)/2%2 == 0
			if m.Over != want {
				t.Errorf("of %d strands: meet %d is over %v, want %v", n, k+1, m.Over, want)
			}
		}
	}
}

// A terminal knot, drawn up from how it is told, comes to rest in the diamond of four
// turned over; of three to eight strands it is the same link.
func TestATerminalKnotIsTheDiamondTurnedOver(t *testing.T) {
	for n := least; n <= most; n++ {
		shape, err := family.Shape(name(n, false), nil)
		if err != nil {
			t.Fatal(err)
		}
		var flat, drawn tighten.Result
		for i, strand := range ring.Route(n, crowned(n)).Strands {
			flat.Strands = append(flat.Strands, curve.Spline(strand.Route, false))
			drawn.Strands = append(drawn.Strands, curve.Curve{Points: shape.Strands[i]})
		}
		_, a, err := (knot.Route{}).Told(flat)
		if err != nil {
			t.Fatal(err)
		}
		if _, b, err := (knot.Route{}).Told(drawn); err != nil || a != b {
			t.Errorf("of %d strands it has determinant %d, the diamond %d; %v", n, a, b, err)
		}
	}
	got, err := tighten.DrawUp(t.Context(), ring.Route(4, crowned(4)), tighten.Settings{})
	if err != nil {
		t.Fatal(err)
	}
	shape, err := family.Shape(name(4, false), nil)
	if err != nil {
		t.Fatal(err)
	}
	best := math.Inf(1)
	for turn := 0.0; turn < 360; turn++ {
		theirs := curve.TurnY(curve.Curve{Points: over(shape.Strands)[0]}, turn*math.Pi/180).Points
		for down := -2.0; down <= 2; down += 0.05 {
			worst := 0.0
			for _, v := range got.Strands[0].Points {
				if math.Abs(v.Y) > 3 {
					continue // the straight ends are as long as they are
				}
				near := math.Inf(1)
				for _, u := range theirs {
					near = math.Min(near, math.Hypot(math.Hypot(u.X-v.X, u.Z-v.Z), u.Y+down-v.Y))
				}
				if worst = math.Max(worst, near); worst > best {
					break
				}
			}
			best = math.Min(best, worst)
		}
	}
	if best > 0.07 {
		t.Errorf("it lies %.3f of a diameter from the diamond turned over", best)
	}
}
