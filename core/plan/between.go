package plan

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

// A piece between two pieces of hardware: its strands run to the far one and back, and
// what follows is tied over the runs. A run is a leg of its own while it is walked, so
// that knots find it among their fillers; in the end it is put into the leg that it is
// a part of.

// doubled is a strand's way to the far hardware and back.
type doubled struct {
	of       *leg
	down, up *leg
	section  int
	points   int // of the leg when it began
	parts    int
}

// runOf tells whether a leg is a run.
func (w *walk) runOf(l *leg) bool {
	return slices.ContainsFunc(w.runs, func(r doubled) bool { return r.down == l || r.up == l })
}

// runBack leads all strands that hang to the far hardware and back up: workers
// outside, their runs between them.
func (w *walk) runBack(i int, path string, k knot.Knot, s knot.Section) error {
	far := w.d.Purpose.EndsOn
	switch n := len(w.hanging); {
	case far == nil:
		on := w.d.Purpose.HangsOn
		if on.Type == "none" || on.Type == "hole" {
			on = piece.SplitRing(25, 2)
		}
		return piece.Problems{{Path: path + ".do", Message: fmt.Sprintf("is %s, but the piece ends on nothing; say what is at its far end", k.Name),
			Fix: &Fix{Label: "End it on another " + strings.ReplaceAll(on.Type, "-", " "), Set: []Set{{Path: "purpose.ends_on", Value: on}}}}}
	case len(w.runs) > 0:
		return problem(path, "do", "is a second %s; the strands have run to the far end already", k.Name)
	case !knot.TermsOf(s).Takes.Has(n):
		return problem(path, "do", "is %s on %d strands; one or two run to the far end and back", k.Name, n)
	}
	var row []knot.Strand
	for _, l := range w.hanging {
		for range 3 {
			row = append(row, w.strand(l, 0, w.y))
		}
	}
	xs, _, thick := knot.SideBySide(row)
	n := len(w.hanging)
	top := w.y
	// The way down comes in from where the strand hangs; above it the way back turns
	// over to the strand that goes on.
	var from, to []knot.Way
	place := func(j int) (down, up, out int) { // of strand j among the row
		if 2*j < n {
			return 3*j + 2, 3*j + 1, 3 * j
		}
		return 3 * j, 3*j + 1, 3*j + 2
	}
	for j, l := range w.hanging {
		down, _, _ := place(j)
		from, to = append(from, knot.Way{At: l.at, Dir: l.dir}), append(to, knot.Way{At: r3.Vec{X: xs[down]}, Dir: r3.Vec{Y: 1}})
	}
	y := top + math.Max(knot.Fall(from, to, thick), 0.8*thick) + 0.6*thick
	sec := Section{Index: i, Do: s.Do, TopMM: top, HeightMM: y - top, GapShare: 1, Use: []Use{}, OrderAfter: []string{}}
	step := Step{Section: i, Do: s.Do, Repeats: 1, MM: w.d.Purpose.BetweenMM, Actions: []Action{}}
	names := move.Names{}
	for _, l := range w.hanging {
		names.Cords = append(names.Cords, w.d.Cords[l.cord].ID)
	}
	for _, m := range k.RunsBack(n) {
		if w.d.Purpose.BetweenMM == 0 {
			m.Detail = "Pin both ends; the last knot comes to lie against the far hardware."
		}
		step.Actions = append(step.Actions, w.action(m, names, w.hanging))
	}
	w.plan.Steps = append(w.plan.Steps, step)
	w.plan.Actions += len(step.Actions)
	hanging := make([]*leg, 3*n)
	for j, l := range w.hanging {
		down, up, out := place(j)
		a := r3.Vec{X: xs[down], Y: y}
		way := append([]r3.Vec{l.at}, knot.Join(l.at, a, l.dir, r3.Vec{Y: 1})...)
		l.free(i, knot.Free, way[1:]...)
		l.together()
		r := doubled{of: l, section: i, points: len(l.points), parts: len(l.parts),
			down: &leg{cord: l.cord, n: l.n, at: a, dir: r3.Vec{Y: 1}}, up: &leg{cord: l.cord, n: l.n, at: r3.Vec{X: xs[up], Y: y}, dir: r3.Vec{Y: 1}}}
		r.down.name, r.up.name = w.label(l)+" down", w.label(l)+" up"
		turn := over(r3.Vec{X: xs[up], Y: y}, r3.Vec{X: xs[out], Y: y})
		l.free(i, knot.Free, turn...)
		l.dir = r3.Vec{Y: 1}
		mm := curve.Curve{Points: way}.Length() + curve.Curve{Points: turn}.Length()
		l.parts = append(l.parts, Part{i, mm})
		l.rulered++
		l.worked = true
		sec.Use = append(sec.Use, Use{j + 1, w.d.Cords[l.cord].ID, mm})
		w.runs = append(w.runs, r)
		hanging[down], hanging[up], hanging[out] = r.down, r.up, l
	}
	w.hanging = hanging
	for _, l := range hanging {
		sec.OrderAfter = append(sec.OrderAfter, w.label(l))
	}
	w.size.runs += 3 * n
	w.keep(sec, top, y)
	w.cuts = append(w.cuts, y)
	w.y, w.clear, w.open = y, 0, 0
	w.actions += len(step.Actions)
	w.stop = w.o.Until > 0 && w.actions >= w.o.Until
	return nil
}

