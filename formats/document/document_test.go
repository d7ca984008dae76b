package document_test

import (
	"encoding/json"
	"fmt"
	"reflect"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/formats/document"
)

const fob = `{
  "format": "nimble-bight.piece", "version": 1, "name": "Slipway locker fob", "maker_mark": {"ring": [1, 2]},
  "purpose": {"kind": "key-fob", "hangs_on": {"type": "split-ring", "inner_mm": 25, "wire_mm": 2, "plated": true}, "length_mm": 100, "for_whom": "crew"},
  "cords": [
    {"id": "A", "stuff": {"make": "kernmantle", "material": "nylon", "diameter_mm": 4, "colour": "#0f5c63", "lot": "x1"}, "legs": "short-inside", "spool": 7},
    {"id": "B", "stuff": {"make": "kernmantle", "material": "nylon", "diameter_mm": 4, "colour": "#e3c88f"}, "legs": {"first_mm": 300}},
    {"id": "C", "stuff": {"make": "single-strand", "material": "cotton", "diameter_mm": 3, "colour": "#b4532a"}}
  ],
  "sequence": [
    {"do": "mount", "cords": ["A", "B"], "hitch": "larks-head"},
    {"do": "square-knot", "strands": [1, 2, 3, 4], "count": 10, "start": "left", "tempo": 3},
    {"do": "gap", "length_mm": 12},
    {"do": "gather", "cord": "C", "turns": 6},
    {"do": "finish", "how": "fringe", "length_mm": 40, "ends": [1, 4]},
    {"do": "finish", "how": "cut-straight", "ends": "all"}
  ]
}`

func TestUnknownFieldsSurviveARoundTrip(t *testing.T) {
	d, err := document.Read([]byte(fob))
	if err != nil {
		t.Fatal(err)
	}
	b, err := json.Marshal(d)
	if err != nil {
		t.Fatal(err)
	}
	for _, field := range []string{`"maker_mark":{"ring": [1, 2]}`, `"plated":true`, `"for_whom":"crew"`, `"lot":"x1"`, `"spool":7`, `"tempo":3`} {
		if !strings.Contains(string(b), strings.ReplaceAll(field, " ", "")) && !strings.Contains(string(b), field) {
			t.Errorf("%s was lost in %s", field, b)
		}
	}
	again, err := document.Read(b)
	if err != nil {
		t.Fatal(err)
	}
	b2, err := json.Marshal(again)
	if err != nil {
		t.Fatal(err)
	}
	if string(b) != string(b2) {
		t.Errorf("a second round trip changed it:\n%s\n%s", b, b2)
	}
}

// Whatever is spoiled is named by its path, with the line it stands on.
func TestBadDocumentsNameThePlace(t *testing.T) {
	for _, c := range []struct {
		from, to, path, says string
		line                 int
	}{
		{`"nimble-bight.piece"`, `"other"`, "format", "a piece says", 2},
		{`"version": 1`, `"version": 9`, "version", "newer", 2},
		{`"inner_mm": 25`, `"inner_mm": -25`, "purpose.hangs_on.inner_mm", "-25", 3},
		{`"length_mm": 100`, `"length_mm": 100001`, "purpose.length_mm", "100 m", 3},
		{`"diameter_mm": 4, "colour": "#0f5c63"`, `"diameter_mm": 0, "colour": "#0f5c63"`, "cords[0].stuff.diameter_mm", "0.3", 5},
		{`"make": "single-strand"`, `"make": "spaghetti"`, "cords[2].stuff.make", "spaghetti", 7},
		{`"colour": "#0f5c63"`, `"colour": "#0f5c63", "Colour": "#000000"`, "cords[0].stuff.Colour", "write colour", 5},
		{`"id": "B"`, `"id": "A"`, "cords[1].id", "second time", 6},
		{`"count": 10`, `"count": 10001`, "sequence[1].count", "10,000", 11},
		{`"count": 10`, `"count": -1`, "sequence[1].count", "-1", 11},
		{`"count": 10`, `"count": 0`, "sequence[1].count", "0", 11},
		{`"do": "square-knot"`, `"do": "square-nkot"`, "sequence[1].do", "square-knot", 11},
		{`"strands": [1, 2, 3, 4]`, `"strands": [0, 2]`, "sequence[1].strands", "place 0", 11},
		{`"start": "left"`, `"start": "up"`, "sequence[1].start", "left or right", 11},
		{`"length_mm": 12`, `"length_mm": 0`, "sequence[2].length_mm", "length", 12},
		{`"turns": 6`, `"turns": 0`, "sequence[3].turns", "turns", 13},
		{`"cord": "C"`, `"cord": "D"`, "sequence[3].cord", "does not have", 13},
		{`"how": "fringe"`, `"how": "spit"`, "sequence[4].how", "it is bead-and-glue", 14},
		{`"cords": ["A", "B"]`, `"cords": ["A", "A"]`, "sequence[0].cords", "already", 10},
		{`{"first_mm": 300}`, `{"first_mm": 1e9}`, "cords[1].legs.first_mm", "100 m", 6},
	} {
		if strings.Count(fob, c.from) == 0 {
			t.Fatalf("%s does not stand in the fob", c.from)
		}
		_, err := document.Read([]byte(strings.Replace(fob, c.from, c.to, 1)))
		ps, ok := err.(piece.Problems)
		if !ok || len(ps) == 0 {
			t.Errorf("%s was taken: %v", c.to, err)
			continue
		}
		if ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) || ps[0].Line != c.line || ps[0].Column < 1 {
			t.Errorf("%s: said %+v, want %s on line %d, something about %q", c.to, ps[0], c.path, c.line, c.says)
		}
	}
}

