package finish

var _ = add(Finish{
	ID: "melt-two", Name: "melt two into one", For: "two meltable ends that lie side by side", Flame: true, Form: Melted, Together: 2, Neighbours: true,
	Note: "Both must be of one material, and molten at the same time.", leaveD: 2, trimMM: 10, meltD: 0.6,
	Steps: []string{"Lay the two ends side by side and cut both square, {cut} from the knot.", "Move the flame round both till they glisten together.", "Roll them to one dome with a wetted blade and let it cool."},
	Tools: []string{"scissors", "lighter", "wetted blade"}, Wait: "a minute, till it is cool",
	Look:  "There is one dome and no seam in it; pulled apart, the two do not part.",
	Undo:  "Cut the dome off: both ends are as much shorter.",
	suits: always(38, "two legs end as one, and neither can slip back by itself"),
})
