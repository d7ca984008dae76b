// Package knot is the catalogue: one file per family, each with its names, its
// uses, where makers differ, the route its strands take and how it is dressed.
//
// No file here states a length or a height. A knot is a route; package tighten
// draws it up; what it takes, how tall it is, what it looks like and how it is
// tied are read off the drawn-up curve. To plan a piece go to package plan; to
// add a knot add one file here (docs/architecture.md shows how).
package knot

import (
	"encoding/binary"
	"fmt"
	"math"
	"regexp"
	"slices"
	"sort"
	"strconv"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/curve"
	"nimblebight/core/kept"

	"gonum.org/v1/gonum/spatial/r3"
)

// Vec is a point in a knot, millimetres unless its comment says diameters.
type Vec = curve.Vec

// Knot is an entry of the catalogue.
type Knot struct {
	ID         string   `json:"id"`
	Name       string   `json:"name"`
	Family     string   `json:"family"`
	OtherNames []string `json:"other_names"`
	For        string   `json:"for"`
	Schools    []School `json:"schools,omitempty"`
	// Repeats is set where a section takes a count.
	Repeats bool `json:"repeats"`
	// Outside is set for what belongs to the whole piece and never stands in a
	// repeat or a row.
	Outside bool `json:"outside,omitempty"`
	// First is set for a ball, which is tied before anything hangs.
	First  bool    `json:"first,omitempty"`
	Fields []Field `json:"fields"`

	// parts is how many knots one of these on n strands counts for, 1 where it
	// is nil.
	parts func(s Section, n int) int

	// hangs is set for a knot whose shape depends on how its strands hang.
	hangs bool

	fill func(*Section) // sets the defaults of a new section
	tie  func(Work) (Tied, error)
	// hold, where the knot's way is known, is the part of it in hand; see Hold.
	hold func(w Work, action int, along float64) (Tied, error)
}

// School is a matter on which makers differ, with the reason for our default.
type School struct {
	Field   string `json:"field"`
	Default string `json:"default"`
	Why     string `json:"why"`
}

// Field is one setting of a section, beside its count.
type Field struct {
	Key     string   `json:"key"`   // as in the document
	Short   string   `json:"short"` // as in the typed line; "" for the value that needs no key
	Label   string   `json:"label"`
	Kind    string   `json:"kind"` // choice, count, length, places, place, cord, cords, colour
	Choices []string `json:"choices,omitempty"`
	Default string   `json:"default,omitempty"`
	// Least and Most bound a count, Most a length, mm; Needed is set for a length
	// that must be said.
	Least  int  `json:"least,omitempty"`
	Most   int  `json:"most,omitempty"`
	Needed bool `json:"needed,omitempty"`
}

var catalogue = map[string]Knot{}

func add(k Knot) {
	if k.OtherNames == nil {
		k.OtherNames = []string{}
	}
	if k.Fields == nil {
		k.Fields = []Field{}
	}
	catalogue[k.ID] = k
}

// All lists the catalogue in the order of its ids.
func All() []Knot {
	out := make([]Knot, 0, len(catalogue))
	for _, k := range catalogue {
		out = append(out, k)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].ID < out[j].ID })
	return out
}

// Parts is how many knots one knot of a section counts for, where so many strands
// hang: a row of hitches is one of each strand, a diamond is made of hitches, a
// berry of square knots.
func (k Knot) Parts(s Section, hang int) int {
	if k.parts == nil {
		return 1
	}
	if n := len(s.Strands); n > 0 {
		hang = n
	}
	return max(1, k.parts(s, hang))
}

// Get finds a knot by its id.
func Get(id string) (Knot, bool) {
	k, ok := catalogue[id]
	return k, ok
}

// Lead is one strand as it comes to a knot: where it hangs and how thick it is.
type Lead struct {
	Cord, Leg int // which cord of the piece, which of its two legs
	At        Vec // mm; y is that of the end of the section above
	Dir       Vec // the way it runs there, unit length
	Stuff     cord.Stuff
	Diameter  float64 // drawn up, mm
}

// Work is what a knot is given to tie.
type Work struct {
	Section Section
	Leads   []Lead  // the section's strands, from the left
	Own     []Lead  // the section's own cords (a gathering cord), unplaced
	BarMM   float64 // thickness of the wire it hangs on
	// RingMM is the radius of that wire's middle line where it is bent, 0 where
	// it is straight.
	RingMM float64
	// Core is what a wrap goes round besides the strands: the section of a band
	// that was folded back. The strands then end in it.
	Core []Disc
	// LeftHanded makes what has no side of its own the mirror of what a
	// right-handed maker ties.
	LeftHanded bool
	// HalfKnots, where it is not zero, ties only so many half knots of a row,
	// for a picture of the work in hand.
	HalfKnots int
}

