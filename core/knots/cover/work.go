package cover

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Laid is a cover laid into the work: the ways of its strands, mm, the first edge of the
// room that it is given at y 0.
type Laid struct {
	Cover
	D      float64 // of its cord, mm
	Lines  [][]r3.Vec
	TuckMM float64 // of an end that is tucked
	HighMM float64
	GapMM  float64 // that it stands off what it covers
	RoomMM float64 // that it is given along the work
	Web    Web
}

// Lay lays the ways of the strands of a cover, of cords of diameter d, on what is so
// thick, in the middle of so much room; where it needs more it takes it. tuck is how much
// of an end is tucked, diameters.
func Lay(c Cover, lines [][]r3.Vec, tuck, d, thick, room float64) Laid {
	l := Laid{Cover: c, D: d, TuckMM: d * tuck, HighMM: d * c.High, GapMM: math.Max(0, (d*c.Inside-thick)/2)}
	for _, line := range lines { // where rounds are changed they may lie farther out
		for _, v := range line {
			l.HighMM = math.Max(l.HighMM, d*(2*math.Abs(v.Y)+1))
		}
	}
	l.RoomMM = math.Max(room, l.HighMM)
	l.Web = Web{Middle: c.High/2 + 2, Edge: (c.High - 1) / 4}
	for _, line := range lines {
		out := make([]r3.Vec, len(line))
		for k, v := range line {
			out[k] = r3.Vec{X: d * v.X, Y: d*v.Y + l.RoomMM/2, Z: d * v.Z}
		}
		l.Lines = append(l.Lines, out)
		l.Web.Lines = append(l.Web.Lines, c.Spread(curve.Curve{Points: line}))
	}
	return l
}

// Paths are the ways of the strands, with what is tucked, and as they are led, spread
// out.
func (l Laid) Paths() (paths, flat []knot.Path) {
	for i, line := range l.Lines {
		p := knot.Path{Points: line}
		// Tucked ends run beside their own way; both are measured along its start.
		for _, v := range line[1:] {
			p.Inside = append([]r3.Vec{v}, p.Inside...)
			if (curve.Curve{Points: p.Inside}).Length() >= 2*l.TuckMM {
				break
			}
		}
		paths = append(paths, p)
		flat = append(flat, knot.Path{Points: l.Web.Lines[i].Points})
	}
	return paths, flat
}

// Web is a cover or a mat spread out: its edges are two circles, the farther one Middle
// plus half its height from the axis, and what is more than Edge from the middle is near
// one.
type Web struct {
	Lines        []curve.Curve
	Middle, Edge float64
}

// Trip is a strand's way from an edge to the other: what it meets of what was laid
// before it, in order.
type Trip struct {
	Strand, N int // which of its trips, from 0
	Out       bool
	Meets     []Meet

	at, to float64 // where on its line it begins and ends
}

// Meet is what a trip meets: a strand, over or under it.
type Meet struct {
	Strand int
	Over   bool
}

