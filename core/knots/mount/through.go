package mount

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/hitch"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Cords that are led through what the piece hangs on, or hang on a loop of their own:
// their bend is part of the curve. All of it is constructed.

// edge is what a cord bends over: a round wire, or the flat edge between a hole and
// where its place ends. Its middle is at zero.
type edge struct{ tall, deep, round float64 } // mm; round is the radius of a wire

func edgeOf(w knot.Work) edge {
	if w.DeepMM > 0 {
		return edge{tall: w.BarMM / 2, deep: w.DeepMM / 2}
	}
	return edge{round: w.BarMM / 2}
}

// top is where the middle of a cord of diameter d lies above the edge.
func (e edge) top(d float64) float64 { return -e.tall - e.round - d/2 }

// below is where the edge ends, and out how far to the front a cord hangs beside it.
func (e edge) below() float64        { return e.tall + e.round }
func (e edge) out(d float64) float64 { return e.deep + e.round + d/2 }
func (e edge) arcs(d float64) []r3.Vec { // the front half, from the top
	const steps = 10
	r := e.round + d/2
	pts := []r3.Vec{{Y: e.top(d)}}
	for k := range steps + 1 {
		s, c := math.Sincos(math.Pi / 2 * float64(k) / steps)
		pts = append(pts, r3.Vec{Y: -e.tall - r*c, Z: e.deep + r*s})
	}
	return append(pts, r3.Vec{Y: e.tall, Z: e.out(d)})
}

// tieThrough leads each cord once through the hole or over the wire, its bend on the
// edge, one leg in front and one behind; a kept loop is as long as it is wanted.
func tieThrough(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	n := len(w.Own) / 2
	var through []knot.Strand
	thick := 0.0
	for i := 0; i < len(w.Own); i += 2 {
		through = append(through, w.Own[i])
		thick = math.Max(thick, w.Own[i].Diameter)
	}
	t := knot.Tied{Loose: true, Open: true, Repeats: 1, Gap: 1, Order: knot.Identity(len(w.Own))}
	fits, passing, err := passes(w, through)
	if err != nil {
		return t, err
	}
	if passing != nil {
		for i := 0; i < len(w.Own); i += 2 {
			t.Threads = append(t.Threads, knot.Thread{Strands: []int{i}, Own: true, Passing: *passing})
		}
	}
	e := edgeOf(w)
	// The legs come together below the edge, side by side.
	beside := 1.02 * thick * crowd(w, thick)
	side := make([]knot.Way, 0, 2*n)
	hang := make([]knot.Way, 0, 2*n)
	at := make([]r3.Vec, 0, 2*n)
	down := r3.Vec{Y: 1}
	for i := range n {
		d := w.Own[2*i].Diameter
		x := (float64(i) - float64(n-1)/2) * 2.1 * thick
		for leg := range 2 {
			front := float64(1 - 2*leg)
			a := r3.Vec{X: (float64(i) - float64(n-1)/2) * beside, Y: e.below(), Z: front * e.out(d)}
			b := r3.Vec{X: x - front*0.55*d}
			at = append(at, a)
			side, hang = append(side, knot.Way{At: a, Dir: down}), append(hang, knot.Way{At: b, Dir: down})
		}
	}
	fall := knot.Fall(side, hang, thick)
	bottom := e.below() + fall
	if set.Hitch == KeptLoop {
		inner := -e.below() // where the loop begins inside
		if r := shortLoop(set.LoopMM, math.Ceil(bottom-inner), thick); r != nil {
			return t, r
		}
		bottom = inner + set.LoopMM
	}
	t.Height = bottom
	for i, a := range at {
		d := w.Own[i].Diameter
		var pts []r3.Vec
		for _, v := range e.arcs(d) {
			pts = append(pts, r3.Vec{X: a.X, Y: v.Y, Z: math.Copysign(v.Z, a.Z)})
		}
		end := hang[i].At
		end.Y = bottom
		pts = append(pts, knot.Join(a, end, down, down)...)
		bendRound(pts, w.RingMM)
		t.Own = append(t.Own, knot.Path{Points: pts})
	}
	if set.Hitch == KeptLoop {
		t.Loose, t.LengthMM = false, set.LoopMM
	}
	for i := range n {
		m := move.Move{Strand: 2 * i, With: []int{2*i + 1}, Folded: true, Text: "Lead one end of cord {cord} through from the front to the back and even both legs.", Detail: fits,
			Gate: "The fold mark lies on the edge, one leg in front and one behind."}
		if set.Hitch == KeptLoop {
			m.Detail = "Keep the loop {length} long inside, over a pin or a finger, while the knot under it is drawn up. " + fits
			m.Gate = "The loop still measures {length} inside."
		}
		if joined(w, i) {
			m.Detail += " A joint at the fold lies on the edge, out of sight."
		}
		t.Moves = append(t.Moves, m)
	}
	if fits != "" {
		t.Checks = append(t.Checks, fits)
	}
	return t, nil
}

