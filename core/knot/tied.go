package knot

import (
	"math"
	"slices"

	"nimblebight/core/caution"
	"nimblebight/core/move"
	"nimblebight/core/shapes"

	"gonum.org/v1/gonum/spatial/r3"
)

// Tied is a section tied: every figure of it is measured on Paths and Own.
type Tied struct {
	Height float64 // mm along y
	Paths  []Path  // one per strand, in the order of the strands, y from about 0 to Height
	Own    []Path  // one per own cord
	// OwnBeyondMM is what each own cord must be longer than it is drawn to be tied, mm; 0
	// where each of its ends is held like that of a strand.
	OwnBeyondMM float64
	// OwnFlat are those of cords of its own as moves lead them, where that is not seen
	// from the face: spread out. Nil where that is Own.
	OwnFlat []Path
	// Order tells which strand is now at each place, from the left. Orders are those after each
	// knot of a row, or each half knot; nil where nothing tells them.
	Order  []int
	Orders [][]int
	// Row is set for a row of knots of one kind, close enough to be pressed.
	Row bool
	// Around is set for knots that go round the work's axis, in a ring or as a cover: they
	// can be looked at from the end and unrolled.
	Around bool
	// AtEnd is set for a knot that goes round no axis and is tied looking at the working end all
	// the same.
	AtEnd bool
	// Snug is set for knots whose strands lie against one another.
	Snug bool
	// Workers are the strands that do knotting, where Moves do not tell.
	Workers []int
	// Threads are what it leads through something tight.
	Threads []Thread
	// Beads are on the strands, y from the section's top.
	Beads []BeadAt
	// Core is what is inside a ball, nil where there is none.
	Core *CoreAt
	// Opening, where it is not nil, is what goes through it or what it sits on.
	Opening *Opening
	// Eye, where it is not zero, is where the piece takes in what it hangs on:
	// the y of that wire's middle, mm.
	Eye float64
	// Slipped is the move of a knot in hand, counted from 1, in which its slip was made; 0 where
	// it has none, or could not make it yet.
	Slipped int
	// HandMM is from which y on hands tie it, mm: above it strands only run to there.
	HandMM float64
	// Cells are the y of each half knot's beginning, mm, and the last one's end.
	Cells []float64
	// HalfKnots is set where the cells are half knots of one row.
	HalfKnots bool
	// Loose is by what the maker's hand is looser than the ideal; 0 for parts
	// that are measured with a ruler.
	Loose bool
	// BareMM is how much of each strand is measured with a ruler all the same.
	BareMM float64
	// Ends is set where the strands end here; Endings is how each is finished then.
	Ends    bool
	Endings []Ending
	// Open is set where the strands hang apart all along, so that others can be
	// led between them.
	Open bool
	// LengthMM is what {length} in its words stands for.
	LengthMM float64
	// Checks are what the tied section measures; {12.3mm} in one is a length.
	Checks []string
	// Cautions are what it calls for; their sections are left to whoever knows them.
	Cautions []caution.Call
	// Warnings are what is wrong with it and can still be tied.
	Warnings []Flaw
	// Moves are what the maker does, in order; a row repeats them, PerRound of its
	// knots at a time, one where it is zero.
	Moves    []move.Move
	Repeats  int
	PerRound int
	// Flat is the knot as its moves lay it, where it is turned over when it is tied:
	// what they pass is passed there. Nil where that is Paths.
	Flat []Path
	// Hanging is the knot before its last moves, from HangsTill on, lead the ends inside it: they
	// hang from it. Nil where none does.
	Hanging   []Path
	HangsTill int
	// Shows tells which strand is seen where on the face, read off the crossings.
	Shows []Sight
	// Gap is the least gap between surfaces as drawn up, over the diameter: 1
	// is touching.
	Gap float64
	// PassesMM is the width of the narrowest round hole about the work that it passes as
	// it is drawn, StopsMM of the widest that stops it with its cord pressed as flat as
	// it gives; 0 of what is no knot.
	PassesMM, StopsMM float64
	// Clear is how much of straight strand the section needs above and below it
	// before the strands may lean aside, mm.
	Clear float64
	// Turned is by how many radians the strands at the end have turned about
	// the work's axis.
	Turned float64
	// Along is how much of what it hangs on a mount takes, along its wire, mm.
	Along float64
	// Rough is set where the curves are those of a near shape.
	Rough *shapes.Rough
}

