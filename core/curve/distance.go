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
	least := math.Inf(1)
	reach := (da + db) / 2
	eachEdge(a, func(p0, p1 r3.Vec) {
		eachEdge(b, func(q0, q1 r3.Vec) {
			if far(p0, q0, least+reach+r3.Norm(r3.Sub(p1, p0))+r3.Norm(r3.Sub(q1, q0))) {
				return
			}
			if d, _, _ := SegmentDistance(p0, p1, q0, q1); d-reach < least {
				least = d - reach
			}
		})
	})
	return least
}

// SelfGap is the least distance of a cord of diameter d from itself, between its
// surfaces; what lies less than half a tight turn away along it is left out. It is
// infinite for one that is too short to come back to itself.
func SelfGap(c Curve, d float64) float64 {
	at := make([]float64, len(c.Points))
	for i := 1; i < len(at); i++ {
		at[i] = at[i-1] + r3.Norm(r3.Sub(c.Points[i], c.Points[i-1]))
	}
	least := math.Inf(1)
	for i := 0; i+1 < len(at); i++ {
		p0, p1 := c.Points[i], c.Points[i+1]
		for j := i + 1; j+1 < len(at); j++ {
			if at[j]-at[i+1] < math.Pi/2*d {
				continue
			}
			q0, q1 := c.Points[j], c.Points[j+1]
			if far(p0, q0, least+d+at[i+1]-at[i]+at[j+1]-at[j]) {
				continue
			}
			if x, _, _ := SegmentDistance(p0, p1, q0, q1); x-d < least {
				least = x - d
			}
		}
	}
	return least
}

func far(p, q r3.Vec, reach float64) bool {
	return math.Abs(p.X-q.X) > reach || math.Abs(p.Y-q.Y) > reach || math.Abs(p.Z-q.Z) > reach
}

func eachEdge(c Curve, f func(a, b r3.Vec)) {
	for i := 1; i < len(c.Points); i++ {
		f(c.Points[i-1], c.Points[i])
	}
	if c.Closed {
		f(c.Points[len(c.Points)-1], c.Points[0])
	}
}
