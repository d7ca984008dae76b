// Package crown ties crown sinnets of three to eight strands.
package crown

import (
	"cmp"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Lay is how one crown follows another.
type Lay string

// The lays.
const (
	Square Lay = "square"
	Round  Lay = "round"
)

// Choices are the lays.
func (Lay) Choices() []string { return []string{"square", "round"} }

// Settings of a crown sinnet.
type Settings struct {
	Lay       Lay       `json:"lay,omitempty" typed:"lay" label:"laid" default:"square"`
	Direction knot.Turn `json:"direction,omitempty" typed:"direction" label:"first crown" default:"clockwise"`
}

// least and most are the strands that a crown can be laid with.
const least, most = 3, 8

// Crown sinnets of three to eight strands: each strand over its neighbour, the last
// through the first bight.
//
// Laid square, every strand is led straight across and comes back in the same
// place: straight columns of colour. Laid round, each crown goes on across the
// diagonal in the direction kept, and the columns spiral.
func init() {
	knot.Add(knot.Knot{
		ID: "crown", Name: "crown sinnet", Family: "in a ring",
		Held:       "In the hand, the strands standing up between the fingers.",
		OtherNames: []string{"square crown sinnet", "round crown sinnet", "box stitch"},
		For:        "a round or square neck of three to eight strands, four as a rule: lanyards, fobs, handles",
		Schools: []knot.School{
			{Field: "lay", Default: "square", Why: "straight columns show at once where a strand was led the wrong way; round it turns and stands a tenth lower"},
			{Field: "direction", Default: "clockwise", Why: "keep the one you begin with; laid square it changes by itself from crown to crown"},
		},
		Glyph:    "M5 9h9M10 19V6M19 15H9M14 5v13M5 9v3M10 6h3M19 15v-3M14 18h-3",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms:    func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: least, Most: most}} },
		Tie:      tie,
		Thumb:    &knot.Thumb{Works: 4},
		Sample:   knot.Sample{Line: "mount A B, crown 5", Cords: 2, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "crown-sinnet", Family: "in a ring", About: "four strands crowned again and again, laid square", Sinnet: true,
		Problem: func() tighten.Problem { return cellOf(4, true) },
		Measure: knot.PerStrand, Of: "a strand a crown", Published: 6.26, Share: 0.02, Height: 2.01,
	})
	knot.AddRoute(knot.Route{
		Name: "round-crown-sinnet", Family: "in a ring", About: "four strands crowned again and again, laid round", Sinnet: true,
		Problem: func() tighten.Problem { return cellOf(4, false) },
		Measure: knot.PerStrand, Of: "a strand a crown", Published: 6.06, Share: 0.02, Height: 1.78,
	})
}

// cellOf is one crown of n: for four the lines of a # sign, each beginning high and
// ending low.
func cellOf(n int, square bool) tighten.Problem {
	const pitch = 3.2
	l := ring.Close(n)
	a, b := l.Aside, l.Half
	// The line of strand 0 in the plane across the work; y is down it.
	way := []r3.Vec{{X: -a, Y: 1.5, Z: b}, {X: -a, Y: 2.1, Z: 1.05}, {X: -a, Y: 1.5, Z: 0}, {X: -a, Y: 0.9, Z: -1.05}, {X: -a, Y: 1.5, Z: -b}}
	p := tighten.Problem{Cell: &tighten.Cell{Pitch: pitch, Mirror: square}}
	next, turn := goesOn(n, square)
	if !square {
		p.Cell.FreeTwist, p.Cell.Twist = true, turn
	} else {
		way = knot.TurnRoute(way, -turn)
	}
	for i := range n {
		p.Strands = append(p.Strands, tighten.Strand{Route: knot.TurnRoute(way, 2*math.Pi*float64(i)/float64(n)), Diameter: 1, Next: next[i]})
	}
	return p
}

// goesOn tells as which line of the next crown each line of n goes on, and an angle.
// Laid round it is the line that begins nearest, and by how much the next crown lies
// turned. Laid square the next crown is the mirror of this one, left for right, and the
// angle is by how much both are turned so that its lines begin where these end.
func goesOn(n int, square bool) (next []int, angle float64) {
	step := 2 * math.Pi / float64(n)
	next = make([]int, n)
	if square {
		m := n / 2
		for i := range next {
			next[i] = (m - i + n) % n
		}
		return next, (float64(m)*step - math.Pi) / 2
	}
	l := ring.Close(n)
	a, b := l.Aside, l.Half
	begin, end := math.Atan2(b, -a), math.Atan2(-b, -a)
	best := math.Inf(1)
	for k := range n {
		if off := math.Remainder(begin-float64(k)*step-end, 2*math.Pi); math.Abs(off) < math.Abs(best) {
			best = off
			for i := range next {
				next[i] = (i + k) % n
			}
		}
	}
	return next, best
}

