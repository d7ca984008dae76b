package plan_test

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/formats/document"
)

func make1(t testing.TB, d piece.Document, o plan.Options) plan.Plan {
	t.Helper()
	p, err := plan.Make(d, o)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func near(t *testing.T, what string, got, want, tol float64) {
	t.Helper()
	if !(math.Abs(got-want) <= tol) {
		t.Errorf("%s is %v, want %v within %v", what, got, want, tol)
	}
}

func pattern(t testing.TB, id string) piece.Document {
	t.Helper()
	for _, p := range patterns.All() {
		if p.ID == id {
			d := p.Document
			d.Sequence = append([]knot.Section{}, d.Sequence...)
			d.Cords = append([]piece.Cord{}, d.Cords...)
			return d
		}
	}
	t.Fatalf("no pattern %s", id)
	return piece.Document{}
}

func codes(p plan.Plan) string {
	var out []string
	for _, w := range p.Warnings {
		out = append(out, w.Code)
	}
	return strings.Join(out, " ")
}

// doubled is a piece with every diameter and length twice as large. Weights go
// with the section.
func doubled(d piece.Document) piece.Document {
	out := d
	out.Purpose.LengthMM *= 2
	out.Purpose.HangsOn.InnerMM *= 2
	out.Purpose.HangsOn.WireMM *= 2
	out.Purpose.HangsOn.DepthMM *= 2
	out.Purpose.BladeMM *= 2
	out.Purpose.BetweenMM *= 2
	if far := d.Purpose.EndsOn; far != nil {
		twice := *far
		twice.InnerMM *= 2
		twice.WireMM *= 2
		out.Purpose.EndsOn = &twice
	}
	out.Cords = nil
	for _, c := range d.Cords {
		c.Stuff.GramsPerMetre = 4 * c.Stuff.Weight()
		c.Stuff.DiameterMM *= 2
		c.Legs.FirstMM *= 2
		out.Cords = append(out.Cords, c)
	}
	out.Sequence = twiceAll(d.Sequence)
	return out
}

// twiceAll doubles every length of a sequence.
func twiceAll(seq []knot.Section) []knot.Section {
	out := []knot.Section{}
	for _, s := range seq {
		s.FitMM *= 2
		k, _ := knot.Get(s.Do)
		for _, f := range k.Fields {
			if v, said := s.Value(f); said && f.Kind == "length" {
				s = s.With(f, 2*v.(float64))
			}
		}
		if s.Sequence != nil {
			s.Sequence = twiceAll(s.Sequence)
		}
		var rows []knot.Row
		for _, r := range s.Rows {
			rows = append(rows, knot.Row{Strands: r.Strands, Sequence: twiceAll(r.Sequence)})
		}
		s.Rows = rows
		out = append(out, s)
	}
	return out
}

func TestTwiceTheCordIsTwiceTheLength(t *testing.T) {
	for _, d := range rehearse() {
		for i, s := range d.Sequence {
			if k, _ := knot.Get(s.Do); k.Ends { // what singe and press leaves is millimetres, not diameters
				f, _ := k.Field("length_mm")
				if v, _ := s.Value(f); v == 0.0 {
					d.Sequence[i] = s.With(f, 3.0)
				}
			}
		}
		a, b := make1(t, d, plan.Options{}), make1(t, doubled(d), plan.Options{})
		near(t, d.Name+": length", b.LengthMM, 2*a.LengthMM, 1e-6)
		near(t, d.Name+": width", b.WidthMM, 2*a.WidthMM, 1e-6)
		for i, c := range a.Cords {
			near(t, d.Name+": needs of cord "+c.ID, b.Cords[i].NeedsMM, 2*c.NeedsMM, 1e-6)
		}
	}
}

// What a cord needs is the sum of what its sections take and its tails.
func TestCordIsTheSumOfItsSections(t *testing.T) {
	for _, d := range rehearse() {
		p := make1(t, d, plan.Options{})
		taken := map[string]float64{}
		for _, s := range p.Sections {
			for _, u := range s.Use {
				taken[u.Cord] += u.MM
			}
		}
		for _, c := range p.Cords {
			near(t, d.Name+": cord "+c.ID, taken[c.ID], c.NeedsMM, 1e-6)
			legs := 0.0
			for _, l := range c.Legs {
				legs += l.CutMM
			}
			near(t, d.Name+": the legs of "+c.ID, legs, c.CutMM, 1e-6)
			near(t, d.Name+": left over of "+c.ID, c.CutMM-c.NeedsMM, c.LeftMM, 1e-9)
			if c.Role == "legs" && c.Legs[0].ShortMM == 0 && c.Legs[1].ShortMM == 0 && c.LeftMM < 2*c.SpreadMM {
				t.Errorf("%s: %s leaves %.0f mm, less than twice its spread of %.0f", d.Name, c.ID, c.LeftMM, c.SpreadMM)
			}
			if n := math.Round(c.CutMM / 5); math.Abs(c.CutMM-5*n) > 1e-9 {
				t.Errorf("%s: the cut %v is not rounded to 5 mm", d.Name, c.CutMM)
			}
		}
		height := 0.0
		for _, s := range p.Sections {
			if s.Do == "fold-back" { // from here on nothing lies under what was tied before
				break
			}
			near(t, d.Name+": a section begins where the last ended", s.TopMM, height, 1e-9)
			height += s.HeightMM
		}
		if do := d.Sequence[len(d.Sequence)-1].Do; p.LengthMM < height-1e-9 && do != "finish" && do != "coil-loop" { // a loop reaches over its ring
			t.Errorf("%s is %v long, its sections are %v", d.Name, p.LengthMM, height)
		}
	}
}

// Count from length and length from count are exact against each other.
func TestCountAndLengthAgree(t *testing.T) {
	for _, id := range []string{"two-colour-fob", "spiral-fob", "thin-over-thick"} {
		d := pattern(t, id)
		row := len(d.Sequence) - 2
		for _, n := range []int{1, 2, 3, 7, 8, 19, 20, 64} {
			d.Sequence[row].Count, d.Sequence[row].FitMM = n, 0
			h := make1(t, d, plan.Options{}).Sections[row].HeightMM
			d.Sequence[row].Count, d.Sequence[row].FitMM = 0, h
			p := make1(t, d, plan.Options{})
			if got := p.Sections[row]; got.Count != n || math.Abs(got.HeightMM-h) > 1e-9 {
				t.Errorf("%s: %d knots are %.3f mm; that length takes %d knots, %.3f mm", id, n, h, got.Count, got.HeightMM)
			}
			d.Sequence[row].FitMM = h - 0.01
			if got := make1(t, d, plan.Options{}).Sections[row].Count; got != max(1, n-1) {
				t.Errorf("%s: a hair less than %d knots takes %d", id, n, got)
			}
		}
	}
}

func TestEveryKnotTakesTheSame(t *testing.T) {
	d := pattern(t, "two-colour-fob")
	needs := func(n int) float64 {
		d.Sequence[1].Count = n
		p := make1(t, d, plan.Options{})
		return p.Cords[0].NeedsMM
	}
	step := needs(11) - needs(10)
	for _, n := range []int{2, 5, 30, 99} {
		near(t, fmt.Sprintf("knot %d", n+1), needs(n+1)-needs(n), step, 1e-3*step)
	}
}

// Begun right it is the mirror of the same begun left: every figure the same,
// and tied by a left-handed maker it is that mirror in space.
func TestMirrors(t *testing.T) {
	for _, d := range rehearse() {
		a, b := make1(t, d, plan.Options{}), make1(t, d, plan.Options{LeftHanded: true})
		near(t, d.Name+": length", b.LengthMM, a.LengthMM, 1e-6)
		for i, c := range a.Cords {
			near(t, d.Name+": needs of "+c.ID, b.Cords[i].NeedsMM, c.NeedsMM, 0.01*c.NeedsMM)
			near(t, d.Name+": fold of "+c.ID, b.Cords[i].FoldAtMM, c.FoldAtMM, 0.004*c.NeedsMM)
		}
		if !b.LeftHanded || b.Notation != a.Notation {
			t.Errorf("%s: the left-handed plan does not say so, or changed the piece", d.Name)
		}
		la, lb := a.Layout(), b.Layout()
		for i, s := range la.Strands {
			lo, hi := extent(s)
			lo2, hi2 := extent(lb.Strands[i])
			near(t, d.Name+": left edge", lo2, -hi, 0.15)
			near(t, d.Name+": right edge", hi2, -lo, 0.15)
		}
	}
}

func extent(s plan.Strand) (lo, hi float64) {
	lo, hi = math.Inf(1), math.Inf(-1)
	for _, p := range s.Points {
		lo, hi = math.Min(lo, p.X), math.Max(hi, p.X)
	}
	return lo, hi
}

func TestShortLegsInside(t *testing.T) {
	d := pattern(t, "two-colour-fob")
	p := make1(t, d, plan.Options{})
	for _, c := range p.Cords {
		filler, worker := c.Legs[0], c.Legs[1]
		if filler.Role == "worker" {
			filler, worker = worker, filler
		}
		if filler.Role != "filler" || worker.Role != "worker" {
			t.Fatalf("cord %s has a %s and a %s", c.ID, c.Legs[0].Role, c.Legs[1].Role)
		}
		// The filler reaches the last knot and its tail, with its allowance and
		// no more; the worker takes the rest.
		if spare := filler.CutMM - filler.NeedsMM; spare < 10 || spare > 0.4*filler.NeedsMM+25 {
			t.Errorf("the filler of %s needs %.0f and gets %.0f", c.ID, filler.NeedsMM, filler.CutMM)
		}
		near(t, "the fold of "+c.ID, c.FoldAtMM, c.Legs[c.FoldLeg].CutMM, 1e-9)
	}
	inside := p.Cords[0].CutMM
	for i := range d.Cords {
		d.Cords[i].Legs = piece.Legs{Equal: true}
	}
	equal := make1(t, d, plan.Options{}).Cords[0]
	if equal.CutMM <= inside {
		t.Errorf("equal legs are cut %v, short ones inside %v: nothing is saved", equal.CutMM, inside)
	}
	near(t, "the fold of equal legs", equal.FoldAtMM, equal.CutMM/2, 1e-9)
}

// A leg that was given too short is warned of, with the place, the amount and
// a way out that works.
func TestAFillerGivenTooShort(t *testing.T) {
	d := pattern(t, "two-colour-fob")
	whole := make1(t, d, plan.Options{})
	filler := whole.Cords[1].Legs[0]
	beyond := filler.Parts[len(filler.Parts)-1].MM
	d.Cords[1].Legs = piece.Legs{FirstMM: filler.NeedsMM - beyond - 40}
	p := make1(t, d, plan.Options{})
	if codes(p) != "filler-short" {
		t.Fatalf("warnings: %+v", p.Warnings)
	}
	w := p.Warnings[0]
	if w.Section != 1 || !strings.Contains(w.Message, "runs out {40.0mm} before the last knot") || !strings.Contains(w.Message, "of 9") {
		t.Errorf("said %+v", w)
	}
	if w.Fix == nil || w.Fix.Set[0].Path != "cords[1].legs" {
		t.Fatalf("the way out is %+v", w.Fix)
	}
	d.Cords[1].Legs = piece.Legs{ShortInside: true}
	if got := codes(make1(t, d, plan.Options{})); got != "" {
		t.Errorf("after the fix: %s", got)
	}
	d.Cords[1].Legs = piece.Legs{FirstMM: filler.NeedsMM - beyond/2}
	if p := make1(t, d, plan.Options{}); !strings.Contains(p.Warnings[0].Message, "too short to be finished") {
		t.Errorf("a leg without a tail: %+v", p.Warnings)
	}
}

// Every warning's fix, set in the document, takes the warning away.
func TestFixesMend(t *testing.T) {
	flame := pattern(t, "cotton-charm")
	flame.Sequence[3] = newOne("finish", 0).Put("how", "dome")
	open := pattern(t, "two-colour-fob")
	open.Sequence = open.Sequence[:2]
	crowd := pattern(t, "two-colour-fob")
	crowd.Purpose.HangsOn.InnerMM = 11
	long := pattern(t, "two-colour-fob")
	long.Sequence[1].Count = 20
	spare := pattern(t, "thin-over-thick")
	spare.Cords = append(spare.Cords, piece.Cord{ID: "Z", Stuff: spare.Cords[0].Stuff})
	for code, d := range map[string]piece.Document{"flame-on-natural-fibre": flame, "ends-not-finished": open, "mount-crowded": crowd, "length-off": long, "cord-unused": spare} {
		mends(t, code, d)
	}
}

// mends holds that a piece is warned of something, and that the way out takes that away.
func mends(t *testing.T, code string, d piece.Document) {
	t.Helper()
	p := make1(t, d, plan.Options{})
	at := slices.IndexFunc(p.Warnings, func(w plan.Warning) bool { return w.Code == code })
	switch {
	case at < 0:
		t.Errorf("%s: warnings are %q", code, codes(p))
	case p.Warnings[at].Fix == nil:
		t.Errorf("%s has no way out: %s", code, p.Warnings[at].Message)
	default:
		if got := codes(make1(t, apply(t, d, *p.Warnings[at].Fix), plan.Options{})); strings.Contains(got, code) {
			t.Errorf("%s: after its fix the warnings are %q", code, got)
		}
	}
}

// apply sets a fix's values the way the bench does: by path, in JSON.
func apply(t *testing.T, d piece.Document, f plan.Fix) piece.Document {
	t.Helper()
	b, err := json.Marshal(d)
	if err != nil {
		t.Fatal(err)
	}
	var tree any
	if err := json.Unmarshal(b, &tree); err != nil {
		t.Fatal(err)
	}
	for _, s := range f.Set {
		v, err := json.Marshal(s.Value)
		if err != nil {
			t.Fatal(err)
		}
		var value any
		if err := json.Unmarshal(v, &value); err != nil {
			t.Fatal(err)
		}
		keys := strings.FieldsFunc(s.Path, func(r rune) bool { return strings.ContainsRune(".[]", r) })
		at := tree
		for i, k := range keys {
			last := i == len(keys)-1
			switch node := at.(type) {
			case map[string]any:
				if last {
					node[k] = value
				}
				at = node[k]
			case []any:
				var n int
				if _, err := fmt.Sscan(k, &n); err != nil {
					t.Fatal(err)
				}
				at = node[n]
			}
		}
	}
	b, err = json.Marshal(tree)
	if err != nil {
		t.Fatal(err)
	}
	out, err := document.Read(b)
	if err != nil {
		t.Fatal(err)
	}
	return out
}

func TestThickerFillersAreCutLonger(t *testing.T) {
	last := 0.0
	for _, mm := range []float64{2.2, 4} {
		d := pattern(t, "thin-over-thick")
		d.Cords[0].Stuff.DiameterMM = mm
		c := make1(t, d, plan.Options{}).Cords[1]
		if c.NeedsMM <= last {
			t.Errorf("over %g mm legs the worker needs %v, over thinner ones %v", mm, c.NeedsMM, last)
		}
		last = c.NeedsMM
	}
}

func TestStepsNameSidesAndCount(t *testing.T) {
	p := make1(t, pattern(t, "two-colour-fob"), plan.Options{})
	if want := 2 + 4*9 + 3; p.Actions != want {
		t.Errorf("%d actions, want %d", p.Actions, want)
	}
	row := p.Steps[1]
	if row.Repeats != 9 || row.Actions[0].Cord != "A" || row.Actions[0].From != "left" || row.Actions[1].Cord != "B" || row.Actions[2].Cord != "A" || row.Actions[2].From != "right" {
		t.Errorf("the row's step is %+v", row)
	}
	left := make1(t, pattern(t, "two-colour-fob"), plan.Options{LeftHanded: true})
	if a := left.Steps[1].Actions[0]; a.From != "right" || !strings.HasPrefix(a.Text, "Strand 4") {
		t.Errorf("left-handed it begins %+v", a)
	}
	for _, s := range p.Sections[1].Shows {
		want := map[string][2]string{"middle": {"A", "B"}, "left": {"B", "A"}, "right": {"B", "A"}}[s.Where]
		if s.Face != want[0] || s.Back != want[1] {
			t.Errorf("%s shows %s on the face and %s on the back", s.Where, s.Face, s.Back)
		}
	}
}

func TestPictureOfTheWorkInHandEndsThere(t *testing.T) {
	d := pattern(t, "two-colour-fob")
	whole := make1(t, d, plan.Options{})
	last := 0.0
	for _, n := range []int{1, 3, 5, 9, 20, whole.Actions - 4} {
		p := make1(t, d, plan.Options{Until: n})
		l := p.Layout()
		bottom := l.Sections[len(l.Sections)-1][1]
		if bottom < last-8 {
			t.Errorf("after %d actions the work ends at %.1f mm, before that at %.1f", n, bottom, last)
		}
		last = bottom
		if n > 2 && len(l.Moving) == 0 {
			t.Errorf("after %d actions nothing moves", n)
		}
	}
}

func TestWhatCannotBePlannedNamesItsSection(t *testing.T) {
	base := pattern(t, "two-colour-fob")
	for _, c := range []struct{ line, path, says string }{
		{"square-knot 3", "sequence[0].do", "mount a cord first"},
		{"mount A, square-knot 3", "sequence[1]", "a filler between"},
		{"mount A, mount B", "sequence[1].hitch", "laid-behind"},
		{"mount A B, square-knot 3 strands=2-6", "sequence[1].strands", "only 4"},
		{"mount A B, finish dome, square-knot 2", "sequence[2].do", "no strand hangs"},
		{"mount A B, finish dome ends=4+1", "sequence[1].ends", "from the left"},
	} {
		seq, err := notation.Parse(c.line)
		if err != nil {
			t.Fatal(err)
		}
		d := base
		d.Sequence = seq
		_, err = plan.Make(d, plan.Options{})
		ps, ok := err.(piece.Problems)
		if !ok || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%s: %v, want %s, something about %q", c.line, err, c.path, c.says)
		}
	}
}

