package wall

import (
	"errors"
	"fmt"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
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
		f := form{c.n, c.passes, Alone, ""}
		s, err := family.Shape(f.name(), nil)
		if err != nil {
			t.Fatal(err)
		}
		drawn, wide := tighten.Result{}, 0.0
		for _, pts := range s.Strands {
			drawn.Strands = append(drawn.Strands, curve.Curve{Points: pts})
			if got := knot.BeyondStraight(pts); math.Abs(got-c.cord) > 0.02*c.cord {
				t.Errorf("%s: a strand takes %.2f, others measured %.2f", f.name(), got, c.cord)
			}
			for _, v := range pts {
				wide = math.Max(wide, 2*math.Hypot(v.X, v.Z)+1)
			}
		}
		if math.Abs(wide-c.wide) > 0.02*c.wide+0.05 {
			t.Errorf("%s: %.2f wide, others measured %.2f", f.name(), wide, c.wide)
		}
		if _, det, err := (knot.Route{}).Told(drawn); err != nil || det != c.determinant {
			t.Errorf("%s: determinant %d, it is %d; %v", f.name(), det, c.determinant, err)
		}
	}
}

// What a strand of a wall passes is read off its way: over it goes the one before, and
// it goes under the next.
func TestAStrandPassesWhatItIsLedUnder(t *testing.T) {
	for n := least; n <= most; n++ {
		meets, err := ring.Meets(form{n, 1, Alone, ""}.route())
		meets = ring.Others(meets)
		if err != nil || len(meets) != 2 || meets[0] != (ring.Meet{On: n - 1, Over: true}) || meets[1] != (ring.Meet{On: 1}) {
			t.Errorf("a wall of %d passes %+v, %v", n, meets, err)
		}
		// Followed round it meets each of its four places once more, and one besides.
		meets, err = ring.Meets(form{n, 2, Alone, ""}.route())
		if meets = ring.Others(meets); err != nil || len(meets) != 10 && n > 3 {
			t.Errorf("a double wall of %d passes %+v, %v", n, meets, err)
		}
	}
}

// Of too few strands and too many a wall is refused; of too many the first ones will do.
func TestAWallIsRefused(t *testing.T) {
	for _, n := range []int{1, 2, most + 1} {
		_, err := knot.Tie(knot.Work{Section: knot.Section{Do: "wall", Settings: Settings{}}, Strands: strands(n)})
		var r *knot.Refused
		// Of too many it takes the first; two are offered the knot that they have.
		field := map[bool]string{true: "do", false: "strands"}[n == 2]
		if !errors.As(err, &r) || r.Field != field || (r.Set != nil) != (n > 1) {
			t.Errorf("%d strands: %v", n, err)
		}
	}
}

// A wall on a crown, drawn off it, takes the cord and stands as wide as others measured.
// Left down on it the two are nearer together; both are the link that was laid.
func TestAWallOnACrown(t *testing.T) {
	high := func(strands [][]r3.Vec) (wide, high float64) {
		top, low := math.Inf(1), math.Inf(-1)
		for _, pts := range strands {
			for i := 1; i < len(pts); i++ {
				if d := r3.Sub(pts[i], pts[i-1]); math.Abs(d.Y) < 0.6*r3.Norm(d) { // not on its way in or out
					wide, top, low = math.Max(wide, 2*math.Hypot(pts[i].X, pts[i].Z)+1), math.Min(top, pts[i].Y), math.Max(low, pts[i].Y)
				}
			}
		}
		return wide, low - top + 1
	}
	for n := least; n <= mostCrowned; n++ {
		slim, chunky := form{n, 2, Below, Slim}, form{n, 2, Below, Chunky}
		a, err := family.Shape(slim.name(), nil)
		if err != nil {
			t.Fatal(err)
		}
		b, err := family.Shape(chunky.name(), nil)
		if err != nil {
			t.Fatal(err)
		}
		wide, tall := high(a.Strands)
		if cord := knot.BeyondStraight(a.Strands[0]); n == 4 && (math.Abs(cord-20.2) > 0.4 || math.Abs(wide-6.6) > 0.15) {
			t.Errorf("slim it takes %.2f and is %.2f wide; others measured 20.2 and 6.6", cord, wide)
		}
		wider, short := high(hung(b.Strands))
		if short > tall-1 || n == 4 && math.Abs(wider-7) > 0.3 {
			t.Errorf("of %d strands: slim %.2f high, chunky %.2f and %.2f wide", n, tall, short, wider)
		}
		if n != 4 {
			continue
		}
		for _, s := range []shapes.Shape{a, b} {
			drawn := tighten.Result{}
			for _, pts := range s.Strands {
				drawn.Strands = append(drawn.Strands, curve.Curve{Points: pts})
			}
			if _, det, err := (knot.Route{}).Told(drawn); err != nil || det != 2187 {
				t.Errorf("determinant %d, others found 2187; %v", det, err)
			}
		}
	}
}

