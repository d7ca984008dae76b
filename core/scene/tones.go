package scene

import (
	"math"
	"slices"

	"nimblebight/core/trace"
)

// The light falls from the upper left.
var lightX, lightY = -math.Sqrt2 / 2, -math.Sqrt2 / 2

// How much of it comes from the side and from the eye.
const sideLight, eyeLight = 0.76, 0.65

// Shade lies where less light than this falls.
const shadeUnder, deepUnder = 0.20, -0.10

// toneTolerance is by how much a tone may leave what was traced, pixels of the raster:
// its edges are soft to the eye.
const toneTolerance = 3 * tolerance

// tones draws shades and cast shadows.
func (w *writer) tones(from, to int) {
	if w.px < shadeFrom {
		return
	}
	lit := make([]float32, w.wide*w.tall)
	for at := from * w.wide; at < to*w.wide; at++ {
		if w.region[at] < 0 || w.top[at] < 0 {
			lit[at] = 9
			continue
		}
		nx, ny, nz := w.slices[w.top[at]].normal(w.middle(at))
		lit[at] = float32(sideLight*(nx*lightX+ny*lightY) + eyeLight*nz)
	}
	w.even(lit[from*w.wide:to*w.wide], w.wide, to-from, 1, func(x, y int) int { return (y+from)*w.wide + x })
	w.add(Layer{Kind: Shade, Paths: w.mask(lit, shadeUnder, from, to, toneTolerance)})
	if w.px >= deepFrom {
		w.add(Layer{Kind: Deep, Paths: w.mask(lit, deepUnder, from, to, toneTolerance)})
	}
	if w.px >= castFrom {
		w.add(Layer{Kind: Cast, Paths: w.mask(w.shadows(from, to), 0.5, from, to, toneTolerance)})
	}
}

// mask traces where a field is under a level, within the regions, so closely in pixels of
// the raster.
func (w *writer) mask(field []float32, level float64, from, to int, closely float64) []Path {
	in := make([]int32, len(field))
	lv := float32(level)
	some := false
	for i := from * w.wide; i < to*w.wide; i++ {
		in[i] = trace.None
		if field[i] < lv {
			in[i] = 0
			some = true
		}
	}
	if !some {
		return nil
	}
	m := trace.Borders(trace.Grid{Wide: w.wide, Tall: w.tall, From: from, To: to, Region: in, Tolerance: closely,
		Place: func(a, b int) float64 {
			if w.region[a] != w.region[b] {
				return w.place(a, b)
			}
			k := float64(lv-field[a]) / float64(field[b]-field[a])
			return math.Max(0.02, math.Min(0.98, k))
		}})
	var out []Path
	for _, s := range m.Outline(func(int32) bool { return true }) {
		p := m.Path(s)
		if math.Abs(p.Area()) > 0.03*w.d*w.d {
			out = append(out, w.path(p))
		}
	}
	return out
}

// Shadows are looked for on a grid half as fine. A place lies in shadow where within
// castFar towards the light something rises castRise above it and castSlope more for
// each length of the way, or where the ring about it lies castAbout higher on average;
// diameters.
const (
	castFar, castRise, castSlope = 0.46, 0.16, 1.9
	castRing, castAbout          = 0.42, 0.40
)

