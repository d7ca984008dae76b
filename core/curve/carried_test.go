package curve_test

import (
	"math"
	"testing"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// What is carried along a curve stays a unit across it and does not turn about it: carried along a
// flat curve, what stands up from it stands up all the way. Turned by a quarter it lies flat, and by
// whole turns it is what it was.
func TestSidesAreCarriedWithoutTwist(t *testing.T) {
	var flat curve.Curve
	for i := range 60 {
		u := float64(i) / 10
		flat.Points = append(flat.Points, r3.Vec{X: 3 * math.Cos(u), Y: 2 * math.Sin(2*u)})
	}
	up := flat.Carried(r3.Vec{Z: 1})
	for i, quarter := range flat.TurnedSides(up, math.Pi/2) {
		near(t, "what stands up", up[i].Z, 1, 1e-9)
		near(t, "a quarter turned", quarter.Z, 0, 1e-9)
	}
	c := wave(300, 0.4)
	sides := c.Carried(r3.Vec{X: 0.3, Y: -0.2, Z: 1})
	for i, again := range c.TurnedSides(sides, 4*math.Pi) {
		near(t, "length", r3.Norm(sides[i]), 1, 1e-9)
		if i > 0 && i < len(sides)-1 {
			near(t, "along the curve", r3.Dot(sides[i], r3.Unit(r3.Sub(c.Points[i+1], c.Points[i-1]))), 0, 1e-9)
		}
		near(t, "whole turns", r3.Norm(r3.Sub(again, sides[i])), 0, 1e-9)
	}
}

// Along a great circle, whose surface is the ball, the way to the side is the ball's: across the way
// out of it everywhere, but for half of the degree by which it is sought.
func TestTheWayToTheSideLiesInTheSurface(t *testing.T) {
	var ring curve.Curve
	for i := range 120 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / 120)
		ring.Points = append(ring.Points, r3.Vec{X: 5 * c, Y: 5 * s})
	}
	for i, side := range ring.Alongside(9) {
		near(t, "outwards", r3.Dot(side, r3.Unit(ring.Points[i])), 0, 0.01)
	}
}