const crownNodes = 22 // of a strand in one crown

// tie lays so many crowns one below the other. They are drawn up; where strands
// come into the first and go out of the last they are constructed, and moved clear
// of one another.
func tie(w knot.Work) (knot.Tied, error) {
	if err := ring.Takes(w, "a crown", least, most); err != nil {
		return knot.Tied{}, err
	}
	set := knot.Of[Settings](w.Section)
	if set.Direction == "" {
		set.Direction = knot.Clockwise
	}
	return ring.Led(w, set.Direction, func(w knot.Work) (knot.Tied, error) { return lay(w, set.Lay) })
}

// lay lays the crowns, the first of them anticlockwise.
func lay(w knot.Work, how Lay) (knot.Tied, error) {
	n := len(w.Strands)
	square := how != Round
	shape, err := family.Shape(name(n, square), func() tighten.Problem { return cellOf(n, square) })
	if err != nil {
		return knot.Tied{}, err
	}
	for i, pts := range shape.Strands {
		shape.Strands = slices.Clone(shape.Strands)
		shape.Strands[i] = knot.Curve(pts).Resample(crownNodes).Points
	}
	count := max(1, w.Section.Count)
	next, _ := goesOn(n, square)
	t, lines, as := ring.Sinnet(w, shape, square, next, count, 0.4)
	// A row of one crown and its mirror begins again after two of them.
	t.Repeats, t.PerRound = count, 1
	if square {
		t.Repeats, t.PerRound = count/2, 2
		if count%2 == 1 {
			t.Repeats, t.PerRound = 1, count
		}
	}
	t.Checks = colours(w.Strands, lines, as, count, square)
	for k := range t.PerRound {
		for _, m := range moves(how, lines, k) {
			t.Moves = append(t.Moves, m.Renumber(as))
		}
	}
	return t, nil
}

// moves are those of crown k of the sinnet whose strands follow the lines: each is
// laid over the end of the one before, and the last goes through the bight of the
// first. It begins on the left.
func moves(lay Lay, lines [][]r3.Vec, k int) []move.Move {
	from := func(i int) r3.Vec { return lines[i][k*crownNodes+1] } // the first node is led in
	order := ring.Clockwise(len(lines), from)
	turn := knot.Anticlockwise
	if lay != Round && k%2 == 1 { // laid square, the next crown is the mirror of this one
		turn = knot.Clockwise
	}
	about := slices.Clone(order)
	angle := func(i int) float64 { // from the left, as one looks at the working end
		v := from(i)
		a := math.Atan2(v.Z, v.X) - math.Pi
		if turn == knot.Clockwise {
			a = -a
		}
		return math.Mod(a+4*math.Pi+0.1, 2*math.Pi)
	}
	slices.SortFunc(about, func(i, j int) int { return cmp.Compare(angle(i), angle(j)) })
	var out []move.Move
	for n, i := range about {
		m := move.Move{Strand: i, Turn: string(turn), Order: order, End: true}
		switch n {
		case 0:
			m.Text, m.Detail = "Lay {me} across to the opposite side.", "Looking at the working end; the others follow it {turn}."
		case len(about) - 1:
			m.Passes = []move.Pass{{How: move.Over, Of: about[n-1 : n]}, {How: move.Under, Of: about[:1]}}
			m.Text, m.Detail = "Lay {me} {over 0} and through the bight of the first, {over 1}.", "Draw all of them up evenly, a little at a time."
			m.Gate = fmt.Sprintf("Each goes over one and under one, and the %d make a small figure of %d sides.", len(about), len(about))
		default:
			m.Passes = []move.Pass{{How: move.Over, Of: about[n-1 : n]}}
			m.Text = "Lay {me} across {over 0}."
		}
		out = append(out, m)
	}
	return out
}

func name(n int, square bool) string {
	if square {
		return fmt.Sprintf("square crown of %d", n)
	}
	return fmt.Sprintf("round crown of %d", n)
}
