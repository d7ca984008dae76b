package plan_test

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Places that are not there are refused for both hands, in every kind of
// section, by the place that the maker wrote.
func TestPlacesThatAreNotThereAreRefusedByTheMakersOwn(t *testing.T) {
	for _, k := range knot.All() {
		if k.First || k.Mounts || k.Tie == nil || k.ID == "coil-loop" {
			continue // these take no places
		}
		if s, err := knot.New(k.ID); err != nil || knot.TermsOf(s).Begins == knot.OfTheLast {
			continue // neither does this
		}
		for _, beyond := range [][]int{{2, 5}, {5}, {1, 2, 3, 4, 5}, {2, 3, 4, 5}, {64}} {
			d, at, err := patterns.Sample(k.ID)
			if err != nil {
				t.Fatal(err)
			}
			if !slices.ContainsFunc(d.Cords, func(c piece.Cord) bool { return c.ID == "B" }) {
				spare := d.Cords[0]
				spare.ID = "B"
				d.Cords = append(d.Cords, spare)
			}
			for i := range d.Cords {
				d.Cords[i].JoinedTo = ""
			}
			d.Sequence[0] = d.Sequence[0].Put("cords", []string{"A", "B"})
			s := &d.Sequence[at]
			if s.Strands = beyond; k.ID == "finish" {
				s.Strands = nil
				*s = s.Put("ends", beyond)
			}
			want := fmt.Sprintf("names place %d, but only 4 strands hang there", beyond[len(beyond)-1])
			for _, left := range []bool{false, true} {
				_, err := plan.Make(d, plan.Options{LeftHanded: left})
				var ps piece.Problems
				if !errors.As(err, &ps) || !strings.Contains(ps[0].Message, want) {
					t.Errorf("%s on %v, left hand %v: %v; want %s", k.ID, beyond, left, err, want)
				}
			}
		}
	}
}

// A row that names what is not there, or what another row has, is named by the
// number that the maker gave it.
func TestRowsAreNamedByTheMakersOwn(t *testing.T) {
	for line, want := range map[string]string{
		"mount A B, rows 1-2:(gap) 3-5:(gap), finish dome":   "sequence[1].rows[1].strands names place 5",
		"mount A B, rows 1-9:(gap) 3-4:(gap), finish dome":   "sequence[1].rows[0].strands names place 5",
		"mount A B, rows 1-2:(gap) 2-4:(gap), finish dome":   "place 2",
		"mount A B, rows 1-2:(bead hole=2mm) 3-4:(gap)":      "sequence[1].rows[0].sequence[0].bead.hole_mm",
		"mount A B, rows 1-2:(gap) 3-4:(bead hole=2mm)":      "sequence[1].rows[1].sequence[0].bead.hole_mm",
		"mount A B, double-half-hitch filler=6, finish dome": "place 6",
	} {
		for _, left := range []bool{false, true} {
			d := mixed(2)
			d.Cords = d.Cords[:2]
			seq, err := notation.Parse(line)
			if err != nil {
				t.Fatal(err)
			}
			d.Sequence = seq
			if _, err = plan.Make(d, plan.Options{LeftHanded: left}); err == nil || !strings.Contains(err.Error(), want) {
				t.Errorf("%s, left hand %v: %v; want %s", line, left, err, want)
			}
		}
	}
}

// A fold is one figure: never shorter than its leg needs, a whole number of what
// it is rounded to, and on the side on which the picture shows the leg, for both
// hands.
func TestAFoldIsOneFigure(t *testing.T) {
	for _, pat := range patterns.All() {
		for _, o := range []plan.Options{{}, {LeftHanded: true}, {RoundUpMM: plan.QuarterInch, FoldToMM: plan.EighthInch}} {
			p := make1(t, pat.Document, o)
			l := p.Layout()
			for i, c := range p.Cords {
				if c.FoldAtMM == 0 {
					continue
				}
				leg := c.Legs[c.FoldLeg]
				if c.FoldAtMM != leg.CutMM || c.FoldAtMM < leg.NeedsMM || math.Abs(c.Legs[0].CutMM+c.Legs[1].CutMM-c.CutMM) > 1e-9 {
					t.Errorf("%s: cord %s is folded at %v, its legs are %+v", pat.ID, c.ID, c.FoldAtMM, c.Legs)
				}
				step := o.FoldToMM
				if step == 0 {
					step = 1
				}
				if q := c.FoldAtMM / step; c.FoldAtMM != c.CutMM/2 && math.Abs(q-math.Round(q)) > 1e-6 && pat.Document.Cords[i].Legs.FirstMM == 0 {
					t.Errorf("%s: cord %s is folded at %v, no whole number of %v", pat.ID, c.ID, c.FoldAtMM, step)
				}
				if knot.TermsOf(pat.Document.Sequence[0]).Begins == knot.ForTheNext {
					continue
				}
				// Where the two legs leave the head: the point a little before and a
				// little after the fold.
				for _, s := range l.Strands {
					if s.Cord != i || s.Fold < 3 {
						continue
					}
					second, first := s.Points[s.Fold-3].X, s.Points[s.Fold+1].X // the second leg comes first
					side := "left"
					if (c.FoldLeg == 0 && first > second) || (c.FoldLeg == 1 && second > first) {
						side = "right"
					}
					if side != c.FoldSide && math.Abs(first-second) > 0.01 {
						t.Errorf("%s, left hand %v: cord %s is folded on the %s side and shown on the %s", pat.ID, o.LeftHanded, c.ID, c.FoldSide, side)
					}
				}
			}
		}
	}
}
