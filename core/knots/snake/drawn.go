package snake

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = &shapes.Family{Folder: "snake", Drawn: drawnBin}

func init() {
	family.Problems = problems
	shapes.Register(family)
}

// problems are the shapes that are drawn up at build time. The first loops lie on
// the row's wraps, so they are there once the row is: when its route is changed,
// make shapes draws them in a second run.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{"snake": snakeCell()}
	if cell, ok := family.Embedded()["snake"]; ok {
		for _, s := range School("").Choices() {
			out["first "+s] = firstLoop(cell, School(s))
		}
	}
	return out
}
