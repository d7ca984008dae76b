package scene

import (
	"cmp"
	"maps"
	"math"
	"slices"
	"sort"

	"nimblebight/core/knot"
)

// index lays the slices into a grid for looking up what lies near a point.
func (c *canvas) index() {
	x1, y1 := math.Inf(-1), math.Inf(-1)
	c.x0, c.y0, c.cell = math.Inf(1), math.Inf(1), 0.3
	for _, t := range c.tubes {
		for _, p := range t.samples {
			c.x0, c.y0 = math.Min(c.x0, p.x), math.Min(c.y0, p.y)
			x1, y1 = math.Max(x1, p.x), math.Max(y1, p.y)
			if !t.broad {
				c.widest = math.Max(c.widest, p.hw)
			}
		}
	}
	c.cell = math.Max(c.cell, 0.8*c.widest)
	samples := 0
	for _, t := range c.tubes {
		samples += len(t.samples)
	}
	// A thin line round a wide place fills few cells: there need not be many
	// more of them than slices.
	const sparse = 16
	c.cell = math.Max(c.cell, math.Sqrt((x1-c.x0)*(y1-c.y0)/float64(sparse*max(1, samples))))
	c.x0 -= c.cell
	c.y0 -= c.cell
	c.nx, c.ny = int((x1-c.x0)/c.cell)+2, int((y1-c.y0)/c.cell)+2
	c.grid = make([][]ref, c.nx*c.ny)
	for ti, t := range c.tubes {
		for i, p := range t.samples {
			r := ref{p.x, p.y, p.z, int32(ti), int32(i)}
			if t.broad {
				c.broad = append(c.broad, r)
				continue
			}
			k := int((p.y-c.y0)/c.cell)*c.nx + int((p.x-c.x0)/c.cell)
			c.grid[k] = append(c.grid[k], r)
		}
	}
	for _, row := range c.grid { // what is nearest to the eye comes first
		slices.SortFunc(row, func(a, b ref) int {
			return cmp.Or(cmp.Compare(b.z, a.z), cmp.Compare(a.t, b.t), cmp.Compare(a.i, b.i))
		})
	}
}

// near calls f with the slices whose centres lie within reach mm of a point, and
// with all that are broad, until f says that it has seen enough.
func (c *canvas) near(x, y, reach float64, f func(t *tube, i int) bool) {
	none := math.Inf(-1)
	c.nearAbove(x, y, reach, &none, f)
}

// nearAbove is near for slices no farther from the eye than least, which f may
// raise.
func (c *canvas) nearAbove(x, y, reach float64, least *float64, f func(t *tube, i int) bool) {
	cell := func(v, from float64, n int) int { return max(0, min(n-1, int((v-from)/c.cell))) }
	look := func(row []ref) bool {
		for k := range row {
			r := &row[k]
			if r.z < *least {
				return false
			}
			if dx, dy := r.x-x, r.y-y; dx*dx+dy*dy <= reach*reach && f(c.tubes[r.t], int(r.i)) {
				return true
			}
		}
		return false
	}
	// Where the point itself lies most is found, so there it is looked first.
	first := cell(y, c.y0, c.ny)*c.nx + cell(x, c.x0, c.nx)
	if look(c.grid[first]) {
		return
	}
	for _, r := range c.broad {
		if r.z >= *least && f(c.tubes[r.t], int(r.i)) {
			return
		}
	}
	x0, x1 := cell(x-reach, c.x0, c.nx), cell(x+reach, c.x0, c.nx)
	y0, y1 := cell(y-reach, c.y0, c.ny), cell(y+reach, c.y0, c.ny)
	for yy := y0; yy <= y1; yy++ {
		for k := yy*c.nx + x0; k <= yy*c.nx+x1; k++ {
			if k != first && look(c.grid[k]) {
				return
			}
		}
	}
}

// inside tells whether a point lies in slice p of a tube, at least by margin.
func (c *canvas) inside(t *tube, p *sample, x, y, margin float64) bool {
	dx, dy := x-p.x, y-p.y
	along := dx*p.tx + dy*p.ty
	across := -dx*p.ty + dy*p.tx
	step := c.step * t.d
	if t.metal {
		step *= 2
	}
	if t.step > 0 {
		step = t.step
	}
	reach := step * 0.8
	if p.flat < 0.6 { // steep: the slice is nearly a disc
		return dx*dx+dy*dy < (p.hw-margin)*(p.hw-margin)
	}
	return math.Abs(along) <= reach && across > -p.l+margin && across < p.r-margin
}

