package diamond

import (
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

func diamondsOf(t *testing.T, n, count int, set Settings) knot.Tied {
	t.Helper()
	w := knot.Work{Section: knot.Section{Do: "diamond", Count: count, Settings: set}}
	for i := range n {
		w.Strands = append(w.Strands, knot.Strand{Cord: i, Diameter: 3, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 3}, Figures: cord.Figures{DrawnUpMM: 3, LabelMM: 3, Squeeze: 1}})
	}
	x, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	return x
}

// Of six strands three are hitched over the first filler and two over the second; each
// tip is joined by one hitch more, which the next diamond begins with. The fillers change
// places at every tip but the first, whose change the apex has made good.
func TestHitchesOfDiamonds(t *testing.T) {
	for _, c := range []struct {
		n, count int
		close    Close
		order    []int
	}{
		{6, 1, "join", []int{0, 1, 2, 3, 4, 5}}, {6, 2, "join", []int{0, 1, 3, 2, 4, 5}}, {6, 3, "join", []int{0, 1, 2, 3, 4, 5}}, {4, 2, "join", []int{0, 2, 1, 3}},
		{8, 1, "join", []int{0, 1, 2, 3, 4, 5, 6, 7}}, {6, 1, "end", []int{0, 1, 3, 2, 4, 5}}, {6, 2, "end", []int{0, 1, 2, 3, 4, 5}},
		{6, 1, "end-doubled", []int{2, 1, 5, 0, 4, 3}},
	} {
		x := diamondsOf(t, c.n, c.count, Settings{Close: c.close})
		hitches := 0
		for _, m := range x.Moves {
			if len(m.Passes) == 4 {
				hitches++
			}
		}
		m := c.n/2 - 1
		want := 1 + c.count*(4*m+1)
		switch c.close {
		case "end":
			want--
		case "end-doubled": // over each filler one of each side and the one that came from the join; one joins the two
			want += 2*m + 1
		}
		if hitches != want {
			t.Errorf("%d of %d strands, %s: %d hitches, want %d", c.count, c.n, c.close, hitches, want)
		}
		if !slices.Equal(x.Order, c.order) {
			t.Errorf("%d of %d strands, %s: they hang as %v, want %v", c.count, c.n, c.close, x.Order, c.order)
		}
	}
}

// From the right corner of one diamond to the left corner of the next the filler is one
// straight line, and so the rib on it is unbroken.
func TestARibGoesOnThroughTheTip(t *testing.T) {
	x := diamondsOf(t, 6, 2, Settings{Close: "join"})
	tip := x.Cells[1]
	filler := x.Paths[2].Points // hitched at the first apex, it comes back from the right
	var on []r3.Vec
	for _, v := range filler {
		if math.Abs(v.Y-tip) < 9 {
			on = append(on, v)
		}
	}
	a, b := on[0], on[len(on)-1]
	if a.X < 6 || b.X > -6 {
		t.Fatalf("it crosses the tip from x %.1f to %.1f", a.X, b.X)
	}
	for _, v := range on {
		if off := math.Abs((b.X-a.X)*(v.Y-a.Y)-(b.Y-a.Y)*(v.X-a.X)) / math.Hypot(b.X-a.X, b.Y-a.Y); off > 1 {
			t.Errorf("at x %.1f, y %.1f it lies %.2f mm off its line", v.X, v.Y, off)
		}
	}
}

// A square knot stands clear of the ribs: no part of it comes nearer to a filler than the
// cord that is hitched round that and its own half, two diameters.
func TestASquareKnotStandsClear(t *testing.T) {
	x := diamondsOf(t, 6, 1, Settings{Inside: "square-knot", Close: "join"})
	mid := 0.0 // where the fillers are farthest out
	for i, far := 0, 0.0; i < len(x.Paths[3].Points); i++ {
		if v := x.Paths[3].Points[i]; v.X < far {
			far, mid = v.X, v.Y
		}
	}
	nearest := math.Inf(1) // of the knot, which is 17 mm wide and 12 high
	for _, i := range []int{0, 1, 4, 5} {
		for _, v := range x.Paths[i].Points {
			if math.Abs(v.Y-mid) > 6 || math.Abs(v.X) > 8.5 {
				continue
			}
			for _, f := range []int{2, 3} {
				for _, u := range x.Paths[f].Points {
					nearest = math.Min(nearest, r3.Norm(r3.Sub(u, v)))
				}
			}
		}
	}
	if nearest < 2*3 {
		t.Errorf("it comes within %.1f mm of a filler of 3 mm", nearest)
	}
}

// Left open, both halves of a tip end at one height; the words say so.
func TestHalvesOfAnOpenTipAreLevel(t *testing.T) {
	x := diamondsOf(t, 6, 1, Settings{Close: "end"})
	low := func(i int) float64 { // where it lies over its last filler, nearest to the eye
		y, z := 0.0, math.Inf(-1)
		for _, v := range x.Paths[i].Points {
			if v.Y > x.Height/2 && v.Z > z {
				y, z = v.Y, v.Z
			}
		}
		return y
	}
	for _, pair := range [][2]int{{0, 5}, {1, 4}} {
		if a, b := low(pair[0]), low(pair[1]); math.Abs(a-b) > 0.3 {
			t.Errorf("strands %d and %d are hitched at %.1f and %.1f mm", pair[0]+1, pair[1]+1, a, b)
		}
	}
	if last := x.Moves[len(x.Moves)-1].Gate; !strings.Contains(last, "one height") {
		t.Errorf("the last gate is %q", last)
	}
}
