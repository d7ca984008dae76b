package inspect

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/plan"
)

// Size is a size of the tied piece that is held against its plan.
type Size struct {
	Key    string  `json:"key" jsonschema:"enum=length,enum=width"`
	Name   string  `json:"name"`
	How    string  `json:"how"`
	PlanMM float64 `json:"plan_mm"`
	// SpreadMM is by how much such pieces differ: two in three lie within it.
	SpreadMM float64 `json:"spread_mm"`
	// WantedMM is what was wanted, 0 where nothing was.
	WantedMM float64 `json:"wanted_mm,omitempty"`
}

// Verdict is what a measured size says.
type Verdict struct {
	Key string `json:"key"`
	// Level is right, within what hands differ by, or off.
	Level string `json:"level" jsonschema:"enum=right,enum=near,enum=off"`
	Says  string `json:"says"`
}

// rulerMM is what a tape is read to on a knotted piece, mm.
const rulerMM = 1.0

// Sizes are those of a planned piece. Its spread is that of the cord's diameter, and in
// length of the hand too, as far as the plan knows both.
func Sizes(p plan.Plan) []Size {
	cord, hand, n := 0.0, 0.0, 0.0
	for _, c := range p.Cords {
		if c.Role == "unused" {
			continue
		}
		cord = math.Max(cord, c.Known.Doubt)
		for _, h := range c.Known.Hands {
			hand += h.Doubt
			n++
		}
	}
	if n > 0 {
		hand /= n
	}
	knotted := 0.0
	for _, s := range p.Sections {
		if k, ok := knot.Get(s.Do); ok && !k.Ends && !k.Bare {
			knotted += s.HeightMM
		}
	}
	knotted = math.Min(knotted, p.LengthMM)
	return []Size{
		{Key: "length", Name: "Length", How: "Hang it up, let it come to rest, and measure from the middle of the wire to the lowest tip.", PlanMM: p.LengthMM, SpreadMM: math.Hypot(math.Hypot(cord, hand)*knotted, rulerMM), WantedMM: p.WantedMM},
		{Key: "width", Name: "Width", How: "Lay it flat without pressing it, and measure where it is widest.", PlanMM: p.WidthMM, SpreadMM: math.Hypot(cord*p.WidthMM, rulerMM)},
	}
}

// Judge says what a measured size means. A size that no such piece can have is an error.
func (s Size) Judge(mm float64) (Verdict, error) {
	if !(mm > 0.1*s.PlanMM && mm < 10*s.PlanMM) {
		return Verdict{}, fmt.Errorf("is %g mm, and %.0f mm is planned; measure it once more", mm, s.PlanMM)
	}
	off := mm - s.PlanMM
	more, why := "longer", "tied more loosely, or the cord is thicker than its label; a swatch of it tells which"
	if s.Key == "width" {
		more = "wider"
		why = "the cord is thicker than its label, or it lies flatter; a swatch of it tells which"
	}
	if off < 0 {
		more, why = "shorter", "tied more tightly, or a knot is missing; count them"
		if s.Key == "width" {
			more, why = "narrower", "the cord is thinner than its label; a swatch of it tells"
		}
	}
	out := Verdict{Key: s.Key}
	switch by := math.Abs(off); {
	case by <= s.SpreadMM:
		out.Level = "right"
		out.Says = fmt.Sprintf("As planned: {%.1fmm} %s than {%.1fmm}, and two pieces in three differ by up to {%.1fmm}.", by, more, s.PlanMM, s.SpreadMM)
	case by <= 2*s.SpreadMM:
		out.Level = "near"
		out.Says = fmt.Sprintf("Within what hands and cords differ by: {%.1fmm} %s than {%.1fmm}. Write it down, and the next one comes nearer.", by, more, s.PlanMM)
	default:
		out.Level = "off"
		out.Says = fmt.Sprintf("{%.1fmm} %s than {%.1fmm}, more than hands differ by: it was %s.", by, more, s.PlanMM, why)
		if s.Key == "width" {
			out.Says = fmt.Sprintf("{%.1fmm} %s than {%.1fmm}, more than cords differ by: %s.", by, more, s.PlanMM, why)
		}
	}
	if s.WantedMM > 0 {
		out.Says += fmt.Sprintf(" {%.0fmm} was wanted: it is {%.1fmm} off that.", s.WantedMM, math.Abs(mm-s.WantedMM))
	}
	return out, nil
}
