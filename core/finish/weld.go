package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "weld-a-drop", Name: "weld a drop", For: "a meltable knot that must never open", Flame: true, Form: Drop,
	Note: "The drop comes from a scrap of the sheath, so that the cord itself stays whole.", leaveD: 0.25, trimMM: 10,
	Steps: []string{"Draw the knot up for good: what is welded does not give any more.", "Cut the end off flush, {cut} from the knot.", "Melt a scrap of sheath over the place till one drop falls on it; the flame stays off the knot.", "Press the drop down with a wetted blade and let it set."},
	Tools: []string{"scissors", "lighter", "a scrap of sheath", "wetted blade"}, Wait: "two minutes, till it is cold",
	Look: "One drop covers the end and the turns beside it, and none of it has run on over the face.",
	Undo: "It cannot be undone: the knot is cut off.",
	suits: func(s cord.Stuff) (int, string) {
		return 22, "for a knot that must never open; it cannot be untied"
	},
})
