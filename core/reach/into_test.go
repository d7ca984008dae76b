package reach_test

import (
	"math"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/reach"
)

// A section becomes another knot on the same strands, with its note: with as many knots, or as
// long a piece, to which one knot more or fewer comes no nearer.
func TestASectionBecomesAnotherKnot(t *testing.T) {
	d := notation.With(piece.Begin("changed", "key-fob", piece.SplitRing(30, 2), 0), "mount A B, square-knot 9, finish dome",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})
	d.Sequence[1].Note = "tight"
	was, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	for _, id := range []string{"half-knot", "crown", "switch-knot"} {
		to, err := knot.New(id)
		if err != nil {
			t.Fatal(err)
		}
		same, err := reach.Into(d, 1, to, reach.KeepsCount, plan.Options{})
		if err != nil || same.Sequence[1].Do != id || same.Sequence[1].Count != 9 || same.Sequence[1].Note != "tight" {
			t.Errorf("%s: %+v, %v", id, same.Sequence[1], err)
		}
		long, err := reach.Into(d, 1, to, reach.KeepsLength, plan.Options{})
		if err != nil {
			t.Errorf("%s: %v", id, err)
			continue
		}
		off := func(count int) float64 {
			q := long
			q.Sequence = append(long.Sequence[:0:0], long.Sequence...)
			q.Sequence[1].Count = count
			p, err := plan.Make(q, plan.Options{})
			if err != nil {
				t.Fatal(err)
			}
			return math.Abs(p.LengthMM - was.LengthMM)
		}
		n := long.Sequence[1].Count
		if at := off(n); off(n+1) < at || n > 1 && off(n-1) < at {
			t.Errorf("%d of %s are %.1f mm off, %d %.1f", n, id, at, n+1, off(n+1))
		}
	}
	if d.Sequence[1].Do != "square-knot" || d.Sequence[1].Count != 9 {
		t.Errorf("the piece itself is changed: %+v", d.Sequence[1])
	}
	// A knot that takes no count is tied once; one that cannot be tied there is refused.
	gap, err := knot.New("gap")
	if err != nil {
		t.Fatal(err)
	}
	if got, err := reach.Into(d, 1, gap, reach.KeepsLength, plan.Options{}); err != nil || got.Sequence[1].Do != "gap" {
		t.Errorf("a gap: %+v, %v", got.Sequence[1], err)
	}
	two, err := knot.New("snake-knot")
	if err != nil {
		t.Fatal(err)
	}
	if _, err := reach.Into(d, 1, two, reach.KeepsCount, plan.Options{}); err == nil {
		t.Error("a snake is tied on four strands")
	}
	for _, at := range []int{-1, 3} {
		if _, err := reach.Into(d, at, gap, reach.KeepsCount, plan.Options{}); err == nil {
			t.Errorf("section %d, which is not there, is changed", at)
		}
	}
	if _, err := reach.Into(d, 1, gap, "width", plan.Options{}); err == nil {
		t.Error("a width is kept")
	}
}

// Counts that bring a piece to its wanted length come nearer to it than it is, the nearest first;
// a piece that is as near as it comes has none, nor one that wants no length.
func TestCountsForTheWantedLength(t *testing.T) {
	d := notation.With(piece.Begin("wanted", "key-fob", piece.SplitRing(30, 2), 160), "mount A B, square-knot 4, half-knot 6, finish dome",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})
	was, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	ways, err := reach.ToWanted(d, plan.Options{})
	if err != nil || len(ways) != 2 {
		t.Fatalf("%+v, %v", ways, err)
	}
	last := 0.0
	for _, w := range ways {
		q := d
		q.Sequence = append(d.Sequence[:0:0], d.Sequence...)
		q.Sequence[w.Section].Count = w.Count
		p, err := plan.Make(q, plan.Options{})
		if err != nil || math.Abs(p.LengthMM-w.LengthMM) > 1e-9 {
			t.Errorf("%d of %s come to %.2f mm, said was %.2f: %v", w.Count, w.Name, p.LengthMM, w.LengthMM, err)
		}
		off := math.Abs(w.LengthMM - 160)
		if off >= math.Abs(was.LengthMM-160) || off < last {
			t.Errorf("%d of %s are %.1f mm off", w.Count, w.Name, off)
		}
		last = off
		if again, err := reach.ToWanted(q, plan.Options{}); err != nil || len(again) > 0 && again[0].Section == w.Section {
			t.Errorf("set so, %+v are nearer still: %v", again, err)
		}
	}
	// One that fills a length may grow as well.
	fills := d
	fills.Sequence = append(d.Sequence[:0:0], d.Sequence...)
	fills.Sequence[1].Count, fills.Sequence[1].FitMM = 0, 45
	if got, err := reach.ToWanted(fills, plan.Options{}); err != nil || len(got) != 2 || got[0].Section != 1 && got[1].Section != 1 {
		t.Errorf("where a section fills a length: %+v, %v", got, err)
	}
	d.Purpose.LengthMM = 0
	if got, err := reach.ToWanted(d, plan.Options{}); err != nil || len(got) != 0 {
		t.Errorf("wanting nothing: %+v, %v", got, err)
	}
}