// Path is the way of one strand through a section.
type Path struct {
	Points []Vec
	// Lies, where it is not nil, tells how the cord lies at each point.
	Lies []Lie
	// More, where it is not nil, is how a long path goes on.
	More *More
	// Inside is cord that leads up to the first point and is never seen: it is
	// measured and not laid.
	Inside []Vec

	length, high, low, left, right float64 // measured by Settle
}

// More is the rest of a long path that goes on as it began: its points so many
// times again, each time moved down by Step and turned by Turn about the work's
// axis, and then Tail. So a row of ten thousand knots holds no more points than
// one of a few dozen. The last point of each is the first of the next.
type More struct {
	Times    int
	Step     float64 // mm
	Turn     float64 // radians
	Tail     []Vec   // where it lies
	TailLies []Lie
}

// Turned is a point turned about the work's axis, the way a cell's twist goes.
func Turned(v Vec, angle float64) Vec {
	if angle == 0 {
		return v
	}
	s, c := math.Sincos(angle)
	return Vec{X: c*v.X + s*v.Z, Y: v.Y, Z: -s*v.X + c*v.Z}
}

// End is the path's last point.
func (p Path) End() Vec {
	if p.More == nil {
		return p.Points[len(p.Points)-1]
	}
	if n := len(p.More.Tail); n > 0 {
		return p.More.Tail[n-1]
	}
	v := Turned(p.Points[len(p.Points)-1], float64(p.More.Times)*p.More.Turn)
	v.Y += float64(p.More.Times) * p.More.Step
	return v
}

// Whole is all of the path's points.
func (p Path) Whole() []Vec {
	out := slices.Clone(p.Points)
	if p.More == nil {
		return out
	}
	for k := 1; k <= p.More.Times; k++ {
		for _, v := range p.Points[1:] {
			v = Turned(v, float64(k)*p.More.Turn)
			v.Y += float64(k) * p.More.Step
			out = append(out, v)
		}
	}
	if len(p.More.Tail) > 0 {
		out = append(out, p.More.Tail[1:]...)
	}
	return out
}

// Length is the path's length, mm.
func (p Path) Length() float64 { return p.length }

// Extent is the lowest y of the path and its least and greatest x, mm.
func (p Path) Extent() (low, left, right float64) { return p.low, p.left, p.right }

// Span is the highest and the lowest y of the path's points, without what More
// adds, mm.
func (p Path) Span() (high, low float64) {
	if p.More == nil {
		return p.high, p.low
	}
	return Span(p.Points)
}

// Span is the least and the greatest y of points, mm.
func Span(pts []Vec) (high, low float64) {
	high, low = math.Inf(1), math.Inf(-1)
	for _, v := range pts {
		high, low = math.Min(high, v.Y), math.Max(low, v.Y)
	}
	return high, low
}

// Lie is how the cord lies at a point.
type Lie uint8

// A cord lies in a knot, in a row of knots that are pressed together, straight
// under such a row as its filler, snug against other strands, free, or pressed
// flat on a core.
const (
	Knotted Lie = iota
	InRow
	Filler
	Snug
	Free
	Pressed
)

// Tied is a section tied: every figure of it is measured on Paths and Own.
type Tied struct {
	Height float64 // mm along y
	Paths  []Path  // one per lead, in the leads' order, y from about 0 to Height
	Own    []Path  // one per own cord
	// Order tells which lead is now at each place, from the left.
	Order []int
	// Row is set for a row of knots of one kind, close enough to be pressed.
	Row bool
	// Snug is set for knots whose strands lie against one another.
	Snug bool
	// Workers are the leads that do knotting, where Actions do not tell.
	Workers []int
	// Beads are on the strands, y from the section's top.
	Beads []BeadAt
	// Core is what is inside a ball, nil where there is none.
	Core *CoreAt
	// Eye, where it is not zero, is where the piece takes in what it hangs on:
	// the y of that wire's middle, mm.
	Eye float64
	// Cells are the y of each half knot's beginning, mm, and the last one's end.
	Cells []float64
	// HalfKnots is set where the cells are half knots of one row.
	HalfKnots bool
	// Loose is by what the maker's hand is looser than the ideal; 0 for parts
	// that are measured with a ruler.
	Loose bool
	// Ends is set where the strands end here, with how they are finished.
	Ends bool
	// Trim is cut away at the end of each lead, mm.
	Trim float64
	// Checks are what the tied section measures; {12.3mm} in one is a length.
	Checks []string
	// Cautions are what must be said of it before it is tied or given away.
	Cautions []string
	// Warnings are what is wrong with it and can still be tied.
	Warnings []Flaw
	// Actions are what the maker does, in order; a row repeats them.
	Actions []Action
	Repeats int
	// Shows tells which lead is seen where on the face, read off the crossings.
	Shows []Sight
	// Gap is the least gap between surfaces as drawn up, over the diameter: 1
	// is touching.
	Gap float64
	// Clear is how much of straight strand the section needs above and below it
	// before the strands may lean aside, mm.
	Clear float64
	// Turned is by how many radians the strands at the end have turned about
	// the work's axis.
	Turned float64
	// Along is how much of what it hangs on a mount takes, along its wire, mm.
	Along float64
	// Rough is set where the curves are those of a near shape.
	Rough *Rough
}

