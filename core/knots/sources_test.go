package knots_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"nimblebight/core/knot"
	_ "nimblebight/core/knots"
)

// homonyms are texts that are spelt like a knot's id and are none.
var homonyms = map[string]string{
	"web/src/bench/stages.ts finish":         "a stage",
	"web/src/bench/Bench.tsx finish":         "a stage",
	"web/src/bench/finish/Finish.tsx finish": "a stage",
	"web/src/bench/work.tsx finish":          "a stage",
	"web/src/rack/Rack.tsx finish":           "a stage",
	"core/knot/bundle.go bead":               "a field of a section",
	"core/plan/compound.go rows":             "a field of a section",
	"core/piece/where.go rows":               "a field of a section",
	"server/gen/main.go rows":                "a field of a section",
	"core/knot/knot.go rows":                 "what a section may hold",
	"web/src/bench/tie/Tie.tsx rows":         "what a section may hold",
	"core/piece/kinds.go rope-ball":          "a kind of piece",
	"core/caution/caution.go finish":         "a stage",
	"core/inspect/inspect.go ends":           "a field of a section",
	"server/drawer.go bead":                  "a field of a thing",
	"store/drawer.go bead":                   "a shelf of the drawer",
	"web/src/api/queries.ts beads":           "a shelf of the drawer",
	"web/src/bench/stuff/Drawer.tsx beads":   "a shelf of the drawer",
	"web/src/bench/stuff/Things.tsx beads":   "a shelf of the drawer",
	"web/src/bench/stuff/Things.tsx bead":    "what lies on a shelf of the drawer",
	"web/src/bench/tie/Fields.tsx beads":     "a shelf of the drawer",
	"core/plan/stages.go finish":             "a stage",
	"core/plan/ends.go ends":                 "a field of a section",
	"web/src/api/queries.ts ends":            "the ends of a piece",
	"core/start/start.go mount":              "the head of a line",
	"web/src/guide/text.ts finish":           "a stage",
}

// Nothing outside the folders of knots, the demo and the tests names a knot or a
// family: what is known of a knot is learned from the contract. An id of several
// words may not stand in any text; one of one word may not be a text of its own.
func TestNoKnotIsNamedOutsideItsFolder(t *testing.T) {
	names := map[string]bool{}
	var parts []string
	for _, k := range knot.All() {
		names[k.ID], names[k.Family] = true, true
		if strings.Contains(k.ID, "-") {
			parts = append(parts, regexp.QuoteMeta(k.ID))
		}
	}
	several := regexp.MustCompile(`(^|[^a-z-])(` + strings.Join(parts, "|") + `)($|[^a-z-])`)
	looked := 0
	say := func(file, text string, line int) {
		file = filepath.ToSlash(file)
		looked++
		if !names[text] && !several.MatchString(text) || homonyms[file+" "+text] != "" {
			return
		}
		t.Errorf("%s:%d names a knot: %q", file, line, text)
	}
	root := "../.."
	err := filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil {
			return err
		}
		rel, _ := filepath.Rel(root, path)
		if d.IsDir() {
			switch filepath.ToSlash(rel) {
			case "core/knots", "demo", "e2e", "web/node_modules", "web/dist", "server/dist", ".git", "docs", "data", "bin", ".stamps":
				return filepath.SkipDir
			}
			return nil
		}
		switch {
		case strings.HasSuffix(rel, "_test.go"), strings.HasSuffix(rel, ".gen.ts"):
			return nil
		case strings.HasSuffix(rel, ".go"):
			return goTexts(path, func(text string, line int) { say(rel, text, line) })
		case strings.HasSuffix(rel, ".ts"), strings.HasSuffix(rel, ".tsx"):
			return tsTexts(path, func(text string, line int) { say(rel, text, line) })
		}
		return nil
	})
	if err != nil {
		t.Fatal(err)
	}
	if looked < 2000 {
		t.Errorf("only %d texts were looked at", looked)
	}
}

// goTexts are the string literals of a Go file, without its tags.
func goTexts(path string, each func(text string, line int)) error {
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, path, nil, parser.SkipObjectResolution)
	if err != nil {
		return err
	}
	tags := map[*ast.BasicLit]bool{}
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.Field:
			tags[n.Tag] = true
		case *ast.ImportSpec:
			return false
		case *ast.BasicLit:
			if text, err := strconv.Unquote(n.Value); err == nil && n.Kind == token.STRING && !tags[n] {
				each(text, set.Position(n.Pos()).Line)
			}
		}
		return true
	})
	return nil
}

var (
	tsText    = regexp.MustCompile("\"([^\"\\n]*)\"|'([^'\\n]*)'|`([^`]*)`")
	tsComment = regexp.MustCompile(`(?m)^\s*(//|\*|/\*).*$`)
)

// tsTexts are the string literals of a TypeScript file.
func tsTexts(path string, each func(text string, line int)) error {
	b, err := os.ReadFile(path)
	if err != nil {
		return err
	}
	src := tsComment.ReplaceAllString(string(b), "")
	for _, m := range tsText.FindAllStringSubmatchIndex(src, -1) {
		for g := 2; g < len(m); g += 2 {
			if m[g] >= 0 {
				each(src[m[g]:m[g+1]], 1+strings.Count(src[:m[0]], "\n"))
			}
		}
	}
	return nil
}
