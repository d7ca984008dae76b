package cover

import (
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

var readies = memo.Cache[knot.Tied]{Most: 30 << 20}

// Kept ties a section once for a key that names all that its shape depends on. What it
// gives may be changed.
func Kept(key string, tie func() (knot.Tied, error)) (knot.Tied, error) {
	t, err := readies.Get(key, tie)
	t.Paths, t.Own, t.Flat, t.OwnFlat = copied(t.Paths), copied(t.Own), copied(t.Flat), copied(t.OwnFlat)
	t.Moves, t.Order, t.Workers = slices.Clone(t.Moves), slices.Clone(t.Order), slices.Clone(t.Workers)
	t.Beads = slices.Clone(t.Beads)
	return t, err
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

func copied(paths []knot.Path) []knot.Path {
	out := slices.Clone(paths)
	for i, p := range out {
		out[i].Points, out[i].Inside = slices.Clone(p.Points), append([]r3.Vec(nil), p.Inside...)
	}
	return out
}
