package server

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"sync"

	"github.com/gin-gonic/gin"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
)

// knotPicture draws a knot of the catalogue as it looks in a small piece.
func (s *Server) knotPicture(c *gin.Context) {
	id := c.Param("id")
	pic, err := s.views.pics.Get("knot "+id, func() (scene.Picture, error) {
		d, section, err := piece.Sample(id)
		if err != nil {
			return scene.Picture{}, piece.Problems{{Path: "id", Message: err.Error()}}
		}
		p, err := plan.Make(d, plan.Options{})
		if err != nil {
			return scene.Picture{}, err
		}
		l := p.Look()
		view := scene.View{PerMM: 3, From: l.Sections[section][0] - 4, To: math.Min(l.Sections[section][1]+5, l.Bottom+2)}
		if section == 0 {
			view.From = -9
		}
		const least = 26 // mm, so that a low section is not seen through a glass
		if tall := view.To - view.From; tall < least {
			view.From -= least - tall
		}
		return scene.Draw(l, stuffs(d), view), nil
	})
	answer(c, pic, err)
}

// patternPicture draws a starting pattern.
func (s *Server) patternPicture(c *gin.Context) {
	id := c.Param("id")
	for _, p := range piece.Patterns() {
		if p.ID != id {
			continue
		}
		b, err := json.Marshal(p.Document)
		if err != nil {
			failed(c, err)
			return
		}
		pic, err := s.views.picture(b, p.Document, Settings{}, hand{}, scene.View{PerMM: 1.5})
		answer(c, pic, err)
		return
	}
	fail(c, http.StatusNotFound, fmt.Sprintf("There is no pattern %s.", id))
}

// ties tells on how many strands each knot can be tied, up to eight; none
// where it does not matter.
var ties = sync.OnceValue(func() map[string][]int {
	out := map[string][]int{}
	stuff := piece.Kernmantle(4, "#000000")
	for _, k := range knot.All() {
		if k.Family == "whole sections" || k.Family == "mounts" || k.Family == "ends" || k.ID == "fold-back" {
			continue
		}
		s, err := knot.New(k.ID)
		if err != nil {
			continue
		}
		var can []int
		for n := 1; n <= 8; n++ {
			w := knot.Work{Section: s, BarMM: 2}
			for i := range n {
				w.Leads = append(w.Leads, knot.Lead{Cord: i, Stuff: stuff, Diameter: stuff.DrawnUp(), At: knot.Vec{X: float64(i) * stuff.DrawnUp()}, Dir: knot.Vec{Y: 1}})
			}
			if k.ID == "gather" {
				w.Own = w.Leads[:1]
			}
			if k.ID == "bead" { // any bead that they pass
				b := *s.Bead
				b.HoleMM, b.WidthMM = 60, 80
				w.Section.Bead = &b
			}
			if _, err := knot.Tie(w); err == nil {
				can = append(can, n)
			}
		}
		out[k.ID] = can
	}
	return out
})
