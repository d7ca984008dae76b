// Package gauge says how far a figure may be trusted: how thick a cord draws up and
// how loosely a hand ties, how widely both vary, and the length that runs short no
// more often than the maker accepts.
//
// What a leg takes is, on logarithms, what the plan says plus four errors: that of its
// cord's drawn-up diameter, common to every leg of that cord; that of the maker's hand
// in a family of knots, common to every knot of the family; that of the day, common to
// the piece; and one of every knot, which averages out over many. [New] is what is
// known before anything was measured, [Estimate.Learn] what is known after it, and
// [Estimate.Enough] what must be allowed. docs/gauge.md gives the reasons.
package gauge

import (
	"math"
	"slices"

	"nimblebight/core/cord"
)

// What is known of a hand before anything was measured.
const (
	// Median is by what a knot from the hand takes more cord than an ideal one.
	Median = 1.02
	// HandDoubt is the standard deviation of its logarithm from one hand to another, in
	// one family of knots.
	HandDoubt = 0.045
	// DayDoubt is that from one piece to another of the same hand.
	DayDoubt = 0.02
	// KnotDoubt is that from one knot to the next.
	KnotDoubt = 0.05
	// PushDoubt is the standard deviation of the logarithm of a row's height, by how
	// hard it is pushed up.
	PushDoubt = 0.03
)

// Standard deviations of what is measured, mm.
const (
	RulerMM = 3.0 // a tail, a gap, a straight part of a piece
	TapeMM  = 1.5 // a swatch or an end laid along a tape
)

// Risk is how often a piece may run short: once in so many.
type Risk int

// The risks that a maker chooses from.
var Risks = []Risk{10, 20, 40, 200}

// DefaultRisk is one piece in twenty.
const DefaultRisk Risk = 20

// Valid tells whether r is one to choose.
func (r Risk) Valid() bool { return slices.Contains(Risks, r) }

// Term is knots of one family tied with one kind of cord: all its errors but those of
// single knots and of the day are common.
type Term struct {
	Kind   string  // of [cord.Stuff.Kind]
	Doubt  float64 // of [cord.Stuff.Doubt]
	Family string
}

// Of is the term of a stuff in a family.
func Of(s cord.Stuff, family string) Term { return Term{s.Kind(), s.Doubt(), family} }

// KnotVariance is that of the logarithm of what so many knots take together, by the
// errors of single ones alone.
func KnotVariance(knots int) float64 { return KnotDoubt * KnotDoubt / math.Max(1, float64(knots)) }
