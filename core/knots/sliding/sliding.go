// Package sliding ties the sliding pair, which makes a neck cord longer and shorter.
package sliding

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/caution"
	"nimblebight/core/curve"
	"nimblebight/core/finish"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ends"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// How is how its two ends are finished, of package finish.
type How string

// Choices are the finishes of one end by itself.
func (How) Choices() []string {
	var out []string
	for _, f := range finish.All() {
		if f.Alone() {
			out = append(out, f.ID)
		}
	}
	return out
}

// Settings of a sliding pair.
type Settings struct {
	MaxMM float64 `json:"max_mm,omitempty" typed:"max" label:"longest opening" most:"3000" begin:"700" needed:"yes"`
	MinMM float64 `json:"min_mm,omitempty" typed:"min" label:"shortest opening" most:"3000"`
	Turns int     `json:"turns,omitempty" typed:"turns" label:"turns in each" default:"2" least:"2" most:"3"`
	How   How     `json:"how,omitempty" typed:"how" label:"ends" default:"dome"`
}

// Sliding pair: two double-fisherman knots, each of one end round the other's
// standing part, so that the cord slides to length and holds when it is let go.
//
// Right: the pair drawn together shows four parallel parts on one side and two
// crosses on the other; each half by itself shows two parallel turns on one side and
// one cross on the other. Wrong: a cross on either side: the halves are of two hands
// and do not lie against each other.
//
// The longest opening is with the halves together, the shortest with both of them
// pushed up to where the pair begins; that is half the cord between them.
func init() {
	knot.Add(knot.Knot{
		ID: "sliding-pair", Name: "sliding pair", Family: "two strands",
		Held: "Flat on the board, the neck pinned at its middle.", HoldTools: []string{"cork board and pins"},
		OtherNames: []string{"sliding knots", "double fisherman pair", "adjustable knot"},
		For:        "closing a neck cord so that it slides to length",
		Schools: []knot.School{
			{Field: "turns", Default: "2", Why: "two turns hold in common cord; three in slippery braid, and take a third more"},
			{Field: "how", Default: "dome", Why: "a dome of the cord itself cannot pull back into the turns and does not scratch"},
		},
		Glyph:    "M2 9h20M2 15h20M6 7c2 0 2 10 0 10M9 7c2 0 2 10 0 10M15 7c2 0 2 10 0 10M18 7c2 0 2 10 0 10",
		Places:   true,
		Settings: Settings{},
		Terms:    func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 2, Most: 2}} },
		Tie:      tie,
		Hold:     hold,
		Part:     &knot.Part{Says: "One half of it, round the other strand; the second is led alike at its mirror place.", Strands: alone, Still: []bool{true, false}},
		Sample:   knot.Sample{Line: "mount A, sliding-pair max=160mm", Cords: 1, Section: 1},
	})
	knot.AddRoute(knot.Route{
		Name: "sliding-pair", Family: "two strands", About: "one half: an end round the other's standing part in two full turns and out inside them",
		Problem: func() tighten.Problem { return half(2) },
		Measure: func(r tighten.Result) float64 { return knot.BeyondStraight(r.Strands[1].Points) }, Of: "cord beyond the straight, of the end", Published: 20.7, Share: 0.02,
	})
}

// alone is one half of two turns, with the other's standing part.
func alone() ([]curve.Curve, error) {
	shape, err := family.Shape("half of 2", func() tighten.Problem { return half(2) })
	if err != nil {
		return nil, err
	}
	var out []curve.Curve
	for _, s := range shape.Strands {
		out = append(out, curve.Curve{Points: s})
	}
	return out, nil
}

const (
	tail             = 4.0       // of an end beyond its half, in diameters
	apart            = 0.55      // from the middle of the pair to either strand
	neckBow, handBow = 40.0, 4.0 // how far out either strand bows
	handAbove        = 4.0       // so far above its middle hands tie it
	leads            = 5.5       // straight beside a half, where the other's end lies
)

// pair is both halves drawn together, in diameters: the strand that comes from the
// left, then the one from the right. x runs along the pair, y down, z to the face.
type pair struct {
	strands [2][]r3.Vec
	half    float64 // from the middle of the pair to that of a half
	gap     float64
}

