// Package gap leaves strands bare.
package gap

import (
	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a bare length.
type Settings struct {
	LengthMM float64 `json:"length_mm,omitempty" typed:"-" label:"length" default:"12" needed:"yes"`
}

// Of is a section that leaves so many mm bare.
func Of(mm float64) knot.Section { return knot.Begun("gap", Settings{LengthMM: mm}) }

// Gap: a bare length in which the strands only hang. Measured with a ruler
// while tying; a strip of card of that height keeps a row of gaps even.
func init() {
	knot.Add(knot.Knot{
		ID: "gap", Name: "gap", Family: "spaces",
		OtherNames: []string{"bare length", "space"},
		For:        "leaving strands bare between groups of knots",
		Short:      []string{"g"},
		Glyph:      "M8 2v2.500M8 7.500v3M8 13v3M8 18.500v3M16 2v2.500M16 7.500v3M16 13v3M16 18.500v3",
		Settings:   Settings{},
		Hangs:      true,
		Bare:       true,
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1}, BareMM: knot.Of[Settings](s).LengthMM}
		},
		Tie:    tieGap,
		Sample: knot.Sample{Line: "mount A B, square-knot 1, gap 12mm, square-knot 1", Cords: 2, Section: 2},
	})
}

func tieGap(w knot.Work) (knot.Tied, error) {
	long := knot.Of[Settings](w.Section).LengthMM
	t := knot.Tied{Height: long, LengthMM: long, Open: true, Order: knot.Identity(len(w.Strands)), Repeats: 1, Gap: 1}
	for _, l := range w.Strands {
		t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{{X: l.At.X, Z: l.At.Z}, {X: l.At.X, Y: t.Height, Z: l.At.Z}}})
	}
	t.Moves = []move.Move{{Strand: -1, Text: "Leave {length} bare.",
		Detail: "Measure from the lower edge of the last knot; a card of that height keeps gaps even."}}
	return t, nil
}
