package server

import (
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"nimblebight/core/cord"
	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/scene"
	"nimblebight/core/trainer"
	"nimblebight/formats/svg"
	"nimblebight/store"
)

// Trained is a knot that can be led, how well it is known, and whether it is due.
type Trained struct {
	trainer.Card
	Name      string  `json:"name"`
	Strands   int     `json:"strands"`
	Crossings int     `json:"crossings"`
	IsDue     bool    `json:"is_due"`
	Sure      float64 `json:"sure"` // from 0 to 1
}

// Leading is a knot that is being led: its diagram as far as it is led, and the crossing that
// is come to.
type Leading struct {
	Knot      string      `json:"knot"`
	Name      string      `json:"name"`
	Crossings int         `json:"crossings"`
	Picture   svg.Picture `json:"picture"`
	// Strand comes to With, both counted from 1 on the left where they come in; none when all
	// is led. The crossing lies at X and Y of the picture, hundredths of a millimetre.
	Strand int  `json:"strand,omitempty"`
	With   int  `json:"with,omitempty"`
	X      int  `json:"x"`
	Y      int  `json:"y"`
	Done   bool `json:"done"`
	// Looked is how one looks at it, a sentence; none at its face.
	Looked string `json:"looked,omitempty"`
	// Says is what came of it, once it is drawn up.
	Says string `json:"says,omitempty"`
}

// JudgeCrossing is how a crossing was led.
type JudgeCrossing struct {
	At   int  `json:"at"`
	Over bool `json:"over"`
	// Slips are the crossings that were left passed the wrong way before.
	Slips []int `json:"slips"`
}

// LedRequest is with how many slips a knot was led.
type LedRequest struct {
	Slips int `json:"slips"`
}

func (s *Server) trains(r *gin.RouterGroup) {
	r.GET("/trainer", func(c *gin.Context) {
		out, err := s.trained(c)
		answer(c, out, err)
	})
	r.GET("/trainer/:knot", s.leading)
	r.POST("/trainer/:knot/judge", s.judgeCrossing)
	r.POST("/trainer/:knot/led", s.led)
}

// cards are those that are kept, with where each stands on its shelf.
func (s *Server) cards(c *gin.Context) (map[string]trainer.Card, map[string]int64, error) {
	rows, err := s.store.Drawer(on(c), store.Trained)
	if err != nil {
		return nil, nil, err
	}
	cards, ids := map[string]trainer.Card{}, map[string]int64{}
	for _, r := range rows {
		var card trainer.Card
		if err := json.Unmarshal(r.What, &card); err != nil {
			return nil, nil, fmt.Errorf("reading how well %s is known: %w", r.Name, err)
		}
		cards[r.Name], ids[r.Name] = card, r.ID
	}
	return cards, ids, nil
}

// trained are all knots that can be led: those that are due first, the surest last.
func (s *Server) trained(c *gin.Context) ([]Trained, error) {
	cards, _, err := s.cards(c)
	if err != nil {
		return nil, err
	}
	now := time.Now().UTC()
	out := []Trained{}
	for _, l := range trainer.Lessons() {
		out = append(out, trainedOf(l, cards[l.Knot], now))
	}
	slices.SortStableFunc(out, func(a, b Trained) int {
		switch {
		case a.IsDue != b.IsDue && a.IsDue:
			return -1
		case a.IsDue != b.IsDue:
			return 1
		case a.Sure < b.Sure:
			return -1
		case a.Sure > b.Sure:
			return 1
		}
		return 0
	})
	return out, nil
}

func trainedOf(l trainer.Lesson, card trainer.Card, now time.Time) Trained {
	card.Knot = l.Knot
	return Trained{Card: card, Name: l.Name, Strands: l.Strands, Crossings: len(l.Asks), IsDue: card.IsDue(now), Sure: card.Sure(now)}
}

// lessonOf is the lesson that a request names.
func lessonOf(c *gin.Context) (trainer.Lesson, error) {
	l, ok := trainer.Of(c.Param("knot"))
	if !ok {
		return l, piece.Problems{{Path: "knot", Message: fmt.Sprintf("is %.40q, which cannot be led yet; choose one of the list", c.Param("knot"))}}
	}
	return l, nil
}

// leadsWith are the cords that a diagram is drawn with: strands of other colours.
func leadsWith() []cord.Stuff {
	return []cord.Stuff{piece.Kernmantle(4, piece.Lagoon), piece.Kernmantle(4, piece.Sand), piece.Kernmantle(4, piece.Rust), piece.Kernmantle(4, piece.Chalk)}
}

