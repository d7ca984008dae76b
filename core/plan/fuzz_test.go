package plan_test

import (
	"encoding/json"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/plan"
	"nimblebight/formats/document"
)

// Whatever comes in as a piece is refused in words or planned, for both hands,
// and comes out as it went in. Nothing panics.
func FuzzPiece(f *testing.F) {
	for _, p := range patterns.All() {
		b, err := json.Marshal(p.Document)
		if err != nil {
			f.Fatal(err)
		}
		f.Add(b)
	}
	for _, k := range knot.All() {
		if d, _, err := patterns.Sample(k.ID); err == nil {
			b, _ := json.Marshal(d)
			f.Add(b)
		}
	}
	f.Add([]byte(`{"format":"nimble-bight.piece","version":1,"purpose":{"hangs_on":{"type":"none"}},"cords":[],"sequence":[{"do":"gap","strands":[0]}]}`))
	f.Fuzz(func(t *testing.T, b []byte) {
		d, err := document.Read(b)
		if err != nil {
			if err.Error() == "" {
				t.Fatal("refused without a word")
			}
			return
		}
		once, err := json.Marshal(d)
		if err != nil {
			t.Fatalf("read and not written: %v", err)
		}
		again, err := document.Read(once)
		if err != nil {
			t.Fatalf("written and not read: %v\n%s", err, once)
		}
		if twice, _ := json.Marshal(again); string(twice) != string(once) {
			t.Fatalf("written twice it differs:\n%s\n%s", once, twice)
		}
		if twice, _ := json.Marshal(d.Mirrored().Mirrored()); string(twice) != string(once) {
			t.Fatalf("mirrored twice it differs:\n%s\n%s", once, twice)
		}
		if len(b) > 4000 { // the large ones have a test of their own
			return
		}
		for _, o := range []plan.Options{{}, {LeftHanded: true}} {
			if p, err := plan.Make(d, o); err == nil {
				if _, err := json.Marshal(p); err != nil {
					t.Fatalf("planned and not written: %v", err)
				}
			}
		}
	})
}
