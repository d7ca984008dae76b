// Package plan walks a piece: it carries the strands from the mount to their
// last end, lets each section take its cord and hand the strands on in their
// new order, and adds up. Cut lengths, folds, heights, colours, steps,
// warnings and the picture are all read off the one set of curves that the
// walk lays down.
//
// Start with [Make]. The curves themselves come with it as [Layout], for
// package scene to draw.
package plan

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/caution"
	"nimblebight/core/gauge"
	"nimblebight/core/knot"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/prepare"
	"nimblebight/core/shapes"
)

// Plan is everything that is known of a piece before it is tied. Lengths are
// millimetres; see the fields' names.
type Plan struct {
	Name string `json:"name"`
	// Described says it for those who do not see it; {12.3mm} is a length.
	Described string `json:"described"`
	// LengthMM runs from the middle of the wire it hangs on to its lowest tip.
	LengthMM float64 `json:"length_mm"`
	WidthMM  float64 `json:"width_mm"`
	WantedMM float64 `json:"wanted_mm,omitempty"`
	WeightG  float64 `json:"weight_g"`
	// Heads are the cords mounted by lark's heads, HeadsFit how many of them
	// what it hangs on holds side by side.
	Heads      int  `json:"heads,omitempty"`
	HeadsFit   int  `json:"heads_fit,omitempty"`
	LeftHanded bool `json:"left_handed,omitempty"`
	// OneIn is how seldom it runs short as it is cut, Hold what its ends are held with.
	OneIn    gauge.Risk        `json:"one_in" jsonschema:"enum=10,enum=20,enum=40,enum=200"`
	Hold     piece.Tool        `json:"hold" jsonschema:"enum=fingers,enum=needle,enum=haemostat"`
	Cords    []Cord            `json:"cords"`
	Sections []Section         `json:"sections"`
	Warnings []Warning         `json:"warnings"`
	Checks   []Check           `json:"checks"`
	Steps    []Step            `json:"steps"`
	Actions  int               `json:"actions"` // of all steps, repeats counted
	Cautions []caution.Caution `json:"cautions"`
	Endings  []Ended           `json:"endings"`
	Prepared []Prepared        `json:"prepared"`
	// Ready are the moves on the table before the first one that ties: to measure, to cut
	// and to fold.
	Ready    []Action `json:"ready"`
	Joints   []Joint  `json:"joints,omitempty"` // of cords that are folded as one
	Notation string   `json:"notation"`
	Done     []Stage  `json:"done"` // the stages that have what they need
	// Turn is by how much the piece is turned about the axis that it hangs on to show
	// its shape best, degrees: a band that is folded back shows its opening from the
	// side, all else its face.
	Turn float64 `json:"turn,omitempty"`
	// Rough names the shapes that are still to be drawn up for it; till then the
	// figures of their sections are those of near ones.
	Rough []string `json:"rough,omitempty"`

	// Slipped is the move of the section in hand, counted from 1, in which its slip was made; 0
	// where there is none.
	Slipped int `json:"-"`

	layout *layouts
	rough  []shapes.Rough
}

// Doubt is what is in doubt of what all legs of the cord take.
func (c Cord) Doubt() gauge.Leg {
	var out gauge.Leg
	for _, l := range c.Legs {
		out = out.Join(l.doubt)
	}
	return out
}

// ToDraw are the shapes that are still to be drawn up, for [shapes.DrawLive].
func (p Plan) ToDraw() []shapes.Rough { return p.rough }

