package store

import (
	"context"
	"errors"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Place is how far a piece has come at the vise: so many actions of the
// revision in which they are counted, or below 0 so many moves before the first of
// them. The zero value, with no revision, is a piece not begun.
type Place struct {
	Done     int
	Revision int64
	Device   string // who set it last, as that one calls itself
	At       time.Time
	WorkedS  float64 // since the last pause
}

type placeRow struct {
	PieceID    int64 `gorm:"primaryKey;autoIncrement:false"`
	Action     int
	UpdatedAt  time.Time
	RevisionID int64
	Device     string
	WorkedS    float64
}

func (placeRow) TableName() string { return "places" }

func (r placeRow) out() Place {
	return Place{r.Action, r.RevisionID, r.Device, r.UpdatedAt, r.WorkedS}
}

// leastPlace is further before the first move that ties than any piece begins.
const leastPlace = -1000

// Step is a step at the vise: from the place that a window knew to the one that
// it has come to.
type Step struct {
	From, To int
	Revision int64 // whose actions they count
	Device   string
	Times    Times // what it took; nil where that is not known
}

// ErrStale is wrapped by the error for a step in a revision that is not the
// current one.
var ErrStale = errors.New("the piece was changed since")

// Go takes a step and tells the place that holds now. A step from where the
// piece really is counts, forwards or back. From anywhere else another device
// has been at work: then the further of the two places holds, and elsewhere is
// set.
func (s *Store) Go(ctx context.Context, id int64, step Step) (place Place, elsewhere bool, err error) {
	if step.To < leastPlace || step.From < leastPlace {
		return Place{}, false, fmt.Errorf("a place at the vise is not below %d: %d", leastPlace, min(step.To, step.From))
	}
	err = s.write(ctx, func(tx *gorm.DB) error {
		p, r, err := load(tx, id)
		if err != nil {
			return err
		}
		if step.Revision != r.ID {
			return fmt.Errorf("a step of piece %d in revision %d: %w", id, step.Revision, ErrStale)
		}
		var row placeRow
		if err := tx.Where("piece_id = ?", id).Limit(1).Find(&row).Error; err != nil {
			return err
		}
		if step.Times != nil {
			if err := spend(tx, p.UID, step.Device, &row, step.Times); err != nil {
				return err
			}
		}
		to := step.To
		if row.PieceID == 0 { // not begun: it is where the window says
			row.Action = step.From
		}
		if row.Action != step.From && row.Action != step.To {
			elsewhere = true
			to = max(row.Action, step.To)
		}
		if to == row.Action && row.RevisionID == r.ID { // it stays who set it
			place = row.out()
			if step.Times == nil {
				return nil
			}
			return tx.Save(&row).Error
		}
		row = placeRow{PieceID: id, Action: to, UpdatedAt: time.Now().UTC(), RevisionID: r.ID, Device: step.Device, WorkedS: row.WorkedS}
		place = row.out()
		return tx.Save(&row).Error
	})
	return place, elsewhere, err
}
