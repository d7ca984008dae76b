package knot_test

import (
	"fmt"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/notation"

	"gonum.org/v1/gonum/spatial/r3"
)

var cordOf = cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 1 / 0.95, Colour: "#000000"} // draws up to 1, unpressed

func scaled(s cord.Stuff, k float64) cord.Stuff { s.DiameterMM *= k; return s }

// hang gives strands of the stuffs side by side.
func hang(stuffs ...cord.Stuff) []knot.Strand {
	var out []knot.Strand
	for i, s := range stuffs {
		out = append(out, knot.Strand{Cord: i, Stuff: s, Figures: s.Figures(), Diameter: s.DrawnUp(), At: r3.Vec{X: float64(i) - float64(len(stuffs)-1)/2}, Dir: r3.Vec{Y: 1}})
	}
	return out
}

func tie(t *testing.T, w knot.Work) knot.Tied {
	t.Helper()
	got, err := knot.Tie(w)
	if err != nil {
		t.Fatal(err)
	}
	return got
}

// one is a section as it is typed.
func one(t testing.TB, line string, args ...any) knot.Section {
	t.Helper()
	seq, err := notation.Parse(fmt.Sprintf(line, args...))
	if err != nil || len(seq) != 1 {
		t.Fatalf("%s: %v", fmt.Sprintf(line, args...), err)
	}
	return seq[0]
}

func row(t *testing.T, do string, count int, start string, strands []knot.Strand) knot.Tied {
	t.Helper()
	side := "start"
	if do == "half-knot" {
		side = "hand"
	}
	return tie(t, knot.Work{Section: one(t, "%s %d %s=%s", do, count, side, start), Strands: strands})
}

// said is what a section's move says.
func said(x knot.Tied, i int) string { return x.Moves[i].Say(move.Names{}).Text }

func use(p knot.Path) float64 { return curve.Curve{Points: p.Points}.Length() }

func near(t *testing.T, what string, got, want, share float64) {
	t.Helper()
	if !(math.Abs(got-want) <= share*math.Abs(want)) {
		t.Errorf("%s is %.3f, want %.3f within %.1f %%", what, got, want, 100*share)
	}
}

// A half knot of hard ideal rope over n flat fillers takes 6.65 + 0.96 n
// diameters of each worker and stands 2.00 high.
func TestSquareKnotsAgainstIdealRope(t *testing.T) {
	for n := 1; n <= 8; n++ {
		stuffs := make([]cord.Stuff, n+2)
		for i := range stuffs {
			stuffs[i] = cordOf
		}
		one := row(t, "square-knot", 1, "left", hang(stuffs...))
		two := row(t, "square-knot", 2, "left", hang(stuffs...))
		near(t, fmt.Sprintf("a half knot's use over %d", n), (use(two.Paths[0])-use(one.Paths[0]))/2, 6.65+0.96*float64(n), 0.01)
		near(t, "its height", (two.Height-one.Height)/2, 2, 0.01)
	}
}

// A half knot of a spiral over two fillers takes 8.33 and stands 1.76 high,
// turning 39 degrees.
func TestSpiralAgainstIdealRope(t *testing.T) {
	strands := hang(cordOf, cordOf, cordOf, cordOf)
	a, b := row(t, "half-knot", 20, "left", strands), row(t, "half-knot", 40, "left", strands)
	near(t, "use", (use(b.Paths[0])-use(a.Paths[0]))/20, 8.33, 0.01)
	near(t, "height", (b.Height-a.Height)/20, 1.76, 0.01)
	turned := (b.Turned - a.Turned) / 20 * 180 / math.Pi
	whole := math.Mod(turned+9*40, 9) // what is left of it modulo half turns in twenty
	near(t, "turn, less half turns", whole, math.Mod(39.4+9*40, 9), 0.2)
}

func TestUseGrowsLinearlyWithCount(t *testing.T) {
	strands := hang(cordOf, scaled(cordOf, 1.2), cordOf, cordOf)
	for _, do := range []string{"square-knot", "half-knot"} {
		var us, hs []float64
		for _, n := range []int{2, 4, 6, 8} {
			r := row(t, do, n, "left", strands)
			sum := 0.0
			for _, p := range r.Paths {
				sum += use(p)
			}
			us, hs = append(us, sum), append(hs, r.Height)
		}
		for i := 2; i < len(us); i++ {
			near(t, do+": the next two knots' use", us[i]-us[i-1], us[1]-us[0], 0.004)
			near(t, do+": their height", hs[i]-hs[i-1], hs[1]-hs[0], 1e-9)
		}
	}
}

