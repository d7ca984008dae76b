package knot

import (
	"encoding/json"
	"fmt"

	"nimblebight/core/keep"
)

// Section is one entry of a piece's sequence. Which fields count depends on
// Do; the catalogue says which.
type Section struct {
	Do       string   `json:"do"`
	Cords    []string `json:"cords,omitempty"`
	Hitch    string   `json:"hitch,omitempty" jsonschema:"enum=larks-head,enum=larks-head-reversed,enum=laid-behind"`
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
	Note     string   `json:"note,omitempty"`

	// Unknown keeps fields of a newer make through a round trip.
	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the section with the fields it did not know.
func (s Section) MarshalJSON() ([]byte, error) {
	type plain Section
	b, err := json.Marshal(plain(s))
	if err != nil {
		return nil, err
	}
	return keep.Merge(b, s.Unknown)
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
