package knot

import (
	"errors"
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/fist"
)

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
	add(Knot{
		Outside: true, First: true, ID: "rope-ball", Name: "rope ball", Family: "balls",
		OtherNames: []string{"globe knot", "turks head ball"},
		For:        "a large decorative ball or a napkin ring, with no core to throw",
		Schools: []School{{Field: "passes", Default: "2",
			Why: "one more round covers the former; one alone, on a mandrel, is the napkin ring"}},
		Fields: []Field{
			{Key: "passes", Short: "", Label: "rounds", Kind: "count", Default: "2", Least: 1, Most: fist.MostTracks, Needed: true},
			{Key: "strands_per_pass", Short: "side", Label: "strands side by side", Kind: "count", Default: "3", Least: 1, Most: fist.MostTracks},
			{Key: "former_mm", Short: "former", Label: "former or mandrel", Kind: "length"},
			{Key: "leads", Short: "leads", Label: "leads", Kind: "count", Default: "3", Least: fist.RopeLeads, Most: fist.RopeLeads},
			{Key: "bights", Short: "bights", Label: "bights", Kind: "count", Default: "4", Least: fist.RopeBights, Most: fist.RopeBights},
		},
		fill: func(s *Section) {
			s.Passes, s.Side, s.Leads, s.Bights = 2, 3, fist.RopeLeads, fist.RopeBights
		},
		tie: tieRopeBall,
	})
}

// BallLegs is how many cords a section that begins a piece takes, and how many
// legs of each leave it or end in it; none for a section that is no ball.
func BallLegs(s Section) (cords, legs int) {
	switch s.Do {
	case "monkeys-fist":
		return FistLegs(s)
	case "rope-ball":
		return max(1, s.Side), 1
	}
	return 0, 0
}

// RopeAsk is what a section asks of a rope ball of a cord.
func RopeAsk(s Section, c fist.Cord) fist.RopeAsk {
	return fist.RopeAsk{Cord: c, Strands: max(1, s.Side), Rounds: s.Passes, FormerMM: s.FormerMM}
}

func tieRopeBall(w Work) (Tied, error) {
	if len(w.Own) == 0 {
		return Tied{}, &Refused{Field: "do", Why: "tied by itself, before anything hangs: begin with mount and hitch=from-knot"}
	}
	thick := w.Own[0].Stuff
	for _, l := range w.Own {
		if l.Stuff.DrawnUp() > thick.DrawnUp() {
			thick = l.Stuff
		}
	}
	b, err := fist.MakeRope(RopeAsk(w.Section, fist.Of(thick)))
	var no *fist.Refused
	if errors.As(err, &no) {
		r := &Refused{Field: no.Field, Why: no.Why}
		switch {
		case no.CoreMM > 0:
			r.Set, r.Label = no.CoreMM, fmt.Sprintf("Take a former of %.1f mm", no.CoreMM)
		case no.Passes > 0:
			r.Set, r.Label = no.Passes, fmt.Sprintf("Go round %d times", no.Passes)
		}
		return Tied{}, r
	}
	if err != nil {
		return Tied{}, err
	}
	t := Tied{Loose: true, Repeats: 1, Gap: b.Gap, Height: b.HeightMM, Ends: true}
	for _, way := range b.Ways() {
		pts := make([]Vec, len(way))
		for i, v := range way {
			pts[i] = Vec{X: v.X, Y: v.Y + b.HeightMM/2, Z: v.Z}
		}
		p := pressed(pts)
		// Tucked ends run beside their own way; both are measured along its start.
		for _, v := range pts[1:] {
			p.Inside = append([]Vec{v}, p.Inside...)
			if (curve.Curve{Points: p.Inside}).Length() >= 2*b.TuckMM {
				break
			}
		}
		t.Own = append(t.Own, p)
		t.Workers = append(t.Workers, len(t.Workers))
	}
	if b.Rounds > 1 { // a napkin ring comes off its mandrel
		t.Core = &CoreAt{At: Vec{Y: b.HeightMM / 2}, DiameterMM: b.FormerMM, Colour: fist.Wadding.Colour(),
			WeightG: fist.Core{Kind: fist.Wadding, DiameterMM: b.FormerMM}.Weight(b.Cord)}
	}
	t.Checks = append(t.Checks, ropeSays(b)...)
	t.Actions = ropeActions(b)
	return t, nil
}

func ropeSays(b fist.RopeBall) []string {
	if b.Rounds == 1 {
		return []string{fmt.Sprintf("The ring is {%.1fmm} wide inside, {%.1fmm} outside and {%.1fmm} high.", b.InnerMM, b.OuterMM, b.HeightMM)}
	}
	says := fmt.Sprintf("The ball measures {%.1fmm} on a former of {%.1fmm}.", b.OuterMM, b.FormerMM)
	if b.BareMM > 0.05 {
		return []string{says, fmt.Sprintf("Between the bands the former shows {%.1fmm} wide at the most, at the two ends of its axis.", b.BareMM)}
	}
	return []string{says, "The former shows nowhere."}
}

func ropeActions(b fist.RopeBall) []Action {
	side := "strand"
	if b.Strands > 1 {
		side = fmt.Sprintf("%d strands side by side", b.Strands)
	}
	what := "former"
	acts := []Action{{Moves: -1, Text: fmt.Sprintf("Take a former of {%.1fmm}.", b.FormerMM), Detail: "A ball of wadding bound with tape keeps its shape and weighs little."}}
	if b.Rounds == 1 {
		what = "mandrel"
		acts[0] = Action{Moves: -1, Text: fmt.Sprintf("Take a mandrel of {%.1fmm}.", b.FormerMM), Detail: "A bottle's neck, a tube or a round handle; the ring comes off it at the end."}
	}
	for lead := range fist.RopeLeads {
		acts = append(acts, Action{Moves: 0, Text: fmt.Sprintf("Lead %d of %d: once round the %s with the %s, over one band and under the next.", lead+1, fist.RopeLeads, what, side),
			Detail: fmt.Sprintf("Over and under by turns; in all %d bights on either side.", fist.RopeBights)})
	}
	acts[len(acts)-1].Gate = fmt.Sprintf("%d bights on either side, every crossing over one and under one.", fist.RopeBights)
	for r := 1; r < b.Rounds; r++ {
		acts = append(acts, Action{Moves: 0, Text: fmt.Sprintf("Round %d: follow every strand once round beside itself, always on the same side.", r+1),
			Detail: fmt.Sprintf("This round takes {%.0fmm} of a strand, the first {%.0fmm}.", math.Round(b.RoundsMM[r]), math.Round(b.RoundsMM[0])),
			Gate:   "No strand crosses the one that it follows."})
	}
	for round := range fistRounds {
		acts = append(acts, Action{slack: true, Moves: 0, Text: fmt.Sprintf("Round %d of drawing up: work the slack of each strand from its start to its end, bight by bight.", round+1), Gate: "The bands lie flat and touch one another."})
	}
	if b.Rounds == 1 {
		acts = append(acts, Action{Moves: -1, Text: "Slide the ring off its mandrel."})
	}
	return append(acts, Action{Moves: -1, Text: "Tuck both ends of every strand under three crossings and cut them flush.", Detail: fmt.Sprintf("Each takes {%.0fmm}.", b.TuckMM)})
}
