package tighten

import (
	"context"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	softContact = 10.0 // contact stiffness while strands are loose
	hardContact = 40.0 // and at the end
	skin        = 0.4  // of a diameter, added to the reach of the pair list
	chordSpan   = 6    // node offsets at which the bend limit is held
	checkEvery  = 200  // steps between two looks at overlap and energy
	clings      = 0.3  // of a diameter, between surfaces: how far Cling reaches
)

// A knot is at rest within these bounds, and DrawUp fails beyond them. They are judged,
// and wider than what [Settings] asks a stage to run for: a stage may use up its steps.
const (
	Off         = 0.02 // strands nearer than touching, as a share of the mean diameter
	Moving      = 1e-3 // the energy still changes by this share of itself in 200 steps
	MovingClung = 1e-2 // as that, where turns cling: they creep on for ever
)

// DrawUp draws the knot up. It fails if the route cannot be one (strands that
// coincide, a cell that collapses) or if the strands came so near each other on
// the way that one may have passed through another.
func DrawUp(ctx context.Context, p Problem, set Settings) (Result, error) {
	if err := p.check(); err != nil {
		return Result{}, err
	}
	if len(set.PerDiameter) == 0 {
		set.PerDiameter = []float64{3, 5}
	}
	if set.MaxSteps == 0 {
		set.MaxSteps = UsualSteps
	}
	if set.Tolerance == 0 {
		set.Tolerance = 0.002
	}
	curves := make([]curve.Curve, len(p.Strands))
	for i, s := range p.Strands {
		if set.Warm {
			curves[i] = curve.Curve{Points: s.Route, Closed: s.Closed}
		} else {
			curves[i] = curve.Spline(s.Route, s.Closed)
		}
	}
	cell := Cell{}
	if p.Cell != nil {
		cell = p.Cell.ringed()
	}
	res := Result{Least: math.Inf(1)}
	if set.Shakes > 0 && p.Cell == nil {
		best, err := shaken(ctx, p, curves, set, &res)
		if err != nil {
			return Result{}, err
		}
		curves, set.Warm = best, true
	}
	still := make([][]r3.Vec, len(curves)) // as given; sampled again and again it would lose its bends
	for i := range curves {
		if i < len(p.Held) && p.Held[i] > 0 {
			still[i] = last(curves[i].Points, p.Held[i])
		}
	}
	film := film{most: set.Frames}
	for stage, per := range set.PerDiameter {
		rx := newRelaxer(p, curves, cell, per)
		if stage == 0 && !set.Warm {
			if err := rx.swell(); err != nil {
				return Result{}, err
			}
		}
		k := hardContact
		if stage == 0 && len(set.PerDiameter) > 1 {
			k = softContact
		}
		if set.Frames > 0 {
			rx.film = &film
		}
		if err := rx.relax(ctx, k, stage, set); err != nil {
			return Result{}, err
		}
		curves, cell = rx.curves(), rx.cell
		for i, run := range still {
			if run != nil {
				pts := curves[i].Points
				free := len(pts) - len(last(pts, p.Held[i]))
				curves[i].Points = append(slices.Clone(pts[:free]), run...)
			}
		}
		res.Residual = rx.residual
		res.Steps += rx.steps
		res.Least = math.Min(res.Least, rx.least)
		res.Gap, res.Nodes, res.Length = rx.gap(), len(rx.x), rx.length()
	}
	if res.Least < 0.5 {
		return Result{}, fmt.Errorf("tighten: strands came within %.2f of a diameter, so one may have passed through another: check the route", res.Least)
	}
	if p.Cell != nil && cell.Around == 0 && cell.Pitch < 0.5*p.Strands[0].Diameter {
		return Result{}, fmt.Errorf("tighten: the cell collapsed to a pitch of %.3f: the route is not a knot", cell.Pitch)
	}
	give := 0.0
	for _, s := range p.Strands {
		give = math.Max(give, s.Give)
	}
	moving := Moving
	if p.Cling > 0 {
		moving = MovingClung
	}
	if res.Residual > moving || res.Gap < 1-give-Off || math.IsNaN(res.Length) {
		return Result{}, &NotDrawnUp{res.Steps, res.Residual, res.Gap}
	}
	res.Strands, res.Cell = curves, cell
	if set.Frames > 0 {
		res.Frames, res.Cells = film.cut(curves, cell)
	}
	return res, nil
}

// last are the points that lie on the last so much of a line.
func last(pts []r3.Vec, length float64) []r3.Vec {
	k := len(pts) - 1
	for k > 0 && length > 0 {
		length -= r3.Norm(r3.Sub(pts[k], pts[k-1]))
		k--
	}
	return pts[min(k+1, len(pts)-1):]
}

