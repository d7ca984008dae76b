// Package patterns are the pieces to start from.
package patterns

import (
	"nimblebight/core/cord"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
)

// Pattern is a piece to start from.
type Pattern struct {
	ID       string         `json:"id"`
	Name     string         `json:"name"`
	About    string         `json:"about"`
	Document piece.Document `json:"document"`
}

// All lists the pieces to start from.
func All() []Pattern {
	inside := piece.Legs{ShortInside: true}
	return []Pattern{
		{"two-colour-fob", "Two-colour flat fob", "Two cords on a ring, square knots, ends pressed: the first thing most people tie.",
			notation.With(piece.Begin("Two-colour fob", "key-fob", piece.SplitRing(30, 2), 110), "mount A B, square-knot 9, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand), Legs: inside})},
		{"spiral-fob", "Spiral fob", "Half knots all of one hand, so that the row turns by itself.",
			notation.With(piece.Begin("Spiral fob", "key-fob", piece.SplitRing(30, 2), 110), "mount A B, half-knot 20, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Rust), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Chalk), Legs: inside})},
		{"thin-over-thick", "Thin cord over thick legs", "A thick cord hangs, a thin one is laid behind it and does all the knotting.",
			notation.With(piece.Begin("Thin over thick", "zip-pull", piece.SplitRing(20, 1.8), 95), "mount A, mount B hitch=laid-behind, square-knot 13, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Moss)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(2.2, piece.Sand)})},
		{"cotton-charm", "Cotton charm with a fringe", "Soft cotton in square knots, gathered with a wrap and combed out.",
			notation.With(piece.Begin("Cotton charm", "charm", piece.SplitRing(30, 2), 145), "mount A B, square-knot 6, gather C turns=6, finish fringe length=45mm",
				piece.Cord{ID: "A", Stuff: piece.Cotton(5, piece.Chalk), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Cotton(5, piece.Chalk), Legs: inside}, piece.Cord{ID: "C", Stuff: piece.Cotton(3, piece.Rust)})},
		{"grouped-fob", "Groups with gaps", "Square knots in groups with bare lengths between them.",
			notation.With(piece.Begin("Grouped fob", "key-fob", piece.SplitRing(30, 2), 120), "mount A B, square-knot 4, gap 10mm, square-knot 4, half-knot 1, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Moss), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Chalk), Legs: inside})},
		{"crossed-rows", "Two rows, crossed", "Two sinnets side by side, crossed over each other once and held by a wrap.",
			notation.With(piece.Begin("Crossed rows", "key-fob", piece.SplitRing(32, 2.4), 99), "mount A B C D, rows 1-4:(square-knot 8) 5-8:(square-knot 8 start=right) cross=1, gather E turns=6, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Lagoon), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Lagoon), Legs: inside},
				piece.Cord{ID: "C", Stuff: piece.Kernmantle(3, piece.Sand), Legs: inside}, piece.Cord{ID: "D", Stuff: piece.Kernmantle(3, piece.Sand), Legs: inside}, piece.Cord{ID: "E", Stuff: piece.Kernmantle(2.2, piece.Rust)})},
		{"bead-diamonds", "Diamonds with beads", "Three diamonds of hitches on soft cotton, a bead in each, the last one with a fuller edge.",
			notation.With(piece.Begin("Bead diamonds", "charm", piece.SplitRing(30, 2), 134), "mount A B C, diamond 2 inside=bead hole=5mm long=7mm wide=9mm, diamond 1 inside=bead close=end-doubled hole=5mm long=7mm wide=9mm, gather D turns=5, finish fringe length=35mm",
				piece.Cord{ID: "A", Stuff: piece.Cotton(3, piece.Chalk), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Cotton(3, piece.Chalk), Legs: inside}, piece.Cord{ID: "C", Stuff: piece.Cotton(3, piece.Chalk), Legs: inside}, piece.Cord{ID: "D", Stuff: piece.Cotton(2, piece.Rust)})},
		{"wrist-strap", "Wrist strap", "A long flat band folded back to a loop for the wrist and held by a wrap.",
			notation.With(piece.Begin("Wrist strap", "wrist-strap", piece.Hardware{Type: "swivel-clip", InnerMM: 28, WireMM: 3}, 172), "mount A B, gap 9mm, square-knot 31, fold-back 160mm, gather C turns=9, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Rust), Legs: inside}, piece.Cord{ID: "C", Stuff: piece.Kernmantle(2.2, piece.Sand)})},
		{"berry-charm", "Berry charm", "A berry knot under a short sinnet, locked, with a combed end.",
			notation.With(piece.Begin("Berry charm", "charm", piece.SplitRing(30, 2), 142), "mount A B, square-knot 3, gap 8mm, berry-knot 1, gap 6mm, berry-knot 1 squares=2, finish fringe length=30mm",
				piece.Cord{ID: "A", Stuff: piece.Cotton(4, piece.Rust), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Cotton(4, piece.Rust), Legs: inside})},
		{"spiral-pull", "Spiral pull", "A short spiral over a thicker core with a bead, for a zip or a blind.",
			notation.With(piece.Begin("Spiral pull", "zip-pull", piece.SplitRing(22, 1.8), 99), "mount A B, half-knot 14, bead hole=6mm long=10mm wide=12mm, overhand, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Moss), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Sand), Legs: inside})},
		{"switch-charm", "Switch-knot charm", "Workers and fillers change places after every knot; all four cords run out together.",
			notation.With(piece.Begin("Switch charm", "charm", piece.SplitRing(30, 2), 135), "mount A B, switch-knot 5 gap=9mm, square-knot 1, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Rust)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})},
		{"rib-fob", "Ribbed fob", "Rows of hitches to and fro, with square knots between them.",
			notation.With(piece.Begin("Ribbed fob", "key-fob", piece.SplitRing(30, 2), 111), "mount A B C, 2x(double-half-hitch, double-half-hitch direction=left, square-knot 2 strands=2-5), double-half-hitch, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Lagoon), Legs: inside}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Chalk), Legs: inside}, piece.Cord{ID: "C", Stuff: piece.Kernmantle(3, piece.Lagoon), Legs: inside})},
		{"two-colour-fist", "Two-colour fist", "A ball of two cords round their own stopper: one shows on two faces, the other on four. A snake sinnet, and a loop fused at its end.",
			notation.With(piece.Begin("Two-colour fist", "fist", piece.SplitRing(30, 2), 0), "mount A B hitch=from-knot, monkeys-fist 4 mode=two-cords, snake-knot 12, finish fuse length=60mm",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Rust)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand), JoinedTo: "A"})},
		{"leather-fist", "Leather fist on a marble", "Round leather lace over a glass marble, the start hidden, hung on its ring by a coil loop.",
			notation.With(piece.Begin("Leather fist", "fist", piece.SplitRing(25, 2), 0), "mount A hitch=from-knot, monkeys-fist 4 core=marble size=14mm, coil-loop 6",
				piece.Cord{ID: "A", Stuff: cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 3, Colour: piece.Leather}})},
		{"napkin-ring", "Napkin ring", "Four strands side by side, once round a mandrel with three leads and four bights, the ends tucked out of sight.",
			notation.With(piece.Begin("Napkin ring", "napkin-ring", piece.Hardware{Type: "none", InnerMM: 30, WireMM: 2}, 0), "mount A B C D hitch=from-knot, rope-ball 1 side=4 former=40mm",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)}, piece.Cord{ID: "C", Stuff: piece.Kernmantle(4, piece.Sand)}, piece.Cord{ID: "D", Stuff: piece.Kernmantle(4, piece.Lagoon)})},
		{"rope-ball", "Rope ball", "The same track followed once more with all three strands till it covers a ball of wadding: a door stop, a footstool's knob.",
			notation.With(piece.Begin("Rope ball", "rope-ball", piece.Hardware{Type: "none", InnerMM: 30, WireMM: 2}, 0), "mount A B C hitch=from-knot, rope-ball 2 side=3",
				piece.Cord{ID: "A", Stuff: piece.Cotton(8, piece.Chalk)}, piece.Cord{ID: "B", Stuff: piece.Cotton(8, piece.Rust)}, piece.Cord{ID: "C", Stuff: piece.Cotton(8, piece.Chalk)})},
		{"eight-pass-fist", "Fist of eight passes", "Doubled leads, eight turns on every face, four strands out for a handle of square knots.",
			notation.With(piece.Begin("Fist of eight", "fist", piece.SplitRing(40, 3), 0), "mount A B hitch=from-knot, monkeys-fist 8 mode=doubled core=wood, square-knot 7, overhand of=all, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Chalk)})},
		{"knife-lanyard", "Knife lanyard", "One cord doubled, its loop kept long, two diamonds on its two strands.",
			notation.With(piece.Begin("Knife lanyard", "lanyard", piece.SplitRing(20, 1.8), 98), "mount A, gap 45mm, two-strand-diamond, gap 10mm, two-strand-diamond, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Moss)})},
		{"bead-knife-pull", "Knife pull with a bead", "Through a lanyard hole, a bead between two diamonds, the ends domed: hard enough to grip, bare enough at the hole to fold over.",
			notation.With(piece.WithBlade(piece.Begin("Knife pull", "lanyard", piece.Hardware{Type: "hole", InnerMM: 6, WireMM: 4, DepthMM: 12}, 0), 45), "mount A hitch=through-hole, gap 8mm, two-strand-diamond, bead hole=7mm long=10mm wide=12mm, two-strand-diamond, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Moss)})},
		{"snake-lanyard", "Snake lanyard through a hole", "A slim snake sinnet of two colours, the cords fused at the fold, a ring in the middle for a second tool, one diamond to end it.",
			notation.With(piece.Begin("Snake lanyard", "lanyard", piece.Hardware{Type: "hole", InnerMM: 6, WireMM: 4, DepthMM: 12}, 0), "mount A hitch=through-hole, gap 10mm, snake-knot 14, ring-in inner=16mm wire=2mm, snake-knot 6, two-strand-diamond, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand), JoinedTo: "A"})},
		{"loop-pull", "Diamond pull with a kept loop", "A loop to take in anything, kept to its length, under it three diamonds.",
			notation.With(piece.Begin("Diamond pull", "zip-pull", piece.Hardware{Type: "none", InnerMM: 20, WireMM: 2}, 0), "mount A hitch=kept-loop loop=40mm, two-strand-diamond 3, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Rust)})},
		{"neck-cord", "Pendant on a sliding neck cord", "A bail on thin cord with a knot over it, closed by a sliding pair: it opens to go over the head and shortens.",
			notation.With(piece.Begin("Neck cord", "neck-cord", piece.Hardware{Type: "bail", InnerMM: 8, WireMM: 1.8}, 0), "mount A, long-crown-and-diamond form=short, sliding-pair max=680mm",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(2.2, piece.Lagoon)})},
		{"pretzel-pull", "Pretzel zip pull", "Pretzel knots at gaps, a bead, and a second ring that the last of them takes in, on two colours fused to one cord.",
			notation.With(piece.Begin("Pretzel pull", "zip-pull", piece.SplitRing(14, 1.6), 0), "mount A, gap 4mm, pretzel-knot 2 gap=5mm, bead hole=6mm long=9mm wide=11mm shape=round, pretzel-knot take=ring inner=18mm wire=1.6mm, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Rust)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Sand), JoinedTo: "A"})},
		{"long-stopper", "Long stopper pull", "The crown-and-diamond in its long form, an overhand to end it: a grip for a bell rope or a blind.",
			notation.With(piece.Begin("Long stopper", "stopper", piece.SplitRing(18, 2), 0), "mount A, gap 25mm, long-crown-and-diamond, gap 6mm, overhand, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Moss)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Chalk), JoinedTo: "A"})},
		{"pair-strap", "Key strap of pairs with an accent", "Two cords led in pairs through three double diamonds, a thin cord between the strands of one pair.",
			notation.With(piece.Begin("Pair strap", "key-fob", piece.SplitRing(24, 2), 0), "mount A B, double-diamond 3 accent=C, finish dome",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(3, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(3, piece.Rust)}, piece.Cord{ID: "C", Stuff: piece.Kernmantle(1.2, piece.Sand)})},
		{"locker-tether", "Two-ended locker tether", "A ring at either end: two colours fused to one cord run to the far ring and back, and are tied over the run.",
			notation.With(piece.Between(piece.Begin("Locker tether", "tether", piece.SplitRing(20, 2), 0), piece.SplitRing(20, 2), 150), "mount A, run-back, square-knot 11, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand), JoinedTo: "A"})},
		{"crown-fob", "Crown sinnet fob", "Two cords crowned square: one colour on two sides, the other on the other two.",
			notation.With(piece.Begin("Crown fob", "key-fob", piece.SplitRing(30, 2), 99), "mount A B, crown 12, finish singe-and-press",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})},
		{"chained-fist", "Chained fist", "One cord from beginning to end: a fist, a chain for its neck, a coiled eye on the ring.",
			notation.With(piece.Begin("Chained fist", "fist", piece.SplitRing(25, 2), 0), "mount A hitch=from-knot, monkeys-fist 3 core=wood, chain-sinnet 7, coil-loop 5",
				piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Rust)})},
	}
}
