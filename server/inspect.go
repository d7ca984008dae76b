package server

import (
	"fmt"
	"net/http"
	"slices"
	"strconv"

	"github.com/gin-gonic/gin"

	"nimblebight/core/inspect"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

// inspects answers for what to look at on the tied piece, with what is right and wrong
// drawn.
func (s *Server) inspects(r *gin.RouterGroup) {
	r.GET("/pieces/:id/inspect", s.inspect)
	r.GET("/pieces/:id/inspect/:item/:state", s.inspected)
	r.POST("/pieces/:id/judge", s.judge)
	r.GET("/pieces/:id/slips", s.slips)
}

// Inspect is what to inspect on a piece, and its sizes.
type Inspect struct {
	Items []inspect.Item `json:"items"`
	Sizes []inspect.Size `json:"sizes"`
}

// JudgeRequest asks what measured sizes mean; what was not measured is left out.
type JudgeRequest struct {
	LengthMM *float64 `json:"length_mm,omitempty"`
	WidthMM  *float64 `json:"width_mm,omitempty"`
}

// items are what to inspect on the piece of a request.
func (s *Server) items(c *gin.Context) ([]inspect.Item, plan.Plan, error) {
	kept, d, set, p, err := s.planned(c)
	if err != nil {
		return nil, p, err
	}
	items, err := s.views.inspect(kept.Document, d, set, p)
	return items, p, err
}

func (s *Server) inspect(c *gin.Context) {
	items, p, err := s.items(c)
	answer(c, Inspect{items, inspect.Sizes(p)}, err)
}

// inspected draws the right or the wrong state of an item.
func (s *Server) inspected(c *gin.Context) {
	items, _, err := s.items(c)
	if err != nil {
		failed(c, err)
		return
	}
	i := slices.IndexFunc(items, func(i inspect.Item) bool { return i.ID == c.Param("item") })
	var state *inspect.Shown
	if i >= 0 {
		state = map[string]*inspect.Shown{"right": items[i].Right, "wrong": items[i].Wrong}[c.Param("state")]
	}
	if state == nil {
		fail(c, http.StatusNotFound, fmt.Sprintf("There is no picture of item %.20q, %.20q.", c.Param("item"), c.Param("state")))
		return
	}
	view := looked(c, state.Turn)
	view.From, view.To = state.FromMM, state.ToMM
	c.JSON(http.StatusOK, s.views.drawn(scene.Render(state.Plan.Layout(), view)))
}

// SlipAt is a wrong state that the work can be in at a place at the vise, drawn.
type SlipAt struct {
	inspect.Slip
	Picture svg.Picture `json:"picture"`
}

// slips answers the likeliest wrong states when ?done= actions are done.
func (s *Server) slips(c *gin.Context) {
	_, d, set, p, err := s.planned(c)
	if err != nil {
		failed(c, err)
		return
	}
	done, err := strconv.Atoi(c.Query("done"))
	if err != nil || done < 0 || done > p.Actions {
		failed(c, piece.Problems{{Path: "done", Message: fmt.Sprintf("is %.20q; the piece has %d actions", c.Query("done"), p.Actions)}})
		return
	}
	o := s.optionsOf(set)
	out := []SlipAt{}
	for _, slip := range inspect.At(d, p, o, done) {
		view := scene.View{PerMM: 4}
		view.From, view.To = slip.Plan.InHand()
		out = append(out, SlipAt{slip, s.views.drawn(scene.Render(slip.Plan.Look(), view))})
	}
	c.JSON(http.StatusOK, out)
}

// judge says what measured sizes of a piece mean.
func (s *Server) judge(c *gin.Context) {
	var q JudgeRequest
	err := read(c, &q)
	var p plan.Plan
	if err == nil {
		_, _, _, p, err = s.planned(c)
	}
	if err != nil {
		failed(c, err)
		return
	}
	out := []inspect.Verdict{}
	var ps piece.Problems
	for _, size := range inspect.Sizes(p) {
		mm := map[string]*float64{"length": q.LengthMM, "width": q.WidthMM}[size.Key]
		if mm == nil {
			continue
		}
		v, err := size.Judge(*mm)
		if err != nil {
			ps = append(ps, piece.Problem{Path: size.Key + "_mm", Message: err.Error()})
			continue
		}
		out = append(out, v)
	}
	if len(ps) > 0 {
		failed(c, ps)
		return
	}
	c.JSON(http.StatusOK, out)
}
