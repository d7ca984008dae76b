// Package server answers the web: it calls core and store and decides nothing
// about knots.
package server

import (
	"context"
	"crypto/subtle"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"

	"nimblebight/core/fist"
	"nimblebight/store"
)

//go:generate go run ./gen

//go:embed all:dist
var dist embed.FS

// mostBody is the largest request that is read.
const mostBody = 1 << 20

// Config is how a server is run.
type Config struct {
	Addr string
	// Passcode is asked for when the server can be reached from elsewhere.
	Passcode string
}

// Server serves one store.
type Server struct {
	store *store.Store
	cfg   Config
	views *views
}

// Use gives the server its store, before it serves.
func (s *Server) Use(st *store.Store) { s.store = st }

// New makes a server; st may be nil until [Server.Use]. An address that can be reached from elsewhere needs a
// passcode.
func New(st *store.Store, cfg Config) (*Server, error) {
	host, _, err := net.SplitHostPort(cfg.Addr)
	if err != nil {
		return nil, fmt.Errorf("the address %q should look like 127.0.0.1:7420: %w", cfg.Addr, err)
	}
	if !loopback(host) && cfg.Passcode == "" {
		return nil, fmt.Errorf("%s can be reached from other machines; give a passcode with --passcode, or serve on 127.0.0.1", cfg.Addr)
	}
	go func() { // worked out while the first page loads
		fist.Warm()
		ties()
	}()
	return &Server{store: st, cfg: cfg, views: newViews()}, nil
}

func loopback(host string) bool {
	if host == "localhost" {
		return true
	}
	ip := net.ParseIP(strings.Trim(host, "[]"))
	return ip != nil && ip.IsLoopback()
}

// Handler is everything the server answers.
func (s *Server) Handler() http.Handler {
	gin.SetMode(gin.ReleaseMode)
	r := gin.New()
	r.HandleMethodNotAllowed = true
	r.Use(s.recover, s.guard)
	api := r.Group("/api", gzip.Gzip(gzip.DefaultCompression), func(c *gin.Context) {
		c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, mostBody)
		c.Header("Cache-Control", "no-store")
	})
	s.pieces(api)
	s.bench(api)
	s.fists(api)
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
	return r
}

// recover turns a failure of ours into a problem; nothing raw reaches the page.
func (s *Server) recover(c *gin.Context) {
	defer func() {
		if r := recover(); r != nil {
			slog.Error("failed", "path", c.Request.URL.Path, "error", r)
			fail(c, http.StatusInternalServerError, "Something failed on our side; nothing was changed.")
		}
	}()
	c.Next()
}

// guard keeps other sites' pages and names out, and the page to itself.
func (s *Server) guard(c *gin.Context) {
	h := c.Writer.Header()
	h.Set("Content-Security-Policy", "default-src 'none'; script-src 'self'; style-src 'self'; img-src 'self' data:; font-src 'self'; connect-src 'self'; manifest-src 'self'; base-uri 'none'; form-action 'none'; frame-ancestors 'none'")
	h.Set("X-Content-Type-Options", "nosniff")
	h.Set("Referrer-Policy", "no-referrer")
	h.Set("Cross-Origin-Opener-Policy", "same-origin")
	h.Set("Cross-Origin-Resource-Policy", "same-origin")
	if !s.knownHost(c.Request.Host) {
		fail(c, http.StatusMisdirectedRequest, "This server does not answer to that name.")
		return
	}
	if o := c.GetHeader("Origin"); o != "" && o != "http://"+c.Request.Host && o != "https://"+c.Request.Host {
		fail(c, http.StatusForbidden, "Requests from other sites are refused.")
		return
	}
	if s.cfg.Passcode != "" {
		_, pass, _ := c.Request.BasicAuth()
		if subtle.ConstantTimeCompare([]byte(pass), []byte(s.cfg.Passcode)) != 1 {
			h.Set("WWW-Authenticate", `Basic realm="Nimble Bight"`)
			fail(c, http.StatusUnauthorized, "The passcode is missing or wrong.")
			return
		}
	}
	c.Next()
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

// Serve serves until the context ends, then lets what is under way finish.
// ready is called with the address once it listens.
func (s *Server) Serve(ctx context.Context, ready func(addr string)) error {
	l, err := (&net.ListenConfig{}).Listen(ctx, "tcp", s.cfg.Addr)
	if err != nil {
		return fmt.Errorf("listening on %s: %w", s.cfg.Addr, err)
	}
	srv := &http.Server{Handler: s.Handler(), ReadHeaderTimeout: 10 * time.Second, ReadTimeout: 30 * time.Second, IdleTimeout: 2 * time.Minute}
	ended := make(chan error, 1)
	go func() { ended <- srv.Serve(l) }()
	ready(l.Addr().String())
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	stop, cancel := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
	defer cancel()
	if err := srv.Shutdown(stop); err != nil {
		return fmt.Errorf("stopping: %w", err)
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
