package plan_test

import (
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

func onBlind(line string, hole float64) piece.Document {
	d := notation.With(piece.Begin("Stop", "stopper", piece.SplitRing(18, 2), 0), line, piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Sand)})
	d.Purpose.StopsMM = hole
	return d
}

// A hole stops a knot that is wider than it, by what the cord gives; a larger knot stops
// at a larger hole.
func TestStoppersInOrder(t *testing.T) {
	last := 0.0
	for _, line := range []string{"mount A hitch=single-end, gap 20mm, overhand, finish dome", "mount A B, gap 20mm, wall, finish dome", "mount A, gap 20mm, overhand, finish dome", "mount A B, gap 20mm, wall passes=2, finish dome", "mount A B, gap 20mm, multi-strand-diamond collar=yes, finish dome"} {
		s := make1(t, onBlind(line, 0), plan.Options{}).Sections[2]
		if s.StopsMM <= last || s.PassesMM <= s.StopsMM {
			t.Errorf("%s: stops a hole of %.2f mm, passes one of %.2f, the one before stopped %.2f", line, s.StopsMM, s.PassesMM, last)
		}
		last = s.StopsMM
	}
	// Four strands in a ring, walled twice, are 6.6 diameters wide.
	s := make1(t, onBlind("mount A B, gap 20mm, wall passes=2, finish dome", 0), plan.Options{}).Sections[2]
	near(t, "a double wall's width", s.PassesMM, 6.6*piece.Kernmantle(3, piece.Lagoon).DrawnUp(), 0.02*s.PassesMM)
}

// A knot that the hole lets pass is warned of, with one that it stops; that is the
// narrowest there is. What stops is said as a check.
func TestAHoleThatIsNotToBePassed(t *testing.T) {
	d := onBlind("mount A B, gap 20mm, wall, finish dome", 0)
	stops := make1(t, d, plan.Options{}).Sections[2].StopsMM
	d.Purpose.StopsMM = stops - 0.1
	if p := make1(t, d, plan.Options{}); len(p.Warnings) > 0 {
		t.Errorf("a hole that stops it is warned of: %+v", p.Warnings)
	}
	d.Purpose.StopsMM = stops + 0.5
	p := make1(t, d, plan.Options{})
	w := warned(p, "passes-the-hole")
	if w == nil || w.Fix == nil {
		t.Fatalf("a hole that lets it pass: %+v", p.Warnings)
	}
	mended := make1(t, apply(t, d, *w.Fix), plan.Options{})
	if warned(mended, "passes-the-hole") != nil {
		t.Errorf("mended: %+v", mended.Warnings)
	}
	d.Purpose.StopsMM = 500
	if w := warned(make1(t, d, plan.Options{}), "passes-the-hole"); w == nil || w.Fix != nil {
		t.Errorf("no knot stops at half a metre: %+v", w)
	}
	d.Purpose.StopsMM = -2
	if len(d.Check()) == 0 {
		t.Error("a hole below nothing is not refused")
	}
	if bare := onBlind("mount A B, gap 20mm, finish dome", 5); warned(make1(t, bare, plan.Options{}), "passes-the-hole") == nil {
		t.Error("a piece without a knot stops at a hole")
	}
}
