// Package caution holds everything that must be said for the safety of those who tie, and
// of those who carry what was tied: what it says, at which stage, and what calls for it.
// No other place states a caution of its own, but for a ball, which says how small and how
// heavy it is.
package caution

import (
	"fmt"
	"math"

	"nimblebight/core/cord"
)

// ID names a caution.
type ID string

// The cautions.
const (
	Flame    ID = "flame"
	Natural  ID = "natural-fibre"
	Thin     ID = "thin-cord"
	Glue     ID = "glue"
	Solvent  ID = "solvent"
	Sharp    ID = "sharp"
	Blade    ID = "blade"
	Neck     ID = "neck"
	HardCore ID = "hard-core"
	Choking  ID = "choking"
	Load     ID = "load"
)

// Stage is where in the work a caution stands: where the act is.
type Stage string

// The stages at which cautions stand.
const (
	AtPurpose Stage = "purpose"
	AtTie     Stage = "tie"
	AtFinish  Stage = "finish"
	AtCheck   Stage = "check"
)

// Caution is one as it is said. {12.3mm} in it is a length in the maker's units.
type Caution struct {
	ID    ID      `json:"id"`
	Title string  `json:"title"`
	Says  string  `json:"says"`
	At    []Stage `json:"at"`
	// Section calls for it, -1 for the whole piece.
	Section int `json:"section"`
}

// Call is what calls for a caution: a section, -1 for the whole piece, and, where it is
// said in a way of its own, how.
type Call struct {
	ID      ID
	Section int
	Says    string
}

// ThinMM is from which label diameter down a cord takes fire beside a flame before it
// melts back; judged at the table.
const ThinMM = 1.5

var all = []Caution{
	{ID: Flame, Title: "Flame", At: []Stage{AtFinish}, Says: "Flame and molten nylon burn and stick: work over a heatproof surface with water at hand, air the room and do not breathe the fumes, keep hair and sleeves away and no inner strands sticking out, and never put the cord into the flame. Where a flame is not allowed, follow the rules of the place and choose a finish without one."},
	{ID: Natural, Title: "Fibre that burns", At: []Stage{AtFinish}, Says: "Natural fibre burns, it does not melt: keep the flame away from it."},
	{ID: Thin, Title: "Thin cord beside a flame", At: []Stage{AtFinish}, Says: "Thin cord catches fire before it melts back: hold the flame beside it, not under it, and blow it out at once."},
	{ID: Glue, Title: "Glue", At: []Stage{AtFinish}, Says: "Instant glue bonds skin in seconds and heats up on cotton and leather: a thin drop, gloves or a stick, eyes away, and air the room. Follow what its tube says."},
	{ID: Solvent, Title: "Solvents", At: []Stage{AtFinish}, Says: "Balm, thinner and contact glue give off fumes that burn and that are not to be breathed: open a window, keep every flame away till it is dry, and lay the cloth out flat to dry. Follow what the tin says."},
	{ID: Sharp, Title: "Sharp blade", At: []Stage{AtFinish}, Says: "Cut away from the hand that holds, on a board, and never towards you: a blade that slips off leather goes far."},
	{ID: Blade, Title: "Knife", At: []Stage{AtPurpose, AtTie}, Says: "Keep the blade closed or sheathed while you tie, and try the lanyard with it closed first. Where and which knives may be carried, the law of the place says."},
	{ID: Neck, Title: "Round the neck", At: []Stage{AtPurpose, AtTie, AtCheck}, Says: "A cord round a neck needs a breakaway that opens by itself when it is pulled: put one in, and keep it from children and from machinery. Where you work, ask whoever is responsible for safety before you wear it."},
	{ID: HardCore, Title: "Hard core", At: []Stage{AtTie, AtCheck}, Says: "A fist round a hard core can hurt, and can count as a weapon in some places: follow the law of the place, ask where you are not sure, and never swing it."},
	{ID: Choking, Title: "Small parts", At: []Stage{AtPurpose, AtCheck}, Says: "Beads and small ends are a choking hazard: keep the piece and what is cut off from small children."},
	{ID: Load, Title: "No load", At: []Stage{AtPurpose, AtCheck}, Says: "Decorative knots hold no person and no load. For anything that protects people, ask someone who is qualified for it."},
}

// All lists the cautions in the order in which they are said.
func All() []Caution { return append([]Caution(nil), all...) }

// Beside are the calls of what lies beside a flame that is held to an end in a section: of
// cords of these stuffs.
func Beside(section int, stuffs []cord.Stuff) []Call {
	var out []Call
	thin := math.Inf(1)
	natural := cord.Material("")
	for _, s := range stuffs {
		if !s.Material.Melts() && natural == "" {
			natural = s.Material
		}
		thin = math.Min(thin, s.DiameterMM)
	}
	if natural != "" {
		out = append(out, Call{Natural, section, fmt.Sprintf("Natural fibre burns, it does not melt: keep the flame away from the %s.", natural)})
	}
	if thin <= ThinMM {
		out = append(out, Call{Thin, section, fmt.Sprintf("Cord of {%.1fmm} catches fire before it melts back: hold the flame beside it, not under it, and blow it out at once.", thin)})
	}
	return out
}

// Of are the cautions that are called for, each once, in the order in which they are
// said: with the words of the first call that has words of its own, at the first section.
func Of(calls []Call) []Caution {
	var out []Caution
	for _, c := range all {
		called := false
		for _, call := range calls {
			if call.ID != c.ID {
				continue
			}
			if !called {
				c.Section, called = call.Section, true
			}
			if call.Says != "" {
				c.Says = call.Says
				break
			}
		}
		if called {
			out = append(out, c)
		}
	}
	return out
}
