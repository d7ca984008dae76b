package knot

import (
	"fmt"

	"nimblebight/core/finish"
)

// Finishing the ends, a section of the sequence: the strands that it takes end
// here. How is one of the ways of package finish.
func init() {
	var hows []string
	for _, w := range finish.Ways() {
		hows = append(hows, w.ID)
	}
	add(Knot{
		Outside: true, ID: "finish", Name: "finish", Family: "ends",
		OtherNames: []string{"end", "seal"},
		For:        "ending strands: one decision per end",
		Schools: []School{{Field: "how", Default: "singe-and-press",
			Why: "pressed flat against the knot it cannot pull back through; dome it where it is seen, and never melt what burns"}},
		Fields: []Field{
			{Key: "how", Short: "", Label: "how", Kind: "choice", Choices: hows, Default: "singe-and-press"},
			{Key: "ends", Short: "ends", Label: "ends", Kind: "places"},
			{Key: "length_mm", Short: "length", Label: "hangs", Kind: "length"},
		},
		fill:  func(s *Section) { s.How = "singe-and-press" },
		hangs: true,
		tie:   tieEnds,
	})
}

func tieEnds(w Work) (Tied, error) {
	way, ok := finish.Get(w.Section.How)
	if !ok {
		return Tied{}, fmt.Errorf("there is no finish %q", w.Section.How)
	}
	t := Tied{Ends: true, Trim: way.Trim(), Repeats: 1, Gap: 1, Order: identity(len(w.Leads))}
	for _, l := range w.Leads {
		leave := way.Leave(l.Stuff, w.Section.LengthMM)
		t.Height = max(t.Height, leave)
		t.Paths = append(t.Paths, Path{Points: []Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: leave, Z: l.At.Z}}})
	}
	for i, s := range way.Steps {
		a := Action{Moves: -1, Text: s}
		if i == 0 {
			a.Detail = way.Note
			if way.Flame {
				a.Gate = "Flame and molten nylon burn and stick: heatproof surface, air, hair and sleeves away, water at hand."
			}
		}
		t.Actions = append(t.Actions, a)
	}
	return t, nil
}
