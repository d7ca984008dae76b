package berry

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knots/row"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// A berry is dressed as hands do it, before it is drawn up: hung by its ends the roll
// would not draw its lock up, for sliding a knot along straight fillers costs nothing. So
// the lock is set with the workers' ends held out sideways, it is pushed up against the
// roll, and only then are the ends led down.

// dressing is the bead of so many square knots over fillers of a thickness, in workers,
// with its lock below it, the row bent to the front with its face inward.
func dressing(squares int, filler float64) tighten.Problem {
	pitch, radius := 2.75, 3.2
	if squares == 2 {
		pitch, radius = 2.8, 2.4
	}
	radius += math.Max(0, filler-1) // thick fillers bend less
	const lockPitch = 2.5
	inward := filler/2 + 0.75 // how far the row's front may reach in
	lockBack := -2.3 * math.Max(1, filler)
	wide := 2 * filler
	x := 3.75 + (wide-2)/2              // of the workers beside the row
	more := 2.2 * math.Max(0, filler-1) // room for thick fillers between them
	end := float64(2*squares) * pitch
	bend := func(v r3.Vec) r3.Vec {
		s, c := math.Sincos(v.Y / radius)
		z := math.Min(v.Z, inward)
		return r3.Vec{X: v.X, Y: (radius - z) * s, Z: radius - (radius-z)*c}
	}
	p := tighten.Problem{}
	for side, phase := range [2]float64{0, math.Pi} {
		to := float64(2*side - 1)
		at := func(x, y, z float64) r3.Vec { return r3.Vec{X: to * x, Y: y, Z: z} }
		halves := func(n int, pitch, from float64, lay func(r3.Vec) r3.Vec) (out []r3.Vec) {
			for k := range n {
				for _, v := range row.HalfKnot(wide, filler, 1, phase) {
					if k%2 == 1 {
						v.X = -v.X
					}
					v.Y += float64(k)*pitch + from
					out = append(out, lay(v))
				}
			}
			return out
		}
		way := slices.Concat([]r3.Vec{at(2.2+more, -9, 0), at(2.8+more, -4, 0), at(x, -1.2, 0)},
			halves(2*squares, pitch, -0.2, bend),
			[]r3.Vec{bend(at(1.15*x, end+0.3, 0)), at(1.3*x, 0.3, 0.55*radius), at(1.25*x, radius-0.2, -1.1)},
			halves(2, lockPitch, radius+0.3, func(v r3.Vec) r3.Vec { return r3.Vec{X: v.X, Y: v.Y, Z: v.Z + lockBack} }),
			[]r3.Vec{at(1.25*x, radius+5.1, lockBack), at(1.75*x, radius+2.9, -2.6), at(2.13*x, radius-2.6, -2.8)})
		p.Strands = append(p.Strands, tighten.Strand{Route: way, Diameter: 1})
	}
	back := lockBack
	for _, to := range [2]float64{-1, 1} {
		at := func(x, y, z float64) r3.Vec { return r3.Vec{X: to * x * filler, Y: y, Z: z} }
		way := []r3.Vec{at(1.4, -9, 0), at(1.6, -6, 0), at(1.75, -radius, 0), at(1.5, -1.6, 0), at(0.9, -0.4, 0)}
		for k := range 9 {
			way = append(way, bend(at(0.53, 0.8+(end-1)*float64(k)/8, 0)))
		}
		way = append(way, at(0.53, -radius-0.1, 0.55*filler), at(0.53, -radius+0.1, -0.7*filler), at(0.53, -radius+1.3, -1.9*filler))
		for _, y := range []float64{-0.2, radius + 2, radius + 6, radius + 10} {
			way = append(way, at(0.53, y, back))
		}
		p.Strands = append(p.Strands, tighten.Strand{Route: way, Diameter: filler, Pull: 1.5})
	}
	return p
}

// Dress dresses a berry: what is drawn up begins with these lines.
func Dress(ctx context.Context, squares int, filler float64) ([][]r3.Vec, error) {
	lines, err := drawn(ctx, dressing(squares, filler), tighten.Settings{PerDiameter: []float64{3}, Still: 6e-4})
	if err != nil {
		return nil, fmt.Errorf("dressing a berry of %d with its ends held out: %w", squares, err)
	}
	// The lock is pushed up against the roll, a little at a time, till it touches.
	const step, most, touches = 0.8, 16, 1.06
	lie := partsOf(lines)
	for range most {
		off := lie.apart(lines)
		if off < touches {
			break
		}
		pushed := lie.pushedUp(lines, math.Min(step, off-1+0.02))
		next, err := drawn(ctx, strung(pushed, filler), tighten.Settings{PerDiameter: []float64{3}, MaxSteps: 16000, Still: 1e-4, Warm: true})
		var moving *tighten.NotDrawnUp
		if errors.As(err, &moving) {
			break // it goes no farther: what follows starts from where it rested last
		}
		if err != nil {
			return nil, fmt.Errorf("pushing the lock of a berry of %d up: %w", squares, err)
		}
		lines = next
	}
	return tailsDown(lines), nil
}

func drawn(ctx context.Context, p tighten.Problem, set tighten.Settings) ([][]r3.Vec, error) {
	r, err := tighten.DrawUp(ctx, p, set)
	if err != nil {
		return nil, err
	}
	var out [][]r3.Vec
	for _, s := range r.Strands {
		out = append(out, s.Points)
	}
	return out, nil
}

