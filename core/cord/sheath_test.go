package cord_test

import (
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
)

func sheaths() []cord.Sheath {
	var out []cord.Sheath
	for _, p := range cord.Patterns() {
		out = append(out, cord.Sheath{Pattern: p, Colours: []string{"#e9e4d6"}, RepeatMM: 30})
	}
	return append(out, cord.Sheath{Pattern: cord.Changing, Colours: []string{"#e9e4d6", "#b4532a", "#5b6b33"}, RepeatMM: 80})
}

// A pattern comes again after its repeat and after a turn round the cord, and nowhere do
// two of its colours lie.
func TestAPatternComesAgain(t *testing.T) {
	for _, s := range sheaths() {
		for mm := -70.0; mm < 70; mm += 1.7 {
			for angle := -3.0; angle < 3.1; angle += 0.37 {
				found := 0
				for k := range s.Colours {
					here := s.Reach(k, mm, angle, 3)
					if here > 0 {
						found++
					}
					for _, again := range []float64{s.Reach(k, mm+s.RepeatMM, angle, 3), s.Reach(k, mm-3*s.RepeatMM, angle, 3), s.Reach(k, mm, angle+2*math.Pi, 3)} {
						if math.Abs(here-again) > 1e-9 {
							t.Fatalf("%s, colour %d: %v at %v mm and %v, elsewhere %v", s.Pattern, k, here, mm, angle, again)
						}
					}
				}
				if found > 1 {
					t.Fatalf("%s: %d colours lie at %v mm and %v", s.Pattern, found, mm, angle)
				}
			}
		}
	}
}

// Half of a two-colour sheath is of each colour; a changing one shows all its colours
// equally long, its own first; yarns and flecks are the smaller part, and no pattern is
// without them.
func TestHowMuchOfASheathEachColourIs(t *testing.T) {
	for _, s := range sheaths() {
		all, of := 0.0, map[int]float64{}
		for mm := 0.05; mm < s.RepeatMM; mm += 0.1 {
			for angle := 0.013; angle < 2*math.Pi; angle += 2 * math.Pi / 240 {
				all++
				of[s.Of(mm, angle, 3)]++
			}
		}
		want := [2]float64{0.02, 0.4}
		switch s.Pattern {
		case cord.TwoColour:
			want = [2]float64{0.49, 0.51}
		case cord.Changing:
			each := 1 / float64(len(s.Colours)+1)
			want = [2]float64{each - 0.01, each + 0.01}
		}
		for k := range s.Colours {
			if share := of[k] / all; share < want[0] || share > want[1] {
				t.Errorf("%s: colour %d is %.3f of it, not %v", s.Pattern, k, share, want)
			}
		}
	}
	changing := sheaths()[len(sheaths())-1]
	for k, at := range []float64{10, 30, 50, 70} {
		if got := changing.Of(at, 1, 3); got != k-1 {
			t.Errorf("at %v mm of 80 lies colour %d, not %d", at, got, k-1)
		}
	}
}

func TestSheathsThatCannotBe(t *testing.T) {
	good := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	for _, c := range []struct {
		sheath       cord.Sheath
		field, words string
	}{
		{cord.Sheath{Pattern: "dotted", Colours: []string{"#e9e4d6"}, RepeatMM: 30}, "sheath.pattern", "flecked"},
		{cord.Sheath{Pattern: cord.Changing, Colours: []string{"#e9e4d6"}}, "sheath.repeat_mm", "measure how far"},
		{cord.Sheath{Pattern: cord.Changing, Colours: []string{"#e9e4d6"}, RepeatMM: math.NaN()}, "sheath.repeat_mm", "measure how far"},
		{cord.Sheath{Pattern: cord.Flecked, RepeatMM: 30}, "sheath.colours", "are 0"},
		{cord.Sheath{Pattern: cord.Flecked, Colours: []string{"#e9e4d6", "#b4532a"}, RepeatMM: 30}, "sheath.colours", "1 to 1"},
		{cord.Sheath{Pattern: cord.Tracer, Colours: []string{"rust"}, RepeatMM: 30}, "sheath.colours[0]", "#rrggbb"},
	} {
		s := good
		s.Sheath = &c.sheath
		if field, says := s.Check(); field != c.field || !strings.Contains(says, c.words) {
			t.Errorf("%+v: said %s %s", c.sheath, field, says)
		}
	}
	for _, sheath := range sheaths() {
		s := good
		s.Sheath = &sheath
		if field, says := s.Check(); field != "" {
			t.Errorf("%+v: said %s %s", sheath, field, says)
		}
	}
}

// The bands of a changing cord are as long as the stretch, each in the colour that lies in
// its middle; back from a place they are those before it.
func TestBandsOfAChangingCord(t *testing.T) {
	s := sheaths()[len(sheaths())-1]
	for _, from := range []float64{0, 7, 20, 93, 80} {
		for _, back := range []bool{false, true} {
			at, all := from, 0.0
			way := 1.0
			if back {
				way = -1
			}
			for _, b := range s.Bands(from, 211, back) {
				if got := s.Of(at+way*b.MM/2, 1, 3); got != b.Colour || b.MM <= 0 {
					t.Errorf("from %v, back %v: %v mm of colour %d, where colour %d lies", from, back, b.MM, b.Colour, got)
				}
				at, all = at+way*b.MM, all+b.MM
			}
			if math.Abs(all-211) > 1e-6 {
				t.Errorf("from %v the bands are %v mm long", from, all)
			}
		}
	}
	if b := sheaths()[0].Bands(0, 100, false); b != nil {
		t.Errorf("a flecked cord has bands %v", b)
	}
}
