package evidence_test

import (
	"errors"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/evidence"
	"nimblebight/core/gauge"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

var fob = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}

func swatch(t *testing.T, by float64) evidence.Swatch {
	t.Helper()
	s := evidence.Swatch{Stuff: fob, Knot: "square-knot", Count: 10}
	p, err := s.Plan()
	if err != nil {
		t.Fatal(err)
	}
	s.HeightMM, s.TookMM = p.HeightMM*by, []float64{p.TookMM * by, p.TookMM * by}
	return s
}

// A swatch can be tied of most of the catalogue; one that measures what is planned of
// it tells that nothing is otherwise.
func TestASwatchOfAnyKnotThatMeasuresAsPlannedMovesNothing(t *testing.T) {
	n := 0
	for _, k := range evidence.Swatchable() {
		s := evidence.Swatch{Stuff: fob, Knot: k.ID, Count: 4}
		p, err := s.Plan()
		if err != nil {
			t.Errorf("%s: %v", k.ID, err)
			continue
		}
		if p.Strands < 1 || !(p.TookMM > 0) {
			t.Errorf("%s: %d strands take %v mm", k.ID, p.Strands, p.TookMM)
			continue
		}
		n++
		s.HeightMM, s.TookMM = p.HeightMM, []float64{p.TookMM}
		if s.HeightMM < 1 {
			s.HeightMM = 1
		}
		e, err := s.Evidence()
		if err != nil {
			t.Errorf("%s: %v", k.ID, err)
			continue
		}
		for _, r := range e.Readings {
			if math.Abs(r.Log) > 1e-9 {
				t.Errorf("%s: a reading of %v", k.ID, r.Log)
			}
		}
		thicker, _ := gauge.Learn([]gauge.Evidence{e}).Diameter(fob)
		if math.Abs(thicker-1) > 1e-9 {
			t.Errorf("%s: the cord draws up %v times as thick", k.ID, thicker)
		}
	}
	if n < 25 {
		t.Errorf("a swatch can be tied of %d knots only", n)
	}
}

// What is a tenth taller and takes a tenth more is tied of a thicker cord by the same
// hand; what only takes more is tied looser.
func TestHeightTellsTheDiameterAndUseTheHand(t *testing.T) {
	thick := swatch(t, 1.1)
	loose := swatch(t, 1)
	for i := range loose.TookMM {
		loose.TookMM[i] *= 1.1
	}
	learn := func(s evidence.Swatch) *gauge.Estimate {
		e, err := s.Evidence()
		if err != nil {
			t.Fatal(err)
		}
		return gauge.Learn([]gauge.Evidence{e, e, e})
	}
	a, b := learn(thick), learn(loose)
	if da, _ := a.Diameter(fob); da < 1.07 {
		t.Errorf("a row a tenth taller: the cord draws up %.3f times as thick", da)
	}
	if db, _ := b.Diameter(fob); math.Abs(db-1) > 1e-9 {
		t.Errorf("a row as tall as planned: the cord draws up %.3f times as thick", db)
	}
	if la, lb := a.Loose(fob, "flat and spiral sinnets"), b.Loose(fob, "flat and spiral sinnets"); lb < 1.08*gauge.Median || la > 1.03*gauge.Median {
		t.Errorf("the thick cord is tied %.3f times as loose, by the loose hand %.3f", la, lb)
	}
}

func TestAWeighedLengthTellsTheWeight(t *testing.T) {
	s := evidence.Swatch{Stuff: fob, LengthMM: 10_000, Grams: 1.1 * 10 * fob.Weight()}
	e, err := s.Evidence()
	if err != nil {
		t.Fatal(err)
	}
	known := gauge.Learn([]gauge.Evidence{e})
	f := known.Figures(fob)
	if got, want := f.Weight, 1.1*fob.Weight(); math.Abs(got-want) > 0.01*want {
		t.Errorf("it weighs %v g a metre, want %v", got, want)
	}
	if got, want := f.DrawnUpMM, math.Sqrt(1.1)*fob.DrawnUp(); math.Abs(got-want) > 0.01*want {
		t.Errorf("it draws up to %v mm, want %v", got, want)
	}
	if _, doubt := known.Diameter(fob); math.Abs(doubt-cord.PackingDoubt) > 0.001 {
		t.Errorf("its diameter is in doubt by %v", doubt)
	}
}

