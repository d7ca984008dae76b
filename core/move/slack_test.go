package move

import (
	"reflect"
	"strings"
	"testing"
)

// The passes of a strand's round are those of its moves, one after the other; strands
// come in the order in which they were led, and each in every round.
func TestRoundsFollowTheMoves(t *testing.T) {
	moves := []Move{
		{Strand: 1, Passes: []Pass{{Over, []int{0}}, {Under, []int{1}}}},
		{Strand: -1},
		{Strand: 0, Passes: []Pass{{Under, []int{1}}}},
		{Strand: 1, Passes: []Pass{{Under, []int{0}}}},
	}
	rounds := Rounds(moves, 2, "the loop")
	if len(rounds) != 4 {
		t.Fatalf("%d moves in two rounds of two strands", len(rounds))
	}
	for i, m := range rounds {
		if want := []int{1, 0}[i%2]; m.Strand != want || !m.Slack {
			t.Errorf("move %d of the rounds is of strand %d, slack %v", i, m.Strand, m.Slack)
		}
	}
	if want := []Pass{{Over, []int{0}}, {Under, []int{1}}, {Under, []int{0}}}; !reflect.DeepEqual(rounds[0].Passes, want) {
		t.Errorf("strand 2 is followed past %+v", rounds[0].Passes)
	}
	said := rounds[0].Say(Names{})
	if said.Detail != "Take it on at each of its 3 places in turn: over strand 1, under itself, under strand 1." && !strings.Contains(said.Detail, "over strand 1, under strand 2, under strand 1") {
		t.Errorf("said as %q", said.Detail)
	}
	if rounds[0].Text == rounds[2].Text || !strings.Contains(rounds[3].Text, "Round 2 of 2, hard") {
		t.Errorf("the rounds are not told apart: %q, %q", rounds[0].Text, rounds[3].Text)
	}
	if mirrored := rounds[0].Mirror(2); mirrored.Strand != 0 || !reflect.DeepEqual(mirrored.Mirror(2), rounds[0]) {
		t.Errorf("its mirror is %+v", mirrored)
	}
}
