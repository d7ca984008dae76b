package inspect_test

import (
	"math"
	"strings"
	"testing"

	"nimblebight/core/inspect"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

func of(t *testing.T, line string, ids ...string) (piece.Document, plan.Plan, []inspect.Item) {
	t.Helper()
	var cords []piece.Cord
	for i, id := range ids {
		cords = append(cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(4, []string{piece.Lagoon, piece.Sand, piece.Rust}[i])})
	}
	d := notation.With(piece.Begin("inspected", "key-fob", piece.SplitRing(30, 2), 0), line, cords...)
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return d, p, inspect.Of(d, p, plan.Options{})
}

// points are where the strands of a state run, in its stretch.
func points(s *inspect.Shown) []float64 {
	var out []float64
	for _, l := range s.Plan.Layout().Strands {
		for _, v := range l.Points {
			if v.Y > s.FromMM && v.Y < s.ToMM {
				out = append(out, v.X, v.Y, v.Z)
			}
		}
	}
	return out
}

func differ(a, b []float64) bool {
	if len(a) != len(b) {
		return true
	}
	for i := range a {
		if math.Abs(a[i]-b[i]) > 0.5 {
			return true
		}
	}
	return false
}

// Of every pattern: something is inspected, each item has its words and its own name, and
// what is wrong is another state of the curves, in as long a stretch.
func TestEveryPatternIsInspected(t *testing.T) {
	wrongs := 0
	for _, pat := range patterns.All() {
		p, err := plan.Make(pat.Document, plan.Options{})
		if err != nil {
			t.Fatal(err)
		}
		items := inspect.Of(pat.Document, p, plan.Options{})
		if len(items) == 0 {
			t.Errorf("%s: %d things to inspect", pat.ID, len(items))
		}
		ids := map[string]bool{}
		for _, i := range items {
			if ids[i.ID] || i.What == "" || i.How == "" || i.Where == "" {
				t.Errorf("%s: %+v", pat.ID, i)
			}
			ids[i.ID] = true
			if i.Wrong == nil {
				continue
			}
			wrongs++
			if i.Right == nil || i.Back == "" || i.Wrong.Says == "" {
				t.Errorf("%s, %s: what is wrong has no right beside it, or no way back", pat.ID, i.What)
				continue
			}
			if !differ(points(i.Right), points(i.Wrong)) {
				t.Errorf("%s, %s: what is wrong is the same as what is right", pat.ID, i.What)
			}
			if a, b := i.Right.ToMM-i.Right.FromMM, i.Wrong.ToMM-i.Wrong.FromMM; math.Abs(a-b) > 0.2*a {
				t.Errorf("%s, %s: right is shown %.0f mm long, wrong %.0f", pat.ID, i.What, a, b)
			}
		}
	}
	if wrongs < 40 {
		t.Errorf("over all patterns %d wrong states are drawn", wrongs)
	}
}

func find(items []inspect.Item, what string) *inspect.Item {
	for i := range items {
		if strings.Contains(items[i].What, what) {
			return &items[i]
		}
	}
	return nil
}

