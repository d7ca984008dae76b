package knot

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
)

// Gathering knot (wrap knot): a separate cord is laid as a long eye along the
// bundle, wound round it and the eye from the top, its end put through the eye;
// the other end is pulled till the eye is half way under the turns, and both
// are cut flush.
//
// Right: the turns lie side by side, none crossed, none climbing on another.
// Wrong: a turn that crosses another; pull it off and wind again.
//
// Makers differ in the number of turns; below five the eye shows when the wrap
// works loose.
func init() {
	add(Knot{
		Outside: true, ID: "gather", Name: "gathering knot", Family: "wraps and gathers",
		OtherNames: []string{"wrap knot", "wrapping knot"},
		For:        "holding a bundle together above a tassel",
		Schools:    []School{{Field: "turns", Default: "6", Why: "five or more keep the eye hidden"}},
		Fields: []Field{
			{Key: "cord", Short: "", Label: "cord", Kind: "cord"},
			{Key: "turns", Short: "turns", Label: "turns", Kind: "count", Default: "6", Least: 1, Most: 500, Needed: true},
		},
		fill:  func(s *Section) { s.Turns = 6 },
		hangs: true,
		tie:   tieGather,
	})
}

var bundles kept.By[[]disc] // packed before

// disc is the section of a strand in a bundle.
type disc struct{ x, z, r float64 }

// Disc is the section of a strand, mm.
type Disc struct{ X, Z, R float64 }

// bundle packs strands into a round bundle without overlap: starting from
// where they hang, drawn to the middle and pushed apart where they meet.
func bundle(radii []float64, from []Vec, strands int) []disc {
	n := strands
	ds := make([]disc, len(radii))
	for i, r := range radii {
		// Every other one starts a little to the front, the same way from both
		// sides, so that the mirror of a bundle is a bundle.
		front := 0.4 * r
		if i < n && min(i, n-1-i)%2 == 1 {
			front = -front
		}
		ds[i] = disc{from[i].X * 0.5, from[i].Z + front, r}
	}
	const steps = 1500
	for step := range steps {
		draw := 0.3 * math.Pow(0.0005/0.3, float64(step)/(steps-1)) // ever gentler
		for i := range ds {
			ds[i].x -= draw * ds[i].x
			ds[i].z -= draw * ds[i].z
		}
		for range 8 {
			// All at once and not one after the other: the order would show.
			push := make([]disc, len(ds))
			for i := range ds {
				for j := i + 1; j < len(ds); j++ {
					dx, dz := ds[j].x-ds[i].x, ds[j].z-ds[i].z
					d, want := math.Hypot(dx, dz), ds[i].r+ds[j].r
					if d >= want {
						continue
					}
					if d < 1e-9 {
						dx, dz, d = 1, 0, 1
					}
					k := (want - d) / d / 2
					push[i].x -= dx * k
					push[i].z -= dz * k
					push[j].x += dx * k
					push[j].z += dz * k
				}
			}
			for i := range ds {
				ds[i].x += 0.7 * push[i].x
				ds[i].z += 0.7 * push[i].z
			}
		}
	}
	return ds
}

// round is a taut turn of cord of diameter d about a bundle: its centre line
// in section, closed, from the right side over the face.
func round(ds []disc, d float64) []Vec {
	const n = 72
	var out []Vec
	for i := range n {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		best, at := math.Inf(-1), 0
		for k, q := range ds {
			if h := q.x*c + q.z*s + q.r; h > best {
				best, at = h, k
			}
		}
		q := ds[at]
		out = append(out, Vec{X: q.x + (q.r+d/2)*c, Z: q.z + (q.r+d/2)*s})
	}
	return out
}