// Cord is what one cord of the piece needs.
type Cord struct {
	ID     string `json:"id"`
	Role   string `json:"role"` // legs, wrap or unused
	Colour string `json:"colour"`
	// ColourName is what its colour is called.
	ColourName string  `json:"colour_name"`
	DrawnUpMM  float64 `json:"drawn_up_mm"`
	NeedsMM    float64 `json:"needs_mm"`
	CutMM      float64 `json:"cut_mm"`
	LeftMM     float64 `json:"left_mm"`
	SpreadMM   float64 `json:"spread_mm"`
	// Why is what its cut is made of.
	Why Why `json:"why"`
	// Allowed is what is allowed over its needs, as a share of them, and ByGeometry what
	// it is by geometry alone; Rests are how far that doubt was taken away by what.
	Allowed    float64 `json:"allowed"`
	ByGeometry float64 `json:"by_geometry"`
	Rests      Rests   `json:"rests"`
	Known      Known   `json:"known"`
	// Thumb is what thumb rules of makers would cut, where they have one.
	Thumb *Thumb `json:"thumb,omitempty"`
	// FoldAtMM is measured from the end of leg FoldLeg, which hangs on the maker's
	// FoldSide; 0 where the cord is not folded. It is a whole number of
	// Options.FoldToMM, but where the maker gave it or it is the middle, so that
	// it is shown alike everywhere.
	FoldAtMM float64 `json:"fold_at_mm"`
	FoldLeg  int     `json:"fold_leg,omitempty"`
	FoldSide string  `json:"fold_side,omitempty"`
	// Measure says in words how it is measured out; {fold} in it is FoldAtMM.
	Measure string `json:"measure,omitempty"`
	// of Measure: how it is folded, and what its legs are
	fold, parts string
	// SavedMM is by how much shorter it is cut than with equal legs, WastedMM by how
	// much longer than with the fold that the plan finds.
	SavedMM  float64 `json:"saved_mm,omitempty"`
	WastedMM float64 `json:"wasted_mm,omitempty"`
	// Short is the side on which its shorter leg hangs, "" where both are equal.
	Short string `json:"short,omitempty"`
	Legs  []Leg  `json:"legs"`
}

// Leg is one half of a folded cord, or a whole one that is not.
type Leg struct {
	NeedsMM float64 `json:"needs_mm"`
	CutMM   float64 `json:"cut_mm"`
	// ShortMM is what is missing where a fold was given too near the end.
	ShortMM float64 `json:"short_mm,omitempty"`
	Role    string  `json:"role"` // worker, filler
	// Name is what a leg of a folded cord is called beside the other: short inner leg; Side
	// is where it hangs, as the maker sees it.
	Name string `json:"name,omitempty"`
	Side string `json:"side,omitempty"`
	// Parts are the shares of the sections it feeds, from the fold on.
	Parts []Part `json:"parts"`
	// Bands are the colours of a cord that changes along its length, from the fold on, or
	// from its first end.
	Bands []Stretch `json:"bands,omitempty"`
	// BeyondMM is what must hang beyond all that: for the hand, or to be trimmed.
	BeyondMM float64 `json:"beyond_mm"`

	doubt gauge.Leg
}

// Doubt is what is in doubt of what the leg takes.
func (l Leg) Doubt() gauge.Leg { return l.doubt }

// Stretch is a stretch of cord in one colour.
type Stretch struct {
	MM     float64 `json:"mm"`
	Colour string  `json:"colour"`
}

// Part is the cord that one section takes from a leg.
type Part struct {
	Section int     `json:"section"`
	MM      float64 `json:"mm"`
}

// Section is one section as planned.
type Section struct {
	Index    int     `json:"index"`
	Do       string  `json:"do"`
	Count    int     `json:"count"`
	TopMM    float64 `json:"top_mm"` // where it begins, from the wire
	HeightMM float64 `json:"height_mm"`
	// Counted says its count in the ways in which makers count it, where they differ.
	Counted string `json:"counted,omitempty"`
	// Told says its settings beside the count; {12.3mm} in it is a length.
	Told string `json:"told,omitempty"`
	// Around is set for what goes round the work's axis: it is looked at from the end and
	// unrolled too.
	Around bool `json:"around,omitempty"`
	// FromEnd is set for what is tied looking at the working end.
	FromEnd bool    `json:"from_end,omitempty"`
	KnotMM  float64 `json:"knot_mm,omitempty"` // height of one of its knots
	// PassesMM is the width of the narrowest round hole that its knot passes as it is
	// drawn, StopsMM of the widest that stops it pressed; 0 of what is no knot.
	PassesMM float64 `json:"passes_mm,omitempty"`
	StopsMM  float64 `json:"stops_mm,omitempty"`
	Use      []Use   `json:"use"`
	// OrderAfter names the strand at each place after it, as A.1 for the first
	// leg of cord A.
	OrderAfter []string `json:"order_after"`
	Shows      []Sight  `json:"shows,omitempty"`
	// GapShare is the least gap of its drawn-up curve, 1 when strands touch.
	GapShare float64 `json:"gap_share"`
	// RoughMM is by how much less cord it may take than is said, where its
	// curves are those of a near shape.
	RoughMM float64 `json:"rough_mm,omitempty"`
}

