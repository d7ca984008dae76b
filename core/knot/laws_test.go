package knot_test

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"

	"gonum.org/v1/gonum/spatial/r3"
)

// The laws of this file hold for every knot of the catalogue, with every choice
// of its fields; none is named here. A knot that is added is under them at once.

// walked tells whether a piece walks the knot section by section, or bends what is
// tied already.
func walked(k knot.Knot) bool { return k.Tie == nil }

// side is how many strands side by side hang for a test.
func side(n int, s cord.Stuff) []knot.Strand {
	var out []knot.Strand
	d := s.DrawnUp()
	for i := range n {
		out = append(out, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: s, Figures: s.Figures(), Diameter: d, At: r3.Vec{X: (float64(i) - float64(n-1)/2) * d}, Dir: r3.Vec{Y: 1}})
	}
	return out
}

// sections are works of every knot with every choice of every field.
func sections(t *testing.T, stuff cord.Stuff, scale float64, each func(name string, w knot.Work)) {
	t.Helper()
	for _, k := range knot.All() {
		if walked(k) {
			continue
		}
		base, err := knot.New(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		variants := []knot.Section{base}
		for _, f := range k.Fields {
			var more []knot.Section
			for _, v := range variants {
				for _, c := range f.Choices {
					if now, said := v.Value(f); said && now != c && f.Default != "" {
						more = append(more, v.With(f, c))
					}
				}
				if f.Most == 3 {
					more = append(more, v.With(f, 2))
				}
			}
			variants = append(variants, more...)
			if len(variants) > 40 {
				variants = variants[:40]
			}
		}
		for _, s := range variants {
			name := k.ID
			for _, f := range k.Fields {
				v, _ := s.Value(f)
				switch v := v.(type) {
				case string:
					if v != "" && f.Kind == "choice" {
						name += " " + v
					}
				case int:
					if f.Most == 3 && f.Least == 2 {
						name += fmt.Sprint(" ", v)
					}
				case float64:
					if f.If == "" {
						s = s.With(f, v*scale)
					}
				case []string:
					s = s.With(f, []string{"A", "B"})
					if n := knot.TermsOf(s).Wants; n > 0 {
						s = s.With(f, []string{"A", "B", "C"}[:n])
					}
				}
				beads := map[string]float64{"bead.hole_mm": 12, "bead.length_mm": 10, "bead.width_mm": 15}
				if mm := beads[f.Key]; mm > 0 {
					s = s.With(f, mm*scale)
				}
			}
			terms := knot.TermsOf(s)
			if terms.Begins == knot.ForTheNext {
				continue // it hands its cords to the ball after it
			}
			for _, n := range []int{4, 6, 2, 1, 0} {
				if n > 0 != (terms.Begins == knot.OnStrands || terms.Begins == knot.BehindStrands) {
					continue
				}
				w := knot.Work{Section: s, Strands: side(n, stuff), BarMM: 2 * scale, RingMM: 16 * scale}
				cords := max(len(terms.Cords), terms.Wants)
				for c := range cords {
					for l := range max(1, terms.Legs) {
						own := side(cords*max(1, terms.Legs), stuff)[c*max(1, terms.Legs)+l]
						own.Cord, own.Leg = c, l
						w.Own = append(w.Own, own)
					}
				}
				_, err := knot.Tie(w)
				for range 3 { // by its way out, where it is refused with one
					var no *knot.Refused
					if !errors.As(err, &no) || no.Set == nil {
						break
					}
					f, ok := k.Field(no.Field)
					if !ok || f.Kind == "choice" || f.Kind == "cords" {
						break
					}
					w.Section = w.Section.With(f, no.Set)
					_, err = knot.Tie(w)
				}
				if err != nil {
					continue
				}
				each(fmt.Sprintf("%s on %d", name, n), w)
				break
			}
		}
	}
}

// ends tells whether strands end in the section's knot.
func ends(w knot.Work) bool {
	k, _ := knot.Get(w.Section.Do)
	return k.Ends
}

// legsOf is how many cords a section brings or takes up, and how many legs of each.
func legsOf(s knot.Section) (cords, legs int) {
	t := knot.TermsOf(s)
	return max(len(t.Cords), t.Wants), t.Legs
}

var rope = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, GramsPerMetre: 6.8, Colour: "#0f5c63"}

