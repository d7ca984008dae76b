// Package finish knows how the end of a cord may be finished: for which stuff,
// how much cord each finish leaves or eats, and what must be said before a flame
// is lit. One decision per end.
package finish

import (
	"fmt"
	"maps"
	"slices"
	"strings"

	"nimblebight/core/cord"
)

// Finish is one way to end a cord.
type Finish struct {
	ID    string // as it stands in a piece
	Name  string // as it is said
	For   string
	Flame bool // needs a cord that melts
	Note  string
	// Form tells the picture how the end looks: pressed, dome, fringe or cut.
	Form string
	// WantsLength is set where the maker chooses how long the end hangs.
	WantsLength bool
	// Together is how many ends are made one, 0 where each is finished by itself.
	Together int
	leaveMM  float64 // what stays beyond the last knot, mm
	leaveD   float64 // and in label diameters
	trimMM   float64 // what is cut off in the finishing
	Steps    []string

	// Tools are what lies ready, Wait how long it is left alone, "" where it is done at
	// once; Look is what to look at, Undo what it takes to take it back.
	Tools            []string
	Wait, Look, Undo string
	// Glue is set where glue is used.
	Glue bool
	// suits says how well it suits a stuff that its flame does not burn, 0 where it does
	// not, and why.
	suits func(cord.Stuff) (good int, why string)
}

// Plain is the finish that any end may have, by itself.
const Plain = "cut-straight"

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
	if f.WantsLength {
		return 30
	}
	return f.leaveMM + f.leaveD*s.DiameterMM
}

// Trim is the millimetres that the finishing cuts away.
func (f Finish) Trim() float64 { return f.trimMM }

// Fits tells how well the finish suits a stuff, 0 where it must not be used on it, and
// why: no flame to what burns instead of melting.
func (f Finish) Fits(s cord.Stuff) (good int, why string) {
	if f.Flame && !s.Material.Melts() {
		return 0, fmt.Sprintf("%s burns, it does not melt", s.Material)
	}
	return f.suits(s)
}

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

// For lists all finishes for a stuff: those that suit it, best first, then those that
// are ruled out.
func For(s cord.Stuff) []Choice {
	all := All()
	good := func(f Finish) int { n, _ := f.Fits(s); return n }
	slices.SortStableFunc(all, func(a, b Finish) int { return good(b) - good(a) })
	out := make([]Choice, 0, len(all))
	for _, f := range all {
		n, why := f.Fits(s)
		out = append(out, Choice{f.ID, n > 0, why})
	}
	return out
}

// Instead is the finish to offer for a stuff: the best of those that end each strand by
// itself.
func Instead(s cord.Stuff) string {
	for _, c := range For(s) {
		if f, _ := Get(c.ID); f.Together == 0 {
			return c.ID
		}
	}
	return Plain
}

// GlueCaution stands beside every use of glue.
const GlueCaution = "Instant glue bonds skin in seconds and heats up on cotton and leather: a thin drop, gloves or a stick, eyes away, and air the room."

// Cautions are the sentences that stand beside the finishing of ends of this
// stuff, flame first.
func Cautions(flame bool, stuffs []cord.Stuff) []string {
	var out []string
	if flame {
		out = append(out,
			"Flame and molten nylon burn and stick: work over a heatproof surface with water at hand, air the room, keep hair and sleeves away and no inner strands sticking out, and never put the cord into the flame.")
		for _, s := range stuffs {
			if !s.Material.Melts() {
				out = append(out, "Natural fibre burns, it does not melt: keep the flame away from the "+string(s.Material)+".")
				break
			}
		}
	}
	return append(out,
		"Beads and small ends are a choking hazard; keep small pieces from small children.",
		"Decorative knots hold no person and no load.")
}
