package knot_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/fist"
	"nimblebight/core/knot"
)

// The laws of this file hold for every knot of the catalogue, with every choice
// of its fields; none is named here. A knot that is added is under them at once.

// whole are the ids that package plan ties section by section.
var whole = []string{"repeat", "rows", "fold-back"}

// side is how many strands side by side hang for a test.
func side(n int, s cord.Stuff) []knot.Lead {
	var out []knot.Lead
	d := s.DrawnUp()
	for i := range n {
		out = append(out, knot.Lead{Cord: i / 2, Leg: i % 2, Stuff: s, Diameter: d, At: knot.Vec{X: (float64(i) - float64(n-1)/2) * d}, Dir: knot.Vec{Y: 1}})
	}
	return out
}

// sections are works of every knot with every choice of every field.
func sections(t *testing.T, stuff cord.Stuff, scale float64, each func(name string, w knot.Work)) {
	t.Helper()
	for _, k := range knot.All() {
		if slices.Contains(whole, k.ID) {
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
					q := v
					if p, ok := q.At(f.Key).(*string); ok && c != *p {
						*p = c
						more = append(more, q)
					}
				}
				if f.Most == 3 {
					q := v
					*q.At(f.Key).(*int) = 2
					more = append(more, q)
				}
			}
			variants = append(variants, more...)
			if len(variants) > 40 {
				variants = variants[:40]
			}
		}
		for _, s := range variants {
			if s.Hitch == "from-knot" {
				continue // it hands its cords to the ball after it
			}
			if s.Hitch == "laid-behind" {
				s.Cords = []string{"Z"}
			} else if s.Do == "mount" {
				s.Cords = []string{"A", "B"}
			}
			if s.Inside == "bead" || s.Do == "bead" {
				s.Bead = &knot.Bead{HoleMM: 12 * scale, LengthMM: 10 * scale, WidthMM: 15 * scale}
			}
			s.LengthMM, s.GapMM = s.LengthMM*scale, s.GapMM*scale
			if s.Do == "gap" {
				s.LengthMM = 12 * scale
			}
			name := k.ID
			for _, f := range k.Fields {
				if p, ok := s.At(f.Key).(*string); ok && s.Has(f.Key) && *p != "" && f.Kind == "choice" {
					name += " " + *p
				}
			}
			if s.Squares > 0 {
				name += fmt.Sprint(" ", s.Squares)
			}
			for _, n := range []int{4, 6, 2, 1, 0} {
				w := knot.Work{Section: s, Leads: side(n, stuff), BarMM: 2 * scale, RingMM: 16 * scale}
				if len(s.Cords) > 0 {
					w.Own = side(2*len(s.Cords), stuff)
				} else if s.Do == "gather" {
					w.Own = side(1, stuff)
				} else if cords, legs := knot.BallLegs(s); cords > 0 {
					if n > 0 {
						continue
					}
					for c := range cords {
						for l := range legs {
							w.Own = append(w.Own, knot.Lead{Cord: c, Leg: l, Stuff: stuff, Diameter: stuff.DrawnUp(), Dir: knot.Vec{Y: 1}})
						}
					}
				}
				if s.Do == "mount" && (n == 0) == (s.Hitch == "laid-behind") {
					continue
				}
				if _, err := knot.Tie(w); err != nil {
					continue
				}
				each(fmt.Sprintf("%s on %d", name, n), w)
				break
			}
		}
	}
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
		if !seen[k.ID] && !slices.Contains(whole, k.ID) {
			t.Errorf("%s could not be tied on any number of strands", k.ID)
		}
	}
}

func TestEveryKnotScales(t *testing.T) {
	small := map[string]knot.Tied{}
	sections(t, rope, 1, func(name string, w knot.Work) { small[name] = tie(t, w) })
	sections(t, twice, 2, func(name string, w knot.Work) {
		if w.Section.Do == "finish" {
			return // what a flame eats is not a share of the cord
		}
		a, b := small[name], tie(t, w)
		if math.Abs(b.Height-2*a.Height) > 1e-6*b.Height+1e-9 {
			t.Errorf("%s: %.4f mm high, of twice the cord %.4f", name, a.Height, b.Height)
		}
		ua, ub := uses(a), uses(b)
		for i := range ua {
			if math.Abs(ub[i]-2*ua[i]) > 1e-5*ub[i]+1e-9 {
				t.Errorf("%s: strand %d takes %.4f mm, of twice the cord %.4f", name, i+1, ua[i], ub[i])
			}
		}
	})
}