// drawnTogether lays two halves against each other. The second strand is the first
// turned half round the face.
func drawnTogether(turns int) (pair, error) {
	shape, err := family.Shape(fmt.Sprintf("half of %d", turns), func() tighten.Problem { return half(turns) })
	if err != nil {
		return pair{}, err
	}
	standing, end := shape.Strands[0], shape.Strands[1]
	reach := 0.0 // of the turns along the pair
	for i := 1; i < len(end); i++ {
		if step := r3.Sub(end[i], end[i-1]); step.Y < 0.9*r3.Norm(step) {
			reach = math.Max(reach, math.Abs(end[i].Y))
		}
	}
	h := reach + 0.5
	// The first strand's half is tied at h round the second, which runs along
	// y = apart; its own way there is along y = -apart, through the second's half.
	at := func(v r3.Vec) r3.Vec { return r3.Vec{X: v.Y + h, Y: v.X + apart, Z: -v.Z} }
	over := func(v r3.Vec) r3.Vec { return r3.Vec{X: -v.X, Y: -v.Y, Z: v.Z} }
	var first []r3.Vec
	for _, v := range slices.Backward(standing) { // the core of the other half
		if p := over(at(v)); p.X > -h-reach-leads && p.X < -0.3 {
			first = append(first, p)
		}
	}
	for i, v := range end {
		p := at(v)
		if i < len(end)/2 && p.X < 0.3 || i > len(end)/2 && p.X > h+reach+tail {
			continue
		}
		first = append(first, p)
	}
	p := pair{half: h}
	second := make([]r3.Vec, len(first))
	for i, v := range first {
		second[i] = over(v)
	}
	parted, gap := knot.Parted([]tighten.Strand{{Route: first, Diameter: 1}, {Route: second, Diameter: 1}})
	for i := range p.strands {
		p.strands[i] = parted[i]
	}
	p.gap = gap
	return p, nil
}

func tie(w knot.Work) (knot.Tied, error) {
	t, _, err := lay(w, false, 1)
	return t, err
}

// lay lays the pair: as it hangs, or in hand, its halves standing so many times as wide as they
// are drawn up.
func lay(w knot.Work, inHand bool, wide float64) (knot.Tied, pair, error) {
	if n := len(w.Strands); n != 2 {
		return knot.Tied{}, pair{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a sliding pair closes two", knot.Strands(n))}
	}
	set := knot.Of[Settings](w.Section)
	turns := max(2, set.Turns)
	p, err := drawnTogether(turns)
	if err != nil {
		return knot.Tied{}, p, err
	}
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	if set.MinMM > set.MaxMM && set.MaxMM > 0 {
		return knot.Tied{}, pair{}, &knot.Refused{Field: "min_mm", Why: fmt.Sprintf("%g mm, more than its longest opening of %g mm", set.MinMM, set.MaxMM), Set: 0.0, Label: "Let the plan say the shortest"}
	}
	least := math.Ceil(2 * (math.Abs(p.strands[0][0].X) + 8) * d)
	if set.MaxMM < least {
		return knot.Tied{}, pair{}, &knot.Refused{Field: "max_mm", Why: fmt.Sprintf("%g mm; its halves and their ends alone need %g mm", set.MaxMM, least), Set: least, Label: fmt.Sprintf("Make it %g mm", least)}
	}
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: p.gap, Order: knot.Identity(2), Ends: true, Workers: []int{0, 1}}
	f, _ := finish.Get(string(set.How))
	if f.ID == "" {
		f, _ = finish.Get("dome")
	}
	for _, l := range w.Strands {
		t.Endings = append(t.Endings, ends.Ending(f, l.Stuff, 0))
	}
	lines := [2][]r3.Vec{}
	for i, pts := range p.strands {
		for _, v := range pts {
			// It stands wider round itself than along.
			lines[i] = append(lines[i], r3.Vec{X: along(wide) * d * v.X, Y: wide * d * v.Y, Z: wide * d * v.Z})
		}
	}
	// The way from the top to the middle of the pair is half of the opening.
	toMiddle := 0.0
	for i := 1; i < len(lines[0]); i++ {
		if lines[0][i].X < 0 {
			toMiddle += r3.Norm(r3.Sub(lines[0][i], lines[0][i-1]))
		}
	}
	neck := set.MaxMM/2 - toMiddle/wide
	neck += (wide - 1) * toMiddle // it reaches as far out as the halves do
	bow := neckBow * d
	if inHand { // one sees them come down on both sides
		bow = handBow * d
	}
	fall, legs := necks(w, lines, neck, bow, d)
	t.BareMM = neck
	if inHand {
		t.HandMM = fall - handAbove*d
	}
	for i, line := range lines {
		pts := slices.Clone(legs[i])
		for _, v := range line {
			pts = append(pts, r3.Vec{X: v.X, Y: v.Y + fall, Z: v.Z})
			t.Height = math.Max(t.Height, v.Y+fall)
		}
		t.Paths = append(t.Paths, knot.Path{Points: pts, Lies: lies(len(legs[i]), len(pts))})
	}
	shortest := (set.MaxMM + 2*p.half*d) / 2
	t.Checks = []string{
		fmt.Sprintf("Opening: {%.0fmm} with the halves together, {%.0fmm} with both pushed up.", set.MaxMM, shortest),
		"Pull the halves apart by the neck: they hold. Push them: they slide.",
		"Drawn together they show four parallel parts on one side and two crosses on the other.",
	}
	t.Opening = &knot.Opening{RoundMM: set.MaxMM, Field: "max_mm", PerMM: 1, Closes: true}
	t.Cautions = append([]caution.Call{{ID: caution.Neck}}, f.Calls()...)
	t.Warnings = ends.Burns(f, w.Strands)
	if set.MinMM > 0 && set.MinMM < shortest-0.5 {
		t.Warnings = append(t.Warnings, knot.Flaw{Code: "slides-no-shorter", Field: "min_mm", Set: math.Ceil(shortest), Label: fmt.Sprintf("Take %g mm", math.Ceil(shortest)),
			Says: fmt.Sprintf("It slides to {%.0fmm} and no shorter, half of the cord between its halves; {%.0fmm} is wanted.", shortest, set.MinMM)})
	}
	t.Moves = moves(turns, f, t.Endings)
	return t, p, nil
}

