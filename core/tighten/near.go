package tighten

import (
	"math"
	"slices"

	"gonum.org/v1/gonum/spatial/r3"
)

// near finds which of many points lie close to another: a grid of cubes, so
// that only the cubes round a point are looked into. The time grows with the
// number of points, not with its square.
type near struct {
	points     []r3.Vec
	reach      float64
	cell       float64
	low        r3.Vec
	nx, ny, nz int
	start      []int32 // first of each cube in items
	items      []int32 // points by cube
	found      []int
}

func newNear(points []r3.Vec, reach float64) *near {
	n := &near{points: points, reach: reach, cell: math.Max(reach, 1e-9)}
	inf := math.Inf(1)
	low, high := r3.Vec{X: inf, Y: inf, Z: inf}, r3.Vec{X: -inf, Y: -inf, Z: -inf}
	for _, p := range points {
		low = r3.Vec{X: math.Min(low.X, p.X), Y: math.Min(low.Y, p.Y), Z: math.Min(low.Z, p.Z)}
		high = r3.Vec{X: math.Max(high.X, p.X), Y: math.Max(high.Y, p.Y), Z: math.Max(high.Z, p.Z)}
	}
	span := r3.Sub(high, low)
	// A few far points must not make a million empty cubes.
	for span.X/n.cell*(span.Y/n.cell+1)*(span.Z/n.cell+1) > 8*float64(len(points)+8) {
		n.cell *= 1.5
	}
	n.low = low
	n.nx, n.ny, n.nz = int(span.X/n.cell)+1, int(span.Y/n.cell)+1, int(span.Z/n.cell)+1
	n.start = make([]int32, n.nx*n.ny*n.nz+1)
	cubes := make([]int32, len(points))
	for i, p := range points {
		x, y, z := n.cube(p)
		cubes[i] = int32((z*n.ny+y)*n.nx + x)
		n.start[cubes[i]+1]++
	}
	for i := 1; i < len(n.start); i++ {
		n.start[i] += n.start[i-1]
	}
	n.items = make([]int32, len(points))
	next := slices.Clone(n.start)
	for i, c := range cubes {
		n.items[next[c]] = int32(i)
		next[c]++
	}
	return n
}

func (n *near) cube(p r3.Vec) (x, y, z int) {
	return int(math.Floor((p.X - n.low.X) / n.cell)), int(math.Floor((p.Y - n.low.Y) / n.cell)), int(math.Floor((p.Z - n.low.Z) / n.cell))
}

// of lists, in order, the points from number from on that lie within reach of
// p. The list is overwritten by the next call.
func (n *near) of(p r3.Vec, from int) []int {
	n.found = n.found[:0]
	cx, cy, cz := n.cube(p)
	x0, x1 := max(cx-1, 0), min(cx+1, n.nx-1)
	if x0 > x1 {
		return n.found
	}
	for z := max(cz-1, 0); z <= min(cz+1, n.nz-1); z++ {
		for y := max(cy-1, 0); y <= min(cy+1, n.ny-1); y++ {
			row := (z*n.ny + y) * n.nx
			for _, i := range n.items[n.start[row+x0]:n.start[row+x1+1]] {
				if int(i) >= from && r3.Norm2(r3.Sub(n.points[i], p)) <= n.reach*n.reach {
					n.found = append(n.found, int(i))
				}
			}
		}
	}
	slices.Sort(n.found)
	return n.found
}
