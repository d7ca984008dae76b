package server

import (
	"fmt"
	"net"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"
	"rsc.io/qr"
)

// Phone is how a piece is opened at the vise on another device: a code to be looked at with
// its camera, or why there is none and the way out.
type Phone struct {
	URL string `json:"url,omitempty"`
	// Code is path data of the code's dark squares, Size of them wide and tall.
	Code string `json:"code,omitempty"`
	Size int    `json:"size,omitempty"`
	Why  string `json:"why,omitempty"`
}

func (s *Server) phone(c *gin.Context) {
	st, _, _, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	if !Reachable(s.cfg.Addr) {
		_, port, _ := net.SplitHostPort(c.Request.Host)
		c.JSON(http.StatusOK, Phone{Why: fmt.Sprintf("This bench is served to this machine alone. Stop it and start it with bight serve --addr 0.0.0.0:%s and a passcode; then a code to open the piece on a phone stands here.", port)})
		return
	}
	host, ok := s.reachedAt(c.Request.Host)
	if !ok {
		c.JSON(http.StatusOK, Phone{Why: "This machine has no address that a phone could reach: connect it to the network that the phone is on."})
		return
	}
	scheme := "http"
	if s.Secure() {
		scheme = "https"
	}
	url := fmt.Sprintf("%s://%s/piece/%d/vise", scheme, host, st.ID)
	code, err := qr.Encode(url, qr.M)
	if err != nil {
		failed(c, fmt.Errorf("drawing the code of %s: %w", url, err))
		return
	}
	c.JSON(http.StatusOK, Phone{URL: url, Code: squares(code), Size: code.Size})
}

// reachedAt is the host and port by which another device reaches the server: those of the
// request where they are not this machine's own, else those of its first address on a
// network.
func (s *Server) reachedAt(asked string) (string, bool) {
	name, port, err := net.SplitHostPort(asked)
	if err != nil {
		name, port = asked, ""
	}
	if !loopback(name) {
		return asked, true
	}
	all, err := net.InterfaceAddrs()
	if err != nil {
		return "", false
	}
	for _, a := range all {
		if n, ok := a.(*net.IPNet); ok && n.IP.To4() != nil && !n.IP.IsLoopback() && !n.IP.IsLinkLocalUnicast() {
			if port == "" {
				return n.IP.String(), true
			}
			return net.JoinHostPort(n.IP.String(), port), true
		}
	}
	return "", false
}

// squares is path data of the dark squares of a code, a run of them in a row at a time.
func squares(code *qr.Code) string {
	var b strings.Builder
	for y := range code.Size {
		for x := 0; x < code.Size; x++ {
			from := x
			for x < code.Size && code.Black(x, y) {
				x++
			}
			if x > from {
				fmt.Fprintf(&b, "M%d %dh%dv1h-%dz", from, y, x-from, x-from)
			}
		}
	}
	return b.String()
}