// twice is cord of twice the diameter: four times the weight a metre.
var twice = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 8, GramsPerMetre: 27.2, Colour: "#0f5c63"}

func uses(x knot.Tied) []float64 {
	var out []float64
	for _, p := range append(append([]knot.Path{}, x.Paths...), x.Own...) {
		out = append(out, use(p))
	}
	return out
}

func TestEveryKnotIsTied(t *testing.T) {
	seen := map[string]bool{}
	sections(t, rope, 1, func(_ string, w knot.Work) { seen[w.Section.Do] = true })
	for _, k := range knot.All() {
		if !seen[k.ID] && !walked(k) {
			t.Errorf("%s could not be tied on any number of strands", k.ID)
		}
	}
}

func TestEveryKnotScales(t *testing.T) {
	small := map[string]knot.Tied{}
	sections(t, rope, 1, func(name string, w knot.Work) { small[name] = tie(t, w) })
	sections(t, twice, 2, func(name string, w knot.Work) {
		if ends(w) {
			return // what a flame eats is not a share of the cord
		}
		a, b := small[name], tie(t, w)
		if math.Abs(b.Height-2*a.Height) > 1e-6*b.Height+1e-9 {
			t.Errorf("%s: %.4f mm high, of twice the cord %.4f", name, a.Height, b.Height)
		}
		if math.Abs(b.PassesMM-2*a.PassesMM) > 1e-3*b.PassesMM || math.Abs(b.StopsMM-2*a.StopsMM) > 1e-3*b.StopsMM {
			t.Errorf("%s: it stops a hole of %.3f mm and passes one of %.3f, of twice the cord %.3f and %.3f", name, a.StopsMM, a.PassesMM, b.StopsMM, b.PassesMM)
		}
		ua, ub := uses(a), uses(b)
		for i := range ua {
			if math.Abs(ub[i]-2*ua[i]) > 1e-5*ub[i]+1e-9 {
				t.Errorf("%s: strand %d takes %.4f mm, of twice the cord %.4f", name, i+1, ua[i], ub[i])
			}
		}
	})
}

// The round hole that a knot passes is as wide as its strands reach across, and by Jung's
// theorem no more than 2/sqrt(3) of that; what stops it is narrower.
func TestTheHoleThatAKnotPasses(t *testing.T) {
	n := 0
	sections(t, rope, 1, func(name string, w knot.Work) {
		x := tie(t, w)
		var all []r3.Vec
		for _, p := range append(append([]knot.Path{}, x.Paths...), x.Own...) {
			if p.More != nil {
				return // turned repeats reach farther than its points
			}
			all = append(all, p.Points...)
		}
		if !x.Loose || len(all) == 0 {
			return
		}
		n++
		across := 0.0
		for i := 0; i < len(all); i += 3 {
			for _, v := range all {
				across = math.Max(across, math.Hypot(v.X-all[i].X, v.Z-all[i].Z))
			}
		}
		d := rope.DrawnUp()
		if least, most := across+d, 1.02*2/math.Sqrt(3)*across+d; x.PassesMM < 0.99*least || x.PassesMM > most || x.StopsMM >= x.PassesMM {
			t.Errorf("%s: stops a hole of %.2f mm, passes one of %.2f; its strands reach %.2f across", name, x.StopsMM, x.PassesMM, least)
		}
	})
	if n < 30 {
		t.Errorf("only %d knots were looked at", n)
	}
}

