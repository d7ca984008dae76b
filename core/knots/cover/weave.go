// Package cover lays covering knots: bands that run to and fro between the two edges of
// a cover round a mandrel, a core or strands.
package cover

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// Weave is a cover as it is counted: the parts of a band that one meets from edge to
// edge, the bights along an edge, and how many times each band is followed round.
//
// Law: it has as many bands, each of a strand of its own, as leads and bights have their
// greatest common divisor.
type Weave struct {
	Leads, Bights, Passes int
	// Columns tells of each row of crossings, from the first edge to the other, whether
	// what goes towards the other edge lies over; by turns where it is nil.
	Columns []bool
}

// Bands are the bands, each a ring of its own.
func (w Weave) Bands() int {
	a, b := w.Leads, w.Bights
	for b != 0 {
		a, b = b, a%b
	}
	return a
}

// Crossings are those of its bands.
func (w Weave) Crossings() int { return w.Bights * (w.Leads - 1) }

// Meets are the crossings of all its passes together.
func (w Weave) Meets() int { return w.Crossings() * w.Passes * w.Passes }

// String is the weave as makers write it.
func (w Weave) String() string {
	out := fmt.Sprintf("%d leads by %d bights in %d", w.Leads, w.Bights, w.Passes)
	if w.Columns != nil {
		var b strings.Builder
		for _, over := range w.Columns {
			b.WriteByte("uo"[map[bool]int{true: 1}[over]])
		}
		out += " " + b.String()
	}
	return out
}

// over tells whether, in a row of crossings counted from 1, what goes towards the other
// edge lies over.
func (w Weave) over(row int) bool {
	if w.Columns != nil {
		return w.Columns[row-1]
	}
	return row%2 == 1
}

// How a weave is dressed before it is drawn up, diameters.
const (
	beside  = 1.02 // between passes side by side
	through = 1.66 // between the middles of bands of one pass, room for one across
	steeper = 1.25 // from bight to bight, over what bands must be apart
	rise    = 0.62 // over the middle of the weave and under it
	off     = 1.2  // of that middle from the mandrel
)

// dressed is a weave laid loosely round a mandrel.
type dressed struct {
	Weave
	radius, high float64
	level        [][]level // by pass: how far out it lies, along its way
}

// level is how far out a pass lies at a place of its way, in radians of it, 2 pi from a
// bight to the next of its edge.
type level struct{ at, out float64 }

func (w Weave) dressed(mandrel float64) dressed {
	band := w.band()
	step := math.Max(2*math.Pi*(mandrel/2+off)/float64(w.Bights), steeper*band) // from bight to bight
	d := dressed{Weave: w, radius: step * float64(w.Bights) / (2 * math.Pi),
		high: band * step * float64(w.Leads) / 2 / math.Sqrt(step*step-band*band)}
	d.levels()
	return d
}

// band is how far bands are apart, middle to middle, with room for one across.
func (w Weave) band() float64 { return beside*float64(w.Passes-1) + through }

// Loose is how far it is on a mandrel from bight to bight, over what bands must be apart:
// from one on they have room.
func (w Weave) Loose(mandrel float64) float64 {
	return 2 * math.Pi * (mandrel/2 + off) / float64(w.Bights) / w.band()
}

// Suits is a mandrel, in diameters, that a weave closes on with room to follow it.
func (w Weave) Suits() float64 {
	const room = 1.5 // from bight to bight, over what bands must be apart
	band := w.band()
	return math.Max(2, room*band*float64(w.Bights)/math.Pi-2*off)
}

// aside is how far a pass lies aside of the middle of its band.
func (d dressed) aside(pass int) float64 {
	return beside * (float64(pass) - float64(d.Passes-1)/2)
}

