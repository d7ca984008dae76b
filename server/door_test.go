package server

import (
	"bytes"
	"context"
	"crypto/tls"
	"io"
	"log/slog"
	"net/http"
	"net/http/httptest"
	"net/url"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"nimblebight/store"
)

const pass = "half hitch over"

// guarded is a server behind a passcode, with its log and a clock to turn.
func guarded(t *testing.T) (*Server, http.Handler, *bytes.Buffer, *time.Time) {
	t.Helper()
	st, err := store.Open(context.Background(), t.TempDir())
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = st.Close() })
	var log bytes.Buffer
	s, err := New(st, Config{Addr: "0.0.0.0:7420", Passcode: pass, Log: slog.New(slog.NewTextHandler(&log, nil))})
	if err != nil {
		t.Fatal(err)
	}
	now := time.Date(2026, 5, 1, 10, 0, 0, 0, time.UTC)
	s.door.now = func() time.Time { return now }
	return s, s.Handler(), &log, &now
}

func ask(h http.Handler, method, path, body string, cookie *http.Cookie, from string) *httptest.ResponseRecorder {
	req := httptest.NewRequest(method, "http://bench.local:7420"+path, strings.NewReader(body))
	if method == http.MethodPost && strings.HasPrefix(path, "/door") {
		req.Header.Set("Content-Type", "application/x-www-form-urlencoded")
	}
	if cookie != nil {
		req.AddCookie(cookie)
	}
	if from != "" {
		req.RemoteAddr = from + ":5000"
	}
	w := httptest.NewRecorder()
	h.ServeHTTP(w, req)
	return w
}

func try(h http.Handler, passcode, from string) *httptest.ResponseRecorder {
	return ask(h, "POST", "/door?to=/piece/3/tie", url.Values{"passcode": {passcode}}.Encode(), nil, from)
}

func session(t *testing.T, w *httptest.ResponseRecorder) *http.Cookie {
	t.Helper()
	for _, c := range w.Result().Cookies() {
		if c.Name == cookieName {
			return c
		}
	}
	t.Fatalf("no session in %d %v", w.Code, w.Header())
	return nil
}

func TestNobodyComesInWithoutThePasscode(t *testing.T) {
	_, h, _, now := guarded(t)
	for _, path := range []string{"/api/pieces", "/api/backup", "/api/nothing", "/api/pieces/"} {
		if w := ask(h, "GET", path, "", nil, ""); w.Code != 401 || !strings.Contains(w.Body.String(), "passcode") {
			t.Errorf("%s answered %d %s", path, w.Code, w.Body)
		}
	}
	if w := ask(h, "POST", "/api/restore", "x", nil, ""); w.Code != 401 {
		t.Errorf("a restore answered %d", w.Code)
	}
	if w := ask(h, "GET", "/piece/3/tie", "", nil, ""); w.Code != 303 || w.Header().Get("Location") != "/door?to=%2Fpiece%2F3%2Ftie" {
		t.Errorf("a page answered %d to %q", w.Code, w.Header().Get("Location"))
	}
	page := ask(h, "GET", "/door", "", nil, "")
	if page.Code != 200 || !strings.Contains(page.Body.String(), `type="password"`) || strings.Contains(page.Body.String(), pass) {
		t.Errorf("the page of the passcode: %d %s", page.Code, page.Body)
	}
	w := try(h, pass, "10.0.0.1")
	c := session(t, w)
	if w.Code != 303 || w.Header().Get("Location") != "/piece/3/tie" || !c.HttpOnly || c.SameSite != http.SameSiteStrictMode || c.MaxAge <= 0 || strings.Contains(c.Value, "half") || len(c.Value) != 64 {
		t.Errorf("came in with %d to %q, %+v", w.Code, w.Header().Get("Location"), c)
	}
	if w := ask(h, "GET", "/api/pieces", "", c, ""); w.Code != 200 {
		t.Errorf("inside it answered %d", w.Code)
	}
	forged := *c
	forged.Value = strings.Repeat("0", 64)
	if w := ask(h, "GET", "/api/pieces", "", &forged, ""); w.Code != 401 {
		t.Errorf("a forged session answered %d", w.Code)
	}
	// It ends by itself, and when one leaves.
	other := session(t, try(h, pass, "10.0.0.1"))
	ask(h, "POST", "/door/leave", "", other, "")
	if w := ask(h, "GET", "/api/pieces", "", other, ""); w.Code != 401 {
		t.Errorf("after leaving it answered %d", w.Code)
	}
	*now = now.Add(sessionLasts + time.Minute)
	if w := ask(h, "GET", "/api/pieces", "", c, ""); w.Code != 401 {
		t.Errorf("an old session answered %d", w.Code)
	}
}

