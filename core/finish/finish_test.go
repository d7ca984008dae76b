package finish_test

import (
	"fmt"
	"strings"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
	"nimblebight/core/finish"
)

var nylon = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
var cotton = cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: 5}

func TestNoFlameToWhatBurns(t *testing.T) {
	for _, w := range finish.All() {
		if w.Flame && (!w.Suits(nylon) || w.Suits(cotton)) {
			t.Errorf("%s, with a flame, suits nylon: %v, cotton: %v", w.ID, w.Suits(nylon), w.Suits(cotton))
		}
		if len(w.Tools) == 0 || w.Look == "" || w.Undo == "" {
			t.Errorf("%s lacks tools, what to look at or what it takes to undo", w.ID)
		}
		if len(w.Steps) == 0 || w.Note == "" || w.Form == "" {
			t.Errorf("%s lacks steps, a note or a form", w.ID)
		}
	}
	for _, s := range []cord.Stuff{nylon, cotton, {Make: "leather", Material: "leather", DiameterMM: 3}} {
		w, ok := finish.Get(finish.Instead(s))
		if !ok || !w.Suits(s) {
			t.Errorf("instead of a wrong finish on %s stands %q", s.Material, finish.Instead(s))
		}
	}
}

// Every stuff has a finish that suits it, best first; every place in the list has its
// reason, and what is ruled out stands last.
func TestFinishesAreRankedWithReasons(t *testing.T) {
	for _, mk := range cord.Makes() {
		for _, m := range cord.Materials() {
			s := cord.Stuff{Make: mk, Material: m, DiameterMM: 4}
			list, fit, last := finish.For(s, finish.Anywhere(s)), 0, 1000
			if len(list) != len(finish.All()) {
				t.Fatalf("%s %s: %d finishes of %d", mk, m, len(list), len(finish.All()))
			}
			for _, c := range list {
				f, _ := finish.Get(c.ID)
				good, why := f.Fits(s)
				if c.Why == "" || c.Why != why || c.Fit != (good > 0) || good > last {
					t.Errorf("%s %s: %+v, good %d after %d", mk, m, c, good, last)
				}
				last = good
				if c.Fit {
					fit++
				}
			}
			if fit == 0 || !list[0].Fit {
				t.Errorf("%s %s: no finish suits it", mk, m)
			}
		}
	}
	for want, s := range map[string]cord.Stuff{
		"singe-and-press": nylon, "fringe": cotton,
		"glue":         {Make: "flat-leather", Material: "leather", DiameterMM: 5, ThicknessMM: 1.5},
		"whip":         {Make: "laid", Material: "sisal", DiameterMM: 6},
		"cut-straight": {Make: "tshirt-yarn", Material: "cotton", DiameterMM: 8},
	} {
		if got := finish.For(s, finish.Anywhere(s))[0].ID; got != want {
			t.Errorf("best for %s is %s, want %s", s.Make, got, want)
		}
	}
}

// What a place allows: an end is buried where crossings lie over its way, ends are made one
// where others hang beside it, and melted into one only of one material. All else is as
// good in every place.
func TestPlacesRuleFinishesOut(t *testing.T) {
	polyester := cord.Stuff{Make: "solid-braid", Material: "polyester", DiameterMM: 3}
	for _, s := range []cord.Stuff{nylon, cotton, {Make: "laid", Material: "sisal", DiameterMM: 6}, {Make: "leather", Material: "leather", DiameterMM: 3}} {
		for _, place := range []finish.Place{{}, {Covers: 2}, {Covers: 7}, {Beside: []cord.Stuff{s}}, {Covers: 3, Beside: []cord.Stuff{polyester}}} {
			for _, f := range finish.All() {
				anywhere, _ := f.Fits(s)
				good, why := f.At(s, place)
				alone := len(place.Beside) == 0
				other := !alone && place.Beside[0].Material != s.Material
				want := anywhere > 0
				switch {
				case f.WantsUnder:
					want = want && place.Covers > 0
				case f.Together != 0:
					want = want && !alone && !(f.Flame && other)
				}
				if (good > 0) != want || why == "" {
					t.Errorf("%s on %s at %+v: %d, %q", f.ID, s.Material, place, good, why)
				}
				if f.Together == 0 && !f.WantsUnder && good != anywhere {
					t.Errorf("%s on %s at %+v is worth %d, elsewhere %d", f.ID, s.Material, place, good, anywhere)
				}
			}
		}
	}
}

func TestWhatIsLeft(t *testing.T) {
	dome, _ := finish.Get("dome")
	thick := nylon
	thick.DiameterMM *= 2
	if a, b := dome.Leave(nylon, 0), dome.Leave(thick, 0); b != 2*a {
		t.Errorf("a dome leaves %v, of twice the cord %v", a, b)
	}
	fringe, _ := finish.Get("fringe")
	if got := fringe.Leave(cotton, 47); got != 47 {
		t.Errorf("a wanted fringe of 47 mm leaves %v", got)
	}
	if _, ok := finish.Get("knot"); ok {
		t.Error("there is no finish of that name")
	}
}

// Every finish calls for the caution that its tools need: a flame for a lighter, glue for
// glue, a blade for a knife; and none for what it does not use.
func TestEveryFinishCallsForItsCautions(t *testing.T) {
	for _, f := range finish.All() {
		tools := strings.Join(f.Tools, ", ")
		called := map[caution.ID]bool{}
		for _, c := range f.Calls() {
			called[c.ID] = true
		}
		for id, needs := range map[caution.ID]bool{
			caution.Flame:   strings.Contains(tools, "lighter"),
			caution.Glue:    strings.HasPrefix(tools, "glue") || strings.Contains(tools, ", glue"),
			caution.Solvent: strings.Contains(tools, "balm") || f.Form == finish.Looped, caution.Sharp: strings.Contains(tools, "knife"),
		} {
			if called[id] != needs {
				t.Errorf("%s with %s: %s is called for: %v", f.ID, tools, id, called[id])
			}
		}
	}
}

func ExampleAll() {
	for _, w := range finish.All() {
		fmt.Println(w.ID)
	}
	// Output:
	// bead-and-glue
	// bead-and-melt
	// bind-together
	// bury
	// coat
	// cut-and-balm
	// cut-straight
	// dome
	// flush
	// fringe
	// fuse
	// glue
	// melt-two
	// pinch-flat
	// set-a-loop
	// singe-and-press
	// weld-a-drop
	// whip
}
