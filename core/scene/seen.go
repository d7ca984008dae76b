package scene

import (
	"fmt"
	"math"
	"runtime"

	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/plan"
	"nimblebight/core/side"
)

// spot is a place where cord is seen, mm, and how much of the picture it stands for.
type spot struct {
	x, y, mm2 float64
	cord      int
	colour    int // of the picture's
	lie       knot.Lie
}

// seen gives every spot of a layout at which cord is seen, by tiles, read off the regions of
// its picture and nothing else.
func seen(l plan.Layout, v View) [][]spot {
	if v.PerMM <= 0 {
		v.PerMM = 6
	}
	if l.Thick == 0 {
		return nil
	}
	tiles := cut(l, v)
	fill(tiles, l)
	out := make([][]spot, len(tiles))
	parts := min(len(tiles), runtime.GOMAXPROCS(0))
	side.Each(parts, func(i int) {
		for k := i * len(tiles) / parts; k < (i+1)*len(tiles)/parts; k++ {
			t := tiles[k]
			name := fmt.Sprintf("%s %.3f %.3f", t.name(l, v), t.top-t.y0, t.y1-t.y0)
			at, _ := seenTiles.Get(name, func() ([]spot, error) { return t.seen(l, v), nil })
			out[k] = make([]spot, 0, len(at))
			for _, s := range at {
				s.y += t.y0
				if v.To <= v.From || s.y >= v.From && s.y <= v.To {
					out[k] = append(out[k], s)
				}
			}
		}
	})
	return out
}

// seenTiles are the spots of tiles that were looked at before: the knots of a row that look
// alike are looked at once.
var seenTiles = memo.Cache[[]spot]{Most: 24 << 20}

// seen gives the spots of a tile, y from its own zero.
func (t *tile) seen(l plan.Layout, v View) []spot {
	c := t.canvas(l, v)
	g := c.newRaster()
	if g == nil {
		return nil
	}
	defer g.free()
	p := g.divide(c)
	from, to := t.top-t.y0, t.y1-t.y0
	var out []spot
	for at := range g.wide * g.tall {
		r := p.region[at]
		if r < 0 || p.of[r].slice < 0 || p.top[at] < 0 {
			continue
		}
		col, row := g.middle(at)
		y := g.y0 + row/g.per
		if y < from || y > to {
			continue
		}
		if tube, s := p.sample(at); !tube.metal && !tube.broad && tube.paint.Cord >= 0 {
			out = append(out, spot{x: g.x0 + col/g.per, y: y, mm2: 1 / (g.per * g.per), cord: tube.paint.Cord, colour: p.colour(at), lie: s.lie})
		}
	}
	return out
}

// Fillers is the share of a row, from one y to another, in which fillers are seen between
// the knots that are tied over them: as it is drawn, of all cord that is seen there. It is
// 0 where no cord is.
func Fillers(l plan.Layout, v View) float64 {
	if v.To <= v.From {
		return 0
	}
	fillers, all := 0.0, 0.0
	for _, tile := range seen(l, v) {
		for _, s := range tile {
			all += s.mm2
			if s.lie == knot.Filler {
				fillers += s.mm2
			}
		}
	}
	if all == 0 {
		return 0
	}
	return fillers / all
}

// Cells say of each cell of a grid over a picture which cord and which of the picture's
// colours are seen there, by their index, -1 for none. Row 0 is the uppermost; columns go
// from the left.
type Cells struct {
	CellMM     float64
	X0, Y0     float64 // the grid's corner, mm
	Wide, Tall int
	Cord       []int8
	Colour     []int8
}

// CellsOf are the cells of a layout from a view, so many to a diameter of its thickest cord.
func CellsOf(l plan.Layout, v View, toDiameter float64) Cells {
	v.PerMM = 2 * toDiameter / math.Max(l.Thick, 1e-9)
	all := seen(l, v)
	c := Cells{CellMM: l.Thick / toDiameter, X0: math.Inf(1), Y0: math.Inf(1)}
	x1, y1 := math.Inf(-1), math.Inf(-1)
	for _, tile := range all {
		for _, s := range tile {
			c.X0, c.Y0, x1, y1 = math.Min(c.X0, s.x), math.Min(c.Y0, s.y), math.Max(x1, s.x), math.Max(y1, s.y)
		}
	}
	if x1 < c.X0 {
		return Cells{CellMM: c.CellMM}
	}
	// The grid is even about the middle line, so that it is its own mirror image.
	half := math.Ceil(math.Max(-c.X0, x1)/c.CellMM) + 1
	c.X0, c.Wide = -half*c.CellMM, 2*int(half)
	c.Tall = int((y1-c.Y0)/c.CellMM) + 1
	of := owners(l.Stuffs)
	sums := make([]float64, c.Wide*c.Tall*len(of)) // area of each colour in each cell
	for _, tile := range all {
		for _, s := range tile {
			i := int((s.x - c.X0) / c.CellMM)
			k := int((s.y - c.Y0) / c.CellMM)
			if i >= 0 && i < c.Wide && k >= 0 && k < c.Tall {
				sums[(k*c.Wide+i)*len(of)+s.colour] += s.mm2
			}
		}
	}
	c.Cord, c.Colour = make([]int8, c.Wide*c.Tall), make([]int8, c.Wide*c.Tall)
	for i := range c.Cord {
		c.Cord[i], c.Colour[i] = -1, -1
		most := 0.0 // area of the colour that is seen most in the cell
		for k, mm2 := range sums[i*len(of) : (i+1)*len(of)] {
			if mm2 > most {
				most, c.Cord[i], c.Colour[i] = mm2, int8(of[k]), int8(k)
			}
		}
	}
	return c
}
