package scene

import (
	"math"

	"nimblebight/core/trace"
)

// Marks of the sheath are drawn from marksFrom pixels a diameter on.
const (
	marksFrom     = 14
	secondFrom    = 30  // both families of a kernmantle's threads
	steepest      = 0.6 // cosine of the slope under which marks would scribble
	threadEvery   = 0.5 // diameters between threads of a sheath
	threadTurn    = 1.1 // along the cord for half a turn of one
	strandEvery   = 0.3 // the same of plied cord
	strandTurn    = 0.55
	plyEvery      = 0.45 // laid and plied cord
	plyTurn       = 0.7
	braidEvery    = 0.75
	braidTurn     = 0.8
	shortest      = 0.4 // length of a mark
	markTolerance = 0.12
)

// scribble tells whether a mark is too short, or winds too much, to say anything.
func scribble(pts []trace.Point, least float64) bool {
	sum := 0.0
	for i := 1; i < len(pts); i++ {
		sum += pts[i].To(pts[i-1])
	}
	return sum < least || pts[0].To(pts[len(pts)-1]) < 0.8*sum
}

// marks draws the sheath: threads that run round the cord, both ways for kernmantle
// and braid, one way for plied cord; the edge of leather's good side; the yarns of a
// fringe.
func (w *writer) marks(from, to int) {
	if w.px < marksFrom {
		return
	}
	of := map[int][]Path{}
	var cords []int
	put := func(t *tube, pts []trace.Point) {
		if len(pts) < 3 || scribble(pts, shortest*w.d) || pts[0].Y < float64(from) && pts[len(pts)-1].Y < float64(from) || pts[0].Y > float64(to) && pts[len(pts)-1].Y > float64(to) {
			return
		}
		if of[t.paint.Cord] == nil {
			cords = append(cords, t.paint.Cord)
		}
		of[t.paint.Cord] = append(of[t.paint.Cord], w.path(trace.Fit(pts, markTolerance*w.d)))
	}
	for _, t := range w.c.tubes {
		switch {
		case t.metal, t.plain && !t.fibre:
		case t.fibre:
			w.along(t, 0.8, put)
		case t.make == "leather": // the edge of its good side
			w.along(t, 0.66, put)
		case t.make == "tshirt-yarn": // its edges roll in
			w.along(t, -0.5, put)
			w.along(t, 0.1, put)
			w.along(t, 0.62, put)
		case t.make == "single-strand":
			w.threads(t, strandEvery, strandTurn, 1, put)
		case t.make == "three-ply", t.make == "laid":
			w.threads(t, plyEvery, plyTurn, 1, put)
		case t.make == "waxed-thread":
			w.threads(t, strandEvery, strandTurn, -1, put)
		case t.make == "solid-braid": // coarse plaits, both ways from afar too
			w.threads(t, braidEvery, braidTurn, 1, put)
			w.threads(t, braidEvery, braidTurn, -1, put)
		default:
			w.threads(t, threadEvery, threadTurn, 1, put)
			if w.px >= secondFrom {
				w.threads(t, threadEvery, threadTurn, -1, put)
			}
		}
	}
	for _, k := range cords {
		w.add(Layer{Kind: Mark, Paint: Paint{Cord: k}, Width: w.width(math.Max(0.45, 0.5*inkPx(w.px))), Paths: of[k]})
	}
}

// along draws a line along the cord where it is seen.
func (w *writer) along(t *tube, u float64, put func(t *tube, pts []trace.Point)) {
	var run []trace.Point
	for i := range t.samples {
		p, ok := w.seen(t, i, u)
		if ok && math.Abs(w.slices[int(w.first[t.id])+i].cos) > steepest {
			run = append(run, p)
			continue
		}
		put(t, run)
		run = nil
	}
	put(t, run)
}

// threads draws the threads that run round the cord one way.
func (w *writer) threads(t *tube, every, turn, way float64, put func(t *tube, pts []trace.Point)) {
	n := len(t.samples)
	if n < 3 {
		return
	}
	step := (t.samples[n-1].s - t.samples[0].s) / float64(n-1) / t.d // diameters
	if step <= 0 {
		return
	}
	begin := math.Ceil(t.samples[0].s/t.d/every) * every
	for at := begin; at < t.samples[n-1].s/t.d; at += every {
		var run []trace.Point
		const parts = 9
		for k := 0; k <= parts; k++ {
			f := float64(k) / parts
			i := int((at - t.samples[0].s/t.d + turn*f) / step)
			if i < 0 || i >= n {
				continue
			}
			u := -way * math.Cos(math.Pi*f) * 0.95
			p, ok := w.seen(t, i, u)
			q := &w.slices[int(w.first[t.id])+i]
			if !ok || q.ball || q.cos < steepest {
				put(t, run)
				run = nil
				continue
			}
			run = append(run, p)
		}
		put(t, run)
	}
}
