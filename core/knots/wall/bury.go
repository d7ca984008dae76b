package wall

import (
	"fmt"
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/memo"

	"gonum.org/v1/gonum/spatial/r3"
)

// down is the node of a strand from which its end is led down inside, back beside the
// standing parts.
func down(pts []r3.Vec) int {
	k := len(pts) - 1
	for k > 0 && pts[k-1].Y >= pts[k].Y {
		k--
	}
	return k
}

// passed is where along the end of the first strand it lies under others, nodes, as one
// sees them who looks at the knot from all round: what lies farther from its middle is over
// what is nearer.
func passed(strands [][]r3.Vec) ([]float64, error) {
	from := down(strands[0])
	high := strands[0][from].Y
	mid := (high + seizing + 0.5) / 2
	end := strands[0][from:]
	for len(end) > 2 && end[len(end)-2].Y < seizing+0.5 {
		end = end[:len(end)-1]
	}
	about := math.Atan2(end[0].Z+end[len(end)-1].Z, end[0].X+end[len(end)-1].X)
	round := func(v r3.Vec) float64 { return math.Remainder(math.Atan2(v.Z, v.X)-about, 2*math.Pi) }
	flat := func(v r3.Vec) r3.Vec {
		out, up := math.Hypot(v.X, v.Z), v.Y-mid
		return r3.Vec{X: 3 * round(v), Y: 3 * math.Atan2(up, out), Z: math.Hypot(up, out)}
	}
	runs := []curve.Curve{curve.Curve{Points: end}.Map(flat)}
	for i, pts := range strands {
		if i == 0 {
			pts = pts[:from]
		}
		for len(pts) > 0 { // cut where it goes round the far side
			n := 1
			for n < len(pts) && math.Abs(round(pts[n])-round(pts[n-1])) < math.Pi {
				n++
			}
			if n > 1 {
				runs = append(runs, curve.Curve{Points: pts[:n]}.Map(flat))
			}
			pts = pts[n:]
		}
	}
	var out []float64
	for _, run := range runs[1:] {
		found, err := curve.Crossings([]curve.Curve{runs[0], run})
		if err != nil {
			return nil, fmt.Errorf("counting what an end passes under: %w", err)
		}
		for _, x := range found {
			if x.Under == 0 && x.Over == 1 {
				out = append(out, float64(from)+x.UnderAt)
			}
		}
	}
	slices.Sort(out)
	return out, nil
}

// buried is a knot with its ends cut where each has passed under so many crossings. Has is
// how many there are; where they are fewer, nothing is cut.
type buried struct {
	strands [][]r3.Vec
	has     int
}

var cut memo.Cache[buried]

func bury(f form, strands [][]r3.Vec, under int) (buried, error) {
	return cut.Get(fmt.Sprint(f.name(), under), func() (buried, error) {
		at, err := passed(strands)
		if err != nil {
			return buried{}, err
		}
		out := buried{has: len(at)}
		if under > out.has {
			return out, nil
		}
		const clear = 0.5 // of the cord that lies over it, diameters
		last := int(at[under-1])
		left := clear
		for last+1 < len(strands[0]) && left > 0 {
			left -= r3.Norm(r3.Sub(strands[0][last+1], strands[0][last]))
			last++
		}
		for _, pts := range strands {
			out.strands = append(out.strands, pts[:last+1])
		}
		return out, nil
	})
}

// hung is a knot drawn up with its strands held out, and then let hang: from where they
// have left it they bend down, and up, and run straight. The bends are constructed.
func hung(strands [][]r3.Vec) [][]r3.Vec {
	out := make([][]r3.Vec, len(strands))
	for i, pts := range strands {
		back := slices.Clone(pts)
		slices.Reverse(back)
		back = led(back, -1, 0)
		slices.Reverse(back)
		out[i] = led(back, 1, 0)
	}
	return out
}

var hanging memo.Cache[[][]r3.Vec]

// drawnOut is a knot whose ends are not yet led down inside: a little before they would go down they
// run out straight till they are clear of all others, and hang. That is constructed.
func drawnOut(f form, strands [][]r3.Vec) ([][]r3.Vec, error) {
	return hanging.Get(f.name(), func() ([][]r3.Vec, error) {
		const (
			clear = 0.95 // diameters from all others
			far   = 2.0
			step  = 0.25
			nodes = 10
		)
		for back := range nodes {
			for off := 0.0; off <= far; off += step {
				var out [][]r3.Vec
				for _, pts := range strands {
					line := led(pts[:down(pts)+1-back], 1, off)
					out = append(out, line[:len(line)-2]) // a little of what hangs is enough
				}
				if apart(out) >= clear {
					return out, nil
				}
			}
		}
		return nil, fmt.Errorf("wall: the ends of %s do not come clear of it within %g diameters", f.name(), far)
	})
}

// apart is how near strands come to the first one, diameters; they are all alike.
func apart(strands [][]r3.Vec) float64 {
	first := curve.Curve{Points: strands[0]}
	least := 1 + curve.SelfGap(first, 1)
	for _, pts := range strands[1:] {
		least = math.Min(least, 1+curve.Gap(first, 1, curve.Curve{Points: pts}, 1))
	}
	return least
}

// led bends the end of a strand that runs out from the axis to run straight along it, down
// for 1 and up for -1; before it bends it runs on straight by so much, diameters.
func led(pts []r3.Vec, way, on float64) []r3.Vec {
	const (
		bend     = 0.9  // diameters
		straight = 0.17 // off the way out, where it has left the knot
	)
	end := pts[len(pts)-1]
	last := len(pts) - 2
	out := r3.Unit(r3.Sub(end, pts[last]))
	for last > 1 && r3.Norm(r3.Sub(r3.Unit(r3.Sub(pts[last], pts[last-1])), out)) < straight {
		last--
	}
	at := pts[last]
	flat := r3.Unit(r3.Vec{X: out.X, Z: out.Z})
	begins := math.Acos(math.Max(-1, math.Min(1, way*out.Y)))
	line := slices.Clone(pts[:last+1])
	if on > 0 {
		at = r3.Add(at, r3.Scale(on, out))
		line = append(line, at)
	}
	const parts = 8
	for k := 1; k <= parts; k++ {
		a := begins * (1 - float64(k)/parts)
		v := r3.Add(at, r3.Scale(bend*(math.Cos(a)-math.Cos(begins)), flat))
		v.Y += way * bend * (math.Sin(begins) - math.Sin(a))
		line = append(line, v)
	}
	far := line[len(line)-1]
	for _, y := range []float64{2, 6, 10} {
		line = append(line, r3.Vec{X: far.X, Y: far.Y + way*y, Z: far.Z})
	}
	return line
}
