package ring

import (
	"cmp"
	"math"
	"slices"

	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// Clockwise are the strands of a ring of n by their places: clockwise as one sees them
// who looks at the working end, from the back on. So those in front are counted from the
// left, and strands of a flat piece that close to a ring behind keep their order.
//
// Law: a ring and its mirror count the same strands in opposite orders.
func Clockwise(n int, at func(i int) r3.Vec) []int {
	order := knot.Identity(n)
	slices.SortStableFunc(order, func(i, j int) int { return cmp.Compare(fromBack(at(i)), fromBack(at(j))) })
	return order
}

// fromBack is how far round a place is, radians from 0 at the back to 2 pi: over the left
// to the front, and on over the right.
func fromBack(v r3.Vec) float64 {
	return math.Mod(3*math.Pi/2-math.Atan2(v.Z, v.X), 2*math.Pi)
}
