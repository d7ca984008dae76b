package ball

import (
	"errors"
	"fmt"
	"math"
	"strings"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"

	"nimblebight/core/curve"
)

// rope is a hard rope of a diameter: no give, seen as thick as it is.
func rope(mm float64) Cord { return Cord{DiameterMM: mm, CoverMM: mm, GramsPerMetre: mm * mm} }

func each(t *testing.T, f func(t *testing.T, a Ask)) {
	for _, mode := range Modes() {
		for _, tail := range []bool{false, true} {
			for p := LeastPasses; p <= MostPasses; p++ {
				a := Ask{Cord: rope(4), Passes: p, Mode: mode, Tail: tail}
				if (tail && mode != OneCord) || !a.family().takes(p) || mode == TwoCords && p == 2 { // no stopper is so small
					continue
				}
				t.Run(fmt.Sprintf("%s %d", a.family(), p), func(t *testing.T) { f(t, a) })
			}
		}
	}
}

func ball(t *testing.T, a Ask) Ball {
	t.Helper()
	b, err := Make(a)
	if err != nil {
		t.Fatal(err)
	}
	return b
}

func near(t *testing.T, what string, got, want, share float64) {
	t.Helper()
	if math.Abs(got-want) > share*math.Abs(want) {
		t.Errorf("%s is %.4g, wanted %.4g within %.2g %%", what, got, want, 100*share)
	}
}

func TestTwiceAsThickIsTwiceAsLarge(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		b := ball(t, a)
		a.Cord = rope(8)
		c := ball(t, a)
		const exact = 1e-9
		near(t, "the cord", c.CordMM, 2*b.CordMM, exact)
		near(t, "a turn", c.LoopMM, 2*b.LoopMM, exact)
		near(t, "across the faces", c.FaceMM, 2*b.FaceMM, exact)
		near(t, "across the corners", c.CornerMM, 2*b.CornerMM, exact)
		near(t, "the least core", c.Range.LeastMM, 2*b.Range.LeastMM, exact)
		near(t, "the largest core", c.Range.MostMM, 2*b.Range.MostMM, exact)
		near(t, "the weight", c.WeightG, 8*b.WeightG, exact)
		for i := range b.BandsMM {
			near(t, "a band", c.BandsMM[i], 2*b.BandsMM[i], exact)
		}
	})
}

func TestMorePassesWantALargerCore(t *testing.T) {
	for _, mode := range Modes() {
		var last Range
		for _, p := range (Ask{Mode: mode}).passes() {
			r, err := Cores(Ask{Cord: rope(4), Passes: p, Mode: mode})
			if err != nil {
				t.Fatal(err)
			}
			if r.LeastMM > r.BestMM || r.BestMM > r.MostMM {
				t.Errorf("%s, %d passes: %v is no range", mode, p, r)
			}
			if r.LeastMM <= last.LeastMM || r.MostMM <= last.MostMM || r.BestMM <= last.BestMM {
				t.Errorf("%s: %d passes take %v, fewer took %v", mode, p, r, last)
			}
			last = r
		}
	}
}

func TestALargerCoreTakesMoreCord(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		r, err := Cores(a)
		if err != nil {
			t.Fatal(err)
		}
		var last Ball
		for u := 0.0; u <= 1; u += 0.125 {
			if a.Passes == 2 { // on two turns a larger core hardly changes the width
				last.FaceMM = 0
			}
			a.Core.DiameterMM = r.LeastMM + u*(coreSteps(a.Passes)[len(coreSteps(a.Passes))-1]*4-r.LeastMM)
			b := ball(t, a)
			if b.CordMM <= last.CordMM || b.FaceMM <= last.FaceMM || b.WeightG <= last.WeightG {
				t.Errorf("on %.1f mm it takes %.1f mm of cord, is %.2f mm wide and weighs %.1f g; on less %.1f, %.2f and %.1f", a.Core.DiameterMM, b.CordMM, b.FaceMM, b.WeightG, last.CordMM, last.FaceMM, last.WeightG)
			}
			last = b
		}
	})
}

// Each cord is as long as the bands that it makes.
func TestTwoCordsDifferByTheirBands(t *testing.T) {
	for p := 3; p <= MostPasses; p++ {
		b := ball(t, Ask{Cord: rope(3), Passes: p, Mode: TwoCords})
		near(t, "the first cord", b.CordsMM[0], b.BandsMM[0], 1e-9)
		near(t, "the second without its second band", b.CordsMM[1]-b.BandsMM[1], b.BandsMM[2], 1e-9)
	}
}

