package row

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// A flat row depends on its fillers: how wide they lie and how thick they are.
// A small family of rows is drawn up at build time, and any other is taken
// between its neighbours in it. What lies beside the fillers hardly changes
// with them, so it is measured from their edge, and only the bar over them is
// stretched; tests hold the result against rows drawn up for themselves.

var (
	familyThick = []float64{0.125, 0.18, 0.25, 0.4, 0.56, 0.75, 1, 1.33, 1.86, 2.5, 3.5, 5, 8} // fillers, in workers
	familyCount = []int{1, 2, 3, 4, 6, 8}
	spiralThick = familyThick
)

// inFamily tells whether a row over n fillers of a thickness is drawn up at
// build time. Eight of eight workers' thickness reach farther than a packed
// shape can.
func inFamily(n int, thick float64) bool { return float64(n)*thick < 60 }

// inSpirals tells whether a spiral over n fillers of a thickness is drawn up at
// build time. Many thick fillers come to no rest under a thin worker: they roll
// about one another.
func inSpirals(n int, thick float64) bool {
	switch {
	case n <= 3:
		return true
	case n == 4:
		return thick < 5
	}
	return n <= mostSpiral && thick > 0.35 && thick < 1.5
}

var rows memo.Cache[row] // taken between neighbours, by name

const mostSpiral = mostFillers // fillers of a spiral that are drawn up at build time

// flatHalf is the front worker's path through a half knot, from its left turn to
// its right one, in three parts of fixed numbers of nodes: beside the fillers,
// over them, beside them again. x is measured from where a node belongs across
// the fillers, see home.
type flatHalf struct {
	parts [3][]r3.Vec
	pitch float64
	gap   float64
}

var halfNodes = [3]int{26, 34, 26}

func halfOf(s shapes.Shape, w float64) flatHalf {
	cell := tighten.Cell{Pitch: s.Pitch, Mirror: true}
	threads, _ := repeat(s, cell, 1)
	l := threads[0]
	// The two workers are one another turned about the row; their mean has
	// that symmetry exactly.
	r := knot.Curve(threads[1]).Resample(len(l)).Points
	top := (l[0].Y + r[0].Y) / 2
	for i := range l {
		l[i] = r3.Vec{X: (l[i].X - r[i].X) / 2, Y: (l[i].Y+r[i].Y)/2 - top, Z: (l[i].Z - r[i].Z) / 2}
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
	level := func(i int) r3.Vec { // where the path crosses z of zero after node i
		p, q := l[i], l[i+1]
		return curve.Lerp(p, q, p.Z/(p.Z-q.Z))
	}
	in, out := level(a), level(b-1)
	h := flatHalf{pitch: s.Pitch, gap: s.Gap}
	cuts := [3][]r3.Vec{
		append(append([]r3.Vec{}, l[:a+1]...), in),
		append(append([]r3.Vec{in}, l[a+1:b]...), out),
		append([]r3.Vec{out}, l[b:]...),
	}
	for k, part := range cuts {
		h.parts[k] = knot.Curve(part).Resample(halfNodes[k]).Points
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
				out.parts[k] = make([]r3.Vec, len(h.parts[k]))
			}
			for i, v := range h.parts[k] {
				out.parts[k][i] = r3.Add(out.parts[k][i], r3.Scale(weights[n], v))
			}
		}
	}
	return out
}

// flatShape is a half knot of a flat row, of equal workers, over any fillers.
func flatShape(fillers []float64) (shapes.Shape, error) {
	w, thick := rowOf(fillers)
	last := familyCount[len(familyCount)-1]
	counts := make([]float64, len(familyCount))
	for i, n := range familyCount {
		counts[i] = float64(n)
	}
	thicks, thickW := curve.Between(familyThick, within(familyThick, thick))
	ns, nW := curve.Between(counts, math.Max(1, math.Min(w/thick, float64(last))))
	var across []flatHalf
	for _, kt := range thicks {
		var along []flatHalf
		for _, kn := range ns {
			t, n := familyThick[kt], familyCount[kn]
			for !inFamily(n, t) { // very wide ones differ in nothing but their width
				n--
			}
			s, err := family.Shape(flatCell(1, same(n, t)))
			if err != nil {
				return shapes.Shape{}, err
			}
			along = append(along, halfOf(s, float64(n)*t))
		}
		across = append(across, mixHalves(along, nW))
	}
	h := mixHalves(across, thickW)
	var l, r []r3.Vec
	for k, part := range h.parts {
		for i, v := range part {
			if k > 0 && i == 0 || k == 2 && i == len(part)-1 {
				continue // shared with the part before, or with the next half knot
			}
			v.X += home(k, i) * w / 2
			l, r = append(l, v), append(r, r3.Vec{X: -v.X, Y: v.Y, Z: -v.Z})
		}
	}
	return shapes.Shape{Strands: [][]r3.Vec{l, r}, Pitch: h.pitch, Gap: h.gap}, nil
}

