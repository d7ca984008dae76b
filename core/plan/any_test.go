package plan_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/knots/gap"
	"nimblebight/core/knots/mount"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// newOne is a section of a knot, so many times.
func newOne(do string, count int) knot.Section {
	s, err := knot.New(do)
	if err != nil {
		panic(err)
	}
	s.Count = count
	return s
}

// anyPiece is a piece put together at random from what the catalogue holds:
// what a maker could click together, sensible or not.
func anyPiece(r *rand.Rand) piece.Document {
	on := []piece.Hardware{piece.SplitRing(20+20*r.Float64(), 2), {Type: "rod", InnerMM: 30, WireMM: 4}, {Type: "swivel-clip", InnerMM: 25, WireMM: 3}, {Type: "carabiner", InnerMM: 30, WireMM: 4}}[r.IntN(4)]
	d := piece.Begin("any", "charm", on, float64(50+r.IntN(150)))
	stuffs := []cord.Stuff{piece.Kernmantle(4, "#0f5c63"), piece.Kernmantle(2.2, "#e3c88f"), piece.Cotton(5, "#e9e4d6")}
	stuff := func() cord.Stuff { return stuffs[r.IntN(len(stuffs))] }
	legs := []piece.Legs{{Equal: true}, {ShortInside: true}, {FirstMM: 100 + 900*r.Float64()}}
	// Cords of one kind work together, so that no row needs drawing up.
	one := stuff()
	put := func(id string, s cord.Stuff) {
		d.Cords = append(d.Cords, piece.Cord{ID: id, Stuff: s, Legs: legs[r.IntN(len(legs))]})
	}
	heads := mount.Of([]mount.Hitch{mount.LarksHead, mount.LarksHeadReversed}[r.IntN(2)])
	var names []string
	for i := range 1 + r.IntN(3) {
		id := string(rune('A' + i))
		put(id, one)
		names = append(names, id)
	}
	d.Sequence = append(d.Sequence, heads.Put("cords", names))
	if r.IntN(4) == 0 {
		put("L", one)
		d.Sequence = append(d.Sequence, mount.Of(mount.LaidBehind, "L"))
	}
	strands := 2 * len(d.Cords)
	for range r.IntN(6) {
		side := []string{"left", "right", ""}[r.IntN(3)]
		s := gap.Of(1 + 30*r.Float64())
		switch r.IntN(4) {
		case 0, 1:
			s = newOne("square-knot", 1+r.IntN(12)).Put("start", side)
			if r.IntN(4) == 0 {
				s.Count, s.FitMM = 0, 20+80*r.Float64()
			}
		case 2:
			s = newOne("half-knot", 1+r.IntN(15)).Put("hand", side)
		}
		if s.Do != "gap" {
			if strands < 4 {
				continue
			}
			if n := strands - 4; n > 0 && r.IntN(2) == 0 { // some of them, the others pass by
				from := r.IntN(n + 1)
				for p := range 4 {
					s.Strands = append(s.Strands, from+p+1)
				}
			} else if s.Do == "half-knot" && strands > 6 {
				continue
			}
		}
		d.Sequence = append(d.Sequence, s)
	}
	if r.IntN(2) == 0 {
		put("W", stuff())
		d.Sequence = append(d.Sequence, newOne("gather", 0).Put("cord", "W").Put("turns", 2+r.IntN(9)))
	}
	if r.IntN(3) > 0 {
		d.Sequence = append(d.Sequence, newOne("finish", 0).Put("how", []string{"dome", "fringe", "cut-straight", "singe-and-press"}[r.IntN(4)]).Put("ends", []int{1, strands}))
	}
	if r.IntN(3) > 0 && strands > 2 {
		d.Sequence = append(d.Sequence, newOne("finish", 0).Put("how", "cut-straight").Put("length_mm", 5+40*r.Float64()))
	}
	return d
}

