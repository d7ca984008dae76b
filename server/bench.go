package server

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/gin-gonic/gin"

	"nimblebight/core/card"
	"nimblebight/core/evidence"
	"nimblebight/core/gauge"
	"nimblebight/core/pace"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/scene"
	"nimblebight/device"
	"nimblebight/formats/document"
	"nimblebight/formats/svg"
	"nimblebight/store"
)

type ctx = context.Context

// on is the context of the request that c is of. Gin takes a context of its own back for the
// next request; what still asks for it then, as the engine of the database may, would be told of
// another request's end.
func on(c ctx) ctx {
	if g, ok := c.(*gin.Context); ok {
		return g.Request.Context()
	}
	return c
}

// bench answers for plans, pictures, the vise, the log, the drawer and the
// settings.
func (s *Server) bench(r *gin.RouterGroup) {
	r.GET("/pieces/:id/plan", s.planOf)
	r.GET("/pieces/:id/ends", s.ends)
	r.GET("/pieces/:id/card", func(c *gin.Context) {
		_, d, _, pl, err := s.planned(c)
		answer(c, card.Of(d, pl), err)
	})
	r.GET("/pieces/:id/picture", s.pictureOf)
	r.GET("/pieces/:id/picture.svg", s.pictureFile)
	r.GET("/pieces/:id/log", s.logs)
	r.POST("/pieces/:id/log", s.addLog)
	r.DELETE("/pieces/:id/log/:entry", func(c *gin.Context) {
		n, err := id(c, "id")
		e, err2 := id(c, "entry")
		if err == nil {
			err = err2
		}
		if err == nil {
			err = s.store.DropLog(on(c), n, e)
		}
		s.learnt.forget()
		answer(c, nil, err)
	})
	r.GET("/offers", s.offers)
	r.POST("/start", s.starts)
	r.POST("/finish", s.finish)
	s.purpose(r)
	s.inspects(r)
	s.trains(r)
	r.POST("/pieces/:id/colourings", s.colourings)
	r.GET("/pieces/:id/along", s.along)
	r.GET("/pieces/:id/colours.svg", s.colourSheet)
	r.GET("/eyes", s.eyes)
	r.GET("/pieces/:id/phone", s.phone)
	r.GET("/goes-with", s.suggest)
	palettes().serve(r, "/palettes", s.store)
	r.GET("/catalogue", func(c *gin.Context) { answer(c, catalogue(), nil) })
	r.GET("/knots", func(c *gin.Context) { answer(c, catalogue().Knots, nil) })
	r.GET("/knots/:id/picture", s.knotPicture)
	cords().serve(r, "/drawer", s.store)
	cores().serve(r, "/cores", s.store)
	things(store.Beads).serve(r, "/beads", s.store)
	things(store.Hardware).serve(r, "/hardware", s.store)
	things(store.Tools).serve(r, "/tools", s.store)
	r.GET("/settings", func(c *gin.Context) {
		set, err := s.settings(c)
		answer(c, set, err)
	})
	r.PATCH("/settings", s.changeSettings)
}

// stored gets the piece of a request.
func (s *Server) stored(c *gin.Context) (store.Piece, error) {
	n, err := id(c, "id")
	if err != nil {
		return store.Piece{}, err
	}
	return s.store.Piece(on(c), n)
}

// opened reads the piece of a request with the settings.
func (s *Server) opened(c *gin.Context) (store.Piece, piece.Document, Settings, error) {
	p, err := s.stored(c)
	if err != nil {
		return p, piece.Document{}, Settings{}, err
	}
	set, err := s.settings(c)
	if err != nil {
		return p, piece.Document{}, set, err
	}
	d, err := document.Read(p.Document)
	return p, d, set, err
}

// planned reads the piece of a request and plans it.
func (s *Server) planned(c *gin.Context) (p store.Piece, d piece.Document, set Settings, pl plan.Plan, err error) {
	if p, d, set, err = s.opened(c); err == nil {
		pl, err = s.views.plan(p.Document, d, set, hand{})
	}
	return p, d, set, pl, err
}

func (s *Server) planOf(c *gin.Context) {
	_, _, _, pl, err := s.planned(c)
	answer(c, pl, err)
}

