package knot

import (
	"fmt"
	"slices"
	"sort"
	"strings"
)

// Unknown is the error for a do that is not in the catalogue. It asks after names
// that are spelt nearly so; a different knot is never offered for it.
func Unknown(do string) error {
	short := []rune(do)
	if len(short) > 40 {
		do = string(short[:40]) + "…"
	}
	near := Nearest(do)
	if len(near) == 0 {
		return fmt.Errorf("there is no knot named %q here, and none is spelt nearly so; Add a section shows all there are", do)
	}
	return fmt.Errorf("there is no knot named %q here; did you mean %s?", do, strings.Join(near, " or "))
}

// Nearest lists the ids whose names are nearly spelt like one: no more than a
// quarter of its letters differ, and none is nearer. At most three. Where none is,
// a name that only one knot's names begin with stands for that one.
func Nearest(do string) []string {
	type cand struct {
		id string
		d  int
	}
	var cs []cand
	for id, k := range catalogue {
		d := letters(do, id)
		for _, o := range k.OtherNames {
			d = min(d, letters(do, strings.ReplaceAll(o, " ", "-")))
		}
		cs = append(cs, cand{id, d})
	}
	sort.Slice(cs, func(i, j int) bool {
		if cs[i].d != cs[j].d {
			return cs[i].d < cs[j].d
		}
		return cs[i].id < cs[j].id
	})
	var out []string
	for i := 0; i < len(cs) && i < 3 && cs[i].d <= max(1, len(do)/4) && cs[i].d == cs[0].d; i++ {
		out = append(out, cs[i].id)
	}
	if len(out) == 0 {
		for id, k := range catalogue {
			if slices.ContainsFunc(append([]string{id}, k.OtherNames...), func(name string) bool {
				return strings.HasPrefix(strings.ReplaceAll(name, " ", "-"), do+"-")
			}) {
				out = append(out, id)
			}
		}
		if len(out) > 1 {
			return nil
		}
	}
	return out
}

func letters(a, b string) int {
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i := range len(a) {
		diag := row[0]
		row[0] = i + 1
		for j := range len(b) {
			cost := diag
			if a[i] != b[j] {
				cost = 1 + min(diag, row[j], row[j+1])
			}
			diag, row[j+1] = row[j+1], cost
		}
	}
	return row[len(b)]
}
