// Package hitch ties rows of double half hitches over a filler.
package hitch

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/memo"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Slope is how a row lies.
type Slope string

// Choices are the slopes.
func (Slope) Choices() []string { return []string{"horizontal", "diagonal"} }

// Settings of a row of hitches.
type Settings struct {
	Filler    knot.Place `json:"filler,omitempty" typed:"filler" label:"filler, its place"`
	Carry     int        `json:"carry,omitempty" typed:"carry" label:"fillers together" default:"1" least:"1" most:"2"`
	Direction knot.Side  `json:"direction,omitempty" typed:"direction" label:"worked to the" default:"right"`
	Slope     Slope      `json:"slope,omitempty" typed:"slope" label:"slope" default:"horizontal"`
}

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
	knot.Add(knot.Knot{
		ID: "double-half-hitch", Name: "double half hitch", Family: "hitches",
		OtherNames: []string{"clove hitch", "cording", "rib knot"},
		For:        "bars across a piece and diagonals of ribs",
		Schools: []knot.School{{Field: "slope", Default: "horizontal",
			Why: "a bar across shows at once whether every hitch was drawn up alike"}},
		Short:    []string{"dhh"},
		Glyph:    "M2 11.500h20M2 12.500h20M6 6v12M9 6v12M15 6v12M18 6v12",
		Places:   true,
		Settings: Settings{},
		Terms: func(knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 2}, Parts: func(n int) int { return n - 1 }}
		},
		Tie:    tieHitches,
		Sample: knot.Sample{Line: "mount A B C, double-half-hitch", Cords: 3, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "double-half-hitch", Family: "hitches", About: "one strand hitched twice over a filler of its own thickness",
		Problem: func() tighten.Problem { _, p := hitchOver(1); return p() },
		Measure: knot.Beyond, Of: "cord beyond the straight", Published: 10.1 + 5.9, Share: 0.06,
	})
}

// hitchFillers are the thicknesses of filler, in strands, over which a hitch is
// drawn up at build time; between two of them it is interpolated.
var hitchFillers = []float64{0.4, 0.56, 0.75, 1, 1.33, 1.86, 2.5, 3.5}

// hitchOver is a double half hitch over a straight filler of the given diameter
// along x, worked to the right, as seen on the face. The strand hangs behind the
// filler; it goes under it and up its face on the side that the row comes from,
// over it and slantwise down behind its own standing part, under it and up its
// face on the side that the row goes to, and over it down behind, inside the
// slant.
func hitchOver(filler float64) (string, func() tighten.Problem) {
	return fmt.Sprintf("hitch over %.2f", filler), func() tighten.Problem {
		k := filler/2 + 0.8
		at := func(x, turn, r float64) r3.Vec { // 0 behind, 90 below, 180 on the face
			s, c := math.Sincos(turn * math.Pi / 180)
			return r3.Vec{X: x, Y: r * s, Z: -r * c}
		}
		route := []r3.Vec{
			{X: -0.5, Y: -12, Z: 0.1 - k}, {X: -0.5, Y: -4, Z: 0.1 - k}, at(-0.5, 0, k-0.1), at(-0.85, 90, k), at(-1.1, 180, k), at(-1.3, 270, k+0.1),
			at(-1.35, 305, k+0.6), at(-0.75, 340, k+1.1), at(0, 360, k+1.25), at(0.75, 380, k+1.1), at(1.35, 415, k+0.6),
			at(1.3, 450, k+0.1), at(1.1, 540, k), at(0.85, 630, k), at(0.5, 720, k-0.1), {X: 0.5, Y: 4, Z: 0.1 - k}, {X: 0.5, Y: 12, Z: 0.1 - k},
		}
		return tighten.Problem{Strands: []tighten.Strand{{Route: route, Diameter: 1}},
			Bars: []tighten.Bar{{From: r3.Vec{X: -40}, To: r3.Vec{X: 40}, Diameter: filler}}}
	}
}

// hitch is a double half hitch on any filler, worked to the right, in
// diameters of its strand: from straight above the filler to straight below
// it, the filler's middle at the origin, seen from the face.
type hitch struct {
	points []r3.Vec
	wide   float64 // along the filler
	Tall   float64 // from its middle to where the strand runs straight
	Gap    float64
}

var hitches memo.Cache[hitch]