// GapOf is the least distance between strands of a problem that lie along the
// given curves, over the mean of their diameters: what [Result.Gap] is of curves
// that were drawn up. It is infinite where none come near one another.
func GapOf(p Problem, curves []curve.Curve, cell Cell) float64 {
	return newRelaxer(p, curves, cell, 5).gap()
}

// Image is point v of the k-th next cell as it lies in space; k may be
// negative.
func Image(c Cell, k int, v r3.Vec) r3.Vec {
	s, cos := math.Sincos(float64(k) * c.Twist)
	x := v.X
	if c.Mirror && k%2 != 0 {
		x = -x
	}
	return r3.Vec{X: cos*x + s*v.Z, Y: v.Y + float64(k)*c.Pitch, Z: -s*x + cos*v.Z}
}

// link is an edge from node a of this cell to node b of cell shift.
// before is the link that ends where this one begins, -1 at a free end.
type link struct{ a, b, shift, before int }

type pair struct {
	s, t, shift int // links; t is taken in cell shift; -1-bar when t is a bar
	reach       float64
	beside      bool    // they run side by side
	until       float64 // of the travel: before that they do not come near enough to matter
}

type chord struct {
	a, b, shift int
	span        int // in edges
}

// relaxer holds one stage of the drawing up.
type relaxer struct {
	p      Problem
	cell   Cell
	in     bool     // in a cell
	screw  bool     // of a row, whose pitch is found
	x, v   []r3.Vec // nodes
	pushes          // on them
	turns  turns
	strand []int // of a node
	first  []int // first node of each strand
	held   []bool
	links  []link
	strOf  []int // strand of a link
	chords []chord
	pairs  []pair
	l0     []float64                // mean edge by strand
	chord  [][chordSpan + 1]float64 // least distance of its nodes so many edges on
	curv   []r3.Vec                 // curvature at a node
	bulge  []r3.Vec                 // of the arc over a link's chord
	mid    []r3.Vec                 // the middles of the links
	listed []r3.Vec                 // where the nodes were when the pair list was made
	pitch0 float64
	twist0 float64

	// swelling is, by link, by what the distance it keeps is larger than its
	// reach, so that contacts pressed hard and lightly all end just touching;
	// near is its least distance over reach now.
	swelling, near []float64
	// travel is how much nearer two links can have come to one another, step by step.
	travel       float64
	vP, vT       float64
	massP, massT float64
	steps        int
	least        float64
	residual     float64
	pulling      float64 // the energy of the pull alone
	film         *film
	second       *sharing // nil but for a ring
}

func newRelaxer(p Problem, curves []curve.Curve, cell Cell, per float64) *relaxer {
	r := &relaxer{p: p, cell: cell, in: p.Cell != nil, screw: p.Cell != nil && p.Cell.Around == 0, least: math.Inf(1), l0: make([]float64, len(curves)), chord: make([][chordSpan + 1]float64, len(curves))}
	for i, c := range curves {
		d := p.Strands[i].Diameter
		length := c.Length()
		if r.in { // the seam to the next cell is an edge as well
			length += r3.Norm(r3.Sub(Image(cell, cell.on(), curves[p.Strands[i].Next].Points[0]), c.Points[len(c.Points)-1]))
		}
		n := max(6, int(math.Round(length/d*per)))
		var pts []r3.Vec
		switch {
		case c.Closed:
			pts = c.Resample(n).Points
		case r.in:
			end := Image(cell, cell.on(), curves[p.Strands[i].Next].Points[0])
			pts = curve.Curve{Points: append(append([]r3.Vec{}, c.Points...), end)}.Resample(n + 1).Points[:n]
		default:
			pts = c.Resample(n + 1).Points
		}
		r.first = append(r.first, len(r.x))
		last := len(pts) - 1 // held from here on
		if i < len(p.Held) {
			last -= int(p.Held[i] / length * float64(last))
		}
		for k, v := range pts {
			r.x = append(r.x, v)
			r.strand = append(r.strand, i)
			r.held = append(r.held, !c.Closed && !r.in && (k == 0 || k >= last))
		}
	}
	r.first = append(r.first, len(r.x))
	r.v, r.f = make([]r3.Vec, len(r.x)), make([]r3.Vec, len(r.x))
	for i, s := range p.Strands {
		a, b := r.first[i], r.first[i+1]
		for k := a; k < b; k++ {
			if nb, sh, ok := r.step(k, 1); ok {
				r.links = append(r.links, link{k, nb, sh, -1})
				r.strOf = append(r.strOf, i)
			}
			for span := 2; span <= chordSpan; span++ {
				if nb, sh, ok := r.step(k, span); ok && !(s.Closed && span*2 >= b-a) {
					r.chords = append(r.chords, chord{k, nb, sh, span})
				}
			}
		}
	}
	if cell.Around > 0 {
		r.second = &sharing{pushes: pushes{f: make([]r3.Vec, len(r.x))}, near: make([]float64, len(r.links))}
	}
	into := make([]int, len(r.x))
	for i := range into {
		into[i] = -1
	}
	for i, l := range r.links {
		into[l.b] = i
	}
	for i := range r.links {
		r.links[i].before = into[r.links[i].a]
	}
	r.swelling, r.near = make([]float64, len(r.links)), make([]float64, len(r.links))
	for i := range r.swelling {
		r.swelling[i] = 1
	}
	r.curv, r.bulge, r.mid = make([]r3.Vec, len(r.x)), make([]r3.Vec, len(r.links)), make([]r3.Vec, len(r.links))
	// A cell's pitch moves all its nodes; give it the mass of what it moves.
	r.massP, r.massT = float64(len(r.x))/3, float64(len(r.x))
	r.measure()
	return r
}

