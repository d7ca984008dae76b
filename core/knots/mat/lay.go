package mat

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knots/cover"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// mat is a mat before it is laid, in diameters: its middle line runs to and fro about a
// circle of so great a radius, so far to either side, in one lane or two. Followed, one
// cord goes round in the outer lane and on in the inner one.
type mat struct {
	radius, reach float64
	lanes         int
	followed      bool
}

// lane is how much nearer to the middle the second cord lies, diameters.
const lane = 1.25

// shapes are the mats that are laid where no width is said, and bounds the widths, in
// diameters, between which strands come clear of one another. Both are judged; a test
// holds that they do.
var (
	shapes = map[int]mat{1: {4.9, 2.3, 1, false}, 2: {8.2, 4, 2, false}}
	bounds = map[int][2]float64{1: {12.6, 24}, 2: {24.5, 38}}
)

func usual(lanes int) mat { return shapes[lanes] }

// wide is a mat of so many diameters from edge to edge.
func wide(lanes int, width float64) mat {
	m := usual(lanes)
	k := (width - 1) / 2 / (m.radius + m.reach)
	return mat{k * m.radius, k * m.reach, lanes, false}
}

// at is a place on a lane: t goes three times round, from the open bight, which is the
// lowest place, and back to it.
func (m mat) at(t, n float64) r3.Vec {
	const rise, sharp = 0.64, 6
	r := m.radius - lane*n + m.reach*math.Cos(4*t/3)
	s, c := math.Sincos(t)
	return r3.Vec{X: r * s, Y: r * c, Z: rise * math.Tanh(sharp*math.Sin(8*t/3))}
}

// laid is a mat laid: the ways of its strands from the middle of each cord to its ends,
// diameters, the middle of the mat at the origin.
type laid struct {
	lines                     [][]r3.Vec
	order                     []int // by place, from the left
	web                       cover.Web
	top, bottom, width, thick float64
	gap                       float64
}

func (m mat) lay() laid {
	const points = 400
	low := m.radius + m.reach // the lowest place of the outer cord
	line := func(from, to float64, n func(t float64) float64) []r3.Vec {
		var out []r3.Vec
		for k := range points + 1 {
			t := from + (to-from)*float64(k)/points
			out = append(out, m.at(t, n(t)))
		}
		return out
	}
	// What leaves the open bight, on the right or the left, so far aside: straight down.
	lead := func(side, aside, up float64) []r3.Vec {
		return []r3.Vec{{X: side * aside, Y: low + 3.5}, {X: side * aside, Y: low + 2}, {X: side * (aside + 0.1), Y: low + 0.8 - 0.6*up}}
	}
	open := func(aside float64) float64 { return (aside + 0.9) / low }
	var strands []tighten.Strand
	put := func(begin, middle, end []r3.Vec) {
		end = slices.Clone(end)
		slices.Reverse(end)
		strands = append(strands, tighten.Strand{Diameter: 1, Route: curve.Spline(slices.Concat(begin, middle, end), false).Points})
	}
	const round = 6 * math.Pi
	if m.followed {
		aside := 0.55
		out := lead(-1, aside, lane)
		out[2].Z, out[2].Y = 1.1, low-0.1 // its last end goes out over its own first round
		put(lead(1, aside, 0), slices.Concat(line(open(aside), round, func(t float64) float64 { return curve.Smooth((t - round + 0.25) / 0.5) }),
			line(round, 2*round-open(aside+0.6), func(t float64) float64 { return curve.Smooth((t - round + 0.25) / 0.5) })[1:]), out)
	} else {
		for n := range m.lanes {
			// The ends leave side by side, those of the inner cord between those of the outer.
			aside, up := 0.55+1.1*float64(m.lanes-1-n), lane*float64(n)
			put(lead(1, aside, up), line(open(aside), round-open(aside), func(float64) float64 { return float64(n) }), lead(-1, aside, up))
		}
	}
	parted, gap := tighten.Part(strands)
	out := laid{gap: gap, web: cover.Web{Middle: m.radius - lane*float64(m.lanes-1)/2, Edge: m.reach / 2}, top: math.Inf(1), bottom: low + 3.5}
	left, right := math.Inf(1), math.Inf(-1)
	for _, p := range parted {
		for _, v := range p.Points {
			out.top = math.Min(out.top, v.Y-0.5)
			out.thick = math.Max(out.thick, 2*math.Abs(v.Z)+1)
			left, right = math.Min(left, v.X), math.Max(right, v.X)
		}
		half := len(p.Points) / 2
		first := make([]r3.Vec, half+1)
		for k := range first {
			first[k] = p.Points[half-k]
		}
		out.lines = append(out.lines, first, p.Points[half:])
	}
	out.width = right - left + 1
	for n := range strands {
		out.order = append(out.order, 2*n+1)
	}
	for n := len(strands) - 1; n >= 0; n-- {
		out.order = append(out.order, 2*n)
	}
	for i, line := range out.lines { // both halves of a cord begin at its middle
		out.web.Lines = append(out.web.Lines, curve.Curve{Points: line[i%2:]})
	}
	return out
}

// scaled is a line in mm, the mat's upper edge at y 0.
func scaled(line []r3.Vec, d, top float64) []r3.Vec {
	out := make([]r3.Vec, len(line))
	for k, v := range line {
		out[k] = r3.Vec{X: d * v.X, Y: d * (v.Y - top), Z: d * v.Z}
	}
	return out
}
