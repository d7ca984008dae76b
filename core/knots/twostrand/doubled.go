package twostrand

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// throughRoute is the diamond round two strands that run straight through its
// middle: the first two strands tie it, room is left about the axis for the others.
func throughRoute() tighten.Problem {
	const far = 14.0
	half := append([]r3.Vec{}, diamondHalf()...)
	for i, v := range half { // off the axis
		r := math.Hypot(v.X, v.Z)
		least := 1.25
		if i > len(half)/2 {
			least = 1.35
		}
		if r < least {
			half[i].X, half[i].Z = v.X*least/r, v.Z*least/r
		}
	}
	var inner []r3.Vec
	const steps = 14
	for k := 0; k <= steps; k++ {
		u := float64(k) / steps
		sin, cos := math.Sincos((90 + (141-90)*math.Max(0, math.Min(1, 2*u-0.5))) * math.Pi / 180)
		inner = append(inner, r3.Vec{X: 0.8 * cos, Y: far * (2*u - 1), Z: 0.8 * sin})
	}
	turned := func(pts []r3.Vec) []r3.Vec { return knot.TurnRoute(pts, math.Pi) }
	return tighten.Problem{Strands: []tighten.Strand{
		{Route: half, Diameter: 1}, {Route: turned(half), Diameter: 1}, {Route: inner, Diameter: 1}, {Route: turned(inner), Diameter: 1}}}
}

// doubledRoute is the diamond on two pairs: the single one as it was drawn up, each
// strand laid twice, side by side in the knot's surface.
func doubledRoute() tighten.Problem { return pairsRoute(0) }

// accents are the accent cords, in the diameter of the pairs, with which the knot is
// drawn up at build time.
var accents = []float64{0.3, 0.5, 0.75}

// accentRoute is the diamond on two pairs, an accent cord of a thickness between the
// strands of the first pair.
func accentRoute(thick float64) (string, func() tighten.Problem) {
	return fmt.Sprintf("doubled, accent %.2f", thick), func() tighten.Problem { return pairsRoute(thick) }
}

// inKnot is how far from its middle a single diamond reaches, diameters of its strand laid twice.
const inKnot = 9

func pairsRoute(accent float64) tighten.Problem {
	const loose, far = 1.1, 15.0
	scale := 2.15 + accent // as much wider as what lies beside one another
	var out, own []tighten.Strand
	for k, pts := range single() {
		line := curve.Curve{Points: pts}
		line = line.Resample(int(line.Length()/0.4) + 1)
		for i := range line.Points {
			line.Points[i] = r3.Scale(scale, line.Points[i])
		}
		line.Points = slices.DeleteFunc(line.Points, func(v r3.Vec) bool { return math.Abs(v.Y) > far })
		side := line.Alongside(inKnot)
		off := loose / 2
		if k == 0 && accent > 0 {
			off = loose * (1 + accent) / 2
			own = append(own, tighten.Strand{Route: slices.Clone(line.Points), Diameter: accent})
		}
		for _, sign := range [2]float64{-1, 1} {
			var route []r3.Vec
			for i, v := range line.Points {
				route = append(route, r3.Add(v, r3.Scale(sign*off, side[i])))
			}
			out = append(out, tighten.Strand{Route: route, Diameter: 1})
		}
	}
	return tighten.Problem{Strands: append(out, own...)}
}

// single is the two-strand diamond as it was drawn up. It is set when the program
// starts, for what it reads is registered with what is drawn from it.
var single func() [][]r3.Vec

func init() {
	single = func() [][]r3.Vec { return family.Embedded()["two-strand diamond"].Strands }
}

// Doubled are the settings of a double diamond.
type Doubled struct {
	Accent knot.CordID `json:"accent,omitempty" typed:"accent" label:"accent cord"`
}

