package loose_test

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"
	"sync"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/loose"
	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

// filmed is a film that is embedded, and the knot that it is of.
type filmed struct {
	loose.Named
	k       knot.Knot
	strands int
	film    knot.Film
}

// problems are those of all films that there may be.
var problems = sync.OnceValue(func() []filmed {
	var out []filmed
	for _, k := range knot.All() {
		for _, n := range loose.Strands {
			for _, p := range loose.Problems(k, n, loose.Films) {
				out = append(out, filmed{p, k, n, knot.Film{}})
			}
		}
	}
	return out
})

// byName are all films that are embedded.
func byName(t *testing.T, each func(f filmed)) {
	t.Helper()
	found := 0
	for _, p := range problems() {
		var ok bool
		if p.film, ok = loose.Film(p.Name); ok {
			found++
			each(p)
		}
	}
	if found < 40 || found != len(loose.Names()) {
		t.Errorf("%d films are found, %d are embedded", found, len(loose.Names()))
	}
}

// What is embedded was grown from the knots and by the loosening that are there now.
func TestFilmsAreThoseOfTheKnots(t *testing.T) {
	byName(t, func(of filmed) {
		name, f, p := of.Name, of.film, of.Problem
		if got := loose.Fingerprint(p); got != loose.Made(name) {
			t.Errorf("%s was grown from %s, and is %s: run make shapes", name, loose.Made(name), got)
		}
		// The last frame is the drawn-up curve: no node lies off it.
		last := f.Frames[len(f.Frames)-1]
		for i, s := range p.Strands {
			for _, v := range last[i] {
				near := math.Inf(1)
				if v.Y <= s.Points[0].Y || v.Y >= s.Points[len(s.Points)-1].Y {
					continue // straight, above and below
				}
				for j := 1; j < len(s.Points); j++ {
					d, _, _ := curve.SegmentDistance(v, v, s.Points[j-1], s.Points[j])
					near = math.Min(near, d)
				}
				if near > 0.03 {
					t.Errorf("%s: strand %d lies %.2f diameters off its curve at the end", name, i+1, near)
					break
				}
			}
		}
	})
}

// Films can be tied from: strands keep their distance in every frame, each is shorter than
// the one before, none jumps, and loose it crosses itself no more than tight.
func TestFilmsCanBeRead(t *testing.T) {
	byName(t, func(of filmed) {
		if err := loosen.Film(of.film).Readable(); err != nil {
			t.Errorf("%s: %v", of.Name, err)
		}
	})
}

// Strands that are led two and two lie side by side in the loose knot, all the way from where they
// stand to where they hang.
func TestBandsLieSideBySide(t *testing.T) {
	found := 0
	byName(t, func(of filmed) {
		name, f, p := of.Name, of.film, of.Problem
		if p.Bands == nil {
			return
		}
		for _, of := range p.Bands.Of {
			found++
			one, other := f.Frames[0][of[0]], curve.Curve{Points: f.Frames[0][of[1]]}
			for i, v := range one {
				near := math.Inf(1)
				for j := 1; j < len(other.Points); j++ {
					d, _, _ := curve.SegmentDistance(v, v, other.Points[j-1], other.Points[j])
					near = math.Min(near, d)
				}
				if near > 1.3 {
					t.Errorf("%s: node %d of strand %d lies %.2f diameters from the one beside it", name, i, of[0]+1, near)
				}
			}
		}
	})
	if found != 2 {
		t.Errorf("%d bands are found", found)
	}
}

// Where strands are held apart they come in farther out the looser the knot is, and drawn up where
// they do; all others come in where they do in every frame.
func TestStrandsHeldApartComeIn(t *testing.T) {
	held := 0
	byName(t, func(of filmed) {
		name, f := of.Name, of.film
		if of.Problem.Bands != nil {
			return // they come in as the strand in whose way they are led
		}
		last := len(f.Frames) - 1
		out := func(frame, strand int) float64 {
			return r3.Norm(r3.Sub(f.Frames[frame][strand][0], f.Frames[last][strand][0]))
		}
		if out(0, 0) > 0.01 {
			held++
		}
		for i := range f.Frames[0] {
			switch most := out(0, i); {
			case out(0, 0) < 0.01 && most > 0.01:
				t.Errorf("%s: strand %d alone comes in %.2f diameters off", name, i+1, most)
			case most > 0.01 && (most < 1 || most > 1.5):
				t.Errorf("%s: strand %d is held %.2f diameters out", name, i+1, most)
			}
			for k := range last {
				if out(k, i) < out(k+1, i)-1e-6 {
					t.Errorf("%s: strand %d is held farther out in frame %d than in the one before", name, i+1, k+1)
				}
			}
		}
	})
	if held == 0 {
		t.Error("none is held apart")
	}
}

