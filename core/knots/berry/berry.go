// Package berry rolls a row of square knots up to a bead.
package berry

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/gap"
	"nimblebight/core/knots/row"
	"nimblebight/core/memo"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a berry.
type Settings struct {
	Squares int       `json:"squares,omitempty" typed:"squares" label:"square knots in it" default:"3" least:"2" most:"3"`
	Start   knot.Side `json:"start,omitempty" typed:"start" label:"starts" default:"left"`
}

// Berry knot (bobble, square-knot button): under a gap two or three square
// knots are tied, the fillers are led up over the front and through the gap to
// the back and pulled down, so that the row rolls up into a bead; one more
// square knot locks it.
//
// Right: the bead stands round on the face, the fillers come out behind it and
// the lock sits close under it. Wrong: the bead hangs open at the top; the
// fillers were not pulled right down before the lock.
//
// Makers differ in the number: two square knots make a flatter bead, three a
// rounder one.
func init() {
	knot.Add(knot.Knot{
		ID: "berry-knot", Name: "berry knot", Family: "flat and spiral sinnets",
		OtherNames: []string{"bobble", "square knot button", "popcorn knot"},
		For:        "a round bead of the cord itself",
		Repeats:    true,
		Schools: []knot.School{
			{Field: "squares", Default: "3", Why: "three stand round as a berry; two lie flatter and take a third less cord"},
			{Field: "start", Default: "left", Why: "as for the square knot"},
		},
		Glyph:    "M12 5.500a6.500 6.500 0 1 1 0 13 6.500 6.500 0 1 1 0-13zM8 9c3 2 5 2 8 0M8 14c3-2 5-2 8 0M9 2v4M15 2v4M9 18v4M15 18v4",
		Places:   true,
		Settings: Settings{},
		Terms: func(s knot.Section) knot.Terms {
			parts := max(2, knot.Of[Settings](s).Squares) + 2
			return knot.Terms{Takes: knot.Takes{Least: 4, Most: 4}, Parts: func(int) int { return parts }}
		},
		Above:  above,
		Tie:    tieBerries,
		Hold:   hold,
		Part:   &knot.Part{Says: "It is a row of these, which its fillers roll up: up over its face, through the gap above and down at the back.", Of: "square-knot"},
		Wrong:  wrong,
		Sample: knot.Sample{Line: "mount A B, berry-knot", Cords: 2, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "berry-of-three", Family: "flat and spiral sinnets",
		About:   "three square knots rolled up by their fillers, and the square knot that locks them",
		Problem: Berry{3, 1}.problem,
		Measure: func(r tighten.Result) float64 { return knot.BeyondStraight(r.Strands[0].Points) }, Of: "cord beyond the straight, a worker",
		Published: 67.6, Share: 0.02,
	})
}

var berryFillers = []float64{0.75, 1, 1.33}

// Berry is one that is drawn up at build time: so many square knots over fillers of a
// thickness, in workers.
type Berry struct {
	Squares int
	Filler  float64
}

func (b Berry) String() string { return fmt.Sprintf("berry of %d over %.2f", b.Squares, b.Filler) }

// All are the berries that are drawn up at build time.
func All() []Berry {
	var out []Berry
	for _, filler := range berryFillers {
		for squares := 2; squares <= 3; squares++ {
			out = append(out, Berry{squares, filler})
		}
	}
	return out
}

// problem is the berry, with its lock, as it was dressed.
func (b Berry) problem() tighten.Problem { return strung(dressed()[b.String()].Strands, b.Filler) }

// rolled is a rolled up row with its lock as it is laid into a section, in workers: the
// strands from straight above it to straight below, left to right.
type rolled struct {
	strands [4][]r3.Vec
	tall    float64
	gap     float64
}

var berries memo.Cache[rolled]

func berryOver(squares int, filler float64) (rolled, error) {
	return berries.Get(fmt.Sprintf("%d %.4f", squares, filler), func() (rolled, error) {
		const nodes = 401
		s, err := family.Between(berryFillers, filler, nodes, func(f float64) (string, func() tighten.Problem) {
			b := Berry{squares, f}
			return b.String(), func() tighten.Problem { return strung(dressed()[Berry{squares, 1}.String()].Strands, f) }
		})
		if err != nil {
			return rolled{}, err
		}
		out := rolled{gap: s.Gap}
		order := [4]int{0, 2, 3, 1}
		top, bottom := math.Inf(1), math.Inf(-1)
		for place, i := range order {
			out.strands[place] = s.Strands[i]
		}
		// It reaches from where the workers first touch anything down to where they last do.
		for _, i := range [2]int{0, 3} {
			for n, v := range out.strands[i] {
				if out.touched(i, n) {
					top, bottom = math.Min(top, v.Y), math.Max(bottom, v.Y)
				}
			}
		}
		top, bottom = top-0.5, bottom+0.5
		in := 0.0 // it lies so that its strands come in at the middle of the piece
		for place, line := range out.strands {
			a, b := 0, nodes-1
			for line[a+1].Y < top {
				a++
			}
			for line[b-1].Y > bottom {
				b--
			}
			first := curve.Lerp(line[a], line[a+1], (top-line[a].Y)/(line[a+1].Y-line[a].Y))
			last := curve.Lerp(line[b], line[b-1], (bottom-line[b].Y)/(line[b-1].Y-line[b].Y))
			var pts []r3.Vec
			for _, v := range append(append([]r3.Vec{first}, line[a+1:b]...), last) {
				pts = append(pts, r3.Vec{X: v.X, Y: v.Y - top, Z: v.Z})
			}
			out.strands[place] = pts
			in += first.Z / 4
		}
		out.tall = bottom - top
		for _, pts := range out.strands {
			for i := range pts {
				pts[i].Z -= in
			}
		}
		return out, nil
	})
}

// touched tells whether node n of strand i lies against another strand.
func (r rolled) touched(i, n int) bool {
	v := r.strands[i][n]
	for j, line := range r.strands {
		if j == i {
			continue
		}
		for _, u := range line {
			if math.Abs(u.Y-v.Y) < 1.2 && math.Hypot(math.Hypot(u.X-v.X, u.Y-v.Y), u.Z-v.Z) < 1.12 {
				return true
			}
		}
	}
	return false
}

// above is the bare length that must hang above a berry for its fillers to be led
// back through: two of its thickest cord.
func above(strands []knot.Strand) knot.Room {
	thick := 0.0
	for _, l := range strands {
		thick = math.Max(thick, l.Diameter)
	}
	mm := math.Ceil(2 * thick)
	return knot.Room{MM: 2 * thick, Code: "berry-without-gap", Gap: gap.Of(mm), Label: fmt.Sprintf("Leave %g mm above it", mm),
		Says: "There are {%.1fmm} bare above the berry; its fillers need {%.1fmm} to be led back through."}
}

func squaresOf(w knot.Work) int {
	if n := knot.Of[Settings](w.Section).Squares; n > 0 {
		return n
	}
	return 3
}

func startOf(w knot.Work) knot.Side { return knot.Of[Settings](w.Section).Start }

func tieBerries(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 4 {
		r := &knot.Refused{Field: "strands", Why: fmt.Sprintf("a berry is rolled by two fillers between two workers, so it has four strands; it has %d", n)}
		if n > 4 {
			mid := n/2 - 1
			middle := knot.Numbered(mid, 4)
			if len(w.Section.Strands) == n { // places are those of the piece
				middle = append([]int{}, w.Section.Strands[mid-1:mid+3]...)
			}
			r.Set, r.Label = middle, "Take the middle four"
		}
		return knot.Tied{}, r
	}
	if startOf(w) == knot.Right {
		m := w
		m.Strands = append([]knot.Strand{}, w.Strands...)
		knot.Flip(m.Strands)
		m.Section.Settings = Settings{Squares: squaresOf(w), Start: knot.Left}
		t, err := tieBerries(m)
		if err != nil {
			return t, err
		}
		t.Mirror(4)
		return t, nil
	}
	t, err := knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) { return tieBerry(w) })
	if err != nil {
		return t, err
	}
	t.Workers = []int{0, 1, 2, 3}
	if err == nil {
		t.Moves, t.Flat, err = moves(w)
	}
	return t, err
}

