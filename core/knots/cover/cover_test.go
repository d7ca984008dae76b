package cover_test

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knots/cover"

	"gonum.org/v1/gonum/spatial/r3"
)

func on(t *testing.T, w cover.Weave, mandrel float64) cover.Cover {
	t.Helper()
	c, err := w.On(mandrel)
	if err != nil {
		t.Fatal(err)
	}
	return c
}

var herringbone = []bool{false, false, true, true, false, false, true, true}

// long is a long Turk's head of two bights.
func long(leads, passes int) cover.Weave {
	return cover.Weave{Leads: leads, Bights: 2, Passes: passes}
}

// What others drew up from another start: cord a pass, height and width, diameters.
func TestCoversComeUpAsPublished(t *testing.T) {
	for _, p := range []struct {
		w                           cover.Weave
		mandrel, cord, high, across float64
	}{
		{long(5, 1), 2, 62.7, 5.4, 6}, {long(7, 1), 2, 89.2, 7.4, 6}, {long(9, 1), 2, 115.8, 9.4, 6},
		{long(5, 2), 2, 69.7, 8.9, 6.05}, {long(7, 2), 2, 99.6, 12.1, 6.05}, {long(7, 2), 3, 117.8, 12.1, 7},
		{cover.Weave{Leads: 9, Bights: 4, Passes: 1, Columns: herringbone}, 2.7, 145.8, 7.8, 6.8},
	} {
		c := on(t, p.w, p.mandrel)
		for _, f := range []struct {
			what      string
			got, want float64
		}{{"cord a pass", c.Pass, p.cord}, {"high", c.High, p.high}, {"across", c.Across, p.across}, {"inside", c.Inside, p.mandrel}} {
			if math.Abs(f.got/f.want-1) > 0.02 {
				t.Errorf("%s on %g: %s %.2f, want %.2f", p.w, p.mandrel, f.what, f.got, f.want)
			}
		}
	}
}

// A Turk's head alternates everywhere and has its published determinant; the herringbone
// has its own.
func TestCoversAreTheirKnots(t *testing.T) {
	for _, p := range []struct {
		w           cover.Weave
		mandrel     float64
		determinant int
	}{
		{cover.Weave{Leads: 3, Bights: 2, Passes: 1}, 2, 5}, {cover.Weave{Leads: 3, Bights: 3, Passes: 1}, 2, 16}, {cover.Weave{Leads: 3, Bights: 4, Passes: 1}, 3, 45},
		{cover.Weave{Leads: 3, Bights: 5, Passes: 1}, 4, 121}, {cover.Weave{Leads: 5, Bights: 2, Passes: 1}, 2, 29}, {cover.Weave{Leads: 7, Bights: 2, Passes: 1}, 2, 169},
		{cover.Weave{Leads: 4, Bights: 3, Passes: 1}, 3, 75}, {cover.Weave{Leads: 5, Bights: 3, Passes: 1}, 3, 361}, {cover.Weave{Leads: 4, Bights: 5, Passes: 1}, 4, 1805},
		{cover.Weave{Leads: 9, Bights: 4, Passes: 1, Columns: herringbone}, 2.7, 67337},
	} {
		t.Run(p.w.String(), func(t *testing.T) {
			c := on(t, p.w, p.mandrel)
			found, err := c.Crossings()
			if err != nil {
				t.Fatal(err)
			}
			if got := curve.Determinant(found, len(c.Tracks)); got != p.determinant {
				t.Errorf("determinant %d, want %d", got, p.determinant)
			}
			if p.w.Columns == nil && !alternates(found) {
				t.Error("it does not alternate")
			}
		})
	}
}

// One pass, before the weave rises and falls, is what unrolling its cylinder gives.
func TestAPassIsWhatUnrollingGives(t *testing.T) {
	for _, w := range []cover.Weave{{Leads: 3, Bights: 4, Passes: 1}, {Leads: 3, Bights: 5, Passes: 1}, {Leads: 5, Bights: 4, Passes: 1}, {Leads: 7, Bights: 2, Passes: 1}, {Leads: 4, Bights: 7, Passes: 1}} {
		for _, mandrel := range []float64{3, 5, 8} {
			c := on(t, w, mandrel)
			radius := 0.0
			for _, v := range c.Tracks[0] {
				radius += cover.Axial(v) / float64(len(c.Tracks[0]))
			}
			level := curve.Curve{Points: c.Tracks[0], Closed: true}.Map(func(v r3.Vec) r3.Vec {
				k := radius / cover.Axial(v)
				return r3.Vec{X: k * v.X, Y: v.Y, Z: k * v.Z}
			})
			want := 2 * float64(w.Bights) * math.Hypot(math.Pi*radius*float64(w.Leads)/float64(w.Bights), c.High-1)
			if got := level.Length(); math.Abs(got/want-1) > 0.08 {
				t.Errorf("%s on %g: a pass takes %.1f, unrolled %.1f", w, mandrel, got, want)
			}
		}
	}
}

