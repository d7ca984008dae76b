package piece

import (
	"nimblebight/core/cord"
	"nimblebight/core/knot"
)

// The colours that pieces begin with: what a first drawer is likely to hold.
const (
	Lagoon  = "#0f5c63"
	Sand    = "#e3c88f"
	Rust    = "#b4532a"
	Chalk   = "#e9e4d6"
	Moss    = "#5b6b33"
	Leather = "#7a4a2b"
)

// SecondColour is the colour of a second cord beside [UsualStuff].
const SecondColour = "#e3c88f"

// UsualStuff is a cord of which nothing is said yet.
func UsualStuff() cord.Stuff { return Kernmantle(4, "#0f5c63") }

// UsualSheath is a sheath with a pattern of which nothing is said yet.
func UsualSheath() cord.Sheath {
	return cord.Sheath{Pattern: cord.Flecked, Colours: []string{Chalk}, RepeatMM: 30}
}

// Kernmantle is nylon kernmantle of a label diameter.
func Kernmantle(mm float64, colour string) cord.Stuff {
	return cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: mm, Colour: colour}
}

// Cotton is single-strand cotton of a label diameter.
func Cotton(mm float64, colour string) cord.Stuff {
	return cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: mm, Colour: colour}
}

// Begin is a document with nothing on it but its hardware.
func Begin(name, kind string, on Hardware, length float64) Document {
	return Document{Format: Format, Version: Version, Name: name,
		Purpose: Purpose{Kind: kind, HangsOn: on, LengthMM: length}, Cords: []Cord{}, Sequence: []knot.Section{}}
}

// SplitRing is a split ring by its inner width and wire.
func SplitRing(inner, wire float64) Hardware {
	return Hardware{Type: "split-ring", InnerMM: inner, WireMM: wire}
}

// Between is a piece that ends on other hardware, so far from the first; 0 where the
// knots decide.
func Between(d Document, far Hardware, mm float64) Document {
	d.Purpose.EndsOn, d.Purpose.BetweenMM = &far, mm
	return d
}

// WithBlade is a piece for a knife whose blade passes so far from its hole.
func WithBlade(d Document, mm float64) Document {
	d.Purpose.BladeMM = mm
	return d
}
