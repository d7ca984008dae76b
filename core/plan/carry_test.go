package plan_test

import (
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/plan"
)

func planned(t *testing.T, line string) plan.Plan {
	t.Helper()
	d := mixed(2)
	d.Cords = d.Cords[:2]
	return make1(t, notation.With(d, line, d.Cords...), plan.Options{})
}

// Laws (1) to (3) over every place of plans that were changed in all ways.
func TestCarryKeepsItsLaws(t *testing.T) {
	lines := []string{
		"mount A B, square-knot 10, gap 12mm, half-knot 6, finish dome",
		"mount A B, square-knot 12, gap 12mm, half-knot 6, finish dome",
		"mount A B, square-knot 3, gap 12mm, half-knot 2, finish dome",
		"mount A B, square-knot 10 start=right, gap 12mm, half-knot 6, finish dome",
		"mount A B, gap 8mm, square-knot 10, gap 12mm, berry-knot 1, half-knot 6, finish dome",
		"mount A B, half-knot 6, finish dome",
		"mount A B, 3x(square-knot 2, gap 10mm), half-knot 6, finish dome",
		"mount A B, 5x(square-knot 2, gap 10mm), half-knot 6, finish dome",
		"mount A B, finish dome",
	}
	for _, a := range lines {
		from := planned(t, a)
		for _, b := range lines {
			to := planned(t, b)
			last := -len(to.Ready)
			for n := -len(from.Ready); n <= from.Actions; n++ {
				got := plan.Carry(from, to, n)
				if a == b && got != n {
					t.Errorf("%s: place %d of the same plan became %d", a, n, got)
				}
				if got < -len(to.Ready) || got > to.Actions {
					t.Errorf("%s to %s: place %d became %d of %d", a, b, n, got, to.Actions)
				}
				if got < last {
					t.Errorf("%s to %s: place %d became %d, and the one before %d", a, b, n, got, last)
				}
				last = got
			}
		}
	}
}

// The knot in hand stays in hand when the count above it is changed.
func TestAPlaceStaysAtItsKnot(t *testing.T) {
	where := func(p plan.Plan, done int) (string, int) {
		for _, s := range p.Steps {
			n := s.Repeats * len(s.Actions)
			if done < n {
				return s.Do, done / len(s.Actions)
			}
			done -= n
		}
		return "end", 0
	}
	from := planned(t, "mount A B, square-knot 10, gap 12mm, half-knot 6, finish dome")
	start := 0
	for start < from.Actions {
		if do, _ := where(from, start); do == "half-knot" {
			break
		}
		start++
	}
	in := start + 2*len(from.Steps[3].Actions) + 1 // the third half knot, one action done
	for _, line := range []string{
		"mount A B, square-knot 12, gap 12mm, half-knot 6, finish dome",
		"mount A B, square-knot 4, gap 30mm, half-knot 9, finish dome",
		"mount A B, gap 8mm, square-knot 10, berry-knot 1, gap 12mm, half-knot 6, finish dome",
		"mount A B, half-knot 6, finish dome",
	} {
		to := planned(t, line)
		if do, k := where(to, plan.Carry(from, to, in)); do != "half-knot" || k != 2 {
			t.Errorf("%s: the place is in %s, knot %d", line, do, k+1)
		}
	}
	// Fewer knots than are tied: the section is done, the next one is not.
	to := planned(t, "mount A B, square-knot 10, gap 12mm, half-knot 2, finish dome")
	if do, _ := where(to, plan.Carry(from, to, in)); do != "finish" {
		t.Errorf("with only two half knots the place is in %s", do)
	}
	// All done, and then a section more: it is still to be tied.
	to = planned(t, "mount A B, square-knot 10, gap 12mm, half-knot 6, square-knot 3, finish dome")
	tied := from.Actions - len(from.Steps[4].Actions)
	if do, k := where(to, plan.Carry(from, to, tied)); do != "square-knot" || k != 0 {
		t.Errorf("after the old last knot comes %s %d", do, k)
	}
}