func TestASwatchThatCannotBeIsRefused(t *testing.T) {
	good := swatch(t, 1)
	for _, c := range []struct {
		spoil      func(*evidence.Swatch)
		path, says string
	}{
		{func(s *evidence.Swatch) { s.Knot = "square-not" }, "knot", "catalogue"},
		{func(s *evidence.Swatch) { s.Knot = "mount" }, "knot", "no swatch"},
		{func(s *evidence.Swatch) { s.Count = 0 }, "count", "from 1"},
		{func(s *evidence.Swatch) { s.HeightMM = -3 }, "height_mm", "from 1 mm"},
		{func(s *evidence.Swatch) { s.HeightMM = math.NaN() }, "height_mm", "from 1 mm"},
		{func(s *evidence.Swatch) { s.HeightMM *= 2 }, "height_mm", "its label says"},
		{func(s *evidence.Swatch) { s.HeightMM /= 3 }, "height_mm", "less than half"},
		{func(s *evidence.Swatch) { s.TookMM = nil }, "took_mm", "is empty"},
		{func(s *evidence.Swatch) { s.TookMM[1] = 0 }, "took_mm[1]", "from 1 mm"},
		{func(s *evidence.Swatch) { s.TookMM[1] *= 0.5 }, "took_mm[1]", "takes about"},
		{func(s *evidence.Swatch) { s.Stuff.DiameterMM = 0 }, "stuff.diameter_mm", "between"},
		{func(s *evidence.Swatch) { s.Knot, s.LengthMM, s.Grams = "", 10, 1 }, "length_mm", "from 50 mm"},
		{func(s *evidence.Swatch) { s.Knot, s.LengthMM, s.Grams = "", 1000, 0 }, "grams", "weigh"},
		{func(s *evidence.Swatch) { s.Knot, s.LengthMM, s.Grams = "", 1000, 68 }, "grams", "scales"},
	} {
		s := good
		s.TookMM = append([]float64{}, good.TookMM...)
		c.spoil(&s)
		_, err := s.Evidence()
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%+v: %v, want %s, something about %q", s, err, c.path, c.says)
		}
	}
}

func TestAnOutlierIsAskedAbout(t *testing.T) {
	s := swatch(t, 1)
	s.TookMM = []float64{1.35 * s.TookMM[0]}
	e, err := s.Evidence()
	if err != nil {
		t.Fatal(err)
	}
	no := s.Doubts(e, nil)
	if no == nil || no.Path != "took_mm" || !strings.Contains(no.Says, "35 % more than planned") || !strings.Contains(no.Says, "1.38 times as loose") {
		t.Errorf("said %+v", no)
	}
	s.Sure = true
	if s.Doubts(e, nil) != nil {
		t.Error("it is asked about though the maker is sure")
	}
	fine := swatch(t, 1.05)
	if e, _ := fine.Evidence(); fine.Doubts(e, nil) != nil {
		t.Error("a row of 5 % more is asked about")
	}
}

func tied(t testing.TB) (piece.Document, plan.Plan) {
	t.Helper()
	for _, p := range patterns.All() {
		if p.ID == "two-colour-fob" {
			pl, err := plan.Make(p.Document, plan.Options{})
			if err != nil {
				t.Fatal(err)
			}
			return p.Document, pl
		}
	}
	t.Fatal("no such pattern")
	return piece.Document{}, plan.Plan{}
}

func mm(v float64) *float64 { return &v }
func count(v int) *int      { return &v }

