package ball

import (
	_ "embed" // the balls drawn up at build time
	"fmt"
	"math"
	"sync"

	"nimblebight/core/curve"
	"nimblebight/core/shapes"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// The balls that are drawn up at build time; any other core is taken between
// its neighbours.
const (
	LeastPasses = 2
	MostPasses  = 8
)

// coreSteps are the cores that balls of p passes are drawn up on, in cord
// diameters. Two turns cannot be held on a ball much larger than themselves:
// they slide off it.
func coreSteps(p int) []float64 {
	shares := []float64{0.9, 1, 1.1, 1.2, 1.3, 1.4, 1.5}
	switch p {
	case 2:
		shares = []float64{0.9, 1.05, 1.2}
	case 3:
		shares = []float64{0.9, 1.05, 1.2, 1.35, 1.5}
	}
	out := make([]float64, len(shares))
	for i, s := range shares {
		out[i] = s * float64(p)
	}
	return out
}

//go:embed balls.bin
var ballsBin []byte

var embedded = sync.OnceValue(func() map[string]shapes.Shape {
	m, err := shapes.Unpack(ballsBin)
	if err != nil {
		panic("ball: the embedded balls cannot be read: run make shapes: " + err.Error())
	}
	return m
})

// Embedded are the balls that are embedded now.
func Embedded() map[string]shapes.Shape { return embedded() }

// family is a set of balls that are entered and left alike.
type family string

const (
	starting    family = "starting"     // one cord, its start hidden inside
	leaving     family = "leaving"      // one cord, both ends out
	joined      family = "joined"       // two cords from their joined stopper
	leavingPair family = "leaving pair" // two cords side by side, all ends out
)

// side is how many cords run side by side.
func (f family) side() int {
	if f == leavingPair {
		return 2
	}
	return 1
}

// takes tells whether a ball of p passes can be tied so.
func (f family) takes(p int) bool { return f != leavingPair || p%2 == 0 && p >= 4 }

func key(f family, p int, core float64) string { return fmt.Sprintf("%s %d on %.2f", f, p, core) }

// Wanted are the balls to embed.
func Wanted() (out []Chain) {
	for _, f := range []family{starting, leaving, joined, leavingPair} {
		for p := LeastPasses; p <= MostPasses; p++ {
			if f.takes(p) {
				out = append(out, chain(f, p))
			}
		}
	}
	for _, w := range weavings() {
		out = append(out, w.chain())
	}
	return out
}

// nodes is how many points a strand of so many turns is kept with, whatever
// the core, so that balls on two cores can be mixed.
func nodes(p int, turns float64) int {
	each := 2 * math.Pi * (0.7*float64(p) + 1) // a turn on a middling core, in diameters
	return int(2.5 * each * turns)
}

// chain is the balls of a family and number of passes: the paths of their strands
// from where they lie hidden, or are joined, to where they leave the ball.
func chain(f family, p int) Chain {
	return Chain{
		cores: coreSteps(p),
		key:   func(core float64) string { return key(f, p, core) },
		laid: func(core float64, try int) *tighten.Problem {
			if dress := []float64{1.35, 1.6, 1.9}; try < len(dress) {
				pr := problem(f, p, core, dress[try])
				return &pr
			}
			return nil
		},
		out: r3.Norm,
		kept: func(r tighten.Result, _ float64) (shapes.Shape, error) {
			out := shapes.Shape{Gap: r.Gap}
			turns := 3 * float64(p) / float64(len(r.Strands))
			for i := range r.Strands {
				if f == joined {
					turns = float64(p) * float64(1+i)
				}
				out.Strands = append(out.Strands, curve.Curve{Points: onTheBall(r.Strands, i)}.Resample(nodes(p, turns)).Points)
			}
			return out, nil
		},
		maxSteps: 5000,
	}
}

// onTheBall is a strand without what of it leads away: an end that is farther
// out than anything of the ball has left it.
func onTheBall(strands []curve.Curve, i int) []r3.Vec {
	const ends = 12.0 // diameters, the straight ends and a little more
	outer := 0.0
	for _, s := range strands {
		n := len(s.Points)
		skip := int(ends / (s.Length() / float64(n)))
		for _, v := range s.Points[skip : n-skip] {
			outer = math.Max(outer, r3.Norm(v))
		}
	}
	pts := strands[i].Points
	for len(pts) > 2 && r3.Norm(pts[0]) > outer {
		pts = pts[1:]
	}
	for len(pts) > 2 && r3.Norm(pts[len(pts)-1]) > outer {
		pts = pts[:len(pts)-1]
	}
	return pts
}

// ShapesDigest names the embedded balls: 16 hexadecimal digits.
func ShapesDigest() string { return shapes.Digest(ballsBin) }
