// Package overhand ties overhands: of one strand, of a bundle, and of one leg round
// the rest.
package overhand

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// With is what an overhand is tied with.
type With string

// Choices are all strands together, or one leg round the rest.
func (With) Choices() []string { return []string{"all", "one-leg"} }

// Settings of an overhand.
type Settings struct {
	Of    With       `json:"of,omitempty" typed:"of" label:"tied with" default:"all"`
	Which knot.Place `json:"which,omitempty" typed:"which" label:"which leg"`
}

// Overhand and figure-eight knots in one strand: the stoppers that every cord
// worker knows; and the overhand that holds a bundle.
//
// Overhand: the end round its own part and through the loop; three crossings.
// Figure-eight: half a turn more before it goes through; four crossings, comes
// undone more easily and stands a little larger.
//
// Overhand of the bundle: all strands together tie one. Overhand with one leg:
// one strand goes round all the others, over its own part and through.
//
// Right: the strands of the bundle lie side by side all the way round, none
// crossed. Wrong: one strand takes all the strain.
func init() {
	knot.Add(knot.Knot{
		ID: "overhand", Name: "overhand", Family: "wraps and gathers",
		OtherNames: []string{"overhand of the bundle", "thumb knot", "half hitch round the rest"},
		For:        "holding a bundle together without a cord of its own; a stopper on one strand or two",
		Schools: []knot.School{{Field: "of", Default: "all",
			Why: "all together holds for good; one leg round the rest stands slimmer and can be undone"}},
		Glyph:    "M10 2v7c0 3-5 3-5 6s3 5 7 5 7-2 7-5-5-3-5-6V2M12 13v9",
		Places:   true,
		Settings: Settings{},
		Terms: func(s knot.Section) knot.Terms {
			least := 1 // a stopper on one strand
			if knot.Of[Settings](s).Of == "one-leg" {
				least = 2
			}
			return knot.Terms{Takes: knot.Takes{Least: least}, Bundles: true}
		},
		Tie:    tieOverhand,
		Film:   bundleFilm,
		Sample: knot.Sample{Line: "mount A B, overhand of=all", Cords: 2, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "overhand", Family: "stoppers", About: "the end round its own part and through the loop",
		Problem: overhandRoute,
		Measure: knot.Beyond, Of: "cord beyond the straight", Published: 10.2, Share: 0.03,
	})
	knot.AddRoute(knot.Route{
		Name: "figure-eight-stopper", Family: "stoppers", About: "half a turn more than an overhand before it goes through",
		Problem: eightRoute,
		Measure: knot.Beyond, Of: "cord beyond the straight", Published: 13.8, Share: 0.04,
	})
}

func overhandRoute() tighten.Problem {
	trefoil := knot.Around(40, func(t float64) r3.Vec {
		r := 2.6 + 1.2*math.Cos(3*t)
		return r3.Vec{X: r * math.Cos(2*t+0.55), Y: r * math.Sin(2*t+0.55), Z: math.Sin(3 * t)}
	})
	return tighten.Problem{Strands: []tighten.Strand{{Route: knot.OpenUp(trefoil, 14), Diameter: 1}}}
}

// eightRoute is a figure-eight opened at its lowest point.
func eightRoute() tighten.Problem {
	eight := knot.Around(56, func(t float64) r3.Vec {
		r := 2.4 + 1.2*math.Cos(2*t)
		return r3.Vec{X: r * math.Cos(3*t+0.3), Y: r * math.Sin(3*t+0.3), Z: math.Sin(4 * t)}
	})
	return tighten.Problem{Strands: []tighten.Strand{{Route: knot.OpenUp(eight, 14), Diameter: 1}}}
}

// legCores are the bundles, in legs, round which an overhand is drawn up at
// build time.
var legCores = []float64{1, 1.4, 2, 2.8, 3.8, 5}

// overhandRound is one leg tied once round a straight bundle: across its front,
// round behind it, over its own part and down through the turn.
func overhandRound(core float64) (string, func() tighten.Problem) {
	return fmt.Sprintf("overhand round %.2f", core), func() tighten.Problem {
		r := core/2 + 0.8
		at := func(degrees, out, y float64) r3.Vec { // from the left over the front
			s, c := math.Sincos(degrees * math.Pi / 180)
			return r3.Vec{X: -(r + out) * c, Y: y, Z: (r + out) * s}
		}
		front := at(75, 0, 0)
		route := []r3.Vec{{X: -r, Y: -14}, {X: -r, Y: -5}, at(8, 0, -2.2), at(35, 0.3, -1), at(75, 1, -0.2), at(115, 0.5, 0.1), at(180, 0.1, 0.2), at(250, 0.1, 0), at(310, 0.3, -1),
			at(340, 1, -2.3), at(365, 1.4, -2.8), at(395, 0.8, -2.6), at(425, 0, -1.7), at(435, -0.1, -0.2), at(435, 0, 1.6), {X: front.X, Y: 5, Z: front.Z}, {X: front.X, Y: 14, Z: front.Z}}
		return tighten.Problem{Strands: []tighten.Strand{{Route: route, Diameter: 1}},
			Bars: []tighten.Bar{{From: r3.Vec{Y: -60}, To: r3.Vec{Y: 60}, Diameter: core}}}
	}
}

func tieOverhand(w knot.Work) (knot.Tied, error) {
	if knot.Of[Settings](w.Section).Of == "one-leg" {
		if len(w.Strands) < 2 {
			return knot.Tied{}, &knot.Refused{Field: "of", Why: "tied with one leg round the rest, and there is one strand alone", Set: "all", Label: "Tie it of that strand"}
		}
		return tieOverhandOfOne(w)
	}
	t, err := tieBundle(w, "overhand", overhandRoute)
	if err != nil {
		return t, err
	}
	if len(w.Strands) == 1 {
		t.Moves = []move.Move{{Strand: 0, Text: "Tie {me} in an overhand: round its own part and through the loop.", Detail: "A pin through the loop brings it to its place before it is drawn up.", Gate: "It sits where the stop is wanted."}}
		return t, nil
	}
	t.Moves = []move.Move{{Strand: -1, Text: "Tie {strands 0} together in one overhand.", Naming: [][]int{knot.Identity(len(w.Strands))},
		Detail: "Lay them side by side all the way round; a pin through the loop brings it to its place before it is drawn up.", Gate: "No strand crosses another in the knot."}}
	return t, nil
}

// tieBundle ties all strands together in a knot of one strand.
func tieBundle(w knot.Work, name string, route func() tighten.Problem) (knot.Tied, error) {
	s, err := family.Shape(name, route)
	if err != nil {
		return knot.Tied{}, err
	}
	// The bundle is the rope; every strand keeps its place in it.
	seat, wide := inBundle(w.Strands)
	// Its ends are straight up to where they leave the line of their pull.
	line := knot.Curve(s.Strands[0]).Resample(401).Points
	straight := func(pts []r3.Vec) int { // nodes up to where it turns off
		dir := r3.Unit(r3.Sub(pts[12], pts[0]))
		for k := 12; k+6 < len(pts)/2; k++ {
			if r3.Dot(r3.Unit(r3.Sub(pts[k+6], pts[k])), dir) < math.Cos(0.15) {
				return k
			}
		}
		return 0
	}
	first := straight(line)
	back := slices.Clone(line)
	slices.Reverse(back)
	line = line[first : len(line)-straight(back)]
	// It hangs with its ends one under the other.
	a, b := line[0], line[len(line)-1]
	down := r3.Unit(r3.Sub(b, a))
	across := r3.Unit(r3.Cross(r3.Vec{Z: 1}, down))
	out := r3.Cross(down, across)
	rope := make([]r3.Vec, 0, len(line)+2)
	high, low := 0.0, 0.0
	for _, v := range line {
		v = r3.Sub(v, a)
		v = r3.Vec{X: -wide * r3.Dot(v, across), Y: wide * r3.Dot(v, down), Z: -wide * r3.Dot(v, out)}
		high, low = math.Min(high, v.Y-wide/2), math.Max(low, v.Y+wide/2)
		rope = append(rope, v)
	}
	for i := range rope {
		rope[i].Y -= high
	}
	rope = append([]r3.Vec{{}}, rope...)
	rope = append(rope, r3.Vec{X: rope[len(rope)-1].X, Y: low - high, Z: rope[len(rope)-1].Z})
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: s.Gap, Height: low - high, Order: knot.Identity(len(w.Strands))}
	laid, _ := beside(rope, seat, 0, 0, 0)
	for _, pts := range laid {
		pts[len(pts)-1].Y = t.Height
		t.Paths = append(t.Paths, knot.Path{Points: pts})
	}
	for i := range w.Strands {
		t.Workers = append(t.Workers, i)
	}
	return t, nil
}