// Published for hard rope: three bands of p turns of 2 pi (r + d), and 3 to 10
// diameters for the corners; snug on a core of p diameters; covered up to about
// (1.73 p - 2) diameters.
func TestTheClosedForms(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		if a.Passes < 3 {
			return // two turns lie on no corner
		}
		r, err := Cores(a)
		if err != nil {
			t.Fatal(err)
		}
		a.Core = Core{Kind: Wood, DiameterMM: r.BestMM}
		b := ball(t, a)
		d := a.Cord.DiameterMM
		turns := b.CordMM / b.LoopMM // as its curve winds
		loop := 2 * math.Pi * (b.Core.DiameterMM/2 + d)
		if lo, hi := turns*loop+3*d, turns*loop+10*d; b.CordMM < 0.95*lo || b.CordMM > 1.05*hi {
			t.Errorf("it takes %.0f mm; %.1f turns of %.1f mm and their corners are %.0f to %.0f", b.CordMM, turns, loop, lo, hi)
		}
		near(t, "the least core", b.Range.LeastMM, float64(a.Passes)*d, 0.11)
		if b.Range.MostMM < 0.73*(1.73*float64(a.Passes)-2)*d || b.Range.MostMM > 1.25*(1.73*float64(a.Passes)-2)*d {
			t.Errorf("corners are covered to %.1f mm; about %.1f is published", b.Range.MostMM, (1.73*float64(a.Passes)-2)*d)
		}
	})
	for p := 3; p <= MostPasses; p++ { // hidden inside, all turns are whole
		b := ball(t, Ask{Cord: rope(4), Passes: p, Mode: OneCord})
		whole := 3 * float64(p) * 2 * math.Pi * (b.Core.DiameterMM/2 + 4)
		if b.CordMM < 0.95*(whole+12) || b.CordMM > 1.05*(whole+40) {
			t.Errorf("%d passes take %.0f mm, by the closed form %.0f to %.0f", p, b.CordMM, whole+12, whole+40)
		}
	}
}

// Published: a fist of three passes on a ball of radius 1.7 takes 160.2
// diameters, with no core 149.5.
func TestPublishedRope(t *testing.T) {
	b := ball(t, Ask{Cord: rope(1), Passes: 3, Mode: OneCord, Core: Core{Kind: Marble, DiameterMM: 3.4}})
	near(t, "three passes on 3.4", b.CordMM, 160.2, 0.035)
	b = ball(t, Ask{Cord: rope(1), Passes: 3, Mode: OneCord, Core: Core{Kind: Wadding, DiameterMM: 1}})
	near(t, "three passes on nothing", b.CordMM, 149.5, 0.035)
}

// No strand passes through another, on any core, drawn up or taken between: in
// the middle between two cores they come nearest.
func TestNoStrandPassesThroughAnother(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		steps := coreSteps(a.Passes)
		for i, core := range steps {
			at := []float64{core}
			if i > 0 {
				at = append(at, (steps[i-1]+core)/2)
			}
			for n, core := range at {
				a.Core.DiameterMM = 4 * core
				least := []float64{0.96, 0.88}[n] // drawn up, and mixed
				if g := thickness(ball(t, a)); g < least {
					t.Errorf("on a core of %.2f diameters strands come as near as %.3f of one", core, g)
				}
			}
		}
	})
}

// thickness is the least distance of strands over their diameter.
func thickness(b Ball) float64 {
	var tracks [][]r3.Vec
	for _, s := range b.strands {
		n := int((curve.Curve{Points: s.Points}).Length() / 0.15)
		tracks = append(tracks, curve.Spline(s.Points, false).Resample(n).Points)
	}
	return leastGap(tracks, 0)
}

