package server_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http/httptest"
	"strings"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/server"
)

// offered are the offers of a request, as they come.
func offered(t *testing.T, b bench, req server.StartRequest) []server.StartOffer {
	t.Helper()
	body, err := json.Marshal(req)
	if err != nil {
		t.Fatal(err)
	}
	r := httptest.NewRequest("POST", "/api/start", bytes.NewReader(body))
	r.Host = "127.0.0.1:7420"
	r.Header.Set("Content-Type", "application/json")
	w := httptest.NewRecorder()
	b.h.ServeHTTP(w, r)
	var out []server.StartOffer
	for _, line := range strings.Split(strings.TrimSpace(w.Body.String()), "\n") {
		var o server.StartOffer
		if err := json.Unmarshal([]byte(line), &o); err != nil {
			t.Fatalf("%q: %v", line, err)
		}
		out = append(out, o)
	}
	return out
}

// What can be begun comes in order, each with its picture and its cuts, and can be begun as it is
// offered.
func TestWhatCanBeBegun(t *testing.T) {
	b := newBench(t)
	all := offered(t, b, server.StartRequest{Cords: []cord.Stuff{}})
	if len(all) != len(patterns.All())+1 {
		t.Fatalf("%d offers", len(all))
	}
	for i, o := range all {
		if o.Of != len(all) || i > 0 && o.Pattern != patterns.All()[i-1].ID {
			t.Errorf("offer %d is %q, of %d", i+1, o.Pattern, o.Of)
		}
		if o.Why != "" || o.Picture == nil || o.Picture.Empty() || len(o.Cords) == 0 || o.Moves == 0 {
			t.Errorf("%s: %s, %d cords, %d moves, no picture %v", o.Name, o.Why, len(o.Cords), o.Moves, o.Picture == nil)
		}
		if o.TakesS != 0 {
			t.Errorf("%s takes %.0f s where nothing was tied yet", o.Name, o.TakesS)
		}
	}
	moss := piece.Kernmantle(5, piece.Moss)
	for _, o := range offered(t, b, server.StartRequest{Kind: "key-fob", LengthMM: 90, Cords: []cord.Stuff{moss}})[:2] {
		made := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Document: &o.Document})
		p := ask[plan.Plan](b, 200, "GET", fmt.Sprintf("/api/pieces/%d/plan", made.ID), nil)
		if fmt.Sprintf("%.1f", p.LengthMM) != fmt.Sprintf("%.1f", o.LengthMM) || p.Cords[0].CutMM != o.Cords[0].CutMM {
			t.Errorf("%s was offered %.1f mm long, cut to %.0f; begun it is %.1f, cut to %.0f", o.Name, o.LengthMM, o.Cords[0].CutMM, p.LengthMM, p.Cords[0].CutMM)
		}
	}
}

// What cannot be asked is refused at its field.
func TestWhatCannotBeBegun(t *testing.T) {
	b := newBench(t)
	for path, req := range map[string]server.StartRequest{"kind": {Kind: "ladder"}, "length_mm": {LengthMM: 1}, "cords[0].diameter_mm": {Cords: []cord.Stuff{piece.Kernmantle(0, piece.Sand)}}} {
		p := ask[server.Problem](b, 422, "POST", "/api/start", req)
		if len(p.Errors) != 1 || p.Errors[0].Path != path {
			t.Errorf("%s: %+v", path, p)
		}
	}
}

// A section is changed into another knot, and what cannot be is refused with its place.
func TestASectionIsChangedInto(t *testing.T) {
	b := newBench(t)
	d := patterns.All()[0].Document
	half, err := knot.New("half-knot")
	if err != nil {
		t.Fatal(err)
	}
	got := ask[piece.Document](b, 200, "POST", "/api/into", server.IntoRequest{Document: d, Section: 1, To: half, Keeps: "count"})
	if got.Sequence[1].Do != "half-knot" || got.Sequence[1].Count != d.Sequence[1].Count || got.Sequence[0].Do != d.Sequence[0].Do {
		t.Errorf("it is %+v", got.Sequence)
	}
	for path, req := range map[string]server.IntoRequest{"section": {Document: d, Section: 99, To: half, Keeps: "count"}, "keeps": {Document: d, Section: 1, To: half, Keeps: "colour"}} {
		if p := ask[server.Problem](b, 422, "POST", "/api/into", req); len(p.Errors) != 1 || p.Errors[0].Path != path {
			t.Errorf("%s: %+v", path, p)
		}
	}
}
