// Package tighten draws a knot up: from a route, the rough path that its strands
// take, to the curves they lie on once every strand has been pulled as short
// as the others let it.
//
// A newcomer needs one function, [DrawUp]. It takes a [Problem] in units of the
// cord diameter and gives back a [Result]. The same problem gives the same
// result, bit for bit, on the same machine: there is no randomness and no
// clock in it.
package tighten

import (
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Strand is one cord of a knot before it is drawn up.
type Strand struct {
	Route    []r3.Vec // the points it passes, at least three
	Diameter float64  // its own diameter, in the problem's unit
	Closed   bool     // a ring of cord; never in a cell
	// Next is, in a cell, the strand of the next cell that this one goes on as.
	Next int
	// Pull is the tension; 1 where it is left zero.
	Pull float64
	// Give is the share of its diameter by which the cord flattens where it is
	// pressed hardest. The strands of a knot share the greatest of theirs.
	Give float64
}

// Cell makes the strands one repeat of an endless sinnet along y. The next
// repeat is this one mirrored in x if Mirror is set, turned about the y axis
// by Twist, and moved down by Pitch. Pitch is always found; Twist only if
// FreeTwist is set.
type Cell struct {
	Pitch     float64
	Twist     float64
	FreeTwist bool
	Mirror    bool
	// Push presses the row together along y, as a tier pushes knots up.
	Push float64
	// Around, where it is not zero, closes the cells to a ring: there are so many, each
	// the one before it turned by its share of a turn, and no pitch. A strand goes on as
	// itself On cells on, round and round till it comes to its beginning.
	Around, On int
}

// ringed is the cell with the twist of its ring.
func (c Cell) ringed() Cell {
	if c.Around > 0 {
		c.Twist = 2 * math.Pi / float64(c.Around)
	}
	return c
}

// on is how many cells on a strand goes on.
func (c Cell) on() int {
	if c.Around > 0 {
		return c.On
	}
	return 1
}

// fingerprint writes the cell, as it was written before there were rings.
func (c Cell) fingerprint() string {
	out := fmt.Sprintf(" %+v", struct {
		Pitch     float64
		Twist     float64
		FreeTwist bool
		Mirror    bool
		Push      float64
	}{c.Pitch, c.Twist, c.FreeTwist, c.Mirror, c.Push})
	if c.Around > 0 {
		out += fmt.Sprintf(" around %d on %d", c.Around, c.On)
	}
	return out
}

// Bar is something straight that does not give or move: a filler held taut, a
// ring's wire, a hitch's leader. One whose ends coincide is a ball: a bead, a
// round core.
type Bar struct {
	From, To r3.Vec
	Diameter float64
}

// Ball is a ball that does not give or move.
func Ball(middle r3.Vec, diameter float64) Bar {
	return Bar{From: middle, To: middle, Diameter: diameter}
}

// Ring is a ring of wire about the axis z, as bars.
func Ring(middle r3.Vec, radius, wire float64) []Bar {
	const n = 48
	at := func(i int) r3.Vec {
		s, c := math.Sincos(2 * math.Pi * float64(i) / n)
		return r3.Add(middle, r3.Vec{X: radius * c, Y: radius * s})
	}
	out := make([]Bar, n)
	for i := range out {
		out[i] = Bar{From: at(i), To: at(i + 1), Diameter: wire}
	}
	return out
}

// Problem is a knot to be drawn up. Open strands are held by their ends, as if
// pulled by hands far away.
type Problem struct {
	Strands []Strand
	Cell    *Cell
	Bars    []Bar
	// Cling keeps turns that lie side by side together, as friction does, with
	// so much of the pull for each length along which they touch; none where
	// zero. Without it turns slide off a ball.
	Cling float64
	// Held is, by strand, how much of its last length stays where it is beside
	// its very end; none where it is left out.
	Held []float64
	// Alike says that each of n strands is the one before it turned by an n-th of a
	// turn round y, from x towards z, and keeps it so all the way: hands that pull
	// alike. Without it a knot that is long beside its cord rests lopsided.
	Alike bool
}

// UsualSteps are the most steps of a stage where nothing else is said.
const UsualSteps = 30000

// solver is told apart from one that gives other curves. It changes whenever
// what DrawUp gives for the same problem does.
const solver = 1

// Fingerprint names a problem, the settings and the solver: what is drawn up for
// the same fingerprint is the same. 64 hexadecimal digits.
func Fingerprint(p Problem, set Settings) string {
	set.Progress = nil
	h := sha256.New()
	fmt.Fprintf(h, "%d %+v %+v", solver, p.Strands, p.Bars)
	if p.Cell != nil {
		fmt.Fprint(h, p.Cell.fingerprint())
	}
	fmt.Fprintf(h, " %v %+v", p.Cling, set)
	if p.Held != nil {
		fmt.Fprintf(h, " held %v", p.Held)
	}
	if p.Alike {
		fmt.Fprint(h, " alike")
	}
	return hex.EncodeToString(h.Sum(nil))
}

// Settings trade time for fineness. The zero value is what the catalogue uses.
type Settings struct {
	// PerDiameter are nodes a diameter, stage by stage; {3, 5} where empty.
	PerDiameter []float64
	// MaxSteps are the most steps of a stage; 30000 where zero.
	MaxSteps int
	// Still ends a stage once the energy changes by no more than this share of
	// itself in 200 steps; 1e-5 where zero. See [Moving] for a stage that uses up
	// its steps before.
	Still float64
	// Tolerance is how far strands may overlap, as a share, where a stage ends;
	// 0.002 where zero. See [Off] for one that uses up its steps before.
	Tolerance float64
	// Shakes are how often a closed knot is shaken out of the shape it has
	// found, to be kept in a shorter one. Knots that hands tie are not shaken:
	// the shape they are dressed in is the one that is wanted.
	Shakes int
	// Warm says that the routes are curves drawn up before.
	Warm bool
	// Progress is called now and then.
	Progress func(stage, step int, length, gap float64)
	// Frames is how many key frames of the drawing up are kept, from the loose
	// route to the end; none where zero. Two is the least.
	Frames int
}

// Result is a knot drawn up.
type Result struct {
	Strands []curve.Curve
	Cell    Cell    // pitch and twist as found
	Length  float64 // of all strands, one cell of a sinnet
	// Gap is the least distance between two strands over the mean of their
	// diameters: 1 when they just touch.
	Gap float64
	// Least is the smallest Gap seen on the way; above 0.5, nothing can have
	// passed through anything.
	Least float64
	Nodes int
	Steps int
	// Residual is the share of its energy by which the knot still changed over
	// the last 200 steps.
	Residual float64
	// Frames are the strands from loose to drawn up, each strand with the same
	// nodes in every frame, about evenly spaced in the length that was still to
	// be drawn out. A sinnet's frames are of one cell, and Cells their cells.
	Frames [][]curve.Curve
	Cells  []Cell
}

// NotDrawnUp is the error for a knot that did not come to rest: it was still
// changing, or its strands still pressed into one another, after all its steps.
type NotDrawnUp struct {
	Steps    int
	Residual float64 // as in Result
	Gap      float64 // as in Result
}

func (e *NotDrawnUp) Error() string {
	return fmt.Sprintf("tighten: not drawn up after %d steps: the energy still changes by %.1g of itself in %d, strands are %.1f %% of a diameter off touching; give it more steps or a better dressed route",
		e.Steps, e.Residual, checkEvery, 100*math.Abs(1-e.Gap))
}

func (p Problem) check() error {
	if len(p.Strands) == 0 {
		return fmt.Errorf("tighten: no strands")
	}
	if p.Alike {
		if err := p.checkAlike(); err != nil {
			return err
		}
	}
	for i, s := range p.Strands {
		if len(s.Route) < 3 {
			return fmt.Errorf("tighten: strand %d has %d points, needs three", i, len(s.Route))
		}
		if !(s.Give >= 0 && s.Give <= 0.5) {
			return fmt.Errorf("tighten: strand %d gives %v of its diameter; up to a half is cord", i, s.Give)
		}
		if !(s.Diameter > 0) || math.IsInf(s.Diameter, 0) {
			return fmt.Errorf("tighten: strand %d has diameter %v", i, s.Diameter)
		}
		if p.Cell != nil && (s.Next < 0 || s.Next >= len(p.Strands)) {
			return fmt.Errorf("tighten: strand %d goes on as strand %d, which is not there", i, s.Next)
		}
		if p.Cell != nil && s.Closed {
			return fmt.Errorf("tighten: strand %d is closed in a cell", i)
		}
		for k, v := range s.Route {
			if math.IsNaN(v.X+v.Y+v.Z) || math.IsInf(v.X+v.Y+v.Z, 0) {
				return fmt.Errorf("tighten: strand %d point %d is not a number", i, k)
			}
		}
	}
	if p.Cell != nil && p.Cell.Around > 0 {
		return p.checkRing()
	}
	if p.Cell != nil && !(p.Cell.Pitch > 0) {
		return fmt.Errorf("tighten: a cell's pitch must be above zero, is %v", p.Cell.Pitch)
	}
	return nil
}

// checkRing refuses cells of a ring that do not close.
func (p Problem) checkRing() error {
	c := *p.Cell
	switch {
	case c.Around < 2 || c.On < 1:
		return fmt.Errorf("tighten: a ring of %d cells whose strands go on %d on is none", c.Around, c.On)
	case c.Pitch != 0 || c.Twist != 0 || c.FreeTwist || c.Mirror || c.Push != 0:
		return fmt.Errorf("tighten: the cells of a ring have no pitch, twist, mirror or push of their own")
	}
	for i, s := range p.Strands {
		if s.Next != i {
			return fmt.Errorf("tighten: strand %d of a ring goes on as strand %d, not as itself", i, s.Next)
		}
	}
	return nil
}

// checkAlike refuses strands that are not each the one before it turned.
func (p Problem) checkAlike() error {
	if len(p.Strands) < 2 || p.Cell != nil {
		return fmt.Errorf("tighten: alike are two open strands or more")
	}
	for i, s := range p.Strands {
		if len(s.Route) != len(p.Strands[0].Route) {
			return fmt.Errorf("tighten: strand %d has %d points, the first %d; strands that are alike have as many", i, len(s.Route), len(p.Strands[0].Route))
		}
		for k, v := range p.Strands[0].Route {
			if r3.Norm(r3.Sub(s.Route[k], turned(v, i, len(p.Strands)))) > 1e-9 {
				return fmt.Errorf("tighten: point %d of strand %d is not that of the first turned by its share of a turn", k, i)
			}
		}
	}
	return nil
}

// turned is a point turned by i n-ths of a turn round y, from x towards z.
func turned(v r3.Vec, i, n int) r3.Vec {
	if 2*i == n || 2*i == -n {
		return r3.Vec{X: -v.X, Y: v.Y, Z: -v.Z}
	}
	s, c := math.Sincos(2 * math.Pi * float64(i) / float64(n))
	return r3.Vec{X: c*v.X - s*v.Z, Y: v.Y, Z: s*v.X + c*v.Z}
}
