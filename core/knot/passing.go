package knot

import (
	"fmt"
	"math"
	"strings"

	"nimblebight/core/cord"
	"nimblebight/core/memo"
	"nimblebight/core/pack"
	"nimblebight/core/prepare"
)

// Passing is how strands pass a round hole together when their ends are made ready in
// one way.
type Passing struct {
	prepare.Preparation
	NeedMM  float64 `json:"need_mm"`
	SpareMM float64 `json:"spare_mm"` // below zero by as much as is missing
	Fits    bool    `json:"fits"`
	// Can is set where their ends can be made ready so at all.
	Can bool `json:"can"`
	// Why says why it does not fit, or cannot be done.
	Why string `json:"why,omitempty"`
}

// holes are those that were sought before.
var holes = memo.Cache[float64]{Most: 1 << 20}

// hole is the round hole of strands side by side, mm, squeezed by the mean of what they
// give.
func hole(strands []Strand, hard, lastHard bool, thickerMM float64) float64 {
	ds := make([]float64, len(strands))
	give, name := 0.0, strings.Builder{}
	for i, l := range strands {
		ds[i] = l.Diameter + thickerMM
		give += l.Figures.Give / float64(len(strands))
		fmt.Fprintf(&name, "%.9g ", ds[i])
	}
	switch n := float64(len(strands)); {
	case hard:
		give = 0
	case lastHard:
		give *= (n - 1) / n
	}
	need, _ := holes.Get(name.String(), func() (float64, error) { return pack.Hole(ds), nil })
	return need * (1 - give)
}

// Pass is the hole that strands need together, mm, behind pointed ends: sheaths that
// give are squeezed by it on the way through.
func Pass(strands []Strand) float64 { return hole(strands, false, false, 0) }

// Passings are all ways to lead strands through a hole together, those that makers try
// first before the others.
func Passings(holeMM float64, strands []Strand) []Passing {
	stuffs := make([]cord.Stuff, len(strands))
	for i, l := range strands {
		stuffs[i] = l.Stuff
	}
	var out []Passing
	for _, w := range prepare.Ways {
		p := Passing{Preparation: w, NeedMM: hole(strands, w.Hard, w.LastHard, w.ThickerMM)}
		p.SpareMM = holeMM - p.NeedMM
		can, why := w.Takes(stuffs)
		p.Can = can
		switch {
		case !can:
			p.Why = why
		case p.SpareMM < 0:
			p.Why = fmt.Sprintf("the hole is {%.1fmm} too small", -p.SpareMM)
		default:
			p.Fits = true
		}
		out = append(out, p)
	}
	return out
}

// Goes is the first way in which strands pass a hole together, or what the easiest way
// lacks.
func Goes(holeMM float64, strands []Strand) (Passing, bool) {
	all := Passings(holeMM, strands)
	for _, p := range all {
		if p.Fits {
			return p, true
		}
	}
	nearest := Passing{SpareMM: math.Inf(-1)}
	for _, p := range all {
		if p.Can && p.SpareMM > nearest.SpareMM {
			nearest = p
		}
	}
	return nearest, false
}

// PassesExactly tells whether the hole of so many strands is sought by trying how they
// lie; of more it is that of a bundle.
func PassesExactly(n int) bool { return n <= pack.Exact }

// Thread is what a section leads through something tight: strands, or own cords where
// Own is set, and how their ends are made ready.
type Thread struct {
	Strands []int
	Own     bool
	Passing Passing
}
