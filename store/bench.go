package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Log is a piece tied and measured.
type Log struct {
	ID        int64
	PieceID   int64
	Revision  int64
	CreatedAt time.Time
	Minutes   *float64 // nil where nobody looked at the clock
	LengthMM  *float64 // nil where it was not measured
	Note      string
	// Cords is JSON text: what was cut and left of each cord, null for a note in the
	// middle of the work, by which the piece is not logged yet.
	Cords   []byte
	WidthMM *float64 // nil where it was not measured
	Tied    []byte   // JSON text: the knots of each section, empty where all were tied as planned
	Counts  Counts
}

// Counts is whether a log counts in what is known of the maker.
type Counts int

// A log counts not at all; unless it surprises, where nobody was asked about it, which is
// so of logs that were written before they were; or whatever it says.
const (
	CountsNot Counts = iota
	CountsUnasked
	CountsAsked
)

type logRow struct {
	ID         int64 `gorm:"primaryKey"`
	PieceID    int64
	RevisionID int64
	CreatedAt  time.Time
	Minutes    *float64
	LengthMM   *float64 `gorm:"column:length_mm"`
	Note       string
	Cords      string
	WidthMM    *float64 `gorm:"column:width_mm"`
	Tied       string
	Counts     Counts
}

func (logRow) TableName() string { return "logs" }

func (r logRow) out() Log {
	return Log{r.ID, r.PieceID, r.RevisionID, r.CreatedAt, r.Minutes, r.LengthMM, r.Note, []byte(r.Cords), r.WidthMM, []byte(r.Tied), r.Counts}
}

// AddLog keeps an entry of a piece at its current revision.
func (s *Store) AddLog(ctx context.Context, l Log) (Log, error) {
	var out Log
	err := s.write(ctx, func(tx *gorm.DB) error {
		_, r, err := load(tx, l.PieceID)
		if err != nil {
			return err
		}
		row := logRow{PieceID: l.PieceID, RevisionID: r.ID, CreatedAt: time.Now().UTC(), Minutes: l.Minutes, LengthMM: l.LengthMM, Note: l.Note, Cords: string(l.Cords), WidthMM: l.WidthMM, Tied: string(l.Tied), Counts: l.Counts}
		if err := tx.Create(&row).Error; err != nil {
			return fmt.Errorf("keeping a log entry: %w", err)
		}
		out = row.out()
		return nil
	})
	return out, err
}

// Logs lists a piece's entries, newest first.
func (s *Store) Logs(ctx context.Context, piece int64) ([]Log, error) {
	var rows []logRow
	if err := s.db.WithContext(ctx).Where("piece_id = ?", piece).Order("id DESC").Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("listing the log: %w", told(err))
	}
	out := make([]Log, 0, len(rows))
	for _, r := range rows {
		out = append(out, r.out())
	}
	return out, nil
}

// Counted is a log that counts, with the document of the revision that it is of.
type Counted struct {
	Log
	Document []byte
}

// CountedLogs lists the logs that count of pieces that are not in the bin, oldest
// first.
func (s *Store) CountedLogs(ctx context.Context) ([]Counted, error) {
	var rows []struct {
		Log      logRow `gorm:"embedded"`
		Document string
	}
	err := s.db.WithContext(ctx).Table("logs").Select("logs.*, revisions.document").
		Joins("JOIN revisions ON revisions.id = logs.revision_id").Joins("JOIN pieces ON pieces.id = logs.piece_id").
		Where("logs.counts > 0 AND pieces.binned_at IS NULL").Order("logs.id").Scan(&rows).Error
	if err != nil {
		return nil, fmt.Errorf("listing what was logged: %w", told(err))
	}
	out := make([]Counted, 0, len(rows))
	for _, r := range rows {
		out = append(out, Counted{r.Log.out(), []byte(r.Document)})
	}
	return out, nil
}

// DropLog removes an entry of a piece.
func (s *Store) DropLog(ctx context.Context, piece, id int64) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		res := tx.Where("piece_id = ?", piece).Delete(&logRow{}, id)
		if res.Error == nil && res.RowsAffected == 0 {
			return fmt.Errorf("log entry %d: %w", id, ErrNotFound)
		}
		return res.Error
	})
}

type settingRow struct {
	Key   string `gorm:"primaryKey"`
	Value string
}

func (settingRow) TableName() string { return "settings" }

// Setting reads a setting; the fallback if it was never set.
func (s *Store) Setting(ctx context.Context, key, fallback string) (string, error) {
	return setting(s.db.WithContext(ctx), key, fallback)
}

func setting(tx *gorm.DB, key, fallback string) (string, error) {
	var rows []settingRow
	if err := tx.Where("key = ?", key).Find(&rows).Error; err != nil {
		return "", told(err)
	}
	if len(rows) == 0 {
		return fallback, nil
	}
	return rows[0].Value, nil
}

// Change keeps what to makes of a setting. Nobody else changes it in between;
// an error of to keeps it as it was.
func (s *Store) Change(ctx context.Context, key, fallback string, to func(string) (string, error)) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		old, err := setting(tx, key, fallback)
		if err != nil {
			return err
		}
		value, err := to(old)
		if err != nil {
			return err
		}
		if err := tx.Save(&settingRow{key, value}).Error; err != nil {
			return fmt.Errorf("keeping the setting %q: %w", key, err)
		}
		return nil
	})
}
