package server_test

import (
	"bytes"
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"nimblebight/core/evidence"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/demo"
	"nimblebight/formats/svg"
	"nimblebight/server"
	"nimblebight/store"
)

// bench is a server over a store of its own.
type bench struct {
	t  testing.TB
	s  *server.Server
	h  http.Handler
	st *store.Store
}

func newBench(t testing.TB) bench {
	t.Helper()
	st, err := store.Open(context.Background(), t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = st.Close() })
	s, err := server.New(st, server.Config{Addr: "127.0.0.1:7420"})
	if err != nil {
		t.Fatal(err)
	}
	return bench{t, s, s.Handler(), st}
}

func (b bench) do(method, path string, body any, head ...string) *httptest.ResponseRecorder {
	b.t.Helper()
	var r io.Reader
	switch v := body.(type) {
	case nil:
	case string:
		r = strings.NewReader(v)
	default:
		j, err := json.Marshal(v)
		if err != nil {
			b.t.Fatal(err)
		}
		r = bytes.NewReader(j)
	}
	req := httptest.NewRequest(method, "http://127.0.0.1:7420"+path, r)
	for i := 0; i+1 < len(head); i += 2 {
		if head[i] == "Host" {
			req.Host = head[i+1]
		}
		req.Header.Set(head[i], head[i+1])
	}
	w := httptest.NewRecorder()
	b.h.ServeHTTP(w, req)
	return w
}

// ask does a request that must answer with status and reads its JSON.
func ask[T any](b bench, status int, method, path string, body any) T {
	b.t.Helper()
	w := b.do(method, path, body)
	if w.Code != status {
		b.t.Fatalf("%s %s answered %d, want %d: %s", method, path, w.Code, status, w.Body)
	}
	var v T
	if w.Body.Len() > 0 {
		if err := json.Unmarshal(w.Body.Bytes(), &v); err != nil {
			b.t.Fatalf("%s %s: %v in %s", method, path, err, w.Body)
		}
	}
	return v
}

func TestAPieceFromPatternToBinAndBack(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob", Name: "Locker 9"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	if p.Document.Name != "Locker 9" || len(p.Document.Cords) != 2 {
		t.Errorf("made %+v", p.Document)
	}
	before := ask[plan.Plan](b, 200, "GET", path+"/plan", nil)
	p.Document.Sequence[1].Count += 3
	saved := ask[server.Bench](b, 200, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: *p.Document})
	after := ask[plan.Plan](b, 200, "GET", path+"/plan", nil)
	if after.LengthMM <= before.LengthMM || after.Cords[0].CutMM <= before.Cords[0].CutMM {
		t.Errorf("three knots more: %v mm and %v, before %v and %v", after.LengthMM, after.Cords[0].CutMM, before.LengthMM, before.Cords[0].CutMM)
	}
	if undone := ask[server.Bench](b, 200, "POST", path+"/undo", server.StepRequest{Revision: saved.Revision}); undone.Revision != p.Revision || !undone.CanRedo {
		t.Errorf("undone to %+v", undone)
	}
	if redone := ask[server.Bench](b, 200, "POST", path+"/redo", server.StepRequest{Revision: p.Revision}); redone.Revision != saved.Revision {
		t.Errorf("redone to revision %d", redone.Revision)
	}
	typed := ask[server.Bench](b, 200, "POST", path+"/notation", server.NotationRequest{Revision: saved.Revision, Line: "mount A B, sk 4 start=right, end dome"})
	if got := notation.Notate(typed.Document.Sequence); got != "mount A B, square-knot 4 start=right, finish dome" {
		t.Errorf("typed, it says %s", got)
	}
	twin := ask[server.Bench](b, 200, "POST", path+"/copy", nil)
	if twin.ID == p.ID || twin.Document.Name != "Locker 9 copy" {
		t.Errorf("the copy is %+v", twin)
	}
	ask[server.PlaceAnswer](b, 200, "PUT", path+"/place", server.PlaceRequest{Done: 3, Revision: typed.Revision})
	ask[any](b, 204, "DELETE", path, nil)
	if tags := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil); len(tags) != 1 || tags[0].ID != twin.ID {
		t.Errorf("on the rack: %+v", tags)
	}
	bin := ask[[]server.Tag](b, 200, "GET", "/api/bin", nil)
	if len(bin) != 1 || bin[0].Done != 3 || bin[0].Stage != "on the vise" {
		t.Errorf("in the bin: %+v", bin)
	}
	ask[any](b, 204, "POST", path+"/restore", nil)
	ask[any](b, 404, "DELETE", fmt.Sprintf("/api/bin/%d", p.ID), nil)
	ask[any](b, 204, "DELETE", path, nil)
	ask[any](b, 204, "DELETE", fmt.Sprintf("/api/bin/%d", p.ID), nil)
	ask[server.Problem](b, 404, "GET", path, nil)
}

