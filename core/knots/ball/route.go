package ball

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// The first band runs about z: over it on the left and the right face, under
// the others above and below. next takes the first band to the second, the
// second to the third and the third to the first: a third of a turn about the
// diagonal (1, -1, -1).
func next(v r3.Vec) r3.Vec { return r3.Vec{X: -v.Z, Y: -v.X, Z: v.Y} }

// turned takes points of the first band on by n bands.
func turned(pts []r3.Vec, n int) []r3.Vec {
	out := slices.Clone(pts)
	for range n {
		for i := range out {
			out[i] = next(out[i])
		}
	}
	return out
}

// coil is the rough path of strand k of m side by side through the first band
// of p passes on a core of diameter core, from turn u0 to turn u1: against the
// clock about z, outside at the faces left and right, inside at those above and
// below. Turn 0 is the corner (-, +, -), before the face on the left.
func coil(p, m, k int, core, u0, u1 float64) []r3.Vec {
	middle := core/2 + 1.3
	var out []r3.Vec
	const per = 32 // points a turn
	n := int(math.Round((u1 - u0) * per))
	for i := 0; i <= n; i++ {
		u := u0 + float64(i)/per
		phi := 2*math.Pi*u + 3*math.Pi/4
		// It steps to its next place while it runs inside over the top: the
		// last quarter of every turn.
		whole := math.Floor(u + 1e-9)
		step := whole + curve.Smooth((u-whole-0.75)/0.25)
		z := step*float64(m) + float64(k) - float64(p-1)/2
		r := middle + 0.65*math.Tanh(2.5*math.Cos(2*phi))
		s, c := math.Sincos(phi)
		// Squarish, so that every turn of a band is as long as the next.
		r /= math.Pow(math.Pow(math.Abs(c), square)+math.Pow(math.Abs(s), square), 1/square)
		out = append(out, r3.Vec{X: r * c, Y: r * s, Z: z})
	}
	return out
}

const (
	square = 4.0
	early  = 2 // points of a coil
)

// short takes away the beginning of a path, given as that of the first band,
// that would run up to the edge of the band before the corner at height z: over
// a corner a cord goes the short way.
func short(path []r3.Vec, z float64) []r3.Vec {
	for len(path) > 1 && next(path[0]).Z > z-0.4 {
		path = path[1:]
	}
	return path
}

var (
	// across is the way out at the corner that a start hidden inside lies
	// opposite to; beside that at which a ball with two ends out begins.
	across = r3.Unit(r3.Vec{X: -1, Y: -1, Z: 1})
	beside = r3.Unit(r3.Vec{X: -1, Y: 1, Z: -1})
)

// inside is a place against the core, a little off the line from a point to its
// middle.
func inside(core float64, from r3.Vec) r3.Vec {
	return r3.Scale(core/2+0.55, r3.Unit(r3.Add(from, r3.Vec{Z: -0.4})))
}

// lead leads the ends of paths straight off the ball in the direction away: where
// there are more, those with which paths begin beside those with which they end,
// the strands that run side by side behind one another, as they come.
func lead(paths [][]r3.Vec, ends []end, away r3.Vec) {
	flat := func(v r3.Vec) r3.Vec { return r3.Sub(v, r3.Scale(r3.Dot(v, away), away)) }
	row := r3.Vec{}
	column := map[bool]r3.Vec{} // the middle of each, times how many there are
	for _, e := range ends {
		v := flat(e.of(paths))
		column[e.first] = r3.Add(column[e.first], v)
		if e.first {
			row = r3.Sub(row, v)
		} else {
			row = r3.Add(row, v)
		}
	}
	depth := r3.Vec{}
	if len(ends) > 1 {
		row = r3.Unit(row)
		depth = r3.Cross(away, row)
	}
	const apart = 0.6
	for _, e := range ends {
		v := e.of(paths)
		side := r3.Scale(apart, row)
		if e.first {
			side = r3.Scale(-apart, row)
		}
		if len(ends) > 2 {
			side = r3.Add(side, r3.Scale(math.Copysign(apart, r3.Dot(r3.Sub(v, r3.Scale(2/float64(len(ends)), column[e.first])), depth)), depth))
		}
		if len(ends) == 1 {
			side = r3.Vec{}
		}
		for _, far := range []float64{1.6, 4, 10} {
			to := r3.Add(r3.Scale(r3.Dot(v, away)+far, away), side)
			if e.first {
				paths[e.path] = slices.Insert(paths[e.path], 0, to)
			} else {
				paths[e.path] = append(paths[e.path], to)
			}
		}
	}
}

