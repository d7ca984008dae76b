package curve_test

import (
	"fmt"
	"math"
	"testing"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

func near(t *testing.T, what string, got, want, tol float64) {
	t.Helper()
	if !(math.Abs(got-want) <= tol) {
		t.Errorf("%s is %v, want %v within %v", what, got, want, tol)
	}
}

// wave is an open curve with no symmetry to hide a mistake behind.
func wave(n int, phase float64) curve.Curve {
	var c curve.Curve
	for i := range n {
		t := 6 * float64(i) / float64(n-1)
		c.Points = append(c.Points, r3.Vec{X: math.Sin(1.7*t + phase), Y: t + 0.3*math.Cos(2*t), Z: 0.8 * math.Cos(1.1*t+2*phase)})
	}
	return c
}

// torus winds a torus knot p times round the axis and q times through the hole.
func torus(p, q float64, n int) curve.Curve {
	c := curve.Curve{Closed: true}
	for i := range n {
		t := 2 * math.Pi * (float64(i) + 0.37) / float64(n)
		r := 2.5 + math.Cos(q*t)
		c.Points = append(c.Points, r3.Vec{X: r * math.Cos(p*t), Y: r * math.Sin(p*t), Z: math.Sin(q * t)})
	}
	return c
}

func figureEight(n int) curve.Curve {
	c := curve.Curve{Closed: true}
	for i := range n {
		t := 2 * math.Pi * (float64(i) + 0.21) / float64(n)
		r := 2 + math.Cos(2*t)
		c.Points = append(c.Points, r3.Vec{X: r * math.Cos(3*t), Y: r * math.Sin(3*t), Z: math.Sin(4 * t)})
	}
	return c
}

func crossings(t *testing.T, cs ...curve.Curve) []curve.Crossing {
	t.Helper()
	out, err := curve.Crossings(cs)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

func TestLengthOfACircleAndOfItsSpline(t *testing.T) {
	var route []r3.Vec
	for i := range 12 {
		s, c := math.Sincos(2 * math.Pi * float64(i) / 12)
		route = append(route, r3.Vec{X: 3 * c, Y: 3 * s})
	}
	near(t, "the circle's length", curve.Spline(route, true).Length(), 6*math.Pi, 0.02*6*math.Pi)
	for _, p := range route {
		best := math.Inf(1)
		for _, q := range curve.Spline(route, true).Points {
			best = math.Min(best, r3.Norm(r3.Sub(p, q)))
		}
		near(t, "the spline's distance from its route", best, 0, 1e-12)
	}
}

func TestResampleKeepsEndsAndSpacing(t *testing.T) {
	c := wave(200, 0.3)
	r := c.Resample(41)
	if r.Points[0] != c.Points[0] || r3.Norm(r3.Sub(r.Points[40], c.Points[199])) > 1e-12 {
		t.Error("an end moved")
	}
	near(t, "the length", r.Length(), c.Length(), 0.01*c.Length())
	step := c.Length() / 40
	for i := 1; i < 41; i++ {
		near(t, "a step", r3.Norm(r3.Sub(r.Points[i], r.Points[i-1])), step, 0.05*step)
	}
	if n := len(torus(2, 3, 90).Resample(33).Points); n != 33 {
		t.Errorf("a closed curve has %d points, want 33", n)
	}
}

func TestReverseAndTurnKeepLengthAndBox(t *testing.T) {
	c := wave(80, 1)
	near(t, "reversed length", c.Reverse().Length(), c.Length(), 1e-9)
	back := curve.TurnY(curve.TurnY(c, 0.7), -0.7)
	for i := range c.Points {
		near(t, "turned there and back", r3.Norm(r3.Sub(back.Points[i], c.Points[i])), 0, 1e-12)
	}
	b := c.Box()
	for _, p := range c.Points {
		if p.X < b.Min.X || p.X > b.Max.X || p.Y < b.Min.Y || p.Y > b.Max.Y || p.Z < b.Min.Z || p.Z > b.Max.Z {
			t.Fatal("a point lies outside the box")
		}
	}
}

// The laws stated at SegmentDistance, and that nothing is nearer.
func TestSegmentDistanceLaws(t *testing.T) {
	c := wave(60, 0.4)
	for i := 0; i+3 < len(c.Points); i++ {
		p0, p1 := c.Points[i], c.Points[(i*7+5)%60]
		q0, q1 := c.Points[(i*11+9)%60], c.Points[(i*3+1)%60]
		d, s, u := curve.SegmentDistance(p0, p1, q0, q1)
		d2, s2, u2 := curve.SegmentDistance(q0, q1, p0, p1)
		near(t, "law 1, distance", d2, d, 1e-9)
		if d > 1e-9 {
			near(t, "law 1, places", math.Abs(s-u2)+math.Abs(u-s2), 0, 1e-6)
		}
		d3, _, _ := curve.SegmentDistance(p1, p0, q0, q1)
		near(t, "law 2", d3, d, 1e-9)
		for a := 0.0; a <= 1; a += 0.1 {
			for b := 0.0; b <= 1; b += 0.1 {
				if e := r3.Norm(r3.Sub(curve.Lerp(p0, p1, a), curve.Lerp(q0, q1, b))); e < d-1e-9 {
					t.Fatalf("%v is nearer than %v", e, d)
				}
			}
		}
	}
}

func TestGapOfTwoStraightCords(t *testing.T) {
	a := curve.Curve{Points: []r3.Vec{{X: -5}, {X: 5}}}
	b := curve.Curve{Points: []r3.Vec{{Y: -5, Z: 3}, {Y: 5, Z: 3}}}
	near(t, "the gap", curve.Gap(a, 2, b, 1), 1.5, 1e-12)
	near(t, "the overlap", curve.Gap(a, 4, b, 4), -1, 1e-12)
}

// The laws stated at Crossings.
func TestCrossingLaws(t *testing.T) {
	a, b := wave(300, 0), wave(300, 2.1)
	both := crossings(t, a, b)
	if len(both) < 3 {
		t.Fatalf("only %d crossings to try the laws on", len(both))
	}
	between := func(cs []curve.Crossing) (n, sum int) {
		for _, c := range cs {
			if c.Over != c.Under {
				n++
				sum += c.Sign
			}
		}
		return n, sum
	}
	n, sum := between(both)
	n1, sum1 := between(crossings(t, a.Reverse(), b))
	if n1 != n || sum1 != -sum {
		t.Errorf("law 1: %d crossings of sum %d became %d of %d", n, sum, n1, sum1)
	}
	mirror := func(v r3.Vec) r3.Vec { v.X = -v.X; return v }
	n2, sum2 := between(crossings(t, a.Map(mirror), b.Map(mirror)))
	if n2 != n || sum2 != -sum {
		t.Errorf("law 2: %d crossings of sum %d became %d of %d", n, sum, n2, sum2)
	}
	back := crossings(t, curve.TurnY(a, math.Pi), curve.TurnY(b, math.Pi))
	if len(back) != len(both) {
		t.Fatalf("law 3: %d crossings from behind, %d from the face", len(back), len(both))
	}
	for _, c := range both {
		found := false
		for _, q := range back {
			if math.Abs(q.X+c.X) < 1e-6 && math.Abs(q.Y-c.Y) < 1e-6 {
				found = true
				if q.Over != c.Under || q.Sign != c.Sign {
					t.Errorf("law 3: %+v from behind is %+v", c, q)
				}
			}
		}
		if !found {
			t.Errorf("law 3: %+v is not seen from behind", c)
		}
	}
}

func TestCurvesThatMeetAreRefused(t *testing.T) {
	a := curve.Curve{Points: []r3.Vec{{X: -1}, {X: 1}}}
	b := curve.Curve{Points: []r3.Vec{{Y: -1}, {Y: 1}}}
	if _, err := curve.Crossings([]curve.Curve{a, b}); err == nil {
		t.Error("two curves that meet have no over and under, yet were taken")
	}
}

// Published determinants and Alexander polynomials of knots and links.
func TestKnotsAreTold(t *testing.T) {
	ring := func(f func(s, c float64) r3.Vec) curve.Curve {
		c := curve.Curve{Closed: true}
		for i := range 80 {
			s, k := math.Sincos(2 * math.Pi * (float64(i) + 0.3) / 80)
			c.Points = append(c.Points, f(s, k))
		}
		return c
	}
	// Three ellipses in planes at right angles, each inside the next.
	borromean := []curve.Curve{
		ring(func(s, c float64) r3.Vec { return tilt(r3.Vec{X: 2 * c, Y: s}) }),
		ring(func(s, c float64) r3.Vec { return tilt(r3.Vec{Y: 2 * c, Z: s}) }),
		ring(func(s, c float64) r3.Vec { return tilt(r3.Vec{Z: 2 * c, X: s}) }),
	}
	for _, k := range []struct {
		name        string
		curves      []curve.Curve
		determinant int
		atTwo       float64 // |Alexander polynomial at 2|, up to a power of two
	}{
		{"trefoil", []curve.Curve{torus(2, 3, 200)}, 3, 3},
		{"figure-eight", []curve.Curve{figureEight(240)}, 5, 1},
		{"cinquefoil", []curve.Curve{torus(2, 5, 240)}, 5, 11},
		{"Hopf link", []curve.Curve{
			ring(func(s, c float64) r3.Vec { return r3.Vec{X: c, Y: s, Z: 0.2 * s} }),
			ring(func(s, c float64) r3.Vec { return r3.Vec{X: 1 + c, Y: 0.3 * s, Z: s} })}, 2, 1},
		{"Borromean rings", borromean, 16, 1},
	} {
		cs := crossings(t, k.curves...)
		if d := curve.Determinant(cs, len(k.curves)); d != k.determinant {
			t.Errorf("%s: determinant %d, published %d", k.name, d, k.determinant)
		}
		a := curve.Alexander(cs, len(k.curves), 2)
		v := math.Hypot(real(a), imag(a))
		for v > 0 && math.Mod(math.Round(v*4096)/4096, 2) == 0 {
			v /= 2
		}
		for v > 0 && v != math.Trunc(v) && v < 1e6 {
			v *= 2
		}
		for v >= 2 && math.Mod(v, 2) == 0 {
			v /= 2
		}
		near(t, k.name+": Alexander polynomial at 2, its odd part", v, k.atTwo, 1e-6)
	}
	link := crossings(t, torus(2, 3, 200))
	if w := curve.Writhe(link); w != 3 && w != -3 {
		t.Errorf("the trefoil's writhe is %d", w)
	}
	if !curve.Alternating(link, 1) {
		t.Error("the trefoil's picture should alternate")
	}
}

// tilt turns a point so that no two edges of a symmetric figure coincide in
// the picture.
func tilt(v r3.Vec) r3.Vec {
	s, c := math.Sincos(0.5)
	v = r3.Vec{X: c*v.X + s*v.Z, Y: v.Y, Z: -s*v.X + c*v.Z}
	s, c = math.Sincos(0.37)
	return r3.Vec{X: v.X, Y: c*v.Y + s*v.Z, Z: -s*v.Y + c*v.Z}
}

// The published Alexander polynomials, and the rules of a planar diagram: every
// arc is in it twice, and its regions are as many as Euler wants.
func TestPolynomialsAndDiagrams(t *testing.T) {
	for name, k := range map[string]struct {
		c    curve.Curve
		want []int
	}{
		"trefoil":      {torus(2, 3, 200), []int{1, -1, 1}},
		"figure-eight": {figureEight(240), []int{1, -3, 1}},
		"cinquefoil":   {torus(2, 5, 240), []int{1, -1, 1, -1, 1}},
		"torus 3, 4":   {torus(3, 4, 400), []int{1, -1, 0, 1, 0, -1, 1}},
	} {
		cs := crossings(t, k.c)
		if got := curve.AlexanderPolynomial(cs, 1); fmt.Sprint(got) != fmt.Sprint(k.want) {
			t.Errorf("%s: %v, published %v", name, got, k.want)
		}
		pd := curve.PlanarDiagram(cs, 1, true)
		seen := map[int]int{}
		for _, c := range pd {
			for _, arc := range c {
				seen[arc]++
			}
		}
		for arc, n := range seen {
			if n != 2 || arc < 0 || arc >= 2*len(cs) {
				t.Errorf("%s: arc %d stands %d times in %v", name, arc, n, pd)
			}
		}
		if regions := faces(pd); regions != len(cs)+2 {
			t.Errorf("%s: %d regions round %d crossings", name, regions, len(cs))
		}
	}
}

// faces counts the regions of a planar diagram by walking round each: at a
// crossing, turn to the next arc clockwise.
func faces(pd [][4]int) int {
	type end struct{ crossing, slot int }
	other := map[end]end{}
	at := map[int]end{}
	for c, arcs := range pd {
		for s, arc := range arcs {
			here := end{c, s}
			if there, ok := at[arc]; ok {
				other[here], other[there] = there, here
			} else {
				at[arc] = here
			}
		}
	}
	seen, n := map[end]bool{}, 0
	for e := range other {
		if seen[e] {
			continue
		}
		n++
		for !seen[e] {
			seen[e] = true
			far := other[e]
			e = end{far.crossing, (far.slot + 3) % 4}
		}
	}
	return n
}

func TestLinkingNumberSurvivesBending(t *testing.T) {
	for _, bend := range []float64{0, 0.3, -0.4} {
		var a, b curve.Curve
		a.Closed, b.Closed = true, true
		for i := range 90 {
			s, c := math.Sincos(2 * math.Pi * (float64(i) + 0.13) / 90)
			a.Points = append(a.Points, r3.Vec{X: c, Y: s, Z: 0.2*s + bend*c*s})
			b.Points = append(b.Points, r3.Vec{X: 1 + c, Y: 0.4*s + bend*c, Z: s})
		}
		l := curve.LinkingNumber(crossings(t, a, b), 0, 1)
		near(t, "|linking number|", math.Abs(l), 1, 0)
	}
}

// A newcomer's first look: how long a spline is and which strand lies over.
func Example() {
	over := curve.Curve{Points: []r3.Vec{{X: -2, Z: 1}, {X: 2, Z: 1}}}
	under := curve.Curve{Points: []r3.Vec{{Y: -2}, {Y: 2}}}
	cs, err := curve.Crossings([]curve.Curve{over, under})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Printf("%d crossing, strand %d over strand %d, %.0f long\n", len(cs), cs[0].Over, cs[0].Under, over.Length())
	// Output: 1 crossing, strand 0 over strand 1, 4 long
}

// Crossings are found in runs of edges, most of them passed by: however finely a curve is
// cut it crosses itself as often, and each of its edges as if each were looked at.
func TestCrossingsDoNotDependOnHowACurveIsCut(t *testing.T) {
	at := func(u float64) r3.Vec { // a rose that crosses itself again and again
		s, c := math.Sincos(u)
		r := 3 + 2*math.Cos(7*u/3)
		return r3.Vec{X: r * c, Y: r * s, Z: math.Sin(14 * u / 3)}
	}
	want := 0
	for i, n := range []int{211, 400, 1000, 3001} {
		var c curve.Curve
		for k := range n {
			c.Points = append(c.Points, at(6*math.Pi*float64(k)/float64(n)))
		}
		c.Closed = true
		found, err := curve.Crossings([]curve.Curve{c})
		if err != nil {
			t.Fatal(err)
		}
		if i == 0 {
			want = len(found)
		}
		if len(found) != want || want < 10 {
			t.Errorf("cut in %d: %d crossings, cut in 211 %d", n, len(found), want)
		}
		pairs := 0 // every edge against every other, by whether they lie on either side of one another
		side := func(a, b, p r3.Vec) bool { return (b.X-a.X)*(p.Y-a.Y)-(b.Y-a.Y)*(p.X-a.X) > 0 }
		for k := range n {
			a, b := c.Points[k], c.Points[(k+1)%n]
			for m := k + 2; m < n && n < 1000; m++ {
				p, q := c.Points[m], c.Points[(m+1)%n]
				if (m+1)%n != k && side(a, b, p) != side(a, b, q) && side(p, q, a) != side(p, q, b) {
					pairs++
				}
			}
		}
		if n < 1000 && pairs != len(found) {
			t.Errorf("cut in %d: %d crossings are found, %d pairs of edges cross", n, len(found), pairs)
		}
	}
}
