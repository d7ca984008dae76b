// Package mat ties the flat mat as the first section of a piece: its ends go on as
// strands.
package mat

import (
	"cmp"
	"fmt"
	"math"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/knots/cover"
	"nimblebight/core/knots/mount"
	"nimblebight/core/move"
)

// Of is what a mat is tied of.
type Of string

// One cord; one that is followed round by itself, or two, what comes second on the inner
// side of the first.
const (
	OneCord  Of = "one-cord"
	Followed Of = "one-cord-followed"
	TwoCords Of = "two-cords"
)

// Choices are all.
func (Of) Choices() []string {
	return []string{string(OneCord), string(Followed), string(TwoCords)}
}

// Settings of a flat mat.
type Settings struct {
	Of      Of      `json:"of,omitempty" typed:"of" label:"tied of" default:"two-cords"`
	WidthMM float64 `json:"width_mm,omitempty" typed:"wide" label:"width" most:"300"`
	Leads   int     `json:"leads,omitempty" typed:"leads" label:"leads" default:"3" least:"3" most:"3"`
	Bights  int     `json:"bights,omitempty" typed:"bights" label:"bights" default:"4" least:"4" most:"4"`
}

func (s Settings) lanes() int {
	if s.Of == OneCord {
		return 1
	}
	return 2
}

func (s Settings) cords() int {
	if s.Of == OneCord || s.Of == Followed {
		return 1
	}
	return 2
}

func terms(s knot.Section) knot.Terms {
	n := knot.Of[Settings](s).cords()
	return knot.Terms{Begins: knot.OfTheLast, Wants: n, Legs: 2, WantsAt: "of", As: map[int]string{1: "of one cord", 2: "of two cords"}[n],
		Suits: func(cords int) (any, string) {
			switch cords {
			case 1:
				return string(OneCord), "Tie it of one cord"
			case 2:
				return string(TwoCords), "Tie it of two cords"
			}
			return nil, ""
		}}
}

// anew is a mat of the free cords; where nothing hangs, with the mount that names them.
func anew(hanging int, free []string) []knot.Section {
	set := Settings{Of: TwoCords}
	if len(free) < 2 {
		set.Of = OneCord
	}
	one := knot.Section{Do: "flat-mat", Settings: set}
	if hanging > 0 || len(free) == 0 {
		return []knot.Section{one}
	}
	return []knot.Section{mount.Of(mount.FromKnot, free[:set.cords()]...), one}
}

// Flat mat of three leads and four bights: a cord is led over and under itself to a round
// mat, a second one beside it on its inner side. One bight stays open: there the ends
// leave side by side and go on as strands.
//
// Right: every crossing goes over one and under the next; the mat lies flat, its bights
// alike, the holes even. Wrong: the second cord on the outer side for a stretch: it
// crosses the first.
//
// Makers differ in how far they close it. Drawn right up a mat closes its holes and curls;
// it is laid to a width on a board, and that is what is drawn: constructed, and moved
// clear of itself.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "flat-mat", Name: "flat mat", Family: "coverings",
		Held: "Pinned to a cork board at every bight, till it is drawn up.", HoldTools: []string{"cork board and pins"},
		OtherNames: []string{"carrick mat", "round mat"},
		For:        "a flat round to begin a fob with; its ends go on as strands",
		Schools: []knot.School{{Field: "width_mm", Default: "so that bands just pass",
			Why: "drawn tighter it curls, wider it shows its holes and wants stiff cord"}},
		Glyph:    "M12 3c5 0 5 6 0 9s-5 9 0 9 5-6 0-9-5-9 0-9zM3 12c0-5 6-5 9 0s9 5 9 0-6-5-9 0-9 5-9 0z",
		Settings: Settings{},
		Terms:    terms,
		Anew:     anew,
		Plain:    func() knot.Section { return knot.Section{Do: "flat-mat", Settings: Settings{Of: OneCord}} },
		Tie:      tie,
		Sample:   knot.Sample{Line: "mount A hitch=from-knot, flat-mat of=one-cord", Cords: 1, Section: 1},
	})
}

