package cord_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
)

// Drawn-up diameters that were checked against cuts makers state.
func TestDrawnUpDiameters(t *testing.T) {
	for _, c := range []struct {
		s    cord.Stuff
		want float64
	}{
		{cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}, 3.1},
		{cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 2.2}, 1.7},
		{cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 1.2}, 0.95},
		{cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: 5}, 3.1},
		{cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: 3}, 2.0},
		{cord.Stuff{Make: "three-ply", Material: "cotton", DiameterMM: 3}, 2.3},
		{cord.Stuff{Make: "solid-braid", Material: "polyester", DiameterMM: 3}, 2.7},
		{cord.Stuff{Make: "laid", Material: "sisal", DiameterMM: 6}, 5.2},
	} {
		if got := c.s.DrawnUp(); math.Abs(got-c.want) > 0.051 {
			t.Errorf("%s %s of %g mm draws up to %.2f mm, published %.2f", c.s.Make, c.s.Material, c.s.DiameterMM, got, c.want)
		}
	}
}

// A solid lace weighs what its section holds of leather, 0.9 g a cm3: a metre of 5 by
// 2 mm is 10 cm3. What is not solid weighs less than that of its fibre, twice as thick
// four times as much, and of another fibre by its density.
func TestWeightsOfMakesWithoutALabelWeight(t *testing.T) {
	near := func(what string, got, want float64) {
		t.Helper()
		if math.Abs(got-want) > 1e-9*want {
			t.Errorf("%s: %v, want %v", what, got, want)
		}
	}
	flat := cord.Stuff{Make: "flat-leather", Material: "leather", DiameterMM: 5, ThicknessMM: 2}
	near("flat lace of 5 by 2 mm", flat.Weight(), 9)
	near("square lace of 10 mm", cord.Stuff{Make: "square-leather", Material: "leather", DiameterMM: 10}.Weight(), 90)
	if d := flat.DrawnUp(); d <= 2 || d >= 5 {
		t.Errorf("a lace of 5 by 2 mm ties like one of %.2f mm", d)
	}
	solid := map[cord.Make]float64{"soft-braid": math.Pi / 4 * 25 * 1.54, "elastic": math.Pi / 4 * 25 * 1.05}
	for _, s := range []cord.Stuff{{Make: "soft-braid", Material: "cotton", DiameterMM: 5}, {Make: "elastic", Material: "rubber", DiameterMM: 5}} {
		thick := s
		thick.DiameterMM = 10
		near(string(s.Make)+" twice as thick", thick.Weight(), 4*s.Weight())
		near(string(s.Make)+" twice as thick, drawn up", thick.DrawnUp(), 2*s.DrawnUp())
		if w := s.Weight(); w < 0.2*solid[s.Make] || w > 0.8*solid[s.Make] {
			t.Errorf("%s of 5 mm weighs %.1f g a metre, a solid rod of its fibre %.1f", s.Make, w, solid[s.Make])
		}
	}
	poly := cord.Stuff{Make: "soft-braid", Material: "polyester", DiameterMM: 5}
	if poly.Weight() >= (cord.Stuff{Make: "soft-braid", Material: "cotton", DiameterMM: 5}).Weight() {
		t.Error("polyester is the lighter fibre, and its braid the heavier")
	}
	for m, rests := range map[cord.Make]bool{"elastic": true, "soft-braid": false, "square-leather": false} {
		s := cord.Stuff{Make: m, Material: m.Usual(), DiameterMM: 3}
		if r := s.Figures().Rest; (r < 1) != rests || r > 1 || m.Stretches() != rests {
			t.Errorf("%s: %v of its length at rest", m, r)
		}
	}
	flat.ThicknessMM, flat.Colour = 6, "#7a4a2b"
	if f, _ := flat.Check(); f != "thickness_mm" {
		t.Errorf("a lace thicker than wide is refused at %q", f)
	}
}

