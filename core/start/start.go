// Package start tells what can be begun with the cords that a maker has: every starting
// pattern in those cords, as long as is wanted, and a plain piece with nothing but its mount.
//
// It changes documents and plans them; what is tied and what it takes is for package plan to say.
package start

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/cord"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/reach"
)

// MostCords is how many cords can be asked for.
const MostCords = 8

// Ask is what a maker knows before a piece is begun.
type Ask struct {
	Kind     string       // what it is for, "" for anything
	LengthMM float64      // how long, 0 where the count decides
	Cords    []cord.Stuff // that there are; none for those of the patterns
}

// Check says what of it cannot be asked.
func (a Ask) Check() piece.Problems {
	var out piece.Problems
	say := func(path, format string, args ...any) {
		out = append(out, piece.Problem{Path: path, Message: fmt.Sprintf(format, args...)})
	}
	if _, ok := piece.KindOf(a.Kind); !ok && a.Kind != "" {
		say("kind", "is %.40q; there is no such kind of piece", a.Kind)
	}
	if a.LengthMM != 0 && !(a.LengthMM >= leastLength && a.LengthMM <= mostLength) {
		say("length_mm", "is %.0f mm; a piece is from %.0f mm to %.0f m long", a.LengthMM, leastLength, mostLength/1000)
	}
	if len(a.Cords) > MostCords {
		say("cords", "are %d; name up to %d", len(a.Cords), MostCords)
	}
	for i, s := range a.Cords {
		if field, why := s.Check(); field != "" {
			say(fmt.Sprintf("cords[%d].%s", i, field), "%s", why)
		}
	}
	return out
}

// How long a piece can be wanted, mm.
const leastLength, mostLength = 20.0, 5000.0

// Offer is a piece that can be begun.
//
// Invariant: Why is "" and Plan is that of Document, or Why says why it cannot be tied.
type Offer struct {
	Pattern  string // its id, "" for the plain one
	Name     string
	About    string
	Document piece.Document
	Plan     plan.Plan
	Why      string
}

// Offers are the pieces that can be begun, the plain one first, each made when it is called for.
//
// Laws: (1) without cords and a length an offer is its pattern; (2) one that grows comes as near
// to the wanted length as whole knots allow; (3) cords that are thin beside others of a pattern
// are of the maker's thin ones, where there are such.
func Offers(a Ask, o plan.Options) []func() Offer {
	out := []func() Offer{func() Offer {
		return made("", "Plain", "The cords on the mount and nothing else: you add what follows.", plain(a), 0, o)
	}}
	for _, p := range patterns.All() {
		if a.Kind != "" && p.Document.Purpose.Kind != a.Kind {
			continue
		}
		out = append(out, func() Offer {
			return made(p.ID, p.Name, p.About, inCords(p.Document, a.Cords), a.LengthMM, o)
		})
	}
	return out
}

func made(id, name, about string, d piece.Document, length float64, o plan.Options) Offer {
	out := Offer{Pattern: id, Name: name, About: about, Document: d}
	p, err := plan.Make(d, o)
	if err == nil && length > 0 {
		d, p, err = long(d, p, length, o)
	}
	if err != nil {
		var ps piece.Problems
		if !errors.As(err, &ps) {
			out.Why = err.Error()
			return out
		}
		d.Locate(ps)
		out.Why = ps.Spoken()
		return out
	}
	out.Document, out.Plan = d, p
	return out
}

// long lets the tallest section that counts grow till the piece is as near to a length as it
// comes; a piece without one keeps its own, and only wants the length.
func long(d piece.Document, p plan.Plan, length float64, o plan.Options) (piece.Document, plan.Plan, error) {
	d.Purpose.LengthMM = length
	return reach.ToLength(d, reach.Growing(d, p), length, o)
}

// plain is a piece of so many cords that are mounted, and nothing else.
func plain(a Ask) piece.Document {
	kind, on := a.Kind, piece.SplitRing(30, 2)
	if kind == "" {
		kind = "key-fob"
	}
	for _, p := range patterns.All() {
		if p.Document.Purpose.Kind == kind && p.Document.Purpose.HangsOn.Type != "none" {
			on = p.Document.Purpose.HangsOn
			break
		}
	}
	stuffs := a.Cords
	if len(stuffs) == 0 {
		second := piece.UsualStuff()
		second.Colour = piece.SecondColour
		stuffs = []cord.Stuff{piece.UsualStuff(), second}
	}
	line := "mount"
	var cords []piece.Cord
	for i, s := range stuffs {
		id := string(rune('A' + i))
		line += " " + id
		cords = append(cords, piece.Cord{ID: id, Stuff: s})
	}
	return notation.With(piece.Begin("Plain piece", kind, on, a.LengthMM), line, cords...)
}

// thinBeside is below which share of the thickest a cord is a thin one.
const thinBeside = 0.8

// inCords is a document of other cords: those that are alike in it are alike again, each of the
// cords in turn; none for its own.
func inCords(d piece.Document, cords []cord.Stuff) piece.Document {
	if len(cords) == 0 {
		return d
	}
	var have [2][]cord.Stuff // thick, thin
	for _, s := range cords {
		k := thin(s, cords)
		have[k] = append(have[k], s)
	}
	var own []cord.Stuff
	for _, c := range d.Cords {
		own = append(own, c.Stuff)
	}
	given, next := map[string]cord.Stuff{}, [2]int{}
	d.Cords = slices.Clone(d.Cords)
	for i, c := range d.Cords {
		key := fmt.Sprint(c.Stuff.Make, c.Stuff.Material, c.Stuff.DiameterMM, c.Stuff.Colour)
		s, ok := given[key]
		if !ok {
			k := thin(c.Stuff, own)
			if len(have[k]) == 0 {
				k = 1 - k
			}
			s = have[k][next[k]%len(have[k])]
			next[k]++
			given[key] = s
		}
		d.Cords[i].Stuff = s
	}
	return d
}

// thin tells whether a cord is thin beside others: 1 where it is, 0 where not.
func thin(s cord.Stuff, others []cord.Stuff) int {
	most := 0.0
	for _, o := range others {
		most = math.Max(most, o.DiameterMM)
	}
	if s.DiameterMM < thinBeside*most {
		return 1
	}
	return 0
}
