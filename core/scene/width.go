package scene

import (
	"cmp"
	"math"
	"slices"

	"nimblebight/core/knot"
)

// index lays the slices into a grid for looking up what lies near a point.
func (c *canvas) index() {
	x1, y1 := math.Inf(-1), math.Inf(-1)
	c.x0, c.y0, c.cell = math.Inf(1), math.Inf(1), 0.3
	for _, t := range c.tubes {
		for _, p := range t.samples {
			c.x0, c.y0 = math.Min(c.x0, p.x), math.Min(c.y0, p.y)
			x1, y1 = math.Max(x1, p.x), math.Max(y1, p.y)
			if !t.broad {
				c.widest = math.Max(c.widest, p.hw)
			}
		}
	}
	c.cell = math.Max(c.cell, 0.8*c.widest)
	samples := 0
	for _, t := range c.tubes {
		samples += len(t.samples)
	}
	// A thin line round a wide place fills few cells: there need not be many
	// more of them than slices.
	const sparse = 16
	c.cell = math.Max(c.cell, math.Sqrt((x1-c.x0)*(y1-c.y0)/float64(sparse*max(1, samples))))
	c.x0 -= c.cell
	c.y0 -= c.cell
	c.nx, c.ny = int((x1-c.x0)/c.cell)+2, int((y1-c.y0)/c.cell)+2
	c.grid = make([][]ref, c.nx*c.ny)
	for ti, t := range c.tubes {
		for i, p := range t.samples {
			r := ref{p.x, p.y, p.z, int32(ti), int32(i)}
			if t.broad {
				c.broad = append(c.broad, r)
				continue
			}
			k := int((p.y-c.y0)/c.cell)*c.nx + int((p.x-c.x0)/c.cell)
			c.grid[k] = append(c.grid[k], r)
		}
	}
	for _, row := range c.grid { // what is nearest to the eye comes first
		slices.SortFunc(row, func(a, b ref) int {
			return cmp.Or(cmp.Compare(b.z, a.z), cmp.Compare(a.t, b.t), cmp.Compare(a.i, b.i))
		})
	}
}

// near calls f with the slices whose centres lie within reach mm of a point, and
// with all that are broad, until f says that it has seen enough.
func (c *canvas) near(x, y, reach float64, f func(t *tube, i int) bool) {
	none := math.Inf(-1)
	c.nearAbove(x, y, reach, &none, f)
}

// nearAbove is near for slices no farther from the eye than least, which f may
// raise.
func (c *canvas) nearAbove(x, y, reach float64, least *float64, f func(t *tube, i int) bool) {
	cell := func(v, from float64, n int) int { return max(0, min(n-1, int((v-from)/c.cell))) }
	look := func(row []ref) bool {
		for k := range row {
			r := &row[k]
			if r.z < *least {
				return false
			}
			if dx, dy := r.x-x, r.y-y; dx*dx+dy*dy <= reach*reach && f(c.tubes[r.t], int(r.i)) {
				return true
			}
		}
		return false
	}
	// Where the point itself lies most is found, so there it is looked first.
	first := cell(y, c.y0, c.ny)*c.nx + cell(x, c.x0, c.nx)
	if look(c.grid[first]) {
		return
	}
	for _, r := range c.broad {
		if r.z >= *least && f(c.tubes[r.t], int(r.i)) {
			return
		}
	}
	x0, x1 := cell(x-reach, c.x0, c.nx), cell(x+reach, c.x0, c.nx)
	y0, y1 := cell(y-reach, c.y0, c.ny), cell(y+reach, c.y0, c.ny)
	for yy := y0; yy <= y1; yy++ {
		for k := yy*c.nx + x0; k <= yy*c.nx+x1; k++ {
			if k != first && look(c.grid[k]) {
				return
			}
		}
	}
}

