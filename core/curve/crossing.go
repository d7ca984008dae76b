package curve

import (
	"fmt"
	"iter"
	"math"
	"math/cmplx"
	"sort"

	"gonum.org/v1/gonum/spatial/r3"
)

// Crossing is a place where one strand passes over another, as seen from +z.
//
// Over and Under are indices of curves; OverAt and UnderAt say where along
// them, in edges from the start (3.25 is a quarter of the way along the fourth
// edge). Sign is +1 for a right-handed crossing, -1 for a left-handed one.
type Crossing struct {
	Over, Under     int
	OverAt, UnderAt float64
	Sign            int
	X, Y            float64
}

// Crossings lists the crossings of the curves as seen from +z, ordered along
// the first curve's way. It refuses curves that meet in space, for there is no
// over and under there.
//
//	(1) reversing one curve flips the sign of its crossings with the others only
//	(2) a mirror in x flips every sign
//	(3) seen from behind (turn about y), over and under swap and signs stay
func Crossings(curves []Curve) ([]Crossing, error) {
	var out []Crossing
	runs := make([][]flatBox, len(curves))
	for i, c := range curves {
		runs[i] = runsOf(c)
	}
	for i, a := range curves {
		for j := i; j < len(curves); j++ {
			b := curves[j]
			na, nb := edges(a), edges(b)
			var close []int // the runs of b that may meet the run of a
			for m := range na {
				if m%inRun == 0 {
					close = close[:0]
					for k, box := range runs[j] {
						if box.meets(runs[i][m/inRun]) {
							close = append(close, k)
						}
					}
				}
				p0, p1 := edge(a, m)
				from := 0
				if i == j {
					from = m + 2
				}
				for n := range among(close, runs[j], p0, p1, from, nb) {
					if i == j && a.Closed && m == 0 && n == nb-1 {
						continue
					}
					q0, q1 := edge(b, n)
					s, t, cross, ok := meet(p0, p1, q0, q1)
					if !ok {
						continue
					}
					pz, qz := p0.Z+s*(p1.Z-p0.Z), q0.Z+t*(q1.Z-q0.Z)
					if pz == qz {
						return nil, fmt.Errorf("curve: strands %d and %d meet at edge %d and %d: no over or under", i, j, m, n)
					}
					c := Crossing{Over: i, Under: j, OverAt: float64(m) + s, UnderAt: float64(n) + t,
						X: p0.X + s*(p1.X-p0.X), Y: p0.Y + s*(p1.Y-p0.Y)}
					// y runs down the work, so the right-handed sense is that of -cross.
					sign := -cross
					if pz < qz {
						c.Over, c.Under, c.OverAt, c.UnderAt = c.Under, c.Over, c.UnderAt, c.OverAt
						sign = -sign
					}
					c.Sign = 1
					if sign < 0 {
						c.Sign = -1
					}
					out = append(out, c)
				}
			}
		}
	}
	return out, nil
}

// inRun is how many edges are looked at together first: most are far away.
const inRun = 24

// flatBox holds a run of edges in the plane of view.
type flatBox struct{ x0, x1, y0, y1 float64 }

func runsOf(c Curve) []flatBox {
	var out []flatBox
	for m := range edges(c) {
		if m%inRun == 0 {
			out = append(out, flatBox{math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)})
		}
		box := &out[len(out)-1]
		p, q := edge(c, m)
		box.x0, box.x1 = min(box.x0, p.X, q.X), max(box.x1, p.X, q.X)
		box.y0, box.y1 = min(box.y0, p.Y, q.Y), max(box.y1, p.Y, q.Y)
	}
	return out
}

// among are the edges, from one on, of those of the runs that an edge from p to q may meet,
// in order.
func among(runs []int, boxes []flatBox, p, q r3.Vec, from, end int) iter.Seq[int] {
	return func(yield func(int) bool) {
		for _, k := range runs {
			if (k+1)*inRun <= from || !boxes[k].near(p, q) {
				continue
			}
			for n := max(from, k*inRun); n < min(end, (k+1)*inRun); n++ {
				if !yield(n) {
					return
				}
			}
		}
	}
}

func (b flatBox) meets(c flatBox) bool {
	return c.x1 >= b.x0 && c.x0 <= b.x1 && c.y1 >= b.y0 && c.y0 <= b.y1
}

