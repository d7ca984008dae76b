package finish

var _ = add(Finish{
	ID: "fringe", Name: "fringe and comb", For: "cotton", Form: "fringe", WantsLength: true, trimMM: 15,
	Note:  "Trim to the shortest, comb, trim again.",
	Steps: []string{"Trim the ends to the shortest.", "Untwist and comb from the tips up.", "Trim again along the wanted line."},
})
