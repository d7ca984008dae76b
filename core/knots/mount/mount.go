// Package mount puts folded cords on what the piece hangs on, or behind strands
// that hang there.
package mount

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Hitch is how a cord is put on.
type Hitch string

// The hitches.
const (
	LarksHead         Hitch = "larks-head"
	LarksHeadReversed Hitch = "larks-head-reversed"
	LaidBehind        Hitch = "laid-behind"
	FromKnot          Hitch = "from-knot"
	ThroughHole       Hitch = "through-hole"
	KeptLoop          Hitch = "kept-loop"
	SingleEnd         Hitch = "single-end"
	Crossed           Hitch = "crossed"
)

// Choices are the hitches.
func (Hitch) Choices() []string {
	return []string{string(LarksHead), string(LarksHeadReversed), string(ThroughHole), string(KeptLoop), string(SingleEnd), string(Crossed), string(LaidBehind), string(FromKnot)}
}

// Settings of a mount.
type Settings struct {
	Cords knot.CordIDs `json:"cords,omitempty" typed:"-" label:"cords, from the left" needed:"yes"`
	Hitch Hitch        `json:"hitch,omitempty" typed:"hitch" label:"hitch" default:"larks-head"`
	// LoopMM is how long a kept loop is, measured inside.
	LoopMM float64    `json:"loop_mm,omitempty" typed:"loop" label:"loop, inside" most:"2000" for:"hitch=kept-loop"`
	Bead   *knot.Bead `json:"bead,omitempty" for:"hitch=kept-loop"`
}

// Of is a section that puts cords on.
func Of(hitch Hitch, cords ...string) knot.Section {
	return knot.Section{Do: "mount", Settings: Settings{Cords: cords, Hitch: hitch}}
}

func terms(s knot.Section) knot.Terms {
	set := knot.Of[Settings](s)
	t := knot.Terms{Begins: knot.OnHardware, Cords: set.Cords, CordsAt: "cords", Legs: 2}
	switch set.Hitch {
	case LaidBehind:
		t.Begins, t.Takes = knot.BehindStrands, knot.Takes{Least: 1}
	case FromKnot:
		t.Begins, t.Legs = knot.ForTheNext, 0
	case KeptLoop, Crossed:
		t.HangsFree = true
	case SingleEnd:
		t.Legs = 1
	}
	return t
}

// anew puts the free cords on; where strands hang already, one of them behind
// those.
func anew(hanging int, free []string) []knot.Section {
	if hanging > 0 {
		return []knot.Section{Of(LaidBehind, free[:min(1, len(free))]...)}
	}
	return []knot.Section{Of(LarksHead, free...)}
}

// Mounts: how a folded cord is put on what the piece hangs on, or behind
// strands that hang there already.
//
// Lark's head (cow hitch): the fold is laid to the ring, both legs go round the
// ring's wire and out through the fold. Right: two turns lie side by side on
// the wire and the bar of the fold crosses both legs. Wrong: the legs only hang
// over the wire and the fold pulls off.
//
// Through a hole: each cord goes once through the hole of a handle, or over a wire,
// with one leg in front and one behind. Kept loop: the fold stands as a loop of a
// length, in something or free, while the knot under it is drawn up. Single end: one
// end is hitched to the wire and the rest of the cord hangs. Crossed: two cords lie
// crosswise at their folds, and a crown begins with their four legs.
//
// From a knot: the cords come out of a ball that is tied first; they are put on
// nothing yet, and the ring comes last.
//
// Makers differ in which side the bar is on. In front it hides the legs'
// entry and reads as the first bar of a flat sinnet, so that is the default;
// reversed, the face shows two clean turns on the ring.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "mount", Name: "mount", Family: "mounts",
		Learnt:     "lark's head",
		OtherNames: []string{"larks head", "cow hitch", "lanyard hitch"},
		For:        "putting cords on a ring, through a hole, on a loop of their own, behind strands that hang already, or beginning with a ball",
		Schools: []knot.School{{Field: "hitch", Default: "larks-head",
			Why: "the bar in front hides where the legs come out and reads as the first bar of the sinnet"}},
		Short:     []string{"m"},
		Glyph:     "M2 7h20M2 8h20M8 22V8a2 2 0 0 1 4-1 2 2 0 0 1 4 1v14M7 12h10",
		Mounts:    true,
		BothHands: true,
		Settings:  Settings{},
		Terms:     terms,
		Anew:      anew,
		Arranged:  arranged,
		Tie:       tieMount,
		Hold:      holdMount,
		Sample:    knot.Sample{Line: "mount A B, gap 6mm", Cords: 2},
	})
}

