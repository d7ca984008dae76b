package ring

import (
	"nimblebight/core/knot"
	"nimblebight/core/move"
)

// crown is what each strand of a crown passes, led anticlockwise: the end of the one
// before it and the bend of the next.
var crown = []Meet{{On: -1, Over: true}, {On: 1}}

// Crown are the moves of one crown of strands that stand in a ring, with what to see to
// before it.
func Crown(as []int, before string) []move.Move {
	var out []move.Move
	n := len(as)
	for i, me := range as {
		var own []Meet
		for _, m := range crown {
			own = append(own, Meet{On: (m.On + n) % n, Over: m.Over})
		}
		m := move.Move{Strand: me, End: true, Turn: string(knot.Anticlockwise), Passes: Passes(own, i, as), Text: "Crown {me} {turn}: {over 0}, its end; {over 1}, its bend."}
		if i == 0 {
			m.Detail = "Look at the working end. The first waits for the one before it, the last comes in under the bend of the first."
			if before != "" {
				m.Detail = before + " " + m.Detail
			}
		}
		if i == n-1 {
			m.Gate = "A crown: each over one and under one, all alike."
		}
		out = append(out, m)
	}
	return out
}
