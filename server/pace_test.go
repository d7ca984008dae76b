package server_test

import (
	"fmt"
	"strings"
	"testing"

	"nimblebight/core/pace"
	"nimblebight/server"
)

// The time of each step counts once, by knot, for ever: also when a step is sent twice and
// when its piece is gone. Hands are told to rest after work without a pause.
func TestTimesAtTheVise(t *testing.T) {
	b := newBench(t)
	ask[server.Settings](b, 200, "PATCH", "/api/settings", `{"rest_min":15}`)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	p = ask[server.Bench](b, 200, "POST", path+"/notation", server.NotationRequest{Revision: p.Revision, Line: "mount A B, square-knot 6, finish dome"})
	step := func(steps ...pace.Taken) *server.Times {
		t.Helper()
		first, last := steps[0], steps[len(steps)-1]
		a := ask[server.PlaceAnswer](b, 200, "PUT", path+"/place", server.PlaceRequest{From: first.From, Done: last.To, Revision: p.Revision, Device: "bench", Steps: steps})
		if a.Times == nil {
			t.Fatal("a step with its time is told none")
		}
		return a.Times
	}
	if table := step(pace.Taken{N: 1, From: -1, To: 0, AfterS: 90}); table.WorkedS != 0 {
		t.Errorf("what was cut on the table counts %v s of knots", table.WorkedS)
	}
	mount := []pace.Taken{{N: 1, From: 0, To: 1, AfterS: 40}, {N: 2, From: 1, To: 2, AfterS: 20}}
	step(mount...)
	if again := step(mount...); again.WorkedS != 60 {
		t.Errorf("sent twice, 60 s are %v", again.WorkedS)
	}
	knots := step(pace.Taken{N: 3, From: 2, To: 10, AfterS: 80})
	if knots.WorkedS != 140 || knots.SectionS != 80 || knots.LeftS == nil || knots.Rest {
		t.Errorf("after two knots: %+v", knots)
	}
	if long := step(pace.Taken{N: 4, From: 10, To: 14, AfterS: 700}, pace.Taken{N: 5, From: 14, To: 15, AfterS: 170}); !long.Rest || long.Pauses != 0 {
		t.Errorf("after 17 minutes at the vise: %+v", long)
	}
	if after := step(pace.Taken{N: 6, From: 15, To: 16, AfterS: 600}); after.Rest || after.Pauses != 1 || after.PausedS != 600 {
		t.Errorf("after ten minutes away: %+v", after)
	}
	for _, bad := range []pace.Taken{{N: 7, From: 16, To: 17, AfterS: -1}, {N: 0, From: 16, To: 17, AfterS: 1}} {
		ask[server.Problem](b, 422, "PUT", path+"/place", server.PlaceRequest{From: 16, Done: 17, Revision: p.Revision, Device: "bench", Steps: []pace.Taken{bad}})
	}
	if no := ask[server.Problem](b, 422, "PUT", path+"/place", server.PlaceRequest{From: 16, Done: 4000, Revision: p.Revision, Device: "bench"}); !strings.Contains(no.Detail, "the piece has 4 moves on the table and 29 actions") {
		t.Errorf("beyond the end: %s", no.Detail)
	}
	if at := ask[server.PlaceAnswer](b, 200, "GET", path+"/place", nil); at.Done != 16 || at.Times == nil || at.Times.WorkedS != 1010 {
		t.Errorf("what was refused changed something: %+v", at)
	}
	backup := b.do("GET", "/api/backup", nil).Body.String()
	ask[any](b, 204, "DELETE", path, nil)
	b.do("DELETE", "/api/bin", nil)
	if all := ask[[]pace.Pace](b, 200, "GET", "/api/paces", nil); len(all) != 2 || all[1].Knot != "square-knot" || all[1].Moves != 14 || all[1].PerKnotS <= 0 {
		t.Errorf("of the piece that is gone: %+v", all)
	}
	other := newBench(t)
	if w := other.do("POST", "/api/restore?how=merge", backup); w.Code != 200 {
		t.Fatal(w.Body)
	}
	other.do("POST", "/api/restore?how=merge", backup)
	if all := ask[[]pace.Pace](other, 200, "GET", "/api/paces", nil); len(all) != 2 || all[1].WorkedS != 950 {
		t.Errorf("put back twice in another folder: %+v", all)
	}
}

// The slips of a place are drawn; a place that is not there is refused.
func TestSlipsAtAPlaceAreDrawn(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d/slips?done=", p.ID)
	if got := ask[[]server.SlipAt](b, 200, "GET", path+"14", nil); len(got) != 3 || got[0].Picture.Empty() || got[0].Back == "" {
		t.Errorf("%d slips: %+v", len(got), got)
	}
	if none := ask[[]server.SlipAt](b, 200, "GET", path+"0", nil); len(none) != 0 {
		t.Errorf("before anything is tied: %d", len(none))
	}
	for _, bad := range []string{"-1", "99999", "x", ""} {
		ask[server.Problem](b, 422, "GET", path+bad, nil)
	}
}
