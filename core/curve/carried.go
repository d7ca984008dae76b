package curve

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// ahead is the direction of an open curve at point i, a unit.
func (c Curve) ahead(i int) r3.Vec {
	return r3.Unit(r3.Sub(c.Points[min(len(c.Points)-1, i+1)], c.Points[max(0, i-1)]))
}

// Carried is, at each point of an open curve, a unit across it: the part across it of a direction
// at its beginning, carried along without twist.
func (c Curve) Carried(side r3.Vec) []r3.Vec {
	out := make([]r3.Vec, len(c.Points))
	for i := range c.Points {
		t := c.ahead(i)
		side = r3.Unit(r3.Sub(side, r3.Scale(r3.Dot(side, t), t)))
		out[i] = side
	}
	return out
}

// TurnedSides are units across an open curve, all turned about it by an angle, radians.
func (c Curve) TurnedSides(sides []r3.Vec, by float64) []r3.Vec {
	out := make([]r3.Vec, len(sides))
	sin, cos := math.Sincos(by)
	for i, v := range sides {
		out[i] = c.turned(i, v, sin, cos)
	}
	return out
}

// turned is a unit across an open curve at point i, turned about it.
func (c Curve) turned(i int, side r3.Vec, sin, cos float64) r3.Vec {
	return r3.Add(r3.Scale(cos, side), r3.Scale(sin, r3.Cross(c.ahead(i), side)))
}

// Alongside is, at each point of an open curve, the way to its side in the surface of the knot
// that it makes, a unit: a direction carried along it without twist, begun so that it lies best
// across the way out of the knot. Of the curve that counts which lies within so far of its middle.
func (c Curve) Alongside(within float64) []r3.Vec {
	a := c.ahead(0)
	carried := c.Carried(r3.Unit(r3.Cross(a, r3.Vec{X: a.Y, Y: a.Z, Z: a.X})))
	var middle r3.Vec
	for _, v := range c.Points {
		middle = r3.Add(middle, r3.Scale(1/float64(len(c.Points)), v))
	}
	best, angle := math.Inf(1), 0.0
	for k := range 180 {
		by := float64(k) * math.Pi / 180
		sin, cos := math.Sincos(by)
		off := 0.0
		for i, v := range c.Points {
			out := r3.Sub(v, middle)
			if r3.Norm(out) > within {
				continue
			}
			u := r3.Dot(c.turned(i, carried[i], sin, cos), r3.Unit(out))
			off += u * u
		}
		if off < best {
			best, angle = off, by
		}
	}
	return c.TurnedSides(carried, angle)
}
