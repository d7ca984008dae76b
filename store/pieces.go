package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Piece is a piece at its current revision.
type Piece struct {
	ID        int64
	UID       string // the same in every folder that the piece is carried to
	Revision  int64
	Document  []byte // JSON text
	CreatedAt time.Time
	UpdatedAt time.Time
	BinnedAt  *time.Time
	CanUndo   bool
	CanRedo   bool
	Place     Place
	Logged    int // log entries
}

// Summary is what the rack shows of a revision, written by whoever can plan it
// and kept beside it. By names that program, so that figures of an older one are
// worked out anew.
type Summary struct {
	Text string // JSON text; "" where nobody has looked yet
	By   string
}

// Conflict is the error for a save that was made from a revision that is not
// the current one any more.
type Conflict struct {
	Current Piece
}

func (c *Conflict) Error() string {
	return fmt.Sprintf("piece %d was changed elsewhere: its revision is now %d", c.Current.ID, c.Current.Revision)
}

type pieceRow struct {
	ID        int64 `gorm:"primaryKey"`
	UID       string
	CreatedAt time.Time
	BinnedAt  *time.Time
	CurrentID *int64
}

func (pieceRow) TableName() string { return "pieces" }

type revisionRow struct {
	ID        int64 `gorm:"primaryKey"`
	PieceID   int64
	ParentID  *int64
	CreatedAt time.Time
	Document  string
	Name      string
	Aside     bool
	Summary   string
	SummedBy  string
}

func (revisionRow) TableName() string { return "revisions" }

// Create keeps a new piece.
func (s *Store) Create(ctx context.Context, document []byte, sum Summary) (Piece, error) {
	var out Piece
	err := s.write(ctx, func(tx *gorm.DB) error {
		p := pieceRow{UID: random(), CreatedAt: time.Now().UTC()}
		if err := tx.Create(&p).Error; err != nil {
			return err
		}
		var err error
		out, err = addRevision(tx, p, nil, document, sum)
		return err
	})
	if err != nil {
		return Piece{}, fmt.Errorf("keeping a new piece: %w", err)
	}
	return out, nil
}

func addRevision(tx *gorm.DB, p pieceRow, parent *int64, document []byte, sum Summary) (Piece, error) {
	r := revisionRow{PieceID: p.ID, ParentID: parent, CreatedAt: time.Now().UTC(), Document: string(document), Summary: sum.Text, SummedBy: sum.By}
	if err := tx.Create(&r).Error; err != nil {
		return Piece{}, err
	}
	return pointAt(tx, p, r)
}

func pointAt(tx *gorm.DB, p pieceRow, r revisionRow) (Piece, error) {
	p.CurrentID = &r.ID
	if err := tx.Model(&p).Update("current_id", r.ID).Error; err != nil {
		return Piece{}, err
	}
	return assemble(tx, p, r)
}

// assemble gathers what belongs to a piece.
func assemble(tx *gorm.DB, p pieceRow, r revisionRow) (Piece, error) {
	out := Piece{ID: p.ID, UID: p.UID, Revision: r.ID, Document: []byte(r.Document), CreatedAt: p.CreatedAt, UpdatedAt: r.CreatedAt,
		BinnedAt: p.BinnedAt, CanUndo: r.ParentID != nil}
	var children, logged int64
	if err := tx.Model(&revisionRow{}).Where("parent_id = ? AND NOT aside", r.ID).Count(&children).Error; err != nil {
		return Piece{}, err
	}
	if err := tx.Model(&logRow{}).Where("piece_id = ? AND cords <> 'null'", p.ID).Count(&logged).Error; err != nil {
		return Piece{}, err
	}
	var place placeRow
	if err := tx.Where("piece_id = ?", p.ID).Limit(1).Find(&place).Error; err != nil {
		return Piece{}, err
	}
	out.CanRedo, out.Logged, out.Place = children > 0, int(logged), place.out()
	return out, nil
}

func load(tx *gorm.DB, id int64) (pieceRow, revisionRow, error) {
	var p pieceRow
	if err := tx.First(&p, id).Error; err != nil {
		return p, revisionRow{}, found(err, "piece", id)
	}
	var r revisionRow
	if err := tx.First(&r, *p.CurrentID).Error; err != nil {
		return p, r, found(err, "the current revision of piece", id)
	}
	return p, r, nil
}

// Piece gets a piece, from the bin too.
func (s *Store) Piece(ctx context.Context, id int64) (Piece, error) {
	var out Piece
	err := s.read(ctx, func(tx *gorm.DB) error {
		p, r, err := load(tx, id)
		if err == nil {
			out, err = assemble(tx, p, r)
		}
		return err
	})
	return out, err
}

// Change is a save of a piece: a document made from revision BasedOn, what the
// rack shows of it and, where it moves, the place at the vise.
type Change struct {
	ID, BasedOn int64
	Document    []byte
	Summary     Summary
	// Moved is the place in the new revision, nil where it stays as it is.
	Moved *int
}

// Save keeps a new revision. If BasedOn is not the current one the error is a
// [*Conflict] and nothing is changed, but for a document that is already the
// current one: sent twice, it was kept the first time.
func (s *Store) Save(ctx context.Context, c Change) (Piece, error) {
	var out Piece
	err := s.write(ctx, func(tx *gorm.DB) error {
		p, r, err := load(tx, c.ID)
		if err != nil {
			return err
		}
		if r.Document == string(c.Document) {
			out, err = assemble(tx, p, r)
			return err
		}
		if r.ID != c.BasedOn {
			return conflict(tx, p, r)
		}
		if out, err = addRevision(tx, p, &r.ID, c.Document, c.Summary); err != nil {
			return err
		}
		return out.carry(tx, c.Moved)
	})
	return out, err
}

