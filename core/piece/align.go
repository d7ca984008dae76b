package piece

import (
	"encoding/json"

	"nimblebight/core/knot"
)

// KeepUnknown takes the unknown fields of one sequence over to another.
func KeepUnknown(old, now []knot.Section) {
	for to, from := range Matched(old, now) {
		if from < 0 {
			continue
		}
		a, b := old[from], &now[to]
		b.Unknown = a.Unknown
		*b = b.WithUnknownOf(a)
		for r := range min(len(a.Rows), len(b.Rows)) {
			b.Rows[r].Unknown = a.Rows[r].Unknown
			KeepUnknown(a.Rows[r].Sequence, b.Rows[r].Sequence)
		}
		KeepUnknown(a.Sequence, b.Sequence)
	}
}

// Matched tells of each section of a changed sequence which one of the old it
// is, -1 for a new one. Sections that did not change are found first, the most
// of them that keep their order; between two of these the same knots are taken
// for one another from above.
func Matched(old, now []knot.Section) []int {
	names := func(seq []knot.Section) []string {
		out := make([]string, len(seq))
		for i, s := range seq {
			b, err := json.Marshal(bare(s))
			if err != nil {
				continue // it is like no other
			}
			out[i] = string(b)
		}
		return out
	}
	return Aligned(names(old), names(now), func(a, b int) bool { return old[a].Do == now[b].Do })
}

// bare is a section as a typed line can say it.
func bare(s knot.Section) knot.Section {
	s.Unknown, s.Sequence, s.Rows = nil, nil, nil
	return s.WithUnknownOf(knot.Section{})
}

// mostAligned bounds the work of finding what is alike in two lists: beyond it
// only what stands at the beginning and at the end is found.
const mostAligned = 4_000_000

// Aligned tells of each name of b which one of a it is, -1 for none: the longest
// run of names that both hold in the same order; then, between two of these and
// from the first on, those that are like one another.
func Aligned(a, b []string, like func(a, b int) bool) []int {
	out := common(a, b)
	free := 0 // the first of a that is not given yet
	for i := range b {
		if out[i] >= 0 {
			free = out[i] + 1
			continue
		}
		end := len(a)
		for _, next := range out[i+1:] {
			if next >= 0 {
				end = next
				break
			}
		}
		for k := free; k < end; k++ {
			if like(k, i) {
				out[i], free = k, k+1
				break
			}
		}
	}
	return out
}

// common finds the longest run of names that both hold in the same order.
func common(a, b []string) []int {
	out := make([]int, len(b))
	for i := range out {
		out[i] = -1
	}
	lo := 0
	for lo < len(a) && lo < len(b) && a[lo] == b[lo] {
		out[lo] = lo
		lo++
	}
	na, nb := len(a), len(b)
	for na > lo && nb > lo && a[na-1] == b[nb-1] {
		na, nb = na-1, nb-1
		out[nb] = na
	}
	a, b = a[lo:na], b[lo:nb]
	if len(a)*len(b) == 0 || len(a)*len(b) > mostAligned {
		return out
	}
	// best[i][j] is how many names the rests from i and from j share in order.
	best := make([][]int32, len(a)+1)
	for i := range best {
		best[i] = make([]int32, len(b)+1)
	}
	for i := len(a) - 1; i >= 0; i-- {
		for j := len(b) - 1; j >= 0; j-- {
			best[i][j] = max(best[i+1][j], best[i][j+1])
			if a[i] == b[j] {
				best[i][j] = max(best[i][j], 1+best[i+1][j+1])
			}
		}
	}
	for i, j := 0, 0; i < len(a) && j < len(b); {
		switch {
		case a[i] == b[j] && best[i][j] == 1+best[i+1][j+1]:
			out[lo+j] = lo + i
			i, j = i+1, j+1
		case best[i+1][j] >= best[i][j+1]:
			i++
		default:
			j++
		}
	}
	return out
}
