// Package gather holds a bundle together by a wrap.
package gather

import (
	"fmt"
	"math"

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
	a, b := ds[len(ds)-2], ds[len(ds)-1]
	// Down along one leg, the eye's bend, up along the other, then the turns.
	pts := []r3.Vec{{X: a.X, Y: 0.2 * d, Z: a.Z}, {X: a.X, Y: t.Height - 0.5*d, Z: a.Z}}
	for i := 1; i < 6; i++ {
		s, c := math.Sincos(math.Pi * float64(i) / 6)
		m := curve.Lerp(r3.Vec{X: a.X, Z: a.Z}, r3.Vec{X: b.X, Z: b.Z}, (1-c)/2)
		pts = append(pts, r3.Vec{X: m.X, Y: t.Height - 0.5*d + 0.5*d*s, Z: m.Z})
	}
	pts = append(pts, r3.Vec{X: b.X, Y: t.Height - 0.5*d, Z: b.Z}, r3.Vec{X: b.X, Y: 0.7 * d, Z: b.Z})
	first := comesOut(ring, ds, d)
	about := curve.Curve{Points: ring, Closed: true}.Length()
	run := 0.0
	for k := 0; k <= set.Turns*len(ring); k++ {
		v := ring[(first+k)%len(ring)]
		if k > 0 {
			u := ring[(first+k-1)%len(ring)]
			run += math.Hypot(v.X-u.X, v.Z-u.Z)
		}
		pts = append(pts, r3.Vec{X: v.X, Y: 0.5*d + d*run/about, Z: v.Z})
	}
	t.Own = []knot.Path{{Points: pts}}
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
