package server

import (
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"
)

// A bench that other machines reach shows a code that opens the piece at the vise there; one
// that is served to its own machine alone says how it could be reached.
func TestAPieceIsOpenedOnAPhone(t *testing.T) {
	_, h, _, _ := guarded(t)
	in := session(t, try(h, pass, "10.0.0.1"))
	if w := ask(h, "GET", "/api/pieces/1/phone", "", nil, ""); w.Code != 401 {
		t.Errorf("without the passcode it answered %d", w.Code)
	}
	w := httptest.NewRecorder()
	req := httptest.NewRequest(http.MethodPost, "http://bench.local:7420/api/pieces", strings.NewReader(`{"pattern":"two-colour-fob"}`))
	req.Header.Set("Content-Type", "application/json")
	req.AddCookie(in)
	h.ServeHTTP(w, req)
	if w.Code != 200 {
		t.Fatalf("a piece is not made: %d %s", w.Code, w.Body)
	}
	got := ask(h, "GET", "/api/pieces/1/phone", "", in, "")
	var p Phone
	if err := json.Unmarshal(got.Body.Bytes(), &p); err != nil {
		t.Fatal(err)
	}
	// The corners of every such code are squares seven wide, in rings.
	if p.URL != "http://bench.local:7420/piece/1/vise" || p.Size < 21 || (p.Size-17)%4 != 0 || !strings.HasPrefix(p.Code, "M0 0h7v1h-7z") || !strings.Contains(p.Code, "M0 1h1v1h-1z") || p.Why != "" {
		t.Errorf("%+v", p)
	}
	if w := ask(h, "GET", "/api/pieces/99/phone", "", in, ""); w.Code != 404 {
		t.Errorf("a piece that is not there answered %d", w.Code)
	}
}
