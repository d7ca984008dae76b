package knot

import (
	"errors"
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/fist"

	"gonum.org/v1/gonum/spatial/r3"
)

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
	add(Knot{
		Outside: true, First: true, ID: "monkeys-fist", Name: "monkey's fist", Family: "balls",
		OtherNames: []string{"monkey fist", "heaving line knot"},
		For:        "a ball round a core: boat keys, bell ropes, zip pulls",
		Schools: []School{
			{Field: "mode", Default: "one-cord", Why: "one cord needs no join; two colours need two cords, a handle of four strands doubled leads"},
			{Field: "begins", Default: "hidden", Why: "a start hidden inside leaves one clean strand; with the tail it leaves two for a sinnet"},
		},
		Fields: []Field{
			{Key: "passes", Short: "", Label: "passes", Kind: "count", Default: "3", Least: fist.LeastPasses, Most: fist.MostPasses, Needed: true},
			{Key: "mode", Short: "mode", Label: "tied with", Kind: "choice", Choices: words(fist.Modes()), Default: "one-cord"},
			{Key: "begins", Short: "begins", Label: "begins", Kind: "choice", Choices: []string{"hidden", "with-tail"}, Default: "hidden"},
			{Key: "core.kind", Short: "core", Label: "core", Kind: "choice", Choices: words(fist.Kinds())},
			{Key: "core.diameter_mm", Short: "size", Label: "core size", Kind: "length"},
		},
		fill: func(s *Section) { s.Passes, s.Mode, s.Begins = 3, "one-cord", "hidden" },
		tie:  tieFist,
		hold: holdFist,
	})
}

func words[T ~string](vs []T) []string {
	out := make([]string, len(vs))
	for i, v := range vs {
		out[i] = string(v)
	}
	return out
}

// FistAsk is what a section asks of a ball of a cord.
func FistAsk(s Section, c fist.Cord) fist.Ask {
	a := fist.Ask{Cord: c, Passes: s.Passes, Mode: fist.Mode(s.Mode), Tail: s.Begins == "with-tail"}
	if a.Mode == "" {
		a.Mode = fist.OneCord
	}
	if a.Mode != fist.OneCord {
		a.Tail = false
	}
	if s.Core != nil {
		a.Core = *s.Core
	}
	return a
}

// FistLegs is how many cords a ball takes, and how many legs of each leave it.
func FistLegs(s Section) (cords, legs int) {
	a := FistAsk(s, fist.Cord{})
	switch a.Mode {
	case fist.TwoCords:
		return 2, 1
	case fist.Doubled:
		return 2, 2
	}
	return 1, a.Strands()
}

