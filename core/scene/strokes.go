package scene

import (
	"math"
	"sort"

	"nimblebight/core/knot"
)

// The light falls from the upper left.
var lightX, lightY = -math.Sqrt2 / 2, -math.Sqrt2 / 2

// stroked gathers strokes of one kind by width and colour.
type stroked struct {
	kind    Kind
	writers map[int]*lines
}

func (s *stroked) at(width float64) *lines {
	if s.writers == nil {
		s.writers = map[int]*lines{}
	}
	k := max(1, hundredths(width))
	if s.writers[k] == nil {
		s.writers[k] = &lines{}
	}
	return s.writers[k]
}

func (s *stroked) layers() []Layer {
	var out []Layer
	var ks []int
	for k := range s.writers {
		ks = append(ks, k)
	}
	sort.Ints(ks)
	for _, k := range ks {
		if w := s.writers[k]; len(w.all) > 0 {
			out = append(out, Layer{Kind: s.kind, Lines: w.all, Width: k})
		}
	}
	return out
}

// strokes draws inks, shades, marks and lights over the bodies. Nothing here
// is drawn with the bodies: each line is tested point by point and only what is
// seen is written.
func (c *canvas) strokes() []Layer {
	shade, shadow, mark, light := stroked{kind: Shade}, stroked{kind: Shadow}, stroked{kind: Mark}, stroked{kind: Light}
	ink, casing, moving := stroked{kind: Ink}, stroked{kind: Casing}, stroked{kind: Moving}
	for _, t := range c.tubes {
		px := c.v.PerMM * t.d // pixels a diameter
		inkMM := math.Max(0.7, math.Min(2.6, 0.45+0.022*px)) / c.v.PerMM
		lines := &ink
		if t.fibre { // ink would turn a fringe grey
			lines = &mark
			inkMM *= 0.7
		}
		for _, k := range [2]float64{-1, 1} {
			c.outline(t, k, lines.at(inkMM), false)
			c.outline(t, k, casing.at(4.4*inkMM), true)
			c.outline(t, k, moving.at(2.4*inkMM), true)
		}
		for e, open := range t.open {
			if open {
				c.endLine(t, e, lines.at(inkMM))
			}
		}
		if t.plain {
			continue
		}
		lightMM := math.Max(0.055*t.d, 0.8/c.v.PerMM)
		if px >= 8 {
			c.lightLine(t, light.at(lightMM))
		}
		if px < 20 {
			continue
		}
		c.shades(t, shade.at(0.16*t.d), shadow.at(0.13*t.d))
		if px >= 22 && !t.metal {
			c.marks(t, mark.at(math.Max(0.5*inkMM, 0.45/c.v.PerMM)))
		}
	}
	var out []Layer
	for _, s := range []stroked{shade, shadow, mark, light, ink, casing, moving} {
		out = append(out, s.layers()...)
	}
	return out
}

// edgePoint is a point of a side line with the slice that it belongs to.
type edgePoint struct {
	pt
	i int
}

// sideLine is one side of a tube at an offset, fanned out round folds in depth.
func sideLine(t *tube, k float64, off func(p *sample) float64) []edgePoint {
	var out []edgePoint
	for i := range t.samples {
		p := &t.samples[i]
		if i > 0 {
			q := &t.samples[i-1]
			turn := math.Atan2(q.tx*p.ty-q.ty*p.tx, q.tx*p.tx+q.ty*p.ty)
			if math.Abs(turn) > 0.5 {
				from := math.Atan2(k*q.tx, -k*q.ty)
				n := int(math.Abs(turn) / 0.25)
				for m := 1; m < n; m++ {
					u := float64(m) / float64(n)
					s, cs := math.Sincos(from + turn*u)
					r := q.hw
					out = append(out, edgePoint{pt{q.x + (p.x-q.x)*u + r*cs, q.y + (p.y-q.y)*u + r*s}, i})
				}
			}
		}
		x, y := p.side(k, off(p))
		out = append(out, edgePoint{pt{x, y}, i})
	}
	return out
}

