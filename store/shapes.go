package store

import (
	"context"
	"time"

	"gorm.io/gorm"
)

type shapeRow struct {
	Key     string `gorm:"primaryKey"`
	MadeAt  time.Time
	Content []byte
}

func (shapeRow) TableName() string { return "shapes" }

// Shape gets what was kept of a problem under its key; false where nothing was.
func (s *Store) Shape(ctx context.Context, key string) ([]byte, bool, error) {
	var rows []shapeRow
	err := told(s.db.WithContext(ctx).Where("key = ?", key).Find(&rows).Error)
	if err != nil || len(rows) == 0 {
		return nil, false, err
	}
	return rows[0].Content, true, nil
}

// mostShapes is how many shapes are kept; the oldest go.
const mostShapes = 2000

// KeepShape keeps what was drawn up for a problem.
func (s *Store) KeepShape(ctx context.Context, key string, content []byte) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		if err := tx.Save(&shapeRow{key, time.Now().UTC(), content}).Error; err != nil {
			return err
		}
		return tx.Exec("DELETE FROM shapes WHERE key NOT IN (SELECT key FROM shapes ORDER BY made_at DESC LIMIT ?)", mostShapes).Error
	})
}
