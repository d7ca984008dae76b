package store

import (
	"context"
	"fmt"

	"gorm.io/gorm"

	"nimblebight/formats/archive"
)

// Spell is the time that went into a section of a piece.
type Spell struct {
	Section int     `json:"section"`
	Knot    string  `json:"knot"`
	Moves   int     `json:"moves"`
	Knots   float64 `json:"knots"`
	WorkedS float64 `json:"worked_s"`
	Pauses  int     `json:"pauses"`
	PausedS float64 `json:"paused_s"`
}

// Times are what steps at the vise took: the spells of those after a step's number, the
// number of the last, and how long was worked since the last pause when it was so long
// before them.
type Times func(after int64, worked float64) (spells []Spell, last int64, now float64)

type spellRow struct {
	ID       int64  `gorm:"primaryKey" json:"-"`
	PieceUID string `json:"piece_uid"`
	Device   string `json:"device"`
	Spell    `gorm:"embedded"`
	LastStep int64 `json:"last_step"`
}

func (spellRow) TableName() string { return "spells" }

// spend adds what steps took to a piece's times. What a device sends a second time is not
// counted again.
func spend(tx *gorm.DB, uid, device string, row *placeRow, times Times) error {
	var after int64
	if err := tx.Model(&spellRow{}).Where("piece_uid = ? AND device = ?", uid, device).Select("ifnull(max(last_step), 0)").Scan(&after).Error; err != nil {
		return err
	}
	spells, last, worked := times(after, row.WorkedS)
	row.WorkedS = worked
	for _, s := range spells {
		var have spellRow
		if err := tx.Where("piece_uid = ? AND section = ? AND knot = ? AND device = ?", uid, s.Section, s.Knot, device).Limit(1).Find(&have).Error; err != nil {
			return err
		}
		s.Moves += have.Moves
		s.Knots += have.Knots
		s.WorkedS += have.WorkedS
		s.Pauses += have.Pauses
		s.PausedS += have.PausedS
		have.PieceUID, have.Device, have.Spell, have.LastStep = uid, device, s, last
		if err := tx.Save(&have).Error; err != nil {
			return fmt.Errorf("keeping the time of section %d: %w", s.Section+1, err)
		}
	}
	return nil
}

// Spells are the times of a piece's sections; of all pieces that ever were where uid is "".
func (s *Store) Spells(ctx context.Context, uid string) ([]Spell, error) {
	var rows []spellRow
	q := s.db.WithContext(ctx).Order("id")
	if uid != "" {
		q = q.Where("piece_uid = ?", uid)
	}
	if err := q.Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("listing the times at the vise: %w", told(err))
	}
	out := make([]Spell, 0, len(rows))
	for _, r := range rows {
		out = append(out, r.Spell)
	}
	return out, nil
}

// takeSpells adds the times of a backup; where both know a section's, those with the later
// step hold.
func takeSpells(tx *gorm.DB, all []spellRow) error {
	for i, r := range all {
		if r.WorkedS < 0 || r.PausedS < 0 || r.Pauses < 0 || r.Section < 0 || r.LastStep < 0 || r.PieceUID == "" || r.Knot == "" {
			return &archive.Refused{Why: fmt.Sprintf("spells.json does not hold what it should: time %d is below zero or of no piece", i+1)}
		}
		var have spellRow
		if err := tx.Where("piece_uid = ? AND section = ? AND knot = ? AND device = ?", r.PieceUID, r.Section, r.Knot, r.Device).Limit(1).Find(&have).Error; err != nil {
			return err
		}
		if have.ID != 0 && have.LastStep >= r.LastStep {
			continue
		}
		r.ID = have.ID
		if err := tx.Save(&r).Error; err != nil {
			return err
		}
	}
	return nil
}
