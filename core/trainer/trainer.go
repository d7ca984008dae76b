// Package trainer has a maker lead the strands of a knot over its loose diagram, crossing by
// crossing, and judges each by the crossings of the curve: right, or wrong and what it makes
// instead. It also says when a knot is due again.
//
// A diagram is the loosest frame of a knot's film as it is looked at. What lies round something,
// a cover or a ball, has no such frame: it is opened, so that all of it lies flat.
package trainer

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"sync"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/loose"
	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

// Lesson is a knot to be led.
//
// Invariant: every crossing of the diagram is asked for once, when the second of its two
// strands comes to it; before that nothing lies there.
type Lesson struct {
	Knot    string `json:"knot"`
	Name    string `json:"name"`
	Strands int    `json:"strands"`
	// Asks are the crossings in the order in which they are come to.
	Asks []Ask `json:"asks"`

	film      knot.Film
	part      string           // which part of the knot it is, where it is not all
	itself    bool             // it is no other knot that stands for it
	still     []bool           // strands that it is tied about, nil where there are none
	wire      bool             // its first strand is a wire that the other is put on
	across    bool             // seen from the working end, and not from the face
	diagram   [][]vec          // its loosest frame, as it is seen
	crossings []curve.Crossing // of the closed diagram, as the knot has them
	closed    int              // how many closed curves
	signature signature
	// opened is how what lies round something is opened, round its strands as they lie there;
	// both nil for any other.
	opened *loosen.Opening
	round  [][]vec
}

// Ask is one crossing: which strand comes to which, both counted from 0 on the left where
// they come in, and how far along the strand, in its nodes. Over is how it passes.
type Ask struct {
	Strand int     `json:"strand"`
	With   int     `json:"with"`
	At     float64 `json:"-"`
	WithAt float64 `json:"-"` // along the other
	Over   bool    `json:"-"`
	X      float64 `json:"x"` // in the diagram, diameters
	Y      float64 `json:"y"`

	crossing int
}

// mostAsked is how many crossings a lesson has at most.
const mostAsked = 60

// signature is by what a led knot is known: how many strands it has, the determinant of its
// closure, and how often its strands are wound about one another.
type signature struct {
	strands, closed, determinant, wound int
	across                              bool // closed as it is seen from the working end
	opened                              bool // it lies round something
}

// fewFor is how many crossings a single strand's diagram has for a determinant of 1 to say
// that it is no knot: all others of so few have a greater one (tables of knots).
const fewFor = 9

// Lessons are all knots that can be led, those with the fewest crossings first; each on as
// few strands as it is tied with.
var Lessons = sync.OnceValue(func() []Lesson {
	var out []Lesson
	for _, l := range catalogue() {
		if len(l.Asks) > 0 && l.knotted() && !slices.ContainsFunc(out, func(o Lesson) bool { return o.Knot == l.Knot }) {
			out = append(out, l)
		}
	}
	slices.SortFunc(out, func(a, b Lesson) int {
		return cmp.Or(cmp.Compare(len(a.Asks), len(b.Asks)), cmp.Compare(a.Name, b.Name))
	})
	return out
})

// knotted tells whether anything is held by the crossings: one strand whose closure is no
// knot can be led in any way, unless what it lies round holds it.
func (l Lesson) knotted() bool {
	return l.Strands > 1 || l.signature.determinant > 1 || l.opened != nil
}

// Of is the lesson of a knot.
func Of(id string) (Lesson, bool) {
	all := Lessons()
	if i := slices.IndexFunc(all, func(l Lesson) bool { return l.Knot == id }); i >= 0 {
		return all[i], true
	}
	return Lesson{}, false
}

// openedLesson is that of what lies round something.
func openedLesson(k knot.Knot, round [][]vec, o loosen.Opening) (Lesson, error) {
	return Lesson{opened: &o, round: round}.of(k, knot.Film(o.Film(round, constructed)))
}

func lesson(k knot.Knot, f knot.Film) (Lesson, error) { return Lesson{}.of(k, f) }

