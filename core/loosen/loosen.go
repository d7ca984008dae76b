// Package loosen grows the loose form of a knot from its drawn-up curve, and the film of
// its drawing up.
//
// A tight knot is the shortest cord that keeps one diameter from itself. A loose knot that
// can be read is the shortest cord that keeps larger distances, most of them measured in
// the picture. One number, the looseness, scales those distances: it goes from 0 to 1 from
// the tight curve on, and the film, turned round, is the drawing up. No route and no
// diagram is needed, and the film ends in the drawn-up curve itself.
//
// Lengths are diameters of the thickest strand.
package loosen

import (
	"context"
	"errors"
	"fmt"
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Version is that of what grows films: raise it when a film would come out otherwise.
const Version = 3

// Problem is a tight knot as it is laid, and how it is looked at.
type Problem struct {
	Strands []Strand
	// Across is set for a knot that is looked at from its working end: the picture lies across
	// the work then, and the ends that hang may move in it. If not it is seen from the face.
	Across bool
	// Route is the way of each strand as hands lay it, in the place of the tight knot; nil where
	// the loose knot is grown from the tight one. With it the knot is drawn up from there, and a
	// crossing that only the tight knot has is not in the loose one.
	Route [][]r3.Vec
	// Bands are set where its strands are laid in bands, in the way of another knot; they are drawn
	// up from there.
	Bands *Bands
	// Growth is how much cord the loose knot should have, in times the tight one's, at most where
	// it has a route; 0 for [UsualGrowth].
	Growth float64
	// Spread is how far apart hands hold strands that are seen from the working end: loose, they come
	// in and hang so much farther out from the knot's axis, diameters. Where it is 0 they come in where
	// they do, and hang as they will.
	Spread float64
}

// Strand is one of its strands, from above.
//
// Invariant: it comes in and leaves along +y, which is down.
type Strand struct {
	Points   []r3.Vec
	Diameter float64
	Fixed    bool // it stays as it is: a filler, a wire
}

// Film are the knot's frames, the loosest first; the last is the tight curve with its
// straight tails. All have the same nodes.
type Film struct {
	Frames [][][]r3.Vec
	Across bool // as its problem is: it is loose as one sees it who looks at the working end
}

// UsualGrowth is how much cord a loose knot should have, in times the tight one's: enough to
// see through, little enough to stay near what it will be.
const UsualGrowth = 1.9

// Wants of a loose knot, diameters, and how hard they are held.
const (
	planarFar   = 2.4  // between strands in the picture
	planarHard  = 0.6  // a pair of nodes planarNode apart
	planarNode  = 0.42 //
	crossFar    = 3.1  // between crossings
	crossHard   = 3.0
	bendTight   = 0.5 // radius
	bendLoose   = 1.6
	bendHard    = 6.0
	bendArc     = 2.0 // of the arcs whose chords are bounded
	flatHard    = 0.4
	flatMost    = 1.5 // depth up to which it grows
	touchHard   = 40.0
	touchTight  = 1.02
	touchLoose  = 1.07
	tailAbove   = 4.0
	tailBelow   = 9.0
	nodeEvery   = 0.25
	holdHard    = 2.0   // to tight places, at no looseness
	steadier    = 3.0   // and so many times harder where it is grown steadily
	shrinkHard  = 100.0 // pull the other way, for the share by which a grown knot has less cord than it had
	pullFrom    = 0.05  // share of more cord than the tight knot has by which a grown one is pulled whole
	lawFrom     = 2.0   // beyond the last crossing the laws of the picture fade
	lawTo       = 4.0
	lawDeep     = 0.7 // seen from the end, they fade so far above and below the knot
	lawFades    = 1.0
	lawAside    = 0.5  // from where it comes in and hangs: there a strand is in the knot
	heldUnder   = 0.35 // looseness under which nodes are held to their tight places
	steps       = 24
	leastSteps  = 100
	mostSteps   = 500
	lastSteps   = 2500
	stillsEvery = 10
	looksEvery  = 50
	mostMove    = 0.06
	mostStep    = 0.08
	frames      = 21
	mostFrames  = 80   // where strands go far between some of them, or near to one another
	grownOver   = 1.08 // times the growth that is wanted, and no more
	grownMost   = 1.25
	topHard     = 4.0 // nothing rises above where strands come in
	tailHard    = 3.0 // ends stay straight
	endsOut     = 1.5 // farther than they come in hang strands that are held apart
	spreadAt    = 0.4 // looseness at which they are as far apart as hands hold them
)

// Grow grows the film of a problem.
func Grow(ctx context.Context, p Problem) (Film, error) {
	if len(p.Strands) == 0 {
		return Film{}, errors.New("loosen: there are no strands")
	}
	if p.Growth == 0 {
		p.Growth = UsualGrowth
	}
	if p.Bands != nil {
		return fromBands(ctx, p)
	}
	if p.Route != nil {
		s, err := newMoving(p)
		if err != nil {
			return Film{}, err
		}
		return fromRoute(ctx, s, p.Growth)
	}
	var f Film
	for _, hold := range []float64{0, steadier, 1} {
		var err error
		if f, err = grow(ctx, p, hold); err != nil || f.smooth() {
			return f, err
		}
	}
	return f, nil
}

// newMoving is a state of which something moves.
func newMoving(p Problem) (*state, error) {
	s := newState(p)
	if s.moving() == 0 {
		return nil, errors.New("loosen: no strand moves")
	}
	return s, nil
}

// grow grows a film from the tight knot. A steady one never has less cord than it had, and is held so
// many times as hard to its tight places at first: where the knot would shrink then, or change its
// shape while it does, all of that can be shown. It is not steady where steady is 0.
func grow(ctx context.Context, p Problem, steady float64) (Film, error) {
	s, err := newMoving(p)
	if err != nil {
		return Film{}, err
	}
	stills := []still{s.still()}
	tight := stills[0].length
	if steady > 0 {
		s.grows, s.steady = tight, steady
	}
	// relax steps so many times, and looks every now and then whether it is enough.
	relax := func(times int, enough func(n int) bool) error {
		for n := 1; n <= times; n++ {
			s.step()
			if n%stillsEvery == 0 {
				stills = append(stills, s.still())
			}
			if n%looksEvery != 0 {
				continue
			}
			if err := ctx.Err(); err != nil {
				return fmt.Errorf("loosen: growing the knot: %w", err)
			}
			if enough(n) {
				break
			}
		}
		return nil
	}
	for k := 1; k <= steps && s.inKnot() <= p.Growth*tight; k++ {
		s.q = float64(k) / steps
		before := s.length()
		if err := relax(mostSteps, func(n int) bool {
			now := s.length()
			rests := n >= leastSteps && math.Abs(now-before) < 1e-4*before
			before = now
			return rests
		}); err != nil {
			return Film{}, err
		}
	}
	if err := relax(lastSteps, func(int) bool {
		if s.inKnot() < p.Growth*tight {
			s.grown = math.Min(grownMost, s.grown*1.01)
		}
		return s.inKnot() >= grownOver*p.Growth*tight
	}); err != nil {
		return Film{}, err
	}
	return s.film(stills), nil
}

// still is how the knot looked at a moment.
type still struct {
	at     [][]r3.Vec
	length float64 // of cord in the knot
}

func (s *state) still() still { return s.stillOf(s.shape()) }

// stillOf is a moment in which its strands lie so, as they hang. Nodes stand evenly in every one,
// so that from one to the next none slides far along its strand.
func (s *state) stillOf(at [][]r3.Vec) still {
	t := still{at: at}
	for k, pts := range at {
		if !s.fixed[k] {
			pts = even(pts, len(pts))
			at[k] = pts
			t.length += curve.Curve{Points: pts}.Length() - tailAbove - tailBelow
		}
	}
	return t
}

// film chooses the stills, even in length and each shorter than the one before.
func (s *state) film(stills []still) Film {
	most := 0
	for i, t := range stills {
		if t.length > stills[most].length {
			most = i
		}
	}
	// From the tight one on, only those that are longer than all before.
	var rising []still
	for _, t := range stills[:most+1] {
		if len(rising) == 0 || t.length > rising[len(rising)-1].length+1e-9 {
			rising = append(rising, t)
		}
	}
	first, last := rising[0].length, rising[len(rising)-1].length
	at := len(rising) - 1
	chosen := make([]int, 0, frames)
	for k := range frames {
		want := last + (first-last)*float64(k)/(frames-1)
		for at > 0 && math.Abs(rising[at-1].length-want) <= math.Abs(rising[at].length-want) {
			at--
		}
		if k == frames-1 {
			at = 0
		}
		chosen = append(chosen, at)
	}
	// Where a strand goes far from one to the next, or near to another one, those between are shown too.
	out := Film{Frames: [][][]r3.Vec{rising[chosen[0]].at}, Across: s.across}
	at = chosen[0]
	for _, next := range chosen[1:] {
		for at > next {
			to := next
			for to < at-1 && len(out.Frames) < mostFrames && (far(rising[to].at, rising[at].at) > mostJump || s.passing(rising[at].at, rising[to].at) < leastWay) {
				to += max(1, (at-to)/2)
			}
			at = to
			out.Frames = append(out.Frames, rising[at].at)
		}
	}
	return out
}

// passing is how near strands come to one another on the way from one frame to another.
func (s *state) passing(from, to [][]r3.Vec) float64 {
	return Film{Frames: [][][]r3.Vec{from, to}, Across: s.across}.Passing(0)
}

// even puts nodes evenly along points, n of them.
func even(points []r3.Vec, n int) []r3.Vec { return curve.Curve{Points: points}.Resample(n).Points }
