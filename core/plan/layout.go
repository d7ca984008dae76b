package plan

import (
	"math"
	"slices"
	"sync"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
	"nimblebight/core/knot"
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
	// Moving is the strand that the last action moved, -1 for none; MovingLeg
	// is the part of it before (0) or after (1) the fold, MovingFrom the y from
	// which on it moved.
	Moving, MovingLeg int
	MovingFrom        float64
	// Thick is the drawn-up diameter of the thickest cord, mm.
	Thick float64

	near func(from, to float64) []Strand
}

// Strand is one cord in space, from its first end over the fold to its last, or
// a run of it that comes near a place.
type Strand struct {
	Cord    int
	Index   int         // among the strands of the piece
	Points  []curve.Vec // mm
	Section []int       // of each point, -1 for what hangs beyond the last
	Lies    []knot.Lie  // of each point
	Ends    [2]string   // form of the first and the last end, "" where it goes on
	// EndMM is how much of each end belongs to its finish.
	EndMM [2]float64
	// Fold is the index of the point where the second leg ends and the first
	// begins; 0 for a cord that is not folded. Of a run it may be below zero or
	// beyond its points.
	Fold int
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

// Bytes is about what the plan holds on to. Curves that it shares with other
// plans are not counted.
func (p Plan) Bytes() int {
	type plain Plan
	layout := p.layout
	p.layout = nil
	n := kept.Bytes(plain(p))
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
	made   Layout // of a piece that hangs the other way up from how it is tied
}

func (y *layouts) sort() { slices.Sort(y.walk.cuts) } // rows side by side are cut each for themselves

func (y *layouts) bytes() int {
	n := 0
	for _, l := range append(slices.Clone(y.walk.legs), y.walk.own...) {
		n += 120*len(l.stretches) + 41*cap(l.points)
		for _, s := range l.stretches {
			if s.lies == nil { // of its own
				n += 24 * len(s.points)
			}
		}
	}
	if y.walk.fromBall() { // it is put together as a whole
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
	if !w.fromBall() {
		return w.layout(y.bottom)
	}
	y.once.Do(func() {
		y.made = w.layout(y.bottom)
		y.made.Strands, y.made.near = y.made.Near(math.Inf(-1), math.Inf(1)), nil
		y.made.Sections, y.made.Cuts = slices.Clone(y.made.Sections), slices.Clone(y.made.Cuts)
		y.made.Beads, y.made.Cores = slices.Clone(y.made.Beads), slices.Clone(y.made.Cores)
		if w.o.Until == 0 {
			y.made.hungUp(w.eye)
		} else { // in hand: it hangs on nothing yet
			y.made.Hardware.Type = "none"
		}
	})
	return y.made
}

// layout joins the legs of each cord over its fold.
func (w *walk) layout(bottom float64) Layout {
	lay := Layout{Hardware: w.d.Purpose.HangsOn, Bottom: bottom, Sections: w.tops, Cuts: w.cuts, Beads: w.beads, Cores: w.cores, Moving: -1, MovingFrom: w.movedY}
	ways := w.ways()
	for i, way := range ways {
		lay.Thick = math.Max(lay.Thick, w.d.Cords[way.cord].Stuff.DrawnUp())
		for _, p := range way.parts {
			if p.leg == w.moving && w.moving != nil {
				lay.Moving = i
				if len(way.parts) > 1 || !way.own {
					lay.MovingLeg = 1 - p.leg.n
				}
			}
		}
	}
	lay.Sides = w.sides(ways)
	lay.near = func(from, to float64) []Strand {
		var out []Strand
		for i, way := range ways {
			out = append(out, way.near(i, from, to)...)
		}
		return out
	}
	return lay
}

// way is a cord's way through the piece: its second leg from the end back up to
// the fold, then its first leg down.
type way struct {
	cord  int
	own   bool // a cord of one section
	parts []wayPart
}

type wayPart struct {
	leg  *leg
	back bool // walked from its end
}

func (w *walk) ways() []way {
	var out []way
	for ci := range w.d.Cords {
		v := way{cord: ci}
		for _, n := range [2]int{1, 0} {
			for _, l := range w.legs {
				if l.cord == ci && l.n == n {
					v.parts = append(v.parts, wayPart{l, n == 1})
				}
			}
		}
		if len(v.parts) > 0 {
			out = append(out, v)
		}
	}
	for _, l := range w.own {
		out = append(out, way{l.cord, true, []wayPart{{l, false}}})
	}
	return out
}

// blocks calls do with the blocks of a leg in the order of its points: what was
// put together, in pieces, then its stretches.
func (l *leg) blocks(back bool, do func(b block)) {
	const piece = 512
	var bs []block
	for a := 0; a < len(l.points); a += piece {
		bs = append(bs, block{leg: l, from: a, to: min(a+piece, len(l.points))})
	}
	for i := range l.stretches {
		bs = append(bs, block{leg: l, stretch: &l.stretches[i], to: len(l.stretches[i].points)})
	}
	if back {
		slices.Reverse(bs)
	}
	for _, b := range bs {
		do(b)
	}
}

// block is some of a leg's points.
type block struct {
	leg      *leg
	stretch  *stretch // nil for points that were put together
	from, to int
}

func (b block) at(k int) (v curve.Vec, section int, lie knot.Lie) {
	if b.stretch == nil {
		return b.leg.points[k], b.leg.section[k], b.leg.lies[k]
	}
	return b.stretch.at(k), b.stretch.section, b.stretch.lieAt(k)
}

// span is the least and the greatest y of the block.
func (b block) span() (high, low float64) {
	if b.stretch != nil {
		return b.stretch.high, b.stretch.low
	}
	high, low = math.Inf(1), math.Inf(-1)
	for _, v := range b.leg.points[b.from:b.to] {
		high, low = math.Min(high, v.Y), math.Max(low, v.Y)
	}
	return high, low
}

// near gives the runs of a cord that come between two y.
func (v way) near(index int, from, to float64) []Strand {
	var out []Strand
	var run *Strand
	// last is the point before, which a run begins with when it comes in.
	type point struct {
		v       curve.Vec
		section int
		lie     knot.Lie
		fold    bool
	}
	var last *point
	passed, fold, begun := 0, 0, 0 // points passed, where the fold is, where the run begins
	add := func(p point) {
		if run == nil {
			out = append(out, Strand{Cord: v.cord, Index: index})
			run = &out[len(out)-1]
			begun = passed
			if last != nil {
				run.Points, run.Section, run.Lies = append(run.Points, last.v), append(run.Section, last.section), append(run.Lies, last.lie)
				begun--
			}
		}
		run.Points, run.Section, run.Lies = append(run.Points, p.v), append(run.Section, p.section), append(run.Lies, p.lie)
	}
	// folds are set when all is known of where the fold is.
	var begins []int
	end := func() {
		if run != nil {
			begins = append(begins, begun)
			run = nil
		}
	}
	whole := false // the last run goes on to the last end
	for k, part := range v.parts {
		part.leg.blocks(part.back, func(b block) {
			high, low := b.span()
			if last != nil {
				high, low = math.Min(high, last.v.Y), math.Max(low, last.v.Y)
			}
			in := low >= from && high <= to
			if !in {
				end()
			}
			for i := b.from; i < b.to; i++ {
				n := i
				if part.back {
					n = b.to - 1 - (i - b.from)
				}
				if !in && i > b.from && i < b.to-1 { // only counted
					passed++
					continue
				}
				var p point
				p.v, p.section, p.lie = b.at(n)
				if k > 0 && passed == fold && last != nil && last.fold {
					last.fold = false
					continue // the fold stands there already
				}
				if last != nil && r3.Norm2(r3.Sub(last.v, p.v)) < 1e-12 {
					continue
				}
				if in {
					add(p)
				}
				passed++
				last = &p
			}
		})
		if k == 0 && len(v.parts) > 1 && last != nil {
			fold, last.fold = passed, true
		}
	}
	whole = run != nil
	end()
	if len(out) == 0 {
		return nil
	}
	for i := range out {
		out[i].Fold = fold
		if fold != 0 {
			if out[i].Fold = fold - begins[i]; out[i].Fold == 0 {
				out[i].Fold = -1
			}
		}
	}
	ends, endMM := [2]string{"cut", "cut"}, [2]float64{}
	if !v.own {
		ends = [2]string{}
		for _, p := range v.parts {
			e := 1
			if p.back {
				e = 0
			}
			ends[e], endMM[e] = p.leg.form, p.leg.endMM
		}
	}
	if begins[0] == 0 {
		out[0].Ends[0], out[0].EndMM[0] = ends[0], endMM[0]
	}
	if n := len(out) - 1; whole {
		out[n].Ends[1], out[n].EndMM[1] = ends[1], endMM[1]
	}
	return out
}

// sides finds how far to the sides the cords of each section reach.
func (w *walk) sides(ways []way) [][2]float64 {
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
		first *curve.Vec
		n     int
	}
	known := map[shared][2]float64{} // sides of curves that are laid more than once
	for _, v := range ways {
		r := w.d.Cords[v.cord].Stuff.DrawnUp() / 2
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
