package ringin

import (
	"errors"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
)

func through(n int, d float64, set Settings) (knot.Tied, error) {
	var ls []knot.Strand
	for i := range n {
		ls = append(ls, knot.Strand{Cord: i, Diameter: d, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: d}, Figures: cord.Figures{DrawnUpMM: d, LabelMM: d, Squeeze: 1}})
	}
	return knot.Tie(knot.Work{Section: knot.Section{Do: "ring-in", Settings: set}, Strands: ls})
}

// Every strand passes before the ring's upper wire and behind its lower one, and runs
// through neither.
func TestStrandsPassTheRing(t *testing.T) {
	const d, inner, wire = 3.0, 20.0, 2.0
	tied, err := through(4, d, Settings{InnerMM: inner, WireMM: wire})
	if err != nil {
		t.Fatal(err)
	}
	ring := tied.Beads[0]
	r := (inner + wire) / 2
	for i, p := range tied.Paths {
		var over, under bool
		for _, v := range p.Points {
			out := math.Hypot(v.X-ring.At.X, v.Y-ring.At.Y) - r
			if near := math.Hypot(out, v.Z) / ((d + wire) / 2); near < 0.95 {
				t.Errorf("strand %d comes within %.2f of touching the wire at %v", i+1, near, v)
			}
			if math.Abs(out) < 0.4 {
				over = over || v.Y < ring.At.Y && v.Z > 0
				under = under || v.Y > ring.At.Y && v.Z < 0
			}
		}
		if !over || !under {
			t.Errorf("strand %d: before the upper wire %v, behind the lower one %v", i+1, over, under)
		}
	}
}

// A ring that the strands do not lie in side by side is refused with the least that
// holds them.
func TestANarrowRingIsRefused(t *testing.T) {
	_, err := through(6, 3, Settings{InnerMM: 12, WireMM: 2})
	var r *knot.Refused
	if !errors.As(err, &r) || r.Field != "inner_mm" {
		t.Fatalf("six strands of 3 mm in a ring of 12: %v", err)
	}
	if _, err := through(6, 3, Settings{InnerMM: r.Set.(float64), WireMM: 2}); err != nil {
		t.Errorf("in the ring that is offered: %v", err)
	}
}
