// Package unknown carries fields that this version does not know through a round
// trip, so that a piece written by a newer one is not robbed by being opened.
//
// A struct takes part by having a field
//
//	Unknown map[string]json.RawMessage `json:"-"`
//
// and a MarshalJSON that is [Marshal].
package unknown

import (
	"encoding/json"
	"fmt"
	"reflect"
	"sort"
	"strings"
)

// Collect walks the JSON text b beside the value v points to, which was read
// from it, and fills every Unknown on the way. A field that differs from a known
// one by its case alone was read as that one; twin is the path of such a
// field, "" where there is none.
func Collect(b []byte, v any) (twin string) {
	c := collector{}
	c.collect(b, reflect.ValueOf(v), "")
	return c.twin
}

// Sorted is a value that sorts its fields itself when it is read, with [Sort],
// and gives the path of its twin.
type Sorted interface{ Twin() string }

// Sort is Collect for an object whose fields belong to several structs: every
// Unknown in them is filled, but their own; what none of them knows is given
// back.
func Sort(b []byte, structs ...any) (unknown map[string]json.RawMessage, twin string) {
	var fields map[string]json.RawMessage
	if json.Unmarshal(b, &fields) != nil {
		return nil, ""
	}
	c := collector{}
	for _, s := range structs {
		c.known(fields, reflect.ValueOf(s).Elem(), "")
	}
	for _, s := range structs {
		if c.twin == "" && len(fields) > 0 {
			c.twin = twinOf(reflect.TypeOf(s).Elem(), fields, "")
		}
	}
	if len(fields) == 0 {
		fields = nil
	}
	return fields, c.twin
}

type collector struct{ twin string }

func (c *collector) collect(b json.RawMessage, v reflect.Value, path string) {
	switch v.Kind() {
	case reflect.Pointer:
		if !v.IsNil() {
			c.collect(b, v.Elem(), path)
		}
	case reflect.Slice:
		var items []json.RawMessage
		if json.Unmarshal(b, &items) != nil {
			return
		}
		for i := 0; i < len(items) && i < v.Len(); i++ {
			c.collect(items[i], v.Index(i), fmt.Sprintf("%s[%d]", path, i))
		}
	case reflect.Struct:
		if sorted, ok := v.Interface().(Sorted); ok {
			if twin := sorted.Twin(); c.twin == "" && twin != "" {
				c.twin = strings.TrimPrefix(path+"."+twin, ".")
			}
			return
		}
		var fields map[string]json.RawMessage
		if json.Unmarshal(b, &fields) != nil {
			return
		}
		c.known(fields, v, path)
		if c.twin == "" && len(fields) > 0 {
			c.twin = twinOf(v.Type(), fields, path)
		}
		if u := v.FieldByName("Unknown"); u.IsValid() && u.CanSet() && len(fields) > 0 {
			u.Set(reflect.ValueOf(fields))
		}
	}
}

// known takes the fields that a struct knows out of those of an object, and goes
// on into them.
func (c *collector) known(fields map[string]json.RawMessage, v reflect.Value, path string) {
	t := v.Type()
	for i := range t.NumField() {
		name := Name(t.Field(i))
		if raw, ok := fields[name]; ok && name != "" {
			c.collect(raw, v.Field(i), strings.TrimPrefix(path+"."+name, "."))
			delete(fields, name)
		}
	}
}

func twinOf(t reflect.Type, fields map[string]json.RawMessage, path string) string {
	for i := range t.NumField() {
		name := Name(t.Field(i))
		for f := range fields {
			if name != "" && strings.EqualFold(f, name) {
				return strings.TrimPrefix(path+"."+f, ".") // of several any one will do
			}
		}
	}
	return ""
}

// Name is a field's name in JSON, "" for one that is not written.
func Name(f reflect.StructField) string {
	tag := f.Tag.Get("json")
	if tag == "-" || !f.IsExported() {
		return ""
	}
	if name, _, _ := strings.Cut(tag, ","); name != "" {
		return name
	}
	return f.Name
}

// Marshal writes v, whose JSON is an object, with the unknown fields after its
// own, in alphabetical order.
func Marshal(v any, unknown map[string]json.RawMessage) ([]byte, error) {
	object, err := json.Marshal(v)
	if err != nil || len(unknown) == 0 {
		return object, err
	}
	return with(object, unknown)
}

// Join writes several values, whose JSON is an object each, as one object, with
// the unknown fields after theirs.
func Join(unknown map[string]json.RawMessage, values ...any) ([]byte, error) {
	out := []byte{'{'}
	for _, v := range values {
		object, err := json.Marshal(v)
		if err != nil {
			return nil, err
		}
		if len(object) == 2 {
			continue
		}
		if len(out) > 1 {
			out = append(out, ',')
		}
		out = append(out, object[1:len(object)-1]...)
	}
	return with(append(out, '}'), unknown)
}

// with adds fields to the text of an object.
func with(object []byte, unknown map[string]json.RawMessage) ([]byte, error) {
	names := make([]string, 0, len(unknown))
	for n := range unknown {
		names = append(names, n)
	}
	sort.Strings(names)
	out := append([]byte{}, object[:len(object)-1]...)
	for _, n := range names {
		if len(out) > 1 {
			out = append(out, ',')
		}
		k, err := json.Marshal(n)
		if err != nil {
			return nil, err
		}
		out = append(append(append(out, k...), ':'), unknown[n]...)
	}
	return append(out, '}'), nil
}