// Trips are the ways of all strands from edge to edge, in the order in which they are
// laid: before tells which of two comes first, where they are not of one strand.
func (w Web) Trips(before func(a, b Trip) int) ([]Trip, error) {
	found, err := curve.Crossings(w.Lines)
	if err != nil {
		return nil, err
	}
	var out []Trip
	for s, line := range w.Lines {
		// Where it turns back: farthest out, or in, near an edge.
		var turns []int
		from, side := 0, 0
		for k, v := range line.Points {
			y := math.Hypot(v.X, v.Y) - w.Middle
			now := side
			switch {
			case y > w.Edge:
				now = 1
			case y < -w.Edge:
				now = -1
			}
			if now != side {
				if side != 0 {
					turns = append(turns, farthest(line.Points[from:k], side)+from)
				}
				from, side = k, now
			}
		}
		last := 0
		end := len(line.Points) - 1
		if near := farthest(line.Points[from:], side) + from; near < end-len(line.Points)/100 {
			turns = append(turns, near) // it ends a little after an edge
		}
		for _, k := range append(turns, end) {
			if k-last < len(line.Points)/100 && last > 0 {
				break
			}
			axial := func(k int) float64 { return math.Hypot(line.Points[k].X, line.Points[k].Y) }
			if last == 0 && k < len(line.Points)/100 {
				continue // it begins at an edge
			}
			n := 0
			for _, t := range out {
				if t.Strand == s {
					n++
				}
			}
			out = append(out, Trip{Strand: s, N: n, Out: axial(k) > axial(last), at: float64(last), to: float64(k)})
			last = k
		}
	}
	slices.SortFunc(out, func(a, b Trip) int {
		if a.Strand == b.Strand {
			return cmp.Compare(a.N, b.N)
		}
		return before(a, b)
	})
	of := func(strand int, at float64) int { // the trip that holds a place
		best := -1
		for i, t := range out {
			if t.Strand == strand && (t.at <= at || t.N == 0) && (best < 0 || t.at > out[best].at) {
				best = i
			}
		}
		return best
	}
	type passed struct {
		Meet
		at float64
	}
	met := make([][]passed, len(out))
	for _, x := range found {
		a, b := of(x.Over, x.OverAt), of(x.Under, x.UnderAt)
		if a > b || (a == b && x.OverAt > x.UnderAt) {
			met[a] = append(met[a], passed{Meet{x.Under, true}, x.OverAt})
		} else {
			met[b] = append(met[b], passed{Meet{x.Over, false}, x.UnderAt})
		}
	}
	for i, ms := range met {
		slices.SortFunc(ms, func(a, b passed) int { return cmp.Compare(a.at, b.at) })
		for _, m := range ms {
			out[i].Meets = append(out[i].Meets, m.Meet)
		}
	}
	// What a strand still goes after its last edge is no trip where it crosses nothing.
	return slices.DeleteFunc(out, func(t Trip) bool {
		const short = 0.25 // of the trips before it
		all := float64(len(w.Lines[t.Strand].Points))
		return t.N > 0 && t.to == all-1 && len(t.Meets) == 0 && t.to-t.at < short*all/float64(t.N+1)
	}), nil
}

// Says are the passings of a trip, as names its strands, and their words.
func (t Trip) Says(as []int) (passes []move.Pass, words string) {
	var says []string
	for k := 0; k < len(t.Meets); {
		e := k
		for e < len(t.Meets) && t.Meets[e].Over == t.Meets[k].Over {
			passes = append(passes, move.Pass{How: move.How(t.Meets[e].Over), Of: []int{as[t.Meets[e].Strand]}})
			e++
		}
		says = append(says, fmt.Sprintf("{above %d} %s", k, number(e-k)))
		k = e
	}
	if len(says) == 0 {
		return nil, "crossing nothing yet"
	}
	return passes, strings.Join(says, ", ")
}

// farthest is the point farthest to a side of a run of a line that is spread out.
func farthest(pts []r3.Vec, side int) int {
	best := 0
	for k, v := range pts {
		if float64(side)*math.Hypot(v.X, v.Y) > float64(side)*math.Hypot(pts[best].X, pts[best].Y) {
			best = k
		}
	}
	return best
}

// Moves are those of a cover whose strands go round one after the other, each followed
// round beside itself; as names its strands.
func (l Laid) Moves(as []int) ([]move.Move, error) {
	each := 2 * l.Bights / l.Bands()
	round := func(t Trip) int { return min(t.N/each, l.Passes-1) }
	trips, err := l.Web.Trips(func(a, b Trip) int { return cmp.Or(cmp.Compare(round(a), round(b)), cmp.Compare(a.Strand, b.Strand)) })
	if err != nil {
		return nil, err
	}
	share := Turns(l.Weave)
	beside := l.side()
	var out []move.Move
	for i, t := range trips {
		m := move.Move{Strand: as[t.Strand], Turn: string(knot.Clockwise), To: beside}
		passes, words := t.Says(as)
		m.Passes = passes
		edge := "upper"
		if t.Out {
			edge = "lower"
		}
		trip := min(t.N-round(t)*each+1, each)
		last := i == len(trips)-1 || round(trips[i+1]) != round(t) || trips[i+1].Strand != t.Strand
		if round(t) == 0 {
			m.Text = fmt.Sprintf("Lead {cord} {turn} to the %s edge, %s: %s.", edge, share, words)
			m.Detail = fmt.Sprintf("Trip %d of %d of the first round.", trip, each)
			if last {
				m.Gate = fmt.Sprintf("%d bights stand along each edge; from edge to edge every part goes %s.", l.Bights, l.letters())
			}
		} else {
			m.Follows = true
			m.Text = fmt.Sprintf("With a needle, follow {cord} beside its last round, on the {to} of it, to the %s edge: %s.", edge, words)
			m.Detail = fmt.Sprintf("Trip %d of %d of round %d.", trip, each, round(t)+1)
			if t.N == each*l.Passes {
				m.Text, m.Detail = fmt.Sprintf("Lead {cord} on beside its last round to where it began: %s.", words), "Its end goes over the place where the rounds were changed, and in under the next band."
			}
			if trip == 1 {
				m.Detail += fmt.Sprintf(" It goes under and over as the round beside it does; it runs outside that at one edge and inside at the other. It takes {%.0fmm}, the first round {%.0fmm}.", l.round(t.Strand, round(t)), l.round(t.Strand, 0))
			}
			if last {
				m.Gate = "The rounds lie side by side everywhere; none crosses the one that it follows."
			}
		}
		out = append(out, m)
	}
	return append(out, Drawing(as)...), nil
}

