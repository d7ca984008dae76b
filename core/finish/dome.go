package finish

var _ = add(Finish{
	ID: "dome", Name: "smooth dome", For: "meltable cord whose end is seen", Flame: true, Form: "dome",
	Note: "Keep the flame moving, let it cool untouched.", leaveD: 1.5, trimMM: 10,
	Steps: []string{"Cut square, a diameter and a half from the knot.", "Keep the flame moving round the end till it draws itself into a dome.", "Let it cool untouched."},
})