// shortLoop refuses a kept loop that is shorter than its bend, or of no length.
func shortLoop(mm, least, thick float64) error {
	if mm >= least {
		return nil
	}
	why := fmt.Sprintf("a loop of %g mm is shorter than its bend, which takes %g mm", mm, least)
	if mm == 0 {
		why, least = "a kept loop needs a length, measured inside", math.Max(least, math.Ceil(10*thick))
	}
	return &knot.Refused{Field: "loop_mm", Why: why, Set: least, Label: fmt.Sprintf("Keep %g mm", least)}
}

// standing puts a point of a hitch that was laid at the middle of the wire x along it,
// the whole hitch square on the wire.
func standing(v r3.Vec, x, ring float64) r3.Vec {
	if ring <= 0 {
		return r3.Vec{X: x + v.X, Y: v.Y, Z: v.Z}
	}
	sin, cos := math.Sincos(x / ring)
	return r3.Vec{X: (ring+v.Y)*sin + v.X*cos, Y: (ring+v.Y)*cos - v.X*sin - ring, Z: v.Z}
}

// crowd is by how much cords that sit side by side on a ring stand farther apart, for
// inside it they draw together.
func crowd(w knot.Work, d float64) float64 {
	if in := w.RingMM - w.BarMM/2 - d; w.RingMM > 0 && in > 0.2*w.RingMM {
		return w.RingMM / in
	}
	return 1
}

// passes tells how cords pass what they are led through together, with how their ends
// are made ready, and by how much.
func passes(w knot.Work, through []knot.Strand) (string, *knot.Passing, error) {
	if w.HoleMM == 0 {
		return "", nil, nil
	}
	p, goes := knot.Goes(w.HoleMM, through)
	if !goes {
		cords := fmt.Sprintf("%d cords need", len(through))
		if len(through) == 1 {
			cords = "the cord needs"
		}
		return "", nil, &knot.Refused{Field: "cords", Why: fmt.Sprintf("%s %.1f mm even %s, and the hole is %.1f mm wide", cords, p.NeedMM, p.Name, w.HoleMM),
			Set: knot.RingWidth{GrowMM: -p.SpareMM}, Label: "Take a wider one"}
	}
	return fmt.Sprintf("It passes %s, {%.1fmm} to spare.", p.Name, p.SpareMM), &p, nil
}

// tieFree keeps a loop of each cord that hangs on nothing: its fold is the top.
func tieFree(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	n := len(w.Own) / 2
	thick := 0.0
	for _, l := range w.Own {
		thick = math.Max(thick, l.Diameter)
	}
	t := knot.Tied{Open: true, Repeats: 1, Gap: 1, Order: knot.Identity(len(w.Own)), LengthMM: set.LoopMM}
	if r := shortLoop(set.LoopMM, math.Ceil(5*thick), thick); r != nil {
		return t, r
	}
	t.Height = set.LoopMM
	for i := range 2 * n {
		d := w.Own[i].Diameter
		cord := i / 2
		x := (float64(cord) - float64(n-1)/2) * 2.1 * thick
		side := float64(2*(i%2) - 1)
		wide := math.Min(math.Max(1.4*d, set.LoopMM/6), 5*d) + 0.5*d
		pts := drop(side, wide, d, set.LoopMM)
		for k, v := range pts { // several lie one behind the other at the top and beside one another below
			u := math.Max(0, v.Y/set.LoopMM)
			pts[k].X += x * u
			pts[k].Z += (float64(cord) - float64(n-1)/2) * 1.02 * thick * (1 - u)
		}
		t.Own = append(t.Own, knot.Path{Points: pts})
	}
	if set.Bead != nil {
		for i := range n {
			passing, err := knot.Threads(set.Bead, w.Own[2*i:2*i+1], "the cord")
			if err != nil {
				return t, err
			}
			t.Threads = append(t.Threads, knot.Thread{Strands: []int{2 * i}, Own: true, Passing: passing})
		}
		t.Beads = []knot.BeadAt{{At: r3.Vec{Y: -w.Own[0].Diameter / 2}, Bead: *set.Bead, Across: true}}
	}
	for i := range n {
		m := move.Move{Strand: 2 * i, With: []int{2*i + 1}, Folded: true, Text: "Fold cord {cord} at its mark and keep a loop {length} long inside.",
			Detail: "Hold it over a pin or a finger while the knot under it is drawn up.", Gate: "The loop still measures {length} inside."}
		if set.Bead != nil {
			m.Text = "Put the bead on cord {cord} up to its fold mark, and keep a loop {length} long inside."
		}
		t.Moves = append(t.Moves, m)
	}
	return t, nil
}

