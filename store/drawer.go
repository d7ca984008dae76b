package store

import (
	"context"
	"fmt"
	"time"

	"gorm.io/gorm"
)

// Shelf is one of the drawer's shelves. Nothing moves from one to the other.
type Shelf string

const (
	Cords    Shelf = "cord"
	Cores    Shelf = "core"
	Swatches Shelf = "swatch"
	Beads    Shelf = "bead"
	Hardware Shelf = "hardware"
	Tools    Shelf = "tool"
	Palettes Shelf = "palette"
	// Trained is how well knots are known, a card each.
	Trained Shelf = "trained"
)

// Shelves are all of them.
var Shelves = []Shelf{Cords, Cores, Swatches, Beads, Hardware, Tools, Palettes, Trained}

// Stuff is something that lies in the drawer: a cord, a core, a swatch, a bead, hardware, a
// tool, a palette, or the card of a knot that is trained.
type Stuff struct {
	ID   int64
	Name string
	What []byte // JSON text
}

type stuffRow struct {
	ID        int64 `gorm:"primaryKey"`
	Shelf     Shelf
	Name      string
	Stuff     string
	CreatedAt time.Time
}

func (stuffRow) TableName() string { return "drawer" }

// Drawer lists a shelf in the order in which things were put in.
func (s *Store) Drawer(ctx context.Context, shelf Shelf) ([]Stuff, error) {
	var rows []stuffRow
	if err := s.db.WithContext(ctx).Where("shelf = ?", shelf).Order("id").Find(&rows).Error; err != nil {
		return nil, fmt.Errorf("listing the drawer: %w", told(err))
	}
	out := make([]Stuff, 0, len(rows))
	for _, r := range rows {
		out = append(out, Stuff{r.ID, r.Name, []byte(r.Stuff)})
	}
	return out, nil
}

// PutIn keeps something on a shelf: a new thing if its ID is zero.
func (s *Store) PutIn(ctx context.Context, shelf Shelf, st Stuff) (Stuff, error) {
	err := s.write(ctx, func(tx *gorm.DB) error {
		row := stuffRow{ID: st.ID, Shelf: shelf, Name: st.Name, Stuff: string(st.What), CreatedAt: time.Now().UTC()}
		if st.ID == 0 {
			if err := tx.Create(&row).Error; err != nil {
				return fmt.Errorf("keeping a %s: %w", shelf, err)
			}
			st.ID = row.ID
			return nil
		}
		res := tx.Model(&stuffRow{}).Where("id = ? AND shelf = ?", st.ID, shelf).Updates(map[string]any{"name": st.Name, "stuff": string(st.What)})
		if res.Error == nil && res.RowsAffected == 0 {
			return fmt.Errorf("%s %d of the drawer: %w", shelf, st.ID, ErrNotFound)
		}
		return res.Error
	})
	return st, err
}

// TakeOut takes something off its shelf; pieces keep their own copy.
func (s *Store) TakeOut(ctx context.Context, shelf Shelf, id int64) error {
	return s.write(ctx, func(tx *gorm.DB) error {
		res := tx.Where("shelf = ?", shelf).Delete(&stuffRow{}, id)
		if res.Error == nil && res.RowsAffected == 0 {
			return fmt.Errorf("%s %d of the drawer: %w", shelf, id, ErrNotFound)
		}
		return res.Error
	})
}
