package mount

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// Cords are put on one after the other: what waits is not there, what is on stays where it lies,
// and at the end all lie as they are tied.
func TestCordsArePutOnOneAfterTheOther(t *testing.T) {
	for _, line := range []Hitch{LarksHead, LarksHeadReversed, ThroughHole, SingleEnd} {
		w := knot.Work{Section: Of(line), Own: cords(3, 3), BarMM: 2, RingMM: 20}
		if line == SingleEnd {
			w.Own = []knot.Strand{w.Own[0], w.Own[2], w.Own[4]}
		}
		tied, err := knot.Tie(w)
		if err != nil {
			t.Fatal(err)
		}
		legs := len(w.Own) / 3
		for action := range tied.Moves {
			for _, along := range []float64{0.01, 0.3, knot.Led, 0.8, 1} {
				held, ok, err := knot.Hold(w, action, along)
				if err != nil || !ok {
					t.Fatalf("%s, cord %d at %.2f: %v, %v", line, action+1, along, ok, err)
				}
				for k, p := range held.Own {
					cord := k / legs
					switch {
					case cord > action && len(p.Points) > 0:
						t.Errorf("%s, cord %d at %.2f: cord %d is on already", line, action+1, along, cord+1)
					case cord < action || cord == action && along == 1:
						if d := far(p.Points, tied.Own[k].Points); d > 1e-9 {
							t.Errorf("%s, cord %d at %.2f: cord %d lies %g mm off", line, action+1, along, cord+1, d)
						}
					}
				}
			}
		}
	}
}

// A lark's head that stands open lies off the wire and off the one beside it, and crosses itself
// just as the one that is drawn up.
func TestAnOpenLarksHeadIsTheSame(t *testing.T) {
	w := knot.Work{Section: Of(LarksHead), Own: cords(2, 3), BarMM: 2}
	d := w.Own[0].Diameter
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	whole := func(p []knot.Path) curve.Curve {
		var pts []r3.Vec
		for i := len(p[0].Points) - 1; i > 0; i-- {
			pts = append(pts, p[0].Points[i])
		}
		return curve.Curve{Points: append(pts, p[1].Points...)}
	}
	want, err := curve.Crossings([]curve.Curve{whole(tied.Own[2:])})
	if err != nil {
		t.Fatal(err)
	}
	for _, along := range []float64{knot.Led, 0.7, 0.8, 0.9} {
		held, _, err := knot.Hold(w, 1, along)
		if err != nil {
			t.Fatal(err)
		}
		cord := whole(held.Own[2:])
		found, err := curve.Crossings([]curve.Curve{cord})
		if err != nil || len(found) != len(want) || len(want) == 0 {
			t.Errorf("at %.2f it crosses itself %d times, drawn up %d: %v", along, len(found), len(want), err)
		}
		for _, v := range cord.Points {
			if off := math.Hypot(v.Y, v.Z); off < (w.BarMM+d)/2-0.05*d {
				t.Errorf("at %.2f it lies %.2f mm from the middle of a wire of %.1f mm", along, off, w.BarMM)
				break
			}
		}
		if g := curve.Gap(cord, d, whole(held.Own[:2]), d); g < -0.05*d {
			t.Errorf("at %.2f it comes to %.2f mm of the one beside it", along, g)
		}
	}
}

// far is how far points lie from others, at most.
func far(a, b []r3.Vec) float64 {
	if len(a) != len(b) {
		return math.Inf(1)
	}
	most := 0.0
	for i := range a {
		most = math.Max(most, r3.Norm(r3.Sub(a[i], b[i])))
	}
	return most
}
