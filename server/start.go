package server

import (
	"encoding/json"
	"runtime"

	"github.com/gin-gonic/gin"

	"nimblebight/core/cord"
	"nimblebight/core/pace"
	"nimblebight/core/piece"
	"nimblebight/core/scene"
	"nimblebight/core/side"
	"nimblebight/core/start"
	"nimblebight/formats/svg"
)

// StartRequest is what a maker knows before a piece is begun.
type StartRequest struct {
	Kind     string       `json:"kind,omitempty"`      // of piece; anything where it is not there
	LengthMM float64      `json:"length_mm,omitempty"` // the count decides where it is not there
	Cords    []cord.Stuff `json:"cords"`               // none for those of the patterns
}

// StartOffer is one piece that can be begun.
type StartOffer struct {
	Of      int    `json:"of"`      // how many come
	Pattern string `json:"pattern"` // "" for the plain one
	Name    string `json:"name"`
	About   string `json:"about"`
	// Why is why it cannot be tied of these cords; then nothing follows.
	Why      string         `json:"why,omitempty"`
	Document piece.Document `json:"document"`
	LengthMM float64        `json:"length_mm"`
	Cords    []StartCord    `json:"cut"`
	Moves    int            `json:"moves"`
	// TakesS is how long it takes at the maker's pace, s; not there where too little was tied to
	// tell.
	TakesS  float64      `json:"takes_s,omitempty"`
	Picture *svg.Picture `json:"picture,omitempty"`
}

// StartCord is what one cord of it is cut to.
type StartCord struct {
	ID     string  `json:"id"`
	Colour string  `json:"colour"`
	CutMM  float64 `json:"cut_mm"`
}

// starts tells what can be begun, a line of JSON at a time, in the order of the patterns.
func (s *Server) starts(c *gin.Context) {
	var req StartRequest
	if err := read(c, &req); err != nil {
		failed(c, err)
		return
	}
	ask := start.Ask(req)
	if ps := ask.Check(); len(ps) > 0 {
		failed(c, ps)
		return
	}
	set, err := s.settings(c)
	if err != nil {
		failed(c, err)
		return
	}
	spells, err := s.spells(c, "")
	if err != nil {
		failed(c, err)
		return
	}
	paces := pace.Paces(spells)
	o := s.optionsOf(set)
	offers := start.Offers(ask, o)
	// Some are made ahead, none after the page has gone.
	made := make([]chan StartOffer, len(offers))
	for i := range made {
		made[i] = make(chan StartOffer, 1)
	}
	gone := c.Request.Context().Done()
	room := make(chan struct{}, runtime.GOMAXPROCS(0))
	go func() {
		for i, offer := range offers {
			select {
			case <-gone:
				return
			case room <- struct{}{}:
			}
			go func() {
				defer func() { <-room }()
				var out StartOffer
				if err := side.Guard(func() error { out = s.startOffer(offer(), set, paces); return nil }); err != nil {
					s.log.Error("offering a piece to begin with", "error", err)
					out.Why = "It cannot be shown: the bench failed at it."
				}
				out.Of = len(offers)
				made[i] <- out
			}()
		}
	}()
	line := lines(c)
	for _, next := range made {
		select {
		case <-gone:
			return
		case out := <-next:
			if line(out) != nil {
				return
			}
		}
	}
}

func (s *Server) startOffer(o start.Offer, set Settings, paces []pace.Pace) StartOffer {
	out := StartOffer{Pattern: o.Pattern, Name: o.Name, About: o.About, Why: o.Why, Document: o.Document, Cords: []StartCord{}}
	if o.Why != "" {
		return out
	}
	out.LengthMM, out.Moves = o.Plan.LengthMM, o.Plan.Actions
	for _, c := range o.Plan.Cords {
		out.Cords = append(out.Cords, StartCord{c.ID, c.Colour, c.CutMM})
	}
	if left, known := pace.Left(o.Plan, 0, paces); known {
		out.TakesS = left
	}
	raw, err := json.Marshal(o.Document)
	if err != nil {
		return out
	}
	if pic, err := s.views.picture(raw, o.Document, set, hand{}, scene.View{Turn: o.Plan.Turn, PerMM: 1.5}); err == nil {
		drawn := s.views.drawn(pic)
		out.Picture = &drawn
	}
	return out
}