func TestFiveWrongTriesThenGrowingPauses(t *testing.T) {
	_, h, log, now := guarded(t)
	for n := 1; n <= freeTries; n++ {
		if w := try(h, "guess", "10.0.0.9"); w.Code != 401 || !strings.Contains(w.Body.String(), "not the passcode") {
			t.Fatalf("try %d answered %d", n, w.Code)
		}
	}
	last := time.Duration(0)
	for range 4 {
		if w := try(h, pass, "10.0.0.9"); w.Code != 429 || w.Header().Get("Retry-After") == "" {
			t.Fatalf("the right one in the pause answered %d", w.Code)
		}
		if w := try(h, pass, "10.0.0.1"); w.Code != 303 {
			t.Fatalf("another address has to wait too: %d", w.Code)
		}
		wait := time.Duration(0)
		for ; try(h, "guess", "10.0.0.9").Code == 429; wait += time.Second {
			*now = now.Add(time.Second)
		}
		if wait <= last {
			t.Errorf("the pause is %v, and the one before was %v", wait, last)
		}
		last = wait
	}
	if got := log.String(); !strings.Contains(got, "10.0.0.9") || strings.Contains(got, pass) || strings.Contains(got, "guess") {
		t.Errorf("the log says %s", got)
	}
	*now = now.Add(longestWait + time.Second)
	if w := try(h, pass, "10.0.0.9"); w.Code != 303 {
		t.Errorf("after the pause the right one answered %d", w.Code)
	}
}

// Many tries at the same moment are no more than one after the other.
func TestTriesAtOnceAreCounted(t *testing.T) {
	_, h, _, _ := guarded(t)
	var looked atomic.Int32
	var all sync.WaitGroup
	for range 4 * freeTries {
		all.Go(func() {
			if w := try(h, "guess", "10.0.0.9"); w.Code == 401 {
				looked.Add(1)
			}
		})
	}
	all.Wait()
	if n := looked.Load(); n != freeTries {
		t.Errorf("%d of the tries at once were looked at, %d are free", n, freeTries)
	}
}

func TestTheDoorLeadsNowhereElse(t *testing.T) {
	_, h, _, _ := guarded(t)
	for _, to := range []string{"https://other.example/", "//other.example/", `/\other.example`, "javascript:alert(1)", "piece"} {
		w := ask(h, "POST", "/door?to="+url.QueryEscape(to), url.Values{"passcode": {pass}}.Encode(), nil, "")
		if got := w.Header().Get("Location"); got != "/" {
			t.Errorf("%q led to %q", to, got)
		}
		if page := ask(h, "GET", "/door?to="+url.QueryEscape(`"><script>`), "", nil, ""); strings.Contains(page.Body.String(), "<script>") {
			t.Error("a path became markup")
		}
	}
}

func TestPasscodesThatAreNone(t *testing.T) {
	for _, p := range []string{"short", strings.Repeat("x", 73)} {
		if _, err := New(nil, Config{Addr: "0.0.0.0:7420", Passcode: p}); err == nil || strings.Contains(err.Error(), p) {
			t.Errorf("%q: %v", p, err)
		}
	}
}

// Whatever is answered has the headers: what is there, what is not, what is
// redirected and what is refused.
func TestHeadersStandBeforeEveryAnswer(t *testing.T) {
	_, h, _, _ := guarded(t)
	c := session(t, try(h, pass, ""))
	for _, r := range []struct {
		method, path string
		cookie       *http.Cookie
		head         [2]string
		status       int
	}{
		{"GET", "/", c, [2]string{}, 0}, {"GET", "/", nil, [2]string{}, 303}, {"GET", "/door", nil, [2]string{}, 200},
		{"GET", "/api/nothing", c, [2]string{}, 404}, {"GET", "/api/pieces/", c, [2]string{}, 404}, {"GET", "//api/pieces", c, [2]string{}, 0},
		{"GET", "/assets/none.js", c, [2]string{}, 404}, {"PATCH", "/api/pieces", c, [2]string{}, 405}, {"GET", "/api/pieces", nil, [2]string{}, 401},
		{"GET", "/api/pieces", c, [2]string{"Origin", "http://other.example"}, 403},
		{"POST", "/api/pieces", c, [2]string{"Sec-Fetch-Site", "cross-site"}, 403},
		{"POST", "/door", nil, [2]string{"Origin", "http://other.example"}, 403},
		{"TRACE", "/", c, [2]string{}, 405},
	} {
		req := httptest.NewRequest(r.method, "http://bench.local:7420"+r.path, nil)
		if r.cookie != nil {
			req.AddCookie(r.cookie)
		}
		if r.head[0] != "" {
			req.Header.Set(r.head[0], r.head[1])
		}
		w := httptest.NewRecorder()
		h.ServeHTTP(w, req)
		for _, name := range []string{"Content-Security-Policy", "X-Content-Type-Options", "Referrer-Policy", "X-Frame-Options"} {
			if w.Header().Get(name) == "" {
				t.Errorf("%s %s answered %d without %s", r.method, r.path, w.Code, name)
			}
		}
		if r.status != 0 && w.Code != r.status {
			t.Errorf("%s %s %v answered %d, want %d", r.method, r.path, r.head, w.Code, r.status)
		}
	}
}