// Double diamond (lanyard on two pairs): the two-strand diamond with pairs of
// strands led side by side.
//
// Right: every pair lies flat all the way and never crosses itself. Wrong: one of a
// pair lies over the other; the knot comes up lumpy. It is shaped first and then
// slid home: a pair that is crossed shows only when it is tight.
func init() {
	knot.Add(knot.Knot{
		ID: "double-diamond", Name: "double diamond", Family: "four strands",
		OtherNames: []string{"diamond on pairs", "doubled lanyard knot"},
		For:        "a thick knot of four strands in two pairs: key straps, the neck of a lanyard",
		Schools:    []knot.School{{Field: "strands", Default: "all of them", Why: "the left two are one pair and the right two the other"}},
		Glyph:      "M8 2v4M10 2v4M14 2v4M16 2v4M12 5l6 5v4l-6 5-6-5v-4zM6 10l12 5M18 10L6 15M10 19v3M11.500 19v3M13 19v3M14.500 19v3",
		Repeats:    true,
		Places:     true,
		Settings:   Doubled{},
		Terms: func(s knot.Section) knot.Terms {
			t := knot.Terms{Takes: knot.Takes{Least: 4, Most: 4}, Bundles: true}
			if accent := knot.Of[Doubled](s).Accent; accent != "" {
				t.Cords, t.CordsAt = []string{string(accent)}, "accent"
			}
			return t
		},
		Tie:    tieDoubles,
		Part:   &knot.Part{Says: "Each strand stands for a pair, which is led side by side.", Of: "two-strand-diamond"},
		Sample: knot.Sample{Line: "mount A B, gap 8mm, double-diamond", Cords: 2, Section: 2},
	})
}

func tieDoubles(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 4 {
		no := &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a double diamond takes two pairs, four strands", knot.Strands(n))}
		switch {
		case n > 4:
			no.Set, no.Label = knot.Numbered(1, 4), "Take the first 4"
		case n == 3: // they make no pairs, but a diamond each by itself
			no.Field, no.Set, no.Label = "do", "multi-strand-diamond", "Tie a multi-strand diamond"
			no.Why = "a diamond of pairs; " + no.Why
		}
		return knot.Tied{}, no
	}
	t, err := knot.Each(w, max(1, w.Section.Count), func(w knot.Work, k int) (knot.Tied, error) { return tieDouble(w, k%2 == 1) })
	t.Workers = []int{0, 1, 2, 3}
	if err == nil { // its ends stand in a ring, and are counted as such
		t.Order = ring.Clockwise(4, func(i int) r3.Vec { return t.Paths[i].Points[len(t.Paths[i].Points)-1] })
	}
	if err == nil && len(t.Own) > 0 && w.Section.Count > 1 {
		partAccent(&t, w)
	}
	return t, err
}

// partAccent moves an accent cord clear of the pairs where it runs from one knot to
// the next, which is laid by hand.
func partAccent(t *knot.Tied, w knot.Work) {
	var still []tighten.Strand
	for i, p := range t.Paths {
		still = append(still, tighten.Strand{Route: p.Points, Diameter: w.Strands[i].Diameter})
	}
	parted, _ := knot.Parted([]tighten.Strand{{Route: t.Own[0].Points, Diameter: w.Own[0].Diameter}}, still...)
	t.Own[0] = knot.Path{Points: parted[0]}
}

