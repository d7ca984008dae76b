// Package server answers the web: it calls core and store and decides nothing
// about knots.
//
// [New] makes a server, [Server.Listen] takes its port, [Server.Use] gives it
// its store, [Server.Serve] answers. What is promised of it to whom stands in
// docs/security.md.
package server

import (
	"context"
	"crypto/tls"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"runtime/debug"
	"strings"
	"sync/atomic"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"nimblebight/core/knots/ball"
	"nimblebight/core/knots/loose"
	"nimblebight/core/shapes"
	"nimblebight/core/side"
	"nimblebight/device"
	"nimblebight/store"
)

//go:generate go run ./gen

//go:embed all:dist
var dist embed.FS

const (
	// mostBody is the largest request that is read, mostArchive the largest
	// backup that is put back.
	mostBody    = 1 << 20
	mostArchive = 256 << 20
	// A reader that takes no more of an answer for so long is dropped.
	writeWithin = 20 * time.Second
	// Stopping waits so long for what is under way.
	stopWithin = 1500 * time.Millisecond
)

// Config is how a server is run.
type Config struct {
	Addr string
	// Passcode is asked for when the server can be reached from elsewhere.
	Passcode string
	// CertFile and KeyFile, where they are given, make it speak TLS.
	CertFile, KeyFile string
	// Log is where it writes; slog's default where it is nil.
	Log *slog.Logger
}

// Server serves one store.
type Server struct {
	store  *store.Store
	cfg    Config
	log    *slog.Logger
	views  *views
	learnt learnt
	door   *door // nil where no passcode is asked for
	tls    *tls.Config
	desk   *device.Desk
	// ready is set when the store is there; before it the page is told to wait.
	ready atomic.Bool
}

// Use gives the server its store.
func (s *Server) Use(st *store.Store) {
	s.store = st
	shapes.Shelf(func(key string) ([]byte, bool) {
		b, ok, err := st.Shape(context.Background(), key)
		if err != nil {
			s.log.Warn("reading a shape that was drawn up", "error", err)
		}
		return b, ok
	}, func(key string, b []byte) {
		if err := st.KeepShape(context.Background(), key, b); err != nil {
			s.log.Warn("keeping a shape that was drawn up", "error", err)
		}
	})
	s.chooseDevices(context.Background())
	s.ready.Store(true)
}

// New makes a server; st may be nil until [Server.Use]. An address that can be
// reached from elsewhere needs a passcode.
func New(st *store.Store, cfg Config) (*Server, error) {
	var err error
	if _, _, err = net.SplitHostPort(cfg.Addr); err != nil {
		return nil, fmt.Errorf("the address %q should look like 127.0.0.1:7420: %w", cfg.Addr, err)
	}
	if Reachable(cfg.Addr) && cfg.Passcode == "" {
		return nil, fmt.Errorf("%s can be reached from other machines; give a passcode in a file with --passcode-file, or serve on 127.0.0.1", cfg.Addr)
	}
	s := &Server{cfg: cfg, log: cfg.Log, learnt: learnt{anew: make(chan struct{}, 1)}, desk: device.NewDesk()}
	s.views = newViews(s.known)
	if s.log == nil {
		s.log = slog.Default()
	}
	if cfg.Passcode != "" {
		if s.door, err = newDoor(cfg.Passcode, s.log); err != nil {
			return nil, err
		}
	}
	if (cfg.CertFile == "") != (cfg.KeyFile == "") {
		return nil, errors.New("--tls-cert and --tls-key belong together; give both")
	}
	if cfg.CertFile != "" {
		pair, err := tls.LoadX509KeyPair(cfg.CertFile, cfg.KeyFile)
		if err != nil {
			return nil, fmt.Errorf("reading the certificate and its key: %w", err)
		}
		s.tls = &tls.Config{Certificates: []tls.Certificate{pair}, MinVersion: tls.VersionTLS12}
	}
	if st != nil {
		s.Use(st)
	}
	go func() { // worked out while the first page loads
		err := side.Guard(func() error { loose.Warm(); ball.Warm(); return nil })
		if err != nil {
			s.panicked("warming up", err)
		}
	}()
	return s, nil
}

// panicked writes down that something panicked, with its stack.
func (s *Server) panicked(what string, v any) {
	stack := debug.Stack()
	var p *side.Panic
	if err, ok := v.(error); ok && errors.As(err, &p) {
		stack = p.Stack
	}
	s.log.Error("a fault of the program", "in", what, "error", fmt.Sprint(v), "stack", string(stack))
}

func loopback(host string) bool {
	if host == "localhost" {
		return true
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return ip != nil && ip.IsLoopback()
}

// Plain tells whether a passcode would go over the network for all to read.
func (s *Server) Plain() bool { return !s.Secure() && Reachable(s.cfg.Addr) }

// Handler is everything the server answers.
func (s *Server) Handler() http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.RedirectTrailingSlash = false
	r.Use(s.recover)
	api := r.Group("/api", s.waiting, gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedPaths([]string{"/api/backup", "/api/live/", "/api/devices"})), func(c *gin.Context) {
		most := int64(mostBody)
		if c.FullPath() == "/api/restore" {
			most = mostArchive
		}
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, most)
		c.Header("Cache-Control", "no-store")
	})
	s.pieces(api)
	s.histories(api)
	s.bench(api)
	s.places(api)
	s.fists(api)
	s.measured(api)
	s.devices(api)
	s.folder(api)
	if s.door != nil {
		s.door.routes(r)
	}
	files := s.files()
	r.NoRoute(func(c *gin.Context) {
		if strings.HasPrefix(c.Request.URL.Path, "/api/") {
			fail(c, http.StatusNotFound, "There is nothing at "+c.Request.URL.Path+".")
			return
		}
		files(c)
	})
	r.NoMethod(func(c *gin.Context) {
		fail(c, http.StatusMethodNotAllowed, c.Request.Method+" is not answered at "+c.Request.URL.Path+".")
	})
	return s.guard(heads(r))
}

