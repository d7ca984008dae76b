package colouring

import (
	"maps"
	"math"
	"slices"

	"nimblebight/core/colour"
	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// toDiameter is into how many cells a diameter of cord is divided.
const toDiameter = 3.0

// differs is the share of cells up to which two sights count as one: outlines of mirrored
// curves fall a little differently into cells.
const differs = 0.03

// quarters is how many sides a sight has all round.
const quarters = 4

// sight is what is seen of a piece: which of its pictures' colours in each cell of its
// sides, and what those colours are.
type sight struct {
	// sides are those that are seen turned by a quarter each, the face first. Of a piece
	// that is flat only the face and the back are looked at.
	sides    [quarters]grid
	round    bool
	sections []tiedAt
	cores    []facesOf
	own      map[string]float64 // the cords' own colours, each with how thick its thickest cord is
	names    map[string]string  // what colours are called
	number   int                // which of the looks it is
}

// shown is how many cells of a side show each colour.
func (g grid) shown() map[string]int {
	var by [256]int
	for _, c := range g.Colour {
		if c >= 0 {
			by[c]++
		}
	}
	out := map[string]int{}
	for c, n := range by {
		if n > 0 && c < len(g.paints) {
			out[g.paints[c]] += n
		}
	}
	return out
}

// tiedAt is a section that is tied, and where it lies, mm.
type tiedAt struct {
	index    int
	name     string
	from, to float64
	around   bool
}

// facesOf are the faces of what is tied round a core, each by itself.
type facesOf struct {
	section int
	faces   []grid
}

func (s sight) face() grid { return s.sides[0] }
func (s sight) back() grid { return s.sides[quarters/2] }

// name is what a colour is called.
func (s sight) name(hex string) string {
	if n := s.names[hex]; n != "" {
		return n
	}
	return colour.Name(hex)
}

// grid is one side of it.
type grid struct {
	scene.Cells
	paints []string       // the colours of its pictures
	counts map[string]int // how many of its cells show each
}

func sightOf(p plan.Plan, l plan.Layout) sight {
	out := sight{}
	for i, sec := range p.Sections {
		k, _ := knot.Get(sec.Do)
		if k.Bare || k.Mounts || k.Ends || i >= len(l.Sections) {
			continue
		}
		at := l.Sections[i]
		out.sections = append(out.sections, tiedAt{index: sec.Index, name: k.Name, from: at[0], to: at[1], around: sec.Around})
		out.round = out.round || sec.Around
	}
	for _, c := range l.Cores {
		if len(c.Sides) == 0 {
			continue
		}
		f := facesOf{section: -1}
		for _, at := range out.sections {
			if at.from <= c.At.Y && c.At.Y <= at.to {
				f.section = at.index
			}
		}
		for n := range c.Sides {
			f.faces = append(f.faces, grid{Cells: scene.CellsOf(scene.SideOf(l, c, n), scene.View{}, toDiameter)})
		}
		out.cores = append(out.cores, f)
		out.round = true
	}
	for k := range out.sides {
		if k%2 == 0 || out.round {
			out.sides[k].Cells = scene.CellsOf(l, scene.View{Turn: float64(k) * 360 / quarters}, toDiameter)
		}
	}
	return out
}

// in is the sight with other stuffs for its cords.
func (s sight) in(stuffs []cord.Stuff) sight {
	paints := scene.Colours(stuffs)
	s.own = map[string]float64{}
	for _, st := range stuffs {
		s.own[st.Colour] = math.Max(s.own[st.Colour], st.DrawnUp())
	}
	for k := range s.sides {
		s.sides[k].paints = paints
		s.sides[k].counts = s.sides[k].shown()
	}
	s.cores = slices.Clone(s.cores)
	for i, c := range s.cores {
		s.cores[i].faces = slices.Clone(c.faces)
		for k := range c.faces {
			s.cores[i].faces[k].paints = paints
		}
	}
	return s
}

// at is the colour in a cell, "" where no cord is seen.
func (g grid) at(i, k int) string {
	if i < 0 || k < 0 || i >= g.Wide || k >= g.Tall {
		return ""
	}
	c := g.Colour[k*g.Wide+i]
	if c < 0 || int(c) >= len(g.paints) {
		return ""
	}
	return g.paints[c]
}

// rows are those of a grid from one y to another, mm.
func (g grid) rows(from, to float64) grid {
	a := max(0, min(g.Tall, int((from-g.Y0)/math.Max(g.CellMM, 1e-9))))
	b := max(a, min(g.Tall, int(math.Ceil((to-g.Y0)/math.Max(g.CellMM, 1e-9)))))
	out := g
	out.Y0, out.Tall = g.Y0+float64(a)*g.CellMM, b-a
	out.Cord, out.Colour = g.Cord[a*g.Wide:b*g.Wide], g.Colour[a*g.Wide:b*g.Wide]
	return out
}

// same is the share of cells in which two sides show one colour, of those in which either
// shows cord.
func (g grid) same(o grid) float64 { return g.matches(o, false) }

// near tells whether two sides show about as much of each colour; where they do not they
// cannot be alike, whichever way they are held.
func (g grid) near(o grid) bool {
	off, all := 0, 0
	for c, n := range g.counts {
		off += max(0, n-o.counts[c])
		all += n
	}
	for c, n := range o.counts {
		off += max(0, n-g.counts[c])
		all += n
	}
	// Each cell that differs counts at most twice; all cells are at most the sum of both.
	return float64(off) <= 2*differs*float64(all)
}

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

// pose is a way to hold a piece: turned by so many quarters, or mirrored and then turned.
type pose struct {
	turned   int
	mirrored bool
}

// poses are those in which a piece is looked at: a flat one from both sides, what goes
// round from all four.
func (s sight) poses() []pose {
	step := 2
	if s.round {
		step = 1
	}
	var out []pose
	for _, mirrored := range []bool{false, true} {
		for t := 0; t < quarters; t += step {
			out = append(out, pose{t, mirrored})
		}
	}
	return out
}

// of is which side of a piece that is held so is seen where side k was.
func (p pose) of(k int) int {
	if p.mirrored {
		k = quarters - k
	}
	return (k + p.turned) % quarters
}

// looks tells whether a sight is what another one is, held in a pose.
func (s sight) looks(o sight, p pose) bool {
	for k := range s.sides {
		if k%2 != 0 && !s.round {
			continue
		}
		if a, b := s.sides[k], o.sides[p.of(k)]; !a.near(b) || a.matches(b, p.mirrored) < 1-differs {
			return false
		}
	}
	return true
}

// alike tells whether two sights are one, mirrored, turned over, or both.
func (s sight) alike(o sight) bool {
	if s.round != o.round {
		return false
	}
	return slices.ContainsFunc(s.poses(), func(p pose) bool { return s.looks(o, p) })
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
	face, back := s.face().count(anywhere), s.back().count(anywhere)
	total := func(m map[string]int) float64 {
		n := 0
		for _, v := range m {
			n += v
		}
		return math.Max(1, float64(n))
	}
	var out []Share
	for _, c := range s.face().paints {
		if slices.ContainsFunc(out, func(o Share) bool { return o.Colour == c }) {
			continue
		}
		out = append(out, Share{c, s.name(c), float64(face[c]) / total(face), float64(back[c]) / total(back)})
	}
	return out
}

// meet are the pairs of colours of different cords that lie beside each other on a side, by
// their index among those of the pictures.
func (s sight) meet() [][2]int {
	found := map[[2]int]bool{}
	for _, g := range s.sides {
		for k := range g.Tall {
			for i := range g.Wide {
				at := k*g.Wide + i
				for _, b := range []int{at + 1, at + g.Wide} {
					if b >= len(g.Cord) || b == at+1 && i+1 == g.Wide || g.Cord[at] < 0 || g.Cord[b] < 0 || g.Cord[at] == g.Cord[b] {
						continue
					}
					p, q := g.Colour[at], g.Colour[b]
					found[[2]int{int(min(p, q)), int(max(p, q))}] = true
				}
			}
		}
	}
	return slices.SortedFunc(maps.Keys(found), func(a, b [2]int) int { return (a[0]-b[0])*1000 + a[1] - b[1] })
}
