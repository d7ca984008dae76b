package piece_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/gap"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
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
	d, err := piece.Read([]byte(fob))
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
	again, err := piece.Read(b)
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
		{`"how": "fringe"`, `"how": "glue"`, "sequence[4].how", "it is cut-straight", 14},
		{`"cords": ["A", "B"]`, `"cords": ["A", "A"]`, "sequence[0].cords", "already", 10},
		{`{"first_mm": 300}`, `{"first_mm": 1e9}`, "cords[1].legs.first_mm", "100 m", 6},
	} {
		if strings.Count(fob, c.from) == 0 {
			t.Fatalf("%s does not stand in the fob", c.from)
		}
		_, err := piece.Read([]byte(strings.Replace(fob, c.from, c.to, 1)))
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
		_, err := piece.Read([]byte(c.text))
		ps, ok := err.(piece.Problems)
		if !ok || ps[0].Line != c.line || (c.column > 0 && ps[0].Column != c.column) {
			t.Errorf("%.40q: %v, want line %d column %d", c.text, err, c.line, c.column)
		}
	}
}

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

func knotOf(s knot.Section) knot.Knot {
	k, _ := knot.Get(s.Do)
	return k
}

// anySection makes a section with any of its fields set to anything allowed;
// deep is how many brackets it may still hold.
func anySection(r *rand.Rand, deep int) knot.Section {
	all := knot.All()
	s, err := knot.New(all[r.IntN(len(all))].ID)
	if err != nil {
		panic(err)
	}
	some := func() []knot.Section {
		seq := []knot.Section{}
		for range 1 + r.IntN(3) {
			seq = append(seq, anySection(r, deep-1))
		}
		return seq
	}
	places := func() []int {
		var ps []int
		for p := 1; p < 9; p++ {
			if r.IntN(2) == 0 {
				ps = append(ps, p)
			}
		}
		return ps
	}
	switch {
	case knotOf(s).Holds != knot.Nothing && deep == 0:
		return anySection(r, deep)
	case knotOf(s).Holds == knot.Again:
		s.Sequence = some()
	case knotOf(s).Holds == knot.Rows:
		for range 2 + r.IntN(2) {
			s.Rows = append(s.Rows, knot.Row{Strands: append(places(), 9), Sequence: some()})
		}
	}
	k, _ := knot.Get(s.Do)
	if k.Repeats {
		s.Count = 1 + r.IntN(40)
		if r.IntN(4) == 0 && k.Holds == knot.Nothing {
			s.Count, s.FitMM = 0, float64(1+r.IntN(4000))/8
		}
	}
	bead := r.IntN(2) == 0
	for _, f := range k.Fields {
		value, said := s.Value(f)
		if !said && strings.HasPrefix(f.Key, "bead.") && !bead {
			continue
		}
		switch f.Kind {
		case "choice":
			s = s.With(f, f.Choices[r.IntN(len(f.Choices))])
		case "colour":
			s = s.With(f, "#c8a06a")
		case "cord":
			s = s.With(f, "C")
		case "count", "place":
			s = s.With(f, max(1, f.Least)+r.IntN(max(1, min(f.Most, 20)-max(1, f.Least)+1)))
		case "length":
			s = s.With(f, float64(2+r.IntN(900))/4)
		case "places":
			s = s.With(f, places())
		case "cords":
			s = s.With(f, []string{"A", "B9", "Long-id"}[:1+r.IntN(3)])
		default:
			panic(fmt.Sprintf("a field of another kind: %s, %v", f.Key, value))
		}
	}
	if r.IntN(3) == 0 {
		s.Note = []string{"dress it loose", `say "easy", then pull`, "comma, semicolon; (and) = sign", "ü ñ 結び"}[r.IntN(4)]
	}
	return s
}

