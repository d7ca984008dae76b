package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "fringe", Name: "fringe and comb", For: "cotton", Form: Fringe, WantsLength: true, trimMM: 15,
	Note:  "Trim to the shortest, comb, trim again.",
	Steps: []string{"Trim the ends to the shortest, {cut} from the knot or a little more.", "Untwist and comb from the tips up.", "Trim again along the wanted line."},
	Tools: []string{"scissors", "comb"},
	Look:  "The ends hang even and no yarn is knotted.",
	Undo:  "It cannot be undone; it can be cut shorter.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make == "single-strand":
			return 90, "it combs out to single fibres"
		case s.Make == "three-ply" || s.Make == "laid":
			return 55, "its plies open, though they stay wavy"
		case s.Make.Lace():
			return 0, "a lace has no yarns to comb out"
		case s.Make == "tshirt-yarn" || s.Make == "elastic":
			return 0, "there are no yarns in it that comb out"
		}
		return 15, "only its core combs out; the sheath is cut away first"
	},
})
