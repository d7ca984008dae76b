package server_test

import (
	"fmt"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/server"
)

// Beads, hardware and tools lie on shelves of their own; what lies on the wrong one, or
// cannot be, is refused and changes nothing.
func TestTheDrawerHoldsThings(t *testing.T) {
	b := newBench(t)
	bead := server.Thing{Name: "driftwood", Bead: &knot.Bead{HoleMM: 7, LengthMM: 10, WidthMM: 13}, Left: 4, Price: 0.3}
	ring := server.Thing{Name: "ring", Hardware: &piece.Hardware{Type: "split-ring", InnerMM: 25, WireMM: 2}}
	tool := server.Thing{Name: "fid"}
	for path, thing := range map[string]server.Thing{"/api/beads": bead, "/api/hardware": ring, "/api/tools": tool} {
		kept := ask[server.Thing](b, 200, "POST", path, thing)
		kept.Name += ", large"
		ask[server.Thing](b, 200, "PUT", fmt.Sprintf("%s/%d", path, kept.ID), kept)
		all := ask[[]server.Thing](b, 200, "GET", path, nil)
		if len(all) != 1 || all[0].Name != thing.Name+", large" || all[0].Left != thing.Left || all[0].Price != thing.Price {
			t.Errorf("%s holds %+v", path, all)
		}
		for other, wrong := range map[string]server.Thing{"bead": bead, "ring": ring, "tool": tool} {
			if wrong.Name == thing.Name {
				continue
			}
			if no := ask[server.Problem](b, 422, "POST", path, wrong); len(no.Errors) == 0 {
				t.Errorf("%s takes a %s", path, other)
			}
		}
		if now := ask[[]server.Thing](b, 200, "GET", path, nil); len(now) != 1 {
			t.Errorf("%s holds %d after refusals", path, len(now))
		}
	}
	for _, bad := range []server.Thing{{Name: "inside out", Bead: &knot.Bead{HoleMM: 9, LengthMM: 4, WidthMM: 5}}, {Name: "", Bead: bead.Bead}, {Name: "owed", Bead: bead.Bead, Left: -2}, {Name: "paid for taking", Bead: bead.Bead, Price: -1}} {
		ask[server.Problem](b, 422, "POST", "/api/beads", bad)
	}
	if no := ask[server.Problem](b, 422, "POST", "/api/hardware", server.Thing{Name: "nail", Hardware: &piece.Hardware{Type: "nail"}}); no.Errors[0].Path != "hardware.type" {
		t.Errorf("%+v", no)
	}
}

// A spool knows what it measures, costs and holds; a piece keeps its cord when the spool
// is deleted.
func TestASpoolIsDeletedAndThePieceStays(t *testing.T) {
	b := newBench(t)
	sp := ask[server.Spool](b, 200, "POST", "/api/drawer", server.Spool{Name: "Lagoon", Stuff: kernmantle(4), MeasuredMM: 4.3, PricePerM: 0.25, LeftM: 18})
	got := ask[[]server.Spool](b, 200, "GET", "/api/drawer", nil)
	if len(got) != 1 || got[0].MeasuredMM != 4.3 || got[0].PricePerM != 0.25 || got[0].LeftM != 18 || got[0].Stuff.DiameterMM != 4 || len(got[0].Stuff.Unknown) > 0 {
		t.Errorf("%+v", got)
	}
	for _, bad := range []server.Spool{{Name: "x", Stuff: kernmantle(4), MeasuredMM: 4000}, {Name: "x", Stuff: kernmantle(4), LeftM: -1}, {Name: "x", Stuff: kernmantle(4), PricePerM: -1}} {
		ask[server.Problem](b, 422, "POST", "/api/drawer", bad)
	}
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	ask[any](b, 204, "DELETE", fmt.Sprintf("/api/drawer/%d", sp.ID), nil)
	if now := ask[server.Bench](b, 200, "GET", fmt.Sprintf("/api/pieces/%d", p.ID), nil); len(now.Document.Cords) != 2 {
		t.Errorf("the piece has %d cords", len(now.Document.Cords))
	}
}
