package plan_test

import (
	"errors"
	"math"
	"strings"
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// tether is a piece between two rings of cords A and B, fused to one.
func tether(line string, between float64) piece.Document {
	far := piece.SplitRing(20, 2)
	d := notation.With(piece.Begin("Tether", "tether", far, 0), line,
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand), JoinedTo: "A"})
	d.Purpose.EndsOn, d.Purpose.BetweenMM = &far, between
	return d
}

const tied = "mount A, run-back, square-knot 8, finish singe-and-press"

// What is planned from the length between both wires measures that when it is planned
// from the count, cord and all.
func TestBetweenTwoWiresIsExact(t *testing.T) {
	counted := make1(t, tether(tied, 0), plan.Options{})
	between := make1(t, tether(tied, counted.LengthMM), plan.Options{})
	near(t, "length", between.LengthMM, counted.LengthMM, 1e-9)
	for i := range counted.Cords {
		near(t, "cord "+counted.Cords[i].ID, between.Cords[i].NeedsMM, counted.Cords[i].NeedsMM, 1e-6)
	}
	if len(between.Warnings) > 0 {
		t.Errorf("warned of %+v", between.Warnings)
	}
	// Ten millimetres more are left bare, and cost ten millimetres of each run.
	longer := make1(t, tether(tied, counted.LengthMM+10), plan.Options{})
	near(t, "length", longer.LengthMM, counted.LengthMM+10, 1e-9)
	for i := range counted.Cords {
		near(t, "cord "+counted.Cords[i].ID, longer.Cords[i].NeedsMM, counted.Cords[i].NeedsMM+20, 0.02)
	}
	// Each cord runs to the far wire and back: by itself it cannot take less.
	bare := make1(t, tether("mount A, run-back, gap 60mm, finish singe-and-press", 0), plan.Options{})
	for _, c := range bare.Cords {
		if c.NeedsMM < 3*60 {
			t.Errorf("cord %s takes %.1f mm for two runs and a strand of 60 mm each", c.ID, c.NeedsMM)
		}
	}
}

// What does not fit between both wires, and what leaves room for more, is said with
// the count that fits; the last millimetres are said as a gap.
func TestWhatFitsBetweenTwoWires(t *testing.T) {
	p := make1(t, tether(tied, 0), plan.Options{})
	each := p.Sections[2].KnotMM
	for code, by := range map[string]float64{"room-between": 2.5, "too-long-between": -1.5} {
		d := tether(tied, p.LengthMM+by*each)
		q := make1(t, d, plan.Options{})
		w := warned(q, code)
		if w == nil || w.Fix == nil {
			t.Errorf("%.1f knots of room: %+v", by, q.Warnings)
			continue
		}
		d = apply(t, d, *w.Fix)
		q = make1(t, d, plan.Options{})
		if warned(q, "room-between") != nil || warned(q, "too-long-between") != nil {
			t.Errorf("with %q: %+v", w.Fix.Label, q.Warnings)
		}
		if q.LengthMM != d.Purpose.BetweenMM {
			t.Errorf("%.3f mm long between wires %.3f mm apart", q.LengthMM, d.Purpose.BetweenMM)
		}
		left := false
		for _, c := range q.Checks {
			left = left || strings.Contains(c.Message, "are left before the far end")
		}
		if !left {
			t.Errorf("nothing is said of the half knot that is left: %+v", q.Checks)
		}
	}
}

// Between wires that are too near for one knot, and without a far end, the piece is
// refused, with a way out that mends it.
func TestARunBackIsRefused(t *testing.T) {
	short := tether(tied, 14)
	nowhere := tether(tied, 0)
	nowhere.Purpose.EndsOn = nil
	for name, d := range map[string]piece.Document{"purpose.between_mm": short, "sequence[1].do": nowhere} {
		_, err := plan.Make(d, plan.Options{})
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != name || ps[0].Fix == nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		if q := make1(t, apply(t, d, *ps[0].Fix), plan.Options{}); math.IsNaN(q.LengthMM) {
			t.Errorf("%s: mended it is no length", name)
		}
	}
	twice := tether("mount A, run-back, run-back, finish singe-and-press", 0)
	if _, err := plan.Make(twice, plan.Options{}); err == nil {
		t.Error("strands run to the far end twice")
	}
}

// A ring is taken in once between two knots: a second one is refused, and left out the
// piece can be tied; with a knot between them both are.
func TestARingIsTakenInOnce(t *testing.T) {
	const ring = "ring-in inner=20mm wire=2mm"
	fob := func(line string) piece.Document {
		return notation.With(piece.Begin("Pull", "pull", piece.SplitRing(20, 2), 0), line, piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Lagoon)})
	}
	for _, second := range []string{ring, "gap 5mm, " + ring, "pretzel-knot take=ring inner=20mm wire=2mm"} {
		d := fob("mount A, snake-knot 4, " + ring + ", " + second + ", finish dome")
		_, err := plan.Make(d, plan.Options{})
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Fix == nil || !strings.HasSuffix(ps[0].Path, ".do") {
			t.Errorf("%s: %v", second, err)
			continue
		}
		make1(t, apply(t, d, *ps[0].Fix), plan.Options{})
	}
	make1(t, fob("mount A, "+ring+", snake-knot 4, "+ring+", pretzel-knot, finish dome"), plan.Options{})
}
