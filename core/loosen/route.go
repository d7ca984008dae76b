package loosen

import (
	"context"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	routeFirst  = 4000 // steps in which what hands lay comes to rest, at most
	routeEach   = 300  // of each step of the looseness
	routeLast   = 6000 // of the drawn-up knot
	routeOff    = 0.5  // diameters by which it may then lie off the tight curve
	routeHarder = 10   // times that it is pulled harder to where it lies drawn up
	routeOnto   = 5    // frames in which it goes the rest of the way
)

// onRoute is the way of a strand as hands lay it, between its straight ends as they stand and
// hang in the tight knot.
func (s *state) onRoute(route []r3.Vec, in Strand) []r3.Vec {
	tight := withTails(in)
	// It lies about the height of the knot's middle.
	low, high := math.Inf(1), math.Inf(-1)
	for _, v := range route {
		low, high = math.Min(low, v.Y), math.Max(high, v.Y)
	}
	n := len(in.Points)
	down := (in.Points[0].Y+in.Points[n-1].Y)/2 - (low+high)/2
	out := []r3.Vec{tight[0]}
	for _, v := range route {
		out = append(out, r3.Add(v, r3.Vec{Y: down}))
	}
	out = append(out, tight[len(tight)-1])
	if s.across {
		return curve.Curve{Points: out}.Map(curve.EndOn).Points
	}
	return out
}

// fromRoute lets what hands lay come to rest, loose, and draws it up. Under a looseness of
// heldUnder it is pulled, across its strands, to where the tight knot lies, at last harder: what
// caught lets go. It must come to within routeOff of it; the rest of the way is constructed.
func fromRoute(ctx context.Context, s *state, growth float64) (Film, error) {
	s.free = true
	var stills []still
	relax := func(times int, kept bool, share float64) error {
		before := s.length()
		for n := 1; n <= times; n++ {
			s.step()
			if kept && n%stillsEvery == 0 {
				stills = append(stills, s.still())
			}
			if n%looksEvery != 0 {
				continue
			}
			if err := ctx.Err(); err != nil {
				return fmt.Errorf("loosen: drawing up what hands lay: %w", err)
			}
			now := s.length()
			if math.Abs(now-before) < share*before {
				break
			}
			before = now
		}
		return nil
	}
	s.q = 1
	if err := relax(routeFirst, false, 1e-4); err != nil {
		return Film{}, err
	}
	stills = append(stills, s.still())
	for k := 1; k <= steps; k++ {
		s.q = 1 - float64(k)/steps
		s.free = s.q > heldUnder
		if err := relax(routeEach, true, 1e-4); err != nil {
			return Film{}, err
		}
	}
	if err := relax(routeLast, true, 1e-5); err != nil {
		return Film{}, err
	}
	for k := 1; k <= routeHarder; k++ {
		s.onto = 2 * float64(k)
		if err := relax(routeEach, true, 1e-5); err != nil {
			return Film{}, err
		}
	}
	rest := s.shape()
	for k := range s.from {
		copy(s.at[s.from[k]:s.to[k]], s.tightOf[k])
	}
	return s.theRest(stills, rest, growth)
}

// theRest is the film of stills and of the way that is left from where strands rest to the tight knot,
// where they are now: it is constructed, and at most routeOff.
func (s *state) theRest(stills []still, rest [][]r3.Vec, growth float64) (Film, error) {
	tight := s.still()
	if off := math.Max(far(rest, tight.at), far(tight.at, rest)); off > routeOff {
		return Film{}, fmt.Errorf("loosen: drawn up, what hands lay is %.2f diameters off the tight knot", off)
	}
	for n := 1; n < routeOnto; n++ {
		at := make([][]r3.Vec, len(rest))
		for k := range rest {
			for i, v := range rest[k] {
				at[k] = append(at[k], curve.Lerp(v, tight.at[k][i], float64(n)/routeOnto))
			}
		}
		stills = append(stills, s.stillOf(at))
	}
	stills = append(stills, tight)
	stills = slices.DeleteFunc(stills, func(t still) bool { return t.length > grownOver*growth*tight.length })
	slices.Reverse(stills) // a film is chosen from the tight one on
	return s.film(stills), nil
}
