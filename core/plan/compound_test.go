package plan_test

import (
	"strings"
	"testing"

	"nimblebight/core/plan"
)

// The crossing of rows says which of them lies in front, and the curves say the
// same, by both hands; it is a step of its own, once for each crossing.
func TestTheCrossingOfRowsSaysWhichLiesInFront(t *testing.T) {
	for _, times := range []string{"1", "2"} {
		for _, left := range []bool{false, true} {
			d := from(t, "mount A B C D, rows 1-4:(square-knot 8) 5-8:(square-knot 8 start=right) cross="+times+", finish dome", "A", "B", "C", "D")
			p := make1(t, d, plan.Options{LeftHanded: left})
			var step plan.Step
			for _, s := range p.Steps {
				if len(s.Actions) == 1 && strings.Contains(s.Actions[0].Text, "Lay the row") {
					step = s
				}
			}
			if step.Repeats != int(times[0]-'0') {
				t.Fatalf("crossed %s times in %d steps", times, step.Repeats)
			}
			onTop := map[bool]string{false: "right", true: "left"}[left]
			if !strings.HasPrefix(step.Actions[0].Text, "Lay the row at the "+onTop+" over ") {
				t.Errorf("left hand %v: %s", left, step.Actions[0].Text)
			}
			// A quarter of the way down the rows pass for the first time.
			lay := p.Layout()
			top, bottom := lay.Sections[1][0], lay.Sections[1][1]
			at := top + (bottom-top)*(0.5/float64(step.Repeats))
			side := map[string]float64{}
			n := map[string]float64{}
			for _, s := range lay.Strands {
				row := "left"
				if (s.Cord >= 2) != left {
					row = "right"
				}
				for i, v := range s.Points {
					if s.Section[i] == 1 && v.Y > at-6 && v.Y < at+6 {
						side[row] += v.Z
						n[row]++
					}
				}
			}
			other := map[string]string{"left": "right", "right": "left"}[onTop]
			if a, b := side[onTop]/n[onTop], side[other]/n[other]; !(a > b+1) {
				t.Errorf("crossed %s times, left hand %v: the row at the %s lies at z %.1f, the other at %.1f", times, left, onTop, a, b)
			}
		}
	}
}

// Steps count places in the whole piece, in rows and in sections on some of the
// strands too.
func TestStepsNameThePlacesOfThePiece(t *testing.T) {
	d := from(t, "mount A B C D, square-knot 1 strands=3-6, rows 1-4:(square-knot 1) 5-8:(square-knot 1), finish dome", "A", "B", "C", "D")
	p := make1(t, d, plan.Options{})
	var said []string
	for _, s := range p.Steps[1:4] {
		said = append(said, s.Actions[0].Text)
	}
	for i, want := range []string{"Strand 3, from the left, across in front of strands 4 and 5.", "Strand 1, from the left, across in front of strands 2 and 3.", "Strand 5, from the left, across in front of strands 6 and 7."} {
		if said[i] != want {
			t.Errorf("step %d says %q, want %q", i+2, said[i], want)
		}
	}
}
