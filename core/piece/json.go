package piece

import (
	"bytes"
	"encoding/json"
	"errors"

	"nimblebight/core/unknown"
)

// How the parts of a document stand in JSON, fields of a newer version among them.
// Whole documents are read by formats/document.

// MarshalJSON writes "equal", "short-inside" or {"first_mm": 300}.
func (l Legs) MarshalJSON() ([]byte, error) {
	switch {
	case l.FirstMM != 0:
		return unknown.Marshal(map[string]float64{"first_mm": l.FirstMM}, l.Unknown)
	case l.Equal:
		return []byte(`"equal"`), nil
	}
	return []byte(`"short-inside"`), nil
}

// UnmarshalJSON reads what MarshalJSON writes.
func (l *Legs) UnmarshalJSON(b []byte) error {
	switch string(bytes.TrimSpace(b)) {
	case `"equal"`:
		*l = Legs{Equal: true}
		return nil
	case `"short-inside"`:
		*l = Legs{ShortInside: true}
		return nil
	}
	var given struct {
		FirstMM *float64 `json:"first_mm"`
	}
	if json.Unmarshal(b, &given) != nil || given.FirstMM == nil || *given.FirstMM == 0 {
		return errors.New(`legs: write "equal", "short-inside" or {"first_mm": 300}`)
	}
	*l = Legs{FirstMM: *given.FirstMM}
	return nil
}

// MarshalJSON writes the document with the fields it did not know.
func (d Document) MarshalJSON() ([]byte, error) {
	type plain Document
	return unknown.Marshal(plain(d), d.Unknown)
}

// MarshalJSON writes the purpose with the fields it did not know.
func (p Purpose) MarshalJSON() ([]byte, error) {
	type plain Purpose
	return unknown.Marshal(plain(p), p.Unknown)
}

// MarshalJSON writes the hardware with the fields it did not know.
func (h Hardware) MarshalJSON() ([]byte, error) {
	type plain Hardware
	return unknown.Marshal(plain(h), h.Unknown)
}

// MarshalJSON writes the cord with the fields it did not know.
func (c Cord) MarshalJSON() ([]byte, error) {
	type plain Cord
	return unknown.Marshal(plain(c), c.Unknown)
}