// pictureOf draws a piece: ?view=face|back or ?turn= the degrees by which it is
// turned, in steps of [turnStep], or best, ?scale= pixels a millimetre,
// ?until= actions done for the picture at the vise, with ?along= the share that
// the last of them has come to, from 0 to 1; it shows only the stretch of the
// work in hand. ?look=end or unrolled, with ?section= its number from 0, shows that
// section alone, from its working end or its outside rolled off. Plates named in the header Have-Plates, with commas between, are
// left out.
func (s *Server) pictureOf(c *gin.Context) {
	p, d, set, whole, err := s.planned(c)
	if err != nil {
		failed(c, err)
		return
	}
	view := looked(c, whole.Turn)
	var at hand
	if v, err := strconv.Atoi(c.Query("until")); err == nil && v > 0 {
		at.until = v
	}
	if at.until > 0 {
		if v, err := strconv.ParseFloat(c.Query("along"), 64); err == nil && v > 0 && v <= 1 {
			at.along = math.Round(v*MoveFrames) / MoveFrames // steps that can be kept
		}
		// Not along, so that the frame stays while the strand moves.
		pl, err := s.views.plan(p.Document, d, set, hand{until: at.until})
		if err != nil {
			failed(c, err)
			return
		}
		view.From, view.To = pl.InHand()
	}
	as, section, err := lookedAt(c)
	if err != nil {
		failed(c, err)
		return
	}
	if as != "" {
		view.From, view.To, view.Turn = 0, 0, 0
	}
	// Asked for again it is the same picture, and the browser has it.
	name := fmt.Sprintf(`"%x"`, sha256.Sum256(fmt.Appendf(nil, "%x %s %v %v %s %d %s %s", sha256.Sum256(p.Document), set.Hand, at, view, as, section, plan.Version()+s.known().ID(), c.GetHeader("Have-Plates"))))
	if len(whole.Rough) == 0 {
		c.Header("ETag", name)
		c.Header("Cache-Control", "private, no-cache")
		c.Header("Vary", "Have-Plates, Cookie")
		if c.GetHeader("If-None-Match") == name {
			c.Status(http.StatusNotModified)
			return
		}
	}
	var pic scene.Picture
	if as != "" {
		pic, err = s.views.look(p.Document, d, set, at, view, as, section)
	} else {
		pic, err = s.views.picture(p.Document, d, set, at, view)
	}
	if have := c.GetHeader("Have-Plates"); err == nil && have != "" {
		pic = pic.Without(strings.Split(have, ","))
	}
	answer(c, s.views.drawn(pic), err)
}

// pictureFile gives a piece as it hangs as a file: like [Server.pictureOf], at true
// scale.
func (s *Server) pictureFile(c *gin.Context) {
	p, d, set, pl, err := s.planned(c)
	if err != nil {
		failed(c, err)
		return
	}
	as, section, err := lookedAt(c)
	if err != nil {
		failed(c, err)
		return
	}
	var pic scene.Picture
	if view := looked(c, pl.Turn); as != "" {
		pic, err = s.views.look(p.Document, d, set, hand{}, scene.View{PerMM: view.PerMM}, as, section)
	} else {
		pic, err = s.views.picture(p.Document, d, set, hand{}, view)
	}
	if err != nil {
		failed(c, err)
		return
	}
	var b bytes.Buffer
	if err := svg.Write(&b, pic); err != nil {
		failed(c, err)
		return
	}
	c.Data(http.StatusOK, "image/svg+xml", b.Bytes())
}

// looked reads how a request wants to see a piece; ?turn=best shows its shape best.
func looked(c *gin.Context, best float64) scene.View {
	view := scene.View{PerMM: 6}
	if c.Query("turn") == "best" {
		view.Turn = best
	}
	if c.Query("view") == "back" {
		view.Turn = 180
	}
	if v, err := strconv.ParseFloat(c.Query("turn"), 64); err == nil {
		view.Turn = turnTo(v)
	}
	if v, err := strconv.ParseFloat(c.Query("scale"), 64); err == nil && v > 0.2 && v < 60 {
		view.PerMM = v
	}
	return view
}

// lookedAt reads which section a request wants to look at otherwise than from the side;
// no look where it does not say.
func lookedAt(c *gin.Context) (scene.Look, int, error) {
	as := scene.Look(c.Query("look"))
	if as == "" {
		return "", 0, nil
	}
	if as != scene.FromEnd && as != scene.Unrolled {
		return "", 0, piece.Problems{{Path: "look", Message: fmt.Sprintf("is %q; a section is looked at from the end or unrolled", as)}}
	}
	section, err := strconv.Atoi(c.Query("section"))
	if err != nil || section < 0 {
		return "", 0, piece.Problems{{Path: "section", Message: "names no section; they count from 0"}}
	}
	return as, section, nil
}

// MoveFrames are the frames of a move at the vise: two seconds of 24 each.
const MoveFrames = 48

// turnStep is by how much a piece is turned at once, degrees: steps that can be kept.
const turnStep = 3

// turnTo is an angle in whole steps, from 0 up to a whole turn.
func turnTo(degrees float64) float64 {
	if math.IsNaN(degrees) || math.IsInf(degrees, 0) {
		return 0
	}
	t := math.Mod(math.Round(math.Mod(degrees, 360)/turnStep)*turnStep, 360)
	if t < 0 {
		t += 360
	}
	return t
}

