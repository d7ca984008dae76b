// Package move is what the hand does with the cord, as data: which strand, from
// which side, over and under which in order, and what to look at after it. Words
// are made from a move in one place ([Move.Say]), and so is its mirror image
// ([Move.Mirror]).
//
// The words of a move are templates of the knot that it belongs to. What has a
// side, a strand or a way of passing stands in them as a slot and is filled from
// the data, so that nothing is ever searched for in a sentence:
//
//	{me}        the strand that moves: strand 2
//	{from}, {to}  the sides it comes from and goes to: left
//	{turn}      the direction it is led in: clockwise
//	{front 0}   in front of strands 2 and 3, or behind them: its first passing
//	{over 0}    over strands 2 and 3, or under them
//	{infront 0}, {above 0}  the same without the strands: in front of, over
//	{face 0}    in front, or behind
//	{strands 0} the strands of its first naming: strands 2 and 3
//	{cord}      the cord that moves, by its name
//
// {length}, {fold} and lengths in braces are left for whoever knows them.
package move

import "slices"

// All is the strand of a move that no single strand makes.
const All = -1

// Side is where a strand comes from or goes to.
type Side string

// The sides; a mirror image turns left and right.
const (
	None  Side = ""
	Left  Side = "left"
	Right Side = "right"
	Front Side = "front"
	Back  Side = "back"
)

// Mirror is the side as a mirror shows it.
func (s Side) Mirror() Side {
	switch s {
	case Left:
		return Right
	case Right:
		return Left
	}
	return s
}

// How is how a strand passes another, as seen from the face.
type How bool

// A strand lies nearer to the eye than what it passes, or farther from it.
const (
	Over  How = true
	Under How = false
)

// Pass is what a strand passes at once.
type Pass struct {
	How How
	Of  []int // strands
}

// Move is one thing that the hand does.
//
// Invariants: strands count from 0 among those that come to the knot, from the
// left, and on among its own cords; Passes are in the order in which they are met
// along the strand, and each is a crossing of the curve. Order, where it is not
// nil, names the strand at each place when the move begins.
//
// Laws: (1) m.Mirror(n).Mirror(n) is m; (2) the passes of a mirror are passed
// alike, by the strands on the other side.
type Move struct {
	Strand   int
	From, To Side
	Turn     string // clockwise, anticlockwise
	Passes   []Pass
	Naming   [][]int // strands that the words name besides
	Order    []int
	// End is set where what it passes is said as seen from the working end, not from
	// the face: in a crown.
	End bool

	// Text, Detail and Gate are templates; Gate is what to look at before going on.
	Text, Detail, Gate string

	// With are strands that are led beside it, as far as it is.
	With []int
	// Follows is set for a move that leads its strand beside a part that was led before, as a
	// second round is.
	Follows bool
	// UpTo is up to which share of its way its strand is led at its end, where no passes tell; 0
	// for an even share.
	UpTo float64

	// Slack is set for a move that only takes up slack, Core for the one that puts
	// the core in, Folded for a cord that is put on by its fold: it has no end that
	// is led.
	Slack, Core, Folded bool
}

// Mirror is the move of a knot on n strands as a mirror shows it. Cords of its own
// stay what they are.
func (m Move) Mirror(n int) Move {
	flip := func(i int) int {
		if i < 0 || i >= n {
			return i
		}
		return n - 1 - i
	}
	all := func(is []int) []int {
		if is == nil {
			return nil
		}
		out := make([]int, len(is))
		for k, i := range is {
			out[k] = flip(i)
		}
		return out
	}
	out := m
	out.Strand, out.With = flip(m.Strand), all(m.With)
	out.From, out.To = m.From.Mirror(), m.To.Mirror()
	switch m.Turn {
	case "clockwise":
		out.Turn = "anticlockwise"
	case "anticlockwise":
		out.Turn = "clockwise"
	}
	if m.Passes != nil {
		out.Passes = make([]Pass, len(m.Passes))
		for k, p := range m.Passes {
			out.Passes[k] = Pass{p.How, all(p.Of)}
		}
	}
	if m.Naming != nil {
		out.Naming = make([][]int, len(m.Naming))
		for k, is := range m.Naming {
			out.Naming[k] = all(is)
		}
	}
	if m.Order != nil {
		out.Order = all(m.Order)
		slices.Reverse(out.Order)
	}
	return out
}

// Renumber is the move with other numbers for its strands: what was strand i is
// strand as[i].
func (m Move) Renumber(as []int) Move {
	of := func(i int) int {
		if i < 0 || i >= len(as) {
			return i
		}
		return as[i]
	}
	all := func(is []int) []int {
		out := make([]int, len(is))
		for k, i := range is {
			out[k] = of(i)
		}
		return out
	}
	out := m
	out.Strand = of(m.Strand)
	out.Passes = make([]Pass, len(m.Passes))
	for k, p := range m.Passes {
		out.Passes[k] = Pass{p.How, all(p.Of)}
	}
	out.Naming = make([][]int, len(m.Naming))
	for k, is := range m.Naming {
		out.Naming[k] = all(is)
	}
	if m.Order != nil {
		out.Order = all(m.Order)
	}
	return out
}

// Of are the strands that it passes in one way.
func (m Move) Of(how How) []int {
	var out []int
	for _, p := range m.Passes {
		if p.How != how {
			continue
		}
		for _, i := range p.Of {
			if !slices.Contains(out, i) {
				out = append(out, i)
			}
		}
	}
	return out
}

// Side is the side that it comes from: what it says, or where its strand stands
// where that is the first or the last of n places. Strands that are led together but do not
// hang side by side come from no one side.
func (m Move) Side(n int) Side {
	if m.From != None || m.Strand < 0 {
		return m.From
	}
	at := func(strand int) int {
		if m.Order != nil {
			return slices.Index(m.Order, strand)
		}
		return strand
	}
	place := at(m.Strand)
	first, last, led := place, place, 1
	for _, s := range m.With {
		if p := at(s); p < n { // else it is a cord of the knot's own
			first, last, led = min(first, p), max(last, p), led+1
		}
	}
	if last-first >= led {
		return None
	}
	switch {
	case n > 1 && place == 0:
		return Left
	case n > 1 && place == n-1:
		return Right
	}
	return None
}
