package pretzel

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ringin"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// TakeIn is what the knot takes in.
type TakeIn string

// Nothing, or a ring.
const (
	Nothing TakeIn = "nothing"
	Ring    TakeIn = "ring"
)

// Choices are what it may take in.
func (TakeIn) Choices() []string { return []string{string(Nothing), string(Ring)} }

// wire is a ring's wire in the lower turn of the first strand, in tenths of the cord's
// diameter.
type wire int

// wires are those that are drawn up; a thinner one lies loose where the next thicker
// one lay.
var wires = []wire{4, 7, 10}

func (w wire) name() string { return fmt.Sprintf("ring-%d", w) }

// seat is where the wire crosses the shape, along z: in the first strand's lower turn,
// between the other one's standing part and its end.
var seat = r3.Vec{X: -0.75, Y: 0.75}

// problem is one knot with a straight wire in its lower turn, laid a little aside so
// that, drawn up about the wire, it hangs straight below its strands.
func (w wire) problem() tighten.Problem {
	p := pretzel()
	for i := range p.Strands {
		for k, v := range p.Strands[i].Route {
			if math.Abs(v.Y) < 5 {
				p.Strands[i].Route[k].X += 0.65
			}
		}
	}
	from, to := seat, seat
	from.Z, to.Z = -9, 9
	p.Bars = []tighten.Bar{{From: from, To: to, Diameter: float64(w) / 10}}
	return p
}

// tieRing ties one knot whose first strand runs through a ring in its lower turn. It
// lies turned by a quarter, so that the ring hangs flat.
func tieRing(w knot.Work, ring ringin.Settings) (knot.Tied, error) {
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	size := -1
	for k, wire := range wires {
		if ring.WireMM <= float64(wire)/10*d+1e-9 {
			size = k
			break
		}
	}
	if size < 0 {
		most := math.Floor(float64(wires[len(wires)-1])*d) / 10
		return knot.Tied{}, &knot.Refused{Field: "ring.wire_mm", Why: fmt.Sprintf("%g mm; the turn of a pretzel knot in cord of %.1f mm takes a wire of up to %g mm", ring.WireMM, d, most), Set: most, Label: fmt.Sprintf("Take a wire of %g mm", most)}
	}
	// Beside the knot the wire must still run nearly straight.
	if least := math.Ceil(6 * d); ring.InnerMM < least {
		return knot.Tied{}, &knot.Refused{Field: "ring.inner_mm", Why: fmt.Sprintf("%g mm; the knot lies inside the ring, which takes %g mm", ring.InnerMM, least), Set: least, Label: fmt.Sprintf("Take a ring of %g mm", least)}
	}
	shape, err := family.Shape(wires[size].name(), wires[size].problem)
	if err != nil {
		return knot.Tied{}, err
	}
	laid := knot.Lay(shape.Strands, d)
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Flat: laid.Paths, Order: laid.Order, Moves: ringMoves()}
	turned := func(v r3.Vec) r3.Vec { return knot.Turned(v, -math.Pi/2) }
	for _, p := range laid.Paths {
		pts := make([]r3.Vec, len(p.Points))
		for i, v := range p.Points {
			pts[i] = turned(v)
		}
		t.Paths = append(t.Paths, knot.Path{Points: pts})
	}
	// The ring hangs from the turn's lowest part that lies on its wire.
	at, near := seat, math.Inf(1)
	for _, v := range shape.Strands[0] {
		if off := math.Hypot(v.X-seat.X, v.Y-seat.Y); v.Y > seat.Y && off < near {
			at.Z, near = v.Z, off
		}
	}
	at = turned(r3.Scale(d, r3.Sub(at, r3.Vec{Y: laid.Top})))
	t.Beads = []knot.BeadAt{ring.Hung(at)}
	return t, nil
}

// ringMoves are those of a knot that takes a ring in.
func ringMoves() []move.Move {
	out := moves()
	out[0].Text = "Slip the ring on {me}. " + out[0].Text
	out[0].Detail = "The ring lies in the lower turn. " + out[0].Detail
	out[1].Text = "{me} {above 0} that end, {face 1} everything at the top, up from the {from} through the lower loop, on the {to} of its own standing part and of the ring's wire, and out {above 3} the loop's edge."
	out[1].Gate = "The ring hangs in the lower turn, one end before it and one behind it."
	return out
}
