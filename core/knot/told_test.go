package knot_test

import (
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
)

// Every choice that a section makes, or that stands by itself, is told once under the name
// that its form gives it; a setting that another choice makes count for nothing is not told.
func TestEverySettingThatCountsIsTold(t *testing.T) {
	told := 0
	look := func(id string, s knot.Section) {
		k, _ := knot.Get(s.Do)
		says := s.Told()
		for _, f := range k.Fields {
			n := strings.Count("; "+says, "; "+f.Label+": ")
			v, _ := s.Value(f)
			c, _ := v.(string)
			switch {
			case f.If == "" && f.Kind == "choice" && c+f.Default != "":
				told++
				if n != 1 {
					t.Errorf("%s: %s tells %s %d times: %q", id, k.ID, f.Key, n, says)
				}
			case f.Kind == "choice" && c == "" && n > 0:
				g, _, _ := strings.Cut(f.If, "=")
				if by, ok := k.Field(g); !ok || by.Default == "" {
					t.Errorf("%s: %s tells %s, which is not said: %q", id, k.ID, f.Key, says)
				}
			}
		}
	}
	for _, p := range patterns.All() {
		for _, s := range p.Document.Sequence {
			look(p.ID, s)
			for _, r := range s.Rows {
				if len(r.Sequence) > 0 && !strings.Contains(s.Told(), r.Sequence[0].Told()) {
					t.Errorf("%s: a row is not told: %q", p.ID, s.Told())
				}
				for _, in := range r.Sequence {
					look(p.ID, in)
				}
			}
		}
	}
	if told < 20 {
		t.Errorf("only %d settings are told", told)
	}
}
