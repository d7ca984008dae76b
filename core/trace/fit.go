package trace

import (
	"math"
	"slices"
)

// A corner is a bend of more than cornerBend radians within four points.
const cornerBend = 1.0

// fit puts curves through a chain's points, parted at its corners.
func (c *Chain) fit(tolerance float64, pins []float64) {
	pts := c.points
	if len(pts) == 0 {
		return
	}
	closed := c.From < 0
	if closed {
		at := 0
		if k, ok := sharpest(pts, true); ok {
			at = k
		}
		round := make([]Point, 0, len(pts)+1)
		round = append(append(append(round, pts[at:]...), pts[:at]...), pts[at])
		pts = round
		if _, ok := sharpest(c.points, true); !ok && len(pts) > 6 {
			way := pts[2].minus(pts[len(pts)-3]).unit()
			c.fixed = [2]Point{way, way}
		}
	}
	pts = pinned(pts, pins)
	c.Start = pts[0]
	c.Curve, c.Corners = c.Curve[:0], nil
	cut := breaks(pts, pins)
	first := c.fixed[0]
	from := 0
	for k := 0; k <= len(cut); k++ {
		to, last, next := len(pts)-1, c.fixed[1], Point{}
		if k < len(cut) {
			to, last = cut[k].at, cut[k].way
			next = last
		}
		part := pts[from : to+1]
		if first == (Point{}) {
			first = heading(part)
		}
		if last == (Point{}) {
			last = heading(reversed(part)).times(-1)
		}
		c.Curve = cubics(c.Curve, part, first, last.times(-1), tolerance, 0)
		if k < len(cut) && cut[k].way == (Point{}) {
			c.Corners = append(c.Corners, len(c.Curve)-1)
		}
		from, first = to, next
	}
}

// pinned has a point wherever a line crosses a row.
func pinned(pts []Point, rows []float64) []Point {
	for _, y := range rows {
		out := make([]Point, 0, len(pts)+2)
		for i, p := range pts {
			if i > 0 {
				if a := pts[i-1]; (a.Y < y) != (p.Y < y) && a.Y != y && p.Y != y {
					out = append(out, Point{a.X + (p.X-a.X)*(y-a.Y)/(p.Y-a.Y), y})
				}
			}
			out = append(out, p)
		}
		pts = out
	}
	return pts
}

// cutAt is a point at which a line is cut to be fitted: a corner, or a pin that it
// passes in a direction.
type cutAt struct {
	at  int
	way Point
}

// breaks are the points at which a line is cut.
func breaks(pts []Point, rows []float64) []cutAt {
	var out []cutAt
	for _, i := range corners(pts) {
		out = append(out, cutAt{at: i})
	}
	for i := 1; i+1 < len(pts); i++ {
		if slices.Contains(rows, pts[i].Y) && !slices.ContainsFunc(out, func(c cutAt) bool { return c.at == i }) {
			out = append(out, cutAt{i, pts[min(len(pts)-1, i+3)].minus(pts[max(0, i-3)]).unit()})
		}
	}
	slices.SortFunc(out, func(a, b cutAt) int { return a.at - b.at })
	return out
}

func reversed(pts []Point) []Point {
	n := min(len(pts), 5)
	out := make([]Point, n)
	for i := range n {
		out[i] = pts[len(pts)-1-i]
	}
	return out
}

// heading is the direction in which points begin.
func heading(pts []Point) Point {
	return pts[min(3, len(pts)-1)].minus(pts[0]).unit()
}

// bend is the angle at point i between what lies two points before and after.
func bend(pts []Point, i int, closed bool) float64 {
	n := len(pts)
	a, b := i-2, i+2
	if closed {
		a, b = (i+n-2)%n, (i+2)%n
	} else if a < 0 || b >= n {
		return 0
	}
	return pts[i].minus(pts[a]).angle(pts[b].minus(pts[i]))
}

func sharpest(pts []Point, closed bool) (int, bool) {
	best, at := cornerBend, -1
	for i := range pts {
		if v := bend(pts, i, closed); v > best {
			best, at = v, i
		}
	}
	return at, at >= 0
}

// corners are the points at which a line turns sharply.
func corners(pts []Point) []int {
	var out []int
	for i := 2; i+2 < len(pts); i++ {
		v := bend(pts, i, false)
		if v <= cornerBend {
			continue
		}
		if v >= bend(pts, i-1, false) && v >= bend(pts, i+1, false) && (len(out) == 0 || i-out[len(out)-1] > 3) {
			out = append(out, i)
		}
	}
	return out
}