// step walks n nodes on along the thread from node k.
func (r *relaxer) step(k, n int) (node, shift int, ok bool) {
	i := r.strand[k]
	for ; n > 0; n-- {
		k++
		if k < r.first[i+1] {
			continue
		}
		switch {
		case r.p.Strands[i].Closed:
			k = r.first[i]
		case r.in:
			shift += r.cell.on()
			i = r.p.Strands[i].Next
			k = r.first[i]
		default:
			return 0, 0, false
		}
	}
	return k, shift, true
}

func (r *relaxer) at(node, shift int) r3.Vec {
	if shift == 0 {
		return r.x[node]
	}
	return r.image(shift, r.x[node])
}

// image is [Image] of the cell as it is now.
func (r *relaxer) image(k int, v r3.Vec) r3.Vec {
	v = r.push3(k, v)
	v.Y += float64(k) * r.cell.Pitch
	return v
}

// push3 turns a direction the way the k-th next cell lies.
func (r *relaxer) push3(k int, v r3.Vec) r3.Vec {
	s, cos := r.turns.of(k, r.cell.Twist)
	x := v.X
	if r.cell.Mirror && k%2 != 0 {
		x = -x
	}
	return r3.Vec{X: cos*x + s*v.Z, Y: v.Y, Z: -s*x + cos*v.Z}
}

// pullBack turns a force on the k-th image into one on the node itself.
func (r *relaxer) pullBack(k int, f r3.Vec) r3.Vec {
	s, cos := r.turns.of(-k, r.cell.Twist)
	x, z := cos*f.X+s*f.Z, -s*f.X+cos*f.Z
	if r.cell.Mirror && k%2 != 0 {
		x = -x
	}
	return r3.Vec{X: x, Y: f.Y, Z: z}
}

// turns are the sine and the cosine of so many twists, worked out once for a twist: most
// of the work on a cell would be that.
type turns struct {
	twist float64
	known []turn // by how many, from the middle
}

type turn struct {
	s, c float64
	ok   bool
}

func (t *turns) of(k int, twist float64) (s, c float64) {
	const most = 64
	if k < -most || k > most {
		return math.Sincos(float64(k) * twist)
	}
	if t.known == nil {
		t.known = make([]turn, 2*most+1)
	}
	if t.twist != twist {
		clear(t.known)
		t.twist = twist
	}
	at := &t.known[most+k]
	if !at.ok {
		at.s, at.c = math.Sincos(float64(k) * twist)
		at.ok = true
	}
	return at.s, at.c
}

// measure refreshes the mean edge of each strand, and how far apart nodes so many edges
// on must stay.
func (r *relaxer) measure() {
	sum, n := make([]float64, len(r.l0)), make([]float64, len(r.l0))
	for i, l := range r.links {
		sum[r.strOf[i]] += r3.Norm(r3.Sub(r.at(l.b, l.shift), r.x[l.a]))
		n[r.strOf[i]]++
	}
	for i := range r.l0 {
		r.l0[i] = sum[i] / n[i]
		d := r.p.Strands[i].Diameter
		r.chord[i] = [chordSpan + 1]float64{}
		for span := range r.chord[i] {
			if s := float64(span) * r.l0[i]; s < math.Pi/2*d {
				r.chord[i][span] = d * math.Sin(s/d)
			}
		}
	}
}

func (r *relaxer) pull(i int) float64 {
	if w := r.p.Strands[i].Pull; w != 0 {
		return w
	}
	return 1
}

