package ring

import (
	"fmt"

	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// Longer says how much more cord a strand takes that is followed round, both measured on
// drawn-up strands, diameters of d mm: what they take beyond the straight.
func Longer(once, followed []r3.Vec, d float64) string {
	a, b := knot.BeyondStraight(once), knot.BeyondStraight(followed)
	return fmt.Sprintf("Once round a strand takes {%.0fmm} in it; the second round, outside, takes {%.0fmm}.", d*a, d*(b-a))
}
