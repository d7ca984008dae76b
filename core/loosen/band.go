package loosen

import (
	"math"
	"math/cmplx"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	bandApart    = 1.1  // diameters between both strands
	bandWider    = 2.15 // as much wider as what lies beside one another is the way of a band that is drawn up
	bandMore     = 0.3  // and so much more a little before, so that each frame is the longer
	bandMoreBy   = 0.07 // looseness by which it is
	bandLooser   = 0.8  // and so much less when it is loose, for there bands lie flat
	bandFrom     = 0.4  // looseness from which on it is less
	bandOver     = 0.5  // and over which it comes to that
	bandFlat     = 0.3  // looseness by which bands lie flat
	bandKnot     = 9.0  // diameters from its middle up to which a band is in the knot
	bandFar      = 15.0 // and in depth, of its straight ends, what is looked at
	bandStands   = 5.0  // diameters over which a band comes from where its strands stand
	bandStraight = 8.0  // nodes over which its end comes to hang straight
)

// bands are the bands of a knot, and of each the two strands that lie in it.
type bands struct {
	all []band
	of  [][2]int
}

// bandsOf are those of tight strands, as they are seen; swapped, each strand lies on the other side.
func bandsOf(b Bands, tight [][]r3.Vec, swapped bool) bands {
	out := bands{of: slices.Clone(b.Of)}
	for i, pair := range out.of {
		if swapped {
			pair[0], pair[1] = pair[1], pair[0]
			out.of[i] = pair
		}
		out.all = append(out.all, bandOf(b.Film, i, tight[pair[0]], tight[pair[1]]))
	}
	return out
}

// laid are all strands at a part of a frame, as they are seen.
func (b bands) laid(part int) [][]r3.Vec {
	out := make([][]r3.Vec, 2*len(b.all))
	for i, pair := range b.of {
		out[pair[0]], out[pair[1]] = b.all[i].strands(part)
	}
	return out
}

// band is the way of one band as it is seen, frame by frame.
type band struct {
	frames       [][]r3.Vec // of the strand that stands for it
	axis         []r3.Vec   // the middle of where all hang
	aside        float64    // diameters off it, so that bands hang clear of one another
	own, middle  float64    // the depth of the middle of its own knot, and of that of the bands
	deep         float64    // of where its strands hang
	begin, apart r3.Vec     // the middle of where both stand, and from there to the second
	first        r3.Vec     // drawn up, the direction across it where it stands
	turns        []float64  // by which it is turned from there, part by part of each frame, radians
}

// bandOf is band i of a film, of two strands that are drawn up so.
func bandOf(f Film, i int, one, other []r3.Vec) band {
	b := band{begin: curve.Lerp(one[0], other[0], 0.5), apart: r3.Scale(0.5, r3.Sub(other[0], one[0])), deep: one[len(one)-1].Z}
	b.aside = bandApart / math.Sin(math.Pi/float64(len(f.Frames[0])))
	b.middle = deepIn(one, other)
	for _, frame := range f.Frames {
		var axis r3.Vec
		for _, pts := range frame {
			axis = r3.Add(axis, r3.Scale(1/float64(len(frame)), curve.EndOn(pts[len(pts)-1])))
		}
		b.axis = append(b.axis, axis)
		b.frames = append(b.frames, curve.Curve{Points: frame[i]}.Map(curve.EndOn).Points)
	}
	last := b.frames[len(b.frames)-1]
	b.own = deepIn(last)
	near := b.line(float64(len(f.Frames) - 1))
	near.Points = slices.DeleteFunc(near.Points, func(v r3.Vec) bool { return math.Abs(v.Z-b.middle) > bandFar })
	b.first = near.Alongside(bandKnot)[0] // it is straight before
	turn := b.back()
	for part := range bandParts*(len(f.Frames)-1) + 1 {
		at := float64(part) / bandParts
		turn = b.flat(b.line(at), turn)
		b.turns = append(b.turns, turn*curve.Smooth(b.looseness(at)/bandFlat))
	}
	return b
}

// deepIn is how deep strands lie on average between where they stand and where they hang.
func deepIn(strands ...[]r3.Vec) float64 {
	sum, n := 0.0, 0.0
	for _, pts := range strands {
		from, to := Aside(pts)
		for _, v := range even(pts[from:to], to-from) {
			sum, n = sum+v.Z, n+1
		}
	}
	return sum / n
}

