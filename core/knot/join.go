package knot

import (
	"math"
	"slices"

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
	out, dir := ledBy(pts, share)
	return append(out, hanging(out[len(out)-1], dir, d)...)
}

// ledBy is a path led by a share of its length, and the way it goes there.
func ledBy(pts []r3.Vec, share float64) (out []r3.Vec, dir r3.Vec) {
	want := math.Max(0, share) * curve.Curve{Points: pts}.Length()
	out, dir = []r3.Vec{pts[0]}, r3.Vec{Y: 1}
	for i := 1; i < len(pts); i++ {
		step := r3.Sub(pts[i], pts[i-1])
		l := r3.Norm(step)
		if l == 0 {
			continue
		}
		dir = r3.Scale(1/l, step)
		if l >= want {
			return append(out, r3.Add(pts[i-1], r3.Scale(want, dir))), dir
		}
		want -= l
		out = append(out, pts[i])
	}
	return out, dir
}

// hanging is a cord of d from the tip in hand on: it leaves along its path and bends down like
// a cord that is held.
func hanging(tip, dir r3.Vec, d float64) []r3.Vec {
	const parts = 6
	var out []r3.Vec
	for k := 1; k <= parts; k++ {
		u := float64(k) / parts
		out = append(out, r3.Add(tip, r3.Vec{
			X: d * 2.4 * dir.X * (u - u*u/2) * 2,
			Y: d * (2.4*dir.Y*(u-u*u)*2 + 5*u*u),
			Z: d * 2.4 * dir.Z * (u - u*u/2) * 2,
		}))
	}
	return out
}

// Tips are paths that lie in one bundle, led together by a share of their length: from there on
// they hang like one cord as wide as all of them, each in its place in it. Paths that are led
// whole are as they are.
func Tips(paths [][]r3.Vec, share, d float64) [][]r3.Vec {
	if share >= 1 || len(paths) == 0 {
		return paths
	}
	out := make([][]r3.Vec, len(paths))
	var middle, dir r3.Vec
	n := 1 / float64(len(paths))
	off := make([]r3.Vec, len(out)) // beside the middle, across the way it goes
	at := slices.Repeat([]float64{share}, len(paths))
	const looks = 5 // in a bend those on the outside are led longer
	for look := range looks {
		last, way := middle, dir
		middle, dir = r3.Vec{}, r3.Vec{}
		for i, pts := range paths {
			if look > 0 {
				at[i] -= r3.Dot(r3.Sub(out[i][len(out[i])-1], last), way) / curve.Curve{Points: pts}.Length()
			}
			var to r3.Vec
			out[i], to = ledBy(pts, at[i])
			middle, dir = r3.Add(middle, r3.Scale(n, out[i][len(out[i])-1])), r3.Add(dir, r3.Scale(n, to))
		}
		dir = r3.Unit(dir)
	}
	wide := d
	for _, pts := range out {
		wide = math.Max(wide, d+2*r3.Norm(r3.Sub(pts[len(pts)-1], middle)))
	}
	tail := bundleHanging(middle, dir, wide)
	for i, pts := range out {
		off[i] = r3.Sub(pts[len(pts)-1], middle)
		off[i] = r3.Sub(off[i], r3.Scale(r3.Dot(off[i], dir), dir))
	}
	for k := 1; k < len(tail); k++ {
		now := r3.Unit(r3.Sub(tail[min(k+1, len(tail)-1)], tail[k-1]))
		if axis := r3.Cross(dir, now); r3.Norm(axis) > 1e-9 {
			rot := r3.NewRotation(math.Atan2(r3.Norm(axis), r3.Dot(dir, now)), axis)
			for i := range off {
				off[i] = rot.Rotate(off[i])
			}
		}
		dir = now
		for i := range out {
			out[i] = append(out[i], r3.Add(tail[k], off[i]))
		}
	}
	return out
}

// bundleHanging is the middle of a bundle so wide from its tip in hand on: it bends round till it
// hangs down, on a circle that no strand of it is bent sharply in, and lies before what is led.
func bundleHanging(tip, dir r3.Vec, wide float64) []r3.Vec {
	const round, down, before, parts = 0.9, 4.0, 1.3, 20 // radius, straight end and how far before, times its width
	to := r3.Vec{Y: 1}
	side := r3.Sub(to, r3.Scale(r3.Dot(to, dir), dir)) // across its way, on the side of the bend
	if r3.Norm(side) < 1e-6 {
		side = r3.Vec{X: 1}
	}
	side = r3.Unit(side)
	angle := math.Acos(math.Max(-1, math.Min(1, dir.Y)))
	out := []r3.Vec{tip}
	for k := 1; k <= parts; k++ {
		sin, cos := math.Sincos(angle * float64(k) / parts)
		out = append(out, r3.Add(tip, r3.Scale(round*wide, r3.Add(r3.Scale(sin, dir), r3.Scale(1-cos, side)))))
	}
	end := out[len(out)-1]
	for k := 1; k <= parts; k++ {
		out = append(out, r3.Add(end, r3.Vec{Y: down * wide * float64(k) / parts}))
	}
	for k := range out { // over as much as hangs straight at last
		along := (math.Min(parts, float64(k))*round*angle + math.Max(0, float64(k)-parts)*down) / parts
		out[k].Z += before * wide * curve.Smooth(along/down)
	}
	return curve.Curve{Points: out}.Resample(len(out)).Points
}
