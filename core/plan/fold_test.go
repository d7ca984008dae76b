package plan_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
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
