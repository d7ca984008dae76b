package trainer

import (
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/loosen"
	"nimblebight/core/piece"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// comesOn is how far a strand is shown short of the crossing that is asked for, diameters.
const comesOn = 1.2

// vec is a place, diameters.
type vec = r3.Vec

// Layout is the diagram when ask k is come to: the strands that are led lie as they were led,
// the asks of slips the other way; the one in hand ends before the crossing, others hang.
func (l Lesson) Layout(k int, slips []int, stuffs []cord.Stuff) plan.Layout {
	return l.layout(l.led(slips), k, stuffs)
}

// Drawn is the knot when all is led, drawn up so far, from 0 to 1, by its film or by that of
// what came of it.
func (l Lesson) Drawn(by Own, drawn float64, stuffs []cord.Stuff) plan.Layout {
	frames := l.film.Frames
	if len(by.Film.Frames) > 0 {
		frames = by.Film.Frames
	}
	x := math.Max(0, math.Min(1, drawn)) * float64(len(frames)-1)
	return l.layout(loosen.Seen(frames[int(x)], l.across), len(l.Asks), stuffs)
}

func (l Lesson) layout(at [][]vec, k int, stuffs []cord.Stuff) plan.Layout {
	out := plan.Layout{Hardware: piece.Hardware{Type: "none", InnerMM: 20, WireMM: 2}, MovingFrom: math.Inf(-1)}
	d := 0.0
	for i := range l.Strands {
		s := stuffs[i%len(stuffs)]
		out.Stuffs, out.Figures = append(out.Stuffs, s), append(out.Figures, s.Figures())
		d = math.Max(d, s.DrawnUp())
	}
	out.Thick = d
	up := l.up()
	for i, pts := range at {
		upTo := float64(len(pts) - 1)
		if k < len(l.Asks) {
			switch a := l.Asks[max(0, k)]; {
			case i > a.Strand:
				upTo = l.hangs(i)
			case i == a.Strand:
				upTo = math.Max(1, back(pts, a.At, comesOn))
				out.Moving = []plan.LegOf{{Strand: i, Leg: -1}}
			}
		}
		s := plan.Strand{Cord: i, Index: i, Fold: -1}
		for n, v := range pts {
			end := float64(n) > upTo && n > 2
			if end { // between two nodes
				v = curve.Lerp(pts[n-1], v, math.Max(0, math.Min(1, upTo-float64(n-1))))
			}
			s.Points = append(s.Points, r3.Scale(d, r3.Add(v, r3.Vec{Y: up})))
			s.Section, s.Lies = append(s.Section, 0), append(s.Lies, knot.Knotted)
			out.Bottom = math.Max(out.Bottom, d*(v.Y+up))
			if end {
				break
			}
		}
		out.Strands = append(out.Strands, s)
	}
	out.Sections, out.Sides = [][2]float64{{0, out.Bottom}}, [][2]float64{{1, 0}}
	return out
}

// up is how far the diagram is moved down, so that nothing of it lies above 0, diameters.
func (l Lesson) up() float64 {
	up := 0.0
	for _, pts := range l.diagram {
		if !l.across && l.opened == nil {
			up = math.Max(up, -pts[0].Y)
			continue
		}
		for _, v := range pts {
			up = math.Max(up, 1-v.Y)
		}
	}
	return up
}

// hangs is up to which node a strand that is not led yet is shown: to where it first meets
// another.
func (l Lesson) hangs(strand int) float64 {
	first := math.Inf(1)
	for _, a := range l.Asks {
		if a.Strand == strand {
			first = math.Min(first, a.At)
		}
	}
	pts := l.diagram[strand]
	return math.Max(2, back(pts, math.Min(first, float64(len(pts)-1)), 2*comesOn))
}

// back is the place along a strand, in its nodes, so many diameters before another.
func back(pts []vec, at, by float64) float64 {
	for at > 0 && by > 0 {
		i := max(0, int(math.Ceil(at))-1) // the edge before it
		edge := r3.Norm(r3.Sub(pts[i+1], pts[i]))
		left := (at - float64(i)) * edge
		if by <= left {
			return at - by/edge
		}
		at, by = float64(i), by-left
	}
	return at
}

// Place is where ask k lies in the picture of its layout, mm.
func (l Lesson) Place(k int, stuffs []cord.Stuff) (x, y float64, ok bool) {
	if k < 0 || k >= len(l.Asks) {
		return 0, 0, false
	}
	d, up := 0.0, l.up()
	for i := range l.Strands {
		d = math.Max(d, stuffs[i%len(stuffs)].DrawnUp())
	}
	return d * l.Asks[k].X, d * (l.Asks[k].Y + up), true
}
