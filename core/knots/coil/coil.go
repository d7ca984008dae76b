// Package coil hangs a ball of one strand on its ring by a coiled eye.
package coil

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a coil loop.
type Settings struct {
	Turns int `json:"turns,omitempty" typed:"-" label:"turns" default:"6" least:"4" most:"40" needed:"yes"`
}

// Coil loop: the end makes an eye in the ring, turns back round its own part
// towards the ball and goes through the last of its turns.
//
// Right: the turns lie side by side, none crossed, and the end comes out
// between the last turn and the standing part. Wrong: an eye drawn so small
// that the ring cannot turn in it.
//
// Makers differ in the number of turns; below four the end works loose. Leather
// holds by itself, glued or not.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "coil-loop", Name: "coil loop", Family: "wraps and gathers",
		Held:       "In the hand, the ring over a finger.",
		OtherNames: []string{"coiled eye"},
		For:        "hanging a ball of one strand on its ring",
		Schools:    []knot.School{{Field: "turns", Default: "6", Why: "six hold leather and cord alike and look like a neck; four are the least"}},
		Glyph:      "M10 22V9a4 4 0 1 1 6 0v2M7 12h9M7 15h9M7 18h9",
		Settings:   Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1, Most: 1}, Hardware: true}
		},
		Tie: tieCoil,
		Part: &knot.Part{Says: "The ring is above and the ball below: the straight strand is the standing part, the other leg of the eye winds round it.",
			Strands: alone, Still: []bool{true, false}},
		Sample: knot.Sample{Line: "mount A hitch=from-knot, monkeys-fist 3 core=marble, coil-loop 5", Cords: 2, Section: 2},
	})
}

// winding is a coil of turns round a standing part, in diameters: from its left side at the height
// 0 up, front first, so far from the middle and a pitch a turn; and the way of the end from there
// on, through the last turn and out below it. At the face the last turn stands off, for the end
// lies between it and the standing part. It is constructed.
func winding(turns int, radius, pitch float64) (round, through []r3.Vec) {
	const per, open = 16, 1.05
	for i := 0; i <= turns*per; i++ {
		u := float64(i) / per
		s, c := math.Sincos(2 * math.Pi * u)
		r, y := radius, pitch*u
		if last := u - float64(turns-1); last > 0 {
			r += open * math.Max(0, s)
			y += 0.5 * math.Min(1, 4*last)
		}
		round = append(round, r3.Vec{X: -r * c, Y: -y, Z: r * s * math.Min(1, 4*u)})
	}
	top := round[len(round)-1].Y
	front := top + 0.75*pitch // of the last turn
	return round, []r3.Vec{{X: -0.8 * radius, Y: top - 0.15, Z: 0.75}, {X: -0.35, Y: top + 0.3, Z: radius}, {X: 0.1, Y: front, Z: radius}, {X: 0.5, Y: front + 0.75, Z: 1.3}, {X: 1.6, Y: front + 0.9, Z: 1.2}}
}

// tieCoil lays the standing part straight, the eye round the ring's wire and
// the turns back up to where the section begins.
func tieCoil(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 1 {
		return knot.Tied{}, &knot.Refused{Field: "turns", Why: fmt.Sprintf("tied with %s; a coil loop takes the one that leaves the ball", knot.Strands(n))}
	}
	d := w.Strands[0].Diameter
	turns := knot.Of[Settings](w.Section).Turns
	// Turns lie side by side, a diameter apart, round the standing part; the end
	// passes under the last of them.
	neck := float64(turns+1) * d
	eye := math.Max(1.5*w.BarMM, 2.2*d)/2 + d/2 // of the cord's middle about the wire
	reach := 1.6 * eye                          // from the neck to the wire
	var pts []r3.Vec
	put := func(x, y, z float64) { pts = append(pts, r3.Vec{X: x, Y: y, Z: z}) }
	for y := 0.0; y < neck; y += d {
		put(0, y, 0)
	}
	middle := neck + reach
	const steps = 20
	for i := 0; i <= steps; i++ { // down on the right, round the wire, up on the left
		a := -0.5 + (math.Pi+1)*float64(i)/steps
		put(eye*math.Cos(a), middle+eye*math.Sin(a), 0.05*d*float64(i)/steps)
	}
	long := func() float64 { return curve.Curve{Points: pts}.Length() }
	eyeAt := long()
	// In from the eye's left, then round the standing part.
	round, through := winding(turns, 1, 1)
	for _, v := range round {
		put(d*v.X, neck+d*v.Y, d*v.Z)
	}
	turnsAt := long()
	for _, v := range through {
		put(d*v.X, neck+d*v.Y, d*v.Z)
	}
	t := knot.Tied{Height: middle + eye, Repeats: 1, Gap: 1, Loose: true, Ends: true, Endings: []knot.Ending{{TrimsMM: 10}}, Order: knot.Identity(1), Workers: []int{0},
		Eye: middle + eye - d/2 - w.BarMM/2}
	// The turns are constructed and then moved clear of one another.
	parted, _ := tighten.Part([]tighten.Strand{{Route: pts, Diameter: d}})
	t.Paths = []knot.Path{{Points: parted[0].Points}}
	t.Measure(w.Strands)
	t.Moves = []move.Move{
		{Strand: 0, UpTo: eyeAt / long(), Text: "Put the end through the ring and back along its own part.", Detail: fmt.Sprintf("Leave an eye of {%.0fmm} inside, so that the ring turns freely in it.", 2*eye-d)},
		{Strand: 0, UpTo: turnsAt / long(), Text: fmt.Sprintf("Wind %d turns back round its own part, towards the ball, side by side.", turns), Gate: "The turns lie side by side, none crossed; leather has its good side out."},
		{Strand: 0, Text: "Put the end through the last turn and pull it home.", Detail: fmt.Sprintf("Leave that last turn {%.1fmm} open until the end is through; then cut it close.", d)},
	}
	return t, nil
}
