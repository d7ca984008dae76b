package ball

import (
	"encoding/json"
	"fmt"
	"math"

	"nimblebight/core/unknown"
)

// Kind is what a core is.
type Kind string

// The kinds of cores. A stopper is the knot that joins two cords; a knot is one
// of the cord itself; wadding is whatever fills the ball.
const (
	Marble  Kind = "marble"
	Steel   Kind = "steel"
	Wood    Kind = "wood"
	Knot    Kind = "knot"
	Stopper Kind = "stopper"
	Wadding Kind = "wadding"
)

// Core is what a ball is tied round.
type Core struct {
	Kind       Kind    `json:"kind"`
	DiameterMM float64 `json:"diameter_mm"`

	// Unknown keeps fields of a newer make through a round trip.
	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the core with the fields it did not know.
func (c Core) MarshalJSON() ([]byte, error) {
	type plain Core
	return unknown.Marshal(plain(c), c.Unknown)
}

type coreFacts struct {
	name    string
	density float64 // g/cm3; 0 for what is of the cord itself
	soft    Kind    // a softer core for the same work, if this one is hard
	colour  string
}

var cores = map[Kind]coreFacts{
	Marble:  {"glass marble", 2.5, Wood, "#7fa3a8"},
	Steel:   {"steel ball", 7.8, Wood, "#9aa4a8"},
	Wood:    {"wooden ball", 0.7, "", "#c8a06a"},
	Knot:    {"knotted cord", 0, "", ""},
	Stopper: {"joined stopper", 0, "", ""},
	Wadding: {"wadding", 0.15, "", "#d9d2c0"},
}

// Kinds lists the kinds, hardest first.
func Kinds() []Kind { return []Kind{Steel, Marble, Wood, Knot, Stopper, Wadding} }

// Name is the kind as it is said.
func (k Kind) Name() string { return cores[k].name }

// Colour is how it looks, "" for what is of the cord.
func (k Kind) Colour() string { return cores[k].colour }

// Hard tells whether it is hard and heavy enough to hurt.
func (k Kind) Hard() bool { return cores[k].soft != "" }

// Weight is the weight of the core, g. A knot is cord, packed as rope packs in
// a knot: about 0.64 of the ball it fills.
func (c Core) Weight(of Cord) float64 {
	volume := math.Pi / 6 * math.Pow(c.DiameterMM, 3) / 1000 // cm3
	f := cores[c.Kind]
	if f.density > 0 {
		return f.density * volume
	}
	section := math.Pi / 4 * of.DiameterMM * of.DiameterMM // mm2, of GramsPerMetre
	return knotFill * volume * 1000 / section * of.GramsPerMetre / 1000
}

const knotFill = 0.64

// CheckKept is why a core cannot lie in a drawer: *Refused.
func (c Core) CheckKept() error {
	if c.Kind == Stopper {
		return &Refused{Field: "core", Why: "a joined stopper is tied in the cords of the ball itself and cannot lie in a drawer; put a knotted cord in"}
	}
	if c.Kind == "" || c.DiameterMM == 0 {
		return &Refused{Field: "core", Why: "what lies in the drawer has a kind and a diameter"}
	}
	return c.check()
}

func (c Core) check() error {
	if c.Kind != "" && cores[c.Kind].name == "" {
		return &Refused{Field: "core", Why: fmt.Sprintf("there is no core of %q; it is marble, steel, wood, knot, stopper or wadding", c.Kind)}
	}
	if c.DiameterMM != 0 && !(c.DiameterMM >= 1 && c.DiameterMM <= 1000) {
		return &Refused{Field: "core", Why: fmt.Sprintf("a core of %g mm is none; it is between 1 and 1000 mm thick", c.DiameterMM)}
	}
	return nil
}
