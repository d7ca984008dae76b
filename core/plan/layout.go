package plan

import (
	"math"
	"slices"
	"sync"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/piece"

	"gonum.org/v1/gonum/spatial/r3"
)

// Layout is the piece in space.
type Layout struct {
	// Strands are the cords, each from its first end over its fold to its last.
	// A layout that is put together where it is looked at has none here; Near
	// gives them.
	Strands  []Strand
	Beads    []knot.BeadAt
	Cores    []knot.CoreAt
	Hardware piece.Hardware // of type none where nothing is to be seen of it
	// Far is the hardware at the far end, its wire's middle at FarY; of no type where
	// there is none.
	Far  piece.Hardware
	FarY float64
	// Bottom is the y of the lowest tip, mm.
	Bottom float64
	// Sections are the y where each begins and ends.
	Sections [][2]float64
	// Sides are the least and the greatest x that the cords of each section
	// reach; the first is above the second where it has none.
	Sides [][2]float64
	// Cuts are the y, from above, at which a picture may be cut in stretches
	// that look alike wherever the same knots come again.
	Cuts []float64
	// Moving are the strands that the last action moved, the one in hand and then those that it
	// led beside it; none where it moved no single one. Leg is -1 where all of a cord moved.
	// MovingFrom is the y from which on they moved.
	Moving     []LegOf
	MovingFrom float64
	// Places are the strands as the words of that action count them: place 1 is the first. None
	// hangs at one of strand -1.
	Places []LegOf
	// Finishes are how much of each end belongs to its finish, mm.
	Finishes []float64
	// Stuffs and Figures are those of each cord of the piece.
	Stuffs  []cord.Stuff
	Figures []cord.Figures
	// Thick is the drawn-up diameter of the thickest cord, mm.
	Thick float64

	near func(from, to float64) []Strand
}

// LegOf names a strand: the part of a cord before (0) or after (1) its fold.
type LegOf struct{ Strand, Leg int }

// Moves tells whether the last action moved the leg that point i of a strand lies on.
func (l Layout) Moves(s Strand, i int) bool {
	return slices.ContainsFunc(l.Moving, func(m LegOf) bool {
		return m.Strand == s.Index && (m.Leg < 0 || s.Fold == 0 || m.Leg == s.LegAt(i))
	})
}

// Strand is one cord in space, from its first end over the fold to its last, or
// a run of it that comes near a place.
type Strand struct {
	Cord    int
	Index   int        // among the strands of the piece
	Points  []r3.Vec   // mm
	Section []int      // of each point, -1 for what hangs beyond the last
	Lies    []knot.Lie // of each point
	Ends    [2]string  // form of the first and the last end, "" where it goes on
	// EndMM is how much of each end belongs to its finish.
	EndMM [2]float64
	// EndWide is how wide what covers an end is, in diameters; 0 for its own.
	EndWide [2]float64
	// Sheath is how the pattern of its sheath lies at each point, nil for a cord that has
	// none.
	Sheath []SheathAt
	// Fold is the index of the point where the second leg ends and the first
	// begins; 0 for a cord that is not folded. Of a run it may be below zero or
	// beyond its points.
	Fold int
}

// LegAt is the leg that a point lies on: 1 from the fold on, else 0.
func (s Strand) LegAt(point int) int {
	if s.Fold != 0 && point >= s.Fold-1 {
		return 1
	}
	return 0
}

// FoldFrom is the fold of a run of the strand that begins at a point.
func (s Strand) FoldFrom(point int) int {
	if s.Fold != 0 && s.Fold == point {
		return -1 // 0 is that of a strand that is not folded
	}
	if s.Fold == 0 {
		return 0
	}
	return s.Fold - point
}

// Near gives the runs of strands that come between two y, with a little more of
// each; they cost what is there and not what the piece is.
func (y Layout) Near(from, to float64) []Strand {
	if y.near == nil {
		return y.Strands
	}
	return y.near(from, to)
}

// Layout gives the curves that the plan was read off, all of them.
func (p Plan) Layout() Layout {
	l := p.Look()
	l.Strands, l.near = l.Near(math.Inf(-1), math.Inf(1)), nil
	return l
}

// Look gives the curves that the plan was read off, to be put together where
// they are looked at.
func (p Plan) Look() Layout {
	if p.layout == nil {
		return Layout{}
	}
	return p.layout.get()
}

// Dressed is the layout with other stuffs for its cords, of the same kinds: in other
// colours, and with other patterns on their sheaths.
func (p Plan) Dressed(stuffs []cord.Stuff) Layout {
	if p.layout == nil || len(stuffs) != len(p.layout.walk.d.Cords) {
		return p.Layout()
	}
	w := *p.layout.walk
	w.d.Cords = slices.Clone(w.d.Cords)
	for i := range w.d.Cords {
		w.d.Cords[i].Stuff = stuffs[i]
	}
	p.layout = &layouts{walk: &w, bottom: p.layout.bottom}
	return p.Layout()
}