// swell scales the start up about its centre till nothing overlaps, so that
// the drawing up begins loose.
func (r *relaxer) swell() error {
	r.list()
	r.bend()
	g := r.gapListed()
	if g < 0.1 {
		return fmt.Errorf("tighten: two strands of the route nearly coincide (%.3f of a diameter apart)", g)
	}
	if g >= 1 || math.IsInf(g, 0) {
		return nil
	}
	if len(r.p.Bars) > 0 || len(r.p.Held) > 0 {
		return nil // what is held does not scale; contacts push the strands off it
	}
	k := 1.02 / g
	for i := range r.x { // held ends too, or the strands would double back on them
		r.x[i] = r3.Scale(k, r.x[i])
	}
	r.cell.Pitch *= k
	r.measure()
	return nil
}

// list makes the list of pairs of links that may touch before the next one.
func (r *relaxer) list() {
	r.listed = append(r.listed[:0], r.x...)
	r.pitch0, r.twist0 = r.cell.Pitch, r.cell.Twist
	r.pairs = r.pairs[:0]
	images := 0
	switch {
	case r.cell.Around > 0:
		images = r.cell.Around / 2
	case r.in:
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, v := range r.x {
			lo, hi = math.Min(lo, v.Y), math.Max(hi, v.Y)
		}
		images = min(6, int(math.Ceil((hi-lo+2)/r.cell.Pitch)))
	}
	type mid struct {
		c    r3.Vec
		half float64
	}
	here := make([]mid, len(r.links))
	for i, l := range r.links {
		a, b := r.x[l.a], r.at(l.b, l.shift)
		here[i] = mid{curve.Lerp(a, b, 0.5), r3.Norm(r3.Sub(b, a)) / 2}
	}
	still := func(i int) bool { return r.held[r.links[i].a] && r.held[r.links[i].b] }
	reach := 0.0
	mids := make([]r3.Vec, len(here))
	for i, m := range here {
		mids[i] = m.c
		reach = math.Max(reach, r.p.Strands[r.strOf[i]].Diameter*(1+skin)+2*m.half)
	}
	// Arc length of the links along their threads, to leave out near ones.
	for k := 0; k <= images; k++ {
		there := mids
		if k > 0 {
			there = make([]r3.Vec, len(mids))
			for i, v := range mids {
				there[i] = Image(r.cell, k, v)
			}
		}
		grid := newNear(there, reach)
		// after[i] is the strand that i has become k cells on, and ahead[i]
		// how much thread lies between their starts.
		after, ahead := make([]int, len(r.p.Strands)), make([]float64, len(r.p.Strands))
		for i := range after {
			after[i] = i
			for range k {
				ahead[i] += r.l0[after[i]] * float64(r.first[after[i]+1]-r.first[after[i]])
				after[i] = r.p.Strands[after[i]].Next
			}
		}
		for s := range r.links {
			from := 0
			if k == 0 || 2*k == r.cell.Around { // there each pair stands twice
				from = s + 1
			}
			i := r.strOf[s]
			for _, t := range grid.of(here[s].c, from) {
				j := r.strOf[t]
				if still(s) && still(t) {
					continue // neither can give way to the other
				}
				d := (r.p.Strands[i].Diameter + r.p.Strands[j].Diameter) / 2
				lim := d*(1+skin) + here[s].half + here[t].half
				w := r3.Sub(there[t], here[s].c)
				if math.Abs(w.Y) > lim || r3.Norm2(w) > lim*lim {
					continue
				}
				if r.cell.Around > 0 {
					if i == j && r.between(s, t, k) < math.Pi/2*r.p.Strands[i].Diameter {
						continue
					}
				} else if after[i] == j {
					arc := math.Abs(ahead[i] + r.l0[j]*float64(r.links[t].a-r.first[j]) - r.l0[i]*float64(r.links[s].a-r.first[i]))
					if r.p.Strands[i].Closed {
						whole := r.l0[i] * float64(r.first[i+1]-r.first[i])
						arc = math.Min(arc, whole-arc)
					}
					if arc < math.Pi/2*r.p.Strands[i].Diameter {
						continue
					}
				}
				r.pairs = append(r.pairs, pair{s, t, k, d, r.p.Cling > 0 && r.beside(s, t), 0})
			}
		}
	}
	for s, l := range r.links {
		for b, bar := range r.p.Bars {
			d := (r.p.Strands[r.strOf[s]].Diameter + bar.Diameter) / 2
			dist, _, _ := curve.SegmentDistance(r.x[l.a], r.at(l.b, l.shift), bar.From, bar.To)
			if dist < d+skin {
				r.pairs = append(r.pairs, pair{s, -1 - b, 0, d, false, 0})
			}
		}
	}
}