// inBundle is where strands lie in a round bundle, x and z, and how wide it is, mm.
func inBundle(strands []knot.Strand) (seats []r3.Vec, wide float64) {
	seats = knot.Seats(strands)
	for i, q := range seats {
		wide = math.Max(wide, 2*math.Hypot(q.X, q.Z)+strands[i].Diameter)
	}
	return seats, wide
}

// beside are lines that keep their places across another all along it; seats
// are their x and z where it starts downwards. They are carried along without
// turning about it, but for the little by which they must turn to come out as
// they went in: the turn that is nearest to another, which it tells, radians. Over so
// much at either end they do not turn.
func beside(line []r3.Vec, seats []r3.Vec, near, before, after float64) ([][]r3.Vec, float64) {
	n := len(line)
	type frame struct{ x, z, dir r3.Vec }
	frames := make([]frame, n)
	now := frame{r3.Vec{X: 1}, r3.Vec{Z: 1}, r3.Vec{Y: 1}}
	turn := func(f frame, to r3.Vec) frame {
		axis := r3.Cross(f.dir, to)
		if s := r3.Norm(axis); s > 1e-9 {
			rot := r3.NewRotation(math.Atan2(s, r3.Dot(f.dir, to)), axis)
			f.x, f.z = rot.Rotate(f.x), rot.Rotate(f.z)
		}
		f.dir = to
		return f
	}
	for i := range line {
		d := r3.Sub(line[min(i+1, n-1)], line[max(i-1, 0)])
		if l := r3.Norm(d); l > 1e-9 {
			now = turn(now, r3.Scale(1/l, d))
		}
		frames[i] = now
	}
	end := turn(now, r3.Vec{Y: 1})
	off := math.Atan2(end.x.Z, end.x.X) // about the way down, from x towards z
	off = near + math.Remainder(off-near, 2*math.Pi)
	whole, way := knot.Curve(line).Length()-before-after, -before
	out := make([][]r3.Vec, len(seats))
	for i := range line {
		if i > 0 {
			way += r3.Norm(r3.Sub(line[i], line[i-1]))
		}
		s, c := math.Sincos(-off * math.Max(0, math.Min(1, way/whole)))
		f := frames[i]
		for k, q := range seats {
			x, z := c*q.X-s*q.Z, s*q.X+c*q.Z
			out[k] = append(out[k], r3.Add(line[i], r3.Add(r3.Scale(x, f.x), r3.Scale(z, f.z))))
		}
	}
	return out, off
}