// Bytes is about what the plan holds on to. Curves that it shares with other
// plans are not counted.
func (p Plan) Bytes() int {
	type plain Plan
	layout := p.layout
	p.layout = nil
	n := memo.Bytes(plain(p))
	if layout != nil {
		n += layout.bytes()
	}
	return n
}

// layouts puts layouts together.
type layouts struct {
	walk   *walk
	bottom float64
	once   sync.Once
	made   Layout
}

func (y *layouts) sort() { slices.Sort(y.walk.cuts) } // rows side by side are cut each for themselves

func (y *layouts) bytes() int {
	n := 0
	for _, l := range append(slices.Clone(y.walk.legs), y.walk.own...) {
		n += 250*len(l.stretches) + 41*cap(l.points) // a stretch and its block
		for _, s := range l.stretches {
			if s.lies == nil { // of its own
				n += 24 * len(s.points)
			}
		}
	}
	if y.walk.upsideDown() { // it is put together as a whole
		for _, l := range y.walk.legs {
			for _, s := range l.stretches {
				n += 41 * len(s.points)
			}
		}
	}
	return n
}

func (y *layouts) get() Layout {
	w := y.walk
	y.once.Do(func() {
		y.made = w.layout(y.bottom)
		if !w.upsideDown() {
			return
		}
		y.made.Strands, y.made.near = y.made.Near(math.Inf(-1), math.Inf(1)), nil
		y.made.Sections, y.made.Cuts = slices.Clone(y.made.Sections), slices.Clone(y.made.Cuts)
		y.made.Beads, y.made.Cores = slices.Clone(y.made.Beads), slices.Clone(y.made.Cores)
		switch {
		case w.o.Until == 0 && w.turned != nil:
			y.made.hungUp(w.far)
		case w.o.Until == 0:
			y.made.hungUp(w.eye)
		case w.turned != nil: // in hand, its far end up
			y.made.Hardware, y.made.Far = y.made.Far, y.made.Hardware
		default: // in hand: it hangs on nothing yet
			y.made.Hardware.Type = "none"
		}
	})
	return y.made
}

// layout joins the legs of each cord over its fold.
func (w *walk) layout(bottom float64) Layout {
	lay := Layout{Figures: w.figures, Hardware: w.d.Purpose.HangsOn, Bottom: bottom, Sections: w.tops, Cuts: w.cuts, Beads: w.beads, Cores: w.cores, MovingFrom: w.movedY}
	if len(w.runs) > 0 {
		lay.Far, lay.FarY = *w.d.Purpose.EndsOn, w.far
	}
	for _, c := range w.d.Cords {
		lay.Stuffs = append(lay.Stuffs, c.Stuff)
	}
	cordPaths := w.cordPaths()
	of := map[*leg]LegOf{}
	for i, cordPath := range cordPaths {
		lay.Thick = math.Max(lay.Thick, w.figures[cordPath.cord].DrawnUpMM)
		for _, p := range cordPath.parts {
			if p.leg.endMM > 0 {
				lay.Finishes = append(lay.Finishes, p.leg.endMM)
			}
			is := LegOf{Strand: i}
			if len(cordPath.parts) > 1 {
				is.Leg = 1 - p.leg.n
			}
			of[p.leg] = is
		}
	}
	for _, l := range w.moving {
		is, ok := of[l]
		if w.putOn {
			is.Leg = -1
		}
		if ok && !slices.Contains(lay.Moving, is) {
			lay.Moving = append(lay.Moving, is)
		}
	}
	for _, l := range w.places {
		is, ok := of[l]
		if !ok {
			is = LegOf{-1, -1}
		}
		lay.Places = append(lay.Places, is)
	}
	lay.Sides = w.sides(cordPaths)
	for i := range cordPaths {
		if shift, ok := w.repeats(cordPaths[i].cord); ok {
			cordPaths[i].repeats, cordPaths[i].shift = true, shift
		}
	}
	lay.near = func(from, to float64) []Strand {
		var out []Strand
		for i := range cordPaths {
			out = append(out, cordPaths[i].near(i, from, to)...)
		}
		return out
	}
	return lay
}