// spread widens soft cord up to its neighbours in the same layer.
func (c *canvas) spread() {
	type wide struct{ l, r float64 }
	for _, t := range c.tubes {
		if t.metal || t.plain {
			continue
		}
		out, most := make([]wide, len(t.samples)), make([]wide, len(t.samples))
		for i := range t.samples {
			me := &t.samples[i]
			out[i], most[i] = wide{me.hw, me.hw}, wide{me.hw, me.hw}
			if me.odd { // every other slice is close enough
				out[i], most[i] = out[i-1], most[i-1]
				continue
			}
			if me.lie == knot.Free || me.lie == knot.Filler || me.flat < 0.5 || !c.shown(me.y, 1.5*t.d) {
				continue
			}
			widest := 0.6 * t.d
			if t.make == "leather" {
				widest = 0.55 * t.d
			} else if me.lie == knot.InRow || me.lie == knot.Snug {
				widest = 0.78 * t.d
			}
			// Cords that run alongside share the room between them; those that
			// run across only bound it.
			beside := [2]float64{math.Inf(1), math.Inf(1)}
			bound := beside
			least := me.z - 0.8*(t.d+2*c.widest)/2
			c.nearAbove(me.x, me.y, 3.2*t.d, &least, func(o *tube, j int) bool {
				p := &o.samples[j]
				if o.metal || p.lie == knot.Filler || (o.group == t.group && math.Abs(p.s-me.s) < 1.6*t.d) {
					return false
				}
				if p.odd || math.Abs(p.z-me.z) > 0.8*(t.d+o.d)/2 {
					return false
				}
				dx, dy := p.x-me.x, p.y-me.y
				along, across := dx*me.tx+dy*me.ty, -dx*me.ty+dy*me.tx
				if math.Abs(along) > 0.3*t.d {
					return false
				}
				k := 0
				if across > 0 {
					k = 1
				}
				room := math.Max(0, math.Abs(across)-me.hw-p.hw)
				if math.Abs(p.tx*me.tx+p.ty*me.ty) > 0.6 {
					beside[k] = math.Min(beside[k], room)
				} else {
					bound[k] = math.Min(bound[k], room)
				}
				return false
			})
			grow := func(room float64) float64 {
				if room > 2.4*t.d {
					return me.hw
				}
				w := math.Min(me.hw+room/2+0.03*t.d, math.Max(me.hw, widest))
				if (me.lie == knot.InRow || me.lie == knot.Snug) && 2*(me.hw+room/2-w) < 0.3*t.d {
					w = me.hw + room/2 + 0.03*t.d
				}
				return w
			}
			out[i] = wide{grow(beside[0]), grow(beside[1])}
			most[i] = wide{me.hw + math.Min(bound[0], t.d), me.hw + math.Min(bound[1], t.d)}
		}
		for i := range t.samples {
			p := &t.samples[i]
			p.l, p.r = math.Min(out[i].l, math.Max(p.hw, most[i].l)), math.Min(out[i].r, math.Max(p.hw, most[i].r))
		}
		t.bends()
		n := max(1, c.slices(widthEase/2))
		for range 2 {
			t.ease(n)
		}
	}
	c.thickness()
	for _, t := range c.tubes {
		for i := range t.samples {
			if t.broad {
				break
			}
			c.widest = math.Max(c.widest, math.Max(t.samples[i].l, t.samples[i].r))
		}
	}
}

// thickness follows from the width: a section keeps its area. Where a cord dives it
// is round.
func (c *canvas) thickness() {
	for _, t := range c.tubes {
		if t.metal || t.plain {
			continue
		}
		for i := range t.samples {
			p := &t.samples[i]
			k := math.Max(0, math.Min(1, (p.flat-0.35)/0.3))
			k = k * k * (3 - 2*k)
			p.l, p.r = p.hw+k*(p.l-p.hw), p.hw+k*(p.r-p.hw)
			p.h = p.hw * p.hw / ((p.l + p.r) / 2)
		}
	}
}

// widthEase is over how much of the cord widths are evened, twice, diameters.
const widthEase = 0.72

// ease evens the widths over n slices either way.
func (t *tube) ease(n int) {
	m := len(t.samples)
	l, r := make([]float64, m+1), make([]float64, m+1)
	for i := range t.samples {
		l[i+1], r[i+1] = l[i]+t.samples[i].l, r[i]+t.samples[i].r
	}
	for i := range t.samples {
		a, b := max(0, i-n), min(m, i+n+1)
		t.samples[i].l, t.samples[i].r = (l[b]-l[a])/float64(b-a), (r[b]-r[a])/float64(b-a)
	}
}

// bends keeps what cord has spread on the inner side of a bend within its radius.
func (t *tube) bends() {
	n := len(t.samples)
	for i := 2; i+2 < n; i++ {
		a, b := t.samples[i-2], t.samples[i+2]
		p := &t.samples[i]
		turn := math.Atan2(a.tx*b.ty-a.ty*b.tx, a.tx*b.tx+a.ty*b.ty)
		arc := math.Hypot(b.x-a.x, b.y-a.y)
		if math.Abs(turn) < 0.02 || math.Abs(turn) > 1.6 || arc == 0 {
			continue
		}
		most := math.Max(arc/math.Abs(turn), p.hw)
		if turn > 0 { // towards +n
			p.r = math.Min(p.r, most)
		} else {
			p.l = math.Min(p.l, most)
		}
	}
}

func hundredths(v float64) int { return int(math.Round(v * 100)) }
