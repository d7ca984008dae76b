package knot

import (
	"context"
	_ "embed" // the ways drawn up at build time
	"fmt"
	"math"
	"sync"

	"nimblebight/core/kept"
	"nimblebight/core/shape"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// A way is how a knot goes from the loose route to the drawn-up curve: a dozen
// key frames of the same nodes. Common ways are embedded; others are drawn when
// they are first asked for. At the vise a strand is led along the first frame,
// and when all are led the knot is drawn up frame by frame.

const (
	wayFrames = 12
	wayNodes  = 44 // of each strand
)

//go:embed ways.bin
var waysBin []byte

var (
	embeddedWays = sync.OnceValue(func() map[string]Shape {
		m, err := shape.Unpack(waysBin)
		if err != nil {
			panic("knot: the embedded ways cannot be read: run go generate ./core/knot: " + err.Error())
		}
		return m
	})
	ways kept.By[[]Shape]
)

// DrawWay draws the frames of a problem, from loose to tight.
func DrawWay(p tighten.Problem) ([]Shape, error) {
	r, err := tighten.Draw(context.Background(), p, tighten.Settings{PerDiameter: []float64{3}, Frames: wayFrames, Still: 1e-4})
	if err != nil {
		return nil, err
	}
	out := make([]Shape, len(r.Frames))
	for k, f := range r.Frames {
		out[k] = Shape{Pitch: r.Cells[k].Pitch, Twist: r.Cells[k].Twist, Gap: r.Gap}
		for _, c := range f {
			out[k].Strands = append(out[k].Strands, c.Resample(wayNodes).Points)
		}
	}
	return out, nil
}

// Embedded are the shapes and the frames of ways that are embedded now.
func Embedded() (shapes, frames map[string]Shape) { return embedded(), embeddedWays() }

func frameKey(key string, frame int) string { return fmt.Sprintf("%s #%d", key, frame) }

// way gives the frames of a problem by its key.
func way(key string, p func() tighten.Problem) ([]Shape, error) {
	if _, ok := embeddedWays()[frameKey(key, 0)]; ok {
		out := make([]Shape, wayFrames)
		for k := range out {
			out[k] = embeddedWays()[frameKey(key, k)]
		}
		return out, nil
	}
	return ways.Get(key, func() ([]Shape, error) { return DrawWay(p()) })
}

// frameAt is the shape between two frames, t from 0 (loose) to 1 (drawn up).
func frameAt(frames []Shape, t float64) Shape {
	x := math.Max(0, math.Min(1, t)) * float64(len(frames)-1)
	k := min(int(x), len(frames)-2)
	u := x - float64(k)
	a, b := frames[k], frames[k+1]
	out := Shape{Pitch: a.Pitch + u*(b.Pitch-a.Pitch), Twist: a.Twist + u*(b.Twist-a.Twist), Gap: a.Gap}
	for i := range a.Strands {
		s := make([]Vec, len(a.Strands[i]))
		for n := range s {
			s[n] = r3.Add(r3.Scale(1-u, a.Strands[i][n]), r3.Scale(u, b.Strands[i][n]))
		}
		out.Strands = append(out.Strands, s)
	}
	return out
}

// lead cuts a strand's way off where it has been led to, a share of its length,
// and lets the rest of it hang: on a little the way it was going, then down.
func lead(pts []Vec, share, d float64) []Vec {
	if share >= 1 {
		return pts
	}
	c := asCurve(pts)
	want := math.Max(0, share) * c.Length()
	out := []Vec{pts[0]}
	dir := Vec{Y: 1}
	for i := 1; i < len(pts); i++ {
		step := r3.Sub(pts[i], pts[i-1])
		l := r3.Norm(step)
		if l == 0 {
			continue
		}
		dir = r3.Scale(1/l, step)
		if l >= want {
			out = append(out, r3.Add(pts[i-1], r3.Scale(want, dir)))
			break
		}
		want -= l
		out = append(out, pts[i])
	}
	tip := out[len(out)-1]
	for k := 1; k <= 6; k++ {
		u := float64(k) / 6
		// It leaves along its way and bends down like a cord that is held.
		out = append(out, r3.Add(tip, Vec{
			X: d * 2.4 * dir.X * (u - u*u/2) * 2,
			Y: d * (2.4*dir.Y*(u-u*u)*2 + 5*u*u),
			Z: d * 2.4 * dir.Z * (u - u*u/2) * 2,
		}))
	}
	return out
}

// Hold is the part of a knot in hand. Action counts from 0 in the knot's round
// of actions; along, from 0 to 1, is how far it has come: the strand is led
// along its way, and with the last strand of a part the part is then drawn up.
// Closed half knots are told by w.HalfKnots, which may be zero. The second
// value is false for a knot whose way is not known.
func Hold(w Work, action int, along float64) (Tied, bool, error) {
	k, ok := Get(w.Section.Do)
	if !ok {
		return Tied{}, false, Unknown(w.Section.Do)
	}
	if k.hold == nil {
		return holdAny(w, action, along)
	}
	t, err := k.hold(w, action, along)
	t.Settle()
	return t, err == nil, err
}

// holdAny holds a knot whose way is not kept: its strands are led along the
// drawn-up curve, each as its turn comes.
func holdAny(w Work, action int, along float64) (Tied, bool, error) {
	w.Section.Count = min(1, w.Section.Count)
	t, err := Tie(w)
	if err != nil || action >= len(t.Actions) || !CanLead(w.Section, t.Actions[action]) {
		return Tied{}, false, err
	}
	out := t
	out.Cells, out.Beads = nil, nil
	led := func(p Path, lead1 int, d float64) Path {
		all, done := 0.0, 0.0
		for k, a := range t.Actions {
			if a.Moves != lead1 {
				continue
			}
			all++
			switch {
			case k < action:
				done++
			case k == action:
				done += along
			}
		}
		switch {
		case all == 0 || done == all:
			return Path{Points: p.Points}
		case done == 0:
			at := p.Points[0]
			return Path{Points: []Vec{at, {X: at.X, Y: at.Y + 2*d, Z: at.Z}, {X: at.X, Y: at.Y + 5*d, Z: at.Z}}}
		}
		return Path{Points: lead(p.Points, done/all, d)}
	}
	out.Paths, out.Own = make([]Path, len(t.Paths)), make([]Path, len(t.Own))
	for i, p := range t.Paths {
		out.Paths[i] = led(p, i, w.Leads[i].Diameter)
	}
	for i, p := range t.Own {
		out.Own[i] = led(p, len(t.Paths)+i, w.Own[i].Diameter)
	}
	out.Settle()
	return out, true, nil
}

// CanLead tells whether the strand that an action moves can be shown on its way.
// A cord that is put on by its fold has no end that is led.
func CanLead(s Section, a Action) bool { return a.Moves >= 0 && s.Do != "mount" }

// Led is the share of an action in which its strand is led, where the part is
// drawn up at the end of it.
const Led = 0.6

// parts tells how far the strands of a part of n actions are led, and how far
// it is drawn up, when action k of it has come along.
func parts(n, k int, along float64) (led []float64, drawn float64) {
	led = make([]float64, n)
	for i := range k {
		led[i] = 1
	}
	led[k] = along
	if k == n-1 {
		led[k] = math.Min(1, along/Led)
		drawn = math.Max(0, (along-Led)/(1-Led))
	}
	return led, drawn
}

// holdRow holds the half knot in hand of a row.
func holdRow(w Work, halves int, start string, action int, along float64) (Tied, error) {
	n := len(w.Leads)
	if n < 3 {
		return Tied{}, fmt.Errorf("%s needs two workers and a filler between them; it has %d strands", w.Section.Do, n)
	}
	leads := append([]Lead{}, w.Leads...)
	right := start == "right"
	if right {
		flipLeads(leads)
	}
	d := math.Max(leads[0].Diameter, leads[n-1].Diameter)
	thick := 0.0
	for _, l := range leads[1 : n-1] {
		thick = math.Max(thick, l.Diameter/d)
	}
	flat := halves == 2
	frames, err := wayOfRow(flat, n-2, thick)
	if err != nil {
		return Tied{}, err
	}
	led, drawn := parts(2, action%2, along)
	cell := func(s Shape) tighten.Cell { return tighten.Cell{Pitch: s.Pitch, Twist: s.Twist, Mirror: flat} }
	s := frameAt(frames, drawn)
	threads, _ := repeat(s, cell(s), 1)
	top := (threads[0][0].Y + threads[1][0].Y) / 2
	ky := 1 + (squeeze(leads)-1)*drawn
	t := Tied{Loose: true, Repeats: 1, Gap: 1, Height: s.Pitch * d * ky, Order: identity(n)}
	mm := func(pts []Vec) []Vec {
		return asCurve(pts).Map(func(v Vec) Vec { return Vec{X: d * v.X, Y: d * ky * (v.Y - top), Z: d * v.Z} }).Points
	}
	// The worker that crosses in front is led first; with each half knot the
	// workers have changed sides.
	front, behind := mm(threads[0]), mm(threads[1])
	if led[0] < 1 {
		front = lead(front, led[0], d)
	}
	if led[1] < 1 {
		if led[1] == 0 { // it still hangs
			at := behind[0]
			behind = []Vec{at, {X: at.X, Y: at.Y + 2*d, Z: at.Z}, {X: at.X, Y: at.Y + 5*d, Z: at.Z}}
		} else {
			behind = lead(behind, led[1], d)
		}
	}
	odd := flat && w.HalfKnots%2 == 1
	flip := func(pts []Vec) []Vec {
		if !odd {
			return pts
		}
		return asCurve(pts).Map(func(v Vec) Vec { return Vec{X: -v.X, Y: v.Y, Z: v.Z} }).Points
	}
	t.Paths = make([]Path, n)
	first, last := 0, n-1
	if odd {
		first, last = last, first
	}
	t.Paths[first], t.Paths[last] = Path{Points: flip(front)}, Path{Points: flip(behind)}
	var fillers []float64
	for _, l := range leads[1 : n-1] {
		fillers = append(fillers, l.Diameter)
	}
	row, _ := rowOf(fillers)
	x := -row / 2
	for i, f := range fillers {
		at := Vec{X: x + f/2}
		t.Paths[1+i] = Path{Points: []Vec{at, {X: at.X, Y: t.Height / 2}, {X: at.X, Y: t.Height}, {X: at.X, Y: t.Height + 3*d}}}
		x += f
	}
	if right {
		t.mirror(n)
	}
	return t, nil
}

// wayOfRow is the way of a half knot over n fillers of a thickness, in workers:
// that of the nearest row whose way is embedded.
func wayOfRow(flat bool, n int, thick float64) ([]Shape, error) {
	n = max(1, min(n, mostWays))
	best := wayThick[0]
	for _, t := range wayThick {
		if math.Abs(math.Log(t/thick)) < math.Abs(math.Log(best/thick)) {
			best = t
		}
	}
	key, p := spiralCell(1, same(n, best))
	if flat {
		key, p = flatCell(1, same(n, best))
	}
	return way(key, p)
}

var wayThick = []float64{0.56, 1, 1.86}

const mostWays = 4

// GeneratedWays names the ways that are embedded, each with its problem.
func GeneratedWays() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, t := range wayThick {
		for n := 1; n <= mostWays; n++ {
			key, p := flatCell(1, same(n, t))
			out[key] = p()
			key, p = spiralCell(1, same(n, t))
			out[key] = p()
		}
	}
	return out
}
