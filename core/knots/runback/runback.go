// Package runback leads strands to what a piece ends on, and back.
package runback

import (
	"nimblebight/core/knot"
	"nimblebight/core/move"
)

// Run back: each strand runs to the hardware at the far end, round its wire and back
// up beside itself; what follows is tied by the strands over the runs. Package plan
// lays the runs.
//
// Right: both runs of a strand lie side by side, none crossed, as tight as the other
// strand's. Wrong: one run is slack; the far ring hangs crooked.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "run-back", Name: "run back", Family: "mounts",
		OtherNames: []string{"two-ended", "doubled run"},
		For:        "a piece between two rings: the strands run to the far one and back, and knots are tied over the runs",
		Glyph:      "M7 2v16a2.500 2.500 0 0 0 5 0V7a2.500 2.500 0 0 1 5 0v15M4 19.500h11",
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1, Most: 2}}
		},
		RunsBack: moves,
		Sample:   knot.Sample{Line: "mount A, run-back, square-knot 3", Cords: 1, Section: 2},
	})
}

// moves are those of so many strands.
func moves(strands int) []move.Move {
	var out []move.Move
	for i := range strands {
		out = append(out, move.Move{Strand: i, Text: "Lead {me} down to the far hardware, round its wire from the front, and back up beside itself.",
			Detail: "Measure {length} from wire to wire, and pin both ends.", Gate: "Both runs lie side by side, as tight as each other."})
	}
	return append(out, move.Move{Strand: -1, Text: "What follows is tied over the runs, from here down.", Gate: "The far hardware hangs straight."})
}
