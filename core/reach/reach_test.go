package reach_test

import (
	"errors"
	"math"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/reach"
)

func fob(line string) piece.Document {
	return notation.With(piece.Begin("fob", "key-fob", piece.SplitRing(30, 2), 0), line,
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)})
}

const row = "mount A B, square-knot 9, finish singe-and-press"

func planned(t *testing.T, d piece.Document) plan.Plan {
	t.Helper()
	p, err := plan.Make(d, plan.Options{})
	if err != nil {
		t.Fatal(err)
	}
	return p
}

// What a piece takes ties that piece, a millimetre less ties one knot fewer; one off-cut
// of all of it ties as many.
func TestWhatAPieceTakesTiesIt(t *testing.T) {
	for _, line := range []string{row, "mount A B, half-knot 14, finish dome", "mount A B, square-knot 3, gap 10mm, square-knot 8, finish dome", "mount A B, crown 9, finish dome"} {
		d := fob(line)
		p := planned(t, d)
		takes, all := map[string]float64{}, 0.0
		for _, c := range p.Cords {
			takes[c.ID] = c.CutMM - c.Why.RoundingMM
			all += takes[c.ID]
		}
		section := reach.Growing(d, p)
		count := p.Sections[section].Count
		for name, c := range map[string]struct {
			h    reach.Hand
			want int
		}{
			"each":              {reach.Hand{CordsMM: takes}, count},
			"off-cut":           {reach.Hand{OffCutMM: all}, count},
			"a millimetre less": {reach.Hand{OffCutMM: all - 1}, count - 1},
			"one cord is ample": {reach.Hand{CordsMM: map[string]float64{"A": takes["A"]}}, count},
		} {
			got, err := reach.FromHand(d, plan.Options{}, c.h)
			if err != nil {
				t.Errorf("%s: %s: %v", line, name, err)
				continue
			}
			if got.Count != c.want || got.Section != section || got.Document.Sequence[section].Count != c.want || !strings.Contains(got.Says, "One knot more") {
				t.Errorf("%s: %s: %d knots of section %d, want %d of %d (%s)", line, name, got.Count, got.Section, c.want, section, got.Says)
			}
			for _, l := range got.Cords {
				if l.LeftMM < -1e-6 || math.Abs(l.InHandMM-l.TakesMM-l.LeftMM) > 1e-6 {
					t.Errorf("%s: %s: %+v", line, name, l)
				}
			}
		}
	}
}

// More cord never ties a shorter piece, and a stop keeps what it says.
func TestMoreCordTiesNoLess(t *testing.T) {
	d, last := fob(row), 0
	for mm := 400.0; mm < 3000; mm += 230 {
		got, err := reach.FromHand(d, plan.Options{}, reach.Hand{CordsMM: map[string]float64{"A": mm, "B": mm}})
		if err != nil {
			t.Fatal(err)
		}
		if got.Count < last {
			t.Errorf("%v mm tie %d knots, less cord %d", mm, got.Count, last)
		}
		last = got.Count
		kept, err := reach.FromHand(d, plan.Options{}, reach.Hand{CordsMM: map[string]float64{"A": mm, "B": mm}, Stop: reach.AtLeft, AtMM: 50})
		if err != nil {
			t.Fatal(err)
		}
		for _, l := range kept.Cords {
			if l.LeftMM < 50-1e-6 || kept.Count > got.Count {
				t.Errorf("%v mm, 50 to be left: %+v, %d knots", mm, l, kept.Count)
			}
		}
	}
	long, err := reach.FromHand(d, plan.Options{}, reach.Hand{CordsMM: map[string]float64{"A": 9000, "B": 9000}, Stop: reach.AtLength, AtMM: 150})
	if err != nil || long.LengthMM > 150.05 || planned(t, withCount(d, long.Count+1)).LengthMM <= 150 {
		t.Errorf("to 150 mm: %d knots, %.1f mm, %v", long.Count, long.LengthMM, err)
	}
	tether := piece.Between(fob("mount A, run-back, square-knot 4, finish singe-and-press"), piece.SplitRing(20, 2), 150)
	tether.Cords[1].JoinedTo = "A"
	full, err := reach.FromHand(tether, plan.Options{}, reach.Hand{CordsMM: map[string]float64{"A": 9000, "B": 9000}, Stop: reach.AtHardware})
	if err != nil || !strings.Contains(full.Says, "far end") {
		t.Fatalf("%+v, %v", full, err)
	}
	for _, w := range planned(t, full.Document).Warnings {
		if w.Code == "room-between" || w.Code == "too-long-between" {
			t.Errorf("filled to the far end by %d knots: %s", full.Count, w.Message)
		}
	}
}

func withCount(d piece.Document, n int) piece.Document {
	d.Sequence = append(d.Sequence[:0:0], d.Sequence...)
	d.Sequence[1].Count = n
	return d
}