// hidden tells whether a point on or beside slice i of tube t is covered by
// something nearer to the eye, or lies inside the cord's own bend.
//
// Before the bodies are painted depth decides; after that the order in which
// they were painted does, so that inks bound exactly what is seen.
func (c *canvas) hidden(t *tube, i int, x, y float64, own bool) bool {
	me := &t.samples[i]
	found := false
	margin := 0.02
	rank := 0
	if !c.painted {
		margin = 0.12
	} else if rank = c.rank[t.id][i]; rank < 0 {
		return true
	}
	least := math.Inf(-1)
	if !c.painted {
		least = me.z - 0.15*t.d
	}
	c.nearAbove(x, y, c.widest, &least, func(o *tube, j int) bool {
		p := &o.samples[j]
		if o.strand == t.strand {
			arc := math.Abs(p.s - me.s)
			if arc < 0.12*t.d || (!own && arc < 1.2*t.d) {
				return false
			}
			if arc < 1.5*t.d {
				// A fold in depth does not hide its own nearer limb.
				found = p.z > me.z-0.15*t.d && c.inside(o, p, x, y, 0.05*t.d)
				return found
			}
		}
		if c.painted {
			if c.rank[o.id][j] <= rank {
				return false
			}
		} else if p.z <= me.z {
			return false
		}
		found = c.inside(o, p, x, y, margin*o.d)
		return found
	})
	return found
}

// spread widens soft cord up to its neighbours in the same layer.
func (c *canvas) spread() {
	type wide struct{ l, r float64 }
	for _, t := range c.tubes {
		if t.metal || t.plain {
			continue
		}
		out, most := make([]wide, len(t.samples)), make([]wide, len(t.samples))
		for i := range t.samples {
			me := &t.samples[i]
			out[i], most[i] = wide{me.hw, me.hw}, wide{me.hw, me.hw}
			if i%2 == 1 { // every other slice is close enough
				out[i], most[i] = out[i-1], most[i-1]
				continue
			}
			if me.lie == knot.Free || me.lie == knot.Filler || me.flat < 0.5 || !c.shown(me.y, 1.5*t.d) {
				continue
			}
			widest := 0.6 * t.d
			if t.make == "leather" {
				widest = 0.55 * t.d
			} else if me.lie == knot.InRow || me.lie == knot.Snug {
				widest = 0.78 * t.d
			}
			// Cords that run alongside share the room between them; those that
			// run across only bound it.
			beside := [2]float64{math.Inf(1), math.Inf(1)}
			bound := beside
			least := me.z - 0.8*(t.d+2*c.widest)/2
			c.nearAbove(me.x, me.y, 3.2*t.d, &least, func(o *tube, j int) bool {
				p := &o.samples[j]
				if o.metal || p.lie == knot.Filler || (o.strand == t.strand && math.Abs(p.s-me.s) < 1.6*t.d) {
					return false
				}
				if j%2 == 1 || math.Abs(p.z-me.z) > 0.8*(t.d+o.d)/2 {
					return false
				}
				dx, dy := p.x-me.x, p.y-me.y
				along, across := dx*me.tx+dy*me.ty, -dx*me.ty+dy*me.tx
				if math.Abs(along) > 0.3*t.d {
					return false
				}
				k := 0
				if across > 0 {
					k = 1
				}
				room := math.Max(0, math.Abs(across)-me.hw-p.hw)
				if math.Abs(p.tx*me.tx+p.ty*me.ty) > 0.6 {
					beside[k] = math.Min(beside[k], room)
				} else {
					bound[k] = math.Min(bound[k], room)
				}
				return false
			})
			grow := func(room float64) float64 {
				if room > 2.4*t.d {
					return me.hw
				}
				w := math.Min(me.hw+room/2+0.03*t.d, math.Max(me.hw, widest))
				if (me.lie == knot.InRow || me.lie == knot.Snug) && 2*(me.hw+room/2-w) < 0.3*t.d {
					w = me.hw + room/2 + 0.03*t.d
				}
				return w
			}
			out[i] = wide{grow(beside[0]), grow(beside[1])}
			most[i] = wide{me.hw + math.Min(bound[0], t.d), me.hw + math.Min(bound[1], t.d)}
		}
		// Eased along the cord, and never past what bounds it.
		n := max(1, c.slices(0.3))
		least := make([]wide, len(out))
		for i := range most {
			least[i] = most[i]
			for _, w := range most[max(0, i-n):min(len(out), i+n+1)] {
				least[i].l, least[i].r = math.Min(least[i].l, w.l), math.Min(least[i].r, w.r)
			}
		}
		ease := func(ws []wide, i int) wide {
			a, b := max(0, i-n), min(len(ws), i+n+1)
			var sum wide
			for _, w := range ws[a:b] {
				sum.l, sum.r = sum.l+w.l, sum.r+w.r
			}
			return wide{sum.l / float64(b-a), sum.r / float64(b-a)}
		}
		for i := range t.samples {
			w, m := ease(out, i), ease(least, i)
			t.samples[i].l, t.samples[i].r = math.Min(w.l, m.l), math.Min(w.r, m.r)
		}
	}
	c.bends()
	for _, t := range c.tubes {
		for i := range t.samples {
			if t.broad {
				break
			}
			c.widest = math.Max(c.widest, math.Max(t.samples[i].l, t.samples[i].r))
		}
	}
}