// A row tells in which order its strands hang after each of its knots: as they do after a row of
// so many.
func TestRowsTellTheirOrders(t *testing.T) {
	const most = 8
	told := 0
	sections(t, rope, 1, func(name string, w knot.Work) {
		w.Section.Count = most
		x, err := knot.Tie(w)
		if err != nil || x.Repeats <= 1 || len(w.Strands) == 1 { // so many are not tied, or none can change
			return
		}
		if w.Section.Do == "double-diamond" { // of a pair it is all one which is counted first
			return
		}
		told++
		for repeats := 1; repeats <= x.Repeats; repeats++ {
			part := w
			part.Section.Count = repeats * max(1, x.PerRound)
			if want, got := tie(t, part).Order, x.OrderAfter(repeats); !slices.Equal(got, want) {
				t.Errorf("%s: after %d of %d the strands hang as %v, told as %v", name, repeats, x.Repeats, want, got)
			}
		}
	})
	if told < 5 {
		t.Errorf("%d knots repeat", told)
	}
}

// As many strands leave a knot as came, each at a place of its own, and every
// path begins at the top and ends at the bottom.
func TestEveryKnotHandsItsStrandsOn(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		x := tie(t, w)
		n := len(w.Strands)
		if knot.TermsOf(w.Section).Legs > 0 {
			n += len(w.Own)
		}
		if !x.Ends {
			order := slices.Clone(x.Order)
			slices.Sort(order)
			if !slices.Equal(order, identityOf(n)) {
				t.Errorf("%s: %d strands come, %v leave", name, n, x.Order)
			}
		}
		if len(x.Paths) != len(w.Strands) || len(x.Own) != len(w.Own) {
			t.Fatalf("%s: %d paths for %d strands, %d for %d of its own", name, len(x.Paths), len(w.Strands), len(x.Own), len(w.Own))
		}
		for i, p := range x.Paths {
			for k, v := range p.Points {
				if math.IsNaN(v.X + v.Y + v.Z) {
					t.Fatalf("%s: strand %d is no curve at point %d", name, i+1, k)
				}
			}
			last := p.Points[len(p.Points)-1]
			if !x.Ends && math.Abs(last.Y-x.Height) > 1.6*w.Strands[i].Diameter {
				t.Errorf("%s: strand %d ends at %.2f, the section at %.2f", name, i+1, last.Y, x.Height)
			}
			if p.Lies != nil && len(p.Lies) != len(p.Points) {
				t.Errorf("%s: strand %d has %d lies for %d points", name, i+1, len(p.Lies), len(p.Points))
			}
		}
		for _, a := range x.Moves {
			if a.Text == "" || a.Strand >= len(w.Strands)+len(w.Own) {
				t.Errorf("%s: action %+v", name, a)
			}
		}
		if len(x.Moves) == 0 {
			t.Errorf("%s: nothing is said of how it is tied", name)
		}
	})
}

// A mirror of the section, on the mirrored strands, is the mirror of the knot.
func TestEveryKnotHasItsMirror(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		if len(w.Own) > 0 {
			return // their own cords are laid one way round by every hand
		}
		k, _ := knot.Get(w.Section.Do)
		m := w
		turned := false
		for _, f := range k.Fields {
			v, _ := m.Section.Value(f)
			if side, ok := v.(string); ok && f.Sided() {
				m.Section = m.Section.With(f, knot.Opposite(side))
				turned = true
			}
		}
		if !turned {
			return
		}
		a, b := tie(t, w), tie(t, m)
		n := len(w.Strands)
		if math.Abs(a.Height-b.Height) > 1e-9 {
			t.Errorf("%s: %.3f mm high, its mirror %.3f", name, a.Height, b.Height)
		}
		for i, p := range a.Paths {
			q := b.Paths[n-1-i]
			if len(q.Points) != len(p.Points) {
				t.Errorf("%s: strand %d has %d points, in the mirror %d", name, i+1, len(p.Points), len(q.Points))
				continue
			}
			for k := range p.Points {
				u, v := p.Points[k], q.Points[k]
				if math.Abs(u.X+v.X)+math.Abs(u.Y-v.Y)+math.Abs(u.Z-v.Z) > 1e-6 {
					t.Errorf("%s: strand %d runs through %v, in the mirror through %v", name, i+1, u, v)
					break
				}
			}
			if a.Order[i] != n-1-b.Order[n-1-i] {
				t.Errorf("%s: orders %v and %v are no mirrors", name, a.Order, b.Order)
			}
		}
	})
}

