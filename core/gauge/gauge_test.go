package gauge_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/stat/distmv"
	"gonum.org/v1/gonum/stat/samplemv"

	"gonum.org/v1/gonum/mathext"

	"nimblebight/core/cord"
	"nimblebight/core/gauge"
)

var (
	fob    = cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4}
	cotton = cord.Stuff{Make: "single-strand", Material: "cotton", DiameterMM: 5}
	rope   = cord.Stuff{Make: "laid", Material: "hemp", DiameterMM: 6}
)

func took(s cord.Stuff, log float64, family string) gauge.Evidence {
	return gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{{What: gauge.Took, Kind: s.Kind(), Doubt: s.Doubt(),
		Log: log, Var: gauge.KnotVariance(10) + 1e-5, Families: []gauge.Share{{Family: family, Of: 1}}}}}
}

func reach(s cord.Stuff, log float64) gauge.Evidence {
	return gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{{What: gauge.Reach, Kind: s.Kind(), Doubt: s.Doubt(), Log: log, Var: 1e-4}}}
}

func weighed(s cord.Stuff, log float64) gauge.Evidence {
	return gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{{What: gauge.Weighed, Kind: s.Kind(), Doubt: s.Doubt(), Log: log / 2, Var: 1e-4}}}
}

// piece is one of two cords, each with a leg that works and one that is tied over.
func piece(a, b cord.Stuff, knots int) []gauge.Leg {
	var legs []gauge.Leg
	for _, s := range []cord.Stuff{a, b} {
		for _, mm := range []float64{900, 130} {
			var l gauge.Leg
			l.Add(gauge.Of(s, "square"), mm, knots)
			l.Add(gauge.Of(s, "crown"), mm/3, 4)
			l.Rulered = 2
			legs = append(legs, l)
		}
	}
	return legs
}

func TestWhatIsKnownBeforeAnythingIsMeasured(t *testing.T) {
	var e *gauge.Estimate
	if loose := e.Loose(fob, "square"); loose != 1.02 {
		t.Errorf("a knot is %v times as loose as an ideal one", loose)
	}
	_, hand := e.Hand("square")
	if all := math.Hypot(hand, gauge.DayDoubt); math.Abs(all-0.05) > 0.002 {
		t.Errorf("a hand spreads by %.4f, about 5 %% is known", all)
	}
	heavy := fob
	heavy.GramsPerMetre = 6.8
	for _, c := range []struct {
		s    cord.Stuff
		want float64
	}{{fob, 0.06}, {cotton, 0.06}, {rope, 0.12}, {heavy, 0.04}} {
		if _, got := e.Diameter(c.s); got != c.want {
			t.Errorf("%s: its diameter is in doubt by %v, want %v", c.s.Kind(), got, c.want)
		}
	}
}

// One family of knots all of one cord: what is common to both legs is not allowed for
// twice, and what is of single knots averages out.
func TestWhatIsCommonAddsAndWhatIsOfSingleKnotsAveragesOut(t *testing.T) {
	var e *gauge.Estimate
	leg := func(mm float64, knots int) (l gauge.Leg) { l.Add(gauge.Of(fob, "square"), mm, knots); return l }
	one, two := leg(500, 8), leg(500, 8)
	if got, want := e.Variance(one.Join(two), gauge.Everything), e.Variance(leg(1000, 16), gauge.Everything); math.Abs(got-want) > 1e-6*want {
		t.Errorf("two legs together vary by %v, one of both lengths by %v", got, want)
	}
	few, many := e.Spread(leg(1000, 1)), e.Spread(leg(1000, 10000))
	if common := 1000 * math.Sqrt(0.06*0.06+gauge.HandDoubt*gauge.HandDoubt+gauge.DayDoubt*gauge.DayDoubt); math.Abs(many-common) > 0.01*common || few <= many {
		t.Errorf("ten thousand knots spread by %.1f mm, what they have in common by %.1f; one by %.1f", many, common, few)
	}
	var ruled gauge.Leg
	ruled.Rulered = 4
	if got := e.Spread(ruled); got != 6 {
		t.Errorf("four parts by the ruler spread %v mm, want 6", got)
	}
	other := leg(500, 8).Join(func() (l gauge.Leg) { l.Add(gauge.Of(cotton, "crown"), 500, 8); return l }())
	if e.Spread(other) >= e.Spread(leg(1000, 8)) {
		t.Error("two cords and two families vary as one does")
	}
}