// A panic in a handler is answered as a fault of ours, written down with its
// stack, and costs nobody else anything.
func TestAPanicIsAnsweredAndWrittenDown(t *testing.T) {
	s, _, log, _ := guarded(t)
	s.store = nil // every handler that asks it panics
	s.door = nil
	h := s.Handler()
	w := ask(h, "GET", "/api/pieces", "", nil, "")
	if w.Code != 500 || !strings.Contains(w.Body.String(), "nothing was changed") || strings.Contains(w.Body.String(), "goroutine") {
		t.Errorf("answered %d %s", w.Code, w.Body)
	}
	if !strings.Contains(log.String(), "rack.go") || !strings.Contains(log.String(), "GET /api/pieces") {
		t.Errorf("the log says %s", log)
	}
	if w := ask(h, "GET", "/api/catalogue", "", nil, ""); w.Code != 200 {
		t.Errorf("after that the catalogue answered %d", w.Code)
	}
}

func TestHTTPSIsServed(t *testing.T) {
	cert := httptest.NewUnstartedServer(nil)
	cert.StartTLS() // for its certificate
	defer cert.Close()
	s, _, _, _ := guarded(t)
	s.tls = &tls.Config{Certificates: cert.TLS.Certificates, MinVersion: tls.VersionTLS12}
	s.cfg.Addr = "127.0.0.1:0"
	ctx, stop := context.WithCancel(t.Context())
	l, err := s.Listen(ctx)
	if err != nil {
		t.Fatal(err)
	}
	ended := make(chan error, 1)
	go func() { ended <- s.Serve(ctx, l) }()
	client := cert.Client()
	client.CheckRedirect = func(*http.Request, []*http.Request) error { return http.ErrUseLastResponse }
	resp, err := client.PostForm("https://"+l.Addr().String()+"/door", url.Values{"passcode": {pass}})
	if err != nil {
		t.Fatal(err)
	}
	_, _ = io.Copy(io.Discard, resp.Body)
	_ = resp.Body.Close()
	if resp.StatusCode != 303 || len(resp.Cookies()) != 1 || !resp.Cookies()[0].Secure || resp.Header.Get("Strict-Transport-Security") == "" {
		t.Errorf("over TLS: %d %v %v", resp.StatusCode, resp.Cookies(), resp.Header)
	}
	stop()
	if err := <-ended; err != nil {
		t.Errorf("stopped with %v", err)
	}
}

// A reader that takes nothing does not keep the server from stopping.
func TestStoppingDoesNotWaitForSlowReaders(t *testing.T) {
	s, _, _, _ := guarded(t)
	s.door, s.cfg.Addr = nil, "127.0.0.1:0"
	ctx, stop := context.WithCancel(t.Context())
	l, err := s.Listen(ctx)
	if err != nil {
		t.Fatal(err)
	}
	ended := make(chan error, 1)
	go func() { ended <- s.Serve(ctx, l) }()
	r, w := io.Pipe() // a request whose body never ends
	go func() {
		req, _ := http.NewRequest("POST", "http://"+l.Addr().String()+"/api/pieces", r)
		if resp, err := http.DefaultClient.Do(req); err == nil {
			_ = resp.Body.Close()
		}
	}()
	if _, err := w.Write([]byte("{")); err != nil {
		t.Fatal(err)
	}
	stop()
	if err := <-ended; err != nil {
		t.Errorf("stopped with %v", err)
	}
	_ = w.Close()
}
