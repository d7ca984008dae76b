package loosen

import (
	"math"

	"gonum.org/v1/gonum/spatial/r3"
)

// The lists of what is near are made anew after so many steps, or when a node may have
// gone so far.
const (
	listsEvery = 25
	listsAfter = 0.2
	evenEvery  = 50
)

// step moves the knot by one step of FIRE: downhill, faster while it goes well.
func (s *state) step() {
	if s.since >= listsEvery || s.moved > listsAfter {
		s.lists()
	}
	s.forces()
	power, vv, ff := 0.0, 0.0, 0.0
	for i := range s.at {
		power += r3.Dot(s.f[i], s.v[i])
		vv += r3.Norm2(s.v[i])
		ff += r3.Norm2(s.f[i])
	}
	if power > 0 {
		mix := 0.0
		if ff > 0 {
			mix = s.alpha * math.Sqrt(vv/ff)
		}
		for i := range s.v {
			s.v[i] = r3.Add(r3.Scale(1-s.alpha, s.v[i]), r3.Scale(mix, s.f[i]))
		}
		if s.good++; s.good > 5 {
			s.dt, s.alpha = math.Min(mostStep, 1.1*s.dt), 0.99*s.alpha
		}
	} else {
		for i := range s.v {
			s.v[i] = r3.Vec{}
		}
		s.dt, s.alpha, s.good = math.Max(1e-4, 0.5*s.dt), 0.1, 0
	}
	far := 0.0
	for k := range s.from {
		if s.fixed[k] {
			continue
		}
		for i := s.from[k] + 1; i < s.to[k]-1; i++ {
			s.v[i] = r3.Add(s.v[i], r3.Scale(s.dt, s.f[i]))
			by := r3.Scale(s.dt, s.v[i])
			if n := r3.Norm(by); n > mostMove {
				by = r3.Scale(mostMove/n, by)
			}
			s.at[i] = r3.Add(s.at[i], by)
			far = math.Max(far, r3.Norm(by))
		}
		if end := s.to[k] - 1; s.spread > 0 {
			s.holdOut(k)
		} else if s.across { // it hangs towards the viewer, and goes along
			by := r3.Scale(s.dt, s.f[end])
			by.Z = 0
			if n := r3.Norm(by); n > mostMove {
				by = r3.Scale(mostMove/n, by)
			}
			s.at[end] = r3.Add(s.at[end], by)
		}
	}
	if s.ring != nil {
		s.alike()
	}
	s.since++
	s.moved += far
	if s.counted++; s.counted%evenEvery == 0 {
		s.evenly()
	}
}

// evenly spaces each strand's nodes again.
func (s *state) evenly() {
	for k := range s.from {
		if s.fixed[k] {
			continue
		}
		pts := s.at[s.from[k]:s.to[k]]
		new := even(pts, len(pts))
		copy(pts, new)
		long := 0.0
		for i := 1; i < len(new); i++ {
			long += r3.Norm(r3.Sub(new[i], new[i-1]))
		}
		s.h[k] = long / float64(len(new)-1)
		for i := s.from[k]; i < s.to[k]; i++ {
			s.v[i] = r3.Scale(0.5, s.v[i])
		}
	}
	s.lists()
}

// push parts two nodes by a force along a way between them.
func (s *state) push(i, j int32, f r3.Vec) {
	s.f[i] = r3.Add(s.f[i], f)
	s.f[j] = r3.Sub(s.f[j], f)
}