// entry is a log entry as the page gets it. One that is spoilt says so and costs
// itself, not the page.
func entry(l store.Log) Entry {
	e := Entry{ID: l.ID, CreatedAt: l.CreatedAt, Minutes: l.Minutes, LengthMM: l.LengthMM, WidthMM: l.WidthMM, Note: l.Note, Cords: []evidence.Cut{}, Counts: countsNames[l.Counts]}
	if err := json.Unmarshal(l.Cords, &e.Cords); err != nil {
		e.Cords, e.Spoilt = []evidence.Cut{}, "What was cut and left cannot be read any more."
	}
	if e.Cords == nil { // a note in the middle of the work
		e.Cords = []evidence.Cut{}
	}
	if len(l.Tied) > 0 && json.Unmarshal(l.Tied, &e.Tied) != nil {
		e.Tied, e.Spoilt = nil, "The knots that were tied cannot be read any more."
	}
	return e
}

func (s *Server) logs(c *gin.Context) {
	n, err := id(c, "id")
	if err != nil {
		failed(c, err)
		return
	}
	ls, err := s.store.Logs(on(c), n)
	if err != nil {
		failed(c, err)
		return
	}
	out := make([]Entry, 0, len(ls))
	for _, l := range ls {
		out = append(out, entry(l))
	}
	answer(c, out, nil)
}

func (s *Server) settings(c ctx) (Settings, error) {
	raw, err := s.store.Setting(on(c), "settings", "{}")
	if err != nil {
		return Settings{}, err
	}
	return s.settingsFrom(raw), nil
}

// settingsFrom reads the settings as they are kept. What is spoilt of them is as
// it was at first; the rest stands.
func (s *Server) settingsFrom(raw string) Settings {
	usual := Settings{Units: "mm", Hand: "right", Theme: "auto", SingleKeys: "on", OneIn: gauge.DefaultRisk, Hold: piece.Fingers}
	var parts map[string]json.RawMessage
	if json.Unmarshal([]byte(raw), &parts) != nil {
		s.log.Warn("the settings cannot be read; they are as at first")
		return usual
	}
	set := usual
	for _, f := range []struct {
		name string
		into *string
		was  string
	}{{"units", &set.Units, usual.Units}, {"hand", &set.Hand, usual.Hand}, {"theme", &set.Theme, usual.Theme}, {"single_keys", &set.SingleKeys, usual.SingleKeys}} {
		if p, ok := parts[f.name]; ok && json.Unmarshal(p, f.into) != nil {
			*f.into = f.was
		}
	}
	if p, ok := parts["one_in"]; ok && json.Unmarshal(p, &set.OneIn) != nil {
		set.OneIn = usual.OneIn
	}
	if p, ok := parts["hold"]; ok && json.Unmarshal(p, &set.Hold) != nil {
		set.Hold = usual.Hold
	}
	if p, ok := parts["devices"]; ok && json.Unmarshal(p, &set.Devices) != nil {
		set.Devices = usual.Devices
	}
	if p, ok := parts["rest_min"]; ok && json.Unmarshal(p, &set.RestMin) != nil {
		set.RestMin = usual.RestMin
	}
	for _, p := range set.check() {
		switch p.Path {
		case "units":
			set.Units = usual.Units
		case "hand":
			set.Hand = usual.Hand
		case "theme":
			set.Theme = usual.Theme
		case "single_keys":
			set.SingleKeys = usual.SingleKeys
		case "one_in":
			set.OneIn = usual.OneIn
		case "hold":
			set.Hold = usual.Hold
		case "rest_min":
			set.RestMin = usual.RestMin
		default: // where a device is
			set.Devices = usual.Devices
		}
	}
	return set
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
	one("single_keys", set.SingleKeys, "on", "off")
	if !set.OneIn.Valid() {
		ps = append(ps, piece.Problem{Path: "one_in", Message: fmt.Sprintf("is %d; a piece runs short once in one of %v", set.OneIn, gauge.Risks)})
	}
	if !slices.Contains(piece.Tools(), set.Hold) {
		ps = append(ps, piece.Problem{Path: "hold", Message: fmt.Sprintf("is %q; an end is held with one of %v", set.Hold, piece.Tools())})
	}
	if !slices.Contains(pace.Rests, set.RestMin) {
		ps = append(ps, piece.Problem{Path: "rest_min", Message: fmt.Sprintf("is %d; hands rest after one of %v minutes, 0 for never", set.RestMin, pace.Rests)})
	}
	for _, k := range device.Kinds {
		if err := set.Devices.Check(k); err != nil {
			ps = append(ps, piece.Problem{Path: "devices." + string(k), Message: err.Error()})
		}
	}
	return ps
}

// changeSettings changes the settings that the request names; the others stay.
func (s *Server) changeSettings(c *gin.Context) {
	body, err := c.GetRawData()
	var set Settings
	if err == nil {
		err = s.store.Change(on(c), "settings", "{}", func(old string) (string, error) {
			set = s.settingsFrom(old)
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
	if err == nil {
		s.desk.Choose(set.Devices)
	}
	answer(c, set, err)
}
