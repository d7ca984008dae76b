package knot

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// stops measures the holes that a tied section passes and that stop it: the circle
// about all its strands, seen along the work.
//
// Law: with every diameter twice as large both are twice as wide.
func (t *Tied) stops(w Work) {
	var all []Disc
	give := 0.0
	for _, side := range [2]struct {
		paths   []Path
		strands []Strand
	}{{t.Paths, w.Strands}, {t.Own, w.Own}} {
		for i, p := range side.paths {
			if i >= len(side.strands) {
				break
			}
			r := side.strands[i].Diameter / 2
			give = math.Max(give, side.strands[i].Stuff.Give())
			add := func(pts []r3.Vec) {
				for _, v := range pts {
					all = append(all, Disc{v.X, v.Z, r})
				}
			}
			add(p.Points)
			if m := p.More; m != nil {
				add(m.Tail)
				if m.Turn != 0 { // turned all round it reaches as far to every side
					far := 0.0
					for _, v := range p.Points {
						far = math.Max(far, math.Hypot(v.X, v.Z))
					}
					add([]r3.Vec{{X: far}, {X: -far}, {Z: far}, {Z: -far}})
				}
			}
		}
	}
	if len(all) == 0 {
		return
	}
	t.PassesMM = 2 * Round(all).R
	t.StopsMM = t.PassesMM * (1 - give)
}
