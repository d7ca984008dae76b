package knot

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

// SideBySide lays strands in a flat row, touching, about the middle: their x,
// the row's width and its greatest thickness.
func SideBySide(strands []Strand) (xs []float64, row, thick float64) {
	for _, l := range strands {
		row += l.Diameter
		thick = math.Max(thick, l.Diameter)
	}
	x := -row / 2
	for _, l := range strands {
		xs = append(xs, x+l.Diameter/2)
		x += l.Diameter
	}
	return xs, row, thick
}

var bundles memo.Cache[[]Disc] // packed before

// Disc is the section of a strand, mm.
type Disc struct{ X, Z, R float64 }

// Bundle packs strands into a round bundle without overlap: starting from
// where they hang, drawn to the middle and pushed apart where they meet.
func Bundle(radii []float64, from []r3.Vec, strands int) []Disc {
	ds, _ := bundles.Get(fmt.Sprintf("%d %.6f %.6f", strands, radii, from), func() ([]Disc, error) { return bundle(radii, from, strands), nil })
	return slices.Clone(ds)
}

func bundle(radii []float64, from []r3.Vec, strands int) []Disc {
	n := strands
	ds := make([]Disc, len(radii))
	for i, r := range radii {
		// Every other one starts a little to the front, the same way from both
		// sides, so that the mirror of a bundle is a bundle.
		front := 0.4 * r
		if i < n && min(i, n-1-i)%2 == 1 {
			front = -front
		}
		ds[i] = Disc{from[i].X * 0.5, from[i].Z + front, r}
	}
	const steps = 1500
	for step := range steps {
		draw := 0.3 * math.Pow(0.0005/0.3, float64(step)/(steps-1)) // ever gentler
		for i := range ds {
			ds[i].X -= draw * ds[i].X
			ds[i].Z -= draw * ds[i].Z
		}
		for range 8 {
			// All at once and not one after the other: the order would show.
			push := make([]Disc, len(ds))
			for i := range ds {
				for j := i + 1; j < len(ds); j++ {
					dx, dz := ds[j].X-ds[i].X, ds[j].Z-ds[i].Z
					d, want := math.Hypot(dx, dz), ds[i].R+ds[j].R
					if d >= want {
						continue
					}
					if d < 1e-9 {
						dx, dz, d = 1, 0, 1
					}
					k := (want - d) / d / 2
					push[i].X -= dx * k
					push[i].Z -= dz * k
					push[j].X += dx * k
					push[j].Z += dz * k
				}
			}
			for i := range ds {
				ds[i].X += 0.7 * push[i].X
				ds[i].Z += 0.7 * push[i].Z
			}
		}
	}
	return ds
}

// Under packs the strands of a section, with more cords of so great radii that lie behind
// them, into the bundle that something goes round. Where a band was folded back it goes
// round that.
func (w Work) Under(behind ...float64) []Disc {
	var radii []float64
	var from []r3.Vec
	for _, l := range w.Strands {
		radii, from = append(radii, l.Diameter/2), append(from, l.At)
	}
	for i, r := range behind {
		x := 2 * r
		if i%2 == 0 {
			x = -x
		}
		radii, from = append(radii, r), append(from, r3.Vec{X: x, Z: -6 * r})
	}
	if w.Core == nil {
		return Bundle(radii, from, len(w.Strands))
	}
	out := slices.Clone(w.Core)
	back := math.Inf(1)
	for _, q := range w.Core {
		back = math.Min(back, q.Z-q.R)
	}
	for i, r := range behind {
		x := 1.2 * r
		if i%2 == 0 {
			x = -x
		}
		out = append(out, Disc{x, back - r, r})
	}
	return out
}

// Round is the smallest circle about discs, to a thousandth.
func Round(ds []Disc) Disc {
	if len(ds) == 0 {
		return Disc{}
	}
	// Few lie on the circle: it is found about some of them, and what is left outside it
	// joins those.
	some := []Disc{ds[0], farthest(ds, ds[0].X, ds[0].Z)}
	for {
		c := about(some)
		out := farthest(ds, c.X, c.Z)
		reach := math.Hypot(out.X-c.X, out.Z-c.Z) + out.R
		if reach <= 1.0003*c.R || len(some) > 40 {
			c.R = math.Max(c.R, reach)
			return c
		}
		some = append(some, out)
	}
}

