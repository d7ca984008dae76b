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

// folded is a band that was folded back: what comes now wraps both its parts,
// and its ends point up.
type folded struct {
	at    float64 // y where the end meets the band
	thick float64
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
			p.Fix = &Fix{Label: fmt.Sprintf("Tie %d instead of %d", n+more, n), Set: []Set{{Path: fmt.Sprintf("sequence[%d].count", j), Value: n + more}}}
		}
		return piece.Problems{p}
	}
	length := 2*inner + around
	at := w.y - length
	loop := newLoop(length, thick)
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
	w.keep(sec, at, bottom)
	w.fold = &folded{at: at, thick: thick}
	w.y, w.clear = at, 0
	step := Step{Section: i, Do: s.Do, Repeats: 1, MM: inner, Actions: []Action{}}
	for _, m := range k.FoldMoves(s) {
		step.Actions = append(step.Actions, w.action(m, move.Names{}, nil))
	}
	w.plan.Steps = append(w.plan.Steps, step)
	w.plan.Actions += len(step.Actions)
	w.actions += len(step.Actions)
	w.stop = w.o.Until > 0 && w.actions >= w.o.Until
	w.plan.Checks = append(w.plan.Checks, Check{"loop", i, fmt.Sprintf("The loop measures {%.0fmm} inside, laid flat, and has no twist.", inner)})
	return nil
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

// newLoop lays a band of a length into a drop-shaped loop: two legs that part
// slowly, and a half circle.
func newLoop(length, thick float64) loop {
	l := loop{thick: thick, wide: math.Max(0.09*length, 0.75*thick)}
	leg := func(drop float64) []r3.Vec {
		var out []r3.Vec
		const n = 80
		for k := 0; k <= n; k++ {
			u := float64(k) / n
			e := u * u * (3 - 2*u)
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
	for _, l := range w.legs {
		r := w.thick(l) / 2
		for _, v := range l.points {
			if v.Y >= w.fold.at-r && v.Y <= w.fold.at+high+r {
				out = append(out, knot.Disc{X: v.X, Z: v.Z, R: r})
			}
		}
	}
	return out
}
