package plan

import (
	"errors"
	"fmt"
	"strings"

	"nimblebight/core/piece"
)

// Change is something that no longer holds after a piece was changed, with a way out
// where there is one.
type Change struct {
	Section int    `json:"section"` // -1 for the whole piece
	Where   string `json:"where,omitempty"`
	Says    string `json:"says"`
	Fix     *Fix   `json:"fix,omitempty"`
}

// Changed tells what no longer holds of a piece after another purpose or other cord was
// chosen for it: what it cannot be tied of any more, what is warned of now and was not
// before, sizes that its purpose asks for and that are not said, and sizes that are said
// and mean nothing to it. The sequence is the same in both, or what is told is of the
// later one.
func Changed(before, after piece.Document, o Options) ([]Change, error) {
	out := []Change{}
	was, errWas := Make(before, o)
	now, err := Make(after, o)
	var ps piece.Problems
	switch {
	case errors.As(err, &ps):
		for _, p := range ps {
			says := p.Message + "."
			if p.Where == "" { // its place is said by its path alone
				says = p.Path + " " + says
			}
			out = append(out, Change{Section: -1, Where: p.Where, Says: says, Fix: p.Fix})
		}
	case err != nil:
		return nil, fmt.Errorf("telling what no longer holds: %w", err)
	default:
		type warned struct {
			code    string
			section int
		}
		had := map[warned]bool{}
		if errWas == nil {
			for _, w := range was.Warnings {
				had[warned{w.Code, w.Section}] = true
			}
		}
		for _, w := range now.Warnings {
			if !had[warned{w.Code, w.Section}] {
				out = append(out, Change{Section: w.Section, Says: w.Message, Fix: w.Fix})
			}
		}
	}
	kind, _ := piece.KindOf(after.Purpose.Kind)
	if before.Purpose.Kind != after.Purpose.Kind {
		for _, a := range after.Purpose.Unsaid() {
			out = append(out, Change{Section: -1, Says: fmt.Sprintf("A %s asks for one more size: %s.", kind.Name, strings.ToLower(a.Label[:1])+a.Label[1:])})
		}
	}
	for _, a := range after.Purpose.Idle() {
		out = append(out, Change{Section: -1, Says: fmt.Sprintf("%s {%.0fmm} is said, and means nothing to a %s.", a.Label, after.Purpose.Size(a.Key), kind.Name),
			Fix: &Fix{Label: "Leave it out", Set: []Set{{Path: "purpose." + a.Key, Value: 0}}}})
	}
	return out, nil
}