// Everything twice as large is allowed twice as much.
func TestAllowancesGrowWithThePiece(t *testing.T) {
	var e *gauge.Estimate
	legs, twice := piece(fob, fob, 9), piece(fob, fob, 9)
	for i := range legs {
		legs[i].Rulered, twice[i].Rulered = 0, 0
		twice[i] = twice[i].Join(legs[i])
		twice[i].Knots[0].SquareN *= 2
		twice[i].Knots[1].SquareN *= 2
	}
	a, b := e.Enough(legs, 20, gauge.Everything), e.Enough(twice, 20, gauge.Everything)
	for i := range a {
		if math.Abs(b[i]-2*a[i]) > 1e-3*b[i] {
			t.Errorf("leg %d is allowed %.2f mm, one of twice as much %.2f", i, a[i], b[i])
		}
	}
	last := 0.0
	for _, r := range gauge.Risks {
		got := e.Enough(legs, r, gauge.Everything)[0]
		if got <= last {
			t.Errorf("once in %d is allowed %.1f mm, a greater risk %.1f", r, got, last)
		}
		last = got
	}
	if got := e.Enough([]gauge.Leg{{}}, 20, gauge.Everything); got[0] != 0 {
		t.Errorf("nothing to tie is allowed %v mm", got[0])
	}
	// One leg that is all ruler runs short as a normal does.
	if got, want := e.Enough([]gauge.Leg{{Rulered: 1}}, 20, gauge.Everything)[0], 3*mathext.NormalQuantile(0.95); math.Abs(got-want) > 0.005 {
		t.Errorf("a part by the ruler is allowed %.3f mm, want %.3f", got, want)
	}
}

// One leg of many knots of one family runs short as a log-normal does.
func TestOneLegIsAllowedTheQuantileOfALogNormal(t *testing.T) {
	var e *gauge.Estimate
	for _, s := range []cord.Stuff{fob, rope} {
		var l gauge.Leg
		l.Add(gauge.Of(s, "square"), 1000, 1e6)
		sigma := math.Sqrt(s.Doubt()*s.Doubt() + gauge.HandDoubt*gauge.HandDoubt + gauge.DayDoubt*gauge.DayDoubt)
		for _, r := range gauge.Risks {
			want := 1000 * math.Expm1(sigma*mathext.NormalQuantile(1-1/float64(r)))
			if got := e.Enough([]gauge.Leg{l}, r, gauge.Everything)[0]; math.Abs(got-want) > 0.01*want {
				t.Errorf("once in %d is allowed %.1f mm of %s, by the log-normal %.1f", r, got, s.Kind(), want)
			}
		}
	}
}

func TestMoreSwatchesNeverWiden(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	stuffs := []cord.Stuff{fob, cotton, rope}
	families := []string{"square", "crown", "ball"}
	for range 40 {
		var all []gauge.Evidence
		var e *gauge.Estimate
		for range 12 {
			was := e
			s := stuffs[r.IntN(3)]
			switch r.IntN(3) {
			case 0:
				all = append(all, weighed(s, 0.1*r.NormFloat64()))
			case 1:
				all = append(all, reach(s, 0.1*r.NormFloat64()))
			default:
				all = append(all, took(s, 0.1*r.NormFloat64(), families[r.IntN(3)]))
			}
			e = gauge.Learn(all)
			for _, s := range stuffs {
				if _, a := was.Diameter(s); true {
					if _, b := e.Diameter(s); b > a+1e-12 {
						t.Fatalf("the diameter of %s widened from %v to %v", s.Kind(), a, b)
					}
				}
				for _, l := range piece(s, s, 7) {
					if a, b := was.Spread(l), e.Spread(l); b > a+1e-9 {
						t.Fatalf("a leg of %s widened from %v to %v mm", s.Kind(), a, b)
					}
				}
			}
		}
	}
}

func TestASwatchMovesNoOtherCordsDiameter(t *testing.T) {
	all := []gauge.Evidence{took(cotton, 0.05, "square"), reach(cotton, 0.03)}
	before := gauge.Learn(all)
	after := gauge.Learn(append(all, took(fob, 0.2, "square"), reach(fob, 0.1), weighed(fob, 0.1)))
	if a, b := before.Figures(cotton), after.Figures(cotton); a != b {
		t.Errorf("%+v became %+v", a, b)
	}
	if a, b := after.Figures(fob).DrawnUpMM, fob.DrawnUp(); a <= b {
		t.Errorf("taller and heavier than planned, it draws up to %v mm as before (%v)", a, b)
	}
	if a, b := before.Loose(rope, "square"), after.Loose(rope, "square"); b <= a {
		t.Errorf("a loose hand ties another cord %v times as loose, before %v", b, a)
	}
}

