package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Revision is one revision of a piece's history.
type Revision struct {
	ID        int64
	CreatedAt time.Time
	Name      string
	Aside     bool // beside the history: a version that lost in a conflict
	Current   bool
	Summary   Summary
	Document  []byte // only where one revision was asked for
}

// mostListed is how much of a history is listed.
const mostListed = 500

// Revisions lists the newest revisions of a piece, newest first, and all that
// have a name.
func (s *Store) Revisions(ctx context.Context, id int64) ([]Revision, error) {
	var out []Revision
	err := s.read(ctx, func(tx *gorm.DB) error {
		var p pieceRow
		if err := tx.First(&p, id).Error; err != nil {
			return found(err, "piece", id)
		}
		var rows []revisionRow
		err := tx.Select("id", "created_at", "name", "aside", "summary", "summed_by").
			Where("piece_id = ? AND (name <> '' OR id IN (SELECT id FROM revisions WHERE piece_id = ? ORDER BY id DESC LIMIT ?))", id, id, mostListed).
			Order("id DESC").Find(&rows).Error
		for _, r := range rows {
			out = append(out, r.out(p))
		}
		return err
	})
	return out, err
}

func (r revisionRow) out(p pieceRow) Revision {
	return Revision{ID: r.ID, CreatedAt: r.CreatedAt, Name: r.Name, Aside: r.Aside, Current: p.CurrentID != nil && *p.CurrentID == r.ID,
		Summary: Summary{r.Summary, r.SummedBy}, Document: []byte(r.Document)}
}

// Revision gets one revision of a piece with its document.
func (s *Store) Revision(ctx context.Context, id, revision int64) (Revision, error) {
	var out Revision
	err := s.read(ctx, func(tx *gorm.DB) error {
		var p pieceRow
		if err := tx.First(&p, id).Error; err != nil {
			return found(err, "piece", id)
		}
		var r revisionRow
		if err := tx.Where("piece_id = ?", id).First(&r, revision).Error; err != nil {
			return found(err, fmt.Sprintf("of piece %d revision", id), revision)
		}
		out = r.out(p)
		return nil
	})
	return out, err
}

// Name gives a revision a name, by which it is kept for ever; "" takes it away.
func (s *Store) Name(ctx context.Context, id, revision int64, name string) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		res := tx.Model(&revisionRow{}).Where("id = ? AND piece_id = ?", revision, id).Update("name", name)
		if res.Error == nil && res.RowsAffected == 0 {
			return fmt.Errorf("of piece %d revision %d: %w", id, revision, ErrNotFound)
		}
		return res.Error
	})
}

// SetAside keeps a document beside the history of a piece, under a name: what
// somebody made and did not win with. The piece stays as it is.
func (s *Store) SetAside(ctx context.Context, id int64, document []byte, sum Summary, name string) (Revision, error) {
	var out Revision
	err := s.write(ctx, func(tx *gorm.DB) error {
		p, now, err := load(tx, id)
		if err != nil {
			return err
		}
		var same revisionRow
		if err := tx.Where("piece_id = ? AND aside AND document = ?", id, string(document)).Limit(1).Find(&same).Error; err != nil {
			return err
		}
		if same.ID != 0 { // sent twice
			out = same.out(p)
			return nil
		}
		r := revisionRow{PieceID: id, ParentID: &now.ID, CreatedAt: time.Now().UTC(), Document: string(document), Name: name, Aside: true, Summary: sum.Text, SummedBy: sum.By}
		if err := tx.Create(&r).Error; err != nil {
			return err
		}
		out = r.out(p)
		return nil
	})
	return out, err
}

// The rule by which old revisions are thinned. Newer than All every one is
// kept; up to Hourly old the last one of each hour; older still the last one of
// each day. Those with a name, the current one, and those that a log entry or
// the place at the vise counts in are kept for ever.
const (
	All    = 30 * 24 * time.Hour
	Hourly = 180 * 24 * time.Hour
)

// Thin drops the revisions that the rule no longer keeps and tells how many.
// What was made from a dropped one is made from its parent now, so undo goes on
// past it.
func (s *Store) Thin(ctx context.Context, now time.Time) (int, error) {
	var ids []int64
	if err := told(s.db.WithContext(ctx).Model(&pieceRow{}).Order("id").Pluck("id", &ids).Error); err != nil {
		return 0, err
	}
	gone := 0
	for _, id := range ids { // piece by piece, so that nobody waits long
		err := s.write(ctx, func(tx *gorm.DB) error {
			n, err := thin(tx, id, now)
			gone += n
			return err
		})
		if err != nil {
			return gone, fmt.Errorf("thinning the history of piece %d: %w", id, err)
		}
	}
	return gone, nil
}

func thin(tx *gorm.DB, piece int64, now time.Time) (int, error) {
	var rows []struct {
		ID        int64
		ParentID  *int64
		CreatedAt time.Time
		Held      bool
	}
	err := tx.Raw(`
SELECT r.id, r.parent_id, r.created_at,
  r.name <> '' OR r.id = p.current_id OR r.id IN (SELECT revision_id FROM logs) OR r.id IN (SELECT revision_id FROM places) AS held
FROM revisions r JOIN pieces p ON p.id = r.piece_id WHERE r.piece_id = ? ORDER BY r.id DESC`, piece).Scan(&rows).Error
	if err != nil {
		return 0, err
	}
	seen := map[string]bool{}
	gone := 0
	for _, r := range rows { // newest first: the first of an hour or a day is its last
		old := now.Sub(r.CreatedAt)
		span := ""
		switch {
		case r.Held || old < All:
			continue
		case old < Hourly:
			span = r.CreatedAt.UTC().Format("2006-01-02 15")
		default:
			span = r.CreatedAt.UTC().Format("2006-01-02")
		}
		if !seen[span] {
			seen[span] = true
			continue
		}
		// The parent as it is now: it may have been passed over already.
		if err := tx.Exec("UPDATE revisions SET parent_id = (SELECT parent_id FROM revisions WHERE id = ?) WHERE parent_id = ?", r.ID, r.ID).Error; err != nil {
			return gone, err
		}
		if err := tx.Exec("DELETE FROM revisions WHERE id = ?", r.ID).Error; err != nil {
			return gone, err
		}
		gone++
	}
	return gone, nil
}

// GiveBack gives the space of what was dropped back to the disk.
func (s *Store) GiveBack(ctx context.Context) error {
	s.writing.Lock()
	defer s.writing.Unlock()
	raw, err := s.sql()
	if err != nil {
		return err
	}
	for _, q := range []string{"PRAGMA incremental_vacuum", "PRAGMA wal_checkpoint(TRUNCATE)"} {
		rows, err := raw.QueryContext(ctx, q)
		if err != nil {
			return told(err)
		}
		for rows.Next() { // each step gives a page back
		}
		if err := rows.Close(); err != nil {
			return told(err)
		}
	}
	return nil
}
