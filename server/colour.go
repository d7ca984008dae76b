package server

import (
	"fmt"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"nimblebight/core/colour"
	"nimblebight/core/colouring"
	"nimblebight/core/piece"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
)

// ColouringsRequest asks in which ways colours fall on a piece: its own, or those that are
// chosen.
type ColouringsRequest struct {
	Colours []colouring.Chosen `json:"colours"`
	Sort    colouring.Sort     `json:"sort" jsonschema:"enum=contrast,enum=hidden,enum=alike,enum=most"`
}

// Colourings are the ways, those that are best by the sort first, with the pictures that
// they are drawn by.
type Colourings struct {
	Ways []Colouring `json:"ways"`
	// Different is how many there are, All how many before those are left out that look
	// alike.
	Different int              `json:"different"`
	All       int              `json:"all"`
	Close     []colouring.Pair `json:"close"`
	// Views are face and back of the piece as its rows begin, then as they begin on the
	// other side.
	Views [][]svg.Picture `json:"views"`
	// Cuts are what each cord is cut in either, mm.
	Cuts [][]float64 `json:"cuts"`
	// Eyes are the colours as other eyes see them, by eye and colour.
	Eyes map[colour.Eye]map[string]string `json:"eyes"`
}

// Colouring is a way with the marks of its cords.
type Colouring struct {
	colouring.Way
	Marks []string `json:"marks"`
}

// shownWays is how many ways are sent at once.
const shownWays = 60

func (s *Server) colourings(c *gin.Context) {
	var q ColouringsRequest
	err := read(c, &q)
	if err == nil && q.Sort != "" && !slices.Contains(colouring.Sorts(), q.Sort) {
		err = piece.Problems{{Path: "sort", Message: fmt.Sprintf("is %.20q; ways are sorted by contrast, hidden, alike or most", q.Sort)}}
	}
	if err != nil {
		failed(c, err)
		return
	}
	_, d, set, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	spools, err := cords().list(c, s.store)
	if err != nil {
		failed(c, err)
		return
	}
	var drawer []colouring.Have
	for _, sp := range spools {
		drawer = append(drawer, colouring.Have{Name: sp.Name, Stuff: sp.Stuff})
	}
	o := options(set)
	o.Gauge = s.known()
	a, err := colouring.Of(d, o, q.Colours, q.Sort, drawer)
	if err != nil {
		failed(c, err)
		return
	}
	out := Colourings{Ways: []Colouring{}, Different: len(a.Ways), All: a.All, Close: a.Close, Views: [][]svg.Picture{}, Cuts: [][]float64{}, Eyes: map[colour.Eye]map[string]string{}}
	for _, e := range colour.Eyes() {
		out.Eyes[e] = map[string]string{}
	}
	for _, w := range a.Ways[:min(len(a.Ways), shownWays)] {
		for _, e := range colour.Eyes() {
			for _, hex := range w.Colours {
				out.Eyes[e][hex] = colour.As(hex, e)
			}
		}
		out.Ways = append(out.Ways, Colouring{w, svg.Marks(w.Colours)})
	}
	for _, p := range a.Plans {
		cuts := []float64{}
		for _, c := range p.Cords {
			cuts = append(cuts, c.CutMM)
		}
		out.Cuts = append(out.Cuts, cuts)
		var sides []svg.Picture
		for _, turn := range []float64{0, 180} {
			sides = append(sides, s.views.drawn(scene.Render(p.Layout(), scene.View{Turn: turnTo(turn), PerMM: 3})))
		}
		out.Views = append(out.Views, sides)
	}
	c.JSON(http.StatusOK, out)
}
