package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "cut-and-balm", Name: "cut and balm", For: "leather", Solvent: true, Sharp: true, Form: Cut, WantsLength: true, trimMM: 5,
	Note:  "Balm darkens leather a little and keeps the edge from drying out.",
	Steps: []string{"Cut the ends off square, or on a slant, {cut} from the knot, with a sharp blade.", "Round the edges off with a fine stone.", "Rub balm into the cut and wipe off what is too much."},
	Tools: []string{"sharp knife", "fine stone", "leather balm", "cloth"}, Wait: "an hour, till it has drawn in",
	Look: "The edge is smooth and of one colour.",
	Undo: "It cannot be undone; it can be cut shorter.",
	suits: func(s cord.Stuff) (int, string) {
		if s.Material != "leather" {
			return 0, "balm is for leather"
		}
		return 70, "the lace ends as lace, its edge closed"
	},
})