// bends keeps the inner side of a bend narrower than the bend's radius.
func (c *canvas) bends() {
	for _, t := range c.tubes {
		n := len(t.samples)
		for i := 2; i+2 < n; i++ {
			a, b := t.samples[i-2], t.samples[i+2]
			p := &t.samples[i]
			turn := math.Atan2(a.tx*b.ty-a.ty*b.tx, a.tx*b.tx+a.ty*b.ty)
			arc := math.Hypot(b.x-a.x, b.y-a.y)
			if math.Abs(turn) < 0.02 || math.Abs(turn) > 1.6 || arc == 0 {
				continue
			}
			r := arc / math.Abs(turn)
			if turn > 0 { // towards +n
				p.r = math.Min(p.r, math.Max(0.97*r, 0.2*p.hw))
			} else {
				p.l = math.Min(p.l, math.Max(0.97*r, 0.2*p.hw))
			}
		}
	}
}

// chunk is a short piece of a tube that is painted whole.
type chunk struct {
	t      *tube
	a, b   int // slices, b included
	colour string
	z      float64
	after  []int // chunks painted later than this one
	before int   // how many must be painted first
	done   bool
	index  int
}

const chunkLen = 3

// bodies cuts the tubes into chunks, leaves out what is not seen, and orders
// the rest from the back to the front.
func (c *canvas) bodies() []Layer {
	var chunks []*chunk
	of := make([][]int, len(c.tubes)) // chunk of a slice
	for ti, t := range c.tubes {
		of[ti] = make([]int, len(t.samples))
		for i := range of[ti] {
			of[ti][i] = -1
		}
		for a := 0; a < len(t.samples)-1; a += chunkLen {
			b := min(a+chunkLen, len(t.samples)-1)
			if !c.shown(t.samples[a].y, 1.2*t.d) && !c.shown(t.samples[b].y, 1.2*t.d) {
				continue
			}
			seen := t.broad // what shows of it may lie between the places looked at
			z := 0.0
			for i := a; i <= b; i++ {
				p := &t.samples[i]
				z += p.z
				for _, k := range [...]float64{0, -0.5, 0.5, -0.97, 0.97} {
					if seen {
						break
					}
					w := p.r
					if k < 0 {
						w = p.l
					}
					x, y := p.side(k, w)
					seen = !c.hidden(t, i, x, y, false)
				}
			}
			if !seen {
				continue
			}
			colour := t.colour
			if t.samples[(a+b)/2].lie == knot.Filler {
				colour = mix(colour, inkRGB, 0.45)
			}
			ch := &chunk{t: t, a: a, b: b, colour: colour, z: z / float64(b-a+1), index: len(chunks)}
			for i := a; i < b || (i == b && b == len(t.samples)-1); i++ {
				of[ti][i] = ch.index
			}
			chunks = append(chunks, ch)
		}
	}
	for k, row := range c.grid { // what is not seen covers nothing that is
		c.grid[k] = slices.DeleteFunc(row, func(r ref) bool { return of[r.t][r.i] < 0 })
	}
	// Which of two chunks that overlap lies nearer, told where their middles
	// come nearest.
	type meeting struct{ near, dz float64 }
	for _, ch := range chunks {
		met := map[int]meeting{}
		for i := ch.a; i <= ch.b; i += 2 {
			p := &ch.t.samples[i]
			c.near(p.x, p.y, 2*c.widest, func(o *tube, j int) bool {
				k := of[o.id][j]
				if j%2 == 1 || k <= ch.index {
					return false
				}
				q := &o.samples[j]
				if o.strand == ch.t.strand && math.Abs(q.s-p.s) < 1.2*o.d {
					return false
				}
				dist := math.Sqrt((q.x-p.x)*(q.x-p.x) + (q.y-p.y)*(q.y-p.y))
				if dist > math.Max(p.l, p.r)+math.Max(q.l, q.r) {
					return false
				}
				if m, ok := met[k]; !ok || dist < m.near {
					met[k] = meeting{dist, p.z - q.z}
				}
				return false
			})
		}
		keys := make([]int, 0, len(met))
		for k := range met {
			keys = append(keys, k)
		}
		sort.Ints(keys)
		for _, k := range keys {
			if met[k].dz < 0 {
				ch.after = append(ch.after, k)
				chunks[k].before++
			} else {
				chunks[k].after = append(chunks[k].after, ch.index)
				ch.before++
			}
		}
	}
	layers, order := paint(chunks)
	for ti, row := range of {
		for i, k := range row {
			if k >= 0 {
				of[ti][i] = order[k]
			}
		}
	}
	c.rank, c.painted = of, true
	return layers
}

