// Package demo fills an empty store with the Marram Quay boathouse: a made-up
// rowing and canoe club whose members tie what its lockers, boats and spring
// fair need.
package demo

import (
	"context"
	"encoding/json"
	"fmt"

	"nimblebight/core/cord"
	"nimblebight/core/evidence"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/store"
)

type spool struct {
	name  string
	stuff cord.Stuff
}

func weighed(s cord.Stuff, g float64) cord.Stuff {
	s.GramsPerMetre = g
	return s
}

// quay is one make of cord in four colours: its label tells it from others, so that a
// swatch of one colour counts for all.
func quay(colour string) cord.Stuff {
	s := piece.Kernmantle(4, colour)
	s.Label = "quay braid"
	return s
}

var drawer = []spool{
	{"Lagoon kernmantle", weighed(quay("#0f5c63"), 6.8)},
	{"Sand kernmantle", weighed(quay("#e3c88f"), 6.9)},
	{"Signal rust kernmantle", quay("#b4532a")},
	{"Night kernmantle", quay("#22313f")},
	{"Thin marsh kernmantle", piece.Kernmantle(2.2, "#7c8f4a")},
	{"Chalk cotton, soft", piece.Cotton(5, "#e9e4d6")},
	{"Heather cotton, soft", piece.Cotton(3, "#8a5a83")},
	{"Wharf braid", cord.Stuff{Make: "solid-braid", Material: "polyester", DiameterMM: 3, Colour: "#3e6b8a"}},
	{"Tiller leather lace", cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 3, Colour: "#7a4a2b"}},
	{"Reed cotton, soft braid", cord.Stuff{Make: "soft-braid", Material: "cotton", DiameterMM: 4, Colour: "#c9b27c"}},
	{"Bridle lace, flat", cord.Stuff{Make: "flat-leather", Material: "leather", DiameterMM: 5, ThicknessMM: 1.5, Colour: "#8a5a2f"}},
	{"Cap elastic", cord.Stuff{Make: "elastic", Material: "rubber", DiameterMM: 2, Colour: "#22313f"}},
	{"Tideline kernmantle", patterned("#e3c88f", cord.Changing, 240, "#3e6b8a")},
	{"Beacon kernmantle", patterned("#22313f", cord.Tracer, 24, "#f2ead2")},
	{"Regatta kernmantle", patterned("#e9e4d6", cord.TwoColour, 30, "#b4532a")},
}

// patterned is the quay braid with other colours on its sheath, which come again after so
// many mm.
func patterned(colour string, p cord.Pattern, repeat float64, beside ...string) cord.Stuff {
	s := quay(colour)
	s.Sheath = &cord.Sheath{Pattern: p, Colours: beside, RepeatMM: repeat}
	return s
}

