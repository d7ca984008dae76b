package knot_test

import (
	"math"
	"math/rand"
	"testing"

	"nimblebight/core/knot"
)

// The circle about discs reaches round every one of them, and is no wider than it must be:
// of two it is as wide as both and what lies between; of many on a circle it is that
// circle, and what lies inside changes nothing.
func TestTheCircleAboutDiscs(t *testing.T) {
	two := []knot.Disc{{X: -3, Z: 1, R: 1}, {X: 5, Z: 7, R: 2}}
	if got := knot.Round(two).R; math.Abs(got-(10+3)/2.0) > 0.001*got {
		t.Errorf("about two discs ten apart it is %.4f in radius", got)
	}
	r := rand.New(rand.NewSource(2))
	for n := 3; n < 400; n += 37 {
		var ds []knot.Disc
		for i := range n {
			s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
			ds = append(ds, knot.Disc{X: 4 + 9*c, Z: 9*s - 2, R: 0.5})
		}
		bare := knot.Round(ds)
		for range 5 * n {
			s, c := math.Sincos(2 * math.Pi * r.Float64())
			far := 8.9 * r.Float64()
			ds = append(ds, knot.Disc{X: 4 + far*c, Z: far*s - 2, R: 0.5})
		}
		got := knot.Round(ds)
		if math.Abs(got.R-9.5) > 0.0095 || math.Abs(bare.R-got.R) > 0.0095 {
			t.Errorf("of %d on a circle of 9.5: %.4f, with others inside %.4f", n, bare.R, got.R)
		}
		for _, d := range ds {
			if reach := math.Hypot(d.X-got.X, d.Z-got.Z) + d.R; reach > got.R+1e-9 {
				t.Fatalf("of %d one reaches %.4f from the middle, the circle %.4f", n, reach, got.R)
			}
		}
	}
	if got := knot.Round(nil); got != (knot.Disc{}) {
		t.Errorf("about nothing it is %v", got)
	}
}