func init() {
	knot.AddRoute(knot.Route{
		Name: "larks-head", Family: "mounts", About: "the fold laid to a wire as thick as the cord, both legs round it and out through the fold",
		Problem: func() tighten.Problem { _, p := headOn(1); return p() },
		Measure: func(r tighten.Result) float64 { return r.Length - 2*(0.5+legReach) }, Of: "both legs beyond the wire's middle", Published: 15.0, Share: 0.01,
	})
}

// headBars are the wire thicknesses, in cord diameters, for which the lark's
// head is drawn up at build time; between two of them it is interpolated.
var headBars = []float64{0.1, 0.2, 0.3, 0.45, 0.6, 0.8, 1, 1.2, 1.4, 1.6, 1.8, 2, 2.25, 2.5, 2.75, 3, 3.25, 3.5, 3.75, 4, 4.5, 5, 5.5, 6, 6.5, 7, 7.5, 8}

const legReach = 10.0 // diameters of straight leg below the wire

// headOn is a lark's head, bar in front, on a wire of bar diameters: from the
// end of the left leg up behind the bar, through in front of the wire, over it,
// down behind it, forward under it and across in front of both legs.
func headOn(bar float64) (string, func() tighten.Problem) {
	return fmt.Sprintf("larks-head on %.2f", bar), func() tighten.Problem {
		r := bar/2 + 0.75
		half := []r3.Vec{
			{X: 0.55, Y: bar/2 + legReach}, {X: 0.6, Y: bar/2 + 5}, {X: 0.6, Y: r + 1.6},
			{X: 0.65, Y: r*0.7 + 0.3, Z: r * 0.75}, {X: 0.75, Z: r}, {X: 0.9, Y: -r * 0.75, Z: r * 0.75},
			{X: 1.15, Y: -r}, {X: 1.45, Y: -r * 0.75, Z: -r * 0.75}, {X: 1.75, Z: -r},
			{X: 2, Y: r * 0.7, Z: -r * 0.75}, {X: 2.2, Y: r + 0.4}, {X: 2, Y: r + 1.5, Z: 1}, {X: 1, Y: r + 2, Z: 1.2},
		}
		var route []r3.Vec
		for _, p := range half {
			route = append(route, r3.Vec{X: -p.X, Y: p.Y, Z: p.Z})
		}
		for i := len(half) - 1; i >= 0; i-- {
			route = append(route, half[i])
		}
		return tighten.Problem{
			Strands: []tighten.Strand{{Route: route, Diameter: 1}},
			Bars:    []tighten.Bar{{From: r3.Vec{X: -60}, To: r3.Vec{X: 60}, Diameter: bar}},
		}
	}
}

