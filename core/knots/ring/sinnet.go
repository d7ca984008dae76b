package ring

import (
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/shapes"

	"gonum.org/v1/gonum/spatial/r3"
)

// Sinnet lays so many cells of a sinnet of a ring one below the other, the thickest
// strand deciding its size. They are drawn up; where strands come into the first and go
// out of the last they are constructed, and moved clear of one another. Besides, it gives
// the line of each strand of the ring before that, mm, and its place.
//
// straight is how much of a diameter they run straight down into the first cell and out
// of the last; where it is 0 they come and go as they lie.
func Sinnet(w knot.Work, shape shapes.Shape, mirror bool, next []int, count int, straight float64) (t knot.Tied, lines [][]r3.Vec, as []int) {
	n := len(w.Strands)
	d := Thickest(w)
	cell := shape.Cell(mirror)
	threads := shape.Lay(cell, next, count)
	top, low := math.Inf(1), math.Inf(-1)
	for _, pts := range threads {
		for _, v := range pts {
			top, low = math.Min(top, v.Y), math.Max(low, v.Y)
		}
	}
	t = knot.Tied{Loose: true, Snug: true, Around: true, Repeats: count, Gap: shape.Gap, Workers: knot.Identity(n), Height: d * (low - top + 2*straight)}
	if straight > 0 {
		t.Clear = 0.2 * d
	}
	for _, pts := range threads {
		line := knot.Curve(pts).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, r3.Vec{X: v.X, Y: v.Y - top + straight, Z: v.Z}) }).Points
		if straight > 0 {
			first, last := line[0], line[len(line)-1]
			line = append(slices.Insert(line, 0, r3.Vec{X: first.X, Z: first.Z}), r3.Vec{X: last.X, Y: t.Height, Z: last.Z})
		}
		lines = append(lines, line)
	}
	// Places are counted where strands come in, and again where they go out.
	in := Clockwise(n, func(i int) r3.Vec { return lines[i][0] })
	cleared := lines
	if straight > 0 {
		cleared = knot.Clear(lines, d)
	}
	as = make([]int, n)
	for place, i := range in {
		t.Paths = append(t.Paths, knot.Path{Points: cleared[i]})
		as[i] = place
	}
	cells, ends := knot.Identity(n), make([]int, n) // the strand that each thread is of the next cell, and where that begins
	for range count {
		for i := range n {
			ends[i] += len(shape.Strands[cells[i]])
			cells[i] = next[cells[i]]
		}
		var order []int
		for _, i := range Clockwise(n, func(i int) r3.Vec { return threads[i][ends[i]-1] }) {
			order = append(order, as[i])
		}
		t.Orders = append(t.Orders, order)
	}
	t.Order = slices.Clone(t.Orders[count-1])
	t.Cells = append(t.Cells, 0)
	for k := 1; k < count; k++ {
		t.Cells = append(t.Cells, d*(float64(k)*shape.Pitch+straight))
	}
	t.Cells = append(t.Cells, t.Height)
	t.Turned = math.Remainder(float64(count)*cell.Twist, 2*math.Pi/float64(n))
	return t, lines, as
}
