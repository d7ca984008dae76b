package knot

import (
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Hung is a knot before its ends are led inside it; one of which none is stays as it is.
func (t Tied) Hung() Tied {
	if t.Hanging == nil {
		return t
	}
	t.Paths, t.Moves, t.Ends, t.Hanging = t.Hanging, t.Moves[:t.HangsTill], false, nil
	return t
}

// ledInside holds a drawn-up knot while its ends are led inside it, one after the other: the others
// hang till it is their turn.
func (t Tied) ledInside(w Work, action int, along float64) Tied {
	out := t
	out.Cells, out.Hanging = nil, nil
	out.Paths = make([]Path, len(t.Paths))
	out.Height, out.Ends = 0, action == len(t.Moves)-1 && along >= 1
	for i, p := range t.Paths {
		d := w.Strands[i].Diameter
		share := ledShare(t.Moves[t.HangsTill:], i, action-t.HangsTill, along)
		switch pts := p.Points; {
		case share == 1:
			out.Paths[i] = Path{Points: pts}
		case share == 0:
			out.Paths[i] = Path{Points: t.Hanging[i].Points}
		default:
			hangs := alikeTill(pts, t.Hanging[i].Points, d)
			out.Paths[i] = Path{Points: Tip(pts, hangs+(1-hangs)*share, d)}
		}
		for _, v := range out.Paths[i].Points {
			out.Height = math.Max(out.Height, v.Y)
		}
	}
	out.Settle()
	return out
}

// alikeTill is the share of a strand up to which it lies as another.
func alikeTill(pts, other []r3.Vec, d float64) float64 {
	const off = 0.1 // diameters
	k := 1
	for k < min(len(pts), len(other)) && r3.Norm(r3.Sub(pts[k], other[k])) < off*d {
		k++
	}
	return (curve.Curve{Points: pts[:k]}).Length() / math.Max(1e-9, curve.Curve{Points: pts}.Length())
}
