package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "bead-and-glue", Name: "a bead on each pair, glued", For: "pairs of ends that do not melt", Glue: true, Form: Beaded, Together: 2, Neighbours: true, WantsBead: true,
	Note: "Glue goes into the hole, never on the bead.", leaveD: 0.5, trimMM: 10,
	Steps: []string{"Lead each pair of ends through its bead and push the bead up to the knot.", "Put a drop of glue into the hole and turn the bead once.", "When it has cured cut the ends off, {cut} from the knot."},
	Tools: []string{"glue", "a stick or a pin", "scissors"}, Wait: "ten minutes; a day till it bears a pull",
	Look: "The bead sits against its knot and does not turn; no glue shows.",
	Undo: "It cannot be undone: the bead is cut off.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Material.Melts():
			return 16, "beads hang off the ends; melted below them they hold better"
		case s.Material == "rubber":
			return 0, "elastic shrinks in the hole when it is pulled, and comes out"
		}
		return 36, "beads hang off the ends, and glue in their holes keeps them"
	},
})
