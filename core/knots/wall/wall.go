// Package wall walls strands that stand in a ring.
package wall

import (
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
	"nimblebight/core/tighten"
)

// least and most are the strands that a wall can be tied with.
const least, most = 3, 6

// Settings of a wall.
type Settings struct {
	Passes    int       `json:"passes,omitempty" typed:"passes" label:"walled" default:"1" least:"1" most:"2"`
	Direction knot.Turn `json:"direction,omitempty" typed:"direction" label:"direction" default:"anticlockwise"`
}

// Wall knot, single or double: each strand under its neighbour and up inside that one's
// bight. Double, each goes on beside the strand that comes straight out of the work two
// steps on, outside and below it, and comes up in the middle through two.
//
// Right: all ends leave at one height, a bight between each two; double, pairs lie side
// by side all round. Wrong: an end comes up outside its neighbour's bight; a second round
// laid above or inside the first, so that pairs cross.
func init() {
	knot.Add(knot.Knot{
		ID: "wall", Name: "wall knot", Family: "in a ring",
		OtherNames: []string{"double wall", "single wall"},
		For:        "a stopper of three to six strands, or the foot of a crown: bell ropes, fobs, handles",
		Schools: []knot.School{
			{Field: "passes", Default: "1", Why: "twice round it is fat and holds by itself; once it is the beginning of more"},
			{Field: "direction", Default: "anticlockwise", Why: "either will do; keep one, so that a crown on it lies against it"},
		},
		Glyph:    "M12 21V15M7 21v-5c0-4 2-6 5-6s5 2 5 6v5M4 13c0-6 3-9 8-9s8 3 8 9M9 10V3M15 10V3",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: least, Most: most}, Bundles: true}
		},
		Tie:    tie,
		Sample: knot.Sample{Line: "mount A B, gap 14mm, wall passes=2", Cords: 2, Section: 2},
	})
	add := func(name, about string, passes int, cord float64, determinant int) {
		knot.AddRoute(knot.Route{Name: name, Family: "in a ring", About: about, Problem: func() tighten.Problem { return route(4, passes) },
			Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: cord, Share: 0.02, Determinant: determinant})
	}
	add("wall", "each of four strands under its neighbour and up", 1, 5.93, 12)
	add("double-wall", "a wall of four, followed once more outside and below", 2, 15.9, 220)
}

// tie ties as many as the section counts, one under the other.
func tie(w knot.Work) (knot.Tied, error) {
	if err := ring.Takes(w, "a wall", least, most); err != nil {
		return knot.Tied{}, err
	}
	set := knot.Of[Settings](w.Section)
	return ring.Led(w, set.Direction, func(w knot.Work) (knot.Tied, error) {
		return knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) { return tieOne(w, max(1, set.Passes)) })
	})
}

func tieOne(w knot.Work, passes int) (knot.Tied, error) {
	n := len(w.Strands)
	shape, err := family.Shape(name(n, passes), func() tighten.Problem { return route(n, passes) })
	if err != nil {
		return knot.Tied{}, err
	}
	return ring.Tie(w, shape, route(n, passes), func(as []int, meets []ring.Meet) []move.Move { return moves(as, meets, passes) })
}

// moves are those of one wall. The strands pass first what comes over them, then what
// they are led under; the second round begins where they are led over again.
func moves(as []int, meets []ring.Meet, passes int) []move.Move {
	var out []move.Move
	turn := string(knot.Anticlockwise)
	meets = ring.Others(meets)
	first, second := meets[len(meets)-1:], meets[:0]
	if passes == 2 {
		first, second = meets[3:4], meets[5:]
	}
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Turn: turn, Passes: ring.Passes(first, i, as),
			Text: "Lead {me} {turn}, {above 0} {strands 0}, and up inside its bight.", Naming: [][]int{{as[(i+1)%len(as)]}}}
		if i == 0 {
			m.Detail = "Look at the working end; each follows the one before it round. The first makes a bight that the last comes up through."
		}
		if i == len(as)-1 {
			m.Detail = "Draw all of them up evenly, a little at a time."
			m.Gate = "All ends leave at one height; between each two lies one bight."
		}
		out = append(out, m)
	}
	if passes == 1 {
		return out
	}
	for i, me := range as {
		beside := as[(i+2)%len(as)]
		m := move.Move{Strand: me, End: true, Turn: turn, Passes: ring.Passes(second, i, as), Naming: [][]int{{beside}},
			Text: "Lead {me} on {turn} beside {strands 0}, outside and below it: {above 0} two, round, and {above 2} three, up in the middle."}
		if i == 0 {
			m.Detail = "Of two strands that it could follow take the one that comes straight out of the work."
		}
		if i == len(as)-1 {
			m.Gate = "Pairs lie side by side all round, none crossed; the second round lies below the first."
		}
		out = append(out, m)
	}
	return append(out, move.Rounds(out, 2, "the work")...)
}
