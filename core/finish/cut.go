package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: Plain, Name: "straight cut", For: "cotton and t-shirt yarn", Form: Cut, WantsLength: true, trimMM: 10,
	Note:  "Tape round, cut through the tape line.",
	Steps: []string{"Tape round all the ends where they shall end.", "Cut through the tape line, {cut} from the knot, and take the tape off."},
	Tools: []string{"masking tape", "sharp scissors"},
	Look:  "All ends are of one length and none frays.",
	Undo:  "It cannot be undone; it can be cut shorter.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make == "tshirt-yarn":
			return 90, "the yarn rolls in and does not fray"
		case s.Material.Melts():
			return 20, "it frays in the hand; a flame closes it"
		case s.Make.Lace():
			return 50, "clean, and the cut edge stays bare"
		}
		return 60, "a tassel of the cord as it is; it frays slowly"
	},
})
