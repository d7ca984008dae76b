package trace_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"nimblebight/core/trace"
)

// grid is a partition in which the first of some shapes that holds a pixel's middle
// is its region. The place of a border is asked of the shape.
type grid struct {
	wide, tall int
	shapes     []func(x, y float64) float64 // below zero inside
}

func (g grid) at(x, y float64) int32 {
	for i, f := range g.shapes {
		if f(x, y) < 0 {
			return int32(i)
		}
	}
	return trace.None
}

func (g grid) trace() (*trace.Map, []int32) {
	region := make([]int32, g.wide*g.tall)
	middle := func(i int) (x, y float64) { return float64(i%g.wide) + 0.5, float64(i/g.wide) + 0.5 }
	for i := range region {
		region[i] = g.at(middle(i))
	}
	return trace.Borders(trace.Grid{Wide: g.wide, Tall: g.tall, Region: region, Tolerance: 0.2,
		Place: func(a, b int) float64 {
			x, y := middle(a)
			x2, y2 := middle(b)
			lo, hi := 0.0, 1.0
			for range 12 {
				t := (lo + hi) / 2
				if g.at(x+t*(x2-x), y+t*(y2-y)) == region[a] {
					lo = t
				} else {
					hi = t
				}
			}
			return lo
		}}), region
}

func disc(x, y, r float64) func(x, y float64) float64 {
	return func(px, py float64) float64 { return math.Hypot(px-x, py-y) - r }
}

func box(x0, y0, x1, y1 float64) func(x, y float64) float64 {
	return func(x, y float64) float64 { return max(x0-x, x-x1, y0-y, y-y1) }
}

// area is what the outlines of a region enclose; they must be closed.
func area(t *testing.T, m *trace.Map, wanted func(int32) bool) float64 {
	t.Helper()
	sum := 0.0
	for _, s := range m.Outline(wanted) {
		p := m.Path(s)
		if end := p.Curve[len(p.Curve)-1].End; !s.Closed || end.To(p.Start) > 1e-9 {
			t.Errorf("an outline begins at %v and ends at %v", p.Start, end)
		}
		sum -= p.Area() // the region lies on the left
	}
	return sum
}

func all(int32) bool { return true }

func TestADiscIsRound(t *testing.T) {
	for _, r := range []float64{3, 7.3, 20} {
		m, _ := grid{48, 48, []func(x, y float64) float64{disc(24.2, 23.7, r)}}.trace()
		if len(m.Chains) != 1 || len(m.Nodes) != 0 {
			t.Fatalf("radius %g: %d borders, %d nodes", r, len(m.Chains), len(m.Nodes))
		}
		if got, want := area(t, m, all), math.Pi*r*r; math.Abs(got-want) > 0.03*want {
			t.Errorf("radius %g: it covers %.2f, a disc %.2f", r, got, want)
		}
		for _, p := range m.Path(m.Outline(all)[0]).Flat(8) {
			if off := math.Hypot(p.X-24.2, p.Y-23.7) - r; math.Abs(off) > 0.3 {
				t.Errorf("radius %g: a point lies %.2f off", r, off)
			}
		}
		if n := len(m.Chains[0].Curve); n > 8 {
			t.Errorf("radius %g: %d curves", r, n)
		}
	}
}

func TestABoxKeepsItsCorners(t *testing.T) {
	m, _ := grid{40, 40, []func(x, y float64) float64{box(8.3, 9.1, 30.6, 28.4)}}.trace()
	c := m.Chains[0]
	corners := len(c.Corners) + 1 // a closed border begins at one
	if corners != 4 {
		t.Errorf("a box has %d corners", corners)
	}
	if got, want := area(t, m, all), (30.6-8.3)*(28.4-9.1); math.Abs(got-want) > 0.02*want {
		t.Errorf("it covers %.1f of %.1f", got, want)
	}
}

// A bar over another one: the upper one's edges go through where they meet.
func TestWhatLiesOverGoesThrough(t *testing.T) {
	g := grid{60, 60, []func(x, y float64) float64{box(2.4, 24.2, 57.1, 36.3), box(24.6, 2.2, 36.4, 57.7)}}
	m, _ := g.trace()
	if len(m.Nodes) != 4 {
		t.Fatalf("%d nodes", len(m.Nodes))
	}
	for k := range m.Chains {
		c := &m.Chains[k]
		if c.Left == 1 && c.Right == trace.None || c.Left == trace.None && c.Right == 1 { // the lower bar's
			for _, last := range []bool{false, true} {
				if next, _ := m.Next(k, last); next >= 0 {
					t.Error("an edge of the lower bar goes on across the upper")
				}
			}
		}
	}
	for _, n := range m.Nodes {
		if n.Degree() != 3 {
			t.Errorf("%d borders meet", n.Degree())
		}
		if off := min(math.Abs(n.At.Y-24.2), math.Abs(n.At.Y-36.3)); off > 0.3 {
			t.Errorf("a node lies %.2f off the upper bar's edge", off)
		}
	}
}

// direction is how a curve arrives at its end, or leaves its start.
func direction(start trace.Point, c trace.Cubic, end bool) trace.Point {
	a, b := start, c.A
	if end {
		a, b = c.B, c.End
	}
	if a.To(b) < 1e-6 {
		a, b = start, c.End
	}
	h := a.To(b)
	return trace.Point{X: (b.X - a.X) / h, Y: (b.Y - a.Y) / h}
}

