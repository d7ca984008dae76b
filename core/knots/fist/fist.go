// Package fist ties monkey's fists as the first section of a piece. What a ball
// takes and how large it comes out, package core/knots/ball knows.
package fist

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/caution"
	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/mount"
	"nimblebight/core/move"
	"nimblebight/core/unknown"

	"gonum.org/v1/gonum/spatial/r3"
)

// Mode is what a ball is tied with, Kind what its core is, Begins how a single cord
// begins.
type (
	Mode   string
	Kind   string
	Begins string
)

// Choices are the modes.
func (Mode) Choices() []string { return words(ball.Modes()) }

// Choices are the kinds of core.
func (Kind) Choices() []string { return words(ball.Kinds()) }

// Choices are a start that is hidden inside, or one that leaves with the tail.
func (Begins) Choices() []string { return []string{"hidden", "with-tail"} }

// Core is what a ball is tied round.
type Core struct {
	Kind       Kind    `json:"kind" typed:"core" label:"core"`
	DiameterMM float64 `json:"diameter_mm" typed:"size" label:"core size"`

	Unknown map[string]json.RawMessage `json:"-"`
}

// MarshalJSON writes the core with the fields it did not know.
func (c Core) MarshalJSON() ([]byte, error) {
	type plain Core
	return unknown.Marshal(plain(c), c.Unknown)
}

// Settings of a ball.
type Settings struct {
	Passes int    `json:"passes,omitempty" typed:"-" label:"passes" default:"3" least:"2" most:"8" needed:"yes"`
	Mode   Mode   `json:"mode,omitempty" typed:"mode" label:"tied with" default:"one-cord"`
	Begins Begins `json:"begins,omitempty" typed:"begins" label:"begins" default:"hidden"`
	Core   *Core  `json:"core,omitempty"`
}

// Of is a section of the ball that is asked for.
func Of(a ball.Ask) knot.Section {
	set := Settings{Passes: a.Passes, Mode: Mode(a.Mode), Begins: "hidden"}
	if a.Tail {
		set.Begins = "with-tail"
	}
	if a.Core.Kind != "" && (a.Core.Kind != ball.Stopper || a.Core.DiameterMM > 0) {
		set.Core = &Core{Kind: Kind(a.Core.Kind), DiameterMM: math.Round(10*a.Core.DiameterMM) / 10, Unknown: a.Core.Unknown}
	}
	return knot.Section{Do: "monkeys-fist", Settings: set}
}

func terms(s knot.Section) knot.Terms {
	cords, legs := Legs(s)
	t := knot.Terms{Begins: knot.OfTheLast, Wants: cords, Legs: legs, WantsAt: "mode"}
	switch ball.Mode(knot.Of[Settings](s).Mode) {
	case ball.TwoCords:
		t.As = "tied with two cords"
	case ball.Doubled:
		t.As = "of doubled leads"
	default:
		t.As = "of one cord"
	}
	return t
}

// anew is a ball of the free cords; where nothing hangs, with the mount that names
// them.
func anew(hanging int, free []string) []knot.Section {
	set := Settings{Passes: 3, Mode: "one-cord", Begins: "hidden"}
	if len(free) > 1 {
		set.Mode = "two-cords"
	}
	one := knot.Section{Do: "monkeys-fist", Settings: set}
	if hanging > 0 || len(free) == 0 {
		return []knot.Section{one}
	}
	cords, _ := Legs(one)
	return []knot.Section{mount.Of(mount.FromKnot, free[:cords]...), one}
}

