package cover

import (
	"fmt"
	"math"

	"nimblebight/core/knot"

	"gonum.org/v1/gonum/spatial/r3"
)

// OnCore refuses a core, so many mm across, that the strands inside it do not pass; they
// make thick together.
func OnCore(core, thick float64) error {
	if core >= thick {
		return nil
	}
	fits := math.Ceil(thick) + 2
	return &knot.Refused{Field: "over_mm", Why: fmt.Sprintf("the core is %.1f mm across, but the strands inside it take %.1f mm; it must be thicker than they are", core, thick),
		Set: fits, Label: fmt.Sprintf("Take a core of %.0f mm", fits)}
}

// Core is a core on strands, about their middle, as long as a section is high.
func Core(across, high float64, about knot.Disc) knot.BeadAt {
	return knot.BeadAt{At: r3.Vec{X: about.X, Y: high / 2, Z: about.Z}, Bead: knot.Bead{HoleMM: 0.9 * across, LengthMM: high, WidthMM: across, Shape: "disc", Colour: "#c8a06a"}}
}
