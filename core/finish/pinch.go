package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "pinch-flat", Name: "pinch flat", For: "a sheath without its core", Flame: true, Form: Pressed,
	Note: "Smooth-jawed pliers: teeth leave their marks.", leaveD: 0.8, trimMM: 10, meltD: 0.3,
	Steps: []string{"Pull the core out and cut it off well inside; cut the sheath square, {cut} from the knot.", "Move the flame near the end till it glistens.", "Pinch it flat with smooth pliers and hold it till it has set."},
	Tools: []string{"scissors", "lighter", "smooth-jawed pliers"}, Wait: "half a minute, in the pliers",
	Look: "The end is a flat tongue, closed across its whole width.",
	Undo: "Cut it off: the next end is as much shorter.",
	suits: func(s cord.Stuff) (int, string) {
		if s.Make != "kernmantle" {
			return 0, "there is no sheath to be emptied"
		}
		return 30, "thin and flat, where the core is pulled out of the sheath"
	},
})
