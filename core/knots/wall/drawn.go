package wall

import (
	_ "embed" // the shapes drawn up at build time
	"fmt"

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "wall", Problems: problems, Drawn: drawnBin})

func name(n, passes int) string { return fmt.Sprintf("wall of %d, passes %d", n, passes) }

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for n := least; n <= most; n++ {
		for passes := 1; passes <= 2; passes++ {
			out[name(n, passes)] = route(n, passes)
		}
	}
	return out
}
