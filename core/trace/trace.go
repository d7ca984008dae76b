// Package trace finds the borders of a partition: a grid of pixels each of which
// belongs to one region. Every border is traced once and shared by the two regions
// that it parts, so no outline is open and no two outlines gape.
//
// Call [Borders]. Lengths are pixels; x to the right, y down, zero the grid's
// upper left corner.
package trace

import "math"

// Point is a place in the grid, pixels.
type Point struct{ X, Y float64 }

func (p Point) plus(q Point) Point    { return Point{p.X + q.X, p.Y + q.Y} }
func (p Point) minus(q Point) Point   { return Point{p.X - q.X, p.Y - q.Y} }
func (p Point) times(k float64) Point { return Point{p.X * k, p.Y * k} }
func (p Point) dot(q Point) float64   { return p.X*q.X + p.Y*q.Y }
func (p Point) cross(q Point) float64 { return p.X*q.Y - p.Y*q.X }
func (p Point) length() float64       { return math.Sqrt(p.X*p.X + p.Y*p.Y) }

// To is the way from one point to another.
func (p Point) To(q Point) float64    { return q.minus(p).length() }
func (p Point) middle(q Point) Point  { return Point{(p.X + q.X) / 2, (p.Y + q.Y) / 2} }
func (p Point) angle(q Point) float64 { return math.Atan2(math.Abs(p.cross(q)), p.dot(q)) }
func (p Point) unit() Point {
	if h := p.length(); h > 0 {
		return p.times(1 / h)
	}
	return p
}

// None is the region of a pixel at which there is nothing, Frame that of all
// beyond the grid. Between these two there is no border.
const (
	None  int32 = -1
	Frame int32 = -2
)

// Grid is a partition.
type Grid struct {
	Wide, Tall int
	// Region and Depth of each pixel, row by row; the greater depth is nearer to
	// the eye. Depth may be nil.
	Region []int32
	Depth  []float32
	// Apart tells whether a border runs between two neighbours of one region; nil
	// where none does.
	Apart func(a, b int) bool
	// Place is where the border between neighbours a and b lies, from 0 at the
	// middle of a to 1 at that of b; b is right of a or below it.
	Place func(a, b int) float64
	// Tolerance is how far a fitted curve may leave the traced points.
	Tolerance float64
	// Pins are rows at which curves pass through the very points that were traced, so
	// that two grids that meet there agree.
	Pins []float64
	// Prune takes away borders inside a region that end in it and are no longer than
	// this.
	Prune float64
	// From and To, where To is above From, trace only these rows; what is pruned is
	// still judged by all.
	From, To int
}

// Chain is a border between two nodes, or a closed one. Walked from its first
// point on, Left is the region on the left hand.
type Chain struct {
	Left, Right int32
	From, To    int // nodes, -1 for a closed chain
	// Jump is by how much the left side is nearer to the eye, on average.
	Jump float64
	// Curve runs from Start on. Corners are the pieces of it that end in one.
	Start   Point
	Curve   []Cubic
	Corners []int

	points  []Point
	through [2]end   // the chain that this one goes on as, at either end
	fixed   [2]Point // direction at either end where it goes on, along the chain
	jumps   int
}

// Cubic is a piece of a curve from where the one before ends: two handles and an
// end.
type Cubic struct{ A, B, End Point }

// end is one end of a chain: 0 where it starts, 1 where it stops; chain is -1
// for none.
type end struct{ chain, end int }

// Node is where borders meet.
type Node struct {
	At   Point
	ends []end
}

// Degree is how many borders meet there.
func (n Node) Degree() int { return len(n.ends) }

// Map holds the borders of a partition.
//
// Laws: every region lies left of the same number of chains that come to a node
// as leave it, so its outlines are closed; the chains of a region enclose it.
type Map struct {
	Chains []Chain
	Nodes  []Node
}

// steps along the four ways from a corner: right, down, left, up.
var steps = [4][2]int{{1, 0}, {0, 1}, {-1, 0}, {0, -1}}

type tracer struct {
	g     Grid
	wide  int     // corners in a row
	ways  []uint8 // of each corner: a bit for each way in which a border runs
	gone  []uint8 // those walked
	nodes []int32 // of each corner, -1 for none
	// The rows that count now, and the ways that were pruned at some corners.
	from, to int
	pruned   map[[2]int]uint8
	out      Map
}

