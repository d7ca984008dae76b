// Package pack finds the smallest round hole that takes round cords side by side.
package pack

import (
	"cmp"
	"math"
	"math/rand/v2"
	"slices"
)

// Exact is up to how many cords the hole is sought by trying ways to lie; more are put
// together by [Hole] as a bundle.
const Exact = 8

// Dense is the share of a hole that many cords fill.
const Dense = 0.8

// Hole is the diameter of the smallest round hole that takes cords of these diameters
// side by side, in their unit. Up to [Exact] cords it is the least over many beginnings,
// each drawn together till nothing gives any more: what it says always takes them, and
// is the known optimum to within 1e-6 of it where one is published. More cords are taken
// to fill [Dense] of the hole, never less than the largest of them need.
//
// Laws: cords twice as thick need a hole twice as wide; another cord never makes it
// smaller; the order of the cords is of no account.
func Hole(diameters []float64) float64 {
	ds := slices.Clone(diameters)
	slices.Sort(ds)
	slices.Reverse(ds)
	for len(ds) > 0 && ds[len(ds)-1] <= 0 {
		ds = ds[:len(ds)-1]
	}
	switch {
	case len(ds) == 0:
		return 0
	case len(ds) == 1:
		return ds[0]
	case len(ds) == 2:
		return ds[0] + ds[1]
	case len(ds) > Exact:
		area := 0.0
		for _, d := range ds {
			area += d * d
		}
		return math.Max(Hole(ds[:Exact]), math.Sqrt(area/Dense))
	}
	// In units of the thickest, so that the search is the same at any scale.
	r := make([]float64, len(ds))
	for i, d := range ds {
		r[i] = d / ds[0] / 2
	}
	return 2 * ds[0] * least(r)
}

// starts is how many random beginnings are drawn together roughly, promising how many of
// them for good, and rounds how often the weight of what overlaps is then raised.
const (
	starts    = 60
	promising = 8
	rounds    = 14
)

// least is the radius of the smallest hole for circles of radii of at most a half.
func least(r []float64) float64 {
	rnd := rand.New(rand.NewPCG(11, uint64(len(r)))) // the same answer every time
	var all []*packing
	for range starts {
		p := newPacking(r, rnd)
		p.settle(160)
		p.rough = p.fits()
		all = append(all, p)
	}
	slices.SortFunc(all, func(a, b *packing) int { return cmp.Compare(a.rough, b.rough) })
	best := math.Inf(1)
	for _, p := range all[:promising] {
		p.drawTogether()
		best = math.Min(best, p.fits())
	}
	return best
}

// packing is circles on their way into a hole: x, y of each, then the hole's radius.
type packing struct {
	r, v, grad, step []float64
	pair             []float64 // how much each touch is leant on, pairs first, then the hole
	weight           float64
	rough            float64 // hole that takes it as it lies, before it is drawn together
}

func newPacking(r []float64, rnd *rand.Rand) *packing {
	n := len(r)
	p := &packing{r: r, v: make([]float64, 2*n+1), grad: make([]float64, 2*n+1), step: make([]float64, 2*n+1), pair: make([]float64, n*(n-1)/2+n), weight: 10}
	sum := 0.0
	for i := range r {
		sum += r[i]
		p.v[2*i], p.v[2*i+1] = rnd.NormFloat64(), rnd.NormFloat64()
	}
	p.v[2*n] = sum
	return p
}

// touches goes over all pairs and the hole, with by how much each is short of room.
func (p *packing) touches(each func(k, i, j int, short, ux, uy float64)) {
	n, k := len(p.r), 0
	for i := range n {
		for j := range i {
			dx, dy := p.v[2*i]-p.v[2*j], p.v[2*i+1]-p.v[2*j+1]
			far := math.Max(1e-12, math.Hypot(dx, dy))
			each(k, i, j, p.r[i]+p.r[j]-far, dx/far, dy/far)
			k++
		}
	}
	for i := range n {
		far := math.Max(1e-12, math.Hypot(p.v[2*i], p.v[2*i+1]))
		each(k, i, -1, far+p.r[i]-p.v[2*n], p.v[2*i]/far, p.v[2*i+1]/far)
		k++
	}
}

// slope fills the gradient of what is made small: the hole, and what is short of room.
func (p *packing) slope() {
	n := len(p.r)
	for i := range p.grad {
		p.grad[i] = 0
	}
	p.grad[2*n] = 1
	p.touches(func(k, i, j int, short, ux, uy float64) {
		f := p.pair[k] + p.weight*short
		if f <= 0 {
			return
		}
		if j >= 0 {
			p.grad[2*i] -= f * ux
			p.grad[2*i+1] -= f * uy
			p.grad[2*j] += f * ux
			p.grad[2*j+1] += f * uy
			return
		}
		p.grad[2*i] += f * ux
		p.grad[2*i+1] += f * uy
		p.grad[2*n] -= f
	})
}

// settle walks downhill with momentum.
func (p *packing) settle(steps int) {
	rate := 0.12 / p.weight
	for i := range p.step {
		p.step[i] = 0
	}
	for range steps {
		p.slope()
		with := 0.0
		for i := range p.step {
			with += p.step[i] * -p.grad[i]
		}
		keep := 0.9
		if with < 0 { // it has gone too far
			keep = 0
		}
		for i := range p.v {
			p.step[i] = keep*p.step[i] - rate*p.grad[i]
			p.v[i] += p.step[i]
		}
	}
}

// drawTogether leans on what is short of room till none is (augmented Lagrangian).
func (p *packing) drawTogether() {
	for round := range rounds {
		p.settle(260)
		p.touches(func(k, _, _ int, short, _, _ float64) {
			p.pair[k] = math.Max(0, p.pair[k]+p.weight*short)
		})
		if round < 5 {
			p.weight *= 1.6
		}
	}
}

// fits is the hole that surely takes them as they lie: they are moved apart from the
// middle till none overlaps.
func (p *packing) fits() float64 {
	apart := 1.0
	p.touches(func(_, i, j int, short, _, _ float64) {
		if j >= 0 && short > 0 {
			apart = math.Max(apart, (p.r[i]+p.r[j])/math.Max(1e-9, p.r[i]+p.r[j]-short))
		}
	})
	out := 0.0
	for i, r := range p.r {
		out = math.Max(out, apart*math.Hypot(p.v[2*i], p.v[2*i+1])+r)
	}
	return out
}
