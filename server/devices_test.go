package server_test

import (
	"bufio"
	"context"
	"encoding/json"
	"net/http"
	"net/http/httptest"
	"strings"
	"testing"

	"nimblebight/device"
	"nimblebight/server"
)

// A stand-in that is chosen speaks to the page: what it is set to comes over the line, and a
// label is printed on it; what is not chosen, and other machines, are refused.
func TestDevicesSpeakToThePage(t *testing.T) {
	b := newBench(t)
	p := ask[server.Bench](b, 200, "POST", "/api/pieces", server.CreateRequest{Pattern: "two-colour-fob"})
	if no := ask[server.Problem](b, 422, "POST", "/api/pieces/1/label", nil); !strings.Contains(no.Detail, "no label printer is chosen") {
		t.Errorf("%d: %s", p.ID, no.Detail)
	}
	for _, bad := range []string{`{"devices":{"scale":"10.1.2.3:80"}}`, `{"devices":{"scale":7}}`} {
		if w := b.do("PATCH", "/api/settings", bad); w.Code < 400 {
			t.Errorf("%s is taken", bad)
		}
	}
	set := ask[server.Settings](b, 200, "PATCH", "/api/settings", `{"devices":{"scale":"stand-in","printer":"stand-in"}}`)
	if set = ask[server.Settings](b, 200, "PATCH", "/api/settings", `{"devices":{"pedal":"stand-in"}}`); set.Devices != (device.Places{Scale: device.Ours, Pedal: device.Ours, Printer: device.Ours}) {
		t.Errorf("one device more leaves %+v", set.Devices)
	}
	srv := httptest.NewServer(b.h)
	defer srv.Close()
	ctx, stop := context.WithCancel(t.Context())
	defer stop()
	req, err := http.NewRequestWithContext(ctx, "GET", srv.URL+"/api/devices", nil)
	if err != nil {
		t.Fatal(err)
	}
	a, err := srv.Client().Do(req)
	if err != nil {
		t.Fatal(err)
	}
	defer a.Body.Close()
	lines, ready := bufio.NewScanner(a.Body), map[device.Kind]bool{}
	next := func(kind device.Kind, what, state string) device.Event {
		t.Helper()
		for lines.Scan() {
			var e device.Event
			if lines.Text() == "" {
				continue
			}
			if err := json.Unmarshal(lines.Bytes(), &e); err != nil {
				t.Fatal(err)
			}
			if e.State == "ready" {
				ready[e.Kind] = true
			}
			if e.Kind == kind && e.What == what && e.State == state {
				return e
			}
		}
		t.Fatalf("no %s of the %s came", what, kind)
		return device.Event{}
	}
	next(device.Scale, "state", "ready")
	ask[any](b, 204, "POST", "/api/devices/scale/set", server.SetRequest{What: "7.5 g"})
	if e := next(device.Scale, "reading", ""); e.Value != 7.5 || e.Unit != "g" {
		t.Errorf("%+v", e)
	}
	ask[any](b, 204, "POST", "/api/devices/scale/set", server.SetRequest{What: "much g"})
	if e := next(device.Scale, "wrong", ""); !strings.Contains(e.Says, "which is no number") {
		t.Errorf("%+v", e)
	}
	for path, bad := range map[string]server.SetRequest{"/api/devices/caliper/set": {What: "4 mm"}, "/api/devices/oven/set": {What: "4"}, "/api/devices/pedal/set": {What: strings.Repeat("x", 99)}} {
		ask[server.Problem](b, 422, "POST", path, bad)
	}
	if !ready[device.Printer] {
		next(device.Printer, "state", "ready")
	}
	if sent := ask[server.Sent](b, 200, "POST", "/api/pieces/1/label", nil); len(sent.Lines) < 4 {
		t.Errorf("%q is printed", sent.Lines)
	}
}
