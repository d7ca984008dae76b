package row

import (
	_ "embed" // the shapes drawn up at build time

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

//go:embed frames.bin
var framesBin []byte

var family = shapes.Register(&shapes.Family{Folder: "row", Problems: problems, Drawn: drawnBin, Moving: moving, Frames: framesBin})

// problems are the rows that are drawn up at build time: flat ones, flat ones of
// two unlike workers, and spirals.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, t := range familyThick {
		for _, n := range familyCount {
			if inFamily(n, t) {
				key, p := flatCell(1, same(n, t))
				out[key] = p()
			}
		}
	}
	unequalProblems(out)
	for _, t := range spiralThick {
		for n := 1; n <= mostSpiral; n++ {
			if inSpirals(n, t) {
				key, p := spiralCell(1, same(n, t))
				out[key] = p()
			}
		}
	}
	for _, t := range spiralPairs {
		key, p := pairCell(t)
		out[key] = p()
	}
	return out
}
