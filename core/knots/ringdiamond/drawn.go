package ringdiamond

import (
	_ "embed" // the shapes drawn up at build time
	"fmt"

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "ringdiamond", Problems: problems, Drawn: drawnBin})

func name(n int, doubled bool) string {
	if doubled {
		return fmt.Sprintf("collar of %d", n)
	}
	return fmt.Sprintf("diamond of %d", n)
}

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for n := least; n <= most; n++ {
		out[name(n, false)], out[name(n, true)] = route(n, false), route(n, true)
	}
	return out
}