func TestLeftAndRightAreMirrors(t *testing.T) {
	strands := hang(cordOf, cordOf, scaled(cordOf, 0.56), cordOf)
	back := hang(cordOf, scaled(cordOf, 0.56), cordOf, cordOf)
	for _, do := range []string{"square-knot", "half-knot"} {
		l, r := row(t, do, 3, "left", strands), row(t, do, 3, "right", back)
		if l.Height != r.Height {
			t.Errorf("%s: heights %v and %v", do, l.Height, r.Height)
		}
		n := len(strands)
		for i := range strands {
			a, b := l.Paths[i].Points, r.Paths[n-1-i].Points
			if len(a) != len(b) {
				t.Fatalf("%s: strand %d has %d points, its mirror %d", do, i, len(a), len(b))
			}
			for k := range a {
				if d := r3.Norm(r3.Sub(a[k], r3.Vec{X: -b[k].X, Y: b[k].Y, Z: b[k].Z})); d > 1e-12 {
					t.Fatalf("%s: strand %d is %v off its mirror", do, i, d)
				}
			}
		}
		for i := range l.Order {
			if l.Order[i] != n-1-r.Order[n-1-i] {
				t.Errorf("%s: orders %v and %v are no mirrors", do, l.Order, r.Order)
			}
		}
	}
}

func TestThickerFillersTakeMoreCord(t *testing.T) {
	last := 0.0
	for _, k := range []float64{0.56, 1, 1.86} {
		f := scaled(cordOf, k)
		r := row(t, "square-knot", 3, "left", hang(cordOf, f, f, cordOf))
		if u := use(r.Paths[0]); u <= last {
			t.Errorf("fillers %g times as thick take %v, thinner ones %v", k, u, last)
		} else {
			last = u
		}
	}
}

// The cord that crosses in front makes the bars of the face and its own mirror
// on the back: the colours change places, and the crossings alternate.
func TestColoursChangePlacesOnTheBack(t *testing.T) {
	r := row(t, "square-knot", 4, "left", hang(cordOf, cordOf, cordOf, cordOf))
	seen := map[string]knot.Sight{}
	for _, s := range r.Shows {
		seen[s.Where] = s
		if s.Face == s.Back {
			t.Errorf("%s: the same cord on both sides", s.Where)
		}
	}
	if m := seen["middle"]; m.Face != 0 || m.Back != 3 {
		t.Errorf("in the middle: %+v", m)
	}
	for _, edge := range []string{"left", "right"} {
		if e := seen[edge]; e.Face != 3 || e.Back != 0 {
			t.Errorf("at the %s: %+v", edge, e)
		}
	}
	cs, err := curve.Crossings([]curve.Curve{{Points: r.Paths[0].Points}, {Points: r.Paths[3].Points}})
	if err != nil {
		t.Fatal(err)
	}
	// Within each half knot they alternate: under at the edge, over the fillers,
	// under at the other edge.
	for i, p := range curve.Passages(cs, 2)[0] {
		if p.Over != (i%3 == 1) {
			t.Errorf("at its crossing %d the front worker is over: %v", i+1, p.Over)
		}
	}
	if len(cs) != 24 {
		t.Errorf("the workers of four square knots make %d crossings, want 24", len(cs))
	}
	// A half knot and its mirror: the signs cancel.
	if l := curve.LinkingNumber(cs, 0, 1); l != 0 {
		t.Errorf("the signs of a flat row add up to %v", 2*l)
	}
}

func TestSpiralIsAllOfOneHand(t *testing.T) {
	signs := map[string]float64{}
	for _, hand := range []string{"left", "right"} {
		r := row(t, "half-knot", 6, hand, hang(cordOf, cordOf, cordOf, cordOf))
		cs, err := curve.Crossings([]curve.Curve{{Points: r.Paths[0].Points}, {Points: r.Paths[3].Points}})
		if err != nil {
			t.Fatal(err)
		}
		signs[hand] = 2 * curve.LinkingNumber(cs, 0, 1)
		if math.Abs(signs[hand]) < 12 {
			t.Errorf("%s: %d crossings add up to %v", hand, len(cs), signs[hand])
		}
	}
	if signs["left"] != -signs["right"] {
		t.Errorf("hands add up to %v and %v", signs["left"], signs["right"])
	}
}

