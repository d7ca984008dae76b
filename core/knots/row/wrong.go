package row

import (
	"fmt"

	"nimblebight/core/knot"
)

// wrongSquare is a row of square knots whose second halves were all begun on the side of
// the first: it is the spiral.
func wrongSquare(s knot.Section) []knot.Wrong {
	n := max(1, s.Count)
	spiral := s
	spiral.Do, spiral.Count, spiral.FitMM = "half-knot", 2*n, 0
	spiral.Settings = HalfSettings{Hand: start(knot.Work{Section: s})}
	return []knot.Wrong{{
		Name:    "granny",
		What:    "The row is flat: the two halves of every knot are begun on opposite sides.",
		How:     "Lay it down and look along it. It lies by itself, and every bar on the face is of one cord.",
		Says:    "Both halves were begun on the same side: the row turns round itself into a spiral.",
		Back:    fmt.Sprintf("Go down to the first knot that turns, and untie it half by half: at most %d halves. The next half begins on the side of the lowest bump.", 2*n),
		Instead: []knot.Section{spiral},
	}}
}

// wrongHalf is a spiral whose halves were begun on both sides by turns: it is flat.
func wrongHalf(s knot.Section) []knot.Wrong {
	n := max(1, s.Count)
	flat := s
	flat.Do, flat.Count, flat.FitMM = "square-knot", (n+1)/2, 0
	flat.Settings = SquareSettings{Start: hand(knot.Work{Section: s})}
	return []knot.Wrong{{
		What:    "The row turns evenly all along: every half is begun on the same side.",
		How:     "Look from the side: the edges run round like a thread, with no flat place.",
		Says:    "The halves were begun on both sides by turns: the row lies flat and does not turn.",
		Back:    fmt.Sprintf("Go up to the last half that turns, and untie what is below it: at most %d halves. Every half begins on one side.", n),
		Instead: []knot.Section{flat},
	}}
}
