package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/piece"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// folded is a band that was folded back: what comes now wraps both its parts.
// Its ends were led through its start and hang down before it, or point up behind it.
type folded struct {
	at    float64 // y where the end meets the band
	thick float64
	led   bool
}

// opening is a bare stretch at the start of a band, between two strands of it.
type opening struct {
	top, bottom float64
	x, wide     float64 // its middle, and the room between the strands
	after       int     // the strand to its left, by its place there from 0
}

// opening is the widest that the band's ends can be led through: under the first
// section, where strands hang bare; of those as wide, the one nearest to the middle.
func (w *walk) opening(begin float64) opening {
	out := opening{top: begin, bottom: begin}
	for i, s := range w.plan.Sections {
		if k, _ := knot.Get(s.Do); k.Bare && w.tops[i][0] <= out.bottom+0.1 {
			out.bottom = math.Max(out.bottom, w.tops[i][1])
		}
	}
	type strand struct{ x, r float64 }
	var there []strand
	y := (out.top + out.bottom) / 2
	for _, l := range w.legs {
		for k := 1; k < len(l.points); k++ {
			if a, b := l.points[k-1], l.points[k]; a.Y <= y && b.Y > y {
				there = append(there, strand{curve.Lerp(a, b, (y-a.Y)/(b.Y-a.Y)).X, w.thick(l) / 2})
				break
			}
		}
	}
	slices.SortFunc(there, func(a, b strand) int { return cmp.Compare(a.x, b.x) })
	for k := 1; k < len(there); k++ {
		a, b := there[k-1], there[k]
		left, right := a.x+a.r, b.x-b.r
		const same = 0.05 // mm
		if more := (right - left) - out.wide; more > same || more > -same && math.Abs(left+right)/2 < math.Abs(out.x) {
			out.x, out.wide, out.after = (left+right)/2, right-left, k-1
		}
	}
	return out
}

// side is how many ends of a diameter lie beside one another in the opening.
func (o opening) side(d float64) int {
	if o.wide >= 1.95*d {
		return 2
	}
	return 1
}

// needed is how long it must be for so many ends of a diameter, one row over the
// other.
func (o opening) needed(ends int, d float64) float64 {
	side := o.side(d)
	return (float64((ends+side-1)/side) + 0.6) * d
}

// takes tells whether so many ends go through it.
func (o opening) takes(ends int, d float64) bool {
	return o.wide >= 0.95*d && o.bottom-o.top >= o.needed(ends, d)-0.01
}

