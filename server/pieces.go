package server

import (
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"nimblebight/core/knots/patterns"
	"nimblebight/core/notation"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/side"
	"nimblebight/formats/document"
	"nimblebight/store"
)

// pieces answers for the rack and for documents and their revisions.
func (s *Server) pieces(r *gin.RouterGroup) {
	r.GET("/pieces", s.list(false))
	r.GET("/bin", s.list(true))
	r.DELETE("/bin", s.emptyBin)
	r.POST("/pieces", s.create)
	r.GET("/pieces/:id", func(c *gin.Context) {
		p, err := s.stored(c)
		s.opens(c, p, err)
	})
	r.PUT("/pieces/:id", s.save)
	r.POST("/pieces/:id/undo", s.walk((*store.Store).Undo))
	r.POST("/pieces/:id/redo", s.walk((*store.Store).Redo))
	r.POST("/pieces/:id/copy", s.copyPiece)
	r.POST("/pieces/:id/notation", s.notation)
	r.GET("/pieces/:id/file", s.file)
	r.DELETE("/pieces/:id", s.bin(true))
	r.POST("/pieces/:id/restore", s.bin(false))
	r.DELETE("/bin/:id", func(c *gin.Context) {
		n, err := id(c, "id")
		if err == nil {
			err = s.store.Destroy(on(c), n)
		}
		s.learnt.forget()
		answer(c, nil, err)
	})
}

func (s *Server) list(binned bool) gin.HandlerFunc {
	return func(c *gin.Context) {
		ts, err := s.store.Tags(on(c), binned)
		if err != nil {
			failed(c, err)
			return
		}
		tags := make([]Tag, 0, len(ts))
		for _, t := range ts {
			tags = append(tags, tag(t))
		}
		answer(c, tags, nil)
	}
}

// emptyBin throws out all that is in the bin and gives the space back.
func (s *Server) emptyBin(c *gin.Context) {
	n, err := s.store.EmptyBin(on(c))
	s.learnt.forget()
	if err == nil && n > 0 {
		err = s.store.GiveBack(on(c))
	}
	answer(c, gin.H{"gone": n}, err)
}

func (s *Server) create(c *gin.Context) {
	var req struct {
		Pattern  string          `json:"pattern"`
		Name     string          `json:"name"`
		Document json.RawMessage `json:"document"`
	}
	if err := read(c, &req); err != nil {
		failed(c, err)
		return
	}
	d, err := piece.Document{}, error(nil)
	switch {
	case len(req.Document) > 0:
		d, err = document.Read(req.Document)
	default:
		found := false
		for _, p := range patterns.All() {
			if p.ID == req.Pattern {
				d, found = p.Document, true
			}
		}
		if !found {
			err = &bodyError{fmt.Sprintf("There is no pattern %.60q.", req.Pattern)}
		}
	}
	if err != nil {
		failed(c, err)
		return
	}
	if n := strings.TrimSpace(req.Name); n != "" {
		d.Name = n
	}
	s.keepNew(c, d)
}

func (s *Server) keepNew(c *gin.Context, d piece.Document) {
	if ps := d.Check(); len(ps) > 0 {
		failed(c, ps)
		return
	}
	b, sum, err := s.summed(c, d)
	if err != nil {
		failed(c, err)
		return
	}
	p, err := s.store.Create(on(c), b, sum)
	s.opens(c, p, err)
}

// summed is a document as it is stored, with what the rack shows of it.
func (s *Server) summed(c ctx, d piece.Document) ([]byte, store.Summary, error) {
	b, err := json.Marshal(d)
	if err != nil {
		return nil, store.Summary{}, err
	}
	set, err := s.settings(c)
	if err != nil {
		return nil, store.Summary{}, err
	}
	return b, s.sum(b, set), nil
}

// opens answers with a stored piece as the bench gets it.
func (s *Server) opens(c *gin.Context, p store.Piece, err error) {
	if err != nil {
		failed(c, err)
		return
	}
	out, err := s.open(c, p)
	answer(c, out, err)
}

// open is a stored piece as the bench gets it. One that cannot be read has no
// document and says why; it can still be undone, saved to a file and binned.
func (s *Server) open(c ctx, p store.Piece) (*Bench, error) {
	out := &Bench{ID: p.ID, Folder: s.store.Identity(), Revision: p.Revision, CanUndo: p.CanUndo, CanRedo: p.CanRedo, Binned: p.BinnedAt != nil, Done: p.Place.Done}
	d, err := document.Decode(p.Document)
	if err != nil {
		out.Trouble = err.Error()
		return out, nil
	}
	out.Document, out.Notation = &d, notation.Notate(d.Sequence)
	if p.Place.Revision == 0 { // not begun: nothing is cut yet
		_ = side.Guard(func() error {
			set, err := s.settings(c)
			if err != nil {
				return err
			}
			pl, err := s.views.plan(p.Document, d, set, hand{})
			out.Done = -len(pl.Ready)
			return err // what cannot be planned has nothing to cut
		})
	}
	if p.Place.Revision != 0 && p.Place.Revision != p.Revision {
		set, err := s.store.Placed(on(c), p)
		if err != nil {
			return nil, err
		}
		if done, ok := s.mover(c)(set, p.Document); ok {
			out.Done = done
		}
	}
	return out, nil
}

