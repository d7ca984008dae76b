package ends_test

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/finish"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
	"nimblebight/core/knots/ends"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// four are strands of a stuff side by side.
func four(s cord.Stuff, n int) []knot.Strand {
	var out []knot.Strand
	f := s.Figures()
	for i := range n {
		out = append(out, knot.Strand{Cord: i, Stuff: s, Figures: f, Diameter: f.DrawnUpMM, Dir: r3.Vec{Y: 1},
			At: r3.Vec{X: (float64(i) - float64(n-1)/2) * f.DrawnUpMM}})
	}
	return out
}

// above are so many strands at the back over the way up, a diameter and a half apart.
func above(n int, d float64) func(int) []knot.Cover {
	return func(strand int) []knot.Cover {
		var out []knot.Cover
		for k := range n {
			up := d * (1 + 1.5*float64(k))
			out = append(out, knot.Cover{UpMM: up, At: r3.Vec{X: (float64(strand) - 1.5) * d, Y: -up, Z: -0.9 * d}})
		}
		return out
	}
}

func stuff(m cord.Material, mm float64) cord.Stuff {
	mk := cord.Make("kernmantle")
	if !m.Melts() {
		mk = "single-strand"
	}
	return cord.Stuff{Make: mk, Material: m, DiameterMM: mm}
}

func work(s cord.Stuff, n int, set ends.Settings) knot.Work {
	return knot.Work{Section: knot.Section{Do: "finish", Settings: set}, Strands: four(s, n), Covers: above(6, s.Figures().DrawnUpMM)}
}

func tie(t *testing.T, w knot.Work) knot.Tied {
	t.Helper()
	tied, err := knot.Tie(w)
	if err != nil {
		t.Fatalf("%+v: %v", w.Section.Settings, err)
	}
	return tied
}

// settings of a finish that can be tied on four strands.
func settings(f finish.Finish, by float64) ends.Settings {
	set := ends.Settings{How: ends.How(f.ID)}
	if f.WantsLength {
		set.LengthMM = 24 * by
	}
	if f.WantsBead {
		set.Bead = &knot.Bead{HoleMM: 9 * by, LengthMM: 8 * by, WidthMM: 13 * by}
	}
	return set
}

func strandsFor(f finish.Finish) int {
	if f.Form == finish.Fused {
		return 2
	}
	return 4
}

// Of every finish: each end has its figures, the picture as much cord as the figures say,
// and no word is left to be filled in.
func TestEveryFinishIsTiedAndMeasured(t *testing.T) {
	for _, f := range finish.All() {
		s := stuff("nylon", 4)
		if !f.Suits(s) {
			s = stuff("cotton", 4)
		}
		if !f.Suits(s) {
			s = cord.Stuff{Make: "leather", Material: "leather", DiameterMM: 4}
		}
		n := strandsFor(f)
		tied := tie(t, work(s, n, settings(f, 1)))
		if len(tied.Endings) != n || len(tied.Paths) != n || !tied.Ends {
			t.Fatalf("%s: %d endings, %d paths", f.ID, len(tied.Endings), len(tied.Paths))
		}
		for i, e := range tied.Endings {
			long := knot.Curve(tied.Paths[i].Points).Length()
			said := e.LeavesMM + e.HidesMM
			if f.Form == finish.Fused { // two bows, as wide as they hang long
				said = long
			}
			// Where strands are led together their way is a little longer than straight down.
			if long < said-1e-6 || long > said*1.12+1 {
				t.Errorf("%s: end %d is %.2f mm of cord, said are %.2f", f.ID, i+1, long, said)
			}
			if math.Abs(e.CutMM-e.LeavesMM-e.MeltsMM) > 1e-9 || e.TrimsMM < 0 || e.Form == "" {
				t.Errorf("%s: end %d: %+v", f.ID, i+1, e)
			}
		}
		cuts := false
		for _, m := range tied.Moves {
			said := m.Say(move.Names{Places: []int{1, 2, 3, 4}, Cords: []string{"A", "B", "C", "D"}})
			if strings.Contains(said.Text, "{cut}") || strings.Contains(said.Text, "{hide}") || strings.Contains(said.Text, "{under}") {
				t.Errorf("%s: %q", f.ID, said.Text)
			}
			cuts = cuts || strings.Contains(m.Text, "mm}")
		}
		if !cuts {
			t.Errorf("%s: no step says where the scissors cut", f.ID)
		}
	}
}

