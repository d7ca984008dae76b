package server

import (
	"io/fs"
	"mime"
	"net/http"
	"path"
	"strings"

	"github.com/gin-gonic/gin"
)

// files serves the built web: hashed files for ever, the page itself never
// from a cache, each in the best packing that the browser takes.
func (s *Server) files() gin.HandlerFunc {
	root := distFiles()
	_ = mime.AddExtensionType(".webmanifest", "application/manifest+json")
	return func(c *gin.Context) {
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			fail(c, http.StatusMethodNotAllowed, c.Request.Method+" is not answered here.")
			return
		}
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if _, err := fs.Stat(root, name); err != nil || name == "" || strings.HasPrefix(name, ".") {
			if path.Ext(name) != "" {
				fail(c, http.StatusNotFound, "There is no file "+c.Request.URL.Path+".")
				return
			}
			name = "index.html" // every page of the bench is one file
		}
		if strings.HasPrefix(name, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		} else {
			c.Header("Cache-Control", "no-cache")
		}
		b, err := fs.ReadFile(root, name)
		if err != nil {
			fail(c, http.StatusServiceUnavailable, "The interface is not built in; run make build.")
			return
		}
		kind := mime.TypeByExtension(path.Ext(name))
		if kind == "" {
			kind = "application/octet-stream"
		}
		c.Header("Vary", "Accept-Encoding")
		for _, p := range [][2]string{{"br", ".br"}, {"gzip", ".gz"}} {
			if !strings.Contains(c.GetHeader("Accept-Encoding"), p[0]) {
				continue
			}
			if packed, err := fs.ReadFile(root, name+p[1]); err == nil {
				c.Header("Content-Encoding", p[0])
				b = packed
				break
			}
		}
		c.Data(http.StatusOK, kind, b)
	}
}
