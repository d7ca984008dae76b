package scene

import (
	"context"
	"encoding/binary"
	"encoding/hex"
	"errors"
	"fmt"
	"maps"
	"math"
	"runtime"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/plan"
	"nimblebight/core/side"

	"github.com/cespare/xxhash/v2"
	"golang.org/x/sync/semaphore"
	"gonum.org/v1/gonum/spatial/r3"
)

// A picture is drawn in plates, cut where the layout says. What a plate looks
// like depends on the curves near it alone, so a plate is drawn once for all
// places, pieces and edits where the same curves come again.

// margin is how far beyond a plate its neighbours are looked at, in drawn-up
// diameters of the thickest cord: as far as cord is spread, and what bounds it there.
const margin = spreadBeyond + spreadFar

// lap is by what plates overlap, mm: some pixels, so that the edges of two of
// them never leave a hair of what is behind.
func (v View) lap() float64 { return 2 / v.PerMM }

// run is a stretch of a strand that comes near a plate, in the plate's own
// coordinates.
type run struct {
	strand  int
	cord    int
	stuff   cord.Stuff
	figures cord.Figures
	points  []laid
	sheath  []plan.SheathAt // of each point, nil where the sheath has no pattern
	beside  int             // which of the picture's colours are those of the sheath, from
	from    float64         // sets runs of one strand apart along it
	ends    [2]string       // form of an end that lies here, "" where it is cut off
	endMM   [2]float64
	endWide [2]float64 // in diameters, 0 for its own
}

// laid is a point of a run and how the cord lies there.
type laid struct {
	p       r3.Vec
	section int32 // from the plate's first
	lie     knot.Lie
	moving  bool
}

// Render draws a layout. Stuffs are the cords' by index.
func Render(l plan.Layout, v View) Picture {
	if v.PerMM <= 0 {
		v.PerMM = 6
	}
	pic := Picture{View: v.name(), Places: []Place{}, Plates: map[string]Plate{}, Bands: []Band{}}
	if l.Thick == 0 {
		return pic
	}
	pic.Colours = Colours(l.Stuffs)
	bands(&pic, l, v)
	tiles := cut(l, v)
	// Some tiles at a time: what comes near them is put together, named, drawn
	// where it is new, and let go again.
	for a := 0; a < len(tiles); a += together {
		group := tiles[a:min(a+together, len(tiles))]
		// Stretches of it at once, each for itself.
		parts := min(len(group), runtime.GOMAXPROCS(0))
		side.Each(parts, func(i int) { fill(group[i*len(group)/parts:(i+1)*len(group)/parts], l) })
		side.Each(len(group), func(i int) { group[i].key = group[i].name(l, v) })
		todo := map[string]*tile{}
		for _, t := range group {
			_, had := pic.Plates[t.key]
			if had || todo[t.key] != nil {
				t.runs = nil
			} else {
				todo[t.key] = t
			}
		}
		names := slices.Sorted(maps.Keys(todo))
		plates := make([]Plate, len(names))
		side.Each(len(names), func(i int) {
			var err error
			plates[i], err = drawnPlates.Get(names[i], func() (p Plate, err error) {
				err = side.Guard(func() error {
					p = todo[names[i]].draw(l, v)
					return nil
				})
				return p, err
			})
			todo[names[i]].runs = nil
			if err != nil { // the rest of the picture stands
				plates[i] = Plate{fault: err}
			}
		})
		for i, name := range names {
			pic.Plates[name] = plates[i]
		}
	}
	x0, y0, x1, y1 := math.MaxInt, math.MaxInt, math.MinInt, math.MinInt
	for _, t := range tiles {
		p := pic.Plates[t.key]
		if p.fault != nil {
			pic.Faults = append(pic.Faults, t.faulty(p.fault, l))
		}
		if len(p.Layers) == 0 {
			delete(pic.Plates, t.key)
			continue
		}
		pic.Coarse = pic.Coarse || p.Coarse
		y := hundredths(t.y0)
		pic.Places = append(pic.Places, Place{t.key, y})
		x0, x1 = min(x0, p.Left), max(x1, p.Right)
		y0, y1 = min(y0, y+p.Top), max(y1, y+p.Bottom)
	}
	if pic.Empty() {
		return pic
	}
	if v.To > v.From {
		y0, y1 = max(y0, hundredths(v.From)), min(y1, hundredths(v.To))
	}
	pic.Left, pic.Top = x0-60, y0-60
	pic.Width, pic.Height = x1-x0+120, y1-y0+120
	return pic
}

