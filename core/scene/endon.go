package scene

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/plan"
	"nimblebight/core/trace"

	"gonum.org/v1/gonum/spatial/r3"
)

// endOn is a section as one sees it who looks up at it from below: what is lowest is nearest.
type endOn struct {
	runs []plan.Strand
	ends []r3.Vec // where each of the section's runs ends below, in the picture
	top  float64  // the least y of its runs
}

// lookUp looks up the work from below. Of a long section the last few diameters are seen, in hand so
// many that the whole of a loose knot is. Of a knot in hand the ends that hang from it are cut off a
// little below it, so that they do not stand before it.
func lookUp(runs []plan.Strand, thick float64, inHand bool) endOn {
	deep := 6.0 // diameters
	if inHand {
		deep = 24
	}
	low := math.Inf(-1)
	for _, s := range runs {
		lowest := s.Points[0]
		for _, v := range s.Points {
			if v.Y > lowest.Y {
				lowest = v
			}
		}
		to := lowest.Y
		if inHand {
			to = hangsFrom(s.Points, lowest, thick)
		}
		low = math.Max(low, to)
	}
	e := endOn{top: math.Inf(1)}
	for _, s := range runs {
		e.runs = append(e.runs, pieces(s, func(v r3.Vec) bool { return v.Y > low-deep*thick && v.Y <= low }, curve.EndOn)...)
		end := s.Points[0] // where it is cut off, or ends
		for _, v := range s.Points {
			if v.Y <= low && v.Y > end.Y {
				end = v
			}
		}
		e.ends = append(e.ends, curve.EndOn(end))
	}
	for _, s := range e.runs {
		for _, v := range s.Points {
			e.top = math.Min(e.top, v.Y)
		}
	}
	return e
}

// strands are its runs moved up by so much.
func (e endOn) strands(up float64) []plan.Strand {
	for _, s := range e.runs {
		for i := range s.Points {
			s.Points[i].Y -= up
		}
	}
	return e.runs
}

// RenderHand draws a section in hand as one looks at its end, with the way that the strand in
// hand still has to go and the numbers of the ends, those that they had when the action began.
//
// Law: led is the work when that strand is led all the way; the frame holds both, so that it
// stays while the strand moves.
func RenderHand(now, led plan.Layout, section int, v View) Picture {
	d := now.Thick
	is, will := lookUpAt(now, section), lookUpAt(led, section)
	up := math.Min(is.top, will.top) - d
	if len(is.runs) == 0 {
		return Render(plan.Layout{Thick: d}, v)
	}
	out := bare(now)
	out.Strands = is.strands(up)
	will.strands(up)
	settle(&out)
	pic := Render(out, v)
	pic.frame(will.runs, d)
	pic.numberEnds(now, section, is.ends, up)
	if slices.Equal(led.Moving, now.Moving) {
		for _, m := range now.Moving {
			pic.addWay(wayOf(movingRun(is.runs, m), movingRun(will.runs, m), d, func(r3.Vec) bool { return true }))
		}
	}
	return pic
}

// lookUpAt is a section as one looks up at it; nothing for one that is not there.
func lookUpAt(l plan.Layout, section int) endOn {
	if section < 0 || section >= len(l.Sections) {
		return endOn{top: math.Inf(1)}
	}
	return lookUp(sectionRuns(l, section), l.Thick, len(l.Moving) > 0)
}

// handRoom is how far beside its way the end in hand may be, diameters.
const handRoom = 1.7

// frame makes room in the frame for strands that are not drawn, and for the hand beside them.
func (p *Picture) frame(strands []plan.Strand, d float64) {
	if p.Empty() {
		return
	}
	room := hundredths(handRoom * d)
	x0, y0, x1, y1 := p.Left, p.Top, p.Left+p.Width, p.Top+p.Height
	for _, s := range strands {
		for _, v := range s.Points {
			x, y := hundredths(v.X), hundredths(v.Y)
			x0, x1 = min(x0, x-room), max(x1, x+room)
			y0, y1 = min(y0, y-room), max(y1, y+room)
		}
	}
	p.Left, p.Top, p.Width, p.Height = x0, y0, x1-x0, y1-y0
}

// movingRun are the points of a strand that moves, on its way: those of a leg before its fold run
// from its end.
func movingRun(runs []plan.Strand, m plan.LegOf) []r3.Vec {
	var pts []r3.Vec
	folded := false
	for _, s := range runs {
		if s.Index != m.Strand {
			continue
		}
		folded = folded || s.Fold != 0
		for i, v := range s.Points {
			if s.Fold == 0 || m.Leg < 0 || m.Leg == s.LegAt(i) {
				pts = append(pts, v)
			}
		}
	}
	if m.Leg == 0 && folded {
		slices.Reverse(pts)
	}
	return pts
}

// numberEnds sets the numbers of places on the ends of a section; ends are those of its runs,
// moved up by so much.
func (p *Picture) numberEnds(l plan.Layout, section int, ends []r3.Vec, up float64) {
	p.Discs, p.Thick = []Disc{}, hundredths(l.Thick)
	seen := map[int]int{} // runs of each strand so far: the leg before its fold comes first
	legs := map[plan.LegOf]r3.Vec{}
	for i, s := range sectionRuns(l, section) {
		legs[plan.LegOf{Strand: s.Index, Leg: seen[s.Index]}] = ends[i]
		seen[s.Index]++
	}
	for i, k := range l.Places {
		v, ok := legs[k]
		if !ok && seen[k.Strand] == 1 { // one leg of it alone is in the section
			v, ok = legs[plan.LegOf{Strand: k.Strand}]
		}
		if ok {
			p.Discs = p.apart(Disc{i + 1, hundredths(v.X), hundredths(v.Y - up)}, hundredths(0.9*l.Thick))
		}
	}
}

// wayOf is the longest run of where a strand will be that it is still to come to; nil where it
// is there. Where it is not ok, as where it hangs, nothing counts. d is its thickness, mm.
func wayOf(is, will []r3.Vec, d float64, ok func(r3.Vec) bool) *Path {
	far := func(q r3.Vec) bool {
		for i := 1; i < len(is); i++ {
			a, b := is[i-1], is[i]
			ab := r3.Sub(b, a)
			t := 0.0
			if n := r3.Norm2(ab); n > 0 {
				t = math.Max(0, math.Min(1, r3.Dot(r3.Sub(q, a), ab)/n))
			}
			if off := r3.Sub(q, r3.Add(a, r3.Scale(t, ab))); math.Hypot(off.X, off.Y) < 0.55*d && math.Abs(off.Z) < 1.2*d {
				return false
			}
		}
		return true
	}
	var best, run []trace.Point
	keep := func() {
		if length(run) > length(best) {
			best = run
		}
		run = nil
	}
	for _, q := range will {
		if !ok(q) || !far(q) {
			keep()
			continue
		}
		run = append(run, trace.Point{X: 20 * q.X / d, Y: 20 * q.Y / d})
	}
	keep()
	if length(best) < 20 {
		return nil
	}
	path := trace.Fit(best, 0.6)
	point := func(q trace.Point) Point {
		return Point{int32(math.Round(q.X * d * 5)), int32(math.Round(q.Y * d * 5))}
	}
	out := Path{Start: point(path.Start)}
	for _, c := range path.Curve {
		out.Curve = append(out.Curve, Cubic{point(c.A), point(c.B), point(c.End)})
	}
	return &out
}
