package plan_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// on is a piece on a wide ring of so many cords of four-millimetre kernmantle.
func on(cords int, line string) piece.Document {
	var cs []piece.Cord
	for i := range cords {
		cs = append(cs, piece.Cord{ID: string(rune('A' + i)), Stuff: piece.Kernmantle(4, "#0f5c63")})
	}
	return notation.With(piece.Begin("flat", "charm", piece.SplitRing(80, 2), 0), line, cs...)
}

// What stands in brackets is tied as if it were written out.
func TestARepeatIsWhatItRepeats(t *testing.T) {
	a := make1(t, on(2, "mount A B, 3x(square-knot 2, gap 10mm), finish dome"), plan.Options{})
	b := make1(t, on(2, "mount A B, square-knot 2, gap 10mm, square-knot 2, gap 10mm, square-knot 2, gap 10mm, finish dome"), plan.Options{})
	near(t, "length", a.LengthMM, b.LengthMM, 1e-9)
	for i := range a.Cords {
		near(t, "needs of "+a.Cords[i].ID, a.Cords[i].NeedsMM, b.Cords[i].NeedsMM, 1e-9)
	}
	if a.Actions != b.Actions {
		t.Errorf("in brackets it is %d actions, written out %d", a.Actions, b.Actions)
	}
	if len(a.Sections) != 3 || a.Sections[1].Count != 3 {
		t.Errorf("in brackets it is %d sections", len(a.Sections))
	}
	near(t, "one of three", 3*a.Sections[1].KnotMM, a.Sections[1].HeightMM, 1e-9)
}

// Rows side by side each take what they take alone, and lie beside one another.
func TestRowsSideBySide(t *testing.T) {
	p := make1(t, on(4, "mount A B C D, rows 1-4:(square-knot 6) 5-8:(square-knot 6), finish dome"), plan.Options{})
	alone := make1(t, on(2, "mount A B, square-knot 6, finish dome"), plan.Options{})
	near(t, "height beside alone", p.Sections[1].HeightMM, alone.Sections[1].HeightMM, 6)
	lo, hi := [2]float64{math.Inf(1), math.Inf(1)}, [2]float64{math.Inf(-1), math.Inf(-1)}
	middle := p.Sections[1].TopMM + p.Sections[1].HeightMM/2
	for _, s := range p.Layout().Strands {
		for _, v := range s.Points {
			if math.Abs(v.Y-middle) > 12 {
				continue
			}
			r := s.Cord / 2
			lo[r], hi[r] = math.Min(lo[r], v.X), math.Max(hi[r], v.X)
		}
	}
	if hi[0] >= lo[1] {
		t.Errorf("the left row reaches to %.1f, the right one begins at %.1f", hi[0], lo[1])
	}
	if got := strings.Join(p.Sections[1].OrderAfter, " "); got != "A.1 A.2 B.1 B.2 C.1 C.2 D.1 D.2" {
		t.Errorf("after it they hang %s", got)
	}
}

// Crossed once the rows change places, twice they are back; each crossing takes
// some of the height and none of the knots.
func TestRowsAreCrossed(t *testing.T) {
	line := "mount A B C D, rows 1-4:(square-knot 9) 5-8:(square-knot 9 start=right) cross=%d, finish dome"
	var heights []float64
	for cross, want := range []string{"A.1 A.2 B.1 B.2 C.1 C.2 D.1 D.2", "C.1 C.2 D.1 D.2 A.1 A.2 B.1 B.2", "A.1 A.2 B.1 B.2 C.1 C.2 D.1 D.2"} {
		p := make1(t, on(4, fmt.Sprintf(line, cross)), plan.Options{})
		if got := strings.Join(p.Sections[1].OrderAfter, " "); got != want {
			t.Errorf("crossed %d times they hang %s", cross, got)
		}
		heights = append(heights, p.Sections[1].HeightMM)
		if cross == 0 {
			continue
		}
		// Half way to the first crossing's end one lies before the other.
		front, back := math.Inf(-1), math.Inf(1)
		y := p.Sections[1].TopMM + p.Sections[1].HeightMM*(0.12+0.44/float64(cross))
		for _, s := range p.Layout().Strands {
			for _, v := range s.Points {
				if math.Abs(v.Y-y) < 3 {
					front, back = math.Max(front, v.Z), math.Min(back, v.Z)
				}
			}
		}
		if front-back < 4*3.1*0.9 {
			t.Errorf("crossed %d times the two lie %.1f mm deep where they pass", cross, front-back)
		}
	}
	if !(heights[0] > heights[1] && heights[1] > heights[2]) {
		t.Errorf("crossed more often they are %.1f high", heights)
	}
}

