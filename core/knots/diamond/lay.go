package diamond

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/hitch"

	"gonum.org/v1/gonum/spatial/r3"
)

// mostHitches is how many hitches a section of diamonds may have: more cannot be drawn in
// one.
const mostHitches = 360

// apart is how much farther out the corners are where a square knot stands between them,
// diameters.
const apart = 0.7

// frames are a row of diamonds by the lines that its fillers run on, mm. The left and the
// right line of one cross at its apex and at its tip, which is the apex of the next.
type frames struct {
	knot.Work
	set      Settings
	h, m     int // strands and hitches a side
	ribs     hitch.Row
	d, tall  float64
	sin, cos float64
	arm, run float64 // along a line from the crossing to its first hitch, and to the corner
	extra    float64 // by which the corners are led down straight
	apex     []float64
	tip      []float64
	lines    []line
	beads    []knot.BeadAt
}

// line is the way of a strand as far as it is laid, and where it heads.
type line struct {
	pts []r3.Vec
	dir r3.Vec
}

// to leads it on to other points, which are entered and left in a direction.
func (l *line) to(next []r3.Vec, in, out r3.Vec) {
	if len(l.pts) == 0 {
		l.pts = slices.Clone(next)
	} else {
		l.pts = append(l.pts, knot.JoinClose(l.pts[len(l.pts)-1], next[0], l.dir, in)...)
		l.pts = append(l.pts, next[1:]...)
	}
	l.dir = out
}

var straightDown = r3.Vec{Y: 1}

// layDiamonds lays a row of diamonds.
func layDiamonds(w knot.Work, count int) (knot.Tied, error) {
	n := len(w.Strands)
	f := frames{Work: w, set: knot.Of[Settings](w.Section), h: n / 2, m: n/2 - 1}
	switch {
	case n%2 != 0:
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("a diamond needs an even number of strands, as many on each side; it has %d", n), Set: evenPlaces(w.Section.Strands, n), Label: "Leave the last strand out"}
	case n < 4:
		return knot.Tied{}, fmt.Errorf("a diamond needs four strands or more; it has %d", n)
	case f.set.Inside == "square-knot" && n < 6:
		return knot.Tied{}, &knot.Refused{Field: "inside", Why: fmt.Sprintf("a square knot inside needs the four middle strands of six or more; the diamond has %d", n), Set: "empty", Label: "Leave it empty inside"}
	}
	if most := max(1, mostHitches/(4*f.m+1)); count > most {
		return knot.Tied{}, &knot.Refused{Field: "count", Why: fmt.Sprintf("%d of them on %d strands are more than can be drawn in one section", count, n), Set: most, Label: fmt.Sprintf("Tie %d", most)}
	}
	var err error
	if f.ribs, err = hitch.NewRow(w.Strands, max(w.Strands[f.h-1].Diameter, w.Strands[f.h].Diameter)); err != nil {
		return knot.Tied{}, err
	}
	f.sin, f.cos = math.Sincos(hitch.Incline)
	f.d, f.tall = f.ribs.D, f.ribs.Unit.Tall*f.ribs.D
	f.arm = 0.55 * f.ribs.Step
	f.run = f.arm + float64(f.m)*f.ribs.Step + 0.35*f.d
	if f.set.Inside == "square-knot" {
		f.run += apart * f.d
	}
	f.lines = make([]line, n)
	hang, err := f.all(count)
	if err != nil {
		return knot.Tied{}, err
	}
	low := f.tip[count-1]
	switch f.set.Close {
	case "end":
		low += 1.5 * f.d
	case "end-doubled":
		if low, hang, err = f.again(hang, low); err != nil {
			return knot.Tied{}, err
		}
	default:
		low += f.tall*f.cos + f.d // under the lowest turn of the hitch that joins
	}
	f.end(hang, low)
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, PerRound: count, Gap: f.ribs.Unit.Gap, Height: low, Order: hang, Beads: f.beads}
	for _, l := range f.lines {
		t.Paths = append(t.Paths, knot.Path{Points: l.pts})
	}
	t.Cells = slices.Concat([]float64{0}, f.tip[:count-1], []float64{low})
	t.Moves, err = moves(w, f.set, count)
	return t, err
}

// way is how far from a crossing the hitch of a line lies, counted from 0.
func (f *frames) way(k int) float64 { return f.arm + (float64(k)+0.5)*f.ribs.Step + 0.2*f.d }

// at is a place on the upper line of a side, so far from its apex; back one on the lower
// line, so far from the tip.
func (f *frames) at(k int, side, way float64) r3.Vec {
	return r3.Vec{X: side * way * f.cos, Y: f.apex[k] + way*f.sin}
}

func (f *frames) back(k int, side, way float64) r3.Vec {
	return r3.Vec{X: side * way * f.cos, Y: f.tip[k] - way*f.sin}
}

// along is the direction of a line down to a side; into and outOf those of a strand that
// is hitched over it.
func (f *frames) along(side float64) r3.Vec { return r3.Vec{X: side * f.cos, Y: f.sin} }
func (f *frames) across(side float64) r3.Vec {
	return r3.Vec{X: -side * f.sin, Y: f.cos}
}

