package knot

import (
	"cmp"
	"context"
	"fmt"
	"math"
	"slices"
	"sort"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Route is a knot as it is written down: the rough path of its strands in
// diameters, with what is published of it, for the rope engine to prove itself
// on. A knot that sections can tie is in the catalogue as well.
type Route struct {
	Name    string
	Family  string
	About   string
	Problem func() tighten.Problem
	// Measure reads the figure that Published is about off the drawn-up knot,
	// in diameters; Of says what it is.
	Measure   func(tighten.Result) float64
	Of        string
	Published float64
	// Share is how near the published figure a hand-made comparison is worth.
	Share float64
	// Height, where it is not zero, is the published height of a repeat.
	Height float64
	// Sinnet is set for a repeat of an endless row.
	Sinnet bool
	// Closed is set for a knot or link without ends, with its published number of
	// crossings.
	Closed    bool
	Crossings int
	// Determinant, where it is not zero, tells which knot it is: of a closed one, or
	// of one or two open strands as [Route.Told] joins them.
	Determinant int
}

// Settings are how the route is drawn up: fine to prove it, else as quickly as
// half a per cent allows.
func (r Route) Settings(fine bool) tighten.Settings {
	switch {
	case r.Closed && fine:
		return tighten.Settings{PerDiameter: []float64{4, 7, 12}, Shakes: 16}
	case r.Closed:
		return tighten.Settings{PerDiameter: []float64{4, 6}, Shakes: 12}
	case fine:
		return tighten.Settings{PerDiameter: []float64{3, 5, 8}}
	}
	return tighten.Settings{}
}

// DrawUp draws the route up and checks that it is still the knot that was
// written: a closed knot, and one or two open strands with their ends joined outside,
// have the Alexander polynomial they had.
func (r Route) DrawUp(ctx context.Context, set tighten.Settings) (tighten.Result, error) {
	p := r.Problem()
	if err := CheckRoute(p); err != nil {
		return tighten.Result{}, fmt.Errorf("the route of %s: %w", r.Name, err)
	}
	drawn, err := tighten.DrawUp(ctx, p, set)
	if err != nil {
		return drawn, fmt.Errorf("drawing up %s: %w", r.Name, err)
	}
	if r.Sinnet || (!r.Closed && len(p.Strands) > 2) {
		return drawn, nil // what keeps these is that nothing came within half a diameter
	}
	var start []curve.Curve
	for _, s := range p.Strands {
		start = append(start, curve.Spline(s.Route, s.Closed))
	}
	was, err := r.polynomial(start)
	if err != nil {
		return drawn, fmt.Errorf("%s as written: %w", r.Name, err)
	}
	is, err := r.polynomial(drawn.Strands)
	if err != nil {
		return drawn, fmt.Errorf("%s drawn up: %w", r.Name, err)
	}
	if !slices.Equal(was, is) {
		return drawn, fmt.Errorf("%s was written with the polynomial %v and drawn up to %v: a strand passed through another", r.Name, was, is)
	}
	return drawn, nil
}

// CheckRoute refuses a route that cannot be a knot: an end of a cell that does
// not meet its entry into the next, or strands that pass where neither is over
// the other. It names the strands and the place, counted from 1.
func CheckRoute(p tighten.Problem) error {
	// An end may stand straight above its entry, up to a repeat away, but not
	// beside it.
	const beside, same = 2.2, 0.1 // diameters
	lines := make([]curve.Curve, len(p.Strands))
	for i, s := range p.Strands {
		lines[i] = curve.Spline(s.Route, s.Closed)
		if p.Cell == nil || len(s.Route) == 0 {
			continue
		}
		if s.Next < 0 || s.Next >= len(p.Strands) || len(p.Strands[s.Next].Route) == 0 {
			return fmt.Errorf("strand %d goes on as strand %d, which is not there", i+1, s.Next+1)
		}
		end, entry := s.Route[len(s.Route)-1], tighten.Image(*p.Cell, 1, p.Strands[s.Next].Route[0])
		off := r3.Sub(entry, end)
		if d := r3.Norm(off); math.Hypot(off.X, off.Z) > beside*math.Max(1, s.Diameter) || math.Abs(off.Y) > 1.5*p.Cell.Pitch {
			return fmt.Errorf("strand %d ends %.1f diameters away from where strand %d of the next repeat begins (x %.2f, y %.2f, z %.2f)",
				i+1, d, s.Next+1, entry.X, entry.Y, entry.Z)
		}
	}
	for i, a := range lines {
		for j := i; j < len(lines); j++ {
			for m := range edges(a) {
				for n := range edges(lines[j]) {
					if i == j && (n < m+12 || a.Closed && n > m+len(a.Points)-12) {
						continue
					}
					p0, p1 := edge(a, m)
					q0, q1 := edge(lines[j], n)
					d, s, _ := curve.SegmentDistance(p0, p1, q0, q1)
					if d >= same*math.Min(p.Strands[i].Diameter, p.Strands[j].Diameter) {
						continue
					}
					at := curve.Lerp(p0, p1, s)
					return fmt.Errorf("strands %d and %d meet near point %d of the one and %d of the other (x %.2f, y %.2f, z %.2f): lead one over, with z above zero, and one under",
						i+1, j+1, m/8+1, n/8+1, at.X, at.Y, at.Z)
				}
			}
		}
	}
	return nil
}

func edges(c curve.Curve) int {
	if c.Closed {
		return len(c.Points)
	}
	return len(c.Points) - 1
}

func edge(c curve.Curve, i int) (a, b r3.Vec) { return c.Points[i], c.Points[(i+1)%len(c.Points)] }

// polynomial is the Alexander polynomial of the curves as seen from the face,
// a little askew so that nothing symmetric coincides.
func (r Route) polynomial(cs []curve.Curve) ([]int, error) {
	if !r.Closed {
		cs = looped(cs)
	}
	seen := make([]curve.Curve, len(cs))
	for i, c := range cs {
		seen[i] = curve.TurnY(c, 0.013)
		if r.Closed {
			seen[i] = curve.TurnY(c, 0.37).Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: 0.95*v.Y + 0.31*v.Z, Z: 0.95*v.Z - 0.31*v.Y} })
		}
	}
	found, err := curve.Crossings(seen)
	if err != nil {
		return nil, err
	}
	return curve.AlexanderPolynomial(found, len(cs)), nil
}

