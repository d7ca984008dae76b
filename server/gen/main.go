// Command gen writes the JSON Schemas of the wire and of the piece document
// from the Go types: web/src/api/wire.schema.json, from which the TypeScript
// types are made, docs/piece.schema.json, and what the page must know of units. Run it with go generate ./server.
package main

import (
	"bytes"
	"encoding/json"
	"fmt"
	"maps"
	"os"
	"path/filepath"
	"reflect"
	"slices"
	"strings"

	"github.com/invopop/jsonschema"

	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/pace"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/start"
	"nimblebight/core/units"
	"nimblebight/device"
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
	for _, made := range []func(string) error{lengths, facts} {
		if err := made(root); err != nil {
			fmt.Fprintln(os.Stderr, "gen:", err)
			os.Exit(1)
		}
	}
}

// facts writes what the page must know before it asks: the frames of a move, the devices and
// after how long hands may rest.
func facts(root string) error {
	var b strings.Builder
	fmt.Fprintf(&b, `// Made by server/gen from where each stands; do not change it here.

/** The frames of a move at the vise. */
export const moveFrames = %d;
/** A device that the bench stands in for. */
export const standIn = %q;
/** The kinds of devices. */
export const deviceKinds = [
`, server.MoveFrames, device.Ours)
	for _, k := range device.Kinds {
		fmt.Fprintf(&b, "  { id: %q, name: %q },\n", k, k.Name())
	}
	fmt.Fprintf(&b, "] as const;\n/** How many cords one can name before a piece is begun. */\nexport const mostCords = %d;\n", start.MostCords)
	fmt.Fprintf(&b, "/** After how many minutes hands can be told to rest; 0 is never. */\nexport const rests = [%s] as const;\n",
		strings.ReplaceAll(strings.Trim(fmt.Sprint(pace.Rests), "[]"), " ", ", "))
	return os.WriteFile(filepath.Join(root, "web/src/api/facts.gen.ts"), []byte(b.String()), 0o644)
}

// lengths writes what the page must know of units, from where it stands.
func lengths(root string) error {
	return os.WriteFile(filepath.Join(root, "web/src/ui/units.gen.ts"), fmt.Appendf(nil, `// Made from core/units by server/gen; do not change it here.

export const inchMM = %v;
export const lengthParts = %d;
export const fineParts = %d;
export const cutParts = %d;
`, units.InchMM, units.LengthParts, units.FineParts, units.CutParts), 0o644)
}

func write(file string, v any) error {
	r := &jsonschema.Reflector{Mapper: special, Namer: named, AllowAdditionalProperties: file[len(file)-17:] == "piece.schema.json"}
	s := r.Reflect(v)
	s.ID = ""
	if r.AllowAdditionalProperties {
		s.Definitions["Section"] = everySection(s.Definitions)
	} else {
		s.Definitions["Section"] = anySection()
	}
	s.Definitions["Row"] = object([]string{"strands", "sequence"}, map[string]*jsonschema.Schema{"strands": places(), "sequence": list(ref("Section"))})
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
	case reflect.TypeFor[finish.Choice]():
		return "FinishChoice"
	case reflect.TypeFor[ball.Warning]():
		return "FistWarning"
	case reflect.TypeFor[plan.Set]():
		return "FixValue"
	case reflect.TypeFor[piece.Problem]():
		return "FieldProblem"
	}
	name := t.Name()
	if t.Kind() != reflect.Struct {
		return name
	}
	if other, ok := taken[name]; ok && other != t {
		panic(fmt.Sprintf("gen: %v and %v are both named %s on the wire; give one of them a name of its own", other, t, name))
	}
	taken[name] = t
	return name
}

// taken are the names that are given, so that no type stands for another by its name.
var taken = map[string]reflect.Type{}

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
	case reflect.TypeFor[knot.Section]():
		return ref("Section")
	case reflect.TypeFor[[]*float64]():
		return list(orNull("number"))
	case reflect.TypeFor[[]*int]():
		return list(orNull("integer"))
	}
	return nil
}

// orNull is a number that may not be known.
func orNull(kind string) *jsonschema.Schema {
	return &jsonschema.Schema{OneOf: []*jsonschema.Schema{{Type: kind}, {Type: "null"}}}
}

func ref(name string) *jsonschema.Schema { return &jsonschema.Schema{Ref: "#/$defs/" + name} }

func list(of *jsonschema.Schema) *jsonschema.Schema {
	return &jsonschema.Schema{Type: "array", Items: of}
}

func places() *jsonschema.Schema { return list(&jsonschema.Schema{Type: "integer"}) }

// object is an object with more that may stand in it.
func object(required []string, properties map[string]*jsonschema.Schema) *jsonschema.Schema {
	props := jsonschema.NewProperties()
	for _, name := range slices.Sorted(maps.Keys(properties)) {
		props.Set(name, properties[name])
	}
	return &jsonschema.Schema{Type: "object", Properties: props, Required: required}
}

// common are the fields that every section may have.
func common() map[string]*jsonschema.Schema {
	return map[string]*jsonschema.Schema{
		"do": {Type: "string"}, "strands": places(), "count": {Type: "integer"}, "fit_mm": {Type: "number"},
		"rows": list(ref("Row")), "sequence": list(ref("Section")), "note": {Type: "string"},
	}
}

// anySection is a section as the page handles it: what is common to all, and the
// settings by their keys.
func anySection() *jsonschema.Schema {
	s := object([]string{"do"}, common())
	s.AdditionalProperties = jsonschema.TrueSchema
	return s
}

// everySection is one of the sections of the catalogue, each with its own
// settings, as their tags say them.
func everySection(defs jsonschema.Definitions) *jsonschema.Schema {
	out := &jsonschema.Schema{}
	defs["AnySection"] = object([]string{"do"}, common())
	for _, k := range knot.All() {
		fields := map[string]*jsonschema.Schema{"do": {Const: k.ID}}
		for _, f := range k.Fields {
			if in, rest, ok := strings.Cut(f.Key, "."); ok {
				if fields[in] == nil {
					fields[in] = object(nil, nil)
				}
				fields[in].Properties.Set(rest, field(f))
				continue
			}
			fields[f.Key] = field(f)
		}
		name := strings.ReplaceAll(k.ID, "-", "_")
		defs[name] = object(nil, fields)
		defs[name].Description = k.For
		defs[name].AllOf = []*jsonschema.Schema{ref("AnySection")}
		out.OneOf = append(out.OneOf, ref(name))
	}
	return out
}

func field(f knot.Field) *jsonschema.Schema {
	s := &jsonschema.Schema{Description: f.Label}
	switch f.Kind {
	case "choice":
		s.Type = "string"
		for _, c := range f.Choices {
			s.Enum = append(s.Enum, c)
		}
	case "count", "place":
		s.Type = "integer"
	case "length":
		s.Type = "number"
	case "places":
		s = &jsonschema.Schema{Description: f.Label, OneOf: []*jsonschema.Schema{{Const: "all"}, places()}}
	case "cords":
		s = list(&jsonschema.Schema{Type: "string"})
	default:
		s.Type = "string"
	}
	return s
}
