package ball

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/memo"
	"nimblebight/core/shapes"
	"nimblebight/core/side"

	"gonum.org/v1/gonum/spatial/r3"
)

// Warm measures every ball that is embedded, so that the first question is
// answered as fast as the next.
func Warm() {
	for _, f := range []family{starting, joined, leaving, leavingPair} {
		for p := LeastPasses; p <= MostPasses; p++ {
			if f.takes(p) {
				_, _ = tableOf(f, p) // what is missing is told when it is asked for
			}
		}
	}
}

// inStep gives a ball's strands with points that stand at the same places of the
// same turns whatever the core, so that balls on two cores can be mixed: evenly
// between the middles of the faces that a strand crosses.
func inStep(p int, s shapes.Shape) shapes.Shape {
	out := shapes.Shape{Gap: s.Gap}
	each := int(4 * math.Pi / 2 * (0.7*float64(p) + 1)) // four points a diameter
	for _, pts := range s.Strands {
		fine := curve.Spline(pts, false)
		fine = fine.Resample(5 * len(pts))
		var strand []r3.Vec
		from := 0
		put := func(to int, last bool) {
			if to > from {
				part := curve.Curve{Points: fine.Points[from : to+1]}.Resample(each + 1).Points
				if !last {
					part = part[:each]
				}
				strand = append(strand, part...)
				from = to
			}
		}
		for k := 1; k < len(fine.Points); k++ {
			if crossesMiddle(fine.Points[k-1], fine.Points[k]) {
				put(k, false)
			}
		}
		put(len(fine.Points)-1, true)
		out.Strands = append(out.Strands, strand)
	}
	return out
}

// crossesMiddle tells whether a step goes over the middle of a face: from one
// side of it to the other along its path.
func crossesMiddle(a, b r3.Vec) bool {
	const along = 0.45 // the cosine of what still runs so
	d := r3.Unit(r3.Sub(b, a))
	return a.X < 0 != (b.X < 0) && math.Abs(d.X) > along || a.Y < 0 != (b.Y < 0) && math.Abs(d.Y) > along || a.Z < 0 != (b.Z < 0) && math.Abs(d.Z) > along
}

// measures are the figures of a ball as read off its curve, all in cord
// diameters.
type measures struct {
	bands  [3]float64
	cords  []float64
	turns  float64 // in all its bands, as the curve winds
	face   float64
	corner float64
	hole   float64 // how wide the widest bare place is; below 0 it is covered
	gap    float64
}

// table holds the balls of one family and number of passes, drawn up on cores
// of steps diameters, and what was measured on each.
type table struct {
	f      family
	p      int
	steps  []float64
	shapes []shapes.Shape
	// snug is the core that just fills the ball: on a smaller one the turns lock
	// on one another and the faces stand off it.
	snug float64
	rows []measures
}

var tables = memo.Cache[*table]{Most: 48 << 20}

func tableOf(f family, p int) (*table, error) {
	return tables.Get(fmt.Sprint(f, p), func() (*table, error) {
		t := &table{f: f, p: p, steps: coreSteps(p)}
		t.shapes, t.rows = make([]shapes.Shape, len(t.steps)), make([]measures, len(t.steps))
		for _, core := range t.steps {
			if _, ok := embedded()[key(f, p, core)]; !ok {
				return nil, fmt.Errorf("the ball %q is not embedded: run make shapes", key(f, p, core))
			}
		}
		side.Each(len(t.steps), func(i int) {
			s := embedded()[key(f, p, t.steps[i])]
			t.shapes[i], t.rows[i] = inStep(p, s), measure(f, s)
		})
		t.snug = t.where(func(c float64, m measures) bool { return m.face <= c+4+standsOff })
		return t, nil
	})
}

// standsOff is by how much a ball may be thicker than its core and the two
// layers on either side before its faces stand off the core, in diameters.
const standsOff = 0.25

// at is the measures on a core of so many diameters, between those of the cores
// that were drawn up.
func (t *table) at(core float64) measures {
	at, weights := curve.Between(t.steps, core)
	out := measures{gap: math.Inf(1), cords: make([]float64, len(t.rows[0].cords))}
	for n, k := range at {
		m, w := t.rows[k], weights[n]
		for i := range out.bands {
			out.bands[i] += w * m.bands[i]
		}
		for i := range out.cords {
			out.cords[i] += w * m.cords[i]
		}
		out.turns += w * m.turns
		out.face += w * m.face
		out.corner += w * m.corner
		out.hole += w * m.hole
		out.gap = math.Min(out.gap, m.gap)
	}
	return out
}

