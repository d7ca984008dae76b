package knot

import (
	"fmt"
	"math"

	"nimblebight/core/tighten"
)

// tieEach ties a knot several times, one under the other, each on the strands
// as the one before leaves them: what a section with a count is.
func tieEach(w Work, count int, one func(w Work, k int) (Tied, error)) (Tied, error) {
	n := len(w.Leads)
	out := Tied{Gap: math.Inf(1), Order: identity(n), Paths: make([]Path, n), Repeats: count, Cells: []float64{0}}
	leads := append([]Lead{}, w.Leads...)
	for k := range count {
		each := w
		each.Leads = leads
		t, err := one(each, k)
		if err != nil {
			return t, err
		}
		if k > 0 { // led over to where this one takes them up
			var from, to []Vec
			for place, p := range t.Paths {
				pts := out.Paths[out.Order[place]].Points
				from, to = append(from, pts[len(pts)-1]), append(to, p.Points[0])
				from[place].Y, to[place].Y = 0, 0
			}
			if high := 0.7 * Fall(from, to); high > 0.05*leads[0].Diameter {
				j := joint(from, to, high)
				j.part(leads)
				out.below(j)
			}
		}
		out.below(t)
		if k == 0 {
			out.Loose, out.Snug, out.Row, out.Clear = t.Loose, t.Snug, t.Row, t.Clear
			out.Actions, out.Shows = t.Actions, t.Shows
		}
		if points := out.points(); points > mostPoints && k+1 < count {
			return Tied{}, &Refused{Field: "count", Why: fmt.Sprintf("%d of them on %d strands are more than can be drawn in one section", count, n),
				Set: k + 1, Label: fmt.Sprintf("Tie %d", k+1)}
		}
		now := make([]Lead, n)
		for place, i := range t.Order {
			now[place] = leads[i]
		}
		leads = now
		out.Cells = append(out.Cells, out.Height)
	}
	return out, nil
}

// mostPoints is how many points the strands of one section may have together.
const mostPoints = 1_200_000

func (t *Tied) points() int {
	n := 0
	for _, p := range t.Paths {
		n += len(p.Points)
	}
	return n
}

// part moves lines that were laid by hand apart where they press into one
// another.
func (t *Tied) part(leads []Lead) {
	strands := make([]tighten.Strand, len(t.Paths))
	for i, p := range t.Paths {
		strands[i] = tighten.Strand{Route: p.Points, Diameter: leads[i].Diameter}
	}
	parted, gap := tighten.Part(strands)
	for i, c := range parted {
		t.Paths[i] = Path{Points: c.Points}
	}
	t.Gap = math.Min(t.Gap, gap)
}

// below lays a section under another: each of its leads goes on from what hangs
// at its place.
func (t *Tied) below(next Tied) {
	down := func(v Vec) Vec { return Vec{X: v.X, Y: v.Y + t.Height, Z: v.Z} }
	for place, p := range next.Paths {
		i := t.Order[place]
		pts, lies := t.Paths[i].Points, t.Paths[i].Lies
		for k, v := range p.Points {
			v = down(v)
			if k == 0 && len(pts) > 0 {
				last := pts[len(pts)-1]
				if math.Hypot(math.Hypot(v.X-last.X, v.Y-last.Y), v.Z-last.Z) < 1e-9 {
					continue
				}
			}
			pts, lies = append(pts, v), append(lies, p.lie(k, next))
		}
		t.Paths[i].Points, t.Paths[i].Lies = pts, lies
	}
	for _, b := range next.Beads {
		b.At = down(b.At)
		t.Beads = append(t.Beads, b)
	}
	order := make([]int, len(t.Order))
	for place, k := range next.Order {
		order[place] = t.Order[k]
	}
	t.Order = order
	t.Height += next.Height
	t.Gap = math.Min(t.Gap, next.Gap)
	t.Rough = t.Rough.and(next.Rough)
}

// lie is how a path of a section lies at point k.
func (p Path) lie(k int, t Tied) Lie {
	switch {
	case p.Lies != nil:
		return p.Lies[k]
	case !t.Loose && (k > 0 || t.Ends):
		return Free
	case t.Snug:
		return Snug
	case t.Row:
		return InRow
	}
	return Knotted
}

// joint leads strands from where one part of a knot leaves them to where the
// next takes them up, as a part of its own.
func joint(from []Vec, to []Vec, height float64) Tied {
	t := Tied{Loose: true, Height: height, Gap: math.Inf(1), Order: identity(len(from))}
	down := Vec{Y: 1}
	for i, a := range from {
		a.Y = 0
		b := Vec{X: to[i].X, Y: height, Z: to[i].Z}
		t.Paths = append(t.Paths, Path{Points: append([]Vec{a}, Join(a, b, down, down)...)})
	}
	return t
}
