// Package ringin takes a ring in: strands are led through it on their way.
package ringin

import (
	"encoding/json"
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/unknown"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a ring that is taken in.
type Settings struct {
	InnerMM float64     `json:"inner_mm,omitempty" typed:"inner" label:"inner width" most:"300" begin:"20" needed:"yes"`
	WireMM  float64     `json:"wire_mm,omitempty" typed:"wire" label:"wire" most:"20" begin:"2" needed:"yes"`
	Colour  knot.Colour `json:"colour,omitempty" typed:"colour" label:"its colour"`

	// Unknown are the fields that a ring in another knot's settings did not know.
	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the ring with the fields it did not know.
func (s Settings) MarshalJSON() ([]byte, error) {
	type plain Settings
	return unknown.Marshal(plain(s), s.Unknown)
}

// Ring taken in: in the middle of a piece, or before its last knot, the strands are led
// through a ring from the front: over its upper wire and behind its lower one. The
// knots above and below hold it.
//
// Right: the ring lies flat and all strands pass it alike. Wrong: one strand beside the
// ring; it hangs by the others alone.
func init() {
	knot.Add(knot.Knot{
		ID: "ring-in", Name: "ring taken in", Family: "beads",
		OtherNames: []string{"ring in the middle", "D-ring"},
		For:        "a second ring in the middle of a piece, or under its last knot",
		Schools:    []knot.School{{Field: "inner_mm", Default: "20mm", Why: "a common key ring; the strands must lie in it side by side"}},
		Glyph:      "M12 5a7 7 0 1 1 0 14 7 7 0 1 1 0-14zM10 2v13M14 2v13M10 20v2M14 20v2",
		Places:     true,
		Settings:   Settings{},
		Terms:      func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 1}} },
		Tie:        tie,
		Sample:     knot.Sample{Line: "mount A B, square-knot 1, ring-in inner=24mm wire=2mm, square-knot 1", Cords: 2, Section: 2},
	})
}

// Hung is the ring where the middle of its upper wire lies at a place, mm.
func (s Settings) Hung(wire r3.Vec) knot.BeadAt {
	colour := s.Colour
	if colour == "" {
		colour = "#aab4b6"
	}
	across := s.InnerMM + 2*s.WireMM
	return knot.BeadAt{At: r3.Add(wire, r3.Vec{Y: (s.InnerMM + s.WireMM) / 2}), Bead: knot.Bead{HoleMM: s.InnerMM, LengthMM: across, WidthMM: across, Colour: colour, Shape: knot.RingShape}}
}

func tie(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	xs, row, thick := knot.SideBySide(w.Strands)
	// They pass the wire where it still runs across them: over nine tenths of its width.
	if least := math.Ceil(math.Max(row/0.9, 1.8*thick)); set.InnerMM < least {
		return knot.Tied{}, &knot.Refused{Field: "inner_mm", Why: fmt.Sprintf("%g mm; %d strands lie %.1f mm wide side by side, so it takes %g mm", set.InnerMM, len(xs), row, least), Set: least, Label: fmt.Sprintf("Take a ring of %g mm", least)}
	}
	r := (set.InnerMM + set.WireMM) / 2
	lead := 1.1 * thick
	middle := lead + set.WireMM/2 + r
	t := knot.Tied{Height: 2 * middle, Repeats: 1, Gap: 1, Order: knot.Identity(len(xs)), Clear: 0.3 * thick}
	for i, x := range xs {
		off := 1.1 * (set.WireMM + w.Strands[i].Diameter) / 2 // a little clear of it, for it comes and goes aslant
		half := math.Sqrt(r*r - x*x)
		pts := []r3.Vec{{X: x}, {X: x, Y: middle - half, Z: off}, {X: x, Y: middle}, {X: x, Y: middle + half, Z: -off}, {X: x, Y: t.Height}}
		t.Paths = append(t.Paths, knot.Path{Points: curve.Spline(pts, false).Points})
	}
	t.Beads = []knot.BeadAt{set.Hung(r3.Vec{Y: middle - r})}
	t.Moves = []move.Move{{Strand: -1, Naming: [][]int{knot.Identity(len(xs))}, Text: "Lead {strands 0} through the ring from the front: over its upper wire and behind its lower one.",
		Detail: "Pin the ring till the next knot holds it.", Gate: "The ring lies flat, and every strand passes it alike."}}
	return t, nil
}