func tieGather(w Work) (Tied, error) {
	if len(w.Leads) < 2 {
		return Tied{}, fmt.Errorf("gather needs two strands or more to hold; it has %d", len(w.Leads))
	}
	own := w.Own[0]
	d := own.Diameter
	var radii []float64
	var from []Vec
	for _, l := range w.Leads {
		radii, from = append(radii, l.Diameter/2), append(from, l.At)
	}
	// The two legs of the eye lie in the bundle too.
	radii = append(radii, d/2, d/2)
	from = append(from, Vec{X: -d, Z: -3 * d}, Vec{X: d, Z: -3 * d})
	ds, err := bundles.Get(fmt.Sprintf("%.6f %.6f", radii, from), func() ([]disc, error) { return bundle(radii, from, len(w.Leads)), nil })
	if err != nil {
		return Tied{}, err
	}
	if w.Core != nil { // the strands end in the core, and the eye lies behind it
		ds = ds[:0:0]
		back := math.Inf(1)
		for _, q := range w.Core {
			ds = append(ds, disc{q.X, q.Z, q.R})
			back = math.Min(back, q.Z-q.R)
		}
		ds = append(ds, disc{-0.6 * d, back - d/2, d / 2}, disc{0.6 * d, back - d/2, d / 2})
	}
	ring := round(ds, d)
	t := Tied{Loose: true, Order: identity(len(w.Leads)), Repeats: 1, Gap: 1}
	t.Height = float64(w.Section.Turns)*d + d
	for i, l := range w.Leads {
		if w.Core != nil {
			t.Paths = append(t.Paths, Path{Points: []Vec{l.At}})
			continue
		}
		t.Paths = append(t.Paths, Path{Points: []Vec{{X: ds[i].x, Z: ds[i].z}, {X: ds[i].x, Y: t.Height, Z: ds[i].z}}})
	}
	a, b := ds[len(ds)-2], ds[len(ds)-1]
	// Down along one leg, the eye's bend, up along the other, then the turns.
	pts := []Vec{{X: a.x, Y: 0.2 * d, Z: a.z}, {X: a.x, Y: t.Height - 0.5*d, Z: a.z}}
	for i := 1; i < 6; i++ {
		s, c := math.Sincos(math.Pi * float64(i) / 6)
		m := curve.Lerp(Vec{X: a.x, Z: a.z}, Vec{X: b.x, Z: b.z}, (1-c)/2)
		pts = append(pts, Vec{X: m.X, Y: t.Height - 0.5*d + 0.5*d*s, Z: m.Z})
	}
	pts = append(pts, Vec{X: b.x, Y: t.Height - 0.5*d, Z: b.z}, Vec{X: b.x, Y: 0.7 * d, Z: b.z})
	// Begin where the ring is nearest to the eye's leg.
	first, best := 0, math.Inf(1)
	for i, v := range ring {
		if h := math.Hypot(v.X-b.x, v.Z-b.z); h < best {
			first, best = i, h
		}
	}
	about := curve.Curve{Points: ring, Closed: true}.Length()
	run := 0.0
	for k := 0; k <= w.Section.Turns*len(ring); k++ {
		v := ring[(first+k)%len(ring)]
		if k > 0 {
			u := ring[(first+k-1)%len(ring)]
			run += math.Hypot(v.X-u.X, v.Z-u.Z)
		}
		pts = append(pts, Vec{X: v.X, Y: 0.5*d + d*run/about, Z: v.Z})
	}
	t.Own = []Path{{Points: pts}}
	t.Actions = []Action{
		{Moves: len(w.Leads), Text: fmt.Sprintf("Lay cord %s along the bundle as a long eye, the bend down.", w.Section.Cord),
			Detail: "Leave the short end standing out at the top."},
		{Moves: len(w.Leads), Text: fmt.Sprintf("Wind the long end %d turns round bundle and eye, from the top down.", w.Section.Turns),
			Detail: "Side by side and snug.", Gate: "The turns lie side by side; none crosses another."},
		{Moves: len(w.Leads), Text: "Put the end through the eye and pull the short end till the eye is half way under the turns.",
			Detail: "The eye then lies {length} below the first turn. Cut both ends flush."},
	}
	return t, nil
}