// paint orders the chunks so that each comes after what it lies over, changing
// colour as seldom as it can. It gives the layers and when each chunk came.
func paint(chunks []*chunk) ([]Layer, []int) {
	order := make([]int, len(chunks))
	free := map[string][]int{}
	left := len(chunks)
	offer := func(ch *chunk) { free[ch.colour] = append(free[ch.colour], ch.index) }
	for _, ch := range chunks {
		if ch.before == 0 {
			offer(ch)
		}
	}
	var layers []Layer
	for left > 0 {
		// The colour with most to paint now.
		best := ""
		for col, q := range free {
			if len(q) > len(free[best]) || (len(q) == len(free[best]) && len(q) > 0 && col < best) {
				best = col
			}
		}
		if len(free[best]) == 0 { // a ring of chunks each over the next: break it at the lowest
			var low *chunk
			for _, ch := range chunks {
				if !ch.done && (low == nil || ch.z < low.z) {
					low = ch
				}
			}
			low.before = 0
			offer(low)
			continue
		}
		var run []int
		for len(free[best]) > 0 {
			q := free[best]
			k := q[len(q)-1]
			free[best] = q[:len(q)-1]
			ch := chunks[k]
			if ch.done {
				continue
			}
			ch.done = true
			order[k] = len(chunks) - left
			left--
			run = append(run, k)
			for _, a := range ch.after {
				if chunks[a].before--; chunks[a].before == 0 && !chunks[a].done {
					offer(chunks[a])
				}
			}
		}
		if len(run) == 0 {
			continue
		}
		// Within one colour the order does not show: join neighbours.
		sort.Ints(run)
		var w lines
		for i := 0; i < len(run); {
			j := i
			for j+1 < len(run) && chunks[run[j+1]].t == chunks[run[i]].t && chunks[run[j+1]].a == chunks[run[j]].b {
				j++
			}
			ribbon(&w, chunks[run[i]].t, chunks[run[i]].a, chunks[run[j]].b)
			i = j + 1
		}
		layers = append(layers, Layer{Kind: Body, Lines: w.all, Colour: best})
	}
	return layers, order
}

// ribbon writes the outline of slices a to b, with a lap at both ends, and a
// disc wherever the cord turns away from the eye.
func ribbon(w *lines, t *tube, a, b int) {
	a, b = max(0, a-1), min(len(t.samples)-1, b+1)
	var left, right []pt
	flush := func() {
		if len(left) > 1 {
			w.polygon(append(simplify(left, 0.0035*t.d), reverse(simplify(right, 0.0035*t.d))...))
		}
		left, right = nil, nil
	}
	for i := a; i <= b; i++ {
		p := &t.samples[i]
		if i > a {
			q := &t.samples[i-1]
			if q.tx*p.tx+q.ty*p.ty < 0.5 { // a sharp turn in the picture: a fold in depth
				flush()
				w.disc(p.x, p.y, p.hw)
			}
		}
		lx, ly := p.side(-1, p.l)
		rx, ry := p.side(1, p.r)
		left, right = append(left, pt{lx, ly}), append(right, pt{rx, ry})
		if p.flat < 0.35 {
			w.disc(p.x, p.y, p.hw)
		}
	}
	flush()
}

type pt struct{ x, y float64 }

func reverse(ps []pt) []pt {
	out := make([]pt, len(ps))
	for i, p := range ps {
		out[len(ps)-1-i] = p
	}
	return out
}