func TestHandsThatCannotBeAreRefused(t *testing.T) {
	two := fob(row)
	two.Cords[1].Stuff = piece.Cotton(5, piece.Chalk)
	zero := 0
	for _, c := range []struct {
		d          piece.Document
		h          reach.Hand
		path, says string
	}{
		{fob(row), reach.Hand{}, "cords_mm", "is empty"},
		{fob(row), reach.Hand{OffCutMM: -4}, "off_cut_mm", "from 1 mm"},
		{fob(row), reach.Hand{OffCutMM: math.NaN()}, "off_cut_mm", "from 1 mm"},
		{fob(row), reach.Hand{OffCutMM: 3, CordsMM: map[string]float64{"A": 1}}, "off_cut_mm", "one of the two"},
		{fob(row), reach.Hand{CordsMM: map[string]float64{"Q": 400}}, "cords_mm.Q", "does not have"},
		{fob(row), reach.Hand{CordsMM: map[string]float64{"A": 15}}, "cords_mm.A", "shorter than the {"},
		{fob(row), reach.Hand{CordsMM: map[string]float64{"A": 150}}, "cords_mm.A", "too short"},
		{two, reach.Hand{OffCutMM: 4000}, "off_cut_mm", "different stuff"},
		{fob(row), reach.Hand{OffCutMM: 4000, Section: &zero}, "section", "takes more or fewer"},
		{fob(row), reach.Hand{OffCutMM: 4000, Stop: "dusk"}, "stop", "left out"},
		{fob(row), reach.Hand{OffCutMM: 4000, Stop: reach.AtLength}, "at_mm", "say a length"},
		{fob(row), reach.Hand{OffCutMM: 4000, Stop: reach.AtLength, AtMM: 20}, "stop", "single knot"},
		{fob(row), reach.Hand{OffCutMM: 4000, Stop: reach.AtHardware}, "stop", "has none"},
	} {
		_, err := reach.FromHand(c.d, plan.Options{}, c.h)
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%+v: %v, want %s, something about %q", c.h, err, c.path, c.says)
		}
	}
}

// hanging is what hangs of each leg when so many knots of section 1 are tied, with so
// much to spare over what the rest takes.
func hanging(t *testing.T, d piece.Document, tied int, spare float64) (map[string]float64, reach.Rest) {
	t.Helper()
	ample := map[string]float64{}
	for _, leg := range []string{"A.1", "A.2", "B.1", "B.2"} {
		ample[leg] = 5000
	}
	r, err := reach.Middle(d, plan.Options{}, reach.Place{Section: 1, Tied: tied, LeftMM: ample}, nil)
	if err != nil {
		t.Fatal(err)
	}
	left := map[string]float64{}
	for _, h := range r.Legs {
		left[h.Leg] = h.TakesMM + spare
	}
	return left, r
}

// What the rest of a piece takes ties it; less ties fewer knots, and every way on that
// is offered can be gone with what is left.
func TestInTheMiddleWhatIsLeftTiesTheRest(t *testing.T) {
	for _, line := range []string{row, "mount A B, square-knot 9, half-knot 6, finish dome", "mount A B, square-knot 12, finish cut-straight length=40mm", "mount A B, crown 10, finish dome"} {
		d := fob(line)
		want := d.Sequence[1].Count
		for _, tied := range []int{0, 1, 4} {
			left, _ := hanging(t, d, tied, 0.5)
			r, err := reach.Middle(d, plan.Options{}, reach.Place{Section: 1, Tied: tied, LeftMM: left}, nil)
			if err != nil || r.ShortMM != 0 || r.Knots < want || len(r.Offers) != 0 {
				t.Errorf("%s: %d tied: %d of %d knots, short by %v, %v", line, tied, r.Knots, want, r.ShortMM, err)
			}
			last := want
			for _, less := range []float64{20, 60, 110} {
				short := map[string]float64{}
				for leg, v := range left {
					short[leg] = math.Max(1, v-less)
				}
				r, err := reach.Middle(d, plan.Options{}, reach.Place{Section: 1, Tied: tied, LeftMM: short}, nil)
				if err != nil {
					t.Fatal(err)
				}
				if r.ShortMM <= 0 || r.Knots > last || r.Best < r.Knots || len(r.Offers) == 0 {
					t.Errorf("%s: %d tied, %v mm less: %d of %d knots, at best %d, short by %v, %d offers", line, tied, less, r.Knots, want, r.Best, r.ShortMM, len(r.Offers))
				}
				last = r.Knots
				for _, o := range r.Offers {
					if ps := o.Document.Check(); len(ps) > 0 {
						t.Errorf("%s: %s: %v", line, o.Label, ps)
					}
					if o.Kind == "splice" {
						continue
					}
					q, err := reach.Middle(o.Document, plan.Options{}, reach.Place{Section: 1, Tied: tied, LeftMM: short}, nil)
					if err != nil || q.ShortMM > 1e-6 || q.Planned != o.Knots {
						t.Errorf("%s: %d tied, %v mm less: %q is still short by %v, %d knots of %d, %v", line, tied, less, o.Label, q.ShortMM, q.Planned, o.Knots, err)
					}
				}
			}
		}
	}
}