// Borders traces a partition.
func Borders(g Grid) *Map {
	t := tracer{g: g, wide: g.Wide + 1}
	if g.Apart != nil && g.Prune > 0 {
		t.take(0, g.Tall)
		t.mark()
		t.prune()
	}
	if g.To > g.From {
		t.take(g.From, g.To)
	} else {
		t.take(0, g.Tall)
	}
	t.mark()
	t.find()
	t.chains()
	t.pair()
	t.draw()
	return &t.out
}

// take begins with the corners of some rows.
func (t *tracer) take(from, to int) {
	t.from, t.to = from, to
	t.ways = make([]uint8, t.wide*(to-from+1))
}

// corner is the number of a corner, at where it lies.
func (t *tracer) corner(x, y int) int { return (y-t.from)*t.wide + x }

func (t *tracer) at(c int) (x, y int) { return c % t.wide, c/t.wide + t.from }

// region of a pixel, also beyond the grid.
func (t *tracer) region(x, y int) int32 {
	if x < 0 || y < t.from || x >= t.g.Wide || y >= t.to {
		return Frame
	}
	return t.g.Region[y*t.g.Wide+x]
}

// border tells whether a border runs from corner c the way w, between two pixels.
func (t *tracer) border(c, w, x, y, x2, y2 int) bool {
	a, b := t.region(x, y), t.region(x2, y2)
	if a != b {
		return a >= 0 || b >= 0
	}
	if a < 0 || t.g.Apart == nil || !t.g.Apart(y*t.g.Wide+x, y2*t.g.Wide+x2) {
		return false
	}
	cx, cy := t.at(c)
	return t.pruned[[2]int{cx, cy}]&(1<<w) == 0
}

// mark finds the borders between neighbours.
func (t *tracer) mark() {
	for y := t.from; y <= t.to; y++ {
		for x := 0; x <= t.g.Wide; x++ {
			c := t.corner(x, y)
			if x < t.g.Wide && t.border(c, 0, x, y-1, x, y) {
				t.ways[c] |= 1
				t.ways[c+1] |= 4
			}
			if y < t.to && t.border(c, 1, x-1, y, x, y) {
				t.ways[c] |= 2
				t.ways[c+t.wide] |= 8
			}
		}
	}
}

// find finds the nodes.
func (t *tracer) find() {
	t.gone = make([]uint8, len(t.ways))
	t.nodes = make([]int32, len(t.ways))
	for c, w := range t.ways {
		t.nodes[c] = -1
		if w == 0 {
			continue
		}
		x, y := t.at(c)
		if n := ones[w]; n != 2 || t.kinds(x, y) > 2 {
			t.nodes[c] = int32(len(t.out.Nodes))
			t.out.Nodes = append(t.out.Nodes, Node{At: Point{float64(x), float64(y)}})
		}
	}
}

// prune takes away what ends inside a region after a short way.
func (t *tracer) prune() {
	t.pruned = map[[2]int]uint8{}
	for c := range t.ways {
		if ones[t.ways[c]] != 1 {
			continue
		}
		var walked [][2]int
		for at := c; ones[t.ways[at]] == 1 || len(walked) > 0 && ones[t.ways[at]] == 2; {
			w := 0
			for ; w < 4; w++ {
				if t.ways[at]&(1<<w) == 0 {
					continue
				}
				if len(walked) > 0 && w == (walked[len(walked)-1][1]+2)%4 {
					continue
				}
				break
			}
			if w == 4 || float64(len(walked)) > t.g.Prune {
				break
			}
			walked = append(walked, [2]int{at, w})
			at += steps[w][0] + steps[w][1]*t.wide
			if at == c {
				break
			}
		}
		if float64(len(walked)) > t.g.Prune {
			continue
		}
		for _, s := range walked {
			to := s[0] + steps[s[1]][0] + steps[s[1]][1]*t.wide
			there, back := uint8(1)<<s[1], uint8(1)<<((s[1]+2)%4)
			t.ways[s[0]] &^= there
			t.ways[to] &^= back
			for _, k := range []struct {
				c   int
				way uint8
			}{{s[0], there}, {to, back}} {
				x, y := t.at(k.c)
				t.pruned[[2]int{x, y}] |= k.way
			}
		}
	}
}