func TestAConflictOffersBothVersions(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	theirs, mine := *p.Document, *p.Document
	theirs.Name, mine.Name = "theirs", "mine"
	ask[server.Bench](b, 200, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: theirs})
	c := ask[server.Problem](b, 409, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: mine})
	if c.Current == nil || c.Current.Document.Name != "theirs" || c.Yours == nil || c.Yours.Name != "mine" {
		t.Errorf("the conflict says %+v", c)
	}
}

func TestBadInputIsRefusedWithItsPlaceAndChangesNothing(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	bad := *p.Document
	bad.Sequence = append([]knot.Section{}, bad.Sequence...)
	bad.Sequence[1].Count = 20_000
	good, err := json.Marshal(p.Document)
	if err != nil {
		t.Fatal(err)
	}
	for _, c := range []struct {
		method, path string
		body         any
		status       int
		field, says  string
	}{
		{"PUT", path, server.SaveRequest{Revision: p.Revision, Document: bad}, 422, "sequence[1].count", "10,000"},
		{"PUT", path, `{"revision":1,"document":` + strings.Replace(string(good), `"count":9`, `"count":1e400`, 1) + `}`, 422, "sequence[1].count", "whole number"},
		{"PUT", path, `{"revision":1,"document":` + strings.Replace(string(good), `"square-knot"`, `"sqare-knot"`, 1) + `}`, 422, "sequence[1].do", "square-knot"},
		{"PUT", path, "{", 400, "", "JSON"},
		{"POST", "/api/pieces", server.CreateRequest{Pattern: "doily"}, 400, "", "doily"},
		{"POST", path + "/notation", server.NotationRequest{Revision: p.Revision, Line: "mount A, bowline 3"}, 422, "line", "no knot named"},
		{"POST", path + "/notation", server.NotationRequest{Revision: p.Revision, Line: "mount Q"}, 422, "sequence[0].cords", "does not have"},
		{"PUT", path + "/place", server.PlaceRequest{Done: -2000}, 400, "", "vise"},
		{"POST", path + "/log", server.Entry{Minutes: ptr(-1)}, 422, "minutes", "zero or more"},
		{"POST", path + "/log", server.Entry{Cords: []evidence.Cut{{ID: "A", CutMM: ptr(100), LeftMM: ptr(200)}}}, 422, "cords[0].left_mm", "more than the"},
		{"POST", "/api/drawer", server.Spool{Name: "x"}, 422, "stuff.make", "known makes"},
		{"PATCH", "/api/settings", server.Settings{Units: "cubit", Hand: "right", Theme: "day", OneIn: 20, Hold: "fingers"}, 422, "units", "cubit"},
		{"GET", "/api/pieces/99", nil, 404, "", "not there"},
		{"GET", "/api/pieces/fob", nil, 404, "", "not there"},
		{"GET", "/api/nothing", nil, 404, "", "nothing at"},
		{"PATCH", path, nil, 405, "", "not answered"},
		{"PUT", path, strings.Repeat("x", 2<<20), 413, "", "larger than"},
	} {
		w := b.do(c.method, c.path, c.body)
		if w.Code != c.status || w.Header().Get("Content-Type") != "application/problem+json" {
			t.Errorf("%s %s answered %d as %s: %.200s", c.method, c.path, w.Code, w.Header().Get("Content-Type"), w.Body)
			continue
		}
		var pr server.Problem
		if err := json.Unmarshal(w.Body.Bytes(), &pr); err != nil || pr.Status != c.status || !strings.Contains(pr.Detail+fmt.Sprint(pr.Errors), c.says) {
			t.Errorf("%s %s said %.300s, want something about %q", c.method, c.path, w.Body, c.says)
		}
		if c.field != "" && (len(pr.Errors) == 0 || pr.Errors[0].Path != c.field) {
			t.Errorf("%s %s named %+v, want %s", c.method, c.path, pr.Errors, c.field)
		}
	}
	if now := ask[server.Bench](b, 200, "GET", path, nil); now.Revision != p.Revision {
		t.Errorf("refused requests moved the piece from revision %d to %d", p.Revision, now.Revision)
	}
}