// Action is one thing that the maker does with the cord.
type Action struct {
	Moves  int    `json:"moves"` // index of the lead that moves, -1 for all
	Text   string `json:"text"`
	Detail string `json:"detail,omitempty"`
	Over   []int  `json:"over,omitempty"`
	Under  []int  `json:"under,omitempty"`
	Gate   string `json:"gate,omitempty"` // what to look at before going on
	// From is the side it comes from, where its place does not tell.
	From string `json:"-"`
	// slack is set for an action that only takes up slack, core for the one that
	// puts the core in.
	slack, core bool
}

// Flaw is what is wrong with a section that can be tied, with a value of one of
// its fields that is better; {12.3mm} in its words is a length.
type Flaw struct {
	Code, Says string
	Field      string
	Set        any // nil where no value helps
	Label      string
}

// BeadAt is a bead where it sits, mm.
type BeadAt struct {
	At Vec // its middle
	Bead
}

// CoreAt is the core of a ball where it sits, mm.
type CoreAt struct {
	At         Vec // its middle
	DiameterMM float64
	Colour     string
	WeightG    float64
}

// Sight is a crossing that is seen: which lead lies on top on the face and
// which on the back, and where in the row.
type Sight struct {
	Where string // middle, left, right
	Face  int    // lead on top on the face
	Back  int    // lead on top on the back
}

// Tie ties the section's knot. What it gives is shared: it must not be changed.
func Tie(w Work) (Tied, error) {
	k, ok := Get(w.Section.Do)
	if !ok {
		return Tied{}, Unknown(w.Section.Do)
	}
	tie := func() (Tied, error) {
		how := k.tie
		if w.LeftHanded && !k.sided() {
			how = func(w Work) (Tied, error) { return mirrored(w, k) }
		}
		t, err := how(w)
		t.Settle()
		return t, err
	}
	if k.hangs || w.Core != nil {
		return tie()
	}
	return tieds.GetIf(w.key(), func() (Tied, bool, error) {
		t, err := tie()
		return t, t.Rough == nil, err // what is rough is tied anew when its own shape is there
	})
}

// sided tells whether a section of the knot says itself on which side it is
// tied; a mount is put on alike by both hands.
func (k Knot) sided() bool {
	for _, f := range k.Fields {
		if slices.Contains(f.Choices, "left") {
			return true
		}
	}
	return k.ID == "mount"
}

// mirrored ties the mirror of the mirrored work.
func mirrored(w Work, k Knot) (Tied, error) {
	n := len(w.Leads)
	m := w
	m.Leads, m.Own = slices.Clone(w.Leads), slices.Clone(w.Own)
	flipLeads(m.Leads)
	for i := range m.Leads {
		m.Leads[i].At.X = -m.Leads[i].At.X
	}
	m.Core = slices.Clone(w.Core)
	for i := range m.Core {
		m.Core[i].X = -m.Core[i].X
	}
	for _, p := range [2]*int{&m.Section.Filler, &m.Section.Which} {
		if *p > 0 {
			*p = n + 1 - *p
		}
	}
	t, err := k.tie(m)
	if err != nil {
		return t, err
	}
	order := slices.Clone(t.Order)
	t.mirror(n)
	if n == 0 { // out of a ball strands come from the other side
		slices.Reverse(order)
		t.Order = order
	}
	for _, p := range t.Own {
		for _, pts := range [2][]Vec{p.Points, p.Inside} {
			for i := range pts {
				pts[i].X = -pts[i].X
			}
		}
	}
	flip := func(is []int) []int {
		out := slices.Clone(is)
		for i, v := range out {
			if v >= 0 && v < n {
				out[i] = n - 1 - v
			}
		}
		return out
	}
	t.Workers = flip(t.Workers)
	acts := slices.Clone(t.Actions)
	for i, a := range acts {
		a.Moves = flip([]int{a.Moves})[0]
		a.Over, a.Under = flip(a.Over), flip(a.Under)
		a.Text, a.Detail, a.Gate, a.From = mirrorText(a.Text, n), mirrorText(a.Detail, n), mirrorText(a.Gate, n), swapSides(a.From)
		acts[i] = a
	}
	t.Actions = acts
	return t, nil
}

