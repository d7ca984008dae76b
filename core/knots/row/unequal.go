package row

import (
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Rows of two workers of different thickness. The thicker one lies straighter
// and the thinner winds round it, so the two paths have nothing of the symmetry
// of equal workers; each is taken between neighbours node by node, by its share
// of the way. Across the fillers a node keeps its share of their width, beside
// them its distance from their edge.

var (
	secondThick  = []float64{1, 1.33, 1.55, 1.86, 2.15, 2.5, 3.5, 5, 8}         // the second worker, in firsts
	unequalThick = []float64{0.25, 0.4, 0.56, 0.75, 1, 1.33, 1.86, 2.5, 4.5, 8} // fillers, in firsts
	unequalCount = []int{1, 2, 4, 6}
)

// inUnequal tells whether a row of two thicknesses is drawn up at build time.
func inUnequal(second, thick float64, n int) bool {
	return float64(n)*thick/2+second < 30 && // as far as a packed shape can reach
		!slices.Contains(restless, [3]float64{second, thick, float64(n)})
}

// unequalNear is the number of fillers nearest to n over which the row is drawn
// up: more of them make it wider and change little else.
func unequalNear(second, thick float64, n int) int {
	best := 0
	for _, k := range unequalCount {
		if inUnequal(second, thick, k) && (best == 0 || math.Abs(math.Log(float64(k)/float64(n))) < math.Abs(math.Log(float64(best)/float64(n)))) {
			best = k
		}
	}
	return best
}

// restless are rows that are still moving after all their steps: second worker,
// fillers, how many. Their neighbours over more or fewer fillers stand for them.
var restless = [][3]float64{{3.5, 0.4, 1}, {5, 0.25, 1}, {8, 0.25, 2}, {8, 0.25, 6}, {8, 4.5, 6}, {2.5, 0.56, 2}}

const unequalNodes = 120

// unequalNode is a node's place: how far across the fillers, from -1 at their
// left edge to 1 at their right one, and how far beyond that.
type unequalNode struct {
	across float64
	at     r3.Vec
}

type unequalHalf struct {
	paths [2][]unequalNode
	pitch float64
	gap   float64
}

func unequalOf(s shapes.Shape, w float64) unequalHalf {
	threads, _ := repeat(s, tighten.Cell{Pitch: s.Pitch, Mirror: true}, 1)
	top := (threads[0][0].Y + threads[1][0].Y) / 2
	h := unequalHalf{pitch: s.Pitch, gap: s.Gap}
	for i, l := range threads {
		for _, v := range knot.Curve(l).Resample(unequalNodes).Points {
			across := math.Max(-1, math.Min(1, 2*v.X/w))
			h.paths[i] = append(h.paths[i], unequalNode{across, r3.Vec{X: v.X - across*w/2, Y: v.Y - top, Z: v.Z}})
		}
	}
	return h
}

func mixUnequal(hs []unequalHalf, weights []float64) unequalHalf {
	out := unequalHalf{gap: math.Inf(1)}
	for n, h := range hs {
		out.pitch += weights[n] * h.pitch
		out.gap = math.Min(out.gap, h.gap)
		for i := range out.paths {
			if n == 0 {
				out.paths[i] = make([]unequalNode, len(h.paths[i]))
			}
			for k, v := range h.paths[i] {
				o := &out.paths[i][k]
				o.across += weights[n] * v.across
				o.at = r3.Vec{X: o.at.X + weights[n]*v.at.X, Y: o.at.Y + weights[n]*v.at.Y, Z: o.at.Z + weights[n]*v.at.Z}
			}
		}
	}
	return out
}

// linear finds the two steps round x and their weights, by ratio.
func linear(steps []float64, x float64) (at []int, weights []float64) {
	k := 0
	for k < len(steps)-2 && steps[k+1] < x {
		k++
	}
	u := math.Log(x/steps[k]) / math.Log(steps[k+1]/steps[k])
	u = math.Max(0, math.Min(1, u))
	return []int{k, k + 1}, []float64{1 - u, u}
}

// unequalShape is a half knot of a flat row of workers of two thicknesses.
func unequalShape(second float64, fillers []float64) (shapes.Shape, error) {
	if second < 1 { // turned about, the row is one whose second worker is the thicker
		scaled := make([]float64, len(fillers))
		for i, f := range fillers {
			scaled[len(fillers)-1-i] = f / second
		}
		s, err := unequalShape(1/second, scaled)
		if err != nil {
			return s, err
		}
		return turned(s, second), nil
	}
	if len(fillers) == 2 && math.Abs(fillers[0]/second-1) < 0.03 && math.Abs(fillers[1]-1) < 0.03 {
		return sidePair(second)
	}
	w, thick := rowOf(fillers)
	count := math.Max(1, w/thick)
	counts := make([]float64, len(unequalCount))
	for i, n := range unequalCount {
		counts[i] = float64(n)
	}
	ss, sw := linear(secondThick, second)
	ts, tw := linear(unequalThick, thick)
	cs, cw := linear(counts, count)
	var hs []unequalHalf
	for _, ks := range ss {
		var across []unequalHalf
		for _, kt := range ts {
			var along []unequalHalf
			for _, kc := range cs {
				t, n := unequalThick[kt], unequalNear(secondThick[ks], unequalThick[kt], unequalCount[kc])
				s, err := family.Shape(flatCell(secondThick[ks], same(n, t)))
				if err != nil {
					return shapes.Shape{}, err
				}
				along = append(along, unequalOf(s, float64(n)*t))
			}
			across = append(across, mixUnequal(along, cw))
		}
		hs = append(hs, mixUnequal(across, tw))
	}
	h := mixUnequal(hs, sw)
	return h.over(w), nil
}

// over is the row over fillers that lie so wide.
func (h unequalHalf) over(w float64) shapes.Shape {
	out := shapes.Shape{Pitch: h.pitch, Gap: h.gap, Strands: make([][]r3.Vec, 2)}
	for i, path := range h.paths {
		line := make([]r3.Vec, 0, len(path))
		for _, v := range path {
			line = append(line, r3.Vec{X: v.at.X + v.across*w/2, Y: v.at.Y, Z: v.at.Z})
		}
		out.Strands[i] = line[:len(line)-1] // the last is the first of the next half knot
	}
	return out
}

// sideCell is what two cords of different thickness make side by side, each with a
// worker and a filler.
func sideCell(second float64) (string, func() tighten.Problem) {
	return flatCell(second, []float64{second, 1})
}

// sidePair is such a row, taken between those that are drawn up for themselves.
func sidePair(second float64) (shapes.Shape, error) {
	steps := secondThick[1:]
	ks, weights := linear(steps, math.Max(steps[0], second))
	var hs []unequalHalf
	for _, k := range ks {
		s, err := family.Shape(sideCell(steps[k]))
		if err != nil {
			return shapes.Shape{}, err
		}
		hs = append(hs, unequalOf(s, steps[k]+1))
	}
	return mixUnequal(hs, weights).over(second + 1), nil
}

// unequalProblems are the rows of two thicknesses that are drawn up at build
// time.
func unequalProblems(out map[string]tighten.Problem) {
	for _, second := range secondThick[1:] {
		key, p := sideCell(second)
		out[key] = p()
	}
	for _, second := range secondThick {
		for _, t := range unequalThick {
			for _, n := range unequalCount {
				if inUnequal(second, t, n) {
					key, p := flatCell(second, same(n, t))
					out[key] = p()
				}
			}
		}
	}
}

// ownOrNear is a flat row that was taken between others, measured. Where its strands
// come nearer than the floor it is not used: the row that was drawn up for it is,
// once it is there, and till then the nearest that is embedded and takes no less
// cord, with by how much that may be off.
func ownOrNear(second float64, fillers []float64, between shapes.Shape) (shapes.Shape, *shapes.Rough, error) {
	_, problem := flatCell(second, fillers)
	if s := shapes.Measured(problem(), between); s.Gap >= shapes.Floor {
		return s, nil, nil
	}
	own, p := flatCell(notch(second), notched(fillers))
	if s, ok := shapes.DrawnLive(own, p); ok {
		return shapes.Measured(p(), s), nil, nil
	}
	if second < 1 { // turned about, the second worker is the thicker
		scaled := make([]float64, len(fillers))
		for i, f := range fillers {
			scaled[len(fillers)-1-i] = f / second
		}
		s, rough, err := nearRow(1/second, scaled)
		if err != nil {
			return s, nil, err
		}
		return turned(s, second), &shapes.Rough{Key: own, Share: rough, Problem: p}, nil
	}
	s, rough, err := nearRow(second, fillers)
	return s, &shapes.Rough{Key: own, Share: rough, Problem: p}, err
}

// nearRow is the row of the family with the least that is no thinner in anything,
// and by what share of its cord that may be too much.
func nearRow(second float64, fillers []float64) (shapes.Shape, float64, error) {
	w, thick := rowOf(fillers)
	at := func(steps []float64, x float64, up bool) float64 {
		best := steps[0]
		for _, v := range steps {
			if up && v >= x-1e-9 {
				return v
			}
			if v <= x+1e-9 || up {
				best = v
			}
		}
		return best
	}
	get := func(up bool) (shapes.Shape, error) {
		s2, t := at(secondThick, second, up), at(unequalThick, thick, up)
		n := unequalNear(s2, t, int(math.Ceil(w/thick)))
		return family.Shape(flatCell(s2, same(n, t)))
	}
	more, err := get(true)
	if err != nil {
		return more, 0, err
	}
	less, err := get(false)
	return more, math.Max(0, 1-perStrandOf(less)/perStrandOf(more)), err
}

// turned is a row turned about, with the second worker as the first, r times as
// large.
func turned(s shapes.Shape, r float64) shapes.Shape {
	out := shapes.Shape{Pitch: r * s.Pitch, Gap: s.Gap, Strands: make([][]r3.Vec, 2)}
	for i := range out.Strands {
		for _, v := range s.Strands[1-i] {
			out.Strands[i] = append(out.Strands[i], r3.Vec{X: -r * v.X, Y: r * v.Y, Z: -r * v.Z})
		}
	}
	return out
}
