package cover

import (
	"nimblebight/core/knot"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

var readies = memo.Cache[knot.Tied]{Most: 30 << 20}

// Kept ties a section once for a key that names all that its shape depends on. What it
// gives may be changed.
func Kept(key string, tie func() (knot.Tied, error)) (knot.Tied, error) {
	t, err := readies.Get(key, tie)
	return t.Copy(), err
}

// About moves the ways of a cover's cords to be about what they cover.
func About(paths []knot.Path, what knot.Disc) {
	for _, p := range paths {
		for _, pts := range [2][]r3.Vec{p.Points, p.Inside} {
			for i := range pts {
				pts[i].X, pts[i].Z = pts[i].X+what.X, pts[i].Z+what.Z
			}
		}
	}
}
