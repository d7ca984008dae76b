package plan_test

import (
	"errors"
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

// What cannot be tied says why, and one key ties the nearest that can.
func TestRefusedCoversHaveAWayOut(t *testing.T) {
	for line, says := range map[string]string{
		"mount A B, turks-head C leads=3 bights=6":                                     "share the divisor 3",
		"mount A B, turks-head C D leads=3 bights=4":                                   "share no divisor",
		"mount A B, turks-head C long=1mm":                                             "less than its cord",
		"mount A B, turks-head C thick=3mm":                                            "thicker than they are",
		"mount A B, turks-head C thick=250mm":                                          "at the most",
		"mount A B, turks-head C leads=3 bights=7 passes=3":                            "climb over one another",
		"mount A B, turks-head C leads=9 bights=20 passes=4 thick=80mm":                "crossings",
		"mount C hitch=from-knot, turks-head leads=4 bights=6 over=mandrel":            "2 bands",
		"mount A B, turks-head over=mandrel":                                           "before anything hangs",
		"mount C D hitch=from-knot, turks-head leads=4 bights=9 over=mandrel thick=30": "one band",
	} {
		_, d, err := coverOf(t, line)
		var no piece.Problems
		if !errors.As(err, &no) {
			t.Errorf("%s: %v, want a refusal", line, err)
			continue
		}
		if !strings.Contains(no[0].Message, says) {
			t.Errorf("%s: %q does not say %q", line, no[0].Message, says)
		}
		if no[0].Fix == nil {
			if says != "before anything hangs" {
				t.Errorf("%s: %q has no way out", line, no[0].Message)
			}
			continue
		}
		mended := apply(t, d, *no[0].Fix)
		if _, err := plan.Make(mended, plan.Options{}); err != nil {
			t.Errorf("%s: after %q: %v", line, no[0].Fix.Label, err)
		}
	}
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
		p, d, err := coverOf(t, line)
		if err != nil {
			t.Errorf("%s: %v", line, err)
			continue
		}
		var fix *plan.Fix
		found := false
		for _, w := range p.Warnings {
			if w.Code == code {
				found, fix = true, w.Fix
			}
		}
		if !found || fix == nil {
			t.Errorf("%s: no %s with a way out among %v", line, code, p.Warnings)
			continue
		}
		mended := apply(t, d, *fix)
		after, err := plan.Make(mended, plan.Options{})
		if err != nil {
			t.Errorf("%s: after %q: %v", line, fix.Label, err)
			continue
		}
		for _, w := range after.Warnings {
			if w.Code == code {
				t.Errorf("%s: after %q still: %s", line, fix.Label, w.Message)
			}
		}
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
