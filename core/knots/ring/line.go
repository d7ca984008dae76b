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

// Close is the line of a crown of n as it is laid to be drawn up.
func Close(n int) Line { return lineOf(n, 0.75, 2, 2.3) }

// Loose is the line of a crown of n as hands lay it, with more to come.
func Loose(n int) Line { return lineOf(n, 1.2, 2.7, 3) }

// lineOf is the line of a crown of n: its lines make a figure of sides twice so long as
// aside says, and each goes on for half, or of three strands for three, and of six and
// more not as far as it would meet the line after the next.
func lineOf(n int, aside, half, three float64) Line {
	l := Line{Aside: aside / math.Tan(math.Pi/float64(n)), Half: half}
	switch {
	case n == 3:
		l.Half = three
	case n >= 6:
		l.Half = l.Aside*math.Tan(2*math.Pi/float64(n)) - 0.55
	}
	return l
}
