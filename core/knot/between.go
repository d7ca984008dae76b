package knot

import (
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// A flat row depends on its fillers: how wide they lie and how thick they are.
// A small family of rows is drawn up at build time, and any other is taken
// between its neighbours in it. What lies beside the fillers hardly changes
// with them, so it is measured from their edge, and only the bar over them is
// stretched; tests hold the result against rows drawn up for themselves.

var (
	familyThick = []float64{0.25, 0.4, 0.56, 0.75, 1, 1.33, 1.86, 2.5, 3.5} // fillers, in workers
	familyCount = []int{1, 2, 3, 4, 6, 8}
	spiralThick = []float64{0.56, 0.75, 1, 1.33, 1.86}
)

var rows kept.By[Shape] // taken between neighbours, by name

const mostSpiral = 4 // fillers of a spiral that are drawn up at build time

// flatHalf is the front worker's way through a half knot, from its left turn to
// its right one, in three parts of fixed numbers of nodes: beside the fillers,
// over them, beside them again. x is measured from where a node belongs across
// the fillers, see home.
type flatHalf struct {
	parts [3][]Vec
	pitch float64
	gap   float64
}

var halfNodes = [3]int{26, 34, 26}

func halfOf(s Shape, w float64) flatHalf {
	cell := tighten.Cell{Pitch: s.Pitch, Mirror: true}
	threads, _ := repeat(s, cell, 1)
	l := threads[0]
	// The two workers are one another turned about the row; their mean has
	// that symmetry exactly.
	r := asCurve(threads[1]).Resample(len(l)).Points
	top := (l[0].Y + r[0].Y) / 2
	for i := range l {
		l[i] = Vec{X: (l[i].X - r[i].X) / 2, Y: (l[i].Y+r[i].Y)/2 - top, Z: (l[i].Z - r[i].Z) / 2}
	}
	// It comes up beside the fillers, steeply, and goes down beside them again:
	// there the three parts meet, at z of zero.
	a, b := 0, len(l)-1
	for a+2 < len(l) && l[a+1].Z < 0 {
		a++
	}
	for b > 1 && l[b-1].Z < 0 {
		b--
	}
	level := func(i int) Vec { // where the way crosses z of zero after node i
		p, q := l[i], l[i+1]
		return curve.Lerp(p, q, p.Z/(p.Z-q.Z))
	}
	in, out := level(a), level(b-1)
	h := flatHalf{pitch: s.Pitch, gap: s.Gap}
	cuts := [3][]Vec{
		append(append([]Vec{}, l[:a+1]...), in),
		append(append([]Vec{in}, l[a+1:b]...), out),
		append([]Vec{out}, l[b:]...),
	}
	for k, part := range cuts {
		h.parts[k] = asCurve(part).Resample(halfNodes[k]).Points
		for i := range h.parts[k] {
			h.parts[k][i].X -= home(k, i) * w / 2
		}
	}
	return h
}

// home is where node i of part k belongs across the fillers, from -1 at their
// left edge to 1 at their right one.
func home(k, i int) float64 {
	switch k {
	case 0:
		return -1
	case 2:
		return 1
	}
	return 2*float64(i)/float64(halfNodes[1]-1) - 1
}

// mixHalves adds halves up by their weights.
func mixHalves(hs []flatHalf, weights []float64) flatHalf {
	out := flatHalf{gap: math.Inf(1)}
	for n, h := range hs {
		out.pitch += weights[n] * h.pitch
		out.gap = math.Min(out.gap, h.gap)
		for k := range out.parts {
			if n == 0 {
				out.parts[k] = make([]Vec, len(h.parts[k]))
			}
			for i, v := range h.parts[k] {
				out.parts[k][i] = r3.Add(out.parts[k][i], r3.Scale(weights[n], v))
			}
		}
	}
	return out
}

// flatShape is a half knot of a flat row, of equal workers, over any fillers.
func flatShape(fillers []float64) (Shape, error) {
	w, thick := rowOf(fillers)
	if thick < familyThick[0] || thick > familyThick[len(familyThick)-1] {
		return drawn(flatCell(1, notched(fillers)))
	}
	counts := make([]float64, len(familyCount))
	for i, n := range familyCount {
		counts[i] = float64(n)
	}
	thicks, thickW := curve.Between(familyThick, thick)
	ns, nW := curve.Between(counts, math.Max(1, w/thick))
	var across []flatHalf
	for _, kt := range thicks {
		var along []flatHalf
		for _, kn := range ns {
			t, n := familyThick[kt], familyCount[kn]
			s, err := drawn(flatCell(1, same(n, t)))
			if err != nil {
				return Shape{}, err
			}
			along = append(along, halfOf(s, float64(n)*t))
		}
		across = append(across, mixHalves(along, nW))
	}
	h := mixHalves(across, thickW)
	var l, r []Vec
	for k, part := range h.parts {
		for i, v := range part {
			if k > 0 && i == 0 || k == 2 && i == len(part)-1 {
				continue // shared with the part before, or with the next half knot
			}
			v.X += home(k, i) * w / 2
			l, r = append(l, v), append(r, Vec{X: -v.X, Y: v.Y, Z: -v.Z})
		}
	}
	return Shape{Strands: [][]Vec{l, r}, Pitch: h.pitch, Gap: h.gap}, nil
}

// FlatRow is the problem of a half knot of a flat row over fillers, drawn up
// for itself and not taken between neighbours; diameters are in the first
// worker's.
func FlatRow(second float64, fillers []float64) tighten.Problem {
	_, p := flatCell(second, fillers)
	return p()
}

// spiralShape is a half knot of a spiral of equal workers over any fillers.
func spiralShape(fillers []float64) (Shape, error) {
	_, thick := rowOf(fillers)
	n := len(fillers)
	if n > mostSpiral || thick < spiralThick[0] || thick > spiralThick[len(spiralThick)-1] {
		return drawn(spiralCell(1, notched(fillers)))
	}
	for _, f := range fillers {
		if math.Abs(f-thick) > 0.03*thick { // mixed fillers pack in their own way
			return drawn(spiralCell(1, notched(fillers)))
		}
	}
	at, weights := curve.Between(spiralThick, thick)
	out := Shape{Gap: math.Inf(1)}
	const nodes = 40
	for m, k := range at {
		s, err := drawn(spiralCell(1, same(n, spiralThick[k])))
		if err != nil {
			return Shape{}, err
		}
		out.Pitch += weights[m] * s.Pitch
		out.Twist += weights[m] * s.Twist
		out.Gap = math.Min(out.Gap, s.Gap)
		for i, pts := range s.Strands {
			if m == 0 {
				out.Strands = append(out.Strands, make([]Vec, nodes))
			}
			for j, v := range asCurve(pts).Resample(nodes).Points {
				out.Strands[i][j] = r3.Add(out.Strands[i][j], r3.Scale(weights[m], v))
			}
		}
	}
	return out, nil
}

func same(n int, r float64) []float64 {
	fs := make([]float64, n)
	for i := range fs {
		fs[i] = r
	}
	return fs
}

func notched(fs []float64) []float64 {
	out := make([]float64, len(fs))
	for i, f := range fs {
		out[i] = notch(f)
	}
	return out
}

// rowShape is the shape of a row with its name, taken between neighbours of its
// family.
func rowShape(flat bool, second float64, fillers []float64) (string, Shape, error) {
	kind, find := "spiral", spiralShape
	switch {
	case second != 1:
		kind, find = "flat", func(fillers []float64) (Shape, error) { return unequalShape(second, fillers) }
	case flat:
		kind, find = "flat", flatShape
	}
	name := key(kind, second, fillers)
	s, err := rows.Get(name, func() (Shape, error) { return find(fillers) })
	return name, s, err
}
