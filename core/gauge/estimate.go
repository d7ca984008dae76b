package gauge

import (
	"encoding/binary"
	"fmt"
	"math"

	"github.com/cespare/xxhash/v2"

	"nimblebight/core/cord"
)

// Estimate is what is known of the maker's cords and hand. nil is the prior: nothing
// was measured.
//
// All errors are normal on logarithms, so what is known is a mean and a covariance of
// two errors a kind of cord, what it weighs for its label and how hard it packs, and
// one a family of knots; every reading moves them by the conjugate update. A diameter
// is told by its own cord's weighings and heights alone, so that no other cord moves
// it; what a cord takes is told by everything.
type Estimate struct {
	place    map[string]int // kinds and families, by their place in the beliefs
	all      *belief
	swatches *belief            // by swatches alone
	own      map[string]*belief // of a kind's weight and packing
	id       string
}

func kindAt(kind string) string     { return "cord " + kind }
func familyAt(family string) string { return "family " + family }

// labelDoubt parts the doubt of a label in that of its weight and that of its packing,
// as variances.
func labelDoubt(doubt float64) (weight, packing float64) {
	packing = cord.PackingDoubt * cord.PackingDoubt
	return math.Max(0, doubt*doubt-packing), packing
}

// label is a stuff by its label alone.
func label(s cord.Stuff) cord.Stuff {
	s.GramsPerMetre = 0
	return s
}

// Learn is what is known when all of this was measured. The order does not matter.
func Learn(measured []Evidence) *Estimate {
	if len(measured) == 0 {
		return nil
	}
	e := &Estimate{place: map[string]int{}, own: map[string]*belief{}}
	variances := []float64{DayDoubt * DayDoubt}
	sum := xxhash.New()
	number := func(vs ...float64) {
		for _, v := range vs {
			_, _ = sum.Write(binary.LittleEndian.AppendUint64(nil, math.Float64bits(v)))
		}
	}
	for _, v := range measured {
		_, _ = sum.WriteString(string(v.From) + "\n")
		for _, r := range v.Readings {
			_, _ = sum.WriteString(r.Kind + "\n")
			number(float64(r.What), r.Doubt, r.Log, r.Var)
			if _, ok := e.place[kindAt(r.Kind)]; !ok {
				weight, packing := labelDoubt(r.Doubt)
				e.place[kindAt(r.Kind)] = len(variances)
				variances = append(variances, weight, packing)
				e.own[r.Kind] = newBelief([]float64{weight, packing})
			}
			for _, f := range r.Families {
				_, _ = sum.WriteString(f.Family + "\n")
				number(f.Of)
				if _, ok := e.place[familyAt(f.Family)]; !ok {
					e.place[familyAt(f.Family)] = len(variances)
					variances = append(variances, HandDoubt*HandDoubt)
				}
			}
			if r.What != Took {
				row := []at{{0, 1}}
				if r.What == Reach {
					row = append(row, at{1, 1})
				}
				e.own[r.Kind].given(row, r.Log, r.noise())
			}
		}
	}
	e.id = fmt.Sprintf("%016x", sum.Sum64())
	e.all = newBelief(variances)
	for _, from := range []Source{FromSwatch, FromLog} {
		for _, v := range measured {
			if v.From == from {
				e.learn(v)
			}
		}
		if from == FromSwatch {
			e.swatches = e.all.clone()
		}
	}
	return e
}

// noise is the variance of a reading by itself, beside the day of the hand.
func (r Reading) noise() float64 {
	if r.What == Reach {
		return r.Var + PushDoubt*PushDoubt
	}
	return r.Var
}

// row is what errors a reading is the sum of.
func (e *Estimate) row(r Reading) []at {
	i := e.place[kindAt(r.Kind)]
	row := []at{{i, 1}}
	if r.What != Weighed {
		row = append(row, at{i + 1, 1})
	}
	for _, f := range r.Families {
		row = append(row, at{e.place[familyAt(f.Family)], f.Of})
	}
	return row
}

// day is the place of the error that the readings of one evidence share: the hand on
// that day. It is forgotten before the next.
const day = 0

// learn is the update by one evidence.
func (e *Estimate) learn(v Evidence) {
	e.all.forget(day, DayDoubt*DayDoubt)
	for _, r := range v.Readings {
		row := e.row(r)
		if r.What == Took {
			row = append(row, at{day, 1})
		}
		e.all.given(row, r.Log, r.noise())
	}
}

// exact is the variance of a weight that stands with its stuff.
const exact = 1e-9

