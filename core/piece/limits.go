package piece

import (
	"encoding/json"
	"fmt"
	"math"
	"reflect"

	"nimblebight/core/knot"
	"nimblebight/core/unknown"
)

// The limits beyond which a figure is taken for a slip of the pen. They count
// what is tied, through rows, repeats and brackets together, and are the same
// wherever a piece comes in.
const (
	MostMM      = 100_000.0 // of any length, and of all gaps together
	MostKnots   = 10_000
	MostStrands = 64
	MostSection = 1_000
	// MostBent is how many knots a piece may have whose rows are crossed or
	// whose band is folded back.
	MostBent = 1_000

	// MostDeep is how deep repeats and rows may stand in one another.
	MostDeep = 4

	mostSaid    = 20      // problems of one document
	mostText    = 2_000   // letters of any one text
	mostUnknown = 100_000 // bytes of all fields that are not known
)

// tied adds up what a sequence ties.
type tied struct {
	hang  int // strands that hang there
	knots int
	gaps  float64 // mm
	bent  bool
}

const enough = 100 * MostKnots // beyond it nothing more is counted

func (t *tied) enough() bool { return t.knots > enough }

// count adds a section that is tied so many times. A knot that is made of others
// counts as these; what is in brackets counts, they do not.
func (t *tied) count(s knot.Section, times int) {
	t.knots = min(t.knots+times*knot.Parts(s, t.hang), enough+1)
	terms := knot.TermsOf(s)
	t.hang += hung(terms)
	t.gaps += float64(times) * terms.BareMM
	t.bent = t.bent || terms.Bends
}

// limits says what is more than can be handled.
func (c *checker) limits() {
	switch {
	case c.knots > MostKnots:
		n := fmt.Sprint(c.knots)
		if c.enough() {
			n = fmt.Sprintf("more than %d", enough)
		}
		c.say("sequence", "counts %s knots, through all repeats and rows; at most 10,000 can be handled", n)
	case c.bent && c.knots > MostBent:
		c.say("sequence", "counts %d knots and bends them; rows that are crossed and bands that are folded back have at most %d", c.knots, MostBent)
	}
	if c.gaps > MostMM {
		c.say("sequence", "leaves gaps of %.0f m together, through all repeats and rows; at most 100 m can be handled", math.Min(c.gaps, 1e9)/1000)
	}
}

// texts refuses texts that are no texts of a maker, wherever they stand.
func (d Document) texts(say func(path, format string, args ...any)) {
	bytes := 0
	var look func(path string, v reflect.Value)
	look = func(path string, v reflect.Value) {
		switch v.Kind() {
		case reflect.String:
			if n := len([]rune(v.String())); n > mostText {
				say(path, "has %d letters; %d are the most", n, mostText)
			}
		case reflect.Pointer:
			if !v.IsNil() {
				look(path, v.Elem())
			}
		case reflect.Slice:
			for i := range v.Len() {
				look(fmt.Sprintf("%s[%d]", path, i), v.Index(i))
			}
		case reflect.Struct:
			if s, ok := v.Interface().(knot.Section); ok && s.Settings != nil {
				look(path, reflect.ValueOf(s.Settings))
			}
			for i := range v.NumField() {
				f := v.Type().Field(i)
				if !f.IsExported() {
					continue
				}
				if m, ok := v.Field(i).Interface().(map[string]json.RawMessage); ok {
					for name, raw := range m {
						bytes += len(name) + len(raw)
					}
					continue
				}
				name := unknown.Name(f)
				if path != "" {
					name = path + "." + name
				}
				look(name, v.Field(i))
			}
		}
	}
	look("", reflect.ValueOf(d))
	if bytes > mostUnknown {
		say("", "holds %d bytes of fields that are not known; %d are the most", bytes, mostUnknown)
	}
}
