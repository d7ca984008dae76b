package braid_test

import (
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/braid"

	"gonum.org/v1/gonum/spatial/r3"
)

// work is one exchange of both pairs, on four strands alike.
func work(start knot.Side) knot.Work {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	d := stuff.DrawnUp()
	w := knot.Work{Section: knot.Section{Do: "round-braid", Count: 1, Settings: braid.Settings{Start: start}}}
	for i := range 4 {
		w.Strands = append(w.Strands, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: (float64(i) - 1.5) * d}, Dir: r3.Vec{Y: 1}})
	}
	return w
}

// seen are strands as one sees them who looks at the working end, in diameters d.
func seen(paths []knot.Path, d float64) []curve.Curve {
	var out []curve.Curve
	for _, p := range paths {
		out = append(out, curve.Curve{Points: p.Points}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(1/d, curve.EndOn(v)) }))
	}
	return out
}

// flat is a place in the picture.
func flat(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: v.Y} }

// Each pair goes half a turn the way that its move says, as one sees it who looks at the working
// end, and the moves name its two strands, which stand opposite each other.
func TestPairsTurnTheirOwnWay(t *testing.T) {
	for _, start := range []knot.Side{knot.Right, knot.Left} {
		w := work(start)
		x, err := knot.Tie(w)
		if err != nil {
			t.Fatal(err)
		}
		d := w.Strands[0].Diameter
		lines := seen(x.Paths, d)
		told := map[int]bool{}
		for k, m := range x.Moves {
			for _, s := range append([]int{m.Strand}, m.With...) {
				told[s] = true
				turned := 0.0
				at := lines[s].Points
				for i := 1; i < len(at); i++ {
					turned += math.Remainder(math.Atan2(at[i].Y, at[i].X)-math.Atan2(at[i-1].Y, at[i-1].X), 2*math.Pi)
				}
				want := math.Pi // y goes down
				if m.Turn == string(knot.Anticlockwise) {
					want = -want
				}
				if math.Abs(turned-want) > 0.5 {
					t.Errorf("start %s, move %d: strand %d goes %.2f round; %s it would go %.2f", start, k+1, s+1, turned, m.Turn, want)
				}
			}
			if n := math.Abs(float64(m.Strand - m.With[0])); n != 2 {
				t.Errorf("start %s, move %d: strands %d and %d stand %v places apart", start, k+1, m.Strand+1, m.With[0]+1, n)
			}
		}
		if len(told) != 4 {
			t.Errorf("start %s: %d strands are led", start, len(told))
		}
	}
}

// Both pairs pass between the other two, and in hand nothing comes near to anything: what waits
// stands where hands hold it.
func TestStrandsAreHeldApartWhileOthersPass(t *testing.T) {
	w := work(knot.Right)
	d := w.Strands[0].Diameter
	x, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	for action, m := range x.Moves {
		waits := x.Moves[1-action]
		for _, along := range []float64{0.2, 0.4, knot.Led} {
			held, ok, err := knot.Hold(w, action, along)
			if err != nil || !ok {
				t.Fatalf("move %d is not held: %v", action+1, err)
			}
			lines := seen(held.Paths, d)
			for i, a := range lines {
				for j, b := range lines[:i] {
					if g := 1 + curve.Gap(a, 1, b, 1); g < 0.9 {
						t.Errorf("move %d at %.1f: strands %d and %d are %.2f diameters apart", action+1, along, j+1, i+1, g)
					}
				}
			}
			if along < knot.Led {
				continue
			}
			// Those that are led cross the straight line between those that are not.
			end := func(s int) r3.Vec { p := lines[s].Points; return flat(p[len(p)-1]) }
			a, b := end(waits.Strand), end(waits.With[0])
			for _, s := range append([]int{m.Strand}, m.With...) {
				crossed := 0
				for i := 1; i < len(lines[s].Points); i++ {
					p, q := flat(lines[s].Points[i-1]), flat(lines[s].Points[i])
					side := func(v r3.Vec) float64 { return (b.X-a.X)*(v.Y-a.Y) - (b.Y-a.Y)*(v.X-a.X) }
					u := side(p) / (side(p) - side(q))
					v := curve.Lerp(p, q, u)
					if side(p)*side(q) < 0 && r3.Dot(r3.Sub(v, a), r3.Sub(v, b)) < 0 {
						crossed++
					}
				}
				if crossed != 1 {
					t.Errorf("move %d: strand %d passes %d times between the two that wait", action+1, s+1, crossed)
				}
			}
		}
	}
}
