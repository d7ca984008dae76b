package colour_test

import (
	"math"
	"strings"
	"testing"

	"github.com/lucasb-eyer/go-colorful"

	"nimblebight/core/colour"
)

// The published test pairs of CIEDE2000 (Sharma, Wu and Dalal, 2005), of which the formula
// that is used must give the published differences.
func TestDifferencesOfThePublishedPairs(t *testing.T) {
	for _, p := range [][7]float64{
		{50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425}, {50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615}, {50, 2.8361, -74.0200, 50, 0, -82.7485, 3.4412},
		{50, -1.3802, -84.2814, 50, 0, -82.7485, 1}, {50, -1.1848, -84.8006, 50, 0, -82.7485, 1}, {50, -0.9009, -85.5211, 50, 0, -82.7485, 1},
		{50, 0, 0, 50, -1, 2, 2.3669}, {50, -1, 2, 50, 0, 0, 2.3669}, {50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792}, {50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195},
		{50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045}, {50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461}, {50, 2.5, 0, 50, 0, -2.5, 4.3065}, {50, 2.5, 0, 73, 25, -18, 27.1492},
		{50, 2.5, 0, 61, -5, 29, 22.8977}, {50, 2.5, 0, 56, -27, -3, 31.9030}, {50, 2.5, 0, 58, 24, 15, 19.4535}, {50, 2.5, 0, 50, 3.1736, 0.5854, 1},
		{50, 2.5, 0, 50, 3.2972, 0, 1}, {50, 2.5, 0, 50, 1.8634, 0.5757, 1}, {50, 2.5, 0, 50, 3.2592, 0.3350, 1},
		{60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644}, {63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.2630},
		{61.2901, 3.7196, -5.3901, 61.4292, 2.2480, -4.9620, 1.8731}, {35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645},
		{22.7233, 20.0904, -46.6940, 23.0331, 14.9730, -42.5619, 2.0373}, {36.4612, 47.8580, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146},
		{90.8027, -2.0831, 1.4410, 91.1528, -1.6435, 0.0447, 1.4441}, {90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381},
		{6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377}, {2.0776, 0.0795, -1.1350, 0.9033, -0.0636, -0.5514, 0.9082},
	} {
		a, b := colorful.Lab(p[0]/100, p[1]/100, p[2]/100), colorful.Lab(p[3]/100, p[4]/100, p[5]/100)
		if got := 100 * a.DistanceCIEDE2000(b); math.Abs(got-p[6]) > 2e-4 {
			t.Errorf("%v: %.4f, published %.4f", p[:6], got, p[6])
		}
	}
}

// What the published matrices make of the pure lights, in linear light.
func TestEyesSeeThePublishedColours(t *testing.T) {
	for eye, red := range map[colour.Eye][3]float64{colour.Protan: {0.152286, 0.114503, 0}, colour.Deutan: {0.367322, 0.280085, 0}, colour.Tritan: {1, 0, 0.004733}} {
		c, err := colorful.Hex(colour.As("#ff0000", eye))
		if err != nil {
			t.Fatal(err)
		}
		r, g, b := c.LinearRgb()
		for k, got := range []float64{r, g, b} {
			if math.Abs(got-red[k]) > 0.004 { // of 256 steps
				t.Errorf("%s sees red as %.4f %.4f %.4f, published %v", eye, r, g, b, red)
				break
			}
		}
	}
}

func TestLawsOfEyes(t *testing.T) {
	for _, hex := range []string{"#0f5c63", "#e3c88f", "#b4532a", "#22313f"} {
		if colour.As(hex, colour.Usual) != hex {
			t.Errorf("usual eyes see %s as %s", hex, colour.As(hex, colour.Usual))
		}
		if d := colour.Difference(hex, hex); d != 0 {
			t.Errorf("%s differs from itself by %g", hex, d)
		}
		for _, other := range []string{"#ffffff", "#b4532a"} {
			if a, b := colour.Difference(hex, other), colour.Difference(other, hex); math.Abs(a-b) > 1e-9 {
				t.Errorf("%s and %s: %g, the other way round %g", hex, other, a, b)
			}
			least, _ := colour.Seen(hex, other)
			if least > colour.Difference(hex, other) {
				t.Errorf("%s and %s are farther apart to the weakest eye than to the usual one", hex, other)
			}
		}
	}
	for _, eye := range colour.Eyes() {
		for _, grey := range []string{"#000000", "#808080", "#ffffff"} {
			if d := colour.Difference(colour.As(grey, eye), grey); d > 1.5 {
				t.Errorf("%s sees %s as %s", eye, grey, colour.As(grey, eye))
			}
		}
	}
}

