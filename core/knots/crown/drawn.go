package crown

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "crown", Problems: problems, Drawn: drawnBin})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for n := least; n <= most; n++ {
		out[name(n, true)], out[name(n, false)] = cellOf(n, true), cellOf(n, false)
	}
	return out
}
