package notation

import (
	"nimblebight/core/knot"
	"nimblebight/core/piece"
)

// Respell reads a typed line for a document that has a sequence already. What
// the line cannot say, the fields that this version does not know, stays with
// the sections that stay, also where others were put in or taken out.
func Respell(old []knot.Section, line string) ([]knot.Section, error) {
	seq, err := Parse(line)
	if err != nil {
		return nil, err
	}
	piece.KeepUnknown(old, seq)
	return seq, nil
}
