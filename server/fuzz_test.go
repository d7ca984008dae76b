package server

import (
	"encoding/json"
	"testing"
)

// Whatever is put into the drawer is refused in words or comes out as it went in.
func FuzzDrawer(f *testing.F) {
	f.Add([]byte(`{"name":"Lagoon","stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#0f5c63","lot":"x"}}`))
	f.Add([]byte(`{"name":"bung","core":{"kind":"wood","diameter_mm":22}}`))
	f.Add([]byte(`{"name":"","stuff":{"diameter_mm":1e308}}`))
	f.Fuzz(func(t *testing.T, b []byte) {
		var sp Spool
		if json.Unmarshal(b, &sp) == nil && len(cords().check(sp)) == 0 {
			st, err := cords().in(sp)
			if err != nil {
				t.Fatal(err)
			}
			back, err := cords().out(st)
			if err != nil || len(cords().check(back)) > 0 {
				t.Fatalf("%+v became %+v, %v", sp, back, err)
			}
		}
		var d DrawerCore
		if json.Unmarshal(b, &d) == nil && len(cores().check(d)) == 0 {
			st, err := cores().in(d)
			if err != nil {
				t.Fatal(err)
			}
			if back, err := cores().out(st); err != nil || len(cores().check(back)) > 0 {
				t.Fatalf("%+v became %+v, %v", d, back, err)
			}
		}
	})
}
