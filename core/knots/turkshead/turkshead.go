// Package turkshead ties Turk's heads round what hangs there, round a core, or on a
// mandrel.
package turkshead

import (
	"errors"
	"fmt"
	"math"
	"strings"

	"nimblebight/core/knot"
	"nimblebight/core/knots/cover"
	"nimblebight/core/move"
)

// Over is what a Turk's head is tied round.
type Over string

// Round the strands that hang there, on a mandrel that it comes off, or over a straw, by
// one of two strands that then goes down the middle beside the other.
const (
	Strands Over = "strands"
	Mandrel Over = "mandrel"
	Straw   Over = "straw"
)

// Choices are all.
func (Over) Choices() []string { return []string{string(Strands), string(Mandrel), string(Straw)} }

// Settings of a Turk's head.
type Settings struct {
	Cords    knot.CordIDs `json:"cords,omitempty" typed:"-" label:"cord of its own" for:"over=strands"`
	Leads    int          `json:"leads,omitempty" typed:"leads" label:"leads" default:"3" least:"2" most:"15"`
	Bights   int          `json:"bights,omitempty" typed:"bights" label:"bights" default:"4" least:"2" most:"24"`
	Passes   int          `json:"passes,omitempty" typed:"passes" label:"passes" default:"2" least:"1" most:"4"`
	Over     Over         `json:"over,omitempty" typed:"over" label:"tied round" default:"strands"`
	OverMM   float64      `json:"over_mm,omitempty" typed:"thick" label:"core or mandrel, across" most:"300"`
	LengthMM float64      `json:"length_mm,omitempty" typed:"long" label:"length to cover" most:"1000"`
}

// weave is what a section sets, with what it leaves to the default.
func (s Settings) weave() cover.Weave {
	or := func(n, usual int) int {
		if n == 0 {
			return usual
		}
		return n
	}
	return cover.Weave{Leads: or(s.Leads, 3), Bights: or(s.Bights, 4), Passes: or(s.Passes, 2)}
}

func terms(s knot.Section) knot.Terms {
	set := knot.Of[Settings](s)
	w := set.weave()
	if set.Over == Mandrel {
		return knot.Terms{Begins: knot.OfTheLast, Wants: w.Bands(), Legs: 1, WantsAt: "bights",
			As:    fmt.Sprintf("%d with %d leads, which makes %s", w.Bights, w.Leads, bands(w.Bands())),
			Suits: func(cords int) (any, string) { return bightsFor(w, cords, 0) }}
	}
	if set.Over == Straw {
		t := knot.Terms{Takes: knot.Takes{Least: 2, Most: 2}, Bundles: true}
		if len(set.Cords) > 0 { // which is refused when it is tied
			t.Cords, t.CordsAt = set.Cords, "cords"
		}
		return t
	}
	return knot.Terms{Takes: knot.Takes{Least: 1}, Bundles: true, Cords: set.Cords, CordsAt: "cords", Wants: w.Bands()}
}

func bands(n int) string {
	if n == 1 {
		return "one band"
	}
	return fmt.Sprintf("%d bands", n)
}

// bightsFor are the nearest bights with which so many cords tie it, on a mandrel of so many
// diameters where that is not zero, and what that is called; nil where there are none.
func bightsFor(w cover.Weave, cords int, mandrel float64) (any, string) {
	for off := 1; off < cover.MostBights; off++ {
		for _, n := range [2]int{w.Bights + off, w.Bights - off} {
			if n < 2 || n > cover.MostBights {
				continue
			}
			next := cover.Weave{Leads: w.Leads, Bights: n, Passes: w.Passes}
			if next.Bands() == cords && (mandrel == 0 || next.Loose(mandrel) >= 1) {
				return n, fmt.Sprintf("Take %d bights", n)
			}
		}
	}
	return nil, ""
}

// anew is one of the first free cord, round what hangs there.
func anew(_ int, free []string) []knot.Section {
	set := Settings{Leads: 3, Bights: 4, Passes: 2}
	if len(free) > 0 {
		set.Cords = free[:1]
	}
	return []knot.Section{{Do: "turks-head", Settings: set}}
}

// Turk's head: a cord of its own is led to and fro round what it covers, from edge to
// edge, over one part and under the next, and followed round beside itself.
//
// Right: every crossing is over one and under one; the rounds lie side by side and
// none crosses the one that it follows. Wrong: followed on the other side of its own
// first round: it crosses it at every bight. Leads and bights that share a divisor make
// several bands, each of a cord of its own.
//
// Makers differ in the number of rounds: two cover, three make it fat.
func init() {
	knot.Add(knot.Knot{
		Outside: true, ID: "turks-head", Name: "Turk's head", Family: "coverings",
		Held: "On its mandrel, or on what it covers, the first turn under a piece of tape.", HoldTools: []string{"masking tape"},
		OtherNames: []string{"covering knot", "woven ring"},
		For:        "covering the legs of a lanyard, a handle or a ring; on a mandrel, a napkin ring or a bracelet",
		Schools: []knot.School{{Field: "passes", Default: "2",
			Why: "two rounds cover what is under them and keep the weave clear; a third makes it fat, one alone is open"}},
		Glyph:    "M4 6c6 0 10 12 16 12M4 18c6 0 10-12 16-12M4 12c3-6 6-6 8-6s5 0 8 6M4 12c3 6 6 6 8 6s5 0 8-6",
		Settings: Settings{},
		Hangs:    true,
		Terms:    terms,
		Wraps:    wraps,
		Tie:      tie,
		Anew:     anew,
		Plain: func() knot.Section {
			return knot.Section{Do: "turks-head", Settings: Settings{Leads: 3, Bights: 4, Passes: 1, Over: Strands}}
		},
		Sample: knot.Sample{Line: "mount A B, gap 8mm, turks-head C", Cords: 2, Section: 2},
	})
}

