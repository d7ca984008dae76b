package knot

import (
	"fmt"
	"math"
	"sort"

	"nimblebight/core/curve"
	"nimblebight/core/kept"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Double half hitch (clove hitch): a filler is laid across the other strands
// and each of them in turn is hitched twice over it.
//
// Worked to the right, each strand goes up behind the filler, over it to the
// left and down behind it, then up again and over it to the right, and down
// through its own turn. The filler changes its place in the order, the others
// keep theirs.
//
// Right: two ribs a hitch stand side by side on the face and the strand comes
// and goes between them at the back; the row of ribs is straight. Wrong: the
// second turn on the same side of the first; the hitch slides.
//
// Makers differ in the slope: a horizontal row makes a bar across the piece, a
// diagonal one leads into diamonds and waves.
func init() {
	add(Knot{
		ID: "double-half-hitch", Name: "double half hitch", Family: "hitches",
		OtherNames: []string{"clove hitch", "cording", "rib knot"},
		For:        "bars across a piece and diagonals of ribs",
		Schools: []School{{Field: "slope", Default: "horizontal",
			Why: "a bar across shows at once whether every hitch was drawn up alike"}},
		Fields: []Field{
			{Key: "strands", Short: "strands", Label: "strands", Kind: "places"},
			{Key: "filler", Short: "filler", Label: "filler, its place", Kind: "place"},
			{Key: "carry", Short: "carry", Label: "fillers together", Kind: "count", Default: "1", Least: 1, Most: 2},
			{Key: "direction", Short: "direction", Label: "worked to the", Kind: "choice", Choices: []string{"right", "left"}, Default: "right"},
			{Key: "slope", Short: "slope", Label: "slope", Kind: "choice", Choices: []string{"horizontal", "diagonal"}, Default: "horizontal"},
		},
		fill:  func(s *Section) { s.Carry, s.Direction, s.Slope = 1, "right", "horizontal" },
		parts: func(_ Section, n int) int { return n - 1 },
		tie:   tieHitches,
	})
	addRoute(Route{
		Name: "double-half-hitch", Family: "hitches", About: "one strand hitched twice over a filler of its own thickness",
		Problem: func() tighten.Problem { _, p := hitchOver(1); return p() },
		Measure: beyond, Of: "cord beyond the straight", Published: 10.1 + 5.9, Share: 0.06,
	})
}

// hitchFillers are the thicknesses of filler, in strands, over which a hitch is
// drawn up at build time; between two of them it is interpolated.
var hitchFillers = []float64{0.4, 0.56, 0.75, 1, 1.33, 1.86, 2.5, 3.5}

// hitchOver is a double half hitch over a straight filler of the given
// diameter, along x, seen from behind: the strand comes and goes at z above
// zero.
func hitchOver(filler float64) (string, func() tighten.Problem) {
	return fmt.Sprintf("hitch over %.2f", filler), func() tighten.Problem {
		r := filler/2 + 0.7
		at := func(x, degrees, out float64) Vec {
			s, c := math.Sincos(degrees * math.Pi / 180)
			return Vec{X: x, Y: -(r + out) * c, Z: (r + out) * s}
		}
		route := []Vec{
			{X: 0.55, Y: -12, Z: r}, {X: 0.55, Y: -4, Z: r}, at(0.5, 90, 0), at(0.8, 180, 0), at(1.1, 270, 0), at(1.3, 360, 0.1),
			at(1.4, 395, 0.6), at(0.8, 430, 1.4), at(0, 450, 1.6), at(-0.8, 470, 1.4), at(-1.4, 505, 0.6),
			at(-1.3, 540, 0.1), at(-1.1, 630, 0), at(-0.8, 720, 0), at(-0.5, 810, 0), {X: -0.55, Y: 4, Z: r}, {X: -0.55, Y: 12, Z: r},
		}
		return tighten.Problem{Strands: []tighten.Strand{{Route: route, Diameter: 1}},
			Bars: []tighten.Bar{{From: Vec{X: -40}, To: Vec{X: 40}, Diameter: filler}}}
	}
}

// hitch is a double half hitch on any filler, worked to the right, in
// diameters of its strand: from straight above the filler to straight below
// it, the filler's middle at the origin, seen from the face.
type hitch struct {
	points []Vec
	wide   float64 // along the filler
	tall   float64 // from its middle to where the strand runs straight
	gap    float64
}

var hitches kept.By[hitch]

func hitchOn(filler float64) (hitch, error) {
	filler = math.Max(hitchFillers[0], math.Min(filler, hitchFillers[len(hitchFillers)-1]))
	return hitches.Get(fmt.Sprintf("%.4f", filler), func() (hitch, error) {
		const nodes = 241
		k := 0
		for k < len(hitchFillers)-2 && hitchFillers[k+1] < filler {
			k++
		}
		t := (filler - hitchFillers[k]) / (hitchFillers[k+1] - hitchFillers[k])
		var two [2][]Vec
		h := hitch{tall: filler/2 + 1.1, gap: math.Inf(1)}
		for i := range two {
			s, err := drawn(hitchOver(hitchFillers[k+i]))
			if err != nil {
				return h, err
			}
			two[i] = asCurve(s.Strands[0]).Resample(nodes).Points
			h.gap = math.Min(h.gap, s.Gap)
		}
		lo, hi := math.Inf(1), math.Inf(-1)
		var line []Vec
		for i := range two[0] {
			v := curve.Lerp(two[0][i], two[1][i], t)
			v = Vec{X: -v.X, Y: v.Y, Z: -v.Z} // turned to the face
			line = append(line, v)
			lo, hi = math.Min(lo, v.X), math.Max(hi, v.X)
		}
		h.wide = hi - lo + 1
		mid := (lo + hi) / 2
		// Only what lies about the filler; above and below it runs straight.
		first, last := 0, len(line)-1
		for first < len(line)/2 && line[first+1].Y < -h.tall {
			first++
		}
		for last > len(line)/2 && line[last-1].Y > h.tall {
			last--
		}
		a := curve.Lerp(line[first], line[first+1], (-h.tall-line[first].Y)/(line[first+1].Y-line[first].Y))
		b := curve.Lerp(line[last], line[last-1], (h.tall-line[last].Y)/(line[last-1].Y-line[last].Y))
		for _, v := range append(append([]Vec{a}, line[first+1:last]...), b) {
			h.points = append(h.points, Vec{X: v.X - mid, Y: v.Y, Z: v.Z})
		}
		return h, nil
	})
}

// hitchRow lays hitches along a filler that runs through the plane of the work.
type hitchRow struct {
	d, filler float64 // of the strands and the filler, mm
	unit      hitch
	step      float64 // along the filler from hitch to hitch, mm
	squeeze   float64
}

func newHitchRow(strands []Lead, filler float64) (hitchRow, error) {
	r := hitchRow{filler: filler, squeeze: math.Inf(-1)}
	for _, l := range strands {
		r.d = math.Max(r.d, l.Diameter)
		r.squeeze = math.Max(r.squeeze, l.Stuff.Squeeze())
	}
	var err error
	r.unit, err = hitchOn(filler / r.d)
	// A row of hitches is pressed together a little less than a sinnet.
	r.step = r.unit.wide * r.d * r.squeeze
	return r, err
}

// over is one hitch, its middle at a place of the filler, which runs there at
// an angle below the horizontal; worked to the left it is the mirror.
func (r hitchRow) over(at Vec, angle float64, left bool) []Vec {
	s, c := math.Sincos(angle)
	out := make([]Vec, len(r.unit.points))
	for i, v := range r.unit.points {
		v = Vec{X: v.X * r.d * r.squeeze, Y: v.Y * r.d, Z: v.Z * r.d}
		v = Vec{X: c*v.X - s*v.Y, Y: s*v.X + c*v.Y, Z: v.Z}
		if left {
			v.X = -v.X
		}
		out[i] = r3.Add(at, v)
	}
	return out
}

const hitchSlope = 38 * math.Pi / 180 // of a diagonal

// Heading is the way a line runs at its beginning or, where atEnd is set, its
// end; straight down where all its points are one.
func Heading(pts []Vec, atEnd bool) Vec {
	n := len(pts)
	for i := 1; i < n; i++ {
		d := r3.Sub(pts[i], pts[0])
		if atEnd {
			d = r3.Sub(pts[n-1], pts[n-1-i])
		}
		if l := r3.Norm(d); l > 1e-6 {
			return r3.Scale(1/l, d)
		}
	}
	return Vec{Y: 1}
}

// led leads a strand straight down from the top to where a knot takes it, and
// from where it leaves that to the bottom.
func led(top Vec, knot []Vec, bottom float64) []Vec {
	first, last := knot[0], knot[len(knot)-1]
	out := []Vec{top}
	if first.Y-top.Y > 1e-6 {
		dir := Heading(knot, false)
		out = append(out, Join(top, first, Vec{Y: 1}, dir)...)
		out = out[:len(out)-1]
	}
	out = append(out, knot...)
	if bottom-last.Y > 1e-6 {
		dir := Heading(knot, true)
		out = append(out, Join(last, Vec{X: last.X, Y: bottom}, dir, Vec{Y: 1})...)
	}
	return out
}

func tieHitches(w Work) (Tied, error) {
	n := len(w.Leads)
	if n < 2 {
		return Tied{}, fmt.Errorf("double-half-hitch needs a filler and a strand to hitch over it; it has %d strands", n)
	}
	left := w.Section.Direction == "left"
	place := w.Section.Filler
	if place == 0 {
		place = 1
		if left {
			place = n
		}
	}
	if place < 1 || place > n {
		return Tied{}, fmt.Errorf("the filler is at place %d, but the section has %d strands", place, n)
	}
	if left { // tied as the mirror of the same to the right
		m := w
		m.Leads = append([]Lead{}, w.Leads...)
		flipLeads(m.Leads)
		m.Section.Direction, m.Section.Filler = "right", n+1-place
		t, err := tieHitches(m)
		if err != nil {
			return t, err
		}
		t.mirror(n)
		t.Actions = hitchActions(n, place, max(1, w.Section.Carry), true, w.Section.Slope == "diagonal")
		return t, nil
	}
	f := place - 1
	carry := max(1, w.Section.Carry)
	if f+carry > n-1 {
		return Tied{}, fmt.Errorf("no strand is left beyond the filler to hitch over it; work to the other side, take another filler or carry one less")
	}
	workers := w.Leads[f+carry:]
	// Two fillers lie one before the other in the hitches.
	bore := w.Leads[f].Diameter
	if carry == 2 {
		bore += w.Leads[f+1].Diameter
	}
	row, err := newHitchRow(workers, bore)
	if err != nil {
		return Tied{}, err
	}
	slope := 0.0
	if w.Section.Slope == "diagonal" {
		slope = hitchSlope
	}
	sin, cos := math.Sincos(slope)
	m := len(workers)
	run := float64(m) * row.step
	// The hitches and what hangs to the left of them stand about the middle.
	d := row.d
	lone := 0.0
	for _, l := range w.Leads[:f] {
		lone += l.Diameter
	}
	x0 := -(lone + run*cos) / 2
	t := Tied{Loose: true, Snug: true, Repeats: 1, Gap: row.unit.gap, Paths: make([]Path, n)}
	tall := row.unit.tall * d
	at := func(way float64) Vec { return Vec{X: x0 + lone + way*cos, Y: tall*cos + way*sin} }
	t.Height = 2*tall*cos + run*sin
	x := x0
	for i, l := range w.Leads[:f] {
		t.Paths[i] = Path{Points: []Vec{{X: x + l.Diameter/2}, {X: x + l.Diameter/2, Y: t.Height}}}
		x += l.Diameter
	}
	// The filler comes down at the left, lies under all hitches and goes down
	// on the right.
	begin, end := at(-0.2*d), at(run+0.2*d)
	for c := range carry {
		// Of two the first lies in front and comes in outside the second, which
		// goes out outside it.
		in, out, z := 0.0, 0.0, 0.0
		if carry == 2 {
			beside := w.Leads[f].Diameter
			in, out, z = float64(1-c)*beside, float64(c)*beside, (0.5-float64(c))*1.02*bore/2
		}
		deep := func(v Vec) Vec { v.Z = z; return v }
		t.Paths[f+c] = Path{Points: curve.Spline([]Vec{
			{X: begin.X - 0.5*d - in}, {X: begin.X - 0.45*d - in, Y: math.Max(0.2*d, begin.Y-0.7*d)},
			deep(begin), deep(at(0.25 * row.step)), deep(at(run / 2)), deep(at(run - 0.25*row.step)), deep(end),
			{X: end.X + 0.45*d + out, Y: math.Min(end.Y+0.7*d, t.Height-0.1*d)}, {X: end.X + 0.5*d + out, Y: t.Height},
		}, false).Points}
	}
	for k := range workers {
		h := row.over(at((float64(k)+0.5)*row.step), slope, false)
		t.Paths[f+carry+k] = Path{Points: led(Vec{X: h[0].X, Z: h[0].Z}, h, t.Height)}
	}
	for i := range n {
		switch {
		case i < f:
			t.Order = append(t.Order, i)
		case i < n-carry:
			t.Order = append(t.Order, i+carry)
		default:
			t.Order = append(t.Order, f+i-(n-carry))
		}
	}
	t.Actions = hitchActions(n, place, carry, false, slope > 0)
	return t, nil
}

// hitchActions are the moves of a row of hitches over the filler at a place, or
// over it and the next one together.
func hitchActions(n, place, carry int, left, diagonal bool) []Action {
	to, from, step, end := "right", "left", 1, n
	if left {
		to, from, step, end = "left", "right", -1, 1
	}
	slant := ""
	if diagonal {
		slant = ", slanting down"
	}
	var others []int // leads that are hitched, in turn
	for p := place + carry*step; step*(end-p) >= 0; p += step {
		others = append(others, p-1)
	}
	named := make([]int, len(others))
	for i, o := range others {
		named[i] = o + 1
	}
	sort.Ints(named)
	out := []Action{}
	if carry == 2 {
		out = append(out, Action{Moves: place - 1 + step, From: from, Over: others,
			Text: fmt.Sprintf("Lay strand %d to the %s across the front of strand%s %s%s.", place+step, to, plural(len(others)), places(named), slant)})
	}
	out = append(out, Action{Moves: place - 1, From: from, Over: others,
		Text:   fmt.Sprintf("Lay strand %d to the %s across the front of strand%s %s%s.", place, to, plural(len(others)), places(named), slant),
		Detail: "Hold it taut; it stays straight under every hitch."})
	for k, o := range others {
		a := Action{Moves: o, From: to, Under: []int{place - 1},
			Text:   fmt.Sprintf("Hitch strand %d twice over the filler"+plural(carry)+": up behind it, over it and down on the %s, then the same on the %s through its own turn.", o+1, from, to),
			Detail: "Push it against the hitch before and draw it up."}
		if k == len(others)-1 {
			a.Gate = "Two ribs stand side by side for every hitch, in one straight line."
		}
		out = append(out, a)
	}
	return out
}

func numbered(from, n int) []int {
	out := make([]int, n)
	for i := range out {
		out[i] = from + i
	}
	return out
}
