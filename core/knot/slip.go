package knot

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Slip is what hands do otherwise than they should while they tie a section. It is for a picture
// of what comes of it; nothing is measured by it.
type Slip struct {
	// Crossed is the first of two neighbours, counted from 1, that come to the section crossed:
	// each stands in the place of the other. 0 for none.
	Crossed int
	// Astray has what runs beside a part that was led before, as a second round does, lie on its
	// other side for a stretch of the last move in which it does so.
	Astray bool
}

// What runs beside a part that was led before lies so near to it, runs so much along it, and does
// so for so long; it goes astray over so much, and comes over in so much. Diameters, and a cosine.
const (
	besideAt   = 1.6
	besideDot  = 0.85
	besideLong = 3.0
	astrayLong = 9.0
	astrayOver = 2.0
	besideSelf = 6.0 // of a strand between two places that lie beside one another
)

// run is some of a strand, from one node to another, and for each of its nodes which node of
// which strand it runs beside.
type run struct {
	strand   int
	from, to int
	beside   [][2]int
}

// besides is the longest stretch of a strand, within shares of its way, that runs beside what is
// led before it: of every curve so large a share, and of its own what lies before.
func besides(curves []curve.Curve, strand int, from, to float64, led []float64, d float64) (run, bool) {
	c := curves[strand]
	n := float64(len(c.Points) - 1)
	arc := make([]float64, len(c.Points))
	for i := 1; i < len(c.Points); i++ {
		arc[i] = arc[i-1] + r3.Norm(r3.Sub(c.Points[i], c.Points[i-1]))
	}
	along := func(pts []r3.Vec, i int) r3.Vec {
		return r3.Unit(r3.Sub(pts[min(i+1, len(pts)-1)], pts[max(i-1, 0)]))
	}
	best, now := run{}, run{from: -1}
	close := func(at int) {
		if now.from >= 0 && arc[at]-arc[now.from] > arc[best.to]-arc[best.from] {
			now.to = at
			best = now
		}
		now = run{from: -1}
	}
	last := int(to * n)
	for i := int(math.Ceil(from * n)); i <= last; i++ {
		near, at := besideAt*d, [2]int{}
		found := false
		for k, o := range curves {
			for j, v := range o.Points {
				if k == strand && arc[j] > arc[i]-besideSelf*d || k != strand && float64(j) > led[k]*float64(len(o.Points)-1) {
					break
				}
				if off := r3.Norm(r3.Sub(v, c.Points[i])); off < near && math.Abs(r3.Dot(along(o.Points, j), along(c.Points, i))) > besideDot {
					near, at, found = off, [2]int{k, j}, true
				}
			}
		}
		if !found {
			close(i - 1)
			continue
		}
		if now.from < 0 {
			now = run{strand: strand, from: i}
		}
		now.beside = append(now.beside, at)
	}
	close(last)
	return best, len(best.beside) > 0 && arc[best.to]-arc[best.from] >= besideLong*d
}

// astray is a strand that lies on the other side of what it runs beside, over the part of the
// run that is seen best, and passes over it on the way there and back; the curves may stand wider
// than those that the run was found on. Around is set where it lies round the work's axis. It is
// constructed.
func astray(curves [][]r3.Vec, s run, around bool, d float64) []r3.Vec {
	pts := curves[s.strand]
	out := append([]r3.Vec(nil), pts...)
	arc := make([]float64, len(pts))
	for i := s.from + 1; i <= s.to; i++ {
		arc[i] = arc[i-1] + r3.Norm(r3.Sub(pts[i], pts[i-1]))
	}
	long := math.Min(arc[s.to], astrayLong*d)
	from, most := s.from, math.Inf(-1)
	for i := s.from; i <= s.to && arc[i]+long <= arc[s.to]+1e-9; i++ {
		sum, n := 0.0, 0.0
		for j := i; j <= s.to && arc[j] <= arc[i]+long; j++ {
			sum, n = sum+pts[j].Z, n+1
		}
		if sum/n > most {
			from, most = i, sum/n
		}
	}
	over := math.Min(astrayOver*d, long/3)
	for i := from; i <= s.to && arc[i] <= arc[from]+long; i++ {
		in, left := arc[i]-arc[from], arc[from]+long-arc[i]
		w := curve.Smooth(math.Min(1, in/over)) * curve.Smooth(math.Min(1, left/over))
		b := s.beside[i-s.from]
		off := r3.Sub(curves[b[0]][b[1]], pts[i])
		out[i] = r3.Add(pts[i], r3.Scale(2*w, off))
		up := r3.Vec{Z: 1}
		if around {
			if a := math.Hypot(pts[i].X, pts[i].Z); a > 0 {
				up = r3.Vec{X: pts[i].X / a, Z: pts[i].Z / a}
			}
		}
		out[i] = r3.Add(out[i], r3.Scale(4*w*(1-w)*d, up))
	}
	return out
}

// strays finds the last move up to an action that follows what was led before, counted from 1,
// and where it does; 0 where none does. The curves are those of the strands and own cords.
func strays(curves []curve.Curve, moves []move.Move, upTo []float64, action int, d float64) (run, int) {
	for k := min(action, len(moves)-1); k >= 0; k-- {
		m := moves[k]
		if !m.Follows || m.Strand < 0 {
			continue
		}
		led := make([]float64, len(curves))
		for s := range curves {
			led[s] = ledUpTo(moves, upTo, s, k-1, 1)
		}
		if r, ok := besides(curves, m.Strand, led[m.Strand], upTo[k], led, d); ok {
			return r, k + 1
		}
	}
	return run{}, 0
}

// goneAstray are the paths of a knot in hand with the last move gone astray that runs beside what
// was led before, and which move that is.
func (t Tied) goneAstray(upTo []float64, action int, d float64) (paths, own []Path, at int) {
	all := slices.Concat(t.Paths, t.Own)
	curves, pts := make([]curve.Curve, len(all)), make([][]r3.Vec, len(all))
	for i, p := range all {
		curves[i], pts[i] = curve.Curve{Points: p.Points}, p.Points
	}
	r, at := strays(curves, t.Moves, upTo, action, d)
	if at > 0 {
		all[r.strand] = Path{Points: astray(pts, r, t.Around, d)}
	}
	return all[:len(t.Paths)], all[len(t.Paths):], at
}
