package reach

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Hand is the cord in hand, and when to stop.
type Hand struct {
	// CordsMM is what there is of each cord, OffCutMM one length for all of them; one of
	// the two is said.
	CordsMM  map[string]float64 `json:"cords_mm,omitempty"`
	OffCutMM float64            `json:"off_cut_mm,omitempty"`
	// Section is the one that may grow, counted from 0; the tallest where it is nil.
	Section *int `json:"section,omitempty"`
	// Stop is what ends it beside the cord: nothing, a length of the piece, so much left
	// of every cord, or the hardware at its far end. AtMM is that length or what is left.
	Stop Stop    `json:"stop,omitempty" jsonschema:"enum=,enum=length,enum=left,enum=hardware"`
	AtMM float64 `json:"at_mm,omitempty"`
}

// Stop is what ends a row.
type Stop string

// A row ends where the cord does, at a length of the piece, with so much left of every
// cord, or where the hardware at the far end is reached.
const (
	AtCord     Stop = ""
	AtLength   Stop = "length"
	AtLeft     Stop = "left"
	AtHardware Stop = "hardware"
)

// Reached is the longest piece that it ties.
type Reached struct {
	Section  int     `json:"section"`
	Count    int     `json:"count"`
	LengthMM float64 `json:"length_mm"`
	Cords    []Left  `json:"cords"`
	// Says is what kept it from one knot more.
	Says     string         `json:"says"`
	Document piece.Document `json:"document"`
}

// Left is what is left of a cord when so much of it was in hand.
type Left struct {
	ID       string  `json:"id"`
	InHandMM float64 `json:"in_hand_mm"`
	TakesMM  float64 `json:"takes_mm"` // with all that is allowed, not rounded
	LeftMM   float64 `json:"left_mm"`
}

// takes is what a cord must be cut, not rounded.
func takes(c plan.Cord) float64 { return c.CutMM - c.Why.RoundingMM }

func (h Hand) check(d piece.Document, p plan.Plan) error {
	if h.OffCutMM != 0 && len(h.CordsMM) > 0 {
		return refused("off_cut_mm", "is said beside a length for each cord; say one of the two")
	}
	if h.OffCutMM == 0 && len(h.CordsMM) == 0 {
		return refused("cords_mm", "is empty; say what there is of each cord, or one off-cut for all")
	}
	length := func(path string, v float64) error {
		if math.IsNaN(v) || v <= 0 || v > piece.MostMM {
			return refused(path, "is %v mm; cord in hand is from 1 mm to 100 m", v)
		}
		return nil
	}
	if len(h.CordsMM) == 0 {
		if err := length("off_cut_mm", h.OffCutMM); err != nil {
			return err
		}
		first := -1
		for i, c := range p.Cords {
			switch {
			case c.Role == "unused":
			case first < 0:
				first = i
			case d.Cords[i].Stuff.Kind() != d.Cords[first].Stuff.Kind():
				return refused("off_cut_mm", "is one length for all, but cords %s and %s are of different stuff; say what there is of each", p.Cords[first].ID, c.ID)
			}
		}
	}
	for id, v := range h.CordsMM {
		if err := length("cords_mm."+id, v); err != nil {
			return err
		}
		if d.CordByID(id) < 0 {
			return refused("cords_mm."+id, "names cord %.20q, which the piece does not have", id)
		}
	}
	switch h.Stop {
	case AtCord:
	case AtLength, AtLeft:
		if math.IsNaN(h.AtMM) || h.AtMM < 0 || h.AtMM > piece.MostMM || h.AtMM == 0 && h.Stop == AtLength {
			return refused("at_mm", "is %v mm; say a length from 1 mm to 100 m", h.AtMM)
		}
	case AtHardware:
		if d.Purpose.EndsOn == nil || d.Purpose.BetweenMM == 0 {
			return refused("stop", "is the hardware at the far end, and the piece has none; say on Purpose what it ends on and how long it is between both")
		}
	default:
		return refused("stop", "is %.20q; it is length, left or hardware, or left out", h.Stop)
	}
	return nil
}