func TestSixFaces(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		r, err := Cores(a)
		if err != nil {
			t.Fatal(err)
		}
		a.Core = Core{Kind: Wood, DiameterMM: r.BestMM}
		b := ball(t, a)
		shown := map[int]int{} // faces by the cord that is seen on them
		for i, f := range b.Faces() {
			if f.Flaw == "a turn is missing" && (a.Passes == 2 || a.Tail && a.Passes == 3 || a.Mode == Doubled && a.Passes < 8) {
				told := false // few turns do not hold the first one on its face
				for _, w := range b.Warnings {
					told = told || w.Code == "turn-on-edge"
				}
				if told {
					shown[f.Cords[0]]++
					continue
				}
			}
			if f.Flaw != "" || len(f.Cords) != a.Passes || f.Band != i/2 {
				t.Errorf("face %d of band %d shows %v: %s", i+1, f.Band, f.Cords, f.Flaw)
			}
			if a.Mode != Doubled {
				shown[f.Cords[0]]++
			}
			for k, c := range f.Cords {
				if a.Mode == Doubled && k > 0 && c == f.Cords[k-1] && k%2 == 1 {
					t.Errorf("face %d: leads do not run in pairs: %v", i+1, f.Cords)
				}
			}
		}
		if a.Mode == TwoCords && (shown[0] != 2 || shown[1] != 4) {
			t.Errorf("the cords are seen on %v faces", shown)
		}
		if !b.Over(1, 0) || !b.Over(2, 1) || !b.Over(0, 2) || b.Over(0, 1) {
			t.Error("each band lies over the one before it and the first over the last")
		}
	})
}

func TestQuestionsAreAnsweredBothWays(t *testing.T) {
	a := Ask{Cord: rope(4), Mode: OneCord}
	for p := 3; p <= MostPasses; p++ {
		a.Passes = p
		b := ball(t, a)
		balls, err := OfSize(a, b.FaceMM)
		if err != nil {
			t.Fatal(err)
		}
		found := false
		for _, q := range balls {
			near(t, "the size asked for", q.FaceMM, b.FaceMM, 1e-3)
			found = found || q.Passes == p && math.Abs(q.Core.DiameterMM-b.Core.DiameterMM) < 0.1
		}
		if !found {
			t.Errorf("%.1f mm wide is not answered with %d passes on %.1f mm", b.FaceMM, p, b.Core.DiameterMM)
		}
		c, err := FromCord(a, b.CordMM+100.01, 100)
		if err != nil || c.Passes != p {
			t.Errorf("from the cord of %d passes %d are tied, %v", p, c.Passes, err)
		}
		if n, ok := Suits(a, b.Core.DiameterMM); !ok || n < p-1 || n > p+1 {
			t.Errorf("on the best core of %d passes %d suit", p, n)
		}
	}
	if b, err := FromCord(Ask{Cord: rope(4), Mode: TwoCords}, 3000, 100); err != nil || b.Passes < 3 {
		t.Errorf("two cords, of which no stopper is small enough for two passes: %d passes, %v", b.Passes, err)
	}
	if _, err := FromCord(a, 120, 100); err == nil || !strings.Contains(err.Error(), "smallest takes") {
		t.Errorf("from 20 mm of cord: %v", err)
	}
	if _, err := OfSize(a, 900); err == nil || !strings.Contains(err.Error(), "nearest") {
		t.Errorf("a ball of 900 mm: %v", err)
	}
}

func TestTheDrawerIsSorted(t *testing.T) {
	a := Ask{Cord: rope(4), Passes: 4, Mode: OneCord}
	r, err := Cores(a)
	if err != nil {
		t.Fatal(err)
	}
	small, large := Core{Kind: Wood, DiameterMM: r.LeastMM - 3}, Core{Kind: Wood, DiameterMM: r.MostMM + 4}
	js, err := Drawer(a, []Core{large, {Kind: Marble, DiameterMM: r.MostMM}, small, {Kind: Steel, DiameterMM: r.BestMM}})
	if err != nil || len(js) != 4 {
		t.Fatal(js, err)
	}
	if !js[0].Suits || js[0].Core.Kind != Steel || !js[1].Suits || js[2].Suits || js[3].Suits {
		t.Errorf("sorted as %+v", js)
	}
	for _, j := range js[2:] {
		want := "{3.0mm} too small"
		if j.Core.DiameterMM == large.DiameterMM {
			want = "{4.0mm} too large"
			if j.Passes <= 4 {
				t.Errorf("for a larger core %d passes are offered", j.Passes)
			}
		}
		if !strings.Contains(j.Why, want) {
			t.Errorf("%v: %s", j.Core, j.Why)
		}
	}
}