func TestTheOrderOfWhatIsMeasuredDoesNotMatter(t *testing.T) {
	all := []gauge.Evidence{took(fob, 0.05, "square"), reach(fob, 0.03), weighed(fob, 0.04), took(cotton, -0.02, "square"), took(fob, 0.01, "crown")}
	a := gauge.Learn(all)
	back := make([]gauge.Evidence, len(all))
	for i := range all {
		back[len(all)-1-i] = all[i]
	}
	b := gauge.Learn(back)
	for _, s := range []cord.Stuff{fob, cotton} {
		for _, f := range []string{"square", "crown"} {
			if x, y := a.Loose(s, f), b.Loose(s, f); math.Abs(x-y) > 1e-9 {
				t.Errorf("%s of %s: %v and %v", f, s.Kind(), x, y)
			}
		}
		for _, l := range piece(s, s, 7) {
			if x, y := a.Spread(l), b.Spread(l); math.Abs(x-y) > 1e-9*x {
				t.Errorf("a leg of %s spreads %v and %v", s.Kind(), x, y)
			}
		}
	}
}

// A weight that stands with its stuff counts like one that was measured.
func TestAWeightThatIsKnownNarrowsWhatSwatchesLeaveOpen(t *testing.T) {
	e := gauge.Learn([]gauge.Evidence{took(fob, 0.05, "square")})
	heavy := fob
	heavy.GramsPerMetre = 1.1 * fob.Weight()
	knowing := e.Knowing(heavy)
	if a, b := knowing.Figures(heavy).DrawnUpMM, heavy.DrawnUp(); math.Abs(a-b) > 1e-6 {
		t.Errorf("it draws up to %v mm, by its weight alone %v", a, b)
	}
	if _, d := knowing.Diameter(heavy); math.Abs(d-cord.PackingDoubt) > 1e-6 {
		t.Errorf("its diameter is in doubt by %v", d)
	}
	if e.Knowing(fob) != e {
		t.Error("a stuff that was not weighed changed what is known")
	}
}

func TestWhatSurprises(t *testing.T) {
	var e *gauge.Estimate
	if z := e.Surprise(took(fob, 0.02, "square").Readings[0]); math.Abs(z) > 1 {
		t.Errorf("2 %% more surprises by %v spreads", z)
	}
	if z := e.Surprise(took(fob, 0.5, "square").Readings[0]); z < 4 {
		t.Errorf("65 %% more surprises by %v spreads only", z)
	}
	sure := gauge.Learn([]gauge.Evidence{took(fob, 0, "square"), took(fob, 0, "square"), took(fob, 0, "square")})
	one := took(fob, 0.12, "square").Readings[0]
	if a, b := e.Surprise(one), sure.Surprise(one); b <= a {
		t.Errorf("who has tied three swatches alike is surprised by %v, who has not by %v", b, a)
	}
}

// maker is one of many, with a hand and cords of its own.
type maker struct {
	weight, packing map[string]float64
	hand            map[string]float64
	r               *rand.Rand
}

const makers = 2000

// plant gives makers, their hands and cords spread evenly over what is known.
func plant(stuffs ...cord.Stuff) []maker {
	families := []string{"square", "crown"}
	dims := 2*len(stuffs) + len(families)
	batch := mat.NewDense(makers, dims, nil)
	samplemv.LatinHypercube{Q: distmv.NewUnitUniform(dims, nil), Src: rand.NewPCG(3, 5)}.Sample(batch)
	out := make([]maker, makers)
	for i := range out {
		z := func(k int) float64 { return mathext.NormalQuantile(batch.At(i, k)) }
		out[i] = maker{map[string]float64{}, map[string]float64{}, map[string]float64{}, rand.New(rand.NewPCG(uint64(i), 9))}
		for k, s := range stuffs {
			out[i].weight[s.Kind()] = z(2*k) * math.Sqrt(s.Doubt()*s.Doubt()-cord.PackingDoubt*cord.PackingDoubt)
			out[i].packing[s.Kind()] = z(2*k+1) * cord.PackingDoubt
		}
		for k, f := range families {
			out[i].hand[f] = z(2*len(stuffs)+k) * gauge.HandDoubt
		}
	}
	return out
}

func (m maker) thick(kind string) float64 { return m.weight[kind] + m.packing[kind] }