var ones = [16]int{0, 1, 1, 2, 1, 2, 2, 3, 1, 2, 2, 3, 2, 3, 3, 4}

// kinds counts the regions round a corner.
func (t *tracer) kinds(x, y int) int {
	r := [4]int32{t.region(x-1, y-1), t.region(x, y-1), t.region(x-1, y), t.region(x, y)}
	n := 0
	for i, a := range r {
		fresh := 1
		for _, b := range r[:i] {
			if a == b {
				fresh = 0
			}
		}
		n += fresh
	}
	return n
}

// chains walks all borders, from node to node and then those without one.
func (t *tracer) chains() {
	for c := range t.ways {
		if t.nodes[c] < 0 || t.ways[c] == t.gone[c] {
			continue
		}
		for w := range 4 {
			if t.ways[c]&^t.gone[c]&(1<<w) != 0 {
				t.walk(c, w)
			}
		}
	}
	for c := range t.ways {
		for w := 0; w < 4 && t.ways[c] != t.gone[c]; w++ {
			if t.ways[c]&^t.gone[c]&(1<<w) != 0 {
				t.walk(c, w)
			}
		}
	}
}

// sides are the pixels left and right of the step from corner (x, y) the way w.
func sides(x, y, w int) (lx, ly, rx, ry int) {
	switch w {
	case 0:
		return x, y - 1, x, y
	case 1:
		return x, y, x - 1, y
	case 2:
		return x - 1, y, x - 1, y - 1
	}
	return x - 1, y - 1, x, y - 1
}

func (t *tracer) walk(c, w int) {
	k := len(t.out.Chains)
	ch := Chain{From: -1, To: -1, through: [2]end{{-1, 0}, {-1, 0}}}
	begin := c
	if n := t.nodes[c]; n >= 0 {
		ch.From = int(n)
		t.out.Nodes[n].ends = append(t.out.Nodes[n].ends, end{k, 0})
		ch.points = append(ch.points, t.out.Nodes[n].At)
	}
	for {
		x, y := t.at(c)
		lx, ly, rx, ry := sides(x, y, w)
		left, right := t.region(lx, ly), t.region(rx, ry)
		a, b := -1, -1
		if left != Frame {
			a = ly*t.g.Wide + lx
		}
		if right != Frame {
			b = ry*t.g.Wide + rx
		}
		ch.Left, ch.Right = left, right
		at := 0.5
		p, q := a, b // p above or left of q
		if lx > rx || ly > ry {
			p, q = b, a
		}
		if p >= 0 && q >= 0 {
			at = t.g.Place(p, q)
			if t.g.Depth != nil {
				ch.Jump += float64(t.g.Depth[a] - t.g.Depth[b])
				ch.jumps++
			}
		}
		if lx != rx {
			ch.points = append(ch.points, Point{float64(min(lx, rx)) + 0.5 + at, float64(ly) + 0.5})
		} else {
			ch.points = append(ch.points, Point{float64(lx) + 0.5, float64(min(ly, ry)) + 0.5 + at})
		}
		t.gone[c] |= 1 << w
		c += steps[w][0] + steps[w][1]*t.wide
		back := (w + 2) % 4
		t.gone[c] |= 1 << back
		if n := t.nodes[c]; n >= 0 {
			ch.To = int(n)
			t.out.Nodes[n].ends = append(t.out.Nodes[n].ends, end{k, 1})
			ch.points = append(ch.points, t.out.Nodes[n].At)
			break
		}
		if c == begin {
			break
		}
		for w = range 4 {
			if w != back && t.ways[c]&(1<<w) != 0 {
				break
			}
		}
	}
	if ch.jumps > 0 {
		ch.Jump /= float64(ch.jumps)
	}
	t.out.Chains = append(t.out.Chains, ch)
}

// owner is the region whose edge a chain is, None where neither side is nearer.
func (c *Chain) owner() int32 {
	switch {
	case c.Left < 0 && c.Right < 0:
		return None
	case c.Right < 0 || c.Left >= 0 && c.Jump > 0:
		return c.Left
	}
	return c.Right
}

