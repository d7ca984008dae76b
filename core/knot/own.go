package knot

import (
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// ownLed is a cord of a knot's own as far as it is led, by itself or beside strands; nil before it is
// there. Places are where all lie loose, held the strands as they are held already, d the thickest, thin
// the cord itself; ledSoFar tells how far a strand is led, and laid how far the cord is laid to those
// that it goes with, before they are led.
func (t Tied) ownLed(held []Path, places [][]r3.Vec, own int, thin, d, laid float64, ledSoFar func(strand int) float64) []r3.Vec {
	share := ledSoFar(own)
	if share == 0 {
		return nil
	}
	pts := places[own]
	if beside, begins := t.besideOf(own); len(beside) > 1 { // it has no straight strand above and below, as they have
		all := curve.Curve{Points: places[beside[0]]}.Length() / d
		if share = math.Min(1, (ledSoFar(beside[0])*all-stretchAbove)/(all-stretchAbove-stretchBelow)); share <= begins {
			pts, share = groove(held[beside[0]].Points, held[beside[1]].Points, thin, d), laid
		}
	}
	pts, _ = ledBy(pts, share)
	return pts
}

// besideOf are the strands beside which a cord of a knot's own is led, and the share of its way that
// it is led before; none where it is led by itself.
func (t Tied) besideOf(own int) (beside []int, begins float64) {
	for _, m := range t.Moves {
		if m.Strand == own {
			begins = m.UpTo
		}
		if slices.Contains(m.With, own) {
			beside = append([]int{m.Strand}, slices.DeleteFunc(slices.Clone(m.With), func(s int) bool { return s == own })...)
		}
	}
	return beside, begins
}

// groove is a thin cord that is laid in the groove between two strands of d that hang side by side, on
// the side away from the work's axis, from above.
func groove(a, b []r3.Vec, thin, d float64) []r3.Vec {
	p, q := a[len(a)-1], b[len(b)-1]
	mid, across := curve.Lerp(p, q, 0.5), r3.Sub(q, p)
	half := r3.Norm(across) / 2
	out := r3.Vec{X: across.Z, Z: -across.X}
	if n := r3.Norm(out); n > 0 {
		out = r3.Scale(1/n, out)
	}
	if r3.Dot(out, mid) < 0 {
		out = r3.Scale(-1, out)
	}
	touches := (d + thin) / 2
	mid = r3.Add(mid, r3.Scale(math.Sqrt(math.Max(0, touches*touches-half*half)), out))
	return curve.Curve{Points: []r3.Vec{{X: mid.X, Y: mid.Y - hangs/2*d, Z: mid.Z}, mid}}.Resample(hangs).Points
}
