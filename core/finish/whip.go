package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "whip", Name: "whip", For: "laid rope and any cord that frays", Form: Whipped,
	Note: "A diameter and a half of turns, in waxed thread.", leaveD: 2, trimMM: 10,
	Steps: []string{"Lay a loop of waxed thread along the end, its bend towards the end.", "Wind the long part round cord and loop towards the bend, side by side and tight, for a diameter and a half.", "Put it through the bend and pull the other part till the bend is under the turns; cut both flush.", "Cut the cord half a diameter beyond the turns, {cut} from the knot."},
	Tools: []string{"waxed thread, an arm's length", "scissors"},
	Look:  "The turns lie side by side, none crossed, and do not slide when they are pushed.",
	Undo:  "Cut the turns and take the thread off; nothing of the cord is lost.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make == "laid":
			return 95, "its strands open by themselves, and turns hold them"
		case s.Make.Lace():
			return 0, "a lace does not fray"
		case s.Make == "waxed-thread":
			return 0, "thread is too thin to be whipped"
		case s.Material.Melts():
			return 45, "neat without a flame; it takes longer"
		}
		return 58, "holds the end together and is taken off again"
	},
})