// Monkey's fist: three bands of turns at right angles round a core. The first
// band is wound round the fingers, the second round the first, the third inside
// the first and over the second; then the slack of every turn is worked through
// to the end, twice round.
//
// Right: every one of the six faces shows as many turns as the ball has passes,
// side by side and none crossed; the core is firm and shows at no corner.
// Wrong: a face that lacks a turn (the band changed too early), a turn that
// crosses another, a core that rattles.
//
// Makers differ in how it begins. Hidden inside, one strand leaves the ball; with
// the tail, two. Two cords begin at their joined stopper, which is the core, and
// show one of them on two faces and the other on four. Doubled leads leave four
// strands for a handle.
func init() {
	knot.Add(knot.Knot{
		Outside: true, First: true, ID: "monkeys-fist", Name: "monkey's fist", Family: "balls",
		Held:       "Round the fingers of the other hand, till the core is in.",
		Wrong:      wrong,
		OtherNames: []string{"monkey fist", "heaving line knot"},
		For:        "a ball round a core: boat keys, bell ropes, zip pulls",
		Schools: []knot.School{
			{Field: "mode", Default: "one-cord", Why: "one cord needs no join; two colours need two cords, a handle of four strands doubled leads"},
			{Field: "begins", Default: "hidden", Why: "a start hidden inside leaves one clean strand; with the tail it leaves two for a sinnet"},
		},
		Glyph:    "M12 3a9 9 0 1 1 0 18 9 9 0 1 1 0-18zM4 9c5 2 11 2 16 0M4 13c5 2 11 2 16 0M9 4v5M13 4v5M10 15v5.500M14 15v5.500",
		Settings: Settings{},
		Terms:    terms,
		Anew:     anew,
		Plain: func() knot.Section {
			return knot.Section{Do: "monkeys-fist", Settings: Settings{Passes: 2, Mode: Mode(ball.OneCord), Begins: "hidden"}}
		},
		Tie:    tieFist,
		Hold:   holdFist,
		Sample: knot.Sample{Line: "mount A B hitch=from-knot, monkeys-fist 3 mode=two-cords", Cords: 2, Section: 1},
	})
}

func words[T ~string](vs []T) []string {
	out := make([]string, len(vs))
	for i, v := range vs {
		out[i] = string(v)
	}
	return out
}

// AskOf is what a section asks of a ball of a cord.
func AskOf(in knot.Section, c ball.Cord) ball.Ask {
	s := knot.Of[Settings](in)
	a := ball.Ask{Cord: c, Passes: s.Passes, Mode: ball.Mode(s.Mode), Tail: s.Begins == "with-tail"}
	a = a.Settled()
	if s.Core != nil {
		a.Core = ball.Core{Kind: ball.Kind(s.Core.Kind), DiameterMM: s.Core.DiameterMM}
	}
	return a
}

// Legs is how many cords a ball takes, and how many legs of each leave it.
func Legs(s knot.Section) (cords, legs int) {
	a := AskOf(s, ball.Cord{})
	switch a.Mode {
	case ball.TwoCords:
		return 2, 1
	case ball.Doubled:
		return 2, 2
	}
	return 1, a.Strands()
}

// ballOf draws the ball of a section up, for the thickest of its cords.
func ballOf(w knot.Work) (ball.Ball, error) {
	thickest := w.Own[0]
	for _, l := range w.Own {
		if l.Diameter > thickest.Diameter {
			thickest = l
		}
	}
	b, err := ball.Make(AskOf(w.Section, ball.Of(thickest.Stuff, thickest.Figures)))
	var no *ball.Refused
	if errors.As(err, &no) {
		r := &knot.Refused{Field: no.Field, Why: no.Why}
		switch {
		case no.Passes > 0:
			r.Field, r.Set, r.Label = "passes", no.Passes, fmt.Sprintf("Tie %d passes", no.Passes)
		case no.CoreMM > 0:
			r.Field, r.Set, r.Label = "core.diameter_mm", tenths(no.CoreMM), fmt.Sprintf("Take a core of %.1f mm", no.CoreMM)
		}
		if r.Field == "core" {
			r.Field = "core.diameter_mm"
		}
		return b, r
	}
	return b, err
}

func tenths(v float64) float64 { return math.Floor(10*v) / 10 }

// own gives each leg its path through the ball, in the order of w.Own: hidden or
// fold first, then out.
func paths(w knot.Work, strands []ball.Strand) [][]r3.Vec {
	_, legs := Legs(w.Section)
	out := make([][]r3.Vec, len(w.Own))
	for i := range w.Own {
		s := strands[i/legs]
		switch {
		case legs == 1:
			out[i] = s.Points
			if s.Cord == 0 && len(strands) == 2 { // it was drawn from where it leaves
				out[i] = slices.Clone(s.Points)
				slices.Reverse(out[i])
			}
		case w.Own[i].Leg == 0: // the start, led straight out
			out[i] = s.Points[:1]
		default:
			out[i] = s.Points
		}
	}
	return out
}

