package server

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"
	"sync"

	"github.com/gin-gonic/gin"
	"golang.org/x/sync/singleflight"

	"nimblebight/core/cord"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/store"
)

type ctx = context.Context

// bench answers for plans, pictures, the vise, the log, the drawer and the
// settings.
func (s *Server) bench(r *gin.RouterGroup) {
	r.GET("/pieces/:id/plan", s.planOf)
	r.GET("/pieces/:id/picture", s.pictureOf)
	r.GET("/pieces/:id/space", s.spaceOf)
	r.PUT("/pieces/:id/place", s.place)
	r.GET("/pieces/:id/log", s.logs)
	r.POST("/pieces/:id/log", s.addLog)
	r.DELETE("/pieces/:id/log/:entry", func(c *gin.Context) {
		n, err := id(c, "id")
		e, err2 := id(c, "entry")
		if err == nil {
			err = err2
		}
		if err == nil {
			err = s.store.DropLog(c, n, e)
		}
		answer(c, nil, err)
	})
	r.GET("/catalogue", func(c *gin.Context) { c.JSON(http.StatusOK, catalogue()) })
	r.GET("/knots", func(c *gin.Context) { c.JSON(http.StatusOK, catalogue().Knots) })
	r.GET("/knots/:id/picture", s.knotPicture)
	r.GET("/patterns/:id/picture", s.patternPicture)
	cords().serve(r, "/drawer", s.store)
	cores().serve(r, "/cores", s.store)
	r.GET("/settings", func(c *gin.Context) {
		set, err := s.settings(c)
		answer(c, set, err)
	})
	r.PATCH("/settings", s.changeSettings)
}

// views keeps plans and pictures of documents seen before, by what was asked.
// A document never changes, so neither do they.
type views struct {
	lock  sync.Mutex
	kept  map[string]any
	order []string
	going singleflight.Group // what is being worked out is not begun again
}

const mostViews = 400

func newViews() *views { return &views{kept: map[string]any{}} }

func remember[T any](v *views, key string, made func() (T, error)) (T, error) {
	v.lock.Lock()
	old, ok := v.kept[key]
	v.lock.Unlock()
	if ok {
		return old.(T), nil
	}
	made1, err, _ := v.going.Do(key, func() (any, error) { return made() })
	out, _ := made1.(T)
	if err != nil {
		return out, err
	}
	v.lock.Lock()
	defer v.lock.Unlock()
	if _, again := v.kept[key]; !again {
		v.order = append(v.order, key)
	}
	v.kept[key] = out
	for len(v.order) > mostViews {
		delete(v.kept, v.order[0])
		v.order = v.order[1:]
	}
	return out, nil
}

// hand is a place at the vise: so many actions, and how far the last has come.
// The zero value is the whole piece.
type hand struct {
	until int
	along float64
}

func (v *views) plan(raw []byte, d piece.Document, set Settings, at hand) (plan.Plan, error) {
	o := plan.Options{LeftHanded: set.Hand == "left", Until: at.until, Along: at.along}
	if set.Units == "inch" {
		o.RoundUpMM = plan.QuarterInch
	}
	key := fmt.Sprintf("plan %x %v", sha256.Sum256(raw), o)
	return remember(v, key, func() (plan.Plan, error) { return plan.Make(d, o) })
}

func (v *views) picture(raw []byte, d piece.Document, set Settings, at hand, view scene.View) (scene.Picture, error) {
	key := fmt.Sprintf("picture %x %s %v %v", sha256.Sum256(raw), set.Hand, at, view)
	return remember(v, key, func() (scene.Picture, error) {
		p, err := v.plan(raw, d, set, at)
		if err != nil {
			return scene.Picture{}, err
		}
		stuffs := make([]cord.Stuff, len(d.Cords))
		for i, c := range d.Cords {
			stuffs[i] = c.Stuff
		}
		return scene.Draw(p.Layout(), stuffs, view), nil
	})
}

