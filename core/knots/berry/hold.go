package berry

import (
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/row"

	"gonum.org/v1/gonum/spatial/r3"
)

// hold holds a berry in hand as it is: a flat row of square knots, then the fillers led up over
// its face, and only then the bead that is rolled up, and the knot that locks it.
func hold(w knot.Work, action int, along float64) (knot.Tied, error) {
	if startOf(w) == knot.Right && len(w.Strands) == 4 {
		m := w
		m.Strands = append([]knot.Strand{}, w.Strands...)
		knot.Flip(m.Strands)
		m.Section.Settings = Settings{Squares: squaresOf(w), Start: knot.Left}
		t, err := hold(m, action, along)
		if err == nil {
			t = t.Copy() // what was tied before is kept
			t.Mirror(4)
		}
		return t, err
	}
	if len(w.Strands) != 4 {
		return tieBerries(w) // it says why not
	}
	all, _, err := moves(w)
	if err != nil {
		return knot.Tied{}, err
	}
	squares := squaresOf(w)
	ofRow := (len(all) - 2) / (squares + 1) * squares // beside the two that roll it up, and the lock
	rolls := ofRow + 1                                // the move that rolls the row up
	switch {
	case action < ofRow:
		return rowInHand(w, squares, action, along)
	case action == ofRow:
		return led(w, squares, along, 0)
	case action == rolls && along < knot.Led:
		return led(w, squares, 1, along/knot.Led)
	}
	t, _, err := knot.HoldLed(w, action, along)
	return t, err
}

// rowInHand is the row of square knots, the half knot in hand led so far.
func rowInHand(w knot.Work, squares, action int, along float64) (knot.Tied, error) {
	w.Section = row.Square(squares, knot.Left)
	w.HalfKnots = action / 2
	held, _, err := knot.Hold(w, action, along)
	if err != nil || w.HalfKnots == 0 {
		return held, err
	}
	t, err := row.Tie(w, 2, knot.Left)
	if err != nil {
		return t, err
	}
	t.Cells, t.HalfKnots = nil, false
	t.Below(held)
	return t, nil
}

// A row is rolled up so far round, radians, till the bead is drawn up.
const rolledUp = 5.0

// roll bends a row with its face inwards, about an axis before it: a row of a height goes so far
// round. It is a map of space: on the inner side, so far before the row's middle, nothing is
// longer or shorter than it was, and all that lies behind is longer.
func roll(v r3.Vec, tall, inner, round float64) r3.Vec {
	if round == 0 || v.Y <= 0 {
		return v
	}
	radius := (tall + round*inner) / round
	sin, cos := math.Sincos(round * v.Y / tall)
	return r3.Vec{X: v.X, Y: (radius - v.Z) * sin, Z: radius - (radius-v.Z)*cos}
}

// led is the row with its fillers led up over its face and through the gap above it, so far, and
// then rolled up, so far: flat at 0. Their way is constructed: clear of the face, and behind the
// strands that hang there.
func led(w knot.Work, squares int, along, rolled float64) (knot.Tied, error) {
	w.Section = row.Square(squares, knot.Left)
	w.HalfKnots = 0
	t, err := row.Tie(w, 2, knot.Left)
	if err != nil {
		return t, err
	}
	t.Cells, t.HalfKnots = nil, false
	tall, inner, round := t.Height, 0.0, rolledUp*rolled
	for _, p := range t.Paths {
		for _, v := range p.Points {
			inner = math.Max(inner, v.Z)
		}
	}
	bend := func(v r3.Vec) r3.Vec { return roll(v, tall, inner, round) }
	if round > 0 {
		for _, i := range []int{0, 3} { // the workers hang from its end
			bent := knot.Curve(t.Paths[i].Points).Map(bend).Points
			t.Paths[i] = knot.Path{Points: knot.Tip(bent, 0.9999, w.Strands[i].Diameter)}
		}
	}
	for i := 1; i <= 2; i++ {
		d := w.Strands[i].Diameter
		line := t.Paths[i].Points
		x, z := line[0].X, 0.0
		for _, p := range t.Paths {
			for _, v := range p.Points {
				if math.Abs(v.X-x) < d {
					z = math.Max(z, v.Z)
				}
			}
		}
		clear := z + 1.1*d
		low, up := tall+1.2*d, -1.6*d
		// While they are pulled they draw straight, inside the roll.
		inside := clear + 1.5*d*rolled
		way := []r3.Vec{line[0]}
		if round > 0 {
			for k := 1; k < 12; k++ {
				way = append(way, bend(r3.Vec{X: x, Y: tall * float64(k) / 12}))
			}
		}
		for _, v := range []r3.Vec{{X: x, Y: tall}, {X: x, Y: low, Z: 0.3 * d}, {X: x, Y: low + 0.5*d, Z: clear / 2}, {X: x, Y: low, Z: clear}, {X: x, Y: tall / 2, Z: inside}, {X: x, Y: 0, Z: clear}} {
			way = append(way, bend(v))
		}
		way = append(way, r3.Vec{X: x, Y: up, Z: clear / 2}, r3.Vec{X: x, Y: up - 0.4*d, Z: -0.5 * d}, r3.Vec{X: x, Y: up + 0.5*d, Z: -clear}, r3.Vec{X: x, Y: tall / 2, Z: -clear}, r3.Vec{X: x, Y: tall + 3*d, Z: -clear})
		if round > 0 {
			way = curve.Spline(way, false).Points
		}
		// The filler itself is led back from where it leaves the row.
		straight := tall / (tall + 12*d)
		t.Paths[i] = knot.Path{Points: knot.Tip(knot.Curve(way).Resample(120).Points, straight+(1-straight)*along, d)}
	}
	return t, nil
}
