package ringdiamond

import (
	"math"

	"nimblebight/core/knots/ring"
	"nimblebight/core/tighten"
)

// rim is how far from the axis the upper bights of a diamond of n lie, diameters.
func rim(n int) float64 { return 0.55 / math.Sin(math.Pi/2/float64(n)) }

// diamond is the way of the first of n strands: over the next one, round the outside of
// the lower edge, under the one after and up through its bight. It is a cover of three
// leads and n bights, cut at its upper bights and spread out flat: outside is lower.
func diamond(n int) []ring.At {
	s, b, e := 360/float64(n), ring.Stands(n), rim(n)+0.3
	way := []ring.At{{R: b, Y: -14}, {R: b, Y: -5}, {R: e - 0.3, Y: -2}, {R: e - 0.2}, {R: e + 0.35, Degrees: 0.03 * s, Y: 1.2}}
	for at := 50.0; at <= 310; at += 20 {
		sin, cos := math.Sincos(at * math.Pi / 180)
		way = append(way, ring.At{R: e + 0.9 + 1.7*(1-cos), Degrees: 3 * at / float64(n), Y: 0.9 * 2 * sin * cos})
	}
	return append(way, ring.At{R: e + 0.25, Degrees: 2.5 * s, Y: -1}, ring.At{R: e - 0.15, Degrees: 2.55 * s}, ring.At{R: e - 0.2, Degrees: 2.55 * s, Y: 1.6},
		ring.At{R: b, Degrees: 2.55 * s, Y: 5}, ring.At{R: b, Degrees: 2.55 * s, Y: 14})
}

// beside is how far to either side of the single diamond the two rounds of a collar run:
// the first on the inner side of the lower bights, the second on the outer.
const beside = 0.53

// rounds are the two rounds of a collar along the cover, told by how far round they are,
// degrees of 360 a bight, how far aside, and how far they are lifted besides.
func rounds(put func(at, aside, lift float64)) {
	for at := 62.0; at <= 302; at += 20 {
		put(at, -beside, 0)
	}
	for k, lift := range []float64{-0.5, 0, 0.5, 0.8} { // over to the other side
		t := float64(k) / 3
		put(330+70*t, beside*(2*t-1), lift)
	}
	var second []float64
	for at := 420.0; at < 690; at += 20 {
		second = append(second, at)
	}
	second = append(second, 690)
	home := []float64{-0.95, -1.1, -1.3} // the last of them, in to the middle
	for k, at := range second {
		lift := 0.0
		if j := k - (len(second) - len(home)); j >= 0 {
			lift = home[j]
		}
		put(at, beside, lift)
	}
}

// onCover is where a place of a collar's rounds lies on a cover of n bights round a drum
// of so great a radius: degrees round, how deep below the upper edge, and how far from
// the drum.
func onCover(n int, drum, at, aside float64) (degrees, deep, off float64) {
	sin, cos := math.Sincos(at * math.Pi / 180)
	along, down := 3*drum/float64(n), 2*sin // of the way, a radian on
	long := math.Hypot(along, down)
	return 3*at/float64(n) - down/long*aside/drum*180/math.Pi, 2*(1-cos) + along/long*aside, 0.85 * 2 * sin * cos
}

// collar is the way of the first of n strands of a ring collar, laid on a drum: the
// diamond's round inside the lower bights, then once more outside them.
func collar(n int) []ring.At {
	s, b, e := 360/float64(n), ring.Stands(n), rim(n)+0.1
	drum := e + 2.3
	way := []ring.At{{R: b, Degrees: 0.3 * s, Y: -14}, {R: b, Degrees: 0.3 * s, Y: -6}, {R: e - 0.1, Degrees: 0.3 * s, Y: -2.5},
		{R: e - 0.1, Degrees: 0.3 * s, Y: 0.6}, {R: e + 0.5, Degrees: 0.3 * s, Y: 2}, {R: drum - 0.2, Degrees: 0.3 * s, Y: 2.3}}
	rounds(func(at, aside, lift float64) {
		degrees, deep, off := onCover(n, drum, at, aside)
		way = append(way, ring.At{R: drum + off + lift, Degrees: degrees, Y: 1.6 - deep})
	})
	last := way[len(way)-1].Degrees
	return append(way, ring.At{R: e - 0.1, Degrees: last, Y: 1.3}, ring.At{R: e - 0.3, Degrees: last, Y: 2.6}, ring.At{R: b + 0.3, Degrees: last, Y: 4},
		ring.At{R: b, Degrees: last, Y: 7}, ring.At{R: b, Degrees: last, Y: 14})
}

// told is a collar as hands lead it, spread out flat as seen from the working end: the
// same rounds, what is deeper on the drum farther out.
func told(n int) []ring.At {
	s, b, e := 360/float64(n), ring.Stands(n), rim(n)+0.1
	drum := e + 2.3
	way := []ring.At{{R: b, Degrees: 0.3 * s, Y: -14}, {R: b, Degrees: 0.3 * s, Y: -4}, {R: e - 0.3, Degrees: 0.3 * s}, {R: e + 0.5, Degrees: 0.3 * s, Y: 2}, {R: drum - 0.2, Degrees: 0.3 * s, Y: 2.2}}
	rounds(func(at, aside, lift float64) {
		degrees, deep, off := onCover(n, drum, at, aside)
		way = append(way, ring.At{R: drum + deep, Degrees: degrees, Y: off + lift})
	})
	last := way[len(way)-1].Degrees
	return append(way, ring.At{R: e + 0.6, Degrees: last, Y: -1.6}, ring.At{R: e - 0.3, Degrees: last}, ring.At{R: b, Degrees: last, Y: 4}, ring.At{R: b, Degrees: last, Y: 14})
}

// route is a diamond of n strands, or the collar made of it.
func route(n int, doubled bool) tighten.Problem {
	if doubled {
		return ring.Route(n, collar(n))
	}
	return ring.Route(n, diamond(n))
}
