package loosen

import (
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// state is a knot while it is loosened. Nodes of all strands stand in one list.
type state struct {
	free     bool    // nodes are not held to their tight places
	grows    float64 // cord in the tight knot that it is grown from steadily; 0 where it is not
	longest  float64 // most cord that was in it since
	steady   float64 // how many times harder it is held to its tight places then
	top      float64 // y at which strands come in
	across   bool    // the picture lies across the work: places are [curve.EndOn]
	mid      float64 // depth of the middle of the knot, and half of what it takes of it
	deep     float64
	onto     float64 // how hard they are pulled to them when they are drawn up
	spread   float64 // how far out strands are held when they are loose; 0 where they are not
	axis     r3.Vec  // from which they are
	ring     *ring   // of strands that are alike; nil where they are not
	at, v, f []r3.Vec
	tightOf  [][]r3.Vec // where the nodes of each strand were
	strand   []int32    // of each node
	from, to []int      // the nodes of each strand
	fixed    []bool     // strands
	d        []float64
	h        []float64 // spacing of each strand's nodes
	q, grown float64
	law      []float64 // of each node, how much the laws of the picture count
	dots     []float64 // 1 of a node that stands for where its strand is seen as a dot

	planar  []pair
	touch   []pair
	apart   []cross
	since   int     // steps since the lists were made
	moved   float64 // farthest that a node may have gone since
	dt      float64
	good    int
	alpha   float64
	counted int
}

// pair are two nodes that want to be at least so far apart, and how much that counts.
type pair struct {
	i, j   int32
	want   float64
	counts float64
}

// cross are two crossings that want to be apart: the nodes about each.
type cross struct{ a, b [2]int32 }

func newState(p Problem) *state {
	s := &state{grown: 1, dt: 0.02, alpha: 0.1}
	s.top, s.across = math.Inf(1), p.Across
	for k, in := range p.Strands {
		s.top = math.Min(s.top, in.Points[0].Y)
		pts := withTails(in)
		if s.across {
			pts = curve.Curve{Points: pts}.Map(curve.EndOn).Points
		}
		long := curve.Curve{Points: pts}.Length()
		way := pts
		if p.Route != nil {
			way = s.onRoute(p.Route[k], in)
			long = (long + curve.Curve{Points: way}.Length()) / 2
		}
		n := max(8, int(long/nodeEvery)+1)
		s.add(even(way, n), even(pts, n), in.Diameter, in.Fixed)
	}
	if s.across {
		s.top = math.Inf(-1) // strands come in at the back of the picture
		s.depth(s.tightOf)
		s.ring = s.ringOf()
		s.spread = p.Spread
		for _, pts := range s.tightOf {
			s.axis = r3.Add(s.axis, r3.Scale(1/float64(len(s.tightOf)), pts[0]))
		}
	}
	s.ready()
	return s
}

// depth finds between which depths the strands are away from where they come in and where they
// hang.
func (s *state) depth(of [][]r3.Vec) {
	from, to := math.Inf(1), math.Inf(-1)
	for _, pts := range of {
		begin, end := pts[0], pts[len(pts)-1]
		for _, v := range pts {
			if math.Hypot(v.X-begin.X, v.Y-begin.Y) > lawAside && math.Hypot(v.X-end.X, v.Y-end.Y) > lawAside {
				from, to = math.Min(from, v.Z), math.Max(to, v.Z)
			}
		}
	}
	s.mid, s.deep = (from+to)/2, (to-from)/2+lawDeep
}

// add adds a strand of even nodes; tight is where its nodes are held and its ends stand.
func (s *state) add(pts, tight []r3.Vec, d float64, fixed bool) {
	s.from = append(s.from, len(s.at))
	s.at = append(s.at, pts...)
	s.to = append(s.to, len(s.at))
	s.fixed = append(s.fixed, fixed)
	s.d = append(s.d, d)
	s.h = append(s.h, curve.Curve{Points: pts}.Length()/float64(len(pts)-1))
	s.tightOf = append(s.tightOf, tight)
	for range pts {
		s.strand = append(s.strand, int32(len(s.from)-1))
	}
}

// ready readies a state whose strands are all there.
func (s *state) ready() {
	s.v, s.f = make([]r3.Vec, len(s.at)), make([]r3.Vec, len(s.at))
	s.law, s.dots = make([]float64, len(s.at)), make([]float64, len(s.at))
	s.lists()
}

// withTails puts straight ends on a strand.
func withTails(in Strand) []r3.Vec {
	n := len(in.Points)
	out := []r3.Vec{r3.Sub(in.Points[0], r3.Vec{Y: tailAbove})}
	out = append(out, in.Points...)
	return append(out, r3.Add(in.Points[n-1], r3.Vec{Y: tailBelow}))
}

func (s *state) moving() int {
	n := 0
	for _, f := range s.fixed {
		if !f {
			n++
		}
	}
	return n
}

func (s *state) length() float64 {
	sum := 0.0
	for k := range s.from {
		if !s.fixed[k] {
			sum += curve.Curve{Points: s.at[s.from[k]:s.to[k]]}.Length()
		}
	}
	return sum
}

// inKnot is how much cord there is beyond the straight ends that were put on.
func (s *state) inKnot() float64 {
	return s.length() - float64(s.moving())*(tailAbove+tailBelow)
}

// shape is the knot as it is now, as it hangs.
func (s *state) shape() [][]r3.Vec {
	if s.across {
		return Hung(s.shapeSeen())
	}
	return s.shapeSeen()
}

// shapeSeen is the knot as it is now, as it is looked at.
func (s *state) shapeSeen() [][]r3.Vec {
	out := make([][]r3.Vec, len(s.from))
	for k := range s.from {
		out[k] = slices.Clone(s.at[s.from[k]:s.to[k]])
	}
	return out
}

// findDots finds one node of every straight end that stands for all of it in the picture, so
// that no strand comes to lie before or behind it.
func (s *state) findDots() {
	clear(s.dots)
	for k := range s.from {
		for _, end := range [2]struct{ at, by int }{{s.from[k], 1}, {s.to[k] - 1, -1}} {
			i := end.at
			for i+end.by >= s.from[k] && i+end.by < s.to[k] && s.law[i+end.by] == 0 {
				i += end.by
			}
			s.dots[i] = 1
		}
	}
}

// lists finds the crossings of the picture, the pairs of nodes that are near, and how far
// the laws of the picture hold along each strand.
func (s *state) lists() {
	s.since, s.moved = 0, 0
	curves := make([]curve.Curve, len(s.from))
	for k := range s.from {
		curves[k] = curve.Curve{Points: s.at[s.from[k]:s.to[k]]}
	}
	crossings, err := curve.Crossings(curves)
	if err != nil {
		return // two meet in a point of the picture's depth: the next step parts them
	}
	type at struct {
		strand int
		arc    float64 // of this strand
		other  float64 // of the other one
	}
	by := map[[2]int][]at{}
	first, last := make([]float64, len(s.from)), make([]float64, len(s.from))
	passed := make([][]float64, len(s.from)) // where each strand is crossed
	for k := range first {
		first[k], last[k] = math.Inf(1), math.Inf(-1)
	}
	for _, c := range crossings {
		o, u := c.OverAt*s.h[c.Over], c.UnderAt*s.h[c.Under]
		by[[2]int{c.Over, c.Under}] = append(by[[2]int{c.Over, c.Under}], at{c.Over, o, u})
		if c.Over != c.Under {
			by[[2]int{c.Under, c.Over}] = append(by[[2]int{c.Under, c.Over}], at{c.Under, u, o})
		} else {
			by[[2]int{c.Over, c.Under}] = append(by[[2]int{c.Over, c.Under}], at{c.Under, u, o})
		}
		passed[c.Over], passed[c.Under] = append(passed[c.Over], o), append(passed[c.Under], u)
		first[c.Over], last[c.Over] = math.Min(first[c.Over], o), math.Max(last[c.Over], o)
		first[c.Under], last[c.Under] = math.Min(first[c.Under], u), math.Max(last[c.Under], u)
	}
	for k := range s.from {
		n := s.to[k] - s.from[k]
		for i := range n {
			arc := float64(i) * s.h[k]
			off := math.Max(first[k]-arc, arc-last[k]) // beyond its crossings
			s.law[s.from[k]+i] = math.Max(0, math.Min(1, (lawTo-off)/(lawTo-lawFrom)))
			switch {
			case first[k] > last[k]:
				s.law[s.from[k]+i] = 0
			case s.across:
				off := math.Abs(s.at[s.from[k]+i].Z-s.mid) - s.deep
				s.law[s.from[k]+i] = math.Max(0, math.Min(1, 1-off/lawFades))
			}
		}
	}
	if s.across {
		s.findDots()
	}
	far := planarFar * s.q * s.grown
	s.planar, s.touch = s.planar[:0], s.touch[:0]
	const near = 1.6 // for contact
	cell := math.Max(far, near)
	grid := map[[2]int32][]int32{}
	key := func(v r3.Vec) [2]int32 {
		return [2]int32{int32(math.Floor(v.X / cell)), int32(math.Floor(v.Y / cell))}
	}
	for i, v := range s.at {
		grid[key(v)] = append(grid[key(v)], int32(i))
	}
	for i, v := range s.at {
		a := int(s.strand[i])
		k := key(v)
		for dx := int32(-1); dx <= 1; dx++ {
			for dy := int32(-1); dy <= 1; dy++ {
				for _, j := range grid[[2]int32{k[0] + dx, k[1] + dy}] {
					if int(j) <= i {
						continue
					}
					b := int(s.strand[j])
					if s.fixed[a] && s.fixed[b] {
						continue
					}
					w := s.at[j]
					arc := math.Inf(1)
					if a == b {
						arc = float64(int(j)-i) * s.h[a]
					}
					flat := math.Hypot(v.X-w.X, v.Y-w.Y)
					thick := (s.d[a] + s.d[b]) / 2
					if arc > 1.6*thick && flat < near && math.Abs(v.Z-w.Z) < near {
						s.touch = append(s.touch, pair{int32(i), j, thick, 1})
					}
					ai, aj := float64(i-s.from[a])*s.h[a], float64(int(j)-s.from[b])*s.h[b]
					counts := s.law[i] * s.law[j]
					if a != b && s.across {
						counts = math.Max(s.law[i], s.dots[i]) * math.Max(s.law[j], s.dots[j])
					}
					if flat >= far || arc < 1.7*far || counts == 0 {
						continue
					}
					if s.across && a == b && !slices.ContainsFunc(passed[a], func(arc float64) bool { return arc > ai && arc < aj }) {
						continue // a bight that nothing crosses may lie as narrow as it bends
					}
					want := far
					for _, c := range by[[2]int{a, b}] {
						u, x := math.Abs(ai-c.arc), math.Abs(aj-c.other)
						want = math.Min(want, math.Sqrt(math.Max(0, u*u+x*x-u*x)))
					}
					if want > 0.05 {
						s.planar = append(s.planar, pair{int32(i), j, want, counts})
					}
				}
			}
		}
	}
	s.apart = s.apart[:0]
	if s.across { // what stands or hangs is seen as a dot, and crosses nothing
		crossings = slices.DeleteFunc(crossings, func(c curve.Crossing) bool {
			return s.law[s.from[c.Over]+int(c.OverAt)]*s.law[s.from[c.Under]+int(c.UnderAt)] == 0
		})
	}
	node := func(strand int, at float64) int32 {
		return int32(min(s.to[strand]-1, s.from[strand]+int(at+0.5)))
	}
	for i, c := range crossings {
		for _, e := range crossings[:i] {
			if math.Hypot(c.X-e.X, c.Y-e.Y) > crossFar*s.q*s.grown+0.5 {
				continue
			}
			if s.fixed[c.Over] && (e.Over == c.Over || e.Under == c.Over) || s.fixed[c.Under] && (e.Over == c.Under || e.Under == c.Under) {
				continue // both on one filler: they cannot part
			}
			s.apart = append(s.apart, cross{[2]int32{node(c.Over, c.OverAt), node(c.Under, c.UnderAt)}, [2]int32{node(e.Over, e.OverAt), node(e.Under, e.UnderAt)}})
		}
	}
}
