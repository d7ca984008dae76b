// Package evidence is what makers measure at the table, swatches, weighings and logged
// pieces, and what of it package gauge is told: each figure against what is planned of
// it before anything is known.
//
// A swatch is a [Swatch], a logged piece a [Logged]; both refuse what cannot be, and
// say of what would surprise what it would mean.
package evidence

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// tooFar is from how many standard deviations on a reading is asked about.
const tooFar = 3.0

// Doubtful is the error for a measurement that may be right and is not likely: it
// counts when the maker says that it is so.
type Doubtful struct {
	Path string
	Says string // what it would mean
}

func (d *Doubtful) Error() string { return d.Says }

// Unplanned is the error for a log of a piece that cannot be planned: it tells nothing.
type Unplanned struct{ Err error }

func (u *Unplanned) Error() string { return "planning what was logged: " + u.Err.Error() }
func (u *Unplanned) Unwrap() error { return u.Err }

// Doubts looks for a reading that surprises, against what is known without it; nil
// where none does.
func Doubts(e gauge.Evidence, known *gauge.Estimate, names func(r gauge.Reading) (path, name string)) *Doubtful {
	for _, r := range e.Readings {
		z := known.Surprise(r)
		if math.Abs(z) <= tooFar {
			continue
		}
		path, name := names(r)
		by := math.Abs(math.Expm1(r.Log))
		more := "more"
		if r.Log < 0 {
			more = "less"
		}
		says := fmt.Sprintf("%s took %.0f %% %s than planned: it would be tied %.2f times as loose as an ideal knot.", name, 100*by, more, gauge.Median*math.Exp(r.Log))
		switch r.What {
		case gauge.Weighed:
			says = fmt.Sprintf("%s weighs %.0f %% %s a metre than its label says: it would draw up %.0f %% %s thick.", name, 100*math.Abs(math.Expm1(2*r.Log)), more, 100*by, more)
		case gauge.Reach:
			says = fmt.Sprintf("%s came out %.0f %% %s than planned: its cord would draw up %.0f %% %s thick.", name, 100*by, more, 100*by, more)
		}
		return &Doubtful{path, says + fmt.Sprintf(" Once in %s would that happen by chance.", rarely(z))}
	}
	return nil
}

// rarely is how seldom something so many standard deviations off happens, in words.
func rarely(z float64) string {
	n := 1 / math.Erfc(math.Abs(z)/math.Sqrt2)
	if n > 1e6 {
		return "more than a million times"
	}
	digits := math.Pow(10, math.Floor(math.Log10(n)))
	return fmt.Sprintf("%.0f times", math.Round(n/digits)*digits)
}

// labelled is a stuff by its label alone: readings are told against that.
func labelled(s cord.Stuff) cord.Stuff {
	s.GramsPerMetre = 0
	return s
}

// reading begins one of a stuff.
func reading(what gauge.What, s cord.Stuff, ratio, variance float64) gauge.Reading {
	s = labelled(s)
	return gauge.Reading{What: what, Kind: s.Kind(), Doubt: s.Doubt(), Log: math.Log(ratio), Var: variance}
}

// Swatchable lists the knots that a swatch can be tied of, by id: all that a hand draws
// up, with strands that hang and cord of which it can be told what they took.
func Swatchable() []knot.Knot {
	var out []knot.Knot
	for _, k := range knot.All() {
		if k.Tie != nil && !k.Mounts && !k.Ends && !k.Bare && k.Holds == knot.Nothing && k.Sample.Line != "" {
			out = append(out, k)
		}
	}
	return slices.Clip(out)
}

func refuse(path, format string, args ...any) error {
	return piece.Problems{{Path: path, Message: fmt.Sprintf(format, args...)}}
}
