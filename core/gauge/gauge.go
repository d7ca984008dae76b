// Package gauge says how far a figure may be trusted: how much looser than the
// ideal a hand ties, how widely that varies, and the length that runs short no
// more often than the maker accepts.
package gauge

import (
	"math"

	"nimblebight/core/cord"
)

// Looseness is the factor between an ideal drawn-up knot and one from the
// maker's hand. It is log-normal: Median is its middle, Sigma the standard
// deviation of its logarithm.
type Looseness struct {
	Median, Sigma float64
}

// Prior is the looseness of a knot family in a cord before anything was
// measured: the middle and the family's own spread, joined by that of the
// drawn-up diameter, which is narrower when the maker has weighed the cord.
func Prior(s cord.Stuff) Looseness {
	diameter := 0.12
	if s.Weighed() {
		diameter = 0.08
	}
	return Looseness{Median: 1.06, Sigma: math.Hypot(0.06, diameter)}
}

// RulerMM is the standard deviation of a part that is measured with a ruler.
const RulerMM = 3.0

// OneInForty is the quantile of the standard normal below which 39 of 40 lie.
const OneInForty = 1.959964

// Spread is the standard deviation, mm, of a length made of knotwork mm long
// on the median and rulered parts that are measured.
func (l Looseness) Spread(knotwork float64, rulered int) float64 {
	return math.Hypot(knotwork*l.Sigma, RulerMM*math.Sqrt(float64(rulered)))
}

// Enough is the allowance over the median, mm, so that the length runs short
// once in forty.
func (l Looseness) Enough(knotwork float64, rulered int) float64 {
	return math.Hypot(knotwork*math.Expm1(OneInForty*l.Sigma), OneInForty*RulerMM*math.Sqrt(float64(rulered)))
}