// Knowing is the estimate with the weights that stand with stuffs, where something was
// measured of their kind.
func (e *Estimate) Knowing(stuffs ...cord.Stuff) *Estimate {
	out := e
	for _, s := range stuffs {
		if e == nil || !s.Weighed() {
			continue
		}
		i, ok := e.place[kindAt(s.Kind())]
		if !ok {
			continue
		}
		if out == e {
			c := *e
			c.all, c.swatches, c.own = e.all.clone(), e.swatches.clone(), map[string]*belief{}
			for k, b := range e.own {
				c.own[k] = b
			}
			out = &c
		}
		log := math.Log(s.GramsPerMetre/label(s).Weight()) / 2
		own := out.own[s.Kind()].clone()
		own.given([]at{{0, 1}}, log, exact)
		out.own[s.Kind()] = own
		out.all.given([]at{{i, 1}}, log, exact)
		out.swatches.given([]at{{i, 1}}, log, exact)
	}
	return out
}

// ID names what was learnt; "" where nothing was.
func (e *Estimate) ID() string {
	if e == nil {
		return ""
	}
	return e.id
}

var both = []at{{0, 1}, {1, 1}}

// Diameter is by what a stuff draws up thicker than its label alone says, and the
// standard deviation of its logarithm.
func (e *Estimate) Diameter(s cord.Stuff) (thicker, doubt float64) {
	if e != nil {
		if own, ok := e.own[s.Kind()]; ok {
			mean, variance := own.over(both)
			return math.Exp(mean), math.Sqrt(math.Max(0, variance))
		}
	}
	return s.DrawnUp() / label(s).DrawnUp(), s.Doubt()
}

// Figures are what counts of a stuff, with the diameter and the weight that its own
// measurements tell.
func (e *Estimate) Figures(s cord.Stuff) cord.Figures {
	f := s.Figures()
	if e == nil {
		return f
	}
	own, ok := e.own[s.Kind()]
	if !ok {
		return f
	}
	thicker, _ := e.Diameter(s)
	f.DrawnUpMM = math.Min(label(s).DrawnUp()*thicker, s.DiameterMM)
	if !s.Weighed() {
		f.Weight *= math.Exp(2 * own.mean[0])
	}
	return f
}

// Loose is by what knots of a family take more of a stuff than ideal ones of the
// diameter of [Estimate.Figures]: the middle of it.
func (e *Estimate) Loose(s cord.Stuff, family string) float64 {
	if e == nil {
		return Median
	}
	mean, _ := e.all.over(e.term(Of(s, family)))
	if own, ok := e.own[s.Kind()]; ok {
		d, _ := own.over(both)
		mean -= d
	}
	return Median * math.Exp(mean)
}

// Hand is by what this maker ties a family looser than an ideal knot, and the standard
// deviation of its logarithm.
func (e *Estimate) Hand(family string) (loose, doubt float64) {
	if e != nil {
		if i, ok := e.place[familyAt(family)]; ok {
			return Median * math.Exp(e.all.mean[i]), math.Sqrt(e.all.cov[i][i])
		}
	}
	return Median, HandDoubt
}

// term is what of a term was measured.
func (e *Estimate) term(t Term) []at {
	var row []at
	if i, ok := e.place[kindAt(t.Kind)]; ok {
		row = append(row, at{i, 1}, at{i + 1, 1})
	}
	if i, ok := e.place[familyAt(t.Family)]; ok {
		row = append(row, at{i, 1})
	}
	return row
}

// common is the covariance of what two terms take, on logarithms, by a belief: nil for
// the prior.
func (e *Estimate) common(by *belief, a, b Term) float64 {
	sum := 0.0
	known := func(name string) bool {
		if e == nil || by == nil {
			return false
		}
		_, ok := e.place[name]
		return ok
	}
	if a.Kind == b.Kind && !known(kindAt(a.Kind)) {
		sum += a.Doubt * a.Doubt
	}
	if a.Family == b.Family && !known(familyAt(a.Family)) {
		sum += HandDoubt * HandDoubt
	}
	if e == nil || by == nil {
		return sum
	}
	for _, p := range e.term(a) {
		for _, q := range e.term(b) {
			sum += by.cov[p.i][q.i]
		}
	}
	return sum
}

// Surprise is by how many of its standard deviations a reading lies from what is
// known without it.
func (e *Estimate) Surprise(r Reading) float64 {
	if e == nil {
		e = &Estimate{}
	}
	weight, packing := labelDoubt(r.Doubt)
	own := e.own[r.Kind]
	if own == nil {
		own = newBelief([]float64{weight, packing})
	}
	mean, variance := 0.0, 0.0
	switch r.What {
	case Weighed:
		mean, variance = own.over(both[:1])
	case Reach:
		mean, variance = own.over(both)
	default:
		variance = DayDoubt * DayDoubt
		for _, f := range r.Families {
			t := Term{r.Kind, r.Doubt, f.Family}
			if e.all != nil {
				m, _ := e.all.over(e.term(t))
				mean += f.Of * m
			}
			for _, g := range r.Families {
				variance += f.Of * g.Of * e.common(e.all, t, Term{r.Kind, r.Doubt, g.Family})
			}
		}
	}
	return (r.Log - mean) / math.Sqrt(variance+r.noise())
}
