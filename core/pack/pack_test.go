package pack_test

import (
	"math"
	"testing"

	"nimblebight/core/pack"
)

func equal(n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = 1
	}
	return out
}

func near(t *testing.T, what string, got, want, within float64) {
	t.Helper()
	if math.Abs(got-want) > within {
		t.Errorf("%s: %.9f, want %.9f", what, got, want)
	}
}

// The published optima for equal circles in a circle.
func TestEqualCordsNeedThePublishedHole(t *testing.T) {
	for n, want := range map[int]float64{
		1: 1, 2: 2, 3: 1 + 2/math.Sqrt(3), 4: 1 + math.Sqrt2,
		5: 1 + math.Sqrt(2*(1+1/math.Sqrt(5))), 6: 3, 7: 3, 8: 1 + 1/math.Sin(math.Pi/7),
	} {
		near(t, "equal cords", pack.Hole(equal(n)), want, 1e-6*want)
	}
}

// Of three, the two widest side by side leave gaps beside them. A third that is no wider
// than a gap lies in it; a wider one touches both, and the circle about all three is that
// of the theorem of Descartes. So is the circle in the gap.
func TestThreeMixedCordsByDescartes(t *testing.T) {
	for _, d := range [][3]float64{{4, 4, 2.2}, {4, 3, 2.2}, {4, 4, 4}, {6, 5, 4}, {3, 2.2, 2.2}} {
		a, b, c := 2/d[0], 2/d[1], 2/d[2]
		outer, both := 2*math.Sqrt(a*b+b*c+c*a)-(a+b+c), d[0]+d[1]
		want := 2 / outer
		if gap := 2 / (a + b - 2/both + 2*math.Sqrt(math.Max(0, a*b-2*(a+b)/both))); d[2] <= gap {
			want = both
		}
		near(t, "three cords", pack.Hole(d[:]), want, 1e-6*d[0])
	}
	near(t, "two thick ones and a thread", pack.Hole([]float64{4, 4, 0.75}), 8, 1e-6)
}

// Rings about a middle cord: k cords of the one size that just closes about it.
func TestARingAboutAMiddleCord(t *testing.T) {
	for k := 3; k <= 7; k++ {
		s := math.Sin(math.Pi / float64(k))
		ring := s / (1 - s) // of a middle of one
		ds := []float64{1}
		for range k {
			ds = append(ds, ring)
		}
		near(t, "a ring about a middle", pack.Hole(ds), 1+2*ring, 1e-5)
	}
}

func TestLawsOfHoles(t *testing.T) {
	for _, ds := range [][]float64{{4, 4, 2.2, 2.2}, {4, 3, 2, 1}, {2.2, 4, 1.2, 4, 3}, {1, 2, 3, 4, 5, 6}, {4, 4, 4, 4, 2, 2, 2}, equal(12)} {
		hole := pack.Hole(ds)
		var twice, turned []float64
		area := 0.0
		for i := range ds {
			twice, turned = append(twice, 2*ds[i]), append(turned, ds[len(ds)-1-i])
			area += ds[i] * ds[i]
		}
		near(t, "twice as thick", pack.Hole(twice), 2*hole, 1e-9*hole)
		near(t, "the other way round", pack.Hole(turned), hole, 1e-9*hole)
		if more := pack.Hole(append(ds[:len(ds):len(ds)], 1)); more < hole-2e-6*hole {
			t.Errorf("%v take %.6f, with one more %.6f", ds, hole, more)
		}
		if hole*hole < area {
			t.Errorf("%v take a hole of %.3f, smaller than they are together", ds, hole)
		}
	}
	if pack.Hole(nil) != 0 {
		t.Error("no cord needs a hole")
	}
}

func BenchmarkHole(b *testing.B) {
	for b.Loop() {
		pack.Hole([]float64{4, 4, 4, 2.2, 2.2, 2.2, 1.2, 1.2})
	}
}