// round is how long a round of a strand is, mm.
func (l Laid) round(strand, n int) float64 {
	return l.D * curve.Curve{Points: l.Tracks[strand*l.Passes+n], Closed: true}.Length()
}

// Drawing are the moves in which the slack is worked out of strands, one after the other.
func Drawing(as []int) []move.Move {
	var out []move.Move
	const rounds = 2
	for r := range rounds {
		for _, me := range as {
			out = append(out, move.Move{Strand: me, Slack: true, Text: fmt.Sprintf("Round %d of drawing up: work the slack of {cord} from its beginning to its end, bight by bight.", r+1),
				Detail: "Never all of it hard at once.", Gate: "The parts lie flat and the bights stand even."})
		}
	}
	return out
}

// letters are what one meets from edge to edge, in words.
func (l Laid) letters() string {
	byTurns := true
	for row := 2; row < l.Leads; row++ {
		byTurns = byTurns && l.over(row) != l.over(row-1)
	}
	if byTurns {
		return "over one and under the next"
	}
	var out []string
	for row := 1; row < l.Leads; {
		e := row
		for e < l.Leads && l.over(e) == l.over(row) {
			e++
		}
		says := "under "
		if l.over(row) {
			says = "over "
		}
		out = append(out, says+number(e-row))
		row = e
	}
	return strings.Join(out, ", ")
}

// side is the side on which a round lies of the one before it, looking along its way from
// outside.
func (l Laid) side() move.Side {
	if l.Passes < 2 {
		return move.None
	}
	a, b := l.Tracks[0], l.Tracks[1]
	sum := 0.0
	for k, v := range a {
		way := r3.Sub(a[(k+1)%len(a)], v)
		near := b[0]
		for _, u := range b {
			if r3.Norm2(r3.Sub(u, v)) < r3.Norm2(r3.Sub(near, v)) {
				near = u
			}
		}
		out := r3.Vec{X: v.X, Z: v.Z}
		sum += r3.Dot(r3.Sub(near, v), r3.Cross(out, way)) // y runs down: this is the right
	}
	if sum > 0 {
		return move.Right
	}
	return move.Left
}

// Turns says how far round a trip goes.
func Turns(w Weave) string {
	a, b := w.Leads, 2*w.Bights
	whole := a / b
	a %= b
	for d := a; d > 1; d-- {
		if a%d == 0 && b%d == 0 {
			a, b = a/d, b/d
			break
		}
	}
	switch {
	case a == 0 && whole == 1:
		return "once round"
	case a == 0:
		return fmt.Sprintf("%d turns on", whole)
	case whole > 0:
		return fmt.Sprintf("%d %d/%d turns on", whole, a, b)
	}
	return fmt.Sprintf("%d/%d of a turn on", a, b)
}

// number says a small number.
func number(n int) string {
	if n < len(few) {
		return few[n]
	}
	return fmt.Sprint(n)
}

var few = []string{"none", "one", "two", "three", "four", "five", "six", "seven", "eight", "nine", "ten"}
