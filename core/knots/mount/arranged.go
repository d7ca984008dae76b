package mount

import (
	"slices"

	"nimblebight/core/knot"
)

// arranged are the ways to put cords on side by side, or the last of them behind the
// others, so that its legs hang outside; nil where they are put on in other ways.
func arranged(first []knot.Section) [][]knot.Section {
	var cords []string
	hitch := LarksHead
	for i, s := range first {
		set := knot.Of[Settings](s)
		switch set.Hitch {
		case "", LarksHead, LarksHeadReversed, ThroughHole:
			if i > 0 || len(s.Strands) > 0 {
				return nil
			}
			if set.Hitch != "" {
				hitch = set.Hitch
			}
		case LaidBehind:
			if i == 0 || len(set.Cords) != 1 || len(s.Strands) > 0 {
				return nil
			}
		default:
			return nil
		}
		cords = append(cords, set.Cords...)
	}
	var out [][]knot.Section
	for behind := range len(cords) {
		way := []knot.Section{as(first[0], hitch, cords[:len(cords)-behind])}
		for _, c := range cords[len(cords)-behind:] {
			way = append(way, Of(LaidBehind, c))
		}
		out = append(out, way)
	}
	return out
}

// as is a section with another hitch and other cords, the rest of it as it is.
func as(s knot.Section, hitch Hitch, cords []string) knot.Section {
	set := knot.Of[Settings](s)
	set.Cords, set.Hitch = slices.Clone(cords), hitch
	s.Settings = set
	return s
}
