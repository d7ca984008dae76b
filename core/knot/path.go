package knot

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// Path is the line of one strand through a section.
type Path struct {
	Points []r3.Vec
	// Lies, where it is not nil, tells how the cord lies at each point.
	Lies []Lie
	// More, where it is not nil, is how a long path goes on.
	More *More
	// Inside is cord that leads up to the first point and is never seen: it is
	// measured and not laid.
	Inside []r3.Vec

	length, high, low, left, right float64 // measured by Settle
}

// More is the rest of a long path that goes on as it began: its points so many
// times again, each time moved down by Step and turned by Turn about the work's
// axis, and then Tail. So a row of ten thousand knots holds no more points than
// one of a few dozen. The last point of each is the first of the next.
type More struct {
	Times    int
	Step     float64  // mm
	Turn     float64  // radians
	Tail     []r3.Vec // where it lies
	TailLies []Lie
}

// Turned is a point turned about the work's axis, the way a cell's twist goes.
func Turned(v r3.Vec, angle float64) r3.Vec {
	if angle == 0 {
		return v
	}
	s, c := math.Sincos(angle)
	return r3.Vec{X: c*v.X + s*v.Z, Y: v.Y, Z: -s*v.X + c*v.Z}
}

// End is the path's last point.
func (p Path) End() r3.Vec {
	if p.More == nil {
		return p.Points[len(p.Points)-1]
	}
	if n := len(p.More.Tail); n > 0 {
		return p.More.Tail[n-1]
	}
	v := Turned(p.Points[len(p.Points)-1], float64(p.More.Times)*p.More.Turn)
	v.Y += float64(p.More.Times) * p.More.Step
	return v
}

// Whole is all of the path's points.
func (p Path) Whole() []r3.Vec {
	out := slices.Clone(p.Points)
	if p.More == nil {
		return out
	}
	for k := 1; k <= p.More.Times; k++ {
		for _, v := range p.Points[1:] {
			v = Turned(v, float64(k)*p.More.Turn)
			v.Y += float64(k) * p.More.Step
			out = append(out, v)
		}
	}
	if len(p.More.Tail) > 0 {
		out = append(out, p.More.Tail[1:]...)
	}
	return out
}

// Length is the path's length, mm.
func (p Path) Length() float64 { return p.length }

// Extent is the lowest y of the path and its least and greatest x, mm.
func (p Path) Extent() (low, left, right float64) { return p.low, p.left, p.right }

// Span is the highest and the lowest y of the path's points, without what More
// adds, mm.
func (p Path) Span() (high, low float64) {
	if p.More == nil {
		return p.high, p.low
	}
	return Span(p.Points)
}

// Span is the least and the greatest y of points, mm.
func Span(pts []r3.Vec) (high, low float64) {
	high, low = math.Inf(1), math.Inf(-1)
	for _, v := range pts {
		high, low = math.Min(high, v.Y), math.Max(low, v.Y)
	}
	return high, low
}

// Lie is how the cord lies at a point.
type Lie uint8

// A cord lies in a knot, in a row of knots that are pressed together, straight
// under such a row as its filler, snug against other strands, free, or pressed
// flat on a core.
const (
	Knotted Lie = iota
	InRow
	Filler
	Snug
	Free
	Pressed
)

// String is how the cord lies, in a word.
func (l Lie) String() string {
	return [...]string{"knotted", "in a row", "as a filler", "snug", "free", "pressed"}[l]
}

// Least is how near strands may come where they lie so, over the mean of their
// diameters, before a row is pressed along its length or a turn on its core: the
// give of soft cord takes up what is missing to touching. The figures are judged;
// every knot is held to them, and docs/rope.md states them.
func (l Lie) Least() float64 {
	return [...]float64{0.91, 0.98, 0.98, 0.86, 0.87, 0.95}[l]
}

// OnCore is a path on a core, every point of it lying as flat as it is pressed.
func OnCore(pts []r3.Vec) Path {
	p := Path{Points: pts, Lies: make([]Lie, len(pts))}
	for i := range p.Lies {
		p.Lies[i] = Pressed
	}
	return p
}
