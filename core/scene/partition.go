package scene

import (
	"cmp"
	"maps"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/trace"
)

// partition says of every pixel which region it belongs to. A region is a stretch
// of one strand that is seen in one piece; what is too thin to be drawn belongs to
// its neighbour.
//
// Invariant: every pixel at which cord or metal is on top belongs to exactly one
// region; regions of the mat are trace.None, but for holes in a row, which are
// regions without a slice.
type partition struct {
	*raster
	c      *canvas
	region []int32
	part   []int32 // before what is thin was given away
	of     []area  // of each region
}

// area is what is known of a region.
type area struct {
	pixels, border int
	slice          int32 // one of it, -1 for the mat
	loose          bool  // of the mat: beside something that does not lie in a row
	into           int32 // the region that it was given to, itself where it stays
}

// Regions that are thinner, area by border, or smaller than these are given to a
// neighbour; diameters and square diameters.
const (
	thinCord, smallCord = 0.03, 0.035
	thinMat, smallMat   = 0.07, 0.08
)

// divide finds the regions of a raster.
func (g *raster) divide(c *canvas) *partition {
	p := &partition{raster: g, c: c, region: make([]int32, len(g.top[:g.wide*g.tall]))}
	p.label()
	p.part = slices.Clone(p.region)
	p.clean()
	return p
}

// label joins neighbours of one sheet.
func (p *partition) label() {
	n := p.wide * p.tall
	up := make([]int32, n)
	for i := range up {
		up[i] = int32(i)
	}
	find := func(i int32) int32 {
		for up[i] != i {
			up[i] = up[up[i]]
			i = up[i]
		}
		return i
	}
	join := func(a, b int) {
		i, j := find(int32(a)), find(int32(b))
		if i < j {
			up[j] = i
		} else {
			up[i] = j
		}
	}
	for y := range p.tall {
		for x := range p.wide {
			i := y*p.wide + x
			if x > 0 && p.oneSheet(p.c, i-1, i) {
				join(i-1, i)
			}
			if y > 0 && p.oneSheet(p.c, i-p.wide, i) {
				join(i-p.wide, i)
			}
		}
	}
	for i := range n {
		if root := find(int32(i)); root == int32(i) {
			p.region[i] = int32(len(p.of))
			p.of = append(p.of, area{slice: p.top[i], into: int32(len(p.of))})
		} else {
			p.region[i] = p.region[root]
		}
		p.of[p.region[i]].pixels++
	}
}

// meeting is the common border of two regions: how long it is, how much of it lies at
// nearly one depth, and whether both are of one strand.
type meeting struct {
	common, near int
	same         bool
}

// neighbours calls f with all pairs of pixels beside each other in two regions.
func (p *partition) neighbours(f func(a, b int)) {
	for y := range p.tall {
		for x := range p.wide {
			i := y*p.wide + x
			if x > 0 && p.region[i-1] != p.region[i] {
				f(i-1, i)
			}
			if y > 0 && p.region[i-p.wide] != p.region[i] {
				f(i-p.wide, i)
			}
		}
	}
}

// measure finds how long the borders are, which holes lie in a row, and which regions
// are too thin or too small, the smallest first; edge tells those that go on beyond
// what is painted.
func (p *partition) measure() (small []int32, edge []bool) {
	p.neighbours(func(a, b int) {
		for _, k := range [2][2]int{{a, b}, {b, a}} {
			p.of[p.region[k[0]]].border++
			if p.top[k[0]] < 0 && p.top[k[1]] >= 0 {
				if _, q := p.sample(k[1]); q.lie != knot.InRow && q.lie != knot.Filler {
					p.of[p.region[k[0]]].loose = true
				}
			}
		}
	})
	edge = make([]bool, len(p.of))
	for x := range p.wide {
		edge[p.region[x]], edge[p.region[(p.tall-1)*p.wide+x]] = true, true
	}
	for y := range p.tall {
		edge[p.region[y*p.wide]], edge[p.region[y*p.wide+p.wide-1]] = true, true
	}
	for i, a := range p.of {
		thin, little := thinCord, smallCord
		if a.slice < 0 {
			thin, little = thinMat, smallMat
		}
		if !edge[i] && (float64(a.pixels) < thin*p.d*float64(a.border) || float64(a.pixels) < little*p.d*p.d) {
			small = append(small, int32(i))
		}
	}
	slices.SortFunc(small, func(a, b int32) int {
		return cmp.Or(cmp.Compare(p.of[a].pixels, p.of[b].pixels), cmp.Compare(a, b))
	})
	return small, edge
}

// sides finds the common borders of some regions with others.
func (p *partition) sides(of []int32) map[int32]map[int32]*meeting {
	out := map[int32]map[int32]*meeting{}
	for _, i := range of {
		out[i] = map[int32]*meeting{}
	}
	p.neighbours(func(a, b int) {
		i, j := p.region[a], p.region[b]
		one, other := out[i], out[j]
		if one == nil && other == nil {
			return
		}
		near, same := 0, false
		if s, t := p.top[a], p.top[b]; s >= 0 && t >= 0 {
			if dz := float64(p.z[a] - p.z[b]); dz < 0.45*p.d && dz > -0.45*p.d {
				near = 1
			}
			same = p.slices[s].sheet == p.slices[t].sheet
		}
		for _, k := range []struct {
			of map[int32]*meeting
			to int32
		}{{one, j}, {other, i}} {
			if k.of == nil {
				continue
			}
			if k.of[k.to] == nil {
				k.of[k.to] = &meeting{}
			}
			q := k.of[k.to]
			q.common++
			q.near += near
			q.same = same
		}
	})
	return out
}

// weight is how strongly a region belongs to its neighbour.
func (s *meeting) weight() int {
	v := s.common
	if 2*s.near > s.common {
		v *= 6
	}
	if s.same {
		v *= 2
	}
	return v
}

// clean gives away what is too thin or too small.
func (p *partition) clean() {
	small, edge := p.measure()
	sides := map[int32]map[int32]*meeting{}
	if len(small) > 0 {
		sides = p.sides(small)
	}
	find := func(i int32) int32 {
		for p.of[i].into != i {
			i = p.of[i].into
		}
		return i
	}
	for _, i := range small {
		best, to := 0, int32(-1)
		for _, j := range slices.Sorted(maps.Keys(sides[i])) {
			if v := sides[i][j].weight(); v > best && find(j) != i {
				best, to = v, find(j)
			}
		}
		if to >= 0 {
			p.of[i].into = to
			p.of[to].pixels += p.of[i].pixels
		}
	}
	for i := range p.region {
		r := find(p.region[i])
		if p.of[r].slice < 0 && (edge[r] || p.of[r].loose) {
			r = trace.None
		}
		p.region[i] = r
	}
}

// sample is the slice of a cord that is on top at a pixel where there is one.
func (p *partition) sample(at int) (*tube, *sample) {
	i := p.top[at]
	t := p.slices[i].tube
	return p.c.tubes[t], &p.c.tubes[t].samples[i-p.first[t]]
}

// apart tells whether a border runs between neighbours of one region: the strand
// passes itself there.
func (p *partition) apart(a, b int) bool {
	return p.part[a] == p.part[b] && !p.oneSheet(p.c, a, b)
}
