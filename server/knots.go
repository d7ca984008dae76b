package server

import (
	"fmt"
	"math"
	"net/http"
	"strconv"

	"github.com/gin-gonic/gin"

	"nimblebight/core/knot"
	"nimblebight/core/knots/patterns"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// knotPicture draws a knot of the catalogue as it looks in a small piece.
func (s *Server) knotPicture(c *gin.Context) {
	id := c.Param("id")
	pic, err := s.views.pics.Get("knot "+id, func() (scene.Picture, error) {
		d, section, err := patterns.Sample(id)
		if err != nil {
			return scene.Picture{}, piece.Problems{{Path: "id", Message: err.Error()}}
		}
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			return scene.Picture{}, err
		}
		l := p.Look()
		from, to := l.Sections[section][0], math.Min(l.Sections[section][1]+3, l.Bottom+2)
		if section == 0 {
			from = -9
		}
		// As much as tells the knot: what is low is not seen through a glass, and of a
		// long row a stretch is enough.
		const least, most = 24, 34 // mm
		from = math.Min(from-2, to-least)
		if one := p.Sections[section].KnotMM; one > 0 {
			to = math.Min(to, from+math.Max(most, one+12))
		}
		view := scene.View{Turn: p.Turn, PerMM: 5, From: from, To: to}
		return scene.Render(l, view), nil
	})
	answer(c, s.views.drawn(pic), err)
}

// offers are the knots as something to add: where so many strands hang, with the
// cords that are not used yet.
func (s *Server) offers(c *gin.Context) {
	hanging, err := strconv.Atoi(c.DefaultQuery("hanging", "0"))
	if err != nil || hanging < 0 || hanging > piece.MostStrands {
		fail(c, http.StatusBadRequest, fmt.Sprintf("Say how many strands hang there: hanging=0 to %d.", piece.MostStrands))
		return
	}
	free := c.QueryArray("free")
	if len(free) > piece.MostStrands {
		fail(c, http.StatusBadRequest, fmt.Sprintf("There are more free cords than a piece can have; name at most %d.", piece.MostStrands))
		return
	}
	c.JSON(http.StatusOK, knot.Offers(hanging, free))
}

// FinishRequest asks for the sequence of a document with its ends finished as they
// say.
type FinishRequest struct {
	Document piece.Document `json:"document"`
	Ends     []plan.End     `json:"ends"`
}

// finish gives the sequence in which ends are finished as they say. It saves
// nothing: the page makes it an edit.
func (s *Server) finish(c *gin.Context) {
	var q FinishRequest
	if err := read(c, &q); err != nil {
		failed(c, err)
		return
	}
	if ps := q.Document.Check(); len(ps) > 0 {
		failed(c, ps)
		return
	}
	seq, err := plan.Finished(q.Document, plan.Options{}, q.Ends)
	answer(c, seq, err)
}

// ends gives the ends of a piece with their finishes.
func (s *Server) ends(c *gin.Context) {
	_, d, _, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	ends, err := plan.EndsOf(d, plan.Options{})
	answer(c, ends, err)
}