// visible writes the parts of a line that are seen, their ends found by halving.
// Parts up to shortest are left out. What is hidden for less than gap is seen as
// well: whatever lies over a line is wider, and slices that meet there flicker.
func (c *canvas) visible(w *lines, line []edgePoint, tol, shortest, gap float64, seen func(p pt, i int) bool) {
	lo, hi := c.lo-0.5, c.hi+0.5
	is := make([]bool, len(line))
	last := -1 // the last point that is seen
	for n, p := range line {
		if is[n] = p.y >= lo && p.y <= hi && seen(p.pt, p.i); !is[n] {
			continue
		}
		if last >= 0 && last < n-1 {
			arc := 0.0
			for k := last + 1; k <= n; k++ {
				arc += math.Hypot(line[k].x-line[k-1].x, line[k].y-line[k-1].y)
			}
			for k := last + 1; k < n && arc < gap; k++ {
				is[k] = true
			}
		}
		last = n
	}
	var run []pt
	flush := func() {
		if len(run) > 1 {
			arc := 0.0
			for i := 1; i < len(run); i++ {
				arc += math.Hypot(run[i].x-run[i-1].x, run[i].y-run[i-1].y)
			}
			if arc > shortest {
				w.line(simplify(run, tol))
			}
		}
		run = nil
	}
	edge := func(in, out edgePoint) pt {
		a, b := in.pt, out.pt
		for range 5 {
			m := pt{(a.x + b.x) / 2, (a.y + b.y) / 2}
			if seen(m, in.i) {
				a = m
			} else {
				b = m
			}
		}
		return a
	}
	for n, p := range line {
		was := n > 0 && is[n-1]
		switch {
		case is[n] && !was && n > 0:
			run = append(run, edge(p, line[n-1]), p.pt)
		case is[n]:
			run = append(run, p.pt)
		case was:
			run = append(run, edge(line[n-1], p))
			flush()
		}
	}
	flush()
}

func halfWidth(k float64) func(p *sample) float64 {
	if k < 0 {
		return func(p *sample) float64 { return p.l }
	}
	return func(p *sample) float64 { return p.r }
}

func (c *canvas) outline(t *tube, k float64, w *lines, onlyMoving bool) {
	if onlyMoving {
		any := false
		for i := range t.samples {
			any = any || t.samples[i].moving
		}
		if !any {
			return
		}
	}
	line := sideLine(t, k, halfWidth(k))
	c.visible(w, line, 0.0035*t.d, 0.2*t.d, 0.35*t.d, func(p pt, i int) bool {
		return (!onlyMoving || t.samples[i].moving) && !c.hidden(t, i, p.x, p.y, true)
	})
}

func (c *canvas) endLine(t *tube, e int, w *lines) {
	i := 0
	if e == 1 {
		i = len(t.samples) - 1
	}
	p := &t.samples[i]
	var line []edgePoint
	for n := range 9 {
		k := -1 + float64(n)/4
		off := p.r
		if k < 0 {
			off = p.l
		}
		x, y := p.side(k, off)
		line = append(line, edgePoint{pt{x, y}, i})
	}
	c.visible(w, line, 0.0035*t.d, 0.1*t.d, 0, func(q pt, i int) bool { return !c.hidden(t, i, q.x, q.y, false) })
}

// litSide is how much the +n side of a slice faces the light, -1 to 1,
// averaged over a diameter so that it does not flicker.
func (c *canvas) litSide(t *tube) []float64 {
	n := max(1, c.slices(0.5))
	out := make([]float64, len(t.samples))
	for i := range out {
		a, b := max(0, i-n), min(len(out), i+n+1)
		for _, p := range t.samples[a:b] {
			out[i] += (-p.ty*lightX + p.tx*lightY) / float64(b-a)
		}
	}
	return out
}

func (c *canvas) lightLine(t *tube, w *lines) {
	lit := c.litSide(t)
	line := make([]edgePoint, 0, len(t.samples))
	for i := range t.samples {
		p := &t.samples[i]
		off := p.r
		if lit[i] < 0 {
			off = p.l
		}
		x, y := p.side(lit[i], 0.45*off)
		line = append(line, edgePoint{pt{x, y}, i})
	}
	back := 0.3 * t.d
	c.visible(w, line, 0.004*t.d, 0.55*t.d, 0.3*t.d, func(q pt, i int) bool {
		p := &t.samples[i]
		if p.flat < 0.6 || p.lie == knot.Filler || c.hidden(t, i, q.x, q.y, false) {
			return false
		}
		// It ends before a crossing.
		return !c.hidden(t, i, q.x+back*p.tx, q.y+back*p.ty, false) && !c.hidden(t, i, q.x-back*p.tx, q.y-back*p.ty, false)
	})
}

