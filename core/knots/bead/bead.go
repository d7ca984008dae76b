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
	Beads int        `json:"beads,omitempty" typed:"beads" label:"beads in a row" default:"1" least:"1" most:"200"`
	Bead  *knot.Bead `json:"bead,omitempty" needed:"yes"`
	// RoomMM is the room between the knots above and below, where that is measured.
	RoomMM float64 `json:"room_mm,omitempty" typed:"room" label:"room between the knots" most:"2000"`
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
	passing, err := knot.Threads(set.Bead, w.Strands, fmt.Sprintf("%d strand%s", len(w.Strands), knot.Plural(len(w.Strands))))
	if err != nil {
		return knot.Tied{}, err
	}
	b := *set.Bead
	count := max(1, set.Beads)
	long := float64(count) * b.LengthMM
	if set.RoomMM > 0 && long > set.RoomMM {
		fits := int(set.RoomMM / b.LengthMM)
		r := &knot.Refused{Field: "beads", Why: fmt.Sprintf("%d beads of %g mm are %g mm long, and there is room for %g mm", count, b.LengthMM, long, set.RoomMM), Set: fits, Label: fmt.Sprintf("Put on %d", fits)}
		if fits == 0 {
			r.Field, r.Set, r.Label = "room_mm", math.Ceil(long), fmt.Sprintf("Leave room for %g mm", math.Ceil(long))
		}
		return knot.Tied{}, r
	}
	t := knot.Tied{Height: long, Repeats: 1, Gap: 1, Order: knot.Identity(len(w.Strands))}
	for _, at := range knot.Seats(w.Strands) {
		t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{at, {X: at.X, Y: long / 2, Z: at.Z}, {X: at.X, Y: long, Z: at.Z}}})
		t.Clear = math.Max(t.Clear, 0.05*w.Strands[0].Diameter)
	}
	for k := range count {
		t.Beads = append(t.Beads, knot.BeadAt{At: r3.Vec{Y: (float64(k) + 0.5) * b.LengthMM}, Bead: b})
	}
	t.Threads = []knot.Thread{{Strands: knot.Identity(len(w.Strands)), Passing: passing}}
	what, gate := "the bead", "It sits against what is above it."
	if count > 1 {
		what, gate = fmt.Sprintf("%d beads", count), "They sit against one another and what is above them."
	}
	if b.Faces != "" && b.Faces != "any" {
		gate += fmt.Sprintf(" Their faces look to the %s.", b.Faces)
	}
	t.Moves = []move.Move{{Strand: -1, Text: "Put " + what + " on {strands 0}.", Naming: [][]int{knot.Identity(len(w.Strands))},
		Detail: passing.How, Gate: gate}}
	t.Checks = []string{fmt.Sprintf("Between the knots: {%.1fmm}, as long as what is threaded there.", long)}
	return t, nil
}