// opened reads the piece of a request with the settings.
func (s *Server) opened(c *gin.Context) (store.Piece, piece.Document, Settings, error) {
	n, err := id(c, "id")
	if err != nil {
		return store.Piece{}, piece.Document{}, Settings{}, err
	}
	p, err := s.store.Piece(c, n)
	if err != nil {
		return p, piece.Document{}, Settings{}, err
	}
	set, err := s.settings(c)
	if err != nil {
		return p, piece.Document{}, set, err
	}
	d, err := piece.Read(p.Document)
	return p, d, set, err
}

func (s *Server) planOf(c *gin.Context) {
	p, d, set, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	pl, err := s.views.plan(p.Document, d, set, hand{})
	answer(c, pl, err)
}

// pictureOf draws a piece: ?view=face|back, ?scale= pixels a millimetre,
// ?until= actions done for the picture at the vise, with ?along= the share that
// the last of them has come to, from 0 to 1; it shows only the stretch of the work in hand. Plates named in the header Have-Plates, with
// commas between, are left out.
func (s *Server) pictureOf(c *gin.Context) {
	p, d, set, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	view := scene.View{Back: c.Query("view") == "back", PerMM: 6}
	if v, err := strconv.ParseFloat(c.Query("scale"), 64); err == nil && v > 0.2 && v < 60 {
		view.PerMM = v
	}
	var at hand
	if v, err := strconv.Atoi(c.Query("until")); err == nil && v > 0 {
		at.until = v
	}
	if at.until > 0 {
		if v, err := strconv.ParseFloat(c.Query("along"), 64); err == nil && v > 0 && v <= 1 {
			at.along = math.Round(v*24) / 24 // steps that can be kept
		}
		whole := at
		whole.along = 0 // so that the frame stays while the strand moves
		pl, err := s.views.plan(p.Document, d, set, whole)
		if err != nil {
			failed(c, err)
			return
		}
		view.From, view.To = inHand(pl)
	}
	pic, err := s.views.picture(p.Document, d, set, at, view)
	if have := c.GetHeader("Have-Plates"); err == nil && have != "" {
		pic = pic.Without(strings.Split(have, ","))
	}
	answer(c, pic, err)
}

// inHand is the stretch of y round the work in hand, mm: three or four knots
// above it and some of the strands below.
func inHand(p plan.Plan) (from, to float64) {
	l := p.Layout()
	low := 0.0
	for _, s := range l.Sections {
		low = math.Max(low, s[1])
	}
	thick := 1.0
	for _, c := range p.Cords {
		thick = math.Max(thick, c.DrawnUpMM)
	}
	from, to = low-13*thick, low+6*thick
	if l.Hardware.Type == "none" && len(l.Sections) <= 2 { // a ball in hand is seen whole
		from = math.Min(from, -3*thick)
	}
	if from < 3*thick { // near the top the wire helps to see where one is
		from = -8 * thick
	}
	return from, to
}

func (s *Server) place(c *gin.Context) {
	var req PlaceRequest
	err := read(c, &req)
	var n int64
	if err == nil {
		n, err = id(c, "id")
	}
	if err == nil && (req.Done < 0 || req.Done > 10*piece.MostKnots) {
		err = &bodyError{"The place at the vise is not a number of actions."}
	}
	if err == nil {
		err = s.store.SetPlace(c, n, req.Done)
	}
	answer(c, nil, err)
}

func entry(l store.Log) (Entry, error) {
	e := Entry{ID: l.ID, CreatedAt: l.CreatedAt, Minutes: l.Minutes, LengthMM: l.LengthMM, Note: l.Note, Cords: []CordLog{}}
	err := json.Unmarshal(l.Cords, &e.Cords)
	return e, err
}