// Pieces are the documents of the demo rack.
func Pieces() []piece.Document {
	ring := piece.SplitRing
	four := func(i int) cord.Stuff { return drawer[i].stuff }
	c := func(id string, s cord.Stuff, l piece.Legs) piece.Cord { return piece.Cord{ID: id, Stuff: s, Legs: l} }
	note := func(d piece.Document, n string) piece.Document { d.Purpose.Note = n; return d }
	return []piece.Document{
		note(notation.With(piece.Begin("Slipway locker 14", "key-fob", ring(30, 2), 110), "mount A B, square-knot 9, finish singe-and-press",
			c("A", four(0), piece.Legs{}), c("B", four(1), piece.Legs{})), "Lagoon bars in front: the slipway row."),
		notation.With(piece.Begin("Oar rack tag", "key-fob", ring(30, 2), 100), "mount A B, square-knot 7 start=right, half-knot 1 hand=right, finish singe-and-press",
			c("A", four(2), piece.Legs{}), c("B", four(2), piece.Legs{})),
		note(notation.With(piece.Begin("Carving knife pull", "lanyard", piece.Hardware{Type: "rod", InnerMM: 22, WireMM: 5}, 114), "mount A, mount B hitch=laid-behind, square-knot 16, finish singe-and-press", c("A", four(3), piece.Legs{}), c("B", four(4), piece.Legs{})),
			"Hangs from the lanyard hole's pin; keep it clear of the blade's path."),
		notation.With(piece.Begin("Spring fair charm", "charm", ring(30, 2), 150), "mount A B, square-knot 6, gather C turns=7, finish fringe length=45mm",
			c("A", four(5), piece.Legs{}), c("B", four(5), piece.Legs{}), c("C", four(6), piece.Legs{})),
		note(notation.With(piece.Begin("Tender outboard key", "key-fob", piece.Hardware{Type: "carabiner", InnerMM: 30, WireMM: 4}, 120), "mount A B hitch=larks-head-reversed, half-knot 21, finish dome", c("A", four(1), piece.Legs{ShortInside: true}), c("B", four(3), piece.Legs{FirstMM: 150})),
			"Cut from the note on the last one; see the warning."),
		notation.With(piece.Begin("Boathouse door", "key-fob", piece.Hardware{Type: "swivel-clip", InnerMM: 28, WireMM: 3}, 130), "mount A B, square-knot 3, gap 9mm, square-knot 3, gap 9mm, square-knot 3, finish singe-and-press", c("A", four(3), piece.Legs{}), c("B", four(1), piece.Legs{})),
		notation.With(piece.Begin("Loft blind stopper", "stopper", piece.Hardware{Type: "rod", InnerMM: 24, WireMM: 4}, 88), "mount A B, half-knot 17 hand=right, finish singe-and-press", c("A", four(7), piece.Legs{}), c("B", weighed(four(7), 6.4), piece.Legs{})),
		note(notation.With(piece.Begin("Regatta wrist strap", "wrist-strap", piece.Hardware{Type: "swivel-clip", InnerMM: 28, WireMM: 3}, 172), "mount A B, gap 9mm, square-knot 31, fold-back 160mm, gather C turns=9, finish singe-and-press", c("A", four(0), piece.Legs{}), c("B", four(2), piece.Legs{}), c("C", four(4), piece.Legs{})),
			"For the timekeepers: the watch hangs from the clip."),
		notation.With(piece.Begin("Spring fair diamonds", "charm", ring(30, 2), 155), "mount A B C, diamond 3 inside=bead close=end-doubled hole=5mm long=7mm wide=9mm, gather D turns=5, finish fringe length=35mm",
			c("A", four(6), piece.Legs{}), c("B", four(6), piece.Legs{}), c("C", four(6), piece.Legs{}), c("D", piece.Cotton(2, "#e9e4d6"), piece.Legs{})),
		notation.With(piece.Begin("Twin canoe fob", "key-fob", ring(32, 2.4), 99), "mount A B C D, rows 1-4:(square-knot 8) 5-8:(square-knot 8 start=right) cross=1, gather E turns=6, finish dome",
			c("A", piece.Kernmantle(3, "#0f5c63"), piece.Legs{}), c("B", piece.Kernmantle(3, "#0f5c63"), piece.Legs{}), c("C", piece.Kernmantle(3, "#e3c88f"), piece.Legs{}), c("D", piece.Kernmantle(3, "#e3c88f"), piece.Legs{}), c("E", four(4), piece.Legs{})),
		notation.With(piece.Begin("Berry charm, rust", "charm", ring(30, 2), 134), "mount A B, square-knot 3, gap 8mm, berry-knot 1, gap 6mm, berry-knot 1 squares=2, finish fringe length=30mm", c("A", piece.Cotton(4, "#b4532a"), piece.Legs{}), c("B", piece.Cotton(4, "#b4532a"), piece.Legs{})),
		note(notation.With(piece.Begin("Coxing boat key", "fist", ring(30, 2), 0), "mount A B hitch=from-knot, monkeys-fist 4 mode=two-cords, snake-knot 12, finish fuse length=60mm",
			c("A", four(0), piece.Legs{}), joined(c("B", four(1), piece.Legs{}), "A")), "Floats with its key if the loop is left off the ring."),
		notation.With(piece.Begin("Workshop door marble", "fist", ring(25, 2), 0), "mount A hitch=from-knot, monkeys-fist 4 core=marble size=14mm, coil-loop 6", c("A", four(8), piece.Legs{})),
		note(notation.With(piece.Begin("Fair supper ring", "napkin-ring", piece.Hardware{Type: "none", InnerMM: 30, WireMM: 2}, 0), "mount A B C D hitch=from-knot, rope-ball 1 side=4 former=40mm",
			c("A", four(1), piece.Legs{}), c("B", four(2), piece.Legs{}), c("C", four(2), piece.Legs{}), c("D", four(1), piece.Legs{})), "Twenty of them for the supper after the spring fair."),
		note(notation.With(piece.Begin("Bell rope fist", "fist", ring(40, 3), 0), "mount A B hitch=from-knot, monkeys-fist 8 mode=doubled core=wood, square-knot 7, overhand, finish singe-and-press",
			c("A", piece.Kernmantle(3, "#22313f"), piece.Legs{}), c("B", piece.Kernmantle(3, "#e9e4d6"), piece.Legs{})), "Replaces the worn knob on the bell rope."),
		note(piece.Between(notation.With(piece.Begin("Canoe rack tether", "tether", ring(20, 2), 0), "mount A, run-back from=far, square-knot 12, finish singe-and-press",
			c("A", four(0), piece.Legs{}), joined(c("B", four(1), piece.Legs{}), "A")), ring(20, 2), 150), "From the rack's eye to the canoe's ring."),
		note(piece.WithBlade(notation.With(piece.Begin("Whittling knife pull", "lanyard", piece.Hardware{Type: "hole", InnerMM: 6, WireMM: 4, DepthMM: 12}, 0), "mount A hitch=through-hole, gap 8mm, two-strand-diamond, bead hole=7mm long=10mm wide=12mm, two-strand-diamond, finish dome",
			c("A", four(2), piece.Legs{})), 45), "Workshop knife 3: the blade folds past the hole."),
		notation.With(piece.Begin("Loft blind pull", "stopper", ring(18, 2), 0), "mount A, gap 25mm, long-crown-and-diamond, gap 6mm, overhand, finish singe-and-press",
			c("A", four(0), piece.Legs{}), joined(c("B", four(2), piece.Legs{}), "A")),
		note(notation.With(piece.Begin("Carving bench lanyard", "lanyard", ring(20, 1.8), 0), "mount A, gap 45mm, turks-head B leads=5 bights=4, gap 10mm, two-strand-diamond, finish dome",
			c("A", four(3), piece.Legs{}), c("B", piece.Kernmantle(2.2, "#e3c88f"), piece.Legs{})), "The woven grip sits where the thumb is."),
		notation.With(piece.Begin("Boat shed mat fob", "key-fob", piece.Hardware{Type: "none", InnerMM: 30, WireMM: 2}, 0), "mount A B hitch=from-knot, flat-mat, multi-strand-diamond collar=yes, gap 4mm, ring-in inner=22mm wire=2mm, multi-strand-diamond, finish dome",
			c("A", piece.Kernmantle(2.2, "#0f5c63"), piece.Legs{}), c("B", piece.Kernmantle(2.2, "#b4532a"), piece.Legs{})),
		note(notation.With(piece.Begin("Tide table fob", "key-fob", ring(30, 2), 0), "mount A, mount B hitch=laid-behind, square-knot 10, finish singe-and-press",
			c("A", four(13), piece.Legs{}), c("B", four(12), piece.Legs{})), "Sand for ebb, blue for flood: slide the repeat till high water sits in the middle."),
	}
}