// looped closes one open strand, or two to one: their tops far above, their ends far
// below. Half turns of two ends about each other, which count for nothing, are then
// no crossings of the knot's own.
func looped(cs []curve.Curve) []curve.Curve {
	if len(cs) == 1 {
		return []curve.Curve{joinedOutside(cs[0])}
	}
	const far = 1000.0
	a, b := cs[0].Points, slices.Clone(cs[1].Points)
	slices.Reverse(b)
	out := slices.Clone(a)
	out = append(out, r3.Vec{X: a[len(a)-1].X, Y: far}, r3.Vec{X: b[0].X, Y: far})
	out = append(out, b...)
	return []curve.Curve{{Points: append(out, r3.Vec{X: b[len(b)-1].X, Y: -far}, r3.Vec{X: a[0].X, Y: -far}), Closed: true}}
}

// joinedOutside closes an open strand far beside everything it does.
func joinedOutside(c curve.Curve) curve.Curve {
	const far = 1000.0 // diameters
	a, b := c.Points[len(c.Points)-1], c.Points[0]
	return curve.Curve{Points: append(slices.Clone(c.Points), r3.Vec{X: a.X, Y: far}, r3.Vec{X: far, Y: far}, r3.Vec{X: far, Y: -far}, r3.Vec{X: b.X, Y: -far}), Closed: true}
}

// Told reports how a drawn-up route shows what it is. Of a closed knot: the
// fewest crossings over some views, and its determinant. Of one open strand:
// the crossings of its face, and its determinant with the ends joined below it,
// outside everything; of two, with their tops joined and their ends. Of more strands:
// the crossings of the face, and their determinant with the k-th end from the right
// joined to the k-th beginning from the right; of a sinnet the crossings of one repeat.
func (r Route) Told(drawn tighten.Result) (crossings, determinant int, err error) {
	cs := drawn.Strands
	switch {
	case r.Closed:
		return fewest(cs)
	case r.Sinnet:
		var n [2]int
		for i := range n {
			threads := threadsOf(r.Problem(), drawn, i+2)
			found, err := curve.Crossings(threads)
			if err != nil {
				return 0, 0, err
			}
			n[i] = len(found)
		}
		return n[1] - n[0], 0, nil
	case len(cs) <= 2:
		found, err := curve.Crossings(looped(cs))
		return len(found), curve.Determinant(found, 1), err
	}
	found, err := curve.Crossings(cs)
	if err != nil {
		return 0, 0, err
	}
	joined := joinedAround(cs)
	seen, err := curve.Crossings(joined)
	return len(found), curve.Determinant(seen, len(joined)), err
}

