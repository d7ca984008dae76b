package evidence

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Logged is what was measured of a piece that was tied. What was not measured is nil,
// and unknown.
type Logged struct {
	Cords    []Cut    `json:"cords"`
	LengthMM *float64 `json:"length_mm,omitempty"`
	WidthMM  *float64 `json:"width_mm,omitempty"`
	// Tied is how many knots each section got, where that is not as planned; nil where
	// all are.
	Tied []*int `json:"tied,omitempty"`
}

// Cut is what was cut of a cord and what was left of it.
type Cut struct {
	ID    string   `json:"id"`
	CutMM *float64 `json:"cut_mm,omitempty"`
	// LeftMM is what was left of both ends together; where each was measured, LeftAt
	// tells them, the first leg's first.
	LeftMM *float64   `json:"left_mm,omitempty"`
	LeftAt []*float64 `json:"left_at_mm,omitempty"`
	// RanShort is set where it was used up before all was tied.
	RanShort bool `json:"ran_short,omitempty"`
}

// Left is what was left of the cord, false where it is unknown.
func (c Cut) Left() (mm float64, known bool) {
	if len(c.LeftAt) > 0 {
		for _, v := range c.LeftAt {
			if v == nil {
				return 0, false
			}
			mm += *v
		}
		return mm, true
	}
	if c.LeftMM != nil {
		return *c.LeftMM, true
	}
	return 0, false
}

// atLeast is what of the cord was left for certain: of an end that was not measured
// nothing.
func (c Cut) atLeast() (mm float64) {
	for _, v := range c.LeftAt {
		if v != nil {
			mm += *v
		}
	}
	if c.LeftMM != nil {
		mm = max(mm, *c.LeftMM)
	}
	return mm
}

// Check says what of a log cannot have been measured of a piece.
func (l Logged) Check(d piece.Document) piece.Problems {
	var ps piece.Problems
	say := func(path, format string, args ...any) {
		ps = append(ps, piece.Problem{Path: path, Message: fmt.Sprintf(format, args...)})
	}
	length := func(path string, v *float64) {
		if v != nil && (math.IsNaN(*v) || *v < 0 || *v > piece.MostMM) {
			say(path, "is %v mm; a length is from 0 to 100 m", *v)
		}
	}
	length("length_mm", l.LengthMM)
	length("width_mm", l.WidthMM)
	if len(l.Cords) > piece.MostStrands {
		say("cords", "are %d; a piece has at most %d", len(l.Cords), piece.MostStrands)
		return ps
	}
	for i, c := range l.Cords {
		path := fmt.Sprintf("cords[%d]", i)
		if len([]rune(c.ID)) > 12 {
			say(path+".id", "is longer than 12 letters")
		}
		length(path+".cut_mm", c.CutMM)
		length(path+".left_mm", c.LeftMM)
		if len(c.LeftAt) > 2 {
			say(path+".left_at_mm", "names %d ends; a cord has two", len(c.LeftAt))
		}
		for _, v := range c.LeftAt {
			length(path+".left_at_mm", v)
		}
		if left := c.atLeast(); c.CutMM != nil && left > *c.CutMM {
			say(path+".left_mm", "is %.0f mm, more than the %.0f mm that were cut", left, *c.CutMM)
		}
		if c.RanShort && !l.toldTied() {
			say(path+".ran_short", "says that cord %s ran short; say how many knots were tied, so that it counts", c.ID)
		}
	}
	if len(l.Tied) > 0 && len(l.Tied) != len(d.Sequence) {
		say("tied", "counts the knots of %d sections; the piece has %d", len(l.Tied), len(d.Sequence))
		return ps
	}
	for i, n := range l.Tied {
		if n == nil {
			continue
		}
		k, _ := knot.Get(d.Sequence[i].Do)
		switch s := d.Sequence[i]; {
		case *n < 0:
			say(fmt.Sprintf("tied[%d]", i), "is %d; knots are counted from 0", *n)
		case s.Count > 0 && *n > s.Count:
			say(fmt.Sprintf("tied[%d]", i), "is %d, and section %d, %s, has %d; change the piece first if more were tied", *n, i+1, k.Name, s.Count)
		case !k.Repeats && *n > 1:
			say(fmt.Sprintf("tied[%d]", i), "is %d, and section %d is one %s", *n, i+1, k.Name)
		}
	}
	return ps
}

func (l Logged) toldTied() bool {
	return slices.ContainsFunc(l.Tied, func(n *int) bool { return n != nil })
}

