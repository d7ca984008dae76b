package twostrand

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "twostrand", Problems: problems, Drawn: drawnBin})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{"two-strand diamond": diamondRoute(), "through": throughRoute(), "doubled": doubledRoute()}
	for _, a := range accents {
		name, p := accentRoute(a)
		out[name] = p()
	}
	return out
}
