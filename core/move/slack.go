package move

import (
	"fmt"
	"strings"
)

// mostPlaces is how many places the words of one round name: their slots have one
// digit.
const mostPlaces = 10

// Rounds are the rounds in which the slack is worked out of a knot that is not drawn
// up as it is made: in each round each strand in turn, in the order in which the hand
// led them, from where it comes in to its end. The places along a strand are what its
// moves pass, in order; they are the curve's own crossings.
//
// Law: the passes of a strand's round are those of its moves, one after the other.
func Rounds(moves []Move, rounds int, from string) []Move {
	var order []int
	passes := map[int][]Pass{}
	end := map[int]bool{}
	for _, m := range moves {
		if m.Strand < 0 || len(m.Passes) == 0 {
			continue
		}
		if passes[m.Strand] == nil {
			order = append(order, m.Strand)
		}
		passes[m.Strand] = append(passes[m.Strand], m.Passes...)
		end[m.Strand] = m.End
	}
	how := []string{"gently", "firmly", "hard"}
	var out []Move
	for r := range rounds {
		hand := how[min(r, len(how)-1)]
		if r == rounds-1 && r > 0 {
			hand = "hard; pliers only now"
		}
		for _, s := range order {
			ps := passes[s]
			ps = ps[:min(len(ps), mostPlaces)]
			var places []string
			for k := range ps {
				places = append(places, fmt.Sprintf("{over %d}", k))
			}
			out = append(out, Move{Strand: s, Slack: true, End: end[s], Passes: ps,
				Text:   fmt.Sprintf("Round %d of %d, %s: work the slack of {me} on from %s to its end.", r+1, rounds, hand, from),
				Detail: fmt.Sprintf("Take it on at each of its %d places in turn: %s.", len(ps), strings.Join(places, ", ")),
				Gate:   "Nothing stands off behind the place where you are."})
		}
	}
	return out
}
