// Package scene turns a piece's curves into a picture: the cords are painted into a
// grid of pixels with their depths, every pixel belongs to one strand, and the
// borders of the regions are traced once and drawn as smooth curves. Bodies, inks,
// shades and lights come from the same grid, so what is painted is always what lies
// on top.
//
// Call [Render]. A picture is a list of plain paths; writers (SVG, the browser) only
// copy them.
package scene

import (
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// Kind says what a layer is, so that a writer can give inks their theme.
type Kind string

// The kinds of layers, in the order in which they are painted.
const (
	Fall   Kind = "fall"   // shadow of the piece on the mat
	Ground Kind = "ground" // what shows between bodies at their joints
	Body   Kind = "body"   // filled with its paint
	Lit    Kind = "lit"    // the same of the strand in hand
	Shade  Kind = "shade"  // the side away from the light
	Deep   Kind = "deep"   // far from the light
	Cast   Kind = "cast"   // shadow of one strand on another
	Mark   Kind = "mark"   // the sheath's texture, a stroke
	Light  Kind = "light"  // what says round
	Ink    Kind = "ink"    // edges, strokes
	Casing Kind = "casing" // a light line under the next
	Moving Kind = "moving" // edge of the strand in hand, strokes
)

// Stroked tells the kinds that are lines with a width; all others are areas.
func (k Kind) Stroked() bool { return k == Mark || k == Ink || k == Casing || k == Moving }

// Under tells the kinds that are painted before all others of a whole picture, under
// every plate: what lies on the mat or shows only between bodies.
func (k Kind) Under() bool { return k == Fall || k == Ground }

// Point is a place in a picture, in its plate's units from the plate's place.
type Point struct{ X, Y int32 }

// Cubic is a piece of a curve from where the one before ends: two handles and an
// end.
type Cubic struct{ A, B, End Point }

// Path is a line of curves. That of an area closes on itself.
type Path struct {
	Start Point
	Curve []Cubic
}

// Paint is what an area is filled with: a colour of the picture, the cords' first, or where
// Cord is below zero a colour of its own, mixed with so many hundredths of ink.
type Paint struct {
	Cord   int
	Colour string
	Dark   int
}

// Layer is what is painted at once. Width is that of strokes, in units.
type Layer struct {
	Kind  Kind
	Paths []Path
	Paint Paint // of bodies and marks
	Width int
}

// Picture is a piece as seen from one side. It is laid together from plates
// one under the other; the knots of a row that look alike are one plate laid
// many times. Lengths are hundredths of a millimetre. The colours of the cords are
// told beside the plates: in other colours they are the same plates.
type Picture struct {
	View string // face, back or turned
	// Left, Top, Width and Height frame everything drawn.
	Left, Top, Width, Height int
	Places                   []Place
	// Plates are those that the places name.
	Plates map[string]Plate
	Bands  []Band
	// Colours are the cords', and then those that their sheaths have beside them.
	Colours []string
	// Faults are the stretches that could not be drawn; Coarse is set where some of it
	// is too large to be drawn as closely as it is seen.
	Faults []Fault
	Coarse bool
	// At the vise: the ways that the strands in hand still have to go, in hundredths of a
	// millimetre, and the numbers of the places.
	Ways  []Path
	Discs []Disc
	// Bump is what shows on which side a row goes on; nil where nothing does.
	Bump  *Spot
	Thick int // a cord, by which they are drawn
}

// Place is where a plate is laid.
type Place struct {
	Plate string `json:"plate"`
	Y     int    `json:"y"`
}

// Plate is a stretch of the picture from Top to Bottom; what its layers hold
// beyond that belongs to its neighbours and is not shown. Neighbours overlap
// by a hair and agree there, so that no seam shows. Plates of one name are one
// plate. The points and widths of its layers are in units, Per of them to a
// millimetre.
type Plate struct {
	Left, Right, Top, Bottom int
	Per                      int
	Layers                   []Layer
	// Coarse is set where it is too large to be drawn as closely as it is seen.
	Coarse bool

	fault error // why it could not be drawn
}

// Fault is a stretch of a picture that could not be drawn, and why. The rest stands.
type Fault struct {
	Section int    `json:"section"` // the first that lies there, -1 for none
	Top     int    `json:"top"`     // hundredths of a millimetre
	Bottom  int    `json:"bottom"`
	Why     string `json:"why"`
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
	// Turn is how far the piece is turned about the axis that it hangs on, degrees:
	// at 0 its face is seen, at 180 its back.
	Turn float64
	// PerMM is the scale it is meant for, pixels a millimetre; it decides how
	// much is drawn, not how large.
	PerMM float64
	// From and To, where To is above From, draw only that stretch of y, mm.
	From, To float64
}

// turned gives the sine and the cosine of the turn, exact for face and back.
func (v View) turned() (sin, cos float64) {
	switch v.Turn {
	case 0:
		return 0, 1
	case 180:
		return 0, -1
	}
	return math.Sincos(v.Turn * math.Pi / 180)
}

// name tells how a piece is seen.
func (v View) name() string {
	switch v.Turn {
	case 0:
		return "face"
	case 180:
		return "back"
	}
	return "turned"
}

// sample is one slice of a cord as it is seen.
type sample struct {
	x, y, z float64 // mm; z towards the eye
	tx, ty  float64 // direction in the picture, unit length
	s       float64 // length along the cord
	hw      float64 // half the cord's own width
	l, r    float64 // half widths to the left (-n) and the right (+n), n = (-ty, tx)
	h       float64 // half thickness
	flat    float64 // share of it that lies in the picture's plane
	lie     knot.Lie
	moving  bool
	odd     bool // every other slice of a span
}

// tube is a cord cut into slices.
type tube struct {
	id      int
	group   int // tubes of one strand; the yarns of a fringe are one
	paint   Paint
	make    cord.Make
	d       float64 // drawn-up diameter
	samples []sample
	sheath  *cord.Sheath    // nil where it has no pattern
	places  []plan.SheathAt // of each sample; the sides are turned to the view
	beside  int             // of the picture's colours, the first of the sheath's
	metal   bool
	broad   bool // a bead or a core, much wider than any cord
	plain   bool // no marks, no light: fibres and caps
	fibre   bool // a yarn of a fringe
	flat    bool // it is painted as it lies, whatever its slope
}

// slices is how many slices a length in diameters takes.
func (c *canvas) slices(diameters float64) int { return int(diameters / c.step) }

// canvas is what comes near a plate, cut into slices and seen from the view.
type canvas struct {
	coarse bool    // too large to be drawn closely
	thick  float64 // drawn-up diameter of the piece's thickest cord, mm
	v      View
	// of the angle by which the piece is turned
	sin, cos float64
	step     float64 // between slices, in diameters
	tubes    []*tube
	grid     [][]ref
	seen     []uint32 // the round in which a cell was looked at last
	round    uint32
	cell     float64
	widest   float64 // the greatest half width of what is in the grid, mm
	nx, ny   int
	x0, y0   float64
	// lo and hi bound what is shown; round it only looks matter.
	lo, hi float64
}

// shown tells whether y, or anything within by of it, is shown.
func (c *canvas) shown(y, by float64) bool { return y >= c.lo-by && y <= c.hi+by }

// cuts are the y at which the plate is cut from its neighbours, infinite where it is
// not; it is shown a little beyond them.
func (c *canvas) cuts() (top, bottom float64) { return c.lo + c.v.lap(), c.hi - c.v.lap() }

// ref names a slice of a tube.
type ref struct{ t, i int32 }

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
	c := &canvas{v: v, step: step, lo: math.Inf(-1), hi: math.Inf(1)}
	c.sin, c.cos = v.turned()
	return c
}