func tieBerry(w knot.Work) (knot.Tied, error) {
	squares := squaresOf(w)
	d := math.Max(w.Strands[0].Diameter, w.Strands[3].Diameter)
	f := math.Max(w.Strands[1].Diameter, w.Strands[2].Diameter)
	thin, thick := berryFillers[0], berryFillers[len(berryFillers)-1]
	if f > thick*d { // thicker fillers decide the size of the bead
		d = f / thick
	}
	roll, err := berryOver(squares, math.Max(thin, f/d))
	if err != nil {
		return knot.Tied{}, err
	}
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: roll.gap, Order: knot.Identity(4), Height: roll.tall * d}
	for _, pts := range roll.strands {
		p := knot.Path{Points: make([]r3.Vec, 0, len(pts))}
		for _, v := range pts {
			p.Points = append(p.Points, r3.Scale(d, v))
		}
		t.Paths = append(t.Paths, p)
	}
	return t, nil
}

// moves are those of one berry: its square knots, the fillers led up over the row,
// and the square knot that locks it. They are laid on the flat row, which is rolled
// up with its face inwards only then: that is what they pass.
func moves(w knot.Work) ([]move.Move, []knot.Path, error) {
	squares := squaresOf(w)
	rolled := w
	rolled.Section = row.Square(squares+1, knot.Left)
	tied, err := row.Tie(rolled, 2, knot.Left)
	if err != nil {
		return nil, nil, err
	}
	var out []move.Move
	for range squares {
		out = append(out, tied.Moves...)
	}
	out = append(out, move.Move{Strand: 1, With: []int{2}, From: move.Front, Naming: [][]int{{2}},
		Text:   "Lead the fillers, {me} and {strands 0}, up over the face of the row and through the gap above to the back.",
		Detail: "Between the two strands that hang there.", Gate: fmt.Sprintf("%d square knots stand in the row.", squares)},
		move.Move{Strand: 2, With: []int{1}, From: move.Back, Text: "Pull both fillers straight down at the back till the row rolls up into a bead.", Gate: "The bead is closed at the top."})
	for i, m := range tied.Moves {
		if i == 0 {
			m.Detail = "This square knot locks the bead. Hold the workers' ends out sideways while you draw it up against the roll; only then let them hang. " + m.Detail
		}
		out = append(out, m)
	}
	return out, tied.Paths, nil
}
