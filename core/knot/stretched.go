package knot

import (
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// What has no film that was grown is shown stretched about the work's axis, so many times:
// strands are as thick as they were, and nothing comes nearer to anything.
const stretch = 1.6

// Of a strand so much is laid above and below a stretched knot, as a film has that was grown, and
// its nodes so far apart, diameters.
const stretchAbove, stretchBelow, stretchNode = 4.0, 9.0, 0.3

// Below a knot that is closed so much is put in, diameters, over which strands go outwards to
// the stretched one: on all levels of it they lie as where it is put in, only wider.
const stretchClosed = 3.0

// stretched is a film of two frames: the knot stretched from a height on, and as it is. What
// is tied about something else, or takes something in, is not stretched off it.
func stretched(t Tied, d, from float64) (Film, [][]r3.Vec, bool) {
	if len(t.Paths) == 0 || t.OwnFlat != nil || !onlyRings(t.Beads) || t.Core != nil || t.Opening != nil || len(t.Threads) > 0 || t.Ends || t.Eye != 0 || !t.Loose {
		return Film{}, nil, false
	}
	var wide, tight [][]r3.Vec
	var tops []float64
	for _, p := range t.Paths {
		n := len(p.Points)
		if n < 2 {
			return Film{}, nil, false
		}
		first, end := r3.Scale(1/d, p.Points[0]), r3.Scale(1/d, p.Points[n-1])
		pts := []r3.Vec{{X: first.X, Y: first.Y - stretchAbove, Z: first.Z}}
		for _, v := range p.Points {
			pts = append(pts, r3.Scale(1/d, v))
		}
		line := curve.Curve{Points: append(pts, r3.Vec{X: end.X, Y: end.Y + stretchBelow, Z: end.Z})}
		line = line.Resample(max(4, int(line.Length()/stretchNode)))
		tight = append(tight, line.Points)
		tops = append(tops, first.Y)
		top, more := first.Y, 0.0
		if from > 0 {
			top, more = from/d, stretchClosed
		}
		wide = append(wide, line.Map(func(v r3.Vec) r3.Vec {
			switch {
			case v.Y >= top:
				return r3.Add(stretchedFrom(v, top), r3.Vec{Y: more})
			case from > 0:
				return v
			}
			by := 1 + (stretch-1)*curve.Smooth((v.Y-top+stretchAbove)/stretchAbove) // from where it hangs it comes to it
			return r3.Vec{X: by * v.X, Y: v.Y, Z: by * v.Z}
		}).Points)
	}
	for _, p := range t.Own { // a cord of its own has no straight strand
		if len(p.Points) < 4 || from > 0 {
			return Film{}, nil, false
		}
		line := curve.Curve{Points: p.Points}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(1/d, v) })
		tight = append(tight, line.Points)
		top := slices.Min(tops)
		wide = append(wide, line.Map(func(v r3.Vec) r3.Vec { return stretchedFrom(v, top) }).Points)
	}
	return Film{Frames: [][][]r3.Vec{wide, tight}}, tight, true
}

// stretchedFrom is where a place of a knot that begins at a height lies when it is stretched.
func stretchedFrom(v r3.Vec, top float64) r3.Vec {
	return r3.Vec{X: stretch * v.X, Y: top + stretch*(v.Y-top), Z: stretch * v.Z}
}

// onlyRings tells whether nothing but rings hang in a knot.
func onlyRings(beads []BeadAt) bool {
	return !slices.ContainsFunc(beads, func(b BeadAt) bool { return b.Shape != RingShape })
}

// hung is a ring in a knot that is drawn up so far from being stretched, and hangs lower by so much,
// mm: its upper wire lies where it did in the knot.
func (b BeadAt) hung(top, drawn, lower float64) BeadAt {
	wire := r3.Vec{Y: (b.HoleMM + b.LengthMM) / 4} // from its middle to the middle of its wire
	at := r3.Sub(b.At, wire)
	b.At = r3.Add(curve.Lerp(stretchedFrom(at, top), at, drawn), r3.Add(wire, r3.Vec{Y: lower}))
	return b
}

// Stretched is a film in which a knot that hangs loose is stretched about the work's axis and
// goes back to what it is, in so many even steps; d is its thickest strand, mm. ok is false
// for what is not stretched.
func Stretched(t Tied, d float64, frames int) (f Film, ok bool) {
	two, now, ok := stretched(t, d, 0)
	for k := range frames {
		f.Frames = append(f.Frames, two.at(now, float64(k)/float64(max(1, frames-1))))
	}
	return f, ok
}