var (
	placesSaid = regexp.MustCompile(`strands? \d+(?:(?:, | and | to )\d+)*`)
	placeSaid  = regexp.MustCompile(`\d+`)
)

// mirrorText turns sides and places in a sentence about n strands.
func mirrorText(s string, n int) string {
	return placesSaid.ReplaceAllStringFunc(swapSides(s), func(said string) string {
		var ps []int
		for _, d := range placeSaid.FindAllString(said, -1) {
			p, _ := strconv.Atoi(d) // digits it is
			ps = append(ps, n+1-p)
		}
		slices.Sort(ps)
		if strings.Contains(said, " to ") {
			return fmt.Sprintf("strands %d to %d", ps[0], ps[len(ps)-1])
		}
		return fmt.Sprintf("strand%s %s", plural(len(ps)), places(ps))
	})
}

// Settle measures the paths and says of every point how the cord lies there.
// [Tie] and [Hold] give sections that are settled.
func (t *Tied) Settle() {
	for _, paths := range [2][]Path{t.Paths, t.Own} {
		for i, p := range paths {
			if p.Lies == nil {
				p.Lies = make([]Lie, len(p.Points))
				for k := range p.Lies {
					p.Lies[k] = Path{}.lie(k, *t)
				}
			}
			p.length = asCurve(p.Points).Length()
			if len(p.Inside) > 0 {
				p.length += asCurve(append(slices.Clone(p.Inside), p.Points[0])).Length()
			}
			p.high, p.low, p.left, p.right = math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
			reach := func(pts []Vec) {
				for _, v := range pts {
					p.high, p.low = math.Min(p.high, v.Y), math.Max(p.low, v.Y)
					p.left, p.right = math.Min(p.left, v.X), math.Max(p.right, v.X)
				}
			}
			reach(p.Points)
			if m := p.More; m != nil {
				if m.Turn != 0 { // turned all round it reaches as far to every side
					for _, v := range p.Points {
						r := math.Hypot(v.X, v.Z)
						p.left, p.right = math.Min(p.left, -r), math.Max(p.right, r)
					}
				}
				p.low += float64(m.Times) * m.Step
				reach(m.Tail)
				p.length += float64(m.Times)*asCurve(p.Points).Length() + asCurve(m.Tail).Length()
			}
			paths[i] = p
		}
	}
}

// tieds are sections tied before, enough for the pieces of an evening.
var tieds = kept.By[Tied]{Most: 40 << 20}

// key names everything that a knot's shape depends on, where it does not depend
// on how its strands hang.
func (w Work) key() string {
	s := w.Section
	b := make([]byte, 0, 256)
	text := func(vs ...string) {
		for _, v := range vs {
			b = append(append(b, v...), 0)
		}
	}
	num := func(vs ...float64) {
		for _, v := range vs {
			b = binary.LittleEndian.AppendUint64(b, math.Float64bits(v))
		}
	}
	text(s.Do, s.Hitch, s.Start, s.Hand, s.Cord, s.How, s.Direction, s.Slope, s.Inside, s.Order, s.Close, s.Of, s.Mode, s.Begins, s.School)
	text(s.Cords...)
	if w.LeftHanded {
		text("left-handed")
	}
	num(float64(s.Count), s.LengthMM, s.GapMM, s.InnerMM, float64(s.Turns), float64(s.Squares), float64(s.Filler), float64(s.Carry), float64(s.Which), float64(s.Passes), float64(s.Side), float64(s.Leads), float64(s.Bights), s.FormerMM, float64(w.HalfKnots), w.BarMM, w.RingMM)
	if q := s.Bead; q != nil {
		num(q.HoleMM, q.LengthMM, q.WidthMM)
		text(q.Colour)
	}
	if q := s.Core; q != nil {
		num(q.DiameterMM)
		text(string(q.Kind))
	}
	k, _ := Get(s.Do)
	for _, leads := range [2][]Lead{w.Leads, w.Own} {
		num(float64(len(leads)))
		for _, l := range leads {
			text(string(l.Stuff.Make), string(l.Stuff.Material))
			if k.First { // what is inside a ball may be of the cord and has its colour
				text(l.Stuff.Colour)
			}
			num(l.Diameter, l.Stuff.DiameterMM)
		}
	}
	return string(b)
}