// closed tells whether the fillers are joined at the tip of a diamond.
func (f *frames) closed(k, count int) bool { return k < count-1 || f.set.Close != "end" }

// outermost tells whether the side strands change their order from diamond to diamond.
func (f *frames) outermost() bool { return f.set.Order == "outermost-first" }

// all lays the diamonds, one under the other, and gives the strands from the left below
// the last.
func (f *frames) all(count int) ([]int, error) {
	hang := knot.Identity(len(f.Strands))
	y := f.tall*f.cos + 1.2*f.d // the middle strands come in to the hitch at the apex
	if f.outermost() {          // room to cross one another
		y += 0.9 * f.d * float64(f.m-1)
	}
	for k := range count {
		extra, inside, err := standsInside(f.Work, hang, f.d, f.run*f.sin)
		if err != nil {
			return nil, err
		}
		f.extra = extra
		f.apex = append(f.apex, y)
		y += 2*f.run*f.sin + extra
		f.tip = append(f.tip, y)
		left, right := hang[f.h-1], hang[f.h] // the fillers of the left and right upper line
		if k == 0 {
			left, right = right, left
			if err := f.begin(left, right); err != nil {
				return nil, err
			}
		}
		f.side(k, -1, left)
		f.side(k, 1, right)
		for _, side := range []float64{-1, 1} {
			f.hitched(k, side, hang, inside)
		}
		if f.set.Inside == "bead" {
			f.beads = append(f.beads, knot.BeadAt{At: r3.Vec{Y: (f.apex[k] + y) / 2}, Bead: *f.set.Bead})
		}
		sides := sidesOf(hang, f.set)
		if f.closed(k, count) {
			if err := f.join(y, -1, left, right); err != nil {
				return nil, err
			}
			left, right = right, left
		}
		hang = slices.Concat(sides[0], []int{left, right}, sides[1])
	}
	return hang, nil
}

// begin brings the middle strands to the first apex: the right one is the filler of the
// left line, and the left one is hitched over it there.
func (f *frames) begin(filler, hitched int) error {
	f.lines[filler] = line{[]r3.Vec{{X: 0.5 * f.d}}, straightDown}
	f.lines[hitched] = line{[]r3.Vec{{X: -0.5 * f.d}}, straightDown}
	f.lines[filler].to([]r3.Vec{f.at(0, -1, -0.45*f.arm), f.at(0, -1, 0.3*f.arm)}, f.along(-1), f.along(-1))
	return f.hitch(r3.Vec{Y: f.apex[0]}, -1, hitched, filler)
}

// join hitches a strand over the filler that goes on across the middle to a side.
func (f *frames) join(y, side float64, hitched, filler int) error {
	f.lines[filler].to([]r3.Vec{{X: -side * 0.45 * f.arm * f.cos, Y: y - 0.45*f.arm*f.sin}, {X: side * 0.45 * f.arm * f.cos, Y: y + 0.45*f.arm*f.sin}}, f.along(side), f.along(side))
	return f.hitch(r3.Vec{Y: y}, side, hitched, filler)
}

// hitch is one hitch over a filler that goes down to a side.
func (f *frames) hitch(at r3.Vec, side float64, hitched, filler int) error {
	row, err := hitch.NewRow([]knot.Strand{f.Strands[hitched]}, f.Strands[filler].Diameter)
	if err != nil {
		return err
	}
	f.lines[hitched].to(row.Over(at, hitch.Incline, side < 0), f.across(side), f.across(side))
	return nil
}

// side leads a filler from the apex to a side, round the corner and back to the tip.
func (f *frames) side(k int, side float64, strand int) {
	far := f.run - 0.15*f.d
	a, b := f.at(k, side, far), f.back(k, side, far)
	near := 0.8 * f.arm
	pts := []r3.Vec{f.at(k, side, near), f.at(k, side, f.run/2), f.at(k, side, f.run-0.65*f.d), a, {X: a.X + side*0.25*f.d, Y: (a.Y + b.Y) / 2}, b,
		f.back(k, side, f.run-0.65*f.d), f.back(k, side, f.run/2), f.back(k, side, near)}
	f.lines[strand].to(curve.Spline(pts, false).Points, f.along(side), f.along(-side))
}

