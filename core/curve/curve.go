// Package curve holds the geometry that every figure of a piece is read off:
// polylines in space, their lengths, their clearance from one another and the
// crossings they make when they are looked at.
//
// Axes are those of the hanging piece: x to the tier's right, y down the work,
// z out of the face towards the tier. All lengths of one curve are in one unit
// (millimetres in a piece, cord diameters in a knot's route); the package does
// not care which.
package curve

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Curve is the centre line of a cord as a polyline.
//
// Invariants: at least two points; no two neighbours coincide; a closed curve
// does not repeat its first point at the end.
type Curve struct {
	Points []r3.Vec
	Closed bool
}

// Length is the length of the centre line, the closing edge included.
func (c Curve) Length() float64 {
	sum := 0.0
	for i := 1; i < len(c.Points); i++ {
		sum += r3.Norm(r3.Sub(c.Points[i], c.Points[i-1]))
	}
	if c.Closed && len(c.Points) > 2 {
		sum += r3.Norm(r3.Sub(c.Points[0], c.Points[len(c.Points)-1]))
	}
	return sum
}

// Resample gives the same curve with n evenly spaced points. A closed curve
// gets n points and n edges, an open one n points and n-1 edges with its ends
// kept.
func (c Curve) Resample(n int) Curve {
	pts := c.Points
	if c.Closed {
		pts = append(append([]r3.Vec{}, pts...), pts[0])
	}
	edges := n - 1
	if c.Closed {
		edges = n
	}
	at := make([]float64, len(pts))
	for i := 1; i < len(pts); i++ {
		at[i] = at[i-1] + r3.Norm(r3.Sub(pts[i], pts[i-1]))
	}
	total := at[len(at)-1]
	out := make([]r3.Vec, n)
	k := 0
	for i := range out {
		s := total * float64(i) / float64(edges)
		for k < len(pts)-2 && at[k+1] < s {
			k++
		}
		t := 0.0
		if d := at[k+1] - at[k]; d > 0 {
			t = math.Min(1, (s-at[k])/d)
		}
		out[i] = Lerp(pts[k], pts[k+1], t)
	}
	return Curve{Points: out, Closed: c.Closed}
}

// Map gives the curve with f applied to each of its points.
func (c Curve) Map(f func(r3.Vec) r3.Vec) Curve {
	out := make([]r3.Vec, len(c.Points))
	for i, p := range c.Points {
		out[i] = f(p)
	}
	return Curve{Points: out, Closed: c.Closed}
}

// Reverse gives the curve walked the other way.
func (c Curve) Reverse() Curve {
	n := len(c.Points)
	out := make([]r3.Vec, n)
	for i, p := range c.Points {
		out[n-1-i] = p
	}
	return Curve{Points: out, Closed: c.Closed}
}

// Box is the smallest box around the centre line.
func (c Curve) Box() r3.Box {
	b := r3.Box{Min: c.Points[0], Max: c.Points[0]}
	for _, p := range c.Points {
		b.Min = r3.Vec{X: math.Min(b.Min.X, p.X), Y: math.Min(b.Min.Y, p.Y), Z: math.Min(b.Min.Z, p.Z)}
		b.Max = r3.Vec{X: math.Max(b.Max.X, p.X), Y: math.Max(b.Max.Y, p.Y), Z: math.Max(b.Max.Z, p.Z)}
	}
	return b
}

// Smooth goes from 0 to 1 as t does, level at both, and stays there beyond.
func Smooth(t float64) float64 {
	t = max(0, min(1, t))
	return t * t * (3 - 2*t)
}

// Lerp is the point at t from a (0) to b (1).
func Lerp(a, b r3.Vec, t float64) r3.Vec {
	return r3.Add(r3.Scale(1-t, a), r3.Scale(t, b))
}

// Spline lays a centripetal Catmull-Rom curve through the points of a route,
// eight points to each span: it goes through every point and makes no loops of
// its own.
func Spline(route []r3.Vec, closed bool) Curve {
	n := len(route)
	if n < 3 {
		return Curve{Points: append([]r3.Vec{}, route...), Closed: closed}
	}
	point := func(i int) r3.Vec {
		if closed {
			return route[((i%n)+n)%n]
		}
		if i < 0 {
			return r3.Sub(r3.Scale(2, route[0]), route[1])
		}
		if i >= n {
			return r3.Sub(r3.Scale(2, route[n-1]), route[n-2])
		}
		return route[i]
	}
	spans := n - 1
	if closed {
		spans = n
	}
	const per = 8
	out := make([]r3.Vec, 0, spans*per+1)
	for i := range spans {
		p := [4]r3.Vec{point(i - 1), point(i), point(i + 1), point(i + 2)}
		var t [4]float64
		for k := 1; k < 4; k++ {
			t[k] = t[k-1] + math.Max(1e-6, math.Sqrt(r3.Norm(r3.Sub(p[k], p[k-1]))))
		}
		for s := range per {
			u := t[1] + (t[2]-t[1])*float64(s)/per
			mix := func(a, b r3.Vec, ta, tb float64) r3.Vec { return Lerp(a, b, (u-ta)/(tb-ta)) }
			a1, a2, a3 := mix(p[0], p[1], t[0], t[1]), mix(p[1], p[2], t[1], t[2]), mix(p[2], p[3], t[2], t[3])
			b1, b2 := mix(a1, a2, t[0], t[2]), mix(a2, a3, t[1], t[3])
			out = append(out, mix(b1, b2, t[1], t[2]))
		}
	}
	if !closed {
		out = append(out, route[n-1])
	}
	return Curve{Points: out, Closed: closed}
}

// Across is what of a vector lies across a heading of unit length, itself of unit length;
// another vector across it where the vector points along.
func Across(v, heading r3.Vec) r3.Vec {
	for _, q := range [3]r3.Vec{v, {Z: 1}, {X: 1}} {
		q = r3.Sub(q, r3.Scale(r3.Dot(q, heading), heading))
		if n := r3.Norm(q); n > 1e-6 {
			return r3.Scale(1/n, q)
		}
	}
	return r3.Vec{Y: 1}
}
