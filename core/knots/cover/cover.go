package cover

import (
	"cmp"
	"errors"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/memo"
	"nimblebight/core/shapes"
	"nimblebight/core/side"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Cover is a weave drawn up on a mandrel, in diameters of its cord, its middle at the
// origin, its axis along y. Every figure is measured on its tracks.
type Cover struct {
	Weave
	Mandrel float64
	// Tracks are the passes, each a ring: those of the first band, from one side to the
	// other, then those of the next.
	Tracks [][]r3.Vec
	// High is its height along the axis, Across its width, Inside the round opening that
	// it leaves.
	High, Across, Inside float64
	// Bare is the widest place of the mandrel, between bands, that no cord covers, 0
	// where there is none.
	Bare float64
	// Angle is the least at which two parts cross, radians.
	Angle float64
	// Pass is the mean length of a pass of a band.
	Pass float64
	Gap  float64

	unders [][]float64 // by track, where it lies under another, shares of it
}

// Bounds of what is drawn up while a maker waits.
const (
	MostLeads, MostBights = 15, 24
	// MostMeets bounds the crossings of all passes together.
	MostMeets = 1300
	// MostMandrel is the thickest mandrel, diameters.
	MostMandrel = 60.0
)

// drawn is how finely a cover is drawn up: that a large one takes less than a second.
// The figures are judged; a test holds what they come to against a finer drawing.
var drawn = tighten.Settings{PerDiameter: []float64{2.5}, Still: 6e-4, Tolerance: 0.005, MaxSteps: 6000}

// Crowded is the error for a weave that does not close on its mandrel: its bights climb over
// one another and cross where they should not.
type Crowded struct {
	Weave   Weave
	Mandrel float64 // diameters
}

func (e *Crowded) Error() string {
	return fmt.Sprintf("a cover of %s cannot close on %.1f diameters: its bights climb over one another", e.Weave, e.Mandrel)
}

// made is a cover, or why there is none: that is kept too, for it took as long to find.
type made struct {
	cover Cover
	err   error
}

var covers = memo.Cache[made]{Most: 30 << 20}

// closest is how near bands may be led from bight to bight, over what they must be apart,
// before they climb over one another. It is judged: what is nearer is not drawn up.
const closest = 0.8

// On draws a weave up on a mandrel of so many diameters. What cannot close on it is
// [*Crowded].
func (w Weave) On(mandrel float64) (Cover, error) {
	mandrel = math.Round(100*mandrel) / 100
	return w.made(mandrel, fmt.Sprintf("cover %s on %.2f", w, mandrel), func() tighten.Problem { return w.Route(mandrel) })
}

// OnPair draws a weave of an even number of bights up round two straight cords side by
// side, at x a half to either side: what a long cover closes on when its straw is drawn
// out.
func (w Weave) OnPair() (Cover, error) {
	const mandrel = 2
	return w.made(mandrel, fmt.Sprintf("cover %s on two", w), func() tighten.Problem {
		p := w.Route(mandrel)
		bar := p.Bars[0]
		bar.Diameter = 1
		p.Bars = nil
		for _, x := range [2]float64{-0.5, 0.5} {
			bar.From.X, bar.To.X = x, x
			p.Bars = append(p.Bars, bar)
		}
		return p
	})
}

func (w Weave) made(mandrel float64, key string, problem func() tighten.Problem) (Cover, error) {
	if w.Loose(mandrel) < closest {
		return Cover{}, &Crowded{w, mandrel}
	}
	m, _ := covers.Get(key, func() (made, error) {
		s, err := shapes.Now(key, problem(), drawn)
		var moving *tighten.NotDrawnUp
		if errors.As(err, &moving) && w.Loose(mandrel) < 1 {
			err = &Crowded{w, mandrel}
		}
		if err != nil {
			return made{err: err}, nil
		}
		c, err := w.of(s, mandrel)
		return made{c, err}, nil
	})
	return m.cover, m.err
}

// of is the cover that a cell drawn up on a mandrel makes.
func (w Weave) of(s shapes.Shape, mandrel float64) (Cover, error) {
	c := Cover{Weave: w, Mandrel: mandrel, Gap: s.Gap}
	c.lay(s.Strands)
	return c, c.measure()
}

// lay puts the cells together to rings.
func (c *Cover) lay(cells [][]r3.Vec) {
	const nodes = 4.0 // a diameter
	cell := tighten.Cell{Twist: 2 * math.Pi / float64(c.Bights)}
	low, high := math.Inf(1), math.Inf(-1)
	for _, pts := range cells {
		a, b := curve.Curve{Points: pts}.Box().Min.Y, curve.Curve{Points: pts}.Box().Max.Y
		low, high = math.Min(low, a), math.Max(high, b)
	}
	bands := c.Bands()
	all := 0
	for band := range bands {
		for _, pts := range cells {
			var ring []r3.Vec
			for k := range c.Bights / bands {
				for _, v := range pts {
					v.Y -= (low + high) / 2
					ring = append(ring, tighten.Image(cell, (band+k*c.Leads)%c.Bights, v))
				}
			}
			long := curve.Spline(ring, true)
			c.Pass += long.Length() / float64(bands*c.Passes)
			if all == 0 {
				all = int(math.Ceil(nodes * long.Length()))
			}
			c.Tracks = append(c.Tracks, long.Resample(all).Points)
		}
	}
}

// Axial is how far a place lies from the axis.
func Axial(v r3.Vec) float64 { return math.Hypot(v.X, v.Z) }

// Spread are lines of a cover as one sees them who looks from one edge through it: what
// lies nearer to the other edge lies farther out, what lies outside lies above. The edges
// become two circles, and nothing is cut open.
func (c Cover) Spread(line curve.Curve) curve.Curve {
	const fine = 3 // nodes for one, so that no chord cuts a corner
	middle := c.High/2 + 2
	return line.Resample(fine * len(line.Points)).Map(func(v r3.Vec) r3.Vec {
		a := Axial(v)
		return r3.Vec{X: (middle + v.Y) * v.X / a, Y: (middle + v.Y) * v.Z / a, Z: a}
	})
}

// Crossings are those of tracks that are spread out, their places shares of the tracks.
func (c Cover) Crossings() ([]curve.Crossing, error) {
	var cs []curve.Curve
	for _, t := range c.Tracks {
		cs = append(cs, c.Spread(curve.Curve{Points: t, Closed: true}))
	}
	found, err := curve.Crossings(cs)
	for i := range found {
		found[i].OverAt /= float64(len(cs[found[i].Over].Points))
		found[i].UnderAt /= float64(len(cs[found[i].Under].Points))
	}
	return found, err
}

func (c *Cover) measure() error {
	outer, inner := 0.0, math.Inf(1)
	for _, t := range c.Tracks {
		for _, v := range t {
			a := Axial(v)
			outer, inner = math.Max(outer, a), math.Min(inner, a)
			c.High = math.Max(c.High, 2*math.Abs(v.Y)+1)
		}
	}
	c.Across, c.Inside = 2*outer+1, 2*inner-1
	found, err := c.Crossings()
	if err != nil {
		return fmt.Errorf("measuring a cover of %s: %w", c.Weave, err)
	}
	if len(found) != c.Meets() {
		return &Crowded{c.Weave, c.Mandrel}
	}
	c.unders = make([][]float64, len(c.Tracks))
	for _, x := range found {
		c.unders[x.Under] = append(c.unders[x.Under], x.UnderAt)
	}
	c.Angle = math.Pi / 2
	low, high := math.Inf(1), math.Inf(-1) // of the crossings
	for _, x := range found {
		over, under := c.Tracks[x.Over], c.Tracks[x.Under]
		u, v := along(over, x.OverAt), along(under, x.UnderAt)
		c.Angle = math.Min(c.Angle, math.Acos(math.Min(1, math.Abs(r3.Dot(u, v)))))
		y := over[int(x.OverAt*float64(len(over)))].Y
		low, high = math.Min(low, y), math.Max(high, y)
	}
	c.Bare = c.bare(low, high)
	return nil
}

// along is the direction of a track at a share of it, laid flat on the mandrel.
func along(t []r3.Vec, at float64) r3.Vec {
	k := int(at * float64(len(t)))
	a, b := t[k], t[(k+1)%len(t)]
	mid := curve.Lerp(a, b, 0.5)
	out := r3.Unit(r3.Vec{X: mid.X, Z: mid.Z})
	d := r3.Sub(b, a)
	return r3.Unit(r3.Sub(d, r3.Scale(r3.Dot(d, out), out)))
}

// bare is the widest round place between two depths of a mandrel, of one bight's share
// of it, that no cord covers.
func (c Cover) bare(low, high float64) float64 {
	radius := c.Mandrel / 2
	share := 2 * math.Pi / float64(c.Bights)
	type spot struct{ x, y float64 }
	var spots []spot // of the cords, unrolled on the mandrel, with some more on both sides
	for _, t := range c.Tracks {
		for _, v := range t {
			round := math.Atan2(v.Z, v.X)
			for ; round > share*1.5; round -= 2 * math.Pi {
			}
			if round < -share/2 {
				round += 2 * math.Pi
			}
			if round <= share*1.5 || c.Bights < 4 {
				spots = append(spots, spot{radius * round, v.Y})
			}
		}
	}
	slices.SortFunc(spots, func(a, b spot) int { return cmp.Compare(a.y, b.y) })
	const fine = 0.1
	widest := 0.0
	for y := low; y <= high; y += fine {
		for x := 0.0; x <= radius*share; x += fine {
			near := math.Inf(1)
			from, _ := slices.BinarySearchFunc(spots, y, func(s spot, y float64) int { return cmp.Compare(s.y, y) })
			for k := from; k < len(spots) && spots[k].y-y < near; k++ {
				near = math.Min(near, math.Hypot(spots[k].x-x, spots[k].y-y))
			}
			for k := from - 1; k >= 0 && y-spots[k].y < near; k-- {
				near = math.Min(near, math.Hypot(spots[k].x-x, spots[k].y-y))
			}
			if near < 0.5+widest/2 {
				x += 0.5 + widest/2 - near // nothing wider so near
				continue
			}
			widest = 2*near - 1
		}
	}
	return widest
}

// Shortest and Longest are the lengths of the shortest and the longest of its passes: at
// the edges one that lies outside another goes the longer way.
func (c Cover) Shortest() float64 { return slices.Min(c.lengths()) }

// Longest is the longest pass; see [Cover.Shortest].
func (c Cover) Longest() float64 { return slices.Max(c.lengths()) }

func (c Cover) lengths() []float64 {
	var out []float64
	for _, t := range c.Tracks {
		out = append(out, curve.Curve{Points: t, Closed: true}.Length())
	}
	return out
}

// passed is how many bands a track passes on its way.
func (c Cover) passed() int { return 2 * c.Bights * (c.Leads - 1) / c.Bands() }

// Tucked is under how many crossings an end is tucked.
const Tucked = 3

// rounds leads one strand through tracks that lie side by side. Its end laps where there is
// room for it.
func (c Cover) rounds(tracks [][]r3.Vec) []r3.Vec {
	const room = -0.07    // of a diameter between surfaces: soft cord gives so much
	var lines [2][]r3.Vec // lapped, and not: while a maker waits both are laid at once
	side.Each(2, func(i int) { lines[i] = cleared(waysOf(tracks, 1, c.passed(), i == 0, Axial), c.Mandrel)[0] })
	if curve.SelfGap(curve.Curve{Points: lines[0]}, 1) >= room {
		return lines[0]
	}
	return lines[1]
}

// Strands are the ways of the strands that a cover is tied of, each through all its
// rounds, and how much of an end is tucked.
func (c Cover) Strands() (lines [][]r3.Vec, tuck float64) {
	for band := range c.Bands() {
		tracks := c.Tracks[band*c.Passes : (band+1)*c.Passes]
		if c.Passes == 1 {
			lines = append(lines, c.once(band))
		} else {
			lines = append(lines, c.rounds(tracks))
		}
	}
	return lines, c.Pass * Tucked / float64(c.passed())
}

// Shares are so many ways that a band of one pass is parted into, each from a bight of the
// first edge, equally far from one another, to where the next begins: under the part that
// is met first after the bight, out of sight.
func (c Cover) Shares(n int) [][]r3.Vec {
	track := c.Tracks[0]
	first := 0
	for k, v := range track { // the bight of the first edge farthest to the back
		const nearly = 0.02 // of the height
		if v.Y < -(c.High-1)*(0.5-nearly) && (track[first].Y >= -(c.High-1)*(0.5-nearly) || v.Z < track[first].Z) {
			first = k
		}
	}
	under := first
	for k := first; k < first+3*len(track)/(2*c.passed()); k++ {
		if Axial(track[k%len(track)]) < Axial(track[under%len(track)]) {
			under = k
		}
	}
	// An end begins just before it goes under, so that it goes all the way, and the one that
	// comes there stops clear of it.
	const before, clear = 0.1, 0.8 // diameters
	per := float64(len(track)) / c.Pass
	under += len(track) - max(2, int(before*per))
	short := int(math.Ceil(clear * per))
	var out [][]r3.Vec
	for i := range n {
		var line []r3.Vec
		for k := i * len(track) / n; k < (i+1)*len(track)/n-short; k++ {
			line = append(line, track[(under+k)%len(track)])
		}
		out = append(out, line)
	}
	return out
}