// Twice the cord, twice the sizes that were chosen: what each finish leaves in diameters
// doubles, and so does what it hides.
func TestFinishesGrowWithTheCord(t *testing.T) {
	for _, id := range []string{"dome", "melt-two", "bead-and-melt", "set-a-loop", "bury", "pinch-flat", "weld-a-drop"} {
		f, _ := finish.Get(id)
		a, b := tie(t, work(stuff("nylon", 3), 4, settings(f, 1))), tie(t, work(stuff("nylon", 6), 4, settings(f, 2)))
		if math.Abs(b.Height-2*a.Height) > 0.02*a.Height+1e-9 {
			t.Errorf("%s is %.2f mm tall, of twice the cord %.2f", id, a.Height, b.Height)
		}
		for i := range a.Endings {
			x, y := a.Endings[i], b.Endings[i]
			if math.Abs(y.LeavesMM-2*x.LeavesMM) > 0.02*x.LeavesMM+1e-9 || math.Abs(y.HidesMM-2*x.HidesMM) > 0.02*x.HidesMM+1e-9 {
				t.Errorf("%s: %+v, of twice the cord %+v", id, x, y)
			}
		}
	}
}

// An end is buried under as many crossings as lie over it, the more of them the longer it
// hides, and never under more than there are.
func TestAnEndIsBuriedUnderWhatLiesOverIt(t *testing.T) {
	w := work(stuff("nylon", 4), 4, ends.Settings{How: "bury"})
	last := 0.0
	for under := 1; under <= 6; under++ {
		w.Section.Settings = ends.Settings{How: "bury", Under: under}
		tied := tie(t, w)
		if got := tied.Endings[0].HidesMM; got <= last {
			t.Errorf("under %d crossings it hides %.1f mm, under one less %.1f", under, got, last)
		}
		last = tied.Endings[0].HidesMM
		if !strings.Contains(tied.Moves[1].Text, fmt.Sprintf("under %d crossings", under)) {
			t.Errorf("under %d: %q", under, tied.Moves[1].Text)
		}
	}
	w.Section.Settings = ends.Settings{How: "bury", Under: 7}
	refused(t, w, "under", 6)
	w.Covers = nil
	refused(t, w, "how", "singe-and-press")
}

func refused(t *testing.T, w knot.Work, field string, set any) {
	t.Helper()
	_, err := knot.Tie(w)
	var r *knot.Refused
	if !errors.As(err, &r) || r.Field != field || r.Set != set || r.Label == "" {
		t.Errorf("%+v: %v, want %s with %v", w.Section.Settings, err, field, set)
	}
}

func TestWhatCannotBeMadeOneIsRefused(t *testing.T) {
	nylon := stuff("nylon", 4)
	refused(t, work(nylon, 3, ends.Settings{How: "melt-two"}), "how", "singe-and-press")
	refused(t, work(nylon, 1, ends.Settings{How: "bind-together", LengthMM: 20}), "how", "singe-and-press")
	refused(t, work(nylon, 3, ends.Settings{How: "fuse"}), "how", "singe-and-press")
	for _, how := range []string{"fuse", "melt-two", "bead-and-melt"} {
		w := work(nylon, 2, ends.Settings{How: ends.How(how), Bead: &knot.Bead{HoleMM: 9, LengthMM: 8, WidthMM: 13}})
		w.Strands[1].Stuff.Material = "polyester"
		refused(t, w, "how", "singe-and-press")
	}
	refused(t, work(nylon, 4, ends.Settings{How: "set-a-loop", LengthMM: 3}), "length_mm", math.Ceil(2*nylon.Figures().DrawnUpMM))
	small := work(nylon, 2, ends.Settings{How: "bead-and-melt", Bead: &knot.Bead{HoleMM: 3, LengthMM: 8, WidthMM: 13}})
	if _, err := knot.Tie(small); err == nil || !strings.Contains(err.Error(), "its hole is 3.0 mm") {
		t.Errorf("two ends pass a bead of 3 mm: %v", err)
	}
}

