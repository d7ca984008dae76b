package knot_test

import (
	"fmt"
	"math"
	"os"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/shapes"
)

// nearest is how near strands come where they lie so, over the mean of their
// diameters, before a row is pressed along its length or a turn on its core: of any
// two strands, and of one and itself, at the lie that may come nearer.
func nearest(x knot.Tied, w knot.Work, s cord.Stuff) map[knot.Lie]float64 {
	d := s.DrawnUp()
	type run struct {
		c    curve.Curve
		path int
		lie  knot.Lie
	}
	var runs []run
	paths := append(append([]knot.Path{}, x.Paths...), x.Own...)
	_, legs := legsOf(w.Section)
	for i, p := range paths {
		for a := 0; a+1 < len(p.Points); {
			b := a + 1
			for b+1 < len(p.Points) && p.Lies[b+1] == p.Lies[b] {
				b++
			}
			runs = append(runs, run{curve.Curve{Points: p.Points[a : b+1]}, i, p.Lies[b]})
			a = b
		}
	}
	pressed := func(l knot.Lie) float64 {
		switch {
		case l == knot.Pressed:
			return ball.Of(s, s.Figures()).Hard() / d
		case x.Loose && len(w.Strands) > 0 && l != knot.Free:
			return s.Squeeze()
		}
		return 1
	}
	out := map[knot.Lie]float64{}
	note := func(a, b knot.Lie, gap float64) {
		lie := a
		if b.Least() < a.Least() {
			lie = b
		}
		g := gap / math.Min(pressed(a), pressed(b))
		if old, ok := out[lie]; !ok || g < old {
			out[lie] = g
		}
	}
	for i, a := range runs {
		note(a.lie, a.lie, 1+curve.SelfGap(a.c, d)/d)
		for _, b := range runs[i+1:] {
			same := a.path == b.path
			first := len(x.Paths)
			if legs > 1 && a.path >= first && b.path >= first && (a.path-first)/legs == (b.path-first)/legs {
				continue // two legs of one cord meet at the fold, or in the ball
			}
			if same {
				continue // what follows on itself is measured as a whole below
			}
			note(a.lie, b.lie, 1+curve.Gap(a.c, d, b.c, d)/d)
		}
	}
	for _, p := range paths {
		if len(p.Points) < 2 {
			continue
		}
		most := p.Lies[0]
		for _, l := range p.Lies {
			if l.Least() < most.Least() {
				most = l
			}
		}
		note(most, most, 1+curve.SelfGap(curve.Curve{Points: p.Points}, d)/d)
	}
	return out
}

// No strand passes through another, or through itself: where a cord lies so, it
// comes no nearer than the one figure that is stated for that, and docs/rope.md
// states the same.
func TestStrandsComeNoNearerThanTheirLieAllows(t *testing.T) {
	for _, s := range []cord.Stuff{rope, lace} {
		sections(t, s, 1, func(name string, w knot.Work) {
			k, _ := knot.Get(w.Section.Do)
			if k.Ends || k.Bare || knot.TermsOf(w.Section).Begins == knot.BehindStrands {
				return // ends that are fused meet; a cord laid behind only hangs there
			}
			for lie, g := range nearest(tie(t, w), w, s) {
				if g < lie.Least() {
					t.Errorf("%s of %s: strands that lie %s come within %.3f of touching, %.2f is the least", name, s.Make, lie, g, lie.Least())
				}
			}
		})
	}
}

// docs/rope.md states the figures as they stand in the code.
func TestTheDocsStateTheFloors(t *testing.T) {
	b, err := os.ReadFile("../../docs/rope.md")
	if err != nil {
		t.Fatal(err)
	}
	for lie := knot.Knotted; lie <= knot.Pressed; lie++ {
		if row := fmt.Sprintf("| %s | %.2f |", lie, lie.Least()); !strings.Contains(string(b), row) {
			t.Errorf("docs/rope.md does not say %s", row)
		}
	}
	if floor := fmt.Sprintf("nearer than %g of touching", shapes.Floor); !strings.Contains(string(b), floor) {
		t.Errorf("docs/rope.md does not say %s", floor)
	}
}
