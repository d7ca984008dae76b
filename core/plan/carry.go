package plan

import (
	"slices"
	"strings"

	"nimblebight/core/piece"
)

// Carry tells how many actions of another plan of the piece are done when done
// actions of this one are: the place stays at its knot, whatever was changed
// above it. A place below 0 is so many moves of [Plan.Ready] before the first that ties.
//
//	(1) Carry(p, p, n) == n for n from -len(p.Ready) to p.Actions
//	(2) it is never below -len(to.Ready) nor above to.Actions
//	(3) of two places the further one stays the further one, or both become one
//
// A step that is not in the other plan any more gives its place to the end of
// the one before it that is. Where nothing is tied yet, the place is before the first
// move on the table that was not made in just that way: what is cut otherwise now is
// measured again.
func Carry(from, to Plan, done int) int {
	if done <= 0 {
		made := from.Ready[:max(0, len(from.Ready)+done)]
		for i, a := range to.Ready {
			if !slices.ContainsFunc(made, func(b Action) bool { return a.Text == b.Text && a.Cord == b.Cord }) {
				return i - len(to.Ready)
			}
		}
		return 0
	}
	at, into := from.stepAt(min(done, from.Actions))
	match := matchSteps(from.Steps, to.Steps)
	for ; at >= 0; at-- {
		t := match[at]
		if t < 0 {
			into = -1 // the end of what is left above
			continue
		}
		a, b := len(from.Steps[at].Actions), len(to.Steps[t].Actions)
		whole := b * to.Steps[t].Repeats
		before := 0
		for _, s := range to.Steps[:t] {
			before += s.Repeats * len(s.Actions)
		}
		switch {
		case into < 0 || a == 0 || into >= a*from.Steps[at].Repeats:
			return before + whole
		case a == b:
			return before + min(into, whole)
		}
		return before + min(into/a*b, whole) // its knots are tied in other moves now
	}
	return 0
}

// At tells where a number of done actions is: the section in hand, and how many of its
// knots are closed.
func (p Plan) At(done int) (section, tied int) {
	step, into := p.stepAt(max(0, min(done, p.Actions)))
	if step < 0 {
		return 0, 0
	}
	s := p.Steps[step]
	for _, q := range p.Sections {
		if q.Index != s.Section || len(s.Actions) == 0 {
			continue
		}
		rounds := s.Repeats
		if into >= 0 {
			rounds = into / len(s.Actions)
		}
		tied = max(1, q.Count) * rounds / max(1, s.Repeats)
	}
	return s.Section, tied
}

// stepAt finds the step that a number of done actions has come to, and how many
// of its own are done. The end of a step is its own last place, not the next
// one's first, so that what is put in after it is still to be tied.
func (p Plan) stepAt(done int) (step, into int) {
	for i, s := range p.Steps {
		n := s.Repeats * len(s.Actions)
		if done <= n && (n > 0 || done == 0) && !(done == 0 && n == 0) {
			return i, done
		}
		done -= n
	}
	return len(p.Steps) - 1, -1
}

// matchSteps tells of each step which one of the other plan it is, -1 for none.
func matchSteps(from, to []Step) []int {
	names := func(steps []Step) []string {
		out := make([]string, len(steps))
		for i, s := range steps {
			var b strings.Builder
			b.WriteString(s.Do)
			for _, a := range s.Actions {
				b.WriteString("\n" + a.Text)
			}
			out[i] = b.String()
		}
		return out
	}
	return piece.Aligned(names(to), names(from), func(t, f int) bool { return to[t].Do == from[f].Do })
}
