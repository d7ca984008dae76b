// Package knot is the contract of a knot and the laws that every knot keeps.
// It holds no knot of its own: each is a folder under core/knots.
//
// A knot says what it is called, what a maker may set of it (a struct of its
// own, see [Field]), what a section of it takes, needs and gives ([Terms]), and
// how it is tied ([Knot.Tie]). Documents, the typed line, forms, the schema, the
// palette and the walk learn all that they know of it from here.
//
// No knot states a length or a height. It is a route; package tighten draws it
// up; what it takes, how tall it is, what it looks like and how it is tied are
// read off the drawn-up curve. To plan a piece go to package plan; to add a knot
// add one folder (docs/architecture.md shows how).
package knot

import (
	"fmt"
	"reflect"
	"sort"

	"nimblebight/core/curve"
	"nimblebight/core/move"
)

// Knot is an entry of the catalogue.
type Knot struct {
	ID         string   `json:"id"`
	Name       string   `json:"name"`
	Family     string   `json:"family"`
	OtherNames []string `json:"other_names"`
	// Short are the names that a typed line also takes.
	Short   []string `json:"-"`
	For     string   `json:"for"`
	Schools []School `json:"schools,omitempty"`
	// Glyph is its small mark: one path in a square of 24.
	Glyph string `json:"glyph"`
	// Common puts it first in a list of what could come next.
	Common bool `json:"common,omitempty"`

	// Repeats is set where a section takes a count.
	Repeats bool `json:"repeats"`
	// LooseFrom is how many of a row it takes to hold one another; 0 for a knot that holds
	// alone. Fewer have no loose form: with straight ends they are no knot.
	LooseFrom int `json:"-"`
	// Counted, where it is not nil, says a count in the ways in which makers count.
	Counted func(count int) string `json:"-"`
	// Outside is set for what belongs to the whole piece and never stands in a
	// repeat or a row.
	Outside bool `json:"outside,omitempty"`
	// First is set for what is tied before anything hangs.
	First bool `json:"first,omitempty"`
	// Mounts is set for what cords are put on by, Ends for what strands end in.
	Mounts bool `json:"mounts,omitempty"`
	Ends   bool `json:"ends,omitempty"`
	// Holds tells which sections it holds: those that it ties again and again, or
	// rows side by side.
	Holds Holds `json:"holds,omitempty" jsonschema:"enum=again,enum=rows"`
	// Places is set where a section chooses the strands that it is tied on.
	Places bool `json:"-"`
	// Hangs is set where its shape depends on how its strands hang.
	Hangs bool `json:"-"`
	// BothHands is set for what both hands tie alike.
	BothHands bool `json:"-"`
	// Bare is set for what only leaves strands bare.
	Bare bool `json:"-"`

	// Settings is the zero value of the struct of its settings; Fields are read
	// off it.
	Settings any     `json:"-"`
	Fields   []Field `json:"fields"`

	// Terms are on what terms a section is tied; nil for one that takes any
	// strands and hands all of them on.
	Terms func(Section) Terms `json:"-"`
	// Tie ties a section; nil for what holds or bends others.
	Tie func(Work) (Tied, error) `json:"-"`
	// Hold, where it is not nil, is the part of it in hand; see [Hold].
	Hold func(w Work, action int, along float64) (Tied, error) `json:"-"`
	// Wraps, where it is not nil, is how far down it goes over what is there, mm:
	// it may stand over a band that was folded back.
	Wraps func(Work) float64 `json:"-"`
	// Above, where it is not nil, is the bare length that it needs above it.
	Above func([]Strand) Room `json:"-"`
	// Fold, where it is not nil, folds the band that is tied so far back to a loop
	// of so many mm inside, 0 for all of it; FoldMoves are its moves, where its ends
	// are led through its start, after the strand of a place from 0, or stay behind it
	// where that is below 0.
	Fold      func(Section) float64       `json:"-"`
	FoldMoves func(after int) []move.Move `json:"-"`
	// RunsBack, where it is not nil, are the moves of so many strands that run to what
	// the piece ends on and back.
	RunsBack func(s Section, strands int) []move.Move `json:"-"`
	// Cross, where it is not nil, is how often the rows of a section are crossed.
	Cross func(Section) int `json:"-"`
	// Anew is what is put into a piece for a new one of it, where so many strands
	// hang and these cords are not used yet; nil where [New] will do.
	Anew func(hanging int, free []string) []Section `json:"-"`
	// Finish, where it is not nil, is a section that ends all strands by a finish of
	// package finish.
	Finish func(how string) Section `json:"-"`
	// Held is how the work is held while it is tied, a sentence, and HoldTools with what;
	// empty where it hangs from what is above it.
	Held      string   `json:"-"`
	HoldTools []string `json:"-"`
	// Wrong, where it is not nil, are the states that a section of it comes to by the slips
	// that makers know, beside those that any knot can come to.
	Wrong func(Section) []Wrong `json:"-"`
	// Arranged, where it is not nil, are the ways in which the cords of the sections that a
	// piece begins with can be put on, so that as many strands of each hang as before; the
	// way in which they are put on is one of them.
	Arranged func(first []Section) [][]Section `json:"-"`
	// Halves, where it is not nil, ties a section of another knot half with those strands
	// that work in it and half with those that it is tied over; nil where it cannot. Its
	// cords are so many mm thick.
	Halves func(s Section, thickMM float64) []Section `json:"-"`
	// Thumb, where makers have one, is their thumb rule for the cord that it takes.
	Thumb *Thumb `json:"-"`
	// Film, where it is not nil, makes its film of that of fewer strands, for as many as none was
	// grown for; not ok where it makes none. All its strands are led together, in a bundle.
	Film func(Work) (Film, bool) `json:"-"`
	// Part, where it is not nil, is the part of it that is loosened and led by itself.
	Part *Part `json:"-"`
	// Plain, where it is not nil, is the plainest section of it, by which one learns it; nil
	// where a new one is.
	Plain func() Section `json:"-"`
	// Learnt is what that is called, where it is not the knot's name.
	Learnt string `json:"-"`
	// Sample shows it.
	Sample Sample `json:"-"`
}