// turn takes a point to the picture's axes.
func (c *canvas) turn(p r3.Vec) r3.Vec {
	return r3.Vec{X: c.cos*p.X + c.sin*p.Z, Y: p.Y, Z: c.cos*p.Z - c.sin*p.X}
}

// fresh is a group of its own, below those of the strands.
func (c *canvas) fresh() int { return -1 - len(c.tubes) }

// slice cuts a stretch of a cord into slices, as it is planned.
func (c *canvas) slice(r run) *tube {
	stuff := r.stuff
	d, label := r.figures.DrawnUpMM, r.figures.LabelMM
	pressed := ball.Of(stuff, r.figures).Hard() // as close as turns lie on a ball
	pts := make([]r3.Vec, len(r.points))
	for i, q := range r.points {
		pts[i] = q.p
	}
	line := curve.Spline(pts, false)
	fine := line.Points
	per := 1
	if len(pts) > 2 {
		per = 8
	}
	t := &tube{id: len(c.tubes), group: r.strand, paint: Paint{Cord: r.cord}, make: stuff.Make, d: d}
	// Every span of the curve is cut by itself, so that two plates that show it have
	// the same slices of it.
	step := c.step * d
	walked := r.from
	t.samples = make([]sample, 0, len(pts)+int(line.Length()/step))
	if len(r.sheath) == len(pts) && stuff.Sheath != nil {
		t.sheath, t.beside = stuff.Sheath, r.beside
		t.places = make([]plan.SheathAt, 0, cap(t.samples))
	}
	put := func(p r3.Vec, at float64, span int, odd bool, share float64) {
		if t.sheath != nil {
			a, b := r.sheath[span], r.sheath[min(span+1, len(pts)-1)]
			t.places = append(t.places, plan.SheathAt{MM: a.MM + share*(b.MM-a.MM), Up: c.turn(curve.Lerp(a.Up, b.Up, share))})
		}
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
		t.samples = append(t.samples, sample{x: p.X, y: p.Y, z: p.Z, s: at, hw: half, lie: lie, moving: r.points[span].moving, odd: odd})
	}
	for span := 0; span*per+1 < len(fine); span++ {
		part := fine[span*per : min((span+1)*per+1, len(fine))]
		long := 0.0
		for i := 1; i < len(part); i++ {
			long += r3.Norm(r3.Sub(part[i], part[i-1]))
		}
		if long == 0 {
			continue
		}
		n := max(1, int(math.Round(long/step)))
		at, i := 0.0, 1
		for k := range n {
			want := long * float64(k) / float64(n)
			seg := r3.Norm(r3.Sub(part[i], part[i-1]))
			for at+seg < want && i+1 < len(part) {
				at += seg
				i++
				seg = r3.Norm(r3.Sub(part[i], part[i-1]))
			}
			put(curve.Lerp(part[i-1], part[i], math.Max(0, math.Min(1, (want-at)/math.Max(seg, 1e-12)))), walked+want, span, k%2 == 1, float64(k)/float64(n))
		}
		walked += long
	}
	put(fine[len(fine)-1], walked, len(pts)-1, false, 0)
	return t
}

