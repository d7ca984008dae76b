package plan_test

import (
	"math"
	"strings"
	"testing"

	"nimblebight/core/gauge"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// What a cut is made of adds up to it, and nothing of it is less than nothing.
func TestACutIsMadeOfItsReasons(t *testing.T) {
	for _, p := range patterns.All() {
		pl := make1(t, p.Document, plan.Options{})
		for _, c := range pl.Cords {
			y := c.Why
			sum := 0.0
			for name, mm := range map[string]float64{"knotwork": y.KnotworkMM, "measured": y.MeasuredMM, "finish": y.FinishMM, "spread": y.SpreadMM, "hold": y.HoldMM, "even": y.EvenMM, "rounding": y.RoundingMM} {
				sum += mm
				if mm < -1e-6 {
					t.Errorf("%s: cord %s: %s is %v mm", p.ID, c.ID, name, mm)
				}
			}
			near(t, p.ID+": the reasons of "+c.ID, sum, c.CutMM, 1e-6)
			if c.Role != "unused" && y.RoundingMM > 6+1e-6 {
				t.Errorf("%s: cord %s is rounded up by %v mm", p.ID, c.ID, y.RoundingMM)
			}
			near(t, p.ID+": the shares of "+c.ID, c.Rests.Geometry+c.Rests.Swatches+c.Rests.Logs, 1, 1e-9)
		}
	}
}

// Fingers hold what the finish leaves and trims: a longer fringe is not held beside it.
func TestFingersHoldWhatIsThere(t *testing.T) {
	cut := func(line string, o plan.Options) plan.Cord { return make1(t, on(2, line), o).Cords[0] }
	plain := cut("mount A B, square-knot 8, finish cut-straight length=5mm", plan.Options{})
	long := cut("mount A B, square-knot 8, finish cut-straight length=60mm", plan.Options{})
	if plain.Why.HoldMM < 40 || long.Why.HoldMM > 1e-9 {
		t.Errorf("with an end of 5 mm the hold is %v mm, with one of 60 it is %v", plain.Why.HoldMM, long.Why.HoldMM)
	}
	// Beside 5 mm that stay and 10 that are trimmed 45 are missing to the 60 of a worker,
	// none to the 15 of a filler.
	near(t, "hold beside an end of 5 mm", plain.Why.HoldMM, 45, 1e-6)
	// A gap below the last knot is held too.
	near(t, "hold above a gap of 40 mm", cut("mount A B, square-knot 8, gap 40mm, finish cut-straight length=5mm", plan.Options{}).Why.HoldMM, 5, 1e-6)
	last := math.Inf(1)
	for _, tool := range []piece.Tool{piece.Fingers, piece.Haemostat, piece.Needle} {
		got := cut("mount A B, square-knot 8, finish cut-straight length=5mm", plan.Options{Hold: tool}).Why.HoldMM
		if got >= last {
			t.Errorf("with a %s the hold is %v mm, with a longer grip %v", tool, got, last)
		}
		last = got
	}
}

func TestTheMakerChoosesTheRisk(t *testing.T) {
	last := 0.0
	for _, r := range gauge.Risks {
		d := pattern(t, "spiral-fob")
		c := make1(t, d, plan.Options{OneIn: r}).Cords[0]
		if c.CutMM <= last {
			t.Errorf("once in %d is cut %v mm, a greater risk %v", r, c.CutMM, last)
		}
		last = c.CutMM
		d.Cutting = &piece.Cutting{OneIn: r}
		if own := make1(t, d, plan.Options{OneIn: 20}).Cords[0]; own.CutMM != c.CutMM {
			t.Errorf("once in %d for the piece is cut %v mm, as a setting %v", r, own.CutMM, c.CutMM)
		}
	}
	for path, c := range map[string]piece.Cutting{"cutting.one_in": {OneIn: 30}, "cutting.hold": {Hold: "teeth"}} {
		d := pattern(t, "spiral-fob")
		d.Cutting = &c
		ps := d.Check()
		if len(ps) != 1 || ps[0].Path != path {
			t.Errorf("%+v: %v", c, ps)
		}
	}
}

// Folds that are found waste nothing; equal legs and a leg that is given say what they
// cost, and the words name the short leg and its side.
func TestFoldsAreFound(t *testing.T) {
	for _, p := range patterns.All() {
		d := p.Document
		found := make1(t, d, plan.Options{})
		equal := d
		equal.Cords = nil
		for _, c := range d.Cords {
			c.Legs = piece.Legs{Equal: true}
			equal.Cords = append(equal.Cords, c)
		}
		for i, e := range make1(t, equal, plan.Options{}).Cords {
			c := found.Cords[i]
			if c.Role != "legs" || c.Legs[0].Parts == nil {
				continue
			}
			if c.CutMM > e.CutMM || c.WastedMM != 0 {
				t.Errorf("%s: cord %s is cut %v with its fold found, %v with equal legs; wasted %v", p.ID, c.ID, c.CutMM, e.CutMM, c.WastedMM)
			}
			if a, b := c.Legs[0].Side, c.Legs[1].Side; a == b || c.Legs[c.FoldLeg].Side != c.FoldSide {
				t.Errorf("%s: the legs of cord %s hang %s and %s, the fold is measured %s", p.ID, c.ID, a, b, c.FoldSide)
			}
			if !strings.Contains(c.Measure, "{fold}") {
				t.Errorf("%s: cord %s: %q", p.ID, c.ID, c.Measure)
			}
			if !strings.Contains(c.Measure, "start") {
				near(t, p.ID+": wasted by equal legs of "+c.ID, e.WastedMM, e.CutMM-c.CutMM, 1e-9)
			}
			if (c.Short == "") != (c.Legs[0].CutMM == c.Legs[1].CutMM) || c.Short != "" && !strings.Contains(c.Measure, "start") && strings.Contains(c.Measure, "that is the short") != (c.Short == c.FoldSide) {
				t.Errorf("%s: cord %s: its short leg hangs %q, and it is said: %q", p.ID, c.ID, c.Short, c.Measure)
			}
		}
	}
}

// A wrap is cut for its turns, and its steps say eye and tail.
func TestAWrapIsCutForItsTurns(t *testing.T) {
	last := 0.0
	for _, turns := range []string{"3", "6", "12"} {
		p := make1(t, on(3, "mount A B, square-knot 3, gather C turns="+turns+", finish dome"), plan.Options{})
		c := p.Cords[2]
		if c.Role != "wrap" || c.NeedsMM <= last {
			t.Errorf("%s turns need %v mm, fewer %v", turns, c.NeedsMM, last)
		}
		last = c.NeedsMM
		said := ""
		for _, s := range p.Steps {
			for _, a := range s.Actions {
				said += a.Text + " " + a.Detail + " "
			}
		}
		for _, what := range []string{"as an eye {", "of the short end", "Keep a tail of {"} {
			if !strings.Contains(said, what) {
				t.Errorf("the steps do not say %q: %s", what, said)
			}
		}
		// Two ends to pull by and hold, and the eye's bend twice below the last turn.
		if y := c.Why; y.HoldMM < 80 || y.HoldMM > 120 {
			t.Errorf("a wrap of %s turns is held by %v mm", turns, y.HoldMM)
		}
	}
}

// Who has tied two swatches is allowed less than 12 % over the needs.
func TestTwoSwatchesNarrowTheAllowance(t *testing.T) {
	d := pattern(t, "two-colour-fob")
	var all []gauge.Evidence
	for range 2 {
		for _, c := range d.Cords {
			r := func(what gauge.What) gauge.Reading {
				out := gauge.Reading{What: what, Kind: c.Stuff.Kind(), Doubt: c.Stuff.Doubt(), Log: 0.04, Var: gauge.KnotVariance(8) + 1e-4}
				if what == gauge.Took {
					out.Families = []gauge.Share{{Family: families(d)[1], Of: 1}}
				}
				return out
			}
			all = append(all, gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{r(gauge.Reach), r(gauge.Took)}})
		}
	}
	before := make1(t, d, plan.Options{}).Cords[0]
	after := make1(t, d, plan.Options{Gauge: gauge.Learn(all[:4])}).Cords[0]
	if before.Allowed < 0.12 || after.Allowed >= 0.12 || after.ByGeometry != before.Allowed && math.Abs(after.ByGeometry-before.Allowed) > 0.03 {
		t.Errorf("allowed %.3f before, %.3f after; by geometry alone %.3f", before.Allowed, after.Allowed, after.ByGeometry)
	}
	if r := after.Rests; r.Swatches < 0.5 || r.Logs != 0 {
		t.Errorf("it rests on %+v", r)
	}
	t.Logf("allowed %.1f %% before, %.1f %% after two swatches", 100*before.Allowed, 100*after.Allowed)
}

