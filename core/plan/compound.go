package plan

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

// compound walks a section that holds others: a repeat, or rows side by side.
// What is tied in it counts as one section of the plan.
func (w *walk) compound(i int, path string, k knot.Knot, s knot.Section) error {
	into := w.into
	sec := &Section{Index: i, Do: s.Do, Count: s.Count, TopMM: w.y, GapShare: math.Inf(1), Use: []Use{}, OrderAfter: []string{}}
	w.into = sec
	var err error
	cross := 0
	if k.Cross != nil {
		cross = k.Cross(s)
	}
	again := k.Holds == knot.Again
	w.knotted[i] = true
	if again {
		err = w.repeated(i, path, s)
	} else {
		err = w.rows(i, path, s, cross)
	}
	w.into = into
	if err != nil {
		return err
	}
	if math.IsInf(sec.GapShare, 1) {
		sec.GapShare = 1
	}
	sec.HeightMM = w.y - sec.TopMM
	if again && s.Count > 0 {
		sec.KnotMM = sec.HeightMM / float64(s.Count)
	}
	sec.OrderAfter = sec.OrderAfter[:0]
	for _, l := range w.hanging {
		sec.OrderAfter = append(sec.OrderAfter, w.label(l))
	}
	sec.Use = addUp(sec.Use)
	w.keep(*sec, sec.TopMM, w.y)
	return nil
}

// addUp adds the uses of one strand and cord together.
func addUp(us []Use) []Use {
	type key struct {
		strand int
		cord   string
	}
	at := map[key]int{}
	out := []Use{}
	for _, u := range us {
		k := key{u.Strand, u.Cord}
		if n, ok := at[k]; ok {
			out[n].MM += u.MM
			out[n].Works = out[n].Works || u.Works
			continue
		}
		at[k] = len(out)
		out = append(out, u)
	}
	return out
}

func (w *walk) repeated(i int, path string, s knot.Section) error {
	for range max(1, s.Count) {
		for j, q := range s.Sequence {
			if w.stop {
				return nil
			}
			if err := w.section(i, fmt.Sprintf("%s.sequence[%d]", path, j), q); err != nil {
				return err
			}
		}
	}
	return nil
}

// moment is what a trial walk must put back.
type moment struct {
	walk walk
	legs []leg
}

func (w *walk) remember() moment {
	m := moment{walk: *w}
	for _, l := range w.legs {
		m.legs = append(m.legs, *l)
	}
	m.walk.hanging = slices.Clone(w.hanging)
	if w.into != nil {
		into := *w.into
		m.walk.into = &into
	}
	return m
}

func (w *walk) putBack(m moment) {
	into := w.into
	*w = m.walk
	if into != nil {
		*into = *m.walk.into
		w.into = into
	}
	for k, l := range w.legs {
		*l = m.legs[k]
	}
}

