package knot_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

var lace = cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 3, Colour: "#7a4a2b"}

// outOf is the work of a typed ball in a stuff.
func outOf(t *testing.T, passes int, mode, begins string, s cord.Stuff) knot.Work {
	t.Helper()
	q := one(t, "monkeys-fist %d mode=%s begins=%s", passes, mode, begins)
	w := knot.Work{Section: q, BarMM: 2}
	cords, legs := legsOf(q)
	for c := range cords {
		for l := range legs {
			w.Own = append(w.Own, knot.Strand{Cord: c, Leg: l, Stuff: s, Figures: s.Figures(), Diameter: s.DrawnUp(), Dir: r3.Vec{Y: 1}})
		}
	}
	return w
}

// The vise goes band by band, turn by turn, to a gate of six faces, then twice
// round with the slack.
func TestABallIsTiedBandByBand(t *testing.T) {
	for _, c := range []struct {
		mode, begins string
		passes, out  int
	}{{"one-cord", "hidden", 3, 1}, {"one-cord", "with-tail", 4, 2}, {"two-cords", "hidden", 4, 2}, {"doubled", "hidden", 8, 4}} {
		x := tie(t, outOf(t, c.passes, c.mode, c.begins, rope))
		if len(x.Own) != c.out || len(x.Order) != c.out {
			t.Errorf("%s %s: %d strands leave, wanted %d", c.mode, c.begins, len(x.Order), c.out)
		}
		turns := c.passes
		if c.mode == "doubled" {
			turns /= 2
		}
		count := map[string]int{}
		last := 0
		for _, a := range x.Moves {
			var band, k int
			if n, _ := fmt.Sscanf(a.Text, "Band %d,", &band); n == 1 {
				count["band"]++
				if band < last {
					t.Errorf("%s: band %d comes after band %d", c.mode, band, last)
				}
				last = band
			}
			if n, _ := fmt.Sscanf(a.Text, "Round %d,", &k); n == 1 {
				count[fmt.Sprint("round ", k)]++
			}
			if strings.Contains(a.Gate, fmt.Sprintf("%d parallel turns on each of six faces", c.passes)) {
				count["gates"]++
			}
			for _, word := range []string{"fingers out", "core in", "stopper"} {
				if strings.Contains(a.Text, word) {
					count[word]++
				}
			}
		}
		inside := "core in"
		if c.mode == "two-cords" {
			inside = "stopper"
		}
		if count["band"] != 3*turns || count["round 1"] != 3*turns || count["round 2"] != 3*turns || count["gates"] != 2 || count["fingers out"] != 1 || count[inside] == 0 {
			t.Errorf("%s %s: %v", c.mode, c.begins, count)
		}
		over := strings.Join(texts(x), " ")
		for _, word := range []string{"across the first band and over it", "inside the first band and over the second"} {
			if !strings.Contains(over, word) {
				t.Errorf("%s: nothing says %q", c.mode, word)
			}
		}
	}
}

// Two cords on a core that is no stopper are joined without one, and the core
// is put in.
func TestTwoCordsOnAWoodenCore(t *testing.T) {
	w := outOf(t, 4, "two-cords", "hidden", rope)
	w.Section = one(t, "monkeys-fist 4 mode=two-cords core=wood")
	x := tie(t, w)
	all := strings.Join(texts(x), " ")
	if strings.Contains(all, "stopper") || strings.Count(all, "Put the core in: wooden ball") != 1 || x.Core.WeightG <= 0 {
		t.Errorf("%s", all)
	}
	if y := tie(t, outOf(t, 4, "two-cords", "hidden", rope)); y.Core.WeightG != 0 {
		t.Error("a stopper is weighed besides its cords")
	}
}

func texts(x knot.Tied) []string {
	var out []string
	for _, a := range x.Moves {
		out = append(out, a.Text+" "+a.Detail)
	}
	return out
}

