package server

import (
	"encoding/json"
	"fmt"
	"strings"

	"github.com/gin-gonic/gin"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/reach"
	"nimblebight/core/scene"
	"nimblebight/formats/document"
	"nimblebight/store"
)

// reaches answers how far cord goes, in hand, in the middle of a piece and swapped.
func (s *Server) reaches(r *gin.RouterGroup) {
	r.POST("/pieces/:id/reach", func(c *gin.Context) {
		var h reach.Hand
		d, o, _, err := s.asksReach(c, &h)
		var out reach.Reached
		if err == nil {
			out, err = reach.FromHand(d, o, h)
		}
		answer(c, out, err)
	})
	r.POST("/pieces/:id/swap", func(c *gin.Context) {
		var q SwapRequest
		d, o, _, err := s.asksReach(c, &q)
		var out []reach.Swapped
		if err == nil {
			out, err = reach.Swap(d, o, q.Cords, q.Stuff)
		}
		answer(c, out, err)
	})
	r.POST("/into", s.into)
	r.GET("/pieces/:id/to-wanted", func(c *gin.Context) {
		_, d, set, err := s.opened(c)
		var out []reach.Grown
		if err == nil {
			out, err = reach.ToWanted(d, s.optionsOf(set))
		}
		answer(c, out, err)
	})
	r.POST("/pieces/:id/middle", s.middle)
	r.POST("/pieces/:id/replan", s.replan)
	r.POST("/draw", s.draw)
}

// SwapRequest puts a stuff in the place of that of some cords.
type SwapRequest struct {
	Cords []string   `json:"cords"`
	Stuff cord.Stuff `json:"stuff"`
}

// IntoRequest asks for a document in which a section is another knot.
type IntoRequest struct {
	Document piece.Document `json:"document"`
	Section  int            `json:"section"` // from 0
	To       knot.Section   `json:"to"`
	Keeps    reach.Keeps    `json:"keeps" jsonschema:"enum=count,enum=length"`
}

// into changes a section of a document into another knot; what is refused is said, and nothing
// is kept.
func (s *Server) into(c *gin.Context) {
	var q struct {
		IntoRequest
		Document json.RawMessage `json:"document"`
	}
	if err := read(c, &q); err != nil {
		failed(c, err)
		return
	}
	was, err := document.Read(q.Document)
	if err != nil {
		failed(c, err)
		return
	}
	set, err := s.settings(c)
	if err != nil {
		failed(c, err)
		return
	}
	o := s.optionsOf(set)
	d, err := reach.Into(was, q.Section, q.To, q.Keeps, o)
	answer(c, d, err)
}

// MiddleRequest is a place in the middle of a piece: actions done at the vise, or a
// section and its knots, and what hangs of each leg. CutMM is what the legs were cut to,
// where that is not as planned.
type MiddleRequest struct {
	Done *int `json:"done,omitempty"`
	reach.Place
	CutMM map[string]float64 `json:"cut_mm,omitempty"`
}

// ReplanRequest keeps a way on that was offered, and why it was taken.
type ReplanRequest struct {
	Revision int64          `json:"revision"`
	Document piece.Document `json:"document"`
	Why      string         `json:"why"`
}

// asksReach reads a request about a piece.
func (s *Server) asksReach(c *gin.Context, v any) (d piece.Document, o plan.Options, set Settings, err error) {
	if err = read(c, v); err != nil {
		return
	}
	if _, d, set, err = s.opened(c); err == nil {
		o = s.optionsOf(set)
	}
	return
}

func (s *Server) middle(c *gin.Context) {
	var q MiddleRequest
	d, o, _, err := s.asksReach(c, &q)
	if err != nil {
		failed(c, err)
		return
	}
	p, err := plan.Make(d, o)
	if err != nil {
		failed(c, err)
		return
	}
	if q.Done != nil {
		q.Section, q.Tied = p.At(*q.Done)
	}
	cut := map[string]float64{}
	for _, k := range p.Cords {
		for n, l := range k.Legs {
			cut[fmt.Sprintf("%s.%d", k.ID, n+1)] = l.CutMM
		}
	}
	for name, v := range q.CutMM {
		cut[name] = v
	}
	out, err := reach.Middle(d, o, q.Place, cut)
	answer(c, out, err)
}

// replan saves a way on, and writes into the log why it was taken.
func (s *Server) replan(c *gin.Context) {
	var req struct {
		Revision int64           `json:"revision"`
		Document json.RawMessage `json:"document"`
		Why      string          `json:"why"`
	}
	err := read(c, &req)
	if err == nil && (strings.TrimSpace(req.Why) == "" || len([]rune(req.Why)) > 2000) {
		err = piece.Problems{{Path: "why", Message: "is empty or longer than 2000 letters; say why the piece is planned anew"}}
	}
	var d piece.Document
	if err == nil {
		d, err = document.Read(req.Document)
	}
	if err != nil {
		failed(c, err)
		return
	}
	if !s.keep(c, req.Revision, d) {
		return
	}
	n, err := id(c, "id")
	if err == nil {
		_, err = s.store.AddLog(on(c), store.Log{PieceID: n, Note: req.Why, Cords: []byte("null"), Counts: store.CountsNot})
	}
	if err != nil { // the piece is saved; only its note is missing
		s.log.Warn("keeping why a piece was planned anew", "piece", n, "error", err)
	}
}

// draw draws a document that is not kept: a way on that is offered.
func (s *Server) draw(c *gin.Context) {
	var req struct {
		Document json.RawMessage `json:"document"`
	}
	err := read(c, &req)
	var d piece.Document
	if err == nil {
		d, err = document.Read(req.Document)
	}
	var set Settings
	if err == nil {
		set, err = s.settings(c)
	}
	var pic scene.Picture
	if err == nil {
		pic, err = s.views.picture(req.Document, d, set, hand{}, looked(c, 0))
	}
	answer(c, s.views.drawn(pic), err)
}