// about is the smallest circle about a few discs: the middle is pulled towards what lies
// farthest from it, less and less.
func about(ds []Disc) Disc {
	const rounds = 600
	out := Disc{ds[0].X, ds[0].Z, math.Inf(1)}
	x, z := out.X, out.Z
	for k := range rounds {
		at := farthest(ds, x, z)
		if far := math.Hypot(at.X-x, at.Z-z) + at.R; far < out.R {
			out = Disc{x, z, far}
		}
		step := 1 / float64(k+2)
		x, z = x+step*(at.X-x), z+step*(at.Z-z)
	}
	return out
}

// farthest is the disc that reaches farthest from a place.
func farthest(ds []Disc, x, z float64) Disc {
	far, at := math.Inf(-1), 0
	for i := range ds {
		d := &ds[i]
		if off := math.Sqrt((d.X-x)*(d.X-x)+(d.Z-z)*(d.Z-z)) + d.R; off > far {
			far, at = off, i
		}
	}
	return ds[at]
}

// Straight are the strands of a section, straight down through the bundle that they lie
// in, so far. Where a band was folded back they end in it, or lie along it.
func (w Work) Straight(ds []Disc, height float64) []Path {
	var out []Path
	for i, l := range w.Strands {
		switch {
		case w.Core == nil:
			out = append(out, Path{Points: []r3.Vec{{X: ds[i].X, Z: ds[i].Z}, {X: ds[i].X, Y: height, Z: ds[i].Z}}})
		case w.Through:
			out = append(out, Path{Points: []r3.Vec{l.At, {X: l.At.X, Y: height, Z: l.At.Z}}})
		default:
			out = append(out, Path{Points: []r3.Vec{l.At}})
		}
	}
	return out
}

// Threads tells how strands pass a bead together.
func Threads(b *Bead, strands []Strand, who string) (Passing, error) {
	if b == nil || b.HoleMM == 0 {
		fit := BeadFor(strands)
		if b != nil { // what is said of it stays
			hole, wide := fit.HoleMM, fit.WidthMM
			fit = *b
			fit.HoleMM, fit.WidthMM = hole, math.Max(b.WidthMM, wide)
		}
		return Passing{}, &Refused{Field: "bead", Why: "a bead is wanted, but none is given; say its hole, length and width", Set: &fit, Label: "Take a bead that they pass"}
	}
	if b.WidthMM <= b.HoleMM {
		return Passing{}, &Refused{Field: "bead.width_mm", Why: fmt.Sprintf("the bead is %.1f mm wide and its hole %.1f mm; a bead is wider than its hole", b.WidthMM, b.HoleMM),
			Set: math.Ceil(b.HoleMM) + 4}
	}
	p, goes := Goes(b.HoleMM, strands)
	if !goes {
		return p, &Refused{Field: "bead.hole_mm", Why: fmt.Sprintf("%s need a hole of %.1f mm to pass the bead together, %s; its hole is %.1f mm", who, p.NeedMM, p.Name, b.HoleMM),
			Set: math.Ceil(2*p.NeedMM) / 2}
	}
	return p, nil
}

// BeadFor is a bead that strands pass together: its hole is the next half millimetre.
func BeadFor(strands []Strand) Bead {
	p, _ := Goes(0, strands)
	need := p.NeedMM
	return Bead{LengthMM: 10, HoleMM: math.Ceil(2*need) / 2, WidthMM: math.Ceil(need) + 5}
}

// Seats are where strands run in a bead's hole, about its middle.
func Seats(strands []Strand) []r3.Vec {
	radii, from := []float64{}, []r3.Vec{}
	x := 0.0
	for _, l := range strands {
		x += l.Diameter
	}
	x = -x / 2
	for _, l := range strands {
		radii, from = append(radii, l.Diameter/2), append(from, r3.Vec{X: x + l.Diameter/2})
		x += l.Diameter
	}
	ds := Bundle(radii, from, len(radii))
	out := make([]r3.Vec, len(ds))
	for i, q := range ds {
		out[i] = r3.Vec{X: q.X, Z: q.Z}
	}
	return out
}