// strand adds a stretch of a cord.
func (c *canvas) strand(r run) {
	t := c.slice(r)
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
		case "pressed", "dome", "drop", "melted":
			c.cap(t, e, form, r.figures.LabelMM, r.endWide[e])
		case "whipped":
			c.whipping(t, e, 0.5*t.d, 2*t.d, 1)
		case "bound":
			if r.endWide[e] > 0 { // one of the bundle carries the band round all of it
				c.whipping(t, e, r.endMM[e], r.endMM[e]+1.5*t.d, r.endWide[e])
			}
		}
	}
}

// smoothWidths eases the width between knots and free cord over four fifths of a
// diameter each way.
func (c *canvas) smoothWidths(t *tube) {
	n := max(1, c.slices(0.8))
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
		p.l, p.r, p.h = p.hw, p.hw, p.hw
	}
	n := len(t.samples)
	lastX, lastY := 0.0, 1.0
	for i := range t.samples {
		a, b := t.samples[max(0, i-1)], t.samples[min(n-1, i+1)]
		dx, dy, dz := b.x-a.x, b.y-a.y, b.z-a.z
		h := math.Sqrt(dx*dx + dy*dy)
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
		if t.sheath != nil {
			t.places = t.places[n:]
		}
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
	group := c.fresh()
	for k := range yarns {
		f := &tube{id: len(c.tubes), group: group, paint: t.paint, d: t.d * 0.3, plain: true, fibre: true}
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

// whipping draws the turns of thread round an end, a band from so far off it to so far, mm,
// wide diameters wide.
func (c *canvas) whipping(t *tube, end int, near, far, wide float64) {
	dark := t.paint
	dark.Dark = 55
	b := &tube{id: len(c.tubes), group: c.fresh(), paint: dark, d: t.d, plain: true}
	last := t.samples[len(t.samples)-1].s
	for _, p := range t.samples {
		from := last - p.s
		if end == 0 {
			from = p.s - t.samples[0].s
		}
		if from < near || from > far {
			continue
		}
		fat := 1.06 * wide
		p.hw, p.l, p.r, p.h = fat*p.hw, fat*p.l, fat*p.r, fat*p.h
		p.z += (0.03 + wide - 1) * t.d
		p.lie = knot.Free
		b.samples = append(b.samples, p)
	}
	if n := len(b.samples); n >= 3 {
		if wide > 1 { // of a bundle: straight along its middle strand
			mid := b.samples[n/2]
			for i := range b.samples {
				p := &b.samples[i]
				along := (p.x-mid.x)*mid.tx + (p.y-mid.y)*mid.ty
				p.x, p.y, p.z, p.tx, p.ty, p.flat = mid.x+along*mid.tx, mid.y+along*mid.ty, mid.z, mid.tx, mid.ty, 1
				p.hw, p.l, p.r, p.h = mid.hw, mid.l, mid.r, mid.h
			}
		}
		c.tubes = append(c.tubes, b)
	}
}

// cap draws a melted end: a dome as wide as the cord, or the flat button that
// pressing leaves. wideD is how wide it is in diameters where it covers more than its own
// end, else 0.
func (c *canvas) cap(t *tube, end int, form string, label, wideD float64) {
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
	switch form {
	case "pressed":
		wide, tall = label*0.62, label*0.34
	case "drop":
		wide, tall = label*0.78, label*0.55
	}
	ahead := 0.03
	if wideD > 0 {
		wide, tall, ahead = label*wideD/2, label*0.7, wideD/2
	}
	dark := t.paint
	dark.Dark = 38
	b := &tube{id: len(c.tubes), group: c.fresh(), paint: dark, d: t.d, plain: true}
	const parts = 10
	for i := 0; i <= parts; i++ {
		u := float64(i) / parts
		if wideD > 0 { // its end is as round as it is wide
			u = math.Sin(math.Pi / 2 * u)
		}
		r := wide * math.Sqrt(math.Max(0.004, 1-u*u))
		if form == "pressed" {
			r = wide * math.Sqrt(math.Max(0.004, 1-math.Pow(2*u-1, 4)))
		}
		k := tall * (u - 0.15)
		b.samples = append(b.samples, sample{x: p.x + dx*k, y: p.y + dy*k, z: p.z + ahead*t.d, tx: dx, ty: dy,
			s: tall * u, hw: r, l: r, r: r, h: math.Min(r, tall), flat: 1, moving: p.moving, lie: knot.Free})
	}
	c.tubes = append(c.tubes, b)
}
