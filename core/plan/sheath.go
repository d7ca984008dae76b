package plan

import (
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// SheathAt is how the sheath of a cord lies at a point of its strand.
type SheathAt struct {
	MM float64 // along the cord, from where the pattern of its sheath begins
	Up r3.Vec  // the side from which it is counted round the cord, a unit across it
}

// sheaths tells how the sheath lies at every point of the path. The lengths are those of
// cord, as the sections take it: a little more than those of the curve. The pattern begins
// shift mm before the fold, or before the first end of what is not folded.
//
// How far a cord turns about itself is not known: here it does not.
func (v *cordPath) sheaths() []SheathAt {
	v.sheathed.Do(func() { v.sheath = v.findSheaths() })
	return v.sheath
}

func (v *cordPath) findSheaths() []SheathAt {
	points := make([]r3.Vec, 0, v.all)
	longer := map[*leg]map[int]float64{} // how much more cord than curve each section takes
	for _, p := range v.parts {
		longer[p.leg] = p.leg.longer()
	}
	out := make([]SheathAt, 0, v.all)
	for i := range v.blocks {
		b := &v.blocks[i]
		for k := range b.n() {
			if k == 0 && b.skip {
				continue
			}
			p, section, _ := b.at(k)
			at := SheathAt{}
			if n := len(points); n > 0 {
				more, said := longer[b.leg][section]
				if !said {
					more = 1
				}
				at.MM = out[n-1].MM + more*r3.Norm(r3.Sub(p, points[n-1]))
			}
			points, out = append(points, p), append(out, at)
		}
	}
	from := -v.shift
	if v.fold > 0 && v.fold <= len(out) {
		from += out[v.fold-1].MM
	}
	for i := range out {
		out[i].MM -= from
	}
	carry(points, out)
	return out
}

// longer is how much longer the cord of each section is than the leg's curve there.
func (l *leg) longer() map[int]float64 {
	takes, long := map[int]float64{}, map[int]float64{}
	for _, p := range l.parts {
		takes[p.Section] += p.MM
	}
	var last r3.Vec
	first := true
	l.each(func(v r3.Vec, section int, _ knot.Lie) {
		if !first {
			long[section] += r3.Norm(r3.Sub(v, last))
		}
		last, first = v, false
	})
	out := map[int]float64{}
	for s, mm := range takes {
		if mm > 0 && long[s] > 0 {
			out[s] = mm / long[s]
		}
	}
	return out
}

// carry carries the side from which a sheath is counted along the points of a strand
// without turning about it.
func carry(points []r3.Vec, at []SheathAt) {
	up := r3.Vec{Z: 1}
	heading := r3.Vec{Y: 1}
	for i := range points {
		along := r3.Sub(points[min(i+1, len(points)-1)], points[max(i-1, 0)])
		if n := r3.Norm(along); n > 1e-9 {
			heading = r3.Scale(1/n, along)
		}
		up = curve.Across(up, heading)
		at[i].Up = up
	}
}

// bands are the colours of a leg as it is cut, where its cord changes along its length.
func (w *walk) bands(ci, n int, cutMM float64) []Stretch {
	shift, ok := w.repeats(ci)
	if !ok {
		return nil
	}
	stuff := w.d.Cords[ci].Stuff
	var out []Stretch
	for _, b := range stuff.Sheath.Bands(shift, cutMM, n == 1) {
		colour := stuff.Colour
		if b.Colour >= 0 {
			colour = stuff.Sheath.Colours[b.Colour]
		}
		out = append(out, Stretch{b.MM, colour})
	}
	return out
}

// repeats gives the shift of a cord whose sheath has a pattern.
func (w *walk) repeats(ci int) (shift float64, ok bool) {
	c := w.d.Cords[ci]
	return math.Max(0, c.ShiftMM), c.Stuff.Sheath != nil
}
