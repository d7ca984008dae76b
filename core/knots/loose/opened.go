package loose

import (
	"math"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

// openedNode is how far apart nodes lie on a strand that is opened, diameters.
const openedNode = 0.1

// Opened are the strands of a knot that a cord of its own is led round something for, a cover
// or a ball, in its plainest form, diameters, and how it is opened; not ok for any other.
func Opened(k knot.Knot) (strands [][]r3.Vec, o loosen.Opening, ok bool) {
	t, d, ok := alone(k)
	if !ok {
		return nil, o, false
	}
	for i, p := range t.Own {
		c := curve.Curve{Points: p.Points}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(1/d, v) })
		if i > 0 && p.Points[0] == t.Own[i-1].Points[0] { // both ends of one cord, from its middle
			before := strands[len(strands)-1]
			slices.Reverse(before)
			c.Points = append(before, c.Points[1:]...)
			strands = strands[:len(strands)-1]
		}
		strands = append(strands, c.Resample(int(c.Length()/openedNode)).Points)
	}
	switch {
	case k.Mounts:
		return append([][]r3.Vec{wire()}, hung(strands)...), loosen.Wider(), true
	case t.Core != nil:
		middle := r3.Scale(1/d, t.Core.At)
		return strands, loosen.OpenedBall(middle, t.Core.DiameterMM/d/2+0.5, r3.Scale(-1, hole(strands, middle))), true
	case t.Around || t.Opening != nil:
		return strands, loosen.OpenedCover(strands), true
	case t.OwnFlat != nil:
		return strands, loosen.Spread(), true
	}
	return nil, o, false
}

// wireReach is how much of a wire is shown to either side of what is on it, diameters.
const wireReach = 7.0

// legs is how much of the legs of what is put on a wire is shown below it, diameters.
const legs = 2.5

// hung are strands that hang on by both ends.
func hung(strands [][]r3.Vec) [][]r3.Vec {
	var out [][]r3.Vec
	for _, pts := range strands {
		first, last := pts[0], pts[len(pts)-1]
		c := curve.Curve{Points: slices.Concat([]r3.Vec{{X: first.X, Y: first.Y + legs, Z: first.Z}}, pts, []r3.Vec{{X: last.X, Y: last.Y + legs, Z: last.Z}})}
		out = append(out, c.Resample(int(c.Length()/openedNode)).Points)
	}
	return out
}

// wire is what something is put on, as thick as the cord, from the left: its middle lies at 0.
func wire() []r3.Vec {
	line := curve.Curve{Points: []r3.Vec{{X: -wireReach}, {X: wireReach}}}
	return line.Resample(int(2 * wireReach / openedNode)).Points
}

// hole is the direction from the middle of a ball in which the strands round it leave most room.
func hole(strands [][]r3.Vec, middle r3.Vec) r3.Vec {
	best, at := -1.0, r3.Vec{}
	const tries = 2000 // directions evenly over the sphere
	for k := range tries {
		y := 1 - 2*(float64(k)+0.5)/tries
		sin, cos := math.Sincos(float64(k) * math.Pi * (3 - math.Sqrt(5)))
		r := math.Sqrt(1 - y*y)
		dir := r3.Vec{X: r * cos, Y: y, Z: r * sin}
		near := math.Inf(1)
		for _, pts := range strands {
			for _, v := range pts {
				near = math.Min(near, r3.Norm(r3.Sub(r3.Unit(r3.Sub(v, middle)), dir)))
			}
		}
		if near > best {
			best, at = near, dir
		}
	}
	return at
}

// alone is a knot of cords of its own in its plainest form, and how thick they are, mm; round a
// stem of two strands where it goes round strands.
func alone(k knot.Knot) (t knot.Tied, d float64, ok bool) {
	if k.Tie == nil {
		return t, 0, false
	}
	s, err := knot.New(k.ID)
	if err != nil {
		return t, 0, false
	}
	if k.Plain != nil {
		s = k.Plain()
	}
	terms := knot.TermsOf(s)
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	d = stuff.DrawnUp()
	w := knot.Work{Section: s, BarMM: 2, RingMM: 16}
	strand := func(i int, x float64) knot.Strand {
		return knot.Strand{Cord: i, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: x}, Dir: r3.Vec{Y: 1}}
	}
	if k.Mounts {
		w.BarMM, w.RingMM = d, 0 // a straight wire, as thick as the cord
	}
	if terms.CordsAt != "" && !k.Mounts {
		for i := range 2 {
			w.Strands = append(w.Strands, strand(i, (float64(i)-0.5)*d))
		}
	}
	own := max(1, terms.Wants*max(1, terms.Legs))
	if k.Mounts { // one cord, by its fold
		own = 2
	}
	for i := range own {
		w.Own = append(w.Own, strand(2+i, 0))
		w.Own[i].Leg = i % max(1, terms.Legs)
	}
	if len(w.Strands) == 0 && terms.Wants == 0 && !k.Mounts {
		return t, 0, false
	}
	t, err = knot.Tie(w)
	return t, d, err == nil && len(t.Own) > 0 && len(t.Moves) > 0
}
