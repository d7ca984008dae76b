package ring

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Longer says how much longer the second round of a strand is than the first, measured on
// it between places that lie over one another: from so many degrees on to so many, and
// again so much farther on. Degrees are counted from where it stands at first.
func Longer(pts []r3.Vec, from, to, on float64) string {
	more := 100 * (length(pts, from+on, to+on)/length(pts, from, to) - 1)
	switch {
	case more >= 1:
		return fmt.Sprintf("The second round takes %.0f %% more cord than the first.", more)
	case more <= -1:
		return fmt.Sprintf("The second round takes %.0f %% less cord than the first.", -more)
	}
	return "The second round takes as much cord as the first."
}

// length is that of the part of a line between two turns round the axis, degrees from
// where it begins, anticlockwise.
func length(pts []r3.Vec, from, to float64) float64 {
	at, sum := 0.0, 0.0
	for i := 1; i < len(pts); i++ {
		a, b := pts[i-1], pts[i]
		step := math.Atan2(a.X*b.Z-a.Z*b.X, a.X*b.X+a.Z*b.Z) * 180 / math.Pi
		if at >= from && at < to {
			sum += r3.Norm(r3.Sub(b, a))
		}
		at += step
	}
	return sum
}