// of is the lesson of a knot with this film.
func (l Lesson) of(k knot.Knot, f knot.Film) (Lesson, error) {
	across := f.Across
	l.Knot, l.Name, l.Strands, l.film, l.across = k.ID, cmp.Or(k.Learnt, k.Name), len(f.Frames[0]), f, across
	l.itself, l.wire = true, k.Mounts
	if k.Part != nil {
		l.part, l.itself, l.still = k.Part.Says, k.Part.Of == "", k.Part.Still
	}
	l.diagram = loosen.Seen(f.Frames[0], across)
	var open []curve.Curve
	first := make([]float64, l.Strands) // node of each strand at which it begins to be led
	for i, pts := range l.diagram {
		a, b := 0, len(pts)
		if across {
			a, b = loosen.Aside(pts)
		}
		first[i] = float64(a)
		open = append(open, curve.Curve{Points: slices.Clone(pts[a:b])})
	}
	found, err := curve.Crossings(open)
	if err != nil {
		return l, fmt.Errorf("trainer: the diagram of %s: %w", k.Name, err)
	}
	round := closed(open)
	switch meets := l.Strands == 1 && r3.Norm(r3.Sub(open[0].Points[0], open[0].Points[len(open[0].Points)-1])) < meetAt; {
	case l.opened != nil && meets: // it ends where it begins
		round = []curve.Curve{{Points: open[0].Points, Closed: true}}
	case across || l.opened != nil: // before and behind all of the knot
		for _, c := range open {
			c.Points[0].Z, c.Points[len(c.Points)-1].Z = -away, away
		}
		round = closed(open)
	}
	if l.crossings, err = curve.Crossings(round); err != nil {
		return l, fmt.Errorf("trainer: the closed diagram of %s: %w", k.Name, err)
	}
	l.closed = len(round)
	for _, c := range found {
		// The later of the two comes to what lies there.
		over := c.Over > c.Under || c.Over == c.Under && c.OverAt > c.UnderAt
		a := Ask{Strand: c.Under, With: c.Over, At: c.UnderAt, WithAt: c.OverAt, X: c.X, Y: c.Y}
		if over {
			a = Ask{Strand: c.Over, With: c.Under, At: c.OverAt, WithAt: c.UnderAt, Over: true, X: c.X, Y: c.Y}
		}
		a.crossing = nearest(l.crossings, c.X, c.Y)
		a.At += first[a.Strand]
		a.WithAt += first[a.With]
		l.Asks = append(l.Asks, a)
	}
	slices.SortFunc(l.Asks, func(a, b Ask) int { return cmp.Or(cmp.Compare(a.Strand, b.Strand), cmp.Compare(a.At, b.At)) })
	l.signature = l.signed(nil)
	return l, nil
}

// away is how far before or behind a knot that is seen from its end its strands are joined,
// diameters.
const away = 50

// meetAt is up to how far from its beginning the end of a cord that is led round something comes
// back to it, diameters.
const meetAt = 5

// nearest is the crossing that lies at a place.
func nearest(cs []curve.Crossing, x, y float64) int {
	best, at := math.Inf(1), 0
	for i, c := range cs {
		if d := math.Hypot(c.X-x, c.Y-y); d < best {
			best, at = d, i
		}
	}
	return at
}

// closed joins the end of each strand to the beginning that stands in the same place from
// the right, far outside and inside one another. An end leaves as far before the knot as it
// hangs and comes in as far behind, so that it passes over all of it or nothing.
func closed(open []curve.Curve) []curve.Curve {
	const far = 200.0 // diameters
	n := len(open)
	order := func(at func(i int) r3.Vec) []int {
		out := knot.Identity(n)
		slices.SortFunc(out, func(a, b int) int { return cmp.Compare(at(b).X, at(a).X) })
		return out
	}
	begins := order(func(i int) r3.Vec { return open[i].Points[0] })
	ends := order(func(i int) r3.Vec { return open[i].Points[len(open[i].Points)-1] })
	next, rank := make([]int, n), make([]int, n)
	for k := range n {
		next[ends[k]], rank[ends[k]] = begins[k], k
	}
	var out []curve.Curve
	done := make([]bool, n)
	for i := range n {
		var pts []r3.Vec
		for at := i; !done[at]; at = next[at] {
			done[at] = true
			by := far + 5*float64(rank[at])
			end, begin := open[at].Points[len(open[at].Points)-1], open[next[at]].Points[0]
			pts = append(append(pts, open[at].Points...), r3.Vec{X: end.X, Y: by, Z: end.Z}, r3.Vec{X: by, Y: by, Z: end.Z}, r3.Vec{X: by, Y: -by, Z: begin.Z}, r3.Vec{X: begin.X, Y: -by, Z: begin.Z})
		}
		if pts != nil {
			out = append(out, curve.Curve{Points: pts, Closed: true})
		}
	}
	return out
}

