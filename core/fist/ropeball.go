package fist

import (
	"context"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
	"nimblebight/core/shape"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// RopeAsk is what a rope ball is wanted of: three leads and four bights round a
// former, strands led side by side and followed round so many times. One round
// alone is the napkin ring.
type RopeAsk struct {
	Cord     Cord
	Strands  int     // side by side
	Rounds   int     // one and the times they are followed
	FormerMM float64 // 0 for the best
}

// RopeBall is a rope ball drawn up on its former.
type RopeBall struct {
	RopeAsk
	CordsMM  []float64 // by strand, all its rounds
	RoundsMM []float64 // of the first strand, by round
	OuterMM  float64
	// InnerMM is the opening along the axis: of a napkin ring the width that
	// passes through it.
	InnerMM float64
	// BareMM is the widest place that no cord covers, 0 where none is.
	BareMM float64
	Gap    float64
	ways   [][]Vec // by strand, in hard diameters
}

// The rope ball's leads and bights.
const (
	RopeLeads  = 3
	RopeBights = 4
	MostTracks = 6
)

// ropeTracks are the numbers of strands side by side, all rounds together, that
// balls are drawn up with.
var ropeTracks = []int{2, 3, 4, 6}

// formerSteps are the formers that balls of m tracks are drawn up on, in hard
// diameters.
func formerSteps(m int) []float64 {
	var out []float64
	shares := []float64{0.8, 1.1, 1.5}
	if m > 4 { // so many lock on one another sooner
		shares = []float64{1.1, 1.3, 1.5}
	}
	for _, share := range shares {
		out = append(out, share*float64(m)+1)
	}
	return out
}

func ropeKey(m int, former float64) string { return fmt.Sprintf("rope %d on %.2f", m, former) }

// MakeRope draws a rope ball up.
func MakeRope(a RopeAsk) (RopeBall, error) {
	m := a.Strands * a.Rounds
	switch {
	case a.Strands < 1 || a.Rounds < 1:
		return RopeBall{}, &Refused{Field: "passes", Passes: 1, Why: "a rope ball of no strands or no rounds is none; one of each is the least"}
	case m > MostTracks:
		return RopeBall{}, &Refused{Field: "passes", Passes: MostTracks / a.Strands, Why: fmt.Sprintf("%d strands followed to %d rounds lie %d side by side; %d are the most that can be kept in order", a.Strands, a.Rounds, m, MostTracks)}
	case !slices.Contains(ropeTracks, m):
		no := &Refused{Field: "passes", Why: fmt.Sprintf("%d strands followed to %d rounds lie %d side by side; 2, 3, 4 and 6 are known", a.Strands, a.Rounds, m)}
		for r := 1; r*a.Strands <= MostTracks; r++ { // as often as is known
			if slices.Contains(ropeTracks, r*a.Strands) {
				no.Passes = r
			}
		}
		return RopeBall{}, no
	case !(a.Cord.DiameterMM >= 0.2 && a.Cord.DiameterMM <= 60):
		return RopeBall{}, &Refused{Field: "cord", Why: fmt.Sprintf("a cord of %g mm is none", a.Cord.DiameterMM)}
	}
	hard := a.Cord.Hard()
	steps := formerSteps(m)
	lo, hi := steps[0], steps[len(steps)-1]
	if a.FormerMM == 0 {
		a.FormerMM = hard * steps[1]
	}
	former := a.FormerMM / hard
	switch {
	case former < lo-0.01:
		return RopeBall{}, &Refused{Field: "former_mm", CoreMM: math.Ceil(10*hard*lo) / 10, Why: fmt.Sprintf("on a former of %.1f mm %d strands side by side lock on one another before they reach it; it must be %.1f mm or more", a.FormerMM, m, hard*lo)}
	case former > hi+0.01:
		return RopeBall{}, &Refused{Field: "former_mm", CoreMM: math.Floor(10*hard*hi) / 10, Why: fmt.Sprintf("a former of %.1f mm lies bare between %d strands side by side; take one of up to %.1f mm, or more strands", a.FormerMM, m, hard*hi)}
	}
	w, err := woven(m, former)
	if err != nil {
		return RopeBall{}, err
	}
	b := RopeBall{RopeAsk: a, OuterMM: hard * w.outer, Gap: w.gap}
	b.BareMM = math.Max(0, hard*(w.bare+1)-a.Cord.CoverMM)
	b.InnerMM = math.Max(0, hard*w.inner-(a.Cord.CoverMM-hard))
	for i := range a.Strands {
		var way []Vec
		for r := range a.Rounds {
			track := w.tracks[i+r*a.Strands]
			// Each strand begins at a bight of its own, where it is farthest out
			// towards one end of the axis.
			at := func(k int) Vec { return track[(k+len(track))%len(track)] }
			from := (i % RopeBights) * len(track) / RopeBights
			for k, mid := from-len(track)/10, from; k <= mid+len(track)/10; k++ {
				if at(k).Y > at(from).Y {
					from = k
				}
			}
			from = (from + len(track)) % len(track)
			track = slices.Concat(track[from:], track[:from])
			if i == 0 {
				b.RoundsMM = append(b.RoundsMM, hard*(curve.Curve{Points: track, Closed: true}).Length())
			}
			if r > 0 { // it steps over the strands that lie between, at a bight, where nothing crosses
				const over = 1.5
				last := way[len(way)-1]
				lift := func(v Vec) Vec { return r3.Add(v, r3.Scale(over, r3.Unit(v))) }
				way = append(way, lift(last), lift(track[0]))
			}
			way = append(way, track...)
		}
		b.CordsMM = append(b.CordsMM, hard*(curve.Curve{Points: way}).Length())
		b.ways = append(b.ways, way)
	}
	return b, nil
}

// Ways are the ways of the strands, mm, about the former's middle, the axis
// along y.
func (b RopeBall) Ways() [][]Vec {
	out := make([][]Vec, len(b.ways))
	for i, w := range b.ways {
		for _, v := range w {
			out[i] = append(out[i], r3.Scale(b.Cord.Hard(), v))
		}
	}
	return out
}

// weave is a ball of m tracks on a former, in hard diameters.
type weave struct {
	tracks                  [][]Vec
	outer, inner, bare, gap float64
}

var weaves kept.By[weave]

// woven is the ball of m tracks on a former, between those that were drawn up,
// with what is measured on it.
func woven(m int, former float64) (weave, error) {
	return weaves.Get(fmt.Sprintf("%d %.4f", m, former), func() (weave, error) {
		w := weave{tracks: make([][]Vec, m), inner: math.Inf(1), gap: math.Inf(1)}
		at, weights := curve.Between(formerSteps(m), former)
		for n, k := range at {
			s, ok := embedded()[ropeKey(m, formerSteps(m)[k])]
			if !ok {
				return w, fmt.Errorf("the ball %q is not embedded: run go generate ./core/fist", ropeKey(m, formerSteps(m)[k]))
			}
			w.gap = math.Min(w.gap, s.Gap)
			for j, pts := range s.Strands {
				if n == 0 {
					w.tracks[j] = make([]Vec, len(pts))
				}
				for i, v := range pts {
					w.tracks[j][i] = r3.Add(w.tracks[j][i], r3.Scale(weights[n], v))
				}
			}
		}
		var all []Vec
		for _, t := range w.tracks {
			all = append(all, t...)
			for _, v := range t {
				w.outer = math.Max(w.outer, 2*r3.Norm(v)+1)
				w.inner = math.Min(w.inner, 2*math.Hypot(v.X, v.Z)-1)
			}
		}
		w.bare = bare(all)
		return w, nil
	})
}

// drawRope draws a rope ball of m tracks up on a former: dressed so far out that
// the tracks clear one another, then drawn in.
func drawRope(m int, former float64) (shape.Shape, error) {
	// They may press into one another at first, but not so far that one could
	// pass through.
	const dressed0 = 0.6
	var dressed [][]Vec
	for size := 0.5*float64(m) + 1; dressed == nil; size *= 1.15 {
		for reach := 0.5; reach <= 1.15; reach += 0.05 {
			if tracks := lay(m, size, reach); leastGap(tracks) >= dressed0 {
				dressed = tracks
				break
			}
		}
	}
	p := tighten.Problem{Cling: 1, Bars: []tighten.Bar{tighten.Ball(Vec{}, former)}}
	for _, t := range dressed {
		var route []Vec
		for i := 0; i < len(t); i += 4 {
			route = append(route, t[i])
		}
		p.Strands = append(p.Strands, tighten.Strand{Route: route, Diameter: 1, Closed: true})
	}
	r, err := tighten.Draw(context.Background(), p, tighten.Settings{PerDiameter: []float64{2, 3}, MaxSteps: 15000, Still: 2e-4, Tolerance: 0.004})
	if err != nil {
		return shape.Shape{}, fmt.Errorf("drawing up a rope ball of %d tracks on %.1f diameters: %w", m, former, err)
	}
	out := shape.Shape{Gap: r.Gap}
	for _, s := range r.Strands {
		for _, v := range s.Points {
			if r3.Norm(v) > former/2+3 {
				return out, fmt.Errorf("a rope ball of %d tracks on %.1f diameters stands off its former", m, former)
			}
		}
		out.Strands = append(out.Strands, s.Resample(80+35*m).Points)
	}
	return out, nil
}

// lay lays m tracks of three leads and four bights side by side round a former,
// their bights reaching so far, in radians, towards the poles.
func lay(m int, former, reach float64) [][]Vec {
	const nodes = 420
	r := former/2 + 1
	// The middle of the track: three times round while it goes to and fro four
	// times, over and under by turns.
	at := func(t float64) Vec {
		lat := reach * math.Cos(RopeBights*t/RopeLeads)
		s, c := math.Sincos(t)
		return Vec{X: math.Cos(lat) * c, Y: math.Sin(lat), Z: math.Cos(lat) * s}
	}
	tracks := make([][]Vec, m)
	for j := range m {
		off := (float64(j) - float64(m-1)/2) / r
		for k := range nodes {
			t := 2 * math.Pi * RopeLeads * float64(k) / nodes
			h := 0.5 * math.Tanh(2.2*math.Sin(2*RopeBights*t/RopeLeads))
			out := at(t)
			side := r3.Cross(out, r3.Unit(r3.Sub(at(t+1e-4), at(t-1e-4))))
			v := r3.Add(r3.Scale(math.Cos(off), out), r3.Scale(math.Sin(off), side))
			tracks[j] = append(tracks[j], r3.Scale(r+h, v))
		}
	}
	return tracks
}

// leastGap is the least distance between strands, and of a strand from itself
// beyond its own bend.
func leastGap(tracks [][]Vec) float64 {
	type dot struct {
		v    Vec
		j, k int
	}
	const cell = 1.0
	grid := map[[3]int][]dot{}
	of := func(v Vec) [3]int {
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
							if way := max(k-d.k, d.k-k); d.j == j && min(way, len(t)-way) <= apart {
								continue
							}
							least = math.Min(least, r3.Norm(r3.Sub(d.v, v)))
						}
					}
				}
			}
			grid[c] = append(grid[c], dot{v, j, k})
		}
	}
	return least
}
