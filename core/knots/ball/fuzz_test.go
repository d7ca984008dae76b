package ball

import (
	"math"
	"testing"
)

// Whatever is asked of a ball, there is one whose figures are numbers, or words
// why not.
func FuzzBall(f *testing.F) {
	f.Add(4.0, 0.2, 3, "one-cord", "marble", 16.0, false)
	f.Add(2.2, 0.0, 8, "doubled", "wood", 0.0, true)
	f.Add(math.Inf(1), math.NaN(), -1, "", "", -1.0, false)
	f.Fuzz(func(t *testing.T, mm, give float64, passes int, mode, kind string, core float64, tail bool) {
		a := Ask{Cord: Cord{DiameterMM: mm, CoverMM: mm, Give: give, GramsPerMetre: 5}, Passes: passes, Mode: Mode(mode), Tail: tail, Core: Core{Kind: Kind(kind), DiameterMM: core}}
		b, err := Make(a)
		if err != nil {
			if err.Error() == "" {
				t.Fatal("refused without a word")
			}
			return
		}
		for _, v := range []float64{b.CordMM, b.FaceMM, b.CornerMM, b.WeightG} {
			if math.IsNaN(v) || math.IsInf(v, 0) || v < 0 {
				t.Fatalf("%+v gives %v", a, v)
			}
		}
	})
}