// signed is by what the knot is known with some of its crossings the other way.
func (l Lesson) signed(switched []int) signature {
	cs := slices.Clone(l.crossings)
	for _, i := range switched {
		c := &cs[i]
		c.Over, c.Under, c.OverAt, c.UnderAt, c.Sign = c.Under, c.Over, c.UnderAt, c.OverAt, -c.Sign
	}
	wound := 0
	for _, c := range cs {
		if c.Over != c.Under {
			wound += c.Sign
		}
	}
	if wound < 0 { // a mirror is the same knot
		wound = -wound
	}
	return signature{l.Strands, l.closed, curve.Determinant(cs, l.closed), wound, l.across, l.opened != nil}
}

// Answer is what is said of a crossing that was led.
type Answer struct {
	Right bool   `json:"right"`
	Says  string `json:"says"`
	// Makes is the knot that comes of it instead, where one of the catalogue does; Falls is
	// set where nothing does.
	Makes string `json:"makes,omitempty"`
	Falls bool   `json:"falls,omitempty"`
}

// Judge says whether ask k is passed so. Those of slips were passed the other way, all others
// are as the knot has them; an ask that is not there is refused.
func (l Lesson) Judge(k int, over bool, slips []int) (Answer, error) {
	if err := l.check(append([]int{k}, slips...)); err != nil {
		return Answer{}, err
	}
	a := l.Asks[k]
	if a.Over == over {
		return Answer{Right: true, Says: "Right."}, nil
	}
	out := l.makes(append([]int{k}, slips...))
	out.Says = fmt.Sprintf("It goes %s here. Led %s it %s.", word(a.Over), word(over), out.Says)
	return out, nil
}

// check refuses asks that are not there.
func (l Lesson) check(asks []int) error {
	for _, k := range asks {
		if k < 0 || k >= len(l.Asks) {
			return fmt.Errorf("%s has %d crossings; there is no crossing %d", l.Name, len(l.Asks), k+1)
		}
	}
	return nil
}

// makes is what comes of it when these asks are passed the other way, known by the
// invariants of its crossings; it says it as what the strands do.
func (l Lesson) makes(slips []int) Answer {
	var switched []int
	for _, k := range slips {
		switched = append(switched, l.Asks[k].crossing)
	}
	made := l.signed(switched)
	other, ok := named(l, made)
	switch {
	case made.strands == 1 && made.determinant == 1 && len(l.crossings) <= fewFor:
		return Answer{Falls: true, Says: "makes no knot at all: pulled, it falls open"}
	case ok:
		return Answer{Makes: other, Says: fmt.Sprintf("makes another knot: %s %s", article(other), other)}
	case l.wire:
		return Answer{Says: l.onWire(slips)}
	case l.opened != nil:
		return Answer{Says: l.broken(slips)}
	case made == l.signature:
		return Answer{Says: "lies otherwise, and does not draw up as it should"}
	}
	return Answer{Says: "makes another knot, which has no name here"}
}

// pass is where a strand passes another, and how.
type pass struct {
	at   float64
	with int
	over bool
}

// passes are those of the strand of the first of these slips, in their order, and which of them
// that slip is.
func (l Lesson) passes(slips []int) (led []pass, here int) {
	slip := l.Asks[slips[0]]
	for k, a := range l.Asks {
		over := a.Over != slices.Contains(slips, k)
		if a.Strand == slip.Strand {
			led = append(led, pass{a.At, a.With, over})
		}
		if a.With == slip.Strand {
			led = append(led, pass{a.WithAt, a.Strand, !over})
		}
	}
	slices.SortFunc(led, func(a, b pass) int { return cmp.Compare(a.at, b.at) })
	return led, slices.IndexFunc(led, func(p pass) bool { return p.at == slip.At })
}

// onWire says what the first of these slips does to a cord that is put on a wire: whether the
// leg that is led goes round it still, and whether the bar lies across it.
func (l Lesson) onWire(slips []int) string {
	led, here := l.passes(slips)
	now := led[here]
	if l.Asks[slips[0]].With == l.Asks[slips[0]].Strand {
		return "leaves the bar on the wrong side of this leg: it does not hold the leg to the wire"
	}
	// A leg meets the wire twice: once on its way up and once on its way down.
	for _, k := range []int{here - 1, here + 1} {
		if k >= 0 && k < len(led) && led[k].with == now.with && led[k].over == now.over {
			return fmt.Sprintf("leaves this leg beside the wire: both times it passes %s, and does not go round it", word(now.over))
		}
	}
	return "leads this leg round the wire the other way"
}

