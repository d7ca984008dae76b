package knot

import (
	"encoding/json"
	"fmt"
	"strings"

	"nimblebight/core/fist"
	"nimblebight/core/keep"
)

// Section is one entry of a piece's sequence. Which fields count depends on
// Do; the catalogue says which.
type Section struct {
	Do       string   `json:"do"`
	Cords    []string `json:"cords,omitempty"`
	Hitch    string   `json:"hitch,omitempty" jsonschema:"enum=larks-head,enum=larks-head-reversed,enum=laid-behind,enum=from-knot"`
	Strands  []int    `json:"strands,omitempty"`
	Count    int      `json:"count,omitempty"`
	FitMM    float64  `json:"fit_mm,omitempty"`
	Start    string   `json:"start,omitempty" jsonschema:"enum=left,enum=right"`
	Hand     string   `json:"hand,omitempty" jsonschema:"enum=left,enum=right"`
	LengthMM float64  `json:"length_mm,omitempty"`
	Cord     string   `json:"cord,omitempty"`
	Turns    int      `json:"turns,omitempty"`
	How      string   `json:"how,omitempty"`
	Ends     Ends     `json:"ends,omitempty"`
	GapMM    float64  `json:"gap_mm,omitempty"`
	Squares  int      `json:"squares,omitempty"`

	Filler    int    `json:"filler,omitempty"`
	Carry     int    `json:"carry,omitempty"` // fillers carried together, 1 or 2
	Direction string `json:"direction,omitempty" jsonschema:"enum=left,enum=right"`
	Slope     string `json:"slope,omitempty" jsonschema:"enum=horizontal,enum=diagonal"`

	Inside string `json:"inside,omitempty" jsonschema:"enum=empty,enum=square-knot,enum=bead"`
	Order  string `json:"order,omitempty" jsonschema:"enum=in-turn,enum=outermost-first"`
	Close  string `json:"close,omitempty" jsonschema:"enum=join,enum=end,enum=end-doubled"`
	Bead   *Bead  `json:"bead,omitempty"`

	Of    string `json:"of,omitempty" jsonschema:"enum=all,enum=one-leg"`
	Which int    `json:"which,omitempty"`

	// Rows stand side by side; Cross is how often they are crossed.
	Rows  []Row `json:"rows,omitempty"`
	Cross int   `json:"cross,omitempty"`
	// Sequence is what a repeat repeats.
	Sequence []Section `json:"sequence,omitempty"`

	InnerMM float64 `json:"inner_mm,omitempty"`

	Passes int `json:"passes,omitempty"`
	// Of a rope ball: strands side by side, its leads and bights, its former.
	Side     int     `json:"strands_per_pass,omitempty"`
	Leads    int     `json:"leads,omitempty"`
	Bights   int     `json:"bights,omitempty"`
	FormerMM float64 `json:"former_mm,omitempty"`

	Mode   string `json:"mode,omitempty" jsonschema:"enum=one-cord,enum=two-cords,enum=doubled"`
	Begins string `json:"begins,omitempty" jsonschema:"enum=hidden,enum=with-tail"`
	Core   *Core  `json:"core,omitempty"`
	School string `json:"school,omitempty" jsonschema:"enum=over-one,enum=round-both"`

	Note string `json:"note,omitempty"`

	// Turned are the keys of settings that the document does not say and that
	// a mirror image had to say: mirrored back, they are unsaid again.
	Turned []string `json:"-"`

	// Unknown keeps fields of a newer make through a round trip.
	Unknown map[string]json.RawMessage `json:"-"`
}