// apart is by how much the ends of paths must lie farther from the axis, so that none is
// nearer to another than they are thick; 1 where they have room.
func apart(w knot.Work, paths [][]r3.Vec) float64 {
	const room = 1.02
	most := 1.0
	for i, a := range paths {
		for j, b := range paths[i+1:] {
			u, v := a[len(a)-1], b[len(b)-1]
			if near := math.Hypot(u.X-v.X, u.Z-v.Z); near > 0 {
				most = math.Max(most, room*(w.Own[i].Diameter+w.Own[i+1+j].Diameter)/2/near)
			}
		}
	}
	return most
}

func tieFist(w knot.Work) (knot.Tied, error) { return layFist(w, nil, 0) }

// layFist lays a ball into its section: of every strand's path the share of it from
// where it begins, all of it where shares is nil, its turns standing off by
// loose of their place.
func layFist(w knot.Work, shares []float64, loose float64) (knot.Tied, error) {
	if len(w.Own) == 0 {
		return knot.Tied{}, &knot.Refused{Field: "do", Why: "tied first, before anything hangs: begin with mount and hitch=from-knot, then the ball; the ring comes last"}
	}
	b, err := ballOf(w)
	if err != nil {
		return knot.Tied{}, err
	}
	hard := b.Cord.Hard()
	strands := b.Strands()
	top, bottom := 0.0, 0.0
	for _, s := range strands {
		for _, v := range s.Points {
			top, bottom = math.Min(top, v.Y), math.Max(bottom, v.Y)
		}
	}
	off := hard/2 - top // from the middle of the core to the section's top
	t := knot.Tied{Loose: true, Repeats: 1, Gap: b.Gap, Height: bottom + off + 0.5*hard, Clear: 0.5 * hard}
	t.Height *= 1 + loose
	off *= 1 + loose
	through := paths(w, strands)
	// What leaves a ball is thicker than what is pressed on it: strands that leave beside one
	// another lean apart till they have room.
	apart := apart(w, through)
	leave := t.Height
	const lean = 2.0 // diameters of it
	if apart > 1 {
		t.Height += lean * w.Own[0].Diameter
	}
	stoppers := b.StopperPaths()
	type exit struct {
		strand int
		x      float64
	}
	var exits []exit
	for i, path := range through {
		n := len(path)
		pts := make([]r3.Vec, 0, n+1)
		for _, v := range path {
			v = r3.Scale(1+loose, v)
			pts = append(pts, r3.Vec{X: v.X, Y: v.Y + off, Z: v.Z})
		}
		end := pts[len(pts)-1]
		exits = append(exits, exit{i, end.X})
		if shares != nil && shares[i] < 1 && len(pts) > 1 {
			pts = knot.Tip(pts, shares[i], w.Own[i].Diameter)
		} else {
			pts = append(pts, r3.Vec{X: end.X, Y: leave, Z: end.Z})
			const steps = 8
			for k := 1; k <= steps && apart > 1; k++ {
				u := float64(k) / steps
				by := 1 + (apart-1)*curve.Smooth(u)
				pts = append(pts, r3.Vec{X: by * end.X, Y: leave + u*(t.Height-leave), Z: by * end.Z})
			}
		}
		p := knot.OnCore(pts)
		if stoppers != nil { // each cord comes out of the stopper
			for _, v := range stoppers[i] {
				p.Inside = append(p.Inside, r3.Vec{X: v.X, Y: v.Y + off, Z: v.Z})
			}
		}
		t.Own = append(t.Own, p)
	}
	slices.SortStableFunc(exits, func(a, c exit) int {
		switch {
		case a.x < c.x-0.3*hard:
			return -1
		case a.x > c.x+0.3*hard:
			return 1
		}
		return 0
	})
	for _, e := range exits {
		t.Order = append(t.Order, e.strand)
		t.Workers = append(t.Workers, e.strand)
	}
	colour := b.Core.Kind.Colour()
	if colour == "" {
		colour = w.Own[0].Stuff.Colour
	}
	t.Core = &knot.CoreAt{At: r3.Vec{Y: off}, DiameterMM: b.Core.DiameterMM, Colour: colour, WeightG: b.CoreG, Sides: b.Sides()}
	if b.StopperKnot != "" {
		t.Core.WeightG = 0 // it is of the cords, which are weighed as such
	}
	t.Checks = []string{
		fmt.Sprintf("%d parallel turns on each of six faces, none crossed.", b.Passes),
		fmt.Sprintf("The ball measures {%.1fmm} across its faces and {%.1fmm} across its corners.", b.FaceMM, b.CornerMM),
	}
	if b.Core.Kind.Hard() {
		t.Cautions = append(t.Cautions, caution.Call{ID: caution.HardCore})
	}
	for _, wn := range b.Warnings {
		if wn.Code == "choking" { // of the finished thing; nothing is to be mended
			t.Cautions = append(t.Cautions, caution.Call{ID: caution.Choking, Says: wn.Message})
			continue
		}
		f := knot.Flaw{Code: wn.Code, Says: wn.Message}
		switch {
		case wn.Kind != "":
			f.Field, f.Set, f.Label = "core.kind", string(wn.Kind), fmt.Sprintf("Take a %s", wn.Kind.Name())
		case wn.CoreMM > 0 && b.Core.Kind != ball.Stopper:
			f.Field, f.Set, f.Label = "core.diameter_mm", tenths(wn.CoreMM), fmt.Sprintf("Take a core of %.1f mm", tenths(wn.CoreMM))
		case wn.Passes > 0:
			f.Field, f.Set, f.Label = "passes", wn.Passes, fmt.Sprintf("Tie %d passes", wn.Passes)
		}
		t.Warnings = append(t.Warnings, f)
	}
	t.Moves = fistActions(b, w)
	return t, nil
}

