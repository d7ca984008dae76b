package notation

import "nimblebight/core/piece"

// With gives a document cords and the sequence of a typed line. It panics on a line
// that cannot be read: it is for lines that stand in the program.
func With(d piece.Document, line string, cords ...piece.Cord) piece.Document {
	seq, err := Parse(line)
	if err != nil {
		panic("notation: a line of the program: " + err.Error())
	}
	d.Cords, d.Sequence = cords, seq
	return d
}
