package colouring

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Along is what changes along the cords of a piece.
type Along struct {
	Cords  []AlongCord `json:"cords"`
	Halves []Half      `json:"halves"`
}

// AlongCord is a cord that changes its colour along its length.
type AlongCord struct {
	ID       string  `json:"id"`
	RepeatMM float64 `json:"repeat_mm"`
	ShiftMM  float64 `json:"shift_mm"` // less than the repeat
	// Lands is where its colours are seen from above on the face, section by section, in
	// words.
	Lands []Said `json:"lands"`
}

// Half is a row that could be tied half in one cord and half in another, by changing what
// works and what is tied over.
type Half struct {
	Section  int            `json:"section"`
	Name     string         `json:"name"`
	Says     string         `json:"says"`
	Sequence []knot.Section `json:"sequence"`
}

// AlongOf tells where the colours of changing cords land in a piece, and which of its rows
// can be tied in halves. Have are the cords of the drawer.
func AlongOf(d piece.Document, o plan.Options, have []Have) (Along, error) {
	out := Along{Cords: []AlongCord{}, Halves: []Half{}}
	p, err := plan.Make(d, o)
	if err != nil {
		return out, err
	}
	l := p.Layout()
	look := sightOf(p, l).in(l.Stuffs)
	look.names = namesOf(d, have, nil)
	for i, c := range d.Cords {
		s := c.Stuff.Sheath
		if s == nil || s.Pattern != cord.Changing {
			continue
		}
		a := AlongCord{ID: c.ID, RepeatMM: s.RepeatMM, ShiftMM: math.Mod(c.ShiftMM, s.RepeatMM), Lands: []Said{}}
		for _, at := range look.sections {
			if says := look.lands(int8(i), at); says != "" {
				a.Lands = append(a.Lands, Said{at.index, at.name, says})
			}
		}
		out.Cords = append(out.Cords, a)
	}
	for i, s := range d.Sequence {
		if h, ok := halved(d, o, i, s, l.Thick, look); ok {
			out.Halves = append(out.Halves, h)
		}
	}
	return out, nil
}

// leastRun is how long a colour must be seen to be told, in diameters.
const leastRun = 2.0

// lands says where the colours of a cord, by its index, are seen from above on the face of a section, "" for
// one that is not seen there.
func (s sight) lands(of int8, at tiedAt) string {
	g := s.face().rows(at.from, at.to)
	type run struct {
		colour string
		from   int
	}
	var runs []run
	for k := range g.Tall {
		counts := map[string]int{}
		best := ""
		for i := range g.Wide {
			if g.Cord[k*g.Wide+i] != of {
				continue
			}
			c := g.at(i, k)
			counts[c]++
			if best == "" || counts[c] > counts[best] {
				best = c
			}
		}
		if best != "" && (len(runs) == 0 || runs[len(runs)-1].colour != best) {
			runs = append(runs, run{best, k})
		}
	}
	// What is seen for less than a strand's width is left out.
	least := int(math.Round(leastRun * toDiameter))
	end := func(i int) int {
		if i+1 < len(runs) {
			return runs[i+1].from
		}
		return g.Tall
	}
	for i := 0; i < len(runs); {
		if len(runs) > 1 && end(i)-runs[i].from < least {
			runs = slices.Delete(runs, i, i+1)
			if i > 0 && i < len(runs) && runs[i-1].colour == runs[i].colour {
				runs = slices.Delete(runs, i, i+1)
			}
			i = max(0, i-1)
			continue
		}
		i++
	}
	if len(runs) == 0 {
		return ""
	}
	said := []string{s.name(runs[0].colour)}
	for _, r := range runs[1:] {
		said = append(said, fmt.Sprintf("%s from {%.0fmm}", s.name(r.colour), float64(r.from)*g.CellMM))
	}
	return sentence(strings.Join(said, ", "))
}

// halved is a row tied half with what works in it and half with what it is tied over, where
// a knot can change them and their colours differ.
func halved(d piece.Document, o plan.Options, i int, s knot.Section, thick float64, look sight) (Half, bool) {
	for _, k := range knot.All() {
		if k.Halves == nil {
			continue
		}
		seq := k.Halves(s, thick)
		if seq == nil {
			continue
		}
		doc := d
		doc.Sequence = slices.Concat(d.Sequence[:i], seq, d.Sequence[i+1:])
		p, err := plan.Make(doc, o)
		if err != nil || len(p.Sections) < i+len(seq) {
			continue
		}
		l := p.Layout()
		after := sightOf(p, l).in(l.Stuffs)
		first, last := l.Sections[i], l.Sections[i+len(seq)-1]
		above, below := after.face().rows(first[0], first[1]), after.face().rows(last[0], last[1])
		a, b := above.most(middleOf), below.most(middleOf)
		if a == b || a == "" || b == "" {
			continue
		}
		was, _ := knot.Get(s.Do)
		return Half{Section: i, Name: was.Name, Sequence: doc.Sequence,
			Says: sentence(fmt.Sprintf("%s makes the bars of the upper half, %s those of the lower one", look.name(a), look.name(b)))}, true
	}
	return Half{}, false
}