func tie(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	if len(w.Own) == 0 {
		return knot.Tied{}, &knot.Refused{Field: "do", Why: "tied by itself, before anything hangs: begin with mount and hitch=from-knot; the ring comes last"}
	}
	d := 0.0
	for _, l := range w.Own {
		d = math.Max(d, l.Diameter)
	}
	m := usual(set.lanes())
	if set.WidthMM > 0 {
		m = wide(set.lanes(), set.WidthMM/d)
	}
	if least, most := d*bounds[set.lanes()][0], d*bounds[set.lanes()][1]; set.WidthMM > 0 && (set.WidthMM < least || set.WidthMM > most) {
		no := &knot.Refused{Field: "width_mm", Why: fmt.Sprintf("the mat is to be %.0f mm wide; of a cord of %.1f mm it is laid from %.0f to %.0f mm", set.WidthMM, d, math.Ceil(least), math.Floor(most)), Set: math.Ceil(least)}
		if set.WidthMM > most {
			no.Set = math.Floor(most)
		}
		no.Label = fmt.Sprintf("Lay it %.0f mm wide", no.Set)
		return knot.Tied{}, no
	}
	m.followed = set.Of == Followed
	laid := m.lay()
	t := knot.Tied{Loose: true, Repeats: 1, Gap: laid.gap, Height: d * (laid.bottom - laid.top), Clear: 0.3 * d, Order: laid.order}
	var as []int
	for i, line := range laid.lines {
		t.Own = append(t.Own, knot.Path{Points: scaled(line, d, laid.top)})
		t.OwnFlat = append(t.OwnFlat, knot.Path{Points: line})
		as = append(as, i)
		t.Workers = append(t.Workers, i)
	}
	var err error
	t.Moves, err = m.moves(laid, as, d)
	t.Checks = []string{fmt.Sprintf("The mat is {%.1fmm} wide and {%.1fmm} thick.", d*laid.width, d*laid.thick)}
	if set.Of == TwoCords {
		in := func(n int) float64 {
			return d * (curve.Curve{Points: laid.lines[2*n]}.Length() + curve.Curve{Points: laid.lines[2*n+1]}.Length())
		}
		t.Checks = append(t.Checks, fmt.Sprintf("The outer cord takes {%.0fmm} in it, {%.0fmm} more than the inner one.", in(0), in(0)-in(1)))
	}
	return t, err
}

// moves are the trips of each end from the middle of its cord, edge to edge.
func (m mat) moves(l laid, as []int, d float64) ([]move.Move, error) {
	trips, err := l.web.Trips(func(a, b cover.Trip) int { return cmp.Compare(a.Strand, b.Strand) })
	if err != nil {
		return nil, err
	}
	edge := "upper"
	if m.followed {
		edge = "lower"
	}
	out := []move.Move{{Strand: -1, Text: fmt.Sprintf("Draw a round of {%.0fmm} on a board, and pin the middle of the first cord to its %s edge.", d*l.width, edge), Detail: "Pins hold every bight till the mat is even."}}
	each := 4 // trips of an end
	if m.followed {
		each = 8
	}
	for i, t := range trips {
		mv := move.Move{Strand: as[t.Strand]}
		passes, words := t.Says(as)
		mv.Passes = passes
		edge := "inner"
		if t.Out {
			edge = "outer"
		}
		end := []string{"first", "other"}[t.Strand%2]
		beside, gate := "", "Every crossing goes over one and under the next."
		switch {
		case m.followed && t.Strand == 1:
			beside, gate = " beside the first round, on its inner side,", "The second round lies on the inner side of the first everywhere."
		case t.Strand >= 2:
			beside, gate = " beside the first cord, on its inner side,", "The second cord lies on the inner side of the first everywhere; it crosses it nowhere."
		}
		mv.Follows = beside != ""
		mv.Text = fmt.Sprintf("Lead the %s end of {cord}%s to the %s edge, three eighths of the way round: %s.", end, beside, edge, words)
		mv.Detail = fmt.Sprintf("Trip %d of %d of this end.", t.N+1, each)
		if t.N == each {
			mv.Text, mv.Detail = fmt.Sprintf("Lead the %s end of {cord} out at the open bight: %s.", end, words), ""
		}
		if i == len(trips)-1 || trips[i+1].Strand != t.Strand {
			mv.Gate = gate
			if t.Strand%2 == 1 {
				mv.Gate += " The ends are equal."
			}
		}
		out = append(out, mv)
	}
	out = append(out, cover.Drawing(as)...)
	return append(out, move.Move{Strand: -1, Text: "Take out the pins.", Gate: fmt.Sprintf("The mat lies flat and is {%.0fmm} wide.", d*l.width)}), nil
}
