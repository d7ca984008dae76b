package scene

import (
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	steel = "#aab4b6"
	brass = "#c9a35a"
	wood  = "#ab8345"
)

func metal(colour string) Paint { return Paint{Cord: -1, Colour: colour} }

// hoop is a ring of radius r whose lowest place is the origin, its upper half drawn up
// by tall.
func hoop(r, tall float64) []r3.Vec {
	const n = 72
	pts := make([]r3.Vec, 0, n+1)
	for i := 0; i <= n; i++ {
		s, cos := math.Sincos(math.Pi + 2*math.Pi*float64(i)/n)
		p := r3.Vec{X: r * s, Y: r*cos - r}
		if cos < 0 {
			p.Y -= tall
		}
		pts = append(pts, p)
	}
	return pts
}

// hardware draws what the piece hangs on, its wire's middle at the origin.
func (c *canvas) hardware(h piece.Hardware) {
	r := (h.InnerMM + h.WireMM) / 2
	var pts []r3.Vec
	switch h.Type {
	case "none":
	case "rod":
		c.wire([]r3.Vec{{X: -h.InnerMM / 2}, {}, {X: h.InnerMM / 2}}, h.WireMM, metal(wood))
	case "split-ring":
		pts = hoop(r, 0)
		c.wire(pts, h.WireMM, metal(steel))
	case "bail": // a small hoop on a foot
		c.wire(hoop(r, 0.4*r), h.WireMM, metal(brass))
		foot := -2*r - 0.4*r - h.WireMM
		c.wire([]r3.Vec{{Y: foot + h.WireMM, Z: -0.1}, {Y: foot, Z: -0.1}, {Y: foot - 1.6*h.WireMM, Z: -0.1}}, 2.4*h.WireMM, Paint{Cord: -1, Colour: brass, Dark: 15})
	case "hole":
		c.handle(h)
	case "carabiner":
		c.wire(hoop(r, 1.1*r), h.WireMM, metal(brass))
	default: // a swivel clip: a flat eye, a barrel and a hook
		half := r
		top := -0.9 * r
		pts = []r3.Vec{{X: -h.WireMM, Y: top}, {X: -half, Y: top}, {X: -half, Y: 0}, {X: 0}, {X: half}, {X: half, Y: top}, {X: h.WireMM, Y: top}}
		c.wire(rounded(pts, h.WireMM*1.6), h.WireMM, metal(steel))
		barrel := 1.4 * h.WireMM
		c.wire([]r3.Vec{{Y: top + h.WireMM, Z: 0.1}, {Y: top - barrel/2, Z: 0.1}, {Y: top - barrel*1.6, Z: 0.1}}, 2*barrel, Paint{Cord: -1, Colour: steel, Dark: 15})
		y := top - barrel*1.6
		var hook []r3.Vec
		const n = 40
		R := math.Max(0.75*r, 5)
		hook = append(hook, r3.Vec{Y: y, Z: -0.2}, r3.Vec{X: 0.45 * R, Y: y - 0.35*R, Z: -0.2})
		for i := 0; i <= n; i++ {
			a := 0.35 - (1.45*math.Pi)*float64(i)/n
			s, cs := math.Sincos(a)
			hook = append(hook, r3.Vec{X: 0.85 * R * cs, Y: y - 1.5*R + 1.1*R*s, Z: -0.2})
		}
		c.wire(hook, h.WireMM*1.1, metal(steel))
	}
}

// farHardware draws what the piece ends on, the other way up, its wire's middle at y.
func (c *canvas) farHardware(h piece.Hardware, y float64) {
	first := len(c.tubes)
	c.hardware(h)
	for _, t := range c.tubes[first:] {
		for i := range t.samples {
			p := &t.samples[i]
			p.y, p.ty = y-p.y, -p.ty
			p.l, p.r = p.r, p.l
		}
	}
}

// handle draws the end of a handle with its hole: an eye as thick as the wood beside
// the hole, and the handle that it ends. The cords bend over the eye's lower side.
func (c *canvas) handle(h piece.Hardware) {
	r := (h.InnerMM + h.WireMM) / 2
	first := len(c.tubes)
	c.wire(hoop(r, 0), h.WireMM, metal(wood))
	top := -2*r - h.WireMM/2
	wide := h.InnerMM + 2*h.WireMM
	c.wire([]r3.Vec{{Y: top + h.WireMM/2}, {Y: top - 0.8*wide}, {Y: top - 1.6*wide}}, wide, metal(wood))
	for _, t := range c.tubes[first:] { // as thick as the handle is
		for i := range t.samples {
			t.samples[i].h = h.DepthMM / 2
		}
	}
}

