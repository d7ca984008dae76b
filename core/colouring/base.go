package colouring

import (
	"fmt"
	"slices"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/side"
)

// A base is a piece whose cords are put on in one way and whose rows begin on one side
// each; colours fall on it as they fall on the piece itself.
type base struct {
	doc     piece.Document
	plan    plan.Plan
	changes []string // what is other than in the piece, in words
}

// mostBegun is up to how many rows are begun on either side each for itself; where there
// are more, all of them begin on the other side or none.
const mostBegun = 3

// bases are the piece as it is and, each where it can be planned, with its cords put on in
// other ways and its rows begun on other sides.
func bases(d piece.Document, o plan.Options) ([]base, error) {
	var out []base
	for _, a := range arrangements(d) {
		for _, s := range starts(a.doc, len(a.doc.Sequence)-len(d.Sequence)) {
			out = append(out, base{doc: s.doc, changes: append(slices.Clone(a.changes), s.changes...)})
		}
	}
	errs := make([]error, len(out))
	side.Each(len(out), func(i int) { out[i].plan, errs[i] = plan.Make(out[i].doc, o) })
	if errs[0] != nil { // that is the piece itself
		return nil, errs[0]
	}
	var planned []base
	for i, b := range out {
		if errs[i] == nil {
			planned = append(planned, b)
		}
	}
	return planned, nil
}

// arrangements are a piece with its first cords put on in each way, its own one first.
func arrangements(d piece.Document) []base {
	own := base{doc: d}
	n := 0
	for n < len(d.Sequence) {
		if k, _ := knot.Get(d.Sequence[n].Do); k.Arranged == nil {
			break
		}
		n++
	}
	if n == 0 {
		return []base{own}
	}
	k, _ := knot.Get(d.Sequence[0].Do)
	var cords []string
	for _, s := range d.Sequence[:n] {
		cords = append(cords, knot.TermsOf(s).Cords...)
	}
	if !oneKind(d, cords) {
		return []base{own}
	}
	out := []base{own}
	for _, first := range k.Arranged(d.Sequence[:n]) {
		if len(first) == n {
			continue // as it is
		}
		b := base{doc: d}
		b.doc.Sequence = append(slices.Clone(first), d.Sequence[n:]...)
		outside := cords[len(cords)-(len(first)-1):]
		switch len(outside) {
		case 0:
			b.changes = []string{"all cords side by side"}
		default:
			b.changes = []string{fmt.Sprintf("cord%s %s laid behind, %s legs outside", knot.Plural(len(outside)), strings.Join(outside, " and "), its(len(outside)))}
		}
		out = append(out, b)
	}
	return out
}

func its(n int) string {
	if n == 1 {
		return "its"
	}
	return "their"
}

// oneKind tells whether cords are all of one kind, but for their colours.
func oneKind(d piece.Document, ids []string) bool {
	for _, id := range ids {
		i, first := d.CordByID(id), d.CordByID(ids[0])
		if i < 0 || first < 0 || kindOf(d.Cords[i].Stuff) != kindOf(d.Cords[first].Stuff) || d.Cords[i].JoinedTo != "" {
			return false
		}
	}
	return true
}

// kindOf is what is one cord but for colour and label.
func kindOf(s cord.Stuff) string { s.Label = ""; return s.Kind() }

// starts are a piece with its rows begun on either side. It has so many sections more than
// the one that is told of.
func starts(d piece.Document, more int) []base {
	var sided []int
	for i, s := range d.Sequence {
		if _, any := turned([]knot.Section{s}); any {
			sided = append(sided, i)
		}
	}
	turns := [][]int{nil}
	if len(sided) <= mostBegun {
		for set := 1; set < 1<<len(sided); set++ {
			var some []int
			for k, i := range sided {
				if set>>k&1 == 1 {
					some = append(some, i)
				}
			}
			turns = append(turns, some)
		}
	} else {
		turns = append(turns, sided)
	}
	var out []base
	for _, t := range turns {
		b := base{doc: d}
		b.doc.Sequence = slices.Clone(d.Sequence)
		for _, i := range t {
			other, _ := turned(d.Sequence[i : i+1])
			b.doc.Sequence[i] = other[0]
		}
		switch {
		case len(t) == len(sided) && len(t) > 1:
			b.changes = []string{"every row begun on the other side"}
		case len(t) > 0:
			for _, i := range t {
				b.changes = append(b.changes, fmt.Sprintf("section %d, %s", i+1-more, begins(b.doc.Sequence[i])))
			}
		}
		out = append(out, b)
	}
	return out
}

// begins says on which side a section begins.
func begins(s knot.Section) string {
	k, _ := knot.Get(s.Do)
	for _, f := range k.Fields {
		if v, _ := s.Value(f); f.Sided() && v != nil {
			return fmt.Sprintf("%s, %s %v", k.Name, f.Label, v)
		}
	}
	return k.Name + ", begun on the other side"
}

// turned is a sequence with every row begun on the other side, and whether any has a side.
// The order of its sections stays.
func turned(seq []knot.Section) (out []knot.Section, any bool) {
	out = slices.Clone(seq)
	for i, s := range out {
		k, _ := knot.Get(s.Do)
		for _, f := range k.Fields {
			if !f.Sided() {
				continue
			}
			v, _ := s.Value(f)
			side, _ := v.(string)
			if side == "" {
				side = f.Default
			}
			if side != "" {
				s, any = s.With(f, knot.Opposite(side)), true
			}
		}
		within := false
		if s.Sequence, within = turned(s.Sequence); within {
			any = true
		}
		s.Rows = slices.Clone(s.Rows)
		for r := range s.Rows {
			if s.Rows[r].Sequence, within = turned(s.Rows[r].Sequence); within {
				any = true
			}
		}
		out[i] = s
	}
	return out, any
}
