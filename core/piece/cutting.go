package piece

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"nimblebight/core/gauge"
	"nimblebight/core/unknown"
)

// Cutting is how the cords of a piece are cut; what it does not say is as the maker's
// settings have it.
type Cutting struct {
	// OneIn is how seldom it may run short: in one piece of so many.
	OneIn gauge.Risk `json:"one_in,omitempty" jsonschema:"enum=10,enum=20,enum=40,enum=200"`
	// Hold is what the ends are held with for the last knot.
	Hold Tool `json:"hold,omitempty" jsonschema:"enum=fingers,enum=needle,enum=haemostat"`
	// Geometry is set where nothing that was measured counts.
	Geometry bool `json:"geometry,omitempty"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// Tool is what the end of a strand is held with.
type Tool string

// The tools: an end is held by bare fingers, screwed into a lacing needle or gripped
// by a haemostat.
const (
	Fingers   Tool = "fingers"
	Needle    Tool = "needle"
	Haemostat Tool = "haemostat"
)

// Tools lists them, the usual one first.
func Tools() []Tool { return []Tool{Fingers, Needle, Haemostat} }

// MarshalJSON writes the cutting with the fields it did not know.
func (c Cutting) MarshalJSON() ([]byte, error) {
	type plain Cutting
	return unknown.Marshal(plain(c), c.Unknown)
}

func (c Cutting) check(path string, say func(path, format string, args ...any)) {
	if c.OneIn != 0 && !c.OneIn.Valid() {
		say(path+".one_in", "is %d; a piece runs short once in %s", c.OneIn, risks())
	}
	if c.Hold != "" && !slices.Contains(Tools(), c.Hold) {
		say(path+".hold", "is %.20q; an end is held with fingers, needle or haemostat", c.Hold)
	}
}

func risks() string {
	var out []string
	for _, r := range gauge.Risks {
		out = append(out, fmt.Sprint(int(r)))
	}
	return strings.Join(out[:len(out)-1], ", ") + " or " + out[len(out)-1]
}
