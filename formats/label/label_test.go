package label_test

import (
	"strings"
	"testing"
	"time"

	"nimblebight/core/plan"
	"nimblebight/core/units"
	"nimblebight/formats/label"
)

// However long the name and however many the cords, a label is a label; and what is cut
// stands on it, in the maker's units.
func TestALabelFits(t *testing.T) {
	day := time.Date(2026, 5, 4, 23, 0, 0, 0, time.UTC)
	p := plan.Plan{Name: "Slipway locker fob for the third boat shed " + strings.Repeat("ü", 80), LengthMM: 101.6}
	for n := range 30 {
		p.Cords = append(p.Cords, plan.Cord{ID: string(rune('A' + n%26)), CutMM: 1260, FoldAtMM: 420.3, FoldSide: "left"})
		for _, inch := range []bool{false, true} {
			lines := label.Lines(p, inch, day)
			if len(lines) > label.Most {
				t.Fatalf("%d cords: %d lines", n+1, len(lines))
			}
			for _, l := range lines {
				if len([]rune(l)) > label.Wide {
					t.Errorf("%q is longer than a line", l)
				}
			}
			all := strings.Join(lines, "\n")
			if n < 5 && strings.Count(all, "cut "+units.Cut(1260, inch)) != n+1 {
				t.Errorf("%d cords:\n%s", n+1, all)
			}
			if !strings.HasSuffix(all, units.Length(101.6, inch)+" long\n2026-05-04") {
				t.Errorf("it ends on\n%s", all)
			}
		}
	}
	if name := strings.Join(label.Lines(p, false, day)[:4], ""); !strings.HasPrefix(strings.ReplaceAll(name, " ", ""), "Slipwaylockerfobforthethirdboatshedüüü") {
		t.Errorf("the name is %q", name)
	}
}
