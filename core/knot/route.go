package knot

import (
	"math"
	"sort"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Route is a knot as it is written down: the rough way of its strands in
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
}

var routes []Route

func addRoute(r Route) { routes = append(routes, r) }

// Routes lists the knots that can be drawn up by name, in alphabetical order.
func Routes() []Route {
	out := append([]Route{}, routes...)
	sort.Slice(out, func(i, j int) bool { return out[i].Name < out[j].Name })
	return out
}

// perStrand is the cord that a strand takes in one repeat.
func perStrand(r tighten.Result) float64 { return r.Length / float64(len(r.Strands)) }

// beyond is the cord that a strand takes beyond the straight way between its
// held ends.
func beyond(r tighten.Result) float64 {
	sum := 0.0
	for _, s := range r.Strands {
		sum += r3.Norm(r3.Sub(s.Points[len(s.Points)-1], s.Points[0]))
	}
	return (r.Length - sum) / float64(len(r.Strands))
}

// turnRoute is a route turned about the work's axis.
func turnRoute(pts []Vec, angle float64) []Vec {
	return curve.TurnY(curve.Curve{Points: pts}, angle).Points
}

// openUp cuts a closed picture of a knot at its lowest point and leads the two
// ends away to the left and the right, crossing nothing.
func openUp(loop []Vec, reach float64) []Vec {
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
	out := []Vec{{X: at.X + side*reach, Y: at.Y + 3}, {X: at.X + side*3, Y: at.Y + 2.4}, {X: at.X + side*0.9, Y: at.Y + 1.2, Z: at.Z}}
	for k := 1; k < n; k++ {
		out = append(out, loop[(low+k)%n])
	}
	return append(out, Vec{X: at.X - side*0.9, Y: at.Y + 1.2, Z: at.Z}, Vec{X: at.X - side*3, Y: at.Y + 2.4}, Vec{X: at.X - side*reach, Y: at.Y + 3})
}

// around gives n points of f over its whole turn.
func around(n int, f func(t float64) Vec) []Vec {
	out := make([]Vec, n)
	for i := range out {
		out[i] = f(2 * math.Pi * (float64(i) + 0.21) / float64(n))
	}
	return out
}
