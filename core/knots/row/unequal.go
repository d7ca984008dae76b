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
// and the thinner winds round it, so the two ways have nothing of the symmetry
// of equal workers; each is taken between neighbours node by node, by its share
// of the way. Across the fillers a node keeps its share of their width, beside
// them its distance from their edge.

var (
	secondThick  = []float64{1, 1.33, 1.86, 2.5, 3.5, 5, 8}      // the second worker, in firsts
	unequalThick = []float64{0.25, 0.4, 0.75, 1.33, 2.5, 4.5, 8} // fillers, in firsts
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
var restless = [][3]float64{{3.5, 0.4, 1}, {5, 0.25, 1}, {8, 0.25, 2}, {8, 0.25, 6}, {8, 4.5, 6}}

const unequalNodes = 120

// unequalNode is a node's place: how far across the fillers, from -1 at their
// left edge to 1 at their right one, and how far beyond that.
type unequalNode struct {
	across float64
	at     r3.Vec
}

type unequalHalf struct {
	ways  [2][]unequalNode
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
			h.ways[i] = append(h.ways[i], unequalNode{across, r3.Vec{X: v.X - across*w/2, Y: v.Y - top, Z: v.Z}})
		}
	}
	return h
}

func mixUnequal(hs []unequalHalf, weights []float64) unequalHalf {
	out := unequalHalf{gap: math.Inf(1)}
	for n, h := range hs {
		out.pitch += weights[n] * h.pitch
		out.gap = math.Min(out.gap, h.gap)
		for i := range out.ways {
			if n == 0 {
				out.ways[i] = make([]unequalNode, len(h.ways[i]))
			}
			for k, v := range h.ways[i] {
				o := &out.ways[i][k]
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
		out := shapes.Shape{Pitch: second * s.Pitch, Gap: s.Gap, Strands: make([][]r3.Vec, 2)}
		for i := range out.Strands {
			for _, v := range s.Strands[1-i] {
				out.Strands[i] = append(out.Strands[i], r3.Vec{X: -second * v.X, Y: second * v.Y, Z: -second * v.Z})
			}
		}
		return out, nil
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
	out := shapes.Shape{Pitch: h.pitch, Gap: h.gap, Strands: make([][]r3.Vec, 2)}
	for i, way := range h.ways {
		line := make([]r3.Vec, 0, len(way))
		for _, v := range way {
			line = append(line, r3.Vec{X: v.at.X + v.across*w/2, Y: v.at.Y, Z: v.at.Z})
		}
		out.Strands[i] = line[:len(line)-1] // the last is the first of the next half knot
	}
	return out, nil
}

// unequalProblems are the rows of two thicknesses that are drawn up at build
// time.
func unequalProblems(out map[string]tighten.Problem) {
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