// strung are the two workers and the two fillers of a berry as a problem. The fillers are
// pulled twice as hard.
func strung(lines [][]r3.Vec, filler float64) tighten.Problem {
	p := tighten.Problem{}
	for i, line := range lines {
		s := tighten.Strand{Route: line, Diameter: 1}
		if i >= 2 {
			s.Diameter, s.Pull = filler, 2
		}
		p.Strands = append(p.Strands, s)
	}
	return p
}

// parts are how much of each worker, from its beginning, lies in the roll, and how much,
// from its end, in the lock and beyond.
type parts [2]struct{ roll, lock float64 }

// partsOf parts the workers at what stands bare between roll and lock: the longest bare
// stretch that is neither above the roll nor below the lock.
func partsOf(lines [][]r3.Vec) parts {
	var out parts
	for i, line := range lines[:2] {
		const touching = 1.2
		first, last := -1, 0
		bare := make([]bool, len(line))
		for k, v := range line {
			bare[k] = nearest(lines, i, v) > touching
			if !bare[k] {
				last = k
				if first < 0 {
					first = k
				}
			}
		}
		arc := arcs(line)
		const inRoll = 0.4 // of a worker lies in the roll at least
		for arc[first] < inRoll*arc[len(arc)-1] {
			first++
		}
		a, b := first, first
		for k := first; k < last; k++ {
			e := k
			for e < last && bare[e] {
				e++
			}
			if e-k > b-a {
				a, b = k, e
			}
			k = max(k, e)
		}
		out[i].roll, out[i].lock = arc[a], arc[len(arc)-1]-arc[b]
	}
	return out
}

// split are the nodes of the workers in the roll and in the lock, without those where a
// worker goes on from the one to the other.
func (p parts) split(lines [][]r3.Vec) (roll, lock []r3.Vec) {
	const joins = 2.5
	for i, line := range lines[:2] {
		arc := arcs(line)
		for k, v := range line {
			switch {
			case arc[k] < p[i].roll-joins:
				roll = append(roll, v)
			case arc[len(arc)-1]-arc[k] < p[i].lock-joins:
				lock = append(lock, v)
			}
		}
	}
	return roll, lock
}

// apart is how far the workers of the lock lie from those of the roll.
func (p parts) apart(lines [][]r3.Vec) float64 {
	roll, lock := p.split(lines)
	least := math.Inf(1)
	for _, u := range roll {
		for _, v := range lock {
			least = math.Min(least, r3.Norm(r3.Sub(u, v)))
		}
	}
	return least
}

func arcs(line []r3.Vec) []float64 {
	out := make([]float64, len(line))
	for k := 1; k < len(line); k++ {
		out[k] = out[k-1] + r3.Norm(r3.Sub(line[k], line[k-1]))
	}
	return out
}

// nearest is how far a place lies from the lines other than one.
func nearest(lines [][]r3.Vec, than int, v r3.Vec) float64 {
	least := math.Inf(1)
	for j, other := range lines {
		for _, u := range other {
			if j != than {
				least = math.Min(least, r3.Norm(r3.Sub(u, v)))
			}
		}
	}
	return least
}

// pushedUp shortens what stands bare between roll and lock.
func (p parts) pushedUp(lines [][]r3.Vec, by float64) (out [][]r3.Vec) {
	middle := func(pts []r3.Vec, of func(r3.Vec) bool) r3.Vec {
		sum, n := r3.Vec{}, 0.0
		for _, v := range pts {
			if of(v) {
				sum, n = r3.Add(sum, v), n+1
			}
		}
		return r3.Vec{Y: sum.Y / n, Z: sum.Z / n}
	}
	ofRoll, ofLock := p.split(lines)
	roll := middle(ofRoll, func(v r3.Vec) bool { return v.Z > 0.8 })
	lock := middle(ofLock, func(v r3.Vec) bool { return math.Abs(v.X) < 3.2 })
	way := r3.Unit(r3.Sub(lock, roll))
	along := func(v r3.Vec) float64 { return r3.Dot(r3.Sub(v, roll), way) }
	begins := along(lock) - 1.6 // of the lock
	from := 0.45 * along(lock)
	for _, line := range lines {
		pts := make([]r3.Vec, len(line))
		for i, v := range line {
			share := math.Max(0, math.Min(1, (along(v)-from)/(begins-from)))
			pts[i] = r3.Sub(v, r3.Scale(by*share, way))
		}
		out = append(out, pts)
	}
	return out
}

// tailsDown leads the workers' ends, which were held out sideways, down over a quarter
// turn from where they leave the lock.
func tailsDown(lines [][]r3.Vec) [][]r3.Vec {
	const radius, touching, every = 1.2, 1.15, 0.35
	low := lines[2][len(lines[2])-1].Y
	out := slices.Clone(lines)
	for i, line := range lines[:2] {
		last := len(line) - 1
		for nearest(lines, i, line[last]) > touching {
			last--
		}
		last += 2
		at, dir, down := line[last], r3.Unit(r3.Sub(line[last], line[last-2])), r3.Vec{Y: 1}
		turn := math.Acos(r3.Dot(dir, down))
		in := r3.Cross(r3.Unit(r3.Cross(dir, down)), dir) // to the middle of the turn
		pts := slices.Clone(line[:last+1])
		for k := 1; k <= 8; k++ {
			s, c := math.Sincos(turn * float64(k) / 8)
			pts = append(pts, r3.Add(at, r3.Add(r3.Scale(radius*(1-c), in), r3.Scale(radius*s, dir))))
		}
		for v := pts[len(pts)-1]; v.Y < low; {
			v.Y += every
			pts = append(pts, v)
		}
		out[i] = pts
	}
	return out
}
