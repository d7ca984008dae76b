package trace

import "math"

// Outline gives the closed borders of all regions that are wanted, taken together:
// what parts two of them is left out. The wanted lie on the left.
func (m *Map) Outline(wanted func(region int32) bool) []Stroke {
	leave := make([][]int, len(m.Nodes)) // sides that leave a node, packed
	var out []Stroke
	used := make([]bool, 2*len(m.Chains))
	var all []int
	for k := range m.Chains {
		c := &m.Chains[k]
		l, r := c.Left >= 0 && wanted(c.Left), c.Right >= 0 && wanted(c.Right)
		if l == r {
			continue
		}
		side := 2 * k
		from := c.From
		if r {
			side++
			from = c.To
		}
		if c.From < 0 {
			out = append(out, Stroke{Sides: []Side{{k, r}}, Closed: true})
			continue
		}
		leave[from] = append(leave[from], side)
		all = append(all, side)
	}
	for _, first := range all {
		if used[first] {
			continue
		}
		s := Stroke{Closed: true}
		for at := first; at >= 0 && !used[at]; {
			used[at] = true
			s.Sides = append(s.Sides, Side{at / 2, at%2 == 1})
			c := &m.Chains[at/2]
			to, e := c.To, 1
			if at%2 == 1 {
				to, e = c.From, 0
			}
			// On as what it goes on as, where that is one of these borders.
			next := -1
			for _, n := range leave[to] {
				if used[n] {
					continue
				}
				if next < 0 || c.through[e] == (end{n / 2, n % 2}) {
					next = n
				}
			}
			at = next
		}
		out = append(out, s)
	}
	return out
}

// Path is a line of curves.
type Path struct {
	Start  Point
	Curve  []Cubic
	Closed bool
}

// Path joins the chains of a stroke.
func (m *Map) Path(s Stroke) Path {
	out := Path{Closed: s.Closed}
	for i, sd := range s.Sides {
		start, curve := m.Walked(sd)
		if i == 0 {
			out.Start = start
		}
		out.Curve = append(out.Curve, curve...)
	}
	return out
}

// Walked is the curve of a chain walked one way.
func (m *Map) Walked(s Side) (Point, []Cubic) {
	c := &m.Chains[s.Chain]
	if !s.Back || len(c.Curve) == 0 {
		return c.Start, c.Curve
	}
	n := len(c.Curve)
	out := make([]Cubic, n)
	for i, q := range c.Curve {
		before := c.Start
		if i > 0 {
			before = c.Curve[i-1].End
		}
		out[n-1-i] = Cubic{q.B, q.A, before}
	}
	return c.Curve[n-1].End, out
}

// Flat is a path as points, parts of each curve long.
func (p Path) Flat(parts int) []Point {
	out := []Point{p.Start}
	at := p.Start
	for _, c := range p.Curve {
		for k := 1; k <= parts; k++ {
			out = append(out, c.At(at, float64(k)/float64(parts)))
		}
		at = c.End
	}
	return out
}

// Area is what a closed path encloses, below zero where it turns to the left on a
// screen.
func (p Path) Area() float64 {
	// Gauss's three places are exact for what is under the integral, of degree five.
	places := [3]float64{0.5 - math.Sqrt(0.15), 0.5, 0.5 + math.Sqrt(0.15)}
	weights := [3]float64{5.0 / 18, 8.0 / 18, 5.0 / 18}
	sum := 0.0
	at := p.Start
	for _, c := range p.Curve {
		for i, t := range places {
			s := 1 - t
			way := c.A.minus(at).times(3 * s * s).plus(c.B.minus(c.A).times(6 * s * t)).plus(c.End.minus(c.B).times(3 * t * t))
			sum += weights[i] * c.At(at, t).cross(way) / 2
		}
		at = c.End
	}
	return sum + at.cross(p.Start)/2
}

// Next is the chain that chain k goes on as at its last point, or at its first, and
// the end of that one; -1 for none.
func (m *Map) Next(k int, last bool) (chain int, atLast bool) {
	e := 0
	if last {
		e = 1
	}
	n := m.Chains[k].through[e]
	return n.chain, n.end == 1
}
