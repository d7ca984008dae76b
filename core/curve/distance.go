package curve

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// SegmentDistance is the least distance between segments p0p1 and q0q1, with
// the places s along p and t along q, in [0, 1], where it is reached.
//
//	(1) SegmentDistance(p, q) == SegmentDistance(q, p) with s and t swapped
//	(2) reversing a segment leaves the distance as it is
func SegmentDistance(p0, p1, q0, q1 r3.Vec) (dist, s, t float64) {
	ux, uy, uz := p1.X-p0.X, p1.Y-p0.Y, p1.Z-p0.Z
	vx, vy, vz := q1.X-q0.X, q1.Y-q0.Y, q1.Z-q0.Z
	wx, wy, wz := p0.X-q0.X, p0.Y-q0.Y, p0.Z-q0.Z
	a := ux*ux + uy*uy + uz*uz
	b := ux*vx + uy*vy + uz*vz
	c := vx*vx + vy*vy + vz*vz
	d := ux*wx + uy*wy + uz*wz
	e := vx*wx + vy*wy + vz*wz
	clamp := func(x float64) float64 { return max(0, min(1, x)) }
	if den := a*c - b*b; den > 1e-12*a*c {
		s = clamp((b*e - c*d) / den)
	}
	if c > 0 {
		t = (b*s + e) / c
	} else if a > 0 { // q is a point
		s = clamp(-d / a)
	}
	if t < 0 {
		t = 0
		if a > 0 {
			s = clamp(-d / a)
		}
	} else if t > 1 {
		t = 1
		if a > 0 {
			s = clamp((b - d) / a)
		}
	}
	dx, dy, dz := wx+s*ux-t*vx, wy+s*uy-t*vy, wz+s*uz-t*vz
	return math.Sqrt(dx*dx + dy*dy + dz*dz), s, t
}

// Gap is the least distance between the surfaces of two cords of diameters da
// and db laid along a and b, negative where they overlap.
func Gap(a Curve, da float64, b Curve, db float64) float64 {
	return nearest(a, b, boxesOf(a), boxesOf(b), false, func(int, int) bool { return true }) - (da+db)/2
}

// SelfGap is the least distance of a cord of diameter d from itself, between its
// surfaces; what lies less than half a tight turn away along it is left out. It is
// infinite for one that is too short to come back to itself.
func SelfGap(c Curve, d float64) float64 {
	c.Closed = false
	at := make([]float64, len(c.Points))
	for i := 1; i < len(at); i++ {
		at[i] = at[i-1] + r3.Norm(r3.Sub(c.Points[i], c.Points[i-1]))
	}
	boxes := boxesOf(c)
	return nearest(c, c, boxes, boxes, true, func(i, j int) bool { return at[j]-at[i+1] >= math.Pi/2*d }) - d
}

// inBox is how many edges are looked at together first: most are far away.
const inBox = 12

// boxesOf are the boxes of a curve's edges, so many at a time.
func boxesOf(c Curve) []r3.Box {
	var out []r3.Box
	n := edges(c)
	for from := 0; from < n; from += inBox {
		p := c.Points[from]
		box := r3.Box{Min: p, Max: p}
		for i := from; i < min(from+inBox, n); i++ {
			_, q := edge(c, i)
			box.Min = r3.Vec{X: min(box.Min.X, q.X), Y: min(box.Min.Y, q.Y), Z: min(box.Min.Z, q.Z)}
			box.Max = r3.Vec{X: max(box.Max.X, q.X), Y: max(box.Max.Y, q.Y), Z: max(box.Max.Z, q.Z)}
		}
		out = append(out, box)
	}
	return out
}

// between is how far one box lies from another at the least.
func between(a, b r3.Box) float64 {
	off := func(a0, a1, b0, b1 float64) float64 { return max(0, b0-a1, a0-b1) }
	x, y, z := off(a.Min.X, a.Max.X, b.Min.X, b.Max.X), off(a.Min.Y, a.Max.Y, b.Min.Y, b.Max.Y), off(a.Min.Z, a.Max.Z, b.Min.Z, b.Max.Z)
	return math.Sqrt(x*x + y*y + z*z)
}

// nearest is the least distance of an edge of a from one of b, of those that count;
// ordered leaves out what comes before it in b.
func nearest(a, b Curve, as, bs []r3.Box, ordered bool, counts func(i, j int) bool) float64 {
	least := math.Inf(1)
	n, m := edges(a), edges(b)
	for k, x := range as {
		first := 0
		if ordered {
			first = k
		}
		for l := first; l < len(bs); l++ {
			if between(x, bs[l]) > least {
				continue
			}
			for i := k * inBox; i < min((k+1)*inBox, n); i++ {
				p0, p1 := edge(a, i)
				for j := l * inBox; j < min((l+1)*inBox, m); j++ {
					if ordered && j <= i || !counts(i, j) {
						continue
					}
					q0, q1 := edge(b, j)
					if d, _, _ := SegmentDistance(p0, p1, q0, q1); d < least {
						least = d
					}
				}
			}
		}
	}
	return least
}
