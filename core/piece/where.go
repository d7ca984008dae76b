package piece

import (
	"fmt"
	"strconv"
	"strings"

	"nimblebight/core/knot"
)

// Locate says of each problem in a maker's words where it is.
func (d Document) Locate(ps Problems) {
	for i := range ps {
		if ps[i].Where == "" {
			ps[i].Where = d.where(ps[i].Path)
		}
	}
}

// Spoken is the problems as a maker reads them, without paths of the file.
func (ps Problems) Spoken() string {
	var out []string
	for _, p := range ps {
		s := p.Message
		if p.Where != "" {
			s = p.Where + " " + s
		} else if p.Path != "" {
			s = p.Path + " " + s
		}
		out = append(out, s)
	}
	return strings.Join(out, "; ")
}

// where puts a path into words: the sections and rows on the way to it, counted
// from 1, with what they are, then the setting by its label.
func (d Document) where(path string) string {
	if path == "" {
		return ""
	}
	keys := strings.FieldsFunc(path, func(r rune) bool { return r == '.' || r == '[' || r == ']' })
	at := func(k int) int {
		if k >= len(keys) {
			return -1
		}
		n, err := strconv.Atoi(keys[k])
		if err != nil {
			return -1
		}
		return n
	}
	switch keys[0] {
	case "cords":
		if n := at(1); n >= 0 && n < len(d.Cords) {
			words := fmt.Sprintf("cord %d", n+1)
			if id := d.Cords[n].ID; id != "" && len(id) <= 12 {
				words = "cord " + id
			}
			return words + field(keys[2:])
		}
	case "purpose":
		return "the purpose" + field(keys[1:])
	case "sequence":
		return d.sectionWords(d.Sequence, keys[1:])
	}
	return "the piece" + field(keys)
}

func (d Document) sectionWords(seq []knot.Section, keys []string) string {
	if len(keys) == 0 {
		return "the sequence"
	}
	n, err := strconv.Atoi(keys[0])
	if err != nil || n < 0 || n >= len(seq) {
		return "the sequence"
	}
	s := seq[n]
	words := fmt.Sprintf("section %d", n+1)
	k, known := knot.Get(s.Do)
	if known {
		words += ", " + k.Name
	}
	keys = keys[1:]
	inside := func(seq []knot.Section, keys []string) string {
		if len(keys) == 0 {
			return words
		}
		return words + ": in it " + d.sectionWords(seq, keys)
	}
	switch {
	case len(keys) > 0 && keys[0] == "sequence":
		return inside(s.Sequence, keys[1:])
	case len(keys) > 1 && keys[0] == "rows":
		if r, err := strconv.Atoi(keys[1]); err == nil && r >= 0 && r < len(s.Rows) {
			words += fmt.Sprintf(", row %d", r+1)
			if len(keys) > 2 && keys[2] == "sequence" {
				return inside(s.Rows[r].Sequence, keys[3:])
			}
			return words + field(keys[2:])
		}
	case len(keys) > 0 && known:
		whole := strings.Join(keys, ".")
		for _, f := range k.Fields {
			if f.Key == whole {
				return words + ", " + f.Label
			}
		}
		if whole == "do" {
			return words
		}
	}
	return words + field(keys)
}

// field is the rest of a path in words.
func field(keys []string) string {
	var out []string
	for _, k := range keys {
		if _, err := strconv.Atoi(k); err == nil || k == "stuff" {
			continue
		}
		out = append(out, strings.ReplaceAll(strings.TrimSuffix(k, "_mm"), "_", " "))
	}
	if len(out) == 0 {
		return ""
	}
	return ", " + strings.Join(out, " ")
}
