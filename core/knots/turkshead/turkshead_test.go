package turkshead_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	_ "nimblebight/core/knots"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// planned plans a typed line with cords A to D of 4 mm, of those that it names.
func planned(t *testing.T, line string) (plan.Plan, error) {
	t.Helper()
	d := piece.Begin("a cover", "charm", piece.SplitRing(24, 2), 0)
	for _, id := range []string{"A", "B", "C", "D"} {
		if strings.Contains(line, " "+id) {
			d.Cords = append(d.Cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(4, piece.Lagoon)})
		}
	}
	seq, err := notation.Parse(line)
	if err != nil {
		t.Fatal(err)
	}
	d.Sequence = seq
	p, err := plan.Make(d, plan.Options{})
	return p, err
}

// What is covered and what stays bare are the length that was asked for.
func TestBareLengthIsWhatIsLeft(t *testing.T) {
	p, err := planned(t, "mount A B, turks-head C leads=5 bights=4 long=60mm")
	if err != nil {
		t.Fatal(err)
	}
	without, err := planned(t, "mount A B, turks-head C leads=5 bights=4")
	if err != nil {
		t.Fatal(err)
	}
	var high float64
	if _, err := fmt.Sscanf(without.Checks[len(without.Checks)-1].Message, "It is {%fmm} high", &high); err != nil {
		t.Fatal(err)
	}
	if got := p.Sections[1].HeightMM - without.Sections[1].HeightMM; math.Abs(got-(60-high)) > 0.1 {
		t.Errorf("asked for 60 mm, a cover of %.1f takes %.1f mm more", high, got)
	}
	bare := false
	for _, c := range p.Checks {
		bare = bare || strings.Contains(c.Message, "stays bare")
	}
	if !bare {
		t.Error("nothing says how much stays bare")
	}
}

// The moves say each crossing of the cover once: as many passings as its rounds cross.
func TestEveryCrossingIsPassedOnce(t *testing.T) {
	p, err := planned(t, "mount A B, turks-head C leads=3 bights=5 passes=2")
	if err != nil {
		t.Fatal(err)
	}
	trips, follows := 0, 0
	for _, a := range p.Steps[1].Actions {
		if strings.HasPrefix(a.Text, "Lead C clockwise") {
			trips++
		}
		if strings.HasPrefix(a.Text, "With a needle") {
			follows++
		}
	}
	if trips != 10 || follows < 10 || follows > 11 {
		t.Errorf("%d trips of the first round and %d of the second; ten each are from edge to edge", trips, follows)
	}
}