func (b flatBox) near(p, q r3.Vec) bool {
	return max(p.X, q.X) >= b.x0 && min(p.X, q.X) <= b.x1 && max(p.Y, q.Y) >= b.y0 && min(p.Y, q.Y) <= b.y1
}

func edges(c Curve) int {
	if c.Closed {
		return len(c.Points)
	}
	return len(c.Points) - 1
}

func edge(c Curve, i int) (r3.Vec, r3.Vec) {
	return c.Points[i], c.Points[(i+1)%len(c.Points)]
}

// meet tells where two edges cross in the plane of view; half-open, so that a
// crossing on a shared point counts once.
func meet(p0, p1, q0, q1 r3.Vec) (s, t, cross float64, ok bool) {
	if math.Max(p0.X, p1.X) < math.Min(q0.X, q1.X) || math.Max(q0.X, q1.X) < math.Min(p0.X, p1.X) ||
		math.Max(p0.Y, p1.Y) < math.Min(q0.Y, q1.Y) || math.Max(q0.Y, q1.Y) < math.Min(p0.Y, p1.Y) {
		return 0, 0, 0, false
	}
	ux, uy, vx, vy := p1.X-p0.X, p1.Y-p0.Y, q1.X-q0.X, q1.Y-q0.Y
	cross = ux*vy - uy*vx
	if cross == 0 {
		return 0, 0, 0, false
	}
	wx, wy := q0.X-p0.X, q0.Y-p0.Y
	s = (wx*vy - wy*vx) / cross
	t = (wx*uy - wy*ux) / cross
	return s, t, cross, s >= 0 && s < 1 && t >= 0 && t < 1
}

// Writhe is the sum of the signs of the crossings that a curve makes with
// itself.
func Writhe(cs []Crossing) int {
	w := 0
	for _, c := range cs {
		if c.Over == c.Under {
			w += c.Sign
		}
	}
	return w
}

// LinkingNumber is half the sum of the signs of the crossings between curves a
// and b; for closed curves it is a whole number and does not change however
// they are moved without passing through each other.
func LinkingNumber(cs []Crossing, a, b int) float64 {
	sum := 0
	for _, c := range cs {
		if (c.Over == a && c.Under == b) || (c.Over == b && c.Under == a) {
			sum += c.Sign
		}
	}
	return float64(sum) / 2
}

// Passage is one strand's part at one crossing.
type Passage struct {
	Crossing int
	At       float64
	Over     bool
}

// Passages lists, for each of n curves, the crossings it goes through in the
// order it meets them.
func Passages(cs []Crossing, n int) [][]Passage {
	out := make([][]Passage, n)
	for i, c := range cs {
		out[c.Over] = append(out[c.Over], Passage{i, c.OverAt, true})
		out[c.Under] = append(out[c.Under], Passage{i, c.UnderAt, false})
	}
	for _, p := range out {
		sort.Slice(p, func(a, b int) bool { return p[a].At < p[b].At })
	}
	return out
}

// Alternating reports whether every strand goes over and under by turns.
func Alternating(cs []Crossing, n int) bool {
	for _, p := range Passages(cs, n) {
		for i := 1; i < len(p); i++ {
			if p[i].Over == p[i-1].Over {
				return false
			}
		}
	}
	return true
}

// Alexander evaluates the Alexander polynomial of a knot or link of n closed
// curves at t, up to a unit of the ring (a sign and a power of t), from the
// arcs and crossings of its picture: at an over arc a with under arcs b before
// and c after, (1-t)a + tb - c = 0 for a right-handed crossing.
func Alexander(cs []Crossing, n int, t complex128) complex128 {
	m := len(cs)
	if m == 0 {
		if n == 1 {
			return 1
		}
		return 0
	}
	// Number the arcs: a new one begins after each passage under.
	passages := Passages(cs, n)
	arcs := 0
	over, before, after := make([]int, m), make([]int, m), make([]int, m)
	for _, ps := range passages {
		first, unders := arcs, 0
		for _, p := range ps {
			if !p.Over {
				unders++
			}
		}
		k := 0
		for _, p := range ps {
			here := first
			if unders > 0 {
				here = first + k%unders
			}
			if p.Over {
				over[p.Crossing] = here
				continue
			}
			before[p.Crossing] = here
			k++
			after[p.Crossing] = first + k%unders
		}
		arcs += max(unders, 1)
	}
	if arcs != m {
		return 0 // a curve that lies over all others: a split link
	}
	a := make([][]complex128, m)
	for i, c := range cs {
		a[i] = make([]complex128, m)
		x, y := t, complex128(-1)
		if c.Sign < 0 {
			x, y = -1, t
		}
		a[i][over[i]] += 1 - t
		a[i][before[i]] += x
		a[i][after[i]] += y
	}
	return det(a[:m-1])
}