func (s *state) forces() {
	q := s.q
	for i := range s.f {
		s.f[i] = r3.Vec{}
	}
	fade := math.Min(1, 2.5*q)
	for _, p := range s.planar {
		a, b := s.at[p.i], s.at[p.j]
		way := r3.Vec{X: a.X - b.X, Y: a.Y - b.Y}
		n := r3.Norm(way)
		if n >= p.want || n < 1e-6 {
			continue
		}
		h := (s.h[s.strand[p.i]] + s.h[s.strand[p.j]]) / 2
		k := planarHard * (h / planarNode) * (h / planarNode) * fade * p.counts
		s.push(p.i, p.j, r3.Scale(k*(p.want-n)/n, way))
	}
	for _, c := range s.apart {
		mid := func(p [2]int32) r3.Vec { return r3.Scale(0.5, r3.Add(s.at[p[0]], s.at[p[1]])) }
		way := r3.Sub(mid(c.a), mid(c.b))
		way.Z = 0
		n, want := r3.Norm(way), crossFar*q*s.grown
		if n >= want || n < 1e-6 {
			continue
		}
		f := r3.Scale(0.5*crossHard*fade*(want-n)/n, way)
		for k := range 2 {
			s.push(c.a[k], c.b[k], f)
		}
	}
	touch := touchTight + (touchLoose-touchTight)*q
	for _, p := range s.touch {
		way := r3.Sub(s.at[p.i], s.at[p.j])
		n := r3.Norm(way)
		if want := touch * p.want; n < want && n > 1e-9 {
			s.push(p.i, p.j, r3.Scale(touchHard*(want-n)/n, way))
		}
	}
	pull := 1 - 0.5*q
	if s.grows > 0 { // out of its row a knot that is repeated is no shortest one, and would shrink first
		now := s.inKnot()
		s.longest = math.Max(s.longest, now)
		pull = pull*math.Max(0, math.Min(1, (now/s.grows-1)/pullFrom)) - shrinkHard*(1-now/s.longest)
	}
	flat := flatHard * math.Min(1, 1.5*q)
	radius := bendTight + (bendLoose-bendTight)*q
	hold := 0.0
	if q < heldUnder && !s.free {
		hold = holdHard * (1 - q/heldUnder)
		if s.grows > 0 {
			hold *= s.steady
		}
	}
	hold += s.onto
	for k := range s.from {
		if s.fixed[k] {
			continue
		}
		h := s.h[k]
		var hangs r3.Vec
		if s.across {
			hangs = s.hangs(k)
			end := s.to[k] - 1
			s.tail(k, end, 1-s.law[end], hangs)
		}
		stiff := math.Min(15, (0.02+0.6*q)/(h*h*h))
		m := max(1, int(bendArc/2/h+0.5))
		for i := s.from[k]; i < s.to[k]-1; i++ {
			edge := r3.Sub(s.at[i+1], s.at[i])
			if n := r3.Norm(edge); n > 1e-9 {
				f := r3.Scale(pull/n, edge)
				s.f[i] = r3.Add(s.f[i], f)
				s.f[i+1] = r3.Sub(s.f[i+1], f)
			}
		}
		for i := s.from[k] + 1; i < s.to[k]-1; i++ {
			bend := r3.Sub(r3.Add(s.at[i-1], s.at[i+1]), r3.Scale(2, s.at[i]))
			f := r3.Scale(stiff, bend)
			s.f[i] = r3.Add(s.f[i], r3.Scale(2, f))
			s.f[i-1] = r3.Sub(s.f[i-1], f)
			s.f[i+1] = r3.Sub(s.f[i+1], f)
			s.f[i].Z -= flat * s.law[i] * math.Max(-flatMost, math.Min(flatMost, s.at[i].Z-s.mid))
			if loose := 1 - s.law[i]; s.across {
				s.tail(k, i, loose, hangs)
			} else if loose > 0 {
				line := s.nearestTight(k, i)
				s.f[i].X += tailHard * loose * (line.X - s.at[i].X)
				s.f[i].Z += tailHard * loose * (line.Z - s.at[i].Z)
			} else if up := s.top - s.at[i].Y; up > 0 {
				s.f[i].Y += topHard * up
			}
			if hold > 0 {
				along := r3.Sub(s.at[i+1], s.at[i-1])
				off := r3.Sub(s.nearestTight(k, i), s.at[i])
				if n := r3.Norm2(along); n > 1e-12 {
					off = r3.Sub(off, r3.Scale(r3.Dot(off, along)/n, along))
				}
				s.f[i] = r3.Add(s.f[i], r3.Scale(hold, off))
			}
		}
		for i := s.from[k]; i+2*m < s.to[k]; i++ {
			j := i + 2*m
			arc := 2 * float64(m) * h
			if arc > math.Pi*radius {
				arc = math.Pi * radius
			}
			want := 2 * radius * math.Sin(arc/(2*radius))
			way := r3.Sub(s.at[i], s.at[j])
			if n := r3.Norm(way); n < want && n > 1e-9 {
				s.push(int32(i), int32(j), r3.Scale(bendHard*h*(want-n)/n, way))
			}
		}
	}
}

// tail keeps straight what stands behind the picture, where it comes in, and what hangs before
// it, at hangs, where the knot takes it.
func (s *state) tail(k, i int, loose float64, hangs r3.Vec) {
	if loose == 0 {
		return
	}
	line := hangs
	if s.at[i].Z < s.mid {
		line = r3.Add(s.nearestTight(k, i), s.out(s.tightOf[k][0], s.spread))
	}
	s.f[i].X += tailHard * loose * (line.X - s.at[i].X)
	s.f[i].Y += tailHard * loose * (line.Y - s.at[i].Y)
}

// out is how far out from its tight place a strand is held that stands or hangs there, where it is
// so far when the knot is loose.
func (s *state) out(tight r3.Vec, by float64) r3.Vec {
	way := r3.Sub(tight, s.axis)
	way.Z = 0
	if n := r3.Norm(way); n > 0 {
		return r3.Scale(by*math.Min(1, s.q/spreadAt)/n, way)
	}
	return r3.Vec{}
}

// holdOut holds both ends of a strand as far out as hands do.
func (s *state) holdOut(k int) {
	pts := s.tightOf[k]
	n := len(pts) - 1
	s.at[s.from[k]] = r3.Add(pts[0], s.out(pts[0], s.spread))
	s.at[s.to[k]-1] = r3.Add(pts[n], s.out(pts[n], s.spread+endsOut))
}

// hangs is where a strand hangs before the picture: where it is held, or the middle of what no law
// of it holds.
func (s *state) hangs(k int) r3.Vec {
	end := s.to[k] - 1
	if s.spread > 0 {
		return s.at[end]
	}
	sum, n := s.at[end], 1.0
	for i := end - 1; i > s.from[k] && s.law[i] == 0; i-- {
		sum, n = r3.Add(sum, s.at[i]), n+1
	}
	return r3.Scale(1/n, sum)
}

// nearestTight is the place of the tight strand that is nearest to a node.
func (s *state) nearestTight(k, i int) r3.Vec {
	pts := s.tightOf[k]
	at := i - s.from[k]
	const reach = 24
	best, near := at, math.Inf(1)
	for j := max(0, at-reach); j <= min(len(pts)-1, at+reach); j++ {
		if d := r3.Norm2(r3.Sub(pts[j], s.at[i])); d < near {
			best, near = j, d
		}
	}
	return pts[best]
}
