package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "fuse", Name: "fuse two ends", For: "two meltable ends that make a loop or join two colours", Flame: true, Form: Fused, WantsLength: true,
	Note: "It holds only if both are molten at that moment.", trimMM: 10, meltD: 0.5, Together: 2,
	Steps: []string{"Cut both ends square where they meet, {cut} from the knot.", "Melt both at once until they glisten.", "Push them together straight and hold them still till they set; roll the join smooth with a wetted blade.", "Pull hard at the join: it must hold."},
	Tools: []string{"scissors", "lighter", "wetted blade"}, Wait: "a minute, till it is cool",
	Look: "Nothing opens when it is pulled hard; the joint is no thicker than the cord.",
	Undo: "Cut the joint out: both ends are shorter by it.",
	suits: func(s cord.Stuff) (int, string) {
		return 40, "where two ends shall be one: a loop, or two colours"
	},
})