func TestUnknownFieldsOfAPieceAreKept(t *testing.T) {
	b := newBench(t)
	d, err := json.Marshal(patterns.All()[0].Document)
	if err != nil {
		t.Fatal(err)
	}
	body := `{"document":` + strings.Replace(string(d), `{"format"`, `{"future":{"x":1},"format"`, 1) + `}`
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", body)
	if w := b.do("GET", fmt.Sprintf("/api/pieces/%d", p.ID), nil); !strings.Contains(w.Body.String(), `"future":{"x":1}`) {
		t.Errorf("lost in %s", w.Body)
	}
}

func TestOtherSitesAndNamesAreKeptOut(t *testing.T) {
	b := newBench(t)
	for _, c := range []struct {
		head   []string
		status int
	}{
		{nil, 200},
		{[]string{"Host", "localhost:7420"}, 200},
		{[]string{"Host", "bight.example"}, 421},
		{[]string{"Origin", "http://bight.example"}, 403},
		{[]string{"Origin", "http://127.0.0.1:7420"}, 200},
		{[]string{"Origin", "null"}, 403},
	} {
		if w := b.do("GET", "/api/pieces", nil, c.head...); w.Code != c.status {
			t.Errorf("%v answered %d, want %d", c.head, w.Code, c.status)
		}
	}
	csp := b.do("GET", "/", nil).Header().Get("Content-Security-Policy")
	if !strings.Contains(csp, "default-src 'none'") || strings.Contains(csp, "unsafe") {
		t.Errorf("the policy is %q", csp)
	}
	if _, err := server.New(nil, server.Config{Addr: "0.0.0.0:7420"}); err == nil || !strings.Contains(err.Error(), "passcode") {
		t.Errorf("open to all without a passcode: %v", err)
	}
	if _, err := server.New(nil, server.Config{Addr: "somewhere"}); err == nil {
		t.Error("an address without a port was taken")
	}
}

func ptr(v float64) *float64 { return &v }

func TestAnswersAndFilesArePacked(t *testing.T) {
	b := newBench(t)
	if w := b.do("GET", "/api/catalogue", nil, "Accept-Encoding", "gzip"); w.Header().Get("Content-Encoding") != "gzip" {
		t.Errorf("the catalogue came as %q", w.Header().Get("Content-Encoding"))
	}
	page := b.do("GET", "/piece/3/tie", nil)
	if page.Code != 200 || !strings.Contains(page.Body.String(), "Nimble Bight") || page.Header().Get("Cache-Control") != "no-cache" {
		t.Fatalf("a page of the bench answered %d, cached %q", page.Code, page.Header().Get("Cache-Control"))
	}
	_, rest, _ := strings.Cut(page.Body.String(), `src="`)
	script, _, _ := strings.Cut(rest, `"`)
	w := b.do("GET", script, nil, "Accept-Encoding", "br, gzip")
	if w.Code != 200 || w.Header().Get("Content-Encoding") != "br" || !strings.Contains(w.Header().Get("Cache-Control"), "immutable") {
		t.Errorf("%s answered %d packed %q cached %q", script, w.Code, w.Header().Get("Content-Encoding"), w.Header().Get("Cache-Control"))
	}
	if w := b.do("GET", "/assets/none.js", nil); w.Code != 404 {
		t.Errorf("a file that is not there answered %d", w.Code)
	}
	if w := b.do("GET", "/../../etc/passwd.txt", nil); w.Code != 404 {
		t.Errorf("a path out of the folder answered %d", w.Code)
	}
}

