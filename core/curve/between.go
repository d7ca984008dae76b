package curve

import "math"

// Between finds the four steps round x (fewer where there are fewer) and their
// weights in the cubic through them (Lagrange). x on a step has that one alone.
func Between(steps []float64, x float64) (at []int, weights []float64) {
	k := 0
	for k < len(steps)-2 && steps[k+1] <= x {
		k++
	}
	for i := range steps {
		if math.Abs(steps[i]-x) < 1e-9 {
			return []int{i}, []float64{1}
		}
	}
	lo := max(0, min(k-1, len(steps)-4))
	for i := lo; i < min(lo+4, len(steps)); i++ {
		w := 1.0
		for j := lo; j < min(lo+4, len(steps)); j++ {
			if j != i {
				w *= math.Log(x/steps[j]) / math.Log(steps[i]/steps[j])
			}
		}
		at, weights = append(at, i), append(weights, w)
	}
	return at, weights
}
