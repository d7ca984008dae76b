package colouring

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// toDiameter is into how many cells a diameter of cord is divided.
const toDiameter = 4.0

// differs is the share of cells up to which two sights count as one: outlines of mirrored
// curves fall a little differently into cells.
const differs = 0.03

// sight is what is seen of a piece: which cord in each cell of its face and its back, and
// which stuff each cord is.
type sight struct {
	face, back grid
	names      map[string]string // what colours are called
}

// name is what a colour is called.
func (s sight) name(colour string) string {
	if n := s.names[colour]; n != "" {
		return n
	}
	return colour
}

// grid is one side of it.
type grid struct {
	scene.Cells
	stuffs []cord.Stuff
}

func sightOf(l plan.Layout) sight {
	return sight{face: grid{Cells: cells(l, 0)}, back: grid{Cells: cells(l, 180)}}
}

// in is the sight with other stuffs for its cords.
func (s sight) in(stuffs []cord.Stuff) sight {
	s.face.stuffs, s.back.stuffs = stuffs, stuffs
	return s
}

// at is the colour in a cell, "" where no cord is seen.
func (g grid) at(i, k int) string {
	if i < 0 || k < 0 || i >= g.Wide || k >= g.Tall {
		return ""
	}
	c := g.Cord[k*g.Wide+i]
	if c < 0 || int(c) >= len(g.stuffs) {
		return ""
	}
	return g.stuffs[c].Colour
}

// same is the share of cells in which two sides show one colour, of those in which either
// shows cord.
func (g grid) same(o grid) float64 { return g.matches(o, false) }

func (g grid) matches(o grid, mirrored bool) float64 {
	same, all := 0, 0
	// Both grids are even about their middle line.
	half := max(g.Wide, o.Wide) / 2
	for k := range max(g.Tall, o.Tall) {
		for x := -half; x < half; x++ {
			other := x
			if mirrored {
				other = -1 - x
			}
			a, b := g.at(g.Wide/2+x, k), o.at(o.Wide/2+other, k)
			if a == "" && b == "" {
				continue
			}
			all++
			if a == b {
				same++
			}
		}
	}
	if all == 0 {
		return 1
	}
	return float64(same) / float64(all)
}

// alike tells whether two sights are one, mirrored, turned over, or both.
func (s sight) alike(o sight) bool {
	for _, mirrored := range []bool{false, true} {
		if s.face.matches(o.face, mirrored) >= 1-differs && s.back.matches(o.back, mirrored) >= 1-differs ||
			s.face.matches(o.back, mirrored) >= 1-differs && s.back.matches(o.face, mirrored) >= 1-differs {
			return true
		}
	}
	return false
}

// part tells whether a place across a row, from -1 at its left edge to 1, is of a part.
type part func(u float64) bool

func middleOf(u float64) bool { return math.Abs(u) < 0.35 }
func edgeOf(u float64) bool   { return math.Abs(u) > 0.7 }
func anywhere(float64) bool   { return true }

// count is how many cells of a part show each colour.
func (g grid) count(of part) map[string]int {
	out := map[string]int{}
	for k := range g.Tall {
		first, last := -1, -1
		for i := range g.Wide {
			if g.at(i, k) != "" {
				if first < 0 {
					first = i
				}
				last = i
			}
		}
		for i := first; i >= 0 && i <= last; i++ {
			u := 0.0
			if last > first {
				u = 2*float64(i-first)/float64(last-first) - 1
			}
			if c := g.at(i, k); c != "" && of(u) {
				out[c]++
			}
		}
	}
	return out
}

// rules is from which share of a part on a colour is said to make it, covers from which
// share of a side on it is said to cover that.
const rules, covers = 0.62, 0.85

// most is the colour that makes a part, "" where none rules it.
func (g grid) most(of part) string { return g.ruled(of, rules) }

// ruled is the colour that has such a share of a part, "" where none has.
func (g grid) ruled(of part, share float64) string {
	all, best, most := 0, "", 0
	counts := g.count(of)
	for _, c := range slices.Sorted(maps.Keys(counts)) {
		all += counts[c]
		if counts[c] > most {
			best, most = c, counts[c]
		}
	}
	if float64(most) < share*float64(all) {
		return ""
	}
	return best
}

// shares are how much of each side each colour shows; together they are all of it.
func (s sight) shares() []Share {
	face, back := s.face.count(anywhere), s.back.count(anywhere)
	total := func(m map[string]int) float64 {
		n := 0
		for _, v := range m {
			n += v
		}
		return math.Max(1, float64(n))
	}
	var out []Share
	for _, st := range s.face.stuffs {
		if slices.ContainsFunc(out, func(o Share) bool { return o.Colour == st.Colour }) {
			continue
		}
		out = append(out, Share{st.Colour, s.name(st.Colour), float64(face[st.Colour]) / total(face), float64(back[st.Colour]) / total(back)})
	}
	return out
}

// hidden is up to which share of both sides a colour counts as hidden inside.
const hidden = 0.03

// says is what a maker would say of it.
func (s sight) says() string {
	side := func(g grid, which string) string {
		middle, edge := g.most(middleOf), g.most(edgeOf)
		switch {
		case g.ruled(anywhere, covers) != "":
			return fmt.Sprintf("%s covers %s", s.name(g.ruled(anywhere, covers)), which)
		case middle != "" && middle == edge:
			return fmt.Sprintf("%s makes most of %s", s.name(middle), which)
		case middle != "" && edge != "":
			return fmt.Sprintf("%s makes the bars on %s, %s its edges", s.name(middle), which, s.name(edge))
		case middle != "":
			return fmt.Sprintf("%s makes the bars on %s, the colours take turns at its edges", s.name(middle), which)
		case edge != "":
			return fmt.Sprintf("the colours take turns in the middle of %s, %s makes its edges", which, s.name(edge))
		}
		return fmt.Sprintf("the colours take turns on %s", which)
	}
	const both = "both sides"
	out := []string{side(s.face, "the face"), side(s.back, "the back")}
	if side(s.face, both) == side(s.back, both) {
		out = []string{side(s.face, both)}
	}
	for _, sh := range s.shares() {
		if sh.Face+sh.Back < 2*hidden {
			out = append(out, sh.Name+" is hidden inside")
		}
	}
	first := strings.ToUpper(out[0][:1]) + out[0][1:]
	return strings.Join(append([]string{first}, out[1:]...), "; ") + "."
}

// meet are the pairs of cords that lie beside each other on either side, by index.
func (s sight) meet() [][2]int {
	found := map[[2]int]bool{}
	for _, g := range []grid{s.face, s.back} {
		for k := range g.Tall {
			for i := range g.Wide {
				a := g.Cord[k*g.Wide+i]
				for _, b := range []int{k*g.Wide + i + 1, (k+1)*g.Wide + i} {
					if b >= len(g.Cord) || b%g.Wide == 0 && b == k*g.Wide+i+1 {
						continue
					}
					if o := g.Cord[b]; a >= 0 && o >= 0 && a != o {
						found[[2]int{int(min(a, o)), int(max(a, o))}] = true
					}
				}
			}
		}
	}
	return slices.SortedFunc(maps.Keys(found), func(a, b [2]int) int { return (a[0]-b[0])*1000 + a[1] - b[1] })
}
