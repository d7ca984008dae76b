package knot

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"reflect"
	"strconv"

	"nimblebight/core/unknown"
)

// Section is one entry of a piece's sequence: what every knot can be told, and
// the settings that are this knot's own.
//
// Invariants: Settings is a struct, not a pointer, of the type that the catalogue
// has for Do, nil where Do is not in it; it is changed by being replaced, so
// sections may share it. What is said and not known stands in Unknown.
type Section struct {
	Do      string  `json:"do"`
	Strands []int   `json:"strands,omitempty"` // places from the left; all where there are none
	Count   int     `json:"count,omitempty"`
	FitMM   float64 `json:"fit_mm,omitempty"` // as many as fit, instead of a count

	Settings any `json:"-"`

	// Rows stand side by side; Sequence is what is tied again and again.
	Rows     []Row     `json:"rows,omitempty"`
	Sequence []Section `json:"sequence,omitempty"`
	Note     string    `json:"note,omitempty"`

	// Turned are the keys of settings that the document does not say and that
	// a mirror image had to say: mirrored back, they are unsaid again.
	Turned []string `json:"-"`

	// Unknown keeps fields of a newer make through a round trip.
	Unknown map[string]json.RawMessage `json:"-"`

	twin string // the path of a field that was written with capitals
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
	return unknown.Marshal(plain(r), r.Unknown)
}

