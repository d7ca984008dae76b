package prepare_test

import (
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/prepare"
)

// What is melted is melted of what melts, and two ends only of one material; every stuff
// has a way without a flame.
func TestEndsAreMadeReadyAsTheirStuffTakesIt(t *testing.T) {
	for _, m := range cord.Materials() {
		s := cord.Stuff{Make: "solid-braid", Material: m, DiameterMM: 3}
		cold := false
		for _, w := range prepare.Ways {
			can, why := w.Takes([]cord.Stuff{s, s})
			if can == (why != "") {
				t.Errorf("%s of %s: %v, %q", w.ID, m, can, why)
			}
			if w.Flame && can != m.Melts() {
				t.Errorf("%s of %s: %v", w.ID, m, can)
			}
			cold = cold || can && !w.Flame
			if w.OffMM <= 0 || w.How == "" || len(w.Tools) == 0 {
				t.Errorf("%s says too little: %+v", w.ID, w)
			}
		}
		if !cold {
			t.Errorf("%s is only led through with a flame", m)
		}
	}
	nylon, polyester := cord.Stuff{Make: "solid-braid", Material: "nylon"}, cord.Stuff{Make: "solid-braid", Material: "polyester"}
	fused, _ := prepare.Get("fused")
	if can, _ := fused.Takes([]cord.Stuff{nylon, polyester}); can {
		t.Error("two materials are fused")
	}
	if can, _ := fused.Takes([]cord.Stuff{nylon, nylon, nylon}); can {
		t.Error("three ends are fused as two")
	}
}
