package server_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/formats/svg"
	"nimblebight/server"
)

// Every knot can be seen, and says on how many strands it is
// tied.
func TestKnotsCanBeSeen(t *testing.T) {
	b := newBench(t)
	cat := ask[server.Catalogue](b, 200, "GET", "/api/catalogue", nil)
	for _, k := range cat.Knots {
		if pic := ask[svg.Picture](b, 200, "GET", "/api/knots/"+k.ID+"/picture", nil); pic.Empty() {
			t.Errorf("%s cannot be seen", k.ID)
		}
		switch k.ID {
		case "switch-knot", "berry-knot":
			if k.Takes != (knot.Takes{Least: 4, Most: 4}) {
				t.Errorf("%s is tied on %+v strands", k.ID, k.Takes)
			}
		case "diamond":
			if k.Takes != (knot.Takes{Least: 4, Even: true}) {
				t.Errorf("a diamond is tied on %+v strands", k.Takes)
			}
		}
	}
	if p := ask[server.Problem](b, 422, "GET", "/api/knots/sqare-knot/picture", nil); !strings.Contains(p.Detail+fmt.Sprint(p.Errors), "square-knot") {
		t.Errorf("a slip of the pen is answered by %+v", p)
	}
}

// A piece is turned by whole steps, all the way round, and any angle is answered.
func TestAPieceIsTurned(t *testing.T) {
	b := newBench(t)
	made := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	get := func(query string) svg.Picture {
		return ask[svg.Picture](b, 200, "GET", fmt.Sprintf("/api/pieces/%d/picture?scale=2&%s", made.ID, query), nil)
	}
	face, edge, back := get("turn=0"), get("turn=90"), get("turn=180")
	if face.View != "face" || back.View != "back" || edge.View != "turned" {
		t.Errorf("the sides are called %s, %s and %s", face.View, edge.View, back.View)
	}
	if face.Width <= edge.Width || face.Width != back.Width {
		t.Errorf("from the face it is %d wide, from the edge %d, from the back %d", face.Width, edge.Width, back.Width)
	}
	for query, like := range map[string]svg.Picture{"view=back": back, "turn=360": face, "turn=-180": back, "turn=91": edge, "turn=NaN": face, "turn=much": face} {
		if p := get(query); p.Width != like.Width || p.View != like.View {
			t.Errorf("%s shows %s, %d wide; it is %s, %d wide", query, p.View, p.Width, like.View, like.Width)
		}
	}
}

// A picture is kept as a file at true scale.
func TestAPictureIsAFile(t *testing.T) {
	b := newBench(t)
	made := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	p := ask[svg.Picture](b, 200, "GET", fmt.Sprintf("/api/pieces/%d/picture?scale=4", made.ID), nil)
	w := b.do("GET", fmt.Sprintf("/api/pieces/%d/picture.svg?scale=4", made.ID), nil)
	if w.Code != 200 || w.Header().Get("Content-Type") != "image/svg+xml" {
		t.Fatalf("%d, %s", w.Code, w.Header())
	}
	if size := fmt.Sprintf(`width="%gmm" height="%gmm"`, float64(p.Width)/100, float64(p.Height)/100); !strings.Contains(w.Body.String(), size) {
		t.Errorf("the file does not say %s", size)
	}
	if w := b.do("GET", "/api/pieces/999/picture.svg", nil); w.Code != 404 {
		t.Errorf("of no piece: %d", w.Code)
	}
}

// Plates that a browser has are left out of what it is sent, and nothing else.
func TestPlatesThatAreThereAreNotSent(t *testing.T) {
	b := newBench(t)
	made := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d/picture?view=face&scale=4", made.ID)
	all := ask[svg.Picture](b, 200, "GET", path, nil)
	var have []string
	for name := range all.Plates {
		have = append(have, name)
	}
	var rest svg.Picture
	if err := json.Unmarshal(b.do("GET", path, nil, "Have-Plates", strings.Join(have[:2], ",")).Body.Bytes(), &rest); err != nil {
		t.Fatal(err)
	}
	if len(rest.Plates) != len(all.Plates)-2 || len(rest.Places) != len(all.Places) {
		t.Errorf("of %d plates without two %d are sent", len(all.Plates), len(rest.Plates))
	}
	r := b.do("GET", path, nil, "Have-Plates", strings.Join(have, ","))
	if r.Code != 200 || strings.Contains(r.Body.String(), `"layers"`) {
		t.Errorf("a browser that has all is sent %d letters", r.Body.Len())
	}
	again := ask[svg.Picture](b, 200, "GET", path, nil)
	if len(again.Plates) != len(all.Plates) {
		t.Error("what one browser has is missing for the next")
	}
}

// A plan that is refused comes with its way out.
func TestARefusedPlanOffersAWayOut(t *testing.T) {
	b := newBench(t)
	d := notation.With(patterns.All()[0].Document, "mount A B, bead hole=2mm long=8mm wide=12mm, finish dome", patterns.All()[0].Document.Cords...)
	made := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Document: &d})
	p := ask[server.Problem](b, 422, "GET", fmt.Sprintf("/api/pieces/%d/plan", made.ID), nil)
	if len(p.Errors) != 1 || p.Errors[0].Fix == nil || p.Errors[0].Fix.Set[0].Path != "sequence[1].bead.hole_mm" {
		t.Errorf("refused by %+v", p)
	}
}
