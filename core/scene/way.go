package scene

import (
	"math"
	"slices"

	"nimblebight/core/plan"
	"nimblebight/core/trace"

	"gonum.org/v1/gonum/spatial/r3"
)

// Disc is the number of a place, where its strand hangs; hundredths of a millimetre.
type Disc struct {
	Place int `json:"place"`
	X     int `json:"x"`
	Y     int `json:"y"`
}

// Spot is a place in a picture, hundredths of a millimetre.
type Spot struct {
	X int `json:"x"`
	Y int `json:"y"`
}

// MarkBump marks what shows on which side a row goes on.
func (p *Picture) MarkBump(v View, at r3.Vec) {
	sin, cos := v.turned()
	p.Bump = &Spot{hundredths(cos*at.X + sin*at.Z), hundredths(at.Y)}
}

// legs gives the points of every strand that hangs in a stretch of y, as they are
// seen. Those of a cord before its fold run from its end.
func (v View) legs(l plan.Layout, from, to float64) map[plan.LegOf][]r3.Vec {
	out := map[plan.LegOf][]r3.Vec{}
	sin, cos := v.turned()
	for _, s := range l.Near(from, to) {
		for i, p := range s.Points {
			k := plan.LegOf{Strand: s.Index, Leg: s.LegAt(i)}
			out[k] = append(out[k], r3.Vec{X: cos*p.X + sin*p.Z, Y: p.Y, Z: cos*p.Z - sin*p.X})
		}
	}
	return out
}

// crossing is where a line of points crosses y for the last time on its way.
func crossing(pts []r3.Vec, y float64) (x float64, ok bool) {
	for i := 1; i < len(pts); i++ {
		a, b := pts[i-1], pts[i]
		if (a.Y < y) != (b.Y < y) {
			x, ok = a.X+(b.X-a.X)*(y-a.Y)/(b.Y-a.Y), true
		}
	}
	return x, ok
}

// Number sets the numbers of places at y on the strands that hang there: those that
// they had when the action in hand began. Where two would lie on one another the
// second stands higher.
func (p *Picture) Number(l plan.Layout, v View, y float64) {
	p.Discs, p.Thick = []Disc{}, hundredths(l.Thick)
	here := v.legs(l, y-2*l.Thick, y+2*l.Thick)
	wide := hundredths(0.9 * l.Thick)
	for i, k := range l.Places {
		x, ok := crossing(here[k], y)
		if !ok {
			continue
		}
		p.Discs = p.apart(Disc{i + 1, hundredths(x), hundredths(y)}, wide)
	}
}

// apart are the discs with one more, which stands higher where it would lie on another.
func (p *Picture) apart(d Disc, wide int) []Disc {
	for _, q := range p.Discs {
		if max(d.Y-q.Y, q.Y-d.Y) < wide && max(d.X-q.X, q.X-d.X) < wide {
			d.Y = q.Y - wide
		}
	}
	return append(p.Discs, d)
}

// Lead shows the ways that strands in hand still have to go: their paths when they are
// led all the way, less where they are now. Only what is shown of y counts.
func (p *Picture) Lead(now, led plan.Layout, v View) {
	p.Ways = nil
	if !slices.Equal(led.Moving, now.Moving) {
		return
	}
	d := now.Thick
	is, will := v.legs(now, v.From, v.To), v.legs(led, v.From, v.To)
	folded := map[int]bool{}
	for _, s := range now.Near(v.From, v.To) {
		folded[s.Index] = s.Fold != 0
	}
	of := func(legs map[plan.LegOf][]r3.Vec, m plan.LegOf) []r3.Vec {
		pts := legs[m]
		if m.Leg == 0 && folded[m.Strand] {
			slices.Reverse(pts) // from the fold on
		}
		return pts
	}
	// The cord that then hangs down would say nothing.
	_, low, _, _ := led.Hand()
	low = math.Min(v.To-2*d, low+1.5*d)
	for _, m := range now.Moving {
		if m.Leg >= 0 { // all of a cord is put on: it goes no way
			p.addWay(wayOf(of(is, m), of(will, m), d, func(q r3.Vec) bool { return q.Y >= led.MovingFrom-0.5*d && q.Y <= low }))
		}
	}
}

func (p *Picture) addWay(way *Path) {
	if way != nil {
		p.Ways = append(p.Ways, *way)
	}
}

func length(pts []trace.Point) float64 {
	sum := 0.0
	for i := 1; i < len(pts); i++ {
		sum += pts[i].To(pts[i-1])
	}
	return sum
}