// shadows tells of every pixel how far it lies out of the shadow of others, 0 to 1.
func (w *writer) shadows(from, to int) []float32 {
	d := w.d
	hw, ht := (w.wide+1)/2, (to-from+1)/2
	shade := make([]float32, hw*ht)
	at := func(x, y int) int { return min(to-1, from+2*y)*w.wide + min(w.wide-1, 2*x) }
	depth := func(x, y float64) float64 {
		ix, iy := int(x), int(y)
		if ix < 0 || iy < 0 || ix >= w.wide || iy >= w.tall {
			return math.Inf(-1)
		}
		return float64(w.z[iy*w.wide+ix])
	}
	var ring [8][2]float64
	for k := range ring {
		s, c := math.Sincos(2 * math.Pi * float64(k) / 8)
		ring[k] = [2]float64{castRing * d * c, castRing * d * s}
	}
	const steps = 5
	for y := range ht {
		for x := range hw {
			i := at(x, y)
			if w.region[i] < 0 || w.top[i] < 0 {
				continue
			}
			z := float64(w.z[i])
			px, py := float64(i%w.wide), float64(i/w.wide)
			dark := false
			for k := 1; k <= steps && !dark; k++ {
				way := castFar * d * float64(k) / steps
				dark = depth(px+way*lightX, py+way*lightY) > z+castRise*d+castSlope*way
			}
			if !dark {
				sum := 0.0
				for _, r := range ring {
					sum += math.Max(-d, math.Min(2*d, depth(px+r[0], py+r[1])-z))
				}
				dark = sum/8 > castAbout*d
			}
			if dark {
				shade[y*hw+x] = 1
			}
		}
	}
	w.even(shade, hw, ht, 2, at)
	w.settleShadow(shade, hw, ht, at)
	out := make([]float32, w.wide*w.tall)
	for y := range to - from {
		for x := range w.wide {
			i := (y+from)*w.wide + x
			r := w.region[i]
			if r < 0 {
				out[i] = 9
				continue
			}
			// Between the four round it, of one region.
			fx, fy := float64(x)/2, float64(y)/2
			x0, y0 := int(fx), int(fy)
			var sum, all float64
			for _, k := range [4][2]int{{0, 0}, {1, 0}, {0, 1}, {1, 1}} {
				xx, yy := min(hw-1, x0+k[0]), min(ht-1, y0+k[1])
				if w.region[at(xx, yy)] != r {
					continue
				}
				wt := (1 - math.Abs(fx-float64(x0+k[0]))) * (1 - math.Abs(fy-float64(y0+k[1])))
				sum += wt * float64(shade[yy*hw+xx])
				all += wt
			}
			out[i] = 1
			if all > 0 {
				out[i] = float32(1 - sum/all)
			}
		}
	}
	return out
}

// even blurs a field, each region for itself.
func (w *writer) even(f []float32, wide, tall, rounds int, at func(x, y int) int) {
	old := make([]float32, len(f))
	for range rounds {
		copy(old, f)
		for y := range tall {
			for x := range wide {
				r := w.region[at(x, y)]
				if r < 0 {
					continue
				}
				var sum float32
				n := 0
				for yy := max(0, y-1); yy <= min(tall-1, y+1); yy++ {
					for xx := max(0, x-1); xx <= min(wide-1, x+1); xx++ {
						if w.region[at(xx, yy)] == r {
							sum += old[yy*wide+xx]
							n++
						}
					}
				}
				f[y*wide+x] = sum / float32(n)
			}
		}
	}
}

// settleShadow puts a region that lies mostly in shadow into it wholly.
func (w *writer) settleShadow(f []float32, wide, tall int, at func(x, y int) int) {
	type share struct{ dark, all int }
	of := map[int32]share{}
	for y := range tall {
		for x := range wide {
			r := w.region[at(x, y)]
			if r < 0 {
				continue
			}
			s := of[r]
			s.all++
			if f[y*wide+x] > 0.5 {
				s.dark++
			}
			of[r] = s
		}
	}
	for y := range tall {
		for x := range wide {
			if s := of[w.region[at(x, y)]]; s.all > 0 && float64(s.dark) > 0.7*float64(s.all) {
				f[y*wide+x] = 1
			}
		}
	}
}

// seen tells whether the surface of slice i of tube t is what shows at across u, and
// where that is, pixels.
func (w *writer) seen(t *tube, i int, u float64) (trace.Point, bool) {
	q := &w.slices[int(w.first[t.id])+i]
	c := math.Sqrt(math.Max(0, 1-u*u))
	k := q.r
	if u < 0 {
		k = q.l
	}
	p := trace.Point{X: q.x - u*k*q.ty - q.h*c*q.sin*q.tx, Y: q.y + u*k*q.tx - q.h*c*q.sin*q.ty}
	p.Y = w.shared.row(p.Y)
	x, y := int(p.X), int(p.Y)
	if p.X < 0 || p.Y < 0 || x >= w.wide || y >= w.tall {
		return p, false
	}
	at := y*w.wide + x
	top := w.top[at]
	if top < 0 || w.region[at] < 0 || w.slices[top].sheet != q.sheet {
		return p, false
	}
	z := q.z + q.h*c*q.cos
	return p, float64(w.z[at]) < z+0.2*w.d && math.Abs(w.slices[top].s-q.s) < 0.7*t.d*w.raster.per/w.d
}

