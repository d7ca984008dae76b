package knot

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Film is how a knot is drawn up: frames from loose to tight, of each its strands' nodes in
// diameters of the thickest, y from where the strands come in. It goes on above and below
// the knot as straight strand.
//
// Laws: (1) all frames have the same nodes; (2) the last is the drawn-up curve; (3) each is
// shorter than the one before; (4) in none do strands come nearer than they are thick, but
// for a few hundredths, nor do they pass through one another on the straight way of the nodes
// from one to the next: where it was grown they keep 0.8 diameters there, else half a diameter;
// (5) all are the same knot.
type Film struct {
	Frames [][][]r3.Vec
	// Across is set where it is loose as one sees it who looks at the working end.
	Across bool
}

// films finds the films of a knot by its name; package loose sets it.
var films = func(string) []Film { return nil }

// FilmsBy sets where films of knots are found.
func FilmsBy(find func(id string) []Film) { films = find }

// FilmOn is the film of a knot on so many strands that was grown and is seen from the face; not
// ok where none was.
func FilmOn(id string, strands int) (Film, bool) {
	all := films(id)
	i := slices.IndexFunc(all, func(f Film) bool { return len(f.Frames[0]) == strands && !f.Across })
	if i < 0 {
		return Film{}, false
	}
	return all[i], true
}

// filmOff is how far, in diameters, a strand may lie from that of a film to be drawn up like
// it.
const filmOff = 0.5

// filmOf is the film of a knot that is tied so: one whose last frame lies where it does, or
// does in a mirror; and its strands as they are now, with the film's nodes, in diameters d.
func filmOf(w Work, t Tied, d float64) (Film, [][]r3.Vec, bool) {
	all := films(w.Section.Do)
	if k, _ := Get(w.Section.Do); k.Film != nil {
		if f, ok := k.Film(w); ok {
			all = []Film{f}
		}
	}
	for _, f := range all {
		last := f.Frames[len(f.Frames)-1]
		if len(last) != len(t.Paths) || len(t.Own) > 0 {
			continue
		}
		for _, mirrored := range []bool{false, true} {
			g := f
			if mirrored {
				g = f.mirrored()
			}
			if now, ok := g.laid(t, d); ok {
				return g, now, true
			}
		}
	}
	return stretched(t, d, 0)
}

// What has no film that was grown is shown stretched about the work's axis, so many times:
// strands are as thick as they were, and nothing comes nearer to anything.
const stretch = 1.6

// Of a strand so much is laid above and below a stretched knot, as a film has that was grown, and
// its nodes so far apart, diameters.
const stretchAbove, stretchBelow, stretchNode = 4.0, 9.0, 0.3

// Below a knot that is closed so much is put in, diameters, over which strands go outwards to
// the stretched one: on all levels of it they lie as where it is put in, only wider.
const stretchClosed = 3.0

// stretched is a film of two frames: the knot stretched from a height on, and as it is. What
// is tied about something else, or takes something in, is not stretched off it.
func stretched(t Tied, d, from float64) (Film, [][]r3.Vec, bool) {
	if len(t.Paths) == 0 || t.OwnFlat != nil || !onlyRings(t.Beads) || t.Core != nil || t.Opening != nil || len(t.Threads) > 0 || t.Ends || t.Eye != 0 || !t.Loose {
		return Film{}, nil, false
	}
	var wide, tight [][]r3.Vec
	var tops []float64
	for _, p := range t.Paths {
		n := len(p.Points)
		if n < 2 {
			return Film{}, nil, false
		}
		first, end := r3.Scale(1/d, p.Points[0]), r3.Scale(1/d, p.Points[n-1])
		pts := []r3.Vec{{X: first.X, Y: first.Y - stretchAbove, Z: first.Z}}
		for _, v := range p.Points {
			pts = append(pts, r3.Scale(1/d, v))
		}
		line := curve.Curve{Points: append(pts, r3.Vec{X: end.X, Y: end.Y + stretchBelow, Z: end.Z})}
		line = line.Resample(max(4, int(line.Length()/stretchNode)))
		tight = append(tight, line.Points)
		tops = append(tops, first.Y)
		top, more := first.Y, 0.0
		if from > 0 {
			top, more = from/d, stretchClosed
		}
		wide = append(wide, line.Map(func(v r3.Vec) r3.Vec {
			switch {
			case v.Y >= top:
				return r3.Add(stretchedFrom(v, top), r3.Vec{Y: more})
			case from > 0:
				return v
			}
			by := 1 + (stretch-1)*curve.Smooth((v.Y-top+stretchAbove)/stretchAbove) // from where it hangs it comes to it
			return r3.Vec{X: by * v.X, Y: v.Y, Z: by * v.Z}
		}).Points)
	}
	for _, p := range t.Own { // a cord of its own has no straight strand
		if len(p.Points) < 4 || from > 0 {
			return Film{}, nil, false
		}
		line := curve.Curve{Points: p.Points}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(1/d, v) })
		tight = append(tight, line.Points)
		wide = append(wide, line.Map(func(v r3.Vec) r3.Vec { return stretchedFrom(v, slices.Min(tops)) }).Points)
	}
	return Film{Frames: [][][]r3.Vec{wide, tight}}, tight, true
}

