package piece

import (
	"encoding/json"
	"slices"
	"strings"

	"nimblebight/core/unknown"
)

// CardEdits is what the maker changed of the table card: what is derived stays so, and what is
// not wanted is left out of it.
type CardEdits struct {
	// Without are lines that are left out, by their keys.
	Without []string `json:"without,omitempty"`
	// Own are lines of the maker's own.
	Own []CardLine `json:"own,omitempty"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// CardLine is a line of the maker's own in a group of the card.
type CardLine struct {
	Group string `json:"group"`
	Says  string `json:"says"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the line with the fields it did not know.
func (l CardLine) MarshalJSON() ([]byte, error) {
	type plain CardLine
	return unknown.Marshal(plain(l), l.Unknown)
}

// CardGroups are the groups of the table card, in the order in which they stand.
var CardGroups = []string{"cords", "beside", "tools", "surface", "held", "prepare", "cautions", "look"}

// MarshalJSON writes the card with the fields it did not know.
func (c CardEdits) MarshalJSON() ([]byte, error) {
	type plain CardEdits
	return unknown.Marshal(plain(c), c.Unknown)
}

// mostCard is how many lines of a card may be changed, mostCardText how long one is.
const (
	mostCard     = 200
	mostCardText = 300
)

func (c CardEdits) check(path string, say func(path, format string, args ...any)) {
	if len(c.Without) > mostCard || len(c.Own) > mostCard {
		say(path, "changes more than %d lines", mostCard)
		return
	}
	for i, l := range c.Own {
		switch {
		case !slices.Contains(CardGroups, l.Group):
			say(path+".own", "puts line %d into %.20q; the groups are %s", i+1, l.Group, strings.Join(CardGroups, ", "))
		case strings.TrimSpace(l.Says) == "" || len([]rune(l.Says)) > mostCardText:
			say(path+".own", "has a line %d of %d letters; one has 1 to %d", i+1, len([]rune(l.Says)), mostCardText)
		}
	}
	for i, k := range c.Without {
		if len([]rune(k)) > 3*mostCardText {
			say(path+".without", "names a line %d that is longer than any", i+1)
		}
	}
}