func conflict(tx *gorm.DB, p pieceRow, r revisionRow) error {
	current, err := assemble(tx, p, r)
	if err != nil {
		return err
	}
	return &Conflict{Current: current}
}

// carry writes the place of a piece in the terms of its current revision.
func (p *Piece) carry(tx *gorm.DB, to *int) error {
	if to == nil || p.Place.Revision == 0 {
		return nil
	}
	p.Place.Done, p.Place.Revision = *to, p.Revision
	return tx.Model(&placeRow{PieceID: p.ID}).Updates(map[string]any{"action": *to, "revision_id": p.Revision}).Error
}

// A Mover tells where the place at the vise is in another document; false where
// it cannot be told, and it stays in the terms of the revision it was set in.
type Mover func(set Piece, to []byte) (done int, ok bool)

// Undo goes back from revision from to the one that it was made from. Asked for
// twice from the same revision it was done the first time; from any other one
// the error is a [*Conflict].
func (s *Store) Undo(ctx context.Context, id, from int64, move Mover) (Piece, error) {
	return s.walk(ctx, id, from, move, parentOf)
}

// Redo goes on to the latest revision that was made from revision from.
func (s *Store) Redo(ctx context.Context, id, from int64, move Mover) (Piece, error) {
	return s.walk(ctx, id, from, move, childOf)
}

var errNothing = errors.New("nothing to go to")

func parentOf(tx *gorm.DB, r revisionRow) (revisionRow, error) {
	var to revisionRow
	if r.ParentID == nil {
		return r, errNothing
	}
	return to, tx.First(&to, *r.ParentID).Error
}

func childOf(tx *gorm.DB, r revisionRow) (revisionRow, error) {
	var to revisionRow
	err := tx.Where("parent_id = ? AND NOT aside", r.ID).Order("id DESC").First(&to).Error
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return r, errNothing
	}
	return to, err
}

func (s *Store) walk(ctx context.Context, id, from int64, move Mover, to func(*gorm.DB, revisionRow) (revisionRow, error)) (Piece, error) {
	var out Piece
	err := s.write(ctx, func(tx *gorm.DB) error {
		p, r, err := load(tx, id)
		if err != nil {
			return err
		}
		if r.ID != from {
			var begun revisionRow
			if err := tx.Where("piece_id = ?", id).First(&begun, from).Error; err == nil {
				if there, err := to(tx, begun); err == nil && there.ID == r.ID { // the answer did not arrive
					out, err = assemble(tx, p, r)
					return err
				}
			}
			return conflict(tx, p, r)
		}
		next, err := to(tx, r)
		if errors.Is(err, errNothing) { // at an end of the history: stay
			out, err = assemble(tx, p, r)
			return err
		}
		if err != nil {
			return err
		}
		return s.goTo(tx, &out, p, next, move)
	})
	return out, err
}

// goTo makes a revision the current one and carries the place over to it.
func (s *Store) goTo(tx *gorm.DB, out *Piece, p pieceRow, next revisionRow, move Mover) error {
	var err error
	if *out, err = pointAt(tx, p, next); err != nil {
		return err
	}
	if out.Place.Revision == 0 || out.Place.Revision == next.ID || move == nil {
		return nil
	}
	set, err := placed(tx, *out)
	if err != nil {
		return err
	}
	if done, ok := move(set, out.Document); ok {
		return out.carry(tx, &done)
	}
	return nil
}

// placed is the piece as it was when its place was set.
func placed(tx *gorm.DB, p Piece) (Piece, error) {
	var r revisionRow
	if err := tx.Where("piece_id = ?", p.ID).Limit(1).Find(&r, p.Place.Revision).Error; err != nil {
		return p, err
	}
	if r.ID != 0 {
		p.Revision, p.Document = r.ID, []byte(r.Document)
	}
	return p, nil
}

// Placed is the piece at the revision in whose actions its place is counted.
func (s *Store) Placed(ctx context.Context, p Piece) (Piece, error) {
	err := s.read(ctx, func(tx *gorm.DB) error {
		var err error
		p, err = placed(tx, p)
		return err
	})
	return p, err
}

// Bin puts a piece into the bin, or takes it out again.
func (s *Store) Bin(ctx context.Context, id int64, in bool) error {
	var at *time.Time
	if in {
		now := time.Now().UTC()
		at = &now
	}
	return s.write(ctx, func(tx *gorm.DB) error {
		res := tx.Model(&pieceRow{}).Where("id = ?", id).Update("binned_at", at)
		if res.Error == nil && res.RowsAffected == 0 {
			return fmt.Errorf("piece %d: %w", id, ErrNotFound)
		}
		return res.Error
	})
}

// Destroy removes a piece that is in the bin, with its history and its log.
func (s *Store) Destroy(ctx context.Context, id int64) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		res := tx.Where("binned_at IS NOT NULL").Delete(&pieceRow{}, id)
		if res.Error == nil && res.RowsAffected == 0 {
			return fmt.Errorf("piece %d in the bin: %w", id, ErrNotFound)
		}
		return res.Error
	})
}

// EmptyBin removes all that is in the bin and tells how many pieces it was. The
// space comes back with [Store.GiveBack].
func (s *Store) EmptyBin(ctx context.Context) (int, error) {
	n := 0
	err := s.write(ctx, func(tx *gorm.DB) error {
		res := tx.Where("binned_at IS NOT NULL").Delete(&pieceRow{})
		n = int(res.RowsAffected)
		return res.Error
	})
	return n, err
}
