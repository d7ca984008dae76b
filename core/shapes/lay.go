package shapes

import (
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Cell is the cell of a shape that repeats, mirrored in x from one to the next
// where mirror is set.
func (s Shape) Cell(mirror bool) tighten.Cell {
	return tighten.Cell{Pitch: s.Pitch, Twist: s.Twist, Mirror: mirror}
}

// Lay lays count cells one under the other: the threads that begin at each strand
// of the first, where strand i goes on as strand next[i] of the cell below.
func (s Shape) Lay(cell tighten.Cell, next []int, count int) [][]r3.Vec {
	out := make([][]r3.Vec, len(s.Strands))
	for i := range out {
		at := i
		for k := range count {
			for _, v := range s.Strands[at] {
				out[i] = append(out[i], tighten.Image(cell, k, v))
			}
			at = next[at]
		}
	}
	return out
}
