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
		if len(last) != len(t.Paths) || len(t.Own) > 0 || len(t.Beads) > 0 {
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
			upTo = t.filmed(w.ledTo("as it lies", t.looked, t, d), now, d)
		}
	}
	out := t
	if w.Slip.Astray && upTo != nil {
		var r run
		if r, out.Slipped = strays(curvesOf(now), t.Moves, upTo, action, 1); out.Slipped > 0 {
			places[r.strand] = astray(places, r, t.Around, 1)
		}
	}
	out.Cells, out.Beads = nil, nil
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
	out.HandMM = last.handAt(t, upTo, func(i int) []r3.Vec { return places[i] })
	k, _ := Get(w.Section.Do)
	bundle := k.Film != nil && t.Moves[action].Strand == move.All
	if bundle {
		places = Tips(places, led, d)
	}
	for i, pts := range places {
		if own := i - len(t.Paths); own >= 0 {
			laid := 1.0
			if t.Moves[action].Strand == i {
				laid = led
			}
			out.Own[own].Points = t.ownLed(out.Paths, places, i, w.Own[own].Diameter, d, laid, func(strand int) float64 {
				return last.share(places[strand], t.Moves, upTo, strand, action, led)
			})
			continue
		}
		switch share := last.share(pts, t.Moves, upTo, i, action, led); {
		case bundle || share == 1:
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
		out.Paths[i] = Path{Points: pts}
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

// filmed are shares of the strands' drawn-up ways, of each move, as shares of their lines in a
// film, diameters: those begin above the knot and end below it.
func (t Tied) filmed(upTo []float64, now [][]r3.Vec, d float64) []float64 {
	out := slices.Clone(upTo)
	for k, share := range upTo {
		s := t.Moves[k].Strand
		if share >= 1 || s < 0 || s >= len(t.Paths) || s >= len(now) {
			continue
		}
		way := t.Paths[s].Points
		above := r3.Norm(r3.Sub(r3.Scale(1/d, way[0]), now[s][0]))
		out[k] = (above + share*curve.Curve{Points: way}.Length()/d) / curve.Curve{Points: now[s]}.Length()
	}
	return out
}
