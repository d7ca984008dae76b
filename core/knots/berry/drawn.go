package berry

import (
	_ "embed" // the shapes drawn up at build time, and what they begin with
	"sync"

	"nimblebight/core/shapes"
	"nimblebight/core/tighten"
)

//go:embed drawn.bin
var drawnBin []byte

//go:embed start.bin
var startBin []byte

var family = shapes.Register(&shapes.Family{Folder: "berry", Problems: problems, Drawn: drawnBin})

// dressed are the berries as they were dressed, by name.
var dressed = sync.OnceValue(func() map[string]shapes.Shape {
	m, err := shapes.Unpack(startBin)
	if err != nil {
		panic("berry: start.bin cannot be read: run the command in dress: " + err.Error())
	}
	return m
})

// problems are the shapes that are drawn up at build time.
func problems() map[string]tighten.Problem {
	out := map[string]tighten.Problem{}
	for _, b := range All() {
		if len(dressed()[b.String()].Strands) > 0 {
			out[b.String()] = b.problem()
		}
	}
	return out
}
