package plan_test

import (
	"testing"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// ringOf is a piece of two cords laid crosswise and what is tied on their four legs.
func ringOf(t *testing.T, line string) plan.Plan {
	t.Helper()
	d := notation.With(piece.Begin("a ring", "charm", piece.Hardware{Type: "none"}, 0), "mount A B hitch=crossed, "+line,
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})
	return make1(t, d, plan.Options{})
}

// A wall that is drawn down on a crown hides what would run from one to the other: both
// together take less cord, and are shorter, than a crown and a wall by themselves.
func TestWhatIsDrawnTogetherIsCountedOnce(t *testing.T) {
	apart, together := ringOf(t, "crown 1, wall passes=2, finish dome"), ringOf(t, "wall passes=2 crown=below, finish dome")
	slim := ringOf(t, "wall passes=2 crown=below dressed=slim, finish dome")
	if together.LengthMM >= slim.LengthMM || slim.LengthMM >= apart.LengthMM {
		t.Errorf("chunky %.1f mm long, slim %.1f, a crown and a wall %.1f", together.LengthMM, slim.LengthMM, apart.LengthMM)
	}
	if a, b := together.Cords[0].NeedsMM, apart.Cords[0].NeedsMM; a >= b {
		t.Errorf("together they take %.0f mm of a cord, apart %.0f", a, b)
	}
}

// A knot of a ring keeps its places: led round and round, crown after crown, what the
// places say is what goes clockwise, and as many strands come out as went in.
func TestPlacesStayCounted(t *testing.T) {
	for _, line := range []string{"crown 3 lay=round", "crown 4", "wall passes=2", "multi-strand-diamond collar=yes", "terminal-knot", "round-braid 3"} {
		p := ringOf(t, line+", finish dome")
		s := p.Sections[1]
		seen := map[string]bool{}
		for _, name := range s.OrderAfter {
			seen[name] = true
		}
		if len(s.OrderAfter) != 4 || len(seen) != 4 {
			t.Errorf("%s: places %v", line, s.OrderAfter)
			continue
		}
		// Two cords laid crosswise stand by turns, and go on doing so.
		for k, name := range s.OrderAfter {
			if next := s.OrderAfter[(k+1)%4]; name[:1] == next[:1] {
				t.Errorf("%s: %s stands beside %s", line, name, next)
			}
		}
	}
}
