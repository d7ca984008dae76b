package server_test

import (
	"fmt"
	"math"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/caution"
	"nimblebight/core/colour"
	"nimblebight/core/colouring"
	"nimblebight/core/cord"
	"nimblebight/core/inspect"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
	"nimblebight/server"
)

func kernmantle(mm float64) cord.Stuff { return piece.Kernmantle(mm, "#0f5c63") }

// Whether cords go through a hole together is answered with how their ends are made
// ready; a hole that is too small says by how much, and nonsense is refused.
func TestWhetherCordsGoThrough(t *testing.T) {
	b := newBench(t)
	q := server.ThroughRequest{HoleMM: 8, Cords: []server.Through{{Stuff: kernmantle(4), Times: 2}, {Stuff: kernmantle(2.2), Times: 1}}}
	wide := ask[server.ThroughAnswer](b, 200, "POST", "/api/through", q)
	if wide.Goes == "" || !wide.Exact || wide.LeastMM <= 0 || wide.LeastMM > 8 {
		t.Errorf("%+v", wide)
	}
	q.HoleMM = wide.LeastMM - 0.2
	small := ask[server.ThroughAnswer](b, 200, "POST", "/api/through", q)
	if small.Goes != "" || math.Abs(small.LeastMM-wide.LeastMM) > 1e-9 {
		t.Errorf("through %.2f mm: %+v", q.HoleMM, small)
	}
	q.HoleMM = wide.LeastMM + 0.01
	if just := ask[server.ThroughAnswer](b, 200, "POST", "/api/through", q); just.Goes == "" {
		t.Errorf("through %.2f mm, the least that it said, they do not go", q.HoleMM)
	}
	for _, bad := range []server.ThroughRequest{{HoleMM: 0, Cords: q.Cords}, {HoleMM: -4, Cords: q.Cords}, {HoleMM: 8}, {HoleMM: 8, Cords: []server.Through{{Stuff: kernmantle(4), Times: 1000}}}, {HoleMM: 8, Cords: []server.Through{{Stuff: kernmantle(-4), Times: 1}}}} {
		if no := ask[server.Problem](b, 422, "POST", "/api/through", bad); len(no.Errors) == 0 {
			t.Errorf("%+v: %+v", bad, no)
		}
	}
}

// A caution that was read is remembered, and one that is not there is not.
func TestCautionsAreReadOnce(t *testing.T) {
	b := newBench(t)
	if read := ask[[]caution.ID](b, 200, "GET", "/api/cautions", nil); len(read) != 0 {
		t.Errorf("at first %v are read", read)
	}
	ask[[]caution.ID](b, 200, "POST", "/api/cautions/flame", struct{}{})
	ask[[]caution.ID](b, 200, "POST", "/api/cautions/flame", struct{}{})
	ask[server.Problem](b, 404, "POST", "/api/cautions/dragons", struct{}{})
	if read := ask[[]caution.ID](b, 200, "GET", "/api/cautions", nil); !slices.Equal(read, []caution.ID{caution.Flame}) {
		t.Errorf("%v are read", read)
	}
}

// What no longer holds is told of two documents, and nothing is saved.
func TestWhatNoLongerHoldsIsTold(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	after := *p.Document
	after.Cords = slices.Clone(after.Cords)
	after.Cords[0].Stuff = piece.Cotton(4, "#b4532a")
	told := ask[[]plan.Change](b, 200, "POST", "/api/changed", server.ChangedRequest{Before: *p.Document, After: after})
	if len(told) != 1 || !strings.Contains(told[0].Says, "it burns") || told[0].Fix == nil {
		t.Errorf("%+v", told)
	}
	if now := ask[server.Bench](b, 200, "GET", fmt.Sprintf("/api/pieces/%d", p.ID), nil); now.Revision != p.Revision {
		t.Error("asking saved something")
	}
}

