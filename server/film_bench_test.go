package server_test

import (
	"fmt"
	"testing"

	"nimblebight/core/scene"
	"nimblebight/server"
)

// A film at the vise, frame by frame as the page asks for it, nothing of it drawn before.
func BenchmarkFilm(b *testing.B) {
	for _, v := range []struct {
		pattern string
		move    int
	}{{"two-colour-fob", 19}, {"bead-diamonds", 19}, {"eight-pass-fist", 39}, {"crossed-rows", 41}} {
		b.Run(v.pattern, func(b *testing.B) {
			t := newBench(b)
			made := ask[server.Bench](t, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: v.pattern})
			for n := 0; b.Loop(); n++ {
				frame := n%server.MoveFrames + 1
				if frame == 1 {
					scene.Forget()
				}
				at := v.move + n/server.MoveFrames
				if w := t.do("GET", fmt.Sprintf("/api/pieces/%d/picture?turn=0&scale=9&until=%d&along=%v", made.ID, at, float64(frame)/server.MoveFrames), nil); w.Code != 200 {
					b.Fatal(w.Code)
				}
			}
		})
	}
}
