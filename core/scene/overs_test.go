package scene_test

import (
	"math"
	"slices"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
	"nimblebight/core/scene"

	"gonum.org/v1/gonum/spatial/r3"
)

// colours that no mixing takes for one another.
var apart = []string{"#ff0000", "#00ff00", "#0000ff", "#ffff00", "#ff00ff", "#00ffff"}

// kin tells whether a painted colour is a cord's own or its darkened one.
func kin(painted, own string) bool {
	at := func(s string, i int) int {
		v := 0
		for _, ch := range s[1+2*i : 3+2*i] {
			v *= 16
			if ch >= 'a' {
				v += int(ch-'a') + 10
			} else {
				v += int(ch - '0')
			}
		}
		return v
	}
	for i := range 3 {
		if (at(painted, i) > 120) != (at(own, i) > 120) {
			return false
		}
	}
	return true
}

// What a picture shows at a crossing is the cord that lies over there, on the
// face and on the back, for every knot of the catalogue, at four sizes, and for the
// left hand at one.
func TestThePictureShowsWhatLiesOver(t *testing.T) {
	t.Parallel()
	seen := 0
	for n, k := range knot.All() {
		d, _, err := patterns.Sample(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		var stuffs []cord.Stuff
		for i := range d.Cords {
			d.Cords[i].Stuff.Colour = apart[i]
			stuffs = append(stuffs, d.Cords[i].Stuff)
		}
		for _, leftHanded := range []bool{false, true} {
			p, err := plan.Make(d, plan.Options{LeftHanded: leftHanded})
			if err != nil {
				t.Fatalf("%s: %v", k.ID, err)
			}
			l := p.Layout()
			for _, back := range []bool{false, true} {
				clear, over := crossings(t, l, stuffs, back)
				sizes := []float64{12, 40, 120, 160}
				if leftHanded {
					sizes = sizes[1:2]
				}
				for i, px := range sizes {
					if !leftHanded && scene.LeftOut(n+i, back) {
						continue
					}
					tops := bodies(t, scene.Render(l, scene.View{PerMM: px / l.Thick, Turn: turn(back)}))
					wrong := 0
					for i, x := range clear {
						if c := tops.at(100*x.X, 100*x.Y); c == "" || !kin(c, over[i]) {
							wrong++
						}
					}
					seen += len(clear) - wrong
					if wrong > 0 {
						t.Errorf("%s, left-handed %v, back %v, %g px: of %d crossings %d are not painted as they lie", k.ID, leftHanded, back, px, len(clear), wrong)
					}
				}
			}
		}
	}
	if seen < 500 {
		t.Errorf("only %d crossings were looked at", seen)
	}
}

// crossings are those of two cords that nothing else covers, with the colour of the
// cord that lies over.
func crossings(t *testing.T, l plan.Layout, stuffs []cord.Stuff, back bool) (clear []curve.Crossing, over []string) {
	t.Helper()
	var cs []curve.Curve
	var of []int
	for _, s := range l.Strands {
		c := curve.Curve{Points: s.Points}
		if slices.ContainsFunc(cs, func(o curve.Curve) bool { return r3.Norm(r3.Sub(front(o.Points[0], back), c.Points[0])) < 1e-9 }) {
			c.Points = c.Points[1:] // two that are fused meet at their joint
		}
		if back {
			c = c.Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: v.Y, Z: -v.Z} })
		}
		cs, of = append(cs, c), append(of, s.Cord)
	}
	found, err := curve.Crossings(cs)
	if err != nil {
		t.Fatal(err)
	}
	for _, x := range found {
		if of[x.Over] != of[x.Under] && !covered(cs, stuffs, of, x) && !inBead(l, x, back) {
			clear, over = append(clear, x), append(over, stuffs[of[x.Over]].Colour)
		}
	}
	return clear, over
}

// front is a point of a curve that is seen from the back, or from the face, as it lies.
func front(v r3.Vec, back bool) r3.Vec {
	if back {
		v.X, v.Z = -v.X, -v.Z
	}
	return v
}

// covered tells whether a third strand, or another part of these, lies nearer
// to the eye over a crossing.
func covered(cs []curve.Curve, stuffs []cord.Stuff, of []int, x curve.Crossing) bool {
	at := func(c curve.Curve, way float64) r3.Vec {
		i := min(int(way), len(c.Points)-2)
		return curve.Lerp(c.Points[i], c.Points[i+1], way-float64(i))
	}
	over := at(cs[x.Over], x.OverAt)
	under := at(cs[x.Under], x.UnderAt)
	if over.Z-under.Z < 0.5*stuffs[of[x.Over]].DrawnUp() {
		return true // they pass beside each other rather than over
	}
	for i, c := range cs {
		r := stuffs[of[i]].DrawnUp() // soft cord spreads up to its neighbours
		for k := 1; k < len(c.Points); k++ {
			a, b := c.Points[k-1], c.Points[k]
			if i == x.Over && math.Abs(float64(k)-x.OverAt) < 3 {
				continue
			}
			if far := 1 + r; min(a.X, b.X)-x.X > far || x.X-max(a.X, b.X) > far || min(a.Y, b.Y)-x.Y > far || x.Y-max(a.Y, b.Y) > far {
				continue
			}
			d, u, _ := curve.SegmentDistance(r3.Vec{X: a.X, Y: a.Y}, r3.Vec{X: b.X, Y: b.Y}, r3.Vec{X: x.X, Y: x.Y}, r3.Vec{X: x.X, Y: x.Y})
			z := curve.Lerp(a, b, u).Z - over.Z
			if d < 0.75*r && z > -0.2*r || d < r && z > 0.5*r {
				return true
			}
		}
	}
	return false
}

func inBead(l plan.Layout, x curve.Crossing, back bool) bool {
	for _, b := range l.Beads {
		at := b.At.X
		if back {
			at = -at
		}
		if math.Abs(x.Y-b.At.Y) < b.LengthMM && math.Abs(x.X-at) < b.WidthMM {
			return true
		}
	}
	return false
}

type body struct {
	x0, y0, x1, y1 float64 // its frame
	colour         string
	pts            [][][2]float64 // all outlines of a layer
}

type painting []body

// bodies are the filled outlines of a picture in the order they are painted.
func bodies(t *testing.T, p scene.Picture) painting {
	var out painting
	eachLayer(p, func(l scene.Layer, y, from, to, per int) {
		if l.Kind != scene.Body && l.Kind != scene.Lit {
			return
		}
		all := outlines(l, per)
		for _, pts := range all {
			for i := range pts {
				pts[i][1] += float64(y)
			}
		}
		b := body{math.Inf(1), math.Inf(1), math.Inf(-1), math.Inf(-1), painted(p, l), all}
		for _, pts := range all {
			for _, v := range pts {
				b.x0, b.x1 = math.Min(b.x0, v[0]), math.Max(b.x1, v[0])
				b.y0, b.y1 = math.Min(b.y0, v[1]), math.Max(b.y1, v[1])
			}
		}
		b.y0, b.y1 = math.Max(b.y0, float64(from)), math.Min(b.y1, float64(to))
		out = append(out, b)
	})
	return out
}

// at is the colour seen at a place, hundredths of a millimetre.
func (p painting) at(x, y float64) string {
	for i := len(p) - 1; i >= 0; i-- {
		b := &p[i]
		if x < b.x0 || x > b.x1 || y < b.y0 || y > b.y1 {
			continue
		}
		n := 0
		for _, pts := range b.pts {
			n += winding(pts, x, y)
		}
		if n != 0 {
			return b.colour
		}
	}
	return ""
}
