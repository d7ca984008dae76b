package plan_test

import (
	"fmt"
	"testing"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
)

// BenchmarkInHand plans a frame of a knot at the vise: a crown below a closed one, and both strands of
// a braid.
func BenchmarkInHand(b *testing.B) {
	for id, move := range map[string]int{"crown": 8, "round-braid": 5, "wall": 12} {
		d, _, err := patterns.Sample(id)
		if err != nil {
			b.Fatal(err)
		}
		b.Run(id, func(b *testing.B) {
			n := 0
			for b.Loop() {
				n++
				p, err := plan.Make(d, plan.Options{Until: move, Along: float64(n%24+1) / 25})
				if err != nil {
					b.Fatal(err)
				}
				if len(p.Look().Near(0, 1e3)) == 0 {
					b.Fatal(fmt.Sprint("nothing is there after ", move))
				}
			}
		})
	}
}
