package piece_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/gap"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/formats/document"
)

// No length, count or number of strands beyond all reason gets past the check.
func TestAbsurdFiguresAreRefused(t *testing.T) {
	good := patterns.All()[0].Document
	if ps := good.Check(); len(ps) > 0 {
		t.Fatal(ps)
	}
	for name, spoil := range map[string]func(*piece.Document){
		"purpose.length_mm":          func(d *piece.Document) { d.Purpose.LengthMM = math.NaN() },
		"purpose.hangs_on.wire_mm":   func(d *piece.Document) { d.Purpose.HangsOn.WireMM = math.Inf(1) },
		"cords[0].stuff.diameter_mm": func(d *piece.Document) { d.Cords[0].Stuff.DiameterMM = math.Inf(-1) },
		"sequence[1].count":          func(d *piece.Document) { d.Sequence[1].Count = 1 << 40 },
		"sequence[1].fit_mm":         func(d *piece.Document) { d.Sequence[1].FitMM = -3 },
		"name":                       func(d *piece.Document) { d.Name = strings.Repeat("x", 121) },
		"sequence": func(d *piece.Document) {
			for range 1100 {
				d.Sequence = append(d.Sequence, gap.Of(5))
			}
		},
		"cords": func(d *piece.Document) {
			for i := range 70 {
				d.Cords = append(d.Cords, piece.Cord{ID: fmt.Sprint("x", i), Stuff: d.Cords[0].Stuff})
			}
		},
	} {
		d := good
		d.Cords = append([]piece.Cord{}, good.Cords...)
		d.Sequence = append([]knot.Section{}, good.Sequence...)
		spoil(&d)
		ps := d.Check()
		if len(ps) == 0 || ps[0].Path != name {
			t.Errorf("spoiled %s: said %v", name, ps)
		}
	}
}

func TestRowsAndRepeatsAreChecked(t *testing.T) {
	for _, c := range []struct{ line, path, says string }{
		{"mount A B, rows 1-4:(gap)", "sequence[1].rows", "1 rows"},
		{"mount A B, rows 1:(gap) 2:(gap) 3-4:(gap) cross=1", "sequence[1].cross", "only two"},
		{"mount A B, rows 1-2:(finish dome) 3-4:(gap)", "sequence[1].rows[0].sequence[0].do", "outside the brackets"},
		{"mount A B, 2x(gather C)", "sequence[1].sequence[0].do", "outside the brackets"},
		{"mount A B, berry-knot 1 squares=5", "sequence[1].squares", "from 2 to 3"},
		{"mount A B, 3000x(square-knot 9)", "sequence", "10,000"},
	} {
		seq, err := notation.Parse(c.line)
		if err != nil {
			t.Fatal(err)
		}
		d := patterns.All()[0].Document
		d.Cords = append(append([]piece.Cord{}, d.Cords...), piece.Cord{ID: "C", Stuff: d.Cords[0].Stuff})
		d.Sequence = seq
		ps := d.Check()
		if len(ps) == 0 || ps[0].Path != c.path || !strings.Contains(ps[0].Message, c.says) {
			t.Errorf("%s: said %v, want %s, something about %q", c.line, ps, c.path, c.says)
		}
	}
}

func TestMirroredTwiceIsTheSamePiece(t *testing.T) {
	for _, p := range patterns.All() {
		once := p.Document.Mirrored()
		twice := once.Mirrored()
		// A ball by itself has no side that could be named; its curves are mirrored.
		// So has one of a single cord, or of two that are fused to one.
		sided := len(knot.TermsOf(p.Document.Sequence[0]).Cords) > 1 && p.Document.Sequence[len(p.Document.Sequence)-1].Do != "rope-ball"
		if sided && notation.Notate(once.Sequence) == notation.Notate(p.Document.Sequence) {
			t.Errorf("%s: mirrored it is the same", p.ID)
		}
		if a, b := notation.Notate(p.Document.Sequence), notation.Notate(twice.Sequence); a != b {
			t.Errorf("%s: mirrored twice\n%s is\n%s", p.ID, a, b)
		}
	}
}

