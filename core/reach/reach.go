// Package reach tells how far cord goes: the longest piece that cord in hand will tie
// ([FromHand]), how many more knots what is left of each leg will tie in the middle of a
// piece ([Middle]), and the same piece of another cord ([Swap]).
//
// It plans pieces and compares their figures; what is tied and what it takes is for
// package plan to say.
package reach

import (
	"cmp"
	"errors"
	"fmt"
	"slices"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// refused is a problem at a place of what was asked.
func refused(path, format string, args ...any) error {
	return piece.Problems{{Path: path, Message: fmt.Sprintf(format, args...)}}
}

// counted is a document with another number of knots in a section.
func counted(d piece.Document, section, count int) piece.Document {
	d.Sequence = slices.Clone(d.Sequence)
	d.Sequence[section].Count, d.Sequence[section].FitMM = count, 0
	return d
}

// grows tells whether a section of a document takes more or fewer knots.
func grows(d piece.Document, section int) bool {
	if section < 0 || section >= len(d.Sequence) {
		return false
	}
	k, ok := knot.Get(d.Sequence[section].Do)
	return ok && k.Repeats
}

// Growing is the section that may grow where none is named: the tallest of those that
// take a count, -1 where none does.
func Growing(d piece.Document, p plan.Plan) int {
	best, tallest := -1, 0.0
	for _, s := range p.Sections {
		if grows(d, s.Index) && s.HeightMM > tallest {
			best, tallest = s.Index, s.HeightMM
		}
	}
	return best
}

// most is the greatest count from least on of which fits is true, which it is up to
// some count and not beyond; false where it is not of the least. An error of fits ends
// the search, but for a piece that cannot be planned any more: that does not fit.
func most(least int, fits func(n int) (bool, error)) (int, bool, error) {
	at := func(n int) (bool, error) {
		ok, err := fits(n)
		var ps piece.Problems
		if errors.As(err, &ps) && n > least {
			return false, nil
		}
		return ok, err
	}
	if ok, err := at(least); !ok || err != nil {
		return least, false, err
	}
	low, high := least, least+1
	for high <= piece.MostKnots {
		ok, err := at(high)
		if err != nil {
			return low, true, err
		}
		if !ok {
			break
		}
		low, high = high, high+2*(high-least)
	}
	high = min(high, piece.MostKnots+1)
	for high-low > 1 {
		mid := low + (high-low)/2
		ok, err := at(mid)
		if err != nil {
			return low, true, err
		}
		if ok {
			low = mid
		} else {
			high = mid
		}
	}
	return low, true, nil
}

func byIndex(p plan.Plan, section int) (plan.Section, bool) {
	i := slices.IndexFunc(p.Sections, func(s plan.Section) bool { return s.Index == section })
	if i < 0 {
		return plan.Section{}, false
	}
	return p.Sections[i], true
}

// sooner orders offers: those that tie more come first.
func sooner(a, b Way) int { return cmp.Compare(b.Knots, a.Knots) }
