package loosen

import (
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Opening opens what lies round something, a stem or a ball, till all of it lies flat before the
// viewer: so one sees the whole of a cover, or of a ball, at once. It is a map of space and is
// constructed: nothing passes through anything.
//
// Laws: (1) at 0 all stands as it did, a ball turned to the viewer; (2) two places that are near
// one another, outside of what is covered, never come nearer; (3) it is no mirror image; (4) of
// what lies flat, that which lay farther out lies nearer to the viewer.
type Opening struct {
	// At is where a place goes that is opened so far, from 0 to 1.
	At func(v r3.Vec, open float64) r3.Vec
	// Outward is the direction that comes to look at the viewer, a unit.
	Outward func(v r3.Vec) r3.Vec
	// Says is how one looks at it then, a sentence.
	Says string
	// Across is set where it lies flat as one sees it who looks at the working end.
	Across bool
}

// Of a cover that lies flat the inner edge stands so far out, diameters, and from edge to edge
// it is so many times as wide: at both edges strands lie apart.
const (
	coverOut  = 2.5
	coverWide = 1.7
	ballWide  = 2.0 // a ball's surface is stretched so many times
	flatWide  = 1.4 // and what lies flat
	wireWide  = 1.8 // and what is put on a wire
)

// OpenedCover opens what lies round the work's axis like an umbrella: its lower edge stays, its
// upper edge goes outwards. Diameters.
func OpenedCover(strands [][]r3.Vec) Opening {
	radius, outer, low := math.Inf(1), 0.0, math.Inf(-1)
	for _, pts := range strands {
		for _, v := range pts {
			a := math.Hypot(v.X, v.Z)
			radius, outer, low = math.Min(radius, a), math.Max(outer, a), math.Max(low, v.Y)
		}
	}
	// At its lower edge, too, what lies outside goes no nearer to the axis.
	more := math.Max(coverOut, outer-radius)
	out := func(v r3.Vec) r3.Vec {
		if a := math.Hypot(v.X, v.Z); a > 0 {
			return r3.Vec{X: v.X / a, Z: v.Z / a}
		}
		return r3.Vec{X: 1}
	}
	return Opening{Says: "It is opened like an umbrella: the inner circle is its lower edge.", Across: true, Outward: out, At: func(v r3.Vec, open float64) r3.Vec {
		sin, cos := math.Sincos(open * math.Pi / 2)
		off, up := math.Hypot(v.X, v.Z)-radius, (low-v.Y)*(1+(coverWide-1)*open)
		at := r3.Scale(radius+more*open+off*cos+up*sin, out(v))
		at.Y = low - up*cos + off*sin
		return at
	}}
}

// OpenedBall unrolls a ball from the place opposite to where it is opened: there it stays, and
// its surface is bent less and less till it is flat. opposite is the direction of that place, a
// unit, which comes to look at the viewer.
func OpenedBall(middle r3.Vec, radius float64, opposite r3.Vec) Opening {
	// Two directions beside it, so that the third looks at the viewer.
	side := r3.Vec{Y: 1}
	if math.Abs(opposite.Y) > 0.9 {
		side = r3.Vec{X: 1}
	}
	x := r3.Unit(r3.Cross(side, opposite))
	y := r3.Cross(opposite, x)
	return Opening{
		Says:    "It is opened at its widest gap and unrolled: the rim is what lies about that gap.",
		Outward: func(v r3.Vec) r3.Vec { return r3.Unit(r3.Sub(v, middle)) },
		At: func(v r3.Vec, open float64) r3.Vec {
			v = turnedTo(r3.Sub(v, middle), x, y, opposite)
			r := r3.Norm(v)
			flat := math.Hypot(v.X, v.Y)
			if flat < 1e-9 {
				return r3.Vec{Z: r - radius}
			}
			angle := math.Atan2(flat, v.Z)
			wide := 1 + (ballWide-1)*open
			bent := (1 - open) / (radius * wide) // of its surface
			along := radius * wide * angle
			if bent < 1e-6 {
				return r3.Vec{X: along * v.X / flat, Y: along * v.Y / flat, Z: r - radius}
			}
			// On a sphere of that bend, as far along and as far off it.
			sin, cos := math.Sincos(along * bent)
			far := 1/bent + r - radius
			return r3.Vec{X: far * sin * v.X / flat, Y: far * sin * v.Y / flat, Z: far*cos - 1/bent}
		},
	}
}

// Spread spreads what lies flat already.
func Spread() Opening { return spread(flatWide, "It is spread, wider than it will lie.") }

// Wider spreads what is put on a wire along x, from the wire's middle: the wire stays where it is.
func Wider() Opening {
	return spread(wireWide, "The straight strand, from the left to the right, is the wire that it is put on.")
}

// spread is flat things so many times as wide and as tall, and no deeper.
func spread(wide float64, says string) Opening {
	return Opening{
		Says:    says,
		Outward: func(r3.Vec) r3.Vec { return r3.Vec{Z: 1} },
		At: func(v r3.Vec, open float64) r3.Vec {
			by := 1 + (wide-1)*open
			return r3.Vec{X: by * v.X, Y: by * v.Y, Z: v.Z}
		},
	}
}

// turnedTo is a place by three directions.
func turnedTo(v, x, y, z r3.Vec) r3.Vec {
	return r3.Vec{X: r3.Dot(v, x), Y: r3.Dot(v, y), Z: r3.Dot(v, z)}
}

// Film is how strands that are opened close up, in so many frames: as they lie flat first, as
// they lie round it last. All have the same nodes.
func (o Opening) Film(strands [][]r3.Vec, frames int) Film {
	f := Film{Across: o.Across}
	for k := range frames {
		open := 1 - float64(k)/float64(max(1, frames-1))
		var frame [][]r3.Vec
		for _, pts := range strands {
			frame = append(frame, curve.Curve{Points: pts}.Map(func(v r3.Vec) r3.Vec { return o.At(v, open) }).Points)
		}
		f.Frames = append(f.Frames, frame)
	}
	return f
}
