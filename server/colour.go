package server

import (
	"cmp"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"

	"github.com/gin-gonic/gin"

	"nimblebight/core/colour"
	"nimblebight/core/colouring"
	"nimblebight/core/piece"
	"nimblebight/core/scene"
	"nimblebight/formats/svg"
	"nimblebight/store"
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
	// Enough is the difference from which two cords are told apart.
	Enough float64 `json:"enough"`
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

// Palette is colours that are kept together by a name, as for a season.
type Palette struct {
	ID      int64              `json:"id"`
	Name    string             `json:"name"`
	Colours []colouring.Chosen `json:"colours"`
}

// mostPalettes is how many are kept, mostInPalette how many colours one has.
const (
	mostPalettes  = 100
	mostInPalette = 12
)

func palettes() shelf[Palette] {
	return shelf[Palette]{
		name: store.Palettes,
		most: mostPalettes,
		check: func(p Palette) (ps piece.Problems) {
			ps = named(p.Name)
			if n := len(p.Colours); n == 0 || n > mostInPalette {
				ps = append(ps, piece.Problem{Path: "colours", Message: fmt.Sprintf("are %d; a palette has 1 to %d", n, mostInPalette)})
			}
			for _, c := range p.Colours {
				if err := colour.Check(c.Colour); err != nil {
					ps = append(ps, piece.Problem{Path: "colours", Message: err.Error()})
				}
			}
			return ps
		},
		in: func(p Palette) (store.Stuff, error) {
			b, err := json.Marshal(p.Colours)
			return store.Stuff{ID: p.ID, Name: p.Name, What: b}, err
		},
		out: func(st store.Stuff) (Palette, error) {
			p := Palette{ID: st.ID, Name: st.Name}
			return p, json.Unmarshal(st.What, &p.Colours)
		},
	}
}

// Suggested is a cord of the drawer that goes with a colour, and how.
type Suggested struct {
	colour.Match
	Name string `json:"name"`
	// Left is how many metres there are, 0 where that is not known.
	Left float64 `json:"left_m"`
}

// suggest lists the cords of the drawer that go with a colour, of each kind those first of
// which some is known to be left.
func (s *Server) suggest(c *gin.Context) {
	hex := c.Query("colour")
	if err := colour.Check(hex); err != nil {
		failed(c, piece.Problems{{Path: "colour", Message: err.Error()}})
		return
	}
	spools, err := cords().list(c, s.store)
	if err != nil {
		failed(c, err)
		return
	}
	var from []string
	by := map[string]Spool{}
	for _, sp := range spools {
		if _, twice := by[sp.Stuff.Colour]; !twice {
			from = append(from, sp.Stuff.Colour)
			by[sp.Stuff.Colour] = sp
		}
	}
	out := []Suggested{}
	for _, m := range colour.With(hex, from) {
		out = append(out, Suggested{m, by[m.Colour].Name, by[m.Colour].LeftM})
	}
	slices.SortStableFunc(out, func(a, b Suggested) int {
		if a.Goes != b.Goes {
			return 0
		}
		return cmp.Compare(min(b.Left, 1), min(a.Left, 1))
	})
	c.JSON(http.StatusOK, out)
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
	out := Colourings{Ways: []Colouring{}, Different: len(a.Ways), All: a.All, Close: a.Close, Enough: colour.Enough, Views: [][]svg.Picture{}, Cuts: [][]float64{}, Eyes: map[colour.Eye]map[string]string{}}
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
