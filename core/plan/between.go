package plan

import (
	"fmt"
	"iter"
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
//
// Where what follows is tied from the far end, the work is turned round: it is walked
// from the far wire down, and what was laid before hangs the other way up at its end.
// Each strand then has one run, and is a worker from the far wire on. The piece is
// turned back where it is looked at.

// doubled is a strand's way to the far hardware and back.
type doubled struct {
	of       *leg
	down, up *leg // up is nil where the work was turned round
	section  int
	points   int // of the leg when it began
	parts    int
}

// turnedRound is what was laid when the work was turned round.
type turnedRound struct {
	y                        float64 // how far it reached, mm
	tops, cuts, beads, cores int     // how many there were
	sections                 int
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
	step := stepOf(i, s.Do, 1)
	step.MM = w.d.Purpose.BetweenMM
	names := move.Names{}
	for _, l := range w.hanging {
		names.Cords = append(names.Cords, w.d.Cords[l.cord].ID)
	}
	moves := k.RunsBack(s, len(w.hanging))
	if now := w.o.Until - w.actions; w.o.Until > 0 && now <= len(moves) {
		w.moving, w.movedY, w.places = ledBy(moves[now-1], w.hanging), w.y, slices.Clone(w.hanging)
	}
	for _, m := range moves {
		if w.d.Purpose.BetweenMM == 0 {
			m.Detail = "Pin both ends; the last knot comes to lie against the far hardware."
		}
		step.Actions = append(step.Actions, w.action(m, names, w.hanging))
	}
	w.plan.Steps = append(w.plan.Steps, step)
	w.plan.Actions += len(step.Actions)
	sec := Section{Index: i, Do: s.Do, TopMM: w.y, GapShare: 1, Use: []Use{}, OrderAfter: []string{}}
	run := len(w.hanging) // so many have run already
	if come := w.comeInto(); come < float64(run) {
		run = int(come + fromHalf)
	}
	var y float64
	if knot.TermsOf(s).FromFar {
		y = w.runFromFar(&sec, *far)
	} else {
		y = w.runThereAndBack(&sec, run)
	}
	for _, l := range w.hanging {
		sec.OrderAfter = append(sec.OrderAfter, w.label(l))
	}
	w.size.runs += len(w.hanging)
	sec.HeightMM = y - sec.TopMM
	w.keep(sec, sec.TopMM, y)
	w.cuts = append(w.cuts, y)
	w.y, w.clear, w.open = y, 0, 0
	w.actions += len(step.Actions)
	w.stop = w.o.Until > 0 && w.actions >= w.o.Until
	return nil
}

// sideBySide are the x of so many strands of each that hangs, all in one row.
func (w *walk) sideBySide(of int) (xs []float64, thick float64) {
	var row []knot.Strand
	for _, l := range w.hanging {
		for range of {
			row = append(row, w.strand(l, 0, w.y))
		}
	}
	xs, _, thick = knot.SideBySide(row)
	return xs, thick
}

// runThereAndBack leads each strand into its run down, and from its run back over to
// where it goes on, the first so many of them; it gives the y where all hang straight.
func (w *walk) runThereAndBack(sec *Section, run int) float64 {
	xs, thick := w.sideBySide(3)
	n := len(w.hanging)
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
	y := w.y + math.Max(knot.Fall(from, to, thick), 0.8*thick) + 0.6*thick
	hanging := make([]*leg, 3*n)
	for j, l := range w.hanging {
		down, up, out := place(j)
		if hanging[out] = l; j >= run { // it waits
			continue
		}
		a := r3.Vec{X: xs[down], Y: y}
		way := append([]r3.Vec{l.at}, knot.Join(l.at, a, l.dir, r3.Vec{Y: 1})...)
		l.free(sec.Index, knot.Free, way[1:]...)
		r := w.doubled(l, sec.Index, a)
		r.down.name = w.label(l) + " down"
		r.up = &leg{cord: l.cord, n: l.n, name: w.label(l) + " up", at: r3.Vec{X: xs[up], Y: y}, dir: r3.Vec{Y: 1}}
		turn := over(r.up.at, r3.Vec{X: xs[out], Y: y})
		w.goOn(l, sec, j, turn, curve.Curve{Points: way}.Length())
		w.runs = append(w.runs, r)
		hanging[down], hanging[up] = r.down, r.up
	}
	w.hanging = slices.DeleteFunc(hanging, func(l *leg) bool { return l == nil })
	return y
}

// runFromFar turns the work round: each strand comes up from below to the far wire, goes
// over it and on down beside its run. It gives the y where all hang straight, from the
// far wire.
func (w *walk) runFromFar(sec *Section, far piece.Hardware) float64 {
	slices.Reverse(w.hanging)
	xs, thick := w.sideBySide(2)
	n := len(w.hanging)
	w.turned = &turnedRound{y: w.y, tops: len(w.tops), cuts: len(w.cuts), beads: len(w.beads), cores: len(w.cores), sections: len(w.plan.Sections)}
	place := func(j int) (run, out int) { // of strand j among the row
		if 2*j < n {
			return 2*j + 1, 2 * j
		}
		return 2 * j, 2*j + 1
	}
	y := 0.0
	for j, l := range w.hanging {
		run, out := place(j)
		deep := w.wireDepth(l, far)
		behind, beside := knot.Way{At: r3.Vec{X: (xs[run] + xs[out]) / 2, Z: -deep}, Dir: r3.Vec{Y: 1}}, knot.Way{At: r3.Vec{X: xs[out]}, Dir: r3.Vec{Y: 1}}
		y = math.Max(y, math.Max(straightAbove(deep, thick), knot.Fall([]knot.Way{behind}, []knot.Way{beside}, thick)))
	}
	hanging := make([]*leg, 2*n)
	for j, l := range w.hanging {
		run, out := place(j)
		r := w.doubled(l, sec.Index, r3.Vec{X: xs[run], Y: y})
		r.down.name = w.label(l) + " run"
		bend := roundWire(r.down.at, r3.Vec{X: xs[out], Y: y}, 0, w.wireDepth(l, far), y, -1)
		w.goOn(l, sec, j, append([]r3.Vec{r.down.at}, bend...), 0)
		w.runs = append(w.runs, r)
		hanging[run], hanging[out] = r.down, l
	}
	w.hanging = hanging
	sec.TopMM, w.y = 0, 0
	return y
}

// doubled begins the run of a strand at a place.
func (w *walk) doubled(l *leg, section int, at r3.Vec) doubled {
	l.together()
	return doubled{of: l, section: section, points: len(l.points), parts: len(l.parts), down: &leg{cord: l.cord, n: l.n, at: at, dir: r3.Vec{Y: 1}}}
}

// goOn leads a strand along the turn from its run to where it goes on. Beside the turn
// it has taken so much.
func (w *walk) goOn(l *leg, sec *Section, j int, turn []r3.Vec, beside float64) {
	l.free(sec.Index, knot.Free, turn...)
	l.dir = r3.Vec{Y: 1}
	mm := beside + curve.Curve{Points: turn}.Length()
	l.takes(sec.Index, mm)
	l.rulered++
	l.worked = true
	sec.Use = append(sec.Use, Use{Strand: j + 1, Cord: w.d.Cords[l.cord].ID, MM: mm})
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

// runsOut ends the runs at the far hardware, or where the work was turned round at what
// was laid before, and puts them into their legs. It notes how far the two wires lie
// apart, says whether the knots fit between, and fails where not one does.
func (w *walk) runsOut() error {
	if len(w.runs) == 0 {
		return nil
	}
	far := *w.d.Purpose.EndsOn
	bottom, needs, d := 0.0, 0.0, 0.0
	var from, to []knot.Way
	for _, r := range w.runs {
		bottom = math.Max(bottom, r.down.at.Y)
		d = math.Max(d, w.thick(r.of))
		if r.up != nil {
			bottom = math.Max(bottom, r.up.at.Y)
			needs = math.Max(needs, straightAbove(w.wireDepth(r.of, far), w.thick(r.of)))
			continue
		}
		end, dir := r.laidEnd()
		from, to = append(from, knot.Way{At: r.down.at, Dir: r3.Vec{Y: 1}}), append(to, knot.Way{At: r3.Vec{X: -end.X, Z: end.Z}, Dir: dir})
	}
	if w.turned != nil {
		needs = w.turned.y + math.Max(knot.Fall(from, to, d), 0.8*d)
	}
	least := bottom + needs
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
		if r.up != nil {
			w.putIn(r, roundWire(r.down.at, r.up.at, w.far, w.wireDepth(r.of, far), straightAbove(w.wireDepth(r.of, far), w.thick(r.of)), 1))
			continue
		}
		// The straight part hangs below the knots, the joint lies where the strand was.
		end, dir := r.laidEnd()
		end = w.over(end)
		high := needs - w.turned.y
		begin := r3.Vec{X: r.down.at.X, Y: end.Y - high, Z: r.down.at.Z}
		way := knot.Join(begin, end, r3.Vec{Y: 1}, dir)
		if begin.Y > r.down.at.Y+1e-9 {
			way = append([]r3.Vec{begin}, way...)
		}
		w.putIn(r, way)
	}
	w.turnOver()
	return nil
}

// wireDepth is how far the middle of a strand lies from the middle of a wire.
func (w *walk) wireDepth(l *leg, wire piece.Hardware) float64 { return wire.WireMM/2 + w.thick(l)/2 }

// straightAbove is how far from the middle of a wire strands of thickness d begin to
// part to both of its sides, deep from it.
func straightAbove(deep, d float64) float64 { return 0.9*deep + 0.6*d }

// roundWire leads a strand from a place, in front of the wire at y, deep from it, round
// it and back to another place behind it; down is -1 where it comes from below. As far
// as part from the wire it hangs straight.
func roundWire(from, to r3.Vec, y, deep, part, down float64) []r3.Vec {
	side := (from.X + to.X) / 2
	front, back := r3.Vec{X: side, Y: y, Z: deep}, r3.Vec{X: side, Y: y, Z: -deep}
	dir := r3.Vec{Y: down}
	straight := y - down*part
	var out, rise []r3.Vec
	if down*(straight-from.Y) > 0 { // what is left bare hangs straight
		from.Y = straight
		out = append(out, from)
	}
	out = append(out, knot.Join(from, front, dir, dir)...)
	for k := 1; k < 12; k++ {
		sin, cos := math.Sincos(math.Pi * float64(k) / 12)
		out = append(out, r3.Vec{X: side, Y: y + down*deep*sin, Z: deep * cos})
	}
	out = append(out, back)
	if down*(straight-to.Y) > 0 {
		rise = append(rise, to)
		to.Y = straight
	}
	out = append(out, knot.Join(back, to, r3.Scale(-1, dir), r3.Scale(-1, dir))...)
	return append(out, rise...)
}

// laidEnd is where what was laid of a strand before its run ends, and the way it leads.
func (r doubled) laidEnd() (at, dir r3.Vec) {
	pts := r.of.points[:r.points]
	n := len(pts)
	dir = knot.Heading(pts[max(0, n-4):], true)
	dir.Z = -dir.Z // turned round, and walked from its end
	return pts[n-1], dir
}

// over is where a place of what was laid before lies once the work is turned round.
func (w *walk) over(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: w.far - v.Y, Z: v.Z} }