// wraps is how far down it goes over what is there, mm.
func wraps(w knot.Work) float64 {
	t, _ := tie(w) // what is refused is so when it is tied
	return t.Height
}

// work is a Turk's head in hand: what is asked for, the thickest of its cords and what it
// goes round, mm.
type work struct {
	knot.Work
	set   Settings
	weave cover.Weave
	d     float64
	thick float64
	discs []knot.Disc
	about knot.Disc // the circle about them
}

func (w work) on(weave cover.Weave) (cover.Cover, error) { return weave.On(w.thick / w.d) }

func (w work) lay(c cover.Cover) cover.Laid {
	lines, tuck := c.Strands()
	return cover.Lay(c, lines, tuck, w.d, w.thick, w.set.LengthMM)
}

func tie(in knot.Work) (knot.Tied, error) {
	w := work{Work: in, set: knot.Of[Settings](in.Section)}
	w.weave = w.set.weave()
	if w.set.Over == Straw {
		for _, l := range w.Strands {
			w.d = math.Max(w.d, l.Diameter)
		}
		return cover.Kept(fmt.Sprintf("straw %+v %.6f %d %d", w.set, w.d, len(w.Strands), len(w.Own)), w.tieStraw)
	}
	for _, l := range w.Own {
		w.d = math.Max(w.d, l.Diameter)
	}
	if len(w.Own) == 0 {
		return knot.Tied{}, w.refuse()
	}
	if w.set.Over == Mandrel {
		if w.thick = w.set.OverMM; w.thick == 0 {
			w.thick = w.d * w.weave.Suits()
		}
	} else {
		w.discs = w.Under()
		w.about = knot.Round(w.discs)
		w.thick = 2 * w.about.R
		if w.set.OverMM > 0 {
			if err := cover.OnCore(w.set.OverMM, w.thick); err != nil {
				return knot.Tied{}, err
			}
			w.thick = w.set.OverMM
		}
	}
	if err := w.refuse(); err != nil {
		return knot.Tied{}, err
	}
	if most := cover.MostMandrel * w.d; w.thick > most {
		return knot.Tied{}, &knot.Refused{Field: "over_mm", Why: fmt.Sprintf("it goes round %.0f mm; of a cord of %.1f mm it is drawn up on %.0f mm at the most", w.thick, w.d, most),
			Set: math.Floor(most), Label: fmt.Sprintf("Take %.0f mm", math.Floor(most))}
	}
	if long := w.set.LengthMM; long > 0 && long < w.d {
		return knot.Tied{}, &knot.Refused{Field: "length_mm", Why: fmt.Sprintf("the length to cover is %.1f mm, less than its cord of %.1f mm is thick", long, w.d), Set: 0.0, Label: "Cover as much as it comes to"}
	}
	set := w.set
	set.Cords = nil // their names do not matter
	t, err := cover.Kept(fmt.Sprintf("turk's head %+v %.6f %.6f %d %d", set, w.d, w.thick, len(w.Strands), len(w.Own)), w.lead)
	if err == nil {
		t.Paths = w.Straight(w.discs, t.Height)
		cover.About(t.Own, w.about)
	}
	return t, err
}

// lead lays the cover and the way of its cords.
func (w work) lead() (knot.Tied, error) {
	c, err := w.on(w.weave)
	var crowded *cover.Crowded
	if errors.As(err, &crowded) {
		no := &knot.Refused{Field: "bights", Why: fmt.Sprintf("%d in %d passes, which cannot close on %.1f mm: the bights climb over one another", w.weave.Bights, w.weave.Passes, w.thick)}
		if fewer := w.nearest(-1, w.close); fewer != nil {
			no.Set, no.Label = fewer.Bights, fmt.Sprintf("Take %d bights", fewer.Bights)
		}
		return knot.Tied{}, no
	}
	if err != nil {
		return knot.Tied{}, err
	}
	laid := w.lay(c)
	t := knot.Tied{Loose: true, Around: true, Repeats: 1, Gap: c.Gap, Height: laid.RoomMM, Order: knot.Identity(len(w.Strands))}
	t.Own, t.OwnFlat = laid.Paths()
	as := make([]int, len(w.Own))
	for i := range as {
		as[i] = len(w.Strands) + i
		t.Workers = append(t.Workers, as[i])
	}
	moves, err := laid.Moves(as)
	if err != nil {
		return t, err
	}
	t.Moves = append(w.begin(laid), moves...)
	t.Moves = append(t.Moves, w.end(laid)...)
	if w.set.Over == Mandrel {
		t.Ends = true
		t.Opening = &knot.Opening{RoundMM: math.Pi * w.thick, Field: "over_mm", PerMM: 1 / math.Pi, Snug: true}
	} else if w.set.OverMM > 0 {
		t.Beads = []knot.BeadAt{cover.Core(w.set.OverMM, t.Height, w.about)}
	}
	t.Checks = says(w, laid)
	t.Warnings = w.flaws(laid)
	return t, nil
}