// between is how much thread lies between two links of a strand of a ring, t taken k
// cells on: the shorter way, infinite where the strand never comes there.
func (r *relaxer) between(s, t, k int) float64 {
	i := r.strOf[s]
	cell := r.l0[i] * float64(r.first[i+1]-r.first[i])
	off := r.l0[i] * float64(r.links[t].a-r.links[s].a)
	least := math.Inf(1)
	for m := -r.cell.Around; m <= r.cell.Around; m++ {
		if (m*r.cell.On-k)%r.cell.Around == 0 {
			least = math.Min(least, math.Abs(float64(m)*cell+off))
		}
	}
	return least
}

// beside tells whether two links run nearly the same way, or against each other.
func (r *relaxer) beside(s, t int) bool {
	a, b := r.links[s], r.links[t]
	u, v := r3.Sub(r.at(a.b, a.shift), r.x[a.a]), r3.Sub(r.at(b.b, b.shift), r.x[b.a])
	return math.Abs(r3.Dot(u, v)) > 0.9*r3.Norm(u)*r3.Norm(v)
}

func (r *relaxer) ends(p pair) (a0, a1, b0, b1 r3.Vec) {
	l := r.links[p.s]
	a0, a1 = r.x[l.a], r.at(l.b, l.shift)
	if p.t < 0 {
		bar := r.p.Bars[-1-p.t]
		return a0, a1, bar.From, bar.To
	}
	m := r.links[p.t]
	return a0, a1, r.at(m.a, p.shift), r.at(m.b, p.shift+m.shift)
}

// bend fills r.bulge: by how much, and whither, the cord's arc stands off the
// middle of each link's chord. A node's curvature is read from its two links;
// a link's is the mean of its ends'.
func (r *relaxer) bend() {
	for i := range r.curv {
		r.curv[i] = r3.Vec{}
	}
	for i := range r.links {
		l := &r.links[i]
		if l.before < 0 {
			continue
		}
		b := r.links[l.before]
		// before's far end is this link's near node, maybe a cell on.
		prev := r.x[b.a]
		if b.shift != 0 {
			prev = r.image(-b.shift, prev)
		}
		here, next := r.x[l.a], r.at(l.b, l.shift)
		h := r.l0[r.strOf[i]]
		r.curv[l.a] = r3.Scale(1/(h*h), r3.Add(r3.Sub(prev, here), r3.Sub(next, here)))
	}
	for i, l := range r.links {
		kb := r.curv[l.b]
		if l.shift != 0 {
			kb = r.push3(l.shift, kb)
		}
		h := r.l0[r.strOf[i]]
		r.bulge[i] = r3.Scale(-h*h/16, r3.Add(r.curv[l.a], kb))
	}
}

// apart is the vector from link p.s to link p.t where they come nearest, arcs
// and not chords, with the places along both.
func (r *relaxer) apart(p pair) (w r3.Vec, dist, s, t float64) {
	a0, a1, b0, b1 := r.ends(p)
	_, s, t = curve.SegmentDistance(a0, a1, b0, b1)
	w = r3.Sub(curve.Lerp(b0, b1, t), curve.Lerp(a0, a1, s))
	w = r3.Sub(w, r3.Scale(4*s*(1-s), r.bulge[p.s]))
	if p.t >= 0 {
		b := r.bulge[p.t]
		if p.shift != 0 {
			b = r.push3(p.shift, b)
		}
		w = r3.Add(w, r3.Scale(4*t*(1-t), b))
	}
	return w, norm(w), s, t
}

func (r *relaxer) gap() float64 { r.list(); r.bend(); return r.gapListed() }

// norm is r3.Norm to the last bit, and quicker: it is most of what a step costs.
func norm(v r3.Vec) float64 { return hypot(v.X, hypot(v.Y, v.Z)) }

func hypot(a, b float64) float64 {
	a, b = math.Abs(a), math.Abs(b)
	if a < b {
		a, b = b, a
	}
	if a == 0 {
		return 0
	}
	b /= a
	return a * math.Sqrt(1+b*b)
}

// gapListed is the least distance over reach of the listed pairs.
func (r *relaxer) gapListed() float64 {
	g := math.Inf(1)
	for _, p := range r.pairs {
		_, d, _, _ := r.apart(p)
		g = math.Min(g, d/p.reach)
	}
	return g
}

// pushes are forces on the nodes, the pitch and the twist of a cell.
type pushes struct {
	f      []r3.Vec
	fP, fT float64
}

