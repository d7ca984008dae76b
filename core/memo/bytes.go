package memo

import "reflect"

// Sized is a value that knows how many bytes it holds on to.
type Sized interface{ Bytes() int }

// Bytes is about how many bytes a value holds on to, with all it points to.
// What is shared is counted each time, so the figure is never too low by that.
// Values that point in a ring must be [Sized].
func Bytes(v any) int {
	if v == nil {
		return 0
	}
	r := reflect.ValueOf(v)
	return int(r.Type().Size()) + beyond(r)
}

// beyond is what a value holds on to outside itself.
func beyond(v reflect.Value) int {
	if v.CanInterface() {
		if s, ok := v.Interface().(Sized); ok && (v.Kind() != reflect.Pointer || !v.IsNil()) {
			return s.Bytes()
		}
	}
	switch v.Kind() {
	case reflect.String:
		return v.Len()
	case reflect.Slice:
		n := v.Cap() * int(v.Type().Elem().Size())
		if flat(v.Type().Elem()) {
			return n
		}
		for i := range v.Len() {
			n += beyond(v.Index(i))
		}
		return n
	case reflect.Array:
		n := 0
		if !flat(v.Type().Elem()) {
			for i := range v.Len() {
				n += beyond(v.Index(i))
			}
		}
		return n
	case reflect.Struct:
		n := 0
		for i := range v.NumField() {
			n += beyond(v.Field(i))
		}
		return n
	case reflect.Pointer, reflect.Interface:
		if v.IsNil() {
			return 0
		}
		return int(v.Elem().Type().Size()) + beyond(v.Elem())
	case reflect.Map:
		n := 0
		for it := v.MapRange(); it.Next(); {
			const slot = 16 // of the table, beside key and value
			n += slot + int(v.Type().Key().Size()+v.Type().Elem().Size()) + beyond(it.Key()) + beyond(it.Value())
		}
		return n
	}
	return 0
}

// flat tells whether a type holds on to nothing outside itself.
func flat(t reflect.Type) bool {
	switch t.Kind() {
	case reflect.String, reflect.Slice, reflect.Pointer, reflect.Interface, reflect.Map, reflect.Func, reflect.Chan, reflect.UnsafePointer:
		return false
	case reflect.Array:
		return flat(t.Elem())
	case reflect.Struct:
		for i := range t.NumField() {
			if !flat(t.Field(i).Type) {
				return false
			}
		}
	}
	return true
}
