package colouring

import (
	"fmt"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/side"
)

// lookout looks at bases. Colours change nothing of what is drawn, but the patterns of
// sheaths do: a base is looked at once for each way in which those lie on its cords.
type lookout struct {
	bases []base
	names map[string]string
	found map[string]int // by base and sheaths
	looks []Look
	seen  []sight
}

// mostLooks is how many looks are drawn.
const mostLooks = 24

// sheathKey names what of a sheath changes a drawing.
func sheathKey(s *cord.Sheath) string {
	if s == nil {
		return "-"
	}
	return fmt.Sprintf("%s %d %v", s.Pattern, len(s.Colours), s.RepeatMM)
}

func (o *lookout) key(b int, stuffs []cord.Stuff) string {
	key := fmt.Sprint(b)
	for _, s := range stuffs {
		key += "|" + sheathKey(s.Sheath)
	}
	return key
}

// all looks at every base with all stuffs that fall on it.
func (o *lookout) all(falls [][]cord.Stuff) {
	for b := range o.bases {
		for _, stuffs := range falls {
			o.add(b, stuffs)
		}
	}
	o.add(0, stuffsOf(o.bases[0].doc)) // as it is now
	o.seen = make([]sight, len(o.looks))
	side.Each(len(o.looks), func(i int) { o.seen[i] = sightOf(o.looks[i].Plan, o.looks[i].Layout) })
}

func (o *lookout) add(b int, stuffs []cord.Stuff) {
	key := o.key(b, stuffs)
	if _, ok := o.found[key]; !ok {
		o.found[key] = len(o.looks)
		o.looks = append(o.looks, Look{Plan: o.bases[b].plan, Layout: o.bases[b].plan.Dressed(stuffs)})
	}
}

// at is a base as it is seen with these stuffs.
func (o *lookout) at(b int, stuffs []cord.Stuff) sight {
	i := o.found[o.key(b, stuffs)]
	s := o.seen[i].in(stuffs)
	s.number, s.names = i, o.names
	return s
}

// fewEnough are as many bases as can be looked at with the patterns that fall on their
// cords, those first that differ least from the piece.
func fewEnough(bases []base, falls [][]cord.Stuff) ([]base, error) {
	patterns := map[string]bool{}
	for _, stuffs := range falls {
		patterns[(&lookout{}).key(0, stuffs)] = true
	}
	if len(patterns) > mostLooks {
		return nil, refused("fall with their sheaths' patterns in %d ways, and up to %d are laid out; choose fewer cords with a pattern", len(patterns), mostLooks)
	}
	slices.SortStableFunc(bases, func(a, b base) int { return len(a.changes) - len(b.changes) })
	return bases[:min(len(bases), mostLooks/max(1, len(patterns)))], nil
}