// Use is the cord one strand gives to a section.
type Use struct {
	Strand int     `json:"strand"` // its place when the section begins; 0 for an own cord
	Cord   string  `json:"cord"`
	MM     float64 `json:"mm"`
	// Works is set for a strand that does knotting there; the others are tied over.
	Works bool `json:"works,omitempty"`
}

// Sight tells which cord is seen at a place of the row.
type Sight struct {
	Where string `json:"where"`
	Face  string `json:"face"`
	Back  string `json:"back"`
}

// Warning is something that will go wrong at the table, with the place, the
// amount and a way out.
type Warning struct {
	Code    string `json:"code"`
	Section int    `json:"section"` // -1 when it is about the whole piece
	Message string `json:"message"`
	Fix     *Fix   `json:"fix,omitempty"`
}

// Fix is a way out: values to set in the document.
type Fix = piece.Fix

// Set is one value of a fix.
type Set = piece.Set

// Prepared are ends that are made ready to be led through something tight in a section.
type Prepared struct {
	Section int                 `json:"section"`
	Legs    []string            `json:"legs"`
	Way     prepare.Preparation `json:"way"`
	// SpareMM is by how much they pass, 0 where that is not measured.
	SpareMM float64 `json:"spare_mm,omitempty"`
}

// Ended is how a strand was finished, by its name, and in which section.
type Ended struct {
	Leg     string `json:"leg"`
	Section int    `json:"section"`
	knot.Ending
}

// Check is something to look at on the tied piece.
type Check struct {
	Code    string `json:"code"`
	Section int    `json:"section"`
	Message string `json:"message"`
}

// Step is a round of actions that is repeated; the strands of an action are
// named by cord and by the place they have at that moment.
type Step struct {
	Section int      `json:"section"`
	Do      string   `json:"do"`
	Name    string   `json:"name"` // of its knot, as makers say it
	Repeats int      `json:"repeats"`
	MM      float64  `json:"mm,omitempty"` // for {length} in the text
	Actions []Action `json:"actions"`
	// Turns are the actions of repeats that are made with other cords than the first. Made tells
	// of each repeat by which it is made: 0 by Actions, 1 by the first of Turns. None where all
	// are made with the same.
	Turns [][]Action `json:"turns,omitempty"`
	Made  []int      `json:"made,omitempty"`
	// Half is how many of its actions make half a knot, 0 where none does.
	Half int `json:"half,omitempty"`
	// Gates are what is looked at between its rounds, where it still helps.
	Gates []Gate `json:"gates,omitempty"`
}

// Gate is what to look at when a round of a step is done: the round At, or, where Every is
// set, every so many.
type Gate struct {
	At    int    `json:"at,omitempty"`
	Every int    `json:"every,omitempty"`
	Says  string `json:"says"`
}

