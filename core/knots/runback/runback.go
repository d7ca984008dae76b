// Package runback leads strands to what a piece ends on, and back.
package runback

import (
	"nimblebight/core/knot"
	"nimblebight/core/move"
)

// From is the end at which the knots over the runs begin.
type From string

// The end that the piece hangs by, and the one that it ends on.
const (
	Near From = "near"
	Far  From = "far"
)

// Choices are the ends.
func (From) Choices() []string { return []string{string(Near), string(Far)} }

// Settings of a run back.
type Settings struct {
	From From `json:"from,omitempty" typed:"from" label:"knots begin at the end" default:"near"`
}

// Run back: each strand runs to the hardware at the far end, round its wire and back
// up beside itself; what follows is tied by the strands over the runs. Where the knots
// begin at the far end it runs there once, and is a worker from there on. Package plan
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
		Schools:    []knot.School{{Field: "from", Default: "near", Why: "from near, two runs of each strand fill the knots; from far, one does, the piece is slimmer and takes less cord"}},
		Settings:   Settings{},
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1, Most: 2}, FromFar: knot.Of[Settings](s).From == Far}
		},
		RunsBack: moves,
		Sample:   knot.Sample{Line: "mount A, run-back, square-knot 3", Cords: 1, Section: 2},
	})
}

// moves are those of so many strands.
func moves(s knot.Section, strands int) []move.Move {
	far := knot.TermsOf(s).FromFar
	var out []move.Move
	for i := range strands {
		m := move.Move{Strand: i, Text: "Lead {me} down to the far hardware, round its wire from the front, and back up beside itself.",
			Detail: "Measure {length} from wire to wire, and pin both ends.", Gate: "Both runs lie side by side, as tight as each other."}
		if far {
			m.Text = "Lead {me} down to the far hardware and round its wire from the front; its end points back up."
			m.Gate = "The runs lie side by side, as tight as each other."
		}
		out = append(out, m)
	}
	last := move.Move{Strand: -1, Text: "What follows is tied over the runs, from here down.", Gate: "The far hardware hangs straight."}
	if far {
		last.Text = "Turn the work round: the far end is up now. What follows is tied over the runs, from there down."
	}
	return append(out, last)
}