// A log of what was planned tells that nothing is otherwise; one of a tenth more
// knotwork tells that.
func TestALogTellsWhatTheKnotsTook(t *testing.T) {
	d, p := tied(t)
	for _, more := range []float64{0, 0.1} {
		var l evidence.Logged
		for _, c := range p.Cords {
			left := c.CutMM - c.NeedsMM - more*c.Why.KnotworkMM
			l.Cords = append(l.Cords, evidence.Cut{ID: c.ID, CutMM: mm(c.CutMM), LeftAt: []*float64{mm(left / 2), mm(left / 2)}})
		}
		l.LengthMM = mm(p.LengthMM)
		e, err := l.Evidence(d)
		if err != nil || len(e.Readings) != 3 {
			t.Fatalf("%d readings, %v", len(e.Readings), err)
		}
		for _, r := range e.Readings {
			want := math.Log(1 + more)
			if r.What == gauge.Reach {
				want = 0
			}
			if math.Abs(r.Log-want) > 1e-6 {
				t.Errorf("%v: a reading of %v, want %v", r.What, r.Log, want)
			}
		}
	}
}

// What was not measured is unknown: it tells nothing.
func TestWhatWasNotMeasuredTellsNothing(t *testing.T) {
	d, p := tied(t)
	l := evidence.Logged{Cords: []evidence.Cut{
		{ID: "A", CutMM: mm(p.Cords[0].CutMM), LeftAt: []*float64{mm(20), nil}},
		{ID: "B", CutMM: mm(p.Cords[1].CutMM)},
	}}
	if e, err := l.Evidence(d); err != nil || len(e.Readings) != 0 {
		t.Errorf("%d readings, %v", len(e.Readings), err)
	}
}

// A cord that ran short tells by the knots that were tied.
func TestACordThatRanShortTellsByTheKnotsThatWereTied(t *testing.T) {
	d, _ := tied(t)
	fewer := d
	fewer.Sequence = append(fewer.Sequence[:0:0], d.Sequence...)
	fewer.Sequence[1].Count = 6
	fewer.Sequence = fewer.Sequence[:2]
	q, err := plan.Make(fewer, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	l := evidence.Logged{Tied: []*int{nil, count(6), count(0)}, Cords: []evidence.Cut{{ID: "A", CutMM: mm(q.Cords[0].NeedsMM), LeftMM: mm(0), RanShort: true}}}
	e, err := l.Evidence(d)
	if err != nil || len(e.Readings) != 1 || math.Abs(e.Readings[0].Log) > 1e-6 {
		t.Errorf("%+v, %v", e.Readings, err)
	}
}

func TestALogThatCannotBeIsRefused(t *testing.T) {
	d, p := tied(t)
	full := p.Cords[0].CutMM
	for _, c := range []struct {
		l          evidence.Logged
		path, says string
	}{
		{evidence.Logged{Cords: []evidence.Cut{{ID: "A", CutMM: mm(full), LeftMM: mm(full + 40)}}}, "cords[0].left_mm", "more than the"},
		{evidence.Logged{Cords: []evidence.Cut{{ID: "A", CutMM: mm(full), LeftAt: []*float64{mm(full), mm(1)}}}}, "cords[0].left_mm", "more than the"},
		{evidence.Logged{Cords: []evidence.Cut{{ID: "A", CutMM: mm(full), LeftAt: []*float64{mm(full + 1), nil}}}}, "cords[0].left_mm", "more than the"},
		{evidence.Logged{Cords: []evidence.Cut{{ID: "A", CutMM: mm(-1)}}}, "cords[0].cut_mm", "from 0"},
		{evidence.Logged{Cords: []evidence.Cut{{ID: "A", CutMM: mm(full), LeftMM: mm(full - 20)}}}, "cords[0].cut_mm", "look at what was cut"},
		{evidence.Logged{Cords: []evidence.Cut{{ID: "A", RanShort: true}}}, "cords[0].ran_short", "how many knots"},
		{evidence.Logged{Tied: []*int{nil, count(20), nil}}, "tied[1]", "has 9"},
		{evidence.Logged{Tied: []*int{nil, count(-1), nil}}, "tied[1]", "from 0"},
		{evidence.Logged{Tied: []*int{count(1)}}, "tied", "has 3"},
		{evidence.Logged{WidthMM: mm(math.Inf(1))}, "width_mm", "from 0"},
	} {
		_, err := c.l.Evidence(d)
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%+v: %v, want %s, something about %q", c.l, err, c.path, c.says)
		}
	}
}
