package plan_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
)

// Before the first knot every cord that is used is cut once, to its figure, and folded once
// where it is folded; nothing is cut after a fold.
func TestEveryCordIsCutAndFoldedFirst(t *testing.T) {
	for _, p := range patterns.All() {
		pl := make1(t, p.Document, plan.Options{})
		cut, folded := map[string]int{}, map[string]int{}
		for _, a := range pl.Ready {
			if a.Table == "fold" {
				if !strings.Contains(a.Text, "{fold}") {
					t.Errorf("%s: no place of the fold in %q", p.ID, a.Text)
				}
				folded[a.Cord]++
				continue
			}
			if len(folded) > 0 {
				t.Errorf("%s: %q comes after a fold", p.ID, a.Text)
			}
			for _, c := range pl.Cords {
				if a.Cord == c.ID && strings.Contains(a.Text, fmt.Sprintf("{%.0fmm}", c.CutMM)) {
					cut[c.ID]++
				}
			}
		}
		for _, c := range pl.Cords {
			want := map[bool]int{true: 1}
			if used := c.Role != "unused"; cut[c.ID] != want[used] || folded[c.ID] != want[used && c.FoldAtMM > 0] {
				t.Errorf("%s: cord %s is cut %d times and folded %d times", p.ID, c.ID, cut[c.ID], folded[c.ID])
			}
		}
		for _, r := range pl.Prepared {
			if in := slices.ContainsFunc(pl.Ready, func(a plan.Action) bool { return a.Text == r.Way.How }); in != r.Way.Early {
				t.Errorf("%s: ends %s are made ready on the table: %v", p.ID, r.Way.Name, in)
			}
		}
	}
}

// A cord that is cut otherwise after it was cut is measured again; what was made as it is
// now is not. Once something is tied, nothing leads back to the table.
func TestACutThatChangesIsMadeAgain(t *testing.T) {
	from := planned(t, "mount A B, square-knot 10, finish dome")
	longer := planned(t, "mount A B, square-knot 14, finish dome")
	if n := len(from.Ready); n != 4 || plan.Carry(from, longer, 0) != -4 || plan.Carry(from, from, 0) != 0 {
		t.Errorf("%d moves on the table; the place is %d", n, plan.Carry(from, longer, 0))
	}
	if got := plan.Carry(from, longer, 1); got != 1 {
		t.Errorf("after the first move that ties the place is %d", got)
	}
}
