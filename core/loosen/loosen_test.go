package loosen_test

import (
	"context"
	"errors"
	"math"
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
	p, ok := loose.Problem(k, strands)
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
