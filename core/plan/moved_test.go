package plan_test

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"

	"gonum.org/v1/gonum/spatial/r3"
)

// legsOf are the strands of a layout, each from where it hangs, a place every half diameter, and
// those that are in hand.
func legsOf(l plan.Layout) (ways map[plan.LegOf][]r3.Vec, inHand map[plan.LegOf]bool) {
	ways, inHand = map[plan.LegOf][]r3.Vec{}, map[plan.LegOf]bool{}
	for _, s := range l.Near(-1e4, 1e4) {
		for i, p := range s.Points {
			leg := plan.LegOf{Strand: s.Index, Leg: s.LegAt(i)}
			ways[leg] = append(ways[leg], p)
			inHand[leg] = inHand[leg] || l.Moves(s, i)
		}
	}
	for leg, pts := range ways {
		if pts[0].Y > pts[len(pts)-1].Y { // a first leg runs up to its fold
			slices.Reverse(pts)
		}
		line := curve.Curve{Points: pts}
		ways[leg] = line.Resample(max(2, int(2*line.Length()/l.Thick))).Points
	}
	return ways, inHand
}

// What a move leads is in hand, all of it, and of the cord that the move names; and nothing else
// goes anywhere. In every pattern, in each of the first repeats, for half knots and what turns name
// other strands from one to the next.
func TestWhatMovesIsInHand(t *testing.T) {
	const repeats = 7
	for _, p := range patterns.All() {
		t.Run(p.ID, func(t *testing.T) {
			t.Parallel()
			whole := make1(t, p.Document, plan.Options{})
			n := 0
			for _, step := range whole.Steps {
				for r := range step.Repeats {
					for k, a := range actionsOf(step, r) {
						if n++; a.Led && (r < repeats || r == step.Repeats-1) && !strings.Contains(a.Text, "slack") {
							movesAlone(t, p.Document, n, step.Actions[k].Text, a.Cord)
							bearsItsNumber(t, p.Document, n, a.Text)
						}
					}
				}
			}
		})
	}
}

// me is the strand that words say is led, by its number.
var me = regexp.MustCompile(`^(?:Lay s|Lead s|S)trand (\d+)\b`)

// bearsItsNumber checks that the strand in hand bears the number in the picture that words give it.
func bearsItsNumber(t *testing.T, d piece.Document, n int, text string) {
	t.Helper()
	said := me.FindStringSubmatch(text)
	if said == nil {
		return
	}
	l := make1(t, d, plan.Options{Until: n, Along: knot.Led}).Look()
	number, err := strconv.Atoi(said[1])
	if err != nil || number > len(l.Places) || len(l.Moving) == 0 {
		t.Fatalf("action %d, %q: %d places, %d strands in hand", n, text, len(l.Places), len(l.Moving))
	}
	if is, has := l.Places[number-1], l.Moving[0]; is.Strand != has.Strand || is.Leg != has.Leg && has.Leg >= 0 {
		t.Errorf("action %d, %q: the strand in hand is %v, number %d is on %v", n, text, has, number, is)
	}
}

// actionsOf are the actions of a repeat of a step.
func actionsOf(s plan.Step, repeat int) []plan.Action {
	if s.Made == nil || s.Made[repeat] == 0 {
		return s.Actions
	}
	return s.Turns[s.Made[repeat]-1]
}

// movesAlone checks what moves while an action is led.
func movesAlone(t *testing.T, d piece.Document, n int, text, cord string) {
	t.Helper()
	const still = 1.5 // diameters that others may give way
	begun := make1(t, d, plan.Options{Until: n, Along: 1.0 / 48}).Look()
	led := make1(t, d, plan.Options{Until: n, Along: knot.Led}).Look()
	if len(led.Moving) == 0 {
		return
	}
	if c := led.Moving[0].Strand; cord != "" && !slices.ContainsFunc(led.Near(-1e4, 1e4), func(s plan.Strand) bool { return s.Index == c && d.Cords[s.Cord].ID == cord }) {
		t.Errorf("action %d, %q, names cord %s and leads another", n, text, cord)
	}
	if strings.Contains(text, "rolls up") { // the row goes with what is pulled
		return
	}
	before, was := legsOf(begun)
	after, is := legsOf(led)
	for leg, way := range before {
		far := 0.0
		for i := range min(len(way), len(after[leg])) {
			far = max(far, r3.Norm(r3.Sub(way[i], after[leg][i]))/led.Thick)
		}
		if far > still && !was[leg] && !is[leg] {
			t.Errorf("action %d, %q: leg %v goes %.1f diameters and is not in hand", n, text, leg, far)
		}
	}
}
