// Package piece is the design of one piece as it is kept: what it is for, its
// cords and its sequence of sections. It checks that a document can be understood; whether the cord
// reaches is for package plan to say.
//
// Its JSON text is for package formats/document to read, its typed line for package
// notation.
package piece

import (
	"encoding/json"
	"fmt"
	"math"
	"slices"
	"strconv"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	_ "nimblebight/core/knots" // a piece is read by what the catalogue says of its knots
)

// Format and Version mark a piece document.
const (
	Format  = "nimble-bight.piece"
	Version = 1
)

// Document is a piece. Lengths are millimetres.
type Document struct {
	Format   string         `json:"format"`
	Version  int            `json:"version"`
	Name     string         `json:"name"`
	Purpose  Purpose        `json:"purpose"`
	Cords    []Cord         `json:"cords"`
	Cutting  *Cutting       `json:"cutting,omitempty"`
	Card     *CardEdits     `json:"card,omitempty"`
	Sequence []knot.Section `json:"sequence"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// Purpose is what the piece is for and what fixes its size.
type Purpose struct {
	Kind     string   `json:"kind"`
	HangsOn  Hardware `json:"hangs_on"`
	LengthMM float64  `json:"length_mm,omitempty"`
	// EndsOn is the hardware at its far end, where there is one, and BetweenMM the
	// length from wire to wire; 0 where the knots decide.
	EndsOn    *Hardware `json:"ends_on,omitempty"`
	BetweenMM float64   `json:"between_mm,omitempty"`
	// StopsMM is the width of a hole that the piece must not pass, 0 for none.
	StopsMM float64 `json:"stops_mm,omitempty"`
	// AroundMM is how far it is round what the piece goes about, as its kind asks: a hand,
	// a head, a handle; 0 where it goes round nothing, or the count decides.
	AroundMM float64 `json:"around_mm,omitempty"`
	// BladeMM is how far the path of a blade is from what the piece hangs on; 0 where
	// there is none.
	BladeMM float64 `json:"blade_mm,omitempty"`
	Note    string  `json:"note,omitempty"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// Hardware is what the piece hangs on. Of a piece that hangs on none, a ball or
// a napkin ring, the widths count for nothing.
type Hardware struct {
	Type    string  `json:"type" jsonschema:"enum=split-ring,enum=swivel-clip,enum=carabiner,enum=bail,enum=rod,enum=hole,enum=none"`
	InnerMM float64 `json:"inner_mm"`
	// WireMM is how thick its wire is, or how much stands between a hole and the edge.
	WireMM float64 `json:"wire_mm"`
	// DepthMM is how thick a hole's place is, from the face to the back.
	DepthMM float64 `json:"depth_mm,omitempty"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// Cord is one length of cord in the piece.
type Cord struct {
	ID    string     `json:"id"`
	Stuff cord.Stuff `json:"stuff"`
	Legs  Legs       `json:"legs,omitzero"`
	// JoinedTo is the cord that it is fused to end to end.
	JoinedTo string `json:"joined_to,omitempty"`
	// ShiftMM is where in the repeat of its sheath the cord's fold lies, or its first end
	// where it is not folded; 0 for where the repeat begins. Of a cord of one colour it
	// counts for nothing.
	ShiftMM float64 `json:"shift_mm,omitempty"`
	// JointMM is how far from the fold the joint lies on this cord's leg, where both are
	// folded as one; 0 at the fold.
	JointMM float64 `json:"joint_mm,omitempty"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// Legs says where the fold of a cord falls. Exactly one of the three holds: the plan
// finds it, so that each leg gets what it needs (the zero value, which ShortInside
// only says), both legs are equal, or the first leg's length is given.
type Legs struct {
	ShortInside bool    `json:"-"`
	Equal       bool    `json:"-"`
	FirstMM     float64 `json:"first_mm"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// CordByID finds a cord, -1 if there is none.
func (d Document) CordByID(id string) int {
	for i, c := range d.Cords {
		if c.ID == id {
			return i
		}
	}
	return -1
}

// Problem is one thing wrong with a document. Path is the field's, as
// cords[1].stuff.diameter_mm; Message goes on from it.
type Problem struct {
	Path string `json:"path"`
	// Where is the place in a maker's words, as "section 2, square knot".
	Where   string `json:"where,omitempty"`
	Message string `json:"message"`
	Line    int    `json:"line,omitempty"`
	Column  int    `json:"column,omitempty"`
	Fix     *Fix   `json:"fix,omitempty"`
}

// Fix is a way out of a problem: values to set in the document.
type Fix struct {
	Label string `json:"label"`
	Set   []Set  `json:"set"`
}

// Set is one value of a fix; Path is a field's, as cords[0].legs.
type Set struct {
	Path  string `json:"path"`
	Value any    `json:"value"`
}

// Problems is the error for a document that cannot be understood.
type Problems []Problem

func (ps Problems) Error() string {
	var out []string
	for _, p := range ps {
		s := p.Message
		if p.Path != "" {
			s = p.Path + " " + s
		}
		if p.Line > 0 {
			s = fmt.Sprintf("line %d, column %d: %s", p.Line, p.Column, s)
		}
		out = append(out, s)
	}
	return strings.Join(out, "; ")
}

// Check says everything that keeps the document from being understood.
func (d Document) Check() Problems {
	var ps Problems
	say := func(path, format string, args ...any) {
		switch {
		case len(ps) < mostSaid:
			ps = append(ps, Problem{Path: path, Message: fmt.Sprintf(format, args...)})
		case len(ps) == mostSaid:
			ps = append(ps, Problem{Message: fmt.Sprintf("there is more that cannot be understood; mend these %d first", mostSaid)})
		}
	}
	length := func(path string, v float64, from float64) {
		if math.IsNaN(v) || math.IsInf(v, 0) || v < from || v > MostMM {
			say(path, "is %v; a length here is from %g mm to 100 m", v, from)
		}
	}
	if d.Format != Format {
		say("format", "is %q; a piece says %q", d.Format, Format)
	}
	if d.Version > Version {
		say("version", "is %d; this version reads up to %d, open the piece in a newer one", d.Version, Version)
	} else if d.Version < 1 {
		say("version", "is %d; write 1", d.Version)
	}
	if n := len([]rune(d.Name)); n > 120 {
		say("name", "has %d letters; 120 are enough", n)
	}
	if len([]rune(d.Purpose.Note)) > 2000 {
		say("purpose.note", "is longer than 2000 letters")
	}
	if len([]rune(d.Purpose.Kind)) > 60 {
		say("purpose.kind", "is longer than 60 letters")
	}
	d.Purpose.HangsOn.check("purpose.hangs_on", say)
	if far := d.Purpose.EndsOn; far != nil {
		far.check("purpose.ends_on", say)
		if far.Type == "none" || far.Type == "hole" {
			say("purpose.ends_on.type", "is %q; strands run round a wire there, so it is a ring, a clip, a bail or a rod", far.Type)
		}
	}
	if v := d.Purpose.BetweenMM; v != 0 {
		length("purpose.between_mm", v, 1)
	}
	if v := d.Purpose.StopsMM; v != 0 {
		length("purpose.stops_mm", v, 1)
	}
	d.Purpose.checkAround("purpose.around_mm", say)
	if v := d.Purpose.BladeMM; v != 0 && !(v >= 1 && v <= 1000) {
		say("purpose.blade_mm", "is %v; a blade's path is between 1 and 1000 mm from its hole", v)
	}
	if d.Purpose.LengthMM != 0 {
		length("purpose.length_mm", d.Purpose.LengthMM, 1)
	}
	if d.Cutting != nil {
		d.Cutting.check("cutting", say)
	}
	if d.Card != nil {
		d.Card.check("card", say)
	}
	if len(d.Cords) > MostStrands {
		say("cords", "holds %d cords; at most %d can be handled", len(d.Cords), MostStrands)
	}
	ids := map[string]bool{}
	for i, c := range d.Cords {
		path := fmt.Sprintf("cords[%d]", i)
		switch {
		case c.ID == "" || len(c.ID) > 12 || strings.ContainsAny(c.ID, " ,=+\"\t\n"):
			say(path+".id", "is %q; give the cord a short name without spaces, like A", c.ID)
		case ids[c.ID]:
			say(path+".id", "is %q a second time; every cord needs a name of its own", c.ID)
		}
		ids[c.ID] = true
		if f, problem := c.Stuff.Check(); f != "" {
			say(path+".stuff."+f, "%s", problem)
		}
		if c.Legs.FirstMM != 0 {
			length(path+".legs.first_mm", c.Legs.FirstMM, 1)
		}
		if c.ShiftMM != 0 {
			length(path+".shift_mm", c.ShiftMM, 0)
		}
		if c.JointMM != 0 {
			length(path+".joint_mm", c.JointMM, 0)
			if c.JoinedTo == "" {
				say(path+".joint_mm", "says where the joint lies, but the cord is fused to none; say joined_to, or leave it out")
			}
		}
		switch other := d.CordByID(c.JoinedTo); {
		case c.JoinedTo == "":
		case other < 0 || other == i:
			say(path+".joined_to", "names cord %q; a cord is joined to another one of the piece", c.JoinedTo)
		case !c.Stuff.Material.Melts() || !d.Cords[other].Stuff.Material.Melts():
			say(path+".joined_to", "fuses %s and %s; only cords that both melt can be fused, so leave it out and knot them together", c.Stuff.Material, d.Cords[other].Stuff.Material)
		}
	}
	if len(d.Sequence) > MostSection {
		say("sequence", "holds %d sections; at most %d can be handled", len(d.Sequence), MostSection)
		return ps
	}
	c := checker{ids: ids, used: map[string]string{}, say: say, length: length}
	c.missing = func(path, id string) {
		before := len(ps)
		have := "there are no cords yet"
		if len(d.Cords) > 0 {
			var names []string
			for _, q := range d.Cords {
				names = append(names, q.ID)
			}
			have = "there are " + strings.Join(names, ", ")
			if len(names) == 1 {
				have = "there is " + names[0]
			}
		}
		say(path, "names cord %.20q, which the piece does not have; %s", id, have)
		if len(ps) > before && id != "" && len(id) <= 12 && len(d.Cords) > 0 && len(d.Cords) < MostStrands {
			like := d.Cords[len(d.Cords)-1]
			more := append(slices.Clone(d.Cords), Cord{ID: id, Stuff: like.Stuff})
			ps[before].Fix = &Fix{Label: fmt.Sprintf("Add cord %s, like cord %s", id, like.ID), Set: []Set{{Path: "cords", Value: more}}}
		}
	}
	c.sequence("sequence", d.Sequence, 1, 0)
	c.limits()
	d.texts(say)
	d.Locate(ps)
	return ps
}

// checker goes through a sequence and what stands in brackets in it.
type checker struct {
	ids  map[string]bool
	used map[string]string // path of the section that uses a cord
	tied
	say func(path, format string, args ...any)
	// missing says that there is no such cord and how to add it.
	missing func(path, id string)
	length  func(path string, v, from float64)
}

func (c *checker) sequence(at string, seq []knot.Section, times, deep int) {
	if deep > MostDeep {
		c.say(at, "stands in too many repeats and rows; %d are enough", MostDeep)
		return
	}
	for i, s := range seq {
		if c.enough() {
			return
		}
		c.section(fmt.Sprintf("%s[%d]", at, i), s, times, deep)
	}
}

func (c *checker) section(path string, s knot.Section, times, deep int) {
	k, ok := knot.Get(s.Do)
	if !ok {
		c.say(path+".do", "is not in the catalogue: %v", knot.Unknown(s.Do))
		return
	}
	if deep > 0 && k.Outside {
		c.say(path+".do", "is %s, which is of the whole piece; put it outside the brackets", s.Do)
	}
	if s.FitMM != 0 {
		c.length(path+".fit_mm", s.FitMM, 1)
	}
	if k.Repeats && (s.Count < 0 || s.Count > MostKnots || (s.Count == 0 && s.FitMM == 0)) {
		c.say(path+".count", "is %d; a section has from 1 to 10,000 knots, or a fit_mm to fill", s.Count)
	}
	if s.Count > 0 && s.Count <= MostKnots {
		times *= s.Count
	}
	c.count(s, times)
	terms := knot.TermsOf(s)
	places, _ := s.Stays()
	if len(s.Strands) > MostStrands || len(places) > MostStrands || len(terms.Cords) > MostStrands {
		c.say(path+".strands", "names more than %d places", MostStrands)
		return
	}
	if len(places) == 0 {
		places = s.Strands
	}
	for _, p := range places {
		if p < 1 || p > MostStrands {
			c.say(path+".strands", "names place %d; places count from 1 on the left to at most %d", p, MostStrands)
		}
	}
	for _, f := range k.Fields {
		c.field(path+"."+f.Key, f, s)
	}
	if terms.CordsAt != "" {
		if len(terms.Cords) == 0 {
			if k.Mounts {
				c.say(path+"."+terms.CordsAt, "is empty; name the cords to mount, from the left")
			} else {
				c.say(path+"."+terms.CordsAt, "is empty; name the cords that it is tied of")
			}
		}
		for _, id := range terms.Cords {
			c.cord(path+"."+terms.CordsAt, path, id)
		}
	}
	switch k.Holds {
	case knot.Again:
		if s.FitMM != 0 {
			c.say(path+".fit_mm", "is %v, but a %s counts; say how often", s.FitMM, k.Name)
		}
		if len(s.Sequence) == 0 {
			c.say(path+".sequence", "is empty; put the sections to repeat into it")
		}
		c.sequence(path+".sequence", s.Sequence, times, deep+1)
	case knot.Rows:
		c.rows(path, k, s, times, deep)
	}
	if len([]rune(s.Note)) > 2000 {
		c.say(path+".note", "is longer than 2000 letters")
	}
}

// field checks one field by its kind and limits.
func (c *checker) field(path string, f knot.Field, s knot.Section) {
	value, said := s.Value(f)
	if !said {
		return
	}
	switch v := value.(type) {
	case string:
		if f.Kind == "colour" && v != "" && !cord.IsColour(v) {
			c.say(path, "is %.20q; write it as #rrggbb", v)
		}
		if f.Kind != "choice" || (v == "" && !f.Needed) || slices.Contains(f.Choices, v) {
			return
		}
		c.say(path, "is %.40q; it is %s", v, strings.Join(f.Choices, " or "))
	case int:
		if unsaid := v == 0 && !f.Needed; f.Most > 0 && !unsaid && (v < f.Least || v > f.Most) {
			c.say(path, "is %d; %s go from %d to %d", v, f.Label, f.Least, f.Most)
		}
	case float64:
		if v != 0 || f.Needed {
			c.length(path, v, 0.5)
			if most := float64(f.Most); most > 0 && v > most && v <= MostMM {
				c.say(path, "is %v; %s is at most %g mm", v, f.Label, most)
			}
		}
	}
}

func (c *checker) cord(field, path, id string) {
	at, twice := c.used[id]
	switch {
	case !c.ids[id]:
		c.missing(field, id)
	case twice:
		c.say(field, "names cord %q, which section %s uses already", id, at)
	default:
		c.used[id] = strings.TrimSuffix(strings.TrimPrefix(path, "sequence["), "]")
		if n, err := strconv.Atoi(c.used[id]); err == nil {
			c.used[id] = strconv.Itoa(n + 1)
		}
	}
}

func (c *checker) rows(path string, k knot.Knot, s knot.Section, times, deep int) {
	if len(s.Rows) < 2 {
		c.say(path+".rows", "holds %d rows; rows stand side by side, so there are two or more", len(s.Rows))
	}
	if k.Cross != nil && k.Cross(s) > 0 && len(s.Rows) != 2 {
		c.say(path+".cross", "crosses %d rows; only two can be crossed over each other", len(s.Rows))
	}
	for r, row := range s.Rows {
		at := fmt.Sprintf("%s.rows[%d]", path, r)
		if len(row.Strands) == 0 {
			c.say(at+".strands", "is empty; name the places of the row, like [1, 2, 3, 4]")
		}
		for _, p := range row.Strands {
			if p < 1 || p > MostStrands {
				c.say(at+".strands", "names place %d; places count from 1 on the left to at most %d", p, MostStrands)
			}
		}
		hang := c.hang
		c.hang = len(row.Strands)
		c.sequence(at+".sequence", row.Sequence, times, deep+1)
		c.hang = hang
	}
}

// Mirrored is the piece as a left-handed maker ties it: left for right in
// every section, the cords mounted from the right. Mirrored twice it is the
// same piece.
func (d Document) Mirrored() Document {
	out := d
	strands := 0
	out.Sequence = mirrored(d.Sequence, &strands)
	return out
}

// mirrored is a sequence left for right; strands is how many hang there.
func mirrored(seq []knot.Section, strands *int) []knot.Section {
	if seq == nil {
		return nil
	}
	out := make([]knot.Section, len(seq))
	for i, s := range seq {
		k, _ := knot.Get(s.Do)
		terms := knot.TermsOf(s)
		*strands += hung(terms)
		s = turned(s, k)
		n := *strands
		if len(s.Strands) > 0 { // a place named within a section counts among its strands
			n = len(s.Strands)
		}
		for _, f := range k.Fields {
			switch v, _ := s.Value(f); v := v.(type) {
			case int:
				if f.Kind == "place" {
					s = s.With(f, flipPlace(v, n))
				}
			case []int:
				if f.Key != "strands" {
					s = s.With(f, flipPlaces(v, *strands))
				}
			case []string: // out of a ball cords come by what they do in it
				if terms.Begins != knot.ForTheNext {
					s = s.With(f, reversed(v))
				}
			}
		}
		s.Strands = flipPlaces(s.Strands, *strands)
		if s.Rows != nil {
			rows := make([]knot.Row, len(s.Rows))
			for r, row := range s.Rows {
				inner := len(row.Strands)
				row.Strands, row.Sequence = flipPlaces(row.Strands, *strands), mirrored(row.Sequence, &inner)
				rows[len(rows)-1-r] = row
			}
			s.Rows = rows
		}
		if s.Sequence != nil {
			s.Sequence = mirrored(s.Sequence, strands)
		}
		if k.Ends {
			if ends, _ := s.Stays(); len(ends) == 0 {
				*strands = 0
			} else {
				*strands -= len(ends)
			}
		}
		out[i] = s
	}
	return out
}

// hung is how many strands more hang after a section of such terms.
func hung(t knot.Terms) int {
	if t.Begins == knot.OfTheLast {
		return t.Wants * t.Legs
	}
	return len(t.Cords) * t.Legs
}

func reversed[T any](xs []T) []T {
	if xs == nil {
		return nil
	}
	out := make([]T, len(xs))
	for i, x := range xs {
		out[len(xs)-1-i] = x
	}
	return out
}

func flipPlaces(ps []int, n int) []int {
	out := reversed(ps)
	for i, p := range out {
		out[i] = flipPlace(p, n)
	}
	return out
}

// flipPlace is place p of n counted from the other side. A place that is not
// there has no other side: it stays as it is, so that whoever refuses it names
// the place that the maker wrote.
func flipPlace(p, n int) int {
	if p < 1 || p > n {
		return p
	}
	return n + 1 - p
}

// turned is a section with left and right of its settings turned. A setting that
// is not said has its default, which a mirror turns as well: it is said then, and
// unsaid again by the next mirror.
func turned(s knot.Section, k knot.Knot) knot.Section {
	was := s.Turned
	s.Turned = nil
	for _, f := range k.Fields {
		if !f.Sided() {
			continue
		}
		v, _ := s.Value(f)
		side, ok := v.(string)
		switch {
		case !ok:
		case slices.Contains(was, f.Key):
			s = s.With(f, "")
		case side == "" && f.Default != "":
			s.Turned = append(s.Turned, f.Key)
			s = s.With(f, knot.Opposite(f.Default))
		default:
			s = s.With(f, knot.Opposite(side))
		}
	}
	return s
}
