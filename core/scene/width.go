package scene

import (
	"math"

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
			if t.metal || p.odd { // nothing spreads up to metal; every other slice is close enough
				continue
			}
			r := ref{int32(ti), int32(i)}
			k := int((p.y-c.y0)/c.cell)*c.nx + int((p.x-c.x0)/c.cell)
			c.grid[k] = append(c.grid[k], r)
		}
	}
	c.seen = make([]uint32, len(c.grid))
}

// beside calls f with the slices that lie in the cells along the cross line of a slice,
// up to far on either side of it, and with some more.
func (c *canvas) beside(p *sample, far float64, f func(t *tube, i int)) {
	c.round++
	cell := func(v, from float64, n int) int { return max(0, min(n-1, int((v-from)/c.cell))) }
	look := func(x, y int) {
		if k := y*c.nx + x; c.seen[k] != c.round {
			c.seen[k] = c.round
			for _, r := range c.grid[k] {
				f(c.tubes[r.t], int(r.i))
			}
		}
	}
	n := int(far/c.cell) + 1
	for k := -n; k <= n; k++ {
		d := far * float64(k) / float64(n)
		x, y := cell(p.x-d*p.ty, c.x0, c.nx), cell(p.y+d*p.tx, c.y0, c.ny)
		// What lies up to a third of a diameter along may be in a cell beside it.
		for yy := max(0, y-1); yy <= min(c.ny-1, y+1); yy++ {
			for xx := max(0, x-1); xx <= min(c.nx-1, x+1); xx++ {
				look(xx, yy)
			}
		}
	}
}

// Cord spreads into no more room than mostRoom, and looks so far for what bounds it;
// diameters.
const mostRoom, spreadFar = 1.2, 2.3

// spreadBeyond is how far beyond what is shown cord is spread: as far as a cord that
// reaches in from there may lie, and as widths are evened, whose slices may stand
// half as far again apart.
const spreadBeyond = 1 + 1.5*widthEase

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
			if me.odd && i > 0 { // every other slice is close enough
				out[i], most[i] = out[i-1], most[i-1]
				continue
			}
			if me.lie == knot.Free || me.lie == knot.Filler || me.flat < 0.5 || !c.shown(me.y, spreadBeyond*t.d) {
				continue
			}
			widest := 0.6 * t.d
			if t.make.Lace() {
				widest = 0.55 * t.d
			} else if me.lie == knot.InRow || me.lie == knot.Snug {
				widest = 0.78 * t.d
			}
			// Cords that run alongside share the room between them; those that
			// run across only bound it.
			beside := [2]float64{math.Inf(1), math.Inf(1)}
			bound := beside
			c.beside(me, spreadFar*t.d, func(o *tube, j int) {
				p := &o.samples[j]
				dx, dy := p.x-me.x, p.y-me.y
				along := dx*me.tx + dy*me.ty
				if along > 0.3*t.d || along < -0.3*t.d || p.lie == knot.Filler || math.Abs(p.z-me.z) > 0.8*(t.d+o.d)/2 {
					return
				}
				across := dy*me.tx - dx*me.ty
				if o.group == t.group && math.Abs(p.s-me.s) < 1.6*t.d || math.Abs(across) > spreadFar*t.d {
					return
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
			})
			grow := func(room float64) float64 {
				if room > mostRoom*t.d {
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
			t.evenWidths(n)
		}
	}
	c.thickness()
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

// evenWidths evens the widths over n slices either way.
func (t *tube) evenWidths(n int) {
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
