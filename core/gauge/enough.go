package gauge

import (
	"math"
	"math/rand/v2"
	"sync"

	"gonum.org/v1/gonum/floats"
	"gonum.org/v1/gonum/mat"
	"gonum.org/v1/gonum/mathext"
	"gonum.org/v1/gonum/stat/distmv"
	"gonum.org/v1/gonum/stat/samplemv"
)

// Leg is what is in doubt of the length that one leg takes.
type Leg struct {
	// Knots are its knotwork on the median, by terms; a term stands once.
	Knots []Knots
	// Rulered is how many of its parts are measured with a ruler.
	Rulered int
}

// Knots are those of one term in a leg: how much of it they take, mm, and the sum of
// squares of what its sections take over the number of their knots, mm2.
type Knots struct {
	Term
	MM      float64
	SquareN float64
}

// Add puts the knots of a section to a leg: so many that take so much of it together.
func (l *Leg) Add(t Term, mm float64, knots int) {
	square := mm * mm / math.Max(1, float64(knots))
	for i := range l.Knots {
		if l.Knots[i].Term == t {
			l.Knots[i].MM += mm
			l.Knots[i].SquareN += square
			return
		}
	}
	l.Knots = append(l.Knots, Knots{t, mm, square})
}

// Join is two legs laid end to end.
func (l Leg) Join(o Leg) Leg {
	out := Leg{Rulered: l.Rulered + o.Rulered}
	for _, of := range []Leg{l, o} {
		for _, k := range of.Knots {
			at := -1
			for i := range out.Knots {
				if out.Knots[i].Term == k.Term {
					at = i
				}
			}
			if at < 0 {
				out.Knots = append(out.Knots, k)
				continue
			}
			out.Knots[at].MM += k.MM
			out.Knots[at].SquareN += k.SquareN
		}
	}
	return out
}

// ownVariance is that of what is the leg's own: single knots and the ruler, mm2.
func (l Leg) ownVariance() float64 {
	v := RulerMM * RulerMM * float64(l.Rulered)
	for _, k := range l.Knots {
		v += KnotDoubt * KnotDoubt * k.SquareN
	}
	return v
}

// Basis is what a figure rests on.
type Basis int

// A figure rests on geometry and the prior, on swatches too, or on swatches and logs.
const (
	Geometry Basis = iota
	Swatches
	Everything
)

func (e *Estimate) by(b Basis) *belief {
	switch {
	case e == nil || b == Geometry:
		return nil
	case b == Swatches:
		return e.swatches
	}
	return e.all
}

// Variance is that of the length of a leg by a basis, mm2: what its terms have in
// common, the day and what is its own.
func (e *Estimate) Variance(l Leg, b Basis) float64 {
	v, all := l.ownVariance(), 0.0
	for _, p := range l.Knots {
		all += p.MM
		for _, q := range l.Knots {
			v += p.MM * q.MM * e.common(e.by(b), p.Term, q.Term)
		}
	}
	return v + all*all*DayDoubt*DayDoubt
}

// Spread is the standard deviation of the length of a leg, mm.
func (e *Estimate) Spread(l Leg) float64 { return math.Sqrt(e.Variance(l, Everything)) }

// Enough is what each leg of a piece must be longer than its median, mm, so that some
// leg runs short in one piece of so many as the risk says. Every leg is allowed the
// same number of its own spreads.
func (e *Estimate) Enough(legs []Leg, risk Risk, b Basis) []float64 {
	out := make([]float64, len(legs))
	var terms []Term
	index := map[Term]int{}
	for _, l := range legs {
		for _, k := range l.Knots {
			if _, ok := index[k.Term]; !ok {
				index[k.Term] = len(terms)
				terms = append(terms, k.Term)
			}
		}
	}
	n := len(terms)
	cov := make([][]float64, n)
	for i, p := range terms {
		cov[i] = make([]float64, n)
		for j, q := range terms[:i+1] {
			cov[i][j] = e.common(e.by(b), p, q)
			cov[j][i] = cov[i][j]
		}
	}
	factors := rooted(cov, mostFactors-1)
	rank := 0 // the day is one more
	if n > 0 {
		rank = len(factors[0])
	}
	// Legs alike run short alike: they are one, so many times.
	var kinds []alike
	for i, l := range legs {
		spread := math.Sqrt(e.Variance(l, b))
		out[i] = spread
		if spread < 1e-9 {
			continue
		}
		a := alike{times: 1, own: math.Sqrt(l.ownVariance()) / spread, loads: make([]float64, rank+1)}
		for _, k := range l.Knots {
			a.knots += k.MM / spread
		}
		for _, k := range l.Knots {
			for f := range rank {
				a.loads[f] += k.MM / spread / a.knots * factors[index[k.Term]][f]
			}
		}
		a.loads[rank] = DayDoubt
		a.own = math.Max(a.own, 1e-4)
		found := false
		for j := range kinds {
			if kinds[j].like(a) {
				kinds[j].times++
				found = true
				break
			}
		}
		if !found {
			kinds = append(kinds, a)
		}
	}
	turned(kinds)
	t := spreads(kinds, 1/float64(risk))
	for i := range out {
		out[i] *= t
	}
	return out
}

