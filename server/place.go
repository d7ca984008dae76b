package server

import (
	"errors"
	"fmt"
	"net/http"

	"github.com/gin-gonic/gin"

	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/shapes"
	"nimblebight/store"
)

// places answers for the place at the vise, and for what is being drawn up.
func (s *Server) places(r *gin.RouterGroup) {
	r.GET("/pieces/:id/place", s.placeOf)
	r.PUT("/pieces/:id/place", s.goOn)
	r.GET("/live/:id", s.drawing)
	r.GET("/paces", s.paces)
}

func (s *Server) placeOf(c *gin.Context) {
	p, err := s.stored(c)
	if err != nil {
		failed(c, err)
		return
	}
	b, err := s.open(c, p)
	if err != nil {
		failed(c, err)
		return
	}
	at := p.Place
	at.Done = b.Done
	times, err := s.timesAt(c, p, at)
	answer(c, PlaceAnswer{Done: b.Done, Revision: p.Revision, Device: at.Device, Times: times}, err)
}

// goOn takes a step at the vise, from the place that the window knew.
func (s *Server) goOn(c *gin.Context) {
	var req PlaceRequest
	err := read(c, &req)
	var n int64
	if err == nil {
		n, err = id(c, "id")
	}
	const least, most = -1000, 100 * piece.MostKnots
	if err == nil && (req.Done < least || req.Done > most || req.From < least || req.From > most) {
		err = &bodyError{"The place at the vise is not a number of actions."}
	}
	if err == nil && len([]rune(req.Device)) > 60 {
		err = &bodyError{"The device's name is longer than 60 letters."}
	}
	if err == nil {
		err = checkSteps(req.Steps)
	}
	var p store.Piece
	var pl plan.Plan
	if err == nil {
		if p, _, _, pl, err = s.planned(c); err != nil && len(req.Steps) == 0 && p.ID != 0 {
			err = nil // it cannot be tied as it is; its place is kept all the same
		} else if err == nil && p.Revision == req.Revision && (req.Done > pl.Actions || req.Done < -len(pl.Ready)) {
			err = piece.Problems{{Path: "done", Message: fmt.Sprintf("is %d; the piece has %d moves on the table and %d actions, and its place stays where it was", req.Done, len(pl.Ready), pl.Actions)}}
		}
	}
	if err != nil {
		failed(c, err)
		return
	}
	place, elsewhere, err := s.store.Go(on(c), n, store.Step{From: req.From, To: req.Done, Revision: req.Revision, Device: req.Device, Times: took(pl, req.Steps)})
	if errors.Is(err, store.ErrStale) {
		p, err := s.store.Piece(on(c), n)
		if err != nil {
			failed(c, err)
			return
		}
		now, err := s.open(c, p)
		if err != nil {
			failed(c, err)
			return
		}
		send(c, Problem{Status: http.StatusConflict, Code: "stale", Detail: "The piece was changed in another window; its steps are other ones now.", Current: now})
		return
	}
	out := PlaceAnswer{Done: place.Done, Revision: req.Revision, Device: place.Device, Elsewhere: elsewhere}
	if err == nil && len(req.Steps) > 0 {
		out.Times, err = s.timesAt(c, p, place)
	}
	answer(c, out, err)
}

// drawing draws up what a piece still wants and tells how far it has come, a
// line of JSON at a time, till all is there or the page goes away.
func (s *Server) drawing(c *gin.Context) {
	p, _, set, pl, err := s.planned(c)
	if err != nil {
		failed(c, err)
		return
	}
	line := lines(c)
	if err := shapes.DrawLive(c.Request.Context(), pl.ToDraw(), func(st shapes.State) { _ = line(st) }); err != nil {
		return // the page went away
	}
	if len(pl.ToDraw()) > 0 { // its figures are other ones now
		if err := s.store.Sum(on(c), p.Revision, s.sum(p.Document, set)); err != nil {
			s.log.Warn("summing a piece up", "error", err)
		}
	}
	_ = line(gin.H{"all": true})
}