// A thumb rule cuts so many times the row, and says what that would leave.
func TestAThumbRuleStandsBesideTheFigure(t *testing.T) {
	p := make1(t, on(2, "mount A B, square-knot 10, finish singe-and-press"), plan.Options{})
	for _, c := range p.Cords {
		row := p.Sections[1].HeightMM
		if c.Thumb == nil {
			t.Fatal("no thumb rule of square knots")
		}
		bare := 0.0
		for _, l := range c.Legs {
			for _, q := range l.Parts {
				if q.Section != 1 {
					bare += q.MM
				}
			}
		}
		if off := c.Thumb.CutMM - (7.5*row + bare); off < -1e-6 || off > 5 {
			t.Errorf("cord %s: by the thumb rule %v mm, a row of %.1f times 7.5 and %.1f beside it", c.ID, c.Thumb.CutMM, row, bare)
		}
		near(t, "left by the thumb rule", c.Thumb.LeftMM, c.Thumb.CutMM-c.NeedsMM, 1e-9)
	}
	if c := make1(t, on(2, "mount A B, gap 20mm, finish dome"), plan.Options{}).Cords[0]; c.Thumb != nil {
		t.Errorf("a gap has the thumb rule %q", c.Thumb.Says)
	}
}

// Before anything is measured, what is cut of a long cord is little over its needs.
func TestLongCordsAreCutLittleLonger(t *testing.T) {
	n := 0
	for _, p := range patterns.All() {
		for _, c := range make1(t, p.Document, plan.Options{}).Cords {
			if c.NeedsMM < 800 || c.Role == "wrap" {
				continue
			}
			n++
			if by := c.CutMM / c.NeedsMM; by < 1.15 || by > 1.31 {
				t.Errorf("%s: cord %s needs %.0f mm and is cut %.0f, %.3f times that", p.ID, c.ID, c.NeedsMM, c.CutMM, by)
			}
		}
	}
	if n < 20 {
		t.Errorf("only %d long cords", n)
	}
}

