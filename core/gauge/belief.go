package gauge

// belief is a mean and a covariance of errors that are normal together.
type belief struct {
	mean []float64
	cov  [][]float64
}

// at is how much of an error a reading holds.
type at struct {
	i  int
	of float64
}

func newBelief(variances []float64) *belief {
	b := &belief{mean: make([]float64, len(variances)), cov: make([][]float64, len(variances))}
	for i, v := range variances {
		b.cov[i] = make([]float64, len(variances))
		b.cov[i][i] = v
	}
	return b
}

func (b *belief) clone() *belief {
	out := newBelief(make([]float64, len(b.mean)))
	copy(out.mean, b.mean)
	for i := range b.cov {
		copy(out.cov[i], b.cov[i])
	}
	return out
}

// forget takes an error for one that nothing is known of but its variance.
func (b *belief) forget(i int, variance float64) {
	b.mean[i] = 0
	for k := range b.cov {
		b.cov[i][k], b.cov[k][i] = 0, 0
	}
	b.cov[i][i] = variance
}

// given is the conjugate update by a reading that is a sum of errors, with a variance
// of its own.
func (b *belief) given(row []at, reading, variance float64) {
	gain := make([]float64, len(b.mean))
	s, off := variance, reading
	for _, a := range row {
		for k := range gain {
			gain[k] += b.cov[k][a.i] * a.of
		}
		off -= a.of * b.mean[a.i]
	}
	for _, a := range row {
		s += a.of * gain[a.i]
	}
	if s <= 0 {
		return // there is nothing left to learn of it
	}
	for k, g := range gain {
		if g == 0 {
			continue
		}
		b.mean[k] += g * off / s
		f, cov := g/s, b.cov[k]
		for j, h := range gain {
			cov[j] -= f * h
		}
	}
}

// over is the mean and the variance of a sum of errors.
func (b *belief) over(row []at) (mean, variance float64) {
	for _, p := range row {
		mean += p.of * b.mean[p.i]
		for _, q := range row {
			variance += p.of * q.of * b.cov[p.i][q.i]
		}
	}
	return mean, variance
}
