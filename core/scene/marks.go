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
		case t.make.Lace(): // the edge of its good side
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
		case t.make == "solid-braid", t.make == "soft-braid": // coarse plaits, both ways from afar too
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
	const parts = 9
	for _, at := range w.begins(t, every*t.d) {
		var run []trace.Point
		i := at
		for k := 0; k <= parts; k++ {
			f := float64(k) / parts
			for i+1 < n && t.samples[i+1].s-t.samples[at].s <= turn*t.d*f {
				i++
			}
			p, ok := w.seen(t, i, -way*math.Cos(math.Pi*f)*0.95)
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

// begins are the slices at which threads begin, about every mm. One begins wherever
// the cord passes from plate to plate, so that threads go on there: between two such
// places they are spread evenly.
func (w *writer) begins(t *tube, every float64) []int {
	top, bottom := w.c.cuts()
	n := len(t.samples)
	var at []float64 // along the cord
	for i := 1; i < n; i++ {
		a, b := &t.samples[i-1], &t.samples[i]
		for _, y := range [2]float64{top, bottom} {
			if (a.y < y) != (b.y < y) {
				at = append(at, a.s+(b.s-a.s)*(y-a.y)/(b.y-a.y))
			}
		}
	}
	first, last := t.samples[0].s, t.samples[n-1].s
	if len(at) == 0 {
		at = []float64{first}
	}
	var marks []float64
	for s := at[0] - every*math.Floor((at[0]-first)/every); s < at[0]-every/2; s += every {
		marks = append(marks, s)
	}
	for k := 1; k < len(at); k++ {
		parts := math.Max(1, math.Round((at[k]-at[k-1])/every))
		for p := 0.0; p < parts; p++ {
			marks = append(marks, at[k-1]+(at[k]-at[k-1])*p/parts)
		}
	}
	for s := at[len(at)-1]; s < last; s += every {
		marks = append(marks, s)
	}
	out := make([]int, 0, len(marks))
	i := 0
	for _, s := range marks {
		for i+1 < n && t.samples[i+1].s <= s {
			i++
		}
		out = append(out, i)
	}
	return out
}
