package knot

import (
	"math"

	"nimblebight/core/tighten"
)

// Crown sinnets of four strands: each strand over its neighbour, the last
// through the first bight.
//
// Laid square, every strand is led straight across and comes back in the same
// place: straight columns of colour. Laid round, each crown goes on across the
// diagonal in the direction kept, and the columns spiral.
func init() {
	addRoute(Route{
		Name: "crown-sinnet", Family: "four strands", About: "four strands crowned again and again, laid square", Sinnet: true,
		Problem: func() tighten.Problem { return crownCell(true) },
		Measure: perStrand, Of: "a strand a crown", Published: 6.26, Share: 0.02, Height: 2.01,
	})
	addRoute(Route{
		Name: "round-crown-sinnet", Family: "four strands", About: "four strands crowned again and again, laid round", Sinnet: true,
		Problem: func() tighten.Problem { return crownCell(false) },
		Measure: perStrand, Of: "a strand a crown", Published: 6.06, Share: 0.02, Height: 1.78,
	})
}

// crownCell is one crown: the four lines of a # sign, each beginning high and
// ending low.
func crownCell(square bool) tighten.Problem {
	const a, b, pitch = 0.75, 2.0, 3.2
	// The line of strand 0 in the plane across the work; y is down it.
	line := []Vec{{X: -a, Y: 1.5, Z: b}, {X: -a, Y: 2.1, Z: a + 0.3}, {X: -a, Y: 1.5, Z: 0}, {X: -a, Y: 0.9, Z: -a - 0.3}, {X: -a, Y: 1.5, Z: -b}}
	p := tighten.Problem{Cell: &tighten.Cell{Pitch: pitch, Mirror: square}}
	if !square {
		p.Cell.FreeTwist, p.Cell.Twist = true, 0.6
	}
	next := []int{2, 3, 0, 1} // across, to where the opposite line began
	if square {
		// The mirror takes the lines across it to their own other ends.
		next = []int{2, 1, 0, 3}
	}
	for i := range 4 {
		p.Strands = append(p.Strands, tighten.Strand{Route: turnRoute(line, float64(i)*math.Pi/2), Diameter: 1, Next: next[i]})
	}
	return p
}
