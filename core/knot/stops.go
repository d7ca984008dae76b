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
	type disc struct{ x, z, r float64 }
	var all []disc
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
					all = append(all, disc{v.X, v.Z, r})
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
	// The middle is pulled towards what lies farthest from it, less and less.
	const rounds = 300
	x, z := all[0].x, all[0].z
	best := math.Inf(1)
	for k := range rounds {
		far, at := 0.0, all[0]
		for _, d := range all {
			if off := math.Sqrt((d.x-x)*(d.x-x)+(d.z-z)*(d.z-z)) + d.r; off > far {
				far, at = off, d
			}
		}
		best = math.Min(best, far)
		step := 1 / float64(k+2)
		x, z = x+step*(at.x-x), z+step*(at.z-z)
	}
	t.PassesMM = 2 * best
	t.StopsMM = t.PassesMM * (1 - give)
}