// drop is one side of a loop that hangs free, from the middle of its fold.
func drop(side, wide, d, long float64) []r3.Vec {
	half := []r3.Vec{{X: side * wide * 0.72, Y: 0.26 * wide}, {X: side * wide, Y: wide}, {X: side * wide * 0.93, Y: math.Min(2*wide, 0.62*long)}, {X: side * 0.6 * d, Y: 0.94 * long}, {X: side * 0.55 * d, Y: long}}
	var whole []r3.Vec
	for _, v := range slices.Backward(half) {
		whole = append(whole, r3.Vec{X: -v.X, Y: v.Y})
	}
	pts := curve.Spline(append(append(whole, r3.Vec{Y: -d / 2}), half...), false).Points
	return pts[len(pts)/2:]
}

// tieSingle hitches one end of each cord to the wire by two half hitches; the rest of
// it hangs.
func tieSingle(w knot.Work) (knot.Tied, error) {
	t := knot.Tied{Loose: true, Open: true, Repeats: 1, Gap: math.Inf(1), Order: knot.Identity(len(w.Own))}
	if w.DeepMM > 0 {
		return t, &knot.Refused{Field: "hitch", Why: "an end is hitched to a wire, and this is the edge of a hole", Set: string(ThroughHole), Label: "Lead the cord through the hole"}
	}
	wide := 0.0
	type hitchOf struct {
		points []r3.Vec
		wide   float64
	}
	var hs []hitchOf
	for _, l := range w.Own {
		l.Figures.Squeeze = 1 // one by itself is not pressed together
		row, err := hitch.NewRow([]knot.Strand{l}, w.BarMM)
		if err != nil {
			return t, err
		}
		t.Gap = math.Min(t.Gap, row.Unit.Gap)
		h := hitchOf{wide: row.Step * crowd(w, l.Diameter), points: row.Over(r3.Vec{}, 0, false)}
		hs = append(hs, h)
		wide += h.wide
		t.Height = math.Max(t.Height, h.points[len(h.points)-1].Y+1.2*l.Diameter)
	}
	x := -wide / 2
	for i, h := range hs {
		pts := make([]r3.Vec, 0, len(h.points)+1)
		for _, v := range h.points {
			if w.LeftHanded { // the hitch of the other hand
				v.X = -v.X
			}
			pts = append(pts, standing(v, x+h.wide/2, w.RingMM))
		}
		end, dir := pts[len(pts)-1], knot.Heading(pts, true)
		pts = append(pts, knot.Join(end, r3.Vec{X: end.X + 0.8*w.Own[i].Diameter*dir.X, Y: t.Height, Z: end.Z}, dir, r3.Vec{Y: 1})...)
		t.Own = append(t.Own, knot.Path{Points: pts})
		x += h.wide
		t.Moves = append(t.Moves, move.Move{Strand: i, Folded: true, Text: "Take the end of cord {cord} twice round the wire, each time under its own last turn, and draw it up.",
			Detail: "Leave the short end as long as the finish needs; melt it or tape it.", Gate: "Both turns lie side by side, the slant over both."})
	}
	return t, nil
}
