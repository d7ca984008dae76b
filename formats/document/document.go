// Package document reads pieces from their JSON text.
package document

import (
	"bytes"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strconv"
	"strings"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/unknown"
)

// mostNested is how deep brackets of any kind may stand in one another.
const mostNested = 64

// Read reads a document from its JSON text and checks it. The error is
// [Problems], each with its line and column.
func Read(b []byte) (piece.Document, error) {
	d, twin, err := decode(b)
	if err != nil {
		return piece.Document{}, err
	}
	ps := d.Check()
	if twin != "" {
		name := strings.ToLower(twin[strings.LastIndexByte(twin, '.')+1:])
		ps = append(piece.Problems{{Path: twin, Message: fmt.Sprintf("is written with capitals; write %s", name)}}, ps...)
	}
	if len(ps) > 0 {
		for i := range ps {
			ps[i].Line, ps[i].Column = lineColumn(b, locate(b, ps[i].Path))
		}
		return piece.Document{}, ps
	}
	return d, nil
}

// Decode reads a document without checking what it says, so that one that cannot
// be planned any more can still be opened and mended.
func Decode(b []byte) (piece.Document, error) {
	d, _, err := decode(b)
	return d, err
}

func decode(b []byte) (d piece.Document, twin string, err error) {
	if at := tooDeep(b); at >= 0 {
		p := piece.Problem{Message: fmt.Sprintf("brackets stand more than %d deep in one another here", mostNested)}
		p.Line, p.Column = lineColumn(b, at)
		return piece.Document{}, "", piece.Problems{p}
	}
	if err := json.Unmarshal(b, &d); err != nil {
		return piece.Document{}, "", piece.Problems{explain(b, err)}
	}
	return d, unknown.Collect(b, &d), nil
}

func explain(b []byte, err error) piece.Problem {
	p := piece.Problem{Message: err.Error()}
	var syntax *json.SyntaxError
	var kind *json.UnmarshalTypeError
	var section *knot.Misread
	at := int64(len(b))
	switch {
	case errors.As(err, &syntax):
		at = max(syntax.Offset-1, 0)
		p.Message = "this is not JSON: " + strings.TrimPrefix(syntax.Error(), "json: ")
	case errors.As(err, &kind):
		at = kind.Offset
		p.Path = kind.Field
		p.Message = fmt.Sprintf("is a %s; it should be a %s", kind.Value, plainKind(kind.Type.Kind().String()))
	case errors.As(err, &section):
		p.Path, p.Message = misread(b, section)
		at = int64(locate(b, p.Path))
	default: // from legs or ends, which have no place of their own
		p.Path, p.Message, _ = strings.Cut(err.Error(), ": ")
		if i := bytes.Index(b, []byte(`"`+p.Path+`"`)); i >= 0 {
			at = int64(i)
		}
	}
	p.Line, p.Column = lineColumn(b, int(at))
	return p
}

// misread finds the section that was not read: the first that is not.
func misread(b []byte, wrong *knot.Misread) (path, says string) {
	var d struct {
		Sequence []json.RawMessage `json:"sequence"`
	}
	_ = json.Unmarshal(b, &d) // what else is wrong with it is not asked here
	for i, raw := range d.Sequence {
		var s knot.Section
		if json.Unmarshal(raw, &s) != nil {
			return strings.TrimSuffix(fmt.Sprintf("sequence[%d].%s", i, wrong.Path), "."), wrong.Says
		}
	}
	return wrong.Path, wrong.Says
}

func plainKind(k string) string {
	switch k {
	case "float64":
		return "number"
	case "int":
		return "whole number"
	case "slice":
		return "list"
	case "struct":
		return "object"
	}
	return k
}

func lineColumn(b []byte, at int) (line, column int) {
	at = max(0, min(at, len(b)))
	line = 1 + bytes.Count(b[:at], []byte("\n"))
	return line, at - bytes.LastIndexByte(b[:at], '\n')
}

// locate finds the offset of the value at a path, or of the last object on the
// way to it that is there.
func locate(b []byte, path string) int {
	dec := json.NewDecoder(bytes.NewReader(b))
	want := strings.FieldsFunc(path, func(r rune) bool { return r == '.' || r == '[' || r == ']' })
	at := 0
	var seek func(depth int) bool
	skip := func() bool { var x json.RawMessage; return dec.Decode(&x) == nil }
	seek = func(depth int) bool {
		at = int(dec.InputOffset())
		for at < len(b) && strings.IndexByte(" \t\r\n:,", b[at]) >= 0 {
			at++
		}
		if depth == len(want) {
			return true
		}
		tok, err := dec.Token()
		if err != nil {
			return false
		}
		switch tok {
		case json.Delim('{'):
			for dec.More() {
				name, err := dec.Token()
				if err != nil {
					return false
				}
				if name == want[depth] {
					return seek(depth + 1)
				}
				if !skip() {
					return false
				}
			}
		case json.Delim('['):
			n, err := strconv.Atoi(want[depth])
			if err != nil {
				return false
			}
			for i := 0; dec.More(); i++ {
				if i == n {
					return seek(depth + 1)
				}
				if !skip() {
					return false
				}
			}
		}
		return false
	}
	if !seek(0) && at == 0 {
		_, _ = io.Copy(io.Discard, dec.Buffered())
	}
	return at
}

// tooDeep gives the place in a JSON text where brackets stand too deep in one
// another, -1 where they do not. It comes before all else, for reading deep
// brackets costs more than they are long.
func tooDeep(b []byte) int {
	deep, quoted := 0, false
	for i := 0; i < len(b); i++ {
		switch c := b[i]; {
		case quoted:
			if c == '\\' {
				i++
			} else if c == '"' {
				quoted = false
			}
		case c == '"':
			quoted = true
		case c == '[' || c == '{':
			if deep++; deep > mostNested {
				return i
			}
		case c == ']' || c == '}':
			deep--
		}
	}
	return -1
}