// Action is one thing to do. {length} in its words is the step's MM, {fold} the
// FoldAtMM of its cord.
type Action struct {
	Text   string `json:"text"`
	Detail string `json:"detail,omitempty"`
	// Again is the text in short, for an action that was done a few times already.
	Again string `json:"again,omitempty"`
	Cord  string `json:"cord,omitempty"`
	// Because is by what the work itself shows on which side it goes on, "" where it does
	// not.
	Because string `json:"because,omitempty"`
	Colour  string `json:"colour,omitempty"`
	// Beside are the other cords of which strands are led with it.
	Beside []CordBeside `json:"beside,omitempty"`
	From   string       `json:"from,omitempty"` // left or right
	Over   []string     `json:"over,omitempty"`
	Under  []string     `json:"under,omitempty"`
	Gate   string       `json:"gate,omitempty"`
	// Led is set where the strand in hand can be shown on its way.
	Led bool `json:"led,omitempty"`
	// Table is what is done on the table before the first knot, of a move of [Plan.Ready].
	Table string `json:"table,omitempty" jsonschema:"enum=cut,enum=prepare,enum=fuse,enum=fold"`
}

// CordBeside is a cord that is led beside another, and its colour.
type CordBeside struct {
	Cord   string `json:"cord"`
	Colour string `json:"colour"`
}

// Options are what does not stand in the document.
type Options struct {
	LeftHanded bool
	// RoundUpMM is what cuts are rounded up to: 5 mm where it is zero.
	RoundUpMM float64
	// FoldToMM is what the place of a fold is rounded up to: 1 mm where it is
	// zero.
	FoldToMM float64
	// Gauge is what is known of the maker's cords and hand; nil for what is known
	// before anything was measured.
	Gauge *gauge.Estimate
	// OneIn is how seldom a piece may run short, and Hold what ends are held with, where
	// the document does not say: [gauge.DefaultRisk] and fingers where they are zero.
	OneIn gauge.Risk
	Hold  piece.Tool
	// Until stops the walk after so many actions of all steps, for the
	// picture at the vise; the strands then hang on loose. Zero walks to the end.
	Until int
	// Along is how far the action named by Until has come, from 0 to 1: its
	// strand led a part of the way, or the knot drawn up by a part. Zero shows
	// the strand led all the way and the knot still loose.
	Along float64
	// Slip is what hands do otherwise in one section, for a picture of it; nil for nothing.
	Slip *Slip
}

// Slip is what hands do otherwise than they should in the section of an index.
type Slip struct {
	Section int
	knot.Slip
}

// The roundings of makers who work in inches: cuts to a quarter, folds to an
// eighth.
const (
	QuarterInch = 25.4 / 4
	EighthInch  = 25.4 / 8
)

// Make plans a piece. The document must have passed its Check; what the walk
// itself cannot do comes back as [piece.Problems] with the section's path.
func Make(d piece.Document, o Options) (Plan, error) {
	if ps := d.Check(); len(ps) > 0 {
		return Plan{}, ps
	}
	written := d.Sequence
	if o.LeftHanded {
		d = d.Mirrored()
	}
	if o.RoundUpMM == 0 {
		o.RoundUpMM = 5
	}
	if o.FoldToMM == 0 {
		o.FoldToMM = 1
	}
	o = o.Of(d)
	w := newWalk(d, o)
	w.written = written
	for i := range d.Sequence {
		if w.stop {
			break
		}
		if err := w.section(i, fmt.Sprintf("sequence[%d]", i), d.Sequence[i]); err != nil {
			var ps piece.Problems
			if errors.As(err, &ps) {
				d.Sequence = written // rows are named as the maker counts them
				d.Locate(ps)
			}
			return Plan{}, err
		}
	}
	if !w.stop { // in hand, cords may wait to be put on
		if err := w.joined(); err != nil {
			return Plan{}, err
		}
	}
	if err := w.runsOut(); err != nil {
		var ps piece.Problems
		if errors.As(err, &ps) {
			w.d.Locate(ps)
		}
		return Plan{}, err
	}
	if err := w.placeJoints(); err != nil {
		return Plan{}, err
	}
	p := w.finish()
	p.Notation = notation.Notate(written)
	d.Sequence = written
	p.Described = described(d, p)
	p.Done, p.Turn = done(d, p.Warnings, len(w.hanging) == 0 && len(w.legs) > 0), bestSide(written)
	if math.IsNaN(p.LengthMM + p.WidthMM + p.WeightG) {
		return Plan{}, fmt.Errorf("plan: the curves of %q are not numbers; this is a fault of the program", d.Name)
	}
	return p, nil
}