// As many strands leave a knot as came, each at a place of its own, and every
// path begins at the top and ends at the bottom.
func TestEveryKnotHandsItsStrandsOn(t *testing.T) {
	sections(t, rope, 1, func(name string, w knot.Work) {
		x := tie(t, w)
		n := len(w.Leads)
		if cords, _ := knot.BallLegs(w.Section); w.Section.Do == "mount" || cords > 0 {
			n += len(w.Own)
		}
		if !x.Ends {
			order := slices.Clone(x.Order)
			slices.Sort(order)
			if !slices.Equal(order, identityOf(n)) {
				t.Errorf("%s: %d strands come, %v leave", name, n, x.Order)
			}
		}
		if len(x.Paths) != len(w.Leads) || len(x.Own) != len(w.Own) {
			t.Fatalf("%s: %d paths for %d strands, %d for %d of its own", name, len(x.Paths), len(w.Leads), len(x.Own), len(w.Own))
		}
		for i, p := range x.Paths {
			for k, v := range p.Points {
				if math.IsNaN(v.X + v.Y + v.Z) {
					t.Fatalf("%s: strand %d is no curve at point %d", name, i+1, k)
				}
			}
			last := p.Points[len(p.Points)-1]
			if !x.Ends && math.Abs(last.Y-x.Height) > 1.6*w.Leads[i].Diameter {
				t.Errorf("%s: strand %d ends at %.2f, the section at %.2f", name, i+1, last.Y, x.Height)
			}
			if p.Lies != nil && len(p.Lies) != len(p.Points) {
				t.Errorf("%s: strand %d has %d lies for %d points", name, i+1, len(p.Lies), len(p.Points))
			}
		}
		for _, a := range x.Actions {
			if a.Text == "" || a.Moves >= len(w.Leads)+len(w.Own) {
				t.Errorf("%s: action %+v", name, a)
			}
		}
		if len(x.Actions) == 0 {
			t.Errorf("%s: nothing is said of how it is tied", name)
		}
	})
}

// A mirror of the section, on the mirrored strands, is the mirror of the knot.
func TestEveryKnotHasItsMirror(t *testing.T) {
	swap := map[string]string{"left": "right", "right": "left"}
	sections(t, rope, 1, func(name string, w knot.Work) {
		if w.Section.Do == "mount" || w.Section.Do == "gather" {
			return // their own cords are laid one way round by every hand
		}
		k, _ := knot.Get(w.Section.Do)
		m := w
		turned := false
		for _, f := range k.Fields {
			v, ok := m.Section.At(f.Key).(*string)
			if !ok || !m.Section.Has(f.Key) {
				continue
			}
			if o, ok := swap[*v]; ok {
				*v = o
				turned = true
			}
		}
		if !turned {
			return
		}
		a, b := tie(t, w), tie(t, m)
		n := len(w.Leads)
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
		if w.Section.Do == "finish" || w.Section.Do == "gap" {
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
				if w.Section.Do == "mount" && w.Section.Hitch != "laid-behind" && i/2 == j/2 {
					continue // the two legs of one cord meet at the fold
				}
				if _, legs := knot.BallLegs(w.Section); legs > 1 && i/legs == j/legs {
					continue // they are one way through the ball
				}
				if w.Section.Hitch == "laid-behind" && i >= len(x.Paths) {
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
	if cords, _ := knot.BallLegs(w.Section); cords > 0 { // on a core all of it is pressed
		return fist.Of(rope).Hard() / rope.DrawnUp()
	}
	if len(w.Leads) == 0 {
		return 1
	}
	return w.Leads[0].Stuff.Squeeze()
}

// A square knot is not a granny: the halves of the one are mirrors, and the
// signs of its crossings cancel; those of the other add up.
func TestASquareKnotIsNoGranny(t *testing.T) {
	writhe := func(do, hand string, count int) int {
		x := tie(t, knot.Work{Section: knot.Section{Do: do, Count: count, Start: hand, Hand: hand}, Leads: side(4, rope)})
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
