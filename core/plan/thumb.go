package plan

import (
	"slices"
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
	if w.ruled == nil { // rows with a thumb rule, by section
		w.ruled = map[int]Section{}
		for _, s := range w.plan.Sections {
			if k, _ := knot.Get(s.Do); k.Thumb != nil {
				w.ruled[s.Index] = s
			}
		}
	}
	out := Thumb{}
	var once []string
	for _, l := range of {
		out.LeftMM -= l.needs
		for _, p := range l.parts {
			s, ok := w.ruled[p.Section]
			if !ok {
				out.CutMM += p.MM
				continue
			}
			k, _ := knot.Get(s.Do)
			times := k.Thumb.Over
			if l.worked {
				times = k.Thumb.Works
			}
			out.CutMM += times * s.HeightMM
			rule := k.Thumb.Say(k.Name)
			if !slices.Contains(once, rule) {
				once = append(once, rule)
			}
		}
	}
	if len(once) == 0 {
		return nil
	}
	out.CutMM = roundUp(out.CutMM, w.o.RoundUpMM)
	out.LeftMM += out.CutMM
	out.Says = strings.Join(once, "; ") + "."
	return &out
}
