package loosen_test

import (
	"context"
	"errors"
	"math"
	"strings"
	"testing"

	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/loose"
	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

func problem(t testing.TB, id string, strands int) loosen.Problem {
	t.Helper()
	k, ok := knot.Get(id)
	if !ok {
		t.Fatalf("there is no %s", id)
	}
	p, ok := loose.Problem(k, strands, loose.Films)
	if !ok {
		t.Fatalf("%s on %d cannot be loosened", id, strands)
	}
	return p
}

// An overhand knot is loosened to a film that can be read and that is the same every time.
func TestAKnotIsLoosened(t *testing.T) {
	p := problem(t, "overhand", 1)
	a, err := loosen.Grow(context.Background(), p)
	if err != nil {
		t.Fatal(err)
	}
	if err := a.Readable(); err != nil {
		t.Error(err)
	}
	b, err := loosen.Grow(context.Background(), p)
	if err != nil {
		t.Fatal(err)
	}
	for k := range a.Frames {
		if got := b.Length(k); got != a.Length(k) {
			t.Errorf("frame %d is %v long once, %v again", k, a.Length(k), got)
		}
	}
}

// Strands that stand in a ring are loosened alike: each is the first one turned, in every frame.
func TestAKnotThatGoesRoundIsLoosenedAlike(t *testing.T) {
	p := problem(t, "wall", 4)
	f, err := loosen.Grow(context.Background(), p)
	if err != nil {
		t.Fatal(err)
	}
	if err := f.Readable(); err != nil || !f.Across {
		t.Errorf("across %v: %v", f.Across, err)
	}
	for k, frame := range f.Frames {
		for i, pts := range frame {
			for n, v := range pts {
				w := frame[0][n]
				if math.Abs(math.Hypot(v.X, v.Z)-math.Hypot(w.X, w.Z)) > 0.01 || math.Abs(v.Y-w.Y) > 0.01 {
					t.Fatalf("frame %d: node %d of strand %d is at %+v, of the first at %+v", k, n, i+1, v, w)
				}
			}
		}
	}
}

// Looked at from the end and hung again, a place is where it was, and as far from all others.
func TestEndOnAndBack(t *testing.T) {
	frame := [][]r3.Vec{{{X: 1, Y: 2, Z: 3}, {X: -4, Y: 5, Z: 6}}}
	seen := loosen.Seen(frame, true)
	if back := loosen.Hung(seen); back[0][0] != frame[0][0] || back[0][1] != frame[0][1] {
		t.Errorf("%+v comes back as %+v", frame, back)
	}
	if got, want := r3.Norm(r3.Sub(seen[0][0], seen[0][1])), r3.Norm(r3.Sub(frame[0][0], frame[0][1])); math.Abs(got-want) > 1e-12 {
		t.Errorf("places are %v apart, before %v", got, want)
	}
	if seen[0][1].Z <= seen[0][0].Z {
		t.Error("what is lower does not come nearer to the eye")
	}
	if same := loosen.Seen(frame, false); same[0][0] != frame[0][0] {
		t.Errorf("from the face %+v is seen as %+v", frame, same)
	}
}

// A way that does not draw up to the knot is refused.
func TestARouteOfAnotherKnotIsRefused(t *testing.T) {
	p := problem(t, "two-strand-diamond", 2)
	for i, s := range p.Strands { // straight down: no knot at all
		n := len(s.Points)
		p.Route[i] = []r3.Vec{s.Points[0], s.Points[n-1]}
	}
	if _, err := loosen.Grow(context.Background(), p); err == nil {
		t.Error("straight strands are drawn up to a diamond")
	}
}

// What is fixed stays where it is.
func TestWhatIsFixedStays(t *testing.T) {
	p := problem(t, "double-half-hitch", 2)
	p.Strands[0].Fixed = true
	f, err := loosen.Grow(context.Background(), p)
	if err != nil {
		t.Fatal(err)
	}
	for k, frame := range f.Frames {
		for n, v := range frame[0] {
			if v != f.Frames[0][0][n] {
				t.Fatalf("node %d of a fixed strand moves in frame %d", n, k)
			}
		}
	}
}

// Two straight strands that change places between two frames pass through one another on the way,
// though they are far apart in both; that is told, and such a film is not one to tie from.
func TestStrandsThatPassThroughOneAnotherAreTold(t *testing.T) {
	at := func(x, long float64) []r3.Vec { return []r3.Vec{{X: x}, {X: x, Y: long / 2}, {X: x, Y: long}} }
	f := loosen.Film{Frames: [][][]r3.Vec{{at(-1, 10), at(1, 10)}, {at(1, 9), at(-1, 9)}, {at(1.5, 8), at(-1.5, 8)}}}
	if a, b := f.Passing(0), f.Passing(1); a > 1e-9 || math.Abs(b-2.25) > 1e-9 {
		t.Errorf("they pass %.2f and %.2f diameters apart, not 0 and 2.25", a, b)
	}
	if err := f.Readable(); err == nil || !strings.Contains(err.Error(), "on the way to frame 1") {
		t.Errorf("of its film it says %v", err)
	}
}

func TestWhatCannotBeLoosened(t *testing.T) {
	if _, err := loosen.Grow(context.Background(), loosen.Problem{}); err == nil {
		t.Error("nothing is loosened")
	}
	still := loosen.Problem{Strands: []loosen.Strand{{Points: []r3.Vec{{}, {Y: 5}}, Diameter: 1, Fixed: true}}}
	if _, err := loosen.Grow(context.Background(), still); err == nil {
		t.Error("a fixed strand is loosened")
	}
	ctx, stop := context.WithCancel(context.Background())
	stop()
	if _, err := loosen.Grow(ctx, problem(t, "overhand", 1)); !errors.Is(err, context.Canceled) {
		t.Errorf("called off it says %v", err)
	}
	// Nothing is knotted in a straight strand: its film cannot be read.
	if f, err := loosen.Grow(context.Background(), loosen.Problem{Strands: []loosen.Strand{{Points: []r3.Vec{{}, {Y: 5}}, Diameter: 1}}}); err == nil && f.Readable() == nil {
		t.Error("a straight strand has a film")
	}
	bands := loosen.Problem{Across: true, Strands: []loosen.Strand{{Points: []r3.Vec{{}, {Y: 5}}, Diameter: 1}, {Points: []r3.Vec{{X: 1}, {X: 1, Y: 5}}, Diameter: 1}}}
	for _, b := range []loosen.Bands{
		{},
		{Film: loosen.Film{Across: true, Frames: [][][]r3.Vec{{{{}, {Y: 5}}}, {{{}, {Y: 5}}}}}},
		{Film: loosen.Film{Frames: [][][]r3.Vec{{{{}, {Y: 5}}}, {{{}, {Y: 5}}}}}, Of: [][2]int{{0, 1}}},
	} {
		bands.Bands = &b
		if _, err := loosen.Grow(context.Background(), bands); err == nil || !strings.Contains(err.Error(), "bands need") {
			t.Errorf("bands of %d strands, seen from the end %v: %v", len(b.Of), b.Film.Across, err)
		}
	}
	if math.IsNaN(loosen.Film{Frames: [][][]r3.Vec{{{{}, {Y: 1}}}}}.Length(0)) {
		t.Error("a short strand has no length")
	}
}

func BenchmarkGrow(b *testing.B) {
	p := problem(b, "two-strand-diamond", 2)
	for b.Loop() {
		if _, err := loosen.Grow(context.Background(), p); err != nil {
			b.Fatal(err)
		}
	}
}
