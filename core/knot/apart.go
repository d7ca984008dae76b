package knot

import "math"

// Apart moves what stands at xs, from the left, so far apart that no two middles are
// nearer than wide, about the same middle of all. What stands far enough stays.
//
// Law: the order stays, and the mean too.
func Apart(xs []float64, wide float64) []float64 {
	out := append([]float64(nil), xs...)
	near := false
	for i := 1; i < len(xs); i++ {
		near = near || xs[i]-xs[i-1] < wide
	}
	if !near {
		return out
	}
	mean, now := 0.0, 0.0
	for i, x := range xs {
		mean += x / float64(len(xs))
		if i > 0 {
			out[i] = math.Max(x, out[i-1]+wide)
		}
		now += out[i] / float64(len(xs))
	}
	for i := range out {
		out[i] += mean - now
	}
	return out
}