// Flat is the problem of a half knot of a flat row over fillers, drawn up
// for itself and not taken between neighbours; diameters are in the first
// worker's.
func Flat(second float64, fillers []float64) tighten.Problem {
	_, p := flatCell(second, fillers)
	return p()
}

// within brings x to the nearest of what the steps reach.
func within(steps []float64, x float64) float64 {
	return math.Max(steps[0], math.Min(x, steps[len(steps)-1]))
}

// spiralSteps are the thicknesses of n fillers for which a spiral is drawn up at
// build time.
func spiralSteps(n int) []float64 {
	var out []float64
	for _, t := range spiralThick {
		if inSpirals(n, t) {
			out = append(out, t)
		}
	}
	return out
}

// spiralPairs are the thinner of two unlike fillers, in the thicker one and the
// workers, for which a spiral is drawn up at build time: what a pair of cords
// makes when one of each works.
var spiralPairs = []float64{0.125, 0.18, 0.25, 0.4, 0.56, 0.75, 1}

func pairCell(thin float64) (string, func() tighten.Problem) {
	return spiralCell(1, []float64{1, thin})
}

// spiralBetween is a half knot of a spiral of equal workers over fillers that
// are alike, or over one like the workers and a thinner one, taken between its
// neighbours. Where these pack their fillers in different ways what lies between
// them is no spiral: then, and beyond the family, the second value is false.
func spiralBetween(fillers []float64) (shapes.Shape, bool, error) {
	n := len(fillers)
	thin, thick := slices.Min(fillers), slices.Max(fillers)
	switch {
	case thick-thin <= 0.03*thick:
		cell := func(t float64) (string, func() tighten.Problem) { return spiralCell(1, same(n, t)) }
		return mixSpirals(spiralSteps(n), thick, cell)
	case n == 2 && thick == 1 && fillers[0] == 1:
		return mixSpirals(spiralPairs, thin, pairCell)
	case n == 2 && thick == 1: // the same, turned half round about its axis
		s, ok, err := mixSpirals(spiralPairs, thin, pairCell)
		if !ok || err != nil {
			return s, ok, err
		}
		out := shapes.Shape{Pitch: s.Pitch, Twist: s.Twist, Gap: s.Gap}
		for _, i := range []int{1, 0, 3, 2} {
			out.Strands = append(out.Strands, knot.Curve(s.Strands[i]).Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: v.Y, Z: -v.Z} }).Points)
		}
		return out, true, nil
	}
	return shapes.Shape{}, false, nil
}

// mixSpirals takes a spiral between those of its family that are drawn up.
func mixSpirals(steps []float64, at float64, cell func(float64) (string, func() tighten.Problem)) (shapes.Shape, bool, error) {
	if at < steps[0]*0.98 || at > steps[len(steps)-1]*1.02 {
		return shapes.Shape{}, false, nil
	}
	at = within(steps, at)
	out, err := blend(steps, at, cell)
	if err != nil {
		return shapes.Shape{}, false, err
	}
	_, p := cell(at)
	if out = shapes.Measured(p(), out); out.Gap >= shapes.Floor {
		return out, true, nil
	}
	// The four about it pack in more than one way; the two next to it may not.
	k := 0
	for k < len(steps)-2 && steps[k+1] <= at {
		k++
	}
	if out, err = blend(steps[k:k+2], at, cell); err != nil {
		return shapes.Shape{}, false, err
	}
	out = shapes.Measured(p(), out)
	return out, out.Gap >= shapes.Floor, nil
}