func TestPicturesFollowHandAndPlace(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d/picture?scale=3", p.ID)
	face := ask[svg.Picture](b, 200, "GET", path, nil)
	back := ask[svg.Picture](b, 200, "GET", path+"&view=back", nil)
	held := ask[svg.Picture](b, 200, "GET", path+"&until=9", nil)
	if face.View != "face" || back.View != "back" || face.Empty() || held.Height >= face.Height {
		t.Errorf("face %d high, held %d", face.Height, held.Height)
	}
	ask[server.Settings](b, 200, "PATCH", "/api/settings", server.Settings{Units: "inch", Hand: "left", Theme: "night", SingleKeys: "off", OneIn: 40, Hold: "needle"})
	left := ask[svg.Picture](b, 200, "GET", path, nil)
	if fmt.Sprint(left.Plates) == fmt.Sprint(face.Plates) {
		t.Error("a left-handed maker gets the right-handed picture")
	}
	pl := ask[plan.Plan](b, 200, "GET", fmt.Sprintf("/api/pieces/%d/plan", p.ID), nil)
	if !pl.LeftHanded || !strings.Contains(pl.Steps[1].Actions[0].Text, "from the right") {
		t.Errorf("left-handed it begins %q", pl.Steps[1].Actions[0].Text)
	}
}

func TestDrawerAndLog(t *testing.T) {
	b := newBench(t)
	sp := ask[server.Spool](b, 200, "POST", "/api/drawer", server.Spool{Name: "Lagoon", Stuff: piece.Kernmantle(4, "#0f5c63")})
	sp.Name = "Lagoon, old"
	ask[server.Spool](b, 200, "PUT", fmt.Sprintf("/api/drawer/%d", sp.ID), sp)
	if got := ask[[]server.Spool](b, 200, "GET", "/api/drawer", nil); len(got) != 1 || got[0].Name != "Lagoon, old" || got[0].Stuff.DiameterMM != 4 {
		t.Errorf("the drawer holds %+v", got)
	}
	ask[any](b, 204, "DELETE", fmt.Sprintf("/api/drawer/%d", sp.ID), nil)
	ask[any](b, 404, "DELETE", fmt.Sprintf("/api/drawer/%d", sp.ID), nil)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "spiral-fob"})
	path := fmt.Sprintf("/api/pieces/%d/log", p.ID)
	e := ask[server.Entry](b, 200, "POST", path, server.Entry{Minutes: ptr(20), Note: "good", Cords: []evidence.Cut{{ID: "A", CutMM: ptr(800), LeftMM: ptr(120)}, {ID: "B", CutMM: ptr(800)}}})
	if got := ask[[]server.Entry](b, 200, "GET", path, nil); len(got) != 1 || *got[0].Cords[0].LeftMM != 120 || got[0].Cords[1].LeftMM != nil || got[0].LengthMM != nil || time.Since(got[0].CreatedAt) > time.Minute {
		t.Errorf("the log is %+v", got)
	}
	if tags := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil); tags[0].Stage != "logged" {
		t.Errorf("a logged piece is %q", tags[0].Stage)
	}
	ask[any](b, 204, "DELETE", fmt.Sprintf("%s/%d", path, e.ID), nil)
}

func TestTheDemoFillsOnlyAnEmptyStore(t *testing.T) {
	b := newBench(t)
	ctx := context.Background()
	if err := errors.Join(demo.Fill(ctx, b.st), b.s.SumAll(ctx)); err != nil {
		t.Fatal(err)
	}
	tags := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil)
	stages, warned := map[string]int{}, 0
	for _, tag := range tags {
		stages[tag.Stage]++
		if tag.Warnings > 0 {
			warned++
		}
		if tag.Trouble != "" {
			t.Errorf("%s: %s", tag.Name, tag.Trouble)
		}
	}
	if len(tags) < 6 || stages["on the vise"] != 1 || stages["logged"] != 1 || warned != 1 {
		t.Errorf("%d pieces, stages %v, %d with a warning", len(tags), stages, warned)
	}
	if err := demo.Fill(ctx, b.st); err != nil {
		t.Fatal(err)
	}
	if again := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil); len(again) != len(tags) {
		t.Errorf("filled twice: %d pieces", len(again))
	}
}

