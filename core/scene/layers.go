package scene

import (
	"cmp"
	"math"
	"slices"

	"nimblebight/core/trace"
)

// Ink is 0.5 pixels wide and a little more the larger the cord is seen, in the
// picture's pixels; edges of one cord on another are finer, the outline is bolder.
const (
	inkLeast, inkMost      = 0.75, 2.6
	contactInk, outlineInk = 0.78, 1.45
	jumpFrom               = 0.22 // diameters in depth from which an edge is a jump
	tolerance              = 0.28 // pixels of the raster by which curves may leave what was traced
	drawnBeyond            = 0.25 // diameters drawn beyond a plate's edge
	fallRight, fallDown    = 0.10, 0.16
	groundUpTo             = 24 // pixels a diameter; above, ink covers all joints
	deepFrom               = 50
	lightFrom, shadeFrom   = 8, 8
	castFrom               = 12
)

// inkPx is how wide ink is where a diameter is so many pixels.
func inkPx(px float64) float64 { return math.Max(inkLeast, math.Min(inkMost, 0.5+0.021*px)) }

// writer turns what was traced in a raster to a plate's units.
type writer struct {
	*partition
	per    float64 // units a mm
	px     float64 // the picture's pixels that the piece's thickest cord is wide
	layers []Layer
}

func (w *writer) point(p trace.Point) Point {
	return Point{int32(math.Round((w.x0 + p.X/w.raster.per) * w.per)), int32(math.Round((w.y0 + w.shared.y(p.Y)/w.raster.per) * w.per))}
}

func (w *writer) path(p trace.Path) Path {
	out := Path{Start: w.point(p.Start), Curve: make([]Cubic, len(p.Curve))}
	for i, c := range p.Curve {
		out.Curve[i] = Cubic{w.point(c.A), w.point(c.B), w.point(c.End)}
	}
	return out
}

// width turns pixels of the picture to units.
func (w *writer) width(px float64) int { return max(1, int(math.Round(px/w.c.v.PerMM*w.per))) }

func (w *writer) add(l Layer) {
	if len(l.Paths) > 0 {
		w.layers = append(w.layers, l)
	}
}

// unitsFor is how many units a millimetre has, so that rounding is under a tenth of
// a pixel.
func unitsFor(perMM float64) int {
	per := 50
	for float64(per) < 6*perMM {
		per *= 2
	}
	return per
}

// foldsOut is how long a border may be that ends inside a region, where a strand is
// folded on itself, to be left out; diameters.
const foldsOut = 1.6

// traced are the borders of what is shown of a canvas, from one row of its raster to
// another; nil where nothing is. The raster is to be freed.
type traced struct {
	*writer
	*trace.Map
	from, to int
}

// trace paints a canvas and traces its regions.
func (c *canvas) trace() *traced {
	g := c.newRaster()
	if g == nil {
		return nil
	}
	p := g.divide(c)
	beyond := drawnBeyond * g.d
	from, to := 0, g.tall
	if !math.IsInf(c.lo, -1) {
		from = max(0, int(g.shared.row((c.lo-g.y0)*g.per)-beyond))
	}
	if !math.IsInf(c.hi, 1) {
		to = min(g.tall, int(g.shared.row((c.hi-g.y0)*g.per)+beyond)+1)
	}
	if from >= to {
		g.free()
		return nil
	}
	w := &writer{partition: p, per: float64(unitsFor(c.v.PerMM)), px: c.v.PerMM * c.thick}
	var pins []float64 // where plates meet
	top, bottom := c.cuts()
	for _, y := range [2]float64{top, bottom} {
		if !math.IsInf(y, 0) {
			pins = append(pins, math.Round(g.shared.row((y-g.y0)*g.per)))
		}
	}
	m := trace.Borders(trace.Grid{Wide: g.wide, Tall: g.tall, From: from, To: to, Region: p.region, Depth: g.z[:g.wide*g.tall], Tolerance: tolerance, Prune: foldsOut * g.d, Pins: pins,
		Apart: p.apart, Place: g.place})
	return &traced{w, m, from, to}
}

// layers draws what is shown of a canvas; it tells the units of a millimetre.
func (c *canvas) layers() ([]Layer, int) {
	t := c.trace()
	if t == nil {
		return nil, unitsFor(c.v.PerMM)
	}
	defer t.raster.free()
	t.bodies(t.Map)
	t.patterns(t.from, t.to)
	t.tones(t.from, t.to)
	t.marks(t.from, t.to)
	t.lights(t.from, t.to)
	t.inks(t.Map)
	return t.writer.layers, unitsFor(c.v.PerMM)
}

