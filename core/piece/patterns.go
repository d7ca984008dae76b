package piece

import (
	"nimblebight/core/cord"
	"nimblebight/core/knot"
)

// Pattern is a piece to start from.
type Pattern struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"`
	About    string   `json:"about"`
	Document Document `json:"document"`
}

// The colours of the patterns: what a first drawer is likely to hold.
const (
	lagoon  = "#0f5c63"
	sand    = "#e3c88f"
	rust    = "#b4532a"
	chalk   = "#e9e4d6"
	moss    = "#5b6b33"
	leather = "#7a4a2b"
)

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

// With gives the document cords and the sequence of a typed line. It panics on
// a line that cannot be read: it is for lines written here.
func (d Document) With(line string, cords ...Cord) Document {
	seq, err := Parse(line)
	if err != nil {
		panic("piece: a pattern's line: " + err.Error())
	}
	d.Cords, d.Sequence = cords, seq
	return d
}

// SplitRing is a split ring by its inner width and wire.
func SplitRing(inner, wire float64) Hardware {
	return Hardware{Type: "split-ring", InnerMM: inner, WireMM: wire}
}

// Patterns lists the pieces to start from.
func Patterns() []Pattern {
	inside := Legs{ShortInside: true}
	return []Pattern{
		{"two-colour-fob", "Two-colour flat fob", "Two cords on a ring, square knots, ends pressed: the first thing most people tie.",
			Begin("Two-colour fob", "key-fob", SplitRing(30, 2), 110).With("mount A B, square-knot 9, finish singe-and-press",
				Cord{ID: "A", Stuff: Kernmantle(4, lagoon), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(4, sand), Legs: inside})},
		{"spiral-fob", "Spiral fob", "Half knots all of one hand, so that the row turns by itself.",
			Begin("Spiral fob", "key-fob", SplitRing(30, 2), 110).With("mount A B, half-knot 20, finish singe-and-press",
				Cord{ID: "A", Stuff: Kernmantle(4, rust), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(4, chalk), Legs: inside})},
		{"thin-over-thick", "Thin cord over thick legs", "A thick cord hangs, a thin one is laid behind it and does all the knotting.",
			Begin("Thin over thick", "zip-pull", SplitRing(20, 1.8), 90).With("mount A, mount B hitch=laid-behind, square-knot 13, finish singe-and-press",
				Cord{ID: "A", Stuff: Kernmantle(4, moss)}, Cord{ID: "B", Stuff: Kernmantle(2.2, sand)})},
		{"cotton-charm", "Cotton charm with a fringe", "Soft cotton in square knots, gathered with a wrap and combed out.",
			Begin("Cotton charm", "charm", SplitRing(30, 2), 145).With("mount A B, square-knot 6, gather C turns=6, finish fringe length=45mm",
				Cord{ID: "A", Stuff: Cotton(5, chalk), Legs: inside}, Cord{ID: "B", Stuff: Cotton(5, chalk), Legs: inside}, Cord{ID: "C", Stuff: Cotton(3, rust)})},
		{"grouped-fob", "Groups with gaps", "Square knots in groups with bare lengths between them.",
			Begin("Grouped fob", "key-fob", SplitRing(30, 2), 120).With("mount A B, square-knot 4, gap 10mm, square-knot 4, half-knot 1, finish dome",
				Cord{ID: "A", Stuff: Kernmantle(4, moss), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(4, chalk), Legs: inside})},
		{"crossed-rows", "Two rows, crossed", "Two sinnets side by side, crossed over each other once and held by a wrap.",
			Begin("Crossed rows", "key-fob", SplitRing(32, 2.4), 99).With("mount A B C D, rows 1-4:(square-knot 8) 5-8:(square-knot 8 start=right) cross=1, gather E turns=6, finish dome",
				Cord{ID: "A", Stuff: Kernmantle(3, lagoon), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(3, lagoon), Legs: inside},
				Cord{ID: "C", Stuff: Kernmantle(3, sand), Legs: inside}, Cord{ID: "D", Stuff: Kernmantle(3, sand), Legs: inside}, Cord{ID: "E", Stuff: Kernmantle(2.2, rust)})},
		{"bead-diamonds", "Diamonds with beads", "Three diamonds of hitches on soft cotton, a bead in each, the last one with a fuller edge.",
			Begin("Bead diamonds", "charm", SplitRing(30, 2), 134).With("mount A B C, diamond 2 inside=bead hole=5mm long=7mm wide=9mm, diamond 1 inside=bead close=end-doubled hole=5mm long=7mm wide=9mm, gather D turns=5, finish fringe length=35mm",
				Cord{ID: "A", Stuff: Cotton(3, chalk), Legs: inside}, Cord{ID: "B", Stuff: Cotton(3, chalk), Legs: inside}, Cord{ID: "C", Stuff: Cotton(3, chalk), Legs: inside}, Cord{ID: "D", Stuff: Cotton(2, rust)})},
		{"wrist-strap", "Wrist strap", "A long flat band folded back to a loop for the wrist and held by a wrap.",
			Begin("Wrist strap", "wrist-strap", Hardware{Type: "swivel-clip", InnerMM: 28, WireMM: 3}, 163).With("mount A B, square-knot 31, fold-back 160mm, gather C turns=9, finish singe-and-press",
				Cord{ID: "A", Stuff: Kernmantle(4, lagoon), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(4, rust), Legs: inside}, Cord{ID: "C", Stuff: Kernmantle(2.2, sand)})},
		{"berry-charm", "Berry charm", "A berry knot under a short sinnet, locked, with a combed end.",
			Begin("Berry charm", "charm", SplitRing(30, 2), 164).With("mount A B, square-knot 3, gap 8mm, berry-knot 1, gap 6mm, berry-knot 1 squares=2, finish fringe length=30mm",
				Cord{ID: "A", Stuff: Cotton(4, rust), Legs: inside}, Cord{ID: "B", Stuff: Cotton(4, rust), Legs: inside})},
		{"spiral-pull", "Spiral pull", "A short spiral over a thicker core with a bead, for a zip or a blind.",
			Begin("Spiral pull", "zip-pull", SplitRing(22, 1.8), 99).With("mount A B, half-knot 14, bead hole=6mm long=10mm wide=12mm, overhand, finish dome",
				Cord{ID: "A", Stuff: Kernmantle(3, moss), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(3, sand), Legs: inside})},
		{"switch-charm", "Switch-knot charm", "Workers and fillers change places after every knot; all four cords run out together.",
			Begin("Switch charm", "charm", SplitRing(30, 2), 135).With("mount A B, switch-knot 5 gap=9mm, square-knot 1, finish dome",
				Cord{ID: "A", Stuff: Kernmantle(4, rust)}, Cord{ID: "B", Stuff: Kernmantle(4, sand)})},
		{"rib-fob", "Ribbed fob", "Rows of hitches to and fro, with square knots between them.",
			Begin("Ribbed fob", "key-fob", SplitRing(30, 2), 111).With("mount A B C, 2x(double-half-hitch, double-half-hitch direction=left, square-knot 2 strands=2-5), double-half-hitch, finish singe-and-press",
				Cord{ID: "A", Stuff: Kernmantle(3, lagoon), Legs: inside}, Cord{ID: "B", Stuff: Kernmantle(3, chalk), Legs: inside}, Cord{ID: "C", Stuff: Kernmantle(3, lagoon), Legs: inside})},
		{"two-colour-fist", "Two-colour fist", "A ball of two cords round their own stopper: one shows on two faces, the other on four. A snake sinnet, and a loop fused at its end.",
			Begin("Two-colour fist", "fist", SplitRing(30, 2), 0).With("mount A B hitch=from-knot, monkeys-fist 4 mode=two-cords, snake-knot 12, finish fuse length=60mm",
				Cord{ID: "A", Stuff: Kernmantle(4, rust)}, Cord{ID: "B", Stuff: Kernmantle(4, sand), JoinedTo: "A"})},
		{"leather-fist", "Leather fist on a marble", "Round leather lace over a glass marble, the start hidden, hung on its ring by a coil loop.",
			Begin("Leather fist", "fist", SplitRing(25, 2), 0).With("mount A hitch=from-knot, monkeys-fist 4 core=marble size=14mm, coil-loop 6",
				Cord{ID: "A", Stuff: cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 3, Colour: leather}})},
		{"napkin-ring", "Napkin ring", "Four strands side by side, once round a mandrel with three leads and four bights, the ends tucked out of sight.",
			Begin("Napkin ring", "napkin-ring", Hardware{Type: "none", InnerMM: 30, WireMM: 2}, 0).With("mount A B C D hitch=from-knot, rope-ball 1 side=4 former=40mm",
				Cord{ID: "A", Stuff: Kernmantle(4, lagoon)}, Cord{ID: "B", Stuff: Kernmantle(4, sand)}, Cord{ID: "C", Stuff: Kernmantle(4, sand)}, Cord{ID: "D", Stuff: Kernmantle(4, lagoon)})},
		{"rope-ball", "Rope ball", "The same track followed once more with all three strands till it covers a ball of wadding: a door stop, a footstool's knob.",
			Begin("Rope ball", "rope-ball", Hardware{Type: "none", InnerMM: 30, WireMM: 2}, 0).With("mount A B C hitch=from-knot, rope-ball 2 side=3",
				Cord{ID: "A", Stuff: Cotton(8, chalk)}, Cord{ID: "B", Stuff: Cotton(8, rust)}, Cord{ID: "C", Stuff: Cotton(8, chalk)})},
		{"eight-pass-fist", "Fist of eight passes", "Doubled leads, eight turns on every face, four strands out for a handle of square knots.",
			Begin("Fist of eight", "fist", SplitRing(40, 3), 0).With("mount A B hitch=from-knot, monkeys-fist 8 mode=doubled core=wood, square-knot 7, overhand of=all, finish singe-and-press",
				Cord{ID: "A", Stuff: Kernmantle(3, lagoon)}, Cord{ID: "B", Stuff: Kernmantle(3, chalk)})},
	}
}
