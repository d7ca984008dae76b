package knot

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/memo"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// comesTo is how far short of the first crossing of its next move a strand is led, diameters,
// where there is room for it past the last one of its move.
const comesTo = 1.5

// ledTos are those of knots that were held: every frame of a move asks for them.
var ledTos = memo.Cache[[]float64]{Most: 4 << 20}

// ledTo is [ledTo] of a knot in hand, seen as it is shown: loose, or as it lies.
func (w Work) ledTo(shown string, curves func() []curve.Curve, t Tied, d float64) []float64 {
	key := fmt.Sprint(shown, len(t.Moves), w.key()) // as many knots of a round as are tied
	if len(t.Paths) > 0 {
		key += fmt.Sprint(t.Paths[0].Points[0]) // where of a round it is
	}
	out, _ := ledTos.GetIf(key, func() ([]float64, bool, error) {
		return ledTo(curves(), t.Moves, d), t.Rough == nil, nil // of what is rough anew, when its own shape is there
	})
	return out
}

// ledTo tells for each move up to which share of its way its strand is led while it is the one in
// hand: past the last crossing that the move says, up to before the first that the strand's next one
// says; with its last one to its end, or to where it hangs towards the eye of one who looks at it. Nil
// where the crossings of the curves, looked at so, are not those that the moves say.
func ledTo(curves []curve.Curve, moves []move.Move, d float64) []float64 {
	said, ok := saidAt(curves, moves, true)
	if !ok { // moves may leave out what is not worth a word, and name what comes after it
		said, ok = saidAt(curves, moves, false)
	}
	if !ok {
		return nil
	}
	out := make([]float64, len(moves))
	for s, c := range curves {
		var ks []int // the moves that lead it
		for k, m := range moves {
			if m.Strand == s && leads(m) {
				ks = append(ks, k)
			}
		}
		n := float64(len(c.Points) - 1)
		short := comesTo * d / math.Max(1e-9, c.Length()) * n
		from, waiting := 0.0, 0
		for i, k := range ks {
			end := n
			next := slices.IndexFunc(ks[i+1:], func(k int) bool { return said[k].last > 0 })
			switch last := said[k].last; {
			case moves[k].UpTo > 0:
				end = moves[k].UpTo * n
			case i == len(ks)-1:
				if moves[k].End { // what then hangs towards the eye would only take time
					end = math.Min(n, math.Max(last, hangsAt(c.Points, d))+short)
				}
			case last == 0: // it says none: it shares the way to the next that does
				waiting++
				continue
			case next < 0: // those after it say none
				end = last + math.Min(short, (n-last)/2)
			default:
				to := math.Max(last, said[ks[i+1+next]].first)
				end = math.Max((last+to)/2, to-short)
			}
			for w := range waiting + 1 {
				out[ks[i-waiting+w]] = (from + (end-from)*float64(w+1)/float64(waiting+1)) / n
			}
			from, waiting = end, 0
		}
	}
	return out
}

// hangsAt is the node from which on a strand hangs straight down.
func hangsAt(pts []r3.Vec, d float64) float64 {
	const aside = 0.35 // diameters
	end := pts[len(pts)-1]
	i := len(pts) - 1
	for i > 0 && math.Hypot(pts[i-1].X-end.X, pts[i-1].Z-end.Z) < aside*d {
		i--
	}
	return float64(i)
}

// span is from the first to the last crossing that a move says, in nodes of its strand; both 0 for
// one that says none.
type span struct{ first, last float64 }

// saidAt finds the crossings that moves say, each by one move only where once is set; not ok
// where one is not there, or where no move leads a strand.
func saidAt(curves []curve.Curve, moves []move.Move, once bool) (said []span, ok bool) {
	seen := map[bool]*crossings{}
	said = make([]span, len(moves))
	at := make([]float64, len(curves)) // up to where what was said of a strand lies
	any := false
	for k, m := range moves {
		if !leads(m) || m.Strand < 0 {
			continue
		}
		if m.Strand >= len(curves) {
			return nil, false
		}
		any = true
		if len(m.Passes) == 0 {
			continue
		}
		if seen[m.End] == nil {
			c, err := crossingsOf(curves, m.End)
			if err != nil {
				return nil, false
			}
			seen[m.End] = c
		}
		said[k].first = math.Inf(1)
		for _, p := range m.Passes {
			last := at[m.Strand]
			for _, o := range p.Of {
				found, ok := seen[m.End].take(m.Strand, o, bool(p.How), at[m.Strand], once)
				if !ok {
					return nil, false
				}
				said[k].first, last = math.Min(said[k].first, found), math.Max(last, found)
			}
			at[m.Strand] = last
		}
		said[k].last = at[m.Strand]
	}
	return said, any
}

// What is looked at from the working end is looked at so much from the side.
const askewX, askewZ = 0.0007, 0.0013

// crossings are those of curves, and which of them a move has said already.
type crossings struct {
	found []curve.Crossing
	said  []bool
}

// crossingsOf are the crossings of curves from the face or from the working end; an error where
// two meet in a point.
func crossingsOf(curves []curve.Curve, end bool) (*crossings, error) {
	cs := slices.Clone(curves)
	cut := make([]float64, len(cs))
	for i, c := range cs {
		if i > 0 && len(c.Points) > 2 && len(curves[i-1].Points) > 2 && c.Points[0] == curves[i-1].Points[0] {
			cs[i].Points, cut[i] = c.Points[1:], 1 // two legs meet at their fold
		}
		if end { // a little askew: what hangs straight is no point then
			cs[i] = cs[i].Map(func(v r3.Vec) r3.Vec {
				return curve.EndOn(r3.Vec{X: v.X + askewX*v.Y, Y: v.Y, Z: v.Z + askewZ*v.Y})
			})
		}
	}
	found, err := curve.Crossings(cs)
	if err != nil {
		return nil, err
	}
	for i := range found {
		found[i].OverAt += cut[found[i].Over]
		found[i].UnderAt += cut[found[i].Under]
	}
	return &crossings{found, make([]bool, len(found))}, nil
}

// take is the next crossing of a strand with another, over or under it, that lies after a place
// and that no move has said; it is said then, where each is to be said once.
func (c *crossings) take(strand, other int, over bool, after float64, once bool) (at float64, ok bool) {
	best := -1
	for i, x := range c.found {
		s, o, on, by := x.Under, x.Over, x.UnderAt, x.OverAt
		if over {
			s, o, on, by = x.Over, x.Under, x.OverAt, x.UnderAt
		}
		there := s != o || by < on // of its own, only what was led before
		if s == strand && o == other && there && !c.said[i] && on > after && (best < 0 || on < at) {
			best, at = i, on
		}
	}
	if best >= 0 {
		c.said[best] = once
	}
	return at, best >= 0
}