// over is a half turn upwards from a place to another one beside it, both ends
// straight down.
func over(a, b r3.Vec) []r3.Vec {
	const steps = 12
	var out []r3.Vec
	for k := range steps + 1 {
		s, c := math.Sincos(math.Pi * float64(k) / steps)
		r := (b.X - a.X) / 2
		out = append(out, r3.Vec{X: a.X + r*(1-c), Y: a.Y - math.Abs(r)*s, Z: a.Z + (b.Z-a.Z)*(1-c)/2})
	}
	return out
}

// runsOut ends the runs at the far hardware and puts them into their legs. It notes
// where the middle of that wire lies, says whether the knots fit between, and fails
// where not one does.
func (w *walk) runsOut() error {
	if len(w.runs) == 0 {
		return nil
	}
	far := *w.d.Purpose.EndsOn
	bottom, d := 0.0, 0.0
	for _, r := range w.runs {
		bottom = math.Max(bottom, math.Max(r.down.at.Y, r.up.at.Y))
		d = math.Max(d, w.thick(r.of))
	}
	deep := far.WireMM/2 + d/2
	least := bottom + 0.9*deep + 0.6*d // the strands part to both sides of the wire
	w.far = least
	if want := w.d.Purpose.BetweenMM; want > 0 {
		if !w.stop {
			if err := w.fitBetween(want, least); err != nil {
				return err
			}
		}
		w.far = math.Max(least, want)
	}
	for _, r := range w.runs {
		// Down in front of the wire, under it, up behind it.
		side := (r.down.at.X + r.up.at.X) / 2
		front, back := r3.Vec{X: side, Y: w.far, Z: deep}, r3.Vec{X: side, Y: w.far, Z: -deep}
		var bend []r3.Vec
		begin := r.down.at
		if straight := w.far - 0.9*deep - 0.6*d; straight > begin.Y { // what is left bare hangs straight
			bend = append(bend, r3.Vec{X: begin.X, Y: straight, Z: begin.Z})
			begin = bend[0]
		}
		bend = append(bend, knot.Join(begin, front, r3.Vec{Y: 1}, r3.Vec{Y: 1})...)
		for k := 1; k < 12; k++ {
			sin, cos := math.Sincos(math.Pi * float64(k) / 12)
			bend = append(bend, r3.Vec{X: side, Y: w.far + deep*sin, Z: deep * cos})
		}
		bend = append(bend, back)
		end := r.up.at
		var rise []r3.Vec
		if straight := w.far - 0.9*deep - 0.6*d; straight > end.Y {
			end.Y = straight
			rise = append(rise, r.up.at)
		}
		bend = append(bend, knot.Join(back, end, r3.Vec{Y: -1}, r3.Vec{Y: -1})...)
		bend = append(bend, rise...)
		w.putIn(r, bend)
	}
	return nil
}

