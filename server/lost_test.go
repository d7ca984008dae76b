package server_test

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"nimblebight/core/piece"
	"nimblebight/demo"
	"nimblebight/server"
	"nimblebight/store"
)

// A typed line that names places that are not there is told by its own places,
// for both hands, and takes nothing else with it.
func TestOnePieceNeverTakesTheRackWithIt(t *testing.T) {
	b := newBench(t)
	ask[server.Settings](b, 200, "PATCH", "/api/settings", `{"hand":"left"}`)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	typed := ask[server.Bench](b, 200, "POST", path+"/notation", server.NotationRequest{Revision: p.Revision, Line: "mount A B, square-knot 10 strands=2-5, finish dome"})
	if pr := ask[server.Problem](b, 422, "GET", path+"/plan", nil); !strings.Contains(pr.Detail, "place 5") || !strings.Contains(pr.Detail, "only 4 strands") {
		t.Errorf("the plan says %s", pr.Detail)
	}
	ask[server.Problem](b, 422, "GET", path+"/picture", nil)
	// One that this version cannot even read, as a newer or a damaged one is.
	raw, err := b.st.Create(context.Background(), []byte(`{"format":"nimble-bight.piece","version":1,"name":7}`), store.Summary{})
	if err != nil {
		t.Fatal(err)
	}
	tags := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil)
	if len(tags) != 3 || tags[0].Trouble == "" || tags[1].Trouble != "" || tags[1].LengthMM <= 0 || !tags[2].Pending {
		t.Errorf("the rack holds %+v", tags)
	}
	// It can be opened, undone and binned.
	if opened := ask[server.Bench](b, 200, "GET", path, nil); opened.Document == nil || opened.Revision != typed.Revision {
		t.Errorf("opened as %+v", opened)
	}
	unread := fmt.Sprintf("/api/pieces/%d", raw.ID)
	if opened := ask[server.Bench](b, 200, "GET", unread, nil); opened.Document != nil || opened.Trouble == "" {
		t.Errorf("what cannot be read opened as %+v", opened)
	}
	if w := b.do("GET", unread+"/file", nil); w.Code != 200 || !strings.Contains(w.Body.String(), `"name": 7`) {
		t.Errorf("its file: %d %s", w.Code, w.Body)
	}
	ask[any](b, 204, "DELETE", unread, nil)
	if back := ask[server.Bench](b, 200, "POST", path+"/undo", server.StepRequest{Revision: typed.Revision}); back.Revision != p.Revision {
		t.Errorf("undone to %d", back.Revision)
	}
}

func TestUndoFromAStaleWindowIsAConflict(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	d := *p.Document
	d.Name = "second"
	two := ask[server.Bench](b, 200, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: d})
	// Sent twice it is no conflict, also from the revision that it was made from.
	if again := ask[server.Bench](b, 200, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: d}); again.Revision != two.Revision {
		t.Errorf("sent twice it made revision %d", again.Revision)
	}
	d.Name = "third"
	three := ask[server.Bench](b, 200, "PUT", path, server.SaveRequest{Revision: two.Revision, Document: d})
	pr := ask[server.Problem](b, 409, "POST", path+"/undo", server.StepRequest{Revision: p.Revision})
	if pr.Code != "conflict" || pr.Current == nil || pr.Current.Revision != three.Revision {
		t.Errorf("undo from a stale window says %+v", pr)
	}
	ask[server.Problem](b, 400, "POST", path+"/undo", `{}`)
}

// What loses in a conflict is kept beside the history and can be gone back to.
func TestMineIsKeptWhenTheirsIsTaken(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	mine := *p.Document
	mine.Name = "mine"
	aside := ask[server.Revision](b, 200, "POST", path+"/aside", map[string]any{"document": mine})
	if !aside.Aside || !strings.Contains(aside.Name, "mine") {
		t.Errorf("set aside as %+v", aside)
	}
	list := ask[[]server.Revision](b, 200, "GET", path+"/revisions", nil)
	if len(list) != 2 || list[0].ID != aside.ID || !list[1].Current {
		t.Errorf("history %+v", list)
	}
	ask[any](b, 204, "PUT", fmt.Sprintf("%s/revisions/%d", path, aside.ID), server.NameRequest{Name: "the long one"})
	back := ask[server.Bench](b, 200, "POST", fmt.Sprintf("%s/revisions/%d/back", path, aside.ID), server.StepRequest{Revision: p.Revision})
	if back.Document.Name != "mine" || !back.CanUndo {
		t.Errorf("gone back to %+v", back)
	}
	ask[server.Problem](b, 422, "PUT", fmt.Sprintf("%s/revisions/%d", path, aside.ID), server.NameRequest{Name: strings.Repeat("x", 81)})
	ask[server.Problem](b, 404, "POST", path+"/revisions/999/back", server.StepRequest{Revision: back.Revision})
}

