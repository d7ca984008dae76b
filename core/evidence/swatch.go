package evidence

import (
	"errors"
	"fmt"
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Swatch is a row of one knot that was tied and measured, or a length that was weighed.
type Swatch struct {
	Stuff cord.Stuff `json:"stuff"`
	// Knot is what the row is tied of, as the catalogue shows it, Count how many.
	Knot  string `json:"knot,omitempty"`
	Count int    `json:"count,omitempty"`
	// HeightMM is how tall the row came out, TookMM what each working strand gave.
	HeightMM float64   `json:"height_mm,omitempty"`
	TookMM   []float64 `json:"took_mm,omitempty"`
	// LengthMM weighs so many Grams; of a swatch of knots they are 0.
	LengthMM float64 `json:"length_mm,omitempty"`
	Grams    float64 `json:"grams,omitempty"`
	// At is when it was kept, in RFC 3339: it tells swatches apart that measure alike.
	At string `json:"at,omitempty"`
	// Sure is set where it surprised and the maker says that it is so.
	Sure bool `json:"sure,omitempty"`
}

// Weighing tells whether it is a length that was weighed.
func (s Swatch) Weighing() bool { return s.Knot == "" }

const mostKnots = 200

// Planned is what a swatch is planned to measure before anything is known.
type Planned struct {
	HeightMM float64 `json:"height_mm"`
	TookMM   float64 `json:"took_mm"` // the middle of its working strands
	Strands  int     `json:"strands"` // that work
	// GramsPerMetre is what the label weighs.
	GramsPerMetre float64 `json:"grams_per_metre"`
	family        string
	repeats       bool
}

// Plan is what the swatch is planned to measure.
func (s Swatch) Plan() (Planned, error) {
	out := Planned{GramsPerMetre: labelled(s.Stuff).Weight()}
	if s.Weighing() {
		return out, nil
	}
	k, ok := knot.Get(s.Knot)
	if !ok {
		return out, refuse("knot", "is not in the catalogue: %v", knot.Unknown(s.Knot))
	}
	can := false
	for _, q := range Swatchable() {
		can = can || q.ID == k.ID
	}
	if !can {
		return out, refuse("knot", "is %s, of which no swatch can be tied; choose a knot that a hand draws up", k.Name)
	}
	d, at, err := patterns.Sample(k.ID)
	if err != nil {
		return out, err
	}
	for i := range d.Cords {
		d.Cords[i].Stuff, d.Cords[i].JoinedTo = labelled(s.Stuff), ""
	}
	if k.Repeats {
		d.Sequence[at].Count, d.Sequence[at].FitMM = s.Count, 0
	}
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		var ps piece.Problems
		if errors.As(err, &ps) {
			return out, refuse("knot", "cannot be tied of this cord as a swatch: %s", ps[0].Message)
		}
		return out, err
	}
	sec := p.Sections[at]
	uses := sec.Use[:0:0]
	for _, which := range []func(u plan.Use) bool{
		func(u plan.Use) bool { return u.Works },
		func(u plan.Use) bool { return u.Strand == 0 },
		func(u plan.Use) bool { return true },
	} {
		for _, u := range sec.Use {
			if len(uses) == 0 || which(uses[0]) {
				if which(u) && u.MM > 0 {
					uses = append(uses, u)
				}
			}
		}
		if len(uses) > 0 {
			break
		}
	}
	for _, u := range uses {
		out.TookMM += u.MM / float64(len(uses))
	}
	out.HeightMM, out.Strands, out.family, out.repeats = sec.HeightMM, len(uses), k.Family, k.Repeats
	return out, nil
}

