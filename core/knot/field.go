package knot

import (
	"encoding/binary"
	"encoding/json"
	"fmt"
	"math"
	"reflect"
	"slices"
	"strconv"
	"strings"

	"nimblebight/core/unknown"
)

// The settings of a knot are a struct of its own. What stands beside a field in
// its tags says everything that others need of it: how it is written in a
// document and in a typed line, what a form calls it, what it may be.
//
//	type Settings struct {
//		Squares int       `json:"squares,omitempty" typed:"squares" label:"square knots in it" default:"3" least:"2" most:"3"`
//		Start   knot.Side `json:"start,omitempty" typed:"start" label:"starts" default:"left"`
//	}
//
// A field is a choice (a named string with a method Choices), a count (int), a
// place ([Place]), a length in mm (float64), a cord ([CordID]) or several
// ([CordIDs]), places ([Ends]), a colour ([Colour]), or a pointer to a struct of
// such fields.
//
//	typed    its key in a typed line; "-" for the value that needs no key
//	label    what a form and a problem call it
//	default  what it is where it is not said; left out of a typed line
//	begin    what a new section begins with, where that is always written
//	least, most  bounds of a count; most also bounds a length, mm
//	needed   set for what must be said; beside a pointer, for all in it
//	for      the choice of another field without which it counts for nothing

// Side is a hand or a side: left or right. A mirror image turns it.
type Side string

// The two sides.
const (
	Left  Side = "left"
	Right Side = "right"
)

// Choices are the sides.
func (Side) Choices() []string { return []string{"left", "right"} }

// Turn is a direction as seen from the working end. A mirror image turns it.
type Turn string

// The two directions.
const (
	Clockwise     Turn = "clockwise"
	Anticlockwise Turn = "anticlockwise"
)

// Choices are the directions.
func (Turn) Choices() []string { return []string{"clockwise", "anticlockwise"} }

// Opposite is a side or a direction as a mirror shows it; what is neither stays.
//
// Law: twice it is the identity.
func Opposite(choice string) string {
	switch choice {
	case "left":
		return "right"
	case "right":
		return "left"
	case "clockwise":
		return "anticlockwise"
	case "anticlockwise":
		return "clockwise"
	}
	return choice
}

// Sided tells whether a mirror turns the field.
func (f Field) Sided() bool {
	return slices.ContainsFunc(f.Choices, func(c string) bool { return Opposite(c) != c })
}

// Place is a place among a section's strands, from 1 on the left; 0 where it is
// not said.
type Place int

// CordID is a cord of the piece by its name, CordIDs are several.
type (
	CordID  string
	CordIDs []string
)

// Colour is written as #rrggbb.
type Colour string

// Field is one setting of a section, beside its count.
type Field struct {
	Key     string   `json:"key"`   // as in the document
	Short   string   `json:"short"` // as in the typed line; "" for the value that needs no key
	Label   string   `json:"label"`
	Kind    string   `json:"kind" jsonschema:"enum=choice,enum=count,enum=length,enum=places,enum=place,enum=cord,enum=cords,enum=colour"`
	Choices []string `json:"choices,omitempty"`
	Default string   `json:"default,omitempty"`
	// Least and Most bound a count, Most a length, mm; Needed is set for what must
	// be said.
	Least  int  `json:"least,omitempty"`
	Most   int  `json:"most,omitempty"`
	Needed bool `json:"needed,omitempty"`
	// If is a choice, as inside=bead, without which the field counts for nothing.
	If string `json:"if,omitempty"`

	at    []int  // in the settings; nil for the section's own strands
	begin string // what a new section says
}

var (
	placeType   = reflect.TypeFor[Place]()
	cordType    = reflect.TypeFor[CordID]()
	cordsType   = reflect.TypeFor[CordIDs]()
	colourType  = reflect.TypeFor[Colour]()
	endsType    = reflect.TypeFor[Ends]()
	choicesType = reflect.TypeFor[interface{ Choices() []string }]()
)

