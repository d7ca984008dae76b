package scene

import (
	"math"
	"slices"
	"sync"
)

// slice is a slice of a cord in the raster, its lengths pixels of it.
//
// A slice that lies fairly flat paints the part of the surface whose normals lie in
// its own plane; a steep one is a part of a ball. Both are closed formulas, so where
// a sheet ends can be asked below the pixel.
type slice struct {
	x, y, z  float64
	tx, ty   float64 // direction in the picture, unit length
	l, r, h  float64 // half widths left and right, half thickness
	sin, cos float64 // of the slope
	tan      float64
	s        float64 // along the cord, drawn-up diameters of the plate
	tube     int32
	sheet    int32 // strand that it belongs to, its moved part apart
	lo, hi   gap   // how far it reaches to the slices before and after it
	ball     bool  // steep: painted as a ball
	clip     int8  // an end: -1 nothing before it, 1 nothing after it
}

// gap is half the way to a neighbour: in the middle, a unit across, and for all of
// the thickness.
type gap struct{ mid, across, thick float64 }

// local gives a place as it lies along and across a slice, and how far across in half
// widths.
func (q *slice) local(x, y float64) (along, across, u float64) {
	dx, dy := x-q.x, y-q.y
	along, across = dx*q.tx+dy*q.ty, dy*q.tx-dx*q.ty
	if across < 0 {
		return along, across, across / q.l
	}
	return along, across, across / q.r
}

// at is the depth of a slice's surface at a place and whether it has one there.
func (q *slice) at(x, y float64) (z float64, ok bool) {
	al, _, u := q.local(x, y)
	if q.ball {
		v := al / q.h
		k := 1 - u*u - v*v
		if k <= 0 {
			return 0, false
		}
		return q.z + q.h*math.Sqrt(k), true
	}
	k := 1 - u*u
	if k <= 0 {
		return 0, false
	}
	c := math.Sqrt(k)
	rest := al + q.h*c*q.sin
	if q.clip != 0 && float64(q.clip)*rest > 0 {
		return 0, false
	}
	return q.z + q.h*c*q.cos + rest*q.tan, true
}

// normal is the direction in which the surface looks at a place.
func (q *slice) normal(x, y float64) (nx, ny, nz float64) {
	al, _, u := q.local(x, y)
	u = math.Max(-1, math.Min(1, u))
	if q.ball {
		v := math.Max(-1, math.Min(1, al/q.h))
		c := math.Sqrt(math.Max(0, 1-u*u-v*v))
		return -q.ty*u + q.tx*v, q.tx*u + q.ty*v, c
	}
	c := math.Sqrt(1 - u*u)
	return -q.ty*u - q.tx*q.sin*c, q.tx*u - q.ty*q.sin*c, c * q.cos
}

// raster is what is seen, pixel by pixel.
type raster struct {
	wide, tall int
	per        float64 // pixels a mm
	d          float64 // drawn-up diameter of the plate, pixels
	x0, y0     float64 // the grid's corner, mm
	shared     shared
	slices     []slice
	first      []int32   // of each tube, the first of its slices
	top        []int32   // slice on top of each pixel, -1 for the mat
	z          []float32 // its depth
}

// shared is how much the rows from one to another are higher or lower together than
// so many pixels.
type shared struct{ from, to, over float64 }

// y is the place of a row, pixels from the grid's upper edge.
func (s shared) y(row float64) float64 {
	if s.to <= s.from {
		return row
	}
	return row + s.over*math.Max(0, math.Min(1, (row-s.from)/(s.to-s.from)))
}

// row is the row of a place.
func (s shared) row(y float64) float64 {
	if s.to <= s.from {
		return y
	}
	long := s.to - s.from + s.over
	return y - s.over*math.Max(0, math.Min(1, (y-s.from)/long))
}

// middle is the middle of a pixel.
func (g *raster) middle(at int) (x, y float64) {
	return float64(at%g.wide) + 0.5, g.shared.y(float64(at/g.wide) + 0.5)
}

var rasters sync.Pool // of *raster, for their memory

