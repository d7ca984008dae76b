package loosen

import (
	"fmt"
	"maps"
	"math"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// What a film must be for a maker to tie from it.
const (
	leastGap     = 0.93 // diameters between strands, in all frames; or that of the tight knot
	gapOff       = 0.03 // less than which none has
	leastWay     = 0.8  // and on the way from one frame to the next
	leastGrowth  = 1.2  // times the tight knot's cord
	mostCrossing = 20   // of the loose knot, a strand
	mostJump     = 3.05 // diameters that a strand moves from frame to frame
	mostReach    = 30.0 // diameters from where strands come in: what can be looked at whole
	straight     = 0.1  // diameters by which what hangs is off a line
	leastDot     = 0.5  // diameters from a strand to where another is seen as a dot: nearer it hides its middle
	overOthers   = 1.15 // times, by which a loose knot may cross more than the tight one does
)

// Readable says what keeps a film from being tied from; nil where nothing does.
func (f Film) Readable() error {
	n := len(f.Frames)
	least := math.Min(leastGap, f.Gap(n-1)-gapOff)
	cord := func(k int) float64 { return f.Length(k) - float64(len(f.Frames[k]))*(tailAbove+tailBelow) }
	for k := range f.Frames {
		if g := f.Gap(k); g < least {
			return fmt.Errorf("in frame %d strands are %.2f diameters apart", k, g)
		}
		if k > 0 && f.Length(k) >= f.Length(k-1) {
			return fmt.Errorf("frame %d is no shorter than the one before", k)
		}
		if k > 0 {
			if j := f.jump(k); j > mostJump {
				return fmt.Errorf("a strand moves %.1f diameters to frame %d", j, k)
			}
			if g := f.Passing(k - 1); g < leastWay {
				return fmt.Errorf("on the way to frame %d strands pass %.2f diameters apart", k, g)
			}
		}
	}
	if r := f.reach(); r > mostReach {
		return fmt.Errorf("loose it reaches %.0f diameters far", r)
	}
	if g := cord(0) / math.Max(1e-9, cord(n-1)); g < leastGrowth {
		return fmt.Errorf("it grows %.2f-fold only", g)
	}
	tight, err := curve.Crossings(f.led(n - 1))
	if err != nil {
		return fmt.Errorf("loosen: the tight knot: %w", err)
	}
	aside, err := curve.Crossings(f.ledFar(n - 1))
	if err != nil {
		return fmt.Errorf("loosen: the tight knot: %w", err)
	}
	var loose []curve.Crossing
	for k := n - 2; k >= 0; k-- {
		if loose, err = curve.Crossings(f.ledFar(k)); err != nil {
			return fmt.Errorf("loosen: frame %d: %w", k, err)
		}
		if !maps.Equal(wound(loose), wound(aside)) {
			return fmt.Errorf("in frame %d strands are wound otherwise than in the tight knot", k)
		}
	}
	if loose, err = curve.Crossings(f.led(0)); err != nil {
		return fmt.Errorf("loosen: the loose knot: %w", err)
	}
	most := overOthers * float64(len(tight))
	if f.Across { // where a strand stands it is hidden behind one that it may cross when it is loose
		most = float64(len(tight) + len(f.Frames[0]))
	}
	if n := mostCrossing * len(f.Frames[0]); len(loose) > n {
		return fmt.Errorf("loose it crosses %d times; up to %d can be read", len(loose), n)
	}
	if float64(len(loose)) > most {
		return fmt.Errorf("loose it crosses %d times, tight %d times", len(loose), len(tight))
	}
	if f.Across {
		if a, b := own(loose), own(tight); a > b {
			return fmt.Errorf("loose strands cross themselves %d times, tight %d times", a, b)
		}
		if n := f.behind(); n > 0 {
			return fmt.Errorf("held apart, strands come out behind others %d times", n)
		}
		if d := f.dots(); d < leastDot {
			return fmt.Errorf("a strand passes %.2f diameters beside where one stands or hangs", d)
		}
	}
	return nil
}

// reach is how far the loose knot reaches from where strands come in, diameters: what then hangs
// straight need not be looked at.
func (f Film) reach() float64 {
	most := 0.0
	for _, pts := range f.Frames[0] {
		end := pts[len(pts)-1]
		hangs := len(pts) - 1
		for hangs > 0 && math.Hypot(pts[hangs-1].X-end.X, pts[hangs-1].Z-end.Z) < straight {
			hangs--
		}
		for _, v := range pts[:hangs+1] {
			most = math.Max(most, r3.Norm(v))
		}
	}
	return most
}

// own is how often strands cross themselves.
func own(found []curve.Crossing) int {
	n := 0
	for _, c := range found {
		if c.Over == c.Under {
			n++
		}
	}
	return n
}

// behind is how often strands that are held apart cross others in the picture of the loose knot, on
// their way out from where they come in when it is drawn up.
func (f Film) behind() int {
	from, to := f.curves(len(f.Frames)-1), f.curves(0)
	var all []curve.Curve
	for i := range to {
		a, b := from[i].Points[0], to[i].Points[0]
		if a.Z, b.Z = -farOff-float64(i), -farOff-float64(i); r3.Norm(r3.Sub(a, b)) > straight {
			all = append(all, curve.Curve{Points: []r3.Vec{a, b}})
		}
	}
	out := len(all)
	found, err := curve.Crossings(append(all, f.led(0)...))
	if err != nil || out == 0 {
		return 0 // two meet in a point of the picture: what else is asked of it finds that
	}
	n := 0
	for _, c := range found {
		if c.Under < out && c.Over >= out {
			n++
		}
	}
	return n
}

// dots is how near, in the picture of the loose knot, a strand passes to where another one
// stands or hangs, diameters.
func (f Film) dots() float64 {
	least := math.Inf(1)
	led, all := f.led(0), f.curves(0)
	for i, c := range all {
		for _, dot := range []r3.Vec{c.Points[0], c.Points[len(c.Points)-1]} {
			dot.Z = 0
			for j, o := range led {
				for k := 1; k < len(o.Points) && j != i; k++ {
					a, b := o.Points[k-1], o.Points[k]
					a.Z, b.Z = 0, 0
					d, _, _ := curve.SegmentDistance(dot, dot, a, b)
					least = math.Min(least, d)
				}
			}
		}
	}
	return least
}

// wound is how often each two strands are wound about one another: the sum of the signs of
// their crossings, which nothing changes but strands that pass through one another, or over
// an end.
func wound(found []curve.Crossing) map[[2]int]int {
	out := map[[2]int]int{}
	for _, c := range found {
		if c.Over == c.Under {
			continue
		}
		pair := [2]int{min(c.Over, c.Under), max(c.Over, c.Under)}
		if out[pair] += c.Sign; out[pair] == 0 {
			delete(out, pair)
		}
	}
	return out
}

// curves are the strands of frame k as they are looked at.
func (f Film) curves(k int) []curve.Curve {
	var out []curve.Curve
	for _, pts := range Seen(f.Frames[k], f.Across) {
		out = append(out, curve.Curve{Points: pts})
	}
	return out
}

// led are the strands of frame k as they are looked at, without what is seen as a dot.
func (f Film) led(k int) []curve.Curve {
	out := f.curves(k)
	for i, c := range out {
		if f.Across {
			from, to := Aside(c.Points)
			out[i].Points = c.Points[from:to]
		}
	}
	return out
}

// farOff is how far before, behind and beside the picture strands are led on, diameters.
const farOff = 60

// ledFar are the strands of frame k, led on from where they stand, far behind the picture, and
// from where they hang, as they hang in one frame after the other till they are tight, far before
// it, and then to far beside it: so it tells nothing that one passed before another's beginning or
// behind its end, both of which are seen as dots, and ends that turn about one another while the
// knot is drawn up are still turned so.
func (f Film) ledFar(k int) []curve.Curve {
	out := f.curves(k)
	if !f.Across {
		return out
	}
	last := len(f.Frames) - 1
	for i, c := range f.curves(last) {
		begin, end := c.Points[0], c.Points[len(c.Points)-1]
		at := float64(farOff + i) // no two at one depth
		aside := r3.Vec{X: 10 * farOff, Y: float64(i)}
		behind := r3.Add(begin, r3.Vec{Z: -at})
		line := append([]r3.Vec{r3.Add(behind, aside), behind}, out[i].Points...)
		depth := end.Z
		for _, frame := range f.Frames[k:] { // all at one depth
			depth += farOff
			hangs := curve.EndOn(frame[i][len(frame[i])-1])
			line = append(line, r3.Vec{X: hangs.X, Y: hangs.Y, Z: depth})
		}
		before := r3.Vec{X: end.X, Y: end.Y, Z: depth + at}
		line = append(line, before, r3.Add(before, aside))
		out[i] = curve.Curve{Points: line}.Map(askew)
	}
	return out
}

// askew is a place as one sees it who looks a little from the side: what stands or hangs is
// a line then, and no dot that a hair would move from one side of a strand to the other.
func askew(v r3.Vec) r3.Vec { return r3.Vec{X: v.X + 0.1309017*v.Z, Y: v.Y + 0.0710678*v.Z, Z: v.Z} }

// Length is how much cord is in frame k, diameters.
func (f Film) Length(k int) float64 {
	sum := 0.0
	for _, c := range f.curves(k) {
		sum += c.Length()
	}
	return sum
}

// Gap is how near strands come to one another in frame k, and to themselves where they come
// back, in diameters from middle to middle.
func (f Film) Gap(k int) float64 {
	cs := f.curves(k)
	least := math.Inf(1)
	for i, a := range cs {
		least = math.Min(least, 1+curve.SelfGap(a, 1))
		for _, b := range cs[:i] {
			least = math.Min(least, 1+curve.Gap(a, 1, b, 1))
		}
	}
	return least
}

// smooth tells whether strands keep off one another on the way from each frame to the next.
func (f Film) smooth() bool {
	for k := range len(f.Frames) - 1 {
		if f.Passing(k) < leastWay {
			return false
		}
	}
	return true
}

// Passing is how near strands come to one another, as in [Film.Gap], on the way from frame k to the
// next: a quarter, a half and three quarters of it are looked at.
func (f Film) Passing(k int) float64 {
	least := math.Inf(1)
	for _, u := range [3]float64{0.25, 0.5, 0.75} {
		frame := make([][]r3.Vec, len(f.Frames[k]))
		for i, pts := range f.Frames[k] {
			for j, v := range pts {
				frame[i] = append(frame[i], curve.Lerp(v, f.Frames[k+1][i][j], u))
			}
		}
		least = math.Min(least, Film{Frames: [][][]r3.Vec{frame}, Across: f.Across}.Gap(0))
	}
	return least
}

// jump is how far a strand moves off its place in the frame before, to frame k.
func (f Film) jump(k int) float64 { return far(f.Frames[k], f.Frames[k-1]) }

// far is how far a strand lies off its place in another frame, at most.
func far(frame, from [][]r3.Vec) float64 {
	most := 0.0
	for i, pts := range frame {
		for _, v := range pts {
			near := math.Inf(1)
			for _, w := range from[i] {
				near = math.Min(near, r3.Norm(r3.Sub(v, w)))
			}
			most = math.Max(most, near)
		}
	}
	return most
}
