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

// Both strands of a pair are led together, and what has not been led hangs: before the second pair
// is led nothing of it crosses anything, and no accent lies there before it is laid.
func TestPairsAreLedTogether(t *testing.T) {
	s, err := knot.New("double-diamond")
	if err != nil {
		t.Fatal(err)
	}
	thick := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
	thin := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 2.2}
	w := knot.Work{Section: s}
	for i := range 4 {
		d := thick.DrawnUp()
		w.Strands = append(w.Strands, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: thick, Figures: thick.Figures(), Diameter: d, At: r3.Vec{X: (float64(i) - 1.5) * d}, Dir: r3.Vec{Y: 1}})
	}
	w.Own = []knot.Strand{{Cord: 2, Stuff: thin, Figures: thin.Figures(), Diameter: thin.DrawnUp()}}
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	long := func(p knot.Path) float64 { return curve.Curve{Points: p.Points}.Length() }
	for n, m := range tied.Moves {
		held, ok, err := knot.Hold(w, n, 1)
		if err != nil || !ok {
			t.Fatalf("move %d: %v, %v", n+1, ok, err)
		}
		for _, pair := range [][2]int{{0, 1}, {2, 3}} {
			if a, b := long(held.Paths[pair[0]]), long(held.Paths[pair[1]]); a > 1.3*b || b > 1.3*a {
				t.Errorf("after move %d strands %d and %d are %.0f and %.0f mm long", n+1, pair[0]+1, pair[1]+1, a, b)
			}
		}
		if n == 0 && (len(held.Own[0].Points) > 0 || long(held.Paths[2]) > 0.4*long(tied.Paths[2])) {
			t.Errorf("after the first move, %q, the second pair or the accent is led", m.Text)
		}
	}
}

// With an accent cord, too, it is led loose, and each round of working its slack out draws it up
// further; the accent keeps as far from its pair as in the drawn-up knot.
func TestWithAnAccentItIsDrawnUp(t *testing.T) {
	strand := func(c int, d float64) knot.Strand {
		return knot.Strand{Cord: c, Diameter: d, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d}, Figures: cord.Figures{DrawnUpMM: d, LabelMM: d, Squeeze: 1}, Dir: r3.Vec{Y: 1}}
	}
	w := knot.Work{Section: knot.Section{Do: "double-diamond", Count: 1, Settings: Doubled{Accent: "C"}}}
	w.Strands = []knot.Strand{strand(0, 3), strand(0, 3), strand(1, 3), strand(1, 3)}
	w.Own = []knot.Strand{strand(2, 1.2)}
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	reach := func(x knot.Tied) float64 {
		far := 0.0
		for _, p := range append(append([]knot.Path{}, x.Paths...), x.Own...) {
			for _, v := range p.Points {
				far = math.Max(far, math.Hypot(v.X, v.Z))
			}
		}
		return far
	}
	apart := func(x knot.Tied) float64 {
		least := math.Inf(1)
		for _, p := range x.Paths {
			least = math.Min(least, curve.Gap(curve.Curve{Points: x.Own[0].Points}, 1.2, curve.Curve{Points: p.Points}, 3))
		}
		return least
	}
	before, rounds := math.Inf(1), 0
	for n, m := range tied.Moves {
		held, ok, err := knot.Hold(w, n, 1)
		if err != nil || !ok {
			t.Fatalf("move %d: %v, %v", n+1, ok, err)
		}
		if n > 0 && apart(held) < apart(tied)-0.05 {
			t.Errorf("after move %d the accent is %.2f from its pair, drawn up %.2f", n+1, apart(held), apart(tied))
		}
		if !m.Slack {
			continue
		}
		rounds++
		if far := reach(held); far >= before {
			t.Errorf("after move %d it reaches %.2f mm out, before it %.2f", n+1, far, before)
		}
		before = reach(held)
	}
	if first := reach(tied); rounds < 4 || math.Abs(before-first) > 0.01*first {
		t.Errorf("after %d rounds it reaches %.2f mm out, drawn up %.2f", rounds, before, first)
	}
}
