package gather

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// In hand a wrap is what is wound of it: first the eye on the face alone, then turn by turn
// with the eye out below, and as it is tied only when it is pulled.
func TestAWrapInHand(t *testing.T) {
	const d = 3.0
	w := knot.Work{Section: knot.Section{Do: "gather", Settings: Settings{Cord: "C", Turns: 6}}, Own: []knot.Strand{{Cord: 2, Diameter: d}}}
	for i := range 4 {
		w.Strands = append(w.Strands, knot.Strand{Cord: i / 2, Leg: i % 2, Diameter: d, At: r3.Vec{X: d * (float64(i) - 1.5)}, Dir: r3.Vec{Y: 1}})
	}
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	at := func(action int, along float64) (long, back, low float64) {
		held, ok, err := knot.Hold(w, action, along)
		if err != nil || !ok {
			t.Fatalf("move %d is not held: %v", action+1, err)
		}
		for _, v := range held.Own[0].Points {
			back, low = math.Min(back, v.Z), math.Max(low, v.Y)
		}
		return curve.Curve{Points: held.Own[0].Points}.Length(), back, low
	}
	if long, back, low := at(0, 1); back < -d || low < tied.Height+eyeOut || long < 2*tied.Height {
		t.Errorf("the eye alone is %.0f mm long, goes %.1f mm behind and %.0f mm down", long, -back, low)
	}
	last, _, _ := at(0, 1)
	for _, along := range []float64{0.25, 0.5, 0.75, 1} {
		long, back, _ := at(1, along)
		if long <= last || back > -d/2 {
			t.Errorf("wound by %.2f the cord is %.0f mm long, before %.0f, and goes %.1f mm behind", along, long, last, -back)
		}
		last = long
	}
	if before, _, low := at(2, 0.3); before < last+d || low < tied.Height+eyeOut {
		t.Errorf("before it is pulled it is %.0f mm long, wound %.0f mm, and its eye is %.0f mm down", before, last, low)
	}
	// Its end goes behind one leg of the eye and comes out over the bend; then the eye goes up.
	low := math.Inf(1)
	for _, along := range []float64{throughBy, 0.5, 0.59} {
		held, _, err := knot.Hold(w, 2, along)
		if err != nil {
			t.Fatal(err)
		}
		found, err := curve.Crossings([]curve.Curve{{Points: held.Own[0].Points}})
		if err != nil {
			t.Fatal(err)
		}
		over, under, bend := 0, 0, 0.0
		for _, c := range found {
			if c.Y < tied.Height+0.3*d { // of the turns
				continue
			}
			if c.OverAt > c.UnderAt {
				over, bend = over+1, math.Max(bend, c.Y)
			} else {
				under++
			}
		}
		if over != 1 || under != 1 || bend >= low {
			t.Errorf("pulled by %.2f its end passes the eye %d times over, at %.0f mm, and %d times under", along, over, bend, under)
		}
		low = bend
		if g := 1 + curve.SelfGap(curve.Curve{Points: held.Own[0].Points}, d)/d; g < 0.8 {
			t.Errorf("pulled by %.2f it comes to %.2f diameters of itself", along, g)
		}
	}
	if long, _, _ := at(2, 1); math.Abs(long-curve.Curve{Points: tied.Own[0].Points}.Length()) > 1e-9 {
		t.Errorf("pulled it is %.1f mm long", long)
	}
}