// The place stays at its knot when a count above it is changed, there and back.
func TestThePlaceStaysAtItsKnot(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	p = ask[server.Bench](b, 200, "POST", path+"/notation", server.NotationRequest{Revision: p.Revision, Line: "mount A B, square-knot 6, gap 10mm, half-knot 9, finish dome"})
	first := ask[server.PlaceAnswer](b, 200, "PUT", path+"/place", server.PlaceRequest{Done: 33, Revision: p.Revision, Device: "bench"})
	if first.Done != 33 || first.Elsewhere {
		t.Errorf("the first step: %+v", first)
	}
	more := ask[server.Bench](b, 200, "POST", path+"/notation", server.NotationRequest{Revision: p.Revision, Line: "mount A B, square-knot 8, gap 10mm, half-knot 9, finish dome"})
	if more.Done != 33+2*4 {
		t.Errorf("with two square knots more the place is %d", more.Done)
	}
	pr := ask[server.Problem](b, 409, "PUT", path+"/place", server.PlaceRequest{From: 33, Done: 34, Revision: p.Revision})
	if pr.Code != "stale" || pr.Current == nil || pr.Current.Done != 41 {
		t.Errorf("a stale step says %+v", pr)
	}
	two := ask[server.PlaceAnswer](b, 200, "PUT", path+"/place", server.PlaceRequest{From: 33, Done: 34, Revision: more.Revision, Device: "tablet"})
	if !two.Elsewhere || two.Done != 41 || two.Device != "bench" {
		t.Errorf("the device that is behind hears %+v", two)
	}
	if back := ask[server.Bench](b, 200, "POST", path+"/undo", server.StepRequest{Revision: more.Revision}); back.Done != 33 {
		t.Errorf("undone, the place is %d", back.Done)
	}
	if at := ask[server.PlaceAnswer](b, 200, "GET", path+"/place", nil); at.Done != 33 {
		t.Errorf("asked for, the place is %+v", at)
	}
}

// Spoilt rows cost themselves and not their page.
func TestSpoiltRowsCostThemselves(t *testing.T) {
	b := newBench(t)
	ctx := context.Background()
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	for _, cords := range []string{`[{"id":"A"}]`, `moth-eaten`, `{"a":1}`} {
		if _, err := b.st.AddLog(ctx, store.Log{PieceID: p.ID, Note: "x", Cords: []byte(cords)}); err != nil {
			t.Fatal(err)
		}
	}
	got := ask[[]server.Entry](b, 200, "GET", fmt.Sprintf("/api/pieces/%d/log", p.ID), nil)
	if len(got) != 3 || got[0].Spoilt == "" || got[1].Spoilt == "" || got[2].Spoilt != "" {
		t.Errorf("the log is %+v", got)
	}
	if _, err := b.st.PutIn(ctx, store.Cords, store.Stuff{Name: "x", What: []byte("moth-eaten")}); err != nil {
		t.Fatal(err)
	}
	ask[server.Spool](b, 200, "POST", "/api/drawer", server.Spool{Name: "Lagoon", Stuff: piece.Kernmantle(4, "#0f5c63")})
	if got := ask[[]server.Spool](b, 200, "GET", "/api/drawer", nil); len(got) != 1 || got[0].Name != "Lagoon" {
		t.Errorf("the drawer is %+v", got)
	}
	for raw, want := range map[string]server.Settings{
		`moth-eaten`: {Units: "mm", Hand: "right", Theme: "auto", SingleKeys: "on", OneIn: 20, Hold: "fingers"},
		`{"units":"inch","hand":7,"theme":"night"}`:           {Units: "inch", Hand: "right", Theme: "night", SingleKeys: "on", OneIn: 20, Hold: "fingers"},
		`{"units":"cubit","hand":"left","theme":"moonlight"}`: {Units: "mm", Hand: "left", Theme: "auto", SingleKeys: "on", OneIn: 20, Hold: "fingers"},
	} {
		if err := b.st.Change(ctx, "settings", "", func(string) (string, error) { return raw, nil }); err != nil {
			t.Fatal(err)
		}
		if got := ask[server.Settings](b, 200, "GET", "/api/settings", nil); got != want {
			t.Errorf("%s became %+v", raw, got)
		}
	}
}

