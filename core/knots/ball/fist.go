// Package ball knows the monkey's fist: three bands of turns at right angles
// round a core. From the cord, the passes and the core it tells how much cord a
// ball takes, how big and heavy it comes out and whether it closes; and the
// other way round, which core or how many passes suit.
//
// A newcomer needs one function, [Make]. Every figure is read off curves that
// the rope engine drew up at build time on a rigid ball (see drawn.go); nothing
// is worked out by formula. Lengths are millimetres, weights grams, except where
// a comment says diameters.
package ball

import (
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// Mode is how a ball is begun and left.
type Mode string

// One cord begins hidden inside, or leaves with the tail; two cords begin at
// their joined stopper, which is the core; doubled leads run side by side and
// leave four strands out.
const (
	OneCord  Mode = "one-cord"
	TwoCords Mode = "two-cords"
	Doubled  Mode = "doubled"
)

// Modes lists the modes.
func Modes() []Mode { return []Mode{OneCord, TwoCords, Doubled} }

// Ask is what a ball is wanted of.
type Ask struct {
	Cord   Cord
	Passes int
	Mode   Mode
	// Tail has the start of a single cord leave with its end, not hidden inside.
	Tail bool
	// Core is what is inside; without a diameter it is the best.
	Core Core
}

// Settled is what is asked with what is not said as usual: one cord, its start
// hidden; only a single cord can begin with its tail.
func (a Ask) Settled() Ask {
	if a.Mode == "" {
		a.Mode = OneCord
	}
	a.Tail = a.Tail && a.Mode == OneCord
	return a
}

// Suited is what is asked with a core that its mode can have: two joined cords have
// their stopper as the core, another core is left for it, and it for a marble.
func (a Ask) Suited() Ask {
	if two := a.Mode == TwoCords; two != (a.Core.Kind == Stopper) {
		if two {
			a.Core = Core{Kind: Stopper}
		} else {
			a.Core.Kind = Marble
		}
	}
	return a
}

// Method is one method by which a ball is tied.
type Method struct {
	Name  string `json:"name"`
	Mode  Mode   `json:"mode" jsonschema:"enum=one-cord,enum=two-cords,enum=doubled"`
	Tail  bool   `json:"tail"`
	Cords int    `json:"cords"` // of how many it is tied
}

// Methods lists the methods.
func Methods() []Method {
	return []Method{
		{"one cord, start hidden", OneCord, false, 1},
		{"one cord, start with the tail", OneCord, true, 1},
		{"two cords from their stopper", TwoCords, false, 2},
		{"doubled leads, four strands out", Doubled, false, 2},
	}
}

// First is what is asked where nothing is said yet: the usual fist on its best core.
func First() Ask {
	return Ask{Passes: LeastPasses + 1, Mode: OneCord, Core: Core{Kind: Marble}}
}

// Strands is how many strands leave a ball.
func (a Ask) Strands() int {
	switch {
	case a.Mode == Doubled:
		return 4
	case a.Mode == TwoCords, a.Tail:
		return 2
	}
	return 1
}

func (a Ask) family() family {
	switch {
	case a.Mode == TwoCords:
		return joined
	case a.Mode == Doubled:
		return leavingPair
	case a.Tail:
		return leaving
	}
	return starting
}

// Ball is a ball drawn up.
type Ball struct {
	Ask
	Core Core // with its diameter
	// CordMM is the cord in the ball, from where it begins to where it leaves
	// it, BandsMM that of each band, and LoopMM that of one turn on the average.
	CordMM  float64
	BandsMM [3]float64
	LoopMM  float64
	// CordsMM is the cord of each cord.
	CordsMM []float64
	// FaceMM is the diameter across two faces, CornerMM across two corners.
	FaceMM   float64
	CornerMM float64
	Range    Range
	// BareMM is how wide the widest place is that no cord covers, 0 where
	// cords touch.
	BareMM  float64
	WeightG float64
	CoreG   float64
	Gap     float64 // least distance of strands over their diameter in the balls drawn up that it is taken between
	// StopperKnot is the knot that joins two cords, where it is the core.
	StopperKnot string
	Warnings    []Warning
	strands     []Strand // in diameters
}

// Range are the cores with which turns touch and no core shows at the corners.
type Range struct {
	LeastMM float64 `json:"core_min_mm"` // it just fills the ball
	MostMM  float64 `json:"core_max_mm"` // it just shows at no corner
	BestMM  float64 `json:"core_best_mm"`
}

// Holds tells whether a core is within the range, to a tenth of a millimetre
// as calipers read.
func (r Range) Holds(mm float64) bool { return mm >= r.LeastMM-0.05 && mm <= r.MostMM+0.05 }

// Fit is -1 for a core that is too small, 1 for one that is too large, and 0 for
// one that the range holds.
func (r Range) Fit(mm float64) int {
	switch {
	case r.Holds(mm):
		return 0
	case mm < r.LeastMM:
		return -1
	}
	return 1
}

// Warning is what a maker should know before cutting, with what works instead.
type Warning struct {
	Code    string  `json:"code"`
	Message string  `json:"message"`
	Passes  int     `json:"passes,omitempty"`  // that suit instead
	CoreMM  float64 `json:"core_mm,omitempty"` // that suits instead
	Kind    Kind    `json:"kind,omitempty"`    // of core, instead
}

// Refused is the error for a ball that cannot be tied as it is asked for, with
// what can.
type Refused struct {
	Field  string // passes, core, mode, cord, give
	Why    string
	Passes int
	CoreMM float64
}

func (r *Refused) Error() string { return r.Why }

// Make draws a ball up.
func Make(a Ask) (Ball, error) {
	if err := a.check(); err != nil {
		return Ball{}, err
	}
	f, hard := a.family(), a.Cord.Hard()
	t, err := tableOf(f, a.Passes)
	if err != nil {
		return Ball{}, err
	}
	b := Ball{Ask: a, Core: a.Core}
	b.Range = t.cores(a.Cord)
	if b.Core.Kind == "" {
		b.Core.Kind = Marble
		if a.Mode == TwoCords {
			b.Core.Kind = Stopper
		}
	}
	switch {
	case b.Core.Kind == Stopper && b.Core.DiameterMM == 0:
		b.StopperKnot, b.Core.DiameterMM = stopperFor(a.Cord, b.Range)
	case b.Core.Kind == Stopper: // made up to that size
		b.StopperKnot, _ = stopperFor(a.Cord, Range{LeastMM: b.Core.DiameterMM, MostMM: b.Core.DiameterMM})
	case b.Core.Kind == Wadding && b.Core.DiameterMM == 0:
		b.Core.DiameterMM = b.Range.LeastMM // it fills what is there
	case b.Core.DiameterMM == 0:
		b.Core.DiameterMM = b.Range.BestMM
	}
	core := b.Core.DiameterMM / hard
	if size := stopperSizes()[0]; b.StopperKnot != "" && size*hard > b.Range.MostMM && core > t.steps[len(t.steps)-1] {
		return Ball{}, &Refused{Field: "passes", Passes: a.Passes + 1, Why: fmt.Sprintf("the smallest stopper, %s, comes to %.1f mm, and %d passes close on %.1f mm at most; take %d", stoppers[0].name, size*hard, a.Passes, b.Range.MostMM, a.Passes+1)}
	}
	if most := t.steps[len(t.steps)-1]; core > most {
		return Ball{}, a.tooLarge(b.Core.DiameterMM, most*hard, b.Range)
	}
	m := t.at(math.Max(core, t.steps[0]))
	for i := range b.BandsMM {
		b.BandsMM[i] = hard * m.bands[i]
		b.CordMM += b.BandsMM[i]
	}
	for _, l := range m.cords {
		b.CordsMM = append(b.CordsMM, hard*l)
	}
	b.LoopMM = b.CordMM / m.turns
	b.FaceMM, b.CornerMM = hard*m.face, hard*m.corner
	b.BareMM = math.Max(0, hard*(m.hole+1)-a.Cord.CoverMM)
	b.CoreG = b.Core.Weight(a.Cord)
	b.WeightG = b.CordMM/1000*a.Cord.GramsPerMetre + b.CoreG
	b.strands = t.strands(math.Max(core, t.steps[0]))
	b.Gap = m.gap
	b.warn(core < t.snug)
	return b, nil
}

// Strand is the path of one cord through a ball.
type Strand struct {
	Cord   int      // 0 or 1
	Points []r3.Vec // from where it is hidden, or begins, to where it leaves
	Band   []int    // of each point, 0 to 2
}

// Strands are the paths of a ball's cords, mm, about the middle of the core. The
// ends leave along +y; a face looks towards +z.
func (b Ball) Strands() []Strand {
	turn := b.facing()
	hard := b.Cord.Hard()
	out := make([]Strand, len(b.strands))
	for i, s := range b.strands {
		out[i] = Strand{s.Cord, make([]r3.Vec, len(s.Points)), s.Band}
		for k, v := range s.Points {
			out[i].Points[k] = r3.Scale(hard, turn(v))
		}
	}
	return out
}

// Sides are the directions in which the six faces of [Ball.Faces] look, with the ball as
// [Ball.Strands] gives it.
func (b Ball) Sides() []r3.Vec {
	turn := b.facing()
	var out []r3.Vec
	for _, n := range faceNormals() {
		out = append(out, turn(n))
	}
	return out
}

// Seen are the paths of a ball's cords, mm, with face n of [Ball.Faces], from 0,
// towards +z and its turns running along y.
func (b Ball) Seen(n int) []Strand {
	normal := faceNormals()[n]
	along, across := directions(n/2, normal)
	x := r3.Cross(along, normal)
	if r3.Dot(x, across) < 0 { // the same way across as Faces counts
		along, x = r3.Scale(-1, along), r3.Scale(-1, x)
	}
	hard := b.Cord.Hard()
	out := make([]Strand, len(b.strands))
	for i, s := range b.strands {
		out[i] = Strand{s.Cord, make([]r3.Vec, len(s.Points)), s.Band}
		for k, v := range s.Points {
			out[i].Points[k] = r3.Scale(hard, r3.Vec{X: r3.Dot(v, x), Y: r3.Dot(v, along), Z: r3.Dot(v, normal)})
		}
	}
	return out
}

// facing turns a ball as it was drawn up so that its ends leave along +y and
// the face of its second band that is seen best looks to +z.
func (b Ball) facing() func(r3.Vec) r3.Vec {
	y := r3.Vec{}
	for i, s := range b.strands { // from the middle to where its ends leave
		last := s.Points[len(s.Points)-1]
		if b.family() == joined && i == 0 || b.family() == leaving || b.family() == leavingPair {
			y = r3.Add(y, s.Points[0])
		}
		if b.family() != joined || i != 0 {
			y = r3.Add(y, last)
		}
	}
	y = r3.Unit(y)
	best, z := -1.0, r3.Vec{}
	for _, n := range faceNormals() {
		// The farther from the way out, the nearer to the tier.
		if d := -r3.Dot(n, y); d > best+1e-9 && n.Y == 0 {
			best, z = d, n
		}
	}
	z = r3.Unit(r3.Sub(z, r3.Scale(r3.Dot(z, y), y)))
	x := r3.Cross(y, z)
	return func(v r3.Vec) r3.Vec { return r3.Vec{X: r3.Dot(v, x), Y: r3.Dot(v, y), Z: r3.Dot(v, z)} }
}

func (a Ask) check() error {
	c := a.Cord
	switch {
	case !(c.DiameterMM >= 0.2 && c.DiameterMM <= 60):
		return &Refused{Field: "cord", Why: fmt.Sprintf("a cord of %g mm is none; it is between 0.2 and 60 mm thick", c.DiameterMM)}
	case !(c.Give >= 0 && c.Give <= 0.4):
		return &Refused{Field: "give", Why: fmt.Sprintf("a give of %g is none; it is the share of its diameter by which the cord flattens, from 0 to 0.4", c.Give)}
	case c.Leather && c.Give > LeatherGive:
		return &Refused{Field: "give", Why: fmt.Sprintf("leather does not flatten: a give of %g is asked of it, %g is all it has; take %g, or a cord that gives", c.Give, LeatherGive, LeatherGive)}
	case a.Mode != OneCord && a.Mode != TwoCords && a.Mode != Doubled:
		return &Refused{Field: "mode", Why: fmt.Sprintf("there is no mode %q; it is one-cord, two-cords or doubled", a.Mode)}
	case a.Passes < LeastPasses:
		return &Refused{Field: "passes", Passes: LeastPasses, Why: fmt.Sprintf("%d pass%s not hold a core: it slips out between the turns; two are the least", a.Passes, map[bool]string{true: " does", false: "es do"}[a.Passes == 1])}
	case a.Passes > MostPasses:
		return a.tooMany()
	case a.Mode == Doubled && !leavingPair.takes(a.Passes):
		even := max(4, a.Passes+a.Passes%2)
		return &Refused{Field: "passes", Passes: even, Why: fmt.Sprintf("doubled leads lie side by side, so there are 4, 6 or 8 passes and not %d; take %d", a.Passes, even)}
	case a.Tail && a.Mode != OneCord:
		return &Refused{Field: "start", Why: "only a single cord can start hidden or with its tail; leave the start out"}
	}
	return a.Core.check()
}

// tooMany is the refusal of more passes than there are, with what suits the
// core that was meant.
func (a Ask) tooMany() error {
	r := &Refused{Field: "passes", Passes: MostPasses, Why: fmt.Sprintf("%d passes are too many: up to %d can be kept in order", a.Passes, MostPasses)}
	if mm := a.Core.DiameterMM; mm > 0 {
		need := float64(a.Passes) * a.Cord.Hard()
		a.Passes = MostPasses
		if n, ok := Nearest(a, mm); ok {
			r.Passes = n
			r.Why += fmt.Sprintf(", and they would need a core of about %.1f mm; on %.1f mm take %d", need, mm, n)
		} else {
			least := a
			least.Passes = LeastPasses
			rg, err := Cores(least)
			if err == nil && mm < rg.LeastMM {
				r.Passes, r.CoreMM = LeastPasses, rg.BestMM
				r.Why += fmt.Sprintf(", and they would need a core of about %.1f mm; %.1f mm is too small for this cord at all: two passes on %.1f mm are the least", need, mm, rg.BestMM)
			}
		}
	}
	return r
}

func (a Ask) tooLarge(mm, most float64, r Range) error {
	out := &Refused{Field: "core", CoreMM: r.MostMM, Why: fmt.Sprintf("a core of %.1f mm does not stay in %d passes of this cord: they slide off it above %.1f mm; take one of up to %.1f mm", mm, a.Passes, most, r.MostMM)}
	if n, ok := Suits(a, mm); ok {
		out.Passes = n
		out.Why += fmt.Sprintf(", or %d passes", n)
	}
	return out
}
