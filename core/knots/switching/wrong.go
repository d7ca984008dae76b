package switching

import (
	"nimblebight/core/knot"
	"nimblebight/core/knots/row"
)

// wrong is a row in which the strands did not change places: square knots with bare
// lengths between them.
func wrong(s knot.Section) []knot.Wrong {
	set := knot.Of[Settings](s)
	one := s
	one.Do, one.Count, one.FitMM = "square-knot", 1, 0
	one.Settings = row.SquareSettings{Start: set.Start}
	var instead []knot.Section
	gap, err := knot.New("gap")
	for i := range max(1, s.Count) {
		if i > 0 && err == nil {
			instead = append(instead, gap.Put("length_mm", set.GapMM))
		}
		instead = append(instead, one)
	}
	return []knot.Wrong{{
		What:    "In every gap the cords of a side cross, the one that has worked in front.",
		How:     "Look at the gaps, face and back: two crossings in each.",
		Says:    "The strands did not change places: in the gaps they hang side by side, and the same two go on working till they run out.",
		Back:    "Untie down to the first gap without a crossing; there the workers go inside and the fillers outside before the next knot.",
		Instead: instead,
	}}
}
