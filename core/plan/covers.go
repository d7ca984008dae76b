package plan

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// coversUp is how far above an end its way at the back is looked over, in diameters: under
// a dozen crossings of the widest knots.
const coversUp = 40

// reachUp is how far up the width of the work is taken, in diameters: the last knots.
const reachUp = 3

// covers are the places where strands lie at the back over the way straight up from the
// end of a leg, the nearest first: one for each strand that crosses that way, and no two
// nearer than two thirds of a diameter. Of a few ways beside each other, no more than
// two diameters and a quarter towards the middle of the work, the one that the most strands
// cross within reach is taken. y counts from the end, z and x about the work's axis.
func (w *walk) covers(l *leg, middle float64) []knot.Cover {
	d := w.thick(l)
	var best []knot.Cover
	wide := 0.0
	for _, o := range w.legs {
		o.eachFrom(l.at.Y-reachUp*d, func(v r3.Vec, _ bool) { wide = math.Max(wide, math.Abs(v.X-middle)) })
	}
	inside := math.Max(wide-0.9*d, 0.5*d)
	inward := math.Copysign(1, middle-l.at.X)
	if math.Abs(middle-l.at.X) < 0.01*d {
		inward = 1
	}
	for _, step := range []float64{0, 0.25, 0.5, 0.75, 1, 1.25, 1.5, 1.75, 2, 2.25} {
		if x := l.at.X + inward*step*d; math.Abs(x-middle) > inside {
			continue // it would show at the edge
		}
		if found := w.coversAt(l, l.at.X+inward*step*d, d); len(found) > len(best) {
			best = found
		}
	}
	for i := range best {
		best[i].At.X -= middle
	}
	return best
}

// coversOf is how many crossings lie over the way back of an end that is finished by a
// straight cut, by the name of its strand.
func (p Plan) coversOf(name string) int {
	if p.layout == nil {
		return 0
	}
	w := p.layout.walk
	for _, l := range w.legs {
		if w.label(l) != name {
			continue
		}
		at := *l
		at.at.Y -= l.leave
		return len(w.covers(&at, middleOf(w.legs, at.at.Y)))
	}
	return 0
}

// middleOf is the middle of what hangs about a height.
func middleOf(legs []*leg, y float64) float64 {
	sum, n := 0.0, 0.0
	for _, l := range legs {
		if math.Abs(l.at.Y-l.leave-y) < 1 {
			sum += l.at.X
			n++
		}
	}
	return sum / math.Max(1, n)
}

// coversAt are the covers of one way up, at x.
func (w *walk) coversAt(l *leg, x, d float64) []knot.Cover {
	const behind = 0.6 // of a diameter behind the work's middle
	var out []knot.Cover
	for _, o := range append(slices.Clone(w.legs), w.own...) {
		var last r3.Vec
		first := true
		o.eachFrom(l.at.Y-coversUp*d, func(v r3.Vec, joined bool) {
			if !first && joined && (last.X-x)*(v.X-x) <= 0 && last.X != v.X {
				at := curve.Lerp(last, v, (x-last.X)/(v.X-last.X))
				if up := l.at.Y - at.Y; up > 0.2*d && up < coversUp*d && at.Z < -behind*d {
					out = append(out, knot.Cover{UpMM: up, At: r3.Vec{X: x, Y: -up, Z: at.Z}})
				}
			}
			last, first = v, false
		})
	}
	slices.SortFunc(out, func(a, b knot.Cover) int { return int(math.Copysign(1, a.UpMM-b.UpMM)) })
	apart := out[:0:0]
	for _, c := range out {
		if n := len(apart); n > 0 && c.UpMM-apart[n-1].UpMM < 2*d/3 {
			if c.At.Z < apart[n-1].At.Z { // the one that lies outermost covers it
				apart[n-1].At.Z = c.At.Z
			}
			continue
		}
		apart = append(apart, c)
	}
	return apart
}