// alike are legs whose errors are alike, in spreads: what they have in common by
// factors, on logarithms of their knots, and what is each one's own.
type alike struct {
	times int
	knots float64
	loads []float64
	own   float64
}

func (a alike) like(b alike) bool {
	const knots, own, load = 0.01, 0.001, 1e-5 // by less nobody would cut otherwise
	if math.Abs(a.knots-b.knots) > knots || math.Abs(a.own-b.own) > own {
		return false
	}
	return floats.EqualApprox(a.loads, b.loads, load)
}

const (
	// mostFactors is how many common errors a piece has that count, the day among them.
	mostFactors = 16
	// points is over how many pieces the share that runs short is taken.
	points = 512
)

// strata part the first common error by its quantiles.
var strata = []struct {
	from, to float64
	n        int
}{{0, 0.5, 48}, {0.5, 0.85, 224}, {0.85, 1, points - 48 - 224}}

// madeUp is a piece that is made up: its common errors, and as what share of all it
// counts.
type madeUp struct {
	z      [mostFactors]float64
	counts float64
}

// turned turns the common errors, so that the first is the one that lengthens all legs
// together: it decides most, and of it the pieces that are made up miss nothing.
func turned(kinds []alike) {
	if len(kinds) == 0 || len(kinds[0].loads) < 2 {
		return
	}
	// A mirror takes the sum of all loads to the first axis.
	v := make([]float64, len(kinds[0].loads))
	for _, a := range kinds {
		for f, l := range a.loads {
			v[f] += l * a.knots * float64(a.times)
		}
	}
	size := floats.Norm(v, 2)
	if size == 0 {
		return
	}
	floats.Scale(1/size, v)
	v[0]--
	if size = floats.Norm(v, 2); size < 1e-9 {
		return
	}
	floats.Scale(1/size, v)
	for _, a := range kinds {
		floats.AddScaled(a.loads, -2*floats.Dot(a.loads, v), v)
	}
}

// made are pieces made up once: their common errors, spread evenly over what can be. Of
// the first, most stand where pieces run short; what they count is less by as much.
var made = sync.OnceValue(func() []madeUp {
	halton := samplemv.Halton{Kind: samplemv.Owen, Q: distmv.NewUnitUniform(mostFactors, nil), Src: rand.NewPCG(7, 11)}
	batch := mat.NewDense(points, mostFactors, nil)
	halton.Sample(batch)
	out := make([]madeUp, points)
	for i := range out {
		for f := range mostFactors {
			out[i].z[f] = mathext.NormalQuantile(batch.At(i, f))
		}
	}
	i := 0
	for _, s := range strata {
		for k := range s.n {
			out[i].z[0] = mathext.NormalQuantile(s.from + (s.to-s.from)*(float64(k)+0.5)/float64(s.n))
			out[i].counts = (s.to - s.from) / float64(s.n)
			i++
		}
	}
	return out
})

// spreads is how many spreads must be allowed so that the share of pieces of which
// some leg runs short is as asked. Common errors are made up; over each leg's own the
// share is worked out.
func spreads(kinds []alike, short float64) float64 {
	if len(kinds) == 0 {
		return 0
	}
	pieces := made()
	off := make([]float64, len(pieces)*len(kinds)) // by how much common errors lengthen each
	for p := range pieces {
		for k, a := range kinds {
			x := 0.0
			for f, l := range a.loads {
				x += l * pieces[p].z[f]
			}
			off[p*len(kinds)+k] = a.knots * math.Expm1(x)
		}
	}
	share := func(t float64) float64 {
		sum := 0.0
		for p := range pieces {
			ok := 1.0
			for k, a := range kinds {
				z := (t - off[p*len(kinds)+k]) / a.own
				switch {
				case z > 6:
				case a.times == 1:
					ok *= math.Erfc(-z/math.Sqrt2) / 2
				default:
					ok *= math.Pow(math.Erfc(-z/math.Sqrt2)/2, float64(a.times))
				}
			}
			sum += pieces[p].counts * (1 - ok)
		}
		return sum
	}
	// The share falls steadily; on the normal scale it is nearly straight.
	scale := func(t float64) float64 {
		return mathext.NormalQuantile(math.Min(1-1e-12, math.Max(1e-12, 1-share(t))))
	}
	want := mathext.NormalQuantile(1 - short)
	low, high := 0.0, 8.0
	t := want
	for range 40 {
		got := scale(t)
		if got < want {
			low = t
		} else {
			high = t
		}
		if math.Abs(got-want) < 2e-4 || high-low < 1e-5 {
			break
		}
		next := t + (want - got)
		if next <= low || next >= high {
			next = (low + high) / 2
		}
		t = next
	}
	return t
}
