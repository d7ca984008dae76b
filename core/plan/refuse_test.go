package plan_test

import (
	"encoding/json"
	"errors"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// What cannot be tied is refused in a sentence with its place and the amount,
// and the way out that it offers leads to a piece that can be planned.
func TestRefusalsOfferAWayOut(t *testing.T) {
	cases := []struct{ line, path, says string }{
		{"mount A B C, diamond 1 strands=1-5, finish dome", "sequence[1].strands", "it has 5"},
		{"mount A B C, diamond 1 strands=2-5 inside=square-knot, finish dome", "sequence[1].inside", "six or more"},
		{"mount A B C, diamond 1 inside=bead hole=3mm long=8mm wide=9mm, finish dome", "sequence[1].bead.hole_mm", "its hole is 3.0 mm"},
		{"mount A B, bead hole=4mm long=8mm wide=12mm, finish dome", "sequence[1].bead.hole_mm", "4 strands need a hole of"},
		{"mount A B, bead hole=14mm long=8mm wide=12mm, finish dome", "sequence[1].bead.width_mm", "wider than its hole"},
		{"mount A B C, switch-knot 2, finish dome", "sequence[1].strands", "it has 6"},
		{"mount A B, switch-knot 2 gap=1mm, finish dome", "sequence[1].gap_mm", "to change places"},
		{"mount A B C, berry-knot 1, finish dome", "sequence[1].strands", "it has 6"},
		{"mount A B, rows 1-2:(gap) 2-4:(gap), finish dome", "sequence[1].rows[1].strands", "place 2"},
		{"mount A B, square-knot 20, fold-back 300mm, finish dome", "sequence[2].inner_mm", "too short"},
		{"mount A B, square-knot 1, fold-back, finish dome", "sequence[2].inner_mm", "too short"},
		{"mount A, wall", "sequence[1].do", "stand in a ring"},
		{"mount A B, wall crown=over, finish dome", "sequence[2].do", "end in the knot above"},
		{"mount A B, wall crown=over under=7", "sequence[1].under", "passes under"},
		{"mount A B, wall 2 crown=followed", "sequence[1].count", "none can follow"},
		{"mount A B C hitch=single-end, round-braid 4", "sequence[1].do", "takes 4"},
		{"mount A, herringbone-collar B C thick=2mm", "sequence[1].over_mm", "thicker than they are"},
		{"mount A B C hitch=single-end, double-diamond", "sequence[1].do", "two pairs"},
		{"mount A B C, double-diamond", "sequence[1].strands", "two pairs"},
		{"mount A B C hitch=from-knot, flat-mat", "sequence[1].of", "names 3"},
		{"mount A B hitch=from-knot, flat-mat wide=200mm", "sequence[1].width_mm", "it is laid from"},
		{"mount A B, turks-head C leads=3 bights=6", "sequence[1].bights", "share the divisor 3"},
		{"mount A, turks-head B C leads=3 bights=4", "sequence[1].cords", "share no divisor"},
		{"mount A B, turks-head C long=1mm", "sequence[1].length_mm", "less than its cord"},
		{"mount A B, turks-head C thick=3mm", "sequence[1].over_mm", "thicker than they are"},
		{"mount A B, turks-head C thick=250mm", "sequence[1].over_mm", "at the most"},
		{"mount A B, turks-head C leads=3 bights=7 passes=3", "sequence[1].bights", "climb over one another"},
		{"mount A B, turks-head C leads=9 bights=20 passes=4 thick=80mm", "sequence[1].passes", "crossings"},
		{"mount A, turks-head leads=6 bights=4 over=straw", "sequence[1].bights", "has two"},
		{"mount C hitch=from-knot, turks-head leads=4 bights=6 over=mandrel", "sequence[1].bights", "2 bands"},
		{"mount C hitch=from-knot, turks-head over=mandrel thick=290mm", "sequence[1].over_mm", "at the most"},
		{"mount B C hitch=from-knot, turks-head leads=4 bights=9 over=mandrel thick=30mm", "sequence[1].bights", "one band"},
	}
	for _, o := range []plan.Options{{}, {LeftHanded: true}} {
		for _, c := range cases {
			d := mixed(2)
			seq, err := notation.Parse(c.line)
			if err != nil {
				t.Fatal(err)
			}
			d.Sequence = seq
			d.Cords = slices.DeleteFunc(d.Cords, func(x piece.Cord) bool {
				return !strings.Contains(c.line+" ", " "+x.ID+" ") && !strings.Contains(c.line, " "+x.ID+",")
			})
			_, err = plan.Make(d, o)
			var ps piece.Problems
			if !errors.As(err, &ps) || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
				t.Errorf("%s: %v, want %s, something about %q", c.line, err, c.path, c.says)
				continue
			}
			if ps[0].Fix == nil || ps[0].Fix.Label == "" {
				t.Errorf("%s: no way out", c.line)
				continue
			}
			mended := d
			for range 3 { // a way out may lead to the next
				mended = apply(t, mended, *ps[0].Fix)
				if _, err = plan.Make(mended, o); err == nil || !errors.As(err, &ps) || ps[0].Fix == nil {
					break
				}
			}
			if err != nil {
				b, _ := json.Marshal(mended.Sequence)
				t.Errorf("%s: after %q still %v\n%s", c.line, ps[0].Fix.Label, err, b)
			}
		}
	}
}