// back is by how much its direction is turned back, drawn up, to where both stand, radians.
func (b band) back() float64 {
	return math.Remainder(math.Atan2(b.apart.Y, b.apart.X)-math.Atan2(b.first.Y, b.first.X), 2*math.Pi)
}

// looseness is how loose it is at a frame, or between two, by its cord: from 1 to 0.
func (b band) looseness(at float64) float64 {
	last := len(b.frames) - 1
	k := min(int(at), last-1)
	long := func(k int) float64 { return curve.Curve{Points: b.frames[k]}.Length() }
	tight := long(last)
	u := at - float64(k)
	return (long(k)*(1-u) + long(k+1)*u - tight) / (long(0) - tight)
}

// line is its middle at a frame, or between two.
func (b band) line(at float64) curve.Curve {
	k := min(int(at), len(b.frames)-2)
	loose := b.looseness(at)
	wider := bandWider + bandMore*math.Min(1, loose/bandMoreBy) - bandLooser*curve.Smooth((loose-bandFrom)/bandOver)
	var c curve.Curve
	for j, v := range b.frames[k] {
		v = curve.Lerp(v, b.frames[k+1][j], at-float64(k))
		v.Z -= b.own
		v = r3.Scale(wider, v)
		v.Z += b.middle
		c.Points = append(c.Points, v)
	}
	// Its end hangs straight, and goes past the others'.
	_, to := Aside(c.Points)
	end := c.Points[len(c.Points)-1]
	for j := to; j < len(c.Points); j++ {
		u := curve.Smooth(float64(j-to+1) / bandStraight)
		v := c.Points[j]
		c.Points[j] = r3.Vec{X: v.X + u*(end.X-v.X), Y: v.Y + u*(end.Y-v.Y), Z: v.Z}
	}
	axis := r3.Scale(wider, curve.Lerp(b.axis[k], b.axis[k+1], at-float64(k)))
	for j, v := range slices.Backward(c.Points) {
		off := r3.Vec{X: v.X - axis.X, Y: v.Y - axis.Y}
		if n := r3.Norm(off); n < b.aside && n > 0 {
			off = r3.Scale(b.aside/n, off)
			c.Points[j] = r3.Vec{X: axis.X + off.X, Y: axis.Y + off.Y, Z: v.Z}
			continue
		}
		break
	}
	return c.Resample(int(c.Length()/nodeEvery) + 1)
}

// flat is by how much the direction across a line of it, carried along without twist, must be turned
// to lie as flat in the picture as it can, radians: of all that do, half a turn apart, that which is
// nearest to one.
func (b band) flat(c curve.Curve, nearest float64) float64 {
	side := c.Carried(b.first)
	quarter := c.TurnedSides(side, math.Pi/2)
	var sum complex128 // of twice the angle, so that a band that is turned half round counts as the same
	from, to := Aside(c.Points)
	for j := from; j < to; j++ {
		sum += cmplx.Rect(math.Hypot(side[j].Z, quarter[j].Z), 2*math.Atan2(-side[j].Z, quarter[j].Z))
	}
	return nearest + math.Remainder(cmplx.Phase(sum)/2-nearest, math.Pi)
}

// strands are both at a part of a frame, from where they stand to where they hang.
func (b band) strands(part int) (one, other []r3.Vec) {
	c := b.line(float64(part) / bandParts)
	from, to := 0, len(c.Points)
	for c.Points[from].Z < -tailAbove {
		from++
	}
	for c.Points[to-1].Z > b.deep {
		to--
	}
	one, other = []r3.Vec{r3.Sub(b.begin, b.apart)}, []r3.Vec{r3.Add(b.begin, b.apart)}
	turn := b.turns[part]
	side := c.TurnedSides(c.Carried(b.first), turn)
	back := b.back() - turn
	stands := true
	for j := from + 1; j < to-1; j++ {
		v, off := c.Points[j], r3.Scale(bandApart/2, side[j])
		near := 1 - curve.Smooth((v.Z+tailAbove)/bandStands)
		if stands = stands && near > 0; stands {
			v.X, v.Y = v.X+near*(b.begin.X-v.X), v.Y+near*(b.begin.Y-v.Y)
			off = turnedAbout(r3.Scale(1-near+near*2*r3.Norm(b.apart)/bandApart, off), near*back)
			off.Z *= 1 - near
		}
		one, other = append(one, r3.Sub(v, off)), append(other, r3.Add(v, off))
	}
	hang := func(pts []r3.Vec) []r3.Vec {
		end := pts[len(pts)-1]
		end.Z = b.deep
		return append(pts, end)
	}
	return hang(one), hang(other)
}
