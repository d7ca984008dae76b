package crown_test

import (
	"fmt"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/crown"

	"gonum.org/v1/gonum/spatial/r3"
)

// Every crown of a sinnet is laid as loose as the first: its strands reach as far from the work's
// axis, keep their distance, and drawn up they lie as the sinnet of so many crowns does.
func TestEveryCrownOfASinnetIsLaidLoose(t *testing.T) {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	d := stuff.DrawnUp()
	for _, n := range []int{3, 4, 6} {
		for _, direction := range []knot.Turn{knot.Clockwise, knot.Anticlockwise} {
			w := knot.Work{Section: knot.Section{Do: "crown", Count: 3, Settings: crown.Settings{Lay: crown.Square, Direction: direction}}}
			for i := range n {
				w.Strands = append(w.Strands, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: float64(i) * d}, Dir: r3.Vec{Y: 1}})
			}
			reach := 0.0 // of the first
			for k := range 3 {
				name := fmt.Sprintf("crown %d on %d, first %s", k+1, n, direction)
				held := func(along float64) knot.Tied {
					x, ok, err := knot.Hold(w, (k+1)*n-1, along)
					if err != nil || !ok {
						t.Fatalf("%s is not held: %v", name, err)
					}
					return x
				}
				far := 0.0
				loose := held(knot.Led)
				for i, p := range loose.Paths {
					for _, v := range p.Points {
						far = math.Max(far, math.Hypot(v.X, v.Z)/d)
					}
					for j, q := range loose.Paths[:i] {
						if g := 1 + curve.Gap(curve.Curve{Points: p.Points}, d, curve.Curve{Points: q.Points}, d)/d; g < 0.93 {
							t.Errorf("%s: loose, strands %d and %d are %.2f diameters apart", name, j+1, i+1, g)
						}
					}
				}
				if k == 0 {
					reach = far
				}
				if math.Abs(far-reach) > 0.5 || far < 3 {
					t.Errorf("%s reaches %.1f diameters out, the first %.1f", name, far, reach)
				}
				s := w
				s.Section.Count = k + 1
				tied, err := knot.Tie(s)
				if err != nil {
					t.Fatal(err)
				}
				end := held(1)
				for i, p := range tied.Paths {
					for _, v := range p.Points {
						near := math.Inf(1)
						pts := end.Paths[i].Points
						for m := 1; m < len(pts); m++ {
							off, _, _ := curve.SegmentDistance(v, v, pts[m-1], pts[m])
							near = math.Min(near, off)
						}
						if near > 0.1*d {
							t.Errorf("%s: drawn up, strand %d lies %.2f diameters off", name, i+1, near/d)
							break
						}
					}
				}
			}
		}
	}
}
