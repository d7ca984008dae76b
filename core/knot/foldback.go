package knot

import "fmt"

// Fold back: a long flat band is folded back on itself to a loop for the wrist;
// its end is passed through at the place where it meets the band, matched, and
// held there by a gathering knot. Package plan bends what was tied so far.
//
// Right: the face of the band looks out all round the loop, and its end lies
// flat against it under the wrap. Wrong: a twist in the loop.
func init() {
	add(Knot{
		Outside: true, ID: "fold-back", Name: "fold back", Family: "wraps and gathers",
		OtherNames: []string{"wrist loop", "folded band"},
		For:        "a wrist strap: the band folded back to a loop of an inner length, then gathered",
		Schools: []School{{Field: "inner_mm", Default: "all of the band",
			Why: "left open, the end comes back to where the band begins"}},
		Fields: []Field{{Key: "inner_mm", Short: "", Label: "inner length of the loop", Kind: "length", Most: 3000}},
		tie: func(w Work) (Tied, error) {
			return Tied{}, fmt.Errorf("%s bends what is tied already", w.Section.Do)
		},
	})
}

// FoldActions are the moves of a fold back.
func FoldActions() []Action {
	return []Action{
		{Moves: -1, Text: "Fold the band back on itself, its face outwards, till its end meets it at the mark.",
			Detail: "The loop measures {length} inside, laid flat.", Gate: "The loop has no twist."},
		{Moves: -1, Text: "Lay the end flat against the back of the band, its ends pointing up, and hold it with a clip.",
			Detail: "Match knot to knot, so that the wrap finds one thickness."},
	}
}
