package wall

import (
	"errors"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/tighten"
)

func strands(n int) []knot.Strand {
	var out []knot.Strand
	for i := range n {
		out = append(out, knot.Strand{Cord: i, Diameter: 3, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 3}, Figures: cord.Figures{DrawnUpMM: 3, LabelMM: 3, Squeeze: 1}})
	}
	return out
}

// Walls of three to six strands take the cord, stand as wide and are the links that
// others drew up; every strand of one takes alike.
func TestWallsAgainstOthersFigures(t *testing.T) {
	for _, c := range []struct {
		n, passes   int
		cord, wide  float64
		determinant int
	}{
		{3, 1, 6.42, 4.9, 9}, {4, 1, 5.93, 5.55, 12}, {5, 1, 5.64, 6.2, 108}, {6, 1, 5.44, 6.8, 324},
		{3, 2, 17.4, 6.2, 48}, {4, 2, 15.9, 6.6, 220},
	} {
		s, err := family.Shape(name(c.n, c.passes), nil)
		if err != nil {
			t.Fatal(err)
		}
		drawn, wide := tighten.Result{}, 0.0
		for _, pts := range s.Strands {
			drawn.Strands = append(drawn.Strands, curve.Curve{Points: pts})
			if got := knot.BeyondStraight(pts); math.Abs(got-c.cord) > 0.02*c.cord {
				t.Errorf("%s: a strand takes %.2f, others measured %.2f", name(c.n, c.passes), got, c.cord)
			}
			for _, v := range pts {
				wide = math.Max(wide, 2*math.Hypot(v.X, v.Z)+1)
			}
		}
		if math.Abs(wide-c.wide) > 0.02*c.wide+0.05 {
			t.Errorf("%s: %.2f wide, others measured %.2f", name(c.n, c.passes), wide, c.wide)
		}
		if _, det, err := (knot.Route{}).Told(drawn); err != nil || det != c.determinant {
			t.Errorf("%s: determinant %d, it is %d; %v", name(c.n, c.passes), det, c.determinant, err)
		}
	}
}

// What a strand of a wall passes is read off its way: over it goes the one before, and
// it goes under the next.
func TestAStrandPassesWhatItIsLedUnder(t *testing.T) {
	for n := least; n <= most; n++ {
		meets, err := ring.Meets(route(n, 1))
		meets = ring.Others(meets)
		if err != nil || len(meets) != 2 || meets[0] != (ring.Meet{On: n - 1, Over: true}) || meets[1] != (ring.Meet{On: 1}) {
			t.Errorf("a wall of %d passes %+v, %v", n, meets, err)
		}
		// Followed round it meets each of its four places once more, and one besides.
		meets, err = ring.Meets(route(n, 2))
		if meets = ring.Others(meets); err != nil || len(meets) != 10 && n > 3 {
			t.Errorf("a double wall of %d passes %+v, %v", n, meets, err)
		}
	}
}

// Of too few strands and too many a wall is refused; of too many the first six will do.
func TestAWallIsRefused(t *testing.T) {
	for _, n := range []int{1, 2, 7} {
		_, err := knot.Tie(knot.Work{Section: knot.Section{Do: "wall", Settings: Settings{}}, Strands: strands(n)})
		var r *knot.Refused
		// Of too many it takes the first; two are offered the knot that they have.
		field := map[bool]string{true: "do", false: "strands"}[n == 2]
		if !errors.As(err, &r) || r.Field != field || (r.Set != nil) != (n > 1) {
			t.Errorf("%d strands: %v", n, err)
		}
	}
}