// blend adds up the spirals of the steps round a value by their weights.
func blend(steps []float64, at float64, cell func(float64) (string, func() tighten.Problem)) (shapes.Shape, error) {
	ks, weights := curve.Between(steps, at)
	out := shapes.Shape{Gap: math.Inf(1)}
	const nodes = 40
	for m, k := range ks {
		s, err := family.Shape(cell(steps[k]))
		if err != nil {
			return shapes.Shape{}, err
		}
		out.Pitch += weights[m] * s.Pitch
		out.Twist += weights[m] * s.Twist
		out.Gap = math.Min(out.Gap, s.Gap)
		for i, pts := range s.Strands {
			if m == 0 {
				out.Strands = append(out.Strands, make([]r3.Vec, nodes))
			}
			for j, v := range knot.Curve(pts).Resample(nodes).Points {
				out.Strands[i][j] = r3.Add(out.Strands[i][j], r3.Scale(weights[m], v))
			}
		}
	}
	return out, nil
}

// spiralShape is a half knot of a spiral of equal workers over any fillers. What
// must be drawn up for itself and is not yet is given by the nearest that is,
// which takes no less cord, and by how much that may be off.
func spiralShape(fillers []float64) (shapes.Shape, *shapes.Rough, error) {
	n := len(fillers)
	thin, thick := slices.Min(fillers), slices.Max(fillers)
	if s, ok, err := spiralBetween(fillers); ok || err != nil {
		return s, nil, err
	}
	own, problem := spiralCell(1, notched(fillers))
	if s, ok := shapes.DrawnLive(own, problem); ok {
		return s, nil, nil
	}
	near, scale, err := spiralNear(n, thick)
	if err != nil {
		return shapes.Shape{}, nil, err
	}
	low, _, err := spiralNear(n, thin)
	if err != nil {
		return shapes.Shape{}, nil, err
	}
	// Drawn up for itself it takes no more than over the thickest of its fillers
	// with thicker workers, and no less than over the thinnest with its own.
	most, least := scale*perStrandOf(near), perStrandOf(low)
	rough := &shapes.Rough{Key: own, Share: math.Max(0, 1-least/most), Problem: problem}
	return shapes.Enlarge(near, scale), rough, nil
}

// spiralNear is the spiral over n fillers that is drawn up for the greatest
// thickness not above the one given, and by what it must be larger for them to
// have that.
func spiralNear(n int, thick float64) (shapes.Shape, float64, error) {
	steps := spiralSteps(n)
	best := steps[0]
	for _, t := range steps {
		if t <= thick {
			best = t
		}
	}
	s, err := family.Shape(spiralCell(1, same(n, best)))
	return s, math.Max(1, thick/best), err
}

// perStrandOf is the cord that a worker takes for a half knot.
func perStrandOf(s shapes.Shape) float64 {
	return (knot.Curve(s.Strands[0]).Length() + knot.Curve(s.Strands[1]).Length()) / 2
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

// row is the shape of a row with its name.
type row struct {
	name  string
	shape shapes.Shape
	rough *shapes.Rough // nil where the shape is the row's own
}

// rowShape is the shape of a row, taken between neighbours of its family.
func rowShape(flat bool, second float64, fillers []float64) (row, error) {
	kind, find := "spiral", spiralShape
	switch {
	case second != 1:
		kind, find = "flat", func(fillers []float64) (shapes.Shape, *shapes.Rough, error) {
			s, err := unequalShape(second, fillers)
			if err != nil {
				return s, nil, err
			}
			return ownOrNear(second, fillers, s)
		}
	case flat:
		kind, find = "flat", func(fillers []float64) (shapes.Shape, *shapes.Rough, error) {
			s, err := flatShape(fillers)
			if err != nil {
				return s, nil, err
			}
			return ownOrNear(1, fillers, s)
		}
	}
	name := key(kind, second, fillers)
	return rows.GetIf(name, func() (row, bool, error) {
		s, rough, err := find(fillers)
		r := row{name, s, rough}
		if rough != nil {
			r.name += " nearly"
		}
		return r, rough == nil, err // what is rough is looked for again
	})
}

// even takes a ratio of diameters that two scales would not tell from one as
// one.
func even(r float64) float64 {
	if math.Abs(r-1) < 0.03 {
		return 1
	}
	return r
}

// notch rounds a ratio of diameters up to the next fiftieth, so that nearly
// equal cords share a shape that is drawn up for them and none is drawn too
// thin.
func notch(r float64) float64 { return math.Ceil(even(r)*50-1e-6) / 50 }
