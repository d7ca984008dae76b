package tighten

import (
	"math"
	"slices"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Part moves strands that were laid by hand apart where they press into one
// another, as little as it can, till they touch. Unlike [DrawUp] it pulls on
// nothing: what lies clear stays where it is, and the ends stay put. It cannot
// tell over from under: the strands must be laid on their right sides.
//
// What is still is kept clear of and stays as it is.
//
// It gives the strands with nodes a quarter of a diameter apart, and the least
// gap over the mean of diameters that is left.
func Part(strands []Strand, still ...Strand) ([]curve.Curve, float64) {
	return PartRound(0, strands, still...)
}

// PartRound is [Part] round a core of so great a diameter about the axis y: what lies in it
// is moved out too.
func PartRound(core float64, strands []Strand, still ...Strand) ([]curve.Curve, float64) {
	const (
		every  = 0.25 // of a diameter between nodes
		want   = 1.005
		rounds = 240
		skinP  = 0.25
		share  = 0.5 // of an overlap taken away in a round
		near   = 0.9 // diameters of cord between nodes that are held from bending
	)
	moving := len(strands)
	strands = append(slices.Clone(strands), still...)
	var x []r3.Vec
	var of, first []int
	var along []float64
	widest := 0.0
	for i, s := range strands {
		c := curve.Curve{Points: s.Route}
		n := max(4, int(math.Ceil(c.Length()/(every*s.Diameter))))
		first = append(first, len(x))
		step := c.Length() / float64(n)
		for k, v := range c.Resample(n + 1).Points {
			x, of, along = append(x, v), append(of, i), append(along, step*float64(k))
		}
		widest = math.Max(widest, s.Diameter)
	}
	first = append(first, len(x))
	type touch struct {
		a, b int
		d    float64
	}
	var pairs []touch
	list := func() {
		pairs = pairs[:0]
		grid := newNear(x, widest*(want+skinP))
		for a, v := range x {
			for _, b := range grid.of(v, a+1) {
				if of[a] >= moving && of[b] >= moving {
					continue
				}
				d := (strands[of[a]].Diameter + strands[of[b]].Diameter) / 2
				if of[a] == of[b] {
					// A cord bends no tighter than half its diameter: the chord of an arc
					// that is shorter than half a turn of that is at least its sine.
					s := math.Abs(along[a]-along[b]) / d
					if s < near {
						continue
					}
					d *= math.Sin(math.Min(s, math.Pi/2))
				}
				pairs = append(pairs, touch{a, b, d})
			}
		}
	}
	move, eased := make([]r3.Vec, len(x)), make([]r3.Vec, len(x))
	gap := 0.0
	for round := range rounds {
		if round%6 == 0 {
			list()
		}
		for i := range move {
			move[i] = r3.Vec{}
		}
		gap = math.Inf(1)
		for _, p := range pairs {
			w := r3.Sub(x[p.b], x[p.a])
			dist := r3.Norm(w)
			gap = math.Min(gap, dist/p.d)
			if dist >= want*p.d || dist < 1e-9 {
				continue
			}
			each := share / 2
			if of[p.a] >= moving || of[p.b] >= moving {
				each = share // the other gives no way
			}
			push := r3.Scale(each*(want*p.d-dist)/dist, w)
			move[p.a] = r3.Sub(move[p.a], push)
			move[p.b] = r3.Add(move[p.b], push)
		}
		inside := 0.0 // how far what lies deepest lies in the core
		if core > 0 {
			for i := range moving {
				for k := first[i]; k < first[i+1]; k++ {
					off := math.Hypot(x[k].X, x[k].Z)
					if deep := (core+strands[i].Diameter)/2 - off; deep > 0 && off > 0 {
						inside = math.Max(inside, deep)
						move[k] = r3.Add(move[k], r3.Scale(share*deep/off, r3.Vec{X: x[k].X, Z: x[k].Z}))
					}
				}
			}
		}
		if gap > want-0.01 && inside < 0.01 {
			break
		}
		// A cord bends; it does not kink: neighbours go along.
		for range 3 {
			for i := range moving {
				for k := first[i]; k < first[i+1]; k++ {
					a, b := max(first[i], k-1), min(first[i+1]-1, k+1)
					eased[k] = r3.Scale(0.25, r3.Add(r3.Add(move[a], move[b]), r3.Scale(2, move[k])))
				}
			}
			move, eased = eased, move
		}
		for i := range moving {
			for k := first[i]; k < first[i+1]; k++ {
				ends := math.Min(1, float64(min(k-first[i], first[i+1]-1-k))*every/0.8)
				x[k] = r3.Add(x[k], r3.Scale(1.6*ends, move[k]))
			}
		}
	}
	out := make([]curve.Curve, moving)
	for i := range out {
		out[i] = curve.Curve{Points: append([]r3.Vec{}, x[first[i]:first[i+1]]...)}
	}
	return out, gap
}