func (s *Server) logs(c *gin.Context) {
	n, err := id(c, "id")
	if err != nil {
		failed(c, err)
		return
	}
	ls, err := s.store.Logs(c, n)
	if err != nil {
		failed(c, err)
		return
	}
	out := make([]Entry, 0, len(ls))
	for _, l := range ls {
		e, err := entry(l)
		if err != nil {
			failed(c, err)
			return
		}
		out = append(out, e)
	}
	c.JSON(http.StatusOK, out)
}

func (s *Server) addLog(c *gin.Context) {
	var e Entry
	err := read(c, &e)
	var n int64
	if err == nil {
		n, err = id(c, "id")
	}
	if err == nil {
		err = checkEntry(e)
	}
	if err != nil {
		failed(c, err)
		return
	}
	cords, err := json.Marshal(e.Cords)
	if err != nil {
		failed(c, err)
		return
	}
	l, err := s.store.AddLog(c, store.Log{PieceID: n, Minutes: e.Minutes, LengthMM: e.LengthMM, Note: e.Note, Cords: cords})
	if err != nil {
		failed(c, err)
		return
	}
	out, err := entry(l)
	answer(c, out, err)
}

// checkEntry refuses what cannot have been measured.
func checkEntry(e Entry) error {
	var ps piece.Problems
	bad := func(path string, v, most float64, what string) {
		if math.IsNaN(v) || v < 0 || v > most {
			ps = append(ps, piece.Problem{Path: path, Message: fmt.Sprintf("is %v; %s", v, what)})
		}
	}
	bad("minutes", e.Minutes, 100_000, "minutes are zero or more")
	bad("length_mm", e.LengthMM, piece.MostMM, "a length is from 0 to 100 m")
	for i, c := range e.Cords {
		bad(fmt.Sprintf("cords[%d].cut_mm", i), c.CutMM, piece.MostMM, "a length is from 0 to 100 m")
		bad(fmt.Sprintf("cords[%d].left_mm", i), c.LeftMM, piece.MostMM, "a length is from 0 to 100 m")
		if c.LeftMM > c.CutMM {
			ps = append(ps, piece.Problem{Path: fmt.Sprintf("cords[%d].left_mm", i), Message: "is more than was cut"})
		}
	}
	if len(e.Cords) > piece.MostStrands || len(e.Note) > 8000 {
		ps = append(ps, piece.Problem{Path: "note", Message: "is too long"})
	}
	if len(ps) > 0 {
		return ps
	}
	return nil
}

func (s *Server) settings(c ctx) (Settings, error) {
	raw, err := s.store.Setting(c, "settings", "{}")
	if err != nil {
		return Settings{}, err
	}
	return settingsFrom(raw)
}

func settingsFrom(raw string) (Settings, error) {
	set := Settings{Units: "mm", Hand: "right", Theme: "auto"}
	return set, json.Unmarshal([]byte(raw), &set)
}

// check is what of the settings cannot be.
func (set Settings) check() (ps piece.Problems) {
	one := func(path, v string, of ...string) {
		if !slices.Contains(of, v) {
			ps = append(ps, piece.Problem{Path: path, Message: fmt.Sprintf("is %q; it is one of %v", v, of)})
		}
	}
	one("units", set.Units, "mm", "inch")
	one("hand", set.Hand, "right", "left")
	one("theme", set.Theme, "auto", "day", "night")
	return ps
}

// changeSettings changes the settings that the request names; the others stay.
func (s *Server) changeSettings(c *gin.Context) {
	body, err := c.GetRawData()
	var set Settings
	if err == nil {
		err = s.store.Change(c, "settings", "{}", func(old string) (string, error) {
			if set, err = settingsFrom(old); err != nil {
				return "", err
			}
			if err := parse(body, &set); err != nil {
				return "", err
			}
			if ps := set.check(); len(ps) > 0 {
				return "", ps
			}
			b, err := json.Marshal(set)
			return string(b), err
		})
	}
	answer(c, set, err)
}