func bend(a, b trace.Point) float64 {
	return math.Abs(math.Atan2(a.X*b.Y-a.Y*b.X, a.X*b.X+a.Y*b.Y)) * 180 / math.Pi
}

// Any partition at all has closed outlines whose areas are together that of the
// whole, each near what it is; its curves meet without a bend where they go on.
func TestAnyPartitionIsClosed(t *testing.T) {
	rng := rand.New(rand.NewPCG(7, 11))
	for n := range 60 {
		g := grid{wide: 50, tall: 50}
		for range 2 + rng.IntN(7) {
			x, y := 50*rng.Float64(), 50*rng.Float64() // some run out of the frame
			if rng.IntN(2) == 0 {
				g.shapes = append(g.shapes, disc(x, y, 4+14*rng.Float64()))
			} else {
				g.shapes = append(g.shapes, box(x-3-12*rng.Float64(), y-3-12*rng.Float64(), x+12*rng.Float64(), y+12*rng.Float64()))
			}
		}
		m, _ := g.trace()
		covers := map[int32]float64{} // counted on a grid five times as fine
		for y := 0.1; y < 50; y += 0.2 {
			for x := 0.1; x < 50; x += 0.2 {
				if r := g.at(x, y); r >= 0 {
					covers[r] += 0.04
				}
			}
		}
		sum := 0.0
		for r, want := range covers {
			a := area(t, m, func(q int32) bool { return q == r })
			sum += a
			if want > 40 && math.Abs(a-want) > 0.05*want+3 {
				t.Errorf("%d: region %d covers %.1f of %.1f", n, r, a, want)
			}
		}
		if whole := area(t, m, all); math.Abs(whole-sum) > 1e-6*whole {
			t.Errorf("%d: the regions cover %.4f together, their outline %.4f", n, sum, whole)
		}
		for _, k := range m.Nodes {
			if k.Degree() < 2 {
				t.Errorf("%d: a border ends at %v", n, k.At)
			}
		}
		for k := range m.Chains {
			c := &m.Chains[k]
			corner := map[int]bool{}
			for _, i := range c.Corners {
				corner[i] = true
			}
			at := c.Start
			for i, q := range c.Curve {
				if i+1 < len(c.Curve) && !corner[i] {
					if b := bend(direction(at, q, true), direction(q.End, c.Curve[i+1], false)); b > 1 {
						t.Errorf("%d: a border bends by %.1f degrees between two curves", n, b)
					}
				}
				at = q.End
			}
			if next, atLast := m.Next(k, true); next >= 0 {
				start, on := m.Walked(trace.Side{Chain: next, Back: atLast})
				last := len(c.Curve) - 1
				begin := c.Start
				if last > 0 {
					begin = c.Curve[last-1].End
				}
				if b := bend(direction(begin, c.Curve[last], true), direction(start, on[0], false)); b > 1 {
					t.Errorf("%d: a border bends by %.1f degrees where it goes through", n, b)
				}
			}
		}
	}
}

// A border that ends inside a region is kept where it is long and taken away where
// it is short.
func TestShortBordersInsideARegionGo(t *testing.T) {
	for _, long := range []int{4, 20} {
		region := make([]int32, 40*40)
		cut := func(a, b int) bool { return b == a+1 && a%40 == 19 && a/40 < long }
		m := trace.Borders(trace.Grid{Wide: 40, Tall: 40, Region: region, Tolerance: 0.2, Prune: 10, Apart: cut, Place: func(int, int) float64 { return 0.5 }})
		inside := 0
		for i := range m.Chains {
			if !m.Chains[i].Framed() {
				inside++
			}
		}
		if want := min(1, long/10); inside != want {
			t.Errorf("of a border of %d pixels %d are left", long, inside)
		}
	}
}

// Curves stay as near to the points as they are told to.
func TestFitStaysNear(t *testing.T) {
	var pts []trace.Point
	for i := range 100 {
		a := float64(i) * 0.12
		pts = append(pts, trace.Point{X: 4 * a, Y: 9 * math.Sin(a)})
	}
	last := 1000
	for _, tol := range []float64{0.05, 0.5, 2} {
		p := trace.Fit(pts, tol)
		line := p.Flat(40)
		for _, q := range pts {
			near := math.Inf(1)
			for _, l := range line {
				near = math.Min(near, l.To(q))
			}
			if near > tol+0.1 {
				t.Errorf("told to stay within %g a curve passes at %.2f", tol, near)
			}
		}
		if len(p.Curve) > last {
			t.Errorf("at %g there are %d curves, closer there were %d", tol, len(p.Curve), last)
		}
		last = len(p.Curve)
	}
}

func ExampleBorders() {
	// Two regions side by side, three pixels by two each.
	m := trace.Borders(trace.Grid{Wide: 6, Tall: 2, Region: []int32{0, 0, 0, 1, 1, 1, 0, 0, 0, 1, 1, 1}, Tolerance: 0.2,
		Place: func(int, int) float64 { return 0.5 }})
	fmt.Println(len(m.Nodes), "nodes,", len(m.Chains), "borders")
	// Output: 2 nodes, 3 borders
}
