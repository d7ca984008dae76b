package loose_test

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/loose"
	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

// flat are the strands of a cover or a ball as they lie when it is opened.
func flat(t *testing.T, id string) (curves []curve.Curve, f loosen.Film) {
	t.Helper()
	k, _ := knot.Get(id)
	strands, o, ok := loose.Opened(k)
	if !ok {
		t.Fatalf("%s is not opened", id)
	}
	f = o.Film(strands, 9)
	for _, pts := range loosen.Seen(f.Frames[0], o.Across) {
		curves = append(curves, curve.Curve{Points: pts})
	}
	return curves, f
}

// Facts of knot tables: a Turk's head of three leads and four bights is the alternating knot
// 8_18, of eight crossings and determinant 45. A napkin ring is tied so, and so is a flat mat.
func TestATurksHeadIsOpenedToItsDiagram(t *testing.T) {
	for _, id := range []string{"turks-head", "rope-ball", "flat-mat"} {
		cs, _ := flat(t, id)
		if len(cs) != 1 {
			t.Fatalf("%s is of %d strands", id, len(cs))
		}
		found, err := curve.Crossings([]curve.Curve{{Points: cs[0].Points, Closed: true}})
		if err != nil {
			t.Fatal(err)
		}
		if got := curve.Determinant(found, 1); len(found) != 8 || got != 45 {
			t.Errorf("%s has %d crossings and determinant %d", id, len(found), got)
		}
		over := map[float64]bool{}
		var at []float64
		for _, c := range found {
			over[c.OverAt], over[c.UnderAt] = true, false
			at = append(at, c.OverAt, c.UnderAt)
		}
		for _, a := range at {
			next := math.Inf(1)
			for _, b := range at {
				if b > a {
					next = math.Min(next, b)
				}
			}
			if !math.IsInf(next, 1) && over[a] == over[next] {
				t.Errorf("%s passes alike at %.1f and %.1f", id, a, next)
			}
		}
	}
}

// On each of the six faces of a ball of two passes a band crosses another four times, but for
// where bands begin and end: that is some 24. What crosses when it is opened lies together on it.
func TestAFistIsOpened(t *testing.T) {
	cs, f := flat(t, "monkeys-fist")
	found, err := curve.Crossings(cs)
	if err != nil || len(found) < 20 || len(found) > 28 {
		t.Errorf("it has %d crossings: %v", len(found), err)
	}
	tight := f.Frames[len(f.Frames)-1]
	for _, c := range found {
		place := func(at float64) r3.Vec {
			i := int(at)
			return curve.Lerp(tight[0][i], tight[0][i+1], at-float64(i))
		}
		if d := r3.Norm(r3.Sub(place(c.OverAt), place(c.UnderAt))); d > 2.2 {
			t.Errorf("what crosses when it is opened is %.1f diameters apart on the ball", d)
		}
	}
}

// While what lies round something is opened nothing comes nearer to anything than it lay, and
// the knot stays what it is.
func TestNothingComesNearerWhileItIsOpened(t *testing.T) {
	opened := 0
	for _, k := range knot.All() {
		strands, o, ok := loose.Opened(k)
		if !ok {
			continue
		}
		opened++
		f := o.Film(strands, 9)
		last := len(f.Frames) - 1
		tight := f.Gap(last)
		for i := range last {
			if g := f.Gap(i); g < tight-0.01 {
				t.Errorf("%s: in frame %d strands are %.2f diameters apart, closed %.2f", k.ID, i, g, tight)
			}
			if f.Length(i) <= f.Length(i+1) {
				t.Errorf("%s: frame %d is no longer than the next", k.ID, i)
			}
		}
	}
	if opened != 6 {
		t.Errorf("%d knots are opened: Turk's head, herringbone collar, fist, rope ball, mat and what is put on a wire are six", opened)
	}
}
