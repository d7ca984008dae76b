package loosen_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"nimblebight/core/loosen"

	"gonum.org/v1/gonum/spatial/r3"
)

// What is opened is torn nowhere and shortened nowhere: two places near one another never come
// nearer. At first all stands as far apart as it did; and no mirror image comes of it.
func TestOpeningShortensNothing(t *testing.T) {
	const radius, thick, tall = 2.5, 2.0, 7.0
	src := rand.New(rand.NewPCG(4, 2))
	edges := [][]r3.Vec{{{X: radius}, {X: radius + thick, Y: tall}}}
	openings := map[string]struct {
		o     loosen.Opening
		place func() r3.Vec
	}{
		"cover": {loosen.OpenedCover(edges), func() r3.Vec {
			sin, cos := math.Sincos(2 * math.Pi * src.Float64())
			r := radius + thick*src.Float64()
			return r3.Vec{X: r * cos, Y: tall * src.Float64(), Z: r * sin}
		}},
		"ball": {loosen.OpenedBall(r3.Vec{X: 1, Y: 2, Z: 3}, radius, r3.Unit(r3.Vec{X: 1, Y: -2, Z: 0.5})), func() r3.Vec {
			v := r3.Unit(r3.Vec{X: src.NormFloat64(), Y: src.NormFloat64(), Z: src.NormFloat64()})
			return r3.Add(r3.Vec{X: 1, Y: 2, Z: 3}, r3.Scale(radius+thick*src.Float64(), v))
		}},
		"mat": {loosen.Spread(), func() r3.Vec {
			return r3.Vec{X: 9 * src.Float64(), Y: 9 * src.Float64(), Z: src.Float64()}
		}},
		"wire": {loosen.Wider(), func() r3.Vec {
			return r3.Vec{X: 4*src.Float64() - 2, Y: 4*src.Float64() - 1, Z: 2*src.Float64() - 1}
		}},
	}
	const step = 1e-4
	for name, c := range openings {
		for range 4000 {
			v := c.place()
			by := r3.Scale(step, r3.Unit(r3.Vec{X: src.NormFloat64(), Y: src.NormFloat64(), Z: src.NormFloat64()}))
			if near := r3.Norm(r3.Sub(c.o.At(r3.Add(v, by), 0), c.o.At(v, 0))); math.Abs(near-step) > 1e-3*step {
				t.Fatalf("%s: before it is opened, places %g apart are %g apart", name, step, near)
			}
			open := src.Float64()
			if near := r3.Norm(r3.Sub(c.o.At(r3.Add(v, by), open), c.o.At(v, open))); near < 0.999*step {
				t.Fatalf("%s: opened by %.2f, places %g apart at %v are %g apart", name, open, step, v, near)
			}
			along := func(dir r3.Vec) r3.Vec {
				return r3.Sub(c.o.At(r3.Add(v, r3.Scale(step, dir)), open), c.o.At(v, open))
			}
			if r3.Dot(along(r3.Vec{X: 1}), r3.Cross(along(r3.Vec{Y: 1}), along(r3.Vec{Z: 1}))) <= 0 {
				t.Fatalf("%s: opened by %.2f it is a mirror image at %v", name, open, v)
			}
			// What lies farther out comes nearer to the viewer, and goes nowhere else.
			out := r3.Sub(c.o.At(r3.Add(v, r3.Scale(step, c.o.Outward(v))), 1), c.o.At(v, 1))
			if c.o.Across { // where one looks along the work
				out.Y, out.Z = out.Z, out.Y
			}
			if math.Abs(out.Z-step) > 1e-3*step || math.Hypot(out.X, out.Y) > 1e-3*step {
				t.Fatalf("%s: what lies farther out goes to %v", name, out)
			}
		}
	}
}
