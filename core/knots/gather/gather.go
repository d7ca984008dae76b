// Package gather holds a bundle together by a wrap.
package gather

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a gathering knot.
type Settings struct {
	Cord  knot.CordID `json:"cord,omitempty" typed:"-" label:"cord" needed:"yes"`
	Turns int         `json:"turns,omitempty" typed:"turns" label:"turns" default:"6" least:"1" most:"500" needed:"yes"`
}

// Gathering knot (wrap knot): a separate cord is laid as a long eye along the
// bundle, wound round it and the eye from the top, its end put through the eye;
// the other end is pulled till the eye is half way under the turns, and both
// are cut flush.
//
// Right: the turns lie side by side, none crossed, none climbing on another.
// Wrong: a turn that crosses another; pull it off and wind again.
//
// Makers differ in the number of turns; below five the eye shows when the wrap
// works loose.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "gather", Name: "gathering knot", Family: "wraps and gathers",
		Held:       "In the hand, the bundle pinched under the turns.",
		Wrong:      wrong,
		OtherNames: []string{"wrap knot", "wrapping knot"},
		For:        "holding a bundle together above a tassel",
		Schools:    []knot.School{{Field: "turns", Default: "6", Why: "five or more keep the eye hidden"}},
		Short:      []string{"wrap"},
		Glyph:      "M9 2v20M15 2v20M5 9h14M5 12h14M5 15h14",
		Settings:   Settings{},
		Hangs:      true,
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 2}, Bundles: true, Cords: []string{string(knot.Of[Settings](s).Cord)}, CordsAt: "cord"}
		},
		Wraps: func(w knot.Work) float64 {
			return (float64(knot.Of[Settings](w.Section).Turns) + 1) * w.Own[0].Diameter
		},
		Tie:    tieGather,
		Hold:   holdGather,
		Part:   &knot.Part{Says: "The straight strand stands for the bundle; the cord is shown with its end through the eye, before the pull.", Strands: alone, Still: []bool{true, false}},
		Sample: knot.Sample{Line: "mount A B, gather C turns=5", Cords: 2, Section: 1},
		Anew: func(_ int, free []string) []knot.Section {
			set := Settings{Turns: 6}
			if len(free) > 0 {
				set.Cord = knot.CordID(free[0])
			}
			return []knot.Section{{Do: "gather", Settings: set}}
		},
	})
}

// round is a taut turn of cord of diameter d about a bundle: its centre line
// in section, closed, from the right side over the face.
func round(ds []knot.Disc, d float64) []r3.Vec {
	const n = 72
	var out []r3.Vec
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		best, at := math.Inf(-1), 0
		for k, q := range ds {
			if h := q.X*c + q.Z*s + q.R; h > best {
				best, at = h, k
			}
		}
		q := ds[at]
		out = append(out, r3.Vec{X: q.X + (q.R+d/2)*c, Z: q.Z + (q.R+d/2)*s})
	}
	return out
}

// What a gathering cord must be longer than it lies when it is tied, mm: its short end
// stands out of the bundle so far to be pulled by, as much of the long end is held for
// the last turn, and the eye's bend lies so far below the last turn that the end, with
// the fingers at it, can be put through.
const (
	pulled = 40.0
	eyeOut = 10.0
)

// below is how far the eye's bend lies below the last turn before it is pulled, mm.
func below(d float64) float64 { return eyeOut + 2*d }

func tieGather(w knot.Work) (knot.Tied, error) {
	if len(w.Strands) < 2 {
		return knot.Tied{}, fmt.Errorf("gather needs two strands or more to hold; it has %d", len(w.Strands))
	}
	set := knot.Of[Settings](w.Section)
	own := w.Own[0]
	d := own.Diameter
	// The two legs of the eye lie in the bundle too, or behind the band.
	ds := w.Under(d/2, d/2)
	ring := round(ds, d)
	t := knot.Tied{Loose: true, Order: knot.Identity(len(w.Strands)), Repeats: 1, Gap: 1}
	t.Height = float64(set.Turns)*d + d
	t.LengthMM = t.Height / 2 // where its eye comes to lie
	t.OwnBeyondMM = 2*below(d) + 2*pulled
	t.Paths = w.Straight(ds, t.Height)
	t.Own = []knot.Path{{Points: append(eye(ds, d, 0.2*d, t.Height), turns(ring, comesOut(ring, ds, d), d, set.Turns)...)}}
	t.Moves = []move.Move{
		{Strand: len(w.Strands), Text: fmt.Sprintf("Lay cord {cord} along the bundle as an eye {%.0fmm} long, the bend down.", t.Height+below(d)),
			Detail: fmt.Sprintf("Leave {%.0fmm} of the short end standing out at the top.", pulled)},
		{Strand: len(w.Strands), Text: fmt.Sprintf("Wind the long end %d turns round bundle and eye, from the top down.", set.Turns),
			Detail: fmt.Sprintf("Side by side and snug. Keep a tail of {%.0fmm} to put through the eye.", pulled+below(d)), Gate: "The turns lie side by side; none crosses another."},
		{Strand: len(w.Strands), Text: "Put the end through the eye and pull the short end till the eye is half way under the turns.",
			Detail: "The eye then lies {length} below the first turn. Cut both ends flush."},
	}
	return t, nil
}

