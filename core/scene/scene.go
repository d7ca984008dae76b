// Package scene turns a piece's curves into a picture in the plate style: flat
// cord colour, ink outlines, the sheath's marks, true overs and unders. The
// picture is a list of plain paths; writers (SVG, the browser) only copy them.
//
// Call [Render]. Coordinates of a picture are hundredths of a millimetre, x to
// the right, y down, whole numbers.
package scene

import (
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"

	"gonum.org/v1/gonum/spatial/r3"
)

// Kind says what a layer is, so that a writer can give inks their theme.
type Kind string

// The kinds of layers, in the order they are painted.
const (
	Body   Kind = "body"   // filled with Colour
	Shade  Kind = "shade"  // the side away from the light
	Shadow Kind = "shadow" // of a strand on the one below
	Mark   Kind = "mark"   // the sheath's texture
	Light  Kind = "light"  // the line that says round
	Ink    Kind = "ink"    // outlines
	Casing Kind = "casing" // a light line under the next
	Moving Kind = "moving" // outline of the strand in hand
)

// Point is a place in a picture, hundredths of a millimetre from its plate's.
type Point struct{ X, Y int32 }

// Line is a path over points. That of a body is an outline, which closes on itself;
// all outlines of one layer turn the same way round, so that where they overlap
// they add up.
type Line []Point

// Layer is what is painted at once. The lines of a body are filled with Colour;
// those of all others are strokes of Width, hundredths of a millimetre.
type Layer struct {
	Kind   Kind
	Lines  []Line
	Colour string
	Width  int
}

// Picture is a piece as seen from one side. It is laid together from plates
// one under the other; the knots of a row that look alike are one plate laid
// many times. Lengths are hundredths of a millimetre.
type Picture struct {
	View string // face or back
	// Left, Top, Width and Height frame everything drawn.
	Left, Top, Width, Height int
	Places                   []Place
	// Plates are those that the places name.
	Plates map[string]Plate
	Bands  []Band
}

// Place is where a plate is laid.
type Place struct {
	Plate string `json:"plate"`
	Y     int    `json:"y"`
}

// Plate is a stretch of the picture from Top to Bottom; what its layers hold
// beyond that belongs to its neighbours and is not shown. Neighbours overlap
// by a hair and agree there, so that no seam shows. Plates of one name are one
// plate.
type Plate struct {
	Left, Right, Top, Bottom int
	Layers                   []Layer
}

// Empty tells whether there is nothing to see.
func (p Picture) Empty() bool { return len(p.Places) == 0 }

// Band is where a section lies in the picture.
type Band struct {
	Section int `json:"section"`
	Top     int `json:"top"`
	Bottom  int `json:"bottom"`
	Left    int `json:"left"`
	Right   int `json:"right"`
}

// View is what is drawn and how closely.
type View struct {
	Back bool
	// PerMM is the scale it is meant for, pixels a millimetre; it decides how
	// much is drawn, not how large.
	PerMM float64
	// From and To, where To is above From, draw only that stretch of y, mm.
	From, To float64
}

// sample is one slice of a cord as it is seen.
type sample struct {
	x, y, z float64 // mm; z towards the eye
	tx, ty  float64 // direction in the picture, unit length
	s       float64 // length along the cord
	hw      float64 // half the cord's own width
	l, r    float64 // half widths to the left (-n) and the right (+n), n = (-ty, tx)
	sec     int
	flat    float64 // share of it that lies in the picture's plane
	lie     knot.Lie
	moving  bool
}

func (p sample) side(k, off float64) (x, y float64) {
	return p.x - k*off*p.ty, p.y + k*off*p.tx
}

// tube is a cord cut into slices.
type tube struct {
	id      int
	strand  int // of which cord; stretches of one cord do not hide one another at a bend
	colour  string
	make    cord.Make
	d       float64 // drawn-up diameter
	samples []sample
	metal   bool
	broad   bool // a bead or a core, much wider than any cord
	plain   bool // no marks, no light: fibres and caps
	fibre   bool // a yarn of a fringe
	open    [2]bool
	step    float64 // between slices, mm, where it is not the canvas's
}

const inkRGB = "#17242a"

// slices is how many slices a length in diameters takes.
func (c *canvas) slices(diameters float64) int { return int(diameters / c.step) }

type canvas struct {
	v      View
	step   float64 // between slices, in diameters
	tubes  []*tube
	grid   [][]ref
	broad  []ref // the few slices of broad tubes, which would coarsen the grid
	cell   float64
	widest float64 // the greatest half width of what is in the grid, mm
	nx, ny int
	x0, y0 float64
	// rank is when each slice was painted, by tube; -1 for what is not seen.
	rank    [][]int
	painted bool
	// lo and hi bound what is shown; round it only looks matter.
	lo, hi float64
}

