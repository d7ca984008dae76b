package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "set-a-loop", Name: "set a loop", For: "an eye in the end of a sheath", Glue: true, Solvent: true, Form: Looped, WantsLength: true, Length: "Inside the loop",
	Note: "Glue goes into the bend only: in the straight part it shows and stiffens.", leaveD: 3, trimMM: 10,
	Steps: []string{"Bend the end round a former as thick as the loop shall be wide inside, and back to its own part.", "Let glue soak into the bend, and keep it out of the straight part.", "When it has cured take the former out, and cut the end off where it meets its own part, {cut} of cord from the knot."},
	Tools: []string{"a former: a dowel or a drill's shank", "glue", "scissors"}, Wait: "an hour on the former",
	Look: "The bend keeps its round by itself; the straight part is as soft as before.",
	Undo: "It cannot be undone; the loop can be cut off.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make.Lace():
			return 0, "a lace springs out of its bend, and glue on its face shows"
		case s.Make == "elastic" || s.Make == "tshirt-yarn":
			return 0, "it gives, so that a set bend breaks open"
		case s.Make == "waxed-thread":
			return 0, "thread is too thin to stand as a loop"
		}
		return 18, "where something shall be hung on the end"
	},
})