// fistRounds are the rounds in which a ball is drawn up: all of it never hard at
// once.
const fistRounds = 2

// fistActions is what the maker does, read off the ball: band by band, turn by
// turn, then the slack of every turn in order, in two rounds.
func fistActions(b ball.Ball, w knot.Work) []move.Move {
	_, legs := Legs(w.Section)
	var acts []move.Move
	names := [3]string{"first", "second", "third"}
	lie := [3]string{
		"round two fingers, side by side",
		"across the first band and over it",
		"inside the first band and over the second",
	}
	for i := range names { // what lies over what is read off the curve
		if i > 0 && !b.Over(i, i-1) {
			lie[i] = fmt.Sprintf("inside the %s band", names[i-1])
		}
	}
	turns := b.Passes
	each := "turn"
	if b.Mode == ball.Doubled {
		turns, each = b.Passes/2, "double turn"
	}
	// worker is the strand that winds a band, and in which direction.
	worker := func(band int) int {
		switch {
		case b.Mode == ball.TwoCords && band > 0:
			return 1
		case legs == 2:
			return len(w.Own) - 1
		}
		return 0
	}
	var beside []int // both cords are led as one
	if b.Mode == ball.Doubled {
		beside = []int{(worker(0) + len(w.Own)/2) % len(w.Own)} // the same leg of the other
	}
	switch {
	case b.Mode == ball.TwoCords && b.StopperKnot == "":
		acts = append(acts, move.Move{Strand: -1, Text: "Join the two cords end to end; the join will lie inside the ball, on the core."})
	case b.Mode == ball.TwoCords:
		acts = append(acts, move.Move{Strand: -1, Text: fmt.Sprintf("Join the two cords and tie their stopper: %s.", b.StopperKnot),
			Detail: fmt.Sprintf("It is the core and should measure about {%.1fmm}; a few turns of tape fill what is missing.", b.Core.DiameterMM)})
	case b.Tail:
		acts = append(acts, move.Move{Strand: 0, Text: "Leave the start hanging as long as its leg is cut, and hold it under the thumb.", Detail: "It leaves the ball beside the end."})
	case b.Mode == ball.Doubled:
		acts = append(acts, move.Move{Strand: -1, Text: "Lay both cords side by side and leave their starts hanging as long as their legs are cut.", Detail: "From here on the two are led as one; never let one cross the other."})
	default:
		acts = append(acts, move.Move{Strand: 0, Text: "Lay the start across the palm, inside what will be the ball.", Detail: "It ends hidden under the second band."})
	}
	for band := range 3 {
		for k := range turns {
			a := move.Move{Strand: worker(band), With: beside, Text: fmt.Sprintf("Band %d, %s %d of %d: %s.", band+1, each, k+1, turns, lie[band])}
			if k == 0 && band > 0 {
				a.Text = fmt.Sprintf("Band %d, %s 1 of %d: turn the corner and go %s.", band+1, each, turns, lie[band])
			}
			switch {
			case band == 1 && k == 0:
				a.Detail = "Go round the middle of the first band, square to it."
			case band == 2 && k == 0:
				a.Detail = "Go in between the fingers' side of the first band and the second, through to the far side, and round."
			case k > 0:
				a.Detail = "Beside the last one, on the side away from where the band began."
			}
			if k == turns-1 {
				a.Gate = fmt.Sprintf("%d parallel turns in the %s band, none crossed.", b.Passes, names[band])
			}
			acts = append(acts, a)
		}
		switch band {
		case 0:
			acts = append(acts, move.Move{Strand: -1, Text: "Pinch the band at both ends and slip the fingers out.", Detail: "Keep the turns flat and open; the next band goes round their middle."})
		case 1:
			if b.StopperKnot == "" {
				acts = append(acts, move.Move{Core: true, Strand: -1, Text: fmt.Sprintf("Put the core in: %s of {%.1fmm}.", b.Core.Kind.Name(), b.Core.DiameterMM),
					Detail: "Spread the first band a little, push it into the middle, and close the turns over it."})
			}
		}
	}
	if b.Cord.Leather { // with every band
		for i, a := range acts {
			if strings.HasPrefix(a.Detail, "Go ") || i == 1 {
				acts[i].Detail = strings.TrimSpace(a.Detail + " Keep the good side out and the lace flat; it does not give, so leave every turn a little loose.")
			}
		}
	}
	acts[len(acts)-1].Gate = fmt.Sprintf("%d parallel turns on each of six faces, none crossed.", b.Passes)
	course := "from the start inside to the working end"
	switch {
	case b.Mode == ball.TwoCords:
		course = "of each cord from the join inside to its own end"
	case b.Tail:
		course = "from the start that hangs out to the working end"
	case b.Mode == ball.Doubled:
		course = "of both cords together, from their starts to their ends"
	}
	hardness := [fistRounds]string{"snug, not hard", "hard"}
	for round := range fistRounds {
		for band := range 3 {
			for k := range turns {
				a := move.Move{Slack: true, Strand: worker(band), With: beside, Text: fmt.Sprintf("Round %d, band %d, %s %d: take its slack on to the next, %s.", round+1, band+1, each, k+1, hardness[round])}
				if band == 0 && k == 0 {
					a.Detail = "Work the slack " + course + "; a spike or haemostat lifts the turns."
				}
				acts = append(acts, a)
			}
		}
		gate := "The core sits in the middle and every turn lies beside its neighbour."
		if round == fistRounds-1 {
			gate = fmt.Sprintf("%d parallel turns on each of six faces, none crossed; the core is firm and shows at no corner.", b.Passes)
		}
		acts[len(acts)-1].Gate = gate
	}
	return acts
}

