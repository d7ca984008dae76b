package overhand

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "overhand", Problems: problems, Drawn: drawnBin})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, d := range legCores {
		key, p := overhandRound(d)
		out[key] = p()
	}
	out["overhand"], out["figure-eight"] = overhandRoute(), eightRoute()
	return out
}
