package piece

import "slices"

// Fitting is a kind of hardware that a piece can hang on.
type Fitting struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Inner and Wire are what its two sizes are called; empty where it has none.
	Inner string `json:"inner,omitempty"`
	Wire  string `json:"wire,omitempty"`

	bent bool // its wire is a ring where the cords sit
}

var fittings = []Fitting{
	{ID: "split-ring", Name: "a split ring", Inner: "Inner width", Wire: "Wire", bent: true},
	{ID: "swivel-clip", Name: "a swivel clip with a flat eye", Inner: "Inner width", Wire: "Wire"},
	{ID: "carabiner", Name: "a carabiner", Inner: "Inner width", Wire: "Wire", bent: true},
	{ID: "rod", Name: "a rod or pin", Inner: "Its length", Wire: "Its thickness"},
	{ID: "none", Name: "nothing"},
}

// Fittings lists the kinds of hardware.
func Fittings() []Fitting { return slices.Clone(fittings) }

// Kinds lists what pieces are made for; a document may name another.
func Kinds() []string {
	return []string{"key-fob", "charm", "lanyard", "zip-pull", "wrist-strap", "stopper", "fist", "rope-ball", "napkin-ring"}
}

// BendMM is the radius of the middle line of its wire where the cords sit, 0
// where that is straight.
func (h Hardware) BendMM() float64 {
	if slices.ContainsFunc(fittings, func(f Fitting) bool { return f.ID == h.Type && f.bent }) {
		return (h.InnerMM + h.WireMM) / 2
	}
	return 0
}