// joinedAround closes open strands that come from above and leave below, seen turned
// by an eighth of a right angle or so that none hangs behind another: each end goes
// round on the right to a beginning, the arcs inside one another.
func joinedAround(cs []curve.Curve) []curve.Curve {
	const turn = 12.4 * math.Pi / 180
	const far = 1000.0 // diameters
	n := len(cs)
	lines := make([][]r3.Vec, n)
	for i, c := range cs {
		lines[i] = curve.TurnY(c, turn).Points
	}
	fromRight := func(at func(pts []r3.Vec) r3.Vec) []int {
		out := Identity(n)
		slices.SortFunc(out, func(a, b int) int { return cmp.Compare(at(lines[b]).X, at(lines[a]).X) })
		return out
	}
	begins := fromRight(func(pts []r3.Vec) r3.Vec { return pts[0] })
	ends := fromRight(func(pts []r3.Vec) r3.Vec { return pts[len(pts)-1] })
	next := make([]int, n) // the strand that each goes on as
	rank := make([]int, n)
	for k := range n {
		next[ends[k]], rank[ends[k]] = begins[k], k
	}
	var out []curve.Curve
	done := make([]bool, n)
	for i := range n {
		var round []r3.Vec
		for at := i; !done[at]; at = next[at] {
			done[at] = true
			out := far + 10*float64(rank[at])
			end, begin := lines[at][len(lines[at])-1], lines[next[at]][0]
			round = append(append(round, lines[at]...), r3.Vec{X: end.X, Y: out}, r3.Vec{X: out, Y: out}, r3.Vec{X: out, Y: -out}, r3.Vec{X: begin.X, Y: -out})
		}
		if round != nil {
			out = append(out, curve.Curve{Points: round, Closed: true})
		}
	}
	return out
}

// fewest looks at a closed knot from views spread evenly by the golden angle.
func fewest(cs []curve.Curve) (crossings, determinant int, err error) {
	const views = 300
	crossings = math.MaxInt
	for k := range views {
		y := 1 - 2*(float64(k)+0.5)/views
		seen := make([]curve.Curve, len(cs))
		for i, c := range cs {
			seen[i] = curve.TurnY(c, 2.399963*float64(k)).Map(func(v r3.Vec) r3.Vec {
				s := math.Sqrt(1 - y*y)
				return r3.Vec{X: v.X, Y: y*v.Y + s*v.Z, Z: -s*v.Y + y*v.Z}
			})
		}
		found, err := curve.Crossings(seen)
		if err != nil {
			return 0, 0, err
		}
		if len(found) < crossings {
			crossings, determinant = len(found), curve.Determinant(found, len(cs))
		}
	}
	return crossings, determinant, nil
}

// threadsOf lays repeats of a sinnet one under the other.
func threadsOf(p tighten.Problem, drawn tighten.Result, repeats int) []curve.Curve {
	var out []curve.Curve
	for i := range p.Strands {
		var c curve.Curve
		at := i
		for k := range repeats {
			for _, v := range drawn.Strands[at].Points {
				c.Points = append(c.Points, tighten.Image(drawn.Cell, k, v))
			}
			at = p.Strands[at].Next
		}
		out = append(out, c)
	}
	return out
}

var routes []Route

func AddRoute(r Route) { routes = append(routes, r) }

// Routes lists the knots that can be drawn up by name, in alphabetical order.
func Routes() []Route {
	out := append([]Route{}, routes...)
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// PerStrand is the cord that a strand takes in one repeat.
func PerStrand(r tighten.Result) float64 { return r.Length / float64(len(r.Strands)) }

// BeyondStraight is what a line takes beyond the straight way between its ends.
func BeyondStraight(pts []r3.Vec) float64 {
	return Curve(pts).Length() - r3.Norm(r3.Sub(pts[len(pts)-1], pts[0]))
}

// Beyond is the cord that a strand takes beyond the straight way between its
// held ends.
func Beyond(r tighten.Result) float64 {
	sum := 0.0
	for _, s := range r.Strands {
		sum += r3.Norm(r3.Sub(s.Points[len(s.Points)-1], s.Points[0]))
	}
	return (r.Length - sum) / float64(len(r.Strands))
}

// TurnRoute is a route turned about the work's axis.
func TurnRoute(pts []r3.Vec, angle float64) []r3.Vec {
	return curve.TurnY(curve.Curve{Points: pts}, angle).Points
}

// OpenUp cuts a closed picture of a knot at its lowest point and leads the two
// ends away to the left and the right, crossing nothing.
func OpenUp(loop []r3.Vec, reach float64) []r3.Vec {
	low := 0
	for i, v := range loop {
		if v.Y > loop[low].Y {
			low = i
		}
	}
	n := len(loop)
	at := loop[low]
	side := 1.0 // the way the strand leaves the cut
	if loop[(low+1)%n].X < at.X {
		side = -1
	}
	out := []r3.Vec{{X: at.X + side*reach, Y: at.Y + 3}, {X: at.X + side*3, Y: at.Y + 2.4}, {X: at.X + side*0.9, Y: at.Y + 1.2, Z: at.Z}}
	for k := 1; k < n; k++ {
		out = append(out, loop[(low+k)%n])
	}
	return append(out, r3.Vec{X: at.X - side*0.9, Y: at.Y + 1.2, Z: at.Z}, r3.Vec{X: at.X - side*3, Y: at.Y + 2.4}, r3.Vec{X: at.X - side*reach, Y: at.Y + 3})
}

// around gives n points of f over its whole turn.
func Around(n int, f func(t float64) r3.Vec) []r3.Vec {
	out := make([]r3.Vec, n)
	for i := range out {
		out[i] = f(2 * math.Pi * (float64(i) + 0.21) / float64(n))
	}
	return out
}
