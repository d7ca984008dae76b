package finish

var _ = add(Finish{
	ID: "bead-and-melt", Name: "a bead on each pair, melted below", For: "pairs of meltable ends", Flame: true, Form: Beaded, Together: 2, Neighbours: true, WantsBead: true,
	Note: "The melted end must be wider than the bead's hole.", leaveD: 1, trimMM: 10, meltD: 0.8,
	Steps: []string{"Lead each pair of ends through its bead and push the bead up to the knot.", "Cut both ends square, {cut} from the knot.", "Melt them together to a button that is wider than the hole, without the flame on the bead.", "Press the button with a wetted blade and let it set."},
	Tools: []string{"scissors", "lighter", "wetted blade"}, Wait: "two minutes, till it is cold",
	Look:  "The bead sits against its knot, turns, and does not come off when it is pulled.",
	Undo:  "Cut the button off: the ends are as much shorter, and the bead comes free.",
	suits: always(34, "beads hang off the ends, and the button below keeps each"),
})
