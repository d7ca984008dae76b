package knot

import (
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Join leads strands from where one section leaves them to where the next
// takes them up, each on an easy curve that keeps the way it was running and
// takes the way it will run.
func Join(from, to, dirFrom, dirTo r3.Vec) []r3.Vec {
	return lead(from, to, dirFrom, dirTo, 1.25) // near to two arcs
}

// JoinClose is [Join] where there is less room beside the line: its bends are
// harder, and it keeps nearer to the straight way.
func JoinClose(from, to, dirFrom, dirTo r3.Vec) []r3.Vec {
	return lead(from, to, dirFrom, dirTo, 1)
}

// lead is a cubic between two points; pull is how strongly it keeps to its
// directions at both, as a share of the way between them.
func lead(from, to, dirFrom, dirTo r3.Vec, pull float64) []r3.Vec {
	gap := r3.Sub(to, from)
	span := r3.Norm(gap)
	if span < 1e-9 {
		return nil
	}
	pull *= span
	// As many points as the line turns, five degrees for each and four for a straight one.
	turn := angle(dirFrom, gap) + angle(gap, dirTo)
	n := min(12, 4+int(math.Ceil(turn/(5*math.Pi/180))))
	out := make([]r3.Vec, 0, n+1)
	for i := 1; i <= n; i++ {
		t := float64(i) / float64(n)
		t2, t3 := t*t, t*t*t
		p := r3.Scale(2*t3-3*t2+1, from)
		p = r3.Add(p, r3.Scale((t3-2*t2+t)*pull, dirFrom))
		p = r3.Add(p, r3.Scale(3*t2-2*t3, to))
		p = r3.Add(p, r3.Scale((t3-t2)*pull, dirTo))
		out = append(out, p)
	}
	return out
}

// angle is the angle between two vectors.
func angle(a, b r3.Vec) float64 { return math.Atan2(r3.Norm(r3.Cross(a, b)), r3.Dot(a, b)) }

// A Way is where a strand is and how it runs there, a vector of length one.
type Way struct{ At, Dir r3.Vec }

// WayIn is the way in which a line begins.
func WayIn(pts []r3.Vec) Way { return Way{pts[0], Heading(pts, false)} }

// WayOut is the way in which a line ends.
func WayOut(pts []r3.Vec) Way { return Way{pts[len(pts)-1], Heading(pts, true)} }

// Fall is how far strands, thick at the thickest, must run down to come from where
// they hang to where the next knot wants them, side by side: nine tenths of the
// widest way across, and what bends of an easy radius take that turn a strand
// straight, lead it aside and turn it to where it is going. Strands that are where
// they are wanted need none.
func Fall(from, to []Way, thick float64) float64 {
	r := eased * thick
	down := 0.0
	for i, a := range from {
		b := to[i]
		shift := r3.Vec{X: b.At.X - a.At.X, Z: b.At.Z - a.At.Z}
		across := r3.Norm(shift)
		if across < 0.01*thick {
			continue
		}
		turns := 0.0
		for _, dir := range []r3.Vec{a.Dir, b.Dir} {
			level := r3.Vec{X: dir.X, Z: dir.Z}
			turns += r * r3.Norm(level)
			if l := r3.Norm(level); l > 1e-9 { // the bend leads aside by itself
				shift = r3.Sub(shift, r3.Scale(r*(1-dir.Y)/l, level))
			}
		}
		aside := r3.Norm(shift)
		arcs := math.Sqrt(math.Max(0, 4*r*aside-aside*aside))
		down = math.Max(down, math.Max(0.9*across, turns+arcs))
	}
	return down
}

// eased is the radius of the bends in which a strand is led aside, in its
// diameters.
const eased = 0.45

// Heading is the way a line runs at its beginning or, where atEnd is set, its
// end; straight down where all its points are one.
func Heading(pts []r3.Vec, atEnd bool) r3.Vec {
	n := len(pts)
	for i := 1; i < n; i++ {
		d := r3.Sub(pts[i], pts[0])
		if atEnd {
			d = r3.Sub(pts[n-1], pts[n-1-i])
		}
		if l := r3.Norm(d); l > 1e-6 {
			return r3.Scale(1/l, d)
		}
	}
	return r3.Vec{Y: 1}
}

// Through leads a strand straight down from the top to where a knot takes it, and
// from where it leaves that to the bottom.
func Through(top r3.Vec, knot []r3.Vec, bottom float64) []r3.Vec {
	first, last := knot[0], knot[len(knot)-1]
	out := []r3.Vec{top}
	if first.Y-top.Y > 1e-6 {
		dir := Heading(knot, false)
		out = append(out, Join(top, first, r3.Vec{Y: 1}, dir)...)
		out = out[:len(out)-1]
	}
	out = append(out, knot...)
	if bottom-last.Y > 1e-6 {
		dir := Heading(knot, true)
		out = append(out, Join(last, r3.Vec{X: last.X, Y: bottom}, dir, r3.Vec{Y: 1})...)
	}
	return out
}

// Tip cuts a strand's path off where it has been led to, a share of its length,
// and lets the rest of it hang: on a little the way it was going, then down.
func Tip(pts []r3.Vec, share, d float64) []r3.Vec {
	if share >= 1 {
		return pts
	}
	c := curve.Curve{Points: pts}
	want := math.Max(0, share) * c.Length()
	out := []r3.Vec{pts[0]}
	dir := r3.Vec{Y: 1}
	for i := 1; i < len(pts); i++ {
		step := r3.Sub(pts[i], pts[i-1])
		l := r3.Norm(step)
		if l == 0 {
			continue
		}
		dir = r3.Scale(1/l, step)
		if l >= want {
			out = append(out, r3.Add(pts[i-1], r3.Scale(want, dir)))
			break
		}
		want -= l
		out = append(out, pts[i])
	}
	tip := out[len(out)-1]
	for k := 1; k <= 6; k++ {
		u := float64(k) / 6
		// It leaves along its path and bends down like a cord that is held.
		out = append(out, r3.Add(tip, r3.Vec{
			X: d * 2.4 * dir.X * (u - u*u/2) * 2,
			Y: d * (2.4*dir.Y*(u-u*u)*2 + 5*u*u),
			Z: d * 2.4 * dir.Z * (u - u*u/2) * 2,
		}))
	}
	return out
}
