package gauge

// Source is where a reading comes from.
type Source string

// Readings come from swatches or from logged pieces.
const (
	FromSwatch Source = "swatch"
	FromLog    Source = "log"
)

// Evidence is what was measured at one time: a swatch, a weighing or a logged piece.
// Its readings share the hand of one day.
type Evidence struct {
	From     Source
	Readings []Reading
}

// Reading is one figure that was measured against what is planned of it before
// anything is known, with [Median] and the label's diameter.
type Reading struct {
	What  What
	Kind  string  // of [cord.Stuff.Kind]
	Doubt float64 // of [cord.Stuff.Doubt] of the label alone
	// Log is the logarithm of measured over planned; half of it for a weight.
	Log float64
	// Var is the variance of Log by single knots and by the measuring.
	Var float64
	// Families are the shares that families of knots have in what was taken, for
	// [Took]; they add up to 1.
	Families []Share
}

// Share is a family's part of what a cord gave.
type Share struct {
	Family string
	Of     float64
}

// What a reading measures.
type What int

const (
	// Weighed is a weight per metre. Half its logarithm is that of the diameter, but
	// for how hard the cord packs.
	Weighed What = iota
	// Reach is a row's height or width: the diameter, but for how hard it is pushed up.
	Reach
	// Took is the cord that knots took: diameter and hand.
	Took
)