// faulty says which stretch of a layout a tile is that cannot be drawn.
func (t *tile) faulty(why error, l plan.Layout) Fault {
	f := Fault{Section: -1, Top: hundredths(math.Max(0, t.y0)), Bottom: hundredths(math.Min(t.y1, math.Max(l.Bottom, t.y0)))}
	for i, s := range l.Sections {
		if s[1] > t.y0 && s[0] < t.y1 {
			f.Section = i
			break
		}
	}
	f.Why = "it could not be drawn"
	var p *side.Panic
	if errors.As(why, &p) {
		f.Why = fmt.Sprintf("drawing it failed: %v", p.Value)
	}
	return f
}

// Without is the picture without the plates of these names, for a reader that
// has them.
func (p Picture) Without(names []string) Picture {
	all := p.Plates
	p.Plates = make(map[string]Plate, len(all))
	have := make(map[string]bool, len(names))
	for _, n := range names {
		have[n] = true
	}
	for n, plate := range all {
		if !have[n] {
			p.Plates[n] = plate
		}
	}
	return p
}

// tile is a stretch of a layout to be drawn as one plate.
type tile struct {
	y0, y1      float64
	top         float64 // y0, above all for the first
	first, last bool
	section     int // of its first point
	runs        []run
	beads       []knot.BeadAt // in the tile's coordinates
	cores       []knot.CoreAt
	key         string
}

// together is how many tiles are filled at once.
const together = 64

// cut finds the tiles of a layout, empty.
func cut(l plan.Layout, v View) []*tile {
	thick := l.Thick
	ys := cutsFor(l, v)
	var tiles []*tile
	y := math.Inf(-1)
	for _, c := range append(divided(ys, l), math.Inf(1)) {
		if !math.IsInf(c, 1) && c-math.Max(y, 0) < 1.5*thick {
			continue // too thin a slice to be worth a plate
		}
		tiles = append(tiles, &tile{y0: y, y1: c, section: -1})
		y = c
	}
	tiles[0].first, tiles[len(tiles)-1].last = true, true
	if v.To > v.From {
		var keep []*tile
		for _, t := range tiles {
			if t.y1 >= v.From && t.y0 <= v.To {
				keep = append(keep, t)
			}
		}
		tiles = keep
	}
	for _, t := range tiles {
		t.top = t.y0
		if t.first {
			t.y0 = 0 // its own zero is the wire
		}
	}
	return tiles
}

