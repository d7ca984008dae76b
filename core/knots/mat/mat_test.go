package mat

import (
	"math"
	"slices"
	"testing"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// whole is a cord of a mat from end to end.
func (l laid) whole(n int) curve.Curve {
	first := slices.Clone(l.lines[2*n])
	slices.Reverse(first)
	return curve.Curve{Points: append(first, l.lines[2*n+1][1:]...)}
}

// Between the bounds the cords of a mat come clear of one another, and it is as wide as it
// is laid.
func TestMatsAreLaidClear(t *testing.T) {
	for lanes, b := range bounds {
		for _, share := range []float64{0, 0.25, 0.5, 0.75, 1} {
			want := b[0] + share*(b[1]-b[0])
			m := wide(lanes, want)
			l := m.lay()
			if m.followed = lanes == 2; m.followed {
				l.gap = math.Min(l.gap, m.lay().gap)
			}
			if l.gap < 0.95 {
				t.Errorf("%d cords laid %.1f wide come within %.2f of one another", lanes, want, l.gap)
			}
			if math.Abs(l.width/want-1) > 0.02 {
				t.Errorf("%d cords laid %.1f wide come to %.1f", lanes, want, l.width)
			}
		}
	}
}

// Openness: the cord and the width of a mat of one cord grow as others found, and of two
// they are as they found.
func TestOpennessTakesCord(t *testing.T) {
	for _, k := range []float64{0.85, 1, 1.15, 1.5} {
		l := mat{4.9 * k, 2.3 * k, 1, false}.lay()
		tails := 2 * 3.5 // led straight out
		if got, want := l.whole(0).Length()-tails, 100*k+5; math.Abs(got/want-1) > 0.06 {
			t.Errorf("at %.2f it takes %.1f, others found %.1f", k, got, want)
		}
		if want := 14.4*k + 1; math.Abs(l.width/want-1) > 0.02 {
			t.Errorf("at %.2f it is %.1f wide, others found %.1f", k, l.width, want)
		}
	}
	l := mat{8.2, 4, 2, false}.lay()
	for n, want := range []float64{180, 161} {
		if got := l.whole(n).Length() - 7; math.Abs(got/want-1) > 0.06 {
			t.Errorf("cord %d of two takes %.1f, others found %.0f", n+1, got, want)
		}
	}
}

// It is the Turk's head of three leads and four bights: eight crossings that alternate,
// determinant 45 when its open bight is closed; two cords cross wherever one does.
func TestAMatIsItsKnot(t *testing.T) {
	one := usual(1).lay().whole(0)
	end := func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: v.Y + 1} }
	closed := curve.Curve{Points: append(slices.Clone(one.Points), end(one.Points[len(one.Points)-1]), end(one.Points[0])), Closed: true}
	found, err := curve.Crossings([]curve.Curve{closed})
	if err != nil {
		t.Fatal(err)
	}
	if len(found) != 8 || !curve.Alternating(found, 1) || curve.Determinant(found, 1) != 45 {
		t.Errorf("%d crossings, alternating %v, determinant %d; want 8, true, 45", len(found), curve.Alternating(found, 1), curve.Determinant(found, 1))
	}
	two := usual(2).lay()
	found, err = curve.Crossings([]curve.Curve{two.whole(0), two.whole(1)})
	if err != nil {
		t.Fatal(err)
	}
	each := map[[2]int]int{}
	for _, x := range found {
		each[[2]int{x.Over, x.Under}]++
	}
	if len(found) != 32 || each[[2]int{0, 0}] != 8 || each[[2]int{1, 1}] != 8 || each[[2]int{0, 1}] != each[[2]int{1, 0}] {
		t.Errorf("of two cords %d crossings: %v", len(found), each)
	}
}
