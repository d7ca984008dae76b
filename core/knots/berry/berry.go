// Package berry rolls a row of square knots up to a bead.
package berry

import (
	"fmt"
	"math"
	"slices"

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
		Sample: knot.Sample{Line: "mount A B, berry-knot", Cords: 2, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "berry-of-three", Family: "flat and spiral sinnets",
		About:   "three square knots rolled up by their fillers, before the lock",
		Problem: func() tighten.Problem { _, p := berryRoute(3, 1); return p() },
		Measure: func(r tighten.Result) float64 { return knot.BeyondStraight(r.Strands[0].Points) }, Of: "cord beyond the straight, a worker",
		Published: 52, Share: 0.05,
	})
}

var berryFillers = []float64{0.75, 1, 1.33}

// berryRoute is the bead of so many square knots over two fillers of a
// thickness, as it rolls: the row bent to the front, its face inward.
func berryRoute(squares int, filler float64) (string, func() tighten.Problem) {
	return fmt.Sprintf("berry of %d over %.2f", squares, filler), func() tighten.Problem {
		const pitch, radius, far = 2.6, 3.9, 14.0
		w := 2 * filler
		halves := 2 * squares
		end := float64(halves) * pitch
		bend := func(v r3.Vec) r3.Vec {
			s, c := math.Sincos(v.Y / radius)
			return r3.Vec{X: v.X, Y: (radius - v.Z) * s, Z: radius - (radius-v.Z)*c}
		}
		p := tighten.Problem{}
		outer := (w+1.5)/2 + 1.8
		for side, phase := range [2]float64{0, math.Pi} {
			x := float64(2*side-1) * (outer + 0.3)
			route := []r3.Vec{{X: x * 0.7, Y: -far}, {X: x * 0.8, Y: -5}, {X: x, Y: -1.4}}
			for k := range halves {
				for _, v := range row.HalfKnot(w, filler, 1, phase) {
					if k%2 == 1 {
						v.X = -v.X
					}
					v.Y += float64(k)*pitch - 0.2
					route = append(route, bend(v))
				}
			}
			last := bend(r3.Vec{X: x, Y: end + 0.6})
			route = append(route, r3.Vec{X: x * 1.05, Y: last.Y - 0.2, Z: last.Z - 0.2}, r3.Vec{X: x * 1.4, Y: 0.5, Z: radius * 0.9}, r3.Vec{X: x * 1.3, Y: 5, Z: 1.5}, r3.Vec{X: x * 0.9, Y: 9}, r3.Vec{X: x * 0.7, Y: far})
			p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: 1})
		}
		for _, side := range [2]float64{-1, 1} {
			x := side * filler / 2 * 1.05
			route := []r3.Vec{{X: side * 1.5, Y: -far}, {X: side * 1.7, Y: -5}, {X: side * 1.75 * math.Max(1, filler), Y: -2.6}, {X: side * 1.3, Y: -0.8}}
			for k := range 9 {
				route = append(route, bend(r3.Vec{X: x, Y: 0.8 + (end-1.0)*float64(k)/8}))
			}
			top := bend(r3.Vec{X: x, Y: end + 0.7})
			back := -1.6 - filler
			route = append(route, r3.Vec{X: x, Y: top.Y - 0.3, Z: top.Z - 0.3}, r3.Vec{X: x, Y: math.Min(top.Y, -3.9), Z: 1.6}, r3.Vec{X: x, Y: -3.3, Z: -0.6}, r3.Vec{X: x, Y: -1.5, Z: back}, r3.Vec{X: x, Y: 2, Z: back - 0.4}, r3.Vec{X: x, Y: 6, Z: back + 0.2}, r3.Vec{X: x, Y: far, Z: -0.5})
			p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: filler})
		}
		return p
	}
}

// rolled is the rolled up row as it is laid into a section, in workers: the strands
// from straight above it to straight below, left to right.
type rolled struct {
	strands [4][]r3.Vec
	tall    float64
	gap     float64
	behind  float64 // where its lock lies
}

var berries memo.Cache[rolled]

