package plan_test

import (
	"reflect"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/gauge"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// A figure that was measured takes the place of what the stuff tells of itself: a
// cord that is handed down with another's figures is planned as that other one,
// curves and all.
func TestAMeasuredFigureTakesThePlaceOfTheUsual(t *testing.T) {
	for _, pat := range []string{"two-colour-fob", "spiral-fob", "bead-diamonds", "leather-fist"} {
		thin := pattern(t, pat)
		weighed := thin
		weighed.Cords = nil
		for _, c := range thin.Cords {
			c.Stuff.GramsPerMetre = 0.8 * c.Stuff.Weight()
			weighed.Cords = append(weighed.Cords, c)
		}
		measured := plan.Options{
			Figures: func(c piece.Cord) cord.Figures {
				return weighed.Cords[weighed.CordByID(c.ID)].Stuff.Figures()
			},
			Looseness: func(c piece.Cord) gauge.Looseness {
				return gauge.Prior(weighed.Cords[weighed.CordByID(c.ID)].Stuff)
			},
		}
		a, b := make1(t, thin, measured), make1(t, weighed, plan.Options{})
		if !reflect.DeepEqual(a.Cords, b.Cords) || a.LengthMM != b.LengthMM || a.WeightG != b.WeightG {
			t.Errorf("%s: by measured figures %+v, by the same figures of its stuff %+v", pat, a.Cords, b.Cords)
		}
		if !reflect.DeepEqual(a.Layout().Strands, b.Layout().Strands) {
			t.Errorf("%s: its curves differ", pat)
		}
	}
}

// A maker who ties a tenth looser takes a tenth more in every knot, and nothing
// more in what is measured with a ruler.
func TestAMakersOwnLoosenessTakesThePlaceOfThePrior(t *testing.T) {
	d := pattern(t, "grouped-fob")
	usual := make1(t, d, plan.Options{})
	loose := make1(t, d, plan.Options{Looseness: func(c piece.Cord) gauge.Looseness {
		l := gauge.Prior(c.Stuff)
		l.Median *= 1.1
		return l
	}})
	for i, s := range usual.Sections {
		for k, u := range s.Use {
			want := u.MM
			if s.Do != "gap" && s.Do != "finish" {
				want *= 1.1
			}
			near(t, s.Do, loose.Sections[i].Use[k].MM, want, 1e-9)
		}
	}
}