// Bead is a bead on the strands: its hole, its length along the piece and its
// width, mm.
type Bead struct {
	HoleMM   float64 `json:"hole_mm" typed:"hole" label:"bead hole" most:"200" begin:"7"`
	LengthMM float64 `json:"length_mm" typed:"long" label:"bead length" most:"500" begin:"10"`
	WidthMM  float64 `json:"width_mm" typed:"wide" label:"bead width" most:"300" begin:"12"`
	Colour   Colour  `json:"colour,omitempty" typed:"colour" label:"bead colour"`
	Shape    Shape   `json:"shape,omitempty" typed:"shape" label:"bead shape"`
	Faces    Faces   `json:"faces,omitempty" typed:"faces" label:"its face looks"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// Shape is what a bead looks like.
type Shape string

// Choices are the shapes of beads; a barrel where none is said. A letter is a cube
// with a face.
func (Shape) Choices() []string { return []string{"barrel", "round", "disc", "cube", "letter"} }

// RingShape is that of a ring that strands are led through; no bead has it.
const RingShape Shape = "ring"

// Faces is where the face of a bead looks, as the piece hangs.
type Faces string

// Choices are the ways; any, as where none is said, for one that looks alike all
// round.
func (Faces) Choices() []string { return []string{"any", "front", "back", "edge"} }

// Profile is half the width of the bead as a share of its greatest, at u from -1 to
// 1 along its hole.
func (b Bead) Profile(u float64) float64 {
	end := math.Min(0.96, b.HoleMM*1.25/b.WidthMM) // its mouth is a little wider than the hole
	bulge := 2.6                                   // of a barrel
	switch b.Shape {
	case "round":
		bulge = 2
	case "disc":
		end, bulge = math.Max(end, 0.8), 5
	case "cube", "letter":
		end, bulge = math.Max(end, 0.93), 12
	}
	return math.Sqrt(math.Max(0, 1-(1-end*end)*math.Pow(math.Abs(u), bulge)))
}

// MarshalJSON writes the bead with the fields it did not know.
func (b Bead) MarshalJSON() ([]byte, error) {
	type plain Bead
	return unknown.Marshal(plain(b), b.Unknown)
}

// Ends are the places whose ends a section takes; none means all.
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

// Misread is the error for a field of a section that is not of its type.
type Misread struct {
	Path string // from the section, as bead.hole_mm or sequence[2].count
	Says string // goes on from it
}

func (e *Misread) Error() string { return e.Path + " " + e.Says }

func misread(err error) error {
	var kind *json.UnmarshalTypeError
	if errors.As(err, &kind) {
		return &Misread{kind.Field, fmt.Sprintf("is a %s; it should be a %s", kind.Value, plainKind(kind.Type.Kind()))}
	}
	return err
}

func plainKind(k reflect.Kind) string {
	switch k {
	case reflect.Float64:
		return "number"
	case reflect.Int:
		return "whole number"
	case reflect.Slice:
		return "list"
	case reflect.Struct:
		return "object"
	}
	return k.String()
}

// UnmarshalJSON reads a section with the settings of its knot. What is not of its
// type is a [*Misread].
func (s *Section) UnmarshalJSON(b []byte) error {
	var p struct {
		Do       string            `json:"do"`
		Strands  []int             `json:"strands"`
		Count    int               `json:"count"`
		FitMM    float64           `json:"fit_mm"`
		Rows     []json.RawMessage `json:"rows"`
		Sequence []json.RawMessage `json:"sequence"`
		Note     string            `json:"note"`
	}
	if err := json.Unmarshal(b, &p); err != nil {
		return misread(err)
	}
	out := Section{Do: p.Do, Strands: p.Strands, Count: p.Count, FitMM: p.FitMM, Note: p.Note}
	inside := func(path string, raw json.RawMessage, v any) error {
		err := json.Unmarshal(raw, v)
		var wrong *Misread
		if errors.As(err, &wrong) {
			return &Misread{joined(path, wrong.Path), wrong.Says}
		}
		return err
	}
	if p.Sequence != nil {
		out.Sequence = make([]Section, len(p.Sequence))
	}
	for i, raw := range p.Sequence {
		if err := inside("sequence["+strconv.Itoa(i)+"]", raw, &out.Sequence[i]); err != nil {
			return err
		}
	}
	if p.Rows != nil {
		out.Rows = make([]Row, len(p.Rows))
	}
	for i, raw := range p.Rows {
		if err := inside("rows["+strconv.Itoa(i)+"]", raw, &out.Rows[i]); err != nil {
			return err
		}
	}
	known := []any{&out}
	if k, ok := Get(p.Do); ok {
		settings := reflect.New(reflect.TypeOf(k.Settings))
		if err := json.Unmarshal(b, settings.Interface()); err != nil {
			return misread(err)
		}
		known = append(known, settings.Interface())
		out.Unknown, out.twin = unknown.Sort(b, known...)
		out.Settings = settings.Elem().Interface()
	} else {
		out.Unknown, out.twin = unknown.Sort(b, known...)
	}
	*s = out
	return nil
}

func joined(path, rest string) string {
	if rest == "" {
		return path
	}
	return path + "." + rest
}

// UnmarshalJSON reads a row; what is not of its type is a [*Misread].
func (r *Row) UnmarshalJSON(b []byte) error {
	var p struct {
		Strands  []int             `json:"strands"`
		Sequence []json.RawMessage `json:"sequence"`
	}
	if err := json.Unmarshal(b, &p); err != nil {
		return misread(err)
	}
	out := Row{Strands: p.Strands}
	if p.Sequence != nil {
		out.Sequence = make([]Section, len(p.Sequence))
	}
	for i, raw := range p.Sequence {
		err := json.Unmarshal(raw, &out.Sequence[i])
		var wrong *Misread
		if errors.As(err, &wrong) {
			return &Misread{joined("sequence["+strconv.Itoa(i)+"]", wrong.Path), wrong.Says}
		}
		if err != nil {
			return err
		}
	}
	*r = out
	return nil
}

// Twin is the path of a field of it that was written with capitals, "" where
// there is none.
func (s Section) Twin() string { return s.twin }

// MarshalJSON writes the section with the fields it did not know.
func (s Section) MarshalJSON() ([]byte, error) {
	type plain Section
	first := plain(s)
	first.Rows, first.Sequence, first.Note = nil, nil, ""
	inside := struct {
		Rows     []Row     `json:"rows,omitempty"`
		Sequence []Section `json:"sequence,omitempty"`
		Note     string    `json:"note,omitempty"`
	}{s.Rows, s.Sequence, s.Note}
	if s.Settings == nil {
		return unknown.Join(s.Unknown, first, inside)
	}
	return unknown.Join(s.Unknown, first, s.Settings, inside)
}

// New is a section of a knot as the catalogue begins it.
func New(do string) (Section, error) {
	k, ok := Get(do)
	if !ok {
		return Section{}, Unknown(do)
	}
	s := Section{Do: do, Settings: k.Settings}
	if k.Repeats {
		s.Count = 1
	}
	for _, f := range k.Fields {
		text := f.begin
		if text == "" {
			text = f.Default
		}
		if text == "" || f.If != "" {
			continue
		}
		switch f.Kind {
		case "choice":
			s = s.With(f, text)
		case "count":
			n, _ := strconv.Atoi(text) // checked when the knot was added
			s = s.With(f, n)
		case "length":
			v, _ := strconv.ParseFloat(text, 64)
			s = s.With(f, v)
		}
	}
	return s, nil
}

// Of gives a section's settings as those of its knot: the zero settings for a
// section that has none.
func Of[T any](s Section) T {
	v, _ := s.Settings.(T)
	return v
}

// Begun is a section of a knot with settings of its own, tied once where it
// repeats.
func Begun(do string, settings any) Section {
	s := Section{Do: do, Settings: settings}
	if k, ok := Get(do); ok && k.Repeats {
		s.Count = 1
	}
	return s
}
