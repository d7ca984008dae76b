package pretzel

import (
	"errors"
	"math"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ringin"
	"nimblebight/core/tighten"
)

const thick = 3.0 // mm of cord

func tied(count int, set Settings) (knot.Tied, error) { return knot.Tie(work(count, set)) }

func work(count int, set Settings) knot.Work {
	w := knot.Work{Section: knot.Section{Do: "pretzel-knot", Count: count, Settings: set}}
	for i := range 2 {
		w.Strands = append(w.Strands, knot.Strand{Cord: i, Diameter: thick, Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: thick}, Figures: cord.Figures{DrawnUpMM: thick, LabelMM: thick, Squeeze: 1}})
	}
	return w
}

// While it is led and drawn up a knot stands loose about its ring: strands keep off its wire, the
// ring goes up with the knot, and at last it hangs where it does in the tied one.
func TestTheRingHangsInTheLooseKnot(t *testing.T) {
	ring := ringin.Settings{InnerMM: 20, WireMM: 2}
	w := work(1, Settings{TakeIn: Ring, Ring: &ring})
	got, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	r := (ring.InnerMM + ring.WireMM) / 2
	before := math.Inf(1)
	for action := range got.Moves {
		held, ok, err := knot.Hold(w, action, 1)
		if err != nil || !ok || len(held.Beads) != 1 {
			t.Fatalf("move %d is not held, with %d rings: %v", action+1, len(held.Beads), err)
		}
		at := held.Beads[0].At
		for place, p := range held.Paths {
			for _, v := range p.Points {
				off := math.Hypot(math.Hypot(v.X-at.X, v.Y-at.Y)-r, v.Z-at.Z)
				if near := off / ((thick + ring.WireMM) / 2); near < 0.93 { // as in films
					t.Errorf("move %d: the strand of place %d comes within %.2f of touching the ring", action+1, place+1, near)
					break
				}
			}
		}
		if at.Y > before+1e-9 || got.Moves[action].Slack && at.Y > before-0.1 {
			t.Errorf("move %d: the ring hangs at %.2f mm, before it at %.2f", action+1, at.Y, before)
		}
		before = at.Y
	}
	if off := math.Abs(before - got.Beads[0].At.Y); off > 1e-6 {
		t.Errorf("drawn up the ring hangs %.2f mm from where it does in the tied knot", off)
	}
}

// The strand that goes first runs through the ring once, the other one stays before it,
// and neither runs through its wire; left out, the ring leaves the pretzel knot.
func TestTheLastKnotTakesTheRingIn(t *testing.T) {
	for _, start := range []knot.Side{knot.Right, knot.Left} {
		for _, wire := range []float64{1, 2, 3} {
			ring := ringin.Settings{InnerMM: 20, WireMM: wire}
			got, err := tied(1, Settings{Start: start, TakeIn: Ring, Ring: &ring})
			if err != nil {
				t.Fatal(err)
			}
			at := got.Beads[0].At
			r := (ring.InnerMM + wire) / 2
			first := 1 // place of the strand that goes first
			if start == knot.Left {
				first = 0
			}
			for place, p := range got.Paths {
				net := 0
				for k := 1; k < len(p.Points); k++ {
					a, b := p.Points[k-1], p.Points[k]
					if (a.Z < at.Z) != (b.Z < at.Z) {
						v := curve.Lerp(a, b, (at.Z-a.Z)/(b.Z-a.Z))
						if math.Hypot(v.X-at.X, v.Y-at.Y) < r {
							net += int(math.Copysign(1, b.Z-a.Z))
						}
					}
				}
				if through := net != 0; through != (place == first) || net > 1 || net < -1 {
					t.Errorf("%s first, wire %g: the strand of place %d runs through the ring %d times", start, wire, place+1, net)
				}
				for _, v := range p.Points {
					off := math.Hypot(math.Hypot(v.X-at.X, v.Y-at.Y)-r, v.Z-at.Z)
					if near := off / ((thick + wire) / 2); near < 0.97 {
						t.Errorf("%s first, wire %g: the strand of place %d comes within %.2f of touching it", start, wire, place+1, near)
						break
					}
				}
			}
		}
	}
	for _, w := range wires {
		s, err := family.Shape(w.name(), nil)
		if err != nil {
			t.Fatal(err)
		}
		two := tighten.Result{Strands: []curve.Curve{{Points: s.Strands[0]}, {Points: s.Strands[1]}}}
		if _, det, err := (knot.Route{}).Told(two); err != nil || det != 3 {
			t.Errorf("%s: without its ring it has determinant %d, the pretzel 3; %v", w.name(), det, err)
		}
	}
}

// A wire that the turn does not take, a ring that the knot does not lie in and more
// than one knot about a ring are refused, with a value that will do.
func TestARingThatDoesNotFitIsRefused(t *testing.T) {
	for field, c := range map[string]struct {
		count int
		ring  ringin.Settings
	}{
		"wire_mm":  {1, ringin.Settings{InnerMM: 30, WireMM: 5}},
		"inner_mm": {1, ringin.Settings{InnerMM: 9, WireMM: 2}},
		"count":    {4, ringin.Settings{InnerMM: 20, WireMM: 2}},
	} {
		_, err := tied(c.count, Settings{TakeIn: Ring, Ring: &c.ring})
		var no *knot.Refused
		if !errors.As(err, &no) || no.Field != field && no.Field != "ring."+field {
			t.Errorf("%s: %v", field, err)
			continue
		}
		switch v := no.Set.(type) {
		case float64:
			if field == "wire_mm" {
				c.ring.WireMM = v
			} else {
				c.ring.InnerMM = v
			}
		case int:
			c.count = v
		}
		if _, err := tied(c.count, Settings{TakeIn: Ring, Ring: &c.ring}); err != nil {
			t.Errorf("%s: what is offered is refused: %v", field, err)
		}
	}
}

// At gaps each knot takes what one takes, and its gap; the ends of every one hang where
// those of the one above do.
func TestPretzelsAtGaps(t *testing.T) {
	long := func(count int, gap float64) float64 {
		got, err := tied(count, Settings{GapMM: gap})
		if err != nil {
			t.Fatal(err)
		}
		return got.Paths[0].Length()
	}
	one, gap := long(1, 0), 9.0
	two, three := long(2, gap), long(3, gap)
	if more := three - two; math.Abs(more-(two-one)) > 0.02*more {
		t.Errorf("the third takes %.2f mm, the second %.2f", more, two-one)
	}
	if least := one + gap; two-one < least-0.05*one {
		t.Errorf("the second takes %.2f mm, one of them and its gap are %.2f", two-one, least)
	}
}