// fill sorts the points of what comes near some tiles into them.
func fill(tiles []*tile, l plan.Layout) {
	thick := l.Thick
	m := margin * thick
	tops := make([]float64, len(tiles))
	for i, t := range tiles {
		tops[i] = t.top
	}
	beside := besides(l.Stuffs)
	// counted tells how many runs of a strand a tile has, over its parts.
	counted := map[int][]int{}
	for _, s := range l.Near(tops[0]-m, tiles[len(tiles)-1].y1+m) {
		s = held(s, thick)
		si := s.Index
		if counted[si] == nil {
			counted[si] = make([]int, len(tiles))
		}
		count := counted[si]
		open := make([]int, len(tiles)) // run that a tile is in the middle of, from 1
		last := make([]int, len(tiles)) // point that a tile's run has come to
		// add puts point i, or the place p where its span was cut off, into tile k.
		add := func(k, i int, p r3.Vec, lie knot.Lie, sheath plan.SheathAt) {
			t := tiles[k]
			if open[k] == 0 || (last[k] != i && last[k] != i-1) {
				count[k]++
				t.runs = append(t.runs, run{strand: si, cord: s.Cord, stuff: l.Stuffs[s.Cord], figures: l.Figures[s.Cord], beside: beside[s.Cord], from: 1000 * float64(count[k]), points: make([]laid, 0, 160)})
				open[k] = len(t.runs)
				if i == 0 && p == s.Points[0] {
					r := &t.runs[open[k]-1]
					r.ends[0], r.endMM[0], r.endWide[0] = s.Ends[0], s.EndMM[0], s.EndWide[0]
				}
			}
			r := &t.runs[open[k]-1]
			if t.section < 0 {
				t.section = max(0, s.Section[i])
			}
			sec := s.Section[i]
			if sec >= 0 {
				sec -= t.section
				if sec < 0 {
					sec += len(l.Sections) // never -1
				}
			}
			r.points = append(r.points, laid{r3.Vec{X: grain(p.X), Y: grain(p.Y - t.y0), Z: grain(p.Z)}, int32(sec), lie,
				p.Y >= l.MovingFrom && l.Moves(s, i)})
			if i == len(s.Points)-1 && p == s.Points[i] {
				r.ends[1], r.endMM[1], r.endWide[1] = s.Ends[1], s.EndMM[1], s.EndWide[1]
			}
			if s.Sheath != nil {
				r.sheath = append(r.sheath, sheath)
			}
			last[k] = i
		}
		first := 0 // tile that the span may lie in
		for i := 0; i+1 < len(s.Points); i++ {
			a, b := s.Points[i], s.Points[i+1]
			lo, hi := min(a.Y, b.Y), max(a.Y, b.Y)
			long := r3.Norm2(r3.Sub(b, a)) > 4*thick*thick
			for first > 0 && tiles[first-1].y1+m >= lo { // the next span is not far from the last
				first--
			}
			for first < len(tiles) && tiles[first].y1+m < lo {
				first++
			}
			for k := first; k < len(tiles) && tops[k]-m <= hi; k++ {
				p, q, lieP, lieQ := a, b, s.Lies[i], s.Lies[i+1]
				shift := func(r3.Vec) plan.SheathAt { return plan.SheathAt{} }
				if s.Sheath != nil {
					shift = func(v r3.Vec) plan.SheathAt { return sheathBetween(s, i, v) }
				}
				if long { // cut off straight strand where it leaves
					lie := knot.Knotted
					if lieP == lieQ {
						lie = lieP
					}
					at := func(y float64) r3.Vec { return curve.Lerp(a, b, (y-a.Y)/(b.Y-a.Y)) }
					from, to := tops[k]-m, tiles[k].y1+m
					if p.Y < from && b.Y > from {
						p, lieP = at(from), lie
					} else if p.Y > to && b.Y < to {
						p, lieP = at(to), lie
					}
					if q.Y > to && a.Y < to {
						q, lieQ = at(to), lie
					} else if q.Y < from && a.Y > from {
						q, lieQ = at(from), lie
					}
				}
				if open[k] == 0 || last[k] != i {
					if last[k] == i-1 && open[k] != 0 {
						open[k] = 0 // it left and comes again
					}
					add(k, i, p, lieP, shift(p))
				}
				add(k, i+1, q, lieQ, shift(q))
			}
		}
	}
	for _, b := range l.Beads {
		for k, t := range tiles {
			if b.At.Y+b.LengthMM/2 >= tops[k]-m && b.At.Y-b.LengthMM/2 <= t.y1+m {
				q := b
				q.At.Y -= t.y0
				t.beads = append(t.beads, q)
			}
		}
	}
	for _, b := range l.Cores {
		for k, t := range tiles {
			if b.At.Y+b.DiameterMM/2 >= tops[k]-m && b.At.Y-b.DiameterMM/2 <= t.y1+m {
				q := b
				q.At.Y -= t.y0
				t.cores = append(t.cores, q)
			}
		}
	}
}

// held has a point a diameter from either end of every long straight span, so that
// the curve through it is the same wherever the span is cut off.
func held(s plan.Strand, thick float64) plan.Strand {
	var long []int
	for i := 0; i+1 < len(s.Points); i++ {
		if r3.Norm2(r3.Sub(s.Points[i+1], s.Points[i])) > 9*thick*thick {
			long = append(long, i)
		}
	}
	if long == nil {
		return s
	}
	n := len(s.Points) + 2*len(long)
	out := s
	out.Points, out.Section, out.Lies, out.Sheath = make([]r3.Vec, 0, n), make([]int, 0, n), make([]knot.Lie, 0, n), nil
	from := 0
	upTo := func(to int) {
		if s.Sheath != nil {
			out.Sheath = append(out.Sheath, s.Sheath[from:to]...)
		}
		out.Points, out.Section, out.Lies = append(out.Points, s.Points[from:to]...), append(out.Section, s.Section[from:to]...), append(out.Lies, s.Lies[from:to]...)
		from = to
	}
	for _, i := range long {
		upTo(i + 1)
		p, next := s.Points[i], s.Points[i+1]
		k := thick / r3.Norm(r3.Sub(next, p))
		lie := knot.Knotted
		if s.Lies[i] == s.Lies[i+1] {
			lie = s.Lies[i]
		}
		out.Points = append(out.Points, curve.Lerp(p, next, k), curve.Lerp(p, next, 1-k))
		out.Section, out.Lies = append(out.Section, s.Section[i+1], s.Section[i+1]), append(out.Lies, lie, lie)
		if s.Sheath != nil {
			out.Sheath = append(out.Sheath, sheathBetween(s, i, out.Points[len(out.Points)-2]), sheathBetween(s, i, out.Points[len(out.Points)-1]))
		}
		if s.Fold > i+1 {
			out.Fold += 2
		}
	}
	upTo(len(s.Points))
	return out
}