// refuse is what cannot be tied as it is set.
func (w work) refuse() error {
	wants, has := w.weave.Bands(), len(w.Own)
	if w.set.Over == Mandrel {
		if has == 0 {
			return &knot.Refused{Field: "over", Why: "tied on a mandrel before anything hangs: begin with mount and hitch=from-knot, or tie it round the strands", Set: string(Strands), Label: "Tie it round the strands"}
		}
	}
	if has == 0 {
		return &knot.Refused{Field: "cords", Why: "tied with a cord of its own; name it"}
	}
	if has != wants {
		r := &knot.Refused{Field: "bights", Why: fmt.Sprintf("%d with %d leads: they share no divisor, so it is one band of one cord; it names %d cords", w.weave.Bights, w.weave.Leads, has)}
		if wants > 1 {
			r.Why = fmt.Sprintf("%d with %d leads: they share the divisor %d, so it is %s, each of a cord of its own; it names %d", w.weave.Bights, w.weave.Leads, wants, bands(wants), has)
		}
		if has > wants {
			r.Field, r.Set, r.Label = "cords", []string(w.set.Cords[:wants]), fmt.Sprintf("Tie it of the first %d", wants)
			if wants == 1 {
				r.Label = "Tie it of the first"
			}
		} else {
			r.Set, r.Label = bightsFor(w.weave, has, w.thick/w.d)
		}
		return r
	}
	if n := w.weave.Meets(); n > cover.MostMeets {
		fewer := int(math.Sqrt(cover.MostMeets / float64(w.weave.Crossings())))
		return &knot.Refused{Field: "passes", Why: fmt.Sprintf("%d, which makes %d crossings; %d are the most that are drawn up", w.weave.Passes, n, cover.MostMeets),
			Set: fewer, Label: fmt.Sprintf("Follow it to %d", fewer)}
	}
	return nil
}

// forStrand are the words of a cord's move said of a strand.
func forStrand(words string) string { return strings.ReplaceAll(words, "{cord}", "{me}") }

// begin are the moves before the first trip.
func (w work) begin(l cover.Laid) []move.Move {
	if w.set.Over == Mandrel {
		return []move.Move{{Strand: -1, Text: fmt.Sprintf("Take a mandrel of {%.1fmm}.", w.thick), Detail: "A bottle's neck, a tube or a round handle; the knot comes off it at the end."}}
	}
	m := move.Move{Strand: -1, Text: fmt.Sprintf("Hold the strands together; they make {%.1fmm} across.", w.thick), Detail: "A turn of tape above and below keeps them so."}
	if w.set.OverMM > 0 {
		m = move.Move{Strand: -1, Text: fmt.Sprintf("Put the core of {%.1fmm} over the strands.", w.thick)}
	}
	if bare := (l.RoomMM - l.HighMM) / 2; bare > 0.05 {
		m.Detail += fmt.Sprintf(" Begin {%.1fmm} below where the cover is to be: so much stays bare at either end.", bare)
	}
	return []move.Move{m}
}

// end are the moves after it is drawn up.
func (w work) end(l cover.Laid) []move.Move {
	var out []move.Move
	if w.set.Over == Mandrel {
		out = append(out, move.Move{Strand: -1, Text: "Slide it off its mandrel."})
	}
	return append(out, move.Move{Strand: -1, Text: fmt.Sprintf("Tuck both ends of every cord under %d crossings and cut them flush.", cover.Tucked), Detail: fmt.Sprintf("Each takes {%.0fmm}.", l.TuckMM)})
}

// says are what is measured on it.
func says(w work, l cover.Laid) []string {
	out := []string{fmt.Sprintf("It is {%.1fmm} high and {%.1fmm} across; its parts cross at %.0f degrees or more.", l.HighMM, w.d*l.Across, l.Angle*180/math.Pi)}
	if w.set.Over == Mandrel {
		out = append(out, fmt.Sprintf("It leaves an opening of {%.1fmm}.", w.d*l.Inside))
	}
	if l.Passes > 1 {
		out = append(out, fmt.Sprintf("A round takes {%.0fmm} to {%.0fmm}, as it lies farther in or out.", w.d*l.Shortest(), w.d*l.Longest()))
	}
	if bare := (l.RoomMM - l.HighMM) / 2; bare > 0.05 {
		out = append(out, fmt.Sprintf("Of the length to cover {%.1fmm} stays bare at either end.", bare))
	}
	return out
}
