package unknown_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"nimblebight/core/unknown"
)

type leaf struct {
	Known   int                        `json:"known"`
	Unknown map[string]json.RawMessage `json:"-"`
}

func (l leaf) MarshalJSON() ([]byte, error) {
	type plain leaf
	return unknown.Marshal(plain(l), l.Unknown)
}

type tree struct {
	One     leaf                       `json:"one"`
	Many    []leaf                     `json:"many"`
	Maybe   *leaf                      `json:"maybe,omitempty"`
	Unknown map[string]json.RawMessage `json:"-"`
}

func read(t *testing.T, text string) tree {
	t.Helper()
	var v tree
	if err := json.Unmarshal([]byte(text), &v); err != nil {
		t.Fatal(err)
	}
	unknown.Collect([]byte(text), &v)
	return v
}

func TestUnknownFieldsAreCollectedAtEveryDepth(t *testing.T) {
	v := read(t, `{"one":{"known":1,"a":true},"many":[{"known":2},{"b":[1,2],"known":3}],"maybe":{"c":null},"d":"x"}`)
	for what, got := range map[string]string{
		"true":  string(v.One.Unknown["a"]),
		"[1,2]": string(v.Many[1].Unknown["b"]),
		"null":  string(v.Maybe.Unknown["c"]),
		`"x"`:   string(v.Unknown["d"]),
	} {
		if got != what {
			t.Errorf("kept %q, want %q", got, what)
		}
	}
	if len(v.Many[0].Unknown) != 0 {
		t.Errorf("an item without unknown fields keeps %v", v.Many[0].Unknown)
	}
	if len(v.One.Unknown) != 1 {
		t.Errorf("known fields were kept as unknown: %v", v.One.Unknown)
	}
}

// A field with another case was read as the known one: it is told where it stands.
func TestTwinsAreTold(t *testing.T) {
	for text, want := range map[string]string{
		`{"one":{"known":1,"knows":2},"many":[]}`:     "",
		`{"one":{"KNOWN":1},"many":[]}`:               "one.KNOWN",
		`{"one":{},"many":[{"known":1},{"Known":2}]}`: "many[1].Known",
		`{"one":{},"Many":[]}`:                        "Many",
	} {
		var v tree
		if err := json.Unmarshal([]byte(text), &v); err != nil {
			t.Fatal(err)
		}
		if got := unknown.Collect([]byte(text), &v); got != want {
			t.Errorf("%s: told of %q, want %q", text, got, want)
		}
	}
}

func TestTheyAreWrittenInOrder(t *testing.T) {
	extra := map[string]json.RawMessage{"z": []byte("1"), "a": []byte(`{"k":2}`)}
	for object, want := range map[string]string{
		`{}`:          `{"a":{"k":2},"z":1}`,
		`{"known":5}`: `{"known":5,"a":{"k":2},"z":1}`,
	} {
		got, err := unknown.Marshal(json.RawMessage(object), extra)
		if err != nil || string(got) != want || !json.Valid(got) {
			t.Errorf("%s became %s, %v", object, got, err)
		}
	}
	same := json.RawMessage(`{"known":5}`)
	if got, _ := unknown.Marshal(same, nil); string(got) != string(same) {
		t.Errorf("with nothing to add it became %s", got)
	}
}

func Example() {
	var v leaf
	text := []byte(`{"known":1,"newer":"field"}`)
	if err := json.Unmarshal(text, &v); err != nil {
		fmt.Println(err)
		return
	}
	unknown.Collect(text, &v)
	v.Known = 2
	b, _ := json.Marshal(v)
	fmt.Println(string(b))
	// Output: {"known":2,"newer":"field"}
}