// heads answers HEAD as GET without its body.
func heads(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.Method == http.MethodHead {
			r = r.Clone(r.Context())
			r.Method = http.MethodGet
			w = bodiless{w}
		}
		next.ServeHTTP(w, r)
	})
}

type bodiless struct{ http.ResponseWriter }

func (b bodiless) Write(p []byte) (int, error) { return len(p), nil }
func (b bodiless) Unwrap() http.ResponseWriter { return b.ResponseWriter }

// recover turns a failure of ours into a problem; nothing raw reaches the page.
func (s *Server) recover(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			s.panicked(c.Request.Method+" "+c.Request.URL.Path, r)
			fail(c, http.StatusInternalServerError, "Something failed on our side; nothing was changed.")
		}
	}()
	c.Next()
}

// waiting answers while the data is still being opened.
func (s *Server) waiting(c *gin.Context) {
	if !s.ready.Load() {
		c.Header("Retry-After", "1")
		send(c, Problem{Status: http.StatusServiceUnavailable, Code: "opening", Detail: "The data is still being opened."})
	}
}

// guard stands before everything: it keeps other sites' pages and names out, and
// the page to itself. Redirects and what is not there go through it too.
func (s *Server) guard(next http.Handler) http.Handler {
	return http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		h := w.Header()
		h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data: blob:; font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'")
		h.Set("X-Content-Type-Options", "nosniff")
		h.Set("X-Frame-Options", "DENY")
		h.Set("Referrer-Policy", "no-referrer")
		h.Set("Cross-Origin-Opener-Policy", "same-origin")
		h.Set("Cross-Origin-Resource-Policy", "same-origin")
		if s.tls != nil {
			h.Set("Strict-Transport-Security", "max-age=31536000")
		}
		switch o := r.Header.Get("Origin"); {
		case !s.knownHost(r.Host):
			refuse(w, http.StatusMisdirectedRequest, "This server does not answer to that name.")
			return
		case o != "" && o != "http://"+r.Host && o != "https://"+r.Host:
			refuse(w, http.StatusForbidden, "Requests from other sites are refused.")
			return
		case o == "" && foreign(r):
			refuse(w, http.StatusForbidden, "Requests from other sites are refused.")
			return
		}
		if s.door != nil && !s.door.lets(w, r) {
			return
		}
		next.ServeHTTP(w, r)
	})
}

// foreign tells whether a browser says that another site's page sent a request
// that changes something.
func foreign(r *http.Request) bool {
	if r.Method == http.MethodGet || r.Method == http.MethodHead {
		return false
	}
	from := r.Header.Get("Sec-Fetch-Site")
	return from == "cross-site" || from == "same-site"
}

// knownHost tells whether a Host header names this server: its own address, or
// a loopback name. Behind a passcode any name is let in, for it is not known
// by which one a tablet on the bench reaches it.
func (s *Server) knownHost(host string) bool {
	name, _, err := net.SplitHostPort(host)
	if err != nil {
		name = host
	}
	return loopback(name) || host == s.cfg.Addr || s.cfg.Passcode != ""
}

// Listen takes the port, so that nothing else is begun where it cannot be had.
func (s *Server) Listen(ctx context.Context) (net.Listener, error) {
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", s.cfg.Addr)
	if err != nil {
		return nil, fmt.Errorf("listening on %s: %w", s.cfg.Addr, err)
	}
	if s.tls != nil {
		l = tls.NewListener(l, s.tls)
	}
	return l, nil
}

// Serve serves until the context ends, then lets what is under way finish, for
// [stopWithin] at most.
func (s *Server) Serve(ctx context.Context, l net.Listener) error {
	// What streams or draws ends with the server.
	work, cancel := context.WithCancel(context.WithoutCancel(ctx))
	defer cancel()
	defer s.desk.Close()
	srv := &http.Server{Handler: s.Handler(), ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 60 * time.Second, WriteTimeout: writeWithin,
		IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 64 << 10, BaseContext: func(net.Listener) context.Context { return work },
		ErrorLog: slog.NewLogLogger(s.log.Handler(), slog.LevelDebug)}
	ended := make(chan error, 1)
	go func() { ended <- srv.Serve(l) }()
	go s.tend(work)
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	cancel()
	stop, done := context.WithTimeout(context.WithoutCancel(ctx), stopWithin)
	defer done()
	if err := srv.Shutdown(stop); err != nil { // a slow reader does not keep it
		_ = srv.Close()
	}
	if err := <-ended; !errors.Is(err, http.ErrServerClosed) {
		return err
	}
	return nil
}

func distFiles() fs.FS {
	sub, err := fs.Sub(dist, "dist")
	if err != nil {
		panic(err) // the folder is embedded
	}
	return sub
}

// Reachable tells whether an address can be reached from other machines.
func Reachable(addr string) bool {
	host, _, err := net.SplitHostPort(addr)
	return err == nil && !loopback(host)
}

// Secure tells whether it speaks TLS.
func (s *Server) Secure() bool { return s.tls != nil }