// Seen from the working end a strand that has left where it stands goes on all the time that it is
// led: of ten steps each brings it on.
func TestAStrandGoesOnWhileItIsLed(t *testing.T) {
	seen := 0
	byName(t, func(of filmed) {
		name, n := of.Name, of.strands
		if !of.film.Across || of.k.Part != nil {
			return
		}
		w := knot.Work{Section: asFilmed(of.k, of.Section), BarMM: 2, RingMM: 16, Strands: hung(n)}
		x, err := knot.Tie(w)
		if err != nil {
			t.Fatal(err)
		}
		m := x.Moves[0]
		if m.Strand < 0 || len(x.Moves) < n/2 {
			return
		}
		seen++
		stood, went := 0, false
		var before r3.Vec
		for step := range 10 {
			held, ok, err := knot.Hold(w, 0, float64(step+1)/10.1)
			if err != nil || !ok {
				t.Fatalf("%s is not held: %v", name, err)
			}
			at := held.Paths[m.Strand].Points
			if off := curve.EndOn(r3.Sub(at[len(at)-1], before)); math.Hypot(off.X, off.Y) < 0.1*w.Strands[0].Diameter {
				if went {
					stood++
				}
			} else {
				went = step > 0
			}
			before = at[len(at)-1]
		}
		if stood > 1 {
			t.Errorf("%s: in %d of ten steps the strand that is led stays where it is", name, stood)
		}
	})
	if seen < 8 {
		t.Errorf("%d films were looked at", seen)
	}
}

// All frames of a film are one knot: closed round the outside, their determinants agree, and
// every two strands are linked alike.
func TestFilmsKeepTheirKnot(t *testing.T) {
	byName(t, func(of filmed) {
		name, f := of.Name, of.film
		first := knotted(t, f, 0)
		for k := 5; k < len(f.Frames); k += 5 {
			if now := knotted(t, f, k); now != first {
				t.Errorf("%s: frame %d has %+v, the first %+v", name, k, now, first)
			}
		}
	})
}

// invariant is what stays of strands as long as none passes through another.
type invariant struct {
	determinant int // of one alone
	linked      string
}

// knotted is the invariant of a frame.
func knotted(t *testing.T, f knot.Film, frame int) invariant {
	t.Helper()
	var cs []curve.Curve
	for i, pts := range f.Frames[frame] {
		// Ends that move are led to where they hang at last, far below.
		end := f.Frames[len(f.Frames)-1][i]
		at := end[len(end)-1]
		line := append([]r3.Vec{{X: pts[0].X, Y: -300, Z: pts[0].Z}}, append(slices.Clone(pts), r3.Vec{X: at.X, Y: 300, Z: at.Z})...)
		// From a little aside and above, so that no two hang right behind one another, and no
		// nodes of strands that are alike coincide.
		cs = append(cs, curve.Curve{Points: line}.Map(func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X + 0.0917313*v.Z, Y: v.Y + 0.0367891*v.Z, Z: v.Z} }))
	}
	found, err := curve.Crossings(cs)
	if err != nil {
		t.Fatal(err)
	}
	out := invariant{linked: linked(found, len(cs))}
	if len(cs) == 1 {
		seen, err := curve.Crossings([]curve.Curve{closedBehind(cs[0])})
		if err != nil {
			t.Fatal(err)
		}
		out.determinant = curve.Determinant(seen, 1)
	}
	return out
}

// linked is how often each two strands wind about one another, from their signed crossings.
func linked(found []curve.Crossing, strands int) string {
	sums := make([]int, strands*strands)
	for _, c := range found {
		if c.Over != c.Under {
			sums[min(c.Over, c.Under)*strands+max(c.Over, c.Under)] += c.Sign
		}
	}
	var out []string
	for _, s := range sums {
		out = append(out, string(rune('a'+s+13)))
	}
	return strings.Join(out, "")
}