// hitched leads the side strands of one side through a diamond: hitched over the upper
// line, through what stands inside, hitched over the lower.
func (f *frames) hitched(k int, side float64, hang []int, inside func(side, near int) []r3.Vec) {
	for near := range f.m { // from the middle
		strand := hang[f.h-2-near]
		if side > 0 {
			strand = hang[f.h+1+near]
		}
		up := near
		if f.outermost() {
			up = f.m - 1 - near
		}
		l := &f.lines[strand]
		over := f.ribs.Over(f.at(k, side, f.way(up)), hitch.Incline, side < 0)
		switch {
		case f.outermost(): // they cross before the first hitch, each in a layer of its own
			layer := over[0].Z - 1.05*f.d*float64(near)
			if k == 0 {
				start := r3.Vec{X: f.at(k, side, f.way(near)).X, Z: over[0].Z}
				l.to(curve.Spline([]r3.Vec{start, {X: start.X, Y: over[0].Y * 0.12, Z: (start.Z + layer) / 2}, {X: (start.X + over[0].X) / 2, Y: over[0].Y * 0.45, Z: layer},
					{X: over[0].X, Y: over[0].Y * 0.85, Z: (layer + over[0].Z) / 2}}, false).Points, straightDown, straightDown)
			} else {
				last := l.pts[len(l.pts)-1]
				l.to([]r3.Vec{{X: (last.X + over[0].X) / 2, Y: (last.Y + over[0].Y) / 2, Z: layer}}, r3.Unit(r3.Sub(over[0], last)), r3.Unit(r3.Sub(over[0], last)))
			}
		case k == 0:
			l.to([]r3.Vec{{X: over[0].X, Z: over[0].Z}}, straightDown, straightDown)
		}
		l.to(over, f.across(side), f.across(side))
		if inside != nil {
			if via := inside(int(side), up); via != nil {
				for i := range via {
					via[i].Y += f.apex[k]
				}
				l.to(via, straightDown, straightDown)
			}
		}
		l.to(f.ribs.Over(f.back(k, side, f.way(up)), hitch.Incline, side > 0), f.across(-side), f.across(-side))
	}
}

// again lays a second row of hitches right under the last tip: the outermost strand of each
// side is its filler, the first that is hitched over it joins it, and the two fillers are
// joined. It gives how far down it reaches and the strands from the left below it.
func (f *frames) again(hang []int, y float64) (low float64, below []int, err error) {
	sides := [2][]int{slices.Clone(hang[:f.h]), slices.Clone(hang[f.h:])}
	slices.Reverse(sides[1]) // from the outside in
	k := len(f.tip)
	double := f.ribs
	if f.m > 1 {
		if double, err = hitch.NewRow(f.Strands, f.d+1.2*f.d); err != nil {
			return 0, nil, err
		}
		double.Step = f.ribs.Step
	}
	f.tip = append(f.tip, y+(f.ribs.Unit.Tall+double.Unit.Tall-0.4)*f.d/f.cos)
	tip := f.tip[k]
	const deep = 0.56 // of a diameter: two fillers lie one before the other
	for i, strands := range sides {
		side := float64(2*i - 1)
		filler := strands[0]
		pts := []r3.Vec{f.back(k, side, f.way(f.m-1)+0.6*f.ribs.Step)}
		for _, way := range []float64{f.way(f.m - 1), f.run / 2, 0.8 * f.arm} {
			v := f.back(k, side, way)
			if f.m > 1 && way < f.way(f.m-1) {
				v.Z = deep * f.d
			}
			pts = append(pts, v)
		}
		f.lines[filler].to(curve.Spline(pts, false).Points, f.along(-side), f.along(-side))
		for j, strand := range strands[1:] {
			row := double
			if j == 0 {
				row = f.ribs
			}
			f.lines[strand].to(row.Over(f.back(k, side, f.way(f.m-1-j)), hitch.Incline, side > 0), f.across(-side), f.across(-side))
			if j == 0 && f.m > 1 { // it joins the filler
				var with []r3.Vec
				for _, way := range []float64{f.way(f.m-1) - 0.6*f.ribs.Step, f.run / 2, 0.8 * f.arm} {
					v := f.back(k, side, way)
					v.Z = -deep * f.d
					with = append(with, v)
				}
				f.lines[strand].to(curve.Spline(with, false).Points, f.along(-side), f.along(-side))
			}
		}
	}
	left, right := sides[0], sides[1]
	if err := f.join(tip, 1, right[0], left[0]); err != nil {
		return 0, nil, err
	}
	// Below it, from the outside in: who were hitched over both, who joined a filler, and
	// the filler of the other side.
	under := func(own []int, other int) []int {
		rest := slices.Clone(own[1:])
		if f.m > 1 {
			rest = append(slices.Clone(rest[1:]), rest[0])
		}
		return append(rest, other)
	}
	l, r := under(left, right[0]), under(right, left[0])
	slices.Reverse(r)
	return tip + f.tall*f.cos + 1.3*f.d, slices.Concat(l, r), nil
}

// end lets all strands hang: side by side in the middle, where they come from elsewhere.
func (f *frames) end(hang []int, low float64) {
	for place, strand := range hang {
		l := &f.lines[strand]
		last := l.pts[len(l.pts)-1]
		to := r3.Vec{X: last.X, Y: low, Z: last.Z}
		beside := (float64(place-f.h) + 0.5) * 1.15 * f.d
		if f.set.Close == "end-doubled" || place == f.h-1 || place == f.h {
			to = r3.Vec{X: beside, Y: low}
		}
		l.to([]r3.Vec{to}, straightDown, straightDown)
	}
}
