// Package ringdiamond ties the diamond of strands that stand in a ring, doubled to a ring
// collar, and the terminal knot, which is the same turned over.
package ringdiamond

import (
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
	"nimblebight/core/tighten"
)

// least and most are the strands that a diamond can be tied with.
const least, most = 3, 8

// Collar is whether the diamond is doubled.
type Collar string

// Single, or every strand followed round once more.
const (
	Single  Collar = "no"
	Doubled Collar = "yes"
)

// Choices are both.
func (Collar) Choices() []string { return []string{string(Single), string(Doubled)} }

// Settings of a diamond.
type Settings struct {
	RingCollar Collar    `json:"ring_collar,omitempty" typed:"collar" label:"doubled to a ring collar" default:"no"`
	Direction  knot.Turn `json:"direction,omitempty" typed:"direction" label:"direction" default:"anticlockwise"`
}

// Diamond of strands in a ring, single or doubled: each strand over the next, under the
// one after and up through its bight. Doubled it is a ring collar: each end goes on down
// beside the strand that begins where it comes out, on the outer side of the lower bight.
//
// Right: from the side arcs over and under by turns, from the ends a bight round each
// end; doubled, double chevrons all round. Wrong: an end under the first instead of the
// second next: it leans, and a lower bight hangs out. Doubled on the inner side the
// pairs cross at the rim and part.
func init() {
	knot.Add(knot.Knot{
		ID: "multi-strand-diamond", Name: "multi-strand diamond", Family: "in a ring",
		Held:       "In the hand, the strands standing up between the fingers.",
		OtherNames: []string{"ring collar", "diamond in the middle"},
		For:        "a round knot in the middle of three to eight strands, which go straight on through it; doubled, a collar for lanyards and handles",
		Schools: []knot.School{
			{Field: "ring_collar", Default: "no", Why: "single it is a small crown of arcs; doubled it is a fat collar of chevrons and takes nearly three times the cord"},
			{Field: "direction", Default: "anticlockwise", Why: "either will do; two in a row look best as mirrors"},
		},
		Glyph:    "M9 2v5M15 2v5M9 17v5M15 17v5M4 9l16 6M20 9L4 15M4 9v6M20 9v6M8 7h8M8 17h8",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: least, Most: most}, Bundles: true}
		},
		Tie:    tie,
		Sample: knot.Sample{Line: "mount A B, gap 14mm, multi-strand-diamond collar=yes", Cords: 2, Section: 2},
	})
	add := func(name, about string, doubled bool, cord float64, determinant int) {
		knot.AddRoute(knot.Route{Name: name, Family: "in a ring", About: about, Problem: func() tighten.Problem { return route(4, doubled) },
			Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: cord, Share: 0.02, Determinant: determinant})
	}
	add("multi-strand-diamond", "each of four strands over the next, under the one after and up", false, 10.5, 140)
	add("ring-collar", "a diamond of four, each strand followed round once more", true, 28.6, 252)
}

// tie ties as many as the section counts, one under the other.
func tie(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	doubled := set.RingCollar == Doubled
	called := "a multi-strand diamond"
	if doubled {
		called = "a ring collar"
	}
	if err := ring.Takes(w, called, least, most); err != nil {
		return knot.Tied{}, err
	}
	return ring.Led(w, set.Direction, func(w knot.Work) (knot.Tied, error) {
		return knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) { return tieOne(w, doubled) })
	})
}

func tieOne(w knot.Work, doubled bool) (knot.Tied, error) {
	n := len(w.Strands)
	shape, err := family.Shape(name(n, doubled), func() tighten.Problem { return route(n, doubled) })
	if err != nil {
		return knot.Tied{}, err
	}
	if doubled {
		t, err := ring.Tie(w, shape, ring.Route(n, told(n)), collarMoves)
		if err != nil {
			return t, err
		}
		once, err := family.Shape(name(n, false), func() tighten.Problem { return route(n, false) })
		if err == nil {
			t.Checks = append(t.Checks, ring.Longer(once.Strands[0], shape.Strands[0], ring.Thickest(w)))
		}
		return t, err
	}
	return ring.Tie(w, shape, route(n, false), moves)
}

// moves are those of one diamond, drawn up.
func moves(as []int, _ []ring.Meet) []move.Move {
	out := diamondOf(as, "From the side arcs lie over and under by turns; from the end a bight lies round each end.")
	return append(out, move.Rounds(out, 2, "the work")...)
}

// diamondOf are the moves of a diamond, with what to look at after them: each strand
// goes over the next and under the one after.
func diamondOf(as []int, gate string) []move.Move {
	own := []ring.Meet{{On: 1, Over: true}, {On: 2}}
	var out []move.Move
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Turn: string(knot.Anticlockwise), Passes: ring.Passes(own, i, as),
			Text: "Lead {me} {turn}: {over 0}, {over 1}, and up through that one's bight."}
		if i == 0 {
			m.Detail = "Look at the working end. The first strands wait for the bights that they come up through."
		}
		if i == len(as)-1 {
			m.Gate = gate
		}
		out = append(out, m)
	}
	return out
}

// collarMoves are those of a collar: the diamond, left loose, and each strand on beside
// the one that begins where it comes out. What a strand passes is eight places in the
// first round, of which the first four are passed by those that come after it; in the
// second it goes down over what lies at the rim, over and under a pair, over and under a
// pair again, and up under what lies at the rim.
func collarMoves(as []int, meets []ring.Meet) []move.Move {
	turn := string(knot.Anticlockwise)
	last := len(as) - 1
	out := diamondOf(as, "The diamond stands loose and even before it is doubled.")
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Follows: true, Turn: turn, Passes: ring.Passes(meets[8:13], i, as),
			Text: "Lead {me} down beside the strand that comes straight out of the work where it comes out itself, on the outer side of the lower bight: {above 1} what that goes over, {above 3} what it goes under."}
		if i == last {
			m.Gate = "All ends lie beside a strand, on its outer side, before one goes on."
		}
		out = append(out, m)
	}
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Follows: true, Turn: turn, Passes: ring.Passes(meets[13:18], i, as),
			Text: "Lead {me} on {turn} beside the same strand: {above 0} two, {above 2} two, and up the middle."}
		if i == last {
			m.Gate = "Double chevrons all round; no pair crosses itself at the rim."
		}
		out = append(out, m)
	}
	return append(out, move.Rounds(out, 2, "the work, outwards,")...)
}
