package loosen

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// ring is how strands that stand round a knot's axis, seen end on, are turned into one another.
//
// Law: strand k is the first one turned by turns[k], in every frame.
type ring struct {
	middle r3.Vec
	turns  []float64 // radians
}

// alikeTo is how near the nodes of one strand that is turned must come to those of another,
// diameters, for both to be loosened alike.
const alikeTo = 0.05

// ringOf finds the ring of strands that are all alike; nil where they are not.
func (s *state) ringOf() *ring {
	n := len(s.from)
	first := s.tightOf[0]
	r := &ring{turns: make([]float64, n)}
	for k := range n {
		if len(s.tightOf[k]) != len(first) || s.fixed[k] {
			return nil
		}
		r.middle = r3.Add(r.middle, r3.Scale(1/float64(n), s.tightOf[k][0]))
	}
	r.middle.Z = 0
	for k := range n {
		found := false
		for t := 0; t < n && !found; t++ {
			r.turns[k], found = 2*math.Pi*float64(t)/float64(n), true
			for i, v := range first {
				if r3.Norm(r3.Sub(r.turned(v, r.turns[k]), s.tightOf[k][i])) > alikeTo {
					found = false
					break
				}
			}
		}
		if !found {
			return nil
		}
	}
	return r
}

func (r *ring) turned(v r3.Vec, by float64) r3.Vec {
	return r3.Add(r.middle, turnedAbout(r3.Sub(v, r.middle), by))
}

func turnedAbout(v r3.Vec, by float64) r3.Vec {
	sin, cos := math.Sincos(by)
	return r3.Vec{X: v.X*cos - v.Y*sin, Y: v.X*sin + v.Y*cos, Z: v.Z}
}

// alike moves strands that are alike to where their mean lies. Left alone, the first that is a
// little looser than the others would take up all their slack.
func (s *state) alike() {
	r, n := s.ring, float64(len(s.from))
	for i := range s.to[0] {
		var at, v r3.Vec
		for k, from := range s.from {
			at = r3.Add(at, r3.Scale(1/n, r.turned(s.at[from+i], -r.turns[k])))
			v = r3.Add(v, r3.Scale(1/n, turnedAbout(s.v[from+i], -r.turns[k])))
		}
		for k, from := range s.from {
			s.at[from+i], s.v[from+i] = r.turned(at, r.turns[k]), turnedAbout(v, r.turns[k])
		}
	}
}