// push adds force f to node n of cell shift.
func (r *relaxer) push(on *pushes, n, shift int, f r3.Vec) {
	if shift != 0 {
		on.fP += float64(shift) * f.Y
		if r.cell.FreeTwist {
			v := r.at(n, shift) // d/dTwist of the image is shift times (z, 0, -x)
			on.fT += float64(shift) * (f.X*v.Z - f.Z*v.X)
		}
		f = r.pullBack(shift, f)
	}
	on.f[n] = r3.Add(on.f[n], f)
}

// forces fills f, fP and fT and gives the energy and the least gap.
func (r *relaxer) forces(k float64) (energy, gap float64) {
	for i := range r.f {
		r.f[i] = r3.Vec{}
	}
	r.fP, r.fT = -r.cell.Push, 0
	r.bend()
	r.pulling = 0
	for i, l := range r.links {
		w, l0 := r.pull(r.strOf[i]), r.l0[r.strOf[i]]
		e := r3.Sub(r.at(l.b, l.shift), r.x[l.a])
		r.pulling += w * r3.Norm2(e) / (2 * l0)
		f := r3.Scale(w/l0, e)
		r.push(&r.pushes, l.a, 0, f)
		r.push(&r.pushes, l.b, l.shift, r3.Scale(-1, f))
	}
	for _, c := range r.chords {
		want := r.chord[r.strand[c.a]][c.span]
		e := r3.Sub(r.at(c.b, c.shift), r.x[c.a])
		if r3.Norm2(e) > 1.0001*want*want { // most are
			continue
		}
		dist := r3.Norm(e)
		if dist >= want || dist == 0 {
			continue
		}
		energy += k / 2 * (want - dist) * (want - dist)
		f := r3.Scale(k*(want-dist)/dist, e)
		r.push(&r.pushes, c.b, c.shift, f)
		r.push(&r.pushes, c.a, 0, r3.Scale(-1, f))
	}
	for i, l := range r.links {
		r.near[i] = math.Inf(1)
		r.mid[i] = curve.Lerp(r.x[l.a], r.at(l.b, l.shift), 0.5)
	}
	if r.second == nil {
		energy, gap = r.contacts(r.pairs, k, energy, &r.pushes, r.near)
	} else {
		energy, gap = r.shared(k, energy)
	}
	energy += r.pulling
	if r.screw {
		energy += r.cell.Push * r.cell.Pitch
	}
	for i, h := range r.held {
		if h {
			r.f[i] = r3.Vec{}
		}
	}
	if r.screw { // the pitch carries the nodes of the cell with it
		for i, v := range r.x {
			r.fP += r.f[i].Y * v.Y / r.cell.Pitch
		}
	}
	return energy, gap
}

// contacts adds the forces of pairs that touch, with what energy they have beside what
// there is, and gives the least gap; near is the least distance over reach by link.
func (r *relaxer) contacts(pairs []pair, k, energy float64, on *pushes, near []float64) (float64, float64) {
	gap := math.Inf(1)
	for i := range pairs {
		if pairs[i].until > r.travel {
			continue
		}
		p := pairs[i]
		// Farther than this they neither press nor cling, however much they swell.
		idle := 1.09 * p.reach
		if p.beside {
			idle += clings * p.reach
		}
		want := p.reach * r.swelling[p.s]
		if p.t >= 0 {
			want = p.reach * (r.swelling[p.s] + r.swelling[p.t]) / 2
		}
		if p.t >= 0 { // most listed pairs are still well apart
			m := r.mid[p.t]
			if p.shift != 0 {
				m = r.image(p.shift, m)
			}
			far := want + 1.1*(r.l0[r.strOf[p.s]]+r.l0[r.strOf[p.t]])/2 + 0.05*p.reach
			if p.beside {
				far += clings * p.reach
			}
			if off := r3.Norm2(r3.Sub(m, r.mid[p.s])); off > far*far {
				if far += 0.09 * p.reach; off > far*far { // in whatever they swell by
					pairs[i].until = r.travel + math.Sqrt(off) - far
				}
				continue
			}
		}
		w, dist, s, t := r.apart(p)
		if dist > idle {
			pairs[i].until = r.travel + dist - idle
		}
		share := dist / p.reach
		gap = math.Min(gap, share)
		near[p.s] = math.Min(near[p.s], share)
		if p.t >= 0 {
			near[p.t] = math.Min(near[p.t], share)
		}
		var n r3.Vec // the push on p.t
		switch {
		case dist == 0:
			continue
		case dist < want:
			energy += k / 2 * (want - dist) * (want - dist)
			n = r3.Scale(k*(want-dist)/dist, w)
		case p.beside && dist < want+clings*p.reach:
			// A pull that is greatest where they touch and fades out; it counts
			// the length of both.
			far := want + clings*p.reach - dist
			cling := r.p.Cling * r.l0[r.strOf[p.s]] * r.l0[r.strOf[p.t]] / (clings * p.reach)
			energy -= cling * far * far / 2
			n = r3.Scale(-cling*far/dist, w)
		default:
			continue
		}
		l := r.links[p.s]
		r.push(on, l.a, 0, r3.Scale(-(1-s), n))
		r.push(on, l.b, l.shift, r3.Scale(-s, n))
		if p.t >= 0 {
			m := r.links[p.t]
			r.push(on, m.a, p.shift, r3.Scale(1-t, n))
			r.push(on, m.b, p.shift+m.shift, r3.Scale(t, n))
		}
	}
	return energy, gap
}

