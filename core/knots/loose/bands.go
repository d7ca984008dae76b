package loose

import (
	"cmp"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/loosen"
)

// inBands is a knot whose moves lead its strands two and two, in the way of a knot in which one
// strand stands for each two; films are those of that knot. Not ok for any other.
func inBands(k knot.Knot, strands int, films []knot.Film) (loosen.Problem, bool) {
	s, ok := once(k, Ways(k)[0].Section, strands)
	if !ok {
		return loosen.Problem{}, false
	}
	t, _, ok := tied(s, strands)
	if !ok {
		return loosen.Problem{}, false
	}
	var of [][2]int
	for _, m := range t.Moves {
		if m.Strand < 0 || len(m.With) != 1 {
			continue
		}
		if pair := [2]int{min(m.Strand, m.With[0]), max(m.Strand, m.With[0])}; !slices.Contains(of, pair) {
			of = append(of, pair)
		}
	}
	i := slices.IndexFunc(films, func(f knot.Film) bool { return f.Across && len(f.Frames[0]) == len(of) })
	if 2*len(of) != strands || i < 0 {
		return loosen.Problem{}, false
	}
	stands := func(pair [2]int) float64 { return t.Paths[pair[0]].Points[0].X + t.Paths[pair[1]].Points[0].X }
	slices.SortFunc(of, func(a, b [2]int) int { return cmp.Compare(stands(a), stands(b)) })
	p, ok := Tied(s, strands)
	p.Route, p.Bands = nil, &loosen.Bands{Film: loosen.Film(films[i]), Of: of}
	return p, ok
}
