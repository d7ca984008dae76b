package wall

import (
	"math"

	"nimblebight/core/knots/ring"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Walls that go with a crown are laid out looser than a wall alone: there is more to be
// led through each bight.
const (
	looseOver  = 1.7  // where the crown comes after the wall
	looseUnder = 1.35 // where it comes before
)

// loosely are places so many times as far out and as high.
func loosely(by float64, as []ring.At) []ring.At {
	var out []ring.At
	for _, a := range as {
		out = append(out, ring.At{R: a.R * by, Degrees: a.Degrees, Y: a.Y * by})
	}
	return out
}

// turned are places so many degrees on and so much farther down.
func turned(degrees, down float64, as []ring.At) []ring.At {
	var out []ring.At
	for _, a := range as {
		out = append(out, ring.At{R: a.R, Degrees: a.Degrees + degrees, Y: a.Y + down})
	}
	return out
}

// laid is a crown along a line: down on the end of the one before, and under the bend of
// the next.
func laid(l ring.Line) []ring.At {
	return []ring.At{l.At(-0.9, 0, 0.3), l.At(-0.45, 0, 1), l.At(0, 0, 0.4), l.At(0.45, 0, -0.3), l.At(0.85, 0, -0.3)}
}

// onCrown is the way of the first of n strands of a wall on a crown. Drawn slim the ends
// are led straight on, and the wall climbs off the crown; chunky, standing parts and ends
// are held out, so that nothing pulls the two apart.
func onCrown(n, passes int, how Dressed) []ring.At {
	s, b := 360/float64(n), ring.Stands(n)
	crown := laid(ring.Loose(n))
	begins, ends := crown[0].R/0.95, crown[len(crown)-1]
	way := []ring.At{{R: b, Y: -14}, {R: b, Y: -10.5}, {R: b, Y: -8}, {R: begins, Y: -4.5}, {R: begins + 0.3, Y: -1.5}}
	if how != Slim {
		way = []ring.At{{R: begins + 11, Y: -11}, {R: begins + 3, Y: -3.5}, {R: begins + 0.3, Y: -1.5}}
	}
	way = append(way, crown...)
	way = append(way, ring.At{R: ends.R + 0.1, Degrees: ends.Degrees + 0.05*s, Y: 1.5})
	const high = 4.0 // where the wall is laid
	wall := once(n)
	wall = wall[3 : len(wall)-2]
	if passes == 2 {
		wall = twice(n)
		wall = wall[3 : len(wall)-3]
	}
	for i := range wall {
		if wall[i].Degrees <= 0.2*s { // out of the crown, not out of the middle
			wall[i].R = math.Max(wall[i].R, (ends.R+0.1)/looseUnder)
		}
	}
	way = append(way, turned(ends.Degrees, high, loosely(looseUnder, wall))...)
	out := up(passes) * s
	last := []ring.At{{R: b + 0.1, Degrees: out, Y: 5}, {R: b, Degrees: out, Y: 8}, {R: b, Degrees: out, Y: 14}}
	if how != Slim {
		last = []ring.At{{R: b + 0.5, Degrees: out, Y: 3}, {R: b + 3, Degrees: out, Y: 5.5}, {R: b + 12, Degrees: out, Y: 14.5}}
	}
	return append(way, turned(ends.Degrees, high, last)...)
}

// Where a wall is crowned over, how high above the wall the crown is laid.
const crowned = 2.5 * looseOver

// begins are the strands as they come through the seizing.
func begins(n int) []ring.At {
	b := ring.Stands(n)
	return []ring.At{{R: b, Y: -14}, {R: b, Y: -9}, {R: b, Y: -6}}
}

// beside is how far from the axis the ends lie that are led back in the gaps between n
// strands.
func beside(n int) float64 { return 0.5/math.Tan(math.Pi/float64(n)) + 0.92 }

// home leads an end down inside the bights, at so much of a step before the strand that
// it will lie beside, and out through the seizing. after is where the crown ends.
func home(n int, after, at float64, r [4]float64, y [4]float64) []ring.At {
	s, q := 360/float64(n), ring.Stands(n)-0.75
	down := (math.Ceil(after/s-0.15-at) + at) * s
	gap := (math.Ceil(after/s-0.15-at) + 0.5) * s
	var way []ring.At
	for k := range r {
		way = append(way, ring.At{R: r[k] + q, Degrees: down, Y: y[k]})
	}
	way = loosely(looseOver, way)
	for _, y := range []float64{-6, -9, -14} {
		way = append(way, ring.At{R: beside(n), Degrees: gap, Y: y})
	}
	return way
}

// crownedOver is the way of the first of n strands of a wall that is crowned over, each
// end then led down inside the bights and out beside the standing parts.
func crownedOver(n, passes int) []ring.At {
	s, q := 360/float64(n), ring.Stands(n)-0.75
	way, out := begins(n), up(passes)*s
	if passes == 2 {
		wall := twice(n)
		wall = wall[2 : len(wall)-4]
		for i := range 2 { // the end comes up where there is room beside it to go down
			wall[len(wall)-1-i].Degrees += 0.09 * s
		}
		way = append(way, loosely(looseOver, wall)...)
	} else {
		way = append(way, loosely(looseOver, once(n)[2:9])...)
	}
	way = append(way, loosely(looseOver, []ring.At{{R: 1.35 + q, Degrees: out, Y: 1}})...)
	way = append(way, turned(out, crowned, laid(ring.Loose(n)))...)
	end := way[len(way)-1].Degrees
	if passes == 2 {
		return append(way, home(n, end, 0.3, [4]float64{1.9, 1.1, 1, 1}, [4]float64{1.4, 0, -1.2, -2.6})...)
	}
	return append(way, home(n, end, 0.42, [4]float64{1.9, 1.5, 1.5, 1.3}, [4]float64{1.2, 0, -1.2, -2.6})...)
}

// up is how many steps on the end of a wall comes up that is walled so often.
func up(passes int) float64 {
	if passes == 2 {
		return 3.5
	}
	return 1.67
}

// steps is how many steps on the strand begins that each follows beside wall and crown:
// the one that comes out of the work where the crown has brought it.
func steps(n int) int {
	s := 360 / float64(n)
	return int(math.Ceil(up(1) + wide(n).At(0.95, 0, 0).Degrees/s - 0.65))
}

// wide is the line of a crown that is to be followed: longer, so that it passes two of
// the next.
func wide(n int) ring.Line {
	l := ring.Line{Aside: ring.Loose(n).Aside, Half: 3.6}
	switch {
	case n == 3:
		l.Half = 3
	case n >= 6:
		l.Half = 3.05
	}
	return l
}

// followed is the way of the first of n strands of a wall and crown of which both are
// followed round once more, outside: the wall on its lower side, the crown on its outer.
// The ends are led down inside the bights and out beside the standing parts.
func followed(n int) []ring.At {
	s, q, line := 360/float64(n), ring.Stands(n)-0.75, wide(n)
	const aside = 1.1 // how far beside the first crown the second runs
	lift := 0.7       // how far outside it the strands come up to their crown
	if n == 3 {
		lift = 2.8
	}
	crown := func(out float64) []ring.At {
		first := line.At(-0.93, out, 0.7)
		return []ring.At{{R: first.R + lift, Degrees: first.Degrees - 0.05*s, Y: -0.7}, first, line.At(-0.6, out, 1.1), line.At(-0.3, out, 0.9), line.At(0, out, 0.4),
			line.At(0.3, out, -0.2), line.At(0.6, out, -0.4-0.3*out), line.At(0.95, out, -0.5-0.8*out)}
	}
	way := append(begins(n), loosely(looseOver, once(n)[2:9])...)
	way = append(way, loosely(looseOver, []ring.At{{R: 1.4 + q, Degrees: up(1) * s, Y: 1}})...)
	way = append(way, turned(up(1)*s, crowned, crown(0))...)
	follows := float64(steps(n))
	var wall []ring.At
	for _, a := range []ring.At{{R: 3.3, Degrees: 0.45, Y: 1.1}, {R: 3.9, Degrees: 0.7, Y: 0.3}, {R: 4.1, Degrees: 1, Y: -0.4}, {R: 4.1, Degrees: 1.25, Y: -1.2}, {R: 3.6, Degrees: 1.5, Y: -1.9},
		{R: 2.7, Degrees: 1.75, Y: -2.05}, {R: 2, Degrees: 1.82, Y: -1.5}, {R: 1.85, Degrees: 1.84, Y: -0.3}, {R: 2, Degrees: 1.86, Y: 1}} {
		wall = append(wall, ring.At{R: a.R + q, Degrees: a.Degrees * s, Y: a.Y})
	}
	way = append(way, turned(follows*s, 0, loosely(looseOver, wall))...)
	way = append(way, turned((follows+up(1))*s, crowned, crown(aside))...)
	return append(way, home(n, way[len(way)-1].Degrees, 0.42, [4]float64{1.9, 1.5, 1.5, 1.3}, [4]float64{1.2, 0, -1.2, -2.6})...)
}

// seizing is how high it is put on.
const seizing = -8.0

// seized is a ring of n strands as far as they come through a seizing, which a knot whose
// ends are led back beside its standing parts is drawn up against.
func seized(p tighten.Problem, n int) tighten.Problem {
	for _, bar := range tighten.Ring(r3.Vec{}, beside(n)+1.05, 1) {
		across := func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: seizing, Z: v.Y} }
		p.Bars = append(p.Bars, tighten.Bar{From: across(bar.From), To: across(bar.To), Diameter: bar.Diameter})
	}
	return p
}