// stretchedFrom is where a place of a knot that begins at a height lies when it is stretched.
func stretchedFrom(v r3.Vec, top float64) r3.Vec {
	return r3.Vec{X: stretch * v.X, Y: top + stretch*(v.Y-top), Z: stretch * v.Z}
}

// onlyRings tells whether nothing but rings hang in a knot.
func onlyRings(beads []BeadAt) bool {
	return !slices.ContainsFunc(beads, func(b BeadAt) bool { return b.Shape != RingShape })
}

// hung is a ring in a knot that is drawn up so far from being stretched, and hangs lower by so much,
// mm: its upper wire lies where it did in the knot.
func (b BeadAt) hung(top, drawn, lower float64) BeadAt {
	wire := r3.Vec{Y: (b.HoleMM + b.LengthMM) / 4} // from its middle to the middle of its wire
	at := r3.Sub(b.At, wire)
	b.At = r3.Add(curve.Lerp(stretchedFrom(at, top), at, drawn), r3.Add(wire, r3.Vec{Y: lower}))
	return b
}

// Stretched is a film in which a knot that hangs loose is stretched about the work's axis and
// goes back to what it is, in so many even steps; d is its thickest strand, mm. ok is false
// for what is not stretched.
func Stretched(t Tied, d float64, frames int) (f Film, ok bool) {
	two, now, ok := stretched(t, d, 0)
	for k := range frames {
		f.Frames = append(f.Frames, two.at(now, float64(k)/float64(max(1, frames-1))))
	}
	return f, ok
}

// mirrored is the film left for right.
func (f Film) mirrored() Film {
	out := Film{Across: f.Across}
	for _, frame := range f.Frames {
		var now [][]r3.Vec
		for _, pts := range slices.Backward(frame) {
			now = append(now, curve.Curve{Points: pts}.Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: v.Y, Z: v.Z} }).Points)
		}
		out.Frames = append(out.Frames, now)
	}
	return out
}

// laid are the strands of a knot with the nodes of the film's last frame, diameters, and
// whether they lie where those do.
func (f Film) laid(t Tied, d float64) ([][]r3.Vec, bool) {
	last := f.Frames[len(f.Frames)-1]
	out := make([][]r3.Vec, len(t.Paths))
	for i, p := range t.Paths {
		if len(p.Points) < 2 {
			return nil, false
		}
		n := len(p.Points)
		pts := make([]r3.Vec, 0, n+2)
		above, below := last[i][0].Y, last[i][len(last[i])-1].Y
		first, end := r3.Scale(1/d, p.Points[0]), r3.Scale(1/d, p.Points[n-1])
		pts = append(pts, r3.Vec{X: first.X, Y: math.Min(above, first.Y-1), Z: first.Z})
		for _, v := range p.Points {
			pts = append(pts, r3.Scale(1/d, v))
		}
		pts = append(pts, r3.Vec{X: end.X, Y: math.Max(below, end.Y+1), Z: end.Z})
		out[i] = curve.Curve{Points: pts}.Resample(len(last[i])).Points
		for k, v := range out[i] {
			if r3.Norm(r3.Sub(v, last[i][k])) > filmOff {
				return nil, false
			}
		}
	}
	return out, true
}

// at is the knot as it lies at a moment of its film, from 0 (loose) to 1 (drawn up): loose as the
// film has it, below the straight strands that its own come in as, and the more it is drawn up the
// more as its own strands lie. Diameters.
func (f Film) at(now [][]r3.Vec, t float64) [][]r3.Vec {
	t = math.Max(0, math.Min(1, t))
	x := t * float64(len(f.Frames)-1)
	k := min(int(x), len(f.Frames)-2)
	u := x - float64(k)
	last := f.Frames[len(f.Frames)-1]
	out := make([][]r3.Vec, len(now))
	for i := range now {
		out[i] = make([]r3.Vec, len(now[i]))
		for n := range now[i] {
			at := curve.Lerp(f.Frames[k][i][n], f.Frames[k+1][i][n], u)
			below := curve.Smooth((at.Y - last[i][0].Y) / stretchAbove)
			out[i][n] = r3.Add(at, r3.Scale(math.Max(t, 1-below), r3.Sub(now[i][n], last[i][n])))
		}
	}
	return out
}

