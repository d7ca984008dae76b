package ball

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Chain is balls that differ by their core alone. The one on the largest core is
// drawn up from its rough path, each other one from its neighbour on a larger
// core: so all of them lie alike, and what is mixed of two of them is a ball as
// well. Drawn up each by itself, turns come to rest now on this side of a
// neighbour and now on that.
type Chain struct {
	cores []float64 // in cord diameters, from the least
	key   func(core float64) string
	// laid is the rough path on a core, dressed the looser the higher try is; no
	// problem where it has no looser one.
	laid func(core float64, try int) *tighten.Problem
	// out is how far a point is from the core's middle, or its axis.
	out func(r3.Vec) float64
	// kept is what is embedded of the ball drawn up on a core.
	kept     func(r tighten.Result, core float64) (shapes.Shape, error)
	maxSteps int
}

// Keys are the names of the chain's balls.
func (c Chain) Keys() (out []string) {
	for _, core := range c.cores {
		out = append(out, c.key(core))
	}
	return out
}

// settings are those of the ball on the largest core, and of each other one.
func (c Chain) settings() (first, next tighten.Settings) {
	first = tighten.Settings{PerDiameter: []float64{2, 3}, MaxSteps: c.maxSteps, Still: 2e-4, Tolerance: 0.004}
	next = first
	next.PerDiameter, next.Warm = first.PerDiameter[1:], true
	return first, next
}

// Made is the fingerprint that the chain's balls carry: of the problems that their
// routes give on every core, of the settings and of the solver.
func (c Chain) Made() string {
	first, next := c.settings()
	h := sha256.New()
	for try := 0; ; try++ {
		p := c.laid(c.cores[len(c.cores)-1], try)
		if p == nil {
			break
		}
		fmt.Fprintln(h, tighten.Fingerprint(*p, first))
	}
	for _, core := range c.cores {
		fmt.Fprintln(h, core, tighten.Fingerprint(*c.laid(core, 0), next))
	}
	return hex.EncodeToString(h.Sum(nil))
}

// DrawUp draws all balls of the chain up, by their names.
func (c Chain) DrawUp() (map[string]shapes.Shape, error) {
	out := map[string]shapes.Shape{}
	set, next := c.settings()
	made := c.Made()
	last := len(c.cores) - 1
	r, err := c.first(c.cores[last], set)
	for i := last; err == nil; i-- {
		core := c.cores[i]
		if i < last {
			p := c.laid(core, 0)
			for k, s := range r.Strands {
				p.Strands[k].Route = make([]r3.Vec, len(s.Points))
				for n, v := range s.Points {
					p.Strands[k].Route[n] = c.sunk(v, c.cores[i+1], core)
				}
			}
			if r, err = tighten.DrawUp(context.Background(), *p, next); err != nil {
				return nil, fmt.Errorf("drawing up %q: %w", c.key(core), err)
			}
		}
		shape, e := c.kept(r, core)
		shape.Made = made
		if out[c.key(core)], err = shape, e; i == 0 {
			break
		}
	}
	return out, err
}

// first draws the ball on the largest core up: what jams is dressed anew, looser.
func (c Chain) first(core float64, set tighten.Settings) (r tighten.Result, err error) {
	for try := 0; ; try++ {
		p := c.laid(core, try)
		if p == nil {
			return r, fmt.Errorf("drawing up %q: %w", c.key(core), err)
		}
		if r, err = tighten.DrawUp(context.Background(), *p, set); err == nil {
			return r, nil
		}
	}
}

// sunk is a point of a ball as the ball follows its core, from one of a diameter
// to a smaller one. What leads away from the ball stays.
func (c Chain) sunk(v r3.Vec, from, to float64) r3.Vec {
	const layers = 3.0 // diameters that follow wholly, and over which it ends
	far := c.out(v)
	share := 1 - curve.Smooth((far-from/2-layers)/layers)
	by := 1 - share*(from-to)/2/math.Max(1, far)
	if far < r3.Norm(v) { // towards an axis
		return r3.Vec{X: by * v.X, Y: v.Y, Z: by * v.Z}
	}
	return r3.Scale(by, v)
}
