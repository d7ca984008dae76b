// Package fold folds a band back to a loop for the wrist.
package fold

import (
	"nimblebight/core/knot"
	"nimblebight/core/move"
)

// Settings of a fold back.
type Settings struct {
	InnerMM float64 `json:"inner_mm,omitempty" typed:"-" label:"inner length of the loop" most:"3000"`
}

// Fold back: a long flat band is folded back on itself to a loop for the wrist;
// its end is passed through at the place where it meets the band, matched, and
// held there by a gathering knot. Package plan bends what was tied so far.
//
// Right: the face of the band looks out all round the loop, and its end lies
// flat against it under the wrap. Wrong: a twist in the loop.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "fold-back", Name: "fold back", Family: "wraps and gathers",
		OtherNames: []string{"wrist loop", "folded band"},
		For:        "a wrist strap: the band folded back to a loop of an inner length, then gathered",
		Schools: []knot.School{{Field: "inner_mm", Default: "all of the band",
			Why: "left open, the end comes back to where the band begins"}},
		Glyph:    "M9 2v14a3.500 3.500 0 0 0 7 0V7M6 7h13M6 10h13",
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1}, Bends: true}
		},
		Fold:      func(s knot.Section) float64 { return knot.Of[Settings](s).InnerMM },
		FoldMoves: moves,
		Sample:    knot.Sample{Line: "mount A B, gap 9mm, square-knot 12, fold-back 50mm, gather C turns=4", Cords: 2, Section: 3},
	})
}

// moves are the moves of a fold back whose ends are led through the start, or lie
// behind the band.
func moves(after int) []move.Move {
	out := []move.Move{
		{Strand: -1, Text: "Fold the band back on itself, its face outwards, till its end meets it at the mark.",
			Detail: "The loop measures {length} inside, laid flat.", Gate: "The loop has no twist."},
	}
	if after >= 0 {
		return append(out,
			move.Move{Strand: -1, Naming: [][]int{{after, after + 1}}, Text: "Lead the ends from behind through the opening at the start, between {strands 0}.",
				Detail: "The middle ends lowest, the next over them. Let them hang down before the band, side by side.", Gate: "No end crosses another."},
			move.Move{Strand: -1, Text: "Pull them even till the loop has its length, and hold it with a clip.",
				Detail: "Match knot to knot, so that the wrap finds one thickness."})
	}
	return append(out, move.Move{Strand: -1, Text: "Lay the end flat against the back of the band, its ends pointing up, and hold it with a clip.",
		Detail: "Match knot to knot, so that the wrap finds one thickness."})
}