// Flaw is what is wrong with a section that can be tied, with a value of one of
// its fields that is better; {12.3mm} in its words is a length, {cord} the name
// of the cord of Strand.
type Flaw struct {
	Code, Says string
	Strand     int
	Field      string
	Set        any // nil where no value helps
	Label      string
}

// Opening is how far round inside a section leaves open for a hand, a head or a handle,
// mm, with the field that decides it.
type Opening struct {
	RoundMM float64
	Field   string
	// PerMM is by how much that field grows for each mm round.
	PerMM float64
	// Snug is set where it sits on what is in it; else that goes through. Closes is set
	// where it is drawn to after that.
	Snug, Closes bool
}

// Ending is how the end of a strand is finished.
type Ending struct {
	Form string  `json:"form"` // of package finish
	Wide float64 `json:"-"`    // of what covers it and others with it, in diameters; 0 for its own
	// BandMM is how far from the knot the band of a bundle ends, 0 where there is none.
	BandMM float64 `json:"-"`
	// AskedMM is the length that the maker chose, or the finish's own; Under is under how
	// many crossings it is buried.
	AskedMM float64 `json:"asked_mm,omitempty"`
	Under   int     `json:"under,omitempty"`
	// LeavesMM is what hangs beyond the knot, CutMM where the scissors cut, from the knot;
	// between them MeltsMM is eaten by the flame. TrimsMM is what falls off, HidesMM what
	// lies under the knots.
	LeavesMM float64 `json:"leaves_mm"`
	CutMM    float64 `json:"cut_mm"`
	MeltsMM  float64 `json:"melts_mm,omitempty"`
	TrimsMM  float64 `json:"trims_mm"`
	HidesMM  float64 `json:"hides_mm,omitempty"`
}

// BeadAt is a bead where it sits, mm.
type BeadAt struct {
	At r3.Vec // its middle
	Bead
	Across bool // its hole runs across the work, not along it
}

// CoreAt is the core of a ball where it sits, mm.
type CoreAt struct {
	At         r3.Vec // its middle
	DiameterMM float64
	Colour     string
	WeightG    float64
	// Sides are the directions in which the sides of what is tied round it look, units;
	// none where it has no sides.
	Sides []r3.Vec
}

// Sight is a crossing that is seen: which strand lies on top on the face and
// which on the back, and where in the row.
type Sight struct {
	Where string // middle, left, right
	Face  int    // strand on top on the face
	Back  int    // strand on top on the back
}

// Settle measures the paths and says of every point how the cord lies there.
// [Tie] and [Hold] give sections that are settled.
func (t *Tied) Settle() {
	for _, paths := range [2][]Path{t.Paths, t.Own} {
		for i, p := range paths {
			if p.Lies == nil {
				p.Lies = make([]Lie, len(p.Points))
				for k := range p.Lies {
					p.Lies[k] = Path{}.lie(k, *t)
				}
			}
			p.length = Curve(p.Points).Length()
			if len(p.Inside) > 0 {
				p.length += Curve(append(slices.Clone(p.Inside), p.Points[0])).Length()
			}
			p.high, p.low, p.left, p.right = math.Inf(1), math.Inf(-1), math.Inf(1), math.Inf(-1)
			reach := func(pts []r3.Vec) {
				for _, v := range pts {
					p.high, p.low = math.Min(p.high, v.Y), math.Max(p.low, v.Y)
					p.left, p.right = math.Min(p.left, v.X), math.Max(p.right, v.X)
				}
			}
			reach(p.Points)
			if m := p.More; m != nil {
				if m.Turn != 0 { // turned all round it reaches as far to every side
					for _, v := range p.Points {
						r := math.Hypot(v.X, v.Z)
						p.left, p.right = math.Min(p.left, -r), math.Max(p.right, r)
					}
				}
				p.low += float64(m.Times) * m.Step
				reach(m.Tail)
				p.length += float64(m.Times)*Curve(p.Points).Length() + Curve(m.Tail).Length()
			}
			paths[i] = p
		}
	}
}

// FromEnd tells whether a knot is tied looking at the working end, and not at its face.
func FromEnd(k Knot, t Tied) bool {
	return (t.Around && !k.Outside && len(t.Own) == 0 || t.AtEnd) && k.Hold == nil
}