// inward is the direction in which a chain leaves its end.
func (c *Chain) inward(e int) Point {
	n := len(c.points)
	a, b := c.points[min(1, n-1)], c.points[min(5, n-1)]
	if e == 1 {
		a, b = c.points[max(0, n-2)], c.points[max(0, n-6)]
	}
	if n < 4 {
		a, b = c.points[0], c.points[n-1]
		if e == 1 {
			a, b = b, a
		}
	}
	return b.minus(a).unit()
}

// Two borders that meet go on as each other where they bend by less than mostBend,
// or with sameOwner more where one region owns both, radians.
const (
	mostBend  = 0.55
	sameOwner = 0.6
)

// pair finds at each node which borders go on as which.
func (t *tracer) pair() {
	for i := range t.out.Nodes {
		n := &t.out.Nodes[i]
		free := true // no border goes through
		for {
			best, a, b := mostBend, -1, -1
			for p := range n.ends {
				for q := p + 1; q < len(n.ends); q++ {
					ep, eq := n.ends[p], n.ends[q]
					cp, cq := &t.out.Chains[ep.chain], &t.out.Chains[eq.chain]
					if cp.through[ep.end].chain >= 0 || cq.through[eq.end].chain >= 0 {
						continue
					}
					bend := cp.inward(ep.end).times(-1).angle(cq.inward(eq.end))
					if o := cp.owner(); o >= 0 && o == cq.owner() {
						bend -= sameOwner
					}
					if cp.Framed() != cq.Framed() { // the frame is no border to go on as
						continue
					}
					if bend < best {
						best, a, b = bend, p, q
					}
				}
			}
			if a < 0 {
				break
			}
			ea, eb := n.ends[a], n.ends[b]
			t.out.Chains[ea.chain].through[ea.end] = eb
			t.out.Chains[eb.chain].through[eb.end] = ea
			free = false
		}
		// It lies in the middle of what meets there, or on what goes through.
		var sum Point
		count := 0.0
		for _, e := range n.ends {
			c := &t.out.Chains[e.chain]
			if !free && c.through[e.end].chain < 0 {
				continue
			}
			sum = sum.plus(c.points[second(c, e.end)])
			count++
		}
		if count > 0 && !t.atFrame(n) {
			n.At = sum.times(1 / count)
		}
	}
}

// atFrame tells whether a node lies at the grid's frame, where it stays.
func (t *tracer) atFrame(n *Node) bool {
	return n.At.X <= 0 || n.At.Y <= float64(t.from) || n.At.X >= float64(t.g.Wide) || n.At.Y >= float64(t.to)
}

// second is the point of a chain next to its end.
func second(c *Chain, e int) int {
	if e == 0 {
		return min(1, len(c.points)-1)
	}
	return max(0, len(c.points)-2)
}

// Framed tells whether a chain runs along the grid's frame.
func (c *Chain) Framed() bool { return c.Left == Frame || c.Right == Frame }

// draw smooths what goes through nodes as one stroke, and fits every chain.
func (t *tracer) draw() {
	cs := t.out.Chains
	for i := range cs {
		c := &cs[i]
		for e, n := range [2]int{c.From, c.To} {
			if n >= 0 {
				c.points[(len(c.points)-1)*e] = t.out.Nodes[n].At
			}
		}
	}
	for _, s := range t.out.Strokes(nil) {
		t.smooth(s)
	}
	for i := range cs {
		c := &cs[i]
		for e, n := range [2]int{c.From, c.To} {
			if n >= 0 {
				c.points[(len(c.points)-1)*e] = t.out.Nodes[n].At
				if c.through[e].chain < 0 {
					c.trim(e)
				}
			}
		}
	}
	for i := range cs {
		cs[i].directions(cs)
	}
	for i := range cs {
		cs[i].fit(t.g.Tolerance, t.g.Pins)
	}
}

// trim drops points that lie nearly at an end where the chain meets another.
func (c *Chain) trim(e int) {
	for len(c.points) > 3 {
		n := len(c.points)
		at, next := 0, 1
		if e == 1 {
			at, next = n-1, n-2
		}
		if c.points[at].To(c.points[next]) > 0.7 {
			return
		}
		c.points = append(c.points[:next], c.points[next+1:]...)
	}
}

// Side is a chain walked one way.
type Side struct {
	Chain int
	Back  bool
}

