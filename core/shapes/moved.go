package shapes

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Moved says how far shapes moved from what they were: the farthest node,
// and the pitch.
func Moved(was, now map[string]Shape) string {
	far, pitch, other := 0.0, 0.0, len(was) == 0
	for name, s := range now {
		o, ok := was[name]
		if !ok || len(o.Strands) != len(s.Strands) {
			other = true
			continue
		}
		pitch = math.Max(pitch, math.Abs(s.Pitch-o.Pitch))
		for i, pts := range s.Strands {
			if len(pts) != len(o.Strands[i]) {
				other = true
				continue
			}
			for k, v := range pts {
				far = math.Max(far, r3.Norm(r3.Sub(v, o.Strands[i][k])))
			}
		}
	}
	if other {
		return "new"
	}
	return fmt.Sprintf("moved %.4f of a diameter, pitch by %.4f", far, pitch)
}