func TestChartAgreesWithBalls(t *testing.T) {
	a := Ask{Cord: rope(4), Mode: OneCord}
	cols, err := Chart(a, []float64{6, 14, 22, 400})
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range cols {
		a.Passes = c.Passes
		for _, cell := range c.Cells {
			a.Core.DiameterMM = cell.CoreMM
			b, err := Make(a)
			var no *Refused
			if errors.As(err, &no) {
				if cell.CordMM != 0 || cell.Fit != 1 {
					t.Errorf("%d passes on %.0f mm are refused, in the chart %+v", c.Passes, cell.CoreMM, cell)
				}
				continue
			}
			if err != nil {
				t.Fatal(err)
			}
			near(t, "the cord in the chart", cell.CordMM, b.CordMM, 1e-9)
			if (cell.Fit == 0) != b.Range.Holds(cell.CoreMM) {
				t.Errorf("%d passes on %.0f mm: %+v, range %v", c.Passes, cell.CoreMM, cell, b.Range)
			}
		}
	}
}

func TestWhatCannotBeIsRefusedWithWhatCan(t *testing.T) {
	fine := Ask{Cord: rope(4), Passes: 3, Mode: OneCord}
	for name, c := range map[string]struct {
		change func(*Ask)
		field  string
		words  string
		passes int
	}{
		"one pass":                 {func(a *Ask) { a.Passes = 1 }, "passes", "two are the least", 2},
		"nine on a bead":           {func(a *Ask) { a.Passes, a.Core.DiameterMM = 9, 8 }, "passes", "8.0 mm take 2", 2},
		"nine on a pea":            {func(a *Ask) { a.Passes, a.Core.DiameterMM = 9, 3 }, "passes", "too small", 2},
		"leather asked to flatten": {func(a *Ask) { a.Cord.Leather, a.Cord.Give = true, 0.2 }, "give", "leather does not flatten", 0},
		"a football":               {func(a *Ask) { a.Core.DiameterMM = 220 }, "core", "slide off", 0},
		"a core for more":          {func(a *Ask) { a.Core.DiameterMM = 26 }, "core", "or 6 passes", 6},
		"odd doubled":              {func(a *Ask) { a.Mode, a.Passes = Doubled, 5 }, "passes", "take 6", 6},
		"two cords on two":         {func(a *Ask) { a.Mode, a.Passes = TwoCords, 2 }, "passes", "smallest stopper", 3},
		"no such mode":             {func(a *Ask) { a.Mode = "three-cords" }, "mode", "two-cords", 0},
		"no such core":             {func(a *Ask) { a.Core.Kind = "cheese" }, "core", "marble", 0},
		"no cord":                  {func(a *Ask) { a.Cord.DiameterMM = 0 }, "cord", "between", 0},
		"no number":                {func(a *Ask) { a.Cord.DiameterMM = math.NaN() }, "cord", "between", 0},
		"giving all":               {func(a *Ask) { a.Cord.Give = 1 }, "give", "from 0 to 0.4", 0},
		"an endless core":          {func(a *Ask) { a.Core.DiameterMM = math.Inf(1) }, "core", "between", 0},
	} {
		t.Run(name, func(t *testing.T) {
			a := fine
			c.change(&a)
			_, err := Make(a)
			var no *Refused
			if !errors.As(err, &no) {
				t.Fatalf("it is tied: %v", err)
			}
			if no.Field != c.field || !strings.Contains(no.Why, c.words) || no.Passes != c.passes {
				t.Errorf("%s: %s (passes %d)", no.Field, no.Why, no.Passes)
			}
			if no.Passes > 0 && c.field != "core" { // what is offered can be tied
				a.Passes = no.Passes
				if no.CoreMM > 0 {
					a.Core.DiameterMM = no.CoreMM
				}
				if _, err := Make(a); err != nil {
					t.Errorf("with %d passes: %v", no.Passes, err)
				}
			}
		})
	}
}

func TestWarnings(t *testing.T) {
	codes := func(a Ask) map[string]Warning {
		out := map[string]Warning{}
		for _, w := range ball(t, a).Warnings {
			out[w.Code] = w
		}
		return out
	}
	a := Ask{Cord: rope(4), Passes: 4, Mode: OneCord, Core: Core{Kind: Steel}}
	if w := codes(a); w["hard-core"].Kind != Wood || w["core-small"].Code != "" || w["core-large"].Code != "" {
		t.Errorf("a steel ball on its best: %+v", w)
	}
	a.Core.Kind = Wood
	if w := codes(a); w["hard-core"].Code != "" {
		t.Errorf("wood is told as a weapon: %+v", w)
	}
	a.Core.DiameterMM = 10
	if w := codes(a)["core-small"]; !strings.Contains(w.Message, "rattles") || w.CoreMM < 14 {
		t.Errorf("a core of 10 mm: %+v", w)
	}
	a.Core.DiameterMM = 23
	if w := codes(a)["core-large"]; !strings.Contains(w.Message, "corners") || w.Passes <= 4 {
		t.Errorf("a core of 23 mm: %+v", w)
	}
	small, large := Ask{Cord: rope(2), Passes: 3, Mode: OneCord}, Ask{Cord: rope(6), Passes: 4, Mode: OneCord}
	if codes(small)["choking"].Code == "" || codes(large)["choking"].Code != "" {
		t.Error("what a child could swallow is told of the wrong ball")
	}
}

