package twostrand

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// throughRoute is the diamond round two strands that run straight through its
// middle: the first two strands tie it, room is left about the axis for the others.
func throughRoute() tighten.Problem {
	const far = 14.0
	half := append([]r3.Vec{}, diamondHalf()...)
	for i, v := range half { // off the axis
		r := math.Hypot(v.X, v.Z)
		least := 1.25
		if i > len(half)/2 {
			least = 1.35
		}
		if r < least {
			half[i].X, half[i].Z = v.X*least/r, v.Z*least/r
		}
	}
	var inner []r3.Vec
	const steps = 14
	for k := 0; k <= steps; k++ {
		u := float64(k) / steps
		sin, cos := math.Sincos((90 + (141-90)*math.Max(0, math.Min(1, 2*u-0.5))) * math.Pi / 180)
		inner = append(inner, r3.Vec{X: 0.8 * cos, Y: far * (2*u - 1), Z: 0.8 * sin})
	}
	turned := func(pts []r3.Vec) []r3.Vec { return knot.TurnRoute(pts, math.Pi) }
	return tighten.Problem{Strands: []tighten.Strand{
		{Route: half, Diameter: 1}, {Route: turned(half), Diameter: 1}, {Route: inner, Diameter: 1}, {Route: turned(inner), Diameter: 1}}}
}

// doubledRoute is the diamond on two pairs: the single one as it was drawn up, each
// strand laid twice, side by side in the knot's surface.
func doubledRoute() tighten.Problem {
	const scale, off, far = 2.15, 0.55, 15.0
	var out []tighten.Strand
	for _, pts := range single() {
		line := curve.Curve{Points: pts}
		line = line.Resample(int(line.Length()/0.4) + 1)
		for i := range line.Points {
			line.Points[i] = r3.Scale(scale, line.Points[i])
		}
		line.Points = slices.DeleteFunc(line.Points, func(v r3.Vec) bool { return math.Abs(v.Y) > far })
		side := alongside(line.Points)
		for _, sign := range [2]float64{-1, 1} {
			var route []r3.Vec
			for i, v := range line.Points {
				route = append(route, r3.Add(v, r3.Scale(sign*off, side[i])))
			}
			out = append(out, tighten.Strand{Route: route, Diameter: 1})
		}
	}
	return tighten.Problem{Strands: out}
}

// single is the two-strand diamond as it was drawn up. It is set when the program
// starts, for what it reads is registered with what is drawn from it.
var single func() [][]r3.Vec

func init() {
	single = func() [][]r3.Vec { return family.Embedded()["two-strand diamond"].Strands }
}

// alongside is, at each point of a line, the way to its side in the surface of the
// knot that it makes: a direction carried along it without twist, begun so that it
// lies best across the way out of the knot.
func alongside(pts []r3.Vec) []r3.Vec {
	n := len(pts)
	ahead := func(i int) r3.Vec { return r3.Unit(r3.Sub(pts[min(n-1, i+1)], pts[max(0, i-1)])) }
	a := ahead(0)
	side := r3.Unit(r3.Cross(a, r3.Vec{X: a.Y, Y: a.Z, Z: a.X}))
	carried := make([]r3.Vec, n)
	for i := range pts {
		t := ahead(i)
		side = r3.Unit(r3.Sub(side, r3.Scale(r3.Dot(side, t), t)))
		carried[i] = side
	}
	var middle r3.Vec
	for _, v := range pts {
		middle = r3.Add(middle, r3.Scale(1/float64(n), v))
	}
	best, angle := math.Inf(1), 0.0
	turned := func(i int, by float64) r3.Vec {
		sin, cos := math.Sincos(by)
		return r3.Add(r3.Scale(cos, carried[i]), r3.Scale(sin, r3.Cross(ahead(i), carried[i])))
	}
	for k := range 180 {
		by := float64(k) * math.Pi / 180
		off := 0.0
		for i, v := range pts {
			out := r3.Sub(v, middle)
			if r3.Norm(out) > 9 { // only in the knot
				continue
			}
			u := r3.Dot(turned(i, by), r3.Unit(out))
			off += u * u
		}
		if off < best {
			best, angle = off, by
		}
	}
	for i := range carried {
		carried[i] = turned(i, angle)
	}
	return carried
}
