package overhand

import (
	"nimblebight/core/knot"
	"nimblebight/core/move"
)

// Eight are the settings of a figure-eight: none.
type Eight struct{}

// Figure-eight stopper: half a turn more than an overhand before the end goes through.
//
// Right: both turns lie the same way, the end out beside the standing part. Wrong: it
// went through half a turn too soon; that is an overhand and stands smaller.
func init() {
	knot.Add(knot.Knot{
		ID: "figure-eight", Name: "figure-eight", Family: "wraps and gathers",
		OtherNames: []string{"figure-eight stopper", "flemish knot"},
		For:        "a stopper on one strand or a few together: larger than an overhand, and it comes undone again",
		Glyph:      "M12 2c0 5-5 4-5 8s10 4 10 8-8 3-8 0 8-4 8-8-5-3-5-8M11 19v3",
		Places:     true,
		Settings:   Eight{},
		Terms:      func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 1}, Bundles: true} },
		Tie:        tieEight,
		Film:       bundleFilm,
		Sample:     knot.Sample{Line: "mount A, gap 14mm, figure-eight", Cords: 1, Section: 2},
	})
}

func tieEight(w knot.Work) (knot.Tied, error) {
	t, err := tieBundle(w, "figure-eight", eightRoute)
	if err != nil {
		return t, err
	}
	m := move.Move{Strand: 0, Text: "Tie {me} in a figure-eight: round its own part, half a turn on, and through the loop.",
		Detail: "Pull the end first, then the standing part.", Gate: "It sits where the stop is wanted."}
	if n := len(w.Strands); n > 1 {
		m.Strand, m.Naming = -1, [][]int{knot.Identity(n)}
		m.Text = "Tie {strands 0} together in one figure-eight: round their own parts, half a turn on, and through the loop."
		m.Gate = "No strand crosses another in the knot."
	}
	t.Moves = []move.Move{m}
	return t, nil
}
