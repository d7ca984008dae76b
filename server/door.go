package server

import (
	"crypto/rand"
	"embed"
	"encoding/hex"
	"fmt"
	"html/template"
	"log/slog"
	"net"
	"net/http"
	"net/url"
	"strings"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
	"golang.org/x/crypto/bcrypt"
)

// door asks for the passcode: a page to enter it, then a session that ends.
//
// Invariants: the passcode itself is never kept, only its slow hash; a session's
// token is 256 random bits and ends after sessionLasts; a cookie cannot be read
// by scripts and is not sent by other sites' pages; after freeTries wrong tries
// an address waits twice as long with each further one. A try counts as wrong
// from its beginning till it was found right, so that many at once are no more
// than one after the other.
type door struct {
	hash []byte
	log  *slog.Logger
	now  func() time.Time

	lock     sync.Mutex
	sessions map[string]time.Time // when each ends
	tries    map[string]*tries    // by address
	slow     chan struct{}        // hashing is dear: so many at a time
}

type tries struct {
	wrong int
	until time.Time // no try is looked at before
	last  time.Time
}

const (
	cookieName   = "nimble-bight-session"
	sessionLasts = 12 * time.Hour
	mostSessions = 1000
	freeTries    = 5
	longestWait  = 15 * time.Minute
	hashCost     = 12
	// LeastPasscode is how long a passcode must be.
	LeastPasscode = 8
	mostPasscode  = 72 // more is not looked at by the hash
)

//go:embed door_files
var doorFiles embed.FS

var doorPage = template.Must(template.ParseFS(doorFiles, "door_files/door.html"))

func newDoor(passcode string, log *slog.Logger) (*door, error) {
	if n := len(passcode); n < LeastPasscode || n > mostPasscode {
		return nil, fmt.Errorf("the passcode has %d letters; take %d to %d", n, LeastPasscode, mostPasscode)
	}
	hash, err := bcrypt.GenerateFromPassword([]byte(passcode), hashCost)
	if err != nil {
		return nil, fmt.Errorf("hashing the passcode: %w", err)
	}
	return &door{hash: hash, log: log, now: time.Now, sessions: map[string]time.Time{}, tries: map[string]*tries{}, slow: make(chan struct{}, 2)}, nil
}

// lets tells whether a request comes in; otherwise it is answered here.
func (d *door) lets(w http.ResponseWriter, r *http.Request) bool {
	switch r.URL.Path {
	case "/door", "/door.css", "/icon.svg":
		return true
	}
	if c, err := r.Cookie(cookieName); err == nil && d.open(c.Value) {
		return true
	}
	if strings.HasPrefix(r.URL.Path, "/api/") || r.Method != http.MethodGet {
		refuse(w, http.StatusUnauthorized, "The passcode is asked for; open this page anew to enter it.")
		return false
	}
	http.Redirect(w, r, "/door?to="+url.QueryEscape(r.URL.Path), http.StatusSeeOther)
	return false
}

func (d *door) open(token string) bool {
	d.lock.Lock()
	defer d.lock.Unlock()
	ends, ok := d.sessions[token]
	if ok && d.now().After(ends) {
		delete(d.sessions, token)
		return false
	}
	return ok
}

// routes are the door's own pages.
func (d *door) routes(r *gin.Engine) {
	r.GET("/door", func(c *gin.Context) { d.page(c, http.StatusOK, "") })
	r.POST("/door", d.enter)
	r.POST("/door/leave", d.leave)
	r.GET("/door.css", func(c *gin.Context) {
		b, err := doorFiles.ReadFile("door_files/door.css")
		if err != nil {
			failed(c, err)
			return
		}
		c.Data(http.StatusOK, "text/css; charset=utf-8", b)
	})
}

func (d *door) page(c *gin.Context, status int, slip string) {
	c.Header("Cache-Control", "no-store")
	c.Header("Content-Type", "text/html; charset=utf-8")
	c.Status(status)
	if err := doorPage.Execute(c.Writer, map[string]string{"Slip": slip, "To": within(c.Query("to"))}); err != nil {
		d.log.Warn("writing the page of the passcode", "error", err)
	}
}

