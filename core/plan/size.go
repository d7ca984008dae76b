package plan

import (
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// size adds up what a walk holds on to, so that a piece that would not fit is
// refused and not begun. Curves that are laid more than once are held once.
type size struct {
	runs   int // strands through sections
	points int
	seen   map[*r3.Vec]bool
}

const (
	mostRuns   = 60_000
	mostPoints = 2_500_000
)

func (z *size) add(t knot.Tied, strands int) {
	z.runs += strands
	if z.seen == nil {
		z.seen = map[*r3.Vec]bool{}
	}
	for _, paths := range [2][]knot.Path{t.Paths, t.Own} {
		for _, p := range paths {
			if len(p.Points) == 0 || z.seen[&p.Points[0]] {
				continue
			}
			z.seen[&p.Points[0]] = true
			z.points += len(p.Points)
		}
	}
}

func (z *size) tooLarge() bool { return z.runs > mostRuns || z.points > mostPoints }
