package knot

import (
	"crypto/sha256"
	"encoding/binary"
	"math"
	"slices"

	"nimblebight/core/memo"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// parting is what [tighten.Part] gave.
type parting struct {
	Lines [][]r3.Vec
	Gap   float64
}

var partings memo.Cache[parting]

// Parted is [tighten.Part], worked out once for the same strands. What it gives is the
// caller's own.
func Parted(strands []tighten.Strand, still ...tighten.Strand) ([][]r3.Vec, float64) {
	p, _ := partings.Get(strandsKey(strands, still), func() (parting, error) {
		cs, gap := tighten.Part(strands, still...)
		p := parting{Gap: gap}
		for _, c := range cs {
			p.Lines = append(p.Lines, c.Points)
		}
		return p, nil
	})
	out := make([][]r3.Vec, len(p.Lines))
	for i, line := range p.Lines {
		out[i] = slices.Clone(line)
	}
	return out, p.Gap
}

// strandsKey names strands by where they run and how thick they are, to a millionth:
// sums in another order give the same.
func strandsKey(all ...[]tighten.Strand) string {
	h := sha256.New()
	var b []byte
	num := func(x float64) { b = binary.LittleEndian.AppendUint64(b, uint64(int64(math.Round(1e6*x)))) }
	for _, strands := range all {
		num(float64(len(strands)))
		for _, s := range strands {
			num(s.Diameter)
			num(float64(len(s.Route)))
			for _, v := range s.Route {
				num(v.X)
				num(v.Y)
				num(v.Z)
			}
			_, _ = h.Write(b) // a hash does not fail
			b = b[:0]
		}
	}
	return string(h.Sum(b))
}
