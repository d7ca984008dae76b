package server

import (
	"encoding/json"
	"fmt"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"nimblebight/core/caution"
	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
)

// purpose answers for what a piece is for: what goes through a hole, what no longer holds
// when the mind is changed, and which cautions were read.
func (s *Server) purpose(r *gin.RouterGroup) {
	r.POST("/through", s.through)
	r.POST("/changed", s.changed)
	r.GET("/cautions", s.cautions)
	r.POST("/cautions/:id", s.readCaution)
}

// ThroughRequest asks how cords pass a hole together.
type ThroughRequest struct {
	HoleMM float64   `json:"hole_mm"`
	Cords  []Through `json:"cords"`
}

// Through is so many strands of a stuff.
type Through struct {
	Stuff cord.Stuff `json:"stuff"`
	Times int        `json:"times"`
}

// ThroughAnswer is how they pass: all ways, those that makers try first before others.
type ThroughAnswer struct {
	Ways []knot.Passing `json:"ways"`
	// Goes is the way to take, "" where none will do.
	Goes string `json:"goes"`
	// LeastMM is the narrowest hole that takes them.
	LeastMM float64 `json:"least_mm"`
	// Exact is set where the hole was sought by trying how they lie, and not taken to be
	// filled as by a bundle.
	Exact bool `json:"exact"`
}

// mostThrough is how many strands may be asked about at once.
const mostThrough = 64

func (s *Server) through(c *gin.Context) {
	var q ThroughRequest
	if err := read(c, &q); err != nil {
		failed(c, err)
		return
	}
	var ps piece.Problems
	if !(q.HoleMM >= 0.3 && q.HoleMM <= 500) {
		ps = append(ps, piece.Problem{Path: "hole_mm", Message: fmt.Sprintf("is %v; a hole is between 0.3 and 500 mm wide", q.HoleMM)})
	}
	known := s.known()
	var strands []knot.Strand
	for i, t := range q.Cords {
		if f, why := t.Stuff.Check(); f != "" {
			ps = append(ps, piece.Problem{Path: fmt.Sprintf("cords[%d].stuff.%s", i, f), Message: why})
			continue
		}
		if t.Times < 0 || t.Times > mostThrough {
			ps = append(ps, piece.Problem{Path: fmt.Sprintf("cords[%d].times", i), Message: fmt.Sprintf("is %d; at most %d strands are looked at together", t.Times, mostThrough)})
			continue
		}
		figures := known.Figures(t.Stuff)
		for range t.Times {
			strands = append(strands, knot.Strand{Stuff: t.Stuff, Figures: figures, Diameter: figures.DrawnUpMM})
		}
	}
	if len(ps) == 0 && (len(strands) == 0 || len(strands) > mostThrough) {
		ps = append(ps, piece.Problem{Path: "cords", Message: fmt.Sprintf("name %d strands; say 1 to %d", len(strands), mostThrough)})
	}
	if len(ps) > 0 {
		failed(c, ps)
		return
	}
	out := ThroughAnswer{Ways: knot.Passings(q.HoleMM, strands), Exact: knot.PassesExactly(len(strands))}
	p, goes := knot.Goes(q.HoleMM, strands)
	if goes {
		out.Goes = p.ID
	}
	for _, w := range out.Ways {
		if w.Can && (out.LeastMM == 0 || w.NeedMM < out.LeastMM) {
			out.LeastMM = w.NeedMM
		}
	}
	c.JSON(http.StatusOK, out)
}

// ChangedRequest asks what no longer holds of a piece as it was.
type ChangedRequest struct {
	Before piece.Document `json:"before"`
	After  piece.Document `json:"after"`
}

func (s *Server) changed(c *gin.Context) {
	var q ChangedRequest
	if err := read(c, &q); err != nil {
		failed(c, err)
		return
	}
	known := s.known()
	out, err := plan.Changed(q.Before, q.After, plan.Options{Gauge: known})
	answer(c, out, err)
}

// cautionsRead is the setting that keeps which cautions were read in full.
const cautionsRead = "cautions-read"

// readFrom reads which cautions were read; what is spoilt counts as unread.
func readFrom(raw string) []caution.ID {
	out := []caution.ID{}
	if json.Unmarshal([]byte(raw), &out) != nil || out == nil {
		return []caution.ID{}
	}
	return out
}

func (s *Server) cautions(c *gin.Context) {
	raw, err := s.store.Setting(on(c), cautionsRead, "[]")
	answer(c, readFrom(raw), err)
}

// readCaution notes that a caution was read in full: from then on it is folded.
func (s *Server) readCaution(c *gin.Context) {
	which := caution.ID(c.Param("id"))
	if !slices.ContainsFunc(caution.All(), func(k caution.Caution) bool { return k.ID == which }) {
		fail(c, http.StatusNotFound, fmt.Sprintf("There is no caution %.40q.", which))
		return
	}
	var out []caution.ID
	err := s.store.Change(on(c), cautionsRead, "[]", func(old string) (string, error) {
		if out = readFrom(old); !slices.Contains(out, which) {
			out = append(out, which)
		}
		b, err := json.Marshal(out)
		return string(b), err
	})
	answer(c, out, err)
}