func tieOverhandOfOne(w knot.Work) (knot.Tied, error) {
	n := len(w.Strands)
	which := int(knot.Of[Settings](w.Section).Which)
	if which == 0 {
		which = 1
	}
	if which < 1 || which > n {
		return knot.Tied{}, fmt.Errorf("the leg that ties is at place %d, but the section has %d strands", which, n)
	}
	if which > (n+1)/2 { // tied as the mirror of the same from the left
		m := w
		m.Strands = append([]knot.Strand{}, w.Strands...)
		knot.Flip(m.Strands)
		m.Section.Settings = Settings{Of: "one-leg", Which: knot.Place(n + 1 - which)}
		t, err := tieOverhandOfOne(m)
		if err == nil {
			t.Mirror(n)
		}
		return t, err
	}
	leg := w.Strands[which-1]
	var rest []knot.Strand
	for i, l := range w.Strands {
		if i != which-1 {
			rest = append(rest, l)
		}
	}
	seat := knot.Seats(rest)
	core := 0.0
	for i, q := range seat {
		core = math.Max(core, math.Hypot(q.X, q.Z)+rest[i].Diameter/2)
	}
	d := leg.Diameter
	ratio := math.Max(legCores[0], math.Min(2*core/d, legCores[len(legCores)-1]))
	s, err := family.Between(legCores, ratio, 301, overhandRound)
	if err != nil {
		return knot.Tied{}, err
	}
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: s.Gap, Workers: []int{which - 1}, Order: knot.Identity(n)}
	scale := d
	if ratio != 2*core/d { // beyond the embedded ones the bundle decides the size
		scale = 2 * core / ratio
	}
	reach := 2.4
	var pts []r3.Vec
	for _, v := range s.Strands[0] {
		if math.Abs(v.Y) <= reach {
			pts = append(pts, r3.Vec{X: v.X * scale, Y: (v.Y + reach) * scale, Z: v.Z * scale})
		}
	}
	t.Height = 2 * reach * scale
	pts[0].Y, pts[len(pts)-1].Y = 0, t.Height
	t.Paths = make([]knot.Path, n)
	t.Paths[which-1] = knot.Path{Points: pts}
	j := 0
	for i := range w.Strands {
		if i == which-1 {
			continue
		}
		at := seat[j]
		j++
		t.Paths[i] = knot.Path{Points: []r3.Vec{at, {X: at.X, Y: t.Height / 2, Z: at.Z}, {X: at.X, Y: t.Height, Z: at.Z}}}
	}
	t.Moves = moves(which, n)
	return t, nil
}

func moves(which, n int) []move.Move {
	me := which - 1
	rest := slices.DeleteFunc(knot.Identity(n), func(i int) bool { return i == me })
	return []move.Move{{Strand: me, Passes: []move.Pass{{How: move.Over, Of: rest}, {How: move.Under, Of: rest}, {How: move.Over, Of: []int{me}}},
		Text:   "Lead {me} across {front 0}, round {infront 1} them, {above 2} its own part and down through the turn.",
		Detail: "Draw it up while the others hang straight.", Gate: "The turn lies flat round the bundle."}}
}