// FromHand is the longest piece of a sequence that cord in hand ties, with what the
// maker allows for.
func FromHand(d piece.Document, o plan.Options, h Hand) (Reached, error) {
	now, err := plan.Make(d, o)
	if err != nil {
		return Reached{}, err
	}
	if err := h.check(d, now); err != nil {
		return Reached{}, err
	}
	section := Growing(d, now)
	if h.Section != nil {
		section = *h.Section
	}
	if !grows(d, section) {
		return Reached{}, refused("section", "names none that takes more or fewer knots; choose a row of knots")
	}
	var why string
	fits := func(n int) (bool, error) {
		p, err := plan.Make(counted(d, section, n), o)
		if err != nil {
			return false, err
		}
		why = h.ends(p)
		return why == "", nil
	}
	n, ok, err := most(1, fits)
	if err != nil {
		return Reached{}, err
	}
	if !ok {
		return Reached{}, h.tooShort(counted(d, section, 1), o, why)
	}
	if ok, err := fits(n + 1); err == nil && ok { // the most there can be
		why = fmt.Sprintf("A section has at most %d knots.", piece.MostKnots)
	}
	out := Reached{Section: section, Count: n, Says: why, Document: counted(d, section, n)}
	p, err := plan.Make(out.Document, o)
	if err != nil {
		return Reached{}, err
	}
	out.LengthMM, out.Cords = p.LengthMM, h.left(p)
	return out, nil
}

// left is what is left of each cord; of one off-cut it stands with the last.
func (h Hand) left(p plan.Plan) []Left {
	out := []Left{}
	rest := h.OffCutMM
	for _, c := range p.Cords {
		if c.Role == "unused" {
			continue
		}
		l := Left{ID: c.ID, TakesMM: takes(c)}
		if len(h.CordsMM) == 0 {
			l.InHandMM, rest = rest, rest-l.TakesMM
			l.LeftMM = rest
		} else if have, said := h.CordsMM[c.ID]; said {
			l.InHandMM, l.LeftMM = have, have-l.TakesMM
		} else {
			continue // as much as is wanted
		}
		out = append(out, l)
	}
	return out
}

// ends says what keeps a piece from being tied; "" where nothing does.
func (h Hand) ends(p plan.Plan) string {
	keep := 0.0
	if h.Stop == AtLeft {
		keep = h.AtMM
	}
	for _, l := range h.left(p) {
		if l.LeftMM < keep-1e-6 {
			if keep > 0 {
				return fmt.Sprintf("One knot more would leave less than {%.0fmm} of cord %s.", keep, l.ID)
			}
			return fmt.Sprintf("One knot more would take {%.0fmm} more of cord %s than there is.", keep-l.LeftMM, l.ID)
		}
	}
	switch h.Stop {
	case AtLength:
		if p.LengthMM > h.AtMM+0.05 {
			return fmt.Sprintf("One knot more would be {%.1fmm} longer than {%.0fmm}.", p.LengthMM-h.AtMM, h.AtMM)
		}
	case AtHardware:
		if slices.ContainsFunc(p.Warnings, func(w plan.Warning) bool { return w.Code == "too-long-between" }) {
			return "The row has reached the hardware at the far end."
		}
	}
	return ""
}

// tooShort is why not even one knot can be tied.
func (h Hand) tooShort(d piece.Document, o plan.Options, why string) error {
	p, err := plan.Make(d, o)
	if err != nil {
		return err
	}
	for _, l := range h.left(p) {
		if l.LeftMM >= 0 {
			continue
		}
		path := "cords_mm." + l.ID
		if len(h.CordsMM) == 0 {
			path = "off_cut_mm"
		}
		mount := 0.0
		for _, c := range p.Cords {
			if c.ID != l.ID {
				continue
			}
			for _, leg := range c.Legs {
				if len(leg.Parts) > 0 {
					mount += leg.Parts[0].MM
				}
			}
		}
		if l.InHandMM < mount {
			return refused(path, "is %.0f mm of cord %s, shorter than the {%.0fmm} that putting it on takes; take a length of {%.0fmm} at least", l.InHandMM, l.ID, mount, l.TakesMM)
		}
		return refused(path, "is %.0f mm of cord %s, and the piece with one knot takes {%.0fmm}; it is {%.0fmm} too short", l.InHandMM, l.ID, l.TakesMM, -l.LeftMM)
	}
	return refused("stop", "cannot be kept with a single knot: %s", strings.ToLower(why[:1])+why[1:])
}
