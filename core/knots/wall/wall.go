// Package wall walls strands that stand in a ring.
package wall

import (
	"fmt"
	"math"

	"nimblebight/core/knot"
	"nimblebight/core/knots/ring"
	"nimblebight/core/move"
)

// least and most are the strands that a wall can be tied with, mostCrowned of one that
// goes with a crown.
const least, most, mostCrowned = 3, 8, 6

// Crown is the crown that goes with a wall.
type Crown string

// None; one below it, which it is tied on; one over it, each end then led down inside;
// or one over it and both followed round once more.
const (
	Alone    Crown = "no"
	Below    Crown = "below"
	Over     Crown = "over"
	Followed Crown = "followed"
)

// Choices are the crowns.
func (Crown) Choices() []string {
	return []string{string(Alone), string(Below), string(Over), string(Followed)}
}

// Dressed is how a wall on a crown is drawn up.
type Dressed string

// Down on the crown, or drawn off it.
const (
	Chunky Dressed = "chunky"
	Slim   Dressed = "slim"
)

// Choices are both.
func (Dressed) Choices() []string { return []string{string(Chunky), string(Slim)} }

// Settings of a wall.
type Settings struct {
	Passes    int       `json:"passes,omitempty" typed:"passes" label:"walled" default:"1" least:"1" most:"2"`
	Crown     Crown     `json:"crown,omitempty" typed:"crown" label:"goes with a crown" default:"no"`
	Dressed   Dressed   `json:"dressed,omitempty" typed:"dressed" label:"drawn up" default:"chunky" for:"crown=below"`
	Under     int       `json:"under,omitempty" typed:"under" label:"ends buried under crossings" default:"2" least:"1" most:"8" for:"crown=over,followed"`
	Direction knot.Turn `json:"direction,omitempty" typed:"direction" label:"direction" default:"anticlockwise"`
}

// Wall knot, single or double: each strand under its neighbour and up inside that one's
// bight. Double, each goes on beside the strand that comes straight out of the work two
// steps on, outside and below it, and comes up in the middle through two.
//
// With a crown below it stands on that, chunky, or is drawn off it, slim. Crowned over it
// is a button, its ends led down inside; with wall and crown both followed, a round knob.
//
// Right: all ends leave at one height, a bight between each two; double, pairs lie side
// by side all round. Wrong: an end comes up outside its neighbour's bight; a second round
// laid above or inside the first, so that pairs cross.
func init() {
	knot.Add(knot.Knot{
		ID: "wall", Name: "wall knot", Family: "in a ring",
		Held:       "In the hand, the strands standing up between the fingers.",
		OtherNames: []string{"double wall", "single wall", "wall and crown", "manrope knot"},
		For:        "a stopper of three to eight strands, or the foot of a crown: bell ropes, fobs, handles",
		Schools: []knot.School{
			{Field: "passes", Default: "1", Why: "twice round it is fat and holds by itself; once it is the beginning of more"},
			{Field: "crown", Default: "no", Why: "alone its ends go on, up the middle; crowned over it ends them and shows none; with both followed it is a round knob, and takes most cord"},
			{Field: "dressed", Default: "chunky", Why: "left down on the crown it is short and holds by friction; drawn off it, it is slim and cannot work loose"},
			{Field: "direction", Default: "anticlockwise", Why: "either will do; keep one, so that a crown on it lies against it"},
		},
		Glyph:    "M12 21V15M7 21v-5c0-4 2-6 5-6s5 2 5 6v5M4 13c0-6 3-9 8-9s8 3 8 9M9 10V3M15 10V3",
		Repeats:  true,
		Places:   true,
		Settings: Settings{},
		Terms: func(s knot.Section) knot.Terms {
			return knot.Terms{Takes: knot.Takes{Least: least, Most: mostOf(knot.Of[Settings](s).Crown)}, Bundles: true}
		},
		Tie:    tie,
		Sample: knot.Sample{Line: "mount A B, gap 14mm, wall passes=2", Cords: 2, Section: 2},
	})
	add := func(name, about string, f form, cord float64, determinant int) {
		knot.AddRoute(knot.Route{Name: name, Family: "in a ring", About: about, Problem: f.route,
			Measure: knot.Beyond, Of: "cord beyond the straight, a strand", Published: cord, Share: 0.02, Determinant: determinant})
	}
	add("wall", "each of four strands under its neighbour and up", form{4, 1, Alone, ""}, 5.93, 12)
	add("double-wall", "a wall of four, followed once more outside and below", form{4, 2, Alone, ""}, 15.9, 220)
}

