package knot

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Each ties a knot several times, one under the other, each on the strands
// as the one before leaves them: what a section with a count is.
func Each(w Work, count int, one func(w Work, k int) (Tied, error)) (Tied, error) {
	n := len(w.Strands)
	out := Tied{Gap: math.Inf(1), Order: Identity(n), Paths: make([]Path, n), Repeats: count, Cells: []float64{0}}
	strands := append([]Strand{}, w.Strands...)
	for k := range count {
		each := w
		each.Strands = strands
		t, err := one(each, k)
		if err != nil {
			return t, err
		}
		if k > 0 { // led over to where this one takes them up
			var from, to []Way
			for place, p := range t.Paths {
				from, to = append(from, WayOut(out.Paths[out.Order[place]].Points)), append(to, WayIn(p.Points))
			}
			share := 0.7
			if n > 2 && TermsOf(w.Section).Bundles { // they pass one another on the way
				share = 1.4
			}
			if high := share * Fall(from, to, strands[0].Diameter); high > 0.05*strands[0].Diameter {
				j := Joint(from, to, high)
				j.Part(strands)
				out.Below(j)
			}
		}
		out.Below(t)
		if k == 0 {
			out.Loose, out.Snug, out.Row, out.Clear, out.Around, out.AtEnd = t.Loose, t.Snug, t.Row, t.Clear, t.Around, t.AtEnd
			out.Moves, out.Shows, out.Flat, out.Checks = t.Moves, t.Shows, t.Flat, t.Checks
			out.Hanging, out.HangsTill = t.Hanging, t.HangsTill
		}
		if points := out.points(); points > mostPoints && k+1 < count {
			return Tied{}, &Refused{Field: "count", Why: fmt.Sprintf("%d of them on %d strands are more than can be drawn in one section", count, n),
				Set: k + 1, Label: fmt.Sprintf("Tie %d", k+1)}
		}
		now := make([]Strand, n)
		for place, i := range t.Order {
			now[place] = strands[i]
		}
		strands = now
		out.Cells = append(out.Cells, out.Height)
		out.Orders = append(out.Orders, slices.Clone(out.Order))
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

// Part moves lines that were laid by hand apart where they press into one
// another.
func (t *Tied) Part(strands []Strand) {
	pressed := make([]tighten.Strand, len(t.Paths))
	for i, p := range t.Paths {
		pressed[i] = tighten.Strand{Route: p.Points, Diameter: strands[i].Diameter}
	}
	parted, gap := Parted(pressed)
	for i, line := range parted {
		t.Paths[i] = Path{Points: line}
	}
	t.Gap = math.Min(t.Gap, gap)
}

// Below lays a section under another: each of its strands goes on from what hangs
// at its place.
func (t *Tied) Below(next Tied) {
	down := func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: v.Y + t.Height, Z: v.Z} }
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
	for i, p := range next.Own { // a cord of its own goes on from the one before
		var pts []r3.Vec
		for _, v := range p.Points {
			pts = append(pts, down(v))
		}
		if i == len(t.Own) {
			t.Own = append(t.Own, Path{})
		}
		t.Own[i] = Path{Points: append(slices.Clone(t.Own[i].Points), pts...)}
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
	t.Rough = t.Rough.And(next.Rough)
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

// Joint leads strands from where one part of a knot leaves them to where the
// next takes them up, as a part of its own.
func Joint(from, to []Way, height float64) Tied {
	t := Tied{Loose: true, Height: height, Gap: math.Inf(1), Order: Identity(len(from))}
	for i, w := range from {
		a := r3.Vec{X: w.At.X, Z: w.At.Z}
		b := r3.Vec{X: to[i].At.X, Y: height, Z: to[i].At.Z}
		t.Paths = append(t.Paths, Path{Points: append([]r3.Vec{a}, Join(a, b, w.Dir, to[i].Dir)...)})
	}
	return t
}

// Mirror turns a section of n strands into its mirror, left for right, moves and
// all.
func (t *Tied) Mirror(n int) {
	mirrored := func(paths []Path) {
		for k, p := range paths {
			for i := range p.Points {
				p.Points[i].X = -p.Points[i].X
			}
			if p.More != nil {
				m := *p.More
				m.Turn, m.Tail = -m.Turn, slices.Clone(m.Tail)
				for i := range m.Tail {
					m.Tail[i].X = -m.Tail[i].X
				}
				paths[k].More = &m
			}
		}
		slices.Reverse(paths)
	}
	mirrored(t.Paths)
	mirrored(t.Flat)
	mirrored(t.Hanging)
	turn := func(order []int) {
		slices.Reverse(order)
		for i := range order {
			order[i] = n - 1 - order[i]
		}
	}
	turn(t.Order)
	t.Orders = slices.Clone(t.Orders) // they may be shared
	for i, o := range t.Orders {
		t.Orders[i] = slices.Clone(o)
		turn(t.Orders[i])
	}
	for i := range t.Beads {
		t.Beads[i].At.X = -t.Beads[i].At.X
	}
	for i, s := range t.Shows {
		t.Shows[i].Face, t.Shows[i].Back, t.Shows[i].Where = n-1-s.Face, n-1-s.Back, string(move.Side(s.Where).Mirror())
	}
	for i, k := range t.Workers {
		if k < n {
			t.Workers[i] = n - 1 - k
		}
	}
	slices.Reverse(t.Endings)
	for i, th := range t.Threads {
		if th.Own {
			continue
		}
		flipped := slices.Clone(th.Strands)
		for k := range flipped {
			flipped[k] = n - 1 - flipped[k]
		}
		t.Threads[i].Strands = flipped
	}
	t.Moves = slices.Clone(t.Moves) // they may be shared
	for i, m := range t.Moves {
		t.Moves[i] = m.Mirror(n)
	}
	t.Turned = -t.Turned
}

// Copy is the knot with points, moves and orders of its own, which may be changed.
func (t Tied) Copy() Tied {
	t.Paths, t.Own, t.Flat, t.OwnFlat, t.Hanging = copied(t.Paths), copied(t.Own), copied(t.Flat), copied(t.OwnFlat), copied(t.Hanging)
	t.Moves, t.Order, t.Workers = slices.Clone(t.Moves), slices.Clone(t.Order), slices.Clone(t.Workers)
	t.Beads, t.Shows, t.Endings, t.Threads = slices.Clone(t.Beads), slices.Clone(t.Shows), slices.Clone(t.Endings), slices.Clone(t.Threads)
	return t
}

func copied(paths []Path) []Path {
	out := slices.Clone(paths)
	for i, p := range out {
		out[i].Points, out[i].Inside = slices.Clone(p.Points), slices.Clone(p.Inside)
	}
	return out
}

// Flip turns the order of strands about.
func Flip(ls []Strand) { slices.Reverse(ls) }

// Curve is a strand as an open curve.
func Curve(pts []r3.Vec) curve.Curve { return curve.Curve{Points: pts} }

// Clear moves strands of one diameter that were laid by hand at their beginnings
// and ends clear of one another there: nine diameters of cord at either end, or
// all of a short one. Both ends of every strand stay put.
func Clear(lines [][]r3.Vec, d float64) [][]r3.Vec {
	const ends = 9.0 // diameters of cord
	part := func(lines [][]r3.Vec) [][]r3.Vec {
		heads, out := make([]tighten.Strand, len(lines)), make([][]r3.Vec, len(lines))
		rest := make([][]r3.Vec, len(lines))
		for i, line := range lines {
			n := 2
			for n < len(line)-1 && Curve(line[:n]).Length() < ends*d {
				n++
			}
			heads[i], rest[i] = tighten.Strand{Route: line[:n], Diameter: d}, line[n:]
		}
		parted, _ := Parted(heads)
		for i := range lines {
			out[i] = slices.Concat(parted[i], rest[i])
		}
		return out
	}
	turn := func(lines [][]r3.Vec) {
		for i := range lines {
			slices.Reverse(lines[i])
		}
	}
	out := part(lines)
	turn(out)
	out = part(out)
	turn(out)
	return out
}

// Measure sets the gap to the least distance of the paths from one another and from
// themselves, over the mean of their diameters, however they came to be.
func (t *Tied) Measure(strands []Strand) {
	var p tighten.Problem
	var cs []curve.Curve
	for i, path := range t.Paths {
		if len(path.Points) > 1 {
			p.Strands = append(p.Strands, tighten.Strand{Route: path.Points, Diameter: strands[i].Diameter})
			cs = append(cs, Curve(path.Points))
		}
	}
	t.Gap = tighten.GapOf(p, cs, tighten.Cell{})
}