// where is the least core, in diameters, from which on a law holds.
func (t *table) where(law func(core float64, m measures) bool) float64 {
	lo, hi := t.steps[0], t.steps[len(t.steps)-1]
	if law(lo, t.at(lo)) {
		return lo
	}
	for range 30 {
		mid := (lo + hi) / 2
		if law(mid, t.at(mid)) {
			hi = mid
		} else {
			lo = mid
		}
	}
	return hi
}

// A core shows at a corner where it comes nearer to the cords' outside than
// about two of them, or where a place between them is wider than light keeps out
// of: both in hard diameters.
const (
	cornerDeep = 3.75 // of both corners together
	bareMost   = 0.75
)

// cores are the cores that suit a cord. What is bare is narrower, and a corner
// as good as deeper, by what a turn covers beyond its hard diameter.
func (t *table) cores(c Cord) Range {
	hard := c.Hard()
	more := c.CoverMM/hard - 1
	most := t.where(func(core float64, m measures) bool {
		return m.hole-more > bareMost || m.corner-core < cornerDeep-more
	})
	most = math.Max(most, t.snug)
	// The best is firm under the turns and leaves room for a core that measures
	// a little more or less.
	best := (t.snug + most) / 2
	return Range{LeastMM: hard * t.snug, MostMM: hard * most, BestMM: hard * best}
}

// nextTo finds the two steps round x and their weights: between curves a straight
// mix keeps strands apart better than a bent one.
func nextTo(steps []float64, x float64) (at []int, weights []float64) {
	k := 0
	for k < len(steps)-2 && steps[k+1] <= x {
		k++
	}
	u := (x - steps[k]) / (steps[k+1] - steps[k])
	return []int{k, k + 1}, []float64{1 - u, u}
}

// alike tells whether two balls have their points at the same places.
func (t *table) alike(a, b int) bool {
	for i, pts := range t.shapes[a].Strands {
		if len(pts) != len(t.shapes[b].Strands[i]) {
			return false
		}
	}
	return true
}

// strands are the paths of the cords on a core of so many diameters.
func (t *table) strands(core float64) []Strand {
	at, weights := nextTo(t.steps, core)
	if !t.alike(at[0], at[1]) { // they do not cross as many faces: the nearer one is taken
		if weights[1] > 0.5 {
			at[0] = at[1]
		}
		at, weights = at[:1], []float64{1}
	}
	out := make([]Strand, len(t.shapes[0].Strands))
	for i := range out {
		pts := make([]r3.Vec, len(t.shapes[at[0]].Strands[i]))
		for n, k := range at {
			for j, v := range t.shapes[k].Strands[i] {
				pts[j] = r3.Add(pts[j], r3.Scale(weights[n], v))
			}
		}
		out[i] = Strand{Cord: i, Points: pts, Band: bandsOf(t.f, i, pts)}
	}
	return out
}

// faceNormals are the ways the six faces look: those of the first band, the
// second and the third, each with the one across.
func faceNormals() []r3.Vec {
	return []r3.Vec{{X: -1}, {X: 1}, {Y: 1}, {Y: -1}, {Z: 1}, {Z: -1}}
}

// bandsOf tells of each point of strand i which band it is in. A band's turns
// run across its axis, near its middle; the strand goes on into its next band
// where, all told, it then runs least along, and lies least far out on, the axes
// of the bands it is in.
func bandsOf(f family, i int, pts []r3.Vec) []int {
	bands := []int{0, 1, 2}
	if f == joined {
		bands = [][]int{{0}, {1, 2}}[i]
	}
	along := func(k, band int) float64 {
		d := r3.Sub(pts[min(k+1, len(pts)-1)], pts[max(k-1, 0)])
		a := [3]float64{d.Z, d.X, d.Y}[band]
		v := pts[k]
		out := [3]float64{v.Z, v.X, v.Y}[band]
		return a*a/math.Max(1e-12, r3.Norm2(d)) + out*out/math.Max(1e-12, r3.Norm2(v))
	}
	out := make([]int, len(pts))
	from := 0
	for n, band := range bands {
		to := len(pts)
		if n+1 < len(bands) {
			sum, best := 0.0, math.Inf(1)
			for k := from; k < len(pts); k++ {
				if sum < best {
					best, to = sum, k
				}
				// What follows is in the next band, or in the one after.
				rest := along(k, bands[n+1])
				if n+2 < len(bands) {
					rest = math.Min(rest, along(k, bands[n+2]))
				}
				sum += along(k, band) - rest
			}
		}
		for k := from; k < to; k++ {
			out[k] = band
		}
		from = to
	}
	return out
}