// within is a path of this site, the rack for anything else.
func within(to string) string {
	if u, err := url.Parse(to); err != nil || u.IsAbs() || u.Host != "" || !strings.HasPrefix(to, "/") || strings.HasPrefix(to, "//") || strings.Contains(to, `\`) {
		return "/"
	}
	return to
}

// enter looks at a try.
func (d *door) enter(c *gin.Context) {
	from, _, err := net.SplitHostPort(c.Request.RemoteAddr)
	if err != nil {
		from = c.Request.RemoteAddr
	}
	c.Request.Body = http.MaxBytesReader(c.Writer, c.Request.Body, 4<<10)
	n, wait := d.try(from)
	if wait > 0 {
		c.Header("Retry-After", fmt.Sprint(int(wait.Seconds())+1))
		d.page(c, http.StatusTooManyRequests, fmt.Sprintf("Too many wrong tries from here. Wait %s, then try again.", pause(wait)))
		return
	}
	pass := c.PostForm("passcode")
	d.slow <- struct{}{}
	right := len(pass) <= mostPasscode && bcrypt.CompareHashAndPassword(d.hash, []byte(pass)) == nil
	<-d.slow
	if !right {
		d.log.Warn("a wrong passcode", "from", from, "tries", n)
		d.page(c, http.StatusUnauthorized, "That is not the passcode.")
		return
	}
	http.SetCookie(c.Writer, d.session(from, c.Request.TLS != nil))
	c.Redirect(http.StatusSeeOther, within(c.Query("to")))
}

// pause is a wait in words.
func pause(d time.Duration) string {
	if d > time.Minute {
		return fmt.Sprintf("%d minutes", int(d.Minutes())+1)
	}
	return fmt.Sprintf("%d seconds", int(d.Seconds())+1)
}

// try begins a try: how many it is now that were not right, or how long is to be
// waited first.
func (d *door) try(from string) (n int, wait time.Duration) {
	d.lock.Lock()
	defer d.lock.Unlock()
	now := d.now()
	for a, t := range d.tries { // what is long past is forgotten
		if now.Sub(t.last) > time.Hour {
			delete(d.tries, a)
		}
	}
	t := d.tries[from]
	if t == nil {
		t = &tries{}
		d.tries[from] = t
	}
	if wait := t.until.Sub(now); wait > 0 {
		return t.wrong, wait
	}
	t.wrong++
	t.last = now
	if over := t.wrong - freeTries; over >= 0 {
		t.until = now.Add(min(longestWait, 2*time.Second<<min(over, 20)))
	}
	return t.wrong, 0
}

// session begins a session.
func (d *door) session(from string, secure bool) *http.Cookie {
	b := make([]byte, 32)
	_, _ = rand.Read(b) // it does not fail
	token := hex.EncodeToString(b)
	d.lock.Lock()
	defer d.lock.Unlock()
	delete(d.tries, from)
	now := d.now()
	oldest := ""
	for t, ends := range d.sessions {
		if now.After(ends) {
			delete(d.sessions, t)
		} else if oldest == "" || ends.Before(d.sessions[oldest]) {
			oldest = t
		}
	}
	if len(d.sessions) >= mostSessions {
		delete(d.sessions, oldest)
	}
	d.sessions[token] = now.Add(sessionLasts)
	return &http.Cookie{Name: cookieName, Value: token, Path: "/", HttpOnly: true, Secure: secure, SameSite: http.SameSiteStrictMode, MaxAge: int(sessionLasts.Seconds())}
}

// leave ends a session.
func (d *door) leave(c *gin.Context) {
	if ck, err := c.Request.Cookie(cookieName); err == nil {
		d.lock.Lock()
		delete(d.sessions, ck.Value)
		d.lock.Unlock()
	}
	http.SetCookie(c.Writer, &http.Cookie{Name: cookieName, Path: "/", HttpOnly: true, SameSite: http.SameSiteStrictMode, MaxAge: -1})
	c.Redirect(http.StatusSeeOther, "/door")
}