func (c *canvas) shades(t *tube, shade, shadow *lines) {
	lit := c.litSide(t)
	for _, k := range [2]float64{-1, 1} {
		half := halfWidth(k)
		inner := sideLine(t, k, func(p *sample) float64 { return math.Max(0, half(p)-0.08*t.d) })
		c.visible(shade, inner, 0.004*t.d, 0.25*t.d, 0.3*t.d, func(q pt, i int) bool {
			return k*lit[i] < -0.15 && t.samples[i].flat > 0.5 && !c.hidden(t, i, q.x, q.y, true)
		})
		outer := sideLine(t, k, func(p *sample) float64 { return half(p) + 0.065*t.d })
		c.visible(shadow, outer, 0.006*t.d, 0.3*t.d, 0.3*t.d, func(q pt, i int) bool {
			return k*lit[i] < 0.25 && c.fallsOn(t, i, q)
		})
	}
}

// fallsOn tells whether the shadow of slice i falls on something well below it
// at a point that nothing covers.
func (c *canvas) fallsOn(t *tube, i int, q pt) bool {
	me := &t.samples[i]
	top, own := math.Inf(-1), false
	c.nearAbove(q.x, q.y, c.widest, &top, func(o *tube, j int) bool {
		p := &o.samples[j]
		if arc := math.Abs(p.s - me.s); o.strand == t.strand && arc < 1.2*t.d {
			// Where the cord dives, its shadow would fall on its own bend.
			own = arc > 0.12*t.d && p.z > me.z && c.inside(o, p, q.x, q.y, 0.02*o.d)
			return own
		}
		if p.z > top && c.inside(o, p, q.x, q.y, 0.02*o.d) {
			top = p.z
		}
		return false
	})
	return !own && top > math.Inf(-1) && me.z-top > 0.35*t.d
}

// marks draws the sheath: two staggered columns of slanting strokes for
// kernmantle and braid (four when seen close), one long slanting stroke for
// laid and twisted cord, the good-side line for leather.
func (c *canvas) marks(t *tube, w *lines) {
	px := c.v.PerMM * t.d
	if t.make == "leather" {
		line := sideLine(t, 1, func(p *sample) float64 { return 0.68 * p.r })
		c.visible(w, line, 0.01*t.d, 0.4*t.d, 0.3*t.d, func(q pt, i int) bool { return !c.hidden(t, i, q.x, q.y, true) })
		return
	}
	twisted := t.make == "single-strand" || t.make == "three-ply" || t.make == "laid"
	every := math.Max(0.32*t.d, 6/c.v.PerMM)
	cols := []float64{-0.42, 0.42}
	if px >= 70 {
		cols = []float64{-0.66, -0.24, 0.24, 0.66}
	}
	if twisted {
		every = math.Max(0.2*t.d, 4.5/c.v.PerMM)
		if t.make != "single-strand" {
			every = math.Max(0.42*t.d, 6/c.v.PerMM)
		}
		cols = []float64{0}
	}
	next, n := every/2, 0
	for i := range t.samples {
		p := &t.samples[i]
		if p.s-t.samples[0].s < next {
			continue
		}
		next += every
		n++
		if !c.shown(p.y, 0.5*t.d) {
			continue
		}
		if p.flat < 0.55 || p.lie == knot.Filler {
			continue
		}
		for ci, col := range cols {
			if len(cols) > 1 && (n+ci)%2 == 0 {
				continue
			}
			off := p.r
			if col < 0 {
				off = p.l
			}
			along, across := 0.1*t.d, 0.07*t.d
			if col > 0 {
				across = -across
			}
			x, y := p.side(col, off)
			a := pt{x - along*p.tx - across*-p.ty, y - along*p.ty - across*p.tx}
			b := pt{x + along*p.tx + across*-p.ty, y + along*p.ty + across*p.tx}
			if twisted {
				lx, ly := p.side(-0.8, p.l)
				rx, ry := p.side(0.8, p.r)
				along = 0.27 * t.d
				a, b = pt{lx - along*p.tx, ly - along*p.ty}, pt{rx + along*p.tx, ry + along*p.ty}
			}
			m := pt{(a.x + b.x) / 2, (a.y + b.y) / 2}
			if c.hidden(t, i, m.x, m.y, true) || c.hidden(t, i, a.x, a.y, true) || c.hidden(t, i, b.x, b.y, true) {
				continue
			}
			w.line([]pt{a, b})
		}
	}
}
