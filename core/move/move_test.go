package move_test

import (
	"fmt"
	"reflect"
	"testing"

	"nimblebight/core/move"
)

func half() move.Move {
	return move.Move{Strand: 0, From: move.Left, To: move.Right, Turn: "clockwise", Order: []int{0, 1, 2, 3, 4},
		Passes: []move.Pass{{How: move.Over, Of: []int{1, 2, 3}}, {How: move.Under, Of: []int{4}}}, Naming: [][]int{{4}},
		Text: "{me}, from the {from}, across {front 0}.", Detail: "Leave a loop at the {from} and lay it {over 1}.", Gate: "It lies {infront 0} {strands 0}."}
}

// (1) Mirrored twice a move is itself; (2) it passes alike, on the other side.
func TestAMirrorOfAMirrorIsTheMove(t *testing.T) {
	m := half()
	once := m.Mirror(5)
	if !reflect.DeepEqual(once.Mirror(5), m) {
		t.Errorf("twice: %+v", once.Mirror(5))
	}
	want := move.Words{"Strand 5, from the right, across in front of strands 2 to 4.", "Leave a loop at the right and lay it under strand 1.", "It lies in front of strand 1.", "As before: strand 5, from the right, over strands 2 to 4, under strand 1."}
	if got := once.Say(move.Names{}); got != want {
		t.Errorf("the mirror says %+v", got)
	}
	for k, p := range once.Passes {
		if p.How != m.Passes[k].How {
			t.Errorf("passing %d is turned over", k)
		}
	}
}

// A strand is named by the place that it has in the whole piece when the move
// begins.
func TestStrandsAreNamedByTheirPlacesInThePiece(t *testing.T) {
	m := half()
	m.Order = []int{4, 1, 2, 3, 0} // the workers have changed sides
	if got := m.Say(move.Names{Places: []int{2, 3, 4, 5, 8}}).Text; got != "Strand 8, from the left, across in front of strands 3 to 5." {
		t.Error(got)
	}
	if got := m.Renumber([]int{9, 1, 2, 3, 4}).Strand; got != 9 {
		t.Errorf("renumbered it is strand %d", got)
	}
}

func ExampleMove_Say() {
	m := move.Move{Strand: 1, Passes: []move.Pass{{How: move.Under, Of: []int{0}}}, Text: "{me} goes {over 0}."}
	fmt.Println(m.Say(move.Names{}).Text)
	fmt.Println(m.Mirror(2).Say(move.Names{}).Text)
	// Output:
	// Strand 2 goes under strand 1.
	// Strand 1 goes under strand 2.
}

// A passing is named by its number, of one digit or more; what is no slot is left alone.
func TestSlotsHaveNumbersOfAnyLength(t *testing.T) {
	m := move.Move{}
	for k := range 12 {
		m.Passes = append(m.Passes, move.Pass{How: move.How(k == 11), Of: []int{0}})
	}
	m.Text = "{above 1}, {above 10}, {above 11}, {12.5mm}, {above x}"
	if got, want := m.Say(move.Names{}).Text, "Under, under, over, {12.5mm}, {above x}"; got != want {
		t.Errorf("%q, want %q", got, want)
	}
}
