package tighten

import (
	"math"

	"nimblebight/core/curve"
)

// film keeps how a knot looked while it was drawn up. Frames are taken often
// and thinned whenever there are too many, so that a drawing up of any length
// leaves few.
type film struct {
	most  int
	taken []frame
	every int
	count int
}

type frame struct {
	strands []curve.Curve
	cell    Cell
}

// take keeps the relaxer's strands now and then; a nil film keeps nothing.
func (f *film) take(r *relaxer, step int) {
	if f == nil {
		return
	}
	if f.every == 0 {
		f.every = 4
	}
	f.count++
	if step != 1 && f.count%f.every != 0 {
		return
	}
	f.taken = append(f.taken, frame{r.curves(), r.cell})
	if len(f.taken) > 400 {
		kept := f.taken[:0]
		for i, t := range f.taken {
			if i%2 == 0 {
				kept = append(kept, t)
			}
		}
		f.taken, f.every = kept, 2*f.every
	}
}

// cut chooses the frames, evenly spaced in the length still to be drawn out,
// and gives each strand the same number of nodes in all of them.
func (f *film) cut(end []curve.Curve, cell Cell) (frames [][]curve.Curve, cells []Cell) {
	sum := func(cs []curve.Curve) float64 {
		l := 0.0
		for _, c := range cs {
			l += c.Length()
		}
		return l
	}
	all := append(f.taken, frame{end, cell})
	lengths := make([]float64, len(all))
	for i, t := range all {
		lengths[i] = sum(t.strands)
	}
	first, last := lengths[0], lengths[len(all)-1]
	n := max(2, f.most)
	at := 0
	for k := range n {
		want := first + (last-first)*float64(k)/float64(n-1)
		best := math.Inf(1)
		for i := at; i < len(all); i++ {
			if d := math.Abs(lengths[i] - want); d < best {
				best, at = d, i
			}
		}
		if k == n-1 {
			at = len(all) - 1
		}
		var out []curve.Curve
		for i, c := range all[at].strands {
			nodes := len(end[i].Points)
			out = append(out, c.Resample(nodes))
		}
		frames, cells = append(frames, out), append(cells, all[at].cell)
	}
	return frames, cells
}
