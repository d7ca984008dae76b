package tighten_test

import (
	"math"
	"testing"

	"nimblebight/core/curve"
	"nimblebight/core/tighten"

	"gonum.org/v1/gonum/spatial/r3"
)

func straight(a, b r3.Vec) []r3.Vec {
	out := make([]r3.Vec, 21)
	for i := range out {
		out[i] = curve.Lerp(a, b, float64(i)/20)
	}
	return out
}

// Two cords laid across each other with too little between them are moved apart
// till they touch; their ends stay, and the one that lay over lies over.
func TestPartMovesCordsApart(t *testing.T) {
	over := straight(r3.Vec{X: -8, Z: 0.2}, r3.Vec{X: 8, Z: 0.2})
	under := straight(r3.Vec{Y: -8, Z: -0.2}, r3.Vec{Y: 8, Z: -0.2})
	cs, gap := tighten.Part([]tighten.Strand{{Route: over, Diameter: 1}, {Route: under, Diameter: 1}})
	if gap < 0.99 {
		t.Errorf("they still come within %.3f of touching", gap)
	}
	if g := curve.Gap(cs[0], 1, cs[1], 1); g < -0.02 {
		t.Errorf("measured along their whole length they overlap by %.3f", -g)
	}
	for i, route := range [][]r3.Vec{over, under} {
		pts := cs[i].Points
		if d := r3.Norm(r3.Sub(pts[0], route[0])) + r3.Norm(r3.Sub(pts[len(pts)-1], route[20])); d > 1e-9 {
			t.Errorf("the ends of cord %d moved by %v", i, d)
		}
	}
	found, err := curve.Crossings(cs)
	if err != nil || len(found) != 1 || found[0].Over != 0 {
		t.Errorf("after it they cross %v, %v", found, err)
	}
}

// What lies clear is left as it is.
func TestPartLeavesWhatLiesClear(t *testing.T) {
	a := straight(r3.Vec{X: -6}, r3.Vec{X: 6})
	b := straight(r3.Vec{X: -6, Y: 1.3}, r3.Vec{X: 6, Y: 1.3})
	cs, _ := tighten.Part([]tighten.Strand{{Route: a, Diameter: 1}, {Route: b, Diameter: 1}})
	for i, c := range cs {
		for _, v := range c.Points {
			if math.Abs(v.Y-1.3*float64(i)) > 1e-9 || v.Z != 0 {
				t.Fatalf("cord %d was moved to %v", i, v)
			}
		}
	}
}

// Parting twice the cord laid twice as far gives the same, twice as large.
func TestPartScales(t *testing.T) {
	lay := func(k float64) []curve.Curve {
		over := straight(r3.Vec{X: -8 * k, Z: 0.3 * k}, r3.Vec{X: 8 * k, Z: 0.3 * k})
		under := straight(r3.Vec{X: -3 * k, Y: -8 * k}, r3.Vec{X: 3 * k, Y: 8 * k})
		cs, _ := tighten.Part([]tighten.Strand{{Route: over, Diameter: k}, {Route: under, Diameter: 0.7 * k}})
		return cs
	}
	one, two := lay(1), lay(2)
	for i := range one {
		if a, b := one[i].Length(), two[i].Length(); math.Abs(b-2*a) > 1e-6*b {
			t.Errorf("cord %d is %.5f long, of twice the size %.5f", i, a, b)
		}
	}
}

// Round a core what lies in it is moved out till it touches, and what lies clear stays.
func TestPartRoundACore(t *testing.T) {
	const core = 3.0
	var turn []r3.Vec // a turn that runs into the core half way round
	for k := range 81 {
		s, c := math.Sincos(2 * math.Pi * float64(k) / 80)
		r := 2.2 - 0.6*math.Exp(-8*(1+c)*(1+c))
		turn = append(turn, r3.Vec{X: r * c, Y: 0.02 * float64(k), Z: r * s})
	}
	parted, _ := tighten.PartRound(core, []tighten.Strand{{Route: turn, Diameter: 1}})
	for _, v := range parted[0].Points {
		if deep := (core+1)/2 - math.Hypot(v.X, v.Z); deep > 0.02 {
			t.Errorf("%v lies %.2f in the core", v, deep)
		}
	}
	if first := parted[0].Points[0]; r3.Norm(r3.Sub(first, turn[0])) > 1e-9 {
		t.Errorf("it began at %v and begins at %v", turn[0], first)
	}
}
