package finish

var _ = add(Finish{
	ID: Plain, Name: "straight cut", For: "cotton and t-shirt yarn", Form: "cut", WantsLength: true, trimMM: 10,
	Note:  "Tape round, cut through the tape line.",
	Steps: []string{"Tape round all the ends where they shall end.", "Cut through the tape line and take the tape off."},
})