// A piece that has taken more than planned so far will take more than planned.
func TestWhatWasTakenSoFarCountsForTheRest(t *testing.T) {
	d := fob(row)
	p := planned(t, d)
	left, r := hanging(t, d, 5, 0)
	cut := map[string]float64{}
	needs := map[string]float64{}
	for _, h := range r.Legs {
		needs[h.Leg] = h.NeedsMM
	}
	for _, c := range p.Cords {
		for n, l := range c.Legs {
			name := c.ID + "." + string(rune('1'+n))
			cut[name] = left[name] + 1.1*(l.NeedsMM-needs[name])
		}
	}
	q, err := reach.Middle(d, plan.Options{}, reach.Place{Section: 1, Tied: 5, LeftMM: left}, cut)
	if err != nil {
		t.Fatal(err)
	}
	for _, h := range q.Legs {
		if math.Abs(h.Against-1.1) > 1e-6 || h.NeedsMM < 1.03*needs[h.Leg] || h.NeedsMM > 1.1*needs[h.Leg] {
			t.Errorf("leg %s took %.3f of what was planned, and will take %.1f mm where %.1f were planned", h.Leg, h.Against, h.NeedsMM, needs[h.Leg])
		}
	}
}

func TestPlacesThatCannotBeAreRefused(t *testing.T) {
	some := map[string]float64{"A.1": 100}
	for _, c := range []struct {
		at         reach.Place
		path, says string
	}{
		{reach.Place{Section: 9, LeftMM: some}, "section", "the piece has 3"},
		{reach.Place{Section: 0, LeftMM: some}, "section", "takes no count"},
		{reach.Place{Section: 1, Tied: 12, LeftMM: some}, "tied", "has 9"},
		{reach.Place{Section: 1, Tied: -1, LeftMM: some}, "tied", "no more"},
		{reach.Place{Section: 1}, "left_mm", "is empty"},
		{reach.Place{Section: 1, LeftMM: map[string]float64{"C.1": 4}}, "left_mm.C.1", "does not hang"},
		{reach.Place{Section: 1, LeftMM: map[string]float64{"A.1": -4}}, "left_mm.A.1", "from 0"},
		{reach.Place{Section: 1, LeftMM: map[string]float64{"A.1": 900}}, "left_mm.A.1", "cut to"},
	} {
		_, err := reach.Middle(fob(row), plan.Options{}, c.at, map[string]float64{"A.1": 400})
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%+v: %v, want %s, something about %q", c.at, err, c.path, c.says)
		}
	}
}

// A swap keeps the counts, or the length to half a knot; swapped back it is the same
// piece; of cord twice as thick it is twice as large.
func TestASwapKeepsCountsOrLength(t *testing.T) {
	for _, p := range patterns.All() {
		if p.ID != "two-colour-fob" && p.ID != "grouped-fob" && p.ID != "crown-fob" && p.ID != "round-crown-fob" {
			continue
		}
		d := p.Document
		was := planned(t, d)
		thick := d.Cords[0].Stuff
		thick.DiameterMM, thick.GramsPerMetre = 2*thick.DiameterMM, 4*thick.Weight()
		out, err := reach.Swap(d, plan.Options{}, []string{"A", "B"}, thick)
		if err != nil || len(out) != 2 {
			t.Fatalf("%s: %d ways, %v", p.ID, len(out), err)
		}
		for i, s := range was.Sections {
			if out[0].Counts[i] != s.Count {
				t.Errorf("%s: section %d has %d knots, kept %d", p.ID, i+1, s.Count, out[0].Counts[i])
			}
		}
		row := reach.Growing(d, was)
		if off := math.Abs(out[1].LengthMM - was.LengthMM); off > was.Sections[row].KnotMM+1 {
			t.Errorf("%s: kept its length, it is %.1f mm long, before %.1f", p.ID, out[1].LengthMM, was.LengthMM)
		}
		if out[1].Counts[row] >= out[0].Counts[row] || out[1].Cords[0].NeedsMM >= out[0].Cords[0].NeedsMM {
			t.Errorf("%s: of thicker cord the same length has %d knots, the same counts %d", p.ID, out[1].Counts[row], out[0].Counts[row])
		}
		back, err := reach.Swap(out[0].Document, plan.Options{}, []string{"A", "B"}, d.Cords[0].Stuff)
		if err != nil || math.Abs(back[0].LengthMM-was.LengthMM) > 1e-6 {
			t.Errorf("%s: swapped back it is %.3f mm long, before %.3f, %v", p.ID, back[0].LengthMM, was.LengthMM, err)
		}
	}
	for path, c := range map[string]struct {
		ids []string
		to  cord.Stuff
	}{
		"cords":             {nil, piece.Cotton(4, piece.Chalk)},
		"stuff.diameter_mm": {[]string{"A"}, cord.Stuff{Make: "kernmantle", Material: "nylon"}},
	} {
		_, err := reach.Swap(fob(row), plan.Options{}, c.ids, c.to)
		var ps piece.Problems
		if !errors.As(err, &ps) || ps[0].Path != path {
			t.Errorf("%+v: %v, want %s", c, err, path)
		}
	}
}
