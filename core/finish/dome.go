package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "dome", Name: "smooth dome", For: "meltable cord whose end is seen", Flame: true, Form: Dome,
	Note: "Keep the flame moving, let it cool untouched.", leaveD: 1.5, trimMM: 10, meltD: 0.6,
	Steps: []string{"Cut square, {cut} from the knot: a diameter and a half stays, the rest melts.", "Keep the flame moving round the end till it draws itself into a dome.", "Let it cool untouched."},
	Tools: []string{"scissors", "lighter"}, Wait: "a minute, till it is cool",
	Look: "The dome is round, closed and not brown.",
	Undo: "Cut it off: the next end is as much shorter.",
	suits: func(s cord.Stuff) (int, string) {
		return 80, "round and smooth where the end is seen; it holds no knot"
	},
})
