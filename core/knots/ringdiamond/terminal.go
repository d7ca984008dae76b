package ringdiamond

import (
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Terminal are the settings of a terminal knot.
type Terminal struct {
	Direction knot.Turn `json:"direction,omitempty" typed:"direction" label:"direction" default:"anticlockwise"`
}

// Terminal knot: a crown, and each end on outside the next standing part, back in under
// it and up the middle. Drawn up it is the diamond of as many strands turned over: one
// shape serves both.
//
// Right: from the end a whorl with the ends close together. Wrong: round the standing
// part just passed, the other way: wider, a hole in the middle, the ends apart.
func init() {
	knot.Add(knot.Knot{
		ID: "terminal-knot", Name: "terminal knot", Family: "in a ring",
		Held:       "In the hand, the strands standing up between the fingers.",
		OtherNames: []string{"crown and tuck"},
		For:        "a round end to a crown sinnet or a braid of three to eight strands: the ends come out close together in its middle",
		Schools:    []knot.School{{Field: "direction", Default: "anticlockwise", Why: "against the last crown below it sits closest"}},
		Glyph:      "M9 2v6M15 2v6M4 11c0-4 16-4 16 0s-16 4-16 0M8 15c0 4 8 4 8 0M12 14v8",
		Places:     true,
		Settings:   Terminal{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: least, Most: most}, Bundles: true}
		},
		Tie:    tieTerminal,
		Sample: knot.Sample{Line: "mount A B, crown 3 lay=round, terminal-knot", Cords: 2, Section: 2},
	})
}

// over is a knot of a ring turned over, what were its ends its beginnings. Its strands
// stand anticlockwise again.
func over(strands [][]r3.Vec) [][]r3.Vec {
	out := make([][]r3.Vec, len(strands))
	for i, pts := range strands {
		turned := make([]r3.Vec, len(pts))
		for k, v := range pts {
			turned[len(pts)-1-k] = r3.Vec{X: v.X, Y: -v.Y, Z: -v.Z}
		}
		out[(len(strands)-i)%len(strands)] = turned
	}
	return out
}

// crowned is the way of the first of n strands of a terminal knot as hands lead it: the
// line of a crown, over the end of the one before and under the bend of the next; then
// outside the standing part after that, in under it and up the middle.
func crowned(n int) []ring.At {
	s, b, crown := 360/float64(n), ring.Stands(n), ring.Loose(n)
	line := func(along, y float64) ring.At { return crown.At(along, 0, y) }
	p := line(1, 0).R // how far out the standing parts are led
	way := []ring.At{{R: b, Y: -14}, {R: b, Y: -8}, {R: p - 0.3, Y: -4.5}, {R: p, Y: -1.5},
		line(-0.9, 0.3), line(-0.45, 1), line(0, 0.4), line(0.45, -0.3), line(0.8, -0.3)}
	in := 2.55 * s
	return append(way, ring.At{R: p + 0.9, Degrees: 1.75 * s, Y: -0.9}, ring.At{R: p + 1.2, Degrees: 2.05 * s, Y: -1.7}, ring.At{R: p + 0.5, Degrees: 2.4 * s, Y: -2.2},
		ring.At{R: p - 0.8, Degrees: in, Y: -2}, ring.At{R: 1.2, Degrees: in, Y: -1.4}, ring.At{R: 0.7, Degrees: in}, ring.At{R: b, Degrees: in, Y: 2.5},
		ring.At{R: b, Degrees: in, Y: 6}, ring.At{R: b, Degrees: in, Y: 14})
}

func tieTerminal(w knot.Work) (knot.Tied, error) {
	if err := ring.Takes(w, "a terminal knot", least, most); err != nil {
		return knot.Tied{}, err
	}
	return ring.Led(w, knot.Of[Terminal](w.Section).Direction, func(w knot.Work) (knot.Tied, error) {
		n := len(w.Strands)
		shape, err := family.Shape(name(n, false), func() tighten.Problem { return route(n, false) })
		if err != nil {
			return knot.Tied{}, err
		}
		shape.Strands = over(shape.Strands)
		return ring.Tie(w, shape, ring.Route(n, crowned(n)), terminalMoves)
	})
}

// terminalMoves are those of a terminal knot: a crown, and then home. Along its way a strand
// passes the bend and the end of the one before, the ends that come up in the middle and the
// bend of the next; then, on its way in, three more.
func terminalMoves(as []int, meets []ring.Meet) []move.Move {
	home := ring.Others(meets)[5:]
	turn := string(knot.Anticlockwise)
	last := len(as) - 1
	out := ring.Crown(as, "")
	for i, me := range as {
		m := move.Move{Strand: me, End: true, Turn: turn, Passes: ring.Passes(home, i, as), Naming: [][]int{{as[(i+2)%len(as)]}},
			Text: "Lead {me} on {turn}, outside the standing part of {strands 0}, back in {above 2} it and up the middle."}
		if i == 0 {
			m.Detail = "Not round the standing part that it has just passed: that leaves a hole in the middle."
		}
		if i == last {
			m.Gate = "From the end a whorl, the ends close together in its middle."
		}
		out = append(out, m)
	}
	return append(out, move.Rounds(out, 2, "the crown below")...)
}