// A soft cord takes less, and suits larger cores for what it takes.
func TestGive(t *testing.T) {
	hard := ball(t, Ask{Cord: rope(4), Passes: 4, Mode: OneCord, Core: Core{Kind: Marble, DiameterMM: 17}})
	soft := rope(4)
	soft.Give = 0.2
	b := ball(t, Ask{Cord: soft, Passes: 4, Mode: OneCord, Core: Core{Kind: Marble, DiameterMM: 17}})
	if b.CordMM >= hard.CordMM || b.FaceMM >= hard.FaceMM || b.Range.MostMM/b.Range.LeastMM <= hard.Range.MostMM/hard.Range.LeastMM {
		t.Errorf("soft it takes %.0f mm and is %.1f mm wide, hard %.0f and %.1f; ranges %v and %v", b.CordMM, b.FaceMM, hard.CordMM, hard.FaceMM, b.Range, hard.Range)
	}
}

// What is embedded is all that is wanted, and each ball carries the fingerprint of
// the problem that its route gives now.
func TestEveryBallIsEmbedded(t *testing.T) {
	made := map[string]string{}
	for _, c := range Wanted() {
		for _, name := range c.Keys() {
			made[name] = c.Made()
		}
	}
	const others = 2 // the stoppers; package knots has the test of them
	if len(made) != len(Embedded())-others {
		t.Errorf("%d balls are embedded beside the stoppers, %d are wanted", len(Embedded())-others, len(made))
	}
	for name, want := range made {
		s, ok := Embedded()[name]
		if !ok {
			t.Errorf("%s is not embedded: run make shapes", name)
			continue
		}
		if s.Made != want {
			t.Errorf("%s was drawn up from another route or by another solver: run make shapes", name)
		}
		if s.Gap < 0.98 || s.Gap > 1.02 {
			t.Errorf("%s: strands are %.3f of a diameter apart", name, s.Gap)
		}
	}
	for i, size := range stopperSizes() {
		if size < 1.5 || size > 8 || i == 1 && size <= stopperSizes()[0] {
			t.Errorf("%s takes %.2f diameters", stoppers[i].name, size)
		}
	}
}

// What is embedded is what the engine gives now.
func TestABallDrawnAgainIsTheSame(t *testing.T) {
	drawn, err := chain(joined, 3).DrawUp()
	if err != nil {
		t.Fatal(err)
	}
	for name, s := range drawn {
		for i, pts := range s.Strands {
			for k, v := range pts {
				if d := r3.Norm(r3.Sub(v, Embedded()[name].Strands[i][k])); d > 0.05 {
					t.Fatalf("%s: strand %d, node %d lies %.3f diameters off", name, i, k, d)
				}
			}
		}
	}
}

func ExampleMake() {
	b, err := Make(Ask{Cord: Cord{DiameterMM: 4, CoverMM: 4, GramsPerMetre: 11}, Passes: 4, Mode: OneCord, Core: Core{Kind: Wood, DiameterMM: 18}})
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(b.Range.Holds(18), b.CordMM > 1000 && b.CordMM < 1200)
	// Output: true true
}

func BenchmarkBall(b *testing.B) {
	Warm()
	for b.Loop() {
		if _, err := Make(Ask{Cord: rope(4), Passes: 8, Mode: OneCord}); err != nil {
			b.Fatal(err)
		}
	}
}

// Eight passes (the seven there are) by forty cores.
func BenchmarkChart(b *testing.B) {
	Warm()
	cores := make([]float64, 40)
	for i := range cores {
		cores[i] = 2 + float64(i)
	}
	for b.Loop() {
		if _, err := Chart(Ask{Cord: rope(4), Mode: OneCord}, cores); err != nil {
			b.Fatal(err)
		}
	}
}