// Text to sequence to text is the identity on its own output, and nothing of
// the sequence is lost.
func TestNotationIsItsOwnInverse(t *testing.T) {
	r := rand.New(rand.NewPCG(7, 11))
	for range 2000 {
		var seq []knot.Section
		for range r.IntN(6) {
			seq = append(seq, anySection(r, 2))
		}
		line := piece.Notate(seq)
		back, err := piece.Parse(line)
		if err != nil {
			t.Fatalf("%s: %v", line, err)
		}
		if again := piece.Notate(back); again != line {
			t.Fatalf("%s\ncame back as\n%s", line, again)
		}
		for i := range seq {
			if !reflect.DeepEqual(normal(seq[i]), normal(back[i])) {
				t.Fatalf("%s\n%+v came back as\n%+v", line, seq[i], back[i])
			}
		}
	}
}

// normal forgets the difference between no places and an empty list of them.
func normal(s knot.Section) knot.Section {
	if len(s.Strands) == 0 {
		s.Strands = nil
	}
	for _, f := range knotOf(s).Fields {
		if v, _ := s.Value(f); f.Kind == "places" && len(v.([]int)) == 0 {
			s = s.With(f, []int(nil))
		}
	}
	for i := range s.Sequence {
		s.Sequence[i] = normal(s.Sequence[i])
	}
	for _, r := range s.Rows {
		for i := range r.Sequence {
			r.Sequence[i] = normal(r.Sequence[i])
		}
	}
	return s
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
		seq, err := piece.Parse(c.line)
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

// Any line is read or refused in words; what is read is written and read again
// as the same.
func FuzzNotation(f *testing.F) {
	for _, line := range []string{"mount A B, square-knot 9, finish dome", "3x(square-knot 2, gap 10mm)", `rows 1-4:(square-knot 10) 5-8:(half-knot 3 hand=right) cross=1 note="(,)"`,
		"diamond 2 inside=bead hole=7mm long=10mm wide=12mm colour=#c8a06a", "fold-back 150mm", "2x(3x(gap))", "((", "x)"} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		seq, err := piece.Parse(line)
		if err != nil {
			return
		}
		once := piece.Notate(seq)
		again, err := piece.Parse(once)
		if err != nil {
			t.Fatalf("%q was written as %q, which cannot be read: %v", line, once, err)
		}
		if twice := piece.Notate(again); twice != once {
			t.Fatalf("%q was written as %q, then as %q", line, once, twice)
		}
	})
}

func TestNotationTakesShortNamesAndUnits(t *testing.T) {
	seq, err := piece.Parse(`m A B; sk 10 start=right, cobra-stitch fit=2in, g 1.5cm,, wrap C turns=6, end fringe length=1-1/2in ends=1+3-4 note="a, b"`)
	if err != nil {
		t.Fatal(err)
	}
	want := `mount A B, square-knot 10 start=right, square-knot fit=50.8mm, gap 15mm, gather C, finish fringe ends=1+3+4 length=38.1mm note="a, b"`
	if got := piece.Notate(seq); got != want {
		t.Errorf("printed as\n%s\nwant\n%s", got, want)
	}
}

func TestSlipsInNotationNameTheColumn(t *testing.T) {
	for _, c := range []struct {
		line   string
		column int
		says   string
	}{
		{"mount A, sqare-knot 3", 10, "square-knot"},
		{"square-knot ten", 13, "not a count"},
		{"square-knot 3 start=up", 15, "left, right"},
		{"square-knot 3 turns=2", 15, "no \"turns\""},
		{"gap 12parsecs", 5, "not a length"},
		{"gap", 0, ""},
		{"gap fit=3mm", 5, "does not repeat"},
		{"square-knot 3 strands=4-1", 15, "places"},
		{`square-knot 3 note="oops`, 20, "not closed"},
		{"square-knot 3 note=oops", 15, "in quotes"},
		{"square-knot 3 4", 15, "does not know"},
		{"gather C turns=many", 10, "whole number"},
		{"square-knot 99999", 13, "10,000"},
		{"mount A, 3x(gap 5mm, square-nkot 2)", 22, "square-knot"},
		{"3x(gap 5mm", 3, "not closed"},
		{"gap 5mm), gap 3mm", 8, "closes nothing"},
		{"many(gap 5mm)", 1, "how often"},
		{"rows 1-4(gap) 5-8:(gap lots)", 24, "not a length"},
		{"rows one:(gap) 2:(gap)", 6, "places of a row"},
		{"2x(2x(2x(2x(2x(gap)))))", 16, "too deep"},
		{"berry-knot 1 squares=two", 14, "whole number"},
	} {
		_, err := piece.Parse(c.line)
		if c.says == "" {
			if err != nil {
				t.Errorf("%s: %v", c.line, err)
			}
			continue
		}
		slip, ok := err.(*piece.NotationError)
		if !ok || slip.Column != c.column || !strings.Contains(slip.Message, c.says) {
			t.Errorf("%s: %v, want column %d, something about %q", c.line, err, c.column, c.says)
		}
	}
}

