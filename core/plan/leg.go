package plan

import (
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// leg is a strand on its way down. What it is laid along is kept as stretches
// that share the knots' curves, and only put together where points are needed:
// for a picture, or to be bent.
type leg struct {
	cord, n int // which cord, which of its legs
	name    string
	at      r3.Vec
	dir     r3.Vec

	stretches []stretch // laid since points was put together
	points    []r3.Vec  // from the fold, or from the first end of an own cord
	section   []int
	lies      []knot.Lie

	low, wide float64 // the lowest y, and the greatest distance from x of zero

	parts   []Part
	ties    []ties  // what of it a hand ties
	rulered int     // how many parts are measured
	hold    float64 // what fingers need beyond its end, mm
	beyond  float64 // what an own cord must be longer than it is drawn, to be tied, mm
	leave   float64 // what its finish leaves, mm
	rough   float64 // mm by which the parts may be too long
	worked  bool
	ended   bool
	form    string
	// formWide is how wide what covers its end is, in diameters; 0 for its own
	formWide float64
	endMM    float64
	trim     float64
	off      float64 // what of its end is cut off again after it was made ready for threading, mm
}

// ties are knots that take so much of a leg, on the median.
type ties struct {
	section int
	family  string
	mm      float64
	knots   int
}

// begun tells whether anything of the leg is laid.
func (l *leg) begun() bool { return len(l.points)+len(l.stretches) > 0 }

// takes notes that a section takes so much more of the leg: fingers hold that now.
func (l *leg) takes(section int, mm float64) {
	l.parts = append(l.parts, Part{section, mm})
	l.hold = math.Max(0, l.hold-mm)
}

// knotwork is what of the leg a hand ties, mm on the median.
func (l *leg) knotwork() float64 {
	sum := 0.0
	for _, t := range l.ties {
		sum += t.mm
	}
	return sum
}

// stretch is a curve as a leg lies along it, turned about the work's axis and
// then moved by off.
type stretch struct {
	points    []r3.Vec
	lies      []knot.Lie // of each point, or nil where all lie as lie says
	lie       knot.Lie
	off       r3.Vec
	turn      float64
	section   int
	high, low float64 // the least and the greatest y, where it lies
}

// at is point k where it lies.
func (s stretch) at(k int) r3.Vec { return r3.Add(knot.Turned(s.points[k], s.turn), s.off) }

func (s stretch) lieAt(k int) knot.Lie {
	if s.lies != nil {
		return s.lies[k]
	}
	return s.lie
}

// lay leads the leg along a stretch.
func (l *leg) lay(s stretch) {
	if len(s.points) == 0 {
		return
	}
	l.stretches = append(l.stretches, s)
	n := len(s.points)
	l.at = s.at(n - 1)
	if n > 1 {
		l.dir = knot.Turned(knot.Heading(s.points[max(0, n-4):], true), s.turn)
	}
}

// follow leads the leg along a path that is moved by off.
func (l *leg) follow(section int, p knot.Path, off r3.Vec) {
	high, low := p.Span()
	s := stretch{points: p.Points, lies: p.Lies, off: off, section: section, high: high + off.Y, low: low + off.Y}
	l.lay(s)
	if p.More == nil {
		return
	}
	for range p.More.Times {
		s.turn += p.More.Turn
		s.off.Y, s.high, s.low = s.off.Y+p.More.Step, s.high+p.More.Step, s.low+p.More.Step
		l.lay(s)
	}
	if tail := p.More.Tail; len(tail) > 0 {
		high, low := knot.Span(tail)
		l.lay(stretch{points: tail, lies: p.More.TailLies, off: off, section: section, high: high + off.Y, low: low + off.Y})
	}
}

// reaches notes how far down and to the sides the leg has come.
func (l *leg) reaches(low, wide float64) {
	l.low, l.wide = math.Max(l.low, low), math.Max(l.wide, wide)
}

// free leads the leg along points of its own, given where they are.
func (l *leg) free(section int, lie knot.Lie, points ...r3.Vec) {
	for _, p := range points {
		l.reaches(p.Y, math.Abs(p.X))
	}
	high, low := knot.Span(points)
	l.lay(stretch{points: points, lie: lie, section: section, high: high, low: low})
}

// each gives every point of the leg where it lies, from its beginning, each once.
func (l *leg) each(point func(v r3.Vec, section int, lie knot.Lie)) {
	var last r3.Vec
	n := len(l.points)
	for k, v := range l.points {
		point(v, l.section[k], l.lies[k])
		last = v
	}
	for _, s := range l.stretches {
		for k := range s.points {
			v := s.at(k)
			if n > 0 && r3.Norm2(r3.Sub(last, v)) < 1e-12 {
				continue
			}
			point(v, s.section, s.lieAt(k))
			last = v
			n++
		}
	}
}

// eachFrom gives the points of the leg in stretches that reach below y; joined is unset
// where points before it were left out.
func (l *leg) eachFrom(y float64, point func(v r3.Vec, joined bool)) {
	joined := false
	for _, v := range l.points {
		if v.Y >= y {
			point(v, joined)
			joined = true
		} else {
			joined = false
		}
	}
	for _, s := range l.stretches {
		if s.low < y {
			joined = false
			continue
		}
		for k := range s.points {
			point(s.at(k), joined)
			joined = true
		}
	}
}

// together puts the stretches together into points.
func (l *leg) together() {
	if len(l.stretches) == 0 {
		return
	}
	n := len(l.points)
	for _, s := range l.stretches {
		n += len(s.points)
	}
	points, section, lies := make([]r3.Vec, 0, n), make([]int, 0, n), make([]knot.Lie, 0, n)
	l.each(func(v r3.Vec, of int, lie knot.Lie) {
		points, section, lies = append(points, v), append(section, of), append(lies, lie)
	})
	l.points, l.section, l.lies, l.stretches = points, section, lies, l.stretches[:0:0]
}

// measured notes the reach of points that were bent.
func (l *leg) measured() {
	l.low, l.wide = 0, 0
	for _, p := range l.points {
		l.reaches(p.Y, math.Abs(p.X))
	}
}

// dense puts points into long straight spans from node first on, so that they
// can be bent.
func (l *leg) dense(first int, step float64) {
	n := len(l.points)
	for k := max(1, first+1); k < len(l.points); k++ {
		n += int(r3.Norm(r3.Sub(l.points[k], l.points[k-1])) / step)
	}
	points, section, lies := append(make([]r3.Vec, 0, n), l.points[:first]...), append(make([]int, 0, n), l.section[:first]...), append(make([]knot.Lie, 0, n), l.lies[:first]...)
	for k := first; k < len(l.points); k++ {
		if k > 0 && k > first {
			a, b := l.points[k-1], l.points[k]
			lie := l.lies[k]
			if l.lies[k-1] == knot.Filler {
				lie = knot.Filler
			}
			n := int(r3.Norm(r3.Sub(b, a)) / step)
			for i := 1; i < n; i++ {
				points, section, lies = append(points, curve.Lerp(a, b, float64(i)/float64(n))), append(section, l.section[k]), append(lies, lie)
			}
		}
		points, section, lies = append(points, l.points[k]), append(section, l.section[k]), append(lies, l.lies[k])
	}
	l.points, l.section, l.lies = points, section, lies
}
