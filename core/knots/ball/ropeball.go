package ball

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knots/cover"
	"nimblebight/core/memo"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// RopeAsk is what a rope ball is wanted of: three leads and four bights round a
// former, strands led side by side and followed round so many times. One round
// alone is the napkin ring: its former is a mandrel that it comes off.
type RopeAsk struct {
	Cord     Cord
	Strands  int     // side by side
	Rounds   int     // one and the times they are followed
	FormerMM float64 // 0 for the best
}

// RopeBall is a rope ball, or a napkin ring, drawn up on its former.
type RopeBall struct {
	RopeAsk
	CordsMM  []float64 // by strand, all its rounds
	RoundsMM []float64 // of the first strand, by round
	TuckMM   float64   // what an end takes that is tucked under three crossings
	OuterMM  float64
	HeightMM float64 // along its axis
	// InnerMM is the opening along the axis: of a napkin ring the width that
	// passes through it.
	InnerMM float64
	// BareMM is the widest place of a ball that no cord covers, 0 where none is.
	BareMM float64
	// Gap is the least distance of strands over their diameter in those drawn
	// up that it is taken between.
	Gap   float64
	paths [][]r3.Vec // by strand, in hard diameters
}

// The rope ball's leads and bights.
const (
	RopeLeads  = 3
	RopeBights = 4
	MostTracks = 6

	tucked = 3 // crossings that an end is tucked under
)

// weaving is m tracks side by side, all rounds together, round a ball or, as a
// ring, round a mandrel.
type weaving struct {
	m    int
	ring bool
}

// weavings are all that are drawn up: of one track there is no ball, it is
// followed at least once.
func weavings() (out []weaving) {
	for m := 1; m <= MostTracks; m++ {
		out = append(out, weaving{m, true})
		if m > 1 {
			out = append(out, weaving{m, false})
		}
	}
	return out
}

// steps are the formers that it is drawn up on, in hard diameters.
func (w weaving) steps() []float64 {
	shares := []float64{0.8, 1.1, 1.5}
	switch {
	case w.ring:
		shares = []float64{1.4, 1.8, 2.4, 3.2, 4}
	case w.m > 4: // so many lock on one another sooner
		shares = []float64{1.1, 1.3, 1.5}
	}
	out := make([]float64, len(shares))
	for i, share := range shares {
		out[i] = share*float64(w.m) + 1
	}
	return out
}

func (w weaving) key(former float64) string {
	if w.ring {
		return fmt.Sprintf("ring %d on %.2f", w.m, former)
	}
	return fmt.Sprintf("rope %d on %.2f", w.m, former)
}

// MakeRope draws a rope ball or a napkin ring up.
func MakeRope(a RopeAsk) (RopeBall, error) {
	of := weaving{a.Strands * a.Rounds, a.Rounds == 1}
	switch {
	case a.Strands < 1 || a.Rounds < 1:
		return RopeBall{}, &Refused{Field: "passes", Passes: 1, Why: "a rope ball of no strands or no rounds is none; one of each is the least"}
	case a.Strands > MostTracks:
		return RopeBall{}, &Refused{Field: "strands_per_pass", Why: fmt.Sprintf("%d strands lie side by side; %d are the most that can be kept in order", a.Strands, MostTracks)}
	case of.m > MostTracks:
		return RopeBall{}, &Refused{Field: "passes", Passes: MostTracks / a.Strands, Why: fmt.Sprintf("%d strands followed to %d rounds lie %d side by side; %d are the most that can be kept in order", a.Strands, a.Rounds, of.m, MostTracks)}
	case !(a.Cord.DiameterMM >= 0.2 && a.Cord.DiameterMM <= 60):
		return RopeBall{}, &Refused{Field: "cord", Why: fmt.Sprintf("a cord of %g mm is none", a.Cord.DiameterMM)}
	}
	hard := a.Cord.Hard()
	steps := of.steps()
	lo, hi := steps[0], steps[len(steps)-1]
	if a.FormerMM == 0 {
		a.FormerMM = hard * steps[1]
	}
	former := a.FormerMM / hard
	what, most := "former", "lies bare between"
	if of.ring {
		what, most = "mandrel", "is more than hold together"
	}
	switch {
	case former < lo-0.01:
		return RopeBall{}, &Refused{Field: "former_mm", CoreMM: math.Ceil(10*hard*lo) / 10, Why: fmt.Sprintf("on a %s of %.1f mm %d strands side by side lock on one another before they reach it; it must be %.1f mm or more", what, a.FormerMM, of.m, hard*lo)}
	case former > hi+0.01:
		return RopeBall{}, &Refused{Field: "former_mm", CoreMM: math.Floor(10*hard*hi) / 10, Why: fmt.Sprintf("a %s of %.1f mm %s %d strands side by side; take one of up to %.1f mm, or more strands", what, a.FormerMM, most, of.m, hard*hi)}
	}
	w, err := of.on(former)
	if err != nil {
		return RopeBall{}, err
	}
	b := RopeBall{RopeAsk: a, OuterMM: hard * w.outer, HeightMM: hard * w.height, Gap: w.gap}
	if !of.ring {
		b.BareMM = math.Max(0, hard*(w.bare+1)-a.Cord.CoverMM)
	}
	b.InnerMM = math.Max(0, hard*w.inner-(a.Cord.CoverMM-hard))
	for r := range a.Rounds {
		b.RoundsMM = append(b.RoundsMM, hard*(curve.Curve{Points: w.tracks[r*a.Strands], Closed: true}).Length())
	}
	// A track meets each crossing twice.
	b.TuckMM = b.RoundsMM[0] * tucked / (2 * RopeBights * (RopeLeads - 1))
	b.paths, err = wound.Get(fmt.Sprintf("%d %d %.4f", a.Strands, a.Rounds, former), func() ([][]r3.Vec, error) { return w.wound(a.Strands), nil })
	for _, path := range b.paths {
		b.CordsMM = append(b.CordsMM, hard*(curve.Curve{Points: path}).Length())
	}
	return b, err
}