func hitchOn(filler float64) (hitch, error) {
	filler = math.Max(hitchFillers[0], math.Min(filler, hitchFillers[len(hitchFillers)-1]))
	return hitches.Get(fmt.Sprintf("%.4f", filler), func() (hitch, error) {
		s, err := family.Between(hitchFillers, filler, 241, hitchOver)
		if err != nil {
			return hitch{}, err
		}
		line := s.Strands[0]
		h := hitch{Tall: filler/2 + 1.1, Gap: s.Gap}
		lo, hi := math.Inf(1), math.Inf(-1)
		for _, v := range line {
			lo, hi = math.Min(lo, v.X), math.Max(hi, v.X)
		}
		h.wide = hi - lo + 1
		mid := (lo + hi) / 2
		// Only what lies about the filler; above and below it runs straight.
		first, last := 0, len(line)-1
		for first < len(line)/2 && line[first+1].Y < -h.Tall {
			first++
		}
		for last > len(line)/2 && line[last-1].Y > h.Tall {
			last--
		}
		a := curve.Lerp(line[first], line[first+1], (-h.Tall-line[first].Y)/(line[first+1].Y-line[first].Y))
		b := curve.Lerp(line[last], line[last-1], (h.Tall-line[last].Y)/(line[last-1].Y-line[last].Y))
		for _, v := range append(append([]r3.Vec{a}, line[first+1:last]...), b) {
			h.points = append(h.points, r3.Vec{X: v.X - mid, Y: v.Y, Z: v.Z})
		}
		return h, nil
	})
}

// Row lays hitches along a filler that runs through the plane of the work.
type Row struct {
	D, filler float64 // of the strands and the filler, mm
	Unit      hitch
	Step      float64 // along the filler from hitch to hitch, mm
	squeeze   float64
}

func NewRow(strands []knot.Strand, filler float64) (Row, error) {
	r := Row{filler: filler, squeeze: math.Inf(-1)}
	for _, l := range strands {
		r.D = math.Max(r.D, l.Diameter)
		r.squeeze = math.Max(r.squeeze, l.Figures.Squeeze)
	}
	var err error
	r.Unit, err = hitchOn(filler / r.D)
	// A row of hitches is pressed together a little less than a sinnet.
	r.Step = r.Unit.wide * r.D * r.squeeze
	return r, err
}

// Over is one hitch, its middle at a place of the filler, which runs there at
// an angle below the horizontal; worked to the left it is the mirror.
func (r Row) Over(at r3.Vec, angle float64, left bool) []r3.Vec {
	s, c := math.Sincos(angle)
	out := make([]r3.Vec, len(r.Unit.points))
	for i, v := range r.Unit.points {
		v = r3.Vec{X: v.X * r.D * r.squeeze, Y: v.Y * r.D, Z: v.Z * r.D}
		v = r3.Vec{X: c*v.X - s*v.Y, Y: s*v.X + c*v.Y, Z: v.Z}
		if left {
			v.X = -v.X
		}
		out[i] = r3.Add(at, v)
	}
	return out
}

const Incline = 38 * math.Pi / 180 // of a diagonal