// Wrong is a state that a section comes to by a slip. It is drawn of sections that are tied
// so in earnest, instead of the one that it should be.
type Wrong struct {
	Name string // what makers call it, "" where it has no name
	What string // what to inspect
	How  string // how to look
	Says string // what the slip was and what shows it
	Back string // the way back
	// Instead are the sections that stand for it.
	Instead []Section
}

// Part is a part of a knot that stands for it, as one of two halves that are alike does.
type Part struct {
	Says string // which part it is, a sentence
	// Of is the knot that it is, by its id; "" where it has strands of its own.
	Of string
	// Strands are its curves as they are drawn up, from above, in diameters; Still tells which of
	// them are what it is tied about.
	Strands func() (strands []curve.Curve, err error)
	Still   []bool
}

// Thumb is a thumb rule: a strand that works takes so many times the length of the row,
// one that is tied over so many.
type Thumb struct{ Works, Over float64 }

// Say is the rule in words, for a knot of a name.
func (t Thumb) Say(name string) string {
	if t.Over == 0 {
		return fmt.Sprintf("%s: %g times the row", name, t.Works)
	}
	return fmt.Sprintf("%s: %g times the row for a strand that works, %g for one that is tied over", name, t.Works, t.Over)
}

// Holds is what a section holds.
type Holds string

// A section holds nothing, sections that are tied again and again, or rows.
const (
	Nothing Holds = ""
	Again   Holds = "again"
	Rows    Holds = "rows"
)

// Sample is a small piece that shows a knot: its typed line, with so many cords A,
// B and on that hang and one more for wraps, and which section of it is the knot.
type Sample struct {
	Line    string
	Cords   int
	Section int
}

// School is a matter on which makers differ, with the reason for our default.
type School struct {
	Field   string `json:"field"`
	Default string `json:"default"`
	Why     string `json:"why"`
}

// Room is bare length that a knot needs above it.
type Room struct {
	MM float64
	// Code and Says warn where it is not there; {12.3mm} is a length: what is there
	// and what is needed.
	Code, Says string
	// Gap is a section that makes the room, Label what it is called as a way out.
	Gap   Section
	Label string
}

var catalogue = map[string]Knot{}

// Add puts a knot into the catalogue. It is called while the program starts, and
// panics on an entry that breaks the contract.
func Add(k Knot) {
	if _, twice := catalogue[k.ID]; twice || k.ID == "" {
		panic(fmt.Sprintf("knot: %q is added twice, or has no id", k.ID))
	}
	if k.OtherNames == nil {
		k.OtherNames = []string{}
	}
	if k.Settings == nil {
		k.Settings = struct{}{}
	}
	if reflect.TypeOf(k.Settings).Kind() != reflect.Struct {
		panic(fmt.Sprintf("knot: the settings of %s are no struct", k.ID))
	}
	k.Fields = []Field{}
	if k.Places {
		k.Fields = append(k.Fields, strandsField)
	}
	k.Fields = append(k.Fields, fieldsOf(reflect.TypeOf(k.Settings), "", nil, false, "")...)
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

// Get finds a knot by its id.
func Get(id string) (Knot, bool) {
	k, ok := catalogue[id]
	return k, ok
}

// That finds the first knot, in the order of ids, of which something is true.
func That(is func(Knot) bool) (Knot, bool) {
	for _, k := range All() {
		if is(k) {
			return k, true
		}
	}
	return Knot{}, false
}

// Field finds a field by its key.
func (k Knot) Field(key string) (Field, bool) {
	for _, f := range k.Fields {
		if f.Key == key {
			return f, true
		}
	}
	return Field{}, false
}
