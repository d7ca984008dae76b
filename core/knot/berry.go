package knot

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
	"nimblebight/core/tighten"
)

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
	add(Knot{
		ID: "berry-knot", Name: "berry knot", Family: "flat and spiral sinnets",
		OtherNames: []string{"bobble", "square knot button", "popcorn knot"},
		For:        "a round bead of the cord itself",
		Repeats:    true,
		Schools: []School{
			{Field: "squares", Default: "3", Why: "three stand round as a berry; two lie flatter and take a third less cord"},
			{Field: "start", Default: "left", Why: "as for the square knot"},
		},
		Fields: []Field{
			{Key: "strands", Short: "strands", Label: "strands", Kind: "places"},
			{Key: "squares", Short: "squares", Label: "square knots in it", Kind: "count", Default: "3", Least: 2, Most: 3},
			{Key: "start", Short: "start", Label: "starts", Kind: "choice", Choices: []string{"left", "right"}, Default: "left"},
		},
		fill:  func(s *Section) { s.Squares, s.Start = 3, "left" },
		parts: func(s Section, _ int) int { return max(2, s.Squares) + 2 },
		tie:   tieBerries,
	})
	addRoute(Route{
		Name: "berry-of-three", Family: "flat and spiral sinnets",
		About:   "three square knots rolled up by their fillers, before the lock",
		Problem: func() tighten.Problem { _, p := berryRoute(3, 1); return p() },
		Measure: func(r tighten.Result) float64 { return beyondOf(r, 0) }, Of: "cord beyond the straight, a worker",
		Published: 52, Share: 0.05,
	})
}

// beyondOf is what strand i takes beyond the straight line between its ends.
func beyondOf(r tighten.Result, i int) float64 {
	c := r.Strands[i]
	a, b := c.Points[0], c.Points[len(c.Points)-1]
	return c.Length() - math.Hypot(math.Hypot(a.X-b.X, a.Y-b.Y), a.Z-b.Z)
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
		bend := func(v Vec) Vec {
			s, c := math.Sincos(v.Y / radius)
			return Vec{X: v.X, Y: (radius - v.Z) * s, Z: radius - (radius-v.Z)*c}
		}
		p := tighten.Problem{}
		outer := (w+1.5)/2 + 1.8
		for side, phase := range [2]float64{0, math.Pi} {
			x := float64(2*side-1) * (outer + 0.3)
			route := []Vec{{X: x * 0.7, Y: -far}, {X: x * 0.8, Y: -5}, {X: x, Y: -1.4}}
			for k := range halves {
				for _, v := range halfKnotRoute(w, filler, 1, phase) {
					if k%2 == 1 {
						v.X = -v.X
					}
					v.Y += float64(k)*pitch - 0.2
					route = append(route, bend(v))
				}
			}
			last := bend(Vec{X: x, Y: end + 0.6})
			route = append(route, Vec{X: x * 1.05, Y: last.Y - 0.2, Z: last.Z - 0.2}, Vec{X: x * 1.4, Y: 0.5, Z: radius * 0.9}, Vec{X: x * 1.3, Y: 5, Z: 1.5}, Vec{X: x * 0.9, Y: 9}, Vec{X: x * 0.7, Y: far})
			p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: 1})
		}
		for _, side := range [2]float64{-1, 1} {
			x := side * filler / 2 * 1.05
			route := []Vec{{X: side * 1.5, Y: -far}, {X: side * 1.7, Y: -5}, {X: side * 1.75 * math.Max(1, filler), Y: -2.6}, {X: side * 1.3, Y: -0.8}}
			for k := range 9 {
				route = append(route, bend(Vec{X: x, Y: 0.8 + (end-1.0)*float64(k)/8}))
			}
			top := bend(Vec{X: x, Y: end + 0.7})
			back := -1.6 - filler
			route = append(route, Vec{X: x, Y: top.Y - 0.3, Z: top.Z - 0.3}, Vec{X: x, Y: math.Min(top.Y, -3.9), Z: 1.6}, Vec{X: x, Y: -3.3, Z: -0.6}, Vec{X: x, Y: -1.5, Z: back}, Vec{X: x, Y: 2, Z: back - 0.4}, Vec{X: x, Y: 6, Z: back + 0.2}, Vec{X: x, Y: far, Z: -0.5})
			p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: filler})
		}
		return p
	}
}

// rolled is the rolled up row as it is laid into a section, in workers: the strands
// from straight above it to straight below, left to right.
type rolled struct {
	strands [4][]Vec
	tall    float64
	gap     float64
}

var berries kept.By[rolled]

