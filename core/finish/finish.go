// Package finish knows how the end of a cord may be finished: for which stuff,
// how much cord each finish leaves or eats, and what must be said before a flame
// is lit. One decision per end.
package finish

import (
	"fmt"
	"maps"
	"math"
	"slices"
	"strings"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
)

// Finish is one way to end a cord.
type Finish struct {
	ID    string // as it stands in a piece
	Name  string // as it is said
	For   string
	Flame bool // needs a cord that melts
	Note  string
	// Form tells the picture how the end looks.
	Form Form
	// WantsLength is set where the maker chooses how long the end hangs; Length is what
	// that length is called, "Hangs" where it is "".
	WantsLength bool
	Length      string
	// WantsBead is set where the ends go through a bead, WantsUnder where they are led
	// under so many crossings.
	WantsBead, WantsUnder bool
	// Together is how many ends are made one: 0 where each is finished by itself, [Every]
	// where all of a section are.
	Together int
	// Neighbours is set where those that are made one hang side by side; else any two are.
	Neighbours bool
	leaveMM    float64 // what stays beyond the last knot, mm
	leaveD     float64 // and in label diameters
	trimMM     float64 // what the finishing takes away, cut off or melted
	meltD      float64 // what of it the flame eats, in label diameters; judged at the table
	// Steps are what the hand does. {cut} in one is how far beyond the knot the scissors
	// cut, {leave} what hangs there in the end, {hide} what is led back under the knots,
	// {under} how many crossings that are.
	Steps []string

	// Tools are what lies ready, Wait how long it is left alone, "" where it is done at
	// once; Look is what to look at, Undo what it takes to take it back.
	Tools            []string
	Wait, Look, Undo string
	// Glue is set where glue is used, Solvent where what is used gives off fumes, Sharp
	// where a knife cuts.
	Glue, Solvent, Sharp bool
	// suits says how well it suits a stuff that its flame does not burn, 0 where it does
	// not, and why.
	suits func(cord.Stuff) (good int, why string)
}

// Form is how a finished end looks and how it is led there.
type Form string

// The forms of ends.
const (
	Cut     Form = "cut"
	Fringe  Form = "fringe"
	Pressed Form = "pressed"
	Dome    Form = "dome"
	Whipped Form = "whipped"
	Fused   Form = "fused"  // two ends as one loop
	Drop    Form = "drop"   // a drop of molten cord over the place
	Looped  Form = "looped" // an eye in the end
	Buried  Form = "buried" // led back under the knots
	Melted  Form = "melted" // two side by side under one dome
	Bound   Form = "bound"  // a bundle under one binding
	Beaded  Form = "beaded" // two through one bead
)

// Plain is the finish that any end may have, by itself.
const Plain = "cut-straight"

// Every is the Together of a finish that makes all ends of its section one.
const Every = -1

var all = map[string]Finish{}

// add puts a finish into the list; each has a file of its own.
func add(f Finish) struct{} {
	all[f.ID] = f
	return struct{}{}
}

// All lists the finishes by id.
func All() []Finish {
	return slices.SortedFunc(maps.Values(all), func(a, b Finish) int { return strings.Compare(a.ID, b.ID) })
}

// Get finds a finish by its id.
func Get(id string) (Finish, bool) {
	f, ok := all[id]
	return f, ok
}

// Leave is the millimetres of cord that hang beyond the last knot once the end
// is finished; wanted is the maker's own length where the finish asks for one.
func (f Finish) Leave(s cord.Stuff, wanted float64) float64 {
	if wanted > 0 {
		return wanted
	}
	if f.WantsLength && f.leaveD == 0 {
		return 30
	}
	return f.leaveMM + f.leaveD*s.DiameterMM
}

// Trim is the millimetres that the finishing takes away, cut off or melted.
func (f Finish) Trim(s cord.Stuff) float64 { return math.Max(f.trimMM, f.Melts(s)) }