func TestRespellKeepsWhatTheLineCannotSay(t *testing.T) {
	d, err := piece.Read([]byte(fob))
	if err != nil {
		t.Fatal(err)
	}
	seq, err := piece.Respell(d.Sequence, strings.Replace(piece.Notate(d.Sequence), "square-knot 10", "square-knot 12", 1))
	if err != nil {
		t.Fatal(err)
	}
	if seq[1].Count != 12 || string(seq[1].Unknown["tempo"]) != "3" {
		t.Errorf("respelled as %+v", seq[1])
	}
}

func TestMirroredTwiceIsTheSamePiece(t *testing.T) {
	for _, p := range patterns.All() {
		once := p.Document.Mirrored()
		twice := once.Mirrored()
		// A ball by itself has no side that could be named; its curves are mirrored.
		sided := len(p.Document.Cords) > 1 && p.Document.Sequence[len(p.Document.Sequence)-1].Do != "rope-ball"
		if sided && piece.Notate(once.Sequence) == piece.Notate(p.Document.Sequence) {
			t.Errorf("%s: mirrored it is the same", p.ID)
		}
		if a, b := piece.Notate(p.Document.Sequence), piece.Notate(twice.Sequence); a != b {
			t.Errorf("%s: mirrored twice\n%s is\n%s", p.ID, a, b)
		}
	}
}

