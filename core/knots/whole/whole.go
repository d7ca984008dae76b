// Package whole holds whole sections: those that are tied again and again, and
// rows side by side.
package whole

import (
	"nimblebight/core/knot"
	"nimblebight/core/knots/gap"
	"nimblebight/core/knots/row"
)

// RowSettings of rows side by side.
type RowSettings struct {
	Cross int `json:"cross,omitempty" typed:"cross" label:"crossed, times" most:"40"`
}

// Repeats and rows hold sections of their own; package plan walks them. A
// repeat ties its sections again and again. Rows are tied side by side, each on
// strands of its own; two of them may be crossed over each other, once or more,
// before they are gathered.
//
// Right: crossed rows are equally long and lie one before the other, flat.
// Wrong: one is longer, and bulges.
func init() {
	knot.Add(knot.Knot{
		ID: "repeat", Name: "repeat", Family: "whole sections",
		OtherNames: []string{"group", "again"},
		For:        "tying a group of sections again and again: 3x(square-knot 2, gap 10mm)",
		Repeats:    true,
		Holds:      knot.Again,
		Glyph:      "M7 4H4v16h3M17 4h3v16h-3M9 9l6 6M15 9l-6 6",
		Sample:     knot.Sample{Line: "mount A B, 2x(square-knot 1, gap 7mm)", Cords: 2, Section: 1},
		Anew: func(int, []string) []knot.Section {
			knots := row.Square(2, knot.Left)
			return []knot.Section{{Do: "repeat", Count: 2, Settings: struct{}{}, Sequence: []knot.Section{knots, gap.Of(8)}}}
		},
	})
	knot.Add(knot.Knot{
		ID: "rows", Name: "rows", Family: "whole sections",
		OtherNames: []string{"side by side", "crossed rows"},
		For:        "two sinnets or more side by side, crossed over each other if wanted",
		Holds:      knot.Rows,
		Glyph:      "M5 2c0 10 14 10 14 20M19 2C19 12 5 12 5 22M9 2c0 8 13 10 13 20M15 2C15 10 2 12 2 22",
		Settings:   RowSettings{},
		Schools:    []knot.School{{Field: "cross", Default: "0", Why: "once makes an X, twice a twist; each crossing takes a little of the length"}},
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 2}, Bends: knot.Of[RowSettings](s).Cross > 0}
		},
		Cross:  func(s knot.Section) int { return knot.Of[RowSettings](s).Cross },
		Sample: knot.Sample{Line: "mount A B C D, rows 1-4:(square-knot 5) 5-8:(square-knot 5 start=right) cross=1", Cords: 4, Section: 1},
		Anew:   newRows,
	})
}

// newRows halves the strands that hang there: each half is a row of square knots,
// begun on the outside, or hangs bare where it is too narrow for them.
func newRows(hanging int, _ []string) []knot.Section {
	half := hanging / 2
	side := func(from, to int, start knot.Side) knot.Row {
		r := knot.Row{Strands: knot.Numbered(from, max(0, to-from+1)), Sequence: []knot.Section{gap.Of(30)}}
		if to-from >= 2 {
			r.Sequence = []knot.Section{row.Square(6, start)}
		}
		return r
	}
	return []knot.Section{{Do: "rows", Settings: RowSettings{}, Rows: []knot.Row{side(1, half, knot.Left), side(half+1, hanging, knot.Right)}}}
}
