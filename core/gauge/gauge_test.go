package gauge_test

import (
	"fmt"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/gauge"
)

var fob = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}

func TestPriorIsThePublishedOne(t *testing.T) {
	if g := gauge.Prior(fob); g.Median != 1.06 || math.Abs(g.Sigma-math.Sqrt(0.06*0.06+0.12*0.12)) > 1e-12 {
		t.Errorf("by the label alone the prior is %+v", g)
	}
	weighed := fob
	weighed.GramsPerMetre = 6.8
	if g := gauge.Prior(weighed); math.Abs(g.Sigma-0.1) > 1e-12 {
		t.Errorf("by weight it is %+v", g)
	}
}

// Parts that are measured with a ruler carry millimetres, not a share; knotwork
// carries a share; together they add as squares.
func TestSpreadsAdd(t *testing.T) {
	g := gauge.Prior(fob)
	if got := g.Spread(0, 4); got != 6 {
		t.Errorf("four rulered parts spread %v mm, want 6", got)
	}
	if a, b := g.Spread(500, 0), g.Spread(1000, 0); math.Abs(b-2*a) > 1e-9 {
		t.Errorf("twice the knotwork spreads %v, once %v", b, a)
	}
	if got, want := g.Spread(400, 9), math.Hypot(g.Spread(400, 0), g.Spread(0, 9)); math.Abs(got-want) > 1e-9 {
		t.Errorf("together %v, want %v", got, want)
	}
}

func TestAllowanceGrowsWithDoubt(t *testing.T) {
	sure, unsure := gauge.Looseness{Median: 1.06, Sigma: 0.03}, gauge.Looseness{Median: 1.06, Sigma: 0.15}
	if a, b := sure.Enough(1000, 2), unsure.Enough(1000, 2); a >= b || a < gauge.OneInForty*0.03*1000 {
		t.Errorf("a sure hand is allowed %v mm, an unsure one %v", a, b)
	}
	if got := unsure.Enough(0, 0); got != 0 {
		t.Errorf("nothing to tie is allowed %v mm", got)
	}
}

func ExamplePrior() {
	g := gauge.Prior(fob)
	fmt.Printf("a metre of knotwork: %.0f mm of spread, %.0f mm allowed\n", g.Spread(1000, 0), g.Enough(1000, 0))
	// Output: a metre of knotwork: 134 mm of spread, 301 mm allowed
}
