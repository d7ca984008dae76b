package server

import (
	"bytes"
	"cmp"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"

	"github.com/gin-gonic/gin"

	"nimblebight/core/colour"
	"nimblebight/core/colouring"
	"nimblebight/core/piece"
	"nimblebight/core/scene"
	"nimblebight/core/side"
	"nimblebight/core/units"
	"nimblebight/formats/svg"
	"nimblebight/store"
)

// ColouringsRequest asks in which ways colours fall on a piece: its own, or those that are
// chosen.
type ColouringsRequest struct {
	Colours []colouring.Chosen `json:"colours"`
	Sort    colouring.Sort     `json:"sort" jsonschema:"enum=contrast,enum=hidden,enum=stripes,enum=columns,enum=spirals,enum=alike,enum=most,enum=least"`
	// Closely asks for pictures to be looked at closely, as on paper.
	Closely bool `json:"closely,omitempty"`
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
	// Views are face and back of each look that a shown way is drawn by, by its number; no
	// pictures of the others.
	Views [][]svg.Picture `json:"views"`
	// Cuts are what each cord is cut in each look, mm.
	Cuts [][]float64 `json:"cuts"`
	// Eyes are the colours as other eyes see them, by eye and colour.
	Eyes map[colour.Eye]map[string]string `json:"eyes"`
	// Tones are greys for them, for print without colour.
	Tones map[string]string `json:"tones"`
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

// laidOut reads what is asked of a piece's colours and lays them out.
func (s *Server) laidOut(c *gin.Context, q ColouringsRequest) (piece.Document, Settings, colouring.Answer, error) {
	var none colouring.Answer
	if q.Sort != "" && !slices.Contains(colouring.Sorts(), q.Sort) {
		return piece.Document{}, Settings{}, none, piece.Problems{{Path: "sort", Message: fmt.Sprintf("is %.20q; ways are sorted by contrast, hidden, stripes, columns, spirals, alike, most or least", q.Sort)}}
	}
	_, d, set, err := s.opened(c)
	if err != nil {
		return d, set, none, err
	}
	drawer, err := s.drawerCords(c)
	if err != nil {
		return d, set, none, err
	}
	o := s.optionsOf(set)
	a, err := colouring.Of(d, o, q.Colours, q.Sort, drawer)
	return d, set, a, err
}

func (s *Server) colourings(c *gin.Context) {
	var q ColouringsRequest
	err := read(c, &q)
	if err != nil {
		failed(c, err)
		return
	}
	_, _, a, err := s.laidOut(c, q)
	if err != nil {
		failed(c, err)
		return
	}
	out := Colourings{Ways: []Colouring{}, Different: len(a.Ways), All: a.All, Close: a.Close, Enough: colour.Enough, Views: make([][]svg.Picture, len(a.Looks)), Cuts: make([][]float64, len(a.Looks)), Eyes: map[colour.Eye]map[string]string{}}
	shown := a.Ways[:min(len(a.Ways), shownWays)]
	var all []string
	for _, w := range shown {
		all = append(all, w.Paints...)
		out.Ways = append(out.Ways, Colouring{w, svg.Marks(w.Paints)})
		out.Views[w.Look] = make([]svg.Picture, len(bothSides))
	}
	for _, e := range colour.Eyes() {
		out.Eyes[e] = seenBy(e, all)
	}
	out.Tones = colour.Tones(all)
	var of []int // the looks that are drawn
	for i, v := range out.Views {
		out.Cuts[i] = []float64{}
		for _, c := range a.Looks[i].Plan.Cords {
			out.Cuts[i] = append(out.Cuts[i], c.CutMM)
		}
		if v == nil {
			out.Views[i] = []svg.Picture{}
		} else {
			of = append(of, i)
		}
	}
	per := smallPerMM
	if q.Closely {
		per = sheetPerMM
	}
	side.Each(len(of)*len(bothSides), func(k int) {
		i, n := of[k/len(bothSides)], k%len(bothSides)
		out.Views[i][n] = s.views.drawn(scene.Render(a.Looks[i].Layout, scene.View{Turn: turnTo(bothSides[n]), PerMM: per}))
	})
	c.JSON(http.StatusOK, out)
}

// seenBy are colours as an eye sees them.
func seenBy(e colour.Eye, hexes []string) map[string]string {
	out := make(map[string]string, len(hexes))
	for _, hex := range hexes {
		out[hex] = colour.As(hex, e)
	}
	return out
}

// eyes tells how an eye sees colours, for what is shown elsewhere.
func (s *Server) eyes(c *gin.Context) {
	e := colour.Eye(c.Query("eye"))
	if !slices.Contains(colour.Eyes(), e) {
		failed(c, piece.Problems{{Path: "eye", Message: fmt.Sprintf("is %.20q; eyes are usual, protan, deutan or tritan", e)}})
		return
	}
	asked := c.QueryArray("colour")
	for _, hex := range asked {
		if err := colour.Check(hex); err != nil {
			failed(c, piece.Problems{{Path: "colour", Message: err.Error()}})
			return
		}
	}
	c.JSON(http.StatusOK, seenBy(e, asked))
}

// papers are the sizes of a sheet, mm.
var papers = map[string][2]float64{"a4": {210, 297}, "letter": {215.9, 279.4}}

// colourSheet is a sheet to choose colours from, as a drawing.
func (s *Server) colourSheet(c *gin.Context) {
	paper, ok := papers[cmp.Or(c.Query("paper"), "a4")]
	if !ok {
		failed(c, piece.Problems{{Path: "paper", Message: fmt.Sprintf("is %.20q; sheets are a4 or letter", c.Query("paper"))}})
		return
	}
	q := ColouringsRequest{Sort: colouring.Sort(c.Query("sort"))}
	for _, asked := range c.QueryArray("c") { // a colour, and after it the name of its cord
		const hex = len("#rrggbb")
		q.Colours = append(q.Colours, colouring.Chosen{Colour: asked[:min(len(asked), hex)], Name: asked[min(len(asked), hex):]})
	}
	d, set, a, err := s.laidOut(c, q)
	if err != nil {
		failed(c, err)
		return
	}
	sheet := svg.Sheet{Title: cmp.Or(d.Name, "Piece") + ": colours to choose from", Lead: "Tick one. Each shows the face, then the back.", WideMM: paper[0], TallMM: paper[1]}
	ways := a.Ways[:min(len(a.Ways), shownWays)]
	tones := map[string]string{}
	if c.Query("tones") != "" {
		var all []string
		for _, w := range ways {
			all = append(all, w.Paints...)
		}
		tones = colour.Tones(all)
	}
	toned := func(hex string) string { return cmp.Or(tones[hex], hex) }
	pictures := map[int][]scene.Picture{}
	for n, w := range ways {
		look := a.Looks[w.Look]
		if pictures[w.Look] == nil {
			for _, turn := range bothSides {
				pictures[w.Look] = append(pictures[w.Look], scene.Render(look.Layout, scene.View{Turn: turnTo(turn), PerMM: sheetPerMM}))
			}
		}
		choice := svg.Choice{Title: fmt.Sprintf("Way %d", n+1), Says: w.Says}
		if len(w.Changes) > 0 {
			choice.Says += " To tie: " + strings.Join(w.Changes, "; ") + "."
		}
		for _, p := range pictures[w.Look] {
			p.Colours = make([]string, len(w.Paints))
			for i, hex := range w.Paints {
				p.Colours[i] = toned(hex)
			}
			choice.Pictures = append(choice.Pictures, p)
		}
		for i, cord := range d.Cords {
			text := cord.ID + ": " + w.Names[i]
			if i < len(look.Plan.Cords) {
				text += ", cut " + strings.ReplaceAll(units.Cut(look.Plan.Cords[i].CutMM, set.Units == "inch"), " ", "\u00a0")
			}
			choice.Cords = append(choice.Cords, svg.Named{Colour: toned(w.Colours[i]), Text: text})
		}
		sheet.Choices = append(sheet.Choices, choice)
	}
	var b bytes.Buffer
	if err := sheet.Pages(&b); err != nil {
		failed(c, err)
		return
	}
	c.Data(http.StatusOK, "image/svg+xml", b.Bytes())
}

// drawerCords are the cords of the drawer with their names.
func (s *Server) drawerCords(c *gin.Context) ([]colouring.Have, error) {
	spools, err := cords().list(c, s.store)
	if err != nil {
		return nil, err
	}
	var out []colouring.Have
	for _, sp := range spools {
		out = append(out, colouring.Have{Name: sp.Name, Stuff: sp.Stuff})
	}
	return out, nil
}

// along tells where the colours of changing cords land, and which rows can be tied in halves.
func (s *Server) along(c *gin.Context) {
	_, d, set, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	drawer, err := s.drawerCords(c)
	if err != nil {
		failed(c, err)
		return
	}
	o := s.optionsOf(set)
	a, err := colouring.AlongOf(d, o, drawer)
	if err != nil {
		failed(c, err)
		return
	}
	c.JSON(http.StatusOK, a)
}

// bothSides are the turns at which a way is shown, its face and its back.
var bothSides = []float64{0, 180}

// How closely a way is drawn, pixels a mm: among others on the bench, and on a sheet.
const smallPerMM, sheetPerMM = 1.5, 6.0