// What repeats grows evenly: three take one more than two, as two take one more
// than one, unless ends differ; from two on it is exact.
func TestEveryKnotThatRepeatsAddsUp(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		if k, _ := knot.Get(w.Section.Do); !k.Repeats {
			return
		}
		if tie(t, w).Ends {
			return // none can follow
		}
		var high, cord []float64
		for n := 2; n <= 8; n += 2 {
			w.Section.Count = n
			x := tie(t, w)
			sum := 0.0
			for _, u := range uses(x) {
				sum += u
			}
			high, cord = append(high, x.Height), append(cord, sum)
		}
		for i := 2; i < len(high); i++ {
			if a, b := high[i]-high[i-1], high[i-1]-high[i-2]; math.Abs(a-b) > 1e-6 {
				t.Errorf("%s: two more make it %.4f mm longer, before that %.4f", name, a, b)
			}
			if a, b := cord[i]-cord[i-1], cord[i-1]-cord[i-2]; math.Abs(a-b) > 0.01*b+0.02 {
				t.Errorf("%s: two more take %.4f mm of cord, before that %.4f", name, a, b)
			}
		}
	})
}

// No strand passes through another, or through itself: as drawn up they touch,
// and where parts are joined they keep at least three quarters of a diameter,
// which the give of the cord takes up.
func TestNoStrandPassesThroughAnother(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		k, _ := knot.Get(w.Section.Do)
		if k.Ends || k.Bare {
			return
		}
		x := tie(t, w)
		paths := append(append([]knot.Path{}, x.Paths...), x.Own...)
		d := rope.DrawnUp()
		var cs []curve.Curve
		for _, p := range paths {
			cs = append(cs, curve.Curve{Points: p.Points})
		}
		for i := range cs {
			for j := i + 1; j < len(cs); j++ {
				a, b := i-len(x.Paths), j-len(x.Paths)
				if _, legs := legsOf(w.Section); legs > 1 && a >= 0 && a/legs == b/legs {
					continue // two legs of one cord meet at the fold, or in the ball
				}
				if knot.TermsOf(w.Section).Begins == knot.BehindStrands && a >= 0 {
					continue
				}
				if g := 1 + curve.Gap(cs[i], d, cs[j], d)/d; g < 0.8*squeezeOf(w) {
					t.Errorf("%s: strands %d and %d come within %.2f of a diameter", name, i+1, j+1, g)
				}
			}
		}
	})
}

// squeezeOf is what a row may be pressed to along its length, or a ball all over.
func squeezeOf(w knot.Work) float64 {
	if knot.TermsOf(w.Section).Wants > 0 { // on a core all of it is pressed
		return ball.Of(rope, rope.Figures()).Hard() / rope.DrawnUp()
	}
	if len(w.Strands) == 0 {
		return 1
	}
	return w.Strands[0].Stuff.Squeeze()
}

// A square knot is not a granny: the halves of the one are mirrors, and the
// signs of its crossings cancel; those of the other add up.
func TestASquareKnotIsNoGranny(t *testing.T) {
	writhe := func(do, hand string, count int) int {
		x := tie(t, knot.Work{Section: one(t, "%s %d %s=%s", do, count, map[string]string{"square-knot": "start", "half-knot": "hand"}[do], hand), Strands: side(4, rope)})
		found, err := curve.Crossings([]curve.Curve{{Points: x.Paths[0].Points}, {Points: x.Paths[3].Points}})
		if err != nil {
			t.Fatal(err)
		}
		sum := 0
		for _, c := range found {
			if c.Over != c.Under {
				sum += c.Sign
			}
		}
		return sum
	}
	for _, n := range []int{1, 3} {
		if w := writhe("square-knot", "left", n); w != 0 {
			t.Errorf("the crossings of %d square knots add up to %d", n, w)
		}
	}
	left, right := writhe("half-knot", "left", 6), writhe("half-knot", "right", 6)
	if left == 0 || left != -right {
		t.Errorf("six half knots of the left hand come to %d, of the right to %d", left, right)
	}
}
