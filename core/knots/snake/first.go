package snake

import (
	"nimblebight/core/curve"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// The first loop has no wrap above it to be led through, so it does not lie as the
// others do. It is drawn up for itself, and the wraps below it lie still as they do in
// the endless row: so each wrap more adds the same.

// lattice is one strand of the endless row from the first wrap on: the one that
// makes it, or the other.
func lattice(cell shapes.Shape, thread, wraps int) []r3.Vec {
	c := cell.Cell(false)
	var out []r3.Vec
	for k := thread; k < wraps; k += 2 {
		for i, pts := range cell.Strands {
			for _, v := range pts {
				out = append(out, tighten.Image(c, k+i, v))
			}
		}
	}
	return out
}

// free is how many points of the lattice the first loop's shape stands for: up to
// where the strand that makes it comes to its second wrap, and where the other comes
// to its first.
func free(cell shapes.Shape, thread int) int {
	if thread == 0 {
		return len(cell.Strands[0]) + len(cell.Strands[1])
	}
	return 1
}

// firstWraps are the wraps of the row that the first loop is drawn up with.
const firstWraps = 7

// firstLoop is the first loop above the wraps of a drawn-up row.
func firstLoop(cell shapes.Shape, school School) tighten.Problem {
	const far = 8.0 // diameters: how far above the strands are held
	var out tighten.Problem
	var rest [][]r3.Vec
	for thread := range 2 {
		line := lattice(cell, thread, firstWraps)
		held := free(cell, thread)
		first := line[0]
		route := []r3.Vec{{X: first.X, Y: first.Y - far, Z: first.Z}, {X: first.X, Y: first.Y - 3, Z: first.Z}, {X: first.X, Y: first.Y - 1.5, Z: first.Z}}
		if thread == 0 {
			// As it lies in the row, round the other strand and to the front of its
			// own standing part; from there on without the loop above.
			turn, edge := len(cell.Strands[0]), len(cell.Strands[1])
			switch school {
			case "round-both":
				// The turn rises in front of the other and of its own standing part,
				// goes on round that, and the end goes down inside the turn: an
				// overhand round the other strand.
				route = []r3.Vec{{X: 0.9, Y: -far, Z: -0.3}, {X: 0.9, Y: -4, Z: -0.3}, {X: 0.9, Y: -2.2, Z: -0.3}, {X: 0.5, Y: -1.5, Z: -0.8}, {Y: -1.1, Z: -1.2}, {X: -0.5, Y: -0.85, Z: -1.4}}
				route = append(route, line[8:turn-16]...)
				route = append(route, r3.Vec{X: -1, Y: -0.9, Z: 1.3}, r3.Vec{X: -0.6, Y: -2, Z: 1.5}, r3.Vec{X: 0.5, Y: -2.9, Z: 0.8},
					r3.Vec{X: 1.7, Y: -3, Z: 0}, r3.Vec{X: 1.4, Y: -2.7, Z: -1.4}, r3.Vec{X: 0.3, Y: -2.4, Z: -1.6}, r3.Vec{X: -0.5, Y: -1.9, Z: -0.8},
					r3.Vec{X: -0.35, Y: -1.25, Z: -0.25}, r3.Vec{X: 0.2, Y: -0.75, Z: -0.2}, r3.Vec{X: 0.6, Y: -0.3, Z: -0.35}, r3.Vec{X: 0.4, Y: 0.3, Z: -0.45})
				route = append(route, line[turn+edge:held]...)
			default:
				route = append(route, line[:turn-9]...)
				route = append(route, r3.Vec{X: 0.9, Y: -1, Z: 0.6}, r3.Vec{X: 1.5, Y: -0.6, Z: 0})
				route = append(route, line[turn+7:held]...)
			}
		} else {
			route = append(route, line[:held]...)
		}
		out.Strands = append(out.Strands, tighten.Strand{Route: route, Diameter: 1})
		rest = append(rest, line[held:])
	}
	parted, _ := tighten.Part(out.Strands)
	for i := range out.Strands {
		below := curve.Curve{Points: rest[i]}
		out.Strands[i].Route = append(parted[i].Points, rest[i]...)
		out.Held = append(out.Held, below.Length())
	}
	return out
}
