package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "singe-and-press", Name: "singe and press", For: "meltable cord that ends against a knot", Flame: true, Form: Pressed,
	Note: "Press with metal or a wetted blade; plastic sticks to it.", leaveMM: 3, trimMM: 10, meltD: 0.5,
	Steps: []string{"Cut {cut} from the knot.", "Move the flame near the end till it glistens, never into the cord.", "Press it flat against the knot with a wetted blade and let it set."},
	Tools: []string{"scissors", "lighter", "wetted blade"}, Wait: "a minute, till it has set",
	Look: "The end is flat, closed all round and no wider than its knot lets be; no strand of the core stands out.",
	Undo: "Cut it off: the next end is as much shorter.",
	suits: func(s cord.Stuff) (int, string) {
		return 90, "pressed flat against the knot it cannot pull back through"
	},
})
