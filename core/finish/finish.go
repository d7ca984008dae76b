// Package finish knows how the end of a cord may be finished: for which stuff,
// how much cord each way leaves or eats, and what must be said before a flame
// is lit. One decision per end.
package finish

import (
	"sort"

	"nimblebight/core/cord"
)

// Way is one way to finish an end.
type Way struct {
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
}

// Plain is the way that any end may be finished by, by itself.
const Plain = "cut-straight"

var ways = map[string]Way{
	"singe-and-press": {Name: "singe and press", For: "meltable cord that ends against a knot", Flame: true, Form: "pressed",
		Note: "Press with metal or a wetted blade; plastic sticks to it.", leaveMM: 3, trimMM: 10,
		Steps: []string{"Cut to a few millimetres from the knot.", "Move the flame near the end till it glistens, never into the cord.", "Press it flat against the knot with a wetted blade and let it set."}},
	"dome": {Name: "smooth dome", For: "meltable cord whose end is seen", Flame: true, Form: "dome",
		Note: "Keep the flame moving, let it cool untouched.", leaveD: 1.5, trimMM: 10,
		Steps: []string{"Cut square, a diameter and a half from the knot.", "Keep the flame moving round the end till it draws itself into a dome.", "Let it cool untouched."}},
	"fringe": {Name: "fringe and comb", For: "cotton", Form: "fringe", WantsLength: true, trimMM: 15,
		Note:  "Trim to the shortest, comb, trim again.",
		Steps: []string{"Trim the ends to the shortest.", "Untwist and comb from the tips up.", "Trim again along the wanted line."}},
	"fuse": {Name: "fuse two ends", For: "two meltable ends that make a loop or join two colours", Flame: true, Form: "fused", WantsLength: true,
		Note: "It holds only if both are molten at that moment.", trimMM: 10, Together: 2,
		Steps: []string{"Cut both ends square where they meet.", "Melt both at once until they glisten.", "Push them together straight and hold them still till they set; roll the join smooth with a wetted blade.", "Pull hard at the join: it must hold."}},
	Plain: {Name: "straight cut", For: "cotton and t-shirt yarn", Form: "cut", WantsLength: true, trimMM: 10,
		Note:  "Tape round, cut through the tape line.",
		Steps: []string{"Tape round all the ends where they shall end.", "Cut through the tape line and take the tape off."}},
}

// Ways lists the ways by id.
func Ways() []Way {
	var out []Way
	for id := range ways {
		w, _ := Get(id)
		out = append(out, w)
	}
	sort.Slice(out, func(i, j int) bool { return out[i].ID < out[j].ID })
	return out
}

// Get finds a way by its id.
func Get(id string) (Way, bool) {
	w, ok := ways[id]
	w.ID = id
	return w, ok
}

// Leave is the millimetres of cord that hang beyond the last knot once the end
// is finished; wanted is the maker's own length where the way asks for one.
func (w Way) Leave(s cord.Stuff, wanted float64) float64 {
	if wanted > 0 {
		return wanted
	}
	if w.WantsLength {
		return 30
	}
	return w.leaveMM + w.leaveD*s.DiameterMM
}

// Trim is the millimetres that the finishing cuts away.
func (w Way) Trim() float64 { return w.trimMM }

// Suits reports whether the way may be used on the stuff: no flame to what
// burns instead of melting.
func (w Way) Suits(s cord.Stuff) bool { return !w.Flame || s.Material.Melts() }

// Instead is the way to offer for stuff that a flame would burn.
func Instead(s cord.Stuff) string {
	if s.Material.Melts() {
		return "singe-and-press"
	}
	if s.Material == "cotton" && s.Make == "single-strand" {
		return "fringe"
	}
	return "cut-straight"
}

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