func TestLengthsAsTheyAreWritten(t *testing.T) {
	for text, mm := range map[string]float64{"12": 12, "12mm": 12, "1.5cm": 15, "0.3 m": 300, "2in": 50.8, "3/4in": 19.05, "1-1/2 in": 38.1, `2"`: 50.8, "1 1/2 inches": 38.1} {
		if got, err := piece.Length(text); err != nil || math.Abs(got-mm) > 1e-9 {
			t.Errorf("%q is %v, %v; want %v", text, got, err, mm)
		}
	}
	for _, text := range []string{"", "mm", "-3", "0", "1/0in", "NaN", "Inf", "1e9", "3 feet", "1-2-3"} {
		if got, err := piece.Length(text); err == nil {
			t.Errorf("%q was taken for %v", text, got)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, p := range patterns.All() {
		f.Add(piece.Notate(p.Document.Sequence))
	}
	f.Add(`gap 1/3in, note="`)
	f.Fuzz(func(t *testing.T, line string) {
		seq, err := piece.Parse(line)
		if err != nil {
			return
		}
		printed := piece.Notate(seq)
		back, err := piece.Parse(printed)
		if err != nil {
			t.Fatalf("%q printed as %q, which cannot be read: %v", line, printed, err)
		}
		if again := piece.Notate(back); again != printed {
			t.Fatalf("%q became %q", printed, again)
		}
	})
}

func ExampleParse() {
	seq, err := piece.Parse("mount A B, sk 10 start=right, gap 12mm")
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(piece.Notate(seq))
	// Output: mount A B, square-knot 10 start=right, gap 12mm
}

// Every setting that has a side, said and unsaid, places that are there and
// places that are not: mirrored twice a document is what it was, to the letter.
func TestMirroredTwiceIsTheSameDocument(t *testing.T) {
	docs := map[string]piece.Document{}
	for _, p := range patterns.All() {
		docs[p.ID] = p.Document
	}
	for _, k := range knot.All() {
		d, at, err := piece.Sample(k.ID)
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
	d, err := piece.Read([]byte(text))
	if err != nil {
		t.Fatal(err)
	}
	ball, err := piece.Read([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"split-ring","inner_mm":30,"wire_mm":2}},"cords":[],
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
	seq, err := piece.Respell(d.Sequence, strings.Replace(piece.Notate(d.Sequence), ", rows", ", gap 8mm, rows", 1))
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

// A slip in a typed line is named by what was meant.
func TestSlipsAreNamedByWhatWasMeant(t *testing.T) {
	for line, says := range map[string]string{
		"mount A B, square-knot 10 gap 12mm":                 "gap is a section of its own; write a comma before it",
		"mount A B square knot 4":                            "square-knot is a section of its own; write a comma",
		"mount A B, sqare-knot 4":                            "did you mean square-knot?",
		"mount A B, cobra 4":                                 "did you mean square-knot?",
		"mount A B, half-hitch 4":                            "none is spelt nearly so",
		"mount A B, bowline 3":                               "no knot named",
		"mount A B, square-knot ten":                         `"ten" is not a count`,
		"mount A B, square-knot 4 colour=red":                `square-knot has no "colour"`,
		"mount A B, " + strings.Repeat("x", 300) + "=1":      "no knot named",
		"mount A B, gap " + strings.Repeat("9", 300) + "a=1": "letters",
	} {
		_, err := piece.Parse(line)
		var slip *piece.NotationError
		if !errors.As(err, &slip) || !strings.Contains(slip.Message, says) || len(slip.Message) > 300 {
			t.Errorf("%.60s: %v; want %s", line, err, says)
		}
	}
	if _, err := piece.Parse("mount A B, bowline 3"); strings.Contains(err.Error(), "mean") {
		t.Errorf("a bowline is taken for another knot: %v", err)
	}
	for line, long := range map[string]string{
		"Mount A B, Square Knot 4, Gap 9mm": "mount A B, square-knot 4, gap 9mm",
		"mount A B, cobra stitch 4":         "mount A B, square-knot 4",
		"m A B, double half hitch":          "mount A B, double-half-hitch",
	} {
		seq, err := piece.Parse(line)
		if err != nil || piece.Notate(seq) != long {
			t.Errorf("%s: %v, %v", line, piece.Notate(seq), err)
		}
	}
	d := patterns.All()[0].Document
	d.Sequence, _ = piece.Parse("mount A B, gather Q turns=5")
	ps := d.Check()
	if len(ps) != 1 || ps[0].Where != "section 2, gathering knot, cord" || !strings.Contains(ps[0].Message, "there are A, B") || ps[0].Fix == nil {
		t.Fatalf("a cord that is not there: %+v", ps)
	}
	d.Cords = ps[0].Fix.Set[0].Value.([]piece.Cord)
	if ps := d.Check(); len(ps) > 0 {
		t.Errorf("after the way out: %v", ps)
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
		if d.Sequence, err = piece.Parse(line); err != nil {
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
	_, err := piece.Read([]byte(b.String()))
	var ps piece.Problems
	if !errors.As(err, &ps) || len(ps) != 21 || ps[19].Line != 21 || !strings.Contains(ps[20].Message, "mend these 20 first") {
		t.Errorf("%d are said: %v", len(ps), ps[len(ps)-1])
	}
	deep := `{"sequence":` + strings.Repeat(`[{"sequence":`, 5000) + "1"
	if _, err := piece.Read([]byte(deep)); err == nil || !strings.Contains(err.Error(), "deep") {
		t.Errorf("deep brackets: %.200v", err)
	}
	big := `{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"none"}},"cords":[],"sequence":[],"more":"` + strings.Repeat("z", 200_000) + `"}`
	if _, err := piece.Read([]byte(big)); err == nil || !strings.Contains(err.Error(), "not known") {
		t.Errorf("a large unknown field: %.200v", err)
	}
}

// What hangs on nothing has no widths to say.
func TestNothingHasNoWidths(t *testing.T) {
	if _, err := piece.Read([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"none"}},"cords":[],"sequence":[]}`)); err != nil {
		t.Error(err)
	}
	if _, err := piece.Read([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"split-ring"}},"cords":[],"sequence":[]}`)); err == nil {
		t.Error("a ring without a width was taken")
	}
}