// Beads on pairs hang side by side, however near the pairs are.
func TestBeadsOnPairsDoNotMeet(t *testing.T) {
	tied := tie(t, work(stuff("nylon", 2.2), 6, ends.Settings{How: "bead-and-melt", Bead: &knot.Bead{HoleMM: 5, LengthMM: 8, WidthMM: 14}}))
	if len(tied.Beads) != 3 {
		t.Fatalf("%d beads on three pairs", len(tied.Beads))
	}
	for i := 1; i < 3; i++ {
		if d := tied.Beads[i].At.X - tied.Beads[i-1].At.X; d < 14-1e-9 {
			t.Errorf("beads of 14 mm hang %.2f mm apart", d)
		}
	}
}

// The left hand's ends are the mirror of the right hand's.
func TestTheLeftHandFinishesAlike(t *testing.T) {
	for _, id := range []string{"bury", "melt-two", "dome"} {
		f, _ := finish.Get(id)
		w := work(stuff("nylon", 4), 4, settings(f, 1))
		right := tie(t, w)
		w.LeftHanded = true
		left := tie(t, w)
		var a, b []float64
		for i := range right.Endings {
			a, b = append(a, math.Round(1e6*right.Endings[i].CutMM+1e6*right.Endings[i].HidesMM)), append(b, math.Round(1e6*left.Endings[3-i].CutMM+1e6*left.Endings[3-i].HidesMM))
		}
		if !slices.Equal(a, b) {
			t.Errorf("%s: right %v, left mirrored %v", id, a, b)
		}
	}
}

// An end tells the length that was asked for, not that of its way: a loop of 12 mm takes
// more than three times as much cord.
func TestWhatWasAskedForIsTold(t *testing.T) {
	loop := tie(t, work(stuff("nylon", 4), 4, ends.Settings{How: "set-a-loop", LengthMM: 12})).Endings[0]
	if loop.AskedMM != 12 || loop.LeavesMM < math.Pi*12 {
		t.Errorf("%+v", loop)
	}
	if own := tie(t, work(stuff("nylon", 4), 4, ends.Settings{How: "set-a-loop"})).Endings[0]; own.AskedMM != 12 {
		t.Errorf("of three diameters of 4 mm it is %g mm inside", own.AskedMM)
	}
	if buried := tie(t, work(stuff("nylon", 4), 4, ends.Settings{How: "bury"})).Endings[0]; buried.Under != finish.LeastUnder {
		t.Errorf("it is buried under %d", buried.Under)
	}
}

// In hand, ends hang on till they are cut, are plain after that, and have their form at last: of
// every finish.
func TestEndsAreFinishedStepByStep(t *testing.T) {
	looked := 0
	for _, f := range finish.All() {
		s := cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
		n := max(2, f.Together)
		w := knot.Work{Section: knot.Section{Do: "finish", Settings: ends.Settings{How: ends.How(f.ID), LengthMM: 12}}, Strands: four(s, n), Covers: above(6, s.DrawnUp())}
		tied, err := knot.Tie(w)
		if err != nil {
			t.Logf("%s: %v", f.ID, err)
			continue
		}
		looked++
		first, _, err := knot.Hold(w, 0, 0.1)
		if err != nil || first.Ends || len(first.Endings) > 0 {
			t.Errorf("%s: before its first step the ends are finished as %+v: %v", f.ID, first.Endings, err)
		}
		was := 0 // 0 for hanging on, 1 for plain, 2 for finished
		for k := range tied.Moves {
			held, ok, err := knot.Hold(w, k, 1)
			if err != nil || !ok {
				t.Fatalf("%s, step %d: %v, %v", f.ID, k+1, ok, err)
			}
			now := 0
			switch {
			case !held.Ends:
			case held.Endings[0].Form == string(f.Form):
				now = 2
			default:
				now = 1
			}
			if now < was {
				t.Errorf("%s, step %d: it was further before", f.ID, k+1)
			}
			was = now
			if cut := strings.HasPrefix(tied.Moves[k].Text, "Cut"); cut && now == 0 {
				t.Errorf("%s, step %d: they are cut, and hang on", f.ID, k+1)
			}
		}
		if was != 2 {
			t.Errorf("%s: after its last step the ends are not finished", f.ID)
		}
	}
	if looked < 12 {
		t.Errorf("only %d finishes can be tied", looked)
	}
}
