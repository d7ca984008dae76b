package tighten

import (
	"math"
	"math/rand/v2"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"
)

// The norm of a step is that of package r3 to the last bit: what was drawn up with that
// one is drawn up the same.
func TestTheNormIsThatOfR3(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 2))
	for range 20000 {
		size := math.Pow(10, 6*r.Float64()-4)
		v := r3.Vec{X: size * r.NormFloat64(), Y: size * r.NormFloat64(), Z: r.NormFloat64()}
		if got, want := norm(v), r3.Norm(v); got != want {
			t.Fatalf("of %v: %v, r3 says %v", v, got, want)
		}
	}
	if norm(r3.Vec{}) != 0 || norm(r3.Vec{Y: -2}) != 2 {
		t.Error("of what lies on an axis it is not the distance")
	}
}
