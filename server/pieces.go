package server

import (
	"encoding/json"
	"errors"
	"net/http"
	"strings"

	"github.com/gin-gonic/gin"

	"nimblebight/core/piece"
	"nimblebight/store"
)

// pieces answers for the rack and for documents and their revisions.
func (s *Server) pieces(r *gin.RouterGroup) {
	r.GET("/pieces", s.list(false))
	r.GET("/bin", s.list(true))
	r.POST("/pieces", s.create)
	r.GET("/pieces/:id", func(c *gin.Context) { s.withPiece(c, s.store.Piece) })
	r.PUT("/pieces/:id", s.save)
	r.POST("/pieces/:id/undo", func(c *gin.Context) { s.withPiece(c, s.store.Undo) })
	r.POST("/pieces/:id/redo", func(c *gin.Context) { s.withPiece(c, s.store.Redo) })
	r.POST("/pieces/:id/copy", s.copyPiece)
	r.POST("/pieces/:id/notation", s.notation)
	r.DELETE("/pieces/:id", s.bin(true))
	r.POST("/pieces/:id/restore", s.bin(false))
	r.DELETE("/bin/:id", func(c *gin.Context) {
		n, err := id(c, "id")
		if err == nil {
			err = s.store.Destroy(c, n)
		}
		answer(c, nil, err)
	})
}

func (s *Server) list(binned bool) gin.HandlerFunc {
	return func(c *gin.Context) {
		ps, err := s.store.Pieces(c, binned)
		if err != nil {
			failed(c, err)
			return
		}
		set, err := s.settings(c)
		if err != nil {
			failed(c, err)
			return
		}
		tags := make([]Tag, 0, len(ps))
		for _, p := range ps {
			tags = append(tags, s.tag(p, set))
		}
		c.JSON(http.StatusOK, tags)
	}
}

// tag is a piece's paper tag.
func (s *Server) tag(p store.Piece, set Settings) Tag {
	t := Tag{ID: p.ID, Revision: p.Revision, Done: p.Action, Stage: "planned", UpdatedAt: p.UpdatedAt}
	d, err := piece.Read(p.Document)
	if err != nil {
		t.Name, t.Trouble = "A piece that cannot be read", err.Error()
		return t
	}
	t.Name, t.Kind = d.Name, d.Purpose.Kind
	pl, err := s.views.plan(p.Document, d, set, hand{})
	if err != nil {
		t.Trouble = err.Error()
	} else {
		t.Actions, t.LengthMM, t.Warnings = pl.Actions, pl.LengthMM, len(pl.Warnings)
	}
	switch {
	case p.Logged > 0:
		t.Stage = "logged"
	case p.Action > 0 && p.Action >= t.Actions:
		t.Stage = "tied"
	case p.Action > 0:
		t.Stage = "on the vise"
	}
	return t
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
		d, err = piece.Read(req.Document)
	default:
		found := false
		for _, p := range piece.Patterns() {
			if p.ID == req.Pattern {
				d, found = p.Document, true
			}
		}
		if !found {
			err = &bodyError{"There is no pattern " + req.Pattern + "."}
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
	b, err := json.Marshal(d)
	if err != nil {
		failed(c, err)
		return
	}
	p, err := s.store.Create(c, b)
	if err != nil {
		failed(c, err)
		return
	}
	out, err := open(p)
	answer(c, out, err)
}

// open is a stored piece as the bench gets it.
func open(p store.Piece) (*Bench, error) {
	d, err := piece.Read(p.Document)
	if err != nil {
		return nil, err
	}
	return &Bench{ID: p.ID, Revision: p.Revision, CanUndo: p.CanUndo, CanRedo: p.CanRedo, Binned: p.BinnedAt != nil, Done: p.Action, Document: d}, nil
}

// withPiece answers with the piece that do gives.
func (s *Server) withPiece(c *gin.Context, do func(ctx ctx, id int64) (store.Piece, error)) {
	n, err := id(c, "id")
	if err != nil {
		failed(c, err)
		return
	}
	p, err := do(c, n)
	if err != nil {
		failed(c, err)
		return
	}
	out, err := open(p)
	answer(c, out, err)
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
	d, err := piece.Read(req.Document)
	if err != nil {
		failed(c, err)
		return
	}
	s.keep(c, req.Revision, d)
}

// keep saves a checked document and answers with the piece, or with both
// versions where another window was first.
func (s *Server) keep(c *gin.Context, revision int64, d piece.Document) {
	b, err := json.Marshal(d)
	if err != nil {
		failed(c, err)
		return
	}
	n, err := id(c, "id")
	if err != nil {
		failed(c, err)
		return
	}
	p, err := s.store.Save(c, n, revision, b)
	var conflict *store.Conflict
	if errors.As(err, &conflict) {
		now, err := open(conflict.Current)
		if err != nil {
			failed(c, err)
			return
		}
		send(c, Problem{Status: http.StatusConflict, Detail: "This piece was changed in another window.", Current: now, Yours: &d})
		return
	}
	if err != nil {
		failed(c, err)
		return
	}
	out, err := open(p)
	answer(c, out, err)
}

func (s *Server) copyPiece(c *gin.Context) {
	_, d, _, err := s.opened(c)
	if err != nil {
		failed(c, err)
		return
	}
	d.Name = strings.TrimSpace(d.Name + " copy")
	s.keepNew(c, d)
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
	seq, err := piece.Respell(d.Sequence, *req.Line)
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
			err = s.store.Bin(c, n, in)
		}
		answer(c, nil, err)
	}
}
