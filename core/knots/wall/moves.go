package wall

import (
	"fmt"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
)

const turn = string(knot.Anticlockwise)

// straight tells which of two strands to follow.
const straight = "Of two strands that it could follow take the one that comes straight out of the work."

// moves are those of one wall, with its crown where it has one.
func (f form) moves(as []int, under int) []move.Move {
	var out []move.Move
	look := "Look at the working end; each follows the one before it round."
	if f.crown == Below {
		out = append(out, ring.Crown(as, "")...)
		look = "Draw the crown up even first. Each follows the one before it round again."
	}
	meets := form{f.n, f.passes, Alone, ""}.meets()
	first := meets[len(meets)-1:]
	if f.passes == 2 && f.crown != Followed {
		first = meets[3:4]
	}
	out = append(out, onceMoves(as, first, look)...)
	switch {
	case f.crown == Followed:
		out = append(out, ring.Crown(as, "Leave wall and crown loose, a finger's width: both are followed.")...)
		out = append(out, againMoves(as, steps(f.n))...)
		return append(append(out, move.Rounds(out, 3, "the work")...), buriedMoves(as, under)...)
	case f.passes == 2:
		out = append(out, twiceMoves(as, meets[5:])...)
	}
	if f.crown == Over {
		out = append(out, ring.Crown(as, "Draw the wall up firmly before you crown it.")...)
	}
	if f.passes == 2 || f.crown != Alone {
		from := "the work"
		if f.crown == Below {
			from = "the crown"
		}
		out = append(out, move.Rounds(out, 2, from)...)
	}
	switch {
	case f.dressed == Chunky:
		out = append(out, move.Move{Strand: move.All, Slack: true, Text: "Push the wall up on the crown and draw its ends outwards, one after the other.",
			Detail: "A second round goes in under the first. Choose before the last pull: drawn down along the work it climbs off the crown.", Gate: "The wall sits on the crown with no gap; the crown shows above it."})
	case f.dressed == Slim:
		out = append(out, move.Move{Strand: move.All, Slack: true, Text: "Pull all ends straight down along the work, evenly.", Detail: "The wall climbs off the crown and stands below it.", Gate: "Crown and wall are a little apart, both even."})
	case f.ends():
		out = append(out, buriedMoves(as, under)...)
	}
	return out
}

// meets are what a strand of it passes of others, loose.
func (f form) meets() []ring.Meet {
	meets, err := ring.Meets(f.route())
	if err != nil {
		panic(fmt.Sprintf("wall: the route of %s: %v", f.name(), err)) // it is written here
	}
	return ring.Others(meets)
}

// onceMoves wall each strand once.
func onceMoves(as []int, first []ring.Meet, look string) []move.Move {
	var out []move.Move
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Turn: turn, Passes: ring.Passes(first, i, as),
			Text: "Lead {me} {turn}, {above 0} {strands 0}, and up inside its bight.", Naming: [][]int{{as[(i+1)%len(as)]}}}
		if i == 0 {
			m.Detail = look + " The first makes a bight that the last comes up through."
		}
		if i == len(as)-1 {
			m.Detail = "Draw all of them up evenly, a little at a time."
			m.Gate = "All ends leave at one height; between each two lies one bight."
		}
		out = append(out, m)
	}
	return out
}

// twiceMoves follow a wall round once more.
func twiceMoves(as []int, second []ring.Meet) []move.Move {
	var out []move.Move
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Follows: true, Turn: turn, Passes: ring.Passes(second, i, as), Naming: [][]int{{as[(i+2)%len(as)]}},
			Text: "Lead {me} on {turn} beside {strands 0}, outside and below it: {above 0} two, round, and {above 2} three, up in the middle."}
		if i == 0 {
			m.Detail = straight
		}
		if i == len(as)-1 {
			m.Gate = "Pairs lie side by side all round, none crossed; the second round lies below the first."
		}
		out = append(out, m)
	}
	return out
}

// againMoves follow wall and crown round once more, beside the strand so many steps on.
func againMoves(as []int, follows int) []move.Move {
	var out []move.Move
	n := len(as)
	next, before := ring.Meet{On: (follows + 1) % n}, ring.Meet{On: (follows + n - 1) % n, Over: true}
	part := func(meets []ring.Meet, text, detail, gate string) {
		for i, me := range as {
			m := move.Move{Strand: me, End: true, Follows: true, Turn: turn, Passes: ring.Passes(meets, i, as), Naming: [][]int{{as[(i+follows)%len(as)]}}, Text: text}
			if i == 0 {
				m.Detail = detail
			}
			if i == len(as)-1 {
				m.Gate = gate
			}
			out = append(out, m)
		}
	}
	part([]ring.Meet{next}, "Lead {me} on {turn} beside the wall of {strands 0}, outside and below it, and up beside it inside the bights.", straight+" Where it goes under, go under; where it goes over, go over.",
		"Pairs lie side by side all round the wall, none crossed.")
	part([]ring.Meet{before, next}, "Lead {me} on {turn} beside the crown of {strands 0}, on its outer side, over what it goes over and under what it goes under.", "",
		"The crown lies in pairs, the second round outside the first.")
	return out
}

// buriedMoves lead the ends down inside.
func buriedMoves(as []int, under int) []move.Move {
	var out []move.Move
	for i, me := range as {
		m := move.Move{Strand: me, Text: fmt.Sprintf("Lead {me} down inside the bights with a needle, under %d crossings, and cut it flush.", under)}
		if under == 1 {
			m.Text = "Lead {me} down inside the bights with a needle, under one crossing, and cut it flush."
		}
		if i == 0 {
			m.Detail = "Draw each end tight before you cut it; what is cut stays under."
		}
		if i == len(as)-1 {
			m.Gate = "No end shows."
		}
		out = append(out, m)
	}
	return out
}