func TestStepsAreReadOffTheCurve(t *testing.T) {
	l := row(t, "square-knot", 2, "left", hang(cordOf, cordOf, cordOf, cordOf))
	if len(l.Moves) != 4 || l.Repeats != 2 {
		t.Fatalf("%d actions, %d repeats", len(l.Moves), l.Repeats)
	}
	for i, want := range []string{"Strand 1, from the left, across in front", "Strand 4, from the right, behind", "Strand 4, from the right, across in front", "Strand 1, from the left, behind"} {
		if !strings.HasPrefix(said(l, i), want) {
			t.Errorf("action %d says %q", i+1, said(l, i))
		}
	}
	// The same cord crosses in front every time.
	if l.Moves[0].Strand != l.Moves[2].Strand {
		t.Error("two cords take turns in front")
	}
	r := row(t, "square-knot", 2, "right", hang(cordOf, cordOf, cordOf, cordOf))
	if !strings.HasPrefix(said(r, 0), "Strand 4, from the right, across in front") {
		t.Errorf("begun on the right it says %q", said(r, 0))
	}
}

// Both legs of a lark's head beyond the ring's centre take 15.0 diameters on a
// wire of one and 20.2 on two, and between drawn ones nothing overlaps.
func TestLarksHead(t *testing.T) {
	for wire, published := range map[float64]float64{1: 15.0, 2: 20.2} {
		w := knot.Work{Section: one(t, "mount A"), Own: hang(cordOf, cordOf), BarMM: wire}
		m := tie(t, w)
		beyond := use(m.Own[0]) + use(m.Own[1]) - 2*m.Height // what is not straight leg
		near(t, fmt.Sprintf("a head on a wire of %g", wire), beyond, published, 0.02)
	}
	for wire := 0.15; wire < 7; wire *= 1.23 {
		m := tie(t, knot.Work{Section: one(t, "mount A"), Own: hang(cordOf, cordOf), BarMM: wire})
		bar := curve.Curve{Points: []r3.Vec{{X: -20}, {X: 20}}}
		for _, p := range m.Own {
			if g := curve.Gap(curve.Curve{Points: p.Points}, 1, bar, wire); g < -0.03 {
				t.Errorf("on a wire of %.2f the cord is %.3f into the wire", wire, -g)
			}
		}
		whole := append(curve.Curve{Points: m.Own[0].Points}.Reverse().Points, m.Own[1].Points[1:]...)
		if g := selfGap(whole); g < 0.94 {
			t.Errorf("on a wire of %.2f the cord comes within %.3f diameters of itself", wire, g)
		}
	}
	front := tie(t, knot.Work{Section: one(t, "mount A"), Own: hang(cordOf, cordOf), BarMM: 1})
	back := tie(t, knot.Work{Section: one(t, "mount A hitch=larks-head-reversed"), Own: hang(cordOf, cordOf), BarMM: 1})
	if f, b := front.Own[0].Points[0], back.Own[0].Points[0]; !(f.Z > 0.5) || b.Z != -f.Z {
		t.Errorf("the bar lies at z %v, reversed at %v", f.Z, b.Z)
	}
}

// selfGap is the least distance of a thread of diameter one from itself, parts
// nearer than half a tight turn left out.
func selfGap(pts []r3.Vec) float64 {
	at := make([]float64, len(pts))
	for i := 1; i < len(pts); i++ {
		at[i] = at[i-1] + r3.Norm(r3.Sub(pts[i], pts[i-1]))
	}
	least := math.Inf(1)
	for i := 0; i+1 < len(pts); i++ {
		for j := i + 1; j+1 < len(pts); j++ {
			if at[j]-at[i+1] < math.Pi/2 {
				continue
			}
			d, _, _ := curve.SegmentDistance(pts[i], pts[i+1], pts[j], pts[j+1])
			least = math.Min(least, d)
		}
	}
	return least
}

// A wrap is constructed and not drawn up: its turns lie taut on a packed bundle,
// which leaves nothing to draw. It is held against the closed form of a wrap of n turns round a bundle: n pi (D + d) and twice
// the wrap's length.
func TestGatherAgainstItsClosedForm(t *testing.T) {
	for _, n := range []int{5, 6, 9, 14} {
		for _, strands := range []int{4, 8} {
			var stuffs []cord.Stuff
			for range strands {
				stuffs = append(stuffs, cordOf)
			}
			own := hang(scaled(cordOf, 0.6))
			g := tie(t, knot.Work{Section: one(t, "gather C turns=%d", n), Strands: hang(stuffs...), Own: own})
			d := own[0].Diameter
			bundle := math.Sqrt((float64(strands) + 2*d*d) / 0.8)
			want := float64(n)*math.Pi*(bundle+d) + 2*g.Height
			near(t, fmt.Sprintf("%d turns round %d strands", n, strands), use(g.Own[0]), want, 0.05)
			for i, a := range g.Paths {
				for _, b := range g.Paths[i+1:] {
					if gap := curve.Gap(curve.Curve{Points: a.Points}, 1, curve.Curve{Points: b.Points}, 1); gap < -0.03 {
						t.Errorf("two strands of the bundle overlap by %.3f", -gap)
					}
				}
			}
		}
	}
}