// sharing is the other half of the contacts of a ring, worked out beside the first. How
// they are parted does not depend on the machine, so neither does what comes out.
type sharing struct {
	pushes
	turns       turns
	near        []float64
	energy, gap float64
}

// shared is contacts of all pairs, half of them worked out beside the other half.
func (r *relaxer) shared(k, energy float64) (float64, float64) {
	half, o := len(r.pairs)/2, r.second
	clear(o.f)
	for i := range o.near {
		o.near[i] = math.Inf(1)
	}
	done := make(chan struct{})
	other := *r // with a table of its own, and taken before the first half is begun
	other.turns = o.turns
	go func() {
		defer close(done)
		o.energy, o.gap = other.contacts(r.pairs[half:], k, 0, &o.pushes, o.near)
		o.turns = other.turns
	}()
	energy, gap := r.contacts(r.pairs[:half], k, energy, &r.pushes, r.near)
	<-done
	for i, f := range o.f {
		r.f[i] = r3.Add(r.f[i], f)
	}
	for i, near := range o.near {
		r.near[i] = math.Min(r.near[i], near)
	}
	return energy + o.energy, math.Min(gap, o.gap)
}

// relax runs damped dynamics (FIRE) until the energy stands still and the
// strands just touch.
func (r *relaxer) relax(ctx context.Context, k float64, stage int, set Settings) error {
	if set.Still == 0 {
		set.Still = 1e-5
	}
	const alpha0, grow, shrink = 0.1, 1.1, 0.5
	dtMax := 0.9 / math.Sqrt(k)
	dt, alpha, good := dtMax/4, alpha0, 0
	r.list()
	give := 0.0
	for _, s := range r.p.Strands {
		give = math.Max(give, s.Give)
	}
	last, calm := math.Inf(1), 0
	smallest := math.Inf(1)
	for _, s := range r.p.Strands {
		smallest = math.Min(smallest, s.Diameter)
	}
	maxStep := 0.08 * smallest
	r.residual = math.Inf(1)
	for step := 1; step <= set.MaxSteps; step++ {
		r.film.take(r, step)
		if r.moved() > skin/2*0.9 {
			r.measure()
			r.list()
		}
		energy, gap := r.forces(k)
		r.least = math.Min(r.least, gap)
		if step%checkEvery == 0 {
			if err := ctx.Err(); err != nil {
				return err
			}
			if set.Progress != nil {
				set.Progress(stage, r.steps+step, r.length(), gap)
			}
			if r.p.Cling > 0 {
				// Turns let go of one another and take hold again; what is drawn
				// up is told by the pull alone.
				energy = r.pulling
			}
			r.residual = math.Abs(last-energy) / math.Abs(energy)
			still := r.residual < set.Still
			if calm++; !still {
				calm = 0
			}
			// A ring slides along what it goes round, and stands still for a moment when it
			// turns back.
			if still && (r.second == nil || calm > 1) && math.Abs(1-give-gap) < set.Tolerance {
				r.steps += step
				return nil
			}
			if give > 0 {
				// Soft cord: contacts stay as they press, and the stiffness is
				// set so that the hardest one is pressed by just the give.
				over := math.Max(0.2*give, 1-gap)
				k *= math.Max(0.8, math.Min(1.25, over/give))
				dtMax = 0.9 / math.Sqrt(k)
				last = energy
			}
			for i, near := range r.near {
				if give > 0 {
					break
				}
				r.swelling[i] += 0.5 * math.Max(-0.02, math.Min(0.02, 1-near))
				r.swelling[i] = math.Max(1, math.Min(1.08, r.swelling[i]))
			}
			last = energy
		}
		// FIRE: steer the velocity towards the force while it goes downhill.
		if r.in && !r.screw {
			r.fP = 0
		}
		power, vv, ff := r.vP*r.fP+r.vT*r.fT, r.vP*r.vP*r.massP+r.vT*r.vT*r.massT, 0.0
		for i := range r.x {
			power += r3.Dot(r.v[i], r.f[i])
			vv += r3.Norm2(r.v[i])
			ff += r3.Norm2(r.f[i])
		}
		if r.screw {
			ff += r.fP * r.fP / r.massP
			if r.cell.FreeTwist {
				ff += r.fT * r.fT / r.massT
			}
		}
		if power > 0 {
			mix := 0.0
			if ff > 0 {
				mix = alpha * math.Sqrt(vv/ff)
			}
			for i := range r.v {
				r.v[i] = r3.Add(r3.Scale(1-alpha, r.v[i]), r3.Scale(mix, r.f[i]))
			}
			r.vP = (1-alpha)*r.vP + mix*r.fP/r.massP
			r.vT = (1-alpha)*r.vT + mix*r.fT/r.massT
			if good++; good > 5 {
				dt, alpha = math.Min(dt*grow, dtMax), alpha*0.99
			}
		} else {
			for i := range r.v {
				r.v[i] = r3.Vec{}
			}
			r.vP, r.vT = 0, 0
			dt, alpha, good = dt*shrink, alpha0, 0
		}
		r.move(dt, maxStep)
	}
	r.steps += set.MaxSteps
	return nil
}

