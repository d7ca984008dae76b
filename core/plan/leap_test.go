package plan_test

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// No strand leaps: where one section passes into the next its curve goes on. A step
// between two points that turns back on the one before it, or is long and turns
// sharply, is a leap.
func TestNoStrandLeaps(t *testing.T) {
	for name, d := range everyPiece(t) {
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		l := p.Layout()
		for _, s := range l.Strands {
			thick := l.Figures[s.Cord].DrawnUpMM
			for i := 2; i < len(s.Points); i++ {
				a, b := r3.Sub(s.Points[i-1], s.Points[i-2]), r3.Sub(s.Points[i], s.Points[i-1])
				la, lb := r3.Norm(a), r3.Norm(b)
				if la < 0.05 || lb < 0.05 || s.Section[i] == s.Section[max(0, i-3)] && s.Section[i] == s.Section[min(len(s.Section)-1, i+2)] {
					continue // within a section, or a step of a twentieth of a millimetre
				}
				turn := math.Acos(math.Max(-1, math.Min(1, r3.Dot(a, b)/(la*lb))))
				if turn > 2 || turn > 1 && math.Max(la, lb) > 0.8*thick {
					t.Errorf("%s: cord %s leaps at x %.1f y %.1f z %.1f: %.1f mm after %.1f, a turn of %.0f degrees, section %d", name, d.Cords[s.Cord].ID, s.Points[i-1].X, s.Points[i-1].Y, s.Points[i-1].Z, lb, la, turn*180/math.Pi, s.Section[i])
				}
			}
		}
	}
}

// Where one section passes into the next no strand kinks: over four tenths of its
// diameter it turns no harder than on a radius of three tenths of that. What knots
// themselves bend by has a law of its own.
func TestJointsBendEasily(t *testing.T) {
	const step, least, beside = 0.1, 0.3, 15 // of a diameter; steps to either side
	for name, d := range everyPiece(t) {
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		l := p.Layout()
		for _, s := range l.Strands {
			thick := l.Figures[s.Cord].DrawnUpMM
			line := curve.Curve{Points: s.Points}
			n := int(line.Length() / (step * thick))
			pts := line.Resample(n + 1).Points
			passes := make([]bool, len(pts)) // a section ends nearby
			at, walked := 0, 0.0
			for i := 1; i < len(s.Points); i++ {
				walked += r3.Norm(r3.Sub(s.Points[i], s.Points[i-1]))
				at = int(walked / (step * thick))
				if s.Section[i] != s.Section[i-1] {
					for k := max(0, at-beside); k < min(len(pts), at+beside); k++ {
						passes[k] = true
					}
				}
			}
			for i := 3; i+3 < len(pts); i++ {
				if !passes[i] {
					continue
				}
				turn := 0.0
				for k := i - 2; k < i+2; k++ {
					a, b := r3.Unit(r3.Sub(pts[k], pts[k-1])), r3.Unit(r3.Sub(pts[k+1], pts[k]))
					turn += math.Acos(math.Max(-1, math.Min(1, r3.Dot(a, b))))
				}
				if radius := 4 * step / turn; radius < least {
					v := pts[i]
					t.Errorf("%s: cord %s bends on %.2f of its diameter at x %.1f y %.1f z %.1f", name, d.Cords[s.Cord].ID, radius, v.X, v.Y, v.Z)
				}
			}
		}
	}
}

// everyPiece is every pattern and the sample of every knot, by name.
func everyPiece(t *testing.T) map[string]piece.Document {
	t.Helper()
	documents := map[string]piece.Document{}
	for _, p := range patterns.All() {
		documents[p.ID] = p.Document
	}
	for _, k := range knot.All() {
		d, _, err := patterns.Sample(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		documents["knot "+k.ID] = d
	}
	documents["a tether tied from its far end"] = tether(tiedFromFar, 120)
	return documents
}
