package ropeball_test

import (
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ropeball"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

func work(side, passes int) knot.Work {
	w := knot.Work{Section: knot.Section{Do: "rope-ball", Settings: ropeball.Settings{Passes: passes, Side: side, Leads: 3, Bights: 4}}}
	stuff := piece.Kernmantle(4, piece.Lagoon)
	for i := range side {
		w.Own = append(w.Own, knot.Strand{Cord: i, Stuff: stuff, Figures: stuff.Figures(), Diameter: stuff.DrawnUp()})
	}
	return w
}

// All strands are led together: after each move more of every one lies there, none is there
// before it is led, and all of each when the last round is done. Drawn up it is the ball.
func TestStrandsAreLedTogether(t *testing.T) {
	for _, passes := range []int{1, 2} {
		w := work(3, passes)
		tied, err := knot.Tie(w)
		if err != nil {
			t.Fatal(err)
		}
		leads := 3 + passes - 1
		before := make([]float64, 3)
		for n := range tied.Moves {
			held, ok, err := knot.Hold(w, n, 1)
			if err != nil || !ok {
				t.Fatalf("move %d: %v, %v", n+1, ok, err)
			}
			for i, p := range held.Own {
				long, all := curve.Curve{Points: p.Points}.Length(), curve.Curve{Points: tied.Own[i].Points}.Length()
				switch {
				case n == 0 && long > 0.25*all:
					t.Errorf("%d rounds: before it is led, %.0f of %.0f mm of strand %d lie there", passes, long, all, i+1)
				case n > 0 && n <= leads && long <= before[i]:
					t.Errorf("%d rounds: move %d leads strand %d nowhere", passes, n+1, i+1)
				case n == leads && long < all:
					t.Errorf("%d rounds: all is led, and of strand %d there are %.0f of %.0f mm", passes, i+1, long, all)
				}
				before[i] = long
			}
		}
		held, _, err := knot.Hold(w, len(tied.Moves)-1, 1)
		if err != nil {
			t.Fatal(err)
		}
		for i, p := range held.Own {
			for k, v := range p.Points {
				if off := r3.Norm(r3.Sub(v, tied.Own[i].Points[k])); off > 1e-9 {
					t.Fatalf("%d rounds: drawn up, strand %d lies %.2f mm off", passes, i+1, off)
				}
			}
		}
	}
}