// holdFilm holds a knot that has a film: its strands are led one after the other in their
// loose places, and with the last of them, or while its slack is worked out, it is drawn up.
func holdFilm(w Work, t Tied, last closedKnots, action int, along float64) (Tied, bool) {
	d := thickest(w)
	if last.moves > 0 {
		if held, ok := holdNext(w, t, last, action, along); ok {
			return held, true
		}
		f, now, ok := stretched(t, d, last.height)
		if !ok {
			return Tied{}, false
		}
		return f.hold(w, t, now, last, action, along)
	}
	f, now, ok := filmOf(w, t, d)
	if !ok {
		return Tied{}, false
	}
	return f.hold(w, t, now, last, action, along)
}

// hold holds a knot whose strands lie so, in the nodes of its film, diameters.
func (f Film) hold(w Work, t Tied, now [][]r3.Vec, last closedKnots, action int, along float64) (Tied, bool) {
	d := thickest(w)
	lastLead := -1
	for k, m := range t.Moves {
		if leads(m) {
			lastLead = k
		}
	}
	if lastLead < 0 {
		return Tied{}, false
	}
	led, drawn := along, drawnUp(t.Moves, action, along)
	if action == lastLead && drawn == 0 && lastLead == len(t.Moves)-1 {
		led, drawn = math.Min(1, along/Led), math.Max(0, (along-Led)/(1-Led))
	}
	places := f.at(now, drawn)
	lower := 0.0
	for i := range t.Paths {
		if last.moves > 0 {
			break // it hangs from the knot before it
		}
		from, out := r3.Scale(1/d, t.Paths[i].Points[0]), 0.0
		if f.Across { // held apart, strands go outwards on their way down to it
			out = math.Hypot(places[i][0].X-from.X, places[i][0].Z-from.Z)
		}
		lower = math.Max(lower, (from.Y-now[i][0].Y)*(1-drawn)+out)
	}
	found, err := curve.Crossings(curvesOf(places))
	if err != nil {
		return Tied{}, false // two meet: it is led along its drawn-up curve
	}
	var upTo []float64
	if last.moves == 0 {
		loose := func() []curve.Curve { return curvesOf(f.at(now, 0)) }
		if upTo = w.ledTo("loose", loose, t, 1); upTo == nil { // its moves say what they pass elsewhere
			upTo = w.ledTo("as it lies", t.looked, t, d)
		}
	}
	out := t
	if w.Slip.Astray && upTo != nil {
		var r run
		if r, out.Slipped = strays(curvesOf(now), t.Moves, upTo, action, 1); out.Slipped > 0 {
			places[r.strand] = astray(places, r, t.Around, 1)
		}
	}
	out.Cells, out.Beads, out.Begun = nil, nil, last.order
	for _, b := range t.Beads {
		if last.moves == 0 && onlyRings(t.Beads) {
			out.Beads = append(out.Beads, b.hung(t.Paths[0].Points[0].Y, drawn, d*lower))
		}
	}
	out.Paths, out.Own = make([]Path, len(t.Paths)), make([]Path, len(t.Own))
	out.Height = 0
	for i := range places {
		if i < len(t.Paths) {
			places[i] = below(places[i], t.Paths[i].Points[0], d, lower)
			continue
		}
		for k, v := range places[i] {
			places[i][k] = r3.Scale(d, r3.Add(v, r3.Vec{Y: lower}))
		}
	}
	k, _ := Get(w.Section.Do)
	bundle := k.Film != nil && t.Moves[action].Strand == move.All
	if bundle {
		places = Tips(places, led, d)
	}
	for i, pts := range places {
		share := last.share(pts, t.Moves, upTo, i, action, led)
		pair, begins := t.leads(i)
		if i >= len(t.Paths) && len(pair) > 0 {
			lead := pair[0]
			all := curve.Curve{Points: places[lead]}.Length() / d
			with := last.share(places[lead], t.Moves, upTo, lead, action, led)
			share = math.Max(math.Min(share, begins), math.Min(1, (with*all-stretchAbove)/(all-stretchAbove-stretchBelow)))
		}
		switch {
		case bundle || share == 1:
		case share == 0 && i >= len(t.Paths):
			continue // it is not there yet
		case i >= len(t.Paths) && len(pair) > 1 && share <= begins: // laid to those beside it, before they are led
			laid := 1.0
			if t.Moves[action].Strand == i {
				laid = led
			}
			pts = groove(out.Paths[pair[0]].Points, out.Paths[pair[1]].Points, w.Own[i-len(t.Paths)].Diameter, d, laid)
		case i >= len(t.Paths): // it ends in the hand
			pts, _ = ledBy(pts, share)
		case share == 0:
			side := waitsBefore(found, i) * waits * d
			if f.Across { // it stands towards the eye, beside what is led
				side = 0
			}
			from, at := pts[0], pts[min(1, len(pts)-1)] // where it comes in, and where it is held
			pts = curve.Curve{Points: []r3.Vec{from, at, {X: at.X, Y: at.Y + 2*d, Z: at.Z + side}, {X: at.X, Y: at.Y + hangs*d, Z: at.Z + side}}}.Resample(3 * hangs).Points
		default:
			pts = Tip(pts, share, d)
		}
		if i < len(t.Paths) {
			out.Paths[i] = Path{Points: pts}
		} else {
			out.Own[i-len(t.Paths)] = Path{Points: pts}
		}
		for _, v := range pts {
			out.Height = math.Max(out.Height, v.Y)
		}
	}
	out.Settle()
	return out, true
}

