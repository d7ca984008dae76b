package plan_test

import (
	"fmt"
	"slices"
	"testing"

	"nimblebight/core/plan"
)

// In whatever order the ends are finished, the same ends get the same finish and
// the cords the same length.
func TestEndsAreFinishedInAnyOrder(t *testing.T) {
	want := make1(t, on(2, "mount A B, square-knot 4, finish singe-and-press"), plan.Options{})
	for _, order := range [][]int{{1, 2, 3, 4}, {4, 3, 2, 1}, {2, 4, 1, 3}, {3, 1, 4, 2}} {
		hang := []int{1, 2, 3, 4}
		line := "mount A B, square-knot 4"
		for _, end := range order { // an end that hangs is typed by where it hangs
			at := slices.Index(hang, end)
			line += fmt.Sprintf(", finish singe-and-press ends=%d", at+1)
			hang = slices.Delete(hang, at, at+1)
		}
		p := make1(t, on(2, line), plan.Options{})
		if codes(p) != codes(want) {
			t.Errorf("%v: warnings %s, all at once %s", order, codes(p), codes(want))
		}
		for i, c := range p.Cords {
			near(t, fmt.Sprint(line, ": cord ", c.ID), c.NeedsMM, want.Cords[i].NeedsMM, 1e-6)
		}
	}
}
