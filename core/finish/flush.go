package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "flush", Name: "flush without a mushroom", For: "meltable cord whose end must pull through", Flame: true, Form: Cut,
	Note: "Pull the turn off while the end is soft.", leaveMM: 1, trimMM: 25, meltD: 0.25,
	Steps: []string{"Lay a tight throw-away turn of scrap cord round the end, where it shall end.", "Cut through inside the turn, {cut} from the knot, and move the flame near the cut till it glistens.", "Pull the turn off over the end while it is soft."},
	Tools: []string{"scissors", "lighter", "scrap cord"}, Wait: "a minute, till it is cool",
	Look: "The end is closed and no thicker than the cord.",
	Undo: "Cut it off: the next end is as much shorter.",
	suits: func(s cord.Stuff) (int, string) {
		return 35, "no thicker than the cord, where the end must be pulled through"
	},
})