// rows ties rows side by side, each on strands of its own, and crosses them.
func (w *walk) rows(i int, path string, s knot.Section, cross int) error {
	taken := map[int]bool{}
	rowPath := func(r int) string { return fmt.Sprintf("%s.rows[%d]", path, w.ownRow(r, len(s.Rows))) }
	for r := range s.Rows { // in the maker's order
		r = w.ownRow(r, len(s.Rows))
		row := s.Rows[r]
		if err := w.checkPlaces(rowPath(r), "strands", row.Strands); err != nil {
			return err
		}
		for k, p := range row.Strands {
			if taken[p] {
				at := rowPath(r) + ".strands"
				left := w.ownPlaces(slices.Delete(slices.Clone(row.Strands), k, k+1))
				p = w.ownPlaces([]int{p})[0]
				return piece.Problems{{Path: at, Message: fmt.Sprintf("takes place %d, which another row has already; a strand is in one row only", p),
					Fix: &Fix{Label: fmt.Sprintf("Leave place %d out of row %d", p, w.ownRow(r, len(s.Rows))+1), Set: []Set{{Path: at, Value: left}}}}}
			}
			taken[p] = true
		}
	}
	if len(taken) != len(w.hanging) {
		return problem(path, "rows", "take %d of the %d strands; every strand belongs to a row, if only to a gap in one", len(taken), len(w.hanging))
	}
	if cross > 0 { // they are bent afterwards
		for _, l := range w.legs {
			l.together()
		}
	}
	all, y0 := slices.Clone(w.hanging), w.y
	outerPlaces := w.rowPlaces
	places := make([][]int, len(s.Rows)) // in the whole piece
	for r, row := range s.Rows {
		places[r] = w.whole(row.Strands)
	}
	tieRow := func(r int, middle float64) error {
		row := s.Rows[r]
		w.hanging = w.hanging[:0:0]
		for _, p := range row.Strands {
			w.hanging = append(w.hanging, all[p-1])
		}
		w.y, w.rowMiddle, w.rowPlaces = y0, middle, places[r]
		defer func() { w.rowPlaces = outerPlaces }()
		for j, q := range row.Sequence {
			if w.stop {
				break
			}
			if err := w.section(i, fmt.Sprintf("%s.sequence[%d]", rowPath(r), j), q); err != nil {
				return err
			}
		}
		return nil
	}
	outer := w.rowMiddle
	clear := w.clear
	// A trial tells how wide each row is; then they are tied beside one another.
	wide := make([]float64, len(s.Rows))
	before := w.remember()
	for r := range s.Rows {
		w.o.Until = 0 // whole rows, also where the vise has not come so far
		if err := tieRow(r, 0); err != nil {
			return err
		}
		for k, l := range w.legs {
			d := w.thick(l)
			for _, q := range l.stretches[len(before.legs[k].stretches):] {
				for n := range q.points {
					if v := q.at(n); v.Y > y0+clear+3*d || v == l.at {
						wide[r] = math.Max(wide[r], 2*math.Abs(v.X)+d)
					}
				}
			}
		}
		w.putBack(before)
	}
	total := 0.0
	for _, v := range wide {
		total += v
	}
	spread := 1.0
	if cross > 0 {
		spread = crossRoom
	}
	var hands [][]*leg
	var bottoms, middles []float64
	var from []map[*leg]int
	x := outer - spread*total/2
	for r := range s.Rows {
		middle := x + spread*wide[r]/2
		x += spread * wide[r]
		mark := map[*leg]int{}
		for _, p := range s.Rows[r].Strands {
			mark[all[p-1]] = len(all[p-1].points)
		}
		if w.stop { // the vise has not come to this row
			hands = append(hands, strandsOf(all, s.Rows[r].Strands))
			bottoms, middles, from = append(bottoms, y0), append(middles, middle), append(from, mark)
			continue
		}
		w.clear = clear
		if err := tieRow(r, middle); err != nil {
			return err
		}
		hands, bottoms, middles, from = append(hands, w.hanging), append(bottoms, w.y), append(middles, middle), append(from, mark)
	}
	w.rowMiddle = outer
	bottom := slices.Max(bottoms)
	if !w.stop {
		w.unequal(i, path, s, cross, bottoms, y0)
	}
	for _, hand := range hands {
		for _, l := range hand {
			if bottom-l.at.Y > 1e-6 && !w.stop {
				w.straight(l, i, bottom)
			}
		}
	}
	w.y = bottom
	w.hanging = w.hanging[:0:0]
	crossed := 0 // so often they are crossed by now
	if cross > 0 && !w.stop {
		crossed = w.crossing(i, s, cross)
	}
	odd := crossed%2 == 1
	for r := range hands {
		if odd {
			r = len(hands) - 1 - r
		}
		w.hanging = append(w.hanging, hands[r]...)
	}
	if crossed > 0 {
		w.crossed(i, crossed, y0, bottom, wide, middles, from)
	}
	return nil
}

// crossing puts the crossing of rows among the steps and tells how often it has
// come by now.
func (w *walk) crossing(i int, s knot.Section, times int) int {
	m := move.Move{Strand: move.All, From: move.Right, To: move.Left, Passes: []move.Pass{{How: move.Over}},
		Text: "Lay the row at the {from} {above 0} the row at the {to}.", Detail: "Each keeps its own face to the front.",
		Gate: "Both rows lie flat, one in front of the other, and are equally long."}
	if w.o.LeftHanded {
		m = m.Mirror(0)
	}
	if last := len(w.plan.Steps) - 1; last >= 0 && w.plan.Steps[last].Section == i {
		row := &w.plan.Steps[last]
		row.Gates = append(row.Gates, Gate{At: row.Repeats, Says: "Before they are crossed both rows are equally long; untie or push up the longer one till they are."})
	}
	step := stepOf(i, s.Do, times)
	step.Actions = append(step.Actions, w.action(m, move.Names{}, nil))
	w.plan.Steps = append(w.plan.Steps, step)
	w.plan.Actions += times
	before := w.actions
	w.actions += times
	if w.o.Until > 0 && w.actions >= w.o.Until {
		w.stop = true
		return w.o.Until - before
	}
	return times
}