// tallest is how tall a plate may be, in drawn-up diameters of the thickest cord;
// what is taller is divided.
const tallest = 60.0

// divided puts cuts into what is too tall between two of them: long gaps, and
// rows that were bent. Straight strands look alike between any two.
func divided(ys []float64, l plan.Layout) []float64 {
	most := tallest * l.Thick
	out := make([]float64, 0, len(ys))
	last := 0.0
	// An end is drawn in one plate with all that belongs to its finish.
	finish := 0.0
	for _, s := range l.Finishes {
		finish = math.Max(finish, s)
	}
	for _, y := range append(ys, l.Bottom-finish) {
		for y-last > 2*most {
			last += most
			out = append(out, last)
		}
		if y > last {
			out = append(out, y)
			last = y
		}
	}
	if n := len(out); n > 0 && (len(ys) == 0 || out[n-1] > ys[len(ys)-1]) && finish == 0 {
		out = out[:n-1] // the lowest tip is no place to cut at
	}
	return out
}

// cutsFor are the places to cut at. Seen from afar, a plate for every knot would
// be more plates than picture: then whole sections go together, always the same
// ones, so that an edit leaves the plates of the others as they are.
func cutsFor(l plan.Layout, v View) []float64 {
	const low = 40 // px, under which a plate is not worth its while
	n := len(l.Sections)
	if n == 0 || l.Bottom/float64(n)*v.PerMM > low/2 {
		return slices.Clone(l.Cuts)
	}
	group := 1
	for l.Bottom/float64(n)*float64(group)*v.PerMM < low {
		group *= 2
	}
	var out []float64
	for i := group - 1; i < n-1; i += group {
		if y := l.Sections[i][1]; len(out) == 0 || y > out[len(out)-1] {
			out = append(out, y)
		}
	}
	return out
}

// grain keeps a length to thousandths of a millimetre, so that curves that are
// alike but for the last bits of a sum are the same plate.
func grain(v float64) float64 { return math.Floor(1000*v+0.87) / 1000 }

// whole is a length in whole thousandths of a millimetre.
func whole(mm float64) uint32 { return uint32(int32(math.Floor(1000*mm + 0.5))) }

// name is what a tile's plate is kept under: everything that its looks depend on.
func (t *tile) name(l plan.Layout, v View) string {
	h := xxhash.New()
	var b []byte
	num := func(x float64) { b = binary.LittleEndian.AppendUint32(b, whole(x)) }
	text := func(s string) { b = append(append(b, s...), 0) }
	flag := func(on bool) {
		if on {
			b = append(b, 1)
		} else {
			b = append(b, 0)
		}
	}
	num(v.Turn)
	num(v.PerMM)
	num(l.Thick)
	flag(t.first)
	flag(t.last)
	if !t.last {
		num(t.y1 - t.y0)
	}
	if t.first {
		text(l.Hardware.Type)
		num(l.Hardware.InnerMM)
		num(l.Hardware.WireMM)
		num(l.Hardware.DepthMM)
	}
	if t.last && l.Far.Type != "" {
		text(l.Far.Type)
		num(l.Far.InnerMM)
		num(l.Far.WireMM)
		num(l.FarY - t.y0)
	}
	for _, r := range t.runs {
		text(string(r.stuff.Make))
		num(r.figures.DrawnUpMM)
		num(r.figures.LabelMM)
		num(r.figures.Give)
		b = binary.LittleEndian.AppendUint16(b, uint16(r.strand))
		b = binary.LittleEndian.AppendUint16(b, uint16(r.cord))
		for e := range r.ends {
			text(r.ends[e])
			num(r.endMM[e])
			num(r.endWide[e])
		}
		if sheath := r.stuff.Sheath; sheath != nil && len(r.sheath) > 0 {
			text(string(sheath.Pattern))
			num(sheath.RepeatMM)
			num(float64(len(sheath.Colours)))
			num(float64(r.beside))
			for _, at := range [2]plan.SheathAt{r.sheath[0], r.sheath[len(r.sheath)-1]} {
				num(at.MM - sheath.RepeatMM*math.Floor(r.sheath[0].MM/sheath.RepeatMM))
			}
			up := r.sheath[0].Up
			num(up.X)
			num(up.Y)
			num(up.Z)
		}
		for _, q := range r.points {
			last := byte(0)
			if q.moving {
				last = 1
			}
			at := [3]uint32{whole(q.p.X), whole(q.p.Y), whole(q.p.Z)}
			b = append(b, byte(at[0]), byte(at[0]>>8), byte(at[0]>>16), byte(at[0]>>24), byte(at[1]), byte(at[1]>>8), byte(at[1]>>16), byte(at[1]>>24),
				byte(at[2]), byte(at[2]>>8), byte(at[2]>>16), byte(at[2]>>24), byte(q.lie), byte(q.section), byte(q.section>>8), last)
		}
		_, _ = h.Write(b) // a hash does not fail
		b = b[:0]
	}
	for _, q := range t.beads {
		text(string(q.Colour))
		text(string(q.Shape))
		flag(q.Across)
		for _, v := range []float64{q.At.X, q.At.Y, q.At.Z, q.HoleMM, q.LengthMM, q.WidthMM} {
			num(grain(v))
		}
	}
	for _, q := range t.cores {
		text(q.Colour)
		for _, v := range []float64{q.At.X, q.At.Y, q.At.Z, q.DiameterMM} {
			num(grain(v))
		}
	}
	_, _ = h.Write(b)
	return hex.EncodeToString(h.Sum(nil))
}

