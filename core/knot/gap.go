package knot

// Gap: a bare length in which the strands only hang. Measured with a ruler
// while tying; a strip of card of that height keeps a row of gaps even.
func init() {
	add(Knot{
		ID: "gap", Name: "gap", Family: "spaces",
		OtherNames: []string{"bare length", "space"},
		For:        "leaving strands bare between groups of knots",
		Fields:     []Field{{Key: "length_mm", Short: "", Label: "length", Kind: "length", Default: "12", Needed: true}},
		fill:       func(s *Section) { s.LengthMM = 12 },
		hangs:      true,
		tie:        tieGap,
	})
}

func tieGap(w Work) (Tied, error) {
	t := Tied{Height: w.Section.LengthMM, Order: identity(len(w.Leads)), Repeats: 1, Gap: 1}
	for _, l := range w.Leads {
		t.Paths = append(t.Paths, Path{Points: []Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: t.Height, Z: l.At.Z}}})
	}
	t.Actions = []Action{{Moves: -1, Text: "Leave {length} bare.",
		Detail: "Measure from the lower edge of the last knot; a card of that height keeps gaps even."}}
	return t, nil
}