// fieldsOf reads the fields of a settings struct off its tags. It panics on tags
// that mean nothing: they are written here.
func fieldsOf(t reflect.Type, key string, at []int, needed bool, only string) []Field {
	var out []Field
	for i := range t.NumField() {
		f := t.Field(i)
		name := unknown.Name(f)
		if name == "" {
			continue
		}
		here := append(append([]int{}, at...), i)
		must := needed || f.Tag.Get("needed") != ""
		if f.Type.Kind() == reflect.Pointer {
			out = append(out, fieldsOf(f.Type.Elem(), name+".", here, must, f.Tag.Get("for"))...)
			continue
		}
		typed := f.Tag.Get("typed")
		if typed == "" || f.Tag.Get("label") == "" {
			panic(fmt.Sprintf("knot: field %s of %s says neither typed nor label", f.Name, t))
		}
		where := only
		if own := f.Tag.Get("for"); own != "" {
			where = own
		}
		field := Field{Key: key + name, Short: strings.TrimPrefix(typed, "-"), Label: f.Tag.Get("label"), Default: f.Tag.Get("default"),
			Needed: must && f.Type != colourType && !(needed && f.Type.Implements(choicesType)), If: where, at: here, begin: f.Tag.Get("begin")}
		number := func(name string) int {
			text := f.Tag.Get(name)
			if text == "" {
				return 0
			}
			n, err := strconv.Atoi(text)
			if err != nil {
				panic(fmt.Sprintf("knot: %s of field %s is no number", name, f.Name))
			}
			return n
		}
		field.Least, field.Most = number("least"), number("most")
		switch {
		case f.Type.Implements(choicesType):
			field.Kind = "choice"
			field.Choices = reflect.Zero(f.Type).Interface().(interface{ Choices() []string }).Choices()
		case f.Type == placeType:
			field.Kind = "place"
		case f.Type == cordType:
			field.Kind = "cord"
		case f.Type == cordsType:
			field.Kind = "cords"
		case f.Type == colourType:
			field.Kind = "colour"
		case f.Type == endsType:
			field.Kind = "places"
		case f.Type.Kind() == reflect.Int:
			field.Kind = "count"
		case f.Type.Kind() == reflect.Float64:
			field.Kind = "length"
		default:
			panic(fmt.Sprintf("knot: a setting cannot be a %s", f.Type))
		}
		out = append(out, field)
	}
	return out
}

// strandsField are the places that a section is tied on, where it may choose.
var strandsField = Field{Key: "strands", Short: "strands", Label: "strands", Kind: "places"}

// Value gives what a section says of a field: a string, int, float64, []int or
// []string. The second value is false where it says nothing of it at all, as of
// a bead that is not there.
func (s Section) Value(f Field) (any, bool) {
	if f.at == nil {
		return s.Strands, true
	}
	v := reflect.ValueOf(s.Settings)
	if !v.IsValid() {
		return nil, false
	}
	for _, i := range f.at {
		if v.Kind() == reflect.Pointer {
			if v.IsNil() {
				return nil, false
			}
			v = v.Elem()
		}
		v = v.Field(i)
	}
	switch v.Kind() {
	case reflect.String:
		return v.String(), true
	case reflect.Int:
		return int(v.Int()), true
	case reflect.Float64:
		return v.Float(), true
	case reflect.Slice:
		if v.Type().Elem().Kind() == reflect.Int {
			return v.Convert(reflect.TypeFor[[]int]()).Interface(), true
		}
		return v.Convert(reflect.TypeFor[[]string]()).Interface(), true
	}
	return nil, false
}