// More heads than go round a ring are refused, and the ring that is offered
// holds them.
func TestARingHoldsItsHeads(t *testing.T) {
	d := on(7, "mount A B C D E F G, square-knot 2 strands=2-5, finish dome")
	d.Purpose.HangsOn.InnerMM = 12
	_, err := plan.Make(d, plan.Options{})
	var ps piece.Problems
	if !errors.As(err, &ps) || ps[0].Path != "sequence[0].cords" || !strings.Contains(ps[0].Message, "all the way round") || ps[0].Fix == nil {
		t.Fatalf("seven heads on a small ring: %v", err)
	}
	wider := apply(t, d, *ps[0].Fix)
	make1(t, wider, plan.Options{})
	wider.Purpose.HangsOn.InnerMM -= 2
	if _, err := plan.Make(wider, plan.Options{}); err == nil {
		t.Errorf("a ring of %v mm holds them too; a wider one was offered", wider.Purpose.HangsOn.InnerMM)
	}
}

// Two cords that are fused are mounted as one and hang as its two legs. Named both,
// or fused where nothing is planned of it, they are refused, each with a way out.
func TestFusedCordsAreOneCord(t *testing.T) {
	d := on(2, "mount A B, square-knot 2, finish dome")
	d.Cords = append([]piece.Cord{}, d.Cords...)
	d.Cords[1].JoinedTo = "A"
	for line, path := range map[string]string{
		"mount A B, two-strand-diamond, finish dome":                       "sequence[0].cords",
		"mount A hitch=single-end, mount B hitch=laid-behind, finish dome": "cords[1].joined_to",
	} {
		d := notation.With(d, line, d.Cords...)
		_, err := plan.Make(d, plan.Options{})
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != path || ps[0].Fix == nil {
			t.Errorf("%s: %v", line, err)
			continue
		}
		make1(t, apply(t, d, *ps[0].Fix), plan.Options{})
	}
	alone := make1(t, notation.With(d, "mount A, two-strand-diamond, finish dome", piece.Cord{ID: "A", Stuff: d.Cords[0].Stuff}), plan.Options{})
	for _, left := range []bool{false, true} {
		p := make1(t, notation.With(d, "mount A, two-strand-diamond, finish dome", d.Cords...), plan.Options{LeftHanded: left})
		near(t, "cord of both", p.Cords[0].NeedsMM+p.Cords[1].NeedsMM, alone.Cords[0].NeedsMM, 1e-9)
		near(t, "length", p.LengthMM, alone.LengthMM, 1e-9)
		if !strings.Contains(p.Cords[1].Measure, "fuse it end to end with cord A") {
			t.Errorf("cord B: %s", p.Cords[1].Measure)
		}
	}
}

// A berry with nothing bare above it is warned of, and the fix leaves room.
func TestABerryWantsRoomAbove(t *testing.T) {
	d := mixed(2)
	d.Cords = d.Cords[:2]
	d = notation.With(d, "mount A B, square-knot 2, berry-knot 1, finish dome", d.Cords...)
	p := make1(t, d, plan.Options{})
	if !strings.Contains(codes(p), "berry-without-gap") {
		t.Fatalf("warnings are %s", codes(p))
	}
	for _, w := range p.Warnings {
		if w.Code == "berry-without-gap" {
			if again := make1(t, apply(t, d, *w.Fix), plan.Options{}); strings.Contains(codes(again), "berry-without-gap") {
				t.Errorf("after %q the warning stays", w.Fix.Label)
			}
		}
	}
}

// Rows that are not alike are told by how much, and the fix evens them out.
func TestUnequalRowsAreTold(t *testing.T) {
	d := mixed(2)
	d = notation.With(d, "mount A B C D, rows 1-4:(square-knot 10) 5-8:(square-knot 7) cross=1, finish dome",
		append(d.Cords, piece.Cord{ID: "D", Stuff: d.Cords[0].Stuff})...)
	for _, o := range []plan.Options{{}, {LeftHanded: true}} {
		p := make1(t, d, o)
		if !strings.Contains(codes(p), "rows-unequal") {
			t.Fatalf("warnings are %s", codes(p))
		}
		for _, w := range p.Warnings {
			if w.Code == "rows-unequal" && w.Fix != nil {
				if again := make1(t, apply(t, d, *w.Fix), o); strings.Contains(codes(again), "rows-unequal") {
					t.Errorf("after %q the warning stays", w.Fix.Label)
				}
			}
		}
	}
}
