package loosen

import (
	"context"
	"errors"
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Bands are strands that are led side by side, two and two, in the way of a knot in which one
// strand stands for each two.
type Bands struct {
	// Film is that knot's, seen from the working end.
	Film Film
	// Of are the two strands that each of its strands stands for.
	Of [][2]int
}

const (
	bandParts  = 20  // into which every frame is divided
	bandHangs  = 8.0 // diameters of its end by which a band comes to where its strands hang
	bandRoute  = 0.5 // diameters between the points of its way
	bandFrames = 40  // that are kept while bands are drawn up
)

// fromBands lays strands in bands, frame by frame, as another knot is drawn up, and then draws the
// bands up to the tight knot. Which of two strands lies on which side is tried: only one way comes
// to it.
func fromBands(ctx context.Context, p Problem) (Film, error) {
	b := *p.Bands
	if !p.Across || !b.Film.Across || len(b.Film.Frames) < 2 || len(b.Of) != len(b.Film.Frames[0]) || 2*len(b.Of) != len(p.Strands) {
		return Film{}, errors.New("loosen: bands need the film of a knot that is seen from the working end, and two strands for each of its own")
	}
	var why error
	for _, swapped := range []bool{false, true} {
		f, err := drawBands(ctx, p, swapped)
		if err == nil {
			f, err = f.fromReadable()
		}
		if err == nil {
			return f, nil
		}
		why = errors.Join(why, err)
	}
	return Film{}, fmt.Errorf("loosen: bands: %w", why)
}

// fromReadable is the film from the loosest frame on from which it can be read; at most half of it is
// left out.
func (f Film) fromReadable() (Film, error) {
	var why error
	for k := range len(f.Frames) / 2 {
		from := Film{Frames: f.Frames[k:], Across: f.Across}
		if why = from.Readable(); why == nil {
			return from, nil
		}
	}
	return Film{}, why
}

func drawBands(ctx context.Context, p Problem, swapped bool) (Film, error) {
	var tight [][]r3.Vec
	for _, in := range p.Strands {
		tight = append(tight, curve.Curve{Points: withTails(in)}.Map(curve.EndOn).Points)
	}
	b := bandsOf(*p.Bands, tight, swapped)
	long := 0.0 // of a strand, half drawn up
	for k, pts := range b.laid(0) {
		long = math.Max(long, (curve.Curve{Points: pts}.Length()+curve.Curve{Points: tight[k]}.Length())/2)
	}
	nodes := int(long/nodeEvery) + 1
	s := &state{across: true}
	for k, pts := range tight {
		tight[k] = even(pts, nodes)
		s.add(tight[k], tight[k], p.Strands[k].Diameter, false)
	}
	keep := func(frame [][]r3.Vec) still {
		out := make([][]r3.Vec, len(frame))
		for k, pts := range frame {
			out[k] = even(pts, nodes)
		}
		return s.stillOf(Hung(out))
	}
	var stills []still
	last := bandParts * (len(p.Bands.Film.Frames) - 1)
	for part := 0; part <= last; part++ {
		stills = append(stills, keep(parted(b.laid(part))))
	}
	drawn, err := pulled(ctx, b.laid(last), tight)
	if err != nil {
		return Film{}, err
	}
	// What they take at first to come clear of one another is left out.
	least := stills[last].length
	for _, frame := range drawn[:len(drawn)-1] {
		if t := keep(frame); t.length < least {
			stills = append(stills, t)
		}
	}
	return s.theRest(stills, keep(drawn[len(drawn)-1]).at, p.Growth)
}

// parted is a frame in which what touches is parted.
func parted(frame [][]r3.Vec) [][]r3.Vec {
	var in []tighten.Strand
	for _, pts := range frame {
		in = append(in, tighten.Strand{Route: pts, Diameter: 1})
	}
	cs, _ := tighten.Part(in)
	out := make([][]r3.Vec, len(cs))
	for k, c := range cs {
		out[k] = c.Points
	}
	return out
}

// pulled draws a frame up between where its strands stand and where the tight ones hang: frames of
// that, the last at rest.
func pulled(ctx context.Context, frame, tight [][]r3.Vec) ([][][]r3.Vec, error) {
	var knot tighten.Problem
	for k, pts := range frame {
		end := tight[k][len(tight[k])-1]
		line := curve.Curve{Points: slices.DeleteFunc(pts, func(v r3.Vec) bool { return v.Z > end.Z-bandHangs })}
		route := line.Resample(int(line.Length()/bandRoute) + 1).Points
		knot.Strands = append(knot.Strands, tighten.Strand{Route: Hung([][]r3.Vec{append(route, end)})[0], Diameter: 1})
	}
	drawn, err := tighten.DrawUp(ctx, knot, tighten.Settings{PerDiameter: []float64{3}, Still: 1e-4, Frames: bandFrames})
	if err != nil {
		return nil, fmt.Errorf("loosen: drawing up bands: %w", err)
	}
	var out [][][]r3.Vec
	for _, cs := range drawn.Frames {
		var seen [][]r3.Vec
		for k, c := range cs {
			seen = append(seen, between(c.Map(curve.EndOn).Points, tight[k][0].Z, tight[k][len(tight[k])-1].Z))
		}
		out = append(out, seen)
	}
	return out, nil
}

// between is a strand whose straight ends reach from one depth to another, and no farther: they were
// led on while it was drawn up.
func between(pts []r3.Vec, from, to float64) []r3.Vec {
	n := len(pts)
	behind, before := from-pts[0].Z, to-pts[n-1].Z
	out := make([]r3.Vec, n)
	for i, v := range pts {
		if u := 1 - (v.Z-pts[0].Z)/tailAbove; i < n/2 && u > 0 {
			v.Z += u * behind
		}
		if u := 1 - (pts[n-1].Z-v.Z)/bandHangs; i > n/2 && u > 0 {
			v.Z += u * before
		}
		out[i] = v
	}
	return out
}