// ballOf draws the ball of a section up, for the thickest of its cords.
func ballOf(w Work) (fist.Ball, error) {
	stuff := w.Own[0].Stuff
	for _, l := range w.Own {
		if l.Stuff.DrawnUp() > stuff.DrawnUp() {
			stuff = l.Stuff
		}
	}
	b, err := fist.Make(FistAsk(w.Section, fist.Of(stuff)))
	var no *fist.Refused
	if errors.As(err, &no) {
		r := &Refused{Field: no.Field, Why: no.Why}
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

// own gives each leg its way through the ball, in the order of w.Own: hidden or
// fold first, then out.
func own(w Work, strands []fist.Strand) [][]Vec {
	_, legs := FistLegs(w.Section)
	out := make([][]Vec, len(w.Own))
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

func tieFist(w Work) (Tied, error) { return layFist(w, nil, 0) }

// layFist lays a ball into its section: of every lead's way the share of it from
// where it begins, all of it where shares is nil, its turns standing off by
// loose of their place.
func layFist(w Work, shares []float64, loose float64) (Tied, error) {
	if len(w.Own) == 0 {
		return Tied{}, &Refused{Field: "do", Why: "tied first, before anything hangs: begin with mount and hitch=from-knot, then the ball; the ring comes last"}
	}
	b, err := ballOf(w)
	if err != nil {
		return Tied{}, err
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
	t := Tied{Loose: true, Repeats: 1, Gap: b.Gap, Height: bottom + off + 0.5*hard, Clear: 0.5 * hard}
	t.Height *= 1 + loose
	off *= 1 + loose
	ways := own(w, strands)
	stoppers := b.StopperWays()
	type exit struct {
		lead int
		x    float64
	}
	var exits []exit
	for i, way := range ways {
		n := len(way)
		pts := make([]Vec, 0, n+1)
		for _, v := range way {
			v = r3.Scale(1+loose, v)
			pts = append(pts, Vec{X: v.X, Y: v.Y + off, Z: v.Z})
		}
		end := pts[len(pts)-1]
		exits = append(exits, exit{i, end.X})
		if shares != nil && shares[i] < 1 && len(pts) > 1 {
			pts = lead(pts, shares[i], w.Own[i].Diameter)
		} else {
			pts = append(pts, Vec{X: end.X, Y: t.Height, Z: end.Z})
		}
		p := pressed(pts)
		if stoppers != nil { // each cord comes out of the stopper
			for _, v := range stoppers[i] {
				p.Inside = append(p.Inside, Vec{X: v.X, Y: v.Y + off, Z: v.Z})
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
		t.Order = append(t.Order, e.lead)
		t.Workers = append(t.Workers, e.lead)
	}
	colour := b.Core.Kind.Colour()
	if colour == "" {
		colour = w.Own[0].Stuff.Colour
	}
	t.Core = &CoreAt{At: Vec{Y: off}, DiameterMM: b.Core.DiameterMM, Colour: colour, WeightG: b.CoreG}
	if b.StopperKnot != "" {
		t.Core.WeightG = 0 // it is of the cords, which are weighed as such
	}
	t.Checks = []string{
		fmt.Sprintf("%d parallel turns on each of six faces, none crossed.", b.Passes),
		fmt.Sprintf("The ball measures {%.1fmm} across its faces and {%.1fmm} across its corners.", b.FaceMM, b.CornerMM),
	}
	for _, wn := range b.Warnings {
		if wn.Code == "choking" { // of the finished thing; nothing is to be mended
			t.Cautions = append(t.Cautions, wn.Message)
			continue
		}
		f := Flaw{Code: wn.Code, Says: wn.Message}
		switch {
		case wn.Kind != "":
			f.Field, f.Set, f.Label = "core.kind", string(wn.Kind), fmt.Sprintf("Take a %s", wn.Kind.Name())
		case wn.CoreMM > 0 && b.Core.Kind != fist.Stopper:
			f.Field, f.Set, f.Label = "core.diameter_mm", tenths(wn.CoreMM), fmt.Sprintf("Take a core of %.1f mm", tenths(wn.CoreMM))
		case wn.Passes > 0:
			f.Field, f.Set, f.Label = "passes", wn.Passes, fmt.Sprintf("Tie %d passes", wn.Passes)
		}
		t.Warnings = append(t.Warnings, f)
	}
	t.Actions = fistActions(b, w)
	return t, nil
}

// fistRounds are the rounds in which a ball is drawn up: all of it never hard at
// once.
const fistRounds = 2

// fistActions is what the maker does, read off the ball: band by band, turn by
// turn, then the slack of every turn in order, in two rounds.
func fistActions(b fist.Ball, w Work) []Action {
	_, legs := FistLegs(w.Section)
	var acts []Action
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
	if b.Mode == fist.Doubled {
		turns, each = b.Passes/2, "double turn"
	}
	// worker is the lead that winds a band, and which way its way is walked.
	worker := func(band int) int {
		switch {
		case b.Mode == fist.TwoCords && band > 0:
			return 1
		case legs == 2:
			return len(w.Own) - 1
		}
		return 0
	}
	switch {
	case b.Mode == fist.TwoCords && b.StopperKnot == "":
		acts = append(acts, Action{Moves: -1, Text: "Join the two cords end to end; the join will lie inside the ball, on the core."})
	case b.Mode == fist.TwoCords:
		acts = append(acts, Action{Moves: -1, Text: fmt.Sprintf("Join the two cords and tie their stopper: %s.", b.StopperKnot),
			Detail: fmt.Sprintf("It is the core and should measure about {%.1fmm}; a few turns of tape fill what is missing.", b.Core.DiameterMM)})
	case b.Tail:
		acts = append(acts, Action{Moves: 0, Text: "Leave the start hanging as long as its leg is cut, and hold it under the thumb.", Detail: "It leaves the ball beside the end."})
	case b.Mode == fist.Doubled:
		acts = append(acts, Action{Moves: -1, Text: "Lay both cords side by side and leave their starts hanging as long as their legs are cut.", Detail: "From here on the two are led as one; never let one cross the other."})
	default:
		acts = append(acts, Action{Moves: 0, Text: "Lay the start across the palm, inside what will be the ball.", Detail: "It ends hidden under the second band."})
	}
	for band := range 3 {
		for k := range turns {
			a := Action{Moves: worker(band), Text: fmt.Sprintf("Band %d, %s %d of %d: %s.", band+1, each, k+1, turns, lie[band])}
			if k == 0 && band > 0 {
				a.Text = fmt.Sprintf("Band %d, %s 1 of %d: turn the corner and go %s.", band+1, each, turns, lie[band])
			}
			switch {
			case band == 1 && k == 0:
				a.Detail = "Go round the middle of the first band, at right angles to it."
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
			acts = append(acts, Action{Moves: -1, Text: "Pinch the band at both ends and slip the fingers out.", Detail: "Keep the turns flat and open; the next band goes round their middle."})
		case 1:
			if b.StopperKnot == "" {
				acts = append(acts, Action{core: true, Moves: -1, Text: fmt.Sprintf("Put the core in: %s of {%.1fmm}.", b.Core.Kind.Name(), b.Core.DiameterMM),
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
	way := "from the start inside to the working end"
	switch {
	case b.Mode == fist.TwoCords:
		way = "of each cord from the join inside to its own end"
	case b.Tail:
		way = "from the start that hangs out to the working end"
	case b.Mode == fist.Doubled:
		way = "of both cords together, from their starts to their ends"
	}
	hardness := [fistRounds]string{"snug, not hard", "hard"}
	for round := range fistRounds {
		for band := range 3 {
			for k := range turns {
				a := Action{slack: true, Moves: worker(band), Text: fmt.Sprintf("Round %d, band %d, %s %d: take its slack on to the next, %s.", round+1, band+1, each, k+1, hardness[round])}
				if band == 0 && k == 0 {
					a.Detail = "Work the slack " + way + "; a spike or haemostat lifts the turns."
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
func holdFist(w Work, action int, along float64) (Tied, error) {
	whole, err := Tie(w)
	if err != nil {
		return Tied{}, err
	}
	n := len(w.Own)
	winding, done := make([]float64, n), make([]float64, n)
	drawing, drawn := 0.0, 0.0
	coreIn := !slices.ContainsFunc(whole.Actions, func(a Action) bool { return a.core }) // a stopper is there from the first
	for k, a := range whole.Actions {
		come := 0.0
		switch {
		case k < action:
			come = 1
		case k == action:
			come = along
		}
		switch {
		case a.slack:
			drawing++
			drawn += come
		case a.core:
			coreIn = coreIn || come > 0
		case a.Moves >= 0 && k > 0:
			winding[a.Moves]++
			done[a.Moves] += come
		}
	}
	const slack = 0.3 // by which turns wound round the fingers stand off
	shares := make([]float64, n)
	for i := range shares {
		from := i
		if w.Section.Mode != string(fist.TwoCords) { // all that is out is wound together
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

// pressed is a way on a core, every point of it lying as flat as it is pressed.
func pressed(pts []Vec) Path {
	p := Path{Points: pts, Lies: make([]Lie, len(pts))}
	for i := range p.Lies {
		p.Lies[i] = Pressed
	}
	return p
}
