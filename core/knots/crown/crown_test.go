package crown

import (
	"cmp"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
)

// Sinnets of three to six strands stand as high and take the cord that others measured;
// laid round each crown turns as far.
func TestCrownsAgainstOthersFigures(t *testing.T) {
	for _, c := range []struct {
		n                int
		square           bool
		pitch, turn, use float64
	}{
		{3, false, 1.87, 65.5, 6.08}, {4, false, 1.79, 36.3, 6.05}, {5, false, 1.80, 30.5, 6.03}, {6, false, 1.81, 26.3, 6.04},
		{3, true, 2.02, 0, 6.26}, {4, true, 2.02, 0, 6.26}, {5, true, 2.02, 0, 6.27}, {6, true, 2.02, 0, 6.26},
	} {
		s, err := family.Shape(name(c.n, c.square), nil)
		if err != nil {
			t.Fatal(err)
		}
		if math.Abs(s.Pitch-c.pitch) > 0.02*c.pitch {
			t.Errorf("%s: %.3f high, others measured %.2f", name(c.n, c.square), s.Pitch, c.pitch)
		}
		step := 2 * math.Pi / float64(c.n)
		if off := math.Remainder(s.Twist-c.turn*math.Pi/180, step); math.Abs(off) > 0.1 {
			t.Errorf("%s: turned by %.1f degrees, others measured %.1f", name(c.n, c.square), s.Twist*180/math.Pi, c.turn)
		}
		// A strand takes what its line is long, and the step to where the next begins.
		next, _ := goesOn(c.n, c.square)
		for _, pts := range s.Lay(s.Cell(c.square), next, 21) {
			long := func(k int) float64 { return curve.Curve{Points: pts[:k*len(pts)/21]}.Length() }
			if got := (long(21) - long(1)) / 20; math.Abs(got-c.use) > 0.02*c.use {
				t.Errorf("%s: a strand takes %.3f a crown, others measured %.2f", name(c.n, c.square), got, c.use)
			}
		}
	}
}

// A crown of any number of strands is laid and handed on, each strand worked once a
// crown: over the one before, the last under the first too.
func TestEveryStrandIsLaidOver(t *testing.T) {
	for n := least; n <= most; n++ {
		for _, lay := range []Lay{Square, Round} {
			w := knot.Work{Section: knot.Section{Do: "crown", Count: 4, Settings: Settings{Lay: lay}}}
			for i := range n {
				w.Strands = append(w.Strands, knot.Strand{Cord: i, Diameter: 3, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 3}, Figures: cord.Figures{DrawnUpMM: 3, LabelMM: 3, Squeeze: 1}})
			}
			x, err := knot.Tie(w)
			if err != nil {
				t.Fatal(err)
			}
			if x.Gap < 0.97 {
				t.Errorf("%d strands, %s: gap %.3f", n, lay, x.Gap)
			}
			worked := map[int]int{}
			for k, m := range x.Moves {
				worked[m.Strand]++
				if last := (k+1)%n == 0; last != (len(m.Passes) == 2) {
					t.Errorf("%d strands, %s: move %d passes %+v", n, lay, k+1, m.Passes)
				}
			}
			if len(worked) != n || len(x.Order) != n {
				t.Errorf("%d strands, %s: worked %v, handed on %v", n, lay, worked, x.Order)
			}
		}
	}
	two := knot.Work{Section: knot.Section{Do: "crown", Settings: Settings{}}, Strands: make([]knot.Strand, 2)}
	if _, err := knot.Tie(two); err == nil {
		t.Error("two strands are crowned")
	}
}

// Which start gives which colours all round: laid square, columns; laid round, stripes
// where the colours come crosswise, once round in ten crowns, and a broken check where they
// come in pairs, moving 144 degrees a crown, as others found.
func TestWhichStartGivesWhichColours(t *testing.T) {
	for _, c := range []struct {
		colours string // by place round the axis
		lay     Lay
		says    string
	}{
		{"abab", Square, "columns"}, {"aabb", Square, "columns"}, {"abab", Round, "once round in 10 crowns"}, {"aabb", Round, "144 degrees"}, {"aaaa", Round, ""},
	} {
		w := knot.Work{Section: knot.Section{Do: "crown", Count: 6, Settings: Settings{Lay: c.lay}}}
		for range 4 {
			w.Strands = append(w.Strands, knot.Strand{Diameter: 3, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 3}})
		}
		// Places are counted from the left; round the axis they come in another order.
		x, err := lay(w, c.lay)
		if err != nil {
			t.Fatal(err)
		}
		about := knot.Identity(4)
		slices.SortFunc(about, func(a, b int) int {
			at := func(i int) float64 { v := x.Paths[i].Points[1]; return math.Atan2(v.Z, v.X) }
			return cmp.Compare(at(a), at(b))
		})
		for k, place := range about {
			w.Strands[place].Stuff.Colour = c.colours[k : k+1]
		}
		if x, err = lay(w, c.lay); err != nil {
			t.Fatal(err)
		}
		says := strings.Join(x.Checks, " ")
		if !strings.Contains(says, c.says) || (c.says == "") != (says == "") {
			t.Errorf("%s laid %s: %q, want %q", c.colours, c.lay, says, c.says)
		}
	}
}