// shown tells whether y, or anything within by of it, is shown.
func (c *canvas) shown(y, by float64) bool { return y >= c.lo-by && y <= c.hi+by }

type ref struct {
	x, y, z float64
	t, i    int32
}

// newCanvas slices the finer the closer the picture is seen; 3 mm stands for a
// common cord.
func newCanvas(v View) *canvas {
	step := 0.09
	switch px := 3 * v.PerMM; {
	case px < 8:
		step = 0.2
	case px < 45:
		step = 0.13
	}
	return &canvas{v: v, step: step, lo: math.Inf(-1), hi: math.Inf(1)}
}

// turn takes a point to the picture's axes.
func (c *canvas) turn(p r3.Vec) r3.Vec {
	if c.v.Back {
		return r3.Vec{X: -p.X, Y: p.Y, Z: -p.Z}
	}
	return p
}

// strand adds a stretch of a cord.
func (c *canvas) strand(r run) {
	stuff := r.stuff
	d, label := r.figures.DrawnUpMM, r.figures.LabelMM
	pressed := ball.Of(stuff, r.figures).Hard() // as close as turns lie on a ball
	pts := make([]r3.Vec, len(r.points))
	for i, q := range r.points {
		pts[i] = q.p
	}
	fine := curve.Spline(pts, false).Points
	per := 1
	if len(pts) > 2 {
		per = 8
	}
	t := &tube{id: len(c.tubes), strand: r.strand, colour: stuff.Colour, make: stuff.Make, d: d, open: [2]bool{r.ends[0] != "", r.ends[1] != ""}}
	// Even slices along the fine curve, each with the flags of its span.
	step := c.step * d
	arc, next := 0.0, 0.0
	put := func(p r3.Vec, at float64, span int) {
		a, b := span, min(span+1, len(pts)-1)
		half, lie := d/2, knot.Knotted
		if r.points[a].lie == r.points[b].lie {
			lie = r.points[a].lie
		}
		switch lie {
		case knot.Free:
			half = label / 2
		case knot.Pressed:
			half = pressed / 2
		}
		sec := r.points[b].section
		if sec < 0 {
			sec = r.points[a].section
		}
		t.samples = append(t.samples, sample{x: p.X, y: p.Y, z: p.Z, s: at + r.from, hw: half, sec: int(sec),
			lie: lie, moving: r.points[span].moving})
	}
	for i := 1; i < len(fine); i++ {
		a, b := fine[i-1], fine[i]
		seg := r3.Norm(r3.Sub(b, a))
		for next <= arc+seg && seg > 0 {
			put(curve.Lerp(a, b, (next-arc)/seg), next, min((i-1)/per, len(pts)-1))
			next += step
		}
		arc += seg
	}
	if len(t.samples) < 3 {
		return
	}
	c.smoothWidths(t)
	ends := [2][]sample{}
	for e, form := range r.ends {
		if form == "fringe" {
			ends[e] = c.cutEnd(t, e, r.endMM[e])
		}
	}
	if len(t.samples) < 3 {
		return
	}
	c.settle(t)
	c.tubes = append(c.tubes, t)
	for e, form := range r.ends {
		switch form {
		case "fringe":
			c.fibres(t, ends[e])
			t.open[e] = false
		case "pressed", "dome":
			c.cap(t, e, form, label)
		}
	}
}

// smoothWidths eases the width between knots and free cord over half a
// diameter each way.
func (c *canvas) smoothWidths(t *tube) {
	n := max(1, c.slices(0.5))
	sum := make([]float64, len(t.samples)+1)
	for i, p := range t.samples {
		sum[i+1] = sum[i] + p.hw
	}
	for i := range t.samples {
		a, b := max(0, i-n), min(len(t.samples), i+n+1)
		t.samples[i].hw = (sum[b] - sum[a]) / float64(b-a)
	}
}

// settle turns the slices to the view and finds their directions.
func (c *canvas) settle(t *tube) {
	for i := range t.samples {
		p := &t.samples[i]
		v := c.turn(r3.Vec{X: p.x, Y: p.y, Z: p.z})
		p.x, p.z = v.X, v.Z
		p.l, p.r = p.hw, p.hw
	}
	n := len(t.samples)
	lastX, lastY := 0.0, 1.0
	for i := range t.samples {
		a, b := t.samples[max(0, i-1)], t.samples[min(n-1, i+1)]
		dx, dy, dz := b.x-a.x, b.y-a.y, b.z-a.z
		h := math.Hypot(dx, dy)
		p := &t.samples[i]
		p.flat = h / math.Max(1e-9, math.Sqrt(h*h+dz*dz))
		if p.flat > 0.05 {
			lastX, lastY = dx/h, dy/h
		}
		p.tx, p.ty = lastX, lastY
	}
}

