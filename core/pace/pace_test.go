package pace_test

import (
	"math"
	"testing"

	"nimblebight/core/pace"
	"nimblebight/core/plan"
)

func planned() plan.Plan {
	return plan.Plan{Actions: 14, Steps: []plan.Step{
		{Section: 0, Do: "mount", Repeats: 2, Actions: make([]plan.Action, 1)},
		{Section: 1, Do: "square-knot", Repeats: 3, Actions: make([]plan.Action, 4)},
	}, Sections: []plan.Section{{Index: 0, Do: "mount"}, {Index: 1, Do: "square-knot", Count: 3}}}
}

// Every second of the steps is worked or paused, once.
func TestNoTimeIsLost(t *testing.T) {
	steps := []pace.Taken{{From: 0, To: 1, AfterS: 10}, {From: 1, To: 6, AfterS: 50}, {From: 6, To: 5, AfterS: 4}, {From: 5, To: 6, AfterS: 7000}, {From: 6, To: 14, AfterS: 80}, {From: 14, To: 14, AfterS: 3}}
	spells := pace.Spells(planned(), steps)
	var worked, paused, moves, all float64
	pauses := 0
	for _, s := range spells {
		worked += s.WorkedS
		paused += s.PausedS
		moves += float64(s.Moves)
		pauses += s.Pauses
	}
	for _, s := range steps {
		all += s.AfterS
	}
	if math.Abs(worked+paused-all) > 1e-9 || paused != 7000 || pauses != 1 || moves != 14 {
		t.Errorf("%v s worked, %v s in %d pauses, %v moves of %v s", worked, paused, pauses, moves, all)
	}
	if len(spells) != 2 || spells[0].WorkedS != 20 || math.Abs(spells[1].Knots-3) > 1e-9 {
		t.Errorf("the mount took 10 s for its first cord and a fifth of 50 s for its second, and three knots were tied: %+v", spells)
	}
	if got := pace.Since(5, steps); got != 83 {
		t.Errorf("since the pause 83 s were worked, not %v", got)
	}
}

// One who is twice as fast needs half as long; nothing is left of what is done.
func TestWhatIsLeft(t *testing.T) {
	p := planned()
	left := func(s float64, done int) float64 {
		got, ok := pace.Left(p, done, pace.Paces(pace.Spells(p, []pace.Taken{{From: 0, To: 2, AfterS: 4 * s}, {From: 2, To: 14, AfterS: 12 * s}})))
		if !ok {
			t.Fatal("a whole piece tells a pace")
		}
		return got
	}
	if a, b := left(10, 0), left(5, 0); a <= 0 || math.Abs(a-2*b) > 1e-9 {
		t.Errorf("half the pace takes %v s, the whole %v", a, b)
	}
	if a, b := left(10, 6), left(10, 14); math.Abs(a-80) > 1e-9 || b != 0 {
		t.Errorf("two knots of eight moves are 80 s, not %v; after the last %v are left", a, b)
	}
	if _, ok := pace.Left(p, 0, pace.Paces(pace.Spells(p, []pace.Taken{{From: 0, To: 1, AfterS: 9}}))); ok {
		t.Error("one move tells a pace")
	}
}

// A place beyond the end and a piece without steps do no harm.
func TestStepsThatCannotBe(t *testing.T) {
	if got := pace.Spells(planned(), []pace.Taken{{From: 3, To: 900, AfterS: 5}, {From: -4, To: 1, AfterS: 5}}); len(got) != 2 || got[0].Moves+got[1].Moves != 12 {
		t.Errorf("got %+v", got)
	}
	if got := pace.Spells(plan.Plan{}, []pace.Taken{{From: 0, To: 2, AfterS: 5}}); len(got) != 1 || got[0].Moves != 0 || got[0].WorkedS != 5 {
		t.Errorf("a piece without steps: %+v", got)
	}
}
