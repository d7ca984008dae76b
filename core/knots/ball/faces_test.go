package ball

import (
	"math"
	"testing"

	"gonum.org/v1/gonum/spatial/r3"
)

// A ball that is turned to show a face is the same ball: no point moves nearer
// to another, and no right-handed corner becomes a left-handed one.
func TestAFaceTurnedUpIsTheSameBall(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		b := ball(t, a)
		hangs := b.Strands()
		for n := range faceNormals() {
			seen := b.Seen(n)
			if len(seen) != len(hangs) {
				t.Fatalf("face %d shows %d strands of %d", n+1, len(seen), len(hangs))
			}
			for i, s := range seen {
				pts, own := s.Points, hangs[i].Points
				step := max(1, len(pts)/9)
				for k := 2 * step; k < len(pts); k += step {
					got := r3.Dot(pts[k], r3.Cross(pts[k-step], pts[k-2*step]))
					want := r3.Dot(own[k], r3.Cross(own[k-step], own[k-2*step]))
					size := r3.Norm(own[k]) * r3.Norm(own[k-step]) * r3.Norm(own[k-2*step])
					if math.Abs(got-want) > 1e-9*size {
						t.Fatalf("face %d: three points of strand %d span %.3f, in the ball as it hangs %.3f", n+1, i+1, got, want)
					}
					if d := r3.Norm(r3.Sub(pts[k], pts[k-step])) - r3.Norm(r3.Sub(own[k], own[k-step])); math.Abs(d) > 1e-9*size {
						t.Fatalf("face %d: two points of strand %d come %.3g mm apart", n+1, i+1, d)
					}
				}
			}
		}
	})
}

// What is seen in the middle of a face runs up and down it, and belongs to the
// band that the face is of.
func TestTheTurnsOfAFaceRunUpAndDown(t *testing.T) {
	each(t, func(t *testing.T, a Ask) {
		b := ball(t, a)
		for n, f := range b.Faces() {
			if f.Flaw != "" {
				continue // told elsewhere
			}
			runs := 0
			for _, s := range b.Seen(n) {
				for k := 1; k < len(s.Points); k++ {
					v, d := s.Points[k], r3.Sub(s.Points[k], s.Points[k-1])
					if v.Z < b.FaceMM/2-b.Cord.Hard() || math.Hypot(v.X, v.Y) > 0.15*b.FaceMM {
						continue // not on top, or not in the middle
					}
					runs++
					if math.Abs(d.Y) < 0.85*math.Hypot(d.X, d.Y) {
						t.Fatalf("face %d: a turn runs along %v in its middle", n+1, r3.Unit(d))
					}
					if s.Band[k] != f.Band {
						t.Fatalf("face %d of band %d shows band %d in its middle", n+1, f.Band+1, s.Band[k]+1)
					}
				}
			}
			if runs == 0 {
				t.Errorf("nothing is seen in the middle of face %d", n+1)
			}
		}
	})
}
