package row

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// In hand the workers keep clear of the fillers, however many there are and however
// thick: loose they stand off them, drawn up they touch.
func TestARowInHandKeepsClearOfItsFillers(t *testing.T) {
	for _, do := range []string{"square-knot", "half-knot"} {
		for _, fillers := range []int{1, 2, 4, 6, 8} {
			for _, mm := range []float64{2.2, 4, 6} {
				w := knot.Work{Section: knot.Section{Do: do, Count: 3}, Strands: strandsOf(equal(fillers, 4, mm)...)}
				d := w.Strands[0].Diameter
				for action := range 2 {
					for _, along := range []float64{0.3, 0.6, 1} {
						held, ok, err := knot.Hold(w, action, along)
						if err != nil || !ok {
							t.Fatal(ok, err)
						}
						n := len(held.Paths)
						worst := math.Inf(1)
						for _, k := range []int{0, n - 1} {
							for f := 1; f < n-1; f++ {
								reach := (d + w.Strands[f].Diameter) / 2
								// Below the knot strands only hang there.
								a, b := above(held.Paths[k].Points, held.Height), above(held.Paths[f].Points, held.Height)
								if len(a) < 2 {
									continue
								}
								worst = math.Min(worst, 1+curve.Gap(curve.Curve{Points: a}, d, curve.Curve{Points: b}, w.Strands[f].Diameter)/reach)
							}
						}
						if worst < 0.8 {
							t.Errorf("%s over %d of %g mm, move %d at %g: a worker comes within %.2f of touching a filler", do, fillers, mm, action+1, along, worst)
						}
					}
				}
			}
		}
	}
}

// above are the points of a strand up to where it hangs on below the knot.
func above(pts []r3.Vec, y float64) []r3.Vec {
	for i, v := range pts {
		if v.Y > y {
			return pts[:i]
		}
	}
	return pts
}
