package server

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"slices"
	"sync"
	"time"

	"github.com/gin-gonic/gin"

	"nimblebight/core/evidence"
	"nimblebight/core/gauge"
	"nimblebight/core/piece"
	"nimblebight/core/side"
	"nimblebight/formats/document"
	"nimblebight/store"
)

// measured answers for swatches and for what is logged: what is known of the maker.
func (s *Server) measured(r *gin.RouterGroup) {
	s.reaches(r)
	r.GET("/swatches", s.swatches)
	r.POST("/swatches", s.addSwatch)
	r.POST("/swatches/plan", func(c *gin.Context) {
		var w evidence.Swatch
		err := read(c, &w)
		var p evidence.Planned
		if err == nil {
			p, err = w.Plan()
		}
		answer(c, p, err)
	})
	r.DELETE("/swatches/:id", func(c *gin.Context) {
		n, err := id(c, "id")
		if err == nil {
			err = s.store.TakeOut(on(c), store.Swatches, n)
		}
		s.learnt.forget()
		answer(c, nil, err)
	})
}

// learnt keeps what was learnt of everything that was measured.
type learnt struct {
	mu    sync.Mutex
	known bool
	is    *gauge.Estimate
	// logs keeps what each log tells: it never changes.
	logs map[int64]gauge.Evidence
	// anew tells that what was learnt is to be learnt anew, and the rack with it.
	anew chan struct{}
}

// forget has it learnt anew when it is asked for.
func (l *learnt) forget() {
	l.mu.Lock()
	defer l.mu.Unlock()
	l.known = false
	select {
	case l.anew <- struct{}{}:
	default:
	}
}

// known is what is known now of the maker's cords and hand. What cannot be read tells
// nothing.
func (s *Server) known() *gauge.Estimate {
	l := &s.learnt
	l.mu.Lock()
	defer l.mu.Unlock()
	if l.known || s.store == nil {
		return l.is
	}
	err := side.Guard(func() error {
		all, err := s.evidence(l)
		if err == nil {
			l.is, l.known = gauge.Learn(all), true
		}
		return err
	})
	var p *side.Panic
	switch {
	case errors.As(err, &p):
		s.panicked("learning from swatches and logs", p)
	case err != nil:
		s.log.Warn("learning from swatches and logs", "error", err)
	}
	return l.is
}

// evidence is everything that was measured and counts.
func (s *Server) evidence(l *learnt) ([]gauge.Evidence, error) {
	ctx := context.Background()
	kept, err := s.listSwatches(ctx)
	if err != nil {
		return nil, err
	}
	var out []gauge.Evidence
	for _, k := range kept {
		if e, err := k.Evidence(); err == nil && len(e.Readings) > 0 {
			out = append(out, e)
		}
	}
	logs, err := s.store.CountedLogs(ctx)
	if err != nil {
		return nil, err
	}
	if l.logs == nil {
		l.logs = map[int64]gauge.Evidence{}
	}
	for _, c := range logs {
		e, ok := l.logs[c.ID]
		if !ok {
			e = s.told(c)
			l.logs[c.ID] = e
		}
		if len(e.Readings) > 0 {
			out = append(out, e)
		}
	}
	return out, nil
}

// told is what a log tells: nothing where it cannot be planned any more, and where it
// surprises and nobody was asked about it.
func (s *Server) told(c store.Counted) (out gauge.Evidence) {
	err := side.Guard(func() error {
		d, err := document.Read(c.Document)
		if err != nil {
			return err
		}
		l := logged(entry(c.Log))
		e, err := l.Evidence(d)
		if err != nil || c.Counts == store.CountsUnasked && l.Doubts(e, d, nil) != nil {
			return err
		}
		out = e
		return nil
	})
	if err != nil {
		s.log.Info("a log tells nothing of its maker", "log", c.ID, "error", err)
	}
	return out
}

// logged is what of an entry was measured.
func logged(e Entry) evidence.Logged {
	return evidence.Logged{Cords: e.Cords, LengthMM: e.LengthMM, WidthMM: e.WidthMM, Tied: e.Tied}
}

func (s *Server) listSwatches(c ctx) ([]Kept, error) {
	have, err := s.store.Drawer(on(c), store.Swatches)
	out := make([]Kept, 0, len(have))
	for _, st := range have {
		k := Kept{ID: st.ID}
		if json.Unmarshal(st.What, &k.Swatch) != nil {
			s.log.Warn("a swatch is spoilt and left out", "id", st.ID)
			continue
		}
		k.Kind = k.Stuff.Kind()
		out = append(out, k)
	}
	return out, err
}

