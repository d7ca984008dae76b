package finish

import (
	"fmt"

	"nimblebight/core/cord"
)

var _ = add(Finish{
	ID: "coat", Name: "coat", For: "decorative ends of cotton", Form: Cut, WantsLength: true, trimMM: 10,
	Note:  "Thinned PVA, half and half with water; it can be wiped clean and stiffens.",
	Steps: []string{"Cut the ends along a line, {cut} from the knot.", "Brush the thinned PVA into them and shape them with wet fingers.", "Hang the piece up till it is dry, then trim what stands out."},
	Tools: []string{"scissors", "PVA and water", "brush"}, Wait: "overnight, hanging",
	Look: "The ends are stiff to the tip and clear, not white.",
	Undo: "Soak it in warm water and wash it out.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Make.Lace():
			return 0, "it does not soak into a lace"
		case s.Material == "cotton":
			return 52, "stiffens decorative ends so that they do not fray"
		case s.Material.Melts() || s.Material == "rubber":
			return 0, fmt.Sprintf("it does not soak into %s", s.Material)
		}
		return 30, "stiffens decorative ends"
	},
})
