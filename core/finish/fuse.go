package finish

var _ = add(Finish{
	ID: "fuse", Name: "fuse two ends", For: "two meltable ends that make a loop or join two colours", Flame: true, Form: "fused", WantsLength: true,
	Note: "It holds only if both are molten at that moment.", trimMM: 10, Together: 2,
	Steps: []string{"Cut both ends square where they meet.", "Melt both at once until they glisten.", "Push them together straight and hold them still till they set; roll the join smooth with a wetted blade.", "Pull hard at the join: it must hold."},
})