// HEAD is answered as GET is, without a body.
func TestHeadIsAnswered(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	for path, status := range map[string]int{"/api/pieces": 200, fmt.Sprintf("/api/pieces/%d/plan", p.ID): 200, "/api/nothing": 404, "/api/pieces/99": 404, "/": 0} {
		w := b.do("HEAD", path, nil)
		if (status != 0 && w.Code != status) || w.Body.Len() > 0 {
			t.Errorf("HEAD %s answered %d with %d bytes", path, w.Code, w.Body.Len())
		}
	}
}

// A picture asked for again is not sent again.
func TestAPictureHasAName(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	path := fmt.Sprintf("/api/pieces/%d/picture?scale=3", p.ID)
	w := b.do("GET", path, nil)
	name := w.Header().Get("ETag")
	if w.Code != 200 || name == "" {
		t.Fatalf("%d %q", w.Code, name)
	}
	if w := b.do("GET", path, nil, "If-None-Match", name); w.Code != http.StatusNotModified || w.Body.Len() > 0 {
		t.Errorf("asked for again it answered %d with %d bytes", w.Code, w.Body.Len())
	}
	ask[server.Settings](b, 200, "PATCH", "/api/settings", `{"hand":"left"}`)
	if w := b.do("GET", path, nil, "If-None-Match", name); w.Code != 200 {
		t.Errorf("for the other hand it answered %d", w.Code)
	}
}

// A backup goes out of one server and into another, after it said what it does.
func TestBackupAndRestoreOverHTTP(t *testing.T) {
	from, into := newBench(t), newBench(t)
	if err := demo.Fill(context.Background(), from.st); err != nil {
		t.Fatal(err)
	}
	w := from.do("GET", "/api/backup", nil)
	if w.Code != 200 || w.Header().Get("Content-Type") != "application/zip" || !strings.Contains(w.Header().Get("Content-Disposition"), ".zip") {
		t.Fatalf("%d %v", w.Code, w.Header())
	}
	send := func(query string, body []byte) *httptest.ResponseRecorder {
		req := httptest.NewRequest("POST", "http://127.0.0.1:7420/api/restore?"+query, bytes.NewReader(body))
		out := httptest.NewRecorder()
		into.h.ServeHTTP(out, req)
		return out
	}
	zip := w.Body.Bytes()
	if got := send("trial=1", zip); got.Code != 200 || !strings.Contains(got.Body.String(), fmt.Sprintf(`"new_pieces":%d`, len(demo.Pieces()))) {
		t.Errorf("the trial: %d %s", got.Code, got.Body)
	}
	if tags := ask[[]server.Tag](into, 200, "GET", "/api/pieces", nil); len(tags) != 0 {
		t.Errorf("a trial hung %d pieces", len(tags))
	}
	if got := send("how=merge", zip); got.Code != 200 {
		t.Errorf("put back: %d %s", got.Code, got.Body)
	}
	tags := ask[[]server.Tag](into, 200, "GET", "/api/pieces", nil)
	if len(tags) != len(demo.Pieces()) || tags[0].Pending || tags[0].LengthMM <= 0 {
		t.Errorf("%d pieces hang there, the first %+v", len(tags), tags[0])
	}
	for query, body := range map[string][]byte{"how=merge": zip[:len(zip)-9], "how=replace": []byte("a letter"), "how=burn": zip} {
		if got := send(query, body); got.Code != 422 && got.Code != 400 {
			t.Errorf("%s answered %d", query, got.Code)
		}
	}
	if again := ask[[]server.Tag](into, 200, "GET", "/api/pieces", nil); len(again) != len(tags) {
		t.Errorf("refused backups left %d pieces", len(again))
	}
}

// Numbers that no ruler shows are refused before anything is made of them.
func TestNumbersThatCannotBeAreRefusedFirst(t *testing.T) {
	b := newBench(t)
	for _, body := range []string{
		`{"stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#123456"},"passes":3,"outer_mm":1e308}`,
		`{"stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#123456"},"passes":3,"left_mm":1e300}`,
		`{"stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#123456"},"passes":3,"core":{"kind":"wood","diameter_mm":1e200}}`,
		`{"stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#123456"},"passes":1000000000}`,
	} {
		for _, path := range []string{"/api/fist", "/api/fist/picture"} {
			if w := b.do("POST", path, body); w.Code != 422 || !strings.Contains(w.Body.String(), `"errors"`) {
				t.Errorf("%s with %.120s answered %d %.100s", path, body[90:], w.Code, w.Body)
			}
		}
	}
}
