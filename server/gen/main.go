// Command gen writes the JSON Schemas of the wire and of the piece document
// from the Go types: web/src/api/wire.schema.json, from which the TypeScript
// types are made, and docs/piece.schema.json. Run it with go generate ./server.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"os"
	"path/filepath"
	"reflect"

	"github.com/invopop/jsonschema"

	"nimblebight/core/fist"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/server"
)

func main() {
	root := ".." // go generate runs in the package's folder
	if len(os.Args) > 1 {
		root = os.Args[1]
	}
	for name, v := range map[string]any{"web/src/api/wire.schema.json": server.Wire{}, "docs/piece.schema.json": piece.Document{}} {
		if err := write(filepath.Join(root, name), v); err != nil {
			fmt.Fprintln(os.Stderr, "gen:", err)
			os.Exit(1)
		}
	}
}

func write(file string, v any) error {
	r := &jsonschema.Reflector{Mapper: special, Namer: named, AllowAdditionalProperties: file[len(file)-17:] == "piece.schema.json"}
	s := r.Reflect(v)
	s.ID = ""
	var b bytes.Buffer
	e := json.NewEncoder(&b)
	e.SetEscapeHTML(false)
	e.SetIndent("", "  ")
	if err := e.Encode(s); err != nil {
		return err
	}
	if err := os.MkdirAll(filepath.Dir(file), 0o755); err != nil {
		return err
	}
	return os.WriteFile(file, b.Bytes(), 0o644)
}

// named keeps apart the types that have one name in two packages.
func named(t reflect.Type) string {
	switch t {
	case reflect.TypeFor[plan.Cord]():
		return "PlannedCord"
	case reflect.TypeFor[plan.Section]():
		return "PlannedSection"
	case reflect.TypeFor[fist.Warning]():
		return "FistWarning"
	case reflect.TypeFor[plan.Set]():
		return "FixValue"
	case reflect.TypeFor[piece.Problem]():
		return "FieldProblem"
	}
	return t.Name()
}

// special gives the schema of types that write their own JSON.
func special(t reflect.Type) *jsonschema.Schema {
	switch t {
	case reflect.TypeFor[piece.Legs]():
		first := jsonschema.NewProperties()
		first.Set("first_mm", &jsonschema.Schema{Type: "number"})
		return &jsonschema.Schema{OneOf: []*jsonschema.Schema{
			{Type: "string", Enum: []any{"equal", "short-inside"}},
			{Type: "object", Properties: first, Required: []string{"first_mm"}},
		}}
	case reflect.TypeFor[knot.Ends]():
		return &jsonschema.Schema{OneOf: []*jsonschema.Schema{
			{Const: "all"},
			{Type: "array", Items: &jsonschema.Schema{Type: "integer"}},
		}}
	}
	return nil
}