// eye is the eye that lies in the bundle, from where its short end stands: down along one leg,
// the bend, which comes down so low, and up along the other.
func eye(ds []knot.Disc, d, from, low float64) []r3.Vec {
	a, b := ds[len(ds)-2], ds[len(ds)-1]
	pts := []r3.Vec{{X: a.X, Y: from, Z: a.Z}, {X: a.X, Y: low - 0.5*d, Z: a.Z}}
	for i := 1; i < 6; i++ {
		s, c := math.Sincos(math.Pi * float64(i) / 6)
		m := curve.Lerp(r3.Vec{X: a.X, Z: a.Z}, r3.Vec{X: b.X, Z: b.Z}, (1-c)/2)
		pts = append(pts, r3.Vec{X: m.X, Y: low - 0.5*d + 0.5*d*s, Z: m.Z})
	}
	return append(pts, r3.Vec{X: b.X, Y: low - 0.5*d, Z: b.Z}, r3.Vec{X: b.X, Y: 0.7 * d, Z: b.Z})
}

// turns are so many turns round the bundle from a point of the ring on, from the top down.
func turns(ring []r3.Vec, first int, d float64, times int) []r3.Vec {
	about := curve.Curve{Points: ring, Closed: true}.Length()
	run := 0.0
	var pts []r3.Vec
	for k := 0; k <= times*len(ring); k++ {
		v := ring[(first+k)%len(ring)]
		if k > 0 {
			u := ring[(first+k-1)%len(ring)]
			run += math.Hypot(v.X-u.X, v.Z-u.Z)
		}
		pts = append(pts, r3.Vec{X: v.X, Y: 0.5*d + d*run/about, Z: v.Z})
	}
	return pts
}

// holdGather holds a wrap in hand as it is: the eye alone, its bend out below; then turn by
// turn; and with the pull the eye goes half way under them.
func holdGather(w knot.Work, action int, along float64) (knot.Tied, error) {
	t, err := tieGather(w)
	if err != nil || action >= 2 && along >= knot.Led {
		return t, err
	}
	d := w.Own[0].Diameter
	ds := w.Under(d/2, d/2)
	ring := round(ds, d)
	const stands = 3.0 // of the short end so much is shown above, diameters
	// While the end is led through it the eye stands open; then it is pulled up to the turns.
	led, pulled := 1.0, 0.0
	if action == 2 {
		led, pulled = math.Min(1, along/throughBy), math.Max(0, (along-throughBy)/(knot.Led-throughBy))
	}
	low := t.Height + below(d)*(1-pulled) + 3.5*d*pulled
	laid := onFace(eye(ds, d, -stands*d, low), ds, d, t.Height, action > 0, action == 2)
	all := append(slices.Clip(laid), turns(ring, comesOut(ring, ds, d), d, knot.Of[Settings](w.Section).Turns)...)
	first, whole := curve.Curve{Points: laid}.Length(), curve.Curve{Points: all}.Length()
	const hangs = 0.999 // its end hangs from the last turn
	share := hangs
	switch action {
	case 0:
		share = first / whole * math.Max(0.05, along)
	case 1:
		share = math.Min(hangs, (first+(whole-first)*along)/whole)
	}
	if action == 2 {
		through := append(slices.Clip(all), throughEye(all[len(all)-1], ds, d, t.Height, low)...)
		long := curve.Curve{Points: through}.Length()
		all, share = through, (whole+(long-whole)*led)/long*hangs
	}
	t.Own = []knot.Path{{Points: knot.Tip(all, share, d)}}
	return t, nil
}

// throughBy is the share of the last move by which the end is through the eye.
const throughBy = 0.4

// faceOf is how far forward a cord of d lies on the face of the strands of a bundle, the eye's
// legs apart, at a place across it.
func faceOf(ds []knot.Disc, d, x float64) float64 {
	z := math.Inf(-1)
	for _, q := range ds[:len(ds)-2] {
		if off := math.Abs(x - q.X); off < q.R+d/2 {
			z = math.Max(z, q.Z+math.Sqrt((q.R+d/2)*(q.R+d/2)-off*off))
		}
	}
	return z
}

// across is the left and the right side of discs.
func across(ds []knot.Disc) (left, right float64) {
	left, right = math.Inf(1), math.Inf(-1)
	for _, q := range ds {
		left, right = math.Min(left, q.X-q.R), math.Max(right, q.X+q.R)
	}
	return left, right
}

