package finish

import "nimblebight/core/cord"

var _ = add(Finish{
	ID: "glue", Name: "glue", For: "leather, cotton and small ends", Glue: true, Form: Cut,
	Note: "A thin drop; it darkens what it soaks into.", leaveMM: 2, trimMM: 10,
	Steps: []string{"Pull the end tight and put a thin drop of glue where it comes out of the knot.", "Let it cure, then cut it off {cut} from the knot.", "Touch the cut with a trace of glue and wipe it."},
	Tools: []string{"glue", "a stick or a pin", "scissors"}, Wait: "ten minutes; a day till it bears a pull",
	Look: "The end does not move when it is pulled; no glue shows beside it.",
	Undo: "It cannot be undone: the knot is cut off.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make.Lace():
			return 80, "lace slips in its knots, and glue holds it"
		case s.Material == "rubber" || s.Make == "elastic":
			return 70, "the end of an elastic creeps back through its knot"
		case s.Material == "jute" || s.Material == "sisal" || s.Material == "hemp":
			return 75, "stiff fibre is tucked or glued"
		case s.Material.Melts():
			return 25, "where no flame may be used"
		}
		return 50, "for small ends that shall not be seen; it stiffens cotton"
	},
})
