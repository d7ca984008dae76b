// Package ropeball ties rope balls and napkin rings as the first section of a piece.
package ropeball

import (
	"errors"
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/mount"
	"nimblebight/core/move"

	"gonum.org/v1/gonum/spatial/r3"
)

// Settings of a rope ball.
type Settings struct {
	Passes   int     `json:"passes,omitempty" typed:"-" label:"rounds" default:"2" least:"1" most:"6" needed:"yes"`
	Side     int     `json:"strands_per_pass,omitempty" typed:"side" label:"strands side by side" default:"3" least:"1" most:"6"`
	FormerMM float64 `json:"former_mm,omitempty" typed:"former" label:"former or mandrel"`
	Leads    int     `json:"leads,omitempty" typed:"leads" label:"leads" default:"3" least:"3" most:"3"`
	Bights   int     `json:"bights,omitempty" typed:"bights" label:"bights" default:"4" least:"4" most:"4"`
}

func terms(s knot.Section) knot.Terms {
	n := max(1, knot.Of[Settings](s).Side)
	return knot.Terms{Begins: knot.OfTheLast, Wants: n, Legs: 1, As: fmt.Sprintf("%d strands side by side", n), WantsAt: "strands_per_pass"}
}

// anew is a ball of as many strands side by side as there are free cords; where
// nothing hangs, with the mount that names them.
func anew(hanging int, free []string) []knot.Section {
	set := Settings{Passes: 2, Side: 3, Leads: ball.RopeLeads, Bights: ball.RopeBights}
	if len(free) > 0 {
		set.Side = min(len(free), ball.MostTracks)
	}
	one := knot.Section{Do: "rope-ball", Settings: set}
	if hanging > 0 || len(free) == 0 {
		return []knot.Section{one}
	}
	return []knot.Section{mount.Of(mount.FromKnot, free[:set.Side]...), one}
}

// Rope ball: three leads and four bights round a former, several strands led
// side by side, each followed round again beside itself, the ends tucked inside.
//
// Right: every crossing is over one band and under the next, the strands of a
// band lie flat and none crosses its neighbour. Wrong: a strand that was
// followed on the wrong side of its own first round; it crosses its neighbours
// at every bight.
//
// Makers differ in where they stop: after the first round, on a mandrel, it is a
// napkin ring; followed until the former is covered it is a ball.
func init() {
	knot.Add(knot.Knot{
		Outside: true, First: true, ID: "rope-ball", Name: "rope ball", Family: "balls",
		Held: "On its former, the first round under a piece of tape.", HoldTools: []string{"masking tape"},
		OtherNames: []string{"globe knot", "turks head ball"},
		For:        "a large decorative ball or a napkin ring, with no core to throw",
		Schools: []knot.School{{Field: "passes", Default: "2",
			Why: "one more round covers the former; one alone, on a mandrel, is the napkin ring"}},
		Glyph:    "M12 3a9 9 0 1 1 0 18 9 9 0 1 1 0-18zM5 6c3 6 11 6 14 12M19 6c-3 6-11 6-14 12M3 12c4-5 14-5 18 0",
		Settings: Settings{},
		Terms:    terms,
		Anew:     anew,
		Plain: func() knot.Section {
			return knot.Section{Do: "rope-ball", Settings: Settings{Passes: 1, Side: 1, Leads: ball.RopeLeads, Bights: ball.RopeBights}}
		},
		Tie:    tieRopeBall,
		Hold:   hold,
		Sample: knot.Sample{Line: "mount A B hitch=from-knot, rope-ball 2 side=2", Cords: 2, Section: 1},
	})
}

// askOf is what a section asks of a rope ball of a cord.
func askOf(in knot.Section, c ball.Cord) ball.RopeAsk {
	s := knot.Of[Settings](in)
	return ball.RopeAsk{Cord: c, Strands: max(1, s.Side), Rounds: s.Passes, FormerMM: s.FormerMM}
}

