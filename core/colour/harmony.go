package colour

import (
	"cmp"
	"math"
	"slices"
)

// Goes is how a colour goes with another one.
type Goes string

// A colour lies opposite another one on the round of hues, a third of the round away, beside
// it, is lighter or darker of its hue, or is a neutral that goes with all.
const (
	Opposite Goes = "opposite"
	Third    Goes = "a third round"
	Beside   Goes = "beside"
	Shade    Goes = "lighter or darker"
	Neutral  Goes = "neutral"
)

// Match is a colour that goes with another one, and how; Off is by how many degrees of hue
// it misses that.
type Match struct {
	Colour string  `json:"colour"`
	Goes   Goes    `json:"goes" jsonschema:"enum=opposite,enum=a third round,enum=beside,enum=lighter or darker,enum=neutral"`
	Off    float64 `json:"off"`
}

// Hues are taken in OKLCh, in which equal steps look equal. A colour of less chroma than
// this has no hue; a shade differs in lightness by so much at least.
const (
	greyChroma = 0.045
	shadeLight = 0.18
)

// hues are how far from a colour's hue each kind lies, degrees, and how far off it may be.
var hues = []struct {
	goes     Goes
	at, near float64
}{{Opposite, 180, 30}, {Third, 120, 20}, {Beside, 35, 18}}

// With are, of some colours, those that go with one, by kind and then by how well. What
// cannot be read goes with nothing.
//
// Law: what lies opposite a colour has it opposite too.
func With(hex string, from []string) []Match {
	base, err := parse(hex)
	if err != nil {
		return nil
	}
	l, c, h := base.OkLch()
	var out []Match
	for _, f := range from {
		o, err := parse(f)
		if err != nil || f == hex {
			continue
		}
		ol, oc, oh := o.OkLch()
		apart := math.Abs(math.Remainder(oh-h, 360))
		switch {
		case oc < greyChroma || c < greyChroma:
			out = append(out, Match{f, Neutral, 0})
			continue
		case apart < 15 && math.Abs(ol-l) >= shadeLight:
			out = append(out, Match{f, Shade, apart})
			continue
		}
		for _, k := range hues {
			if off := math.Abs(apart - k.at); off <= k.near {
				out = append(out, Match{f, k.goes, off})
				break
			}
		}
	}
	order := []Goes{Opposite, Third, Beside, Shade, Neutral}
	slices.SortStableFunc(out, func(a, b Match) int {
		return cmp.Or(cmp.Compare(slices.Index(order, a.Goes), slices.Index(order, b.Goes)), cmp.Compare(a.Off, b.Off))
	})
	return out
}