// canvas puts what comes near the tile onto a canvas.
func (t *tile) canvas(l plan.Layout, v View) *canvas {
	c := newCanvas(v)
	c.thick = l.Thick
	if !t.first {
		c.lo = -v.lap()
	}
	if !t.last {
		c.hi = t.y1 - t.y0 + v.lap()
	}
	if t.first {
		c.hardware(l.Hardware)
	}
	if t.last && l.Far.Type != "" {
		c.farHardware(l.Far, l.FarY-t.y0)
	}
	for _, r := range t.runs {
		c.strand(r)
	}
	for _, b := range t.beads {
		c.bead(b)
	}
	for _, b := range t.cores {
		c.core(b)
	}
	for i, t := range c.tubes {
		t.id = i
	}
	if len(c.tubes) > 0 {
		c.index()
		c.spread()
	}
	return c
}

// drawing bounds what is drawn at once, points of curves, so that memory does not
// grow with the processors: a plate of a very wide piece is drawn alone.
var drawing = semaphore.NewWeighted(mostAtOnce)

const mostAtOnce = 60_000

// draw draws the tile's plate.
func (t *tile) draw(l plan.Layout, v View) Plate {
	points := int64(0)
	for _, r := range t.runs {
		points += int64(len(r.points))
	}
	points = min(points, mostAtOnce)
	if err := drawing.Acquire(context.Background(), points); err != nil {
		return Plate{Layers: []Layer{}} // it does not fail without an end to the context
	}
	defer drawing.Release(points)
	c := t.canvas(l, v)
	out := Plate{Layers: []Layer{}}
	if len(c.tubes) == 0 {
		return out
	}
	out.Layers, out.Per = c.layers()
	out.Coarse = c.coarse
	x0, y0, x1, y1 := math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1)
	for _, q := range c.tubes {
		for _, p := range q.samples {
			w := math.Max(p.l, p.r)
			if !c.shown(p.y, w) { // nor any of what is as wide as it is
				continue
			}
			x0, x1 = math.Min(x0, p.x-w), math.Max(x1, p.x+w)
			y0, y1 = math.Min(y0, p.y-w), math.Max(y1, p.y+w)
		}
	}
	if x0 > x1 {
		out.Layers = out.Layers[:0]
		return out
	}
	if !t.first {
		y0 = c.lo
	}
	if !t.last {
		y1 = c.hi
	}
	out.Left, out.Right, out.Top, out.Bottom = hundredths(x0), hundredths(x1), hundredths(y0), hundredths(y1)
	return out
}

// drawnPlates are plates drawn before.
var drawnPlates = memo.Cache[Plate]{Most: 48 << 20}

// Forget drops the plates that are kept, to measure a first drawing.
func Forget() {
	drawnPlates.Forget()
	seenTiles.Forget()
}

// bands finds where each section lies.
func bands(pic *Picture, l plan.Layout, v View) {
	for i, s := range l.Sections {
		b := Band{Section: i, Top: hundredths(s[0]), Bottom: hundredths(s[1])}
		if lo, hi := l.Sides[i][0], l.Sides[i][1]; lo < hi {
			// Turned, it is as wide as the side that is seen; how deep it is the
			// layout does not tell.
			_, cos := v.turned()
			lo, hi = math.Min(cos*lo, cos*hi), math.Max(cos*lo, cos*hi)
			b.Left, b.Right = hundredths(lo), hundredths(hi)
		}
		pic.Bands = append(pic.Bands, b)
	}
}
