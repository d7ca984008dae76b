package crown

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// colours says how the colours of a crown sinnet come to stand all round it, read off
// where each strand's bar lies in each crown; nothing where all are alike.
func colours(strands []knot.Strand, lines [][]r3.Vec, as []int, count int, square bool) []string {
	if count < 2 {
		return nil
	}
	colour := func(i int) string { return strands[as[i]].Stuff.Colour }
	n := len(lines)
	alike := true
	for i := range n {
		alike = alike && colour(i) == colour(0)
	}
	if alike {
		return nil
	}
	// bar is how far round the middle of a strand's bar lies in crown k: it lies across in
	// the first two thirds of its way, and goes down in the last.
	bar := func(i, k int) float64 {
		v := lines[i][k*crownNodes+1+crownNodes/3]
		return math.Atan2(v.Z, v.X)
	}
	at := func(round float64, k int) int { // the strand whose bar lies nearest to a side
		return slices.MinFunc(knot.Identity(n), func(a, b int) int {
			return cmp.Compare(math.Abs(math.Remainder(bar(a, k)-round, 2*math.Pi)), math.Abs(math.Remainder(bar(b, k)-round, 2*math.Pi)))
		})
	}
	if square {
		for i := range n {
			for k := range count {
				if colour(at(bar(i, 0), k)) != colour(i) {
					return []string{"Every side shows two colours by turns, crown by crown; mounted in another order each side is of one."}
				}
			}
		}
		return []string{"The colours stand in columns: every side is of one colour."}
	}
	// By how far a colour moves from crown to crown, where it comes again all round after
	// so many places.
	order := knot.Identity(n)
	slices.SortFunc(order, func(a, b int) int { return cmp.Compare(bar(a, 0), bar(b, 0)) })
	period := n
	for p := n - 1; p > 0; p-- {
		same := n%p == 0
		for i := range n {
			same = same && colour(order[i]) == colour(order[(i+p)%n])
		}
		if same {
			period = p
		}
	}
	moves := math.Abs(math.Remainder(bar(0, 1)-bar(0, 0), 2*math.Pi*float64(period)/float64(n)))
	const winds = 0.3 // of the way to where the colour comes again: farther, and the eye loses it
	if step := 2 * math.Pi * float64(period) / float64(n); moves > winds*step {
		return []string{fmt.Sprintf("The colours make a broken check: each moves %.0f degrees round from crown to crown.", moves*180/math.Pi)}
	}
	return []string{fmt.Sprintf("The colours wind about it as stripes, once round in %.0f crowns.", 2*math.Pi/moves)}
}
