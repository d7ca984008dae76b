package plan_test

import (
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

func knife(t *testing.T, line string) piece.Document {
	t.Helper()
	d := notation.With(piece.Begin("Knife", "lanyard", piece.Hardware{Type: "hole", InnerMM: 6, WireMM: 4, DepthMM: 14}, 0), line,
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Moss)})
	d.Purpose.BladeMM = 40
	if ps := d.Check(); ps != nil {
		t.Fatal(ps)
	}
	return d
}

func warned(p plan.Plan, code string) *plan.Warning {
	i := slices.IndexFunc(p.Warnings, func(w plan.Warning) bool { return w.Code == code })
	if i < 0 {
		return nil
	}
	return &p.Warnings[i]
}

// What begins far from the hole can swing into the blade's path, what begins at it
// stands stiff; each warning has a way out that ends it and does not bring the other.
func TestABladeIsKeptClear(t *testing.T) {
	for line, code := range map[string]string{
		"mount A hitch=through-hole, gap 60mm, two-strand-diamond, finish dome": "swings-into-the-blade",
		"mount A hitch=through-hole, two-strand-diamond, finish dome":           "stands-stiff",
	} {
		d := knife(t, line)
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		w := warned(p, code)
		if w == nil || w.Fix == nil {
			t.Errorf("%s: warned of %+v", line, p.Warnings)
			continue
		}
		for _, s := range w.Fix.Set {
			b, err := json.Marshal(s.Value)
			if err != nil {
				t.Fatal(err)
			}
			if s.Path == "sequence" {
				d.Sequence = nil
				err = json.Unmarshal(b, &d.Sequence)
			} else {
				d.Sequence = slices.Clone(d.Sequence)
				d.Sequence[1] = d.Sequence[1].Put("length_mm", s.Value)
			}
			if err != nil {
				t.Fatal(err)
			}
		}
		p, err = plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		if warned(p, "swings-into-the-blade") != nil || warned(p, "stands-stiff") != nil {
			t.Errorf("%s, mended by %q: still %+v", line, w.Fix.Label, p.Warnings)
		}
		if !slices.ContainsFunc(p.Cautions, func(c caution.Caution) bool {
			return c.ID == caution.Blade && strings.Contains(c.Says, "closed or sheathed while you tie")
		}) {
			t.Error("nothing is said of keeping the blade closed")
		}
	}
	d := knife(t, "mount A hitch=through-hole, gap 60mm, two-strand-diamond, finish dome")
	d.Purpose.BladeMM = 0
	p, err := plan.Make(d, plan.Options{})
	if err != nil || warned(p, "swings-into-the-blade") != nil {
		t.Errorf("without a blade: %+v, %v", p.Warnings, err)
	}
}

// A depth that was left in a document counts for nothing on a ring.
func TestARingHasNoDepth(t *testing.T) {
	d := on(1, "mount A, two-strand-diamond, finish dome")
	plain := make1(t, d, plan.Options{})
	d.Purpose.HangsOn.DepthMM = 12
	if deep := make1(t, d, plan.Options{}); deep.LengthMM != plain.LengthMM {
		t.Errorf("%.3f mm long on a ring, %.3f on one that says a depth", plain.LengthMM, deep.LengthMM)
	}
}
