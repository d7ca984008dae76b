package loosen

import (
	"context"
	"errors"
	"fmt"
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

const (
	drawSteps = 12   // in which the wants of a loose knot are let go
	drawEach  = 60   // steps of each
	drawMost  = 6000 // steps of pulling after them
	drawRest  = 2e-4 // share of its cord by which a knot at rest still shortens in looksEvery steps
	swapReach = 1.6  // diameters on either side of a crossing over which two strands change depth
)

// Crossing is where two strands of a frame cross in the picture, or one itself, in nodes.
type Crossing struct {
	A, B     int // strands
	AtA, AtB float64
}

// Switch is a frame in which these crossings are passed the other way: there both strands
// change depth, and come back to their own on either side.
func Switch(frame [][]r3.Vec, at []Crossing) [][]r3.Vec {
	out := make([][]r3.Vec, len(frame))
	for k, pts := range frame {
		out[k] = append([]r3.Vec(nil), pts...)
	}
	for _, c := range at {
		by := zAt(frame[c.B], c.AtB) - zAt(frame[c.A], c.AtA)
		shift(out[c.A], c.AtA, by)
		shift(out[c.B], c.AtB, -by)
	}
	return out
}

func zAt(pts []r3.Vec, at float64) float64 {
	i := max(0, min(len(pts)-2, int(at)))
	t := at - float64(i)
	return pts[i].Z*(1-t) + pts[i+1].Z*t
}

// shift moves a strand in depth about a place, whole there and less to either side.
func shift(pts []r3.Vec, at, by float64) {
	// How far each node lies along the strand, from its beginning: they may stand unevenly.
	along := make([]float64, len(pts))
	for i := 1; i < len(pts); i++ {
		along[i] = along[i-1] + r3.Norm(r3.Sub(pts[i], pts[i-1]))
	}
	i := max(0, min(len(pts)-2, int(at)))
	middle := along[i] + (at-float64(i))*(along[i+1]-along[i])
	for i := range pts {
		if off := math.Abs(along[i]-middle) / swapReach; off < 1 {
			pts[i].Z += by * (1 + math.Cos(math.Pi*off)) / 2
		}
	}
}

// Draw draws a loose frame up with its ends held where they are: the film of it, the loosest
// frame first. What no crossing holds comes apart; no strand passes another. Strands are one
// diameter thick. The wants of a loose knot are let go by and by; across is set for a frame that
// is loose as it is seen from the working end. Strands that are fixed stay where they are; fixed
// is nil where none is.
func Draw(ctx context.Context, frame [][]r3.Vec, across bool, fixed []bool) (Film, error) {
	if len(frame) == 0 {
		return Film{}, errors.New("loosen: there are no strands to draw up")
	}
	s := &state{grown: 1, dt: 0.02, alpha: 0.1, q: 1, free: true, across: across, top: math.Inf(1)}
	for k, pts := range Seen(frame, across) {
		if len(pts) < 3 {
			return Film{}, fmt.Errorf("loosen: a strand of %d points cannot be drawn up", len(pts))
		}
		begin, end := pts[0], pts[len(pts)-1]
		s.top = math.Min(s.top, begin.Y+tailAbove)
		// Its ends stand straight: down from where it comes in, and up from where it leaves.
		mid := (begin.Y + end.Y) / 2
		line := []r3.Vec{begin, {X: begin.X, Y: mid, Z: begin.Z}, {X: end.X, Y: mid, Z: end.Z}, end}
		if across {
			mid = (begin.Z + end.Z) / 2
			line = []r3.Vec{begin, {X: begin.X, Y: begin.Y, Z: mid}, {X: end.X, Y: end.Y, Z: mid}, end}
		}
		s.add(pts, even(line, len(pts)), 1, k < len(fixed) && fixed[k])
	}
	if across {
		s.top = math.Inf(-1)
		s.depth(s.shapeSeen())
	}
	s.ready()
	stills := []still{s.still()}
	look := func(n int) error {
		if n%stillsEvery == 0 {
			stills = append(stills, s.still())
		}
		if n%looksEvery == 0 {
			return ctx.Err()
		}
		return nil
	}
	for k := 1; k <= drawSteps; k++ {
		s.q = 1 - float64(k)/drawSteps
		for n := 1; n <= drawEach; n++ {
			s.step()
			if err := look(n); err != nil {
				return Film{}, fmt.Errorf("loosen: drawing a knot up: %w", err)
			}
		}
	}
	before := s.length()
	for n := 1; n <= drawMost; n++ {
		s.step()
		if err := look(n); err != nil {
			return Film{}, fmt.Errorf("loosen: drawing a knot up: %w", err)
		}
		if n%looksEvery == 0 {
			now := s.length()
			if math.Abs(before-now) < drawRest*before {
				break
			}
			before = now
		}
	}
	stills = append(stills, s.still())
	// A film is chosen from the tight end on.
	for i, j := 0, len(stills)-1; i < j; i, j = i+1, j-1 {
		stills[i], stills[j] = stills[j], stills[i]
	}
	return s.film(stills), nil
}
