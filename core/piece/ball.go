package piece

import (
	"fmt"
	"math"

	"nimblebight/core/cord"
	"nimblebight/core/fist"
	"nimblebight/core/knot"
)

// OfBall is a whole piece round a ball: what makers hang it by as the mode has
// it, in the stuffs of its cords.
func OfBall(a fist.Ask, stuffs []cord.Stuff) Document {
	ball := knot.Section{Do: "monkeys-fist", Passes: a.Passes, Mode: string(a.Mode), Begins: "hidden"}
	if a.Tail {
		ball.Begins = "with-tail"
	}
	if a.Core.Kind != "" && (a.Core.Kind != fist.Stopper || a.Core.DiameterMM > 0) {
		core := a.Core
		core.DiameterMM = math.Round(10*core.DiameterMM) / 10
		ball.Core = &core
	}
	cords, _ := knot.FistLegs(ball)
	d := Begin(fmt.Sprintf("Fist of %d", a.Passes), "fist", SplitRing(30, 2), 0)
	mount := knot.Section{Do: "mount", Hitch: "from-knot"}
	for i := range cords {
		c := Cord{ID: string(rune('A' + i)), Stuff: stuffs[i%len(stuffs)]}
		mount.Cords = append(mount.Cords, c.ID)
		d.Cords = append(d.Cords, c)
	}
	melts := true
	for _, c := range d.Cords {
		melts = melts && c.Stuff.Material.Melts()
	}
	rest := "coil-loop 6"
	switch {
	case a.Mode == fist.Doubled && melts:
		rest = "square-knot 6, finish singe-and-press"
	case a.Mode == fist.Doubled:
		rest = "square-knot 6, finish cut-straight length=30mm"
	case a.Strands() == 2 && melts:
		rest = "snake-knot 8, finish fuse length=60mm"
	case a.Strands() == 2:
		rest = "snake-knot 8, overhand, finish cut-straight length=30mm"
	}
	if a.Mode == fist.TwoCords && melts {
		d.Cords[1].JoinedTo = "A"
	}
	seq, err := Parse(rest)
	if err != nil {
		panic("piece: the rest of a ball: " + err.Error())
	}
	d.Sequence = append([]knot.Section{mount, ball}, seq...)
	return d
}