// upsideDown tells whether the piece is walked the other way up than it hangs.
func (w *walk) upsideDown() bool { return w.fromBall() || w.turned != nil }

// turnOver turns what was laid before the work was turned round.
func (w *walk) turnOver() {
	t := w.turned
	if t == nil {
		return
	}
	for i := range w.beads[:t.beads] {
		w.beads[i].At = w.over(w.beads[i].At)
	}
	for i := range w.cores[:t.cores] {
		w.cores[i].At = w.over(w.cores[i].At)
		w.cores[i].Sides = curve.Curve{Points: w.cores[i].Sides}.Map(func(v r3.Vec) r3.Vec { return r3.Sub(w.over(v), w.over(r3.Vec{})) }).Points
	}
	for i := range w.cuts[:t.cuts] {
		w.cuts[i] = w.far - w.cuts[i]
	}
	for i, y := range w.tops[:t.tops] {
		w.tops[i] = [2]float64{w.far - y[1], w.far - y[0]}
	}
	for i := range w.plan.Sections[t.sections:] { // in the order in which they are tied
		w.plan.Sections[t.sections+i].TopMM += t.y
	}
}

// putIn puts a run, and what joins it to what comes before or after it, into the leg
// that it is a part of.
func (w *walk) putIn(r doubled, bend []r3.Vec) {
	l := r.of
	l.together()
	r.down.together()
	points, section, lies := slices.Clone(l.points[:r.points]), slices.Clone(l.section[:r.points]), slices.Clone(l.lies[:r.points])
	parts := slices.Clone(l.parts[:r.parts])
	free := func(pts []r3.Vec, order func([]r3.Vec) iter.Seq2[int, r3.Vec]) {
		for _, v := range order(pts) {
			points, section, lies = append(points, v), append(section, r.section), append(lies, knot.Free)
		}
	}
	up := func(l *leg) {
		for k := range slices.Backward(l.points) {
			points, section, lies = append(points, l.points[k]), append(section, l.section[k]), append(lies, l.lies[k])
		}
		for _, p := range slices.Backward(l.parts) {
			parts = append(parts, p)
		}
	}
	mm := 0.0
	joins := func(way []r3.Vec) {
		for _, v := range way {
			l.reaches(v.Y, math.Abs(v.X))
		}
		mm = curve.Curve{Points: way}.Length()
		parts = append(parts, Part{r.section, mm})
		for k := range w.plan.Sections {
			if s := &w.plan.Sections[k]; s.Index == r.section {
				s.Use = append(s.Use, Use{Strand: 0, Cord: w.d.Cords[l.cord].ID, MM: mm})
			}
		}
	}
	if r.up != nil {
		r.up.together()
		points, section, lies = append(points, r.down.points...), append(section, r.down.section...), append(lies, r.down.lies...)
		parts = append(parts, r.down.parts...)
		free(bend, slices.All)
		joins(slices.Concat([]r3.Vec{r.down.at}, bend, []r3.Vec{r.up.at}))
		up(r.up)
		l.ties, l.rulered, l.rough = append(l.ties, r.up.ties...), l.rulered+r.up.rulered, l.rough+r.up.rough
	} else {
		for k, v := range points {
			points[k] = w.over(v)
		}
		free(bend, slices.Backward)
		joins(slices.Concat([]r3.Vec{r.down.at}, bend))
		up(r.down)
	}
	l.points, l.section, l.lies = append(points, l.points[r.points:]...), append(section, l.section[r.points:]...), append(lies, l.lies[r.points:]...)
	l.parts = append(parts, l.parts[r.parts:]...)
	l.ties, l.rulered, l.rough = append(l.ties, r.down.ties...), l.rulered+r.down.rulered+1, l.rough+r.down.rough
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