func joined(c piece.Cord, to string) piece.Cord { c.JoinedTo = to; return c }

// swatches are what the boathouse's members tied and measured of the quay braid.
var swatches = []evidence.Swatch{
	{Stuff: drawer[0].stuff, Knot: "square-knot", Count: 10, HeightMM: 116, TookMM: []float64{531, 528}, At: "2026-09-05T17:20:00Z"},
	{Stuff: drawer[2].stuff, Knot: "square-knot", Count: 8, HeightMM: 93, TookMM: []float64{431, 427}, At: "2026-10-11T10:05:00Z"},
}

// cores are those in the boathouse's drawer.
var cores = []struct {
	name string
	core ball.Core
}{
	{"sweet-jar marble", ball.Core{Kind: ball.Marble, DiameterMM: 14}},
	{"large marble", ball.Core{Kind: ball.Marble, DiameterMM: 25}},
	{"bearing ball", ball.Core{Kind: ball.Steel, DiameterMM: 19}},
	{"beech ball", ball.Core{Kind: ball.Wood, DiameterMM: 20}},
	{"cork float", ball.Core{Kind: ball.Wood, DiameterMM: 30}},
	{"pea bead", ball.Core{Kind: ball.Wood, DiameterMM: 8}},
}

// thing is a bead, hardware or a tool of the drawer as the store keeps it.
type thing struct {
	shelf    store.Shelf
	name     string
	Bead     *knot.Bead      `json:"bead,omitempty"`
	Hardware *piece.Hardware `json:"hardware,omitempty"`
	Left     int             `json:"left,omitempty"`
}