// A cord laid behind lies behind the strands that hang there, its legs outside
// them, and both legs are equal.
func TestLaidBehind(t *testing.T) {
	for _, n := range []int{2, 4, 6} {
		var stuffs []cord.Stuff
		for range n {
			stuffs = append(stuffs, scaled(cordOf, 1.5))
		}
		own := hang(cordOf, cordOf)
		m := tie(t, knot.Work{Section: one(t, "mount B hitch=laid-behind"), Strands: hang(stuffs...), Own: own})
		if a, b := use(m.Own[0]), use(m.Own[1]); a != b {
			t.Errorf("legs of %v and %v", a, b)
		}
		if z := m.Own[0].Points[0].Z; z > -1.2 {
			t.Errorf("its fold lies at z %v, not behind strands 1.5 thick", z)
		}
		if want := append(append([]int{n}, identityOf(n)...), n+1); fmt.Sprint(m.Order) != fmt.Sprint(want) {
			t.Errorf("the order is %v, want %v", m.Order, want)
		}
		for i, p := range m.Paths {
			for _, o := range m.Own {
				if g := curve.Gap(curve.Curve{Points: p.Points}, 1.5, curve.Curve{Points: o.Points}, 1); g < -0.06 {
					t.Errorf("strand %d and the laid cord overlap by %.3f", i+1, -g)
				}
			}
		}
	}
}

func identityOf(n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = i
	}
	return out
}

// A joint begins and ends where it should, runs on the way it came, and is
// never much longer than the straight way.
func TestJointsLeadFromOneSectionToTheNext(t *testing.T) {
	for _, to := range []r3.Vec{{X: 3, Y: 4}, {X: -2, Y: 2, Z: 1}, {Y: 5}, {X: 6, Y: 5.4, Z: -2}} {
		j := knot.Join(r3.Vec{}, to, r3.Vec{Y: 1}, r3.Vec{Y: 1})
		last := j[len(j)-1]
		if r3.Norm(r3.Sub(last, to)) > 1e-9 {
			t.Errorf("it ends at %v, not %v", last, to)
		}
		way := curve.Curve{Points: append([]r3.Vec{{}}, j...)}.Length()
		if straight := r3.Norm(to); way < straight-1e-9 || way > 1.25*straight {
			t.Errorf("to %v it takes %.2f, straight it is %.2f", to, way, straight)
		}
		for i := 1; i < len(j); i++ {
			if j[i].Y < j[i-1].Y-1e-9 {
				t.Errorf("to %v it turns upwards at %v", to, j[i])
			}
		}
	}
	if j := knot.Join(r3.Vec{X: 1}, r3.Vec{X: 1}, r3.Vec{Y: 1}, r3.Vec{Y: 1}); j != nil {
		t.Errorf("from a point to itself leads %v", j)
	}
}