// Red and green that meet are told apart by usual eyes and not by all; another colour of
// the drawer is offered that is.
func TestWhatCannotBeToldApart(t *testing.T) {
	red, green := "#a8552f", "#6f7f34"
	if d := colour.Difference(red, green); d < colour.Enough {
		t.Errorf("usual eyes tell them apart by %.1f", d)
	}
	d, eye := colour.Seen(red, green)
	if d >= colour.Enough || eye == colour.Usual {
		t.Errorf("the weakest eye, %s, tells them apart by %.1f", eye, d)
	}
	other := colour.Instead(red, []string{green}, []string{"#a8552f", "#8a6f2f", "#0f2a63", "#e9e4d6"})
	if least, _ := colour.Seen(other, green); other == "" || other == red || least < colour.Enough {
		t.Errorf("instead of it %q, %.1f apart", other, least)
	}
	if none := colour.Instead(red, []string{green}, []string{red, green}); none != "" {
		t.Errorf("instead of it %q", none)
	}
}

func TestNoColour(t *testing.T) {
	for _, bad := range []string{"", "teal", "#12345", "#12345g", "#1234567"} {
		if err := colour.Check(bad); err == nil || !strings.Contains(err.Error(), "#rrggbb") {
			t.Errorf("%q: %v", bad, err)
		}
		if d := colour.Difference(bad, "#ffffff"); !math.IsInf(d, 1) {
			t.Errorf("%q differs by %g", bad, d)
		}
	}
}

// What goes with a colour: opposite hues have each other, greys go with all, a darker one
// is of its hue, and a colour does not go with itself.
func TestWhatGoesWithAColour(t *testing.T) {
	goes := func(hex, with string) colour.Goes {
		for _, m := range colour.With(hex, []string{with}) {
			return m.Goes
		}
		return ""
	}
	for _, p := range [][2]string{{"#0f5c63", "#b4532a"}, {"#1f4fa8", "#c98a1b"}} {
		if a, b := goes(p[0], p[1]), goes(p[1], p[0]); a != colour.Opposite || b != colour.Opposite {
			t.Errorf("%v: %q, and back %q", p, a, b)
		}
	}
	if g := goes("#0f5c63", "#808080"); g != colour.Neutral {
		t.Errorf("grey is %q", g)
	}
	if g := goes("#1f4fa8", "#9db8ea"); g != colour.Shade {
		t.Errorf("a lighter blue is %q", g)
	}
	if g := goes("#0f5c63", "#0f5c63"); g != "" {
		t.Errorf("it goes with itself as %q", g)
	}
	if len(colour.With("teal", []string{"#ffffff"})) != 0 {
		t.Error("what is no colour goes with white")
	}
}

// Tones keep the order of lightness, no two colours have one, and of six neighbours stand
// apart as cords must.
func TestTonesForPrint(t *testing.T) {
	hexes := []string{"#0f5c63", "#e3c88f", "#b4532a", "#e9e4d6", "#5b6b33", "#22313f", "#e3c88f"}
	tones := colour.Tones(hexes)
	if len(tones) != 6 {
		t.Fatalf("%d tones for six colours", len(tones))
	}
	for a, ta := range tones {
		if r, g, b := ta[1:3], ta[3:5], ta[5:7]; r != g || g != b {
			t.Errorf("%s has the tone %s, which is no grey", a, ta)
		}
		for b, tb := range tones {
			if a != b && colour.Difference(ta, tb) < colour.Enough/1.5 {
				t.Errorf("%s and %s have the tones %s and %s", a, b, ta, tb)
			}
		}
	}
	if !(tones["#e9e4d6"] > tones["#e3c88f"] && tones["#e3c88f"] > tones["#b4532a"] && tones["#b4532a"] > tones["#22313f"]) {
		t.Errorf("darker colours have lighter tones: %v", tones)
	}
	if got := colour.Tones([]string{"teal"}); got["teal"] != "teal" {
		t.Errorf("what is no colour becomes %v", got)
	}
}

// Colours go by names that anyone calls them, and what is no colour by itself.
func TestPlainNames(t *testing.T) {
	for hex, name := range map[string]string{"#ffffff": "white", "#000000": "black", "#c01818": "red", "#0d5a60": "dark teal", "#8a8a8a": "grey", "#2a5ac8": "blue", "rust": "rust"} {
		if got := colour.Name(hex); got != name {
			t.Errorf("%s is called %s, not %s", hex, got, name)
		}
	}
}
