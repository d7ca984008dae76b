package tighten

import (
	"context"
	"math"
	"math/rand/v2"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// shaken draws a closed knot up coarsely, then moves the space it lies in (a
// stretch and a shear, which no strand can pass through another by), draws it
// up again and keeps what came out shorter. A coarse start and shakes are what
// avoid bad minima; fineness does not.
func shaken(ctx context.Context, p Problem, start []curve.Curve, set Settings, res *Result) ([]curve.Curve, error) {
	const per = 3
	rough := Settings{MaxSteps: 2400, Still: 1e-4, Tolerance: 0.01, Progress: set.Progress}
	r := rand.New(rand.NewPCG(20, 4))
	var best []curve.Curve
	shortest := math.Inf(1)
	for n := range set.Shakes + 1 {
		from := start
		if n > 0 {
			from = shake(r, best, 0.25+0.5*r.Float64())
		}
		rx := newRelaxer(p, from, Cell{}, per)
		if err := rx.swell(); err != nil {
			if n > 0 {
				continue // a shake too hard; the next one starts from the best again
			}
			return nil, err
		}
		if err := rx.relax(ctx, softContact, 0, rough); err != nil {
			return nil, err
		}
		res.Steps += rx.steps
		if n > 0 && rx.least < 0.5 {
			continue // not to be trusted, so not kept
		}
		res.Least = math.Min(res.Least, rx.least)
		if l := rx.length() / rx.gap(); l < shortest {
			best, shortest = rx.curves(), l
		}
	}
	return best, nil
}

// shake moves all of space by a stretch along a random axis and a smooth shear
// across another.
func shake(r *rand.Rand, cs []curve.Curve, by float64) []curve.Curve {
	axis := func() r3.Vec {
		return r3.Unit(r3.Vec{X: r.NormFloat64(), Y: r.NormFloat64(), Z: r.NormFloat64()})
	}
	along, k := axis(), axis()
	across := r3.Unit(r3.Cross(k, axis()))
	stretch := math.Expm1(by * r.NormFloat64())
	wave, phase, deep := 0.4+0.8*r.Float64(), 2*math.Pi*r.Float64(), 3*by*r.Float64()
	out := make([]curve.Curve, len(cs))
	for i, c := range cs {
		out[i] = c.Map(func(v r3.Vec) r3.Vec {
			v = r3.Add(v, r3.Scale(stretch*r3.Dot(v, along), along))
			return r3.Add(v, r3.Scale(deep*math.Sin(wave*r3.Dot(v, k)+phase), across))
		})
	}
	return out
}
