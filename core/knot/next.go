package knot

import (
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// holdNext holds the last knot of a round by a film of one alone, below those that are closed: its
// strands hang straight from them, and it goes up to them as it is drawn up. Not ok where none of
// its films lies as that knot does.
func holdNext(w Work, t Tied, last closedKnots, action int, along float64) (Tied, bool) {
	d := thickest(w)
	f, one, above, now, ok := nextBy(films(w.Section.Do), t, last, d)
	if !ok {
		return Tied{}, false
	}
	held, ok := f.hold(w, one, now, closedKnots{}, action-last.moves, along)
	if !ok {
		return Tied{}, false
	}
	for i, p := range held.Paths {
		held.Paths[i] = Path{Points: append(above[i], p.Points[1:]...)}
	}
	held.Settle()
	return held, true
}

// nextBy finds the film by which the last knot of a round is held: that film where the knot lies,
// the knot alone, what of its strands lies above it, and how they lie now in the film's nodes.
func nextBy(all []Film, t Tied, last closedKnots, d float64) (f Film, one Tied, above [][]r3.Vec, now [][]r3.Vec, ok bool) {
	n := len(t.Paths)
	for _, film := range all {
		if len(film.Frames[0]) != n {
			continue
		}
		for _, mirrored := range []bool{false, true} {
			g := film
			if mirrored {
				g = film.mirrored()
			}
			drawnUp := Film{Frames: g.Frames[len(g.Frames)-1:]}
			for step := range n {
				angle := 2 * math.Pi * float64(step) / float64(n)
				if _, ok := drawnUp.turned(angle).endsAs(t, d); !ok {
					continue
				}
				f, _ := g.turned(angle).endsAs(t, d)
				one, above := t.fromOn(f, d)
				one.Moves = t.Moves[last.moves:]
				if now, ok := f.laid(one, d); ok {
					return f, one, above, now, true
				}
			}
		}
	}
	return Film{}, Tied{}, nil, nil, false
}

// turned is the film turned about the work's axis.
func (f Film) turned(angle float64) Film {
	out := Film{Across: f.Across}
	for _, frame := range f.Frames {
		var now [][]r3.Vec
		for _, pts := range frame {
			now = append(now, TurnRoute(pts, angle))
		}
		out.Frames = append(out.Frames, now)
	}
	return out
}

// endsAs is the film with its strands in the order of those of a knot, so far down that they end
// where those do; not ok where they end elsewhere.
func (f Film) endsAs(t Tied, d float64) (Film, bool) {
	drawnUp := f.Frames[len(f.Frames)-1]
	end := func(pts []r3.Vec) r3.Vec { return pts[len(pts)-1] }
	order, taken := make([]int, len(t.Paths)), map[int]bool{}
	down := 0.0
	for i, p := range t.Paths {
		to := r3.Scale(1/d, end(p.Points))
		best := math.Inf(1)
		for k, pts := range drawnUp {
			at := end(pts)
			if off := math.Hypot(at.X-to.X, at.Z-to.Z); off < best {
				best, order[i] = off, k
			}
		}
		if best > filmOff || taken[order[i]] {
			return Film{}, false
		}
		taken[order[i]] = true
		down += (to.Y + stretchBelow - end(drawnUp[order[i]]).Y) / float64(len(t.Paths))
	}
	out := Film{Across: f.Across}
	for _, frame := range f.Frames {
		var now [][]r3.Vec
		for _, k := range order {
			now = append(now, curve.Curve{Points: frame[k]}.Map(func(v r3.Vec) r3.Vec { return r3.Add(v, r3.Vec{Y: down}) }).Points)
		}
		out.Frames = append(out.Frames, now)
	}
	return out, true
}

// comesFrom is how far above or below where the knot of a film begins a strand may come to it,
// diameters: where it comes down most straightly.
const comesFrom = 0.6

// fromOn is so much of each strand as the knot of a film takes, from its end on, and what lies above
// that.
func (t Tied) fromOn(f Film, d float64) (one Tied, above [][]r3.Vec) {
	one = t
	one.Paths, one.Flat = nil, nil
	for i, p := range t.Paths {
		drawnUp := f.Frames[len(f.Frames)-1][i]
		long := d * (curve.Curve{Points: drawnUp}.Length() - stretchAbove - stretchBelow)
		at, steepest := 0, math.Inf(-1)
		for k := len(p.Points) - 1; k > 0 && long > -comesFrom*d; k-- {
			way := r3.Sub(p.Points[k], p.Points[k-1])
			long -= r3.Norm(way)
			if down := way.Y / math.Max(1e-9, r3.Norm(way)); long < comesFrom*d && down > steepest {
				at, steepest = k-1, down
			}
		}
		one.Paths = append(one.Paths, Path{Points: p.Points[at:]})
		above = append(above, append([]r3.Vec{}, p.Points[:at+1]...))
	}
	return one, above
}