// A band folded back is shorter by what went into the loop; no cord is longer or
// shorter for it, and its ends come back to where the loop begins.
func TestABandIsFoldedBack(t *testing.T) {
	flat := make1(t, on(2, "mount A B, square-knot 24, finish singe-and-press"), plan.Options{})
	for _, inner := range []float64{60, 100} {
		p := make1(t, on(2, fmt.Sprintf("mount A B, square-knot 24, fold-back %gmm, finish singe-and-press", inner)), plan.Options{})
		for i := range p.Cords {
			near(t, "needs of "+p.Cords[i].ID, p.Cords[i].NeedsMM, flat.Cords[i].NeedsMM, 0.1)
		}
		if gone := flat.LengthMM - p.LengthMM; gone < inner-12 || gone > inner+25 {
			t.Errorf("a loop of %g mm inside shortens the piece by %.1f", inner, gone)
		}
		fold := p.Sections[2]
		for _, s := range p.Layout().Strands {
			for _, end := range []int{0, len(s.Points) - 1} {
				if v := s.Points[end]; math.Abs(v.Y-fold.TopMM) > 12 {
					t.Errorf("an end lies at %.1f, the loop begins at %.1f", v.Y, fold.TopMM)
				}
			}
		}
	}
}

// The words of the cut say the shorter leg, and the saving is against equal
// legs.
func TestCutsAreSaidInWords(t *testing.T) {
	d := on(2, "mount A B, square-knot 12, finish dome")
	p := make1(t, d, plan.Options{})
	for i := range d.Cords {
		d.Cords[i].Legs = piece.Legs{Equal: true}
	}
	equal := make1(t, d, plan.Options{})
	for i, c := range p.Cords {
		short := math.Min(c.Legs[0].CutMM, c.Legs[1].CutMM)
		if c.FoldAtMM != short || !strings.Contains(c.Measure, "{fold}") || !strings.Contains(c.Measure, "working leg") || !strings.Contains(c.Measure, "the "+c.FoldSide+" leg") {
			t.Errorf("cord %s: %q, its shorter leg is %.1f", c.ID, c.Measure, short)
		}
		near(t, "saved on "+c.ID, c.SavedMM, equal.Cords[i].CutMM-c.CutMM, 1e-9)
		if !strings.Contains(equal.Cords[i].Measure, "middle") || equal.Cords[i].SavedMM != 0 {
			t.Errorf("equal legs: %q, saved %v", equal.Cords[i].Measure, equal.Cords[i].SavedMM)
		}
	}
}

// How many heads a ring holds grows with it, and a crowded one is warned of.
func TestHeadsOnARing(t *testing.T) {
	last := 0
	for _, inner := range []float64{12, 20, 30, 45, 80} {
		d := on(3, "mount A B C, square-knot 2 strands=2-5, finish dome")
		d.Purpose.HangsOn.InnerMM = inner
		p := make1(t, d, plan.Options{})
		if p.Heads != 3 || p.HeadsFit < last {
			t.Errorf("a ring of %g mm holds %d of %d heads, a smaller one %d", inner, p.HeadsFit, p.Heads, last)
		}
		if crowded := strings.Contains(codes(p), "mount-crowded"); crowded != (p.HeadsFit < 3) {
			t.Errorf("a ring of %g mm holds %d, crowded is %v", inner, p.HeadsFit, crowded)
		}
		last = p.HeadsFit
	}
}

// At the vise the strand in hand is one of those that hang there, for every
// knot and at every action, and the work never gets shorter by much.
func TestEveryKnotAtTheVise(t *testing.T) {
	for _, k := range knot.All() {
		d, section, err := patterns.Sample(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		whole := make1(t, d, plan.Options{})
		seen := 0
		for n := 1; n <= whole.Actions; n++ {
			for _, along := range []float64{0, 0.3, 1} {
				p, err := plan.Make(d, plan.Options{Until: n, Along: along})
				if err != nil {
					t.Fatalf("%s after %d actions: %v", k.ID, n, err)
				}
				l := p.Layout()
				if i := slices.IndexFunc(l.Moving, func(m plan.LegOf) bool { return m.Strand >= len(l.Strands) }); i >= 0 {
					t.Fatalf("%s after %d actions: strand %d of %d moves", k.ID, n, l.Moving[i].Strand, len(l.Strands))
				}
				if len(l.Sections) > len(d.Sequence) {
					t.Fatalf("%s after %d actions: %d sections of %d are there", k.ID, n, len(l.Sections), len(d.Sequence))
				}
				for _, s := range l.Strands {
					for _, v := range s.Points {
						if math.IsNaN(v.X + v.Y + v.Z) {
							t.Fatalf("%s after %d actions, %.1f along: a strand is no curve", k.ID, n, along)
						}
					}
				}
				if len(l.Moving) > 0 {
					seen++
				}
			}
		}
		if seen == 0 && k.ID != "gap" && section > 0 {
			t.Errorf("%s: nothing ever moves", k.ID)
		}
	}
}
