package piece

import (
	"fmt"

	"nimblebight/core/knot"
)

// Sample is a small piece that shows a knot of the catalogue, and the index of
// the section that is that knot.
func Sample(id string) (Document, int, error) {
	if _, ok := knot.Get(id); !ok {
		return Document{}, 0, knot.Unknown(id)
	}
	cords := 2
	line := "mount A B, " + id
	section := 1
	switch id {
	case "mount":
		line, section = "mount A B, gap 6mm", 0
	case "square-knot", "half-knot":
		line += " 4"
	case "switch-knot":
		line += " 2"
	case "double-half-hitch", "diamond":
		cords, line = 3, "mount A B C, "+id
	case "gap":
		line, section = "mount A B, square-knot 1, gap 12mm, square-knot 1", 2
	case "gather":
		line = "mount A B, gather C turns=5"
	case "monkeys-fist":
		line, section = "mount A B hitch=from-knot, monkeys-fist 3 mode=two-cords", 1
	case "rope-ball":
		line, section = "mount A B hitch=from-knot, rope-ball 2 side=2", 1
	case "coil-loop":
		line, section = "mount A hitch=from-knot, monkeys-fist 3 core=marble, coil-loop 5", 2
	case "snake-knot":
		line, cords, section = "mount A, snake-knot 5", 1, 1
	case "finish":
		line, section = "mount A B, square-knot 2, finish singe-and-press", 2
	case "bead":
		line += " hole=8mm long=10mm wide=13mm"
	case "overhand":
		line += " of=all"
	case "repeat":
		line = "mount A B, 2x(square-knot 1, gap 7mm)"
	case "rows":
		cords, line = 4, "mount A B C D, rows 1-4:(square-knot 5) 5-8:(square-knot 5 start=right) cross=1"
	case "fold-back":
		line, section = "mount A B, square-knot 12, fold-back 50mm, gather C turns=4", 2
	}
	seq, err := Parse(line)
	if err != nil {
		return Document{}, 0, fmt.Errorf("a sample of %s: %w", id, err)
	}
	d := Begin(id, "charm", SplitRing(12*float64(cords), 2), 0)
	colours := []string{lagoon, sand, rust, chalk}
	for i := range cords {
		d.Cords = append(d.Cords, Cord{ID: string(rune('A' + i)), Stuff: Kernmantle(4, colours[i])})
	}
	if cords < 3 {
		d.Cords = append(d.Cords, Cord{ID: "C", Stuff: Kernmantle(2.2, rust)})
	}
	d.Sequence = seq
	return d, section, nil
}
