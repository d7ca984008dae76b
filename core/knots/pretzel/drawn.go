package pretzel

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "pretzel", Problems: problems, Drawn: drawnBin})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{"pretzel": pretzel(), "row": row()}
	for _, w := range wires {
		out[w.name()] = w.problem()
	}
	return out
}