// What to inspect is listed with its pictures, right and wrong; sizes are judged.
func TestAPieceIsInspected(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	all := ask[server.Inspect](b, 200, "GET", path+"/inspect", nil)
	drawn := 0
	for _, i := range all.Items {
		for state, has := range map[string]bool{"right": i.Right != nil, "wrong": i.Wrong != nil} {
			if !has {
				ask[server.Problem](b, 404, "GET", path+"/inspect/"+i.ID+"/"+state, nil)
				continue
			}
			if pic := ask[svg.Picture](b, 200, "GET", path+"/inspect/"+i.ID+"/"+state+"?scale=3", nil); pic.Empty() {
				t.Errorf("%s, %s: nothing is drawn", i.What, state)
			}
			drawn++
		}
	}
	if drawn < 8 || len(all.Sizes) != 2 {
		t.Errorf("%d pictures, %d sizes", drawn, len(all.Sizes))
	}
	long, far := all.Sizes[0].PlanMM, 1e6
	if v := ask[[]inspect.Verdict](b, 200, "POST", path+"/judge", server.JudgeRequest{LengthMM: &long}); len(v) != 1 || v[0].Level != "right" {
		t.Errorf("%+v", v)
	}
	if no := ask[server.Problem](b, 422, "POST", path+"/judge", server.JudgeRequest{LengthMM: &far}); no.Errors[0].Path != "length_mm" {
		t.Errorf("%+v", no)
	}
}

// The colours of a piece are laid out with their pictures; what cannot be is refused.
func TestColoursAreLaidOut(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d/colourings", p.ID)
	own := ask[server.Colourings](b, 200, "POST", path, server.ColouringsRequest{})
	if own.Different != len(own.Ways) || own.All < own.Different || len(own.Cuts) != len(own.Views) || len(own.Views) < 2 {
		t.Errorf("%d ways of %d, %d views", own.Different, own.All, len(own.Views))
	}
	for _, w := range own.Ways {
		if v, cuts := own.Views[w.Look], own.Cuts[w.Look]; len(v) != 2 || v[0].Empty() || v[1].Empty() || len(cuts) != 2 || cuts[0] <= 0 {
			t.Errorf("%s: %d views, cuts %v", w.Says, len(v), cuts)
		}
		if len(w.Marks) != len(w.Colours) || own.Eyes[colour.Deutan][w.Colours[0]] == "" {
			t.Errorf("%+v has no marks, or no other eyes", w.Colours)
		}
	}
	for query, part := range map[string]string{"": `width="210mm"`, "?paper=letter&tones=1": `width="215.9mm"`} {
		w := b.do("GET", fmt.Sprintf("/api/pieces/%d/colours.svg%s", p.ID, query), nil)
		if sheet := w.Body.String(); w.Code != 200 || !strings.Contains(sheet, part) || strings.Count(sheet, ">Way ") != own.Different || strings.Contains(sheet, piece.Lagoon) != (query == "") {
			t.Errorf("the sheet %s lacks %s, or shows %d of %d ways", query, part, strings.Count(sheet, ">Way "), own.Different)
		}
	}
	ask[server.Problem](b, 422, "GET", fmt.Sprintf("/api/pieces/%d/colours.svg?paper=a0", p.ID), nil)
	ask[server.Problem](b, 422, "GET", "/api/eyes?eye=cat&colour=%23ffffff", nil)
	ask[server.Problem](b, 422, "GET", "/api/eyes?eye=protan&colour=teal", nil)
	if seen := ask[map[string]string](b, 200, "GET", "/api/eyes?eye=protan&colour=%23d02020&colour=%23808080", nil); len(seen) != 2 || seen["#d02020"] == "#d02020" || seen["#808080"] != "#808080" {
		t.Errorf("red and grey are seen as %v", seen)
	}
	for _, bad := range []server.ColouringsRequest{{Sort: "rainbow"}, {Colours: []colouring.Chosen{{Colour: "teal"}, {Colour: "#ffffff"}}}, {Colours: []colouring.Chosen{{Colour: "#000000"}}}, {Colours: []colouring.Chosen{{Colour: "#000000"}, {Colour: "#ffffff"}, {Colour: "#ff0000"}}}} {
		if no := ask[server.Problem](b, 422, "POST", path, bad); len(no.Errors) != 1 {
			t.Errorf("%+v: %+v", bad, no)
		}
	}
}