// foldBack bends the band below a place into a loop that comes back to it from
// behind.
func (w *walk) foldBack(i int, path string, k knot.Knot, s knot.Section) error {
	if w.fold != nil {
		return problem(path, "do", "is a second %s; the band is folded already", k.Name)
	}
	if len(w.hanging) == 0 || len(w.plan.Sections) < 2 {
		return problem(path, "do", "is %s, but no band is tied yet; tie one first", k.Name)
	}
	begin := w.tops[0][1] // under the mount
	if k, _ := knot.Get(w.plan.Sections[0].Do); !k.Mounts {
		begin = w.tops[0][0]
	}
	thick, wide := 0.0, 0.0
	for _, l := range w.legs {
		l.together()
		d := w.thick(l)
		l.dense(0, d/2)
		for k, v := range l.points {
			if v.Y > begin+2*d && l.lies[k] != knot.Free {
				thick = math.Max(thick, 2*math.Abs(v.Z)+d)
			}
			wide = math.Max(wide, d)
		}
	}
	open := w.opening(begin)
	led := open.takes(len(w.hanging), wide)
	if led {
		begin = open.bottom // the band proper begins under it
	}
	band := w.y - begin
	// The band's middle line is longer than the inside by half a turn of half
	// its thickness.
	around := math.Pi * thick / 2
	most := (band - around) / 2
	inner := k.Fold(s)
	if inner == 0 {
		inner = most
	}
	const least = 20.0
	if most < least || inner > most+0.05 {
		p := piece.Problem{Path: path + ".inner_mm",
			Message: fmt.Sprintf("is %.0f mm, and the band of %.0f mm makes a loop of %.0f mm at most; it is %.0f mm too short", inner, band, math.Max(0, most), math.Max(least, inner)-most)}
		if most >= least {
			p.Fix = &Fix{Label: fmt.Sprintf("Make the loop %.0f mm", math.Floor(most)), Set: []Set{{Path: p.Path, Value: math.Floor(most)}}}
		} else if n, j := w.longest(); n > 0 {
			each := w.plan.Sections[j].KnotMM
			more := int(math.Ceil(2 * (math.Max(least, inner) - most) / each))
			p.Fix = w.tieInstead(j, n+more)
		}
		return piece.Problems{p}
	}
	between := -1
	if led {
		between = open.after
	}
	come := w.comeInto()
	w.foldSteps(i, k, s, inner, between)
	if come < fromHalf { // it is straight yet
		return nil
	}
	led = led && come >= 1+fromHalf // its ends are led through by the second move
	w.openings = append(w.openings, leaves{i, knot.Opening{RoundMM: 2 * inner, Field: "inner_mm", PerMM: 0.5}})
	length := 2*inner + around
	at := w.y - length
	held := 0.0
	if led { // under the wrap and the ends that hang out of it its legs lie together
		held = 10 * wide
	}
	loop := newLoop(length, thick, held)
	for _, l := range w.legs {
		for k, v := range l.points {
			if v.Y > at {
				l.points[k] = loop.bend(r3.Vec{X: v.X, Y: v.Y - at, Z: v.Z}, at)
			}
		}
		l.measured()
		if n := len(l.points); n > 0 && !l.ended {
			l.at, l.dir = l.points[n-1], r3.Vec{Y: -1}
		}
	}
	for b, q := range w.beads {
		if q.At.Y > at {
			q.At.Y -= at
			w.beads[b].At = loop.bend(q.At, at)
		}
	}
	for k, t := range w.tops {
		for e, y := range t {
			if y > at {
				t[e] = loop.bend(r3.Vec{Y: y - at}, at).Y
			}
		}
		w.tops[k] = [2]float64{math.Min(t[0], t[1]), math.Max(t[0], t[1])}
	}
	w.cuts = slices.DeleteFunc(w.cuts, func(y float64) bool { return y > at })
	bottom := at + loop.high
	for y := at; y < bottom; y += 6 * wide {
		w.cuts = append(w.cuts, y)
	}
	sec := Section{Index: i, Do: s.Do, TopMM: at, HeightMM: loop.high, GapShare: 1, Use: []Use{}, OrderAfter: []string{}}
	for _, l := range w.hanging {
		sec.OrderAfter = append(sec.OrderAfter, w.label(l))
	}
	w.fold = &folded{at: at, thick: thick, led: led}
	if led {
		w.leadThrough(i, &sec, open, wide)
	} else if first := w.plan.Sections[0]; w.into == nil && between < 0 {
		mm := math.Ceil(open.needed(len(w.hanging), wide))
		seq := slices.Insert(slices.Clone(w.written), first.Index+1, bare(mm))
		w.say("start-closed", i, &Fix{Label: fmt.Sprintf("Leave %.0f mm bare at the start", mm), Set: []Set{{Path: "sequence", Value: seq}}},
			"The band's ends lie behind it: to lead them through its start {%.1fmm} must be bare there, and {%.1fmm} are.", mm, open.bottom-open.top)
	}
	w.keep(sec, at, bottom)
	w.y, w.clear = w.fold.at, 0
	w.plan.Checks = append(w.plan.Checks, Check{"loop", i, fmt.Sprintf("The loop measures {%.0fmm} inside, laid flat, and has no twist.", inner)})
	return nil
}

// foldSteps notes the moves of a fold.
func (w *walk) foldSteps(i int, k knot.Knot, s knot.Section, inner float64, between int) {
	step := stepOf(i, s.Do, 1)
	step.MM = inner
	for _, m := range k.FoldMoves(between) {
		step.Actions = append(step.Actions, w.action(m, move.Names{}, nil))
	}
	w.plan.Steps = append(w.plan.Steps, step)
	w.plan.Actions += len(step.Actions)
	w.actions += len(step.Actions)
	w.stop = w.o.Until > 0 && w.actions >= w.o.Until
}

// fromHalf is from which share of a move on what it does is shown, where it is not led there.
const fromHalf = 0.5

