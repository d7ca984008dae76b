package plan_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// nearest is how near the cord laid in a section comes to any other, and to itself, in
// diameters.
func nearest(p plan.Plan, section int) float64 {
	type spot struct {
		at     r3.Vec
		strand int
		along  float64
		in     bool
	}
	var all []spot
	thick := p.Layout().Thick
	for i, s := range p.Layout().Strands {
		along := 0.0
		for k, v := range s.Points {
			if k > 0 {
				along += r3.Norm(r3.Sub(v, s.Points[k-1]))
			}
			all = append(all, spot{v, i, along, s.Section[k] == section})
		}
	}
	least := math.Inf(1)
	for _, a := range all {
		if !a.in {
			continue
		}
		for _, b := range all {
			if a.strand == b.strand && math.Abs(a.along-b.along) < math.Pi/2*thick {
				continue
			}
			least = math.Min(least, r3.Norm(r3.Sub(a.at, b.at))/thick)
		}
	}
	return least
}

// The ends of a band are led through its start where that is bare for long enough:
// they come near nothing, hang before the band to one height, and take the more cord.
// Where it is not they lie behind, and the way out makes the room.
func TestEndsAreLedThroughTheStart(t *testing.T) {
	for n := 2; n <= 4; n++ {
		mount := "mount " + strings.Join(strings.Split("ABCD", "")[:n], " ")
		for _, inner := range []string{"", " 40mm"} {
			d := on(n, fmt.Sprintf("%s, square-knot 16, fold-back%s, finish singe-and-press", mount, inner))
			behind := make1(t, d, plan.Options{})
			if codes(behind) != "start-closed" {
				t.Fatalf("%d cords: %s", n, codes(behind))
			}
			for _, s := range behind.Warnings[0].Fix.Set {
				d.Sequence = s.Value.([]knot.Section)
			}
			p := make1(t, d, plan.Options{})
			if codes(p) != "" {
				t.Errorf("with the way out: %s", codes(p))
			}
			if least := nearest(p, 3); least < knot.Free.Least() {
				t.Errorf("%d cords%s: an end comes within %.3f of a diameter", n, inner, least)
			}
			low := map[float64]bool{}
			for _, s := range p.Layout().Strands {
				for k, v := range s.Points {
					if s.Section[k] == 4 && v.Z < 0 {
						t.Errorf("%d cords%s: an end hangs behind the band at %.1f", n, inner, v.Y)
					}
				}
				for _, k := range []int{0, len(s.Points) - 1} {
					low[math.Round(10*s.Points[k].Y)] = true
				}
			}
			if len(low) != 1 {
				t.Errorf("%d cords%s: ends hang to %v", n, inner, low)
			}
			said := fmt.Sprintf("between strands %d and %d", n, n+1)
			if n == 3 { // not through the middle head
				said = "between strands 2 and 3"
			}
			if step := p.Steps[len(p.Steps)-2]; len(step.Actions) != 3 || !strings.Contains(step.Actions[1].Text, said) {
				t.Errorf("%d cords%s: %+v", n, inner, step)
			}
		}
	}
}

// BenchmarkPlanOfAStrap plans a strap whose ends are led through its start.
func BenchmarkPlanOfAStrap(b *testing.B) {
	d := on(2, "mount A B, gap 9mm, square-knot 24, fold-back, finish singe-and-press")
	n := 0
	for b.Loop() {
		n++
		d.Sequence[2].Count = 20 + n%9
		if _, err := plan.Make(d, plan.Options{}); err != nil {
			b.Fatal(err)
		}
	}
}

// A band that is folded back is best seen from where its opening shows; a fob from its
// face.
func TestAFoldIsSeenFromItsSide(t *testing.T) {
	for _, p := range patterns.All() {
		pl, err := plan.Make(p.Document, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		if folded := strings.Contains(pl.Notation, "fold-back"); (pl.Turn != 0) != folded {
			t.Errorf("%s is turned by %g to be seen", p.ID, pl.Turn)
		}
	}
}

// In hand a band is straight before it is folded, its ends are led through after that; strands run
// to the far hardware one after the other.
func TestNothingIsFoldedOrRunBeforeItIs(t *testing.T) {
	of := func(id string) piece.Document {
		for _, p := range patterns.All() {
			if p.ID == id {
				return p.Document
			}
		}
		t.Fatalf("there is no pattern %s", id)
		return piece.Document{}
	}
	at := func(d piece.Document, do string, move int, along float64) plan.Layout {
		whole, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		before := 0
		for _, s := range whole.Steps {
			if s.Do == do {
				break
			}
			before += s.Repeats * len(s.Actions)
		}
		p, err := plan.Make(d, plan.Options{Until: before + move + 1, Along: along})
		if err != nil {
			t.Fatal(err)
		}
		return p.Layout()
	}
	low := func(l plan.Layout) float64 {
		most := 0.0
		for _, s := range l.Sections {
			most = math.Max(most, s[1])
		}
		return most
	}
	strap := of("wrist-strap")
	straight, folded := at(strap, "fold-back", 0, 0.2), at(strap, "fold-back", 0, 1)
	if low(straight) < 1.8*low(folded) {
		t.Errorf("before the fold the band reaches down to %.0f mm, folded to %.0f", low(straight), low(folded))
	}
	crossed := func(l plan.Layout) int {
		var cs []curve.Curve
		for _, s := range l.Strands {
			cs = append(cs, curve.Curve{Points: s.Points})
		}
		found, err := curve.Crossings(cs)
		if err != nil {
			return -1
		}
		return len(found)
	}
	if a, b := crossed(folded), crossed(at(strap, "fold-back", 1, 1)); a == b {
		t.Errorf("led through, the ends cross %d times as before", a)
	}
	legs := func(l plan.Layout) (long []float64) {
		for _, s := range l.Strands {
			long = append(long, curve.Curve{Points: s.Points}.Length())
		}
		slices.Sort(long)
		return long
	}
	tether := of("locker-tether")
	first, second := legs(at(tether, "run-back", 0, 1)), legs(at(tether, "run-back", 1, 1))
	if first[0] > 0.5*first[len(first)-1] || second[0] < 0.8*second[len(second)-1] {
		t.Errorf("after the first has run strands are %.0f mm long, after the second %.0f", first, second)
	}
}