// From loose to drawn up a half knot stays the knot it will be, and a strand
// that has been led only a part of its way has not made all its crossings yet.
func TestAHalfKnotInHandIsTheSameKnot(t *testing.T) {
	for _, start := range []string{"left", "right"} {
		for half := range 3 {
			w := knot.Work{Section: one(t, "square-knot 3 start=%s", start), Strands: hang(cordOf, cordOf, cordOf, cordOf)}
			passages := func(x knot.Tied) string {
				cs, err := curve.Crossings([]curve.Curve{{Points: x.Paths[0].Points}, {Points: x.Paths[3].Points}})
				if err != nil {
					t.Fatal(err)
				}
				out := ""
				for _, p := range curve.Passages(cs, 2)[0] {
					out += map[bool]string{true: "o", false: "u"}[p.Over]
				}
				return out
			}
			w.HalfKnots = half
			want, height := "", math.Inf(1)
			for _, along := range []float64{knot.Led, 0.7, 0.8, 0.9, 1} {
				x, ok, err := knot.Hold(w, 1, along)
				if err != nil || !ok {
					t.Fatal(ok, err)
				}
				if want == "" {
					want = passages(x)
				}
				if got := passages(x); got != want || len(got) < 3 {
					t.Errorf("%s, half %d, %.0f %% along: worker 1 goes %s, loose it went %s", start, half, 100*along, got, want)
				}
				if x.Height > height+1e-9 {
					t.Errorf("%s, half %d: it grows while it is drawn up", start, half)
				}
				height = x.Height
			}
			w.HalfKnots = half + 1
			w.Section.Count = 1
			tight := tie(t, w)
			if half == 0 && passages(tight)[:3] != want[:3] {
				t.Errorf("%s: in hand it goes %s, drawn up %s", start, want, passages(tight))
			}
			w.HalfKnots = half
			begun, _, err := knot.Hold(w, 0, 0.2)
			if err != nil {
				t.Fatal(err)
			}
			if got := passages(begun); len(got) >= len(want) {
				t.Errorf("%s, half %d: hardly begun it has the crossings %s of %s", start, half, got, want)
			}
		}
	}
}

func TestAGapIsAsLongAsItSays(t *testing.T) {
	strands := hang(cordOf, cordOf, cordOf)
	g := tie(t, knot.Work{Section: one(t, "gap 12.5mm"), Strands: strands})
	for i, p := range g.Paths {
		if use(p) != 12.5 || p.Points[0].X != strands[i].At.X {
			t.Errorf("strand %d: %v mm from x %v", i+1, use(p), p.Points[0].X)
		}
	}
}

func TestWhatCannotBeTiedIsSaid(t *testing.T) {
	ten := make([]cord.Stuff, 11)
	for i := range ten {
		ten[i] = cordOf
	}
	for _, c := range []struct {
		w    knot.Work
		says string
	}{
		{knot.Work{Section: one(t, "square-knot 1"), Strands: hang(cordOf, cordOf)}, "a filler between"},
		{knot.Work{Section: one(t, "square-knot 1"), Strands: hang(ten...)}, "at most 8 fillers"},
		{knot.Work{Section: one(t, "gather C turns=6"), Strands: hang(cordOf), Own: hang(cordOf)}, "two strands"},
		{knot.Work{Section: one(t, "mount A hitch=laid-behind"), Own: hang(cordOf, cordOf)}, "hang already"},
		{knot.Work{Section: knot.Section{Do: "square-not", Count: 1}, Strands: hang(cordOf, cordOf, cordOf)}, "square-knot"},
		{knot.Work{Section: knot.Section{Do: "finish"}, Strands: hang(cordOf)}, "no finish"},
	} {
		if _, err := knot.Tie(c.w); err == nil || !strings.Contains(err.Error(), c.says) {
			t.Errorf("%s: %v, want something about %q", c.w.Section.Do, err, c.says)
		}
	}
}

func TestTheCatalogueIsWhole(t *testing.T) {
	names := map[string]string{}
	for _, k := range knot.All() {
		if k.Name == "" || k.Family == "" || k.For == "" {
			t.Errorf("%s lacks a name, a family or a use", k.ID)
		}
		for _, o := range append([]string{k.ID}, k.OtherNames...) {
			o = strings.ReplaceAll(o, " ", "-")
			if other, twice := names[o]; twice && other != k.ID {
				t.Errorf("%q names %s and %s", o, other, k.ID)
			}
			names[o] = k.ID
		}
		for _, s := range k.Schools {
			if s.Why == "" {
				t.Errorf("%s: no reason for %s", k.ID, s.Field)
			}
		}
		if s, err := knot.New(k.ID); err != nil || s.Do != k.ID || (k.Repeats && s.Count < 1) {
			t.Errorf("a new %s is %+v, %v", k.ID, s, err)
		}
	}
	if near := knot.Nearest("sqare-knt"); near[0] != "square-knot" {
		t.Errorf("nearest to sqare-knt are %v", near)
	}
	if _, err := knot.New("bowline"); err == nil {
		t.Error("a knot that is not in the catalogue was made")
	}
}

func ExampleTie() {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	tied, err := knot.Tie(knot.Work{Section: knot.Section{Do: "square-knot", Count: 10}, Strands: hang(stuff, stuff, stuff, stuff)})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Printf("%.0f mm high; a worker takes %.0f mm\n", tied.Height, curve.Curve{Points: tied.Paths[0].Points}.Length())
	// Output: 108 mm high; a worker takes 502 mm
}
