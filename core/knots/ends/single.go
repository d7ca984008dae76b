package ends

import (
	"fmt"
	"math"

	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/prepare"

	"gonum.org/v1/gonum/spatial/r3"
)

// looped bends each end to an eye of so many mm inside, its tip against its own part.
func looped(w knot.Work, _ Settings, _ finish.Finish, t *knot.Tied) error {
	for i, l := range w.Strands {
		d, e := l.Diameter, &t.Endings[i]
		inside := e.LeavesMM
		if inside < 2*d {
			return &knot.Refused{Field: "length_mm", Why: fmt.Sprintf("a loop of %g mm inside; a cord of %.1f mm takes no bend below %.1f mm", inside, d, 2*d), Set: math.Ceil(2 * d), Label: fmt.Sprintf("Make it %g mm", math.Ceil(2*d))}
		}
		r := (inside + d) / 2 // of its middle line
		// The ring stands below a short straight part, and touches that part where it ends.
		stem := d
		pts := []r3.Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: stem, Z: l.At.Z}}
		side := 1.0
		if l.At.X < 0 {
			side = -1
		}
		const steps = 40
		turn := 2*math.Pi - 2*math.Asin(math.Min(1, d/(2*r)))
		for k := 1; k <= steps; k++ {
			a := turn * float64(k) / steps
			pts = append(pts, r3.Vec{X: l.At.X + side*r*(1-math.Cos(a)), Y: stem + r*math.Sin(a), Z: l.At.Z - 0.4*d*float64(k)/steps})
		}
		long := 0.0
		for k := 1; k < len(pts); k++ {
			long += r3.Norm(r3.Sub(pts[k], pts[k-1]))
		}
		e.LeavesMM, e.CutMM = long, long
		t.Paths = append(t.Paths, knot.Path{Points: pts})
		t.Height = math.Max(t.Height, stem+r+d/2)
	}
	return nil
}

// buried turns each end to the back and leads it up under so many strands that lie over
// its way there, as they lie on the curve.
func buried(w knot.Work, set Settings, f finish.Finish, t *knot.Tied) error {
	under := set.Under
	if under == 0 {
		under = finish.LeastUnder
	}
	for i, l := range w.Strands {
		d, e := l.Diameter, &t.Endings[i]
		var covers []knot.Cover
		if w.Covers != nil {
			covers = w.Covers(i)
		}
		if n := len(covers); n < under {
			r := &knot.Refused{Field: "under", Why: fmt.Sprintf("%d; the end of strand %d passes under %d crossing%s at the back of what is tied above it", under, i+1, n, knot.Plural(n)), Set: n, Label: fmt.Sprintf("Bury them under %d", n)}
			if n == 0 {
				instead, _ := finish.Get(finish.Instead(l.Stuff))
				r.Field, r.Set, r.Label = "how", instead.ID, "Use "+instead.Name+" instead"
				r.Why = fmt.Sprintf("%s: nothing is tied above strand %d that its end could be led under", f.Name, i+1)
			}
			return r
		}
		covers = covers[:under]
		x := covers[0].At.X
		// Out of the knot, round to the back and up, below each of those that cover it.
		pts := []r3.Vec{{X: l.At.X, Z: l.At.Z}}
		back := covers[0].At.Z + 0.6*d
		pts = append(pts, knot.Join(pts[0], r3.Vec{X: (l.At.X + x) / 2, Y: 0.75 * d, Z: math.Min(l.At.Z, back) - 0.9*d}, r3.Vec{Y: 1}, r3.Vec{Z: -0.4, Y: -0.1, X: sign(x - l.At.X)})...)
		for _, c := range covers {
			pts = append(pts, r3.Vec{X: c.At.X, Y: c.At.Y, Z: c.At.Z + 0.6*d})
		}
		last := covers[under-1].At
		pts = append(pts, r3.Vec{X: last.X, Y: last.Y - 0.6*d, Z: last.Z + 0.5*d})
		pts = eased(pts, d)
		long := 0.0
		for k := 1; k < len(pts); k++ {
			long += r3.Norm(r3.Sub(pts[k], pts[k-1]))
		}
		e.HidesMM, e.LeavesMM, e.CutMM, e.Under = long, 0, 0, under
		if needle, ok := prepare.Get("needle"); ok {
			t.Threads = append(t.Threads, knot.Thread{Strands: []int{i}, Passing: knot.Passing{Preparation: needle}})
		}
		t.Paths = append(t.Paths, knot.Path{Points: pts})
	}
	t.Moves = Moves(f, t.Endings, under)
	return nil
}

func sign(v float64) float64 {
	if math.Abs(v) < 1e-9 {
		return 0
	}
	return math.Copysign(0.6, v)
}

// eased rounds the corners of a line: points no more than a third of a diameter apart,
// each drawn a little towards its neighbours' middle, its ends kept.
func eased(pts []r3.Vec, d float64) []r3.Vec {
	var out []r3.Vec
	for k := range pts {
		if k > 0 {
			n := int(math.Ceil(r3.Norm(r3.Sub(pts[k], pts[k-1])) / (d / 3)))
			for j := 1; j < n; j++ {
				u := float64(j) / float64(n)
				out = append(out, r3.Add(r3.Scale(1-u, pts[k-1]), r3.Scale(u, pts[k])))
			}
		}
		out = append(out, pts[k])
	}
	for range 6 {
		next := append([]r3.Vec(nil), out...)
		for k := 1; k+1 < len(out); k++ {
			next[k] = r3.Add(r3.Scale(0.5, out[k]), r3.Scale(0.25, r3.Add(out[k-1], out[k+1])))
		}
		out = next
	}
	return out
}