// ties gives the lengths that legs really take.
func (m maker) ties(legs []gauge.Leg) []float64 {
	day := m.r.NormFloat64() * gauge.DayDoubt
	out := make([]float64, len(legs))
	for i, l := range legs {
		for _, k := range l.Knots {
			knots := k.MM * k.MM / k.SquareN
			own := m.r.NormFloat64() * gauge.KnotDoubt / math.Sqrt(knots)
			out[i] += k.MM * math.Exp(m.thick(k.Kind)+m.hand[k.Family]+day) * (1 + own)
		}
		out[i] += m.r.NormFloat64() * gauge.RulerMM * math.Sqrt(float64(l.Rulered))
	}
	return out
}

func (m maker) swatch(s cord.Stuff, family string) gauge.Evidence {
	d := m.thick(s.Kind())
	v := gauge.KnotVariance(10)
	r := func(what gauge.What, log, variance float64) gauge.Reading {
		return gauge.Reading{What: what, Kind: s.Kind(), Doubt: s.Doubt(), Log: log, Var: variance}
	}
	used := r(gauge.Took, d+m.hand[family]+m.r.NormFloat64()*math.Sqrt(v+gauge.DayDoubt*gauge.DayDoubt), v)
	used.Families = []gauge.Share{{Family: family, Of: 1}}
	return gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{
		r(gauge.Reach, d+m.r.NormFloat64()*math.Sqrt(1e-4+gauge.PushDoubt*gauge.PushDoubt), 1e-4), used}}
}

func (m maker) weighs(s cord.Stuff) gauge.Evidence {
	return gauge.Evidence{From: gauge.FromSwatch, Readings: []gauge.Reading{{What: gauge.Weighed, Kind: s.Kind(), Doubt: s.Doubt(),
		Log: m.weight[s.Kind()] + m.r.NormFloat64()*0.01, Var: 1e-4}}}
}

// logs a piece: what each of its cords took of both its legs.
func (m maker) logs(legs []gauge.Leg) gauge.Evidence {
	took := m.ties(legs)
	out := gauge.Evidence{From: gauge.FromLog}
	for i := 0; i < len(legs); i += 2 {
		whole := legs[i].Join(legs[i+1])
		all, single := 0.0, 0.0
		for _, k := range whole.Knots {
			all += k.MM
			single += k.SquareN * gauge.KnotDoubt * gauge.KnotDoubt
		}
		r := gauge.Reading{What: gauge.Took, Kind: whole.Knots[0].Kind, Doubt: whole.Knots[0].Doubt, Log: math.Log((took[i] + took[i+1]) / all),
			Var: (single + gauge.RulerMM*gauge.RulerMM*float64(whole.Rulered)) / (all * all)}
		for _, k := range whole.Knots {
			r.Families = append(r.Families, gauge.Share{Family: k.Family, Of: k.MM / all})
		}
		out.Readings = append(out.Readings, r)
	}
	return out
}

