package curve

import (
	"math"
	"testing"
)

// On a step that step alone counts; between steps the weights come to one, so
// that what is the same on all stays so, and what grows as the logarithm, its
// square or its cube is met, however the steps are spaced.
func TestBetween(t *testing.T) {
	for _, steps := range [][]float64{{1, 2}, {1, 1.5, 4}, {2.7, 3, 3.3, 3.9, 4.5}, {5.4, 5.7, 6, 6.3, 6.6, 6.9, 7.2, 7.8, 8.4, 9}} {
		for i, x := range steps {
			at, w := Between(steps, x)
			if len(at) != 1 || at[0] != i || w[0] != 1 {
				t.Errorf("on step %d of %v: %v %v", i, steps, at, w)
			}
		}
		most := min(3, len(steps)-1)
		for u := 0.03; u < 1; u += 0.11 {
			x := steps[0] + u*(steps[len(steps)-1]-steps[0])
			at, w := Between(steps, x)
			for power := 0; power <= most; power++ {
				got := 0.0
				for n, k := range at {
					got += w[n] * math.Pow(math.Log(steps[k]), float64(power))
				}
				if want := math.Pow(math.Log(x), float64(power)); math.Abs(got-want) > 1e-9*(1+math.Abs(want)) {
					t.Errorf("at %.3f of %v the log to the power %d is %v, not %v", x, steps, power, got, want)
				}
			}
			// The steps on either side count for most, or what is read off the
			// others would be blown up.
			for n, k := range at {
				next := k > 0 && steps[k-1] < x && x < steps[k] || k < len(steps)-1 && steps[k] < x && x < steps[k+1]
				if !next && math.Abs(w[n]) > 0.5 {
					t.Errorf("at %.3f of %v the step %.2f counts %v", x, steps, steps[k], w[n])
				}
			}
		}
	}
}
