package plan_test

import (
	"fmt"
	"math"
	"testing"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
)

// moves calls back for each move by which a strand is led, of every section and round of a
// pattern as far as rounds look different: the plan with all of the move led.
func moves(t *testing.T, pattern string, each func(name string, a plan.Action, p plan.Plan)) {
	t.Helper()
	found := false
	for _, pt := range patterns.All() {
		if pt.ID != pattern {
			continue
		}
		found = true
		whole, err := plan.Make(pt.Document, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		done := 0
		for _, s := range whole.Steps {
			for round := range s.Repeats {
				for k, a := range s.Actions {
					done++
					if !a.Led || round > 1 {
						continue
					}
					p, err := plan.Make(pt.Document, plan.Options{Until: done})
					if err != nil {
						t.Fatal(err)
					}
					each(fmt.Sprintf("%s, section %d, round %d, move %d", pattern, s.Section+1, round+1, k+1), a, p)
				}
			}
		}
	}
	if !found {
		t.Errorf("there is no pattern %s", pattern)
	}
}

// The hand is in the middle third of the picture, which shows all that its strand crosses; and
// where a move says what is passed, that is found. For every pattern.
func TestThePictureIsTheHands(t *testing.T) {
	seen := 0
	for _, pattern := range patterns.All() {
		moves(t, pattern.ID, func(name string, a plan.Action, p plan.Plan) {
			seen++
			low, high, at, crosses := p.Look().Hand()
			if !crosses && len(a.Over)+len(a.Under) > 0 {
				t.Errorf("%s: %q crosses nothing", name, a.Text)
			}
			from, to := p.InHand()
			if share := (at - from) / (to - from); share < 1./3-0.01 || share > 2./3+0.01 {
				t.Errorf("%s: the hand is at %.2f of the picture", name, share)
			}
			// Of a knot taller than fits, the hand's part is shown.
			if tall := 2 * math.Max(at-low, high-at); tall < 40*p.Look().Thick && (low < from || high > to) {
				t.Errorf("%s: it crosses strands from %.0f to %.0f mm, and %.0f to %.0f are shown", name, low, high, from, to)
			}
		})
	}
	if seen < 300 {
		t.Errorf("only %d moves are led", seen)
	}
}

// Every led move changes what is seen: nothing is shown tied before it is, also where a round
// has several knots.
func TestNothingIsShownBeforeItIsTied(t *testing.T) {
	for _, pattern := range []string{"crown-fob", "bead-diamonds", "wrist-strap", "snake-lanyard"} {
		before, last := "", ""
		moves(t, pattern, func(name string, a plan.Action, p plan.Plan) {
			l := p.Look()
			now := ""
			from := math.Max(l.MovingFrom, -20*l.Thick) // all of a cord that is put on moves
			for _, s := range l.Near(from-l.Thick, from+40*l.Thick) {
				for _, v := range s.Points {
					now += fmt.Sprintf("%.1f %.1f %.1f ", v.X, v.Y, v.Z)
				}
			}
			if now == before {
				t.Errorf("%s shows what %s shows", name, last)
			}
			before, last = now, name
		})
	}
}