// flat is where a pass lies at a place of its way, laid out flat: how far round, radians,
// and how far down. On the way back to the first edge it is the mirror.
func (d dressed) flat(u float64, pass int) (round, down float64) {
	const sharp = 0.96
	deep := d.high / 2 / math.Asin(sharp)
	down = -deep * math.Asin(sharp*math.Cos(u))
	slope := deep * sharp * math.Sin(u) / math.Sqrt(1-sharp*sharp*math.Cos(u)*math.Cos(u))
	round = -u * float64(d.Leads) / float64(d.Bights)
	along := d.radius * float64(d.Leads) / float64(d.Bights)
	long := math.Hypot(along, slope)
	// Sideways in the surface, to the right of the way.
	return round + d.aside(pass)*slope/long/d.radius, down + d.aside(pass)*along/long
}

// levels finds where passes cross, and has each lie over or under there.
func (d *dressed) levels() {
	d.level = make([][]level, d.Passes)
	share := 2 * math.Pi / float64(d.Bights)
	for i := range d.Passes {
		for j := range d.Passes {
			for row := 1; row < d.Leads; row++ {
				u, v := d.meet(i, j, share*float64(row))
				out := rise
				if !d.over(row) {
					out = -rise
				}
				d.level[i] = append(d.level[i], level{u, out})
				d.level[j] = append(d.level[j], level{2*math.Pi - v, -out})
			}
		}
	}
	for i := range d.level {
		slices.SortFunc(d.level[i], func(a, b level) int {
			if a.at < b.at {
				return -1
			}
			return 1
		})
	}
}

// meet is where pass i on its way towards the other edge meets pass j on its way back,
// both counted from the first edge, where the two have come so far round together.
func (d dressed) meet(i, j int, round float64) (u, v float64) {
	// As deep as the first, the second is so far along.
	along := func(deep float64) float64 {
		lo, hi := 0.0, math.Pi
		for range 50 {
			mid := (lo + hi) / 2
			if _, y := d.flat(mid, j); y < deep {
				lo = mid
			} else {
				hi = mid
			}
		}
		return lo
	}
	lo, hi := 0.0, math.Pi
	for range 50 {
		u = (lo + hi) / 2
		a, deep := d.flat(u, i)
		v = along(deep)
		if b, _ := d.flat(v, j); -a-b < round {
			lo = u
		} else {
			hi = u
		}
	}
	return u, v
}

// out is how far out of the middle of the weave a pass lies at a place of its way.
func (d dressed) out(u float64, pass int) float64 {
	ls := d.level[pass]
	if len(ls) == 0 {
		return 0
	}
	u = math.Mod(u+2*math.Pi, 2*math.Pi)
	k, _ := slices.BinarySearchFunc(ls, u, func(l level, u float64) int {
		if l.at < u {
			return -1
		}
		return 1
	})
	n := len(ls)
	a, b := ls[(k+n-1)%n], ls[k%n]
	if k == 0 {
		a.at -= 2 * math.Pi
	}
	if k == n {
		b.at += 2 * math.Pi
	}
	return a.out + (b.out-a.out)*curve.Smooth((u-a.at)/(b.at-a.at))
}

// at is where a pass lies in space.
func (d dressed) at(u float64, pass int) r3.Vec {
	round, down := d.flat(u, pass)
	s, c := math.Sincos(round)
	r := d.radius + d.out(u, pass)
	return r3.Vec{X: r * c, Y: down, Z: r * s}
}

// Route is the weave round a mandrel of so many diameters: one cell of as many as there
// are bights, from the first edge to the other and back.
func (w Weave) Route(mandrel float64) tighten.Problem {
	d := w.dressed(mandrel)
	p := tighten.Problem{Cell: &tighten.Cell{Around: w.Bights, On: w.Leads},
		Bars: []tighten.Bar{{From: r3.Vec{Y: -2*d.high - 20}, To: r3.Vec{Y: 2*d.high + 20}, Diameter: mandrel}}}
	points := 12 * w.Leads * w.Passes // six a meeting, and for each pass
	for j := range w.Passes {
		var line []r3.Vec
		for k := range points {
			line = append(line, d.at(2*math.Pi*(float64(k)+0.5)/float64(points), j))
		}
		p.Strands = append(p.Strands, tighten.Strand{Route: line, Diameter: 1, Next: j})
	}
	return p
}
