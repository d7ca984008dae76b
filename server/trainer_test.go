package server_test

import (
	"strings"
	"testing"

	"nimblebight/core/trainer"
	"nimblebight/server"
)

// A knot is led crossing by crossing: each is judged, the whole is kept, and it is due again
// later; what cannot be is refused and changes nothing.
func TestAKnotIsLed(t *testing.T) {
	b := newBench(t)
	all := ask[[]server.Trained](b, 200, "GET", "/api/trainer", nil)
	if len(all) != len(trainer.Lessons()) || !all[0].IsDue || all[0].Sure != 0 {
		t.Fatalf("%d knots, %+v", len(all), all[0])
	}
	l, _ := trainer.Of("figure-eight")
	frame := [4]int{}
	for k, a := range l.Asks {
		at := ask[server.Leading](b, 200, "GET", "/api/trainer/figure-eight?at="+string(rune('0'+k)), nil)
		now := [4]int{at.Picture.Left, at.Picture.Top, at.Picture.Width, at.Picture.Height}
		if at.Done || at.Strand != 1 || at.With != 1 || at.Picture.Empty() || k > 0 && now != frame {
			t.Errorf("crossing %d: %+v, framed %v", k+1, at.Strand, now)
		}
		frame = now
		if at.X < at.Picture.Left || at.X > at.Picture.Left+at.Picture.Width || at.Y < at.Picture.Top || at.Y > at.Picture.Top+at.Picture.Height {
			t.Errorf("crossing %d lies at %d, %d, outside of the picture", k+1, at.X, at.Y)
		}
		if got := ask[trainer.Answer](b, 200, "POST", "/api/trainer/figure-eight/judge", server.JudgeCrossing{At: k, Over: !a.Over}); got.Right || !got.Falls {
			t.Errorf("led wrong it says %+v", got)
		}
		if got := ask[trainer.Answer](b, 200, "POST", "/api/trainer/figure-eight/judge", server.JudgeCrossing{At: k, Over: a.Over}); !got.Right {
			t.Errorf("led right it says %+v", got)
		}
	}
	if end := ask[server.Leading](b, 200, "GET", "/api/trainer/figure-eight?at=4&drawn=1", nil); !end.Done || end.Picture.Empty() {
		t.Errorf("led and drawn up: %+v", end.Done)
	}
	// Led over where it goes under, it is drawn up as it was led: nothing holds.
	own := ask[server.Leading](b, 200, "GET", "/api/trainer/figure-eight?at=4&drawn=1&slips=1", nil)
	if !own.Done || !strings.Contains(own.Says, "nothing holds") || own.Picture.Empty() {
		t.Errorf("led wrong and drawn up it says %q", own.Says)
	}
	for _, bad := range []string{"4", "-1", "x", "1,", "0,1,2,3,0"} {
		ask[server.Problem](b, 422, "GET", "/api/trainer/figure-eight?at=4&drawn=1&slips="+bad, nil)
	}
	ask[server.Problem](b, 422, "POST", "/api/trainer/figure-eight/judge", server.JudgeCrossing{At: 1, Slips: []int{9}})
	for path, bad := range map[string]any{"/api/trainer/granny/led": server.LedRequest{}, "/api/trainer/figure-eight/led": server.LedRequest{Slips: -1}, "/api/trainer/figure-eight/judge": server.JudgeCrossing{At: 9}} {
		ask[server.Problem](b, 422, "POST", path, bad)
	}
	ask[server.Problem](b, 422, "GET", "/api/trainer/figure-eight?at=77", nil)
	if again := ask[[]server.Trained](b, 200, "GET", "/api/trainer", nil); again[0].Led != 0 {
		t.Errorf("what was refused is kept: %+v", again[0])
	}
	first := ask[server.Trained](b, 200, "POST", "/api/trainer/figure-eight/led", server.LedRequest{})
	second := ask[server.Trained](b, 200, "POST", "/api/trainer/figure-eight/led", server.LedRequest{})
	if first.IsDue || second.Led != 2 || !second.Due.After(first.Due) {
		t.Errorf("led once %+v, twice %+v", first, second)
	}
	slipped := ask[server.Trained](b, 200, "POST", "/api/trainer/figure-eight/led", server.LedRequest{Slips: 2})
	all = ask[[]server.Trained](b, 200, "GET", "/api/trainer", nil)
	kept := 0
	for _, k := range all {
		if k.Knot == "figure-eight" {
			kept++
			if k.Led != 3 || k.Slips != 2 {
				t.Errorf("it is kept as %+v", k)
			}
		}
	}
	if !slipped.IsDue || kept != 1 {
		t.Errorf("after a slip %+v, kept %d times", slipped, kept)
	}
}