func berryOver(squares int, filler float64) (rolled, error) {
	return berries.Get(fmt.Sprintf("%d %.4f", squares, filler), func() (rolled, error) {
		const nodes = 401
		k := 0
		for k < len(berryFillers)-2 && berryFillers[k+1] < filler {
			k++
		}
		u := (filler - berryFillers[k]) / (berryFillers[k+1] - berryFillers[k])
		out := rolled{gap: math.Inf(1)}
		var two [2][][]Vec
		for i := range two {
			s, err := drawn(berryRoute(squares, berryFillers[k+i]))
			if err != nil {
				return out, err
			}
			out.gap = math.Min(out.gap, s.Gap)
			for _, pts := range s.Strands {
				two[i] = append(two[i], asCurve(pts).Resample(nodes).Points)
			}
		}
		order := [4]int{0, 2, 3, 1}
		top, bottom := math.Inf(1), math.Inf(-1)
		for place, i := range order {
			line := make([]Vec, nodes)
			for n := range line {
				line[n] = curve.Lerp(two[0][i][n], two[1][i][n], u)
			}
			out.strands[place] = line
		}
		// The bead reaches from where the workers first touch anything down to
		// its lowest turn; beside it they hang down from the end of the row.
		const tail = 24.0 // of a worker, from the end of the row
		for _, i := range [2]int{0, 3} {
			whole := asCurve(out.strands[i]).Length()
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
			var pts []Vec
			for _, v := range append(append([]Vec{first}, line[a+1:b]...), last) {
				pts = append(pts, Vec{X: v.X, Y: v.Y - top, Z: v.Z})
			}
			out.strands[place] = pts
		}
		out.tall = bottom - top
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

// BerryGap is the bare length that must hang above a berry for its fillers to
// be led back through, mm.
func BerryGap(leads []Lead) float64 {
	thick := 0.0
	for _, l := range leads {
		thick = math.Max(thick, l.Diameter)
	}
	return 2 * thick
}

func tieBerries(w Work) (Tied, error) {
	if n := len(w.Leads); n != 4 {
		r := &Refused{Field: "strands", Why: fmt.Sprintf("a berry is rolled by two fillers between two workers, so it has four strands; it has %d", n)}
		if n > 4 {
			mid := n/2 - 1
			middle := numbered(mid, 4)
			if len(w.Section.Strands) == n { // places are those of the piece
				middle = append([]int{}, w.Section.Strands[mid-1:mid+3]...)
			}
			r.Set, r.Label = middle, "Take the middle four"
		}
		return Tied{}, r
	}
	if w.Section.Start == "right" {
		m := w
		m.Leads = append([]Lead{}, w.Leads...)
		flipLeads(m.Leads)
		m.Section.Start = "left"
		t, err := tieBerries(m)
		if err != nil {
			return t, err
		}
		t.mirror(4)
		for i := range t.Workers {
			t.Workers[i] = 3 - t.Workers[i]
		}
		t.Actions, err = berryActions(w)
		return t, err
	}
	t, err := tieEach(w, max(1, w.Section.Count), func(w Work, _ int) (Tied, error) { return tieBerry(w) })
	if err != nil {
		return t, err
	}
	t.Workers = []int{0, 1, 2, 3}
	t.Actions, err = berryActions(w)
	return t, err
}

func tieBerry(w Work) (Tied, error) {
	squares := w.Section.Squares
	if squares == 0 {
		squares = 3
	}
	d := math.Max(w.Leads[0].Diameter, w.Leads[3].Diameter)
	f := math.Max(w.Leads[1].Diameter, w.Leads[2].Diameter)
	thin, thick := berryFillers[0], berryFillers[len(berryFillers)-1]
	if f > thick*d { // thicker fillers decide the size of the bead
		d = f / thick
	}
	roll, err := berryOver(squares, math.Max(thin, f/d))
	if err != nil {
		return Tied{}, err
	}
	t := Tied{Loose: true, Snug: true, Repeats: 1, Gap: roll.gap, Order: identity(4), Height: roll.tall * d}
	var from []Vec
	for _, pts := range roll.strands {
		p := Path{Points: asCurve(pts).Map(func(v Vec) Vec { return Vec{X: d * v.X, Y: d * v.Y, Z: d * v.Z} }).Points}
		p.Lies = make([]Lie, len(p.Points))
		for i := range p.Lies {
			p.Lies[i] = Snug
		}
		t.Paths = append(t.Paths, p)
		from = append(from, p.Points[len(p.Points)-1])
	}
	w.Section.Count = 1
	lock, err := tieRow(w, 2, "left")
	if err != nil {
		return t, err
	}
	var to []Vec
	for _, p := range lock.Paths {
		to = append(to, p.Points[0])
	}
	t.below(joint(from, to, math.Max(0.6*d, 0.4*Fall(from, to))))
	t.below(lock)
	return t, nil
}

func berryActions(w Work) ([]Action, error) {
	squares := w.Section.Squares
	if squares == 0 {
		squares = 3
	}
	row := w
	row.Section = Section{Do: "square-knot", Count: squares, Start: w.Section.Start}
	tied, err := tieRow(row, 2, row.Section.Start)
	if err != nil {
		return nil, err
	}
	var out []Action
	for range squares {
		out = append(out, tied.Actions...)
	}
	out = append(out, Action{Moves: 1, From: "front", Text: "Lead the fillers, strands 2 and 3, up over the front and through the gap above to the back.",
		Detail: "Between the two strands that hang there.", Gate: fmt.Sprintf("%d square knots stand in the row.", squares)},
		Action{Moves: 2, From: "back", Text: "Pull both fillers straight down at the back till the row rolls up into a bead.", Gate: "The bead is closed at the top."})
	for i, a := range tied.Actions {
		if i == 0 {
			a.Detail = "This square knot locks the bead. " + a.Detail
		}
		out = append(out, a)
	}
	return out, nil
}