// Whatever is put together, the plan holds together: nothing is lost, nothing
// is not a number, every cord adds up, every strand goes on from where it was,
// and what is wrong is said with a place.
func TestAnyPieceHoldsTogether(t *testing.T) {
	r := rand.New(rand.NewPCG(3, 5))
	for n := range 150 {
		d := anyPiece(r)
		line := notation.Notate(d.Sequence)
		if ps := d.Check(); len(ps) > 0 {
			t.Fatalf("%d: %s: %v", n, line, ps)
		}
		p, err := plan.Make(d, plan.Options{LeftHanded: r.IntN(2) == 0})
		if err != nil {
			t.Fatalf("%d: %s: %v", n, line, err)
		}
		if len(p.Sections) != len(d.Sequence) || len(p.Cords) != len(d.Cords) || p.Notation != line {
			t.Fatalf("%d: %s: %d sections, %d cords", n, line, len(p.Sections), len(p.Cords))
		}
		for _, c := range p.Cords {
			sum := 0.0
			for _, l := range c.Legs {
				for _, part := range l.Parts {
					sum += part.MM
				}
				if l.ShortMM < 0 || (l.ShortMM > 0) != (l.NeedsMM > l.CutMM+1e-9) {
					t.Fatalf("%d: %s: a leg of %s needs %v of %v, short by %v", n, line, c.ID, l.NeedsMM, l.CutMM, l.ShortMM)
				}
			}
			if math.Abs(sum-c.NeedsMM) > 1e-6 || math.IsNaN(c.CutMM) || c.SpreadMM < 0 {
				t.Fatalf("%d: %s: cord %s is %+v", n, line, c.ID, c)
			}
		}
		at := 0.0
		for _, s := range p.Sections {
			if math.Abs(s.TopMM-at) > 1e-9 || s.HeightMM < 0 {
				t.Fatalf("%d: %s: section %d from %v, the last ended at %v", n, line, s.Index, s.TopMM, at)
			}
			if s.Do != "finish" { // beside ends that are finished the others go on
				at += s.HeightMM
			}
			seen := map[string]bool{}
			for _, leg := range s.OrderAfter {
				if seen[leg] {
					t.Fatalf("%d: %s: %s hangs twice after section %d", n, line, leg, s.Index)
				}
				seen[leg] = true
			}
		}
		for _, s := range p.Layout().Strands {
			for k := 1; k < len(s.Points); k++ {
				a, b := s.Points[k-1], s.Points[k]
				if step := math.Sqrt((a.X-b.X)*(a.X-b.X) + (a.Z-b.Z)*(a.Z-b.Z)); step > 14 || math.IsNaN(step) {
					t.Fatalf("%d: %s: a strand of cord %d leaps %v mm aside", n, line, s.Cord, step)
				}
			}
			if len(s.Points) != len(s.Section) || len(s.Points) != len(s.Lies) {
				t.Fatalf("%d: %s: %d points, %d sections, %d lies", n, line, len(s.Points), len(s.Section), len(s.Lies))
			}
		}
		for _, w := range p.Warnings {
			if w.Message == "" || w.Section < -1 || w.Section >= len(d.Sequence) || (w.Fix != nil && w.Fix.Label == "") {
				t.Fatalf("%d: %s: a warning says %+v", n, line, w)
			}
		}
		if hangs := len(p.Sections[len(p.Sections)-1].OrderAfter); (hangs > 0) != strings.Contains(codes(p), "ends-not-finished") {
			t.Fatalf("%d: %s: %d strands hang on, warnings %q", n, line, hangs, codes(p))
		}
		steps := 0
		for _, s := range p.Steps {
			steps += s.Repeats * len(s.Actions)
			for _, a := range s.Actions {
				if a.Text == "" {
					t.Fatalf("%d: %s: a step without words", n, line)
				}
			}
		}
		if steps != p.Actions {
			t.Fatalf("%d: %s: %d actions, the steps add up to %d", n, line, p.Actions, steps)
		}
		if n%10 == 0 { // pictures take longer
			pic := scene.Render(p.Layout(), scene.View{PerMM: 2, Turn: float64(n % 360)})
			if pic.Empty() || pic.Width <= 0 || pic.Height <= 0 || len(pic.Bands) != len(p.Sections) {
				t.Fatalf("%d: %s: a picture of %d plates, %dx%d", n, line, len(pic.Places), pic.Width, pic.Height)
			}
		}
	}
}