func (r *relaxer) move(dt, maxStep float64) {
	biggest := 0.0
	for i := range r.v {
		r.v[i] = r3.Add(r.v[i], r3.Scale(dt, r.f[i]))
		biggest = math.Max(biggest, r3.Norm2(r.v[i]))
	}
	scale := dt
	if b := math.Sqrt(biggest) * dt; b > maxStep {
		scale = dt * maxStep / b
	}
	for i := range r.x {
		r.x[i] = r3.Add(r.x[i], r3.Scale(scale, r.v[i]))
	}
	// Each of two links may have come so far to meet the other, and its arc half as far.
	r.travel += 3 * scale * math.Sqrt(biggest)
	if r.screw { // what the pitch carries along is not counted
		r.travel = math.Inf(1)
	}
	if r.p.Alike {
		r.align()
	}
	if !r.screw {
		return
	}
	r.vP += dt * r.fP / r.massP
	dp := math.Max(-maxStep/2, math.Min(maxStep/2, dt*r.vP))
	stretch := (r.cell.Pitch + dp) / r.cell.Pitch
	r.cell.Pitch += dp
	for i := range r.x {
		r.x[i].Y *= stretch
	}
	if r.cell.FreeTwist {
		r.vT += dt * r.fT / r.massT
		r.cell.Twist += math.Max(-0.02, math.Min(0.02, dt*r.vT))
	}
}

// align makes each strand the one before it turned: all where the mean of them is.
func (r *relaxer) align() {
	n := len(r.p.Strands)
	for k := range r.first[1] {
		for _, at := range [2][]r3.Vec{r.x, r.v} {
			sum := at[k]
			for i := 1; i < n; i++ {
				sum = r3.Add(sum, turned(at[r.first[i]+k], -i, n))
			}
			mean := r3.Scale(1/float64(n), sum)
			for i := range n {
				at[r.first[i]+k] = turned(mean, i, n)
			}
		}
	}
}

// moved is how far any node or image has gone since the list was made.
func (r *relaxer) moved() float64 {
	m := 0.0
	for i, v := range r.x {
		m = math.Max(m, r3.Norm2(r3.Sub(v, r.listed[i])))
	}
	return math.Sqrt(m) + 2*math.Abs(r.cell.Pitch-r.pitch0) + 4*math.Abs(r.cell.Twist-r.twist0)
}

// length is that of the arcs through the nodes: each is longer than its chord
// by a twenty-fourth of the square of the angle it turns.
func (r *relaxer) length() float64 {
	r.bend()
	sum := 0.0
	for i, l := range r.links {
		h := r3.Norm(r3.Sub(r.at(l.b, l.shift), r.x[l.a]))
		turn := 8 * r3.Norm(r.bulge[i]) / h // bulge is the arc's sagitta
		sum += h * (1 + turn*turn/24)
	}
	return sum
}

func (r *relaxer) curves() []curve.Curve {
	out := make([]curve.Curve, len(r.p.Strands))
	for i, s := range r.p.Strands {
		out[i] = curve.Curve{Points: append([]r3.Vec{}, r.x[r.first[i]:r.first[i+1]]...), Closed: s.Closed}
	}
	return out
}