var wound memo.Cache[[][]r3.Vec]

// wound is the path of each strand, led side by side so many, through all its
// rounds.
func (w weave) wound(side int) [][]r3.Vec {
	// A track meets each crossing twice.
	return cover.Rounds(w.tracks, side, 2*RopeBights*(RopeLeads-1), r3.Norm)
}

// Paths are the paths of the strands, mm, about the former's middle, the axis
// along y.
func (b RopeBall) Paths() [][]r3.Vec {
	out := make([][]r3.Vec, len(b.paths))
	for i, w := range b.paths {
		for _, v := range w {
			out[i] = append(out[i], r3.Scale(b.Cord.Hard(), v))
		}
	}
	return out
}

// weave is a weaving on a former, in hard diameters.
type weave struct {
	tracks                          [][]r3.Vec
	outer, inner, height, bare, gap float64
}

var weaves memo.Cache[weave]

// on is the weaving on a former, between those that were drawn up, with what is
// measured on it.
func (w weaving) on(former float64) (weave, error) {
	return weaves.Get(fmt.Sprintf("%v %.4f", w, former), func() (weave, error) {
		out := weave{tracks: make([][]r3.Vec, w.m), inner: math.Inf(1), gap: math.Inf(1)}
		steps := w.steps()
		at, weights := curve.Between(steps, former)
		for n, k := range at {
			s, ok := embedded()[w.key(steps[k])]
			if !ok {
				return out, fmt.Errorf("the ball %q is not embedded: run make shapes", w.key(steps[k]))
			}
			out.gap = math.Min(out.gap, s.Gap)
			for j, pts := range s.Strands {
				if n == 0 {
					out.tracks[j] = make([]r3.Vec, len(pts))
				}
				for i, v := range pts {
					out.tracks[j][i] = r3.Add(out.tracks[j][i], r3.Scale(weights[n], v))
				}
			}
		}
		var all []r3.Vec
		for _, t := range out.tracks {
			all = append(all, t...)
			for _, v := range t {
				wide := r3.Norm(v)
				if w.ring {
					wide = axial(v)
				}
				out.outer = math.Max(out.outer, 2*wide+1)
				out.inner = math.Min(out.inner, 2*axial(v)-1)
				out.height = math.Max(out.height, 2*math.Abs(v.Y)+1)
			}
		}
		if !w.ring {
			out.bare = bare(all)
		}
		return out, nil
	})
}

// chain is the weaving on all its formers.
func (w weaving) chain() Chain {
	c := Chain{cores: w.steps(), key: w.key, laid: w.laid, kept: w.kept, out: r3.Norm, maxSteps: 15000}
	if w.ring {
		c.out = axial
	}
	return c
}

func axial(v r3.Vec) float64 { return math.Hypot(v.X, v.Z) }

// laid is the weaving dressed so far out that the tracks clear one another, to
// be drawn in to a former.
func (w weaving) laid(former float64, try int) *tighten.Problem {
	if try > 0 {
		return nil
	}
	// They may press into one another at first, but not so far that one could
	// pass through.
	const dressed0 = 0.6
	var dressed [][]r3.Vec
	size := 0.5*float64(w.m) + 1
	if w.ring {
		size = former
	}
	for most := 4 * (size + former); dressed == nil && size < most; size *= 1.15 {
		for reach := 0.5; reach <= 1.15; reach += 0.05 {
			if tracks := w.lay(size, reach); leastGap(tracks, dressed0) >= dressed0 {
				dressed = tracks
				break
			}
		}
	}
	p := tighten.Problem{Cling: 1, Bars: []tighten.Bar{tighten.Ball(r3.Vec{}, former)}}
	if w.ring {
		long := 4*float64(w.m) + former
		p.Bars = []tighten.Bar{{From: r3.Vec{Y: -long}, To: r3.Vec{Y: long}, Diameter: former}}
	}
	for _, t := range dressed {
		var route []r3.Vec
		for i := 0; i < len(t); i += 4 {
			route = append(route, t[i])
		}
		p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: 1, Closed: true})
	}
	return &p
}

