package piece

import (
	"fmt"

	"nimblebight/core/knot"
)

// Sample is a small piece that shows a knot of the catalogue, and the index of
// the section that is that knot.
func Sample(id string) (Document, int, error) {
	k, ok := knot.Get(id)
	if !ok {
		return Document{}, 0, knot.Unknown(id)
	}
	cords, section := k.Sample.Cords, k.Sample.Section
	seq, err := Parse(k.Sample.Line)
	if err != nil {
		return Document{}, 0, fmt.Errorf("a sample of %s: %w", id, err)
	}
	d := Begin(id, "charm", SplitRing(12*float64(cords), 2), 0)
	colours := []string{Lagoon, Sand, Rust, Chalk}
	for i := range cords {
		d.Cords = append(d.Cords, Cord{ID: string(rune('A' + i)), Stuff: Kernmantle(4, colours[i])})
	}
	if cords < 3 {
		d.Cords = append(d.Cords, Cord{ID: "C", Stuff: Kernmantle(2.2, Rust)})
	}
	d.Sequence = seq
	return d, section, nil
}
