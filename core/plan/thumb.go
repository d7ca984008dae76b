package plan

import (
	"fmt"
	"strings"

	"nimblebight/core/knot"
)

// Thumb is what a cord would be cut by the thumb rules of makers, where they have one
// for a row of the piece; all else as it is planned.
type Thumb struct {
	CutMM float64 `json:"cut_mm"`
	// LeftMM is what would be left of it over the needs, below 0 what would be missing.
	LeftMM float64 `json:"left_mm"`
	Says   string  `json:"says"` // the rules
}

// thumb is what thumb rules cut of the legs of a cord; nil where makers have none.
func (w *walk) thumb(of []measured) *Thumb {
	out := Thumb{}
	var said []string
	for _, l := range of {
		out.LeftMM -= l.needs
		for _, p := range l.parts {
			mm := p.MM
			for _, s := range w.plan.Sections {
				k, _ := knot.Get(s.Do)
				if s.Index != p.Section || k.Thumb == nil {
					continue
				}
				times := k.Thumb.Over
				if l.worked {
					times = k.Thumb.Works
				}
				mm = times * s.HeightMM
				rule := fmt.Sprintf("%s: %g times the row for a strand that works, %g for one that is tied over", k.Name, k.Thumb.Works, k.Thumb.Over)
				if k.Thumb.Over == 0 {
					rule = fmt.Sprintf("%s: %g times the row", k.Name, k.Thumb.Works)
				}
				if len(said) == 0 || said[len(said)-1] != rule {
					said = append(said, rule)
				}
			}
			out.CutMM += mm
		}
	}
	if len(said) == 0 {
		return nil
	}
	seen := map[string]bool{}
	var once []string
	for _, s := range said {
		if !seen[s] {
			once = append(once, s)
		}
		seen[s] = true
	}
	out.CutMM = roundUp(out.CutMM, w.o.RoundUpMM)
	out.LeftMM += out.CutMM
	out.Says = strings.Join(once, "; ") + "."
	return &out
}