// closedBehind joins the ends of a strand far behind it.
func closedBehind(c curve.Curve) curve.Curve {
	pts := slices.Clone(c.Points)
	a, b := pts[len(pts)-1], pts[0]
	const far = 300.0
	return curve.Curve{Points: append(pts, r3.Vec{X: a.X, Y: a.Y + far, Z: a.Z}, r3.Vec{X: far, Y: far, Z: -far}, r3.Vec{X: far, Y: -far, Z: -far}, r3.Vec{X: b.X, Y: b.Y - far, Z: b.Z}), Closed: true}
}

// asFilmed is a section of as many knots as its film shows.
func asFilmed(k knot.Knot, s knot.Section) knot.Section {
	if s.Count > 0 {
		s.Count = max(1, k.LooseFrom)
	}
	return s
}

// hung are strands of real cord that hang side by side.
func hung(n int) []knot.Strand {
	stuff := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}
	d := stuff.DrawnUp()
	var out []knot.Strand
	for i := range n {
		out = append(out, knot.Strand{Cord: i / 2, Leg: i % 2, Stuff: stuff, Figures: stuff.Figures(), Diameter: d, At: r3.Vec{X: d * (float64(i) - float64(n-1)/2)}, Dir: r3.Vec{Y: 1}})
	}
	return out
}

// Led in its loose places a knot is drawn up to what it is when it is tied; in its mirror too.
func TestHeldByItsFilmAKnotEndsAsItIsTied(t *testing.T) {
	byName(t, func(of filmed) {
		if of.k.Hold != nil || of.k.Part != nil {
			return // held in a way of its own; the trainer has the film
		}
		for _, left := range []bool{false, true} {
			w := knot.Work{Section: asFilmed(of.k, of.Section), LeftHanded: left, BarMM: 2, RingMM: 16, Strands: hung(of.strands)}
			endsAsTied(t, of.Name, w)
		}
	})
}

// endsAsTied has a knot held move by move: its strands begin where they hang, and with the last
// move they lie as it is tied.
func endsAsTied(t *testing.T, name string, w knot.Work) {
	t.Helper()
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatalf("%s: %v", name, err)
	}
	for action := range tied.Moves {
		half, ok, err := knot.Hold(w, action, 0.5)
		if err != nil || !ok && knot.CanLead(tied.Moves[action]) {
			t.Errorf("%s: move %d is not held: %v", name, action+1, err)
		}
		for i, p := range half.Paths {
			if p.Points[0] != tied.Paths[i].Points[0] {
				t.Errorf("%s: in move %d strand %d does not begin where it hangs", name, action+1, i+1)
			}
		}
	}
	end, ok, err := knot.Hold(w, len(tied.Moves)-1, 1)
	if err != nil || !ok {
		t.Errorf("%s: its last move is not held: %v", name, err)
		return
	}
	for i, p := range tied.Paths {
		mid := p.Points[len(p.Points)/2]
		near := math.Inf(1)
		for j := 1; j < len(end.Paths[i].Points); j++ {
			d, _, _ := curve.SegmentDistance(mid, mid, end.Paths[i].Points[j-1], end.Paths[i].Points[j])
			near = math.Min(near, d)
		}
		if near > 0.3*3 {
			t.Errorf("%s, left %v: drawn up, strand %d lies %.2f mm off", name, w.LeftHanded, i+1, near)
		}
	}
}

