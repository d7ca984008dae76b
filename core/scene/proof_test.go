package scene

import (
	"fmt"
	"math"
	"os"
	"slices"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/trace"
)

// traces are the borders of all plates of a layout.
func traces(t testing.TB, l plan.Layout, v View, look func(t *tile, c *traced)) {
	t.Helper()
	tiles := cut(l, v)
	fill(tiles, l)
	for _, tl := range tiles {
		if c := tl.canvas(l, v); len(c.tubes) > 0 {
			if d := c.trace(); d != nil {
				look(tl, d)
				d.raster.free()
			}
		}
	}
}

func sampled(t testing.TB, id string) plan.Layout {
	t.Helper()
	d, _, err := patterns.Sample(id)
	if err != nil {
		t.Fatal(err)
	}
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return p.Layout()
}

// Of a knot in hand that is looked at from its end nothing is cut out: each strand of it is one piece
// from where it comes in to where it hangs, loose and drawn up.
func TestAKnotInHandIsSeenWholeFromTheEnd(t *testing.T) {
	for _, id := range []string{"double-diamond", "two-strand-diamond", "multi-strand-diamond"} {
		d, at, err := patterns.Sample(id)
		if err != nil {
			t.Fatal(err)
		}
		whole, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		moves := 0
		for _, s := range whole.Steps {
			moves += s.Repeats * len(s.Actions)
		}
		seen := 0
		for until := 1; until <= moves; until++ {
			p, err := plan.Make(d, plan.Options{Until: until, Along: 0.5})
			if err != nil {
				t.Fatal(err)
			}
			l := p.Look()
			if at >= len(l.Sections) || len(l.Moving) == 0 {
				continue
			}
			runs := len(sectionRuns(l, at))
			if got := len(lookUpAt(l, at).runs); got > runs {
				t.Errorf("%s, move %d: %d strands are seen in %d pieces", id, until, runs, got)
			}
			seen++
		}
		if seen < 3 {
			t.Errorf("%s: only %d moves were looked at", id, seen)
		}
	}
}

// LeftOut tells whether a picture of a test is left out, by its number and its side: of two
// sizes that follow one another each side has one, and the next knot the others. All are drawn
// where BIGHT_ALL_SHAPES is set.
func LeftOut(n int, back bool) bool {
	return os.Getenv("BIGHT_ALL_SHAPES") == "" && (n%2 == 1) == back
}

// Proof without eyes, for every knot, face and back, at four sizes: no ink ends
// open, every outline is closed, a region is as large as its pixels, regions fill
// their common outline, and corners are few.
func TestEveryRegionIsClosed(t *testing.T) {
	t.Parallel()
	for n, k := range knot.All() {
		l := sampled(t, k.ID)
		for i, px := range []float64{12, 40, 120, 160} {
			for _, turn := range []float64{0, 180} {
				if LeftOut(n+i, turn == 180) {
					continue
				}
				regions, corners, open, ends := 0, 0, 0, 0
				offs, all := 0.0, 0.0
				traces(t, l, View{Turn: turn, PerMM: px / l.Thick}, func(_ *tile, d *traced) {
					for _, n := range d.Nodes {
						ends++
						if n.Degree() < 2 {
							open++
						}
					}
					pixels, border := map[int32]float64{}, map[int32]float64{}
					for i := d.from * d.wide; i < d.to*d.wide; i++ {
						r := d.region[i]
						if r < 0 {
							continue
						}
						pixels[r]++
						for _, j := range [4]int{i - 1, i + 1, i - d.wide, i + d.wide} {
							if j < 0 || j >= len(d.region) || d.region[j] != r {
								border[r]++
							}
						}
					}
					for i := range d.Chains {
						if c := &d.Chains[i]; !c.Framed() {
							corners += len(c.Corners)
						}
					}
					area := func(wanted func(r int32) bool) float64 {
						sum := 0.0
						for _, s := range d.Outline(wanted) {
							p := d.Path(s)
							if len(p.Curve) == 0 || p.Curve[len(p.Curve)-1].End.To(p.Start) > 1e-6 {
								t.Errorf("%s at %g px, turned by %g: an outline is open", k.ID, px, turn)
							}
							sum -= p.Area()
						}
						return sum
					}
					sum := 0.0
					for r, n := range pixels {
						regions++
						a := area(func(q int32) bool { return q == r })
						sum += a
						// Where an edge runs along the pixels their count may be half of one
						// off all along it.
						off := math.Abs(a - n)
						if n > 0.2*d.w2() && off > math.Max(0.05*n, 0.5*border[r]) {
							t.Errorf("%s at %g px, turned by %g: a region of %g pixels is drawn over %.0f", k.ID, px, turn, n, a)
						}
						offs, all = offs+off, all+n
					}
					if whole := area(func(int32) bool { return true }); math.Abs(whole-sum) > 1e-6*(1+whole) {
						t.Errorf("%s at %g px, turned by %g: the regions cover %.1f, their outline %.1f", k.ID, px, turn, sum, whole)
					}
				})
				if offs > 0.02*all {
					t.Errorf("%s at %g px, turned by %g: regions are %.1f %% off their pixels", k.ID, px, turn, 100*offs/all)
				}
				if open > 0 {
					t.Errorf("%s at %g px, turned by %g: %d of %d ends of ink are open", k.ID, px, turn, open, ends)
				}
				if 2*corners > regions {
					t.Errorf("%s at %g px, turned by %g: %d corners on %d regions", k.ID, px, turn, corners, regions)
				}
			}
		}
	}
}