// A kind is the cord, whatever its colour and whether it was weighed.
func TestKinds(t *testing.T) {
	a := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	b := a
	b.Colour, b.GramsPerMetre = "#e3c88f", 6.9
	if a.Kind() != b.Kind() {
		t.Errorf("%q and %q", a.Kind(), b.Kind())
	}
	for name, change := range map[string]func(*cord.Stuff){
		"diameter": func(s *cord.Stuff) { s.DiameterMM = 3 }, "make": func(s *cord.Stuff) { s.Make = "laid" },
		"material": func(s *cord.Stuff) { s.Material = "polyester" }, "label": func(s *cord.Stuff) { s.Label = "quay braid" },
	} {
		c := a
		change(&c)
		if c.Kind() == a.Kind() {
			t.Errorf("another %s is the same kind", name)
		}
	}
}

func TestHeavierCordDrawsUpThickerButNeverPastItsLabel(t *testing.T) {
	for _, m := range cord.Makes() {
		for _, mat := range cord.Materials() {
			last := 0.0
			for g := 0.5; g < 200; g *= 1.4 {
				d := cord.Stuff{Make: m, Material: mat, DiameterMM: 4, GramsPerMetre: g}.DrawnUp()
				if d < last {
					t.Fatalf("%s %s: a heavier cord draws up thinner at %g g/m", m, mat, g)
				}
				if d > 4 {
					t.Fatalf("%s %s of 4 mm draws up to %g mm", m, mat, d)
				}
				last = d
			}
			if w := (cord.Stuff{Make: m, Material: mat, DiameterMM: 3}).Weight(); !(w > 0) {
				t.Errorf("%s %s of 3 mm weighs %v", m, mat, w)
			}
		}
	}
}

func TestThickerLabelWeighsMore(t *testing.T) {
	for _, m := range cord.Makes() {
		last := 0.0
		for d := 0.4; d < 20; d *= 1.17 {
			w := cord.Stuff{Make: m, Material: "nylon", DiameterMM: d}.Weight()
			if w <= last {
				t.Fatalf("%s of %g mm weighs %g g/m, a thinner one %g", m, d, w, last)
			}
			last = w
		}
	}
}

func TestWhatMelts(t *testing.T) {
	for m, melts := range map[cord.Material]bool{"nylon": true, "polyester": true, "polypropylene": true, "cotton": false, "leather": false, "jute": false, "sisal": false, "hemp": false} {
		if m.Melts() != melts {
			t.Errorf("%s melts: %v", m, m.Melts())
		}
	}
}

func TestBadStuffIsNamed(t *testing.T) {
	good := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	if f, why := good.Check(); f != "" {
		t.Fatalf("good stuff: %s %s", f, why)
	}
	for field, spoil := range map[string]func(*cord.Stuff){
		"make":            func(s *cord.Stuff) { s.Make = "string" },
		"material":        func(s *cord.Stuff) { s.Material = "wool" },
		"diameter_mm":     func(s *cord.Stuff) { s.DiameterMM = math.NaN() },
		"grams_per_metre": func(s *cord.Stuff) { s.GramsPerMetre = -1 },
		"colour":          func(s *cord.Stuff) { s.Colour = "teal" },
	} {
		s := good
		spoil(&s)
		f, why := s.Check()
		if f != field || !strings.HasSuffix(strings.TrimSpace(why), lastWord(why)) || why == "" {
			t.Errorf("spoiled %s: said %q %q", field, f, why)
		}
	}
	for _, d := range []float64{0, -1, 51, math.Inf(1), math.Inf(-1)} {
		s := good
		s.DiameterMM = d
		if f, _ := s.Check(); f != "diameter_mm" {
			t.Errorf("a diameter of %v was taken", d)
		}
	}
}

func lastWord(s string) string {
	f := strings.Fields(s)
	if len(f) == 0 {
		return ""
	}
	return f[len(f)-1]
}

func ExampleStuff_DrawnUp() {
	s := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, GramsPerMetre: 6.8}
	fmt.Printf("label %.1f mm, drawn up %.1f mm\n", s.DiameterMM, s.DrawnUp())
	// Output: label 4.0 mm, drawn up 3.1 mm
}