// Every setting that has a side, said and unsaid, places that are there and
// places that are not: mirrored twice a document is what it was, to the letter.
func TestMirroredTwiceIsTheSameDocument(t *testing.T) {
	docs := map[string]piece.Document{}
	for _, p := range patterns.All() {
		docs[p.ID] = p.Document
	}
	for _, k := range knot.All() {
		d, at, err := patterns.Sample(k.ID)
		if err != nil {
			t.Fatal(err)
		}
		docs[k.ID] = d
		unsaid := d
		unsaid.Sequence = slices.Clone(d.Sequence)
		s := &unsaid.Sequence[at]
		for _, f := range k.Fields {
			if f.Sided() {
				*s = s.With(f, "")
			}
		}
		docs[k.ID+", sides unsaid"] = unsaid
		beyond := unsaid
		beyond.Sequence = slices.Clone(d.Sequence)
		s = &beyond.Sequence[at]
		s.Strands = []int{1, 9}
		*s = s.Put("filler", 11).Put("which", 12).Put("ends", []int{2, 64})
		docs[k.ID+", places that are not there"] = beyond
	}
	for name, d := range docs {
		once, _ := json.Marshal(d)
		twice, _ := json.Marshal(d.Mirrored().Mirrored())
		if string(once) != string(twice) {
			t.Errorf("%s: mirrored twice\n%s\nis\n%s", name, once, twice)
		}
	}
}

// Limits count what is tied, through rows, repeats and brackets together.
func TestLimitsCountWhatIsTied(t *testing.T) {
	for line, says := range map[string]string{
		"mount A B, square-knot 10000":                                                     "",
		"mount A B, 100x(square-knot 100)":                                                 "",
		"mount A B, 100x(square-knot 101)":                                                 "10100 knots",
		"mount A B, 200x(rows 1-2:(snake-knot 30) 3-4:(snake-knot 30))":                    "12000 knots",
		"mount A B, 100x(100x(100x(100x(square-knot 1))))":                                 "knots",
		"mount A B, berry-knot 2001":                                                       "10005 knots",
		"mount A B, gap 90m, gap 11m":                                                      "101 m",
		"mount A B, 100x(gap 2m)":                                                          "200 m",
		"mount A B, square-knot 1200, fold-back":                                           "bends them",
		"mount A B, rows 1-2:(snake-knot 600) 3-4:(snake-knot 600) cross=1":                "bends them",
		"mount A B, finish fringe length=2m":                                               "at most 1000 mm",
		"mount A B, bead hole=5mm long=7mm wide=9mm colour=red":                            "#rrggbb",
		"mount A B, square-knot 1" + strings.Repeat(" note=\"x\"", 1) + ", finish dome":    "",
		"mount A B, square-knot 4 note=\"" + strings.Repeat("y", 2500) + "\", finish dome": "2000 letters",
	} {
		d := patterns.All()[0].Document
		var err error
		if d.Sequence, err = notation.Parse(line); err != nil {
			t.Errorf("%.60s: %v", line, err)
			continue
		}
		ps := d.Check()
		if (says == "") != (len(ps) == 0) || !strings.Contains(ps.Error(), says) {
			t.Errorf("%.80s: %.200v; want %q", line, ps, says)
		}
	}
}

// However much is wrong, twenty things are said, soon and in lines that are right.
func TestRefusalsStopAtTwenty(t *testing.T) {
	var b strings.Builder
	b.WriteString(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"none"}},"cords":[],"sequence":[` + "\n")
	for range 900 {
		b.WriteString(`{"do":"sqare-knot"},` + "\n")
	}
	b.WriteString(`{"do":"gap","length_mm":5}]}`)
	_, err := document.Read([]byte(b.String()))
	var ps piece.Problems
	if !errors.As(err, &ps) || len(ps) != 21 || ps[19].Line != 21 || !strings.Contains(ps[20].Message, "mend these 20 first") {
		t.Errorf("%d are said: %v", len(ps), ps[len(ps)-1])
	}
	deep := `{"sequence":` + strings.Repeat(`[{"sequence":`, 5000) + "1"
	if _, err := document.Read([]byte(deep)); err == nil || !strings.Contains(err.Error(), "deep") {
		t.Errorf("deep brackets: %.200v", err)
	}
	big := `{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"none"}},"cords":[],"sequence":[],"more":"` + strings.Repeat("z", 200_000) + `"}`
	if _, err := document.Read([]byte(big)); err == nil || !strings.Contains(err.Error(), "not known") {
		t.Errorf("a large unknown field: %.200v", err)
	}
}

// What hangs on nothing has no widths to say.
func TestNothingHasNoWidths(t *testing.T) {
	if _, err := document.Read([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"none"}},"cords":[],"sequence":[]}`)); err != nil {
		t.Error(err)
	}
	if _, err := document.Read([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"split-ring"}},"cords":[],"sequence":[]}`)); err == nil {
		t.Error("a ring without a width was taken")
	}
}
