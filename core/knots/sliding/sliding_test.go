package sliding

import (
	"errors"
	"math"
	"slices"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

func pairOf(t *testing.T, set Settings) (knot.Tied, error) {
	t.Helper()
	return knot.Tie(work(set))
}

func work(set Settings) knot.Work {
	const d = 2.0
	l := knot.Strand{Diameter: d, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d}, Figures: cord.Figures{DrawnUpMM: d, LabelMM: d, Squeeze: 1}, Dir: r3.Vec{Y: 1}}
	a, b := l, l
	a.At, b.At = r3.Vec{X: -1.2}, r3.Vec{X: 1.2}
	return knot.Work{Section: knot.Section{Do: "sliding-pair", Settings: set}, Strands: []knot.Strand{a, b}}
}

// Alone, with its ends joined outside, a half of two turns is a double overhand, and
// takes the cord that was measured of it.
func TestAHalfIsADoubleOverhand(t *testing.T) {
	s, err := family.Shape("half of 2", nil)
	if err != nil {
		t.Fatal(err)
	}
	drawn := tighten.Result{Strands: []curve.Curve{{Points: s.Strands[1]}}}
	if _, det, err := (knot.Route{}).Told(drawn); err != nil || det != 5 {
		t.Errorf("determinant %d, a double overhand's is 5; %v", det, err)
	}
	if got := knot.BeyondStraight(s.Strands[1]); math.Abs(got-20.7) > 0.2 {
		t.Errorf("%.2f diameters of cord, others measured 20.7", got)
	}
}

// With the halves together the opening is as long as was asked for: the way down one
// side to the middle of the pair and up the other.
func TestTheOpeningIsAsLongAsAsked(t *testing.T) {
	for _, most := range []float64{240, 680, 1500} {
		tied, err := pairOf(t, Settings{MaxMM: most, Turns: 2, How: "dome"})
		if err != nil {
			t.Fatal(err)
		}
		opening := 0.0
		for i, p := range tied.Paths {
			side := float64(1 - 2*i) // towards the middle
			for k := 1; k < len(p.Points); k++ {
				a, b := p.Points[k-1], p.Points[k]
				if side*b.X > 0 && side*a.X <= 0 && b.Y > 0.8*tied.Height {
					break
				}
				opening += r3.Norm(r3.Sub(b, a))
			}
		}
		if math.Abs(opening-most) > 0.5 {
			t.Errorf("an opening of %g mm measures %.2f", most, opening)
		}
		// One comes in over the other, so its way is longer by less than a diameter.
		if math.Abs(tied.Paths[0].Length()-tied.Paths[1].Length()) > 2 {
			t.Errorf("the halves take %.3f and %.3f mm", tied.Paths[0].Length(), tied.Paths[1].Length())
		}
	}
}

// What cannot be is refused with a way out: a shortest over the longest, a longest
// that the halves alone fill; a shortest that it does not reach is warned of.
func TestOpeningsThatCannotBe(t *testing.T) {
	for field, set := range map[string]Settings{"min_mm": {MaxMM: 600, MinMM: 700}, "max_mm": {MaxMM: 30}} {
		_, err := pairOf(t, set)
		var r *knot.Refused
		if !errors.As(err, &r) || r.Field != field || r.Set == nil {
			t.Errorf("%+v: %v", set, err)
		}
	}
	tied, err := pairOf(t, Settings{MaxMM: 600, MinMM: 200})
	if err != nil || len(tied.Warnings) != 1 || tied.Warnings[0].Set.(float64) < 300 {
		t.Errorf("a shortest of 200 mm: %+v, %v", tied.Warnings, err)
	}
	if len(tied.Cautions) == 0 || tied.Cautions[0].ID != caution.Neck {
		t.Errorf("no breakaway is asked for: %v", tied.Cautions)
	}
}

// Cotton burns: its ends are not melted beside the neck, and another finish is offered
// that the knot takes.
func TestCottonEndsAreNotMelted(t *testing.T) {
	l := knot.Strand{Diameter: 2, Stuff: cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: 2}, Figures: cord.Figures{DrawnUpMM: 2, LabelMM: 2, Squeeze: 1}, Dir: r3.Vec{Y: 1}}
	set := Settings{MaxMM: 600, How: "dome"}
	tied, err := knot.Tie(knot.Work{Section: knot.Section{Do: "sliding-pair", Settings: set}, Strands: []knot.Strand{l, l}})
	if err != nil || len(tied.Warnings) != 1 || tied.Warnings[0].Code != "flame-on-natural-fibre" {
		t.Fatalf("cotton ends domed: %+v, %v", tied.Warnings, err)
	}
	set.How = How(tied.Warnings[0].Set.(string))
	if !slices.Contains(set.How.Choices(), string(set.How)) {
		t.Errorf("%q is offered and cannot be chosen", set.How)
	}
	tied, err = knot.Tie(knot.Work{Section: knot.Section{Do: "sliding-pair", Settings: set}, Strands: []knot.Strand{l, l}})
	if err != nil || len(tied.Warnings) != 0 || slices.ContainsFunc(tied.Cautions, func(c caution.Call) bool { return c.ID == caution.Flame }) {
		t.Errorf("with what is offered: %+v, flame %v, %v", tied.Warnings, slices.ContainsFunc(tied.Cautions, func(c caution.Call) bool { return c.ID == caution.Flame }), err)
	}
}

// In hand one half is tied after the other, open: no strand passes through another, the ends are
// not finished, and drawn up the pair is what it is when it hangs.
func TestOneHalfIsTiedAfterTheOther(t *testing.T) {
	w := work(Settings{Turns: 2, MaxMM: 300, How: "dome"})
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	d := w.Strands[0].Diameter
	curves := func(k knot.Tied) []curve.Curve {
		var out []curve.Curve
		for _, p := range k.Paths {
			out = append(out, curve.Curve{Points: p.Points})
		}
		return out
	}
	crossed := -1
	for action := range 3 {
		for _, along := range []float64{knot.Led, 0.8, 1} {
			held, ok, err := knot.Hold(w, action, along)
			if err != nil || !ok || held.Ends {
				t.Fatalf("action %d at %.1f: %v, %v, its ends finished is %v", action+1, along, ok, err, held.Ends)
			}
			cs := curves(held)
			if g := curve.Gap(cs[0], d, cs[1], d); g < -0.06*d {
				t.Errorf("action %d at %.1f: strands come to %.2f mm of one another", action+1, along, g)
			}
			found, err := curve.Crossings(cs)
			if err != nil {
				t.Fatal(err)
			}
			if along == 1 {
				if len(found) <= crossed {
					t.Errorf("after action %d it crosses %d times, before %d", action+1, len(found), crossed)
				}
				crossed = len(found)
			}
		}
	}
	last, _, err := knot.Hold(w, 2, 1)
	if err != nil {
		t.Fatal(err)
	}
	for i := range tied.Paths {
		a, b := tied.Paths[i].Points, last.Paths[i].Points
		down := b[len(b)-1].Y - a[len(a)-1].Y
		for k := 1; k <= len(b)-bare(tied.Paths[i].Lies); k++ {
			v, u := a[len(a)-k], b[len(b)-k]
			if off := math.Hypot(math.Hypot(v.X-u.X, v.Y+down-u.Y), v.Z-u.Z); off > 1e-6 {
				t.Fatalf("strand %d, %d nodes from its end, lies %.2f mm off", i+1, k, off)
			}
		}
	}
}