// joined refuses a cord that is fused to another one where that is not planned: the
// two cords of a ball are, for their joint is its core, and two that are folded as
// one, where it is the fold.
func (w *walk) joined() error {
	for i, c := range w.d.Cords {
		if c.JoinedTo == "" {
			continue
		}
		seq := w.d.Sequence
		var of []string
		if w.fromBall() && len(seq) > 1 {
			of = knot.TermsOf(seq[0]).Cords
		}
		if len(of) == 2 && slices.Contains(of, c.ID) && slices.Contains(of, c.JoinedTo) {
			continue
		}
		if w.foldedAsOne(i) {
			continue
		}
		at := fmt.Sprintf("cords[%d].joined_to", i)
		ps := piece.Problems{{Path: at, Message: fmt.Sprintf("says that it is fused to cord %s; that is planned of the two cords of a ball and of two that are mounted as one, where one of them is named", c.JoinedTo),
			Fix: &Fix{Label: "Do not join them", Set: []Set{{Path: at, Value: ""}}}}}
		w.d.Locate(ps)
		return ps
	}
	return nil
}

// foldedAsOne tells whether a cord and the one that it is fused to hang as the two legs
// of one.
func (w *walk) foldedAsOne(ci int) bool {
	other := w.partner(ci)
	if other < 0 || w.fromBall() {
		return false
	}
	legs := map[int]int{}
	for _, l := range w.legs {
		legs[l.cord]++
	}
	return legs[ci] == 1 && legs[other] == 1
}

func problem(path, field, format string, args ...any) error {
	if field != "" {
		path += "." + field
	}
	return piece.Problems{{Path: path, Message: fmt.Sprintf(format, args...)}}
}

// refused turns what a knot refuses into a problem with its place and, where
// the knot knows one, a way out.
func (w *walk) refused(path string, err error) error {
	var r *knot.Refused
	if !errors.As(err, &r) {
		return problem(path, "", "cannot be tied: %v", err)
	}
	p := piece.Problem{Path: path + "." + r.Field, Message: "cannot be: " + r.Why}
	if r.Set != nil {
		label := r.Label
		if label == "" {
			label = fmt.Sprintf("Make it %v", r.Set)
		}
		set := r.Set
		p.Fix = &Fix{Label: label}
		switch v := set.(type) {
		case []int:
			p.Fix.Set = []Set{{Path: p.Path, Value: w.ownPlaces(v)}}
		case []knot.CordThickness:
			for _, c := range v {
				at := fmt.Sprintf("cords[%d].stuff", c.Cord)
				p.Fix.Set = append(p.Fix.Set, Set{Path: at + ".diameter_mm", Value: c.DiameterMM})
				if w.d.Cords[c.Cord].Stuff.Weighed() { // another cord has another weight
					p.Fix.Set = append(p.Fix.Set, Set{Path: at + ".grams_per_metre", Value: 0})
				}
			}
		case knot.RingWidth:
			p.Fix.Set = []Set{{Path: "purpose.hangs_on.inner_mm", Value: math.Ceil(w.d.Purpose.HangsOn.InnerMM + v.GrowMM)}}
		default:
			p.Fix.Set = []Set{{Path: p.Path, Value: set}}
		}
	}
	return piece.Problems{p}
}

func roundUp(v, to float64) float64 {
	return math.Ceil(v/to-1e-9) * to
}

// openingSide is from where the opening of a folded band is seen, and its face still.
const openingSide = 66

// bestSide is by how much a sequence is turned to show its shape best.
func bestSide(sequence []knot.Section) float64 {
	for _, s := range sequence {
		if k, ok := knot.Get(s.Do); ok && k.Fold != nil {
			return openingSide
		}
	}
	return 0
}