// swatches lists those that are kept; ?kind= of one kind of cord.
func (s *Server) swatches(c *gin.Context) {
	all, err := s.listSwatches(c)
	if kind := c.Query("kind"); kind != "" {
		all = slices.DeleteFunc(all, func(k Kept) bool { return k.Stuff.Kind() != kind })
	}
	answer(c, all, err)
}

const mostSwatches = 2000

// doubtful answers with a question: what was measured would mean something unlikely.
func doubtful(c *gin.Context, d *evidence.Doubtful) {
	send(c, Problem{Status: http.StatusUnprocessableEntity, Code: "doubtful", Detail: d.Says, Errors: []piece.Problem{{Path: d.Path, Message: d.Says}}})
}

func (s *Server) addSwatch(c *gin.Context) {
	var w evidence.Swatch
	err := read(c, &w)
	var e gauge.Evidence
	if err == nil {
		e, err = w.Evidence()
	}
	var have []Kept
	if err == nil {
		have, err = s.listSwatches(c)
	}
	if err == nil && len(have) >= mostSwatches {
		err = piece.Problems{{Path: "knot", Message: fmt.Sprintf("finds no room: %d swatches are kept already; delete one first", len(have))}}
	}
	if err != nil {
		failed(c, err)
		return
	}
	if d := w.Doubts(e, s.known()); d != nil {
		doubtful(c, d)
		return
	}
	w.At = time.Now().UTC().Format(time.RFC3339Nano)
	b, err := json.Marshal(w)
	var st store.Stuff
	if err == nil {
		st, err = s.store.PutIn(on(c), store.Swatches, store.Stuff{Name: w.Stuff.Kind(), What: b})
	}
	s.learnt.forget()
	answer(c, Kept{ID: st.ID, Kind: w.Stuff.Kind(), Swatch: w}, err)
}

var countsNames = map[store.Counts]string{store.CountsNot: "no", store.CountsUnasked: "yes", store.CountsAsked: "yes"}

// addLog keeps an entry. One that surprises is asked about first, and counts when the
// maker says so; one that is not to count is kept all the same.
func (s *Server) addLog(c *gin.Context) {
	var e Entry
	err := read(c, &e)
	if err == nil {
		err = checkEntry(e)
	}
	var p store.Piece
	if err == nil {
		p, err = s.stored(c)
	}
	var counts store.Counts
	if err == nil {
		var question *evidence.Doubtful
		if counts, question, err = s.weighs(p, logged(e), e.Counts); question != nil {
			doubtful(c, question)
			return
		}
	}
	var cords, tied []byte
	if err == nil {
		cords, err = json.Marshal(e.Cords)
	}
	if err == nil && len(e.Tied) > 0 {
		tied, err = json.Marshal(e.Tied)
	}
	if err != nil {
		failed(c, err)
		return
	}
	l, err := s.store.AddLog(on(c), store.Log{PieceID: p.ID, Minutes: e.Minutes, LengthMM: e.LengthMM, WidthMM: e.WidthMM, Note: e.Note, Cords: cords, Tied: tied, Counts: counts})
	s.learnt.forget()
	if err != nil {
		failed(c, err)
		return
	}
	answer(c, entry(l), nil)
}

// weighs tells whether a log of a piece counts, or what to ask about it. wanted is what
// its maker says: no, sure, or nothing yet. One of a piece that cannot be planned is kept
// and tells nothing.
func (s *Server) weighs(p store.Piece, l evidence.Logged, wanted string) (store.Counts, *evidence.Doubtful, error) {
	d, unread := document.Read(p.Document)
	if unread != nil {
		d, l.Tied = piece.Document{}, nil
	}
	if ps := l.Check(d); len(ps) > 0 {
		return store.CountsNot, nil, ps
	}
	if wanted == "no" || unread != nil {
		return store.CountsNot, nil, nil
	}
	told, err := l.Evidence(d)
	var no *evidence.Unplanned
	switch {
	case errors.As(err, &no):
		return store.CountsNot, nil, nil
	case err != nil:
		return store.CountsNot, nil, err
	case wanted != "sure":
		return store.CountsAsked, l.Doubts(told, d, s.known()), nil
	}
	return store.CountsAsked, nil, nil
}

// checkEntry refuses what of an entry is not of the piece and cannot be.
func checkEntry(e Entry) error {
	var ps piece.Problems
	if m := e.Minutes; m != nil && !(*m >= 0 && *m <= 100_000) {
		ps = append(ps, piece.Problem{Path: "minutes", Message: fmt.Sprintf("is %v; minutes are zero or more", *m)})
	}
	if len([]rune(e.Note)) > 2000 {
		ps = append(ps, piece.Problem{Path: "note", Message: "is longer than 2000 letters"})
	}
	if len(ps) > 0 {
		return ps
	}
	return nil
}