// Every knot that is tied of the strands that come to it, and about nothing else, stands
// loose when all of it is led: it takes more room than drawn up, and strands keep their
// distance; a grown film or a stretched knot, that is the law.
func TestEveryKnotStandsLoose(t *testing.T) {
	stood := 0
	for _, k := range knot.All() {
		if k.Tie == nil || k.Hold != nil || k.Bare || k.Mounts || k.Ends || k.First {
			continue
		}
		s, err := knot.New(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		terms := knot.TermsOf(s)
		n := max(terms.Takes.Least, 2)
		if terms.Begins != knot.OnStrands || terms.CordsAt != "" || terms.Takes.Most > 0 && n > terms.Takes.Most {
			continue
		}
		s.Count = min(1, s.Count)
		const d = 3.0
		w := knot.Work{Section: s, BarMM: 2, RingMM: 16}
		for i := range n {
			w.Strands = append(w.Strands, knot.Strand{Cord: i, Diameter: d, At: r3.Vec{X: d * (float64(i) - float64(n-1)/2)}, Dir: r3.Vec{Y: 1}})
		}
		tied, err := knot.Tie(w)
		if err != nil || !tied.Loose || len(tied.Own) > 0 || len(tied.Beads) > 0 || len(tied.Threads) > 0 || tied.Opening != nil {
			continue
		}
		last := -1
		for i, m := range tied.Moves {
			if !m.Slack && !m.Core && !m.Folded {
				last = i
			}
		}
		if last < 0 {
			continue
		}
		along := 1.0
		if last == len(tied.Moves)-1 {
			along = knot.Led
		}
		held, ok, err := knot.Hold(w, last, along)
		if err != nil || !ok {
			t.Errorf("%s does not stand loose: %v", k.ID, err)
			continue
		}
		stood++
		apart := func(paths []knot.Path) float64 {
			least := math.Inf(1)
			for i, p := range paths {
				for _, q := range paths[:i] {
					least = math.Min(least, curve.Gap(curve.Curve{Points: p.Points}, d, curve.Curve{Points: q.Points}, d))
				}
			}
			return least
		}
		// Where they hang side by side they touch, loose or tight.
		if loose, tight := apart(held.Paths), apart(tied.Paths); loose < math.Min(tight, 0)-0.12*d {
			t.Errorf("%s: loose its strands are %.2f mm apart, tight %.2f", k.ID, loose, tight)
		}
		if held.Height <= tied.Height {
			t.Errorf("%s: loose it is %.1f mm tall, tight %.1f", k.ID, held.Height, tied.Height)
		}
	}
	if stood < 14 {
		t.Errorf("%d knots stand loose", stood)
	}
}

// Moves led in their order give the crossings of the knot: when the last strand is led and
// nothing is drawn up, strands pass over and under one another as often, and as often each
// way, as in the loose knot.
func TestMovesLedInOrderGiveTheCrossings(t *testing.T) {
	passes := func(strands [][]r3.Vec, across bool) map[[3]int]int {
		var cs []curve.Curve
		for _, pts := range loosen.Seen(strands, across) {
			if across { // without what is seen as a dot
				from, to := loosen.Aside(pts)
				pts = pts[from:to]
			}
			cs = append(cs, curve.Curve{Points: pts})
		}
		found, err := curve.Crossings(cs)
		if err != nil {
			t.Error(err)
		}
		out := map[[3]int]int{}
		for _, c := range found {
			if across && c.Over == c.Under {
				continue // a bight may be so narrow that one leg of it lies before the other
			}
			out[[3]int{c.Over, c.Under, c.Sign}]++
		}
		return out
	}
	byName(t, func(of filmed) {
		name, f := of.Name, of.film
		if of.k.Hold != nil || of.k.Part != nil {
			return
		}
		w := knot.Work{Section: asFilmed(of.k, of.Section), BarMM: 2, RingMM: 16, Strands: hung(of.strands)}
		tied, err := knot.Tie(w)
		if err != nil {
			t.Fatalf("%s: %v", name, err)
		}
		tied = tied.Hung()
		last := 0
		for i, m := range tied.Moves {
			if knot.CanLead(m) && !m.Slack {
				last = i
			}
		}
		along := 1.0
		if last == len(tied.Moves)-1 { // with the last strand it would be drawn up too
			along = knot.Led
		}
		held, ok, err := knot.Hold(w, last, along)
		if err != nil || !ok {
			t.Errorf("%s: its last move is not held: %v", name, err)
			return
		}
		var paths [][]r3.Vec
		for _, p := range held.Paths {
			paths = append(paths, p.Points)
		}
		if got, want := passes(paths, f.Across), passes(f.Frames[0], f.Across); !maps.Equal(got, want) {
			t.Errorf("%s: led it passes %v, loose it is %v", name, got, want)
		}
	})
}

// A knot that is led below a closed one of its round keeps as far from itself as the two do
// when they are tied.
func TestBelowAClosedKnotStrandsKeepApart(t *testing.T) {
	seen := 0
	for _, k := range knot.All() {
		if k.Hold != nil || !k.Repeats || k.Tie == nil {
			continue
		}
		s, err := knot.New(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		s.Count = 2
		w := knot.Work{Section: s, BarMM: 2, RingMM: 16, Strands: hung(max(2, knot.TermsOf(s).Takes.Least))}
		tied, err := knot.Tie(w)
		if err != nil || tied.PerRound != 2 || !tied.Loose || len(tied.Own) > 0 || len(tied.Beads) > 0 {
			continue
		}
		last := len(tied.Moves) - 1
		held, ok, err := knot.Hold(w, last, knot.Led)
		if err != nil || !ok {
			t.Errorf("the second %s is not held: %v", k.ID, err)
			continue
		}
		seen++
		d := w.Strands[0].Diameter
		least := func(paths []knot.Path) float64 {
			gap := math.Inf(1)
			for i, p := range paths {
				for _, q := range paths[:i] {
					gap = math.Min(gap, curve.Gap(curve.Curve{Points: p.Points}, d, curve.Curve{Points: q.Points}, d))
				}
			}
			return gap
		}
		loose, tight := least(held.Paths), least(tied.Paths)
		if loose < tight-0.02*d {
			t.Errorf("the second %s: led its strands are %.2f mm apart, tied %.2f", k.ID, loose, tight)
		}
	}
	if seen < 3 {
		t.Errorf("only %d knots have two in a round", seen)
	}
}

// A bundle's film is made of that of one strand, and is no worse: its strands keep their distance
// and stay wound as they are, and it ends as the bundle is tied.
func TestBundlesAreDrawnUpAsOneStrandIs(t *testing.T) {
	for _, id := range []string{"overhand", "figure-eight"} {
		k, _ := knot.Get(id)
		s, err := knot.New(id)
		if err != nil {
			t.Fatal(err)
		}
		for _, n := range []int{2, 4, 7} {
			w := knot.Work{Section: s, BarMM: 2, RingMM: 16, Strands: hung(n)}
			made, ok := k.Film(w)
			if !ok {
				t.Fatalf("%s on %d has no film", id, n)
			}
			f := loosen.Film(made)
			last := len(f.Frames) - 1
			least := math.Min(0.93, f.Gap(last)-0.03) // as films that were grown
			for i := range f.Frames {
				if g := f.Gap(i); g < least {
					t.Errorf("%s on %d: in frame %d strands are %.2f diameters apart", id, n, i, g)
				}
				if i > 0 && f.Length(i) >= f.Length(i-1) {
					t.Errorf("%s on %d: frame %d is no shorter than the one before", id, n, i)
				}
				if i < last {
					if g := f.Passing(i); g < 0.5 { // nearer they could have passed through one another
						t.Errorf("%s on %d: after frame %d strands pass %.2f diameters apart", id, n, i, g)
					}
				}
			}
			for i := 0; i < last; i += 5 {
				if now := knotted(t, made, i); now != knotted(t, made, last) {
					t.Errorf("%s on %d: frame %d is %v, drawn up it is %v", id, n, i, now, knotted(t, made, last))
				}
			}
			// In hand, too, they lie side by side: none hangs through another.
			for _, along := range []float64{0.1, 0.2, 0.35, 0.5} {
				led, _, err := knot.Hold(w, 0, along)
				if err != nil {
					t.Fatal(err)
				}
				hang := func(p knot.Path) curve.Curve { return curve.Curve{Points: p.Points[len(p.Points)-38:]} }
				d := w.Strands[0].Diameter
				for i, p := range led.Paths {
					for k, q := range led.Paths[:i] {
						if g := 1 + curve.Gap(hang(p), d, hang(q), d)/d; g < least {
							t.Errorf("%s on %d: led by %.2f, strands %d and %d hang %.2f diameters apart", id, n, along, k, i, g)
						}
					}
				}
			}
			// It is by this film that it is held.
			held, _, err := knot.Hold(w, 0, knot.Led)
			if err != nil {
				t.Fatal(err)
			}
			d := w.Strands[0].Diameter
			for i, p := range held.Paths {
				low := 0.0
				for _, v := range made.Frames[0][i] {
					low = math.Max(low, v.Y)
				}
				if off := math.Abs(p.Points[len(p.Points)-1].Y/d - low); n > 3 && off > 4 {
					t.Errorf("%s on %d: held loose, strand %d hangs %.1f diameters from where its film has it", id, n, i, off)
				}
			}
			endsAsTied(t, fmt.Sprintf("%s on %d", id, n), w)
		}
	}
}
