// Package bead puts a bead on strands.
package bead

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a bead.
type Settings struct {
	Bead *knot.Bead `json:"bead,omitempty" needed:"yes"`
}

// Beads: strands are led through the hole of a bead together.
//
// Right: the bead sits against the knot above and looks the right way. Wrong:
// a bead that must be forced; the sheath frays in its hole.
func init() {
	knot.Add(knot.Knot{
		ID: "bead", Name: "bead", Family: "beads",
		OtherNames: []string{"bead on strands"},
		For:        "a bead on any strands; the others pass it by",
		Glyph:      "M10 7h4a4 4 0 0 1 4 4v2a4 4 0 0 1-4 4h-4a4 4 0 0 1-4-4v-2a4 4 0 0 1 4-4zM10 2v5M14 2v5M10 17v5M14 17v5",
		Places:     true,
		Settings:   Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1}, Bundles: true}
		},
		Tie:    tieBead,
		Sample: knot.Sample{Line: "mount A B, bead hole=8mm long=10mm wide=13mm", Cords: 2, Section: 1},
	})
}

func tieBead(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	if err := knot.Threads(set.Bead, w.Strands, fmt.Sprintf("%d strand%s", len(w.Strands), knot.Plural(len(w.Strands)))); err != nil {
		return knot.Tied{}, err
	}
	b := *set.Bead
	t := knot.Tied{Height: b.LengthMM, Repeats: 1, Gap: 1, Order: knot.Identity(len(w.Strands))}
	for _, at := range knot.Seats(w.Strands) {
		t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{at, {X: at.X, Y: b.LengthMM / 2, Z: at.Z}, {X: at.X, Y: b.LengthMM, Z: at.Z}}})
		t.Clear = math.Max(t.Clear, 0.05*w.Strands[0].Diameter)
	}
	t.Beads = []knot.BeadAt{{At: r3.Vec{Y: b.LengthMM / 2}, Bead: b}}
	t.Moves = []move.Move{{Strand: -1, Text: "Put the bead on {strands 0}.", Naming: [][]int{knot.Identity(len(w.Strands))},
		Detail: "Melt the ends together to a point, or tape them, to lead them through.", Gate: "The bead sits against the knot above and looks the way it should."}}
	return t, nil
}
