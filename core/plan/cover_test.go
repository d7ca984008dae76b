package plan_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// coverOf plans a typed line with cords A to D of 4 mm, of those that it names.
func coverOf(t *testing.T, line string) (plan.Plan, piece.Document, error) {
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
	return p, d, err
}

// A mandrel too thick for the bights is bare by so much, one too thin stands off, a length
// is covered or not: each is warned of, and its way out does away with it.
func TestWarnedCoversHaveAWayOut(t *testing.T) {
	for line, code := range map[string]string{
		"mount A B, turks-head C leads=3 bights=4 passes=1 thick=48mm":                          "cover-runs-together",
		"mount A B, turks-head C leads=5 bights=4 passes=1 thick=19mm":                          "cover-bare",
		"mount A B, turks-head C leads=5 bights=12 thick=24mm":                                  "cover-stands-off",
		"mount A B, turks-head C leads=5 bights=3 long=22mm":                                    "cover-too-long",
		"mount A B, turks-head C leads=3 bights=4 long=60mm":                                    "cover-too-short",
		"mount C hitch=from-knot, turks-head leads=5 bights=4 passes=1 over=mandrel thick=40mm": "cover-bare",
		"mount C hitch=from-knot, turks-head leads=5 bights=12 over=mandrel thick=24mm":         "cover-stands-off",
	} {
		_, d, err := coverOf(t, line)
		if err != nil {
			t.Errorf("%s: %v", line, err)
			continue
		}
		mends(t, code, d)
	}
}

// What is covered and what stays bare are the length that was asked for.
func TestBareLengthIsWhatIsLeft(t *testing.T) {
	p, _, err := coverOf(t, "mount A B, turks-head C leads=5 bights=4 long=60mm")
	if err != nil {
		t.Fatal(err)
	}
	without, _, err := coverOf(t, "mount A B, turks-head C leads=5 bights=4")
	if err != nil {
		t.Fatal(err)
	}
	var high float64
	for _, c := range without.Checks {
		_, _ = fmt.Sscanf(c.Message, "It is {%fmm} high", &high) // of the one that says so
	}
	if high == 0 {
		t.Fatalf("nothing says how high it is: %+v", without.Checks)
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
