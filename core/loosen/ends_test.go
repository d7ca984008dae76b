package loosen

import (
	"maps"
	"math"
	"testing"

	"nimblebight/core/curve"

	"gonum.org/v1/gonum/spatial/r3"
)

// Two strands whose ends turn about one another while they are drawn up are wound in every frame as
// they are in the last, however far they turn; and where they are laid with a turn more, they
// are not.
func TestEndsThatTurnAreStillWoundAlike(t *testing.T) {
	const frames, tall = 9, 20.0
	film := func(turned float64) Film {
		f := Film{Across: true}
		for k := range frames {
			all := turned * float64(frames-1-k) / (frames - 1)
			var frame [][]r3.Vec
			for _, side := range [2]float64{-0.8, 0.8} {
				var pts []r3.Vec
				for i := range 81 {
					u := float64(i) / 80
					s, c := math.Sincos(0.4 + all*curve.Smooth(u))
					pts = append(pts, r3.Vec{X: side * c, Y: tall * u, Z: side * s})
				}
				frame = append(frame, pts)
			}
			f.Frames = append(f.Frames, frame)
		}
		return f
	}
	wounds := func(f Film, k int) map[[2]int]int {
		found, err := curve.Crossings(f.ledFar(k))
		if err != nil {
			t.Fatal(err)
		}
		return wound(found)
	}
	for _, turned := range []float64{0.5, 3, 5.5, 9, -4, -7} {
		f := film(turned)
		tight := wounds(f, frames-1)
		for k := range frames {
			if now := wounds(f, k); !maps.Equal(now, tight) {
				t.Errorf("turned by %.1f: in frame %d strands are wound %v, in the last %v", turned, k, now, tight)
			}
		}
		f.Frames[0] = film(turned + 2*math.Pi).Frames[0]
		if maps.Equal(wounds(f, 0), tight) {
			t.Errorf("turned by %.1f: a frame with a turn more passes for the same", turned)
		}
	}
}
