package server_test

import (
	"fmt"
	"testing"

	"nimblebight/core/cord"
	"nimblebight/core/evidence"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/reach"
	"nimblebight/server"
)

// Two swatches narrow what is allowed over the needs to under 12 %; deleted, they are
// forgotten; one press takes a piece back to geometry alone.
func TestSwatchesNarrowThePlan(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	before := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]
	w := evidence.Swatch{Stuff: p.Document.Cords[0].Stuff, Knot: "square-knot", Count: 10}
	want := ask[evidence.Planned](b, 200, "POST", "/api/swatches/plan", w)
	w.HeightMM, w.TookMM = 1.03*want.HeightMM, []float64{1.06 * want.TookMM, 1.05 * want.TookMM}
	first := ask[server.Kept](b, 200, "POST", "/api/swatches", w)
	one := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]
	second := ask[server.Kept](b, 200, "POST", "/api/swatches", w)
	two := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]
	if before.Allowed < 0.12 || one.Allowed >= before.Allowed || two.Allowed > one.Allowed || two.Allowed >= 0.12 {
		t.Errorf("allowed %.3f, after a swatch %.3f, after two %.3f", before.Allowed, one.Allowed, two.Allowed)
	}
	if two.Rests.Swatches < 0.5 || two.Rests.Logs != 0 || two.NeedsMM <= before.NeedsMM || two.DrawnUpMM <= before.DrawnUpMM {
		t.Errorf("after two swatches %+v, before %+v", two, before)
	}
	if got := ask[[]server.Kept](b, 200, "GET", "/api/swatches?kind="+w.Stuff.Kind(), nil); len(got) != 2 {
		t.Errorf("%d swatches are kept", len(got))
	}
	d := *p.Document
	d.Cutting = &piece.Cutting{Geometry: true}
	ask[server.Bench](b, 200, "PUT", path, server.SaveRequest{Revision: p.Revision, Document: d})
	if back := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]; back.CutMM != before.CutMM || back.NeedsMM != before.NeedsMM {
		t.Errorf("by geometry alone it needs %v and is cut %v, before %v and %v", back.NeedsMM, back.CutMM, before.NeedsMM, before.CutMM)
	}
	ask[server.Bench](b, 200, "POST", path+"/undo", server.StepRequest{Revision: ask[server.Bench](b, 200, "GET", path, nil).Revision})
	for _, k := range []server.Kept{first, second} {
		ask[any](b, 204, "DELETE", fmt.Sprintf("/api/swatches/%d", k.ID), nil)
	}
	if after := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]; after.CutMM != before.CutMM {
		t.Errorf("without swatches it is cut %v, before %v", after.CutMM, before.CutMM)
	}
}

// An outlier is asked about and kept only when the maker is sure; what cannot be is
// refused; both change nothing.
func TestAnOutlierIsAskedAboutFirst(t *testing.T) {
	b := newBench(t)
	w := evidence.Swatch{Stuff: cord.Stuff{Make: "kernmantle", Material: "nylon", DiameterMM: 4, Colour: "#0f5c63"}, Knot: "square-knot", Count: 10}
	want := ask[evidence.Planned](b, 200, "POST", "/api/swatches/plan", w)
	w.HeightMM, w.TookMM = want.HeightMM, []float64{1.4 * want.TookMM}
	if no := ask[server.Problem](b, 422, "POST", "/api/swatches", w); no.Code != "doubtful" || no.Errors[0].Path != "took_mm" {
		t.Errorf("%+v", no)
	}
	if got := ask[[]server.Kept](b, 200, "GET", "/api/swatches", nil); len(got) != 0 {
		t.Errorf("%d swatches are kept", len(got))
	}
	w.TookMM[0] = want.TookMM * 0.3
	if no := ask[server.Problem](b, 422, "POST", "/api/swatches", w); no.Code != "" || no.Errors[0].Path != "took_mm[0]" {
		t.Errorf("%+v", no)
	}
	w.TookMM[0], w.Sure = 1.4*want.TookMM, true
	ask[server.Kept](b, 200, "POST", "/api/swatches", w)
}

