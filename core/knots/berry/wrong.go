package berry

import (
	"fmt"

	"nimblebight/core/knot"
	"nimblebight/core/knots/row"
)

// wrong is a berry whose square knots were not rolled up before they were locked.
func wrong(s knot.Section) []knot.Wrong {
	squares := knot.Of[Settings](s).Squares
	if squares == 0 {
		squares = 3
	}
	flat := s
	flat.Do, flat.Count = "square-knot", squares+1
	flat.Settings = row.SquareSettings{Start: knot.Of[Settings](s).Start}
	return []knot.Wrong{{
		What:    "Every berry is rolled up to a bead and locked.",
		How:     "Push a finger against it from below: it keeps its round, and the bead is closed at the top.",
		Says:    fmt.Sprintf("The fillers were not taken up through the gap: the %d square knots hang flat, and the lock is one more of them.", squares),
		Back:    "Untie the lock, one square knot. Take the fillers up over the front and through the gap, pull them down behind, and lock it again.",
		Instead: []knot.Section{flat},
	}}
}
