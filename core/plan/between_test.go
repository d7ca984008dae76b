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

const tiedFromFar = "mount A, run-back from=far, square-knot 8, finish singe-and-press"

// What is planned from the length between both wires measures that when it is planned
// from the count, cord and all, from whichever end it is tied.
func TestBetweenTwoWiresIsExact(t *testing.T) {
	for line, runs := range map[string]float64{tied: 2, tiedFromFar: 1} {
		counted := make1(t, tether(line, 0), plan.Options{})
		between := make1(t, tether(line, counted.LengthMM), plan.Options{})
		near(t, "length", between.LengthMM, counted.LengthMM, 1e-9)
		for i := range counted.Cords {
			near(t, "cord "+counted.Cords[i].ID, between.Cords[i].NeedsMM, counted.Cords[i].NeedsMM, 1e-6)
		}
		if len(between.Warnings) > 0 {
			t.Errorf("warned of %+v", between.Warnings)
		}
		// Ten millimetres more are left bare, and cost ten millimetres of each run.
		longer := make1(t, tether(line, counted.LengthMM+10), plan.Options{})
		near(t, "length", longer.LengthMM, counted.LengthMM+10, 1e-9)
		for i := range counted.Cords {
			near(t, "cord "+counted.Cords[i].ID, longer.Cords[i].NeedsMM, counted.Cords[i].NeedsMM+10*runs, 0.02)
		}
	}
	// Each cord runs to the far wire and back: by itself it cannot take less.
	bare := make1(t, tether("mount A, run-back, gap 60mm, finish singe-and-press", 0), plan.Options{})
	for _, c := range bare.Cords {
		if c.NeedsMM < 3*60 {
			t.Errorf("cord %s takes %.1f mm for two runs and a strand of 60 mm each", c.ID, c.NeedsMM)
		}
	}
}

// Tied from its far end a piece still hangs by its first: its mount lies about that
// wire, its knots begin at the other one, and its ends lie near the mount. In hand the
// far end is up.
func TestTiedFromTheFarEnd(t *testing.T) {
	d := tether(tiedFromFar, 0)
	d.Purpose.EndsOn.InnerMM = 26
	p := make1(t, d, plan.Options{})
	l := p.Layout()
	mount, first, ends := l.Sections[0], l.Sections[2], l.Sections[3]
	if mount[0] > 1 || mount[1] > 0.3*p.LengthMM {
		t.Errorf("the mount lies at %.1f", mount)
	}
	if first[1] < 0.8*p.LengthMM || ends[0] > first[0]+1 {
		t.Errorf("the knots lie at %.1f, the ends at %.1f, of %.1f mm", first, ends, p.LengthMM)
	}
	near(t, "far wire", l.FarY, p.LengthMM, 1e-9)
	for _, s := range l.Strands { // each meets both wires
		high, low := math.Inf(1), math.Inf(-1)
		for _, v := range s.Points {
			high, low = math.Min(high, v.Y), math.Max(low, v.Y)
		}
		d := l.Figures[s.Cord].DrawnUpMM
		if off := low - l.FarY - l.Far.WireMM/2; math.Abs(off-d/2) > 0.05*d {
			t.Errorf("the middle of cord %d comes %.2f mm beyond the far wire, and it is %.1f mm thick", s.Cord, off, d)
		}
		if high > -0.5*d {
			t.Errorf("cord %d comes up to %.2f mm only", s.Cord, high)
		}
	}
	hand := make1(t, d, plan.Options{Until: p.Actions - 1}).Layout()
	if hand.Hardware.InnerMM != d.Purpose.EndsOn.InnerMM || hand.Far.InnerMM != d.Purpose.HangsOn.InnerMM {
		t.Errorf("in hand it hangs on %+v and ends on %+v", hand.Hardware, hand.Far)
	}
	// One run of each strand fills its knots, not two.
	if both := make1(t, tether(tied, 0), plan.Options{}); both.WidthMM < p.WidthMM+d.Cords[0].Stuff.DiameterMM {
		t.Errorf("from the near end it is %.1f mm wide, from the far end %.1f", both.WidthMM, p.WidthMM)
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
