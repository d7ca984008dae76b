package gauge

import "math"

// rooted are the factors of a covariance, a row for each of its errors, so that rows
// times rows give it again: at most so many, the largest first.
func rooted(cov [][]float64, most int) [][]float64 {
	n := len(cov)
	left := make([]float64, n)
	total := 0.0
	for i := range cov {
		left[i] = cov[i][i]
		total += left[i]
	}
	out := make([][]float64, n)
	for f := 0; f < most; f++ {
		p := 0
		for i := range left {
			if left[i] > left[p] {
				p = i
			}
		}
		if n == 0 || left[p] <= 1e-6*total/float64(n) {
			break
		}
		d := math.Sqrt(left[p])
		col := make([]float64, n)
		for i := range col {
			s := cov[i][p]
			for k := range f {
				s -= out[i][k] * out[p][k]
			}
			col[i] = s / d
		}
		col[p] = d
		for i := range col {
			out[i] = append(out[i], col[i])
			left[i] = math.Max(0, left[i]-col[i]*col[i])
		}
		left[p] = 0
	}
	return out
}
