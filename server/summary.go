package server

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"strings"
	"time"

	"nimblebight/core/knot"
	"nimblebight/core/piece"
	"nimblebight/core/plan"
	"nimblebight/core/side"
	"nimblebight/formats/document"
	"nimblebight/store"
)

// summary is what the rack shows of a revision, kept beside it.
type summary struct {
	Name     string  `json:"name"`
	Kind     string  `json:"kind"`
	LengthMM float64 `json:"length_mm"`
	Actions  int     `json:"actions"`
	Warnings int     `json:"warnings"`
	Trouble  string  `json:"trouble,omitempty"`
	// Picture is what its picture is kept by, Words what it is found by.
	Picture string `json:"picture"`
	Words   string `json:"words"`
}

// mostWords are the letters that a piece is found by.
const mostWords = 2000

// sum plans a document for the rack. What cannot be planned, and what fails in
// trying, costs this piece its figures and nothing else.
func (s *Server) sum(raw []byte, set Settings) store.Summary {
	digest := sha256.Sum256(raw)
	out := summary{Picture: hex.EncodeToString(digest[:12])}
	by := s.summedBy()
	err := side.Guard(func() error {
		d, err := document.Decode(raw)
		if err != nil {
			out.Name = "A piece that cannot be read"
			return err
		}
		out.Name, out.Kind, out.Words = d.Name, d.Purpose.Kind, words(d)
		if ps := d.Check(); len(ps) > 0 {
			return ps
		}
		p, err := s.views.plan(raw, d, set, hand{})
		if err != nil {
			return err
		}
		if len(p.Rough) > 0 {
			by += " nearly" // it is summed up again when the program starts anew
		}
		out.LengthMM, out.Actions, out.Warnings = p.LengthMM, p.Actions, len(p.Warnings)
		return nil
	})
	if err != nil {
		out.Trouble = s.trouble("planning a piece", err)
	}
	b, err := json.Marshal(out)
	if err != nil {
		return store.Summary{}
	}
	return store.Summary{Text: string(b), By: by}
}

// summedBy names what summaries are worked out by: the program, and what is known of
// the maker.
func (s *Server) summedBy() string { return strings.TrimSpace(plan.Version() + " " + s.known().ID()) }

// trouble is a failure as the page is told it; a panic is written down.
func (s *Server) trouble(what string, err error) string {
	if p, ok := err.(*side.Panic); ok {
		s.panicked(what, p)
		return "the program failed on this piece; it is a fault of ours, and nothing of the piece is lost"
	}
	var ps piece.Problems
	if errors.As(err, &ps) {
		return ps.Spoken()
	}
	return err.Error()
}

// words are what a piece is found by beside its name: its cords, knots and notes.
func words(d piece.Document) string {
	var out []string
	put := func(ws ...string) {
		for _, w := range ws {
			if w != "" {
				out = append(out, w)
			}
		}
	}
	put(d.Purpose.Kind, d.Purpose.Note, strings.ReplaceAll(d.Purpose.HangsOn.Type, "-", " "))
	for _, c := range d.Cords {
		put(c.Stuff.Label, c.Stuff.Make.Name(), string(c.Stuff.Material), c.Stuff.Colour)
	}
	seen := map[string]bool{}
	var look func(seq []knot.Section)
	look = func(seq []knot.Section) {
		for _, q := range seq {
			put(q.Note)
			if k, ok := knot.Get(q.Do); ok && !seen[q.Do] {
				seen[q.Do] = true
				put(k.Name)
				put(k.OtherNames...)
			}
			look(q.Sequence)
			for _, r := range q.Rows {
				look(r.Sequence)
			}
		}
	}
	look(d.Sequence)
	text := []rune(strings.Join(out, " "))
	return string(text[:min(len(text), mostWords)])
}

// tend does what a folder needs beside the answers: it sums up pieces whose
// figures are an older program's, and thins old histories once a day.
func (s *Server) tend(ctx context.Context) {
	for thin := time.Now(); ; {
		select {
		case <-ctx.Done():
			return
		case <-time.After(time.Until(thin)):
		case <-s.learnt.anew: // the rack's figures are other ones now
		}
		for !s.ready.Load() {
			select {
			case <-ctx.Done():
				return
			case <-time.After(50 * time.Millisecond):
			}
		}
		if err := s.SumAll(ctx); err != nil && ctx.Err() == nil {
			s.log.Warn("summing pieces up", "error", err)
		}
		if time.Now().Before(thin) {
			continue
		}
		thin = time.Now().Add(24 * time.Hour)
		gone, err := s.store.Thin(ctx, time.Now())
		if err == nil && gone > 0 {
			err = s.store.GiveBack(ctx)
		}
		if err != nil && ctx.Err() == nil {
			s.log.Warn("thinning old revisions", "error", err)
		}
	}
}

// SumAll works out what the rack shows of every piece of which this program has
// not yet.
func (s *Server) SumAll(ctx context.Context) error {
	set, err := s.settings(ctx)
	if err != nil {
		return err
	}
	by := s.summedBy()
	for last := int64(0); ; {
		const some = 20
		ps, err := s.store.Unsummed(ctx, by, last, some)
		if err != nil || len(ps) == 0 {
			return err
		}
		for _, p := range ps {
			last = p.ID
			if err := s.store.Sum(ctx, p.Revision, s.sum(p.Document, set)); err != nil {
				return err
			}
			if ctx.Err() != nil {
				return ctx.Err()
			}
		}
	}
}

// tag is a piece's paper tag, read from what is kept beside its revision.
func tag(t store.Tag) Tag {
	out := Tag{ID: t.ID, Revision: t.Revision, Done: t.Done, Stage: "planned", UpdatedAt: t.UpdatedAt}
	var sum summary
	if json.Unmarshal([]byte(t.Summary.Text), &sum) != nil || t.Summary.Text == "" {
		out.Name, out.Pending = "…", true
		return out
	}
	out.Name, out.Kind, out.LengthMM, out.Actions = sum.Name, sum.Kind, sum.LengthMM, sum.Actions
	out.Warnings, out.Trouble, out.Picture, out.Words = sum.Warnings, sum.Trouble, sum.Picture, sum.Words
	switch {
	case t.Logged > 0:
		out.Stage = "logged"
	case t.Done > 0 && t.Done >= out.Actions && out.Actions > 0:
		out.Stage = "tied"
	case t.Done > 0:
		out.Stage = "on the vise"
	case t.Done < 0:
		out.Stage = "being cut"
	}
	return out
}