// Melts is what of that the flame eats, mm.
func (f Finish) Melts(s cord.Stuff) float64 { return f.meltD * s.DiameterMM }

// Fits tells how well the finish suits a stuff, 0 where it must not be used on it, and
// why: no flame to what burns instead of melting.
func (f Finish) Fits(s cord.Stuff) (good int, why string) {
	if f.Flame && !s.Material.Melts() {
		return 0, fmt.Sprintf("%s burns, it does not melt", s.Material)
	}
	return f.suits(s)
}

// always is how well a finish suits any stuff that its flame does not burn.
func always(good int, why string) func(cord.Stuff) (int, string) {
	return func(cord.Stuff) (int, string) { return good, why }
}

// Alone tells whether it ends a strand by itself, whatever is tied above it.
func (f Finish) Alone() bool { return f.Together == 0 && !f.WantsUnder && f.Form != Looped }

// Suits reports whether the finish may be used on the stuff.
func (f Finish) Suits(s cord.Stuff) bool {
	good, _ := f.Fits(s)
	return good > 0
}

// Choice is a finish as it suits a stuff.
type Choice struct {
	ID  string `json:"id"`
	Fit bool   `json:"fit"`
	Why string `json:"why"` // why it is so high or so low in the list, or ruled out
}

// Place is where an end hangs: how many crossings lie over its way back under what is
// tied above it, and the stuffs of the other ends that hang there.
type Place struct {
	Covers int
	Beside []cord.Stuff
}

// At tells how well the finish suits a stuff at a place, as Fits does where the place
// allows it, and why not where it does not.
func (f Finish) At(s cord.Stuff, p Place) (good int, why string) {
	good, why = f.Fits(s)
	switch {
	case good == 0:
		return 0, why
	case f.WantsUnder && p.Covers == 0:
		return 0, "no crossing lies over its way back"
	case f.WantsUnder && p.Covers < LeastUnder:
		return min(good, 12), fmt.Sprintf("only %d crossing%s over its way back, where %d hold it", p.Covers, map[bool]string{true: " lies", false: "s lie"}[p.Covers == 1], LeastUnder)
	case f.Together != 0 && len(p.Beside) == 0:
		return 0, "no other end hangs beside it"
	case f.Together != 0 && f.Flame && !slices.ContainsFunc(p.Beside, func(o cord.Stuff) bool { return o.Material == s.Material }):
		return 0, "the ends beside it are of another material, and what is melted of two breaks apart"
	}
	return good, why
}

// Anywhere is a place that allows every finish to a stuff.
func Anywhere(s cord.Stuff) Place { return Place{Covers: LeastUnder, Beside: []cord.Stuff{s}} }

// For lists all finishes for a stuff at a place: those that suit it, best first, then
// those that are ruled out.
func For(s cord.Stuff, p Place) []Choice {
	all := All()
	good := func(f Finish) int { n, _ := f.At(s, p); return n }
	slices.SortStableFunc(all, func(a, b Finish) int { return good(b) - good(a) })
	out := make([]Choice, 0, len(all))
	for _, f := range all {
		n, why := f.At(s, p)
		out = append(out, Choice{f.ID, n > 0, why})
	}
	return out
}

// Instead is the finish to offer for a stuff: the best of those that end each strand by
// itself.
func Instead(s cord.Stuff) string {
	for _, c := range For(s, Anywhere(s)) {
		if f, _ := Get(c.ID); f.Alone() {
			return c.ID
		}
	}
	return Plain
}

// Calls are the cautions that the finish calls for. What lies beside a flame is added by
// whoever knows all cords.
func (f Finish) Calls() []caution.Call {
	var out []caution.Call
	for id, called := range map[caution.ID]bool{caution.Flame: f.Flame, caution.Glue: f.Glue, caution.Solvent: f.Solvent, caution.Sharp: f.Sharp} {
		if called {
			out = append(out, caution.Call{ID: id})
		}
	}
	return out
}
