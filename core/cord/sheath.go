package cord

import (
	"encoding/json"
	"fmt"
	"math"

	"nimblebight/core/unknown"
)

// Pattern is how other colours lie on a sheath.
type Pattern string

// The patterns of sheaths. A changing cord changes its colour along its length; all
// others have theirs in yarns of the sheath.
const (
	Flecked   Pattern = "flecked"
	Striped   Pattern = "striped"
	Tracer    Pattern = "tracer"
	Glow      Pattern = "glow"
	TwoColour Pattern = "two-colour"
	Changing  Pattern = "changing"
)

// Patterns lists them.
func Patterns() []Pattern { return []Pattern{Flecked, Striped, Tracer, Glow, TwoColour, Changing} }

// Name is what it is called where one is chosen.
func (p Pattern) Name() string {
	switch p {
	case Tracer:
		return "a reflective tracer"
	case Glow:
		return "yarns that glow"
	case TwoColour:
		return "half in another colour"
	case Changing:
		return "changing along the cord"
	}
	return string(p)
}

// Most is how many colours a sheath of the pattern has beside the cord's own.
func (p Pattern) Most() int {
	if p == Changing {
		return MostChanges
	}
	return 1
}

// Sheath is what a cord shows beside its own colour.
//
// Invariant: all of it comes again after RepeatMM along the cord and after a turn round
// it; at each place at most one of Colours lies, and where none does the cord's own.
type Sheath struct {
	Pattern  Pattern  `json:"pattern" jsonschema:"enum=flecked,enum=striped,enum=tracer,enum=glow,enum=two-colour,enum=changing"`
	Colours  []string `json:"colours"`
	RepeatMM float64  `json:"repeat_mm"`

	// Unknown keeps fields of a newer make through a round trip.
	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the sheath with the fields it did not know.
func (s Sheath) MarshalJSON() ([]byte, error) {
	type plain Sheath
	return unknown.Marshal(plain(s), s.Unknown)
}

// The least and the greatest repeat, mm, and how many colours a changing cord has beside
// its own.
const (
	LeastRepeatMM = 2.0
	MostRepeatMM  = 5000.0
	MostChanges   = 7
)

// Check says what is wrong with a sheath: a field name and a sentence, both empty if
// nothing is.
func (s Sheath) Check() (field, problem string) {
	known := false
	for _, p := range Patterns() {
		known = known || p == s.Pattern
	}
	if !known {
		return "pattern", fmt.Sprintf("is %.20q; a sheath is flecked, striped, two-colour or changing, or has a tracer or a glow", s.Pattern)
	}
	if !(s.RepeatMM >= LeastRepeatMM && s.RepeatMM <= MostRepeatMM) {
		return "repeat_mm", fmt.Sprintf("is %v; measure how far it is until the pattern comes again: %g mm to %g m", s.RepeatMM, LeastRepeatMM, MostRepeatMM/1000)
	}
	if n, most := len(s.Colours), s.Pattern.Most(); n == 0 || n > most {
		return "colours", fmt.Sprintf("are %d; a %s sheath has 1 to %d beside the cord's own", n, s.Pattern, most)
	}
	for i, c := range s.Colours {
		if !IsColour(c) {
			return fmt.Sprintf("colours[%d]", i), fmt.Sprintf("is %.20q; write it as #rrggbb", c)
		}
	}
	return "", ""
}

// How wide yarns and flecks are, shares of the way round; how long a fleck is, in
// diameters. A tracer is one yarn of the sheath's sixteen or so that goes under others
// half of its way.
const (
	yarnShare   = 0.07
	stripeShare = 0.14
	fleckShare  = 0.13
	fleckLong   = 0.55
	fleckRings  = 4 // in a repeat, each turned by a quarter from the last
	tracerDash  = 8 // dashes in a repeat
)

// Reach is how far inside the k-th of its colours a place of the sheath lies, in
// diameters; below zero outside. The place is mm along the cord, on which the pattern
// begins at 0, and turned round it by an angle; the cord is d mm thick.
//
// Laws: (1) it comes again after a repeat and after a turn; (2) of all colours at most one
// is reached.
func (s Sheath) Reach(k int, mm, angle, d float64) float64 {
	at := mm / s.RepeatMM // in repeats
	// round is how far the way to a line that runs round so often in a repeat is, in
	// shares of the way round, from -1/2 to 1/2.
	round := func(turns, from float64) float64 {
		v := angle/(2*math.Pi) - turns*at - from
		return v - math.Round(v)
	}
	inDiameters := math.Pi // a share of the way round
	switch s.Pattern {
	case Changing:
		parts := float64(len(s.Colours) + 1)
		v := at - (float64(k)+1.5)/parts
		v -= math.Round(v)
		return (0.5/parts - math.Abs(v)) * s.RepeatMM / d
	case TwoColour:
		return (0.25 - math.Abs(round(1, 0))) * inDiameters
	case Striped:
		return (stripeShare/2 - math.Min(math.Abs(round(1, 0)), math.Abs(round(1, 0.5)))) * inDiameters
	case Glow:
		return (yarnShare/2 - math.Min(math.Abs(round(1, 0)), math.Abs(round(-1, 0)))) * inDiameters
	case Tracer:
		across := (yarnShare/2 - math.Abs(round(1, 0))) * inDiameters
		dash := at*tracerDash - math.Round(at*tracerDash)
		along := (0.3 - math.Abs(dash)) / tracerDash * s.RepeatMM / d
		return math.Min(across, along)
	}
	// Flecked: two opposite ones in a ring, the next ring turned by a quarter.
	ring := math.Round(at * fleckRings)
	along := (at - ring/fleckRings) * s.RepeatMM / d
	v := 2 * (angle/(2*math.Pi) - ring/4 - 1.0/8) // twice round: two of them
	across := (v - math.Round(v)) / 2 * inDiameters
	const wide = fleckShare / 2 * math.Pi
	// The distance to a diamond's edge is that in its own measure, times its width.
	return (1 - math.Abs(along)/(fleckLong/2) - math.Abs(across)/wide) * wide
}

// Band is a stretch of a changing cord in one of its colours, -1 for its own.
type Band struct {
	MM     float64
	Colour int
}

// Bands are the stretches of a changing cord from mm into its pattern on, so far, or so far
// back; nil for other patterns.
//
// Law: together they are as long as asked for.
func (s Sheath) Bands(mm, long float64, back bool) []Band {
	if s.Pattern != Changing || !(long > 0) {
		return nil
	}
	parts := float64(len(s.Colours) + 1)
	each := s.RepeatMM / parts
	if back { // the pattern turned round
		mm = -mm
	}
	at := mm / each
	k := math.Floor(at + 1e-9)
	left := long
	var out []Band
	for first := true; left > 1e-9; first = false {
		part := each
		if first {
			part = each * (k + 1 - at)
		}
		part = math.Min(part, left)
		n := k
		if back {
			n = -k - 1
		}
		out = append(out, Band{part, int(math.Mod(math.Mod(n, parts)+parts, parts)) - 1})
		left -= part
		k++
	}
	return out
}

// Of is the colour that lies at a place, -1 for the cord's own.
func (s Sheath) Of(mm, angle, d float64) int {
	for k := range s.Colours {
		if s.Reach(k, mm, angle, d) > 0 {
			return k
		}
	}
	return -1
}