// Stopped after any number of actions, the work in hand can be drawn.
func TestAnyPlaceAtTheViseCanBeShown(t *testing.T) {
	r := rand.New(rand.NewPCG(8, 1))
	for range 12 {
		d := anyPiece(r)
		whole := make1(t, d, plan.Options{})
		for _, n := range []int{1, 2, 3, 1 + r.IntN(whole.Actions), whole.Actions} {
			if n > whole.Actions {
				continue
			}
			p, err := plan.Make(d, plan.Options{Until: n})
			if err != nil {
				t.Fatalf("%s after %d: %v", notation.Notate(d.Sequence), n, err)
			}
			l := p.Layout()
			if len(l.Strands) == 0 || len(l.Sections) == 0 || slices.ContainsFunc(l.Moving, func(m plan.LegOf) bool { return m.Strand >= len(l.Strands) }) {
				t.Fatalf("%s after %d: %d strands, %d sections, %v move", notation.Notate(d.Sequence), n, len(l.Strands), len(l.Sections), l.Moving)
			}
		}
	}
}

// Strands that a section leaves out pass it by: they keep their places, lie
// outside it, and give only the cord of the way down.
func TestStrandsLeftOutPassBy(t *testing.T) {
	s := piece.Kernmantle(4, "#0f5c63")
	d := notation.With(piece.Begin("six", "charm", piece.SplitRing(50, 2), 0), "mount A B C, square-knot 4 strands=2-5, gap 5mm, finish dome",
		piece.Cord{ID: "A", Stuff: s}, piece.Cord{ID: "B", Stuff: s}, piece.Cord{ID: "C", Stuff: s})
	p := make1(t, d, plan.Options{})
	if got := strings.Join(p.Sections[1].OrderAfter, " "); got != "A.1 A.2 B.1 B.2 C.1 C.2" {
		t.Errorf("after it they hang %s", got)
	}
	row := p.Sections[1]
	if len(row.Use) != 6 {
		t.Fatalf("the row takes cord of %d strands", len(row.Use))
	}
	for _, u := range row.Use {
		if (u.Strand == 1 || u.Strand == 6) && u.MM > row.HeightMM+12 {
			t.Errorf("strand %d is left out, yet the row takes %v mm of it", u.Strand, u.MM)
		}
	}
	past := 0.0
	for _, part := range p.Cords[0].Legs[0].Parts {
		if part.Section == 1 {
			past = part.MM
		}
	}
	if past < 0.9*row.HeightMM || past > row.HeightMM+12 {
		t.Errorf("past a row %.1f mm high the outer strand gives %.1f mm", row.HeightMM, past)
	}
	// Its middle is inside them.
	for _, st := range p.Layout().Strands {
		for k, v := range st.Points {
			if st.Section[k] != 1 || v.Y < row.TopMM+12 || v.Y > row.TopMM+row.HeightMM-5 {
				continue
			}
			outer := (st.Cord == 0 && k >= st.Fold) || (st.Cord == 2 && k < st.Fold)
			if outer && math.Abs(v.X) < 8 {
				t.Fatalf("a strand left out lies %.1f mm from the middle, inside the row", v.X)
			}
		}
	}
}

func TestEndsMayBeFinishedApart(t *testing.T) {
	d := pattern(t, "two-colour-fob")
	d.Sequence = append(d.Sequence[:2:2], newOne("finish", 0).Put("how", "cut-straight").Put("ends", []int{2, 3}).Put("length_mm", 40.0), newOne("finish", 0).Put("how", "dome"))
	p := make1(t, d, plan.Options{})
	if len(p.Warnings) > 1 || (len(p.Warnings) == 1 && p.Warnings[0].Code != "length-off") {
		t.Errorf("warnings %+v", p.Warnings)
	}
	if got := strings.Join(p.Sections[2].OrderAfter, " "); got != "A.1 B.2" {
		t.Errorf("after the first finish hang %s", got)
	}
	tails := map[string]float64{}
	for _, s := range p.Sections[2:] {
		for _, u := range s.Use {
			tails[u.Cord] += u.MM
		}
	}
	for _, c := range []string{"A", "B"} {
		if math.Abs(tails[c]-46) > 0.5 { // 40 and a diameter and a half
			t.Errorf("the tails of %s are %.1f mm", c, tails[c])
		}
	}
}