// simplify leaves out points that lie within tol of the line through their
// neighbours (Ramer, Douglas and Peucker).
func simplify(ps []pt, tol float64) []pt {
	if len(ps) < 3 {
		return ps
	}
	a, b := ps[0], ps[len(ps)-1]
	dx, dy := b.x-a.x, b.y-a.y
	h := math.Hypot(dx, dy)
	worst, at := 0.0, 0
	for i := 1; i < len(ps)-1; i++ {
		d := math.Hypot(ps[i].x-a.x, ps[i].y-a.y)
		if h > 1e-9 {
			d = math.Abs((ps[i].x-a.x)*dy-(ps[i].y-a.y)*dx) / h
		}
		if d > worst {
			worst, at = d, i
		}
	}
	if worst <= tol {
		return []pt{a, b}
	}
	head := simplify(ps[:at+1], tol)
	return append(head[:len(head):len(head)], simplify(ps[at:], tol)[1:]...)
}

// lines gathers the lines of a layer.
type lines struct{ all []Line }

func hundredths(v float64) int { return int(math.Round(v * 100)) }

// line adds a stroke over points.
func (w *lines) line(ps []pt) {
	if len(ps) < 2 {
		return
	}
	out := make(Line, 0, len(ps))
	for _, p := range ps {
		q := Point{int32(hundredths(p.x)), int32(hundredths(p.y))}
		if n := len(out); n > 0 && out[n-1] == q {
			continue
		}
		out = append(out, q)
	}
	w.all = append(w.all, out)
}

// polygon adds a closed outline, always turning the same way so that
// overlapping parts add up.
func (w *lines) polygon(ps []pt) {
	area := 0.0
	for i, p := range ps {
		q := ps[(i+1)%len(ps)]
		area += p.x*q.y - q.x*p.y
	}
	if area < 0 {
		ps = reverse(ps)
	}
	w.line(ps)
}

func (w *lines) disc(x, y, r float64) {
	const n = 14
	ps := make([]pt, n)
	for i := range ps {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		ps[i] = pt{x + r*c, y + r*s}
	}
	w.polygon(ps)
}

// depths darkens what is seen between the cords of a row: there is more cord
// behind, never the mat.
func (c *canvas) depths() []Layer {
	type at struct {
		x, y, d float64
		colour  string
	}
	rows := map[int][]at{}
	for _, t := range c.tubes {
		for _, p := range t.samples {
			if p.lie == knot.InRow {
				rows[p.sec] = append(rows[p.sec], at{p.x, p.y, t.d, t.colour})
			}
		}
	}
	var out []Layer
	for _, sec := range slices.Sorted(maps.Keys(rows)) {
		// A section that is tied in groups has room between them, one that is
		// tied in rows side by side has room between those.
		for _, group := range apart(rows[sec], 0.5, func(a at) (float64, float64) { return a.y, a.d }) {
			for _, row := range apart(group, 0.6, func(a at) (float64, float64) { return a.x, a.d }) {
				x0, x1 := row[0].x, row[len(row)-1].x
				y0, y1, d := math.Inf(1), math.Inf(-1), 0.0
				for _, p := range row {
					y0, y1, d = math.Min(y0, p.y), math.Max(y1, p.y), math.Max(d, p.d)
				}
				if x1-x0 < 2.4*d || y1-y0 < 3*d {
					continue
				}
				var w lines
				in := 0.6 * d
				w.polygon([]pt{{x0 + in, y0 + in}, {x1 - in, y0 + in}, {x1 - in, y1 - 1.5*d}, {x0 + in, y1 - 1.5*d}})
				out = append(out, Layer{Kind: Body, Lines: w.all, Colour: mix(row[0].colour, inkRGB, 0.6)})
			}
		}
	}
	return out
}

// apart sorts things by a coordinate and parts them where they lie further from
// one another than a share of their thickness.
func apart[T any](all []T, share float64, of func(T) (at, thick float64)) [][]T {
	all = slices.Clone(all)
	slices.SortStableFunc(all, func(a, b T) int {
		x, _ := of(a)
		y, _ := of(b)
		return cmp.Compare(x, y)
	})
	var out [][]T
	from := 0
	for i := range all {
		here, thick := of(all[i])
		last := i == len(all)-1
		if !last {
			if next, _ := of(all[i+1]); next-here < share*thick {
				continue
			}
		}
		out = append(out, all[from:i+1])
		from = i + 1
	}
	return out
}