func tieHitches(w knot.Work) (knot.Tied, error) {
	n := len(w.Strands)
	if n < 2 {
		return knot.Tied{}, fmt.Errorf("double-half-hitch needs a filler and a strand to hitch over it; it has %d strands", n)
	}
	set := knot.Of[Settings](w.Section)
	left := set.Direction == knot.Left
	place := int(set.Filler)
	if place == 0 {
		place = 1
		if left {
			place = n
		}
	}
	if place < 1 || place > n {
		return knot.Tied{}, fmt.Errorf("the filler is at place %d, but the section has %d strands", place, n)
	}
	if left { // tied as the mirror of the same to the right
		m := w
		m.Strands = append([]knot.Strand{}, w.Strands...)
		knot.Flip(m.Strands)
		mirror := set
		mirror.Direction, mirror.Filler = knot.Right, knot.Place(n+1-place)
		m.Section.Settings = mirror
		t, err := tieHitches(m)
		if err != nil {
			return t, err
		}
		t.Mirror(n)
		return t, nil
	}
	f := place - 1
	carry := max(1, set.Carry)
	if f+carry > n-1 {
		return knot.Tied{}, fmt.Errorf("no strand is left beyond the filler to hitch over it; work to the other side, take another filler or carry one less")
	}
	workers := w.Strands[f+carry:]
	// Two fillers lie one before the other in the hitches.
	bore := w.Strands[f].Diameter
	if carry == 2 {
		bore += w.Strands[f+1].Diameter
	}
	row, err := NewRow(workers, bore)
	if err != nil {
		return knot.Tied{}, err
	}
	slope := 0.0
	if set.Slope == "diagonal" {
		slope = Incline
	}
	sin, cos := math.Sincos(slope)
	m := len(workers)
	run := float64(m) * row.Step
	// The hitches and what hangs to the left of them stand about the middle.
	d := row.D
	lone := 0.0
	for _, l := range w.Strands[:f] {
		lone += l.Diameter
	}
	x0 := -(lone + run*cos) / 2
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: row.Unit.Gap, Paths: make([]knot.Path, n)}
	tall := row.Unit.Tall * d
	at := func(way float64) r3.Vec { return r3.Vec{X: x0 + lone + way*cos, Y: tall*cos + way*sin} }
	t.Height = 2*tall*cos + run*sin
	x := x0
	for i, l := range w.Strands[:f] {
		t.Paths[i] = knot.Path{Points: []r3.Vec{{X: x + l.Diameter/2}, {X: x + l.Diameter/2, Y: t.Height}}}
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
			beside := w.Strands[f].Diameter
			in, out, z = float64(1-c)*beside, float64(c)*beside, (0.5-float64(c))*1.02*bore/2
		}
		deep := func(v r3.Vec) r3.Vec { v.Z = z; return v }
		t.Paths[f+c] = knot.Path{Points: curve.Spline([]r3.Vec{
			{X: begin.X - 0.5*d - in}, {X: begin.X - 0.45*d - in, Y: math.Max(0.2*d, begin.Y-0.7*d)},
			deep(begin), deep(at(0.25 * row.Step)), deep(at(run / 2)), deep(at(run - 0.25*row.Step)), deep(end),
			{X: end.X + 0.45*d + out, Y: math.Min(end.Y+0.7*d, t.Height-0.1*d)}, {X: end.X + 0.5*d + out, Y: t.Height},
		}, false).Points}
	}
	for k := range workers {
		h := row.Over(at((float64(k)+0.5)*row.Step), slope, false)
		t.Paths[f+carry+k] = knot.Path{Points: knot.Through(r3.Vec{X: h[0].X, Z: h[0].Z}, h, t.Height)}
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
	t.Moves = Moves(n, place, carry, false, slope > 0)
	return t, nil
}

// Moves are those of a row of hitches over the filler at a place, or over it and
// the next one together, worked to the right, or to the left where left is set.
func Moves(n, place, carry int, left, diagonal bool) []move.Move {
	if left {
		out := Moves(n, n+1-place, carry, false, diagonal)
		for i, m := range out {
			out[i] = m.Mirror(n)
		}
		return out
	}
	slant := ""
	if diagonal {
		slant = ", slanting down"
	}
	others := knot.Numbered(place-1+carry, n-(place-1+carry)) // leads that are hitched, in turn
	fillers := knot.Numbered(place-1, carry)
	var out []move.Move
	for k := carry - 1; k >= 0; k-- {
		m := move.Move{Strand: place - 1 + k, From: move.Left, To: move.Right, Passes: []move.Pass{{How: move.Over, Of: others}},
			Text: "Lay {me} to the {to} across {front 0}" + slant + "."}
		if k == 0 {
			m.Detail = "Hold it taut; it stays straight under every hitch."
		}
		out = append(out, m)
	}
	for k, o := range others {
		m := Hitch(o, fillers)
		if k == len(others)-1 {
			m.Gate = "Two ribs stand side by side for every hitch, in one straight line; at the back a slant holds both parts of the strand."
		}
		out = append(out, m)
	}
	return out
}

// Hitch is the move of one strand that hangs behind the fillers, worked to the
// right.
func Hitch(strand int, fillers []int) move.Move {
	over, under := move.Pass{How: move.Over, Of: fillers}, move.Pass{How: move.Under, Of: fillers}
	return move.Move{Strand: strand, From: move.Right, To: move.Left, Passes: []move.Pass{over, under, over, under},
		Text:   "{me}: up {front 0} at the {to}, round its upper edge and down {infront 1} it, slantwise; again up {infront 2} it, at the {from}, round and down {infront 3} it through its own loop.",
		Detail: "Push it against the hitch before and draw it up."}
}
