package plan_test

import (
	"slices"
	"testing"

	"nimblebight/core/plan"
)

// A stage is done once it has what it needs, and open again when a warning of its
// own stands.
func TestStagesAreDone(t *testing.T) {
	whole := on(2, "mount A B, square-knot 8, finish dome")
	whole.Purpose.LengthMM = make1(t, whole, plan.Options{}).LengthMM
	all := []plan.Stage{plan.AtPurpose, plan.AtStuff, plan.AtCut, plan.AtTie, plan.AtFinish}
	if got := make1(t, whole, plan.Options{}).Done; !slices.Equal(got, all) {
		t.Fatalf("of a whole piece %v are done", got)
	}
	for _, c := range []struct {
		line  string
		cords int
		mm    float64
		open  plan.Stage
	}{
		{"mount A B, square-knot 8, finish dome", 2, 0, plan.AtPurpose},
		{"mount A B, square-knot 8, finish dome", 3, whole.Purpose.LengthMM, plan.AtStuff},
		{"mount A B, square-knot 8, finish dome", 2, 2 * whole.Purpose.LengthMM, plan.AtTie},
		{"mount A B, square-knot 8", 2, whole.Purpose.LengthMM, plan.AtFinish},
	} {
		d := on(c.cords, c.line)
		d.Purpose.LengthMM = c.mm
		want := slices.DeleteFunc(slices.Clone(all), func(s plan.Stage) bool { return s == c.open })
		if got := make1(t, d, plan.Options{}).Done; !slices.Equal(got, want) {
			t.Errorf("%s, %d cords, %.0f mm wanted: %v are done, want %v", c.line, c.cords, c.mm, got, want)
		}
	}
	short := whole
	short.Cords = slices.Clone(whole.Cords)
	short.Cords[0].Legs.FirstMM = 60
	if got := make1(t, short, plan.Options{}).Done; slices.Contains(got, plan.AtCut) {
		t.Errorf("with a leg of 60 mm %v are done", got)
	}
}
