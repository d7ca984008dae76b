package cover

import (
	"cmp"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Rounds leads strands, so many of them side by side, along tracks that lie side by
// side, once round after the other: each goes on, where it has come round, on the track
// beside those of its neighbours. A track meets so many others on its way; out is how far
// out a place lies. The strands are moved clear of one another.
//
// A strand begins and ends under the bands on either side of the place where rounds are
// changed, out of sight; the band is one strand narrower there.
func Rounds(tracks [][]r3.Vec, side, meets int, out func(r3.Vec) float64) [][]r3.Vec {
	var strands []tighten.Strand
	var lines [][]r3.Vec
	for _, w := range waysOf(tracks, side, meets, false, out) {
		strands = append(strands, tighten.Strand{Route: w.path, Diameter: 1})
		lines = append(lines, w.path)
	}
	if side < len(tracks) { // where they step over they were laid by hand
		parted, _ := tighten.Part(strands)
		for i, c := range parted {
			lines[i] = c.Points
		}
	}
	return lines
}

// waysOf are the ways of [Rounds]. Where a strand laps, its end goes on over the place
// where rounds are changed, beside them.
func waysOf(tracks [][]r3.Vec, side, meets int, lap bool, out func(r3.Vec) float64) []way {
	laps := lapsOf(tracks, meets, out)
	ways := make([]way, side)
	for i := range side {
		w := way{path: laps[i].track}
		if last := len(laps) - side; last > 0 {
			// Where it began the next round comes in, and where it ends the one
			// before went out.
			w.path = slices.Clone(w.path[laps[i].step:])
			for k := i + side; k < len(laps); k += side {
				w.follow(laps[k], laps[k-side])
			}
			w.path = w.path[:len(w.path)-laps[last+i].step]
			if lap {
				w.changes = append(w.changes, [2]int{len(w.path) - laps[i].step, len(w.path) + 2*laps[i].step})
				w.path = append(w.path, laps[i].over(laps[last+i], laps[last+i-side].beyond(laps[last+i]))...)
			}
		}
		ways[i] = w
	}
	return ways
}

// way is the path of a strand through its rounds, and the stretches of it where it goes
// over from one to the next.
type way struct {
	path    []r3.Vec
	changes [][2]int
}

// follow takes a way that has come round on one lap over to another, and once round on it.
func (w *way) follow(l, last lap) {
	from := len(w.path) - l.step
	w.changes = append(w.changes, [2]int{from - l.step, from + 3*l.step})
	w.path = append(append(w.path[:from], l.over(last, l)...), l.track[l.step:]...)
}

// cleared moves the strands clear of one another and of a core where they change rounds:
// there they were laid by hand. Elsewhere they stay as they were drawn up.
func cleared(ways []way, core float64) [][]r3.Vec {
	const joins = 6 // nodes of what lies still beside a stretch that are not kept clear of
	out := make([][]r3.Vec, len(ways))
	var moving, still []tighten.Strand
	put := func(pts []r3.Vec) {
		if len(pts) > 2*joins {
			still = append(still, tighten.Strand{Route: pts[joins : len(pts)-joins], Diameter: 1})
		}
	}
	for i, w := range ways {
		out[i] = w.path
		last := 0
		for _, c := range w.changes {
			from, to := max(c[0], last), min(c[1], len(w.path))
			put(w.path[last:from])
			moving = append(moving, tighten.Strand{Route: w.path[from:to], Diameter: 1})
			last = to
		}
		put(w.path[last:])
	}
	if len(moving) == 0 {
		return out
	}
	parted, _ := tighten.PartRound(core, moving, still...)
	n := 0
	for i, w := range ways {
		var path []r3.Vec
		last := 0
		for _, c := range w.changes {
			from, to := max(c[0], last), min(c[1], len(w.path))
			path = append(append(path, w.path[last:from]...), parted[n].Points...)
			last, n = to, n+1
		}
		out[i] = append(path, w.path[last:]...)
	}
	return out
}

// once is a track of one pass from a place on the back where it lies under another, which
// it begins by going under, once round to there.
func (c Cover) once(track int) []r3.Vec {
	const before, short = 1, 2 // nodes; its end stops short of its beginning
	t := c.Tracks[track]
	n := len(t)
	at := 0
	for i, share := range c.unders[track] {
		if k := int(share * float64(n)); i == 0 || t[k].Z < t[at].Z {
			at = k
		}
	}
	from := (at - before + n) % n
	return slices.Concat(t[from:], t[:from])[:n-short]
}

// Ended are the rounds of one strand on tracks that lie side by side, changed at a bight of
// the first edge, the one farthest to a side: the first round is the outermost there, so
// that no change crosses anything. The strand begins a little after that bight and ends a
// little before it, as far as a share of a diameter.
func (c Cover) Ended(side r3.Vec, before float64) []r3.Vec {
	apex := func(t []r3.Vec) int {
		best, most := 0, math.Inf(-1)
		for k, v := range t {
			a, b := t[(k+len(t)-1)%len(t)], t[(k+1)%len(t)]
			if v.Y <= a.Y && v.Y < b.Y && v.Y < -(c.High-1)/2+float64(c.Passes)+0.3 {
				if s := r3.Dot(v, side); s > most {
					best, most = k, s
				}
			}
		}
		n, low := len(t), best
		for k := best - n/(2*c.passed()); k <= best+n/(2*c.passed()); k++ { // a bight may have two tops
			if at := (k + n) % n; t[at].Y < t[low].Y {
				low = at
			}
		}
		return low
	}
	tracks := slices.Clone(c.Tracks)
	for i, t := range tracks {
		k := apex(t)
		tracks[i] = slices.Concat(t[k:], t[:k])
	}
	slices.SortFunc(tracks, func(a, b []r3.Vec) int { return cmp.Compare(a[0].Y, b[0].Y) })
	n := len(tracks[0])
	step := int(before * float64(n) / c.Pass)
	const wide = 3 // times that, over which rounds are changed
	w := way{path: slices.Clone(tracks[0][step:])}
	for j := 1; j < len(tracks); j++ {
		w.follow(lap{tracks[j], wide * step}, lap{tracks[j-1], wide * step})
	}
	return w.path[:len(w.path)-step]
}

// lap is once round on a track, from the place where rounds are changed.
type lap struct {
	track []r3.Vec
	step  int // nodes on either side of that place over which a strand steps over
}

// lapsOf are the tracks, all of them from where the band that they make lies farthest out
// over another, on the back. Strands that are led side by side step over side by side
// there, from the places of one round to those of the next, and none crosses another;
// what begins and ends does so under the bands next to it, out of sight.
func lapsOf(tracks [][]r3.Vec, meets int, out func(r3.Vec) float64) []lap {
	n := len(tracks[0])
	far := func(k int) (sum float64) { // how far out the band lies
		for _, t := range tracks {
			sum += out(t[(k+n)%n])
		}
		return sum
	}
	most := 0.0
	for k := range n {
		most = math.Max(most, far(k))
	}
	over := -1 // of the places that lie as far out, that on the back
	for k := range n {
		const nearly = 0.99
		if far(k) > nearly*most && (over < 0 || tracks[0][k].Z < tracks[0][over].Z) {
			over = k
		}
	}
	step := n / meets // where it lies deepest, about one band on
	for k := n / (2 * meets); k < n*3/(2*meets); k++ {
		if far(over+k)+far(over-k) < far(over+step)+far(over-step) {
			step = k
		}
	}
	laps := make([]lap, len(tracks))
	for j, t := range tracks {
		// The same place of the band: the nearest one not far along.
		from := over
		for k := over - 4*n/(3*meets); k <= over+4*n/(3*meets); k++ {
			if at := (k + n) % n; r3.Norm2(r3.Sub(t[at], tracks[0][over])) < r3.Norm2(r3.Sub(t[from], tracks[0][over])) {
				from = at
			}
		}
		laps[j] = lap{slices.Concat(t[from:], t[:from]), step}
	}
	return laps
}

// over steps over from a lap to another at the place where rounds are changed.
func (l lap) over(from, to lap) []r3.Vec {
	var out []r3.Vec
	for k := -l.step; k < l.step; k++ {
		at := func(t []r3.Vec) r3.Vec { return t[(k+len(t))%len(t)] }
		out = append(out, curve.Lerp(at(from.track), at(to.track), curve.Smooth(float64(k+l.step)/float64(2*l.step))))
	}
	return out
}

// beyond is the lap that would lie on the other side of another.
func (l lap) beyond(other lap) lap {
	out := lap{step: other.step}
	for k, v := range other.track {
		out.track = append(out.track, r3.Sub(r3.Scale(2, v), l.track[k]))
	}
	return out
}