// broken says what the first of these slips does to a weave: how often running the strand then
// passes alike there.
func (l Lesson) broken(slips []int) string {
	led, here := l.passes(slips)
	from, to := here, here+1
	for from > 0 && led[from-1].over == led[here].over {
		from--
	}
	for to < len(led) && led[to].over == led[here].over {
		to++
	}
	if to-from < 2 {
		return "breaks the weave here"
	}
	return fmt.Sprintf("breaks the weave: in the end it passes %s %d times running", word(led[here].over), to-from)
}

func word(over bool) string {
	if over {
		return "over"
	}
	return "under"
}

func article(name string) string {
	if slices.Contains([]byte("aeio"), name[0]) {
		return "an"
	}
	return "a"
}

// named is another knot, or a slip that makers have a name for, that is known by a signature.
func named(l Lesson, s signature) (string, bool) {
	if s == l.signature || s.determinant <= 1 {
		return "", false
	}
	for _, o := range names() {
		if o.name != l.Name && o.signature == s {
			return o.name, true
		}
	}
	return "", false
}

// called is what a knot on so many strands is called.
type called struct {
	name string
	signature
}

// names are all knots that hang side by side, and the slips that have a name, by their
// drawn-up curves; those that are seen from the working end by their diagrams.
var names = sync.OnceValue(func() []called {
	var out []called
	add := func(name string, p loosen.Problem) {
		var open []curve.Curve
		for _, s := range p.Strands {
			open = append(open, curve.Curve{Points: s.Points})
		}
		round := closed(open)
		if cs, err := curve.Crossings(round); err == nil {
			out = append(out, called{name, Lesson{Strands: len(open), closed: len(round), crossings: cs}.signed(nil)})
		}
	}
	for _, k := range knot.All() {
		for _, n := range loose.Strands {
			p, ok := loose.Problem(k, n, loose.Films)
			if !ok || p.Across {
				continue
			}
			add(k.Name, p)
			if k.Wrong == nil {
				continue
			}
			s, err := knot.New(k.ID)
			if err != nil {
				continue
			}
			s.Count = min(1, s.Count)
			for _, w := range k.Wrong(s) {
				if w.Name == "" || len(w.Instead) != 1 {
					continue
				}
				if p, ok := loose.Tied(w.Instead[0], n); ok {
					add(w.Name, p)
				}
			}
		}
	}
	for _, l := range catalogue() {
		if (l.across || l.opened != nil) && l.itself {
			out = append(out, called{l.Name, l.signature})
		}
	}
	return out
})

// catalogue are the diagrams of all films, on every number of strands, the fewest first.
var catalogue = sync.OnceValue(func() []Lesson {
	var out []Lesson
	for _, k := range knot.All() {
		add := func(f knot.Film) {
			if l, err := lesson(k, f); err == nil && len(l.Asks) <= mostAsked {
				out = append(out, l)
			}
		}
		if round, o, ok := loose.Opened(k); ok {
			if l, err := openedLesson(k, round, o); err == nil && len(l.Asks) <= mostAsked {
				out = append(out, l)
			}
			continue
		}
		id := k.ID
		if k.Part != nil && k.Part.Of != "" {
			id = k.Part.Of
		}
		films := loose.Films(id)
		for _, f := range films {
			add(f)
		}
		for _, n := range loose.Strands {
			if id != k.ID || slices.ContainsFunc(films, func(f knot.Film) bool { return len(f.Frames[0]) == n }) {
				continue
			}
			if f, ok := loose.Ring(k, n, constructed); ok {
				add(f)
			}
		}
	}
	return out
})

// constructed are the frames of a film that is constructed.
const constructed = 21

const fromEnd = "You look at the working end: the ends hang towards you."

// FromEnd tells whether a knot is led looking at the working end, and not at its face.
func (l Lesson) FromEnd() bool { return l.across && l.opened == nil }

// Looked is how one looks at it, a sentence; "" at its face.
func (l Lesson) Looked() string {
	switch {
	case l.opened != nil:
		return l.opened.Says
	case l.part != "" && l.across:
		return l.part + " " + fromEnd
	case l.part != "":
		return l.part
	case l.across:
		return fromEnd
	}
	return ""
}
