package patterns

import (
	"fmt"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/fist"
	"nimblebight/core/knots/mount"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
)

// OfBall is a whole piece round a ball: what makers hang it by as the mode has
// it, in the stuffs of its cords.
func OfBall(a ball.Ask, stuffs []cord.Stuff) piece.Document {
	first := fist.Of(a)
	cords, _ := fist.Legs(first)
	d := piece.Begin(fmt.Sprintf("Fist of %d", a.Passes), "fist", piece.SplitRing(30, 2), 0)
	var names []string
	melts := true
	for i := range cords {
		c := piece.Cord{ID: string(rune('A' + i)), Stuff: stuffs[i%len(stuffs)]}
		names = append(names, c.ID)
		d.Cords = append(d.Cords, c)
		melts = melts && c.Stuff.Material.Melts()
	}
	rest := "coil-loop 6"
	switch {
	case a.Mode == ball.Doubled && melts:
		rest = "square-knot 6, finish singe-and-press"
	case a.Mode == ball.Doubled:
		rest = "square-knot 6, finish cut-straight length=30mm"
	case a.Strands() == 2 && melts:
		rest = "snake-knot 8, finish fuse length=60mm"
	case a.Strands() == 2:
		rest = "snake-knot 8, overhand, finish cut-straight length=30mm"
	}
	if a.Mode == ball.TwoCords && melts {
		d.Cords[1].JoinedTo = "A"
	}
	seq, err := notation.Parse(rest)
	if err != nil {
		panic("patterns: the rest of a ball: " + err.Error())
	}
	d.Sequence = append([]knot.Section{mount.Of(mount.FromKnot, names...), first}, seq...)
	return d
}