// What is drawn out when it is tied is measured without pull: it takes less of itself
// than a cord that does not stretch and draws up as thick.
func TestAnElasticIsMeasuredWithoutPull(t *testing.T) {
	d := on(2, "mount A B, square-knot 8, finish cut-straight length=10mm")
	plain := d
	elastic, thread := d.Cords[0].Stuff, d.Cords[0].Stuff
	elastic.Make, elastic.Material, elastic.DiameterMM = "elastic", "rubber", 2
	thread.Make, thread.Material, thread.DiameterMM = "tshirt-yarn", "cotton", elastic.DrawnUp() // as soft, and no thicker than its label
	thread.GramsPerMetre = 100
	d.Cords, plain.Cords = nil, nil
	for _, id := range []string{"A", "B"} {
		d.Cords = append(d.Cords, piece.Cord{ID: id, Stuff: elastic})
		plain.Cords = append(plain.Cords, piece.Cord{ID: id, Stuff: thread})
	}
	a, b := make1(t, d, plan.Options{}).Cords[0], make1(t, plain, plan.Options{}).Cords[0]
	near(t, "drawn up", a.DrawnUpMM, b.DrawnUpMM, 1e-9)
	near(t, "knotwork of elastic", a.Why.KnotworkMM, elastic.Figures().Rest*b.Why.KnotworkMM, 1e-6*b.Why.KnotworkMM)
	if !strings.Contains(a.Measure, "without pull") {
		t.Errorf("it is measured: %s", a.Measure)
	}
}
