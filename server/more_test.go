package server_test

import (
	"fmt"
	"math/rand/v2"
	"net/http"
	"strings"
	"sync"
	"testing"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/plan"
	"nimblebight/server"
)

// Whatever bytes are sent to whatever answers, the server says what is wrong
// in a problem of its own, never fails, and changes nothing.
func TestRubbishIsAnsweredInWords(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "cotton-charm"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	rubbish := []string{"", "null", "[]", "0", `"x"`, "{", `{"revision":"one"}`, `{"revision":1,"document":[]}`, `{"revision":1,"document":{"format":1}}`,
		`{"revision":1e99}`, `{"document":{"format":"nimble-bight.piece","version":1,"cords":[{"id":5}]}}`, "\x00\x01\x02", strings.Repeat("[", 5000)}
	r := rand.New(rand.NewPCG(1, 2))
	for range 60 {
		raw := make([]byte, r.IntN(60))
		for i := range raw {
			raw[i] = byte(r.IntN(256))
		}
		rubbish = append(rubbish, string(raw))
	}
	for _, to := range []struct{ method, path string }{
		{"PUT", path}, {"POST", path + "/notation"}, {"POST", "/api/pieces"}, {"PUT", path + "/place"}, {"POST", path + "/log"}, {"POST", "/api/drawer"}, {"PATCH", "/api/settings"}, {"POST", "/api/cores"},
	} {
		for _, body := range rubbish {
			w := b.do(to.method, to.path, body)
			// An empty place, an empty log entry and no setting are no rubbish.
			if w.Code < 400 && (strings.HasSuffix(to.path, "/place") || strings.HasSuffix(to.path, "/log") || strings.HasSuffix(to.path, "/settings")) {
				continue
			}
			if w.Code < 400 || w.Code >= 500 || !strings.Contains(w.Body.String(), `"detail":"`) {
				t.Errorf("%s %s with %.40q answered %d: %.120s", to.method, to.path, body, w.Code, w.Body)
			}
		}
	}
	for _, query := range []string{"view=side", "scale=NaN", "scale=-4", "scale=1e9", "until=-3", "until=99999999", "until=x"} {
		if w := b.do("GET", path+"/picture?"+query, nil); w.Code != http.StatusOK {
			t.Errorf("a picture with %s answered %d", query, w.Code)
		}
	}
	if now := ask[server.Bench](b, 200, "GET", path, nil); now.Revision != p.Revision {
		t.Errorf("rubbish moved the piece to revision %d", now.Revision)
	}
	if tags := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil); len(tags) != 1 {
		t.Errorf("rubbish hung %d pieces on the rack", len(tags)-1)
	}
}

// Many windows at once: everything is answered, and of the saves made from one
// revision one is kept.
func TestManyWindowsAtOnce(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	var wg sync.WaitGroup
	codes := make(chan int, 64)
	for n := range 16 {
		wg.Go(func() {
			d := *p.Document
			d.Name = fmt.Sprint("window ", n)
			codes <- b.do("PUT", path, server.SaveRequest{Revision: p.Revision, Document: d}).Code
			for _, get := range []string{path + "/plan", path + "/picture?scale=2", "/api/pieces"} {
				if w := b.do("GET", get, nil); w.Code != 200 {
					t.Errorf("%s answered %d", get, w.Code)
				}
			}
		})
	}
	wg.Wait()
	close(codes)
	seen := map[int]int{}
	for c := range codes {
		seen[c]++
	}
	if seen[200] != 1 || seen[409] != 15 {
		t.Errorf("the saves answered %v", seen)
	}
}

// The typed line of a plan, typed again, changes nothing.
func TestThePlansLineIsThePiece(t *testing.T) {
	b := newBench(t)
	for _, pattern := range patterns.All() {
		p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: pattern.ID})
		path := fmt.Sprintf("/api/pieces/%d", p.ID)
		line := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Notation
		again := ask[server.Bench](b, 200, "POST", path+"/notation", server.NotationRequest{Revision: p.Revision, Line: line})
		if notation.Notate(again.Document.Sequence) != line {
			t.Errorf("%s: %s became %s", pattern.ID, line, notation.Notate(again.Document.Sequence))
		}
	}
}

// What the catalogue tells of itself is what the core takes.
func TestTheCatalogueIsWhatTheCoreTakes(t *testing.T) {
	b := newBench(t)
	c := ask[server.Catalogue](b, 200, "GET", "/api/catalogue", nil)
	if len(c.Knots) < 6 || len(c.Patterns) < 5 || len(c.Finishes) < 4 || len(c.Makes) < 5 || len(c.Materials) < 5 {
		t.Errorf("the catalogue holds %d knots, %d patterns, %d finishes", len(c.Knots), len(c.Patterns), len(c.Finishes))
	}
	for _, k := range c.Knots {
		if k.Template.Do != k.ID || (k.Repeats && k.Template.Count < 1) {
			t.Errorf("%s begins as %+v", k.ID, k.Template)
		}
	}
	for _, p := range c.Patterns {
		made := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Document: &p.Document})
		if made.Document.Name != p.Document.Name {
			t.Errorf("%s was made as %q", p.ID, made.Document.Name)
		}
	}
}
