package notation_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"math/rand/v2"
	"reflect"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
)

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
		line := notation.Notate(seq)
		back, err := notation.Parse(line)
		if err != nil {
			t.Fatalf("%s: %v", line, err)
		}
		if again := notation.Notate(back); again != line {
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

// Any line is read or refused in words; what is read is written and read again
// as the same.
func FuzzNotation(f *testing.F) {
	for _, line := range []string{"mount A B, square-knot 9, finish dome", "3x(square-knot 2, gap 10mm)", `rows 1-4:(square-knot 10) 5-8:(half-knot 3 hand=right) cross=1 note="(,)"`,
		"diamond 2 inside=bead hole=7mm long=10mm wide=12mm colour=#c8a06a", "fold-back 150mm", "2x(3x(gap))", "((", "x)"} {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, line string) {
		seq, err := notation.Parse(line)
		if err != nil {
			return
		}
		once := notation.Notate(seq)
		again, err := notation.Parse(once)
		if err != nil {
			t.Fatalf("%q was written as %q, which cannot be read: %v", line, once, err)
		}
		if twice := notation.Notate(again); twice != once {
			t.Fatalf("%q was written as %q, then as %q", line, once, twice)
		}
	})
}

func TestNotationTakesShortNamesAndUnits(t *testing.T) {
	seq, err := notation.Parse(`m A B; sk 10 start=right, cobra-stitch fit=2in, g 1.5cm,, wrap C turns=6, end fringe length=1-1/2in ends=1+3-4 note="a, b"`)
	if err != nil {
		t.Fatal(err)
	}
	want := `mount A B, square-knot 10 start=right, square-knot fit=50.8mm, gap 15mm, gather C, finish fringe ends=1+3+4 length=38.1mm note="a, b"`
	if got := notation.Notate(seq); got != want {
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
		_, err := notation.Parse(c.line)
		if c.says == "" {
			if err != nil {
				t.Errorf("%s: %v", c.line, err)
			}
			continue
		}
		slip, ok := err.(*notation.Slip)
		if !ok || slip.Column != c.column || !strings.Contains(slip.Message, c.says) {
			t.Errorf("%s: %v, want column %d, something about %q", c.line, err, c.column, c.says)
		}
	}
}

func TestRespellKeepsWhatTheLineCannotSay(t *testing.T) {
	old, err := notation.Parse("mount A B, square-knot 10, finish dome")
	if err != nil {
		t.Fatal(err)
	}
	old[1].Unknown = map[string]json.RawMessage{"tempo": json.RawMessage("3")}
	seq, err := notation.Respell(old, strings.Replace(notation.Notate(old), "square-knot 10", "square-knot 12", 1))
	if err != nil {
		t.Fatal(err)
	}
	if seq[1].Count != 12 || string(seq[1].Unknown["tempo"]) != "3" {
		t.Errorf("respelled as %+v", seq[1])
	}
}

func TestLengthsAsTheyAreWritten(t *testing.T) {
	for text, mm := range map[string]float64{"12": 12, "12mm": 12, "1.5cm": 15, "0.3 m": 300, "2in": 50.8, "3/4in": 19.05, "1-1/2 in": 38.1, `2"`: 50.8, "1 1/2 inches": 38.1,
		"3ft": 914.4, "2-1/2 ft": 762, "3'": 914.4, "3 feet": 914.4, `2' 6"`: 762, "2ft 6-1/2in": 774.7, "1 foot 3/4 inch": 323.85, "1-1/2 ft 3in": 533.4} {
		if got, err := notation.Length(text); err != nil || math.Abs(got-mm) > 1e-9 {
			t.Errorf("%q is %v, %v; want %v", text, got, err, mm)
		}
	}
	for _, text := range []string{"", "mm", "-3", "0", "1/0in", "NaN", "Inf", "1e9", "3 yards", "1-2-3", "ft", "6in 2ft", "2ft 6", "1/0ft 2in", "400ft"} {
		if got, err := notation.Length(text); err == nil {
			t.Errorf("%q was taken for %v", text, got)
		}
	}
}

func FuzzParse(f *testing.F) {
	for _, p := range patterns.All() {
		f.Add(notation.Notate(p.Document.Sequence))
	}
	f.Add(`gap 1/3in, note="`)
	f.Fuzz(func(t *testing.T, line string) {
		seq, err := notation.Parse(line)
		if err != nil {
			return
		}
		printed := notation.Notate(seq)
		back, err := notation.Parse(printed)
		if err != nil {
			t.Fatalf("%q printed as %q, which cannot be read: %v", line, printed, err)
		}
		if again := notation.Notate(back); again != printed {
			t.Fatalf("%q became %q", printed, again)
		}
	})
}

func ExampleParse() {
	seq, err := notation.Parse("mount A B, sk 10 start=right, gap 12mm")
	if err != nil {
		fmt.Println(err)
		return
	}
	fmt.Println(notation.Notate(seq))
	// Output: mount A B, square-knot 10 start=right, gap 12mm
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
		_, err := notation.Parse(line)
		var slip *notation.Slip
		if !errors.As(err, &slip) || !strings.Contains(slip.Message, says) || len(slip.Message) > 300 {
			t.Errorf("%.60s: %v; want %s", line, err, says)
		}
	}
	if _, err := notation.Parse("mount A B, bowline 3"); strings.Contains(err.Error(), "mean") {
		t.Errorf("a bowline is taken for another knot: %v", err)
	}
	for line, long := range map[string]string{
		"Mount A B, Square Knot 4, Gap 9mm": "mount A B, square-knot 4, gap 9mm",
		"mount A B, cobra stitch 4":         "mount A B, square-knot 4",
		"m A B, double half hitch":          "mount A B, double-half-hitch",
	} {
		seq, err := notation.Parse(line)
		if err != nil || notation.Notate(seq) != long {
			t.Errorf("%s: %v, %v", line, notation.Notate(seq), err)
		}
	}
	d := patterns.All()[0].Document
	d.Sequence, _ = notation.Parse("mount A B, gather Q turns=5")
	ps := d.Check()
	if len(ps) != 1 || ps[0].Where != "section 2, gathering knot, cord" || !strings.Contains(ps[0].Message, "there are A, B") || ps[0].Fix == nil {
		t.Fatalf("a cord that is not there: %+v", ps)
	}
	d.Cords = ps[0].Fix.Set[0].Value.([]piece.Cord)
	if ps := d.Check(); len(ps) > 0 {
		t.Errorf("after the way out: %v", ps)
	}
}
