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
	Revision  int64
	Document  []byte // JSON text
	CreatedAt time.Time
	UpdatedAt time.Time
	BinnedAt  *time.Time
	CanUndo   bool
	CanRedo   bool
	Action    int // the place at the vise: actions done
	Logged    int // log entries
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
}

func (revisionRow) TableName() string { return "revisions" }

type placeRow struct {
	PieceID   int64 `gorm:"primaryKey;autoIncrement:false"`
	Action    int
	UpdatedAt time.Time
}

func (placeRow) TableName() string { return "places" }

// Create keeps a new piece.
func (s *Store) Create(ctx context.Context, document []byte) (Piece, error) {
	var out Piece
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p := pieceRow{CreatedAt: time.Now().UTC()}
		if err := tx.Create(&p).Error; err != nil {
			return err
		}
		var err error
		out, err = addRevision(tx, p, nil, document)
		return err
	})
	if err != nil {
		return Piece{}, fmt.Errorf("keeping a new piece: %w", err)
	}
	return out, nil
}

func addRevision(tx *gorm.DB, p pieceRow, parent *int64, document []byte) (Piece, error) {
	r := revisionRow{PieceID: p.ID, ParentID: parent, CreatedAt: time.Now().UTC(), Document: string(document)}
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
	out := Piece{ID: p.ID, Revision: r.ID, Document: []byte(r.Document), CreatedAt: p.CreatedAt, UpdatedAt: r.CreatedAt,
		BinnedAt: p.BinnedAt, CanUndo: r.ParentID != nil}
	var children, logged int64
	if err := tx.Model(&revisionRow{}).Where("parent_id = ?", r.ID).Count(&children).Error; err != nil {
		return Piece{}, err
	}
	if err := tx.Model(&logRow{}).Where("piece_id = ?", p.ID).Count(&logged).Error; err != nil {
		return Piece{}, err
	}
	var place placeRow
	if err := tx.Where("piece_id = ?", p.ID).Limit(1).Find(&place).Error; err != nil {
		return Piece{}, err
	}
	out.CanRedo, out.Logged, out.Action = children > 0, int(logged), place.Action
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
	tx := s.db.WithContext(ctx)
	p, r, err := load(tx, id)
	if err != nil {
		return Piece{}, err
	}
	return assemble(tx, p, r)
}

// Pieces lists the pieces on the rack, or those in the bin, oldest first.
func (s *Store) Pieces(ctx context.Context, binned bool) ([]Piece, error) {
	where := "binned_at IS NULL"
	if binned {
		where = "binned_at IS NOT NULL"
	}
	var rows []pieceRow
	tx := s.db.WithContext(ctx)
	if err := tx.Where(where).Order("id").Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("listing pieces: %w", err)
	}
	out := make([]Piece, 0, len(rows))
	for _, row := range rows {
		p, err := s.Piece(ctx, row.ID)
		if err != nil {
			return nil, err
		}
		out = append(out, p)
	}
	return out, nil
}

// Save keeps a new revision made from revision basedOn. If that is not the
// current one the error is a [*Conflict] and nothing is changed.
func (s *Store) Save(ctx context.Context, id, basedOn int64, document []byte) (Piece, error) {
	var out Piece
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, r, err := load(tx, id)
		if err != nil {
			return err
		}
		if r.ID != basedOn {
			current, err := assemble(tx, p, r)
			if err != nil {
				return err
			}
			return &Conflict{Current: current}
		}
		if r.Document == string(document) { // nothing changed, nothing to undo
			out, err = assemble(tx, p, r)
			return err
		}
		out, err = addRevision(tx, p, &r.ID, document)
		return err
	})
	return out, err
}

// Undo goes back to the revision that the current one was made from.
func (s *Store) Undo(ctx context.Context, id int64) (Piece, error) {
	return s.walk(ctx, id, func(tx *gorm.DB, r revisionRow) (revisionRow, error) {
		if r.ParentID == nil {
			return r, errNothing
		}
		var to revisionRow
		return to, tx.First(&to, *r.ParentID).Error
	})
}

// Redo goes on to the latest revision that was made from the current one.
func (s *Store) Redo(ctx context.Context, id int64) (Piece, error) {
	return s.walk(ctx, id, func(tx *gorm.DB, r revisionRow) (revisionRow, error) {
		var to revisionRow
		err := tx.Where("parent_id = ?", r.ID).Order("id DESC").First(&to).Error
		if errors.Is(err, gorm.ErrRecordNotFound) {
			return r, errNothing
		}
		return to, err
	})
}

var errNothing = errors.New("nothing to go to")

func (s *Store) walk(ctx context.Context, id int64, to func(*gorm.DB, revisionRow) (revisionRow, error)) (Piece, error) {
	var out Piece
	err := s.db.WithContext(ctx).Transaction(func(tx *gorm.DB) error {
		p, r, err := load(tx, id)
		if err != nil {
			return err
		}
		next, err := to(tx, r)
		if errors.Is(err, errNothing) { // at an end of the history: stay
			out, err = assemble(tx, p, r)
			return err
		}
		if err != nil {
			return err
		}
		out, err = pointAt(tx, p, next)
		return err
	})
	return out, err
}

// Bin puts a piece into the bin, or takes it out again.
func (s *Store) Bin(ctx context.Context, id int64, in bool) error {
	var at *time.Time
	if in {
		now := time.Now().UTC()
		at = &now
	}
	res := s.db.WithContext(ctx).Model(&pieceRow{}).Where("id = ?", id).Update("binned_at", at)
	if res.Error == nil && res.RowsAffected == 0 {
		return fmt.Errorf("piece %d: %w", id, ErrNotFound)
	}
	return res.Error
}

// Destroy removes a piece that is in the bin, with its history and its log.
func (s *Store) Destroy(ctx context.Context, id int64) error {
	res := s.db.WithContext(ctx).Where("binned_at IS NOT NULL").Delete(&pieceRow{}, id)
	if res.Error == nil && res.RowsAffected == 0 {
		return fmt.Errorf("piece %d in the bin: %w", id, ErrNotFound)
	}
	return res.Error
}

// SetPlace remembers how many actions of a piece are done at the vise.
func (s *Store) SetPlace(ctx context.Context, id int64, action int) error {
	if action < 0 {
		return fmt.Errorf("a place at the vise is not below zero: %d", action)
	}
	err := s.db.WithContext(ctx).Save(&placeRow{PieceID: id, Action: action, UpdatedAt: time.Now().UTC()}).Error
	if errors.Is(err, gorm.ErrForeignKeyViolated) {
		return fmt.Errorf("piece %d: %w", id, ErrNotFound)
	}
	return err
}