// With is the section with another value of a field, of the type that Value
// gives. The section that it was made from stays as it is.
func (s Section) With(f Field, value any) Section {
	if f.at == nil {
		s.Strands = value.([]int)
		return s
	}
	if s.Settings == nil {
		return s
	}
	whole := reflect.New(reflect.TypeOf(s.Settings)).Elem()
	whole.Set(reflect.ValueOf(s.Settings))
	v := whole
	for _, i := range f.at {
		if v.Kind() == reflect.Pointer {
			inner := reflect.New(v.Type().Elem())
			if !v.IsNil() {
				inner.Elem().Set(v.Elem())
			}
			v.Set(inner)
			v = inner.Elem()
		}
		v = v.Field(i)
	}
	v.Set(reflect.ValueOf(value).Convert(v.Type()))
	s.Settings = whole.Interface()
	return s
}

// Put is With by the key of a field. A section that has no such field stays as it
// is.
func (s Section) Put(key string, value any) Section {
	k, _ := Get(s.Do)
	f, ok := k.Field(key)
	if !ok {
		return s
	}
	return s.With(f, value)
}

// Bead is the bead that the section's settings say, nil where they say none.
func (s Section) Bead() *Bead {
	v := reflect.ValueOf(s.Settings)
	if !v.IsValid() {
		return nil
	}
	for i := range v.NumField() {
		if b, ok := v.Field(i).Interface().(*Bead); ok {
			return b
		}
	}
	return nil
}

// PutBead is the section with another bead, or nil for none. A section that takes no
// bead stays as it is.
func (s Section) PutBead(b *Bead) Section {
	v := reflect.ValueOf(s.Settings)
	if !v.IsValid() {
		return s
	}
	whole := reflect.New(v.Type()).Elem()
	whole.Set(v)
	for i := range v.NumField() {
		if _, ok := v.Field(i).Interface().(*Bead); ok {
			whole.Field(i).Set(reflect.ValueOf(b))
			s.Settings = whole.Interface()
			break
		}
	}
	return s
}

// WithUnknownOf is the section with what another one keeps, unknown, inside its
// settings, as of a bead; with none of it where the other has no such settings.
func (s Section) WithUnknownOf(other Section) Section {
	v := reflect.ValueOf(s.Settings)
	if !v.IsValid() {
		return s
	}
	o := reflect.ValueOf(other.Settings)
	alike := o.IsValid() && o.Type() == v.Type()
	whole := reflect.New(v.Type()).Elem()
	whole.Set(v)
	for i := range v.NumField() {
		if f := v.Field(i); f.Kind() == reflect.Pointer && !f.IsNil() {
			inner := reflect.New(f.Type().Elem())
			inner.Elem().Set(f.Elem())
			var unknown map[string]json.RawMessage
			if alike && !o.Field(i).IsNil() {
				unknown, _ = o.Field(i).Elem().FieldByName("Unknown").Interface().(map[string]json.RawMessage)
			}
			inner.Elem().FieldByName("Unknown").Set(reflect.ValueOf(unknown))
			whole.Field(i).Set(inner)
		}
	}
	s.Settings = whole.Interface()
	return s
}

// appendKey writes everything that a settings struct says, so that two of them
// give the same bytes only where they are the same.
func appendKey(b []byte, v reflect.Value) []byte {
	switch v.Kind() {
	case reflect.String:
		return append(append(b, v.String()...), 0)
	case reflect.Int:
		return binary.LittleEndian.AppendUint64(b, uint64(v.Int()))
	case reflect.Float64:
		return binary.LittleEndian.AppendUint64(b, math.Float64bits(v.Float()))
	case reflect.Slice:
		b = binary.LittleEndian.AppendUint32(b, uint32(v.Len()))
		for i := range v.Len() {
			b = appendKey(b, v.Index(i))
		}
	case reflect.Pointer:
		if v.IsNil() {
			return append(b, 0)
		}
		return appendKey(append(b, 1), v.Elem())
	case reflect.Struct:
		for i := range v.NumField() {
			if unknown.Name(v.Type().Field(i)) != "" {
				b = appendKey(b, v.Field(i))
			}
		}
	}
	return b
}
