package knot

import "fmt"

// Repeats and rows hold sections of their own; package plan walks them. A
// repeat ties its sections again and again. Rows are tied side by side, each on
// strands of its own; two of them may be crossed over each other, once or more,
// before they are gathered.
//
// Right: crossed rows are equally long and lie one before the other, flat.
// Wrong: one is longer, and bulges.
func init() {
	inside := func(w Work) (Tied, error) {
		return Tied{}, fmt.Errorf("%s is tied section by section", w.Section.Do)
	}
	add(Knot{
		ID: "repeat", Name: "repeat", Family: "whole sections",
		OtherNames: []string{"group", "again"},
		For:        "tying a group of sections again and again: 3x(square-knot 2, gap 10mm)",
		Repeats:    true,
		Fields:     []Field{},
		fill:       func(s *Section) { s.Count = 2; s.Sequence = []Section{} },
		tie:        inside,
	})
	add(Knot{
		ID: "rows", Name: "rows", Family: "whole sections",
		OtherNames: []string{"side by side", "crossed rows"},
		For:        "two sinnets or more side by side, crossed over each other if wanted",
		Fields: []Field{
			{Key: "cross", Short: "cross", Label: "crossed, times", Kind: "count", Most: 40},
		},
		Schools: []School{{Field: "cross", Default: "0", Why: "once makes an X, twice a twist; each crossing takes a little of the length"}},
		tie:     inside,
	})
}
