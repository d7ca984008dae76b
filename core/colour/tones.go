package colour

import (
	"cmp"
	"slices"

	"github.com/lucasb-eyer/go-colorful"
)

// The lightest and the darkest tone, lightness in CIE L*a*b* from 0 to 1: paper is lighter,
// ink darker.
const lightest, darkest = 0.94, 0.28

// Tones are greys for colours, for print without colour: as far apart as they can be, and
// darker where the colour is darker.
//
// Laws: two colours never have one tone; of two colours the darker one has the darker tone.
// What cannot be read stays as it is.
func Tones(hexes []string) map[string]string {
	type shade struct {
		hex   string
		light float64
	}
	var order []shade
	out := map[string]string{}
	for _, h := range hexes {
		c, err := parse(h)
		if err != nil {
			out[h] = h
			continue
		}
		if l, _, _ := c.Lab(); !slices.ContainsFunc(order, func(s shade) bool { return s.hex == h }) {
			order = append(order, shade{h, l})
		}
	}
	slices.SortStableFunc(order, func(a, b shade) int { return cmp.Or(cmp.Compare(b.light, a.light), cmp.Compare(a.hex, b.hex)) })
	for i, s := range order {
		at := 0.0
		if len(order) > 1 {
			at = float64(i) / float64(len(order)-1)
		}
		out[s.hex] = colorful.Lab(lightest+at*(darkest-lightest), 0, 0).Clamped().Hex()
	}
	return out
}