// cordPath is a cord's path through the piece: its second leg from the end back up to
// the fold, then its first leg down.
//
// Its points are those of its blocks one after the other, without the first of a
// block where that is the last of the one before. before[k] counts the points
// before block k.
type cordPath struct {
	cord   int
	own    bool // a cord of one section
	parts  []pathPart
	blocks []block
	before []int
	fold   int // the points before the fold, 0 for a cord that is not folded
	all    int // points
	// shelf finds blocks by y: those that reach into each stretch of high mm.
	shelf [][]int32
	top   float64
	high  float64
	// repeats is set where its sheath has a pattern, which begins shift mm before the fold.
	repeats  bool
	shift    float64
	sheathed *sync.Once
	sheath   []SheathAt
}

type pathPart struct {
	leg  *leg
	back bool // walked from its end
}

func (w *walk) cordPaths() []cordPath {
	var out []cordPath
	for ci := range w.d.Cords {
		v := cordPath{cord: ci, sheathed: new(sync.Once)}
		for _, n := range [2]int{1, 0} {
			for _, l := range w.legs {
				if l.cord == ci && l.n == n {
					v.parts = append(v.parts, pathPart{l, n == 1})
				}
			}
		}
		if len(v.parts) > 0 {
			out = append(out, v)
		}
	}
	for _, l := range w.own {
		out = append(out, cordPath{cord: l.cord, own: true, sheathed: new(sync.Once), parts: []pathPart{{l, false}}})
	}
	for i := range out {
		out[i].index()
	}
	return out
}

// block is some of a leg's points, at most mostInBlock.
type block struct {
	leg       *leg
	stretch   int32 // -1 for points that were put together
	from, to  int32
	back      bool
	skip      bool // the first point is the last of the block before
	high, low float32
}

const mostInBlock = 512

func (b *block) n() int { return int(b.to - b.from) }

// at is point k of the block, in the path's order.
func (b *block) at(k int) (v r3.Vec, section int, lie knot.Lie) {
	i := int(b.from) + k
	if b.back {
		i = int(b.to) - 1 - k
	}
	if b.stretch < 0 {
		return b.leg.points[i], b.leg.section[i], b.leg.lies[i]
	}
	s := &b.leg.stretches[b.stretch]
	return s.at(i), s.section, s.lieAt(i)
}

// index cuts the path into blocks and finds where they are.
func (v *cordPath) index() {
	var last *r3.Vec
	put := func(b block, k int) {
		first, _, _ := b.at(0)
		b.skip = last != nil && r3.Norm2(r3.Sub(*last, first)) < 1e-12
		if k > 0 && v.fold == v.all && v.fold > 0 { // the fold stands there already
			b.skip = true
		}
		v.before = append(v.before, v.all)
		v.all += b.n()
		if b.skip {
			v.all--
		}
		end, _, _ := b.at(b.n() - 1)
		last = &end
		v.blocks = append(v.blocks, b)
	}
	for k, p := range v.parts {
		var bs []block
		cut := func(stretch int32, n int, span func(a, b int) (high, low float64)) {
			for a := 0; a < n; a += mostInBlock {
				e := min(a+mostInBlock, n)
				high, low := span(a, e)
				bs = append(bs, block{leg: p.leg, stretch: stretch, from: int32(a), to: int32(e), back: p.back, high: float32(high), low: float32(low)})
			}
		}
		of := func(n int, at func(i int) float64) func(a, b int) (float64, float64) {
			return func(a, b int) (high, low float64) {
				high, low = math.Inf(1), math.Inf(-1)
				for i := a; i < b; i++ {
					high, low = math.Min(high, at(i)), math.Max(low, at(i))
				}
				return high, low
			}
		}
		cut(-1, len(p.leg.points), of(len(p.leg.points), func(i int) float64 { return p.leg.points[i].Y }))
		for i, s := range p.leg.stretches {
			span := func(int, int) (float64, float64) { return s.high, s.low }
			if len(s.points) > mostInBlock {
				span = of(len(s.points), func(i int) float64 { return s.points[i].Y + s.off.Y })
			}
			cut(int32(i), len(s.points), span)
		}
		if p.back {
			slices.Reverse(bs)
		}
		for _, b := range bs {
			put(b, k)
		}
		if k == 0 && len(v.parts) > 1 {
			v.fold = v.all
		}
	}
	v.shelve()
}

// shelve sorts the blocks by where they are. A block's span begins where the one
// before it ends.
func (v *cordPath) shelve() {
	top, bottom := math.Inf(1), math.Inf(-1)
	for i := range v.blocks {
		b := &v.blocks[i]
		if i > 0 {
			end, _, _ := v.blocks[i-1].at(v.blocks[i-1].n() - 1)
			b.high, b.low = min(b.high, float32(end.Y)), max(b.low, float32(end.Y))
		}
		top, bottom = math.Min(top, float64(b.high)), math.Max(bottom, float64(b.low))
	}
	n := max(1, len(v.blocks)/8)
	v.top, v.high = top, math.Max(1e-6, (bottom-top)/float64(n))
	v.shelf = make([][]int32, n+1)
	for i, b := range v.blocks {
		for k := v.row(float64(b.high)); k <= v.row(float64(b.low)); k++ {
			v.shelf[k] = append(v.shelf[k], int32(i))
		}
	}
}