// Row is one of several sequences that are tied side by side, each on strands
// of its own.
type Row struct {
	Strands  []int     `json:"strands"`
	Sequence []Section `json:"sequence"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the row with the fields it did not know.
func (r Row) MarshalJSON() ([]byte, error) {
	type plain Row
	return keep.Marshal(plain(r), r.Unknown)
}

// Bead is a bead on the strands: its hole, its length along the piece and its
// width, mm.
type Bead struct {
	HoleMM   float64 `json:"hole_mm"`
	LengthMM float64 `json:"length_mm"`
	WidthMM  float64 `json:"width_mm"`
	Colour   string  `json:"colour,omitempty"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the bead with the fields it did not know.
func (b Bead) MarshalJSON() ([]byte, error) {
	type plain Bead
	return keep.Marshal(plain(b), b.Unknown)
}

// Core is what a ball is tied round.
type Core = fist.Core

// At gives the place of a field by its key, to be read and set: a *string, *int,
// *float64, *[]int, *[]string or *Ends; nil for a key that is not a plain field.
func (s *Section) At(key string) any {
	switch key {
	case "cords":
		return &s.Cords
	case "hitch":
		return &s.Hitch
	case "strands":
		return &s.Strands
	case "start":
		return &s.Start
	case "hand":
		return &s.Hand
	case "length_mm":
		return &s.LengthMM
	case "cord":
		return &s.Cord
	case "turns":
		return &s.Turns
	case "how":
		return &s.How
	case "ends":
		return &s.Ends
	case "gap_mm":
		return &s.GapMM
	case "squares":
		return &s.Squares
	case "filler":
		return &s.Filler
	case "carry":
		return &s.Carry
	case "direction":
		return &s.Direction
	case "slope":
		return &s.Slope
	case "inside":
		return &s.Inside
	case "order":
		return &s.Order
	case "close":
		return &s.Close
	case "of":
		return &s.Of
	case "which":
		return &s.Which
	case "cross":
		return &s.Cross
	case "inner_mm":
		return &s.InnerMM
	case "passes":
		return &s.Passes
	case "strands_per_pass":
		return &s.Side
	case "leads":
		return &s.Leads
	case "bights":
		return &s.Bights
	case "former_mm":
		return &s.FormerMM
	case "mode":
		return &s.Mode
	case "begins":
		return &s.Begins
	case "school":
		return &s.School
	case "core.kind", "core.diameter_mm":
		if s.Core == nil {
			s.Core = &Core{}
		}
		if key == "core.kind" {
			return (*string)(&s.Core.Kind)
		}
		return &s.Core.DiameterMM
	case "bead.hole_mm", "bead.length_mm", "bead.width_mm", "bead.colour":
		if s.Bead == nil {
			s.Bead = &Bead{}
		}
		switch key {
		case "bead.hole_mm":
			return &s.Bead.HoleMM
		case "bead.length_mm":
			return &s.Bead.LengthMM
		case "bead.width_mm":
			return &s.Bead.WidthMM
		}
		return &s.Bead.Colour
	}
	return nil
}

// Has tells whether the section says something of the field; reading it with
// At would add an empty bead or core.
func (s *Section) Has(key string) bool {
	switch {
	case strings.HasPrefix(key, "bead."):
		return s.Bead != nil
	case strings.HasPrefix(key, "core."):
		return s.Core != nil
	}
	return true
}

// MarshalJSON writes the section with the fields it did not know.
func (s Section) MarshalJSON() ([]byte, error) {
	type plain Section
	return keep.Marshal(plain(s), s.Unknown)
}

// Ends are the places whose ends a finish takes; none means all.
type Ends []int

// MarshalJSON writes no places as "all".
func (e Ends) MarshalJSON() ([]byte, error) {
	if len(e) == 0 {
		return []byte(`"all"`), nil
	}
	return json.Marshal([]int(e))
}

// UnmarshalJSON reads "all" or a list of places.
func (e *Ends) UnmarshalJSON(b []byte) error {
	if string(b) == `"all"` || string(b) == "null" {
		*e = nil
		return nil
	}
	var ps []int
	if err := json.Unmarshal(b, &ps); err != nil {
		return fmt.Errorf(`ends: write "all" or places like [1, 4]`)
	}
	*e = ps
	return nil
}

// New is a section of a knot with the catalogue's defaults.
func New(do string) (Section, error) {
	k, ok := Get(do)
	if !ok {
		return Section{}, Unknown(do)
	}
	s := Section{Do: do}
	if k.Repeats {
		s.Count = 1
	}
	if k.fill != nil {
		k.fill(&s)
	}
	return s, nil
}
