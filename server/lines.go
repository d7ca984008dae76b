package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"time"

	"github.com/gin-gonic/gin"
)

// lines begins an answer that comes a line of JSON at a time. What it gives back writes one; an
// error is that of a page that went away. A line of nil says that the answer still stands.
func lines(c *gin.Context) func(v any) error {
	c.Header("Content-Type", "application/x-ndjson")
	c.Status(http.StatusOK)
	out := http.NewResponseController(c.Writer)
	return func(v any) error {
		var b []byte
		if v != nil {
			var err error
			if b, err = json.Marshal(v); err != nil {
				return fmt.Errorf("writing a line of an answer: %w", err)
			}
		}
		_ = out.SetWriteDeadline(time.Now().Add(writeWithin)) // a test's writer has none
		if _, err := c.Writer.Write(append(b, '\n')); err != nil {
			return err
		}
		c.Writer.Flush()
		return nil
	}
}