// A row of square knots can be a spiral, begun from the other side, and one short; its
// legs can be uneven by what a knot takes.
func TestTheSlipsOfARow(t *testing.T) {
	_, p, items := of(t, "mount A B, square-knot 8, finish singe-and-press", "A", "B")
	granny := find(items, "begun on opposite sides")
	if granny == nil || granny.Wrong == nil || granny.Wrong.Document.Sequence[1].Count != 16 {
		t.Fatalf("a granny: %+v", granny)
	}
	side := find(items, "also after every pause")
	if side == nil || side.Wrong == nil || len(side.Wrong.Document.Sequence) != 4 {
		t.Fatalf("gone on with from the other side: %+v", side)
	}
	short := find(items, "8 are tied")
	if short == nil || short.Wrong == nil {
		t.Fatalf("one missing: %+v", short)
	}
	if got, want := p.LengthMM-short.Wrong.Plan.LengthMM, p.Sections[1].KnotMM; math.Abs(got-want) > 0.01 {
		t.Errorf("with one missing it is %.2f mm shorter, a knot is %.2f", got, want)
	}
	legs := find(items, "fold still sits")
	if legs == nil {
		legs = find(items, "legs are even")
	}
	if legs == nil || legs.Right == nil || legs.Wrong == nil {
		t.Fatalf("legs: %+v", legs)
	}
	var hang []float64
	for _, e := range legs.Wrong.Plan.Endings {
		hang = append(hang, e.LeavesMM)
	}
	takes := p.Sections[1].Use[0].MM / 8
	if d := math.Abs(hang[0] - hang[1]); math.Abs(d-takes) > 0.01*takes {
		t.Errorf("its legs are uneven by %.1f mm, a knot takes %.1f", d, takes)
	}
}

// How much of the fillers may be seen is what the picture shows: of a spiral, which is
// drawn open, more than of a flat row; pressed together it is a trace.
func TestFillersShowAsInThePicture(t *testing.T) {
	_, p, items := of(t, "mount A B, square-knot 10, finish singe-and-press", "A", "B")
	item := find(items, "tied over")
	if item == nil {
		t.Fatal("nothing is said of the fillers")
	}
	s := p.Sections[1]
	view := scene.View{PerMM: 8, From: s.TopMM + s.KnotMM, To: s.TopMM + s.HeightMM - s.KnotMM}
	row := scene.Fillers(p.Layout(), view)
	if row < 0 || row > 0.15 {
		t.Errorf("fillers show on %.1f %% of a row", 100*row)
	}
	if strings.HasPrefix(item.What, "No strand") != (row < 0.002) {
		t.Errorf("%q, and they show on %.2f %%", item.What, 100*row)
	}
	// Bare strands between two rows are no fillers, and hide nothing.
	view.From, view.To = s.TopMM-3, s.TopMM-1
	if bare := scene.Fillers(p.Layout(), view); bare != 0 {
		t.Errorf("above the row fillers show on %.1f %%", 100*bare)
	}
}

// What cannot be tied is not drawn as wrong, and a piece of nothing is not inspected.
func TestAnEmptyPiece(t *testing.T) {
	d := piece.Begin("empty", "key-fob", piece.SplitRing(30, 2), 0)
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	if items := inspect.Of(d, p, plan.Options{}); len(items) != 0 {
		t.Errorf("%+v", items)
	}
}

func BenchmarkOf(b *testing.B) {
	pat := patterns.All()[0]
	p, err := plan.Make(pat.Document, plan.Options{})
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		inspect.Of(pat.Document, p, plan.Options{})
	}
}

// What is measured is judged by how far it lies from the plan, in spreads; what cannot be
// is refused.
func TestMeasuredSizesAreJudged(t *testing.T) {
	_, p, _ := of(t, "mount A B, square-knot 10, finish singe-and-press", "A", "B")
	for _, s := range inspect.Sizes(p) {
		if s.SpreadMM < 1 || s.SpreadMM > 0.2*s.PlanMM {
			t.Errorf("%s of %.1f mm differs by %.1f", s.Key, s.PlanMM, s.SpreadMM)
		}
		for by, want := range map[float64]string{0: "right", 0.9: "right", -0.9: "right", 1.5: "near", -1.5: "near", 2.5: "off", -2.5: "off"} {
			v, err := s.Judge(s.PlanMM + by*s.SpreadMM)
			if err != nil || v.Level != want || v.Says == "" {
				t.Errorf("%s, %.1f spreads off: %+v, %v; want %s", s.Key, by, v, err, want)
			}
		}
		for _, mm := range []float64{0, -3, 1e6, math.NaN(), math.Inf(1)} {
			if v, err := s.Judge(mm); err == nil {
				t.Errorf("%s of %g mm: %+v", s.Key, mm, v)
			}
		}
	}
}