// tieDouble ties one. An accent follows the right pair, and the left one where the
// pairs have changed places.
func tieDouble(w knot.Work, changed bool) (knot.Tied, error) {
	d := 0.0
	for _, l := range w.Strands {
		d = math.Max(d, l.Diameter)
	}
	shape, err := pairs(w, d)
	if err != nil {
		return knot.Tied{}, err
	}
	strands := shape.Strands
	if changed {
		strands = nil
		for _, pts := range shape.Strands {
			strands = append(strands, knot.TurnRoute(pts, math.Pi))
		}
	}
	laid := knot.Lay(strands, d)
	t := knot.Tied{Loose: true, Snug: true, AtEnd: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Moves: doubleMoves()}
	var of, placed []int // the strand at each place, and the place of each laid one
	for i, k := range laid.Of {
		placed = append(placed, len(of))
		if k < 4 {
			of, t.Paths = append(of, k), append(t.Paths, laid.Paths[i])
		} else {
			t.Own = append(t.Own, laid.Paths[i])
		}
	}
	for _, i := range laid.Order {
		if laid.Of[i] < 4 {
			t.Order = append(t.Order, placed[i])
		}
	}
	if len(t.Own) > 0 {
		const accent, begins = 4, 0.05 // it goes on with the pair
		with := []int{slices.Index(of, 0), slices.Index(of, 1)}
		slices.Sort(with)
		for i, m := range t.Moves {
			if m.Strand == with[0] {
				t.Moves[i].With = append(slices.Clone(m.With), accent)
			}
		}
		t.Moves = slices.Insert(t.Moves, 1, move.Move{Strand: accent, UpTo: begins, End: true, Naming: [][]int{with}, Text: "Lay cord {cord} between both strands of the pair of {strands 0} and lead it with them all the way.",
			Detail: "Its ends stay inside and are cut flush when the knot is tight.", Gate: "It lies between them all the way, on neither."})
	}
	single := diamondRoute().Strands // both of a pair pass what one strand passes
	const apart = 0.1
	for place := range 4 {
		route := single[of[place]/2].Route
		line := curve.Spline(route[2:len(route)-2], false)
		side := line.Alongside(inKnot)
		sign := float64(2*(of[place]%2) - 1)
		var pts []r3.Vec
		for i, v := range line.Points {
			pts = append(pts, r3.Scale(d, r3.Add(v, r3.Scale(sign*apart, side[i]))))
		}
		t.Flat = append(t.Flat, knot.Path{Points: pts})
	}
	return t, nil
}

// pairs is the drawn-up knot, with an accent cord as the last strand where there is
// one.
func pairs(w knot.Work, d float64) (shapes.Shape, error) {
	if len(w.Own) == 0 {
		return family.Shape("doubled", doubledRoute)
	}
	const nodes = 421
	thick, most := w.Own[0].Diameter/d, accents[len(accents)-1]
	if thick > most {
		label := w.Own[0].Stuff.DiameterMM * most / thick
		label = math.Floor(10*label) / 10
		return shapes.Shape{}, &knot.Refused{Field: "accent", Why: fmt.Sprintf("a cord of %.1f mm, too thick between strands of %.1f mm; up to %.1f mm lies flat there", w.Own[0].Diameter, d, most*d),
			Set: []knot.CordThickness{{Cord: w.Own[0].Cord, DiameterMM: label}}, Label: fmt.Sprintf("Take a cord of %g mm", label)}
	}
	return family.Between(accents, thick, nodes, accentRoute)
}

// doubleMoves are those of the single knot, said of pairs; the first strand of each
// stands for both.
func doubleMoves() []move.Move {
	pair := func(i int) []int { return []int{i / 2 * 2, i/2*2 + 1} }
	out := moves(0, 2)
	for i, m := range out {
		out[i].Passes = slices.Clone(m.Passes)
		for k, p := range m.Passes {
			out[i].Passes[k].Of = pair(p.Of[0])
		}
		out[i].Naming = [][]int{pair(m.Strand), pair(2 - m.Strand)}
		out[i].With = []int{m.Strand + 1}
		out[i].Text = strings.ReplaceAll(m.Text, "{me}", "the pair of {strands 0}")
		out[i].Text = strings.ToUpper(out[i].Text[:1]) + out[i].Text[1:]
	}
	out[0].Gate = "Both strands of the pair lie side by side, none crossed."
	out[3].Detail = "Shape it first, pair by pair; then slide it home."
	out[3].Gate = "No pair crosses itself; four double parts stand round the ends."
	return out
}