func (g *raster) free() { rasters.Put(g) }

func grown[T any](s []T, n int) []T {
	if cap(s) < n {
		return make([]T, n)
	}
	return s[:n]
}

const (
	steep = 0.63 // sine of the slope from which a slice is a ball
	reach = 0.35 // pixels by which slices overlap
)

// mostPixels bounds a raster; a plate that is larger is drawn more coarsely.
const mostPixels = 2 << 20

// newRaster lays a grid over what is shown of a canvas and paints its tubes.
func (c *canvas) newRaster() *raster {
	g, _ := rasters.Get().(*raster)
	if g == nil {
		g = &raster{}
	}
	d := c.thin()
	px := c.v.PerMM * d
	res := 30.0
	switch {
	case px < 2:
		res = 6
	case px < 5:
		res = 10
	case px <= 24:
		res = 16
	case px <= 60:
		res = 20
	}
	g.per, g.d = res/d, res
	x0, y0, x1, y1 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, t := range c.tubes {
		for i := range t.samples {
			p := &t.samples[i]
			w := math.Max(p.l, p.r)
			if !c.shown(p.y, depthBeyond*d+w) {
				continue
			}
			x0, x1 = math.Min(x0, p.x-w), math.Max(x1, p.x+w)
			y0, y1 = math.Min(y0, p.y-w), math.Max(y1, p.y+w)
		}
	}
	if x0 > x1 {
		return nil
	}
	y0, y1 = math.Max(y0, c.lo-depthBeyond*d), math.Min(y1, c.hi+depthBeyond*d)
	if n := (x1 - x0) * (y1 - y0) * g.per * g.per; n > mostPixels {
		k := math.Sqrt(mostPixels / n)
		g.per, g.d = g.per*k, g.d*k
		c.coarse = g.per < c.v.PerMM // fewer pixels than it is seen with
	}
	// Neighbours see the same pixels where they meet: a row of them begins at the cut,
	// a column at the axis. What is over of a whole row is shared by those between.
	top, bottom := c.cuts()
	aligned := 0.0
	g.shared = shared{}
	switch {
	case !math.IsInf(top, 0) && !math.IsInf(bottom, 0):
		high := (bottom - top) * g.per
		rows := math.Max(1, math.Round(high))
		still := math.Min(0.6*g.d, rows/3)
		g.shared = shared{from: still, to: rows - still, over: high - rows}
		aligned = top
	case !math.IsInf(top, 0):
		aligned = top
	case !math.IsInf(bottom, 0):
		aligned = bottom
	}
	const pad = 2
	g.x0 = (math.Floor(x0*g.per) - pad) / g.per
	above := math.Ceil((aligned-y0)*g.per) + pad // rows above the cut
	g.y0 = aligned - above/g.per
	g.shared.from, g.shared.to = g.shared.from+above, g.shared.to+above
	g.wide, g.tall = int((x1-g.x0)*g.per)+pad+1, int((y1-g.y0)*g.per)+pad+1
	g.top, g.z = grown(g.top, g.wide*g.tall), grown(g.z, g.wide*g.tall)
	for i := range g.top {
		g.top[i], g.z[i] = -1, float32(math.Inf(-1))
	}
	g.cut(c)
	for i := range g.slices {
		g.paint(int32(i))
	}
	return g
}

// depthBeyond is how far beyond what is shown things are painted, in diameters: so
// far shadows fall and regions are judged whole.
const depthBeyond = 0.8

// thin is the diameter by which a plate is drawn: that of its thinnest cord, but no
// less than two fifths of the thickest.
func (c *canvas) thin() float64 {
	least, most := math.Inf(1), 0.0
	for _, t := range c.tubes {
		if !t.metal && !t.fibre {
			least, most = math.Min(least, t.d), math.Max(most, t.d)
		}
	}
	if most == 0 {
		for _, t := range c.tubes {
			most = math.Max(most, t.d)
		}
		return most
	}
	return math.Max(least, 0.4*most)
}

