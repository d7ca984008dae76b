package twostrand

import (
	"errors"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Round two inner strands, and on pairs, it takes the cord that was measured of it by
// others, to two per cent; a strand of each pair ties the single knot.
func TestDiamondsOfFourStrands(t *testing.T) {
	for name, cords := range map[string][]float64{"two-strand diamond": {23.6, 23.6}, "through": {25.2, 25.2, 0.1, 0.1}, "doubled": {32.4, 32.4, 32.4, 32.4}} {
		s, err := family.Shape(name, nil)
		if err != nil {
			t.Fatal(err)
		}
		for i, want := range cords {
			if got := knot.BeyondStraight(s.Strands[i]); math.Abs(got-want) > 0.04*want+0.05 {
				t.Errorf("%s: strand %d takes %.2f, others measured %.1f", name, i+1, got, want)
			}
		}
		single := tighten.Result{Strands: []curve.Curve{{Points: s.Strands[0]}, {Points: s.Strands[len(s.Strands)/2]}}}
		if name == "through" {
			single.Strands[1] = curve.Curve{Points: s.Strands[1]}
		}
		if _, det, err := (knot.Route{}).Told(single); err != nil || det != 105 {
			t.Errorf("%s: determinant %d, the diamond's is 105; %v", name, det, err)
		}
	}
}

// An accent cord stays between the strands of its pair from one knot to the next, and
// one that is too thick for that is refused with a thickness that will do.
func TestAnAccentFollowsItsPair(t *testing.T) {
	work := func(accent float64) knot.Work {
		w := knot.Work{Section: knot.Section{Do: "double-diamond", Count: 3, Settings: Doubled{Accent: "C"}}}
		strand := func(c int, d float64) knot.Strand {
			return knot.Strand{Cord: c, Diameter: d, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d}, Figures: cord.Figures{DrawnUpMM: d, LabelMM: d, Squeeze: 1}}
		}
		w.Strands = []knot.Strand{strand(0, 3), strand(0, 3), strand(1, 3), strand(1, 3)}
		w.Own = []knot.Strand{strand(2, accent)}
		return w
	}
	tied, err := knot.Tie(work(1.2))
	if err != nil {
		t.Fatal(err)
	}
	beside := 0 // of the right pair
	for _, v := range tied.Own[0].Points {
		near, best := -1, math.Inf(1)
		for i, p := range tied.Paths {
			for _, u := range p.Points {
				if d := r3.Norm2(r3.Sub(u, v)); d < best {
					best, near = d, i
				}
			}
		}
		if near >= 2 {
			beside++
		}
	}
	if share := float64(beside) / float64(len(tied.Own[0].Points)); share < 0.75 {
		t.Errorf("nearest to its own pair along %.0f %% of its way", 100*share)
	}
	_, err = knot.Tie(work(2.8))
	var r *knot.Refused
	if !errors.As(err, &r) || r.Field != "accent" || r.Set == nil {
		t.Errorf("an accent of 2.8 mm between strands of 3: %v", err)
	}
}