// Lights are lenses this wide, in half widths, on the side towards the light.
const lightWide, lightSide, lightNarrows = 0.13, 0.46, 0.3

// lights draws the light on every stretch of cord that is seen.
func (w *writer) lights(from, to int) {
	if w.px < lightFrom {
		return
	}
	half := lightWide
	if w.px < 24 {
		half = 0.17
	}
	var out []Path
	for _, t := range w.c.tubes {
		if t.plain {
			continue
		}
		lit := w.c.litSide(t)
		type spot struct {
			at     trace.Point
			nx, ny float64
			w      float64
		}
		var run []spot
		begun := false // what is painted begins within the run
		flush := func(ended bool) {
			defer func() { run = run[:0] }()
			if len(run) < 4 {
				return
			}
			way := make([]float64, len(run))
			for i := 1; i < len(run); i++ {
				way[i] = way[i-1] + math.Hypot(run[i].at.X-run[i-1].at.X, run[i].at.Y-run[i-1].at.Y)
			}
			all := way[len(way)-1]
			if all < 0.5*w.d {
				return
			}
			narrow := math.Min(lightNarrows*w.d*2, all/2)
			first, last := all, all // a light that goes on beyond what is painted does not end there
			if begun {
				first = 0
			}
			if ended {
				last = 0
			}
			var left, right []trace.Point
			for i, s := range run {
				k := math.Min(1, math.Min(first+way[i], last+all-way[i])/narrow)
				k = math.Sqrt(k * (2 - k))
				left = append(left, trace.Point{X: s.at.X - s.nx*s.w*half*k, Y: s.at.Y - s.ny*s.w*half*k})
				right = append(right, trace.Point{X: s.at.X + s.nx*s.w*half*k, Y: s.at.Y + s.ny*s.w*half*k})
			}
			for i, j := 0, len(right)-1; i < j; i, j = i+1, j-1 {
				right[i], right[j] = right[j], right[i]
			}
			if !within(left, from, to) && !within(right, from, to) {
				return
			}
			p := trace.Fit(left, toneTolerance)
			p.Curve = append(p.Curve, trace.Fit(right, toneTolerance).Curve...)
			out = append(out, w.path(p))
		}
		for i := range t.samples {
			s := &t.samples[i]
			u := lightSide * lit[i]
			at, ok := w.seen(t, i, u)
			if ok && !t.metal {
				_, a := w.seen(t, i, u-half)
				_, b := w.seen(t, i, u+half)
				ok = a && b
			}
			if !ok || s.flat < 0.5 {
				flush(w.inside(at))
				begun = w.inside(at)
				continue
			}
			if i == 0 {
				begun = true
			}
			run = append(run, spot{at, -s.ty, s.tx, (s.l + s.r) / 2 * w.raster.per})
		}
		flush(true)
	}
	w.add(Layer{Kind: Light, Paths: out})
}

// inside tells whether a place was painted.
func (w *writer) inside(p trace.Point) bool {
	return p.X >= 0 && p.Y >= 0 && p.X < float64(w.wide) && p.Y < float64(w.tall)
}

// within tells whether any of some points lies in these rows.
func within(pts []trace.Point, from, to int) bool {
	return slices.ContainsFunc(pts, func(p trace.Point) bool { return p.Y >= float64(from) && p.Y <= float64(to) })
}

// litSide is how much the +n side of a slice faces the light, -1 to 1,
// averaged over a diameter so that it does not flicker.
func (c *canvas) litSide(t *tube) []float64 {
	n := max(1, c.slices(0.5))
	sum := make([]float64, len(t.samples)+1)
	for i, p := range t.samples {
		sum[i+1] = sum[i] - p.ty*lightX + p.tx*lightY
	}
	out := make([]float64, len(t.samples))
	for i := range out {
		a, b := max(0, i-n), min(len(out), i+n+1)
		out[i] = (sum[b] - sum[a]) / float64(b-a)
	}
	return out
}
