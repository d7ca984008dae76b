package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"log/slog"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"nimblebight/core/piece"
	"nimblebight/store"
)

// send ends a request with a problem.
func send(c *gin.Context, p Problem) {
	p.Type = "about:blank"
	p.Title = http.StatusText(p.Status)
	b, err := json.Marshal(p)
	if err != nil {
		b = []byte(`{"type":"about:blank","status":500}`)
	}
	c.Abort()
	c.Data(p.Status, "application/problem+json", b)
}

func fail(c *gin.Context, status int, detail string, errs ...piece.Problem) {
	send(c, Problem{Status: status, Detail: detail, Errors: errs})
}

// failed ends a request with the problem that an error of core or store is.
func failed(c *gin.Context, err error) {
	var ps piece.Problems
	var slip *piece.NotationError
	var tooLarge *http.MaxBytesError
	var body *bodyError
	switch {
	case errors.As(err, &ps):
		fail(c, http.StatusUnprocessableEntity, "This cannot be understood: "+ps.Error()+".", ps...)
	case errors.As(err, &slip):
		fail(c, http.StatusUnprocessableEntity, slip.Error()+".", piece.Problem{Path: "line", Message: slip.Message, Line: 1, Column: slip.Column})
	case errors.Is(err, store.ErrNotFound):
		fail(c, http.StatusNotFound, "It is not there (any more): "+err.Error()+".")
	case errors.As(err, &tooLarge):
		fail(c, http.StatusRequestEntityTooLarge, fmt.Sprintf("The request is larger than %d bytes.", tooLarge.Limit))
	case errors.As(err, &body):
		fail(c, http.StatusBadRequest, body.Error())
	default:
		slog.Error("failed", "path", c.Request.URL.Path, "error", err)
		fail(c, http.StatusInternalServerError, "Something failed on our side; nothing was changed.")
	}
}

// bodyError is a request whose body cannot be read.
type bodyError struct{ why string }

func (e *bodyError) Error() string { return e.why }

// read reads the body into v.
func read(c *gin.Context, v any) error {
	b, err := io.ReadAll(c.Request.Body)
	if err != nil {
		return err
	}
	return parse(b, v)
}

func parse(b []byte, v any) error {
	if err := json.Unmarshal(b, v); err != nil {
		return &bodyError{"The request is not the JSON that is expected here: " + err.Error() + "."}
	}
	return nil
}

func id(c *gin.Context, name string) (int64, error) {
	n, err := strconv.ParseInt(c.Param(name), 10, 64)
	if err != nil || n < 1 {
		return 0, fmt.Errorf("%s %q: %w", name, c.Param(name), store.ErrNotFound)
	}
	return n, nil
}

// answer sends v, or the problem that err is.
func answer(c *gin.Context, v any, err error) {
	if err != nil {
		failed(c, err)
		return
	}
	if v == nil {
		c.Status(http.StatusNoContent)
		return
	}
	c.JSON(http.StatusOK, v)
}
