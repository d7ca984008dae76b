// Package pace is how long a maker takes. It reads the steps that were taken at the vise:
// how much of their time was work and how much a pause, in which section, and by knot; what
// is left of a piece at that pace; and when hands want a rest. It knows no clock: times are
// given in seconds.
package pace

import (
	"math"
	"slices"
	"strings"

	"nimblebight/core/plan"
)

const (
	// LongestMove is how long a move takes at most, s: a step that took longer for each of
	// its moves was no work, the maker was away. Judged, not measured: slow moves, as of a
	// first fist, take a minute or two.
	LongestMove = 180.0
	// No step is work for longer than this, however many moves it has.
	longestStep = 45 * 60.0 // s
	// So many moves tell how fast a maker is; fewer tell nothing.
	fewest = 8
)

// Rests are after how many minutes of work hands can be told to rest; 0 is never.
var Rests = []int{0, 15, 20, 30, 45}

// Taken is a step that was taken at the vise: from one number of done actions to another, so many seconds
// after the step before it. It goes back where To is below From.
type Taken struct {
	// N is the step's number among all of its device; of two steps the later has the higher.
	N      int64   `json:"n"`
	From   int     `json:"from"`
	To     int     `json:"to"`
	AfterS float64 `json:"after_s"`
}

// pause tells whether the time before a step was a pause and no work.
func (s Taken) pause() bool {
	moves := max(s.To-s.From, s.From-s.To, 1)
	return s.AfterS > math.Min(LongestMove*float64(moves), longestStep)
}

// Spell is the time that went into a section.
type Spell struct {
	Section int
	Knot    string
	Moves   int     // done, less those taken back
	Knots   float64 // that these moves are
	WorkedS float64
	Pauses  int
	PausedS float64
}

// Spells are what steps tell of each section of a plan, in the order of its sections.
//
//	(1) worked and paused of all spells together are the time of all steps
//	(2) what is done and taken back again is no move, but its time was worked
//
// The time of a step over several sections is shared among its moves alike; a pause is the
// section's in which it began.
func Spells(p plan.Plan, steps []Taken) []Spell {
	by := map[int]*Spell{}
	knots := perMove(p)
	for _, s := range steps {
		from, to := within(s.From, p), within(s.To, p)
		low, high := min(from, to), max(from, to)
		one := 1
		if to < from {
			one = -1
		}
		if high == low || s.pause() {
			at := spellAt(by, p, min(from, p.Actions-1))
			if s.pause() {
				at.Pauses++
				at.PausedS += s.AfterS
			} else {
				at.WorkedS += s.AfterS
			}
		}
		for a := low; a < high; a++ {
			at := spellAt(by, p, a)
			at.Moves += one
			at.Knots += float64(one) * knots[at.Section]
			if !s.pause() {
				at.WorkedS += s.AfterS / float64(high-low)
			}
		}
	}
	out := make([]Spell, 0, len(by))
	for _, s := range by {
		out = append(out, *s)
	}
	slices.SortFunc(out, func(a, b Spell) int { return a.Section - b.Section })
	return out
}

func within(n int, p plan.Plan) int { return max(0, min(n, p.Actions)) }

// spellAt is the spell of the section that an action belongs to.
func spellAt(by map[int]*Spell, p plan.Plan, action int) *Spell {
	section, knot := 0, ""
	before := 0
	for _, s := range p.Steps {
		before += s.Repeats * len(s.Actions)
		section, knot = s.Section, s.Do
		if action < before {
			break
		}
	}
	if by[section] == nil {
		by[section] = &Spell{Section: section, Knot: knot}
	}
	return by[section]
}

// perMove is what share of a knot of its section each move is.
func perMove(p plan.Plan) map[int]float64 {
	moves := map[int]int{}
	for _, s := range p.Steps {
		moves[s.Section] += s.Repeats * len(s.Actions)
	}
	out := map[int]float64{}
	for _, s := range p.Sections {
		if n := moves[s.Index]; n > 0 {
			out[s.Index] = float64(max(1, s.Count)) / float64(n)
		}
	}
	return out
}

// Since is how long was worked since the last pause, s, when it was worked that long before
// these steps.
func Since(worked float64, steps []Taken) float64 {
	for _, s := range steps {
		if s.pause() {
			worked = 0
		} else {
			worked += s.AfterS
		}
	}
	return worked
}

// Pace is how fast a maker ties a knot, over all pieces.
type Pace struct {
	Knot    string  `json:"knot"`
	Knots   float64 `json:"knots"`
	Moves   int     `json:"moves"`
	WorkedS float64 `json:"worked_s"`
	Pauses  int     `json:"pauses"`
	PausedS float64 `json:"paused_s"`
	// PerKnotS is how long one takes; 0 where too few were tied to tell.
	PerKnotS float64 `json:"per_knot_s,omitempty"`
}

// Paces are the paces of all knots of these spells, by their names.
func Paces(all []Spell) []Pace {
	by := map[string]*Pace{}
	for _, s := range all {
		p := by[s.Knot]
		if p == nil {
			p = &Pace{Knot: s.Knot}
			by[s.Knot] = p
		}
		p.Knots += s.Knots
		p.Moves += s.Moves
		p.WorkedS += s.WorkedS
		p.Pauses += s.Pauses
		p.PausedS += s.PausedS
	}
	out := make([]Pace, 0, len(by))
	for _, p := range by {
		if p.Moves >= fewest && p.Knots > 0 {
			p.PerKnotS = p.WorkedS / p.Knots
		}
		out = append(out, *p)
	}
	slices.SortFunc(out, func(a, b Pace) int { return strings.Compare(a.Knot, b.Knot) })
	return out
}

// Left is how long the rest of a plan takes at these paces, s, once so many actions are
// done; a knot that was hardly tied yet goes as fast as all others together. It is not
// known where too little was tied at all.
func Left(p plan.Plan, done int, paces []Pace) (s float64, known bool) {
	move := map[string]float64{}
	var moves int
	var worked float64
	for _, q := range paces {
		moves += q.Moves
		worked += q.WorkedS
		if q.PerKnotS > 0 {
			move[q.Knot] = q.WorkedS / float64(q.Moves)
		}
	}
	if moves < fewest {
		return 0, false
	}
	before := 0
	for _, step := range p.Steps {
		n := step.Repeats * len(step.Actions)
		left := min(n, before+n-done)
		before += n
		if left <= 0 {
			continue
		}
		each, ok := move[step.Do]
		if !ok {
			each = worked / float64(moves)
		}
		s += float64(left) * each
	}
	return s, true
}