// head is the lark's head on any wire: the right half, from the middle of the
// bar to where the leg runs free, in diameters, and its least gap.
func head(bar float64) ([]r3.Vec, float64, error) {
	const nodes = 200
	s, err := family.Between(headBars, bar, 2*nodes+1, headOn)
	if err != nil {
		return nil, 0, err
	}
	line := s.Strands[0]
	mid := len(line) / 2
	// The two halves are one drawn twice: take their mean, and the middle of
	// the bar on the axis.
	half := make([]r3.Vec, 0, mid+1)
	for i := 0; i <= mid; i++ {
		r, l := line[mid+i], line[mid-i]
		half = append(half, r3.Vec{X: (r.X - l.X) / 2, Y: (r.Y + l.Y) / 2, Z: (r.Z + l.Z) / 2})
	}
	end := half[0].Y + 0.75
	for i := len(half) - 1; i > 0; i-- { // the leg is the last way down past the bar
		a, b := half[i-1], half[i]
		if a.Y < end && b.Y >= end {
			return append(half[:i:i], curve.Lerp(a, b, (end-a.Y)/(b.Y-a.Y))), s.Gap, nil
		}
	}
	return nil, 0, fmt.Errorf("knot: the lark's head on %.2f does not hang down", bar)
}

func tieMount(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	switch set.Hitch {
	case LaidBehind:
		return tieLaidBehind(w)
	case FromKnot:
		return knot.Tied{Repeats: 1, Gap: 1}, nil // the ball after it ties them
	case KeptLoop:
		if w.BarMM == 0 {
			return tieFree(w)
		}
		return tieThrough(w)
	case ThroughHole:
		return tieThrough(w)
	case SingleEnd:
		return tieSingle(w)
	case Crossed:
		return tieCrossed(w)
	}
	if w.DeepMM > 0 {
		return knot.Tied{}, &knot.Refused{Field: "hitch", Why: "a lark's head is drawn up on a wire, and this is the edge of a hole", Set: string(ThroughHole), Label: "Lead the cords through the hole"}
	}
	// Heads sit side by side; a head is as wide as its loops.
	type headOf struct {
		half []r3.Vec
		wide float64
		gap  float64
	}
	var heads []headOf
	total, bottom := 0.0, 0.0
	for i := 0; i+1 < len(w.Own); i += 2 {
		d := w.Own[i].Diameter
		half, gap, err := head(w.BarMM / d)
		if err != nil {
			return knot.Tied{}, err
		}
		wide := 0.0
		for k, p := range half {
			half[k] = r3.Scale(d, p)
			wide = math.Max(wide, half[k].X+d/2)
		}
		heads = append(heads, headOf{half, 2*wide + 0.06*d, gap})
		total += 2*wide + 0.06*d
		bottom = math.Max(bottom, half[len(half)-1].Y)
	}
	if round := 2 * math.Pi * w.RingMM; w.RingMM > 0 && total > round {
		return knot.Tied{}, &knot.Refused{Field: "cords", Why: fmt.Sprintf("%d heads take %.1f mm of the wire, and it is %.1f mm all the way round", len(heads), total, round),
			Set: knot.RingWidth{GrowMM: math.Ceil((total - round) / math.Pi)}, Label: "Take a wider one"}
	}
	t := knot.Tied{Height: bottom, Loose: true, Open: true, Repeats: 1, Gap: math.Inf(1), Along: total}
	x := -total / 2
	flip := 1.0
	if set.Hitch == LarksHeadReversed {
		flip = -1
	}
	for i, h := range heads {
		for _, side := range [2]float64{-1, 1} {
			var p knot.Path
			for _, v := range h.half {
				p.Points = append(p.Points, r3.Vec{X: x + h.wide/2 + side*v.X, Y: v.Y, Z: flip * v.Z})
			}
			if end := p.Points[len(p.Points)-1]; end.Y < bottom-1e-9 {
				p.Points = append(p.Points, r3.Vec{X: end.X, Y: bottom, Z: end.Z})
			}
			bendRound(p.Points, w.RingMM)
			t.Own = append(t.Own, p)
		}
		x += h.wide
		t.Gap = math.Min(t.Gap, h.gap)
		detail := "Fold to the wire, both legs round it and out through the fold; draw it up till the bar lies against the legs."
		if joined(w, i) {
			detail += " A joint at the fold lies in the bar: behind it hides, in front it shows where the colours meet."
		}
		t.Moves = append(t.Moves, move.Move{Strand: 2 * i, With: []int{2*i + 1},
			Passes: []move.Pass{{How: move.How(flip > 0), Of: []int{2 * i}}},
			Text:   "Fold cord {cord} at its mark and put it on by a lark's head, the bar {face 0}.",
			Detail: detail,
			Gate:   "The bar lies {face 0}, and both legs come out under it."})
	}
	t.Order = knot.Identity(len(w.Own))
	t.Checks = []string{"Each head sits tight on the wire."}
	return t, nil
}