func (v *cordPath) row(y float64) int {
	return int(math.Max(0, math.Min(float64(len(v.shelf)-1), (y-v.top)/v.high)))
}

// near gives the runs of a cord that come between two y.
func (v *cordPath) near(index int, from, to float64) []Strand {
	var found []int32
	if math.IsInf(from, -1) && math.IsInf(to, 1) {
		for i := range v.blocks {
			found = append(found, int32(i))
		}
	} else {
		for k := v.row(from); k <= v.row(to); k++ {
			for _, i := range v.shelf[k] {
				if b := &v.blocks[i]; float64(b.low) >= from-0.01 && float64(b.high) <= to+0.01 {
					found = append(found, i)
				}
			}
		}
		slices.Sort(found)
		found = slices.Compact(found)
	}
	ends, endMM, wide := [2]string{"cut", "cut"}, [2]float64{}, [2]float64{}
	if !v.own {
		ends = [2]string{}
		for _, p := range v.parts {
			e := 1
			if p.back {
				e = 0
			}
			ends[e], endMM[e], wide[e] = p.leg.form, p.leg.endMM, p.leg.formWide
		}
	}
	var out []Strand
	for a := 0; a < len(found); {
		e := a + 1
		for e < len(found) && found[e] == found[e-1]+1 {
			e++
		}
		s := Strand{Cord: v.cord, Index: index}
		first, last := int(found[a]), int(found[e-1])
		n := 1
		for i := first; i <= last; i++ {
			n += v.blocks[i].n()
		}
		s.Points, s.Section, s.Lies = make([]r3.Vec, 0, n), make([]int, 0, n), make([]knot.Lie, 0, n)
		put := func(b *block, k int) {
			p, section, lie := b.at(k)
			s.Points, s.Section, s.Lies = append(s.Points, p), append(s.Section, section), append(s.Lies, lie)
		}
		begins := v.before[first]
		if first > 0 { // the point that it comes in from
			begins--
			put(&v.blocks[first-1], v.blocks[first-1].n()-1)
		}
		for i := first; i <= last; i++ {
			b := &v.blocks[i]
			for k := range b.n() {
				if k > 0 || !b.skip {
					put(b, k)
				}
			}
		}
		if v.repeats {
			s.Sheath = slices.Clone(v.sheaths()[begins : begins+len(s.Points)])
		}
		if v.fold != 0 {
			if s.Fold = v.fold - begins; s.Fold == 0 {
				s.Fold = -1
			}
		}
		if first == 0 {
			s.Ends[0], s.EndMM[0], s.EndWide[0] = ends[0], endMM[0], wide[0]
		}
		if last == len(v.blocks)-1 {
			s.Ends[1], s.EndMM[1], s.EndWide[1] = ends[1], endMM[1], wide[1]
		}
		out = append(out, s)
		a = e
	}
	return out
}

// sides finds how far to the sides the cords of each section reach.
func (w *walk) sides(cordPaths []cordPath) [][2]float64 {
	out := make([][2]float64, len(w.tops))
	for i := range out {
		out[i] = [2]float64{math.Inf(1), math.Inf(-1)}
	}
	put := func(section int, left, right float64) {
		if section >= 0 && section < len(out) {
			out[section][0], out[section][1] = math.Min(out[section][0], left), math.Max(out[section][1], right)
		}
	}
	type shared struct {
		first *r3.Vec
		n     int
	}
	known := map[shared][2]float64{} // sides of curves that are laid more than once
	for _, v := range cordPaths {
		r := w.figures[v.cord].DrawnUpMM / 2
		for _, p := range v.parts {
			for i, q := range p.leg.points {
				put(p.leg.section[i], q.X-r, q.X+r)
			}
			for _, s := range p.leg.stretches {
				name := shared{&s.points[0], len(s.points)}
				lr, ok := known[name]
				if !ok {
					lr = [2]float64{math.Inf(1), math.Inf(-1)}
					for _, q := range s.points {
						lr[0], lr[1] = math.Min(lr[0], q.X), math.Max(lr[1], q.X)
					}
					known[name] = lr
				}
				left, right := lr[0], lr[1]
				if s.turn != 0 { // about the axis, so no farther than that way
					left, right = math.Inf(1), math.Inf(-1)
					for k := range s.points {
						x := s.at(k).X - s.off.X
						left, right = math.Min(left, x), math.Max(right, x)
					}
				}
				put(s.section, s.off.X+left-r, s.off.X+right+r)
			}
		}
	}
	return out
}
