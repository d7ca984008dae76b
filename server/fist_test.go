package server_test

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"testing"

	"nimblebight/core/knot"
	"nimblebight/core/knots/fist"
	"nimblebight/demo"
	"nimblebight/formats/svg"
	"nimblebight/server"
)

const askFist = `{"stuff":{"make":"kernmantle","material":"nylon","diameter_mm":4,"colour":"#0f5c63"},"second":"#e3c88f","passes":4,"mode":"two-cords","core":{"kind":"stopper","diameter_mm":0}}`

// filled is a bench over the boathouse's demo data.
func filled(t *testing.T) bench {
	t.Helper()
	b := newBench(t)
	if err := demo.Fill(t.Context(), b.st); err != nil {
		t.Fatal(err)
	}
	return b
}

func TestFistAnswers(t *testing.T) {
	b := filled(t)
	a := ask[server.FistAnswer](b, http.StatusOK, http.MethodPost, "/api/fist", askFist)
	if a.Ball == nil || a.Ball.Stopper == "" || len(a.Ball.CordsMM) != 2 || len(a.Ball.Faces) != 6 || len(a.Chart) != 7 || len(a.Chart[0].Cells) != len(a.Cores) {
		t.Fatalf("%+v", a.Ball)
	}
	if len(a.Drawer) != 6 || a.Drawer[0].OffMM*a.Drawer[0].OffMM > a.Drawer[5].OffMM*a.Drawer[5].OffMM {
		t.Errorf("the drawer: %+v", a.Drawer)
	}
	// What it offers to hang can be hung.
	doc, err := json.Marshal(map[string]any{"document": a.Piece})
	if err != nil {
		t.Fatal(err)
	}
	piece := ask[server.Bench](b, http.StatusOK, http.MethodPost, "/api/pieces", string(doc))
	if piece.Document.Sequence[1].Do != "monkeys-fist" || knot.Of[fist.Settings](piece.Document.Sequence[1]).Passes != 4 {
		t.Errorf("%+v", piece.Document.Sequence)
	}
	seen := map[int]bool{}
	for face := range 7 {
		p := ask[svg.Picture](b, http.StatusOK, http.MethodPost, "/api/fist/picture", strings.Replace(askFist, `"passes"`, `"face":`+string(rune('0'+face))+`,"passes"`, 1))
		if p.Empty() || p.Width <= 0 {
			t.Errorf("face %d is not drawn", face)
		}
		seen[p.Width] = true
	}
	if len(seen) != 2 { // the whole ball, and six faces of one size
		t.Errorf("pictures of %d sizes", len(seen))
	}
	turned := map[string]bool{}
	for _, how := range []string{`"turn":0`, `"turn":30`, `"tilt":30`, `"turn":30,"tilt":30`} {
		p := ask[svg.Picture](b, http.StatusOK, http.MethodPost, "/api/fist/picture", strings.Replace(askFist, `"passes"`, how+`,"passes"`, 1))
		turned[fmt.Sprint(p.Places)] = true
	}
	if len(turned) != 4 {
		t.Errorf("turned four ways it is %d pictures", len(turned))
	}
}

func TestFistRefuses(t *testing.T) {
	b := filled(t)
	a := ask[server.FistAnswer](b, http.StatusOK, http.MethodPost, "/api/fist", strings.Replace(askFist, `"passes":4`, `"passes":1`, 1))
	if a.Ball != nil || a.Refusal == nil || a.Refusal.Passes != 2 || len(a.Chart) != 7 {
		t.Errorf("one pass: %+v", a.Refusal)
	}
	for _, q := range []string{strings.Replace(askFist, `"diameter_mm":4`, `"diameter_mm":-4`, 1), `[]`} {
		if code := b.do(http.MethodPost, "/api/fist", q).Code; code < 400 || code >= 500 {
			t.Errorf("%s: %d", q[:20], code)
		}
	}
	if code := b.do(http.MethodPost, "/api/fist/picture", strings.Replace(askFist, `"passes"`, `"face":9,"passes"`, 1)).Code; code != http.StatusBadRequest {
		t.Errorf("a ninth face: %d", code)
	}
}

// Each core is put in and taken out by itself: a page that has not read the
// drawer yet cannot lose what lies in it. Bad ones change nothing.
func TestCoresAreKept(t *testing.T) {
	b := filled(t)
	before := ask[[]server.DrawerCore](b, http.StatusOK, http.MethodGet, "/api/cores", "")
	bung := ask[server.DrawerCore](b, http.StatusOK, http.MethodPost, "/api/cores", `{"name":"bung","core":{"kind":"wood","diameter_mm":22}}`)
	for _, bad := range []string{`{"core":{"kind":"cheese","diameter_mm":22}}`, `{"core":{"kind":"wood","diameter_mm":-1}}`, `{"core":{"kind":"stopper","diameter_mm":9}}`, `{"core":{"kind":"wood"}}`, `{}`, `[]`} {
		if code := b.do(http.MethodPost, "/api/cores", bad).Code; code < 400 || code >= 500 {
			t.Errorf("%s: %d", bad, code)
		}
	}
	got := ask[[]server.DrawerCore](b, http.StatusOK, http.MethodGet, "/api/cores", "")
	if len(before) == 0 || len(got) != len(before)+1 || got[len(got)-1].ID != bung.ID || bung.Name != "bung" || bung.Core.DiameterMM != 22 {
		t.Errorf("before %+v, then %+v", before, got)
	}
	a := ask[server.FistAnswer](b, http.StatusOK, http.MethodPost, "/api/fist", askFist)
	if len(a.Drawer) != len(got) || !slices.ContainsFunc(a.Drawer, func(j server.JudgedCore) bool {
		return j.ID == bung.ID && j.Name == "bung" && j.Core.DiameterMM == bung.Core.DiameterMM
	}) {
		t.Errorf("judged %+v", a.Drawer)
	}
	one := fmt.Sprintf("/api/cores/%d", bung.ID)
	if code := b.do(http.MethodDelete, strings.Replace(one, "cores", "drawer", 1), "").Code; code != http.StatusNotFound {
		t.Errorf("a core taken off the cords' shelf: %d", code)
	}
	if c1, c2 := b.do(http.MethodDelete, one, "").Code, b.do(http.MethodDelete, one, "").Code; c1 != http.StatusNoContent || c2 != http.StatusNotFound {
		t.Errorf("taken out twice: %d, %d", c1, c2)
	}
}

// A page that names one setting leaves the others as they are.
func TestOneSettingIsChangedAtATime(t *testing.T) {
	b := filled(t)
	for _, part := range []string{`{"units":"inch"}`, `{"hand":"left"}`, `{}`} {
		ask[server.Settings](b, http.StatusOK, http.MethodPatch, "/api/settings", part)
	}
	if code := b.do(http.MethodPatch, "/api/settings", `{"units":"mm","theme":"dusk"}`).Code; code != http.StatusUnprocessableEntity {
		t.Errorf("a theme that is not there: %d", code)
	}
	if got := ask[server.Settings](b, http.StatusOK, http.MethodGet, "/api/settings", ""); got.Units != "inch" || got.Hand != "left" || got.Theme != "auto" {
		t.Errorf("%+v", got)
	}
}
