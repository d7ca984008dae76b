package plan_test

import (
	"testing"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
)

// A move that leads strands of two cords names both, and both of their strands move; one that leads
// two strands of one cord names that one.
func TestAMoveNamesTheCordsThatItLeads(t *testing.T) {
	d, section, err := patterns.Sample("round-braid")
	if err != nil {
		t.Fatal(err)
	}
	p := make1(t, d, plan.Options{})
	before := 0
	for _, s := range p.Steps {
		if s.Section != section {
			before += s.Repeats * len(s.Actions)
			continue
		}
		for k, a := range s.Actions {
			if len(a.Beside) != 1 || a.Beside[0].Cord == a.Cord || a.Beside[0].Colour == a.Colour {
				t.Errorf("move %d leads cord %s and %+v", k+1, a.Cord, a.Beside)
			}
			if a.From != "" { // they stand opposite each other
				t.Errorf("move %d comes from the %s", k+1, a.From)
			}
			if l := make1(t, d, plan.Options{Until: before + k + 1}).Look(); len(l.Moving) != 2 {
				t.Errorf("move %d: %v move", k+1, l.Moving)
			}
		}
	}
	if d, section, err = patterns.Sample("double-diamond"); err != nil {
		t.Fatal(err)
	}
	for _, s := range make1(t, d, plan.Options{}).Steps {
		for k, a := range s.Actions {
			if s.Section == section && len(a.Beside) > 0 {
				t.Errorf("move %d of a pair of one cord names %+v too", k+1, a.Beside)
			}
			if s.Section == section && k == 0 && a.From != "left" {
				t.Errorf("the pair on the left comes from the %q", a.From)
			}
		}
	}
}