func mostOf(crown Crown) int {
	if crown == Alone || crown == "" {
		return most
	}
	return mostCrowned
}

// tie ties as many as the section counts, one under the other.
func tie(w knot.Work) (knot.Tied, error) {
	set := knot.Of[Settings](w.Section)
	name := "a wall"
	if mostOf(set.Crown) == mostCrowned {
		name = "a wall with a crown"
	}
	if err := ring.Takes(w, name, least, mostOf(set.Crown)); err != nil {
		return knot.Tied{}, err
	}
	count := max(1, w.Section.Count)
	f := of(len(w.Strands), set)
	if f.ends() && count > 1 {
		return knot.Tied{}, &knot.Refused{Field: "count", Why: fmt.Sprintf("%d; its ends are buried in it, so none can follow", count), Set: 1, Label: "Tie one"}
	}
	return ring.Led(w, set.Direction, func(w knot.Work) (knot.Tied, error) {
		if f.ends() {
			return tieOne(w, f, set)
		}
		return knot.Each(w, count, func(w knot.Work, _ int) (knot.Tied, error) { return tieOne(w, f, set) })
	})
}

func tieOne(w knot.Work, f form, set Settings) (knot.Tied, error) {
	shape, err := family.Shape(f.name(), f.route)
	if err != nil {
		return knot.Tied{}, err
	}
	under := set.Under
	if under == 0 {
		under = 2
	}
	whole, uncut := shape.Strands[0], shape
	switch {
	case f.dressed == Chunky:
		shape.Strands = hung(shape.Strands)
		whole = shape.Strands[0]
	case f.ends():
		cut, err := bury(f, shape.Strands, under)
		if err != nil {
			return knot.Tied{}, err
		}
		if under > cut.has {
			return knot.Tied{}, &knot.Refused{Field: "under", Why: fmt.Sprintf("%d; on its way down an end passes under %d", under, cut.has), Set: cut.has, Label: fmt.Sprintf("Bury them under %d", cut.has)}
		}
		shape.Strands = cut.strands
	}
	t, err := ring.Tie(w, shape, f.route(), func(as []int, _ []ring.Meet) []move.Move { return f.moves(as, under) })
	if err != nil {
		return t, err
	}
	if t.Ends = f.ends(); t.Ends { // nothing leaves it: it ends where its lowest cord does
		if uncut.Strands, err = drawnOut(f, uncut.Strands); err != nil {
			return t, err
		}
		hangs, err := ring.Tie(w, uncut, f.route(), func([]int, []ring.Meet) []move.Move { return nil })
		if err != nil {
			return t, err
		}
		t.Hanging, t.HangsTill = hangs.Paths, len(t.Moves)-f.n
		t.Height = 0
		for i, p := range t.Paths {
			for _, v := range p.Points {
				t.Height = math.Max(t.Height, v.Y+w.Strands[i].Diameter/2)
			}
		}
	}
	if f.passes == 2 && f.crown != Over {
		once, err := family.Shape(f.single().name(), f.single().route)
		if err != nil {
			return t, err
		}
		if f.dressed == Chunky {
			once.Strands = hung(once.Strands)
		}
		t.Checks = append(t.Checks, ring.Longer(once.Strands[0], whole, ring.Thickest(w)))
	}
	return t, nil
}