func TestServeStopsGracefully(t *testing.T) {
	st, err := store.Open(context.Background(), t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = st.Close() })
	s, err := server.New(st, server.Config{Addr: "127.0.0.1:0"})
	if err != nil {
		t.Fatal(err)
	}
	ctx, cancel := context.WithCancel(context.Background())
	l, err := s.Listen(ctx)
	if err != nil {
		t.Fatal(err)
	}
	ended := make(chan error, 1)
	go func() { ended <- s.Serve(ctx, l) }()
	r, err := http.Get("http://" + l.Addr().String() + "/api/pieces")
	if err != nil {
		t.Fatal(err)
	}
	_ = r.Body.Close()
	cancel()
	if err := <-ended; err != nil {
		t.Errorf("it stopped with %v", err)
	}
}

// A save over HTTP beside bare commits of SQLite in the same run.
func BenchmarkSaveOverHTTP(b *testing.B) {
	be := newBench(b)
	p := ask[server.Bench](be, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	p.Document.Sequence = append([]knot.Section{}, p.Document.Sequence...)
	n := 0
	for b.Loop() {
		n++
		p.Document.Sequence[1].Count = 1 + n%50
		p.Revision = ask[server.Bench](be, 200, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: *p.Document}).Revision
	}
}

// The rack of a thousand pieces.
func BenchmarkRackOfAThousand(b *testing.B) {
	be := newBench(b)
	p := ask[server.Bench](be, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	for range 999 {
		ask[server.Bench](be, 200, "POST", fmt.Sprintf("/api/pieces/%d/copy", p.ID), nil)
	}
	for b.Loop() {
		if tags := ask[[]server.Tag](be, 200, "GET", "/api/pieces", nil); len(tags) != 1000 || tags[999].LengthMM <= 0 {
			b.Fatalf("%d pieces hang there", len(tags))
		}
	}
}

func BenchmarkBareCommit(b *testing.B) {
	db, err := sql.Open("sqlite", "file:"+filepath.Join(b.TempDir(), "bare.db")+"?_pragma=journal_mode(WAL)&_pragma=synchronous(FULL)")
	if err != nil {
		b.Fatal(err)
	}
	defer db.Close()
	if _, err := db.Exec("CREATE TABLE r (id INTEGER PRIMARY KEY, document TEXT)"); err != nil {
		b.Fatal(err)
	}
	doc, err := json.Marshal(patterns.All()[0].Document)
	if err != nil {
		b.Fatal(err)
	}
	for b.Loop() {
		if _, err := db.Exec("INSERT INTO r (document) VALUES (?)", string(doc)); err != nil {
			b.Fatal(err)
		}
	}
}

// The pictures of a rack of fifty pieces, nothing of them drawn before, and again.
func BenchmarkPicturesOfARack(b *testing.B) {
	t := newBench(b)
	var ids []int64
	all := patterns.All()
	for i := range 50 {
		made := ask[server.Bench](t, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: all[i%len(all)].ID})
		ids = append(ids, made.ID)
	}
	look := func() {
		for _, id := range ids {
			if w := t.do("GET", fmt.Sprintf("/api/pieces/%d/picture?scale=2", id), nil); w.Code != 200 {
				b.Fatal(w.Code)
			}
		}
	}
	b.Run("cold", func(b *testing.B) {
		for b.Loop() {
			b.StopTimer()
			scene.Forget()
			fresh, err := server.New(t.st, server.Config{Addr: "127.0.0.1:7420"})
			if err != nil {
				b.Fatal(err)
			}
			t.h = fresh.Handler()
			b.StartTimer()
			look()
		}
	})
	b.Run("warm", func(b *testing.B) {
		look()
		for b.Loop() {
			look()
		}
	})
}
