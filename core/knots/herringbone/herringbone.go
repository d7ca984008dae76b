// Package herringbone ties the collar of two cords round a bundle.
package herringbone

import (
	"cmp"
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/cover"
	"nimblebight/core/move"
)

// Settings of a herringbone collar.
type Settings struct {
	Cords  knot.CordIDs `json:"cords,omitempty" typed:"-" label:"its two cords" needed:"yes"`
	OverMM float64      `json:"over_mm,omitempty" typed:"thick" label:"over a ring on the bundle, across" most:"300"`
}

// weave is the collar: nine leads and four bights, two over and two under by columns.
var weave = cover.Weave{Leads: 9, Bights: 4, Passes: 1, Columns: []bool{false, false, true, true, false, false, true, true}}

// trips is how often each of its two cords goes from edge to edge.
const trips = 4

// anew is one of the first two free cords.
func anew(_ int, free []string) []knot.Section {
	return []knot.Section{{Do: "herringbone-collar", Settings: Settings{Cords: free[:min(len(free), 2)]}}}
}

// Herringbone collar: two cords go side by side round a bundle, back over and under each
// other, down again in between, and back under two and over two; their ends go under the
// whole knot.
//
// Right: chevrons of two stand all round. Wrong: in the third trip a cord that lies on the
// other side of the one beside it; nothing is left to part in the fourth.
//
// Makers differ in nothing but the bundle: a whipping or a ring on it make the collar
// stand fuller.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "herringbone-collar", Name: "herringbone collar", Family: "coverings",
		Held: "On the bundle that it covers, its first turn under a piece of tape.", HoldTools: []string{"masking tape"},
		OtherNames: []string{"two-cord collar"},
		For:        "a collar of chevrons in two colours round the legs of a lanyard, below its ring, or over a ring put on them",
		Glyph:      "M3 8l5 4-5 4M8 8l5 4-5 4M21 8l-5 4 5 4M16 8l-5 4 5 4M9 2v4M15 2v4M9 18v4M15 18v4",
		Settings:   Settings{},
		Hangs:      true,
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: 1}, Bundles: true, Cords: knot.Of[Settings](s).Cords, CordsAt: "cords", Wants: 2}
		},
		Wraps: func(w knot.Work) float64 {
			t, _ := tie(w) // what is refused is so when it is tied
			return t.Height
		},
		Tie:    tie,
		Anew:   anew,
		Sample: knot.Sample{Line: "mount A B, gap 8mm, herringbone-collar C D", Cords: 4, Section: 2},
	})
}

func tie(w knot.Work) (knot.Tied, error) {
	if n := len(w.Own); n != 2 {
		r := &knot.Refused{Field: "cords", Why: fmt.Sprintf("tied of %d cords; a herringbone collar takes two", n)}
		if n > 2 {
			r.Set, r.Label = []string(knot.Of[Settings](w.Section).Cords[:2]), "Tie it of the first two"
		}
		return knot.Tied{}, r
	}
	d := max(w.Own[0].Diameter, w.Own[1].Diameter)
	discs := w.Under()
	about := knot.Round(discs)
	thick := 2 * about.R
	ring := knot.Of[Settings](w.Section).OverMM
	if ring > 0 {
		if err := cover.OnCore(ring, thick); err != nil {
			return knot.Tied{}, err
		}
		thick = ring
	}
	if most := cover.MostMandrel * d; thick > most {
		r := &knot.Refused{Field: "cords", Why: fmt.Sprintf("tied round %.0f mm; of a cord of %.1f mm it is drawn up round %.0f mm at the most", thick, d, most)}
		if ring > 0 {
			r.Field, r.Set, r.Label = "over_mm", math.Floor(most), fmt.Sprintf("Take %.0f mm", math.Floor(most))
		}
		return knot.Tied{}, r
	}
	t, err := cover.Kept(fmt.Sprintf("herringbone %.6f %.6f %.6f %d", d, thick, ring, len(w.Strands)), func() (knot.Tied, error) { return lead(d, thick, ring, len(w.Strands)) })
	if err == nil {
		if ring > 0 {
			t.Beads = []knot.BeadAt{cover.Core(ring, t.Height, about)}
		}
		t.Paths = w.Straight(discs, t.Height)
		cover.About(t.Own, about)
	}
	return t, err
}