// w2 is a square diameter, pixels.
func (d *traced) w2() float64 { return d.writer.d * d.writer.d }

// The bars of a row of one colour are regions of their own: two a square knot.
func TestBarsOfOneColourArePartedAndCounted(t *testing.T) {
	for _, knots := range []int{3, 6} {
		d := notation.With(piece.Begin("bars", "charm", piece.SplitRing(30, 2), 0), fmt.Sprintf("mount A B, square-knot %d, finish dome", knots),
			piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, "#b4532a")}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, "#b4532a")})
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		l := p.Layout()
		v := View{PerMM: 40 / l.Thick}
		top, bottom := p.Sections[1].TopMM, p.Sections[1].TopMM+p.Sections[1].HeightMM
		// A bar covers the axis between the fillers over about a diameter of height.
		var bars []float64
		traces(t, l, v, func(tl *tile, d *traced) {
			seen := map[int32][2]float64{}
			wide := map[int32]int{} // a bar reaches over both fillers
			for y := d.from; y < d.to; y++ {
				at := tl.y0 + d.y0 + (float64(y)+0.5)/d.raster.per
				x := int(-d.x0 * d.raster.per)
				n := map[int32]int{}
				for _, r := range d.region[y*d.wide : (y+1)*d.wide] {
					n[r]++
					wide[r] = max(wide[r], n[r])
				}
				if r := d.region[y*d.wide+x]; r >= 0 && at >= math.Max(top, tl.y0) && at < math.Min(bottom, tl.y1) {
					s, ok := seen[r]
					if !ok {
						s[0] = at
					}
					s[1] = at
					seen[r] = s
				}
			}
			for r, s := range seen {
				if s[1]-s[0] > 0.45*l.Thick && float64(wide[r]) > 2*d.writer.d {
					bars = append(bars, (s[0]+s[1])/2)
				}
			}
		})
		slices.Sort(bars)
		whole := 0
		for i, y := range bars {
			if i == 0 || y-bars[i-1] > 0.5*l.Thick { // one that two plates share is one
				whole++
			}
		}
		if whole != 2*knots {
			t.Errorf("%d square knots show %d bars", knots, whole)
		}
	}
}

// Where two plates meet, the edges that cross the cut lie in both at the same place.
func TestPlatesMeet(t *testing.T) {
	for _, px := range []float64{40, 120} {
		for _, id := range []string{"square-knot", "half-knot", "snake-knot", "crown", "chain-sinnet"} {
			l := sampled(t, id)
			v := View{PerMM: px / l.Thick}
			type edge struct{ y, x float64 }
			var above, below []edge
			traces(t, l, v, func(tl *tile, d *traced) {
				find := func(y, flattest float64) []edge {
					var out []edge
					row := math.Round(d.shared.row((y - d.y0) * d.raster.per))
					for i := range d.Chains {
						c := &d.Chains[i]
						if c.Framed() {
							continue
						}
						pts := trace.Path{Start: c.Start, Curve: c.Curve}.Flat(12)
						for n := 1; n < len(pts); n++ {
							a, b := pts[n-1], pts[n]
							steep := math.Abs(b.X-a.X) < flattest*math.Abs(b.Y-a.Y) // a flat edge says little
							if (a.Y < row) != (b.Y < row) && steep {
								x := a.X + (b.X-a.X)*(row-a.Y)/(b.Y-a.Y)
								out = append(out, edge{tl.y0 + y, (d.x0 + x/d.raster.per) * v.PerMM})
							}
						}
					}
					return out
				}
				if !tl.last {
					above = append(above, find(tl.y1-tl.y0, 1)...)
				}
				if !tl.first {
					below = append(below, find(0, 4)...)
				}
			})
			worst, missing := 0.0, 0
			for _, a := range above {
				near := math.Inf(1)
				for _, b := range below {
					if math.Abs(a.y-b.y) < 1e-6 {
						near = math.Min(near, math.Abs(a.x-b.x))
					}
				}
				if near > 2 {
					missing++
				} else {
					worst = math.Max(worst, near)
				}
			}
			t.Logf("%s at %g px: %d edges cross the cuts, the farthest step is %.3f px", id, px, len(above), worst)
			if worst > 0.15 || missing > 0 || len(above) == 0 {
				t.Errorf("%s at %g px: of %d edges %d do not go on, the farthest step is %.2f px", id, px, len(above), missing, worst)
			}
		}
	}
}