func strandsOf(all []*leg, places []int) []*leg {
	var out []*leg
	for _, p := range places {
		out = append(out, all[p-1])
	}
	return out
}

// straight leads a strand straight down to y.
func (w *walk) straight(l *leg, i int, y float64) {
	mm := y - l.at.Y
	l.free(i, knot.Free, r3.Vec{X: l.at.X, Y: y, Z: l.at.Z})
	l.takes(i, mm)
	if w.into != nil {
		w.into.Use = append(w.into.Use, Use{Strand: 0, Cord: w.d.Cords[l.cord].ID, MM: mm})
	}
	l.rulered++
	l.dir = r3.Vec{Y: 1}
}

// unequal warns of rows that do not come out alike and says by how much.
func (w *walk) unequal(i int, path string, s knot.Section, cross int, bottoms []float64, y0 float64) {
	long, short := 0, 0
	for r, b := range bottoms {
		if b > bottoms[long] {
			long = r
		}
		if b < bottoms[short] {
			short = r
		}
	}
	off := bottoms[long] - bottoms[short]
	own := func(r int) int { return w.ownRow(r, len(s.Rows)) }
	w.plan.Checks = append(w.plan.Checks, Check{"rows-equal", i, "The rows are equally long before they are crossed or gathered."})
	if off < 1 || cross == 0 {
		return
	}
	var fix *Fix
	if q := s.Rows[short].Sequence; len(q) == 1 && q[0].Count > 0 {
		each := (bottoms[short] - y0) / float64(q[0].Count)
		if n := q[0].Count + int(math.Round(off/each)); n != q[0].Count {
			knots := fmt.Sprintf("%s.rows[%d].sequence[0]", path, own(short))
			fix = &Fix{Label: fmt.Sprintf("Tie %d in row %d", n, own(short)+1), Set: []Set{{Path: knots + ".count", Value: n}}}
			if q[0].FitMM != 0 { // a count in the place of the length that it fills
				fix.Set = append(fix.Set, Set{Path: knots + ".fit_mm", Value: 0})
			}
		}
	}
	w.say("rows-unequal", i, fix, "Row %d comes out {%.1fmm} longer than row %d; crossed, the longer one bulges.", own(long)+1, off, own(short)+1)
}

// crossRoom is by how much wider two rows stand that are crossed: they must
// have passed each other in depth before they pass across.
const crossRoom = 1.35

// entry is where a strand comes into a row, from point k on, and where the row's knots
// begin on it.
func entry(l *leg, k int) (begins, knots float64) {
	begins = l.points[max(0, k-1)].Y
	for p := k; p < len(l.points); p++ {
		if l.lies[p] != knot.Knotted && l.lies[p] != knot.Free {
			return begins, math.Max(begins, l.points[p].Y)
		}
	}
	return begins, begins
}

