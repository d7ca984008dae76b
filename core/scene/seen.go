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

// spot is a pixel in which cord is seen: its column, its y from the tile's zero, mm, which
// of the picture's colours it shows, and how the cord lies. It is small, for there are many
// and they are kept.
type spot struct {
	y      float32
	col    uint16
	colour uint8
	lie    knot.Lie
}

// spots are those of a tile; the middle of column 0 lies at x, a column is step wide, mm.
type spots struct {
	x, step float64
	at      []spot
	y0      float64 // of the tile
}

// each calls f with every spot that lies in a view, and how much of the picture it is.
func (s spots) each(v View, f func(x, y, mm2 float64, p spot)) {
	for _, p := range s.at {
		if y := s.y0 + float64(p.y); v.To <= v.From || y >= v.From && y <= v.To {
			f(s.x+float64(p.col)*s.step, y, s.step*s.step, p)
		}
	}
}

// seen gives every spot of a layout at which cord is seen, by tiles, read off the regions of
// its picture and nothing else.
func seen(l plan.Layout, v View) []spots {
	if v.PerMM <= 0 {
		v.PerMM = 6
	}
	if l.Thick == 0 {
		return nil
	}
	tiles := cut(l, v)
	fill(tiles, l)
	out := make([]spots, len(tiles))
	parts := min(len(tiles), runtime.GOMAXPROCS(0))
	side.Each(parts, func(i int) {
		for k := i * len(tiles) / parts; k < (i+1)*len(tiles)/parts; k++ {
			t := tiles[k]
			name := fmt.Sprintf("%s %.3f %.3f", t.name(l, v), t.top-t.y0, t.y1-t.y0)
			out[k], _ = seenTiles.Get(name, func() (spots, error) { return t.seen(l, v), nil })
			out[k].y0 = t.y0
		}
	})
	return out
}

// seenTiles are the spots of tiles that were looked at before: the knots of a row that look
// alike are looked at once.
var seenTiles = memo.Cache[spots]{Most: 24 << 20}

// seen gives the spots of a tile.
func (t *tile) seen(l plan.Layout, v View) spots {
	c := t.canvas(l, v)
	g := c.newRaster()
	if g == nil {
		return spots{}
	}
	defer g.free()
	p := g.divide(c)
	from, to := t.top-t.y0, t.y1-t.y0
	out := spots{x: g.x0 + 0.5/g.per, step: 1 / g.per}
	for at := range g.wide * g.tall {
		r := p.region[at]
		if r < 0 || p.of[r].slice < 0 || p.top[at] < 0 {
			continue
		}
		_, row := g.middle(at)
		y := g.y0 + row/g.per
		if y < from || y > to {
			continue
		}
		if tube, s := p.sample(at); !tube.metal && !tube.broad && tube.paint.Cord >= 0 {
			out.at = append(out.at, spot{y: float32(y), col: uint16(at % g.wide), colour: uint8(p.colour(at)), lie: s.lie})
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
		tile.each(v, func(_, _, mm2 float64, p spot) {
			all += mm2
			if p.lie == knot.Filler {
				fillers += mm2
			}
		})
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

// cellPx is how many pixels of a picture a cell is as wide as. Where what is seen is counted
// and not shown, that is enough.
const cellPx = 1.6

// CellsOf are the cells of a layout from a view, so many to a diameter of its thickest cord.
func CellsOf(l plan.Layout, v View, toDiameter float64) Cells {
	v.PerMM = cellPx * toDiameter / math.Max(l.Thick, 1e-9)
	all := seen(l, v)
	c := Cells{CellMM: l.Thick / toDiameter, X0: math.Inf(1), Y0: math.Inf(1)}
	x1, y1 := math.Inf(-1), math.Inf(-1)
	for _, tile := range all {
		tile.each(v, func(x, y, _ float64, _ spot) {
			c.X0, c.Y0, x1, y1 = min(c.X0, x), min(c.Y0, y), max(x1, x), max(y1, y)
		})
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
		tile.each(v, func(x, y, mm2 float64, p spot) {
			i := int((x - c.X0) / c.CellMM)
			k := int((y - c.Y0) / c.CellMM)
			if i >= 0 && i < c.Wide && k >= 0 && k < c.Tall {
				sums[(k*c.Wide+i)*len(of)+int(p.colour)] += mm2
			}
		})
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
