package crowndiamond

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "crowndiamond", Problems: problems, Drawn: drawnBin})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, f := range []Form{Short, Long} {
		for _, g := range []Gap{Lower, Upper} {
			out[nameOf(f, g)] = route(f, g)
		}
	}
	return out
}
