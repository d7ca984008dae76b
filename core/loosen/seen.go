package loosen

import (
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Hung are strands that are seen end on, as they hang.
func Hung(frame [][]r3.Vec) [][]r3.Vec { return mapped(frame, curve.Hung) }

// Aside are the nodes of a strand that is seen end on between where it stands and where it
// hangs: there it is seen as a dot.
func Aside(pts []r3.Vec) (from, to int) {
	const dot = 0.3 // diameters
	aside := func(v, w r3.Vec) bool { return math.Hypot(v.X-w.X, v.Y-w.Y) > dot }
	from, to = 0, len(pts)
	for from < len(pts)-3 && !aside(pts[from+1], pts[0]) {
		from++
	}
	for to > from+3 && !aside(pts[to-2], pts[len(pts)-1]) {
		to--
	}
	return from, to
}

// Seen are strands as they are looked at: from the face, or end on.
func Seen(frame [][]r3.Vec, across bool) [][]r3.Vec {
	if !across {
		return frame
	}
	return mapped(frame, curve.EndOn)
}

func mapped(frame [][]r3.Vec, by func(r3.Vec) r3.Vec) [][]r3.Vec {
	out := make([][]r3.Vec, len(frame))
	for i, pts := range frame {
		out[i] = curve.Curve{Points: pts}.Map(by).Points
	}
	return out
}
