package inspect_test

import (
	"fmt"
	"strings"
	"testing"

	"nimblebight/core/inspect"
	"nimblebight/core/plan"
)

// At a place in a row the slips are those of that place: none looks like the work that is
// right, each says the way back in moves, and before the first knot there are none.
func TestSlipsAtAPlace(t *testing.T) {
	d, p, _ := of(t, "mount A B, square-knot 8, finish singe-and-press", "A", "B")
	if got := inspect.At(d, p, plan.Options{}, 2); len(got) != 0 {
		t.Errorf("before the first knot: %+v", got)
	}
	const done = 2 + 4*4
	right, err := plan.Make(d, plan.Options{Until: done, Along: 1})
	if err != nil {
		t.Fatal(err)
	}
	seen := func(q plan.Plan) string {
		out := ""
		for _, s := range q.Layout().Strands {
			for _, v := range s.Points {
				out += fmt.Sprintf("%.1f %.1f %.1f ", v.X, v.Y, v.Z)
			}
		}
		return out
	}
	slips := inspect.At(d, p, plan.Options{}, done)
	if len(slips) != 3 {
		t.Fatalf("%d slips", len(slips))
	}
	for _, s := range slips {
		if seen(s.Plan) == seen(right) {
			t.Errorf("%q looks like what is right", s.Says)
		}
		if s.Back == "" {
			t.Errorf("%q has no way back", s.Says)
		}
	}
	if s := slips[0]; !strings.Contains(s.Says, "begun right, and not left") || !strings.Contains(s.Back, "Go 4 moves back: pull the end of cord") || !strings.Contains(s.Back, "Then begin left") {
		t.Errorf("%+v", s.Back)
	}
	if !strings.Contains(slips[1].Says, "spiral") || !strings.Contains(slips[2].Says, "Half a knot more") || !strings.Contains(slips[2].Back, "Go 2 moves back") {
		t.Errorf("%q, %q", slips[1].Says, slips[2].Says)
	}
}
