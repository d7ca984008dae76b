// Package notation is the typed line: a sequence of sections as a maker types it.
// [Parse] reads one, [Notate] writes one, [Respell] reads one for a piece that is
// there already.
package notation

import (
	"errors"
	"fmt"
	"math"
	"regexp"
	"slices"
	"strconv"
	"strings"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// The typed notation: sections in order on one line, separated by commas; each
// a name, its bare values, then key=value pairs.
//
//	mount A B, square-knot 10 start=right, gap 12mm, gather C turns=6, finish fringe length=40mm
//
// Lists of places are written 1-4 or 1+4, text in "quotes". 3x(...) repeats the
// sections in its brackets; rows 1-4:(...) 5-8:(...) ties them side by side.
// [Notate] prints
// long names and leaves out defaults; [Parse] also takes the catalogue's short
// names and its other names with hyphens. Parse of Notate of a sequence is that
// sequence.

// Slip is a slip in a typed line: the column is counted in letters
// from 1.
type Slip struct {
	Column  int
	Message string
}

func (e *Slip) Error() string { return fmt.Sprintf("column %d: %s", e.Column, e.Message) }

// Notate writes a sequence as one line.
func Notate(seq []knot.Section) string {
	var out []string
	for _, s := range seq {
		out = append(out, notateSection(s))
	}
	return strings.Join(out, ", ")
}

func notateSection(s knot.Section) string {
	k, ok := knot.Get(s.Do)
	if !ok {
		return s.Do
	}
	words := []string{s.Do}
	switch {
	case k.Holds == knot.Again:
		words = []string{fmt.Sprintf("%dx(%s)", s.Count, Notate(s.Sequence))}
	case k.Repeats && s.FitMM == 0:
		words = append(words, strconv.Itoa(s.Count))
	}
	for _, r := range s.Rows {
		words = append(words, placesText(r.Strands)+":("+Notate(r.Sequence)+")")
	}
	for _, f := range k.Fields {
		v := fieldText(s, f)
		// What counts for something only with another choice is no part of a new section,
		// so it is said even where it is the default.
		if v == "" || (f.Short != "" && v == f.Default && f.If == "") {
			continue
		}
		if f.Short != "" {
			v = f.Short + "=" + v
		}
		words = append(words, v)
	}
	if s.FitMM != 0 {
		words = append(words, "fit="+mmText(s.FitMM))
	}
	if s.Note != "" {
		words = append(words, "note="+strconv.Quote(s.Note))
	}
	return strings.Join(words, " ")
}

func mmText(v float64) string { return strconv.FormatFloat(v, 'f', -1, 64) + "mm" }

func fieldText(s knot.Section, f knot.Field) string {
	value, _ := s.Value(f)
	switch v := value.(type) {
	case string:
		return v
	case int:
		if v != 0 {
			return strconv.Itoa(v)
		}
	case float64:
		if v != 0 {
			return mmText(v)
		}
	case []int:
		return placesText(v)
	case []string:
		return strings.Join(v, " ")
	}
	return ""
}

func placesText(ps []int) string {
	if len(ps) == 0 {
		return ""
	}
	run := len(ps) > 1
	for i := 1; i < len(ps); i++ {
		run = run && ps[i] == ps[i-1]+1
	}
	if run {
		return fmt.Sprintf("%d-%d", ps[0], ps[len(ps)-1])
	}
	var out []string
	for _, p := range ps {
		out = append(out, strconv.Itoa(p))
	}
	return strings.Join(out, "+")
}

type word struct {
	text string
	col  int
}

// split cuts a line into sections of words; quotes keep what they hold together.
func split(line string) ([][]word, error) {
	var out [][]word
	var now []word
	var w strings.Builder
	start, quoted, escaped := 0, false, false
	quoteAt, deep, bracketAt := 0, 0, 0
	flush := func() {
		if w.Len() > 0 {
			now = append(now, word{w.String(), start})
			w.Reset()
		}
	}
	col := 0
	for _, r := range line {
		col++
		switch {
		case quoted:
			w.WriteRune(r)
			if escaped {
				escaped = false
			} else if r == '\\' {
				escaped = true
			} else if r == '"' {
				quoted = false
			}
			continue
		case r == '(':
			if deep++; deep == 1 {
				bracketAt = col
			}
		case r == ')':
			if deep--; deep < 0 {
				return nil, &Slip{col, "this bracket closes nothing"}
			}
		case deep > 0:
			if r == '"' {
				quoted, quoteAt = true, col
			}
		case r == ',' || r == '\n' || r == ';':
			flush()
			out = append(out, now)
			now = nil
			continue
		case r == ' ' || r == '\t' || r == '\r':
			flush()
			continue
		case r == '"':
			quoted, quoteAt = true, col
		}
		if w.Len() == 0 {
			start = col
		}
		w.WriteRune(r)
	}
	if quoted {
		return nil, &Slip{quoteAt, "this quote is not closed"}
	}
	if deep > 0 {
		return nil, &Slip{bracketAt, "this bracket is not closed"}
	}
	flush()
	return append(out, now), nil
}

// Parse reads a typed line. The error is a [*Slip].
func Parse(line string) ([]knot.Section, error) {
	if len(line) > mostLine {
		return nil, &Slip{mostLine, fmt.Sprintf("the line has %d letters; at most %d are read", len(line), mostLine)}
	}
	return parseAt(line, 0, 0)
}

const (
	mostWord = 200    // letters of a name or a value
	mostLine = 40_000 // letters of a line
)

// parseAt reads a stretch of a line that begins after so many letters.
func parseAt(line string, col, deep int) ([]knot.Section, error) {
	shift := func(err error) error {
		var slip *Slip
		if errors.As(err, &slip) {
			return &Slip{slip.Column + col, slip.Message}
		}
		return err
	}
	if deep > piece.MostDeep {
		return nil, &Slip{col + 1, "brackets stand too deep in brackets"}
	}
	parts, err := split(line)
	if err != nil {
		return nil, shift(err)
	}
	seq := []knot.Section{}
	for _, words := range parts {
		if len(words) == 0 {
			continue // a comma too many does no harm
		}
		s, err := parseSection(words, deep)
		if err != nil {
			return nil, shift(err)
		}
		seq = append(seq, s)
		if len(seq) > piece.MostSection {
			return nil, &Slip{words[0].col + col, fmt.Sprintf("more than %d sections", piece.MostSection)}
		}
	}
	return seq, nil
}

// bracketed takes apart what stands before a bracket and in it: 3x(...).
func (w word) bracketed() (before, inside string, col int, ok bool) {
	i := strings.IndexByte(w.text, '(')
	if i < 0 || !strings.HasSuffix(w.text, ")") {
		return "", "", 0, false
	}
	return w.text[:i], w.text[i+1 : len(w.text)-1], w.col + len([]rune(w.text[:i])), true
}

// longName finds the id that a written name stands for.
func longName(name string) (string, bool) {
	name = strings.ToLower(name)
	if _, ok := knot.Get(name); ok {
		return name, true
	}
	for _, k := range knot.All() {
		if slices.Contains(k.Short, name) {
			return k.ID, true
		}
		for _, o := range k.OtherNames {
			if strings.ReplaceAll(o, " ", "-") == name {
				return k.ID, true
			}
		}
	}
	return "", false
}

// nameOf reads a section's name, which may be written in several words, as it is
// said: square knot. It tells how many words it took.
func nameOf(words []word) (id string, used int, ok bool) {
	for n := min(4, len(words)); n >= 1; n-- {
		var parts []string
		for _, w := range words[:n] {
			parts = append(parts, w.text)
		}
		if id, ok := longName(strings.Join(parts, "-")); ok {
			return id, n, true
		}
	}
	return "", 1, false
}

func parseSection(words []word, deep int) (knot.Section, error) {
	if times, inside, col, ok := words[0].bracketed(); ok {
		n, err := strconv.Atoi(strings.TrimSuffix(strings.ToLower(times), "x"))
		if err != nil || n < 1 || n > piece.MostKnots {
			return knot.Section{}, &Slip{words[0].col, fmt.Sprintf("%q is not how often; write 3x(...)", times)}
		}
		seq, err := parseAt(inside, col, deep+1)
		if err != nil {
			return knot.Section{}, err
		}
		again, ok := knot.That(func(k knot.Knot) bool { return k.Holds == knot.Again })
		if !ok {
			return knot.Section{}, &Slip{words[0].col, "nothing here ties sections again and again"}
		}
		s := knot.Section{Do: again.ID, Count: n, Settings: again.Settings, Sequence: seq}
		err = parseRest(&s, words[1:], deep)
		return s, err
	}
	id, used, ok := nameOf(words)
	words = words[used-1:] // what is left begins with the last word of the name
	if !ok {
		return knot.Section{}, &Slip{words[0].col, knot.Unknown(strings.ToLower(words[0].text)).Error()}
	}
	s, err := knot.New(id)
	if err != nil {
		return knot.Section{}, &Slip{words[0].col, err.Error()}
	}
	err = parseRest(&s, words[1:], deep)
	return s, err
}

// parseRest reads the values that stand after a section's name.
func parseRest(s *knot.Section, words []word, deep int) error {
	k, _ := knot.Get(s.Do)
	bare := 0 // how many values without a key were read
	for i, w := range words {
		if before, inside, col, ok := w.bracketed(); ok && k.Holds == knot.Rows {
			ps, err := parsePlaces(strings.TrimSuffix(before, ":"))
			if err != nil || ps == nil {
				return &Slip{w.col, fmt.Sprintf("%q are not the places of a row; write 1-4:(...)", before)}
			}
			seq, err := parseAt(inside, col, deep+1)
			if err != nil {
				return err
			}
			s.Rows = append(s.Rows, knot.Row{Strands: ps, Sequence: seq})
			continue
		}
		name, value, keyed := strings.Cut(w.text, "=")
		if !keyed {
			err := bareValue(s, k, w.text, bare)
			id, n, ok := nameOf(words[i:])
			if ok && (n > 1 || strings.Contains(w.text, "-")) && err == nil { // no cord is named so
				err = errors.New(id)
			}
			if err != nil {
				if ok { // another section begins here
					return &Slip{w.col, fmt.Sprintf("%s is a section of its own; write a comma before it", id)}
				}
				return &Slip{w.col, err.Error()}
			}
			bare++
			continue
		}
		if len(w.text) > mostWord && !strings.HasPrefix(w.text, "note=") {
			return &Slip{w.col, fmt.Sprintf("this word has %d letters; no name or value is longer than %d", len(w.text), mostWord)}
		}
		if err := keyValue(s, k, strings.ToLower(name), value); err != nil {
			return &Slip{w.col, err.Error()}
		}
	}
	return nil
}

func bareValue(s *knot.Section, k knot.Knot, text string, nth int) error {
	if k.Repeats && nth == 0 {
		n, err := strconv.Atoi(text)
		if err != nil || n < 1 || n > piece.MostKnots {
			return fmt.Errorf("%q is not a count; write a number from 1 to 10,000", text)
		}
		s.Count = n
		return nil
	}
	for _, f := range k.Fields {
		if f.Short == "" && (nth == 0 || f.Kind == "cords") {
			return setField(s, f, text)
		}
	}
	return fmt.Errorf("%s does not know what to do with %q", k.ID, text)
}

func keyValue(s *knot.Section, k knot.Knot, name, value string) error {
	switch name {
	case "fit":
		if !k.Repeats || k.Holds == knot.Again {
			return fmt.Errorf("%s does not repeat, so it cannot fit a length", k.ID)
		}
		v, err := Length(value)
		if err != nil {
			return err
		}
		s.FitMM, s.Count = v, 0
		return nil
	case "note":
		t, err := strconv.Unquote(value)
		if err != nil {
			return fmt.Errorf(`a note stands in quotes, like note="dress it loose"`)
		}
		s.Note = t
		return nil
	}
	var known []string
	for _, f := range k.Fields {
		if f.Short == name && name != "" {
			return setField(s, f, value)
		}
		if f.Short != "" {
			known = append(known, f.Short)
		}
	}
	return fmt.Errorf("%s has no %q; it has %s", k.ID, name, strings.Join(append(known, "note"), ", "))
}

func setField(s *knot.Section, f knot.Field, text string) error {
	switch f.Kind {
	case "choice":
		text = strings.ToLower(text)
		if !slices.Contains(f.Choices, text) {
			return fmt.Errorf("%q is not one of %s", text, strings.Join(f.Choices, ", "))
		}
		*s = s.With(f, text)
	case "cord", "colour":
		*s = s.With(f, text)
	case "length":
		mm, err := Length(text)
		if err != nil {
			return err
		}
		*s = s.With(f, mm)
	case "count", "place":
		n, err := strconv.Atoi(text)
		if err != nil || n < 0 || n > piece.MostKnots || (n == 0 && f.Least > 0) {
			return fmt.Errorf("%.40q is not a whole number that it can have", text)
		}
		*s = s.With(f, n)
	case "places":
		ps, err := parsePlaces(text)
		if err != nil {
			return err
		}
		*s = s.With(f, ps)
	case "cords":
		value, _ := s.Value(f)
		cords, _ := value.([]string)
		*s = s.With(f, append(slices.Clone(cords), text))
	default:
		return fmt.Errorf("%q cannot be set here", f.Key)
	}
	return nil
}

func parsePlaces(text string) ([]int, error) {
	if text == "all" {
		return nil, nil
	}
	var out []int
	for _, part := range strings.Split(text, "+") {
		a, b, run := strings.Cut(part, "-")
		lo, err := strconv.Atoi(a)
		hi := lo
		if err == nil && run {
			hi, err = strconv.Atoi(b)
		}
		if err != nil || lo < 1 || hi < lo || hi > piece.MostStrands {
			return nil, fmt.Errorf("%q are not places; write 1-4, 1+4 or all", text)
		}
		for p := lo; p <= hi; p++ {
			out = append(out, p)
		}
	}
	return out, nil
}

// Length reads a written length in millimetres: 12, 12mm, 1.5cm, 0.3m, 2in,
// 3/4in, 1-1/2in or 2"; 3ft, 2-1/2ft or 3', and 3ft 6-1/2in.
func Length(text string) (float64, error) {
	t := strings.ToLower(strings.TrimSpace(text))
	wrong := fmt.Errorf("%q is not a length; write 12mm, 1.5cm, 3/4in or 2ft 6in, up to 100 m", text)
	if m := feetAndInches.FindStringSubmatch(t); m != nil { // the one and the other
		feet, inches := 0.0, 0.0
		var err error
		if feet, err = lengthIn(m[1], "ft"); err == nil {
			inches, err = lengthIn(m[2], "in")
		}
		if v := feet + inches; err == nil && v <= piece.MostMM {
			return v, nil
		}
		return 0, wrong
	}
	m := withUnit.FindStringSubmatch(t)
	if m == nil {
		return 0, wrong
	}
	v, err := lengthIn(m[1], m[2])
	if err != nil {
		return 0, wrong
	}
	return v, nil
}

var (
	feetAndInches = regexp.MustCompile(`^([\d./ -]+?)\s*(?:ft|feet|foot|')[ -]*([\d./ -]+?)\s*(?:inches|inch|in|")$`)
	withUnit      = regexp.MustCompile(`^(.*?)\s*(mm|cm|m|inches|inch|in|"|ft|feet|foot|')?$`)
	unitMM        = map[string]float64{"": 1, "mm": 1, "cm": 10, "m": 1000, "in": 25.4, "inch": 25.4, "inches": 25.4, `"`: 25.4, "ft": 304.8, "feet": 304.8, "foot": 304.8, "'": 304.8}
)

// lengthIn reads a number, whole, mixed or a fraction, of a unit, mm.
func lengthIn(t, unit string) (float64, error) {
	scale := unitMM[unit]
	t = strings.TrimSpace(t)
	whole, part, mixed := strings.Cut(strings.ReplaceAll(t, " ", "-"), "-")
	if !mixed {
		whole, part = "0", whole
	}
	w, err := strconv.ParseFloat(whole, 64)
	p := 0.0
	if err == nil {
		if top, bottom, frac := strings.Cut(part, "/"); frac {
			var a, b float64
			if a, err = strconv.ParseFloat(top, 64); err == nil {
				b, err = strconv.ParseFloat(bottom, 64)
			}
			if err == nil && b != 0 {
				p = a / b
			} else {
				err = strconv.ErrSyntax
			}
		} else {
			p, err = strconv.ParseFloat(part, 64)
		}
	}
	v := math.Round((w+p)*scale*1e6) / 1e6 // no more digits than a ruler could ever show
	if err != nil || math.IsNaN(v) || v <= 0 || v > piece.MostMM {
		return 0, strconv.ErrRange
	}
	return v, nil
}
