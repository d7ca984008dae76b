// Package crowndiamond ties the crown-and-diamond, short and long, on two strands.
package crowndiamond

import (
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/move"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Form is how often the ends are led round.
type Form string

// The forms.
const (
	Short Form = "short"
	Long  Form = "long"
)

// Choices are the forms.
func (Form) Choices() []string { return []string{string(Long), string(Short)} }

// Gap is the gap of the half knot by which the ends come home.
type Gap string

// The gaps, with the loop above.
const (
	Lower Gap = "nearer-the-loop"
	Upper Gap = "farther"
)

// Choices are the gaps.
func (Gap) Choices() []string { return []string{string(Lower), string(Upper)} }

// Settings of a crown-and-diamond.
type Settings struct {
	Form Form `json:"form,omitempty" typed:"form" label:"form" default:"long"`
	Gap  Gap  `json:"gap,omitempty" typed:"gap" label:"ends come home by the gap" default:"nearer-the-loop"`
}

// Long crown-and-diamond (extended diamond): a half knot away from the loop; each
// lead makes a wing and is led back under both legs and the other's wing, over
// everything, down inside its own wing and out under it; in the long form once more
// round outside both wings and through the first wing; then both ends come home
// through the half knot, from opposite faces.
//
// Right: a column of crossing bights in two colours, with small holes by the half
// knot; at the loop a ring round its legs; an end in each hollow of the S below. It
// is the same turned half round. Wrong: one end inside the other's wing and one
// outside; the knot is unsound.
//
// Its last tucks are told in more than one way. Ours was chosen by its shape from
// all that the words allow: of those it comes up the most even. Ends that come home
// by the other gap make another knot.
func init() {
	knot.Add(knot.Knot{
		ID: "long-crown-and-diamond", Name: "long crown-and-diamond", Family: "two strands",
		OtherNames: []string{"extended diamond", "crown and diamond"},
		For:        "a slim covering-like knot of two strands under a loop: lanyards, pulls, long stoppers. Its last tucks are our reading of how it is told",
		Schools: []knot.School{
			{Field: "form", Default: "long", Why: "the long form is the short one with one tier more; short takes a third less cord"},
			{Field: "gap", Default: string(Lower), Why: "the last tucks are told in more than one way, and this is our reading: by the gap nearer the loop it comes up the most even; by the other gap it is another knot, shorter and a little slimmer"},
		},
		Glyph:    "M9 2v5M15 2v5M8 7l8 4-8 4 8 4M16 7l-8 4 8 4-8 4M6 9v8M18 9v8M11 20v2M13 20v2",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms:    func(knot.Section) knot.Terms { return knot.Terms{Takes: knot.Takes{Least: 2, Most: 2}} },
		Tie:      tie,
		Sample:   knot.Sample{Line: "mount A, gap 14mm, long-crown-and-diamond", Cords: 1, Section: 2},
	})
	add := func(name, about string, f Form, g Gap, cord float64, determinant int) {
		knot.AddRoute(knot.Route{Name: name, Family: "two strands", About: about, Problem: func() tighten.Problem { return route(f, g) },
			Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: cord, Share: 0.02, Determinant: determinant})
	}
	add("crown-and-diamond", "a half knot, two wings, each end once through its own wing, home by the gap nearer the loop", Short, Lower, 21.5, 63)
	add("long-crown-and-diamond", "as the short form, once more round outside both wings", Long, Lower, 33.4, 369)
}

func nameOf(f Form, g Gap) string { return fmt.Sprintf("%s, home %s", f, g) }

// setOf are the settings with what was not said.
func setOf(s knot.Section) Settings {
	set := knot.Of[Settings](s)
	if set.Form == "" {
		set.Form = Long
	}
	if set.Gap == "" {
		set.Gap = Lower
	}
	return set
}

// tie ties as many as the section counts, one under the other.
func tie(w knot.Work) (knot.Tied, error) {
	if n := len(w.Strands); n != 2 {
		return knot.Tied{}, &knot.Refused{Field: "strands", Why: fmt.Sprintf("tied with %s; a crown-and-diamond takes two", knot.Strands(n))}
	}
	t, err := knot.Each(w, max(1, w.Section.Count), func(w knot.Work, _ int) (knot.Tied, error) { return tieOne(w) })
	t.Workers = []int{0, 1}
	return t, err
}

func tieOne(w knot.Work) (knot.Tied, error) {
	set := setOf(w.Section)
	shape, err := family.Shape(nameOf(set.Form, set.Gap), func() tighten.Problem { return route(set.Form, set.Gap) })
	if err != nil {
		return knot.Tied{}, err
	}
	d := math.Max(w.Strands[0].Diameter, w.Strands[1].Diameter)
	laid := knot.Lay(shape.Strands, d)
	t := knot.Tied{Loose: true, Snug: true, Repeats: 1, Gap: shape.Gap, Height: laid.Height, Clear: 0.3 * d, Paths: laid.Paths, Order: laid.Order}
	// It is laid as it is told; drawn up, its parts lie over one another.
	a := told(set.Form, set.Gap)
	both := [2][]r3.Vec{a, knot.TurnRoute(a, math.Pi)}
	for _, of := range laid.Of {
		t.Flat = append(t.Flat, knot.Path{Points: curve.Spline(both[of], false).Map(func(v r3.Vec) r3.Vec { return r3.Scale(d, v) }).Points})
	}
	t.Moves = moves(set, laid.Of[0])
	return t, nil
}

// moves are those of one knot, where first is the place of the strand that lies over
// in the half knot.
func moves(set Settings, first int) []move.Move {
	a, b := first, 1-first
	var out []move.Move
	add := func(me int, m move.Move) {
		m.Strand = me
		m.Naming = [][]int{{1 - me}}
		out = append(out, m)
	}
	add(a, move.Move{Passes: []move.Pass{{How: move.Over, Of: []int{b}}, {How: move.Under, Of: []int{b}}, {How: move.Over, Of: []int{b}}},
		Text: "Tie a half knot away from the loop: {me} {front 0}, {above 1} it and {above 2} it again.",
		Gate: "The half knot is what stands farthest from the loop."})
	for _, me := range [2]int{a, b} {
		under, over := move.Under, move.Over
		if me == b {
			under, over = over, under
		}
		add(me, move.Move{Passes: []move.Pass{{How: under, Of: []int{1 - me}}, {How: under, Of: []int{me}}},
			Text:   "Bend {me} out to a wing and lead it back to the loop, {above 0} both its legs and {above 0} the other's wing.",
			Detail: "It comes out beyond that wing."})
		add(me, move.Move{Passes: []move.Pass{{How: over, Of: []int{1 - me}}, {How: over, Of: []int{me}}, {How: under, Of: []int{me}}},
			Text: "Lead {me} back {above 0} everything, into its own wing and out {above 2} that.",
			Gate: "Each end lies outside the other's wing."})
	}
	if set.Form == Long {
		for _, me := range [2]int{a, b} {
			under, over := move.Under, move.Over
			if me == b {
				under, over = over, under
			}
			add(me, move.Move{Passes: []move.Pass{{How: under, Of: []int{1 - me}}, {How: over, Of: []int{1 - me}}},
				Text: "Lead {me} round once more, outside both wings: back {above 0} everything, forward {above 1} everything, and through its first wing between the half knot and its first tuck.",
				Gate: "The second tuck lies nearer to the half knot than the first."})
		}
	}
	gap := "nearer to the loop"
	if set.Gap == Upper {
		gap = "farther from the loop"
	}
	for _, me := range [2]int{a, b} {
		from := move.Back
		if me == b {
			from = move.Front
		}
		m := move.Move{From: from, Text: "Bring {me} home from the {from} through the half knot, by its gap " + gap + ", and on beside its face.",
			Gate: "Both ends come out of one gap, from opposite faces."}
		if me == b {
			m.Detail = "These last tucks are our reading of how the knot is told. Soft cord closes the small holes; firm rope keeps them."
		}
		add(me, m)
	}
	return append(out, move.Rounds(out, 3, "the loop")...)
}
