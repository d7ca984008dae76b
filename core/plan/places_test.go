package plan_test

import (
	"errors"
	"fmt"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Places that are not there are refused for both hands, in every kind of
// section, by the place that the maker wrote.
func TestPlacesThatAreNotThereAreRefusedByTheMakersOwn(t *testing.T) {
	for _, k := range knot.All() {
		if k.First || k.ID == "mount" || k.ID == "repeat" || k.ID == "rows" || k.ID == "fold-back" || k.ID == "coil-loop" {
			continue // these take no places
		}
		for _, beyond := range [][]int{{2, 5}, {5}, {1, 2, 3, 4, 5}, {2, 3, 4, 5}, {64}} {
			d, at, err := piece.Sample(k.ID)
			if err != nil {
				t.Fatal(err)
			}
			if !slices.ContainsFunc(d.Cords, func(c piece.Cord) bool { return c.ID == "B" }) {
				spare := d.Cords[0]
				spare.ID = "B"
				d.Cords = append(d.Cords, spare)
			}
			d.Sequence[0].Cords = []string{"A", "B"}
			s := &d.Sequence[at]
			if s.Strands = beyond; k.ID == "finish" {
				s.Strands, s.Ends = nil, beyond
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
			seq, err := piece.Parse(line)
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
