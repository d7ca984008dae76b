package patterns

import (
	"fmt"

	"nimblebight/core/knot"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
)

// Sample is a small piece that shows a knot of the catalogue, and the index of
// the section that is that knot.
func Sample(id string) (piece.Document, int, error) {
	k, ok := knot.Get(id)
	if !ok {
		return piece.Document{}, 0, knot.Unknown(id)
	}
	cords, section := k.Sample.Cords, k.Sample.Section
	seq, err := notation.Parse(k.Sample.Line)
	if err != nil {
		return piece.Document{}, 0, fmt.Errorf("a sample of %s: %w", id, err)
	}
	d := piece.Begin(id, "charm", piece.SplitRing(12*float64(cords), 2), 0)
	colours := []string{piece.Lagoon, piece.Sand, piece.Rust, piece.Chalk}
	for i := range cords {
		d.Cords = append(d.Cords, piece.Cord{ID: string(rune('A' + i)), Stuff: piece.Kernmantle(4, colours[i])})
	}
	if cords == 1 && section < len(seq) && knot.TermsOf(seq[section]).Takes.Least == 2 && knot.TermsOf(seq[section]).Takes.Most == 2 {
		// Two strands are told apart where they are of two colours: two cords fused to one.
		d.Cords = append(d.Cords, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, colours[1]), JoinedTo: "A"})
	}
	if cords < 3 {
		d.Cords = append(d.Cords, piece.Cord{ID: "C", Stuff: piece.Kernmantle(2.2, piece.Rust)})
	}
	d.Sequence = seq
	for _, s := range seq {
		if of, _ := knot.Get(s.Do); of.RunsBack != nil {
			far := d.Purpose.HangsOn
			d.Purpose.EndsOn = &far
		}
	}
	return d, section, nil
}