func (s *Server) leading(c *gin.Context) {
	l, err := lessonOf(c)
	if err != nil {
		failed(c, err)
		return
	}
	at, err := strconv.Atoi(c.DefaultQuery("at", "0"))
	if err != nil || at < 0 || at > len(l.Asks) {
		failed(c, piece.Problems{{Path: "at", Message: fmt.Sprintf("is %.20q; %s has %d crossing%s", c.Query("at"), l.Name, len(l.Asks), knot.Plural(len(l.Asks)))}})
		return
	}
	drawn, _ := strconv.ParseFloat(c.Query("drawn"), 64)
	if !(drawn >= 0 && drawn <= 1) {
		drawn = 0
	}
	slips, err := slipsOf(c.Query("slips"), len(l.Asks))
	if err != nil {
		failed(c, err)
		return
	}
	stuffs := leadsWith()
	view := scene.View{PerMM: 6}
	lay, says := l.Layout(at, slips, stuffs), ""
	if at == len(l.Asks) && drawn > 0 {
		var own trainer.Own // what is led right is drawn up by the knot's own film
		if len(slips) > 0 {
			if own, err = l.Own(on(c), slips); err != nil {
				failed(c, err)
				return
			}
		}
		lay, says = l.Drawn(own, drawn, stuffs), l.Says(own, slips)
	}
	pic, whole := scene.Render(lay, view), scene.Render(l.Layout(len(l.Asks), nil, stuffs), view)
	// Framed as the whole of it is, so that nothing moves but the strand that is led.
	pic.Left, pic.Top, pic.Width, pic.Height = whole.Left, whole.Top, whole.Width, whole.Height
	out := Leading{Knot: l.Knot, Name: l.Name, Crossings: len(l.Asks), Done: at == len(l.Asks), Looked: l.Looked(), Says: says,
		Picture: s.views.drawn(pic)}
	if x, y, ok := l.Place(at, stuffs); ok {
		const hundredths = 100
		out.X, out.Y = int(math.Round(hundredths*x)), int(math.Round(hundredths*y))
		out.Strand, out.With = l.Asks[at].Strand+1, l.Asks[at].With+1
	}
	c.JSON(http.StatusOK, out)
}

func (s *Server) judgeCrossing(c *gin.Context) {
	l, err := lessonOf(c)
	var q JudgeCrossing
	if err == nil {
		err = read(c, &q)
	}
	if err != nil {
		failed(c, err)
		return
	}
	a, err := l.Judge(q.At, q.Over, q.Slips)
	if err != nil {
		failed(c, piece.Problems{{Path: "at", Message: err.Error()}})
		return
	}
	c.JSON(http.StatusOK, a)
}

// slipsOf reads the crossings that were led the wrong way: their numbers from 0, commas between.
func slipsOf(text string, crossings int) ([]int, error) {
	var out []int
	if text == "" {
		return nil, nil
	}
	for part := range strings.SplitSeq(text, ",") {
		n, err := strconv.Atoi(part)
		if err != nil || n < 0 || n >= crossings || len(out) >= crossings {
			return nil, piece.Problems{{Path: "slips", Message: fmt.Sprintf("names %.20q; crossings are numbered from 0 to %d", part, crossings-1)}}
		}
		out = append(out, n)
	}
	return out, nil
}

// mostSlips is how many slips of one leading are counted.
const mostSlips = 1000

func (s *Server) led(c *gin.Context) {
	l, err := lessonOf(c)
	var q LedRequest
	if err == nil {
		err = read(c, &q)
	}
	if err == nil && (q.Slips < 0 || q.Slips > mostSlips) {
		err = piece.Problems{{Path: "slips", Message: fmt.Sprintf("are %d; write 0 to %d", q.Slips, mostSlips)}}
	}
	if err != nil {
		failed(c, err)
		return
	}
	cards, ids, err := s.cards(c)
	if err != nil {
		failed(c, err)
		return
	}
	now := time.Now().UTC()
	card := cards[l.Knot]
	card.Knot = l.Knot
	card = card.Next(q.Slips, now)
	b, err := json.Marshal(card)
	if err == nil {
		_, err = s.store.PutIn(on(c), store.Trained, store.Stuff{ID: ids[l.Knot], Name: l.Knot, What: b})
	}
	answer(c, trainedOf(l, card, now), err)
}