// joined tells whether the two legs of folded cord i are of two cords fused to one.
func joined(w knot.Work, i int) bool { return w.Own[2*i].Cord != w.Own[2*i+1].Cord }

// bendRound bends what was laid on a straight wire round a ring of radius r:
// heads then stand square on the wire wherever they sit.
func bendRound(pts []r3.Vec, r float64) {
	if r <= 0 {
		return
	}
	for i, v := range pts {
		sin, cos := math.Sincos(math.Max(-math.Pi, math.Min(math.Pi, v.X/r)))
		pts[i] = r3.Vec{X: (r + v.Y) * sin, Y: (r+v.Y)*cos - r, Z: v.Z}
	}
}

// tieLaidBehind lays the middle of each new cord behind the strands that hang
// there; its legs become the outer strands.
func tieLaidBehind(w knot.Work) (knot.Tied, error) {
	if len(w.Strands) == 0 {
		return knot.Tied{}, fmt.Errorf("hitch laid-behind needs strands that hang already; mount those first")
	}
	xs, row, thick := knot.SideBySide(w.Strands)
	t := knot.Tied{Open: true, Repeats: 1, Gap: 1}
	var onTheLeft []int // of the middle: what the left leg passes
	for k, x := range xs {
		if x < -1e-9 {
			onTheLeft = append([]int{k}, onTheLeft...)
		}
	}
	level := 0.0
	outer := row / 2
	var left, right []int
	for i := 0; i+1 < len(w.Own); i += 2 {
		d := w.Own[i].Diameter
		fall := 1.4 * d
		a := outer + 0.9*d
		back := -(thick/2 + d/2)
		half := curve.Spline([]r3.Vec{
			{X: 0, Y: level + 0.5*d, Z: back}, {X: row / 2, Y: level + 0.5*d, Z: back},
			{X: a - 0.1*d, Y: level + 0.75*d, Z: back / 2}, {X: a, Y: level + fall, Z: 0},
		}, false)
		for _, side := range [2]float64{-1, 1} {
			var p knot.Path
			for _, v := range half.Points {
				p.Points = append(p.Points, r3.Vec{X: side * v.X, Y: v.Y, Z: v.Z})
			}
			t.Own = append(t.Own, p)
		}
		left = append([]int{len(w.Strands) + i}, left...)
		right = append(right, len(w.Strands)+i+1)
		level += fall
		outer = a + d/2
		t.Moves = append(t.Moves, move.Move{Strand: len(w.Strands) + i, Folded: true,
			Passes: []move.Pass{{How: move.Under, Of: onTheLeft}},
			Text:   "Lay the fold of cord {cord} {infront 0} the strands that hang there, its legs to both sides.",
			Detail: "Hold it with a finger or a clip till the first knot is drawn up.",
			Gate:   "The fold mark lies {infront 0} the middle of the strands."})
	}
	t.Height = level
	for _, x := range xs {
		t.Paths = append(t.Paths, knot.Path{Points: []r3.Vec{{X: x}, {X: x, Y: level}}})
	}
	for i := range t.Own {
		last := t.Own[i].Points[len(t.Own[i].Points)-1]
		if last.Y < level-1e-9 {
			t.Own[i].Points = append(t.Own[i].Points, r3.Vec{X: last.X, Y: level})
		}
	}
	t.Order = append(append(left, knot.Identity(len(w.Strands))...), right...)
	return t, nil
}