// crossed winds two rows over each other n times between y0 and bottom: their
// middle lines change sides and lie one before the other where they pass. What
// was tied straight is bent along them; nothing is stretched.
func (w *walk) crossed(i, n int, y0, bottom float64, wide, middles []float64, from []map[*leg]int) {
	centre := (middles[0] + middles[1]) / 2
	half := (middles[1] - middles[0]) / 2
	thick := 0.0
	top := bottom
	for _, m := range from {
		for l, k := range m {
			d := w.thick(l)
			l.together()
			l.dense(k, d/2)
			for _, v := range l.points[k:] {
				thick = math.Max(thick, 2*math.Abs(v.Z)+d)
				if math.Abs(v.X-centre) > half*0.6 {
					top = math.Min(top, v.Y)
				}
			}
		}
	}
	length := bottom - top
	if length <= 0 {
		return
	}
	front := 1.0
	if w.o.LeftHanded {
		front = -1
	}
	// middle is where a row's middle line runs, u from 0 to 1 along it.
	middle := func(side, u float64) (x, z float64) {
		phase := math.Pi * float64(n) * u
		s := math.Sin(phase)
		const full = 0.62 // of the sine at which it lies full in front
		depth := math.Max(-1, math.Min(1, s/full))
		depth = math.Sin(depth * math.Pi / 2)
		return side * half * math.Cos(phase), front * side * thick / 2 * 1.04 * depth
	}
	// The middle line is longer than it is high: find the height at which its
	// length is that of the row.
	const parts = 240
	var aside [parts]float64 // of each part's length, squared
	px, pz := middle(1, 0)
	for k := range aside {
		x, z := middle(1, float64(k+1)/parts)
		aside[k] = (x-px)*(x-px) + (z-pz)*(z-pz)
		px, pz = x, z
	}
	at := make([]float64, parts+1) // length of the middle line at the end of each part
	lengthOf := func(high float64) float64 {
		for k, a := range aside {
			at[k+1] = at[k] + math.Sqrt(a+high*high/parts/parts)
		}
		return at[parts]
	}
	lo, hi := 0.05*length, length
	for range 40 {
		if lengthOf((lo+hi)/2) > length {
			hi = (lo + hi) / 2
		} else {
			lo = (lo + hi) / 2
		}
	}
	high := (lo + hi) / 2
	lengthOf(high)
	// along finds u for a length along the middle line.
	along := func(s float64) float64 {
		k, _ := slices.BinarySearch(at, s)
		if k == 0 {
			return 0
		}
		if k > parts {
			return 1
		}
		return (float64(k-1) + (s-at[k-1])/(at[k]-at[k-1])) / parts
	}
	// read is the middle line of the right row where it was worked out before.
	fine := 500 * n
	line := make([][2]float64, fine+1)
	for k := range line {
		line[k][0], line[k][1] = middle(1, float64(k)/float64(fine))
	}
	read := func(side, u float64) (x, z float64) {
		u *= float64(fine)
		k := min(int(u), fine-1)
		a, b, t := line[k], line[k+1], u-float64(k)
		return side * (a[0] + t*(b[0]-a[0])), side * (a[1] + t*(b[1]-a[1]))
	}
	for r, m := range from {
		side := float64(2*r - 1)
		for l, k := range m {
			was := curve.Curve{Points: l.points[max(0, k-1):]}.Length()
			begins, knots := entry(l, k)
			for p := k; p < len(l.points); p++ {
				v := l.points[p]
				if v.Y < top {
					continue
				}
				if l.lies[p] == knot.InRow { // it no longer stands upright
					l.lies[p] = knot.Snug
				}
				u := along(v.Y - top)
				x, z := read(side, u)
				x1, _ := read(side, math.Min(1, u+0.004))
				x0, _ := read(side, math.Max(0, u-0.004))
				lean := math.Atan2(x1-x0, high*(math.Min(1, u+0.004)-math.Max(0, u-0.004)))
				// Half turned, half sheared: a band that is bent across its
				// width neither stands upright nor turns all the way.
				sin, cos := math.Sincos(lean / 2)
				across := v.X - middles[r]
				bent := r3.Vec{X: centre + x + across*cos, Y: top + u*high - across*sin, Z: v.Z + z}
				// A strand comes from where it hung, and is where the band is when its
				// knots begin.
				if v.Y < knots {
					share := math.Max(0, (v.Y-begins)/(knots-begins))
					bent = curve.Lerp(v, bent, share*share*(3-2*share))
				}
				l.points[p] = bent
			}
			now := curve.Curve{Points: l.points[max(0, k-1):]}.Length()
			if len(l.parts) > 0 {
				l.parts[len(l.parts)-1].MM += now - was
				w.into.Use = append(w.into.Use, Use{Cord: w.d.Cords[l.cord].ID, MM: now - was})
			}
			l.measured()
			l.at = l.points[len(l.points)-1]
			l.dir = r3.Vec{Y: 1}
		}
	}
	lift := length - high
	for c, y := range w.cuts {
		if y > top {
			w.cuts[c] = top + (y-top)*high/length
		}
	}
	w.cuts = slices.DeleteFunc(w.cuts, func(y float64) bool { return y > y0 && y < bottom-lift-1e-9 })
	for b, q := range w.beads {
		if q.At.Y > top {
			w.beads[b].At.Y = top + (q.At.Y-top)*high/length
		}
	}
	w.y = bottom - lift
}
