package finish

var _ = add(Finish{
	ID: "singe-and-press", Name: "singe and press", For: "meltable cord that ends against a knot", Flame: true, Form: "pressed",
	Note: "Press with metal or a wetted blade; plastic sticks to it.", leaveMM: 3, trimMM: 10,
	Steps: []string{"Cut to a few millimetres from the knot.", "Move the flame near the end till it glistens, never into the cord.", "Press it flat against the knot with a wetted blade and let it set."},
})