// holdFist shows a ball in hand: wound loosely as far as it has come, then drawn
// up round by round.
func holdFist(w knot.Work, action int, along float64) (knot.Tied, error) {
	whole, err := knot.Tie(w)
	if err != nil {
		return knot.Tied{}, err
	}
	n := len(w.Own)
	winding, done := make([]float64, n), make([]float64, n)
	drawing, drawn := 0.0, 0.0
	coreIn := !slices.ContainsFunc(whole.Moves, func(a move.Move) bool { return a.Core }) // a stopper is there from the first
	for k, a := range whole.Moves {
		come := 0.0
		switch {
		case k < action:
			come = 1
		case k == action:
			come = along
		}
		switch {
		case a.Slack:
			drawing++
			drawn += come
		case a.Core:
			coreIn = coreIn || come > 0
		case a.Strand >= 0 && k > 0:
			winding[a.Strand]++
			done[a.Strand] += come
		}
	}
	const slack = 0.3 // by which turns wound round the fingers stand off
	shares := make([]float64, n)
	for i := range shares {
		from := i
		if knot.Of[Settings](w.Section).Mode != Mode(ball.TwoCords) { // all that is out is wound together
			from = n - 1
		}
		// The start lies there from the first, most of a turn of it.
		all := math.Max(1, winding[from])
		begun := 0.7 / all
		shares[i] = math.Min(1, begun+(1-begun)*done[from]/all+1e-9)
	}
	t, err := layFist(w, shares, slack*(1-drawn/math.Max(1, drawing)))
	if !coreIn {
		t.Core = nil
	}
	return t, err
}
