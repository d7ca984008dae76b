// Package prepare knows how the end of a cord is made ready to be led through something
// tight, and how much of it is cut off again afterwards.
package prepare

import "nimblebight/core/cord"

// Preparation is one way to make an end ready.
type Preparation struct {
	ID   string `json:"id"`
	Name string `json:"name"` // as it is said: with its ends taped
	How  string `json:"how"`  // what the hand does, a sentence
	// Flame is set where the end is melted.
	Flame bool     `json:"flame,omitempty"`
	Tools []string `json:"tools"`
	// Early is set where it is done when the cord is cut, before anything is tied.
	Early bool `json:"early,omitempty"`
	// OffMM is what is cut off again when the end is through, mm; judged at the table.
	OffMM float64 `json:"off_mm"`
	// ThickerMM is by how much it makes the end thicker. Hard is set where all that is led
	// through must go in as it is, and LastHard where that is so of one of them only:
	// behind a thin point the others are squeezed by their give.
	ThickerMM      float64 `json:"-"`
	Hard, LastHard bool    `json:"-"`
	// Two is set where two ends are led through as one.
	Two bool `json:"-"`
}

// Ways are all of them, in the order in which makers try them: what asks for the least
// first.
var Ways = []Preparation{
	{ID: "taped", Name: "with taped ends", How: "Wind one turn of masking tape round each end and cut it on a slant.", Tools: []string{"masking tape"}, Early: true, OffMM: 15, ThickerMM: 0.3, Hard: true},
	{ID: "bare", Name: "with bare ends", How: "Cut each end on a slant just before it goes in, so that no yarn is caught.", Tools: []string{"sharp scissors"}, OffMM: 5, Hard: true},
	{ID: "fused", Name: "with both ends fused to one point", How: "Melt the two ends together, side by side, and draw them out to one point.", Flame: true, Tools: []string{"lighter", "wetted blade"}, OffMM: 15, Two: true},
	{ID: "pointed", Name: "with ends melted to a point", How: "Melt each end and roll it to a point with a wetted blade.", Flame: true, Tools: []string{"lighter", "wetted blade"}, Early: true, OffMM: 10},
	{ID: "needle", Name: "one after the other, by a lacing needle", How: "Screw a lacing needle on each end and lead them through one after the other.", Tools: []string{"lacing needle"}, OffMM: 10, LastHard: true},
}

// Get finds a way by its id.
func Get(id string) (Preparation, bool) {
	for _, w := range Ways {
		if w.ID == id {
			return w, true
		}
	}
	return Preparation{}, false
}

// Takes tells whether ends of these stuffs can be made ready in this way together, and
// why not.
func (w Preparation) Takes(stuffs []cord.Stuff) (bool, string) {
	if w.Two && len(stuffs) != 2 {
		return false, "it is for two ends"
	}
	for _, s := range stuffs {
		switch {
		case w.Flame && !s.Material.Melts():
			return false, string(s.Material) + " burns, it does not melt"
		case w.Two && s.Material != stuffs[0].Material:
			return false, "what is melted of two materials breaks apart"
		case w.LastHard && s.Make.Flat():
			return false, "a needle is not screwed on a flat lace"
		}
	}
	return true, ""
}
