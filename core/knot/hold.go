package knot

import (
	"math"
	"reflect"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Hold is the part of a knot in hand. Action counts from 0 in the knot's round
// of actions; along, from 0 to 1, is how far it has come: the strand is led
// along its path, and with the last strand of a part the part is then drawn up.
// Closed half knots are told by w.HalfKnots, which may be zero. The second
// value is false for a knot whose key frames are not there.
func Hold(w Work, action int, along float64) (Tied, bool, error) {
	k, ok := Get(w.Section.Do)
	if !ok {
		return Tied{}, false, Unknown(w.Section.Do)
	}
	if k.Hold == nil {
		return HoldLed(w, action, along)
	}
	hold := func(w Work) (Tied, error) { return k.Hold(w, action, along) }
	if w.LeftHanded && !k.sided() {
		right := func(w Work) (Tied, error) {
			t, err := k.Hold(w, action, along)
			return t.Copy(), err
		}
		hold = func(w Work) (Tied, error) { return mirrored(w, k, right) }
	}
	t, err := hold(w)
	t.Settle()
	return t, err == nil, err
}

// HoldLed holds a knot by its film, or with its strands led along the drawn-up curve, each as
// its turn comes. The second value is false where nothing of it can be shown on its way.
func HoldLed(w Work, action int, along float64) (Tied, bool, error) {
	t, last, err := upTo(w, action)
	// Of a cord of its own nothing lies there before it is led.
	if err != nil || action >= len(t.Moves) {
		return Tied{}, false, err
	}
	if t.Hanging != nil && action >= t.HangsTill {
		return t.ledInside(w, action, along), true, nil
	}
	t = t.Hung()
	if held, ok := holdFilm(w, t, last, action, along); ok {
		return held, true, nil
	}
	if !CanLead(t.Moves[action]) && t.OwnFlat == nil {
		return Tied{}, false, nil
	}
	out := t
	out.Cells, out.Beads = nil, nil
	var upTo []float64
	if last.moves == 0 {
		upTo = w.ledTo("as it lies", t.looked, t, thickest(w))
	}
	out.HandMM = last.handAt(t, upTo, func(i int) []r3.Vec { return t.Paths[i].Points })
	led := func(p Path, lead1 int, d float64) Path {
		switch share := last.share(p.Points, t.Moves, upTo, lead1, action, along); share {
		case 1:
			return Path{Points: p.Points}
		case 0:
			at := p.Points[0]
			return Path{Points: []r3.Vec{at, {X: at.X, Y: at.Y + 2*d, Z: at.Z}, {X: at.X, Y: at.Y + 5*d, Z: at.Z}}}
		default:
			return Path{Points: Tip(p.Points, share, d)}
		}
	}
	paths, own := t.Paths, t.Own
	if w.Slip.Astray && upTo != nil {
		paths, own, out.Slipped = t.goneAstray(upTo, action, thickest(w))
	}
	out.Paths, out.Own = make([]Path, len(t.Paths)), make([]Path, len(t.Own))
	for i, p := range paths {
		out.Paths[i] = led(p, i, w.Strands[i].Diameter)
	}
	wide := 1.0
	if t.OwnFlat != nil { // it is led round what it lies on, open, till its slack is worked out
		wide += (coverOpen - 1) * (1 - drawnUp(t.Moves, action, along))
	}
	for i, p := range own {
		if last.share(p.Points, t.Moves, upTo, len(t.Paths)+i, action, along) == 0 {
			continue // it is not there yet
		}
		out.Own[i] = led(Path{Points: opened(p.Points, wide)}, len(t.Paths)+i, w.Own[i].Diameter)
	}
	out.Settle()
	return out, true, nil
}

// A cover stands so many times as wide and as long while it is led.
const coverOpen = 1.6

// opened are points so many times as far from the work's axis and from the knot's top: strands
// are as thick as they were, and nothing comes nearer to anything.
func opened(pts []r3.Vec, wide float64) []r3.Vec {
	out := make([]r3.Vec, len(pts))
	for i, v := range pts {
		out[i] = r3.Scale(wide, v)
	}
	return out
}

// looseFrom is how many of a row are loose together: those that it takes to hold one another.
func looseFrom(id string) int {
	k, _ := Get(id)
	return max(1, k.LooseFrom)
}

// closedKnots are those of a round that are tied before the one in hand: how many moves they
// took, how tall they are and how their strands run. The zero value is none; where they cannot
// be told from the one in hand, with which move that one begins is known alone.
type closedKnots struct {
	moves  int
	height float64
	paths  []Path
	begins int
}

// upTo ties as many knots of a round as there are with the one in hand, and tells those that
// are closed before it. All but the first of a round take as many moves. Where the last of a
// round is finished in a way of its own, so is every smaller round: its knots are not those of
// the whole one, and none of them is told to be closed.
func upTo(w Work, action int) (t Tied, last closedKnots, err error) {
	all := w.Section.Count
	knots := func(n int) (Tied, error) {
		w.Section.Count = n
		return Tie(w)
	}
	first := min(looseFrom(w.Section.Do), all)
	if t, err = knots(first); err != nil || all <= first {
		return t, last, err
	}
	more, err := knots(first + 1)
	if err != nil {
		return t, last, err
	}
	ends := movesAlike(t.Moves, more.Moves)
	each := len(more.Moves) - len(t.Moves)
	if action < ends || each <= 0 {
		return t, last, nil
	}
	n := first + 1 + (action-ends)/each
	finished := ends < len(t.Moves)
	if n > all && !finished {
		return t, last, nil
	}
	n = min(n, all)
	now, err := knots(n)
	if err != nil {
		return t, last, err
	}
	if finished {
		if begins := ends + (n-first-1)*each; begins < len(now.Moves) {
			last.begins = begins
		}
		return now, last, nil
	}
	before, err := knots(n - 1)
	if err != nil || len(now.Paths) != len(before.Paths) || len(before.Moves) > action || action >= len(now.Moves) {
		return t, last, err
	}
	return now, closedKnots{moves: len(before.Moves), height: before.Height, paths: before.Paths}, nil
}

// handAt is the y at which the knot in hand begins, where it is told by its first move: there the
// strand that this leads is then.
func (c closedKnots) handAt(t Tied, upTo []float64, way func(strand int) []r3.Vec) float64 {
	if c.begins == 0 {
		return t.HandMM
	}
	m := t.Moves[c.begins]
	if m.Strand < 0 || m.Strand >= len(t.Paths) {
		return t.HandMM
	}
	pts := way(m.Strand)
	led, _ := ledBy(pts, c.share(pts, t.Moves, upTo, m.Strand, c.begins, 0))
	return led[len(led)-1].Y
}

// movesAlike is how many moves of one knot are made in another too, from the first on.
func movesAlike(a, b []move.Move) int {
	for i := range a {
		if i >= len(b) || a[i].Strand != b[i].Strand || a[i].Slack != b[i].Slack || !slices.Equal(a[i].With, b[i].With) || !reflect.DeepEqual(a[i].Passes, b[i].Passes) {
			return i
		}
	}
	return len(a)
}

// share is the share of its way that a strand is led: all of what is closed, and of the rest as
// its moves say.
func (c closedKnots) share(pts []r3.Vec, moves []move.Move, upTo []float64, strand, action int, along float64) float64 {
	if upTo != nil {
		return ledUpTo(moves, upTo, strand, action, along)
	}
	share := ledShare(moves[c.moves:], strand, action-c.moves, along)
	if c.moves == 0 || strand >= len(c.paths) {
		return share
	}
	all := curve.Curve{Points: pts}.Length()
	done := math.Min(all, curve.Curve{Points: c.paths[strand].Points}.Length())
	if done += (all - done) * share; done > 0.999*all {
		return 1
	}
	return done / all
}

// looked are the curves on which moves say what they pass.
func (t Tied) looked() []curve.Curve {
	paths, own := t.Paths, t.Own
	if t.Flat != nil {
		paths = t.Flat
	}
	if t.OwnFlat != nil {
		own = t.OwnFlat
	}
	var out []curve.Curve
	for _, p := range slices.Concat(paths, own) {
		out = append(out, curve.Curve{Points: p.Points})
	}
	return out
}

// ledUpTo is the share of its way that a strand is led when a move has come along, of moves that
// end at these shares: 1 for one that no move leads.
func ledUpTo(moves []move.Move, upTo []float64, strand, action int, along float64) float64 {
	share, led, whole := 1.0, false, true
	for k, m := range moves {
		if m.Strand != strand && !slices.Contains(m.With, strand) || !leads(m) {
			continue
		}
		if !led {
			share, led = 0, true
		}
		switch {
		case k < action:
			share = upTo[k]
		case k == action:
			share += (upTo[k] - share) * along
		}
		whole = k < action || k == action && along >= 1 // with its last move it is led
	}
	if whole {
		return 1
	}
	return share
}

// ledShare is the share of its way that a strand is led when a move has come along: 1 for one
// that no move leads. What takes up slack leads no strand; all of them may be led together.
func ledShare(moves []move.Move, strand, action int, along float64) float64 {
	done, all := madeOf(moves, action, along, func(m move.Move) bool {
		return !m.Slack && (m.Strand == strand || slices.Contains(m.With, strand) || m.Strand == move.All && leads(m))
	})
	if all == 0 {
		return 1
	}
	return done / all
}

// madeOf is how many of the moves that count are made when one has come along, and how many there are.
func madeOf(moves []move.Move, action int, along float64, counts func(m move.Move) bool) (done, all float64) {
	for k, m := range moves {
		if !counts(m) {
			continue
		}
		all++
		switch {
		case k < action:
			done++
		case k == action:
			done += along
		}
	}
	return done, all
}

// CanLead tells whether the strand of a move can be shown on its way.
// A cord that is put on by its fold has no end that is led.
func CanLead(a move.Move) bool { return a.Strand >= 0 && !a.Folded }

// Led is the share of an action in which its strand is led, where the part is
// drawn up at the end of it.
const Led = 0.6

// Shares tells how far the strands of a part of n actions are led, and how far
// it is drawn up, when action k of it has come along.
func Shares(n, k int, along float64) (led []float64, drawn float64) {
	led = make([]float64, n)
	for i := range k {
		led[i] = 1
	}
	led[k] = along
	if k == n-1 {
		led[k] = math.Min(1, along/Led)
		drawn = math.Max(0, (along-Led)/(1-Led))
	}
	return led, drawn
}
