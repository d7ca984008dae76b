package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"strconv"
	"unicode/utf8"

	"github.com/gin-gonic/gin"

	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/formats/archive"
	"nimblebight/store"
)

// send ends a request with a problem.
func send(c *gin.Context, p Problem) {
	c.Abort()
	c.Data(p.Status, "application/problem+json", p.json())
}

func (p Problem) json() []byte {
	p.Type = "about:blank"
	p.Title = http.StatusText(p.Status)
	b, err := json.Marshal(p)
	if err != nil {
		b = []byte(`{"type":"about:blank","status":500}`)
	}
	return b
}

// refuse ends a request before it comes to the router.
func refuse(w http.ResponseWriter, status int, detail string) {
	w.Header().Set("Content-Type", "application/problem+json")
	w.WriteHeader(status)
	_, _ = w.Write(Problem{Status: status, Detail: detail}.json())
}

func fail(c *gin.Context, status int, detail string, errs ...piece.Problem) {
	send(c, Problem{Status: status, Detail: detail, Errors: errs})
}

// failed ends a request with the problem that an error of core or store is.
func failed(c *gin.Context, err error) {
	var ps piece.Problems
	var slip *notation.Slip
	var tooLarge *http.MaxBytesError
	var body *bodyError
	var fault *store.Fault
	var no *archive.Refused
	switch {
	case errors.As(err, &ps):
		fail(c, http.StatusUnprocessableEntity, "This cannot be understood: "+ps.Spoken()+".", ps...)
	case errors.As(err, &slip):
		fail(c, http.StatusUnprocessableEntity, slip.Error()+".", piece.Problem{Path: "line", Message: slip.Message, Line: 1, Column: slip.Column})
	case errors.As(err, &no):
		fail(c, http.StatusUnprocessableEntity, capital(no.Error())+".")
	case errors.Is(err, store.ErrNotFound):
		fail(c, http.StatusNotFound, "It is not there (any more): "+err.Error()+".")
	case errors.As(err, &fault):
		if fault.Trouble.Passes() {
			c.Header("Retry-After", "2")
		}
		send(c, Problem{Status: http.StatusServiceUnavailable, Code: string(fault.Trouble), Detail: capital(fault.Error()) + "."})
	case errors.As(err, &tooLarge):
		fail(c, http.StatusRequestEntityTooLarge, fmt.Sprintf("The request is larger than %d bytes.", tooLarge.Limit))
	case errors.As(err, &body):
		fail(c, http.StatusBadRequest, body.Error())
	case c.Request.Context().Err() != nil: // nobody waits for the answer any more
		c.Abort()
	default:
		_ = c.Error(err)
		fail(c, http.StatusInternalServerError, "Something failed on our side; nothing was changed.")
	}
}

// capital begins a sentence.
func capital(s string) string {
	r, n := utf8.DecodeRuneInString(s)
	if r >= 'a' && r <= 'z' {
		return string(r-'a'+'A') + s[n:]
	}
	return s
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
		return 0, fmt.Errorf("%s %.40q: %w", name, c.Param(name), store.ErrNotFound)
	}
	return n, nil
}

// answer sends v, or the problem that err is. Nothing is sent before all of it
// could be written as JSON.
func answer(c *gin.Context, v any, err error) {
	if err != nil {
		failed(c, err)
		return
	}
	if v == nil {
		c.Status(http.StatusNoContent)
		return
	}
	b, err := json.Marshal(v)
	if err != nil {
		failed(c, fmt.Errorf("writing an answer: %w", err))
		return
	}
	c.Data(http.StatusOK, "application/json; charset=utf-8", b)
}
