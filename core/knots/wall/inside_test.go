package wall_test

import (
	"fmt"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/wall"

	"gonum.org/v1/gonum/spatial/r3"
)

// A wall with a crown that ends it is held with its ends hanging till the move that leads each
// inside; then it is as it is tied.
func TestEndsHangTillTheyAreLedInside(t *testing.T) {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	d := stuff.DrawnUp()
	for _, crown := range []wall.Crown{wall.Over, wall.Followed} {
		for _, n := range []int{3, 4, 6} {
			name := fmt.Sprintf("crown=%s on %d", crown, n)
			w := knot.Work{Section: knot.Section{Do: "wall", Count: 1, Settings: wall.Settings{Passes: 1, Crown: crown}}}
			for i := range n {
				w.Strands = append(w.Strands, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: float64(i) * d}, Dir: r3.Vec{Y: 1}})
			}
			tied, err := knot.Tie(w)
			if err != nil {
				t.Fatal(err)
			}
			first := len(tied.Moves) - n
			for action := first - 1; action < len(tied.Moves); action++ {
				held, ok, err := knot.Hold(w, action, 1)
				if err != nil || !ok {
					t.Fatalf("%s: move %d is not held: %v", name, action+1, err)
				}
				inside := map[int]bool{}
				for _, m := range tied.Moves[first : action+1] {
					inside[m.Strand] = true
				}
				for i, p := range held.Paths {
					end := p.Points[len(p.Points)-1]
					lower := 0
					for _, v := range p.Points[:len(p.Points)-1] {
						if v.Y > end.Y+0.1*d {
							lower++
						}
					}
					if hangs := lower == 0; hangs == inside[i] {
						t.Errorf("%s, move %d: strand %d hangs %v, is led inside %v", name, action+1, i+1, hangs, inside[i])
					}
					for j, q := range held.Paths[:i] {
						if g := 1 + curve.Gap(curve.Curve{Points: p.Points}, d, curve.Curve{Points: q.Points}, d)/d; g < 0.9 {
							t.Errorf("%s, move %d: strands %d and %d are %.2f diameters apart", name, action+1, j+1, i+1, g)
						}
					}
				}
				if done := action == len(tied.Moves)-1; held.Ends != done {
					t.Errorf("%s, move %d: its strands end: %v", name, action+1, held.Ends)
				}
			}
		}
	}
}
