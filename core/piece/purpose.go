package piece

import (
	"fmt"
	"slices"
	"strings"
)

// Fitting is a kind of hardware that a piece can hang on.
type Fitting struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	// Inner and Wire are what its sizes are called; empty where it has none.
	Inner string `json:"inner,omitempty"`
	Wire  string `json:"wire,omitempty"`
	// Depth is what its thickness is called, of what is no wire.
	Depth string `json:"depth,omitempty"`
	// Hangs is how it hangs, and with which of its sides to the face of the piece.
	Hangs string `json:"hangs,omitempty"`

	bent bool // its wire is a ring where the cords sit
}

var fittings = []Fitting{
	{ID: "split-ring", Name: "a split ring", Inner: "Inner width", Wire: "Wire", Hangs: "It lies flat with the face, its split to the side or above, never under the cords.", bent: true},
	{ID: "swivel-clip", Name: "a swivel clip with a flat eye", Inner: "Inner width", Wire: "Wire", Hangs: "The flat of its eye lies with the face, its gate opens to you. It turns, so the piece may turn by itself."},
	{ID: "carabiner", Name: "a carabiner", Inner: "Inner width", Wire: "Wire", Hangs: "The cords sit at its narrow end, away from the gate, which opens to you.", bent: true},
	{ID: "bail", Name: "a bail or a fixed eye", Inner: "Inner width", Wire: "Wire", Hangs: "Its loop stands across, open to both sides; the face of what it carries looks to you.", bent: true},
	{ID: "rod", Name: "a rod or pin", Inner: "Its length", Wire: "Its thickness", Hangs: "It lies across the piece; the face looks to you."},
	{ID: "hole", Name: "a hole, as of a handle or a zip", Inner: "Width of the hole", Wire: "From the hole to the edge", Depth: "How thick it is there", Hangs: "It runs from the face to the back: the cords come in from the face."},
	{ID: "none", Name: "nothing"},
}

// Fittings lists the kinds of hardware.
func Fittings() []Fitting { return slices.Clone(fittings) }

// fitting is the kind of the hardware.
func (h Hardware) fitting() (Fitting, bool) {
	i := slices.IndexFunc(fittings, func(f Fitting) bool { return f.ID == h.Type })
	if i < 0 {
		return Fitting{}, false
	}
	return fittings[i], true
}

// check says what of the hardware at a path cannot be.
func (h Hardware) check(path string, say func(path, format string, args ...any)) {
	fitting, known := h.fitting()
	if !known {
		say(path+".type", "is %q; it is %s", h.Type, fittingNames())
	}
	if v := h.DepthMM; fitting.Depth != "" && !(v >= 0.3 && v <= 200) {
		say(path+".depth_mm", "is %v; what a hole goes through is between 0.3 and 200 mm thick", v)
	}
	if h.Type == "none" { // its widths count for nothing
		return
	}
	if v := h.InnerMM; !(v >= 2 && v <= 2000) {
		say(path+".inner_mm", "is %v; an inner width is between 2 and 2000 mm", v)
	}
	if v := h.WireMM; !(v >= 0.3 && v <= 100) {
		say(path+".wire_mm", "is %v; a wire is between 0.3 and 100 mm thick", v)
	}
}

// Check says what of hardware by itself cannot be; paths are those of its fields.
func (h Hardware) Check() Problems {
	var ps Problems
	h.check("", func(path, format string, args ...any) {
		ps = append(ps, Problem{Path: strings.TrimPrefix(path, "."), Message: fmt.Sprintf(format, args...)})
	})
	return ps
}

// fittingNames lists the kinds as a sentence does.
func fittingNames() string {
	var ids []string
	for _, f := range fittings {
		ids = append(ids, f.ID)
	}
	return strings.Join(ids[:len(ids)-1], ", ") + " or " + ids[len(ids)-1]
}

// DeepMM is how thick it is from the face to the back, 0 for what is a wire, whatever
// depth stands in a document.
func (h Hardware) DeepMM() float64 {
	if f, _ := h.fitting(); f.Depth != "" {
		return h.DepthMM
	}
	return 0
}

// BendMM is the radius of the middle line of its wire where the cords sit, 0
// where that is straight.
func (h Hardware) BendMM() float64 {
	if f, _ := h.fitting(); f.bent {
		return (h.InnerMM + h.WireMM) / 2
	}
	return 0
}