// drawnUp is how far moves that take up slack have drawn a knot up when one has come along: all of
// them as far as one another.
func drawnUp(moves []move.Move, action int, along float64) float64 {
	done, all := madeOf(moves, action, along, func(m move.Move) bool { return !leads(m) })
	return done / math.Max(1, all)
}

// leads are the strands beside which a cord of a knot's own is led, and the share of its way that it
// is led before; none where it is led by itself.
func (t Tied) leads(own int) (beside []int, begins float64) {
	for _, m := range t.Moves {
		if m.Strand == own {
			begins = m.UpTo
		}
		if slices.Contains(m.With, own) {
			beside = []int{m.Strand}
			for _, s := range m.With {
				if s != own {
					beside = append(beside, s)
				}
			}
		}
	}
	return beside, begins
}

// groove is a thin cord that is laid in the groove between two strands of d that hang side by side, on
// the side away from the work's axis, by a share.
func groove(a, b []r3.Vec, thin, d, share float64) []r3.Vec {
	p, q := a[len(a)-1], b[len(b)-1]
	mid, across := curve.Lerp(p, q, 0.5), r3.Sub(q, p)
	half := r3.Norm(across) / 2
	out := r3.Vec{X: across.Z, Z: -across.X}
	if n := r3.Norm(out); n > 0 {
		out = r3.Scale(1/n, out)
	}
	if r3.Dot(out, mid) < 0 {
		out = r3.Scale(-1, out)
	}
	touches := (d + thin) / 2
	mid = r3.Add(mid, r3.Scale(math.Sqrt(math.Max(0, touches*touches-half*half)), out))
	from, long := mid.Y-hangs/2*d, hangs/2*d*math.Max(0.1, share)
	return curve.Curve{Points: []r3.Vec{{X: mid.X, Y: from, Z: mid.Z}, {X: mid.X, Y: from + long, Z: mid.Z}}}.Resample(hangs).Points
}

func curvesOf(frame [][]r3.Vec) []curve.Curve {
	out := make([]curve.Curve, len(frame))
	for i, pts := range frame {
		out[i] = curve.Curve{Points: pts}
	}
	return out
}

// leads tells whether a move leads strands: one, or all of them together.
func leads(m move.Move) bool { return !m.Slack && !m.Core && !m.Folded }

// Shown tells whether a move of a knot can be shown on its way: one strand is led, or all
// of them together where the knot has a film.
func Shown(w Work, m move.Move) bool {
	if CanLead(m) || m.Strand != move.All || !leads(m) {
		return CanLead(m)
	}
	w.Section.Count = min(looseFrom(w.Section.Do), w.Section.Count)
	t, err := Tie(w)
	if err != nil {
		return false
	}
	_, _, ok := filmOf(w, t, thickest(w))
	return ok
}

func thickest(w Work) float64 {
	d := 0.0
	for _, s := range slices.Concat(w.Strands, w.Own) {
		d = math.Max(d, s.Diameter)
	}
	return d
}

// A strand that is not led yet hangs so far before or behind those that are, and so far
// down, diameters.
const waits, hangs = 1.3, 12.0

// waitsBefore tells whether a strand hangs before those that are led, 1, or behind them, -1:
// as it passes the first that it meets.
func waitsBefore(found []curve.Crossing, strand int) float64 {
	first, side := math.Inf(1), 1.0
	for _, c := range found {
		if c.Over == strand && c.Under != strand && c.OverAt < first {
			first, side = c.OverAt, 1
		}
		if c.Under == strand && c.Over != strand && c.UnderAt < first {
			first, side = c.UnderAt, -1
		}
	}
	return side
}

// below is what of a strand lies below where it comes in, mm: the straight strand above the
// knot begins where it hangs, so the knot lies lower by so much of it as is shown.
func below(pts []r3.Vec, from r3.Vec, d, lower float64) []r3.Vec {
	out := []r3.Vec{from}
	for _, v := range pts {
		v = r3.Scale(d, r3.Add(v, r3.Vec{Y: lower}))
		if v.Y < from.Y && len(out) == 1 { // straight strand above
			continue
		}
		out = append(out, v)
	}
	return out
}