// AlexanderPolynomial is the Alexander polynomial of a knot or link of n closed
// curves, its coefficients from the constant term up, divided by the power of t
// that it may carry, the first coefficient positive: {1, -1, 1} for a trefoil.
// It is read off values at roots of unity, which is exact as long as the
// coefficients stay far below 1e9. A split link gives none.
func AlexanderPolynomial(cs []Crossing, n int) []int {
	m := len(cs) + 1 // more values than the degree
	values := make([]complex128, m)
	for k := range values {
		values[k] = Alexander(cs, n, cmplx.Rect(1, 2*math.Pi*float64(k)/float64(m)))
	}
	var out []int
	for j := range m {
		sum := complex128(0)
		for k, v := range values {
			sum += v * cmplx.Rect(1, -2*math.Pi*float64(j*k%m)/float64(m))
		}
		out = append(out, int(math.Round(real(sum)/float64(m))))
	}
	for len(out) > 0 && out[0] == 0 {
		out = out[1:]
	}
	for len(out) > 0 && out[len(out)-1] == 0 {
		out = out[:len(out)-1]
	}
	if len(out) > 0 && out[0] < 0 {
		for i := range out {
			out[i] = -out[i]
		}
	}
	return out
}

// PlanarDiagram is the picture of n curves as a code: for each crossing the
// four arcs that meet there, counterclockwise from the arc that comes in below.
// Arcs are numbered from 0 along the curves, one after the other; on a closed
// curve the last goes on as the first.
func PlanarDiagram(cs []Crossing, n int, closed bool) [][4]int {
	out := make([][4]int, len(cs))
	first := 0
	for _, ps := range Passages(cs, n) {
		arcs := len(ps)
		if !closed {
			arcs++
		}
		for k, p := range ps {
			in, on := first+k, first+k+1
			if closed {
				on = first + (k+1)%len(ps)
			}
			c := &out[p.Crossing]
			switch {
			case !p.Over:
				c[0], c[2] = in, on
			case cs[p.Crossing].Sign > 0: // right-handed: the over strand comes in from the right
				c[3], c[1] = in, on
			default:
				c[1], c[3] = in, on
			}
		}
		first += max(arcs, 1)
	}
	return out
}

// det is the determinant of the leading square part of a.
func det(a [][]complex128) complex128 {
	n := len(a)
	d := complex128(1)
	for c := range n {
		best := c
		for r := c; r < n; r++ {
			if cmplx.Abs(a[r][c]) > cmplx.Abs(a[best][c]) {
				best = r
			}
		}
		if a[best][c] == 0 {
			return 0
		}
		if best != c {
			a[best], a[c] = a[c], a[best]
			d = -d
		}
		d *= a[c][c]
		for r := c + 1; r < n; r++ {
			f := a[r][c] / a[c][c]
			for k := c; k < n; k++ {
				a[r][k] -= f * a[c][k]
			}
		}
	}
	return d
}

// Determinant is the determinant of the knot or link of n closed curves: the
// absolute value of its Alexander polynomial at -1, a whole number that tells
// most small knots apart (trefoil 3, figure-eight 5, cinquefoil 5, three-twist
// 7, Borromean rings 16).
func Determinant(cs []Crossing, n int) int {
	return int(math.Round(cmplx.Abs(Alexander(cs, n, -1))))
}

// TurnY gives c turned about the work's axis by angle radians; a turn by pi is
// the look at the back.
func TurnY(c Curve, angle float64) Curve {
	sin, cos := math.Sincos(angle)
	return c.Map(func(p r3.Vec) r3.Vec {
		return r3.Vec{X: cos*p.X + sin*p.Z, Y: p.Y, Z: -sin*p.X + cos*p.Z}
	})
}
