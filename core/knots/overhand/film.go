package overhand

import (
	"fmt"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

var bundled = memo.Cache[knot.Film]{Most: 16 << 20}

// bundleFilm is the film of a bundle that ties a knot of one strand: in every frame its strands
// keep their places in the rope that they make, which is drawn up as the one strand is. That
// one's film was grown; what is made of it is constructed: on the way from one frame to the next
// strands may come nearer than in those that were grown, but never pass through one another.
func bundleFilm(w knot.Work) (knot.Film, bool) {
	one, ok := knot.FilmOn(w.Section.Do, 1)
	if set, is := w.Section.Settings.(Settings); !ok || is && set.Of == "one-leg" || len(w.Strands) < 2 || len(w.Strands) > mostSeen {
		return knot.Film{}, false
	}
	key := w.Section.Do
	d := 0.0
	for _, l := range w.Strands {
		key += fmt.Sprintf(" %.4f", l.Diameter)
		d = max(d, l.Diameter)
	}
	f, _ := bundled.Get(key, func() (knot.Film, error) {
		seats, wide := inBundle(w.Strands)
		for i := range seats {
			seats[i] = r3.Scale(1/d, seats[i])
		}
		f := knot.Film{}
		turned := 0.0
		nodes := int(float64(len(one.Frames[0][0])) * wide / d)
		for k := len(one.Frames) - 1; k >= 0; k-- { // from the one that is tied on
			rope := curve.Curve{Points: one.Frames[k][0]}.Map(func(v r3.Vec) r3.Vec { return r3.Scale(wide/d, v) }).Points
			var strands [][]r3.Vec
			strands, turned = beside(knot.Curve(shortTails(rope, wide/d)).Resample(nodes).Points, seats, turned, tailAbove, tailBelow)
			for i, pts := range strands {
				strands[i] = curve.Curve{Points: pts}.Resample(nodes).Points
			}
			f.Frames = append(f.Frames, strands)
		}
		slices.Reverse(f.Frames)
		return f, nil
	})
	return f, true
}

// shortTails is a rope so many diameters wide without what is too much of its straight tails: of a
// film they are so long as a strand is thick.
func shortTails(rope []r3.Vec, wide float64) []r3.Vec {
	n := len(rope)
	top, bottom := rope[0].Y/wide, rope[n-1].Y-tailBelow*(wide-1)
	from, to := 0, n-1
	const least = 0.5 // between the new end and its neighbour, diameters
	for rope[from+1].Y < top+least {
		from++
	}
	for rope[to-1].Y > bottom-least {
		to--
	}
	out := slices.Clone(rope[from : to+1])
	out[0].Y, out[len(out)-1].Y = top, bottom
	return out
}

// mostSeen is up to how many strands are told apart side by side in a rope.
const mostSeen = 8

// tailAbove and tailBelow are how much straight strand a film has above and below its knot, in
// diameters of its strand.
const tailAbove, tailBelow = 4, 9