// comeInto is how many actions are done from here on in the picture that is asked for, the one
// in hand by as much as it has come; more than there are where all is asked for.
func (w *walk) comeInto() float64 {
	if w.o.Until == 0 {
		return math.Inf(1)
	}
	along := w.o.Along
	if along == 0 {
		along = 1
	}
	return float64(w.o.Until-w.actions-1) + along
}

// bare is a section that leaves strands bare so far.
func bare(mm float64) knot.Section {
	gap, _ := knot.That(func(k knot.Knot) bool { return k.Bare })
	s, _ := knot.New(gap.ID)
	return s.Put("length_mm", mm)
}

// leadThrough leads the ends of a folded band from behind through its opening and
// down before it: the middle ones lowest, the next over them, and so on. All hang to
// one height, where what is tied next begins.
func (w *walk) leadThrough(i int, sec *Section, open opening, d float64) {
	n, side := len(w.hanging), open.side(d)
	face := w.fold.thick/2 + 0.55*d // before the band
	low := w.fold.at
	lines := make([][]r3.Vec, n)
	for p, l := range w.hanging {
		off := float64(p) - float64(n-1)/2 // from the middle, in strands
		row, through := math.Floor(math.Abs(off)), open.x
		if side == 2 {
			through += math.Copysign(0.51*d, off)
		} else if row *= 2; off > 0 || n%2 == 1 && off != 0 {
			row++
			if off < 0 {
				row -= 2
			}
		}
		y := open.bottom - (0.55+row*1.01)*d
		x := off * 1.01 * d // where it hangs
		turn := y + (0.5-0.3*math.Min(row, 1))*d
		lines[p] = []r3.Vec{
			l.at,
			{X: l.at.X, Y: math.Min(l.at.Y-0.2*d, turn+0.9*d), Z: l.at.Z},
			{X: (l.at.X + through) / 2, Y: turn, Z: 0.7 * l.at.Z},
			{X: through, Y: y, Z: -0.8 * d},
			{X: through, Y: y, Z: 0.8 * d},
			{X: (through + x) / 2, Y: y + 0.2*d, Z: 0.5*face + (0.4+0.5*row)*d},
			{X: x, Y: y + (1.2+row)*d, Z: face},
		}
		low = math.Max(low, y+(2+row)*d)
	}
	for p := range lines {
		end := lines[p][len(lines[p])-1]
		lines[p] = curve.Spline(append(lines[p], r3.Vec{X: end.X, Y: low, Z: end.Z}), false).Points
	}
	w.clearOf(lines, open.top-2*d, low+2*d)
	for p, l := range w.hanging {
		line := lines[p]
		mm := curve.Curve{Points: line}.Length()
		l.free(i, knot.Free, line...)
		l.takes(i, mm)
		l.rulered++
		sec.Use = append(sec.Use, Use{Strand: p + 1, Cord: w.d.Cords[l.cord].ID, MM: mm})
	}
	w.fold.at = low
}

// clearOf moves lines that hanging strands will take clear of one another and of the
// band between two y, which stays where it is.
func (w *walk) clearOf(lines [][]r3.Vec, from, to float64) {
	var band []tighten.Strand
	near := func(v r3.Vec, d float64) bool { // enough that it may be pressed
		for _, line := range lines {
			for k := 0; k < len(line); k += 4 {
				if r3.Norm2(r3.Sub(line[k], v)) < 9*d*d {
					return true
				}
			}
		}
		return false
	}
	for _, l := range w.legs {
		var run []r3.Vec
		put := func() {
			if len(run) > 2 {
				band = append(band, tighten.Strand{Route: run, Diameter: w.thick(l)})
			}
			run = nil
		}
		for _, v := range l.points {
			if v.Y < from || v.Y > to || !near(v, w.thick(l)) {
				put()
				continue
			}
			run = append(run, v)
		}
		if n := len(run); n > 0 && r3.Norm(r3.Sub(run[n-1], l.at)) < 1e-9 { // its line goes on from there
			for n > 0 && r3.Norm(r3.Sub(run[n-1], l.at)) < 2*w.thick(l) {
				n--
			}
			run = run[:n]
		}
		put()
	}
	strands := make([]tighten.Strand, len(lines))
	for p, l := range w.hanging {
		strands[p] = tighten.Strand{Route: lines[p], Diameter: w.thick(l)}
	}
	parted, _ := knot.Parted(strands, band...)
	copy(lines, parted)
}