// things are the beads, the hardware and the tools of the workshop.
var things = []thing{
	{shelf: store.Beads, name: "driftwood barrel", Bead: &knot.Bead{HoleMM: 7, LengthMM: 10, WidthMM: 13}, Left: 14},
	{shelf: store.Beads, name: "brass disc", Bead: &knot.Bead{HoleMM: 8, LengthMM: 4, WidthMM: 16, Colour: "#b08d3c", Shape: "disc"}, Left: 6},
	{shelf: store.Beads, name: "oar blank, round", Bead: &knot.Bead{HoleMM: 9, LengthMM: 14, WidthMM: 16, Shape: "round"}, Left: 9},
	{shelf: store.Hardware, name: "locker ring", Hardware: &piece.Hardware{Type: "split-ring", InnerMM: 30, WireMM: 2}, Left: 22},
	{shelf: store.Hardware, name: "small ring", Hardware: &piece.Hardware{Type: "split-ring", InnerMM: 20, WireMM: 1.8}, Left: 40},
	{shelf: store.Hardware, name: "slipway clip", Hardware: &piece.Hardware{Type: "swivel-clip", InnerMM: 14, WireMM: 3}, Left: 5},
	{shelf: store.Tools, name: "lacing needle"}, {shelf: store.Tools, name: "haemostat"}, {shelf: store.Tools, name: "cork board and pins"},
	{shelf: store.Tools, name: "lighter", Left: 2}, {shelf: store.Tools, name: "wetted blade"},
}

// Fill fills an empty store; a store that holds anything is left as it is.
func Fill(ctx context.Context, s *store.Store) error {
	have, err := s.Tags(ctx, false)
	if err != nil {
		return err
	}
	cords, err := s.Drawer(ctx, store.Cords)
	if err != nil || len(have) > 0 || len(cords) > 0 {
		return err
	}
	put := func(shelf store.Shelf, name string, what any) error {
		b, err := json.Marshal(what)
		if err == nil {
			_, err = s.PutIn(ctx, shelf, store.Stuff{Name: name, What: b})
		}
		return err
	}
	for _, sp := range drawer {
		if err := put(store.Cords, sp.name, sp.stuff); err != nil {
			return err
		}
	}
	for _, t := range things {
		if err := put(t.shelf, t.name, t); err != nil {
			return err
		}
	}
	for _, c := range cores {
		if err := put(store.Cores, c.name, c.core); err != nil {
			return err
		}
	}
	for _, w := range swatches {
		if err := put(store.Swatches, w.Stuff.Kind(), w); err != nil {
			return err
		}
	}
	for _, d := range Pieces() {
		if ps := d.Check(); len(ps) > 0 {
			return fmt.Errorf("demo piece %q: %w", d.Name, ps)
		}
		b, err := json.Marshal(d)
		if err != nil {
			return err
		}
		p, err := s.Create(ctx, b, store.Summary{})
		if err != nil {
			return err
		}
		switch d.Name {
		case "Oar rack tag": // half tied, side to remember
			if _, _, err := s.Go(ctx, p.ID, store.Step{To: 13, Revision: p.Revision, Device: "the bench by the window"}); err != nil {
				return err
			}
		case "Loft blind stopper":
			minutes, length := 25.0, 87.0
			if _, err := s.AddLog(ctx, store.Log{PieceID: p.ID, Minutes: &minutes, LengthMM: &length, Note: "Came up a little shorter than planned; ends clean.", Counts: store.CountsAsked,
				Cords: []byte(`[{"id":"A","cut_mm":640,"left_mm":120},{"id":"B","cut_mm":640,"left_mm":105}]`)}); err != nil {
				return err
			}
		}
	}
	return nil
}
