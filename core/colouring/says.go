package colouring

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"nimblebight/core/knot"
)

// Said is what is said of one section.
type Said struct {
	Section int    `json:"section"` // by its index
	Name    string `json:"name"`
	Says    string `json:"says"`
}

// hidden is up to which share of both sides a colour counts as hidden inside.
const hidden = 0.03

// says is what a maker would say of it.
func (s sight) says() string { return s.of(s.face(), s.back()) }

// of says what is seen on a face and a back.
func (s sight) of(face, back grid) string {
	side := func(g grid, which string) string {
		middle, edge := g.most(middleOf), g.most(edgeOf)
		switch {
		case g.ruled(anywhere, covers) != "":
			return fmt.Sprintf("%s covers %s", s.name(g.ruled(anywhere, covers)), which)
		case middle != "" && middle == edge:
			return fmt.Sprintf("%s makes most of %s", s.name(middle), which)
		case middle != "" && edge != "":
			return fmt.Sprintf("%s makes the bars on %s, %s the bumps at its edges", s.name(middle), which, s.name(edge))
		case middle != "":
			return fmt.Sprintf("%s makes the bars on %s, the colours take turns at its edges", s.name(middle), which)
		case edge != "":
			return fmt.Sprintf("the colours take turns in the middle of %s, %s makes the bumps at its edges", which, s.name(edge))
		}
		return fmt.Sprintf("the colours take turns on %s", which)
	}
	const both = "both sides"
	out := []string{side(face, "the face"), side(back, "the back")}
	if side(face, both) == side(back, both) {
		out = []string{side(face, both)}
	}
	if r := face.runs(); r == Spirals || r != "" && face.most(middleOf) == "" {
		out = append(out, "the colours run in "+string(r))
	}
	sub := sight{names: s.names, own: s.own}
	sub.sides[0], sub.sides[quarters/2] = face, back
	for _, sh := range sub.shares() {
		thick, own := s.own[sh.Colour]
		if seen := (sh.Face + sh.Back) / 2; own && seen < hidden {
			// A thin cord covers little wherever it lies: as much less as its section is.
			thin := thick / slices.Max(slices.Collect(maps.Values(s.own)))
			if seen < hidden*thin*thin {
				out = append(out, sh.Name+" is hidden inside")
			} else if thin < 1 {
				out = append(out, sh.Name+" shows as a thin line")
			}
		}
	}
	return sentence(strings.Join(out, "; "))
}

func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] + "." }

// bySection is what is said of each section, where there are several or one goes round.
func (s sight) bySection() []Said {
	out := []Said{}
	for _, at := range s.sections {
		p := Said{Section: at.index, Name: at.name}
		for _, c := range s.cores {
			if c.section == at.index {
				p.Says = s.ofFaces(c.faces)
			}
		}
		switch {
		case p.Says != "":
		case at.around:
			p.Says = s.ofRound(at)
		case len(s.sections) > 1:
			p.Says = s.of(s.face().rows(at.from, at.to), s.back().rows(at.from, at.to))
		default:
			continue
		}
		out = append(out, p)
	}
	return out
}

// sideNames are the sides of what goes round, by quarters.
var sideNames = [quarters]string{"the front", "the right", "the back", "the left"}

// ofRound says what is seen all round a section.
func (s sight) ofRound(at tiedAt) string {
	var of [quarters]string
	for k, g := range s.sides {
		of[k] = g.rows(at.from, at.to).ruled(anywhere, rules)
	}
	var runs [quarters]Run
	for k, g := range s.sides {
		runs[k] = g.rows(at.from, at.to).runs()
	}
	said := grouped(s, of[:], sideNames[:])
	if r := runs[0]; r != "" && r == runs[quarters/2] {
		said = append(said, "the colours run in "+string(r))
	}
	return sentence(strings.Join(said, "; "))
}

// ofFaces says which colour each face of a ball shows, looked at in its middle.
func (s sight) ofFaces(faces []grid) string {
	counts := map[string]int{}
	var order []string
	shared := 0
	for _, g := range faces {
		c := g.middle().ruled(anywhere, rules)
		if c == "" {
			shared++
			continue
		}
		if counts[c] == 0 {
			order = append(order, c)
		}
		counts[c]++
	}
	var said []string
	for _, c := range order {
		if counts[c] == len(faces) {
			return sentence(s.name(c) + " makes all " + fmt.Sprint(len(faces)) + " faces")
		}
		said = append(said, fmt.Sprintf("%s makes %s", s.name(c), faceCount(counts[c])))
	}
	if shared > 0 {
		where := faceCount(shared)
		if shared == len(faces) {
			where = fmt.Sprintf("all %d faces", shared)
		}
		said = append(said, "on "+where+" the colours lie side by side")
	}
	return sentence(strings.Join(said, "; "))
}

func faceCount(n int) string {
	if n == 1 {
		return "1 face"
	}
	return fmt.Sprintf("%d faces", n)
}

// middle is the part of a side about its middle: half as wide and half as tall.
func (g grid) middle() grid {
	tall := float64(g.Tall) * g.CellMM
	out := g.rows(g.Y0+tall/4, g.Y0+3*tall/4)
	wide := out
	wide.Wide = out.Wide / 4 * 2
	wide.X0 = -float64(wide.Wide) / 2 * out.CellMM
	off := (out.Wide - wide.Wide) / 2
	wide.Cord, wide.Colour = nil, nil
	for k := range out.Tall {
		wide.Cord = append(wide.Cord, out.Cord[k*out.Wide+off:k*out.Wide+off+wide.Wide]...)
		wide.Colour = append(wide.Colour, out.Colour[k*out.Wide+off:k*out.Wide+off+wide.Wide]...)
	}
	return wide
}

// grouped says which sides each colour makes; "" stands for a side that several share.
func grouped(s sight, of, names []string) []string {
	var out []string
	var done []string
	for _, c := range of {
		if slices.Contains(done, c) {
			continue
		}
		done = append(done, c)
		var here []string
		for k := range of {
			if of[k] == c {
				here = append(here, names[k])
			}
		}
		where := knot.List(here)
		if len(here) == len(of) {
			where = "all sides"
		}
		if c == "" {
			out = append(out, "the colours take turns on "+where)
		} else {
			out = append(out, s.name(c)+" makes "+where)
		}
	}
	return out
}