func tieRopeBall(w knot.Work) (knot.Tied, error) {
	if len(w.Own) == 0 {
		return knot.Tied{}, &knot.Refused{Field: "do", Why: "tied by itself, before anything hangs: begin with mount and hitch=from-knot"}
	}
	thickest := w.Own[0]
	for _, l := range w.Own {
		if l.Diameter > thickest.Diameter {
			thickest = l
		}
	}
	b, err := ball.MakeRope(askOf(w.Section, ball.Of(thickest.Stuff, thickest.Figures)))
	var no *ball.Refused
	if errors.As(err, &no) {
		r := &knot.Refused{Field: no.Field, Why: no.Why}
		switch {
		case no.CoreMM > 0:
			r.Set, r.Label = no.CoreMM, fmt.Sprintf("Take a former of %.1f mm", no.CoreMM)
		case no.Passes > 0:
			r.Set, r.Label = no.Passes, fmt.Sprintf("Go round %d times", no.Passes)
		}
		return knot.Tied{}, r
	}
	if err != nil {
		return knot.Tied{}, err
	}
	t := knot.Tied{Loose: true, Repeats: 1, Gap: b.Gap, Height: b.HeightMM, Ends: true}
	for _, path := range b.Paths() {
		pts := make([]r3.Vec, len(path))
		for i, v := range path {
			pts[i] = r3.Vec{X: v.X, Y: v.Y + b.HeightMM/2, Z: v.Z}
		}
		p := knot.OnCore(pts)
		// Tucked ends run beside their own path; both are measured along its start.
		for _, v := range pts[1:] {
			p.Inside = append([]r3.Vec{v}, p.Inside...)
			if (curve.Curve{Points: p.Inside}).Length() >= 2*b.TuckMM {
				break
			}
		}
		t.Own = append(t.Own, p)
		t.Workers = append(t.Workers, len(t.Workers))
	}
	if b.Rounds > 1 { // a napkin ring comes off its mandrel
		t.Core = &knot.CoreAt{At: r3.Vec{Y: b.HeightMM / 2}, DiameterMM: b.FormerMM, Colour: ball.Wadding.Colour(),
			WeightG: ball.Core{Kind: ball.Wadding, DiameterMM: b.FormerMM}.Weight(b.Cord)}
	}
	if b.Rounds == 1 {
		t.Opening = &knot.Opening{RoundMM: math.Pi * b.InnerMM, Field: "former_mm", PerMM: 1 / math.Pi, Snug: true}
	}
	t.Checks = append(t.Checks, ropeSays(b)...)
	t.Moves = ropeActions(b)
	return t, nil
}

func ropeSays(b ball.RopeBall) []string {
	if b.Rounds == 1 {
		return []string{fmt.Sprintf("The ring is {%.1fmm} wide inside, {%.1fmm} outside and {%.1fmm} high.", b.InnerMM, b.OuterMM, b.HeightMM)}
	}
	says := fmt.Sprintf("The ball measures {%.1fmm} on a former of {%.1fmm}.", b.OuterMM, b.FormerMM)
	if b.BareMM > 0.05 {
		return []string{says, fmt.Sprintf("Between the bands the former shows {%.1fmm} wide at the most, at the two ends of its axis.", b.BareMM)}
	}
	return []string{says, "The former shows nowhere."}
}

// rounds are those in which a ball is drawn up: all of it never hard at once.
const rounds = 2

func ropeActions(b ball.RopeBall) []move.Move {
	side, beside := "strand", []int(nil) // all are led as one
	for i := 1; i < b.Strands; i++ {
		beside = append(beside, i)
	}
	if b.Strands > 1 {
		side = fmt.Sprintf("%d strands side by side", b.Strands)
	}
	what := "former"
	acts := []move.Move{{Strand: -1, Text: fmt.Sprintf("Take a former of {%.1fmm}.", b.FormerMM), Detail: "A ball of wadding bound with tape keeps its shape and weighs little."}}
	if b.Rounds == 1 {
		what = "mandrel"
		acts[0] = move.Move{Strand: -1, Text: fmt.Sprintf("Take a mandrel of {%.1fmm}.", b.FormerMM), Detail: "A bottle's neck, a tube or a round handle; the ring comes off it at the end."}
	}
	for lead := range ball.RopeLeads {
		acts = append(acts, move.Move{Strand: 0, With: beside, Text: fmt.Sprintf("Lead %d of %d: once round the %s with the %s, over one band and under the next.", lead+1, ball.RopeLeads, what, side),
			Detail: fmt.Sprintf("Over and under by turns; in all %d bights on either side.", ball.RopeBights)})
	}
	acts[len(acts)-1].Gate = fmt.Sprintf("%d bights on either side, every crossing over one and under one.", ball.RopeBights)
	for r := 1; r < b.Rounds; r++ {
		acts = append(acts, move.Move{Strand: 0, With: beside, Text: fmt.Sprintf("Round %d: follow every strand once round beside itself, always on the same side.", r+1),
			Detail: fmt.Sprintf("This round takes {%.0fmm} of a strand, the first {%.0fmm}.", math.Round(b.RoundsMM[r]), math.Round(b.RoundsMM[0])),
			Gate:   "No strand crosses the one that it follows."})
	}
	for round := range rounds {
		acts = append(acts, move.Move{Slack: true, Strand: 0, With: beside, Text: fmt.Sprintf("Round %d of drawing up: work the slack of each strand from its start to its end, bight by bight.", round+1), Gate: "The bands lie flat and touch one another."})
	}
	if b.Rounds == 1 {
		acts = append(acts, move.Move{Strand: -1, Text: "Slide the ring off its mandrel."})
	}
	return append(acts, move.Move{Strand: -1, Text: "Tuck both ends of every strand under three crossings and cut them flush.", Detail: fmt.Sprintf("Each takes {%.0fmm}.", b.TuckMM)})
}
