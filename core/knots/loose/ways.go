package loose

import (
	"fmt"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

// Way is one in which a knot may be tied: a section of it, and what that says beyond the default.
type Way struct {
	Section knot.Section
	Says    string
}

// mostCount is up to which a setting that is a number is no matter of size, but of how a knot is tied.
const mostCount = 3

// Ways are those of a knot, the default first: all its choices, but those that a mirror turns, with
// one another.
func Ways(k knot.Knot) []Way {
	s, err := knot.New(k.ID)
	if err != nil {
		return []Way{{}}
	}
	out := []Way{{Section: s}}
	for _, f := range k.Fields {
		if f.Default == "" || f.Sided() {
			continue
		}
		var values []any
		for _, c := range f.Choices {
			values = append(values, c)
		}
		if f.Kind == "count" && f.Most <= mostCount {
			for n := f.Least; n <= f.Most; n++ {
				values = append(values, n)
			}
		}
		for _, w := range slices.Clone(out) {
			for _, v := range values {
				if _, said := w.Section.Value(f); !said || fmt.Sprint(v) == f.Default {
					continue
				}
				says := fmt.Sprintf("%s=%v", f.Short, v)
				if w.Says != "" {
					says = w.Says + " " + says
				}
				out = append(out, Way{w.Section.With(f, v), says})
			}
		}
	}
	return out
}

// Strands of two knots that lie nowhere farther from one another than this, diameters, are drawn up
// alike; they are compared at so many nodes.
const alikeTo, alikeNodes = 0.3, 200

// alike tells whether the strands of two problems lie alike, or do in a mirror.
func alike(a, b loosen.Problem) bool {
	if len(a.Strands) != len(b.Strands) || a.Across != b.Across {
		return false
	}
	nodes := func(p loosen.Problem, i int) []r3.Vec {
		return curve.Curve{Points: p.Strands[i].Points}.Resample(alikeNodes).Points
	}
	n := len(a.Strands)
	for _, mirror := range []bool{false, true} {
		same := true
		for i := 0; i < n && same; i++ {
			other := nodes(b, i)
			if mirror {
				other = nodes(b, n-1-i)
			}
			for k, v := range nodes(a, i) {
				w := other[k]
				if mirror {
					w.X = -w.X
				}
				same = same && r3.Norm(r3.Sub(v, w)) <= alikeTo
			}
		}
		if same {
			return true
		}
	}
	return false
}
