package reach

import (
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// Keeps is what stays when a section becomes another knot.
type Keeps string

// The count of its knots, or the length of the piece.
const (
	KeepsCount  Keeps = "count"
	KeepsLength Keeps = "length"
)

// Into changes a section into another one on the same strands, with its note, and keeps the count
// or the length of the piece, as near as whole knots come to it. A section that is not there, or
// one that cannot be tied there, is refused; d stays as it is.
func Into(d piece.Document, section int, to knot.Section, keeps Keeps, o plan.Options) (piece.Document, error) {
	if section < 0 || section >= len(d.Sequence) {
		return d, refused("section", "is %d; the piece has %d sections", section+1, len(d.Sequence))
	}
	if keeps != KeepsCount && keeps != KeepsLength {
		return d, refused("keeps", "is %.20q; it is count or length", keeps)
	}
	was := d.Sequence[section]
	if k, ok := knot.Get(to.Do); ok && k.Places {
		to.Strands = was.Strands
	}
	to.Note = was.Note
	next := d
	next.Sequence = slices.Clone(d.Sequence)
	next.Sequence[section] = to
	before, err := plan.Make(d, o)
	row, ok := byIndex(before, section)
	if err != nil || !ok { // what cannot be planned has no length to keep
		_, err = plan.Make(next, o)
		return next, err
	}
	if !grows(next, section) {
		_, err = plan.Make(next, o)
		return next, err
	}
	if grows(d, section) {
		next = counted(next, section, max(1, row.Count))
	}
	if keeps == KeepsLength {
		next, _, err = ToLength(next, section, before.LengthMM, o)
		return next, err
	}
	_, err = plan.Make(next, o)
	return next, err
}