// cubics fits curves to points within a tolerance, halving where one is not
// enough (Schneider 1990). first and last are the directions into the line at its
// ends.
func cubics(out []Cubic, pts []Point, first, last Point, tolerance float64, depth int) []Cubic {
	n := len(pts)
	if n == 2 || depth > 12 {
		d := pts[0].To(pts[n-1]) / 3
		return append(out, Cubic{pts[0].plus(first.times(d)), pts[n-1].plus(last.times(d)), pts[n-1]})
	}
	u := make([]float64, n)
	for i := 1; i < n; i++ {
		u[i] = u[i-1] + pts[i].To(pts[i-1])
	}
	if u[n-1] == 0 {
		return append(out, Cubic{pts[0], pts[0], pts[n-1]})
	}
	for i := range u {
		u[i] /= u[n-1]
	}
	var best Cubic
	at := n / 2
	for range 4 {
		best = leastSquares(pts, u, first, last)
		worst := 0.0
		worst, at = farthest(pts, u, best)
		if worst <= tolerance {
			return append(out, best)
		}
		if worst > 6*tolerance {
			break
		}
		reparam(pts, u, best)
	}
	at = max(1, min(n-2, at))
	mid := pts[max(0, at-2)].minus(pts[min(n-1, at+2)]).unit()
	if mid == (Point{}) {
		mid = pts[at-1].minus(pts[at+1]).unit()
	}
	out = cubics(out, pts[:at+1], first, mid, tolerance, depth+1)
	return cubics(out, pts[at:], mid.times(-1), last, tolerance, depth+1)
}

// leastSquares is the curve with given end directions that comes nearest to points
// at their parameters.
func leastSquares(pts []Point, u []float64, first, last Point) Cubic {
	p0, p3 := pts[0], pts[len(pts)-1]
	var c00, c01, c11, x0, x1 float64
	for i, t := range u {
		s := 1 - t
		b0, b1, b2, b3 := s*s*s, 3*s*s*t, 3*s*t*t, t*t*t
		a0, a1 := first.times(b1), last.times(b2)
		c00 += a0.dot(a0)
		c01 += a0.dot(a1)
		c11 += a1.dot(a1)
		rest := pts[i].minus(p0.times(b0 + b1)).minus(p3.times(b2 + b3))
		x0 += a0.dot(rest)
		x1 += a1.dot(rest)
	}
	chord := p0.To(p3)
	l0, l1 := chord/3, chord/3
	if det := c00*c11 - c01*c01; math.Abs(det) > 1e-9 {
		l0, l1 = (x0*c11-x1*c01)/det, (c00*x1-c01*x0)/det
	}
	if least := chord * 1e-3; l0 < least || l1 < least || l0 > 3*chord+1 || l1 > 3*chord+1 {
		l0, l1 = chord/3, chord/3
	}
	return Cubic{p0.plus(first.times(l0)), p3.plus(last.times(l1)), p3}
}

// At is a point of a curve that begins at p, t from 0 to 1.
func (c Cubic) At(p Point, t float64) Point {
	s := 1 - t
	b0, b1, b2, b3 := s*s*s, 3*s*s*t, 3*s*t*t, t*t*t
	return Point{b0*p.X + b1*c.A.X + b2*c.B.X + b3*c.End.X, b0*p.Y + b1*c.A.Y + b2*c.B.Y + b3*c.End.Y}
}

func farthest(pts []Point, u []float64, c Cubic) (worst float64, at int) {
	for i, t := range u {
		if d := c.At(pts[0], t).To(pts[i]); d > worst {
			worst, at = d, i
		}
	}
	return worst, at
}

// reparam moves the parameters to where the curve is nearest, a step of Newton's.
func reparam(pts []Point, u []float64, c Cubic) {
	p := pts[0]
	for i, t := range u {
		s := 1 - t
		d := c.A.minus(p).times(3 * s * s).plus(c.B.minus(c.A).times(6 * s * t)).plus(c.End.minus(c.B).times(3 * t * t))
		dd := c.B.minus(c.A.times(2)).plus(p).times(6 * s).plus(c.End.minus(c.B.times(2)).plus(c.A).times(6 * t))
		off := c.At(p, t).minus(pts[i])
		if den := d.dot(d) + off.dot(dd); math.Abs(den) > 1e-9 {
			u[i] = math.Max(0, math.Min(1, t-off.dot(d)/den))
		}
	}
}

// Fit puts curves through points, parted at corners.
func Fit(pts []Point, tolerance float64) Path {
	c := Chain{points: pts, From: 0, To: 1}
	c.fit(tolerance, nil)
	return Path{Start: c.Start, Curve: c.Curve}
}