// rounded rounds the corners of a bent wire.
func rounded(pts []r3.Vec, r float64) []r3.Vec {
	out := []r3.Vec{pts[0]}
	for i := 1; i+1 < len(pts); i++ {
		a, b, e := pts[i-1], pts[i], pts[i+1]
		la, le := math.Hypot(a.X-b.X, a.Y-b.Y), math.Hypot(e.X-b.X, e.Y-b.Y)
		p, q := curve.Lerp(b, a, math.Min(0.5, r/la)), curve.Lerp(b, e, math.Min(0.5, r/le))
		for k := range 7 {
			t := float64(k) / 6
			out = append(out, curve.Lerp(curve.Lerp(p, b, t), curve.Lerp(b, q, t), t))
		}
	}
	return append(out, pts[len(pts)-1])
}

// wire adds a bent wire as a tube that is neither spread nor marked.
func (c *canvas) wire(pts []r3.Vec, d float64, paint Paint) {
	t := &tube{id: len(c.tubes), group: c.fresh(), paint: paint, d: d, metal: true}
	line := curve.Curve{Points: pts}
	n := max(3, int(line.Length()/(c.step*2*d)))
	for _, p := range line.Resample(n).Points {
		t.samples = append(t.samples, sample{x: p.X, y: p.Y, z: p.Z, hw: d / 2, lie: knot.Free, s: c.step * 2 * d * float64(len(t.samples))})
	}
	c.settle(t)
	c.tubes = append(c.tubes, t)
}

// core draws the core of a ball: what lies behind its middle is hidden by it.
func (c *canvas) core(b knot.CoreAt) {
	at := c.turn(b.At)
	// Seen only between turns, it lies in their shade.
	t := &tube{id: len(c.tubes), group: c.fresh(), paint: Paint{Cord: -1, Colour: b.Colour, Dark: 35}, d: b.DiameterMM, metal: true, broad: true, plain: true, flat: true}
	const parts = 40
	r := b.DiameterMM / 2
	for i := 0; i <= parts; i++ {
		u := 2*float64(i)/parts - 1
		hw := r * math.Sqrt(math.Max(0.0004, 1-u*u))
		t.samples = append(t.samples, sample{x: at.X, y: at.Y + u*r, z: at.Z, ty: 1, flat: 1, s: 2 * r * float64(i) / parts, hw: hw, l: hw, r: hw, h: hw, lie: knot.Free})
	}
	c.tubes = append(c.tubes, t)
}

const beech = "#c8a06a" // a bead whose colour is not said

// bead draws a bead in front of the strands that run through it.
func (c *canvas) bead(b knot.BeadAt) {
	if b.Shape == knot.RingShape {
		wire := (b.WidthMM - b.HoleMM) / 2
		r := (b.HoleMM + wire) / 2
		ring := hoop(r, 0)
		for i := range ring {
			ring[i] = r3.Add(ring[i], r3.Add(b.At, r3.Vec{Y: r}))
		}
		c.wire(ring, wire, metal(string(b.Colour)))
		return
	}
	colour := string(b.Colour)
	if colour == "" {
		colour = beech
	}
	t := &tube{id: len(c.tubes), group: c.fresh(), paint: Paint{Cord: -1, Colour: colour}, d: b.WidthMM, metal: true, broad: true}
	const parts = 40
	for i := 0; i <= parts; i++ {
		u := 2*float64(i)/parts - 1
		p := sample{x: b.At.X, y: b.At.Y, z: b.At.Z, s: c.step * 2 * t.d * float64(i), hw: b.WidthMM / 2 * b.Profile(u), lie: knot.Free}
		if b.Across {
			p.x += u * b.LengthMM / 2
		} else {
			p.y += u * b.LengthMM / 2
		}
		t.samples = append(t.samples, p)
	}
	c.settle(t)
	c.tubes = append(c.tubes, t)
}
