package colouring

import (
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// For the tests alone.

// Alike tells whether two ways look alike, mirrored, turned over or both.
func Alike(a, b Way) bool { return a.look.alike(b.look) }

// Burnside counts the essentially different ways of a piece's own colours by Burnside's
// lemma: the mean, over all poses in which a piece can be held, turned and mirrored, of how
// many of its ways come out as themselves. It counts among all ways together with their
// images, each look once, so that the poses map them onto one another. 0 where the piece
// cannot be planned.
func Burnside(d piece.Document, o plan.Options) int {
	bases, err := bases(d, o)
	if err != nil {
		return 0
	}
	all, err := falls(d, usedCords(bases[0].plan), nil, nil)
	if err != nil {
		return 0
	}
	poses := sightOf(bases[0].plan, bases[0].plan.Layout()).poses()
	var looks []sight
	put := func(s sight) {
		for _, o := range looks {
			if s.looks(o, pose{}) {
				return
			}
		}
		looks = append(looks, s)
	}
	for _, b := range bases {
		look := sightOf(b.plan, b.plan.Layout())
		for _, stuffs := range all {
			s := look.in(stuffs)
			for _, p := range poses {
				put(s.held(p))
			}
		}
	}
	stay := 0
	for _, s := range looks {
		for _, p := range poses {
			if s.looks(s, p) {
				stay++
			}
		}
	}
	return stay / len(poses)
}

// held is a sight as it is held in a pose.
func (s sight) held(p pose) sight {
	out := s
	for k := range s.sides {
		out.sides[k] = s.sides[p.of(k)]
		if p.mirrored {
			out.sides[k] = s.sides[p.of(k)].mirrored()
		}
	}
	return out
}

// mirrored is a side left for right.
func (g grid) mirrored() grid {
	out := g
	out.Cord, out.Colour = make([]int8, len(g.Cord)), make([]int8, len(g.Cord))
	for k := range g.Tall {
		for i := range g.Wide {
			out.Cord[k*g.Wide+i] = g.Cord[k*g.Wide+g.Wide-1-i]
			out.Colour[k*g.Wide+i] = g.Colour[k*g.Wide+g.Wide-1-i]
		}
	}
	return out
}
