package knot

// OrderAfter is the order in which the strands of a knot hang after so many of its repeats; nil
// where nothing tells it.
func (t Tied) OrderAfter(repeats int) []int {
	each := max(1, t.PerRound)
	if t.HalfKnots {
		each = len(t.Moves) / 2
	}
	if n := repeats * each; n > 0 && n <= len(t.Orders) {
		return t.Orders[n-1]
	}
	return nil
}