// lead lays the collar of cords of diameter d round so many strands, which are so thick
// together, or round a ring on them where that is not zero.
func lead(d, thick, ring float64, strands int) (knot.Tied, error) {
	c, err := weave.On(thick / d)
	if err != nil {
		return knot.Tied{}, err
	}
	// Each end goes under the whole knot to the other edge.
	laid := cover.Lay(c, c.Shares(2), c.High/2, d, thick, 0)
	t := knot.Tied{Loose: true, Around: true, Repeats: 1, Gap: c.Gap, Height: laid.RoomMM, Order: knot.Identity(strands), Workers: []int{strands, strands + 1}}
	t.Own, t.OwnFlat = laid.Paths()
	t.Moves, err = moves(laid, t.Workers, thick, ring > 0)
	t.Checks = []string{fmt.Sprintf("It is {%.1fmm} high and {%.1fmm} across.", laid.HighMM, d*c.Across)}
	if laid.GapMM > 0.1*d {
		t.Warnings = []knot.Flaw{{Code: "cover-stands-off", Says: fmt.Sprintf("Round {%.1fmm} it stands off by {%.1fmm} all round: wind the bundle thicker under it.", thick, laid.GapMM)}}
	}
	return t, err
}

// moves are those of the collar: the trips of both cords by turns.
func moves(l cover.Laid, as []int, thick float64, ring bool) ([]move.Move, error) {
	all, err := l.Web.Trips(func(a, b cover.Trip) int { return cmp.Or(cmp.Compare(a.N, b.N), cmp.Compare(a.Strand, b.Strand)) })
	if err != nil {
		return nil, err
	}
	out := []move.Move{{Strand: -1, Text: fmt.Sprintf("Hold the strands together; they make {%.1fmm} across.", thick), Detail: "A turn of tape keeps them so."}}
	if ring {
		out[0] = move.Move{Strand: -1, Text: fmt.Sprintf("Put the ring of {%.1fmm} over the strands.", thick), Detail: "It stays under the collar; hold it where the collar is to be."}
	}
	for _, t := range all {
		m := move.Move{Strand: as[t.Strand], Turn: string(knot.Clockwise)}
		passes, words := t.Says(as)
		m.Passes = passes
		edge := "upper"
		if t.Out {
			edge = "lower"
		}
		m.Text = fmt.Sprintf("Lead {cord} {turn} to the %s edge, %s: %s.", edge, cover.Turns(l.Weave), words)
		m.Detail = fmt.Sprintf("Trip %d of %d.", t.N+1, trips)
		switch {
		case t.N == trips:
			m.Text, m.Detail = "Lead {cord} on to the part that is met first, and in under it.", "From there it goes under the whole knot."
		case t.N == 0 && t.Strand == 1:
			m.Gate = "Two turns lie side by side and nothing is crossed."
		case t.N == 1:
			m.Gate = "It went under and over by turns."
		case t.N == 2:
			m.Detail = fmt.Sprintf("Trip %d of %d, in the gap beside the trip before.", t.N+1, trips)
			m.Gate = "Its last over goes over two side by side."
		case t.N == 3 && t.Strand == 1:
			m.Gate = "Chevrons of two stand all round."
		}
		out = append(out, m)
	}
	out = append(out, cover.Drawing(as)...)
	return append(out, move.Move{Strand: -1, Text: "Put each end under the whole knot to the other edge and cut it flush.", Detail: fmt.Sprintf("Each takes {%.0fmm}.", l.HighMM)}), nil
}