// end is an end of a path: its first point or its last.
type end struct {
	path  int
	first bool
}

func (e end) of(paths [][]r3.Vec) r3.Vec {
	if w := paths[e.path]; !e.first {
		return w[len(w)-1]
	} else {
		return w[0]
	}
}

// cling is by how much turns that lie side by side hold on to each other: enough
// that the first turn of a band does not slide off its face, which takes more
// where there are few to hold it, and not so much that turns would rather lie
// flat than round.
func cling(f family, p int) float64 {
	few := map[int]float64{2: 3, 3: 2, 4: 1.6}
	if f == leavingPair {
		few = map[int]float64{4: 2.5, 6: 1.7}
	}
	if c, ok := few[p]; ok {
		return c
	}
	return 1
}

// problem is a ball of p passes on a core, all in cord diameters, entered and
// left as its family is, dressed loosely on a core of dress diameters a pass and
// then drawn up on its own.
func problem(f family, p int, core, dress float64) tighten.Problem {
	n := float64(p)
	onto := core
	core = math.Max(core, dress*n)
	var paths [][]r3.Vec
	switch f {
	case starting:
		// p whole turns in every band. It begins under the second band at the
		// corner (+, +, -) and leaves at the one across.
		a, b, c := coil(p, 1, 0, core, -0.25, n-0.25), coil(p, 1, 0, core, 0, n), turned(coil(p, 1, 0, core, 0, n), 2)
		slices.Reverse(c) // the third band is wound the other way
		b = turned(short(b, a[len(a)-1].Z), 1)
		for len(b) > 1 && b[len(b)-1].Y > c[0].Y-0.4 { // this corner is cut before it
			b = b[:len(b)-1]
		}
		paths = [][]r3.Vec{slices.Concat([]r3.Vec{inside(onto, a[0])}, a, b, c)}
		lead(paths, []end{{0, false}}, across)
	case leaving, leavingPair:
		// A quarter of a turn less in every band brings both ends of each cord
		// to one corner.
		m := f.side()
		var ends []end
		for k := range m {
			a := coil(p, m, k, core, 0, n/float64(m)-0.25)
			b := short(a, a[len(a)-1].Z)
			c := turned(b, 2)
			if m > 1 && k == 0 { // the one nearer the corner turns off it first
				a = a[early:]
			} else if m > 1 {
				c = c[:len(c)-early]
			}
			paths = append(paths, slices.Concat(a, turned(b, 1), c))
		}
		for k := range m {
			ends = append(ends, end{k, true}, end{k, false})
		}
		lead(paths, ends, beside)
	case joined:
		// The first cord makes the first band and ends under the second; the
		// second begins under the third and makes the other two.
		a := coil(p, 1, 0, core, 0, n)
		b, c := coil(p, 1, 0, core, -0.25, n-0.25), coil(p, 1, 0, core, 0, n-0.25)
		paths = [][]r3.Vec{
			append(slices.Clone(a), r3.Scale(onto/2+0.55, r3.Unit(r3.Add(a[len(a)-1], r3.Vec{Z: 0.4})))),
			slices.Concat(turned([]r3.Vec{inside(onto, b[0])}, 1), turned(b, 1), turned(short(c, b[len(b)-1].Z), 2)),
		}
		lead(paths, []end{{0, true}, {1, false}}, beside)
	}
	pr := tighten.Problem{Cling: cling(f, p), Bars: []tighten.Bar{tighten.Ball(r3.Vec{}, onto)}}
	for _, w := range paths {
		pr.Strands = append(pr.Strands, tighten.Strand{Route: w, Diameter: 1})
	}
	return pr
}
