package knot

import "nimblebight/core/memo"

// orders are those of knots in a row: every plan asks for them.
var orders = memo.Cache[[]int]{Most: 1 << 20}

// OrderAfter is the order in which the strands hang after so many repeats of a knot that was tied:
// a row of half knots turns, and a crown leaves strands elsewhere. It is nil where so many cannot
// be tied.
func OrderAfter(w Work, t Tied, repeats int) []int {
	if repeats <= 0 {
		return Identity(len(w.Strands))
	}
	w.Section.Count = max(1, t.PerRound) * repeats
	if t.HalfKnots {
		w.HalfKnots = repeats * len(t.Moves) / 2
	}
	after, _ := orders.Get(w.key(), func() ([]int, error) {
		t, err := Tie(w)
		return t.Order, err
	})
	return after
}
