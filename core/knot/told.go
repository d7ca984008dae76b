package knot

import (
	"fmt"
	"strings"
)

// Told says the settings of a section as its form calls them, "hitch: larks head; starts:
// left", and what is tied inside it. {12.0mm} is a length. What a choice makes count for
// nothing is left out, and so is what is not said and has no default.
func (s Section) Told() string {
	k, ok := Get(s.Do)
	if !ok {
		return ""
	}
	var out []string
	for _, f := range k.Fields {
		if !s.counts(k, f) {
			continue
		}
		if says := s.toldOf(f); says != "" {
			out = append(out, f.Label+": "+says)
		}
	}
	for i, r := range s.Rows {
		out = append(out, fmt.Sprintf("row %d: %s", i+1, inside(r.Sequence)))
	}
	if len(s.Sequence) > 0 {
		out = append(out, "in turn: "+inside(s.Sequence))
	}
	return strings.Join(out, "; ")
}

// inside says sections that are tied inside another one.
func inside(seq []Section) string {
	var out []string
	for _, s := range seq {
		k, _ := Get(s.Do)
		says := k.Name
		switch {
		case s.FitMM > 0:
			says += fmt.Sprintf(" to {%.1fmm}", s.FitMM)
		case s.Count > 1:
			says += fmt.Sprintf(", %d times", s.Count)
		}
		if told := s.Told(); told != "" {
			says += " (" + told + ")"
		}
		out = append(out, says)
	}
	return List(out)
}

// counts tells whether a field means anything with the choices that are made.
func (s Section) counts(k Knot, f Field) bool {
	key, choices, has := strings.Cut(f.If, "=")
	if !has {
		return true
	}
	g, ok := k.Field(key)
	if !ok {
		return false
	}
	for c := range strings.SplitSeq(choices, ",") {
		if c == s.chosen(g) {
			return true
		}
	}
	return false
}

// chosen is what a choice is, its default where it is not said.
func (s Section) chosen(f Field) string {
	if v, _ := s.Value(f); v != nil {
		if c, _ := v.(string); c != "" {
			return c
		}
	}
	return f.Default
}

// toldOf says the value of a field, "" where there is none.
func (s Section) toldOf(f Field) string {
	v, _ := s.Value(f)
	switch v := v.(type) {
	case string:
		switch f.Kind {
		case "choice":
			return strings.ReplaceAll(s.chosen(f), "-", " ")
		case "colour": // it is seen
			return ""
		}
		return v
	case int:
		if v != 0 {
			return fmt.Sprint(v)
		}
	case float64:
		if v != 0 {
			return fmt.Sprintf("{%.1fmm}", v)
		}
	case []int:
		if len(v) > 0 {
			return strings.Trim(fmt.Sprint(v), "[]")
		}
	case []string:
		return List(v)
	}
	return f.Default
}
