package crowndiamond

import (
	"math"
	"slices"

	"nimblebight/core/curve"
	"nimblebight/core/knot"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

// short is one strand as it is told, up to its first tuck: the half knot, the wing,
// back under both legs and under the other's wing, over everything, down inside its
// own wing and out under it.
var short = []r3.Vec{
	{X: -.7, Y: -30}, {X: -.7, Y: -2}, {Z: .5}, {X: 1.5, Y: 1.5}, {Y: 3, Z: -.5}, {X: -1.5, Y: 4.5}, {Y: 6, Z: .5}, {X: 2, Y: 7.5},
	{X: 4, Y: 5}, {X: 4, Y: -3.2}, {X: 3.75, Y: -3.8, Z: -1}, {Y: -4.4, Z: -1}, {X: -5, Y: -5.6, Z: -1}, {X: -5, Y: -2.6, Z: 2},
	{X: 3.25, Y: -2, Z: 2}, {X: 3.5, Y: -2, Z: -2}, {X: 4.5, Y: -1, Z: -2},
}

// again is the second round of the long form: outside both wings, back over
// everything, through the first wing between the half knot and the first tuck.
var again = []r3.Vec{
	{X: 7, Y: -1.5, Z: -2.8}, {X: 7, Y: -6.8, Z: -2.8}, {X: 6.5, Y: -8, Z: -4.6}, {Y: -8.3, Z: -4.6}, {X: -8.5, Y: -9.38, Z: -4.6},
	{X: -8.5, Y: -4.7, Z: 5.2}, {X: 2.7, Y: 1, Z: 5.2}, {X: 2.75, Y: 1.1, Z: -5.2}, {X: 8, Y: -2.6, Z: -5.2},
}

// told is one strand of a form as it is told, home through a gap of the half knot,
// whose crossings are at 0, 3 and 6.
func told(f Form, g Gap) []r3.Vec {
	y, out, deep := 1.5, r3.Vec{X: 5.5, Z: -3.4}, 3.4
	line := slices.Clone(short)
	if g == Upper {
		y = 4.5
	}
	if f == Long {
		line = append(line, again...)
		out, deep = r3.Vec{X: 9, Z: -5.68}, 5.68
	}
	return append(line, out, r3.Vec{X: .4, Y: y, Z: -deep}, r3.Vec{X: .4, Y: y, Z: deep}, r3.Vec{X: .4, Y: 12, Z: 2.4}, r3.Vec{X: .6, Y: 26, Z: .6})
}

// route is the knot in one of its forms. The second strand is the first turned
// half round, and is kept so.
//
// The short form is dressed from how it is told. The long form, told in the same
// way, comes to rest lopsided when both hands do not pull alike, and snags when they
// do from the first: its routes are what came out when they pulled more and more
// alike.
func route(f Form, g Gap) tighten.Problem {
	a := longLower
	switch {
	case f == Short:
		a = dressed(told(f, g))
	case g == Upper:
		a = longUpper
	}
	return tighten.Problem{Alike: true, Strands: []tighten.Strand{{Route: a, Diameter: 1}, {Route: knot.TurnRoute(a, math.Pi), Diameter: 1}}}
}

// dressed moves the strands of a route apart where they press into one another.
func dressed(corners []r3.Vec) []r3.Vec {
	c := curve.Curve{Points: corners}
	a := c.Resample(int(2*c.Length()) + 1).Points
	parted, _ := tighten.Part([]tighten.Strand{{Route: a, Diameter: 1}, {Route: knot.TurnRoute(a, math.Pi), Diameter: 1}})
	return parted[0].Points
}

// longLower and longUpper are one strand of the long form.
var longLower = []r3.Vec{
	{X: 0.19, Y: -24, Z: -0.46}, {X: 0.04, Y: -10.89, Z: -0.5}, {X: -0.19, Y: -8.78, Z: -0.46}, {X: -0.18, Y: -8.08, Z: -0.47},
	{X: 0.11, Y: -7.44, Z: -0.49}, {X: 0.33, Y: -6.79, Z: -0.41}, {X: 0.37, Y: -6.1, Z: -0.33}, {X: 0.5, Y: -5.49},
	{X: 0.44, Y: -4.89, Z: 0.36}, {X: 0.33, Y: -4.45, Z: 0.89}, {X: 0.53, Y: -3.94, Z: 1.29}, {X: 0.86, Y: -3.34, Z: 1.21},
	{X: 0.9, Y: -2.84, Z: 0.74}, {X: 0.68, Y: -2.66, Z: 0.11}, {X: 0.31, Y: -2.35, Z: -0.4}, {X: -0.18, Y: -1.88, Z: -0.5},
	{X: -0.5, Y: -1.44, Z: -0.07}, {X: -0.31, Y: -0.97, Z: 0.4}, {X: 0.25, Y: -0.76, Z: 0.74}, {X: 0.9, Y: -0.95, Z: 0.84},
	{X: 1.35, Y: -1.42, Z: 0.62}, {X: 1.55, Y: -1.97, Z: 0.22}, {X: 1.65, Y: -2.55, Z: -0.16}, {X: 1.44, Y: -3.17, Z: -0.41},
	{X: 1.15, Y: -3.78, Z: -0.62}, {X: 0.84, Y: -4.4, Z: -0.79}, {X: 0.52, Y: -5.01, Z: -0.96}, {X: 0.01, Y: -5.47, Z: -1.03},
	{X: -0.62, Y: -5.78, Z: -1.1}, {X: -1.21, Y: -6.12, Z: -1.25}, {X: -1.53, Y: -6.73, Z: -1.16}, {X: -1.47, Y: -7.3, Z: -0.76},
	{X: -1.14, Y: -7.59, Z: -0.21}, {X: -0.91, Y: -8.01, Z: 0.3}, {X: -0.69, Y: -8.27, Z: 0.9}, {X: -0.17, Y: -8.37, Z: 1.36},
	{X: 0.52, Y: -8.42, Z: 1.4}, {X: 1.08, Y: -8.45, Z: 1}, {X: 1.56, Y: -8.46, Z: 0.48}, {X: 1.89, Y: -8.21, Z: -0.09},
	{X: 1.81, Y: -7.8, Z: -0.64}, {X: 1.35, Y: -7.44, Z: -1.02}, {X: 0.76, Y: -7.18, Z: -1.3}, {X: 0.11, Y: -6.93, Z: -1.37},
	{X: -0.46, Y: -6.8, Z: -1.02}, {X: -0.83, Y: -6.59, Z: -0.46}, {X: -1.25, Y: -6.5, Z: 0.07}, {X: -1.25, Y: -6.36, Z: 0.75},
	{X: -0.88, Y: -6.15, Z: 1.32}, {X: -0.45, Y: -5.91, Z: 1.82}, {X: 0.08, Y: -5.51, Z: 2.02}, {X: 0.62, Y: -5.11, Z: 1.83},
	{X: 1.1, Y: -4.82, Z: 1.41}, {X: 1.31, Y: -4.4, Z: 0.9}, {X: 1.07, Y: -3.95, Z: 0.44}, {X: 0.46, Y: -3.64, Z: 0.34},
	{Y: -3.29, Z: 0.72}, {X: -0.07, Y: -2.85, Z: 1.25}, {X: -0.07, Y: -2.21, Z: 1.52}, {X: -0.07, Y: -1.5, Z: 1.61},
	{X: -0.07, Y: -0.8, Z: 1.69}, {X: -0.04, Y: -0.09, Z: 1.68}, {Y: 0.61, Z: 1.66}, {X: 0.03, Y: 1.32, Z: 1.64},
	{X: 0.06, Y: 2.03, Z: 1.63}, {X: 0.09, Y: 2.74, Z: 1.61}, {X: 0.12, Y: 3.44, Z: 1.59}, {X: 0.14, Y: 4.15, Z: 1.57},
	{X: 0.17, Y: 4.86, Z: 1.54}, {X: 0.23, Y: 6.98, Z: 1.48}, {X: 0.29, Y: 9.1, Z: 1.4}, {X: 0.34, Y: 11.23, Z: 1.32},
	{X: 0.36, Y: 24, Z: 1.29},
}

var longUpper = []r3.Vec{
	{Y: -24, Z: -0.5}, {X: -0.17, Y: -11.36, Z: -0.47}, {X: -0.36, Y: -9.25, Z: -0.35}, {X: -0.33, Y: -8.55, Z: -0.38},
	{X: -0.49, Y: -7.94, Z: -0.11}, {X: -0.5, Y: -7.26, Z: 0.05}, {X: -0.45, Y: -6.62, Z: -0.2}, {X: -0.21, Y: -6.02, Z: -0.48},
	{X: 0.18, Y: -5.49, Z: -0.73}, {X: 0.56, Y: -5.05, Z: -1.1}, {X: 0.42, Y: -4.47, Z: -1.44}, {X: 0.05, Y: -3.9, Z: -1.36},
	{X: -0.25, Y: -3.56, Z: -0.84}, {X: -0.45, Y: -3.35, Z: -0.21}, {X: -0.41, Y: -2.86, Z: 0.27}, {X: 0.07, Y: -2.55, Z: 0.65},
	{X: 0.73, Y: -2.63, Z: 0.84}, {X: 1.21, Y: -3.13, Z: 0.82}, {X: 1.31, Y: -3.78, Z: 0.6}, {X: 1.24, Y: -4.42, Z: 0.31},
	{X: 1.17, Y: -5.07, Z: 0.03}, {X: 1.09, Y: -5.7, Z: -0.27}, {X: 0.84, Y: -6.23, Z: -0.65}, {X: 0.46, Y: -6.59, Z: -1.12},
	{X: 0.16, Y: -6.89, Z: -1.67}, {X: -0.24, Y: -7.4, Z: -1.92}, {X: -0.64, Y: -7.93, Z: -1.74}, {X: -1, Y: -8.26, Z: -1.24},
	{X: -1.3, Y: -8.5, Z: -0.64}, {X: -1.24, Y: -8.67, Z: 0.02}, {X: -0.83, Y: -8.94, Z: 0.53}, {X: -0.4, Y: -9.16, Z: 1.04},
	{X: 0.21, Y: -9.32, Z: 1.33}, {X: 0.88, Y: -9.43, Z: 1.2}, {X: 1.34, Y: -9.53, Z: 0.69}, {X: 1.71, Y: -9.54, Z: 0.09},
	{X: 1.9, Y: -9.26, Z: -0.52}, {X: 1.75, Y: -8.76, Z: -0.97}, {X: 1.28, Y: -8.28, Z: -1.12}, {X: 0.67, Y: -7.94, Z: -1.06},
	{X: 0.06, Y: -7.6, Z: -0.96}, {X: -0.59, Y: -7.34, Z: -0.93}, {X: -1.21, Y: -7.27, Z: -0.63}, {X: -1.5, Y: -7.09, Z: -0.03},
	{X: -1.61, Y: -6.88, Z: 0.64}, {X: -1.56, Y: -6.57, Z: 1.26}, {X: -1.18, Y: -6.15, Z: 1.65}, {X: -0.58, Y: -5.82, Z: 1.8},
	{X: 0.04, Y: -5.5, Z: 1.76}, {X: 0.41, Y: -5.04, Z: 1.4}, {X: 0.35, Y: -4.65, Z: 0.84}, {X: -0.17, Y: -4.37, Z: 0.49},
	{X: -0.69, Y: -3.94, Z: 0.62}, {X: -0.95, Y: -3.38, Z: 0.94}, {X: -1.04, Y: -2.7, Z: 1.08}, {X: -1, Y: -1.99, Z: 1.08},
	{X: -0.96, Y: -1.29, Z: 1.07}, {X: -0.92, Y: -0.58, Z: 1.06}, {X: -0.87, Y: 0.13, Z: 1.05}, {X: -0.83, Y: 0.83, Z: 1.05},
	{X: -0.79, Y: 1.54, Z: 1.04}, {X: -0.74, Y: 2.24, Z: 1.03}, {X: -0.7, Y: 2.95, Z: 1.02}, {X: -0.66, Y: 3.66, Z: 1.02},
	{X: -0.62, Y: 4.36, Z: 1.01}, {X: -0.57, Y: 5.07, Z: 1}, {X: -0.45, Y: 7.19, Z: 0.98}, {X: -0.33, Y: 9.3, Z: 0.96},
	{X: -0.21, Y: 11.42, Z: 0.94}, {X: -0.21, Y: 24, Z: 0.94},
}
