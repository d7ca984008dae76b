package wall

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

var family = shapes.Register(&shapes.Family{Folder: "wall", Problems: problems, Drawn: drawnBin, Slow: slow})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, f := range forms() {
		out[f.name()] = f.route()
	}
	return out
}

// slow gives what is followed the steps that it needs: so long a cord comes home slowly.
func slow(name string) tighten.Settings {
	for _, f := range forms() {
		if f.crown == Followed && f.name() == name {
			return tighten.Settings{MaxSteps: 3 * tighten.UsualSteps}
		}
	}
	return tighten.Settings{}
}