// as is the document as it was tied: without sections of which no knot was.
func (l Logged) as(d piece.Document) piece.Document {
	d.Cutting = nil
	cords := slices.Clone(d.Cords)
	for i := range cords {
		cords[i].Stuff = labelled(cords[i].Stuff)
	}
	d.Cords = cords
	if len(l.Tied) != len(d.Sequence) {
		return d
	}
	seq := d.Sequence[:0:0]
	for i, s := range d.Sequence {
		if n := l.Tied[i]; n != nil {
			if *n == 0 {
				continue
			}
			if k, _ := knot.Get(s.Do); k.Repeats {
				s.Count, s.FitMM = *n, 0
			}
		}
		seq = append(seq, s)
	}
	d.Sequence = seq
	return d
}

// Evidence is what a logged piece tells. A cord of which not all was measured tells
// nothing.
func (l Logged) Evidence(d piece.Document) (gauge.Evidence, error) {
	out := gauge.Evidence{From: gauge.FromLog}
	if ps := l.Check(d); len(ps) > 0 {
		return out, ps
	}
	tied := l.as(d)
	p, err := plan.Make(tied, plan.Options{})
	if err != nil {
		return out, &Unplanned{err}
	}
	for i, c := range l.Cords {
		at := slices.IndexFunc(p.Cords, func(q plan.Cord) bool { return q.ID == c.ID })
		left, known := c.Left()
		if at < 0 || !known || c.CutMM == nil || p.Cords[at].Why.KnotworkMM < 1 {
			continue
		}
		knotwork, bare := p.Cords[at].Why.KnotworkMM, p.Cords[at].NeedsMM-p.Cords[at].Why.KnotworkMM
		took := *c.CutMM - left - bare
		if took < 0.4*knotwork || took > 2.5*knotwork {
			return out, refuse(fmt.Sprintf("cords[%d].cut_mm", i), "less what was left is %.0f mm: {%.0fmm} lie bare, so the knots took {%.0fmm} where {%.0fmm} are planned; look at what was cut and left of cord %s", *c.CutMM-left, bare, took, knotwork, c.ID)
		}
		leg := p.Cords[at].Doubt()
		single, ruled := 0.0, square(gauge.RulerMM)*float64(leg.Rulered)+square(gauge.TapeMM)*3
		for _, k := range leg.Knots {
			single += square(gauge.KnotDoubt) * k.SquareN
		}
		r := reading(gauge.Took, tied.Cords[at].Stuff, took/knotwork, (single+ruled)/square(knotwork))
		for _, k := range leg.Knots {
			r.Families = append(r.Families, gauge.Share{Family: k.Family, Of: k.MM / knotwork})
		}
		out.Readings = append(out.Readings, r)
	}
	return l.reach(out, tied, p), nil
}

// reach adds what length and width tell of the diameter, where all knots are of one
// kind of cord.
func (l Logged) reach(out gauge.Evidence, d piece.Document, p plan.Plan) gauge.Evidence {
	stuff := d.Cords
	one := len(stuff) > 0
	for _, c := range stuff {
		one = one && c.Stuff.Kind() == stuff[0].Stuff.Kind()
	}
	rows, straight := 0.0, true
	for _, s := range p.Sections {
		k, _ := knot.Get(s.Do)
		switch {
		case k.Fold != nil || k.RunsBack != nil || k.First:
			straight = false
		case s.KnotMM > 0:
			rows += s.HeightMM
		}
	}
	if !one || !straight || rows < 20 {
		return out
	}
	if l.LengthMM != nil {
		if was := *l.LengthMM - (p.LengthMM - rows); was > 0.5*rows && was < 2*rows {
			bare := float64(len(p.Sections))
			out.Readings = append(out.Readings, reading(gauge.Reach, stuff[0].Stuff, was/rows, (square(gauge.TapeMM)+square(gauge.RulerMM)*bare)/square(rows)))
		}
	}
	if l.WidthMM != nil && p.WidthMM > 3 {
		if ratio := *l.WidthMM / p.WidthMM; ratio > 0.5 && ratio < 2 {
			out.Readings = append(out.Readings, reading(gauge.Reach, stuff[0].Stuff, ratio, square(gauge.TapeMM/p.WidthMM)))
		}
	}
	return out
}

// Doubts asks about a log that surprises by what is known without it.
func (l Logged) Doubts(e gauge.Evidence, d piece.Document, known *gauge.Estimate) *Doubtful {
	return Doubts(e, known, func(r gauge.Reading) (string, string) {
		if r.What == gauge.Reach {
			return "length_mm", "The piece"
		}
		for i, c := range l.Cords {
			if at := d.CordByID(c.ID); at >= 0 && labelled(d.Cords[at].Stuff).Kind() == r.Kind {
				return fmt.Sprintf("cords[%d].cut_mm", i), "Cord " + c.ID
			}
		}
		return "cords", "A cord"
	})
}