// paintOf is what a region is filled with and whether it is in hand.
func (w *writer) paintOf(r int32) (Paint, bool) {
	i := w.of[r].slice
	if i < 0 { // a hole in a row
		return Paint{Cord: w.holes(), Dark: 60}, false
	}
	s := &w.slices[i]
	return w.c.tubes[s.tube].paint, s.sheet&1 != 0
}

// holes is the cord in whose colour, darkened, holes in a row are seen.
func (w *writer) holes() int {
	for _, t := range w.c.tubes {
		if !t.metal && t.paint.Cord >= 0 {
			return t.paint.Cord
		}
	}
	return 0
}

func (w *writer) outline(m *trace.Map, wanted func(r int32) bool) []Path {
	var out []Path
	for _, s := range m.Outline(wanted) {
		out = append(out, w.path(m.Path(s)))
	}
	return out
}

// bodies fills the regions, all of one paint at once.
func (w *writer) bodies(m *trace.Map) {
	type group struct {
		paint Paint
		lit   bool
	}
	seen := map[group]bool{}
	of := map[int32]group{}
	for i := range m.Chains {
		for _, r := range [2]int32{m.Chains[i].Left, m.Chains[i].Right} {
			if r < 0 {
				continue
			}
			if _, ok := of[r]; !ok {
				p, lit := w.paintOf(r)
				of[r] = group{p, lit}
				seen[group{p, lit}] = true
			}
		}
	}
	whole := w.outline(m, func(int32) bool { return true })
	w.add(Layer{Kind: Fall, Paths: w.moved(whole)})
	if w.px <= groundUpTo {
		w.add(Layer{Kind: Ground, Paths: whole})
	}
	groups := make([]group, 0, len(seen))
	for g := range seen {
		groups = append(groups, g)
	}
	slices.SortFunc(groups, func(a, b group) int {
		lit := func(g group) int {
			if g.lit {
				return 1
			}
			return 0
		}
		return cmp.Or(cmp.Compare(lit(a), lit(b)), cmp.Compare(a.paint.Cord, b.paint.Cord), cmp.Compare(a.paint.Colour, b.paint.Colour), cmp.Compare(a.paint.Dark, b.paint.Dark))
	})
	for _, g := range groups {
		kind := Body
		if g.lit {
			kind = Lit
		}
		w.add(Layer{Kind: kind, Paint: g.paint, Paths: w.outline(m, func(r int32) bool { return of[r] == g })})
	}
}

// moved is where the shadow of an outline falls on the mat.
func (w *writer) moved(paths []Path) []Path {
	d := w.d / w.raster.per * w.per
	by := Point{int32(fallRight * d), int32(fallDown * d)}
	shift := func(p Point) Point { return Point{p.X + by.X, p.Y + by.Y} }
	out := make([]Path, len(paths))
	for i, p := range paths {
		out[i] = Path{Start: shift(p.Start), Curve: make([]Cubic, len(p.Curve))}
		for k, c := range p.Curve {
			out[i].Curve[k] = Cubic{shift(c.A), shift(c.B), shift(c.End)}
		}
	}
	return out
}

// inks draws every border, in three widths, and the edge of the strand in hand.
func (w *writer) inks(m *trace.Map) {
	ink := inkPx(w.px)
	inHand := func(r int32) bool {
		if r < 0 {
			return false
		}
		_, lit := w.paintOf(r)
		return lit
	}
	class := func(c *trace.Chain) float64 {
		switch {
		case c.Framed():
			return 0
		case c.Left < 0 || c.Right < 0:
			return outlineInk
		case math.Abs(c.Jump) > jumpFrom*w.d:
			return 1
		}
		return contactInk
	}
	for _, k := range [3]float64{contactInk, 1, outlineInk} {
		var l []Path
		for _, s := range m.Strokes(func(c *trace.Chain) bool { return class(c) == k }) {
			l = append(l, w.path(m.Path(s)))
		}
		w.add(Layer{Kind: Ink, Width: w.width(k * ink), Paths: l})
	}
	var hand []Path
	for _, s := range m.Strokes(func(c *trace.Chain) bool { return !c.Framed() && inHand(c.Left) != inHand(c.Right) }) {
		hand = append(hand, w.path(m.Path(s)))
	}
	w.add(Layer{Kind: Casing, Width: w.width(3.6 * ink), Paths: hand})
	w.add(Layer{Kind: Moving, Width: w.width(1.9 * ink), Paths: hand})
}
