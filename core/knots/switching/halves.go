package switching

import (
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/row"
)

// halves ties a row of square knots half with its workers and half with its fillers: the
// last knot of the first half is a switch knot, with as short a gap as the cords change
// places in. It is nil for other knots and for rows of fewer than four.
func halves(s knot.Section, thickMM float64) []knot.Section {
	const fewest = 4
	if s.Do != row.Square(1, "").Do || s.Count < fewest {
		return nil
	}
	set := knot.Of[row.SquareSettings](s)
	upper, change, lower := s, knot.Section{Do: "switch-knot", Count: 1, Strands: s.Strands}, s
	upper.Count, lower.Count = s.Count/2-1, s.Count-s.Count/2
	change.Settings = Settings{GapMM: math.Ceil(leastGap * thickMM), Start: set.Start}
	lower.Note, lower.FitMM, upper.FitMM = "", 0, 0
	return []knot.Section{upper, change, lower}
}
