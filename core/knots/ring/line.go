package ring

import "math"

// Line is the line that each strand of a crown runs along, seen from the working end: how
// far it passes from the axis, and half its length, diameters.
type Line struct{ Aside, Half float64 }

// At is a place of the line, along it from -1 to 1, counted in degrees from where it
// begins. out is how much farther from the axis one runs that follows it outside.
func (l Line) At(along, out, y float64) At {
	begins := math.Atan2(l.Half, l.Aside)
	return At{R: math.Hypot(l.Aside+out, l.Half*along), Degrees: (begins + math.Atan2(l.Half*along, l.Aside+out)) * 180 / math.Pi, Y: y}
}

// Loose is the line of a crown of n as hands lay it, before it is drawn up: as long as
// it may be before it meets the line after the next.
func Loose(n int) Line {
	l := Line{Aside: 1.2 / math.Tan(math.Pi/float64(n)), Half: 2.7}
	switch {
	case n == 3:
		l.Half = 3
	case n >= 6:
		l.Half = l.Aside*math.Tan(2*math.Pi/float64(n)) - 0.55
	}
	return l
}