// Ends are buried under as many crossings as are asked for, counted on the curve: each
// more takes more cord, and of more than there are the most is offered.
func TestEndsAreBuriedUnderSoManyCrossings(t *testing.T) {
	for n := least; n <= mostCrowned; n++ {
		for _, f := range []form{{n, 1, Over, ""}, {n, 2, Over, ""}, {n, 2, Followed, ""}} {
			s, err := family.Shape(f.name(), nil)
			if err != nil {
				t.Fatal(err)
			}
			if s.Gap < 0.998 {
				t.Errorf("%s: a gap of %.4f", f.name(), s.Gap)
			}
			long := 0
			b, err := bury(f, s.Strands, 1)
			if err != nil || b.has < 2 {
				t.Fatalf("%s: an end passes under %d, %v", f.name(), b.has, err)
			}
			for under := 1; under <= b.has; under++ {
				c, err := bury(f, s.Strands, under)
				if err != nil || len(c.strands) != n || len(c.strands[0]) < long || len(c.strands[0]) == len(s.Strands[0]) {
					t.Fatalf("%s: under %d it has %d strands of %d nodes, %v", f.name(), under, len(c.strands), len(c.strands[0]), err)
				}
				long = len(c.strands[0])
			}
			_, err = knot.Tie(knot.Work{Section: knot.Section{Do: "wall", Settings: Settings{Passes: f.passes, Crown: f.crown, Under: b.has + 1}}, Strands: strands(n)})
			var r *knot.Refused
			if !errors.As(err, &r) || r.Field != "under" || r.Set != b.has {
				t.Errorf("%s: under one more: %v", f.name(), err)
			}
		}
	}
}

// Where wall and crown are followed each strand lies beside another one all round, so the
// knot is wider than the single one; what the second round takes is told beside the first.
func TestWallAndCrownFollowed(t *testing.T) {
	for n := least; n <= mostCrowned; n++ {
		w := knot.Work{Section: knot.Section{Do: "wall", Settings: Settings{Crown: Followed}}, Strands: strands(n)}
		x, err := knot.Tie(w)
		if err != nil {
			t.Fatal(err)
		}
		var once, again float64
		if len(x.Checks) > 0 {
			_, _ = fmt.Sscanf(x.Checks[0], "Once round a strand takes {%fmm} in it; the second round, outside, takes {%fmm}.", &once, &again)
		}
		if !x.Ends || once < 30 || again < 0.5*once || again > 1.5*once {
			t.Errorf("of %d: ends %v, says %q", n, x.Ends, x.Checks)
		}
		w.Section.Settings = Settings{Crown: Over}
		one, err := knot.Tie(w)
		if err != nil || x.StopsMM < 1.3*one.StopsMM {
			t.Errorf("of %d: it stops %.1f mm, the single one %.1f; %v", n, x.StopsMM, one.StopsMM, err)
		}
		w.Section.Count = 2
		var r *knot.Refused
		if _, err := knot.Tie(w); !errors.As(err, &r) || r.Field != "count" || r.Set != 1 {
			t.Errorf("of %d, two: %v", n, err)
		}
	}
}
