package plan_test

import (
	"math"
	"testing"

	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// families of the knots that a piece ties.
func families(d piece.Document) (out []string) {
	for _, s := range d.Sequence {
		k, _ := knot.Get(s.Do)
		out = append(out, k.Family)
	}
	return out
}

// measuredOf is a reading, without any doubt, of each kind of cord of a piece.
func measuredOf(d piece.Document, what gauge.What, log float64) (out []gauge.Evidence) {
	for _, c := range d.Cords {
		r := gauge.Reading{What: what, Kind: c.Stuff.Kind(), Doubt: c.Stuff.Doubt(), Log: log, Var: 1e-12}
		out = append(out, gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{r}})
	}
	return out
}

// A figure that was measured takes the place of what the stuff tells of itself: a cord
// of which a length was weighed is planned as one whose weight stands in the piece,
// curves and all.
func TestAMeasuredFigureTakesThePlaceOfTheUsual(t *testing.T) {
	for _, pat := range []string{"two-colour-fob", "spiral-fob", "bead-diamonds"} {
		thin := pattern(t, pat)
		weighed := thin
		weighed.Cords = nil
		for _, c := range thin.Cords {
			c.Stuff.GramsPerMetre = 0.8 * c.Stuff.Weight()
			weighed.Cords = append(weighed.Cords, c)
		}
		a := make1(t, thin, plan.Options{Gauge: gauge.Learn(measuredOf(thin, gauge.Weighed, math.Log(0.8)/2))})
		b := make1(t, weighed, plan.Options{})
		near(t, pat+": long", a.LengthMM, b.LengthMM, 1e-5*b.LengthMM)
		near(t, pat+": weight", a.WeightG, b.WeightG, 1e-5*b.WeightG)
		for i, c := range b.Cords {
			near(t, pat+": needs of "+c.ID, a.Cords[i].NeedsMM, c.NeedsMM, 1e-5*c.NeedsMM)
			near(t, pat+": spread of "+c.ID, a.Cords[i].SpreadMM, c.SpreadMM, 1e-3*c.SpreadMM)
		}
	}
}

// A maker who ties a tenth looser takes a tenth more in every knot, and nothing
// more in what is measured with a ruler.
func TestAMakersOwnLoosenessTakesThePlaceOfThePrior(t *testing.T) {
	d := pattern(t, "grouped-fob")
	usual := make1(t, d, plan.Options{})
	var all []gauge.Evidence
	for _, f := range families(d) {
		s := d.Cords[0].Stuff
		r := gauge.Reading{What: gauge.Took, Kind: s.Kind(), Doubt: s.Doubt(), Log: 0.1, Var: 0.001, Families: []gauge.Share{{Family: f, Of: 1}}}
		all = append(all, gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{r, r}})
	}
	e := gauge.Learn(all)
	loose := make1(t, d, plan.Options{Gauge: e})
	for i, s := range usual.Sections {
		k, _ := knot.Get(s.Do)
		by := e.Loose(d.Cords[0].Stuff, k.Family) / gauge.Median
		if by < 1.03 {
			t.Errorf("%s: two swatches of a tenth more make it %.3f times as loose", s.Do, by)
		}
		for n, u := range s.Use {
			want := u.MM
			if s.Do != "gap" && s.Do != "finish" {
				want *= by
			}
			near(t, s.Do, loose.Sections[i].Use[n].MM, want, 1e-9)
		}
	}
	d.Cutting = &piece.Cutting{Geometry: true}
	back := make1(t, d, plan.Options{Gauge: e})
	for i, c := range usual.Cords {
		if back.Cords[i].NeedsMM != c.NeedsMM || back.Cords[i].CutMM != c.CutMM {
			t.Errorf("by geometry alone cord %s needs %v and is cut %v, before anything was measured %v and %v", c.ID, back.Cords[i].NeedsMM, back.Cords[i].CutMM, c.NeedsMM, c.CutMM)
		}
	}
}
