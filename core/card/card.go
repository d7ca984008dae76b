// Package card derives what lies on the table before the first cut: cords, things,
// tools, how the work is held, what is looked at on the way and what must be taken care
// of. It reads a plan and its document and states nothing of a knot itself. What the
// maker left out or added stands in the document.
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
	Groups []Group `json:"groups"`
}

// Group is a part of the card, of [piece.CardGroups].
type Group struct {
	ID    string `json:"id"`
	Name  string `json:"name"`
	Lines []Line `json:"lines"`
}

// Line is a thing and what is said of it.
type Line struct {
	// Key names it as long as what it says stays.
	Key  string `json:"key"`
	What string `json:"what,omitempty"`
	Says string `json:"says"`
	// Own is set for a line that the maker wrote, Out for one that is left out.
	Own bool `json:"own,omitempty"`
	Out bool `json:"out,omitempty"`
}

var names = map[string]string{
	"cords": "Cords", "beside": "Beside them", "tools": "Tools", "surface": "Work on", "held": "Held",
	"prepare": "Ends to prepare", "cautions": "Safety", "look": "Look at",
}

// maker is a card being made.
type maker struct {
	d     piece.Document
	p     plan.Plan
	lines map[string][]Line
}

// put adds a line to a group, once.
func (m *maker) put(group, what, says string) {
	if says == "" {
		return
	}
	l := Line{Key: group + "|" + what + "|" + says, What: what, Says: says}
	if !slices.Contains(m.lines[group], l) {
		m.lines[group] = append(m.lines[group], l)
	}
}

// Of derives the card of a planned piece. A group of which nothing is said has no lines.
func Of(d piece.Document, p plan.Plan) Card {
	m := &maker{d, p, map[string][]Line{}}
	m.cords()
	m.things()
	m.tools()
	m.held()
	m.prepare()
	for _, c := range p.Cautions {
		m.put("cautions", c.Title, c.Says)
	}
	m.looks()
	out := Card{Groups: []Group{}}
	for _, id := range piece.CardGroups {
		g := Group{ID: id, Name: names[id], Lines: append([]Line{}, m.lines[id]...)}
		if c := d.Card; c != nil {
			for i := range g.Lines {
				// A caution is never left out.
				g.Lines[i].Out = id != "cautions" && slices.Contains(c.Without, g.Lines[i].Key)
			}
			for _, l := range c.Own {
				if l.Group == id {
					g.Lines = append(g.Lines, Line{Key: "own|" + id + "|" + l.Says, Says: l.Says, Own: true})
				}
			}
		}
		out.Groups = append(out.Groups, g)
	}
	return out
}

func (m *maker) cords() {
	for i, c := range m.p.Cords {
		if c.Role == "unused" {
			continue
		}
		s := m.d.Cords[i].Stuff
		says := fmt.Sprintf("%s %s, cut {%.0fmm}.", s.Make.Name(), s.Material, c.CutMM)
		if c.FoldAtMM > 0 {
			says += " " + strings.ReplaceAll(c.Measure, "{fold}", fmt.Sprintf("{%.1fmm}", c.FoldAtMM))
		}
		m.put("cords", c.ID, says)
	}
}

// things are the hardware, beads and cores of a piece, alike ones counted.
func (m *maker) things() {
	var all []string
	hardware := func(h piece.Hardware) {
		if h.Type != "none" && h.Type != "hole" && h.Type != "" {
			all = append(all, fmt.Sprintf("%s, {%.0fmm} inside", strings.ReplaceAll(h.Type, "-", " "), h.InnerMM))
		}
	}
	hardware(m.d.Purpose.HangsOn)
	if m.d.Purpose.EndsOn != nil {
		hardware(*m.d.Purpose.EndsOn)
	}
	look := m.p.Look()
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
		m.put("beside", "", t)
	}
}

// tools are those of the cut, of what is held and prepared, and of the finishes; the
// surface is what the hottest of them wants.
func (m *maker) tools() {
	put := func(tools ...string) {
		for _, t := range tools {
			m.put("tools", "", t)
		}
	}
	put("tape measure", "scissors")
	switch m.p.Hold {
	case piece.Needle:
		put("lacing needle")
	case piece.Haemostat:
		put("haemostat")
	}
	flame, glue := false, false
	for _, r := range m.p.Prepared {
		flame = flame || r.Way.Flame
		put(r.Way.Tools...)
	}
	for _, s := range m.d.Sequence {
		k, _ := knot.Get(s.Do)
		put(k.HoldTools...)
		f, ok := k.Field("how")
		if !ok {
			continue
		}
		how, _ := s.Value(f)
		name, _ := how.(string)
		if w, ok := finish.Get(name); ok {
			flame, glue = flame || w.Flame, glue || w.Glue
			put(w.Tools...)
		}
	}
	switch {
	case flame:
		put("water")
		m.put("surface", "", "a heatproof surface with water at hand, and a window open")
	case glue:
		m.put("surface", "", "paper that may be glued to, and a window open")
	default:
		m.put("surface", "", "a cork board or a cutting mat")
	}
}

// held is how the work is held at each stage: by what it hangs on, or in the hand, and as
// its knots want it.
func (m *maker) held() {
	hw := strings.ReplaceAll(m.d.Purpose.HangsOn.Type, "-", " ")
	first := slices.ContainsFunc(m.d.Sequence, func(s knot.Section) bool { k, _ := knot.Get(s.Do); return k.First })
	tie := fmt.Sprintf("The %s clipped to the board or held in the vise, the strands towards you.", hw)
	switch {
	case m.d.Purpose.HangsOn.Type == "none" || first:
		tie = "In the hand; pin the first knot to the board while its ends are counted."
	case m.d.Purpose.EndsOn != nil:
		m.put("held", "putting on", "Both ends of hardware pinned to the board at the length between them.")
		tie = "Pinned at both ends and taut."
	default:
		m.put("held", "putting on", fmt.Sprintf("The %s lies flat; the cords are put on from the face.", hw))
	}
	m.put("held", string(plan.AtTie), tie)
	for i, s := range m.d.Sequence {
		if k, _ := knot.Get(s.Do); k.Held != "" {
			m.put("held", m.section(i), k.Held)
		}
	}
	m.put("held", string(plan.AtFinish), "Off the board, in the hand.")
}

// prepare are the ends that are made ready to be led through something tight.
func (m *maker) prepare() {
	for _, r := range m.p.Prepared {
		says := fmt.Sprintf("%s, for the %s: %s Afterwards {%.0fmm} of each is cut off again.", strings.Join(r.Legs, ", "), m.name(r.Section), r.Way.How, r.Way.OffMM)
		m.put("prepare", r.Way.Name, says)
	}
}

// looks are the gates of the steps and the checks of the piece, each once, in the order
// in which they come.
func (m *maker) looks() {
	for i := range m.d.Sequence {
		for _, s := range m.p.Steps {
			if s.Section != i {
				continue
			}
			for _, a := range s.Actions {
				m.put("look", m.section(i), a.Gate)
			}
			for _, g := range s.Gates {
				m.put("look", m.section(i)+", "+g.When(), g.Says)
			}
		}
		for _, c := range m.p.Checks {
			if c.Section == i {
				m.put("look", m.section(i), c.Message)
			}
		}
	}
	for _, c := range m.p.Checks {
		if c.Section < 0 {
			m.put("look", "the piece", c.Message)
		}
	}
}

func (m *maker) name(section int) string {
	k, _ := knot.Get(m.d.Sequence[section].Do)
	return k.Name
}

func (m *maker) section(i int) string { return fmt.Sprintf("section %d, %s", i+1, m.name(i)) }
