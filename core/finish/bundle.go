package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "bind-together", Name: "bind all in a bundle", For: "all ends as one tassel", Form: Bound, Together: Every, WantsLength: true, leaveMM: 30,
	Note: "A diameter and a half of turns, in waxed thread; the ends hang out of them.", trimMM: 10,
	Steps: []string{"Lay the ends together, none crossed.", "Wind waxed thread round all of them close by the knot, and pull its ends under the turns.", "Comb the ends down and cut them along one line, {cut} from the knot."},
	Tools: []string{"waxed thread, an arm's length", "scissors"},
	Look:  "The turns lie side by side and do not slide; all ends are of one length.",
	Undo:  "Cut the turns and take the thread off; nothing of the cord is lost.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make.Lace():
			return 30, "a tassel of laces; the thread marks them a little"
		case s.Make == "waxed-thread":
			return 0, "thread is too thin to be bound"
		case s.Material.Melts():
			return 28, "a tassel without a flame; the tips fray"
		}
		return 42, "one tassel of all ends, held by the turns"
	},
})
