package plan

import (
	"fmt"
	"slices"
	"strings"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// described says a piece for those who do not see it: how long it is, what it hangs on, the
// colour of every cord, and what is tied, in order, with the cords that tie it. {12.3mm} is a
// length.
func described(d piece.Document, p Plan) string {
	var out []string
	on := d.Purpose.HangsOn.Type
	for _, f := range piece.Fittings() {
		if f.ID == on {
			on = f.Name
		}
	}
	out = append(out, fmt.Sprintf("{%.0fmm} long, on %s.", p.LengthMM, on))
	for _, c := range p.Cords {
		out = append(out, fmt.Sprintf("Cord %s is %s.", c.ID, c.ColourName))
	}
	for n, s := range p.Sections {
		name := strings.ReplaceAll(s.Do, "-", " ")
		if k, ok := knot.Get(s.Do); ok {
			name = k.Name
		}
		if s.Count > 1 {
			name = fmt.Sprintf("%s, %d times", name, s.Count)
		}
		var works, over []string
		for _, u := range s.Use {
			to := &over
			if u.Works {
				to = &works
			}
			if !slices.Contains(*to, u.Cord) {
				*to = append(*to, u.Cord)
			}
		}
		over = slices.DeleteFunc(over, func(id string) bool { return slices.Contains(works, id) })
		switch {
		case len(works) > 0 && len(over) > 0:
			name += fmt.Sprintf(": %s over %s", knot.List(works), knot.List(over))
		case len(works)+len(over) > 0:
			name += ": " + knot.List(append(works, over...))
		}
		out = append(out, fmt.Sprintf("%d. %s.", n+1, name))
	}
	return strings.Join(out, " ")
}