// mover carries a place at the vise from one document of a piece to another.
func (s *Server) mover(c ctx) store.Mover {
	return func(from store.Piece, to []byte) (done int, ok bool) {
		err := side.Guard(func() error {
			set, err := s.settings(c)
			if err != nil {
				return err
			}
			var two [2]plan.Plan
			for i, raw := range [2][]byte{from.Document, to} {
				d, err := document.Read(raw)
				if err != nil {
					return err
				}
				if two[i], err = s.views.plan(raw, d, set, hand{}); err != nil {
					return err
				}
			}
			done = plan.Carry(two[0], two[1], from.Place.Done)
			return nil
		})
		var p *side.Panic
		if errors.As(err, &p) {
			s.panicked("carrying a place over", p)
		}
		return done, err == nil
	}
}

// walk undoes or redoes from the revision that the page shows.
func (s *Server) walk(do func(*store.Store, ctx, int64, int64, store.Mover) (store.Piece, error)) gin.HandlerFunc {
	return func(c *gin.Context) {
		var req StepRequest
		err := read(c, &req)
		if err == nil && req.Revision < 1 {
			err = &bodyError{"The request does not say from which revision."}
		}
		var n int64
		if err == nil {
			n, err = id(c, "id")
		}
		if err != nil {
			failed(c, err)
			return
		}
		p, err := do(s.store, on(c), n, req.Revision, s.mover(c))
		s.kept(c, p, err, nil)
	}
}

// kept answers with a piece that was saved, or with both versions where another
// window was first.
func (s *Server) kept(c *gin.Context, p store.Piece, err error, mine *piece.Document) {
	var conflict *store.Conflict
	if errors.As(err, &conflict) {
		now, err := s.open(c, conflict.Current)
		if err != nil {
			failed(c, err)
			return
		}
		send(c, Problem{Status: http.StatusConflict, Code: "conflict", Detail: "This piece was changed in another window.", Current: now, Yours: mine})
		return
	}
	s.opens(c, p, err)
}

func (s *Server) save(c *gin.Context) {
	var req struct {
		Revision int64           `json:"revision"`
		Document json.RawMessage `json:"document"`
	}
	if err := read(c, &req); err != nil {
		failed(c, err)
		return
	}
	d, err := document.Read(req.Document)
	if err != nil {
		failed(c, err)
		return
	}
	s.keep(c, req.Revision, d)
}

// keep saves a document with what the rack shows of it and with the place at the
// vise carried over. What comes in new was checked before; an old revision that
// cannot be planned any more is kept as it is and says so.
//
// It answers, and tells whether the document was saved.
func (s *Server) keep(c *gin.Context, revision int64, d piece.Document) bool {
	now, err := s.stored(c)
	if err != nil {
		failed(c, err)
		return false
	}
	b, sum, err := s.summed(c, d)
	if err != nil {
		failed(c, err)
		return false
	}
	change := store.Change{ID: now.ID, BasedOn: revision, Document: b, Summary: sum}
	if now.Place.Done > 0 {
		was, err := s.store.Placed(on(c), now)
		if err != nil {
			failed(c, err)
			return false
		}
		if done, ok := s.mover(c)(was, b); ok {
			change.Moved = &done
		}
	}
	p, err := s.store.Save(on(c), change)
	s.kept(c, p, err, &d)
	return err == nil
}

func (s *Server) copyPiece(c *gin.Context) {
	_, d, _, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	const most = 120
	name := []rune(strings.TrimSpace(d.Name))
	d.Name = strings.TrimSpace(string(name[:min(len(name), most-5)]) + " copy")
	s.keepNew(c, d)
}

// file is the piece as a file to keep, as it is stored.
func (s *Server) file(c *gin.Context) {
	p, err := s.stored(c)
	if err != nil {
		failed(c, err)
		return
	}
	name := fmt.Sprintf("piece-%d.json", p.ID)
	if d, err := document.Decode(p.Document); err == nil {
		if f := fileName(d.Name); f != "" {
			name = f + ".json"
		}
	}
	c.Header("Content-Disposition", `attachment; filename="`+name+`"`)
	c.Data(http.StatusOK, "application/json; charset=utf-8", indented(p.Document))
}

// notation saves a sequence that was typed.
func (s *Server) notation(c *gin.Context) {
	var req struct {
		Revision int64   `json:"revision"`
		Line     *string `json:"line"`
	}
	err := read(c, &req)
	if err == nil && req.Line == nil { // an empty line empties the sequence; none at all is a slip
		err = &bodyError{"The request holds no line."}
	}
	if err != nil {
		failed(c, err)
		return
	}
	_, d, _, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	seq, err := notation.Respell(d.Sequence, *req.Line)
	if err != nil {
		failed(c, err)
		return
	}
	d.Sequence = seq
	if ps := d.Check(); len(ps) > 0 {
		failed(c, ps)
		return
	}
	s.keep(c, req.Revision, d)
}

func (s *Server) bin(in bool) gin.HandlerFunc {
	return func(c *gin.Context) {
		n, err := id(c, "id")
		if err == nil {
			err = s.store.Bin(on(c), n, in)
		}
		s.learnt.forget()
		answer(c, nil, err)
	}
}
