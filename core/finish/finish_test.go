package finish_test

import (
	"fmt"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/finish"
)

var nylon = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
var cotton = cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: 5}

func TestNoFlameToWhatBurns(t *testing.T) {
	for _, w := range finish.All() {
		if !w.Suits(nylon) {
			t.Errorf("%s does not suit nylon", w.ID)
		}
		if w.Suits(cotton) == w.Flame {
			t.Errorf("%s on cotton: suits %v, flame %v", w.ID, w.Suits(cotton), w.Flame)
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

func TestFlameIsCautionedFirst(t *testing.T) {
	c := finish.Cautions(true, []cord.Stuff{nylon, cotton})
	if !strings.HasPrefix(c[0], "Flame") {
		t.Errorf("first stands %q", c[0])
	}
	if !strings.Contains(strings.Join(c, " "), "burns, it does not melt") {
		t.Error("cotton beside a flame is not warned of")
	}
	if c := finish.Cautions(false, []cord.Stuff{nylon}); strings.Contains(strings.Join(c, " "), "Flame") {
		t.Error("a flame is cautioned of where there is none")
	}
}

func ExampleAll() {
	for _, w := range finish.All() {
		fmt.Println(w.ID)
	}
	// Output:
	// cut-straight
	// dome
	// fringe
	// fuse
	// singe-and-press
}
