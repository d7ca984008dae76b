package mount

import (
	"errors"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
)

func cords(n int, d float64) []knot.Strand {
	var out []knot.Strand
	for i := range n {
		for leg := range 2 {
			out = append(out, knot.Strand{Cord: i, Leg: leg, Diameter: d, Stuff: cord.Stuff{Make: "leather", Material: "leather", DiameterMM: d}, Figures: cord.Figures{DrawnUpMM: d, LabelMM: d, Squeeze: 1}})
		}
	}
	return out
}

func put(t *testing.T, w knot.Work, set Settings) knot.Tied {
	t.Helper()
	w.Section = knot.Section{Do: "mount", Settings: set}
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	return tied
}

// Cords that give nothing pass a hole as circles pass a circle: by the best known
// packings for two to eight of them, and by no less.
func TestCordsPassAHoleAsCirclesDo(t *testing.T) {
	const d = 2.5
	for n, known := range map[int]float64{1: 1, 2: 2, 3: 2.155, 4: 2.414, 5: 2.7014, 6: 3, 7: 3, 8: 3.3048} {
		work := knot.Work{Own: cords(n, d), BarMM: 4, DeepMM: 10, HoleMM: known * d * 1.0001}
		if tied := put(t, work, Settings{Hitch: ThroughHole}); !strings.Contains(tied.Checks[0], "bare ends") {
			t.Errorf("%d cords in a hole that they just fill: %s", n, tied.Checks[0])
		}
		work.HoleMM = known * d * 0.999
		work.Section = knot.Section{Do: "mount", Settings: Settings{Hitch: ThroughHole}}
		_, err := knot.Tie(work)
		var r *knot.Refused
		if !errors.As(err, &r) || r.Set == nil {
			t.Errorf("%d cords pass a hole narrower than any packing of them: %v", n, err)
		}
	}
}

// What gives may be squeezed behind a point, and a wound end needs more room.
func TestEndsPassPointedBareAndTaped(t *testing.T) {
	work := knot.Work{Own: cords(2, 4), BarMM: 4, DeepMM: 10}
	for i := range work.Own {
		work.Own[i].Figures.Give = 0.2
	}
	for hole, says := range map[float64]string{6.5: "fused to one point", 7.3: "lacing needle", 8.1: "bare ends", 8.7: "taped ends"} {
		work.HoleMM = hole
		for i := range work.Own { // a lace does not melt
			work.Own[i].Stuff.Material = "nylon"
			if hole == 7.3 {
				work.Own[i].Stuff.Material = "leather"
			}
		}
		if tied := put(t, work, Settings{Hitch: ThroughHole}); !strings.Contains(tied.Checks[0], says) {
			t.Errorf("through %g mm: %s", hole, tied.Checks[0])
		}
	}
}

// The bend behind the hole is cord: round both corners of the edge and across it, as
// arcs and straights come to.
func TestTheBendInAHoleIsCounted(t *testing.T) {
	const d, rim, deep = 3.0, 4.0, 12.0
	w := knot.Work{Own: cords(1, d), BarMM: rim, DeepMM: deep, HoleMM: 8}
	tied := put(t, w, Settings{Hitch: ThroughHole})
	var over float64
	for _, p := range tied.Own {
		for i := 1; i < len(p.Points); i++ {
			if a, b := p.Points[i-1], p.Points[i]; b.Y <= rim/2+1e-9 && math.Abs(b.X) < 1e-9 {
				over += math.Hypot(b.Y-a.Y, b.Z-a.Z)
			}
		}
	}
	if want := deep + math.Pi*d/2 + 2*rim; math.Abs(over-want) > 0.002*want {
		t.Errorf("%.2f mm of cord bend over the edge, arcs and straights come to %.2f", over, want)
	}
	for _, p := range tied.Own {
		for _, v := range p.Points { // nothing runs through the wood
			if in := math.Abs(v.Z) < deep/2+d/2-0.01 && math.Abs(v.Y) < rim/2; in {
				t.Errorf("the cord runs through the edge at %v", v)
			}
		}
	}
}

// A kept loop measures inside what was asked for, free, on a ring and in a hole; one
// that is shorter than its bend is refused with the least.
func TestAKeptLoopMeasuresInside(t *testing.T) {
	for name, w := range map[string]knot.Work{
		"free": {}, "ring": {BarMM: 2, RingMM: 13, HoleMM: 24}, "hole": {BarMM: 4, DeepMM: 10, HoleMM: 6},
	} {
		w.Own = cords(1, 3)
		tied := put(t, w, Settings{Hitch: KeptLoop, LoopMM: 55})
		top := math.Inf(1)
		for _, p := range tied.Own {
			for _, v := range p.Points {
				top = math.Min(top, v.Y)
			}
		}
		if inside := tied.Height - (top + 1.5); math.Abs(inside-55) > 0.15 {
			t.Errorf("%s: a loop of 55 mm measures %.2f inside", name, inside)
		}
		w.Section = knot.Section{Do: "mount", Settings: Settings{Hitch: KeptLoop, LoopMM: 3}}
		_, err := knot.Tie(w)
		var r *knot.Refused
		if !errors.As(err, &r) || r.Field != "loop_mm" || r.Set.(float64) <= 3 {
			t.Errorf("%s: a loop of 3 mm: %v", name, err)
		}
	}
}
