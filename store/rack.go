package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Tag is a piece as the rack shows it, without its document.
type Tag struct {
	ID        int64
	Revision  int64
	UpdatedAt time.Time
	Summary   Summary
	Done      int // actions done at the vise
	Logged    int // log entries
}

type tagRow struct {
	ID        int64
	Revision  int64
	UpdatedAt time.Time
	Summary   string
	SummedBy  string
	Done      int
	Logged    int
}

// Tags lists the pieces on the rack, or those in the bin, oldest first, as they
// stand at one moment. However many there are, it is one question.
func (s *Store) Tags(ctx context.Context, binned bool) ([]Tag, error) {
	var rows []tagRow
	err := s.read(ctx, func(tx *gorm.DB) error {
		return tx.Raw(`
SELECT p.id, r.id AS revision, r.created_at AS updated_at, r.summary, r.summed_by,
  ifnull(v.action, 0) AS done, (SELECT count(*) FROM logs l WHERE l.piece_id = p.id AND l.cords <> 'null') AS logged
FROM pieces p JOIN revisions r ON r.id = p.current_id LEFT JOIN places v ON v.piece_id = p.id
WHERE (p.binned_at IS NOT NULL) = ? ORDER BY p.id`, binned).Scan(&rows).Error
	})
	if err != nil {
		return nil, fmt.Errorf("listing pieces: %w", err)
	}
	out := make([]Tag, 0, len(rows))
	for _, r := range rows {
		out = append(out, Tag{r.ID, r.Revision, r.UpdatedAt, Summary{r.Summary, r.SummedBy}, r.Done, r.Logged})
	}
	return out, nil
}

// Unsummed are up to most pieces whose summary is not by the program named, in
// the order of their numbers, from the one after a piece on.
func (s *Store) Unsummed(ctx context.Context, by string, after int64, most int) ([]Piece, error) {
	var out []Piece
	err := s.read(ctx, func(tx *gorm.DB) error {
		var rows []pieceRow
		err := tx.Raw(`SELECT p.* FROM pieces p JOIN revisions r ON r.id = p.current_id
WHERE r.summed_by <> ? AND p.id > ? ORDER BY p.id LIMIT ?`, by, after, most).Scan(&rows).Error
		if err != nil {
			return err
		}
		for _, p := range rows {
			var r revisionRow
			if err := tx.First(&r, *p.CurrentID).Error; err != nil {
				return err
			}
			out = append(out, Piece{ID: p.ID, UID: p.UID, Revision: r.ID, Document: []byte(r.Document), UpdatedAt: r.CreatedAt})
		}
		return nil
	})
	return out, err
}

// Sum keeps the summary of a revision.
func (s *Store) Sum(ctx context.Context, revision int64, sum Summary) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		return tx.Model(&revisionRow{}).Where("id = ?", revision).Updates(map[string]any{"summary": sum.Text, "summed_by": sum.By}).Error
	})
}