// cut makes the slices of all tubes.
func (g *raster) cut(c *canvas) {
	count := 0
	for _, t := range c.tubes {
		count += len(t.samples)
	}
	g.slices, g.first = slices.Grow(g.slices[:0], count), g.first[:0]
	d := g.d / g.per
	for ti, t := range c.tubes {
		from := len(g.slices)
		g.first = append(g.first, int32(from))
		n := len(t.samples)
		for i := range t.samples {
			p := &t.samples[i]
			a, b := &t.samples[max(0, i-1)], &t.samples[min(n-1, i+1)]
			dx, dy, dz := b.x-a.x, b.y-a.y, b.z-a.z
			h := math.Sqrt(dx*dx + dy*dy)
			all := math.Max(1e-9, math.Sqrt(h*h+dz*dz))
			q := slice{x: (p.x - g.x0) * g.per, y: (p.y - g.y0) * g.per, z: p.z * g.per, tx: p.tx, ty: p.ty,
				l: p.l * g.per, r: p.r * g.per, h: p.h * g.per, sin: dz / all, cos: h / all, s: p.s / d, tube: int32(ti), sheet: int32(2 * t.group)}
			if dx*p.tx+dy*p.ty < 0 { // it turns round in depth
				q.cos = -q.cos
			}
			if p.moving {
				q.sheet++
			}
			q.ball = math.Abs(q.sin) > steep || q.cos <= 0
			if t.flat {
				q.sin, q.cos, q.ball = 0, 1, false
			}
			if !q.ball {
				q.tan = q.sin / q.cos
			}
			if i == 0 {
				q.clip = -1
			} else if i == n-1 {
				q.clip = 1
			}
			g.slices = append(g.slices, q)
		}
		own := g.slices[from:]
		half := func(p, q *slice) gap { // from p towards q
			return gap{
				mid:    ((q.x-p.x)*p.tx + (q.y-p.y)*p.ty) / 2,
				across: (-q.ty*p.tx + q.tx*p.ty) / 2,
				thick:  -(q.sin*q.h - p.sin*p.h) / 2,
			}
		}
		for i := range own {
			if i > 0 {
				own[i].lo = half(&own[i], &own[i-1])
			}
			if i+1 < len(own) {
				own[i].hi = half(&own[i], &own[i+1])
			}
		}
	}
}

// paint paints slice i where nothing lies over it.
func (g *raster) paint(i int32) {
	q := &g.slices[i]
	w := math.Max(q.l, q.r)
	var far float64 // how far along it can reach
	if q.ball {
		far = q.h
	} else {
		far = math.Max(math.Abs(q.lo.mid), math.Abs(q.hi.mid)) + w*math.Max(math.Abs(q.lo.across), math.Abs(q.hi.across)) +
			math.Max(math.Abs(q.lo.thick), math.Abs(q.hi.thick)) + reach + q.h*math.Abs(q.sin)
		far = math.Min(far, 2*w)
	}
	rx := far*math.Abs(q.tx) + w*math.Abs(q.ty)
	ry := far*math.Abs(q.ty) + w*math.Abs(q.tx)
	x0, x1 := max(0, int(math.Ceil(q.x-rx-0.5))), min(g.wide-1, int(math.Floor(q.x+rx-0.5)))
	y0, y1 := max(0, int(math.Ceil(q.y-ry-1.5))), min(g.tall-1, int(math.Floor(q.y+ry+0.5)))
	for y := y0; y <= y1; y++ {
		dy := g.shared.y(float64(y)+0.5) - q.y
		// The stretch of the row that the slice can reach: across its width and along
		// as far as it goes.
		from, to := -rx, rx
		if q.ty > 1e-6 {
			from, to = max(from, (dy*q.tx-q.r)/q.ty), min(to, (dy*q.tx+q.l)/q.ty)
		} else if q.ty < -1e-6 {
			from, to = max(from, (dy*q.tx+q.l)/q.ty), min(to, (dy*q.tx-q.r)/q.ty)
		}
		if q.tx > 1e-6 {
			from, to = max(from, (-far-dy*q.ty)/q.tx), min(to, (far-dy*q.ty)/q.tx)
		} else if q.tx < -1e-6 {
			from, to = max(from, (far-dy*q.ty)/q.tx), min(to, (-far-dy*q.ty)/q.tx)
		}
		row := y * g.wide
		last := min(x1, int(math.Floor(q.x+to-0.5)))
		for x := max(x0, int(math.Ceil(q.x+from-0.5))); x <= last; x++ {
			dx := float64(x) + 0.5 - q.x
			al := dx*q.tx + dy*q.ty
			ac := dy*q.tx - dx*q.ty
			u := ac / q.r
			if ac < 0 {
				u = ac / q.l
			}
			k := 1 - u*u
			if k <= 0 {
				continue
			}
			var z float64
			if q.ball {
				v := al / q.h
				k -= v * v
				if k <= 0 {
					continue
				}
				z = q.z + q.h*math.Sqrt(k)
				if q.clip != 0 && float64(q.clip)*(al*q.cos+(z-q.z)*q.sin) > 0 {
					continue
				}
			} else {
				c := math.Sqrt(k)
				rest := al + q.h*c*q.sin // along the cord from the slice's own line
				lo := min(0, q.lo.mid+ac*q.lo.across+c*q.lo.thick) - reach
				hi := max(0, q.hi.mid+ac*q.hi.across+c*q.hi.thick) + reach
				if q.clip < 0 {
					lo = 0
				} else if q.clip > 0 {
					hi = 0
				}
				if rest < lo || rest > hi {
					continue
				}
				z = q.z + q.h*c*q.cos + rest*q.tan
			}
			if at := row + x; float32(z) > g.z[at] {
				g.z[at], g.top[at] = float32(z), i
			}
		}
	}
}