// Unknown is the error for a do that is not in the catalogue. It asks after names
// that are spelt nearly so; a different knot is never offered for it.
func Unknown(do string) error {
	short := []rune(do)
	if len(short) > 40 {
		do = string(short[:40]) + "…"
	}
	near := Nearest(do)
	if len(near) == 0 {
		return fmt.Errorf("there is no knot named %q here, and none is spelt nearly so; Add a section shows all there are", do)
	}
	return fmt.Errorf("there is no knot named %q here; did you mean %s?", do, strings.Join(near, " or "))
}

// Nearest lists the ids whose names are nearly spelt like one: no more than a
// quarter of its letters differ, and none is nearer. At most three. Where none is,
// a name that only one knot's names begin with stands for that one.
func Nearest(do string) []string {
	type cand struct {
		id string
		d  int
	}
	var cs []cand
	for id, k := range catalogue {
		d := letters(do, id)
		for _, o := range k.OtherNames {
			d = min(d, letters(do, strings.ReplaceAll(o, " ", "-")))
		}
		cs = append(cs, cand{id, d})
	}
	sort.Slice(cs, func(i, j int) bool {
		if cs[i].d != cs[j].d {
			return cs[i].d < cs[j].d
		}
		return cs[i].id < cs[j].id
	})
	var out []string
	for i := 0; i < len(cs) && i < 3 && cs[i].d <= max(1, len(do)/4) && cs[i].d == cs[0].d; i++ {
		out = append(out, cs[i].id)
	}
	if len(out) == 0 {
		for id, k := range catalogue {
			if slices.ContainsFunc(append([]string{id}, k.OtherNames...), func(name string) bool {
				return strings.HasPrefix(strings.ReplaceAll(name, " ", "-"), do+"-")
			}) {
				out = append(out, id)
			}
		}
		if len(out) > 1 {
			return nil
		}
	}
	return out
}

func letters(a, b string) int {
	row := make([]int, len(b)+1)
	for j := range row {
		row[j] = j
	}
	for i := range len(a) {
		diag := row[0]
		row[0] = i + 1
		for j := range len(b) {
			cost := diag
			if a[i] != b[j] {
				cost = 1 + min(diag, row[j], row[j+1])
			}
			diag, row[j+1] = row[j+1], cost
		}
	}
	return row[len(b)]
}

// Join leads strands from where one section leaves them to where the next
// takes them up, each on an easy curve that keeps the way it was running and
// takes the way it will run.
func Join(from, to, dirFrom, dirTo Vec) []Vec {
	gap := r3.Sub(to, from)
	span := r3.Norm(gap)
	if span < 1e-9 {
		return nil
	}
	n := 9
	out := make([]Vec, 0, n+1)
	for i := 1; i <= n; i++ {
		t := float64(i) / float64(n)
		t2, t3 := t*t, t*t*t
		p := r3.Scale(2*t3-3*t2+1, from)
		p = r3.Add(p, r3.Scale((t3-2*t2+t)*span, dirFrom))
		p = r3.Add(p, r3.Scale(3*t2-2*t3, to))
		p = r3.Add(p, r3.Scale((t3-t2)*span, dirTo))
		out = append(out, p)
	}
	return out
}

// Fall is how far the strands must run down to come from where they hang to
// where the next knot wants them, side by side without steep turns: nine
// tenths of the widest way across.
func Fall(from, to []Vec) float64 {
	widest := 0.0
	for i := range from {
		widest = math.Max(widest, math.Hypot(from[i].X-to[i].X, from[i].Z-to[i].Z))
	}
	return 0.9 * widest
}

// places writes strand places as a maker reads them: "2", "2 and 3", "2 to 4".
func places(ps []int) string {
	run := len(ps) > 2
	for i := 1; i < len(ps); i++ {
		run = run && ps[i] == ps[i-1]+1
	}
	switch {
	case len(ps) == 0:
		return "none"
	case len(ps) == 1:
		return fmt.Sprint(ps[0])
	case run:
		return fmt.Sprintf("%d to %d", ps[0], ps[len(ps)-1])
	}
	var s []string
	for _, p := range ps[:len(ps)-1] {
		s = append(s, fmt.Sprint(p))
	}
	return strings.Join(s, ", ") + " and " + fmt.Sprint(ps[len(ps)-1])
}

// swapSides turns left and right in a sentence.
func swapSides(s string) string {
	return strings.NewReplacer("left", "right", "right", "left", "Left", "Right", "Right", "Left").Replace(s)
}

func identity(n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = i
	}
	return out
}