// putIn puts a run and its bend round the far wire into the leg that it is a part of.
func (w *walk) putIn(r doubled, bend []r3.Vec) {
	l := r.of
	for _, q := range []*leg{l, r.down, r.up} {
		q.together()
	}
	points, section, lies := slices.Clone(l.points[:r.points]), slices.Clone(l.section[:r.points]), slices.Clone(l.lies[:r.points])
	points, section, lies = append(points, r.down.points...), append(section, r.down.section...), append(lies, r.down.lies...)
	for _, v := range bend {
		points, section, lies = append(points, v), append(section, r.section), append(lies, knot.Free)
	}
	for k := range slices.Backward(r.up.points) {
		points, section, lies = append(points, r.up.points[k]), append(section, r.up.section[k]), append(lies, r.up.lies[k])
	}
	l.points, l.section, l.lies = append(points, l.points[r.points:]...), append(section, l.section[r.points:]...), append(lies, l.lies[r.points:]...)
	for _, v := range bend {
		l.reaches(v.Y, math.Abs(v.X))
	}
	mm := curve.Curve{Points: append([]r3.Vec{r.down.at}, append(bend, r.up.at)...)}.Length()
	parts := slices.Clone(l.parts[:r.parts])
	parts = append(parts, r.down.parts...)
	parts = append(parts, Part{r.section, mm})
	for k := range w.plan.Sections {
		if s := &w.plan.Sections[k]; s.Index == r.section {
			s.Use = append(s.Use, Use{0, w.d.Cords[l.cord].ID, mm})
		}
	}
	for _, p := range slices.Backward(r.up.parts) {
		parts = append(parts, p)
	}
	l.parts = append(parts, l.parts[r.parts:]...)
	l.knotwork += r.down.knotwork + r.up.knotwork
	l.rulered += r.down.rulered + r.up.rulered + 1
	l.rough += r.down.rough + r.up.rough
}

// fitBetween says what the last millimetres between both wires take.
func (w *walk) fitBetween(want, needs float64) error {
	n, j := w.longest()
	off := want - needs // bare, or too much where it is negative
	each := 0.0
	if n > 0 {
		each = w.plan.Sections[j].KnotMM
	}
	switch {
	case off < -0.05 && (n == 0 || float64(n-1)*each < -off):
		long := math.Ceil(needs - float64(max(0, n-1))*each)
		return piece.Problems{{Path: "purpose.between_mm", Message: fmt.Sprintf("is %g mm, too short for one knot; between both wires it needs %g mm", want, long),
			Fix: &Fix{Label: fmt.Sprintf("Make it %g mm", long), Set: []Set{{Path: "purpose.between_mm", Value: long}}}}}
	case off < -0.05:
		less := int(math.Ceil(-off/each - 1e-9))
		w.say("too-long-between", j, w.tieInstead(j, n-less), "%d knots are {%.1fmm} too long between both wires.", n, -off)
	case n > 0 && off >= each:
		w.say("room-between", j, w.tieInstead(j, n+int(off/each)), "%d knots leave {%.1fmm} bare before the far end; %d more would fit.", n, off, int(off/each))
	case off > 0.5:
		w.plan.Checks = append(w.plan.Checks, Check{"between", j, fmt.Sprintf("{%.1fmm} are left before the far end: push the knots up evenly, or let that gap show.", off)})
	}
	w.plan.Checks = append(w.plan.Checks, Check{"between", j, fmt.Sprintf("From wire to wire it measures {%.0fmm}.", want)})
	return nil
}