func TestLeatherKeepsItsGoodSideOut(t *testing.T) {
	if all := strings.Join(texts(tie(t, outOf(t, 4, "one-cord", "hidden", lace))), " "); strings.Count(all, "good side out") != 3 {
		t.Errorf("%d bands keep the good side out", strings.Count(all, "good side out"))
	}
	if all := strings.Join(texts(tie(t, outOf(t, 4, "one-cord", "hidden", rope))), " "); strings.Contains(all, "good side") {
		t.Error("cord has no good side")
	}
}

// In hand a ball grows turn by turn and is then drawn up smaller.
func TestABallGrowsAndIsDrawnUp(t *testing.T) {
	w := outOf(t, 3, "one-cord", "hidden", rope)
	whole := tie(t, w)
	length, width := 0.0, math.Inf(1)
	for k, a := range whole.Moves {
		held, ok, err := knot.Hold(w, k, 1)
		if err != nil || !ok {
			t.Fatal(k, ok, err)
		}
		l := held.Own[0].Length()
		_, left, right := held.Own[0].Extent()
		if strings.HasPrefix(a.Text, "Round") {
			if right-left >= width+1e-9 {
				t.Errorf("%s: it is %.2f mm wide, before %.2f", a.Text, right-left, width)
			}
			width = right - left
		} else if strings.HasPrefix(a.Text, "Band") && l <= length {
			t.Errorf("%s: %.1f mm are wound, before %.1f", a.Text, l, length)
		}
		length = l
	}
	last, _, err := knot.Hold(w, len(whole.Moves)-1, 1)
	if err != nil || math.Abs(last.Own[0].Length()-whole.Own[0].Length()) > 1e-6 {
		t.Errorf("drawn up it takes %.3f mm, planned %.3f (%v)", last.Own[0].Length(), whole.Own[0].Length(), err)
	}
}

// A coil is a helix of a turn's pitch round the standing part, and a turn more
// takes just that.
func TestCoilLoop(t *testing.T) {
	d := lace.DrawnUp()
	coil := func(turns int) knot.Tied {
		return tie(t, knot.Work{Section: one(t, "coil-loop %d", turns), Strands: side(1, lace), BarMM: 2})
	}
	six, seven := coil(6), coil(7)
	turn := math.Hypot(2*math.Pi*d, d) + d // and as much more of the standing part
	if got := use(seven.Paths[0]) - use(six.Paths[0]); math.Abs(got-turn) > 0.02*turn {
		t.Errorf("a turn takes %.2f mm, by its helix %.2f", got, turn)
	}
	if six.Eye <= 0 || six.Eye >= six.Height || seven.Height <= six.Height {
		t.Errorf("the eye is at %.1f of %.1f mm", six.Eye, six.Height)
	}
	refused(t, knot.Work{Section: one(t, "coil-loop 6"), Strands: side(2, lace), BarMM: 2}, "takes the one")
}

// Two ends are fused, face to face, and no other number.
func TestFusedLoop(t *testing.T) {
	x := tie(t, knot.Work{Section: one(t, "finish fuse length=60mm"), Strands: side(2, rope), BarMM: 2})
	var tips [2]r3.Vec
	for i, p := range x.Paths {
		tips[i] = p.Points[len(p.Points)-1]
	}
	if math.Abs(tips[0].X-tips[1].X) > 1e-6 || math.Abs(tips[0].Y-tips[1].Y) > 1e-6 || x.Eye <= 0 || x.Eye >= 60 {
		t.Errorf("the ends lie at %v, the ring at %.1f", tips, x.Eye)
	}
	refused(t, knot.Work{Section: one(t, "finish fuse"), Strands: side(3, rope), BarMM: 2}, "joins 2")
}

func refused(t *testing.T, w knot.Work, words string) {
	t.Helper()
	if _, err := knot.Tie(w); err == nil || !strings.Contains(err.Error(), words) {
		t.Errorf("%s on %d strands: %v", w.Section.Do, len(w.Strands), err)
	}
}