// longest is the count and the index of the section of knots that is longest.
func (w *walk) longest() (count, index int) {
	best := 0.0
	for _, s := range w.plan.Sections {
		if s.KnotMM > 0 && s.HeightMM > best && s.Count > 0 {
			best, count, index = s.HeightMM, s.Count, s.Index
		}
	}
	return count, index
}

// loop is the middle line of a folded band, in the plane across its width.
type loop struct {
	thick, wide, high float64 // wide is how far its legs stand apart at the bend, half
	at                []float64
	line              []r3.Vec
}

// newLoop lays a band of a length into a drop-shaped loop: two legs that lie together
// for so far, though for no more than a third of the way, then part slowly, and a half
// circle.
func newLoop(length, thick, held float64) loop {
	l := loop{thick: thick, wide: math.Max(0.09*length, 0.75*thick)}
	leg := func(drop float64) []r3.Vec {
		var out []r3.Vec
		const n = 80
		for k := 0; k <= n; k++ {
			u := float64(k) / n
			from := math.Min(held, drop/3)
			v := math.Max(0, (u*drop-from)/math.Max(drop-from, 1e-9))
			e := v * v * (3 - 2*v)
			out = append(out, r3.Vec{Y: drop * u, Z: thick/2 + (l.wide-thick/2)*e})
		}
		return out
	}
	want := (length - math.Pi*l.wide) / 2
	lo, hi := 0.0, want
	for range 50 {
		m := (lo + hi) / 2
		if (curve.Curve{Points: leg(m)}).Length() > want {
			hi = m
		} else {
			lo = m
		}
	}
	front := leg(lo)
	l.line = append(l.line, front...)
	const n = 40
	for k := 1; k < n; k++ {
		s, c := math.Sincos(math.Pi * float64(k) / n)
		l.line = append(l.line, r3.Vec{Y: lo + l.wide*s, Z: l.wide * c})
	}
	for k := len(front) - 1; k >= 0; k-- {
		l.line = append(l.line, r3.Vec{Y: front[k].Y, Z: -front[k].Z})
	}
	// The front leg is where the band was: the loop lies behind it.
	for k := range l.line {
		l.line[k].Z -= thick / 2
	}
	sum := 0.0
	for k := range l.line {
		if k > 0 {
			sum += math.Hypot(l.line[k].Y-l.line[k-1].Y, l.line[k].Z-l.line[k-1].Z)
		}
		l.at = append(l.at, sum)
	}
	l.high = lo + l.wide + thick/2
	return l
}

// bend takes a point of the straight band, y from where the loop begins, to
// where it lies on the loop.
func (l loop) bend(v r3.Vec, at float64) r3.Vec {
	k, _ := slices.BinarySearch(l.at, v.Y)
	k = max(1, min(k, len(l.at)-1))
	a, b := l.line[k-1], l.line[k]
	u := (v.Y - l.at[k-1]) / (l.at[k] - l.at[k-1])
	p := curve.Lerp(a, b, u)
	dy, dz := b.Y-a.Y, b.Z-a.Z
	h := math.Hypot(dy, dz)
	// The face looks out of the loop.
	return r3.Vec{X: v.X, Y: at + p.Y - v.Z*dz/h, Z: p.Z + v.Z*dy/h}
}

// core are the discs that a wrap of a height meets round a folded band.
func (w *walk) core(high float64) []knot.Disc {
	if w.fold == nil {
		return nil
	}
	var out []knot.Disc
	if w.fold.led { // they go on down through the wrap
		for _, l := range w.hanging {
			out = append(out, knot.Disc{X: l.at.X, Z: l.at.Z, R: w.thick(l) / 2})
		}
	}
	for _, l := range w.legs {
		r := w.thick(l) / 2
		l.together()
		for _, v := range l.points {
			if v.Y >= w.fold.at-r && v.Y <= w.fold.at+high+r {
				out = append(out, knot.Disc{X: v.X, Z: v.Z, R: r})
			}
		}
	}
	return out
}