// Stroke is chains that go on as one another.
type Stroke struct {
	Sides  []Side
	Closed bool
}

// Strokes joins the chains that are wanted, all for nil, into strokes as long as
// they go on as one another.
func (m *Map) Strokes(wanted func(c *Chain) bool) []Stroke {
	done := make([]bool, len(m.Chains))
	use := func(k int) bool { return k >= 0 && !done[k] && (wanted == nil || wanted(&m.Chains[k])) }
	var out []Stroke
	follow := func(k, e int) Stroke {
		var s Stroke
		for use(k) {
			done[k] = true
			s.Sides = append(s.Sides, Side{k, e == 1})
			next := m.Chains[k].through[1-e]
			if next.chain >= 0 && done[next.chain] && next == (end{s.Sides[0].Chain, back(s.Sides[0])}) {
				s.Closed = true
			}
			k, e = next.chain, next.end
		}
		if len(s.Sides) == 1 && m.Chains[s.Sides[0].Chain].From < 0 {
			s.Closed = true
		}
		return s
	}
	for pass := range 2 {
		for k := range m.Chains {
			for e := range 2 {
				last := m.Chains[k].through[e].chain
				if pass == 0 && last >= 0 && (wanted == nil || wanted(&m.Chains[last])) {
					continue
				}
				if use(k) {
					out = append(out, follow(k, e))
				}
			}
		}
	}
	return out
}

func back(s Side) int {
	if s.Back {
		return 1
	}
	return 0
}

// smooth evens the points of a stroke and puts its nodes onto it.
func (t *tracer) smooth(s Stroke) {
	var pts []Point
	type place struct{ from, n int }
	places := make([]place, len(s.Sides))
	for i, sd := range s.Sides {
		c := &t.out.Chains[sd.Chain]
		n := len(c.points)
		at := place{from: len(pts), n: n}
		if i > 0 { // its first point is the last of the chain before
			at.from--
		}
		for k := range n {
			if i > 0 && k == 0 {
				continue
			}
			if sd.Back {
				pts = append(pts, c.points[n-1-k])
			} else {
				pts = append(pts, c.points[k])
			}
		}
		places[i] = at
	}
	closed := s.Closed
	if closed && len(pts) > 1 && pts[0] == pts[len(pts)-1] {
		pts = pts[:len(pts)-1]
	}
	framed := t.out.Chains[s.Sides[0].Chain].Framed()
	if !framed {
		taubin(pts, closed)
	}
	for i, sd := range s.Sides {
		c := &t.out.Chains[sd.Chain]
		n := places[i].n
		for k := range n {
			p := pts[(places[i].from+k)%len(pts)]
			if sd.Back {
				c.points[n-1-k] = p
			} else {
				c.points[k] = p
			}
		}
		for e, node := range [2]int{c.From, c.To} {
			if node >= 0 && c.through[e].chain >= 0 && !framed {
				t.out.Nodes[node].At = c.points[(n-1)*e]
			}
		}
	}
}

// taubin evens a line without shrinking it (Taubin 1995, rounds of 0.6 and -0.62).
func taubin(pts []Point, closed bool) {
	n := len(pts)
	if n < 3 {
		return
	}
	old := make([]Point, n)
	for range 4 {
		for _, k := range [2]float64{0.6, -0.62} {
			copy(old, pts)
			for i := range pts {
				a, b := i-1, i+1
				if closed {
					a, b = (i+n-1)%n, (i+1)%n
				} else if i == 0 || i == n-1 {
					continue
				}
				pts[i] = old[i].plus(old[a].middle(old[b]).minus(old[i]).times(k))
			}
		}
	}
}

// directions sets the direction of a chain at the ends where it goes on.
func (c *Chain) directions(all []Chain) {
	for e, next := range c.through {
		if next.chain < 0 {
			continue
		}
		mine, other := c.along(e, 2), all[next.chain].along(next.end, 2)
		way := mine.minus(other).unit() // into this chain
		if e == 1 {
			way = way.times(-1)
		}
		c.fixed[e] = way
	}
}

// along is the point k steps into a chain from its end.
func (c *Chain) along(e, k int) Point {
	n := len(c.points)
	if e == 0 {
		return c.points[min(k, n-1)]
	}
	return c.points[max(0, n-1-k)]
}