// kept is a weaving as it was drawn up on a former, its middle where it was.
func (w weaving) kept(r tighten.Result, former float64) (shapes.Shape, error) {
	lo, hi := math.Inf(1), math.Inf(-1)
	for _, s := range r.Strands {
		for _, v := range s.Points {
			if axial(v) > former/2+3 {
				return shapes.Shape{}, fmt.Errorf("drawing up %q: it stands off its former", w.key(former))
			}
			lo, hi = math.Min(lo, v.Y), math.Max(hi, v.Y)
		}
	}
	out := shapes.Shape{Gap: r.Gap}
	for _, s := range r.Strands {
		pts := s.Resample(w.nodes()).Points
		if w.ring { // it may have slid along its mandrel
			for i := range pts {
				pts[i].Y -= (lo + hi) / 2
			}
		}
		out.Strands = append(out.Strands, pts)
	}
	return out, nil
}

// nodes is how many points a track is kept with.
func (w weaving) nodes() int {
	if w.ring {
		return 120 + 60*w.m
	}
	return 80 + 35*w.m
}

// lay lays the tracks of three leads and four bights side by side round a
// former, their bights reaching so far, in radians of a ball or radii of a
// mandrel, from the middle.
func (w weaving) lay(former, reach float64) [][]r3.Vec {
	const nodes = 420
	r := former/2 + 1
	// The middle of the track: three times round while it goes to and fro four
	// times, over and under by turns.
	to := func(t float64) float64 { return reach * math.Cos(RopeBights*t/RopeLeads) }
	out := func(t float64) r3.Vec { // away from the former
		s, c := math.Sincos(t)
		if w.ring {
			return r3.Vec{X: c, Z: s}
		}
		return r3.Vec{X: math.Cos(to(t)) * c, Y: math.Sin(to(t)), Z: math.Cos(to(t)) * s}
	}
	at := func(t float64) r3.Vec {
		v := out(t)
		if w.ring {
			v.Y = to(t)
		}
		return v
	}
	tracks := make([][]r3.Vec, w.m)
	for j := range w.m {
		off := (float64(j) - float64(w.m-1)/2) / r
		for k := range nodes {
			t := 2 * math.Pi * RopeLeads * float64(k) / nodes
			h := 0.5 * math.Tanh(2.2*math.Sin(2*RopeBights*t/RopeLeads))
			side := r3.Cross(out(t), r3.Unit(r3.Sub(at(t+1e-4), at(t-1e-4))))
			if w.ring {
				v := r3.Add(at(t), r3.Scale(off, side))
				flat := math.Hypot(v.X, v.Z)
				tracks[j] = append(tracks[j], r3.Vec{X: (r + h) * v.X / flat, Y: r * v.Y, Z: (r + h) * v.Z / flat})
				continue
			}
			v := r3.Add(r3.Scale(math.Cos(off), out(t)), r3.Scale(math.Sin(off), side))
			tracks[j] = append(tracks[j], r3.Scale(r+h, v))
		}
	}
	return tracks
}

// leastGap is the least distance between strands, and of a strand from itself
// beyond its own bend; or, where any are nearer than enough, such a one.
func leastGap(tracks [][]r3.Vec, enough float64) float64 {
	type dot struct {
		v    r3.Vec
		j, k int
	}
	const cell = 1.0
	grid := map[[3]int][]dot{}
	of := func(v r3.Vec) [3]int {
		return [3]int{int(math.Floor(v.X / cell)), int(math.Floor(v.Y / cell)), int(math.Floor(v.Z / cell))}
	}
	least := math.Inf(1)
	for j, t := range tracks {
		step := (curve.Curve{Points: t, Closed: true}).Length() / float64(len(t))
		apart := int(math.Pi / 2 / step)
		for k, v := range t {
			c := of(v)
			for dx := -1; dx <= 1; dx++ {
				for dy := -1; dy <= 1; dy++ {
					for dz := -1; dz <= 1; dz++ {
						for _, d := range grid[[3]int{c[0] + dx, c[1] + dy, c[2] + dz}] {
							if path := max(k-d.k, d.k-k); d.j == j && min(path, len(t)-path) <= apart {
								continue
							}
							if off := r3.Norm2(r3.Sub(d.v, v)); off < least {
								least = off
							}
						}
					}
				}
			}
			grid[c] = append(grid[c], dot{v, j, k})
			if least < enough*enough {
				return math.Sqrt(least)
			}
		}
	}
	return math.Sqrt(least)
}
