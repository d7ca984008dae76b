package knot

import (
	"encoding/binary"
	"fmt"
	"math"
	"reflect"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

// Strand is one strand as it comes to a knot: where it hangs and how thick it is.
type Strand struct {
	Cord, Leg int    // which cord of the piece, which of its two legs
	At        r3.Vec // mm; y is that of the end of the section above
	Dir       r3.Vec // the way it runs there, unit length
	Stuff     cord.Stuff
	Figures   cord.Figures
	Diameter  float64 // drawn up, mm; in the unit of the work where that is another
}

// Cover is where a strand lies over another one's way up at the back.
type Cover struct {
	UpMM float64 // above the end
	At   r3.Vec  // where it lies, about the work's axis; y is that of the end, 0, or above it, negative
}

// Work is what a knot is given to tie.
type Work struct {
	Section Section
	Strands []Strand // the section's strands, from the left
	Own     []Strand // the section's own cords (a gathering cord), unplaced
	BarMM   float64  // thickness of the wire it hangs on
	// RingMM is the radius of that wire's middle line where it is bent, 0 where
	// it is straight.
	RingMM float64
	// DeepMM is how thick what it hangs on is from face to back, where that is the edge
	// of a hole and no round wire; HoleMM is how wide what the cords go through is.
	DeepMM, HoleMM float64
	// Core is what a wrap goes round besides the strands: the section of a band
	// that was folded back. The strands then end in it.
	Core []Disc
	// Through is set where the strands lie along that core instead, and hang on below
	// the wrap.
	Through bool
	// Covers tells how far above the end of a strand others lie over it at the back, mm, the
	// nearest first; nil where nothing is tied above.
	Covers func(strand int) []Cover
	// LeftHanded makes what has no side of its own the mirror of what a
	// right-handed maker ties.
	LeftHanded bool
	// Slip is what hands do otherwise than they should, for a picture of the work in hand.
	Slip Slip
	// HalfKnots, where it is not zero, ties only so many half knots of a row,
	// for a picture of the work in hand.
	HalfKnots int
}

// Tie ties the section's knot. What it gives is shared: it must not be changed.
func Tie(w Work) (Tied, error) {
	k, ok := Get(w.Section.Do)
	if !ok {
		return Tied{}, Unknown(w.Section.Do)
	}
	if k.Tie == nil {
		return Tied{}, fmt.Errorf("%s is not tied by itself; a piece walks it", w.Section.Do)
	}
	tie := func() (Tied, error) {
		how := k.Tie
		if w.LeftHanded && !k.sided() {
			how = func(w Work) (Tied, error) { return mirrored(w, k, k.Tie) }
		}
		t, err := how(w)
		t.Settle()
		if t.Loose && err == nil {
			t.stops(w)
		}
		return t, err
	}
	if k.Hangs || w.Core != nil {
		return tie()
	}
	return tieds.GetIf(w.key(), func() (Tied, bool, error) {
		t, err := tie()
		return t, t.Rough == nil, err // what is rough is tied anew when its own shape is there
	})
}

// sided tells whether a section of the knot says itself on which side it is
// tied, or both hands tie it alike.
func (k Knot) sided() bool {
	return k.BothHands || slices.ContainsFunc(k.Fields, Field.Sided)
}

// mirrored ties or holds the mirror of the mirrored work.
func mirrored(w Work, k Knot, tie func(Work) (Tied, error)) (Tied, error) {
	n := len(w.Strands)
	m := w
	m.LeftHanded = false
	m.Strands, m.Own = slices.Clone(w.Strands), slices.Clone(w.Own)
	Flip(m.Strands)
	for i := range m.Strands {
		m.Strands[i].At.X = -m.Strands[i].At.X
	}
	if w.Covers != nil {
		m.Covers = func(strand int) []Cover {
			out := slices.Clone(w.Covers(n - 1 - strand))
			for i := range out {
				out[i].At.X = -out[i].At.X
			}
			return out
		}
	}
	m.Core = slices.Clone(w.Core)
	for i := range m.Core {
		m.Core[i].X = -m.Core[i].X
	}
	for _, f := range k.Fields {
		if v, ok := m.Section.Value(f); ok && f.Kind == "place" && v != 0 {
			m.Section = m.Section.With(f, n+1-v.(int))
		}
	}
	t, err := tie(m)
	if err != nil {
		return t, err
	}
	order := slices.Clone(t.Order)
	t.Mirror(n)
	if n == 0 { // out of a ball strands come from the other side
		slices.Reverse(order)
		t.Order = order
	}
	for _, p := range append(slices.Clone(t.Own), t.OwnFlat...) {
		for _, pts := range [2][]r3.Vec{p.Points, p.Inside} {
			for i := range pts {
				pts[i].X = -pts[i].X
			}
		}
	}
	return t, nil
}

// tieds are sections tied before, enough for the pieces of an evening.
var tieds = memo.Cache[Tied]{Most: 40 << 20}

// Forget drops every section that was tied before, to measure what tying costs.
func Forget() { tieds.Forget() }

// key names everything that a knot's shape depends on, where it does not depend
// on how its strands hang.
func (w Work) key() string {
	s := w.Section
	b := make([]byte, 0, 256)
	text := func(vs ...string) {
		for _, v := range vs {
			b = append(append(b, v...), 0)
		}
	}
	num := func(vs ...float64) {
		for _, v := range vs {
			b = binary.LittleEndian.AppendUint64(b, math.Float64bits(v))
		}
	}
	text(s.Do)
	b = appendKey(b, reflect.ValueOf(s.Settings))
	if w.LeftHanded {
		text("left-handed")
	}
	num(float64(s.Count), float64(w.HalfKnots), w.BarMM, w.RingMM, w.DeepMM, w.HoleMM)
	k, _ := Get(s.Do)
	for _, strands := range [2][]Strand{w.Strands, w.Own} {
		num(float64(len(strands)))
		for _, l := range strands {
			text(string(l.Stuff.Make), string(l.Stuff.Material))
			if k.First { // what is inside a ball may be of the cord and has its colour
				text(l.Stuff.Colour)
			}
			num(l.Diameter, l.Stuff.DiameterMM)
		}
	}
	return string(b)
}
