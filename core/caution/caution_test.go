package caution_test

import (
	"strings"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
)

// Each caution has a name, words, a place and its own id; those that law or skill decide
// defer to them.
func TestEveryCautionIsWhole(t *testing.T) {
	ids := map[caution.ID]bool{}
	for _, c := range caution.All() {
		if ids[c.ID] || c.Title == "" || !strings.HasSuffix(c.Says, ".") || len(c.At) == 0 {
			t.Errorf("%+v", c)
		}
		ids[c.ID] = true
	}
	for id, word := range map[caution.ID]string{caution.HardCore: "law of the place", caution.Blade: "law of the place", caution.Load: "qualified", caution.Neck: "responsible for safety", caution.Flame: "rules of the place", caution.Glue: "tube says", caution.Solvent: "tin says"} {
		for _, c := range caution.All() {
			if c.ID == id && !strings.Contains(c.Says, word) {
				t.Errorf("%s does not defer: %s", id, c.Says)
			}
		}
	}
}

// What is called for is said once, in one order whatever the order of the calls, with the
// words of a call that has its own; what is not called for is not said.
func TestCallsAreSaidOnce(t *testing.T) {
	calls := []caution.Call{{ID: caution.Load, Section: -1}, {ID: caution.Choking, Section: 4}, {ID: caution.Choking, Section: 5, Says: "It is small."}, {ID: caution.Flame, Section: 2}}
	turned := []caution.Call{calls[3], calls[1], calls[2], calls[0]}
	a, b := caution.Of(calls), caution.Of(turned)
	if len(a) != 3 || len(b) != 3 {
		t.Fatalf("%+v, %+v", a, b)
	}
	for i := range a {
		if a[i].ID != b[i].ID || a[i].Says != b[i].Says || a[i].Section != b[i].Section {
			t.Errorf("%+v, in another order %+v", a[i], b[i])
		}
	}
	if a[0].ID != caution.Flame || a[1].Says != "It is small." || a[1].Section != 4 {
		t.Errorf("%+v", a)
	}
	if out := caution.Of(nil); len(out) != 0 {
		t.Errorf("nothing calls for %+v", out)
	}
}

// Beside a flame natural fibre and thin cord are spoken of where they are, by name and size.
func TestWhatLiesBesideAFlame(t *testing.T) {
	thick, thin, cotton := cord.Stuff{Material: "nylon", DiameterMM: 4}, cord.Stuff{Material: "nylon", DiameterMM: 1.2}, cord.Stuff{Material: "cotton", DiameterMM: 5}
	said := func(stuffs ...cord.Stuff) string {
		var out []string
		for _, c := range caution.Of(caution.Beside(1, stuffs)) {
			out = append(out, string(c.ID)+" "+c.Says)
		}
		return strings.Join(out, " ")
	}
	if got := said(thick); strings.Contains(got, "thin") || strings.Contains(got, "natural") {
		t.Errorf("%s", got)
	}
	if got := said(thick, thin, cotton); !strings.Contains(got, "{1.2mm}") || !strings.Contains(got, "from the cotton") {
		t.Errorf("%s", got)
	}
}