// Two thousand makers, each with a hand and cords of its own: before anything is
// measured, after swatches and after logs, the spread holds as many pieces as it says,
// to 2 points, and one piece in so many as was asked for runs short, to half a point.
func TestAThousandMakersTwice(t *testing.T) {
	for _, c := range []struct {
		name string
		a, b cord.Stuff
		know func(m maker) []gauge.Evidence
	}{
		{"nothing measured", fob, cotton, func(m maker) []gauge.Evidence { return nil }},
		{"nothing measured, labels in doubt", rope, rope, func(m maker) []gauge.Evidence { return nil }},
		{"weighed", fob, cotton, func(m maker) []gauge.Evidence { return []gauge.Evidence{m.weighs(fob), m.weighs(cotton)} }},
		{"two swatches", fob, cotton, func(m maker) []gauge.Evidence {
			return []gauge.Evidence{m.swatch(fob, "square"), m.swatch(fob, "square")}
		}},
		{"a swatch of each and three logs", fob, cotton, func(m maker) []gauge.Evidence {
			out := []gauge.Evidence{m.swatch(fob, "square"), m.swatch(cotton, "crown")}
			for range 3 {
				out = append(out, m.logs(piece(fob, cotton, 12)))
			}
			return out
		}},
	} {
		legs := piece(c.a, c.b, 9)
		const pieces = 20
		short := map[gauge.Risk]int{}
		within := [3]int{}
		n, bias := 0, 0.0
		var allowed map[gauge.Risk][]float64
		for _, m := range plant(unique(c.a, c.b)...) {
			e := gauge.Learn(c.know(m))
			middle := make([]float64, len(legs))
			mine := make([]gauge.Leg, len(legs))
			for i, l := range legs { // as a plan has it: the middle of what is known
				for _, k := range l.Knots {
					s := c.a
					if k.Kind == c.b.Kind() {
						s = c.b
					}
					by := e.Loose(s, k.Family) / gauge.Median
					thicker, _ := e.Diameter(s)
					by *= thicker
					k.MM, k.SquareN = k.MM*by, k.SquareN*by*by
					mine[i].Knots = append(mine[i].Knots, k)
					middle[i] += k.MM
				}
				mine[i].Rulered = l.Rulered
			}
			if e != nil || allowed == nil { // who has measured nothing is allowed as all are
				allowed = map[gauge.Risk][]float64{}
				for _, r := range []gauge.Risk{20, 200} {
					allowed[r] = e.Enough(mine, r, gauge.Everything)
				}
				if e == nil {
					for _, r := range gauge.Risks {
						allowed[r] = e.Enough(mine, r, gauge.Everything)
					}
				}
			}
			spread := e.Spread(mine[0])
			for range pieces {
				n++
				took := m.ties(legs)
				bias += math.Log(took[0] / middle[0])
				for k := 1; k <= 2; k++ {
					if math.Abs(took[0]-middle[0]) <= float64(k)*spread {
						within[k]++
					}
				}
				for r, a := range allowed {
					for i := range took {
						if took[i] > middle[i]+a[i] {
							short[r]++
							break
						}
					}
				}
			}
		}
		share := func(k int) float64 { return 100 * float64(k) / float64(n) }
		if off := bias / float64(n); math.Abs(off) > 0.004 {
			t.Errorf("%s: pieces take %.4f more than the middle, on the logarithm", c.name, off)
		}
		for k, want := range map[int]float64{1: 68.27, 2: 95.45} {
			if got := share(within[k]); math.Abs(got-want) > 2 {
				t.Errorf("%s: %d spreads hold %.1f %% of pieces, not %.1f", c.name, k, got, want)
			}
		}
		for r, k := range short {
			if got, want := share(k), 100/float64(r); math.Abs(got-want) > 0.5 {
				t.Errorf("%s: %.2f %% of pieces run short where one in %d was asked", c.name, got, r)
			}
		}
		t.Logf("%s: short %.2f %% at one in 20, %.2f at 200; one spread holds %.1f %%", c.name, share(short[20]), share(short[200]), share(within[1]))
	}
}

func unique(a, b cord.Stuff) []cord.Stuff {
	if a.Kind() == b.Kind() {
		return []cord.Stuff{a}
	}
	return []cord.Stuff{a, b}
}

// What was planted is found again.
func TestTheUpdateFindsWhatWasPlanted(t *testing.T) {
	for i, m := range plant(fob, cotton) {
		if i%40 != 0 {
			continue
		}
		var all []gauge.Evidence
		for range 60 {
			all = append(all, m.swatch(fob, "square"), m.swatch(cotton, "crown"))
		}
		all = append(all, m.weighs(fob))
		e := gauge.Learn(all)
		thick, doubt := e.Diameter(fob)
		if off := math.Abs(math.Log(thick) - m.thick(fob.Kind())); off > 4*doubt || doubt > 0.006 {
			t.Errorf("maker %d: the diameter is found %.4f off, in doubt by %.4f", i, off, doubt)
		}
		loose, doubt := e.Hand("square")
		if off := math.Abs(math.Log(loose/gauge.Median) - m.hand["square"]); off > 4*doubt || doubt > 0.012 {
			t.Errorf("maker %d: the hand is found %.4f off, in doubt by %.4f", i, off, doubt)
		}
	}
}

func BenchmarkLearnOf200Logs(b *testing.B) {
	m := plant(fob, cotton)[7]
	var all []gauge.Evidence
	for range 200 {
		all = append(all, m.logs(piece(fob, cotton, 12)))
	}
	for b.Loop() {
		gauge.Learn(all)
	}
}

func BenchmarkEnough(b *testing.B) {
	legs := piece(fob, cotton, 9)
	var e *gauge.Estimate
	for b.Loop() {
		e.Enough(legs, 20, gauge.Everything)
	}
}

func ExampleEstimate_Enough() {
	var e *gauge.Estimate
	var l gauge.Leg
	l.Add(gauge.Of(fob, "square"), 1000, 10)
	fmt.Printf("a metre of ten square knots: %.0f mm of spread, %.0f mm allowed\n", e.Spread(l), e.Enough([]gauge.Leg{l}, gauge.DefaultRisk, gauge.Everything)[0])
	// Output: a metre of ten square knots: 79 mm of spread, 139 mm allowed
}