func TestWhatIsNoJSONNamesLineAndColumn(t *testing.T) {
	for _, c := range []struct {
		text         string
		line, column int
	}{
		{"{\n  \"format\": nimble\n}", 2, 14},
		{`{"name": 5}`, 1, 0},
		{`{"name": "x"`, 1, 0},
		{strings.Replace(fob, `"count": 10`, `"count": "ten"`, 1), 11, 0},
		{strings.Replace(fob, `"legs": "short-inside"`, `"legs": "long"`, 1), 5, 0},
		{strings.Replace(fob, `"ends": [1, 4]`, `"ends": "some"`, 1), 14, 0},
		{"", 1, 0},
		{"[]", 1, 0},
	} {
		_, err := document.Read([]byte(c.text))
		ps, ok := err.(piece.Problems)
		if !ok || ps[0].Line != c.line || (c.column > 0 && ps[0].Column != c.column) {
			t.Errorf("%.40q: %v, want line %d column %d", c.text, err, c.line, c.column)
		}
	}
}

// A piece written by a newer program keeps what this one does not know,
// wherever it stands.
func TestUnknownFieldsStayWhereverTheyStand(t *testing.T) {
	text := `{"format":"nimble-bight.piece","version":1,"name":"fob","u0":1,
	 "purpose":{"kind":"charm","u1":{"a":[1]},"hangs_on":{"type":"split-ring","inner_mm":30,"wire_mm":2,"u2":null}},
	 "cords":[
	  {"id":"A","u3":"x","stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#0f5c63","u4":true},"legs":{"first_mm":300,"u5":2}},
	  {"id":"B","stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#0f5c63"}}],
	 "sequence":[
	  {"do":"mount","cords":["A","B"],"hitch":"larks-head","u6":1},
	  {"do":"rows","u7":1,"rows":[
	    {"strands":[1,2],"u8":1,"sequence":[{"do":"repeat","count":2,"u9":1,"sequence":[{"do":"bead","u10":1,"bead":{"hole_mm":9,"length_mm":8,"width_mm":14,"u11":3}}]}]},
	    {"strands":[3,4],"sequence":[{"do":"gap","length_mm":9}]}]},
	  {"do":"finish","how":"dome"}]}`
	d, err := document.Read([]byte(text))
	if err != nil {
		t.Fatal(err)
	}
	ball, err := document.Read([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"split-ring","inner_mm":30,"wire_mm":2}},"cords":[],
	 "sequence":[{"do":"monkeys-fist","passes":3,"mode":"one-cord","core":{"kind":"marble","diameter_mm":16,"u12":1}}]}`))
	if err != nil {
		t.Fatal(err)
	}
	d.Sequence = append(d.Sequence, ball.Sequence...)
	check := func(what string, d piece.Document) {
		b, err := json.Marshal(d)
		if err != nil {
			t.Fatal(err)
		}
		for n := range 13 {
			if c := strings.Count(string(b), fmt.Sprintf(`"u%d":`, n)); c != 1 {
				t.Errorf("%s: the unknown field u%d stands there %d times", what, n, c)
			}
		}
	}
	check("written", d)
	check("mirrored", d.Mirrored())
	// A line typed anew says nothing of them; sections that stay keep theirs,
	// also where one was put in before them.
	seq, err := notation.Respell(d.Sequence, strings.Replace(notation.Notate(d.Sequence), ", rows", ", gap 8mm, rows", 1))
	if err != nil {
		t.Fatal(err)
	}
	d.Sequence = seq
	check("typed anew", d)
}

// Every struct of a document keeps what it does not know.
func TestNoPartOfADocumentDropsWhatItDoesNotKnow(t *testing.T) {
	seen := map[reflect.Type]bool{}
	var look func(t reflect.Type)
	look = func(ty reflect.Type) {
		switch ty.Kind() {
		case reflect.Pointer, reflect.Slice:
			look(ty.Elem())
		case reflect.Struct:
			if seen[ty] {
				return
			}
			seen[ty] = true
			if _, ok := ty.FieldByName("Unknown"); !ok {
				t.Errorf("%s has no place for unknown fields", ty)
			}
			for i := range ty.NumField() {
				if ty.Field(i).Tag.Get("json") != "-" {
					look(ty.Field(i).Type)
				}
			}
		}
	}
	look(reflect.TypeFor[piece.Document]())
	for _, k := range knot.All() { // what is in the settings; these themselves are the section's
		settings := reflect.TypeOf(k.Settings)
		for i := range settings.NumField() {
			if f := settings.Field(i); f.Type.Kind() == reflect.Pointer {
				look(f.Type)
			}
		}
	}
	if len(seen) < 10 {
		t.Errorf("only %d structs were found", len(seen))
	}
}
