package fist

import (
	"fmt"

	"nimblebight/core/knot"
)

// wrong is a ball of one turn fewer in each band.
func wrong(s knot.Section) []knot.Wrong {
	passes := knot.Of[Settings](s).Passes
	if passes < 3 {
		return nil
	}
	fewer := s.Put("passes", passes-1)
	return []knot.Wrong{{
		What:    fmt.Sprintf("Each of the six faces shows %d parallel turns, none crossed.", passes),
		How:     "Turn the ball face by face and count; the six faces are alike.",
		Says:    fmt.Sprintf("A turn was left out of each band: the faces show %d instead of %d.", passes-1, passes),
		Back:    "Work the slack back to the band that is short and lead the turn in beside its neighbours, before the ball is drawn up; later it is untied to there.",
		Instead: []knot.Section{fewer},
	}}
}