// A palette is kept by its name; cords of the drawer that go with a colour are told, those
// that are in stock first of each kind.
func TestPalettesAndWhatGoesWithAColour(t *testing.T) {
	b := newBench(t)
	for i, sp := range []server.Spool{{Name: "rust", Stuff: piece.Kernmantle(4, "#b4532a")}, {Name: "rust, full", Stuff: piece.Kernmantle(4, "#b5582a"), LeftM: 30}, {Name: "grey", Stuff: piece.Kernmantle(4, "#808080")}} {
		if got := ask[server.Spool](b, 200, "POST", "/api/drawer", sp); got.ID == 0 {
			t.Errorf("spool %d is not kept", i)
		}
	}
	with := ask[[]server.Suggested](b, 200, "GET", "/api/goes-with?colour=%230f5c63", nil)
	if len(with) != 3 || with[0].Name != "rust, full" || with[0].Goes != colour.Opposite || with[2].Goes != colour.Neutral {
		t.Errorf("%+v", with)
	}
	ask[server.Problem](b, 422, "GET", "/api/goes-with?colour=teal", nil)
	kept := ask[server.Palette](b, 200, "POST", "/api/palettes", server.Palette{Name: "spring fair", Colours: []colouring.Chosen{{Colour: "#b4532a", Name: "rust"}}})
	if all := ask[[]server.Palette](b, 200, "GET", "/api/palettes", nil); len(all) != 1 || all[0].Name != "spring fair" || all[0].Colours[0].Name != "rust" {
		t.Errorf("%+v", all)
	}
	for _, bad := range []server.Palette{{Name: "", Colours: kept.Colours}, {Name: "none"}, {Name: "no colour", Colours: []colouring.Chosen{{Colour: "teal"}}}} {
		ask[server.Problem](b, 422, "POST", "/api/palettes", bad)
	}
	ask[any](b, 204, "DELETE", fmt.Sprintf("/api/palettes/%d", kept.ID), nil)
}

// The benchmark lays out thirty-six ways of a fob of three cords and draws those that are
// shown, with nothing of them remembered.
func BenchmarkColouringsAtFirst(b *testing.B) {
	h := newBench(b)
	d := notation.With(piece.Begin("three", "key-fob", piece.SplitRing(40, 2), 0), "mount A B C, square-knot 8 strands=2-5, finish singe-and-press",
		piece.Cord{ID: "A", Stuff: piece.Kernmantle(4, piece.Lagoon)}, piece.Cord{ID: "B", Stuff: piece.Kernmantle(4, piece.Sand)}, piece.Cord{ID: "C", Stuff: piece.Kernmantle(4, piece.Rust)})
	p := ask[server.Bench](h, 200, "POST", "/api/pieces", server.CreateRequest{Document: &d})
	for b.Loop() {
		scene.Forget()
		if w := h.do("POST", fmt.Sprintf("/api/pieces/%d/colourings", p.ID), server.ColouringsRequest{}); w.Code != 200 {
			b.Fatal(w.Body)
		}
	}
}

// A bench that is served to its own machine alone says how a phone could reach it.
func TestAPhoneThatCannotReachTheBench(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	if got := ask[server.Phone](b, 200, "GET", fmt.Sprintf("/api/pieces/%d/phone", p.ID), nil); got.Code != "" || !strings.Contains(got.Why, "bight serve --addr 0.0.0.0:") {
		t.Errorf("%+v", got)
	}
}