// oneSheet tells whether two pixels show the same stretch of the same strand.
func (g *raster) oneSheet(c *canvas, a, b int) bool {
	p, q := g.top[a], g.top[b]
	if p < 0 || q < 0 {
		return p == q
	}
	i, j := &g.slices[p], &g.slices[q]
	if i.sheet != j.sheet {
		return false
	}
	t := c.tubes[i.tube]
	return math.Abs(i.s-j.s) <= sheetBreak*t.d*g.per/g.d || t.fibre || t.metal
}

// sheetBreak is how far along a cord two neighbours may lie from one another and be
// one sheet, diameters.
const sheetBreak = 0.9

// near is the slice of a sheet that reaches to a place, a few from slice i at most.
func (g *raster) near(i int32, x, y float64) *slice {
	q := &g.slices[i]
	for range 3 {
		if q.ball {
			return q
		}
		al, ac, u := q.local(x, y)
		c := math.Sqrt(math.Max(0, 1-u*u))
		rest := al + q.h*c*q.sin
		switch {
		case rest > math.Max(0, q.hi.mid+ac*q.hi.across+c*q.hi.thick)+reach && q.clip <= 0:
			i++
		case rest < math.Min(0, q.lo.mid+ac*q.lo.across+c*q.lo.thick)-reach && q.clip >= 0:
			i--
		default:
			return q
		}
		q = &g.slices[i]
	}
	return q
}

// place is where the edge between pixels a and b lies, from 0 at a to 1 at b.
func (g *raster) place(a, b int) float64 {
	p, q := g.top[a], g.top[b]
	ax, ay := g.middle(a)
	bx, by := g.middle(b)
	ex, ey := bx-ax, by-ay
	lo, hi := 0.0, 1.0
	for range 7 {
		t := (lo + hi) / 2
		x, y := ax+ex*t, ay+ey*t
		var zp, zq float64
		okP, okQ := false, false
		if p >= 0 {
			zp, okP = g.near(p, x, y).at(x, y)
		}
		if q >= 0 {
			zq, okQ = g.near(q, x, y).at(x, y)
		}
		if okP && (!okQ || zp >= zq) || !okP && !okQ && p < 0 {
			lo = t
		} else {
			hi = t
		}
	}
	return (lo + hi) / 2
}
