package scene

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/plan"
)

// Fillers is the share of a row, from one y to another, in which fillers are seen between
// the knots that are tied over them: as it is drawn, of all cord that is seen there. It is
// 0 where no cord is.
func Fillers(l plan.Layout, v View) float64 {
	if v.PerMM <= 0 {
		v.PerMM = 6
	}
	if l.Thick == 0 || v.To <= v.From {
		return 0
	}
	tiles := cut(l, v)
	fill(tiles, l)
	fillers, all := 0, 0
	for _, t := range tiles {
		f, n := t.fillers(l, v)
		fillers, all = fillers+f, all+n
	}
	if all == 0 {
		return 0
	}
	return float64(fillers) / float64(all)
}

// fillers counts the pixels of a tile in which a filler is on top, and those of any cord.
func (t *tile) fillers(l plan.Layout, v View) (fillers, all int) {
	c := t.canvas(l, v)
	g := c.newRaster()
	if g == nil {
		return 0, 0
	}
	defer g.free()
	p := g.divide(c)
	from, to := math.Max(v.From, t.top)-t.y0, math.Min(v.To, t.y1)-t.y0
	for at := range g.wide * g.tall {
		r := p.region[at]
		if r < 0 || p.of[r].slice < 0 || p.top[at] < 0 {
			continue
		}
		_, row := g.middle(at)
		if y := g.y0 + row/g.per; y < from || y > to {
			continue
		}
		if tube, s := p.sample(at); !tube.metal && !tube.broad {
			all++
			if s.lie == knot.Filler {
				fillers++
			}
		}
	}
	return fillers, all
}
