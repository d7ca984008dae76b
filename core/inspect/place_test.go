package inspect_test

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/inspect"
	"nimblebight/core/knot"
	"nimblebight/core/loosen"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// At a place in a row the slips are those of that place: none looks like the work that is
// right, each says the way back in moves, and before the first knot there are none.
func TestSlipsAtAPlace(t *testing.T) {
	d, p, _ := of(t, "mount A B, square-knot 8, finish singe-and-press", "A", "B")
	if got := inspect.At(d, p, plan.Options{}, 2); len(got) != 0 {
		t.Errorf("before the first knot: %+v", got)
	}
	const done = 2 + 4*4
	right, err := plan.Make(d, plan.Options{Until: done, Along: 1})
	if err != nil {
		t.Fatal(err)
	}
	seen := func(q plan.Plan) string {
		out := ""
		for _, s := range q.Layout().Strands {
			for _, v := range s.Points {
				out += fmt.Sprintf("%.1f %.1f %.1f ", v.X, v.Y, v.Z)
			}
		}
		return out
	}
	slips := inspect.At(d, p, plan.Options{}, done)
	if len(slips) != 3 {
		t.Fatalf("%d slips", len(slips))
	}
	for _, s := range slips {
		if seen(s.Plan) == seen(right) {
			t.Errorf("%q looks like what is right", s.Says)
		}
		if s.Back == "" {
			t.Errorf("%q has no way back", s.Says)
		}
	}
	if s := slips[0]; !strings.Contains(s.Says, "begun right, and not left") || !strings.Contains(s.Back, "Go 4 moves back: pull the end of cord") || !strings.Contains(s.Back, "Then begin left") {
		t.Errorf("%+v", s.Back)
	}
	if !strings.Contains(slips[1].Says, "spiral") || !strings.Contains(slips[2].Says, "Half a knot more") || !strings.Contains(slips[2].Back, "Go 2 moves back") {
		t.Errorf("%q, %q", slips[1].Says, slips[2].Says)
	}
}

// Two strands that came crossed to a knot cross once above it, one whole strand before the other,
// and hang below it in each other's place.
func TestStrandsThatCameCrossed(t *testing.T) {
	d, p, _ := of(t, "mount A B, crown 4, finish singe-and-press", "A", "B")
	const done = 2 + 2*4
	at := slices.IndexFunc(inspect.At(d, p, plan.Options{}, done), func(s inspect.Slip) bool { return strings.Contains(s.Says, "hang crossed") })
	if at < 0 {
		t.Fatal("crossed strands are not among the slips")
	}
	s := inspect.At(d, p, plan.Options{}, done)[at]
	if !strings.Contains(s.Back, "Go 4 moves back: pull the end of cord") {
		t.Errorf("the way back: %s", s.Back)
	}
	right, err := plan.Make(d, plan.Options{Until: done, Along: 1})
	if err != nil {
		t.Fatal(err)
	}
	ends := func(q plan.Plan) (out []r3.Vec) {
		for _, s := range q.Layout().Strands {
			out = append(out, s.Points[0], s.Points[len(s.Points)-1])
		}
		return out
	}
	// round is in which order they stand round the work's axis, from the first on.
	round := func(q plan.Plan) []int {
		at := ends(q)
		out := knot.Identity(len(at))
		slices.SortFunc(out, func(a, b int) int {
			return cmp.Compare(math.Atan2(at[a].Z, at[a].X), math.Atan2(at[b].Z, at[b].X))
		})
		first := slices.Index(out, 0)
		return slices.Concat(out[first:], out[:first])
	}
	a, b := round(right), round(s.Plan)
	swapped := 0
	for i := range a {
		c := slices.Clone(b)
		j := (i + 1) % len(c)
		c[i], c[j] = c[j], c[i]
		first := slices.Index(c, 0)
		if slices.Equal(slices.Concat(c[first:], c[:first]), a) {
			swapped++
		}
	}
	if len(a) != 4 || slices.Equal(a, b) || swapped == 0 {
		t.Errorf("they stand in the order %v, as they should in %v: no two neighbours changed places", b, a)
	}
	// Nothing passes through anything on the way.
	legs := s.Plan.Layout().Strands
	for i, x := range legs {
		for _, y := range legs[:i] {
			if g := curve.Gap(curve.Curve{Points: x.Points}, 3.1, curve.Curve{Points: y.Points}, 3.1); g < -0.8 {
				t.Errorf("strands come to %.2f mm of one another", g)
			}
		}
	}
}

// A round that follows another on its wrong side crosses it there and back. It is offered at each
// place from the first of its moves on, with how many moves to go back to it.
func TestARoundThatFollowsOnTheWrongSide(t *testing.T) {
	d, p, _ := of(t, "mount A, gap 10mm, turks-head B leads=5 bights=4, finish singe-and-press", "A", "B")
	before := p.Steps[0].Repeats*len(p.Steps[0].Actions) + len(p.Steps[1].Actions)
	acts := p.Steps[2].Actions
	first, last := -1, -1
	for k, a := range acts {
		if strings.Contains(a.Text, "last round") {
			last = k
			if first < 0 {
				first = k
			}
		}
	}
	if first < 2 || last < first+3 {
		t.Fatalf("the follow-round is moves %d to %d of %d", first, last, len(acts))
	}
	crossings := func(q plan.Plan) int {
		var own []r3.Vec
		for _, s := range q.Layout().Strands {
			if s.Cord == 1 {
				own = s.Points
			}
		}
		o := loosen.OpenedCover([][]r3.Vec{own})
		f := o.Film([][]r3.Vec{own}, 2)
		found, err := curve.Crossings([]curve.Curve{{Points: loosen.Seen(f.Frames[0], true)[0]}})
		if err != nil {
			t.Fatal(err)
		}
		return len(found)
	}
	for k := first - 1; k < len(acts); k++ {
		slips := inspect.At(d, p, plan.Options{}, before+k+1)
		offered := len(slips) > 0 && strings.Contains(slips[0].Says, "on the other side of the part that it follows")
		if offered != (k >= first) {
			t.Errorf("after move %d it is offered: %v", k+1, offered)
		}
		if !offered {
			continue
		}
		back := k + 1 - min(k, last)
		if want := fmt.Sprintf("Go %d move", back); !strings.Contains(slips[0].Back, want) || !strings.Contains(slips[0].Back, "end of cord B") {
			t.Errorf("after move %d: %s", k+1, slips[0].Back)
		}
		right, err := plan.Make(d, plan.Options{Until: before + k + 1, Along: 1})
		if err != nil {
			t.Fatal(err)
		}
		if a, b := crossings(right), crossings(slips[0].Plan); k > first && k < last && b < a+2 {
			t.Errorf("after move %d it crosses %d times, as it should %d", k+1, b, a)
		}
	}
}