// A log of a tied piece feeds the same estimate; one that surprises is asked about, and
// may be kept without counting.
func TestALogFeedsTheEstimate(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	before := ask[plan.Plan](b, 200, "GET", path+"/plan", nil)
	entry := func(more float64) server.Entry {
		var e server.Entry
		for _, c := range before.Cords {
			left := c.LeftMM / 2
			e.Cords = append(e.Cords, evidence.Cut{ID: c.ID, CutMM: ptr(c.CutMM + more*c.Why.KnotworkMM), LeftAt: []*float64{&left, &left}})
		}
		return e
	}
	kept := ask[server.Entry](b, 200, "POST", path+"/log", entry(0.08))
	after := ask[plan.Plan](b, 200, "GET", path+"/plan", nil)
	if a, c := before.Cords[0], after.Cords[0]; c.NeedsMM <= a.NeedsMM || c.Allowed >= a.Allowed || c.Rests.Logs <= 0.2 || c.Rests.Swatches != 0 || kept.Counts != "yes" {
		t.Errorf("after a log of 8 %% more it needs %v, before %v; %+v", c.NeedsMM, a.NeedsMM, c.Rests)
	}
	// What surprises nobody who knows this hand counts, however odd it would be of another.
	for range 2 {
		loose := entry(0.33)
		loose.Counts = "sure"
		ask[server.Entry](b, 200, "POST", path+"/log", loose)
	}
	was := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]
	ask[server.Entry](b, 200, "POST", path+"/log", entry(0.31))
	if is := ask[plan.Plan](b, 200, "GET", path+"/plan", nil).Cords[0]; is.Rests.Geometry >= was.Rests.Geometry {
		t.Errorf("a log that was taken without a question does not count: %+v, before %+v", is.Rests, was.Rests)
	}
	for _, e := range ask[[]server.Entry](b, 200, "GET", path+"/log", nil)[:3] {
		ask[any](b, 204, "DELETE", fmt.Sprintf("%s/log/%d", path, e.ID), nil)
	}
	odd := entry(-0.4)
	if no := ask[server.Problem](b, 422, "POST", path+"/log", odd); no.Code != "doubtful" {
		t.Errorf("%+v", no)
	}
	odd.Counts = "no"
	ask[server.Entry](b, 200, "POST", path+"/log", odd)
	if again := ask[plan.Plan](b, 200, "GET", path+"/plan", nil); again.Cords[0].NeedsMM != after.Cords[0].NeedsMM {
		t.Error("a log that is not to count moved the plan")
	}
	ask[any](b, 204, "DELETE", fmt.Sprintf("%s/log/%d", path, kept.ID), nil)
	if again := ask[plan.Plan](b, 200, "GET", path+"/plan", nil); again.Cords[0].NeedsMM != before.Cords[0].NeedsMM {
		t.Error("a log that was deleted still counts")
	}
}

// In the middle of a piece a way on is taken: it is saved, and the log says why.
func TestAWayOnIsSavedWithItsReason(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	path := fmt.Sprintf("/api/pieces/%d", p.ID)
	left := map[string]float64{"A.1": 90, "A.2": 90, "B.1": 90, "B.2": 90}
	r := ask[reach.Rest](b, 200, "POST", path+"/middle", server.MiddleRequest{Place: reach.Place{Section: 1, Tied: 7, LeftMM: left}})
	if r.ShortMM <= 0 || len(r.Offers) == 0 || r.Planned != 9 {
		t.Fatalf("%+v", r)
	}
	o := r.Offers[0]
	if pic := b.do("POST", "/api/draw?scale=3", map[string]any{"document": o.Document}); pic.Code != 200 {
		t.Errorf("its picture answered %d: %s", pic.Code, pic.Body)
	}
	saved := ask[server.Bench](b, 200, "POST", path+"/replan", server.ReplanRequest{Revision: p.Revision, Document: o.Document, Why: "Leg A.1 was short at knot 7."})
	if saved.Revision == p.Revision || !saved.CanUndo {
		t.Errorf("%+v", saved)
	}
	log := ask[[]server.Entry](b, 200, "GET", path+"/log", nil)
	if len(log) != 1 || log[0].Note != "Leg A.1 was short at knot 7." || log[0].Counts != "no" {
		t.Errorf("the log says %+v", log)
	}
	if tags := ask[[]server.Tag](b, 200, "GET", "/api/pieces", nil); tags[0].Stage == "logged" {
		t.Error("a piece that was planned anew in the middle of the work is logged")
	}
	done := 2 + 7*2
	if q := ask[reach.Rest](b, 200, "POST", path+"/middle", server.MiddleRequest{Done: &done, Place: reach.Place{LeftMM: left}}); q.Section != 1 || q.Tied < 1 {
		t.Errorf("after %d actions it is at %d of section %d", done, q.Tied, q.Section)
	}
	ask[server.Problem](b, 422, "POST", path+"/replan", server.ReplanRequest{Revision: saved.Revision, Document: o.Document})
	got := ask[reach.Reached](b, 200, "POST", path+"/reach", reach.Hand{OffCutMM: 3000})
	if got.Count < 9 || got.Cords[1].LeftMM < 0 {
		t.Errorf("3 m tie %+v", got)
	}
	thin := p.Document.Cords[0].Stuff
	thin.DiameterMM = 3
	if two := ask[[]reach.Swapped](b, 200, "POST", path+"/swap", server.SwapRequest{Cords: []string{"A", "B"}, Stuff: thin}); len(two) != 2 || two[0].LengthMM >= two[1].LengthMM {
		t.Errorf("swapped: %+v", two)
	}
}