func berryOver(squares int, filler float64) (rolled, error) {
	return berries.Get(fmt.Sprintf("%d %.4f", squares, filler), func() (rolled, error) {
		const nodes = 401
		s, err := family.Between(berryFillers, filler, nodes, func(f float64) (string, func() tighten.Problem) { return berryRoute(squares, f) })
		if err != nil {
			return rolled{}, err
		}
		out := rolled{gap: s.Gap}
		order := [4]int{0, 2, 3, 1}
		top, bottom := math.Inf(1), math.Inf(-1)
		for place, i := range order {
			line := s.Strands[i]
			out.strands[place] = line
		}
		// The bead reaches from where the workers first touch anything down to
		// its lowest turn; beside it they hang down from the end of the row.
		const tail = 24.0 // of a worker, from the end of the row
		for _, i := range [2]int{0, 3} {
			whole := knot.Curve(out.strands[i]).Length()
			for n, v := range out.strands[i] {
				if float64(n)/nodes*whole < whole-tail && out.touched(i, n) {
					top, bottom = math.Min(top, v.Y), math.Max(bottom, v.Y)
				}
			}
		}
		top, bottom = top-0.5, bottom+0.5
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
		}
		out.tall = bottom - top
		// It lies so that its strands come in at the middle of the piece; its lock lies
		// between where they come out.
		in := 0.0
		for _, pts := range out.strands {
			in += pts[0].Z / 4
		}
		for place, pts := range out.strands {
			for i := range pts {
				pts[i].Z -= in
			}
			out.behind += pts[len(pts)-1].Z / 4
			out.strands[place] = pts
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
	w.Section.Count = 1
	lock, err := row.Tie(w, 2, knot.Left)
	if err != nil {
		return t, err
	}
	led, gap := roll.toLock(w, lock, d)
	t.Gap = math.Min(t.Gap, gap)
	for place, pts := range roll.strands {
		bead := pts[:roll.leaves(place)]
		p := knot.Path{Points: make([]r3.Vec, 0, len(bead)+len(led[place]))}
		for _, v := range bead {
			p.Points = append(p.Points, r3.Scale(d, v))
		}
		p.Points = append(p.Points, led[place]...)
		p.Lies = make([]knot.Lie, len(p.Points))
		for i := range p.Lies {
			p.Lies[i] = knot.Knotted
			if i < len(bead) {
				p.Lies[i] = knot.Snug
			}
		}
		t.Paths = append(t.Paths, p)
	}
	t.Height += under * d
	t.Below(forward(lock, roll.behind*d))
	return t, nil
}

// under is the bare cord between the lowest turn of a bead and its lock, in
// workers.
const under = 0.3

// forward lays a section so far behind the middle of the piece.
func forward(t knot.Tied, z float64) knot.Tied {
	for i, p := range t.Paths {
		t.Paths[i].Points = slices.Clone(p.Points)
		for k := range p.Points {
			t.Paths[i].Points[k].Z += z
		}
	}
	return t
}

// early is how far above the lowest turn of a bead its strands are led on to the
// lock, in workers.
const early = 0.7

// leaves is the number of nodes of a strand before it is led on to the lock.
func (r rolled) leaves(place int) int {
	n := len(r.strands[place])
	for n > 1 && r.strands[place][n-1].Y > r.tall-early {
		n--
	}
	return n
}

// toLock leads the strands from where they leave the bead to where the lock takes
// them up, clear of one another, and gives the least gap between them.
func (r rolled) toLock(w knot.Work, lock knot.Tied, d float64) ([][]r3.Vec, float64) {
	var strands []tighten.Strand
	for place, pts := range r.strands {
		from, to := knot.WayOut(pts[:r.leaves(place)]), knot.WayIn(lock.Paths[place].Points)
		end := r3.Vec{X: to.At.X, Y: (r.tall + under) * d, Z: to.At.Z + r.behind*d}
		from.At = r3.Scale(d, from.At)
		strands = append(strands, tighten.Strand{Route: append([]r3.Vec{from.At}, knot.Join(from.At, end, from.Dir, to.Dir)...), Diameter: w.Strands[place].Diameter})
	}
	led, gap := knot.Parted(strands)
	for place := range led {
		led[place] = led[place][1:]
	}
	return led, gap
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
	out = append(out, move.Move{Strand: 1, From: move.Front, Naming: [][]int{{2}},
		Text:   "Lead the fillers, {me} and {strands 0}, up over the face of the row and through the gap above to the back.",
		Detail: "Between the two strands that hang there.", Gate: fmt.Sprintf("%d square knots stand in the row.", squares)},
		move.Move{Strand: 2, From: move.Back, Text: "Pull both fillers straight down at the back till the row rolls up into a bead.", Gate: "The bead is closed at the top."})
	for i, m := range tied.Moves {
		if i == 0 {
			m.Detail = "This square knot locks the bead. " + m.Detail
		}
		out = append(out, m)
	}
	return out, tied.Paths, nil
}