// Evidence is what a swatch tells. One that cannot be is refused with [piece.Problems].
func (s Swatch) Evidence() (gauge.Evidence, error) {
	out := gauge.Evidence{From: gauge.FromSwatch}
	if f, why := s.Stuff.Check(); f != "" {
		return out, refuse("stuff."+f, "%s", why)
	}
	measure := func(path string, v, least, most float64) error {
		if math.IsNaN(v) || v < least || v > most {
			return refuse(path, "is %v mm; such a length is from %g mm to %g m", v, least, most/1000)
		}
		return nil
	}
	if s.Weighing() {
		return s.weighed(out, measure)
	}
	if k, ok := knot.Get(s.Knot); ok && k.Repeats && (s.Count < 1 || s.Count > mostKnots) {
		return out, refuse("count", "is %d; a swatch has from 1 to %d knots, ten are good", s.Count, mostKnots)
	}
	want, err := s.Plan()
	if err != nil {
		return out, err
	}
	if len(s.TookMM) == 0 {
		return out, refuse("took_mm", "is empty; say what each working strand gave, or what one of them did")
	}
	if len(s.TookMM) > piece.MostStrands {
		return out, refuse("took_mm", "holds %d strands; this knot has %d that work", len(s.TookMM), want.Strands)
	}
	if err := measure("height_mm", s.HeightMM, 1, 10_000); err != nil {
		return out, err
	}
	height := s.HeightMM / math.Max(want.HeightMM, 1e-9)
	thick := labelled(s.Stuff).DrawnUp() * height
	switch {
	case want.HeightMM < 1:
		height = 0
	case thick > 1.25*s.Stuff.DiameterMM:
		return out, refuse("height_mm", "is %.0f mm: the cord would be {%.1fmm} thick when it is drawn up, and its label says {%.1fmm}; %.0f mm are planned, measure the row again", s.HeightMM, thick, s.Stuff.DiameterMM, want.HeightMM)
	case height < 0.5:
		return out, refuse("height_mm", "is %.0f mm, less than half of the %.0f mm that are planned; count the knots and measure the row again", s.HeightMM, want.HeightMM)
	}
	if height > 0 {
		out.Readings = append(out.Readings, reading(gauge.Reach, s.Stuff, height, square(gauge.TapeMM/want.HeightMM)))
	}
	for i, v := range s.TookMM {
		path := fmt.Sprintf("took_mm[%d]", i)
		if err := measure(path, v, 1, piece.MostMM); err != nil {
			return out, err
		}
		ratio := v / want.TookMM
		loose := ratio
		if height > 0 {
			loose /= height
		}
		if loose < 0.7 || loose > 1.8 {
			return out, refuse(path, "is %.0f mm: for a row of this height a working strand takes about %.0f mm, so this one would be tied %.2f times as loose as an ideal knot; measure it again", v, want.TookMM*ratio/loose, gauge.Median*loose)
		}
		knots := 1
		if want.repeats {
			knots = s.Count
		}
		r := reading(gauge.Took, s.Stuff, ratio, gauge.KnotVariance(knots)+square(gauge.TapeMM/want.TookMM))
		r.Families = []gauge.Share{{Family: want.family, Of: 1}}
		out.Readings = append(out.Readings, r)
	}
	return out, nil
}

// weighed is the evidence of a length that was weighed. Its weight is known to a
// hundredth beside the tape.
func (s Swatch) weighed(out gauge.Evidence, measure func(path string, v, least, most float64) error) (gauge.Evidence, error) {
	if err := measure("length_mm", s.LengthMM, 50, piece.MostMM); err != nil {
		return out, err
	}
	if math.IsNaN(s.Grams) || s.Grams <= 0 || s.Grams > 100_000 {
		return out, refuse("grams", "is %v; weigh a length of some metres, in grams", s.Grams)
	}
	label := labelled(s.Stuff)
	per := s.Grams / s.LengthMM * 1000
	ratio := per / label.Weight()
	if ratio < 0.25 || ratio > 3 {
		return out, refuse("grams", "is %v: that is %.2f g a metre, and %s %s of {%.1fmm} weighs about %.2f; look at the length and the scales", s.Grams, per, label.Make.Name(), label.Material, label.DiameterMM, label.Weight())
	}
	const scales = 0.01
	r := reading(gauge.Weighed, s.Stuff, math.Sqrt(ratio), (square(scales)+square(gauge.TapeMM/s.LengthMM))/4)
	out.Readings = append(out.Readings, r)
	return out, nil
}

// Doubts asks about a swatch that surprises by what is known without it.
func (s Swatch) Doubts(e gauge.Evidence, known *gauge.Estimate) *Doubtful {
	if s.Sure {
		return nil
	}
	return Doubts(e, known, func(r gauge.Reading) (string, string) {
		switch r.What {
		case gauge.Weighed:
			return "grams", "The length"
		case gauge.Reach:
			return "height_mm", "The row"
		}
		return "took_mm", "A working strand"
	})
}

func square(v float64) float64 { return v * v }
