package finish

import "nimblebight/core/cord"

// LeastUnder is under how many crossings an end is buried so that it does not work
// itself out.
const LeastUnder = 3

var _ = add(Finish{
	ID: "bury", Name: "bury and cut flush", For: "any cord under knots that lie close", Form: Buried, WantsUnder: true,
	Note: "Three crossings or more hold it; led the way the cord lies it does not show.", trimMM: 30,
	Steps: []string{"Screw the lacing needle on the end, or wind the tip with tape.", "Turn the end to the back and lead it up under {under} crossings, {hide} on.", "Pull it snug, push the knots together over it, and cut it off flush where it comes out."},
	Tools: []string{"lacing needle", "smooth-jawed pliers", "scissors"},
	Look:  "Nothing of it shows on the face, the back lies flat, and it does not move when the piece is bent.",
	Undo:  "Lift the crossings one by one and draw the end out; nothing of it is lost.",
	suits: func(s cord.Stuff) (int, string) {
		switch {
		case s.Material == "sisal" || s.Material == "jute" || s.Material == "hemp":
			return 72, "stiff fibre is tucked or glued, and tucked it can be drawn out again"
		case s.Make == "waxed-thread":
			return 30, "it holds, though thin thread is hard to lead"
		case s.Make.Lace():
			return 45, "it lies flat at the back; a drop of glue keeps it there"
		case s.Material.Melts():
			return 60, "for makers who never melt; it holds where the knots lie close"
		}
		return 65, "nothing hangs out and nothing is glued"
	},
})
