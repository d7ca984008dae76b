// Package card derives what lies on the table before the first cut: cords, things,
// tools, how the work is held, and what is looked at on the way. It reads a plan and its
// document and states nothing of a knot itself.
package card

import (
	"fmt"
	"slices"
	"strings"

	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Card is what is needed on the table. {12.3mm} in its words is a length in the maker's
// units.
type Card struct {
	Cords   []Line   `json:"cords"`
	Things  []string `json:"things"` // hardware, beads, cores
	Tools   []string `json:"tools"`
	Held    []Line   `json:"held"` // how the work is held, by stage
	Surface string   `json:"surface"`
	Looks   []Line   `json:"looks"` // gates and checks, by section
}

// Line is a thing and what is said of it.
type Line struct {
	What string `json:"what"`
	Says string `json:"says"`
}

// Of derives the card of a planned piece.
func Of(d piece.Document, p plan.Plan) Card {
	out := Card{Cords: []Line{}, Things: []string{}, Held: []Line{}, Looks: []Line{}}
	for i, c := range p.Cords {
		if c.Role == "unused" {
			continue
		}
		s := d.Cords[i].Stuff
		says := fmt.Sprintf("%s %s, cut {%.0fmm}.", s.Make.Name(), s.Material, c.CutMM)
		if c.FoldAtMM > 0 {
			says += " " + strings.ReplaceAll(c.Measure, "{fold}", fmt.Sprintf("{%.1fmm}", c.FoldAtMM))
		}
		out.Cords = append(out.Cords, Line{c.ID, says})
	}
	out.Things = things(d, p)
	flame, glue := false, false
	out.Tools = append(out.Tools, "tape measure", "scissors")
	put := func(tool string) {
		if !slices.Contains(out.Tools, tool) {
			out.Tools = append(out.Tools, tool)
		}
	}
	switch p.Hold {
	case piece.Needle:
		put("lacing needle")
	case piece.Haemostat:
		put("haemostat")
	}
	for _, s := range d.Sequence {
		k, _ := knot.Get(s.Do)
		f, ok := k.Field("how")
		if !ok {
			continue
		}
		how, _ := s.Value(f)
		name, _ := how.(string)
		if w, ok := finish.Get(name); ok {
			flame, glue = flame || w.Flame, glue || w.Glue
			for _, t := range w.Tools {
				put(t)
			}
		}
	}
	out.Held = held(d)
	out.Surface = "a cork board or a cutting mat"
	switch {
	case flame:
		out.Surface = "a heatproof surface with water at hand, and a window open"
		put("water")
	case glue:
		out.Surface = "paper that may be glued to, and a window open"
	}
	out.Looks = looks(d, p)
	return out
}

// things are the hardware, beads and cores of a piece, alike ones counted.
func things(d piece.Document, p plan.Plan) []string {
	var all []string
	hardware := func(h piece.Hardware) {
		if h.Type != "none" && h.Type != "hole" && h.Type != "" {
			all = append(all, fmt.Sprintf("%s, {%.0fmm} inside", strings.ReplaceAll(h.Type, "-", " "), h.InnerMM))
		}
	}
	hardware(d.Purpose.HangsOn)
	if d.Purpose.EndsOn != nil {
		hardware(*d.Purpose.EndsOn)
	}
	look := p.Look()
	for _, b := range look.Beads {
		switch {
		case b.Shape == knot.RingShape:
			all = append(all, fmt.Sprintf("ring, {%.0fmm} inside", b.WidthMM))
		default:
			shape := string(b.Shape)
			if shape == "" {
				shape = "barrel"
			}
			all = append(all, fmt.Sprintf("%s bead, hole {%.1fmm}, {%.1fmm} long, {%.1fmm} wide", shape, b.HoleMM, b.LengthMM, b.WidthMM))
		}
	}
	for _, c := range look.Cores {
		all = append(all, fmt.Sprintf("core, {%.1fmm} across", c.DiameterMM))
	}
	out := []string{}
	for i, t := range all {
		if slices.Index(all, t) < i {
			continue
		}
		n := 0
		for _, o := range all {
			if o == t {
				n++
			}
		}
		if n > 1 {
			t = fmt.Sprintf("%d of: %s", n, t)
		}
		out = append(out, t)
	}
	return out
}

// held is how the work is held at each stage: by what it hangs on, or in the hand.
func held(d piece.Document) []Line {
	switch {
	case d.Purpose.HangsOn.Type == "none" || slices.ContainsFunc(d.Sequence, func(s knot.Section) bool { k, _ := knot.Get(s.Do); return k.First }):
		return []Line{{string(plan.AtTie), "In the hand; pin the first knot to the board while its ends are counted."}, {string(plan.AtFinish), "In the hand."}}
	case d.Purpose.EndsOn != nil:
		return []Line{{"putting on", "Both ends of hardware pinned to the board at the length between them."}, {string(plan.AtTie), "Pinned at both ends and taut."}, {string(plan.AtFinish), "In the hand."}}
	}
	hw := strings.ReplaceAll(d.Purpose.HangsOn.Type, "-", " ")
	return []Line{{"putting on", fmt.Sprintf("The %s lies flat; the cords are put on from the face.", hw)}, {string(plan.AtTie), fmt.Sprintf("The %s clipped to the board or held in the vise, the strands towards you.", hw)}, {string(plan.AtFinish), "Off the board, in the hand."}}
}

// looks are the gates of the steps and the checks of the piece, each once, in the order
// in which they come.
func looks(d piece.Document, p plan.Plan) []Line {
	out := []Line{}
	put := func(section int, says string) {
		what := "the piece"
		if section >= 0 && section < len(d.Sequence) {
			k, _ := knot.Get(d.Sequence[section].Do)
			what = fmt.Sprintf("section %d, %s", section+1, k.Name)
		}
		l := Line{what, says}
		if says != "" && !slices.Contains(out, l) {
			out = append(out, l)
		}
	}
	for i := range d.Sequence {
		for _, s := range p.Steps {
			if s.Section != i {
				continue
			}
			for _, a := range s.Actions {
				put(i, a.Gate)
			}
		}
		for _, c := range p.Checks {
			if c.Section == i {
				put(i, c.Message)
			}
		}
	}
	for _, c := range p.Checks {
		if c.Section < 0 {
			put(-1, c.Message)
		}
	}
	return out
}