func TestInchesRoundToAQuarter(t *testing.T) {
	for _, c := range make1(t, pattern(t, "cotton-charm"), plan.Options{RoundUpMM: plan.QuarterInch}).Cords {
		n := c.CutMM / plan.QuarterInch
		near(t, "quarters of an inch", n, math.Round(n), 1e-9)
	}
}

func ExampleMake() {
	d := notation.With(piece.Begin("Locker fob", "key-fob", piece.SplitRing(30, 2), 0), "mount A B, square-knot 8, finish singe-and-press",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, "#0f5c63")},
		piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, "#e3c88f")})
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		fmt.Println(err)
		return
	}
	for _, c := range p.Cords {
		fmt.Printf("cut %s %.0f mm, fold %.0f mm from the end of its %s leg\n", c.ID, c.CutMM, c.FoldAtMM, c.FoldSide)
	}
	// Output:
	// cut A 745 mm, fold 162 mm from the end of its right leg
	// cut B 745 mm, fold 162 mm from the end of its left leg
}

func BenchmarkPlanOfSix(b *testing.B) {
	d := pattern(b, "grouped-fob")
	b.ReportAllocs()
	for b.Loop() {
		make1(b, d, plan.Options{})
	}
}

// mixed is flat work of so many sections, of every kind.
func mixed(sections int) piece.Document {
	kinds := []string{"square-knot 3", "gap 8mm", "half-knot 5", "double-half-hitch", "double-half-hitch direction=left slope=diagonal", "diamond 1", "gap 10mm",
		"square-knot 2 strands=2-5", "switch-knot 2 strands=2-5", "gap 9mm", "berry-knot 1 strands=2-5"}
	line := "mount A B C"
	for i := range sections - 2 {
		line += ", " + kinds[i%len(kinds)]
	}
	cords := []piece.Cord{}
	for _, id := range []string{"A", "B", "C"} {
		cords = append(cords, piece.Cord{ID: id, Stuff: piece.Kernmantle(4, "#0f5c63")})
	}
	return notation.With(piece.Begin("mixed", "charm", piece.SplitRing(50, 2), 0), line+", finish dome", cords...)
}

func BenchmarkPlanOfMixedWork(b *testing.B) {
	for _, n := range []int{125, 250, 500} {
		b.Run(fmt.Sprint(n), func(b *testing.B) {
			d := mixed(n)
			make1(b, d, plan.Options{}) // the knots are drawn once
			b.ReportAllocs()
			for b.Loop() {
				make1(b, d, plan.Options{})
			}
		})
	}
}

// A piece to start from has nothing to mend, and comes near the length it says.
func TestPatternsHaveNoWarnings(t *testing.T) {
	for _, p := range patterns.All() {
		pl := make1(t, p.Document, plan.Options{})
		if len(pl.Warnings) > 0 {
			t.Errorf("%s: %.1f mm long, %.1f wanted: %+v", p.ID, pl.LengthMM, pl.WantedMM, pl.Warnings)
		}
	}
}
