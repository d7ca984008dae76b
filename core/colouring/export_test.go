package colouring

import (
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// For the tests alone.

// Alike tells whether two ways look alike, mirrored, turned over or both.
func Alike(a, b Way) bool { return a.look.alike(b.look) }

// Burnside counts the essentially different ways of a piece's own colours by Burnside's
// lemma: the mean, over leaving all ways as they are, mirroring them, turning them over and
// both, of how many of them come out as themselves. It counts among all ways together with
// their images, each look once, so that the four moves map them onto one another. 0 where
// the piece cannot be planned.
func Burnside(d piece.Document, o plan.Options) int {
	plans, err := begun(d, o)
	if err != nil {
		return 0
	}
	all, err := falls(d, usedCords(plans[0]), nil)
	if err != nil {
		return 0
	}
	moves := []func(a, b sight) bool{
		func(a, b sight) bool { return a.face.like(b.face, false) && a.back.like(b.back, false) },
		func(a, b sight) bool { return a.face.like(b.face, true) && a.back.like(b.back, true) },
		func(a, b sight) bool { return a.face.like(b.back, false) && a.back.like(b.face, false) },
		func(a, b sight) bool { return a.face.like(b.back, true) && a.back.like(b.face, true) },
	}
	var looks []sight
	put := func(s sight) {
		for _, o := range looks {
			if moves[0](s, o) {
				return
			}
		}
		looks = append(looks, s)
	}
	for _, p := range plans {
		look := sightOf(p.Layout())
		for _, stuffs := range all {
			s := look.in(stuffs)
			put(s)
			put(sight{face: s.face.mirrored(), back: s.back.mirrored()})
			put(sight{face: s.back, back: s.face})
			put(sight{face: s.back.mirrored(), back: s.face.mirrored()})
		}
	}
	stay := 0
	for _, s := range looks {
		for _, move := range moves {
			if move(s, s) {
				stay++
			}
		}
	}
	return stay / len(moves)
}

func (g grid) like(o grid, mirrored bool) bool { return g.matches(o, mirrored) >= 1-differs }

// mirrored is a side left for right.
func (g grid) mirrored() grid {
	out := g
	out.Cord = make([]int8, len(g.Cord))
	for k := range g.Tall {
		for i := range g.Wide {
			out.Cord[k*g.Wide+i] = g.Cord[k*g.Wide+g.Wide-1-i]
		}
	}
	return out
}