// throughEye is the way of an end from the last turn on: down beside the bundle, behind one leg of
// the open eye, whose bend comes down so low, out through it and over its bend. It is constructed.
func throughEye(from r3.Vec, ds []knot.Disc, d, tall, low float64) []r3.Vec {
	left, right := across(ds)
	mid, side := (left+right)/2, 1.0
	if from.X < mid {
		side = -1
	}
	edge, face := (right-left)/2, math.Inf(-1)
	for _, q := range ds[:len(ds)-2] { // as far forward as any of the bundle
		face = math.Max(face, q.Z+q.R+d/2)
	}
	at := func(x, y, z float64) r3.Vec { return r3.Vec{X: mid + side*x, Y: y, Z: z} }
	deep := low - tall
	way := []r3.Vec{from, at(edge+0.9*d, tall+0.15*deep, 0), at(edge+0.9*d, tall+0.35*deep, face/2), at(1.2*d, tall+0.5*deep, face+0.05*d),
		at(0.2*d, tall+0.55*deep, face+0.3*d), at(0, low-1.5*d, face+(opened+0.4)*d), at(0, low-0.6*d, face+(opened+1.15)*d), at(0, low+0.5*d, face+(opened+1.15)*d), at(0, low+2*d, face+opened*d), at(0, low+5*d, face)}
	return curve.Spline(way, false).Points[1:]
}

// opened is how far an eye that an end is led through stands off the face, diameters.
const opened = 1.3

// onFace brings an eye forward to the face of the bundle, where it is seen: all of it, or, once
// it is wound over, what stands out above and below a wrap of a height. Below it stands open,
// where an end is led through it.
func onFace(pts []r3.Vec, ds []knot.Disc, d, tall float64, wound, open bool) []r3.Vec {
	line := curve.Curve{Points: pts}
	pts = line.Resample(max(20, int(2*line.Length()/d))).Points
	a, b := ds[len(ds)-2], ds[len(ds)-1]
	mid, wide := (a.X+b.X)/2, math.Max(1e-9, math.Abs(b.X-a.X)/2)
	left, right := across(ds)
	for i, v := range pts {
		out := 1.0
		if wound {
			out = curve.Smooth(math.Max(-v.Y, v.Y-tall) / d)
		}
		apart, off := 0.6*d, 0.0
		if open {
			u := curve.Smooth((v.Y - tall) / (2 * d))
			apart, off = (0.6+0.6*u)*d, opened*u*d
		}
		x := (left+right)/2 + apart*math.Max(-1, math.Min(1, (v.X-mid)/wide))
		z := faceOf(ds, d, x)
		if math.IsInf(z, -1) {
			continue
		}
		z += off
		pts[i] = curve.Lerp(v, r3.Vec{X: x, Y: v.Y, Z: z}, out)
	}
	return pts
}

// comesOut is where on the ring the second leg of the eye, the last of the discs,
// comes out of the bundle: where it has the most room on its way, and of places with
// as much, where the way is shortest.
func comesOut(ring []r3.Vec, ds []knot.Disc, d float64) int {
	leg, around := ds[len(ds)-1], ds[:len(ds)-2]
	best, at := math.Inf(-1), 0
	for i, to := range ring {
		x, z := to.X-leg.X, to.Z-leg.Z
		long := math.Sqrt(x*x + z*z)
		room := 0.0 // less than none, where a strand is in its way
		for _, q := range around {
			if 100*room-long <= best {
				break // another place is better by now
			}
			// Where its way passes the middle of that strand, and how far from it.
			u := math.Max(0, math.Min(1, ((q.X-leg.X)*x+(q.Z-leg.Z)*z)/math.Max(long*long, 1e-18)))
			px, pz := q.X-leg.X-u*x, q.Z-leg.Z-u*z
			room = math.Min(room, math.Sqrt(px*px+pz*pz)-q.R-d/2)
		}
		if score := 100*room - long; score > best {
			best, at = score, i
		}
	}
	return at
}

// wrong is a wrap with one turn fewer: what a turn that climbed on another looks like when
// it has slipped off.
func wrong(s knot.Section) []knot.Wrong {
	turns := knot.Of[Settings](s).Turns
	if turns < 3 {
		return nil
	}
	fewer := s.Put("turns", turns-1)
	return []knot.Wrong{{
		What:    fmt.Sprintf("%d turns lie side by side, none crossed.", turns),
		How:     "Count them on the face and on the back, and push the wrap with a thumbnail: it does not slide.",
		Says:    fmt.Sprintf("One turn is missing, %d instead of %d: it lay across the others and has slipped off.", turns-1, turns),
		Back:    "Pull the eye out again by the upper end, take the turns off, and wind them anew from the top, each against the one before.",
		Instead: []knot.Section{fewer},
	}}
}
