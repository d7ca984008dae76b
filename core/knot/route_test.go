package knot_test

import (
	rows "nimblebight/core/knots/row"
	"nimblebight/core/shapes"

	"context"
	"fmt"
	"math"
	"os"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// allShapes is set to draw up all that takes long, too.
var allShapes = os.Getenv("BIGHT_ALL_SHAPES") != ""

// drawnUp is a route as it is drawn up, and whether it was just now. What is embedded was drawn up
// from this very route by this solver, as its fingerprint tells, and is taken as it is: other tests
// draw some of that up again.
func drawnUp(t *testing.T, r knot.Route, fine bool) (got tighten.Result, now bool) {
	t.Helper()
	p, set := r.Problem(), r.Settings(fine)
	made := tighten.Fingerprint(p, set)
	for _, f := range shapes.Families() {
		for _, s := range f.Embedded() {
			if s.Made != made || allShapes {
				continue
			}
			out := tighten.Result{Gap: s.Gap}
			if p.Cell != nil {
				out.Cell = *p.Cell
				out.Cell.Pitch, out.Cell.Twist = s.Pitch, s.Twist
			}
			for i, pts := range s.Strands {
				out.Strands = append(out.Strands, curve.Curve{Points: pts})
				if p.Cell != nil { // on to where the next repeat begins
					pts = append(slices.Clone(pts), tighten.Image(out.Cell, 1, s.Strands[p.Strands[i].Next][0]))
				}
				out.Length += curve.Spline(pts, false).Length() // along its arcs, as the solver measures
			}
			return out, false
		}
	}
	got, err := r.DrawUp(context.Background(), set)
	if err != nil {
		t.Fatal(err)
	}
	return got, true
}

// Every route, drawn up, comes to what is published of it; its strands just
// touch, and while it is drawn up here none comes so near another that it could have passed
// through.
func TestRoutesAgainstPublishedFigures(t *testing.T) {
	for _, r := range knot.Routes() {
		for _, fine := range []bool{false, true} {
			// What is fine takes a minute; the trefoil stands for the others
			// unless all are asked for.
			if fine && (!r.Closed || r.Name != "trefoil" && !allShapes) {
				continue
			}
			t.Run(fmt.Sprint(r.Name, map[bool]string{true: " fine"}[fine]), func(t *testing.T) {
				t.Parallel()
				got, now := drawnUp(t, r, fine)
				share := r.Share
				if fine {
					share = 0.003
				}
				m := r.Measure(got)
				near(t, r.Of, m, r.Published, share)
				if r.Closed && m < 0.9995*r.Published {
					t.Errorf("length %.4f is below the published least of %.4f", m, r.Published)
				}
				if r.Height > 0 {
					near(t, "height", got.Cell.Pitch, r.Height, 0.015)
				}
				if got.Gap < 0.997 || got.Gap > 1.003 || now && got.Least < 0.5 {
					t.Errorf("least gap %.4f, on the way %.2f", got.Gap, got.Least)
				}
				crossings, determinant, err := r.Told(got)
				if err != nil {
					t.Fatal(err)
				}
				if r.Determinant != 0 && determinant != r.Determinant {
					t.Errorf("determinant %d, it is %d", determinant, r.Determinant)
				}
				if r.Closed && crossings < r.Crossings {
					t.Errorf("%d crossings, the knot has at least %d", crossings, r.Crossings)
				}
			})
		}
	}
}

// The open stoppers are what they say: with their ends joined outside, a
// trefoil and a figure-eight, before and after.
func TestStoppersAreTheKnotsTheySay(t *testing.T) {
	for _, r := range knot.Routes() {
		want, ok := map[string][2]int{"overhand": {3, 3}, "figure-eight-stopper": {4, 5}}[r.Name]
		if !ok {
			continue
		}
		start := tighten.Result{Strands: []curve.Curve{curve.Spline(r.Problem().Strands[0].Route, false)}}
		crossings, determinant, err := r.Told(start)
		if err != nil || crossings != want[0] || determinant != want[1] {
			t.Errorf("%s as written: %d crossings, determinant %d, %v; want %v", r.Name, crossings, determinant, err, want)
		}
	}
}

// Rows between the embedded ones are within one per cent of rows drawn up for
// themselves, those of workers of two thicknesses within four, and their strands
// come no nearer than five per cent; of workers up to a half thicker than the
// other, sixteen, and up to twice, twenty, which is the floor. Under that a near row
// stands for it till its own is drawn up, and takes no less cord.
func TestRowsBetweenEmbeddedOnes(t *testing.T) {
	for _, c := range []struct {
		second  float64
		fillers []float64
	}{
		{1, []float64{1.22}}, {1, []float64{0.48, 0.48}}, {1, []float64{0.88, 0.88, 0.88}}, {1, []float64{1.6, 1.6}},
		{1, []float64{1.1, 1.1, 1.1, 1.1, 1.1}}, {1, []float64{1, 0.7}}, {1, []float64{3, 3}},
		{0.65, []float64{1, 1}}, {1.55, []float64{1, 0.8}}, {0.5, []float64{0.6}}, {2.1, []float64{1.5, 1.5, 1.5}}, {1.33, []float64{1, 1}}, {0.75, []float64{0.5, 0.5}}, {1.15, []float64{1, 1}}, {0.9, []float64{0.8, 0.8}},
	} {
		ratios := c.fillers
		t.Run(fmt.Sprint(c), func(t *testing.T) {
			t.Parallel()
			strands := hang(cordOf)
			for _, r := range ratios {
				strands = append(strands, hang(scaled(cordOf, r))...)
			}
			strands = append(strands, hang(scaled(cordOf, c.second))...)
			a, b := row(t, "square-knot", 1, "left", strands), row(t, "square-knot", 3, "left", strands)
			last := len(a.Paths) - 1
			pitch := (b.Height - a.Height) / 4
			per := (use(b.Paths[0]) - use(a.Paths[0]) + use(b.Paths[last]) - use(a.Paths[last])) / 8
			within := 1.0
			if c.second != 1 {
				within = 4
			}
			drawn, err := shapes.DrawUp(t.Context(), rows.Flat(c.second, ratios), tighten.Settings{})
			if err != nil {
				t.Fatal(err)
			}
			want := 0.0
			for _, s := range drawn.Strands {
				want += curve.Curve{Points: s}.Length() / 2
			}
			// The seam to the next half knot is not in the strands.
			seam := 0.0
			for i, s := range drawn.Strands {
				first := tighten.Image(tighten.Cell{Pitch: drawn.Pitch, Mirror: true}, 1, s[0])
				seam += curve.Curve{Points: []r3.Vec{drawn.Strands[i][len(s)-1], first}}.Length() / 2
			}
			if b.Rough != nil { // a near row that takes no less cord stands for it
				if over := per/(want+seam) - 1; over < -0.005 || over > 0.1 {
					t.Errorf("roughly it uses %.3f, drawn up %.3f", per, want+seam)
				}
				return
			}
			near(t, "height", pitch, drawn.Pitch, 0.01*within)
			near(t, "use", per, want+seam, 0.01*within)
			worst := math.Inf(1)
			n := len(b.Paths)
			for i := range b.Paths {
				for j := i + 1; j < n; j++ {
					if i > 0 && j < n-1 {
						continue // fillers lie side by side
					}
					reach := (strands[i].Diameter + strands[j].Diameter) / 2
					worst = math.Min(worst, 1+curve.Gap(curve.Curve{Points: b.Paths[i].Points}, strands[i].Diameter, curve.Curve{Points: b.Paths[j].Points}, strands[j].Diameter)/reach)
				}
			}
			least := 0.95
			switch ratio := math.Max(c.second, 1/c.second); {
			case ratio > 1.6:
				least = shapes.Floor
			case ratio > 1:
				least = 0.84
			}
			if worst < least {
				t.Errorf("strands come within %.3f of touching", worst)
			}
		})
	}
}

// BenchmarkRow ties a row of a size that was not met before.
func BenchmarkRow(b *testing.B) {
	n := 0
	for b.Loop() {
		n++
		f := scaled(cordOf, 0.6+1e-6*float64(n))
		if _, err := knot.Tie(knot.Work{Section: knot.Section{Do: "square-knot", Count: 10}, Strands: hang(cordOf, f, f, cordOf)}); err != nil {
			b.Fatal(err)
		}
	}
}

// What cannot be a knot is refused by name and place, before anything is drawn.
func TestBadRoutesAreRefused(t *testing.T) {
	line := func(y, z float64) []r3.Vec {
		return []r3.Vec{{X: -4, Y: y, Z: z}, {Y: y, Z: z}, {X: 4, Y: y, Z: z}}
	}
	across := []r3.Vec{{Y: -4}, {}, {Y: 4}}
	cell := &tighten.Cell{Pitch: 3}
	for _, c := range []struct {
		what, says string
		p          tighten.Problem
	}{
		{"ends that do not meet", "strand 1 ends 8.0 diameters away", tighten.Problem{Cell: cell, Strands: []tighten.Strand{{Route: []r3.Vec{{}, {X: 4, Y: 1}, {X: 8, Y: 3}}, Diameter: 1}}}},
		{"a strand that is not there", "goes on as strand 5", tighten.Problem{Cell: cell, Strands: []tighten.Strand{{Route: across, Diameter: 1, Next: 4}}}},
		{"strands that coincide", "strands 1 and 2 meet near point 1", tighten.Problem{Strands: []tighten.Strand{{Route: line(0, 0), Diameter: 1}, {Route: line(0.02, 0), Diameter: 1}}}},
		{"a crossing that is neither over nor under", "lead one over", tighten.Problem{Strands: []tighten.Strand{{Route: line(0, 0), Diameter: 1}, {Route: across, Diameter: 1}}}},
	} {
		r := knot.Route{Name: "a slip of the pen", Problem: func() tighten.Problem { return c.p }}
		_, err := r.DrawUp(context.Background(), tighten.Settings{})
		if err == nil || !strings.Contains(err.Error(), "a slip of the pen") || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v", c.what, err)
		}
	}
	good := tighten.Problem{Strands: []tighten.Strand{{Route: line(0, 1), Diameter: 1}, {Route: across, Diameter: 1}}}
	if err := knot.CheckRoute(good); err != nil {
		t.Errorf("one over one under: %v", err)
	}
}

// Each route drawn up as bight tighten does by default.
func BenchmarkRoutes(b *testing.B) {
	for _, r := range knot.Routes() {
		b.Run(r.Name, func(b *testing.B) {
			for b.Loop() {
				if _, err := r.DrawUp(context.Background(), r.Settings(false)); err != nil {
					b.Fatal(err)
				}
			}
		})
	}
}
