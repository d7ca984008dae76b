package scene

import (
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// What a sheath shows beside its cord's own colour is a field over the pixels like a tone,
// and traced like one. Fine patterns are drawn from fineFrom pixels a diameter on, those
// that colour whole stretches of cord at every size.
const fineFrom = 12

// fine tells the patterns that are single yarns and flecks.
func fine(p cord.Pattern) bool { return p == cord.Flecked || p == cord.Tracer || p == cord.Glow }

// Colours are those of a picture of cords: their own, then those of their sheaths.
func Colours(stuffs []cord.Stuff) []string {
	var out []string
	for _, s := range stuffs {
		out = append(out, s.Colour)
	}
	for _, s := range stuffs {
		if s.Sheath != nil {
			out = append(out, s.Sheath.Colours...)
		}
	}
	return out
}

// besides are the first of the colours that each cord's sheath has in a picture.
func besides(stuffs []cord.Stuff) []int {
	out, next := make([]int, len(stuffs)), len(stuffs)
	for i, s := range stuffs {
		out[i] = next
		if s.Sheath != nil {
			next += len(s.Sheath.Colours)
		}
	}
	return out
}

// owners are the cords whose the colours of a picture are.
func owners(stuffs []cord.Stuff) []int {
	var out []int
	for i := range stuffs {
		out = append(out, i)
	}
	for i, s := range stuffs {
		if s.Sheath != nil {
			for range s.Sheath.Colours {
				out = append(out, i)
			}
		}
	}
	return out
}

// sheathBetween is how the sheath lies at a place between points i and i+1 of a strand.
func sheathBetween(s plan.Strand, i int, v r3.Vec) plan.SheathAt {
	a, b := s.Points[i], s.Points[i+1]
	share := 0.0
	if long := r3.Norm(r3.Sub(b, a)); long > 0 {
		share = math.Max(0, math.Min(1, r3.Norm(r3.Sub(v, a))/long))
	}
	p, q := s.Sheath[i], s.Sheath[i+1]
	return plan.SheathAt{MM: p.MM + share*(q.MM-p.MM), Up: curve.Lerp(p.Up, q.Up, share)}
}

// onSheath is where on its sheath the cord that is on top at a pixel is seen: mm along the
// cord and the angle round it. It is not ok where the sheath has no pattern.
func (p *partition) onSheath(at int) (t *tube, mm, angle float64, ok bool) {
	top := p.top[at]
	q := &p.slices[top]
	t = p.c.tubes[q.tube]
	if t.sheath == nil {
		return t, 0, 0, false
	}
	x, y := p.middle(at)
	place := t.places[top-p.first[q.tube]]
	nx, ny, nz := q.normal(x, y)
	out := r3.Vec{X: nx, Y: ny, Z: nz}
	heading := r3.Vec{X: q.tx * q.cos, Y: q.ty * q.cos, Z: q.sin}
	up := curve.Across(place.Up, heading)
	angle = math.Atan2(r3.Dot(out, r3.Cross(heading, up)), r3.Dot(out, up))
	mm = place.MM
	if !q.ball { // between two slices it is a little farther on
		along, _, u := q.local(x, y)
		c := math.Sqrt(math.Max(0, 1-u*u))
		mm += (along + q.h*c*q.sin) / math.Max(q.cos, 0.3) / p.raster.per * t.longer(int(top-p.first[q.tube]))
	}
	return t, mm, angle, true
}

// colour is which of the picture's colours is seen at a pixel where cord is on top.
func (p *partition) colour(at int) int {
	t, mm, angle, ok := p.onSheath(at)
	if ok && !t.plain {
		if k := t.sheath.Of(mm, angle, t.d); k >= 0 {
			return t.beside + k
		}
	}
	return t.paint.Cord
}

// longer is how much longer the cord is than its curve about a sample.
func (t *tube) longer(i int) float64 {
	a, b := max(0, i-1), min(len(t.samples)-1, i+1)
	if long := t.samples[b].s - t.samples[a].s; long > 1e-9 {
		return (t.places[b].MM - t.places[a].MM) / long
	}
	return 1
}

// patterns draws what sheaths show beside their cord's own colour.
func (w *writer) patterns(from, to int) {
	type group struct {
		colour int
		lit    bool
	}
	fields := map[group][]float32{}
	var order []group
	for _, lit := range [2]bool{false, true} {
		for _, t := range w.c.tubes {
			if t.sheath == nil || t.plain || fine(t.sheath.Pattern) && w.px < fineFrom {
				continue
			}
			for k := range t.sheath.Colours {
				g := group{t.beside + k, lit}
				if fields[g] == nil {
					f := make([]float32, w.wide*w.tall)
					for i := range f {
						f[i] = 1
					}
					fields[g] = f
					order = append(order, g)
				}
			}
		}
	}
	if len(order) == 0 {
		return
	}
	for at := from * w.wide; at < to*w.wide; at++ {
		if w.region[at] < 0 || w.top[at] < 0 {
			continue
		}
		t, mm, angle, ok := w.onSheath(at)
		if !ok {
			continue
		}
		lit := w.slices[w.top[at]].sheet&1 != 0
		for k := range t.sheath.Colours {
			if f := fields[group{t.beside + k, lit}]; f != nil {
				f[at] = float32(-t.sheath.Reach(k, mm, angle, t.d))
			}
		}
	}
	for _, g := range order {
		kind := Body
		if g.lit {
			kind = Lit
		}
		w.add(Layer{Kind: kind, Paint: Paint{Cord: g.colour}, Paths: w.mask(fields[g], 0, from, to, tolerance)})
	}
}