// cutEnd takes the last mm of an end off a tube and gives them back, from the
// knot outwards.
func (c *canvas) cutEnd(t *tube, end int, mm float64) []sample {
	n := max(1, min(len(t.samples)-3, int(mm/(c.step*t.d))))
	var off []sample
	if end == 0 {
		for i := n; i >= 0; i-- {
			off = append(off, t.samples[i])
		}
		t.samples = t.samples[n:]
		return off
	}
	off = append(off, t.samples[len(t.samples)-1-n:]...)
	t.samples = t.samples[:len(t.samples)-n]
	return off
}

// mostInYarn is how many slices a yarn of a fringe has: it waves slowly.
const mostInYarn = 240

// fibres draws a combed end as a spray of yarns.
func (c *canvas) fibres(t *tube, along []sample) {
	const yarns = 7
	if len(along) < 4 {
		return
	}
	for k := range yarns {
		f := &tube{id: len(c.tubes), strand: -1 - len(c.tubes), colour: t.colour, d: t.d * 0.3, plain: true, fibre: true, open: [2]bool{false, true}}
		u := (float64(k) - (yarns-1)/2.0) / ((yarns - 1) / 2.0)
		last := len(along) - 1
		cut := last - int(math.Abs(math.Sin(float64(3*k+t.id)*1.7))*0.04*float64(last))
		for i := 0; i <= cut; i += max(2, last/mostInYarn) {
			p := along[i]
			w := float64(i) / float64(last)
			wave := 0.1 * t.d * math.Sin(9*w+float64(k)*2.1+float64(t.id))
			p.x += t.d * (0.38*u + 0.75*u*w*w + wave*w/t.d)
			p.z += 0.35 * t.d * math.Cos(float64(k)*2.4+float64(t.id))
			p.hw = t.d * 0.17
			p.lie = knot.Free
			f.samples = append(f.samples, p)
		}
		if len(f.samples) < 3 {
			continue
		}
		c.settle(f)
		c.tubes = append(c.tubes, f)
	}
}

// cap draws a melted end: a dome as wide as the cord, or the flat button that
// pressing leaves.
func (c *canvas) cap(t *tube, end int, form string, label float64) {
	n := len(t.samples)
	p, q := t.samples[n-1], t.samples[n-3]
	if end == 0 {
		p, q = t.samples[0], t.samples[2]
	}
	dx, dy := p.x-q.x, p.y-q.y
	h := math.Hypot(dx, dy)
	if h == 0 {
		return
	}
	dx, dy = dx/h, dy/h
	wide, tall := label/2, label/2
	if form == "pressed" {
		wide, tall = label*0.62, label*0.34
	}
	b := &tube{id: len(c.tubes), strand: -1 - len(c.tubes), colour: mix(t.colour, inkRGB, 0.38), d: t.d, plain: true}
	const parts = 10
	for i := 0; i <= parts; i++ {
		u := float64(i) / parts
		r := wide * math.Sqrt(math.Max(0.004, 1-u*u))
		if form == "pressed" {
			r = wide * math.Sqrt(math.Max(0.004, 1-math.Pow(2*u-1, 4)))
		}
		k := tall * (u - 0.15)
		b.samples = append(b.samples, sample{x: p.x + dx*k, y: p.y + dy*k, z: p.z + 0.03*t.d, tx: dx, ty: dy,
			s: tall * u, hw: r, l: r, r: r, sec: p.sec, flat: 1, moving: p.moving, lie: knot.Free})
	}
	t.open[end] = false
	c.tubes = append(c.tubes, b)
}

// mix blends two #rrggbb colours, t of the second.
func mix(a, b string, t float64) string {
	const hex = "0123456789abcdef"
	out := []byte("#000000")
	at := func(s string, i int) float64 {
		v := 0
		for _, ch := range []byte(s[1+2*i : 3+2*i]) {
			v *= 16
			switch {
			case ch >= '0' && ch <= '9':
				v += int(ch - '0')
			case ch >= 'a' && ch <= 'f':
				v += int(ch-'a') + 10
			case ch >= 'A' && ch <= 'F':
				v += int(ch-'A') + 10
			}
		}
		return float64(v)
	}
	for i := range 3 {
		v := int(math.Round(at(a, i)*(1-t) + at(b, i)*t))
		out[1+2*i], out[2+2*i] = hex[v>>4], hex[v&15]
	}
	return string(out)
}