// along is how many times as long the pair is that stands so many times as wide.
func along(wide float64) float64 { return 1 + (wide-1)/2 }

// lies tells how the strand lies: bare along the neck, snug in the pair.
func lies(bare, n int) []knot.Lie {
	out := make([]knot.Lie, n)
	for i := range out {
		out[i] = knot.Free
		if i > bare {
			out[i] = knot.Snug
		}
	}
	return out
}

// necks leads both strands from the top out and round to where the pair takes them
// up, each so long in mm. It gives how far down the pair then lies.
func necks(w knot.Work, lines [2][]r3.Vec, length, bow, d float64) (fall float64, legs [2][]r3.Vec) {
	lead := func(i int, fall float64) []r3.Vec {
		a := r3.Vec{X: w.Strands[i].At.X, Z: w.Strands[i].At.Z}
		b := lines[i][0]
		b.Y += fall
		side := float64(2*i - 1)
		into := r3.Vec{X: -side}
		wide := math.Min(0.5*fall, bow)
		const steps = 48
		var pts []r3.Vec
		for k := range steps { // a drop: straight down, out, round and in
			u := float64(k) / steps
			c1 := r3.Add(a, r3.Vec{X: side * 0.25 * wide, Y: 0.4 * fall})
			c2 := r3.Sub(b, r3.Scale(1.7*wide, into))
			q := r3.Scale((1-u)*(1-u)*(1-u), a)
			q = r3.Add(q, r3.Scale(3*(1-u)*(1-u)*u, c1))
			q = r3.Add(q, r3.Scale(3*(1-u)*u*u, c2))
			pts = append(pts, r3.Add(q, r3.Scale(u*u*u, b)))
		}
		return pts
	}
	long := func(fall float64) float64 {
		sum := 0.0
		for i := range lines {
			pts := lead(i, fall)
			end := lines[i][0]
			end.Y += fall
			sum += curve.Curve{Points: append(pts, end)}.Length() / 2
		}
		return sum
	}
	lo, hi := 0.0, length
	for range 60 {
		if mid := (lo + hi) / 2; long(mid) < length {
			lo = mid
		} else {
			hi = mid
		}
	}
	return lo, [2][]r3.Vec{lead(0, lo), lead(1, lo)}
}

// moves are those of both halves and the finishing of the ends.
func moves(turns int, f finish.Finish, endings []knot.Ending) []move.Move {
	count := map[int]string{2: "two", 3: "three"}[turns]
	out := []move.Move{{Strand: -1, Naming: [][]int{{0, 1}}, Text: "Balance the hang, then lay the ends of {strands 0} past each other, side by side.", Detail: "Each end is cut long enough for its half and for holding it."}}
	half := func(me int) move.Move {
		return move.Move{Strand: me, Naming: [][]int{{1 - me}}, Text: "Lead the end of {me} beside the standing part of {strands 0}, back round both in " + count + " full turns, and out inside the turns, between them and that standing part.",
			Detail: "Draw it up snug, not hard: it must slide.", Gate: "Parallel turns on one side, one cross on the other."}
	}
	first, second := half(0), half(1)
	second.Detail = "At its mirror place, by the same hand: turn the work half round and do as before."
	second.Gate = "Drawn together: four parallel parts on one side, two crosses on the other."
	return append(append(out, first, second), ends.Moves(f, endings, 0)...)
}