// measure reads the figures off a ball's curves.
func measure(f family, s shapes.Shape) measures {
	m := measures{gap: s.Gap}
	var all []r3.Vec
	for i, pts := range s.Strands {
		bands := bandsOf(f, i, pts)
		fine := curve.Spline(pts, false).Points
		per := (len(fine) - 1) / (len(pts) - 1)
		long := 0.0
		for k := 1; k < len(fine); k++ {
			l := r3.Norm(r3.Sub(fine[k], fine[k-1]))
			b := bands[min(len(bands)-1, (k-1)/per)]
			m.bands[b] += l
			long += l
			// What it turns about the band's axis.
			m.turns += about(b, fine[k-1], fine[k]) / (2 * math.Pi)
		}
		m.cords = append(m.cords, long)
		for k := 0; k < len(fine); k += max(1, per/2) {
			all = append(all, fine[k])
		}
	}
	m.face = across2(all, faceNormals())
	m.corner = across2(all, []r3.Vec{{X: 1, Y: 1, Z: 1}, {X: -1, Y: -1, Z: -1}, {X: 1, Y: -1, Z: -1}, {X: -1, Y: 1, Z: 1}})
	m.hole = bare(all)
	return m
}

// about is by how much the line from p to q turns about the axis of a band.
func about(band int, p, q r3.Vec) float64 {
	u, v := [3]float64{p.X, p.Y, p.Z}, [3]float64{q.X, q.Y, q.Z}
	i, j := 0, 1 // the first band turns in x and y, the second in y and z, the third in z and x
	switch band {
	case 1:
		i, j = 1, 2
	case 2:
		i, j = 2, 0
	}
	return math.Abs(math.Remainder(math.Atan2(v[j], v[i])-math.Atan2(u[j], u[i]), 2*math.Pi))
}

// across2 is the mean diameter of the cord's outside in the middle of places
// given by their directions, in pairs across from one another.
func across2(pts []r3.Vec, dirs []r3.Vec) float64 {
	const middle = 0.92 // the cosine of how far round a direction its place reaches
	sum := 0.0
	for _, d := range dirs {
		d = r3.Unit(d)
		most := 0.0
		for _, v := range pts {
			if out := r3.Dot(v, d); out > middle*r3.Norm(v) {
				most = math.Max(most, out)
			}
		}
		sum += most + 0.5
	}
	return 2 * sum / float64(len(dirs))
}

// bare is how wide the widest place is, as seen towards the middle of the ball,
// that no cord one wide covers.
func bare(pts []r3.Vec) float64 {
	type dot struct{ x, y, z float64 }
	dots := make([]dot, len(pts))
	for i, v := range pts {
		dots[i] = dot{v.X, v.Y, v.Z}
	}
	clear := func(u r3.Vec) float64 { // distance of the nearest cord from the line along u
		best := math.Inf(1)
		for _, v := range dots {
			d := v.x*u.X + v.y*u.Y + v.z*u.Z
			if d <= 0 {
				continue
			}
			if off := v.x*v.x + v.y*v.y + v.z*v.z - d*d; off < best {
				best = off
			}
		}
		return math.Sqrt(math.Max(0, best))
	}
	const looks = 500
	widest := 0.0
	for i := range looks {
		y := 1 - 2*(float64(i)+0.5)/looks
		s, c := math.Sincos(2.399963 * float64(i)) // the golden angle spreads them evenly
		q := math.Sqrt(1 - y*y)
		u := r3.Vec{X: q * c, Y: y, Z: q * s}
		w := clear(u)
		if w < widest-0.15 {
			continue
		}
		step := 0.02 // walk up to the middle of the bare place
		for step > 0.002 {
			better := false
			for _, d := range faceNormals() {
				v := r3.Unit(r3.Add(u, r3.Scale(step, d)))
				if n := clear(v); n > w {
					u, w, better = v, n, true
				}
			}
			if !better {
				step /= 2
			}
		}
		widest = math.Max(widest, w)
	}
	return 2*widest - 1
}