// The strands of a cover are as many as leads and bights have their greatest divisor, and
// each is as long as its passes, but for where it changes them.
func TestStrandsAreWhatTheDivisorSays(t *testing.T) {
	for _, w := range []cover.Weave{{Leads: 3, Bights: 3, Passes: 1}, {Leads: 4, Bights: 6, Passes: 2}, {Leads: 3, Bights: 4, Passes: 3}, {Leads: 5, Bights: 2, Passes: 2}} {
		c := on(t, w, 5)
		lines, tuck := c.Strands()
		want := map[string]int{"3 leads by 3 bights in 1": 3, "4 leads by 6 bights in 2": 2}[w.String()]
		if want == 0 {
			want = 1
		}
		if len(lines) != want || w.Bands() != want {
			t.Errorf("%s: %d strands, %d bands, want %d", w, len(lines), w.Bands(), want)
		}
		for _, line := range lines {
			got, all := curve.Curve{Points: line}.Length(), c.Pass*float64(w.Passes)
			if got > 1.04*all || got < all-tuck {
				t.Errorf("%s: a strand of %.1f for passes of %.1f", w, got, all)
			}
			if gap := curve.SelfGap(curve.Curve{Points: line[4:]}, 1); gap < -0.09 {
				t.Errorf("%s: a strand comes within %.2f of itself", w, 1+gap)
			}
		}
	}
}

// What is drawn while a maker waits is what a finer drawing gives.
func TestACoverIsFineEnough(t *testing.T) {
	if testing.Short() {
		t.Skip("draws covers up finely")
	}
	for _, p := range []struct {
		w       cover.Weave
		mandrel float64
	}{{cover.Weave{Leads: 3, Bights: 4, Passes: 1}, 4}, {cover.Weave{Leads: 5, Bights: 2, Passes: 2}, 2}, {cover.Weave{Leads: 4, Bights: 5, Passes: 3}, 8}} {
		quick := on(t, p.w, p.mandrel)
		fine, err := p.w.Fine(p.mandrel)
		if err != nil {
			t.Fatal(err)
		}
		if math.Abs(quick.Pass/fine.Pass-1) > 0.01 || math.Abs(quick.High/fine.High-1) > 0.03 || quick.Gap < 0.99 {
			t.Errorf("%s: a pass %.2f and %.2f high at a gap of %.3f, finely %.2f and %.2f", p.w, quick.Pass, quick.High, quick.Gap, fine.Pass, fine.High)
		}
	}
}

func BenchmarkCover(b *testing.B) {
	for i := range b.N {
		w := cover.Weave{Leads: 7, Bights: 12, Passes: 3}
		if _, err := w.On(25 + 0.01*float64(i)); err != nil { // new each time
			b.Fatal(err)
		}
	}
}

func ExampleWeave_Bands() {
	fmt.Println(cover.Weave{Leads: 3, Bights: 4}.Bands(), cover.Weave{Leads: 4, Bights: 6}.Bands())
	// Output: 1 2
}

// alternates tells whether every curve goes over and under by turns.
func alternates(found []curve.Crossing) bool {
	type meet struct {
		at   float64
		over bool
	}
	by := map[int][]meet{}
	for _, x := range found {
		by[x.Over] = append(by[x.Over], meet{x.OverAt, true})
		by[x.Under] = append(by[x.Under], meet{x.UnderAt, false})
	}
	for _, ms := range by {
		slices.SortFunc(ms, func(a, b meet) int { return cmp.Compare(a.at, b.at) })
		for i, m := range ms {
			if m.over == ms[(i+1)%len(ms)].over {
				return false
			}
		}
	}
	return true
}
