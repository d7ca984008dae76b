package store_test

import (
	"database/sql"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"testing"

	"nimblebight/store"
)

// What lies on one shelf is not seen, changed or taken from the other.
func TestShelvesAreApart(t *testing.T) {
	ctx := t.Context()
	s := open(t, t.TempDir())
	put := must[store.Stuff](t)
	cord := put(s.PutIn(ctx, store.Cords, store.Stuff{Name: "Lagoon", What: []byte(`{"d":4}`)}))
	core := put(s.PutIn(ctx, store.Cores, store.Stuff{Name: "bung", What: []byte(`{"d":22}`)}))
	for shelf, own := range map[store.Shelf]store.Stuff{store.Cords: cord, store.Cores: core} {
		got := must[[]store.Stuff](t)(s.Drawer(ctx, shelf))
		if len(got) != 1 || got[0].ID != own.ID || string(got[0].What) != string(own.What) {
			t.Errorf("on the shelf of %ss lies %+v", shelf, got)
		}
	}
	if _, err := s.PutIn(ctx, store.Cords, core); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a core changed as a cord: %v", err)
	}
	if err := s.TakeOut(ctx, store.Cords, core.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a core taken from the cords: %v", err)
	}
	if got := must[[]store.Stuff](t)(s.Drawer(ctx, store.Cores)); len(got) != 1 || got[0].Name != "bung" {
		t.Errorf("after all that there is %+v", got)
	}
}

// A drawer of the first version is still there, all of it cords.
func TestADrawerFromBeforeThereWereCores(t *testing.T) {
	dir := t.TempDir()
	first, err := os.ReadFile(filepath.Join("migrations", "00001_first.sql"))
	if err != nil {
		t.Fatal(err)
	}
	up, _, _ := strings.Cut(string(first), "-- +goose Down")
	db, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	for _, q := range []string{up,
		`CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY AUTOINCREMENT, version_id INTEGER NOT NULL, is_applied INTEGER NOT NULL, tstamp TIMESTAMP DEFAULT (datetime('now')))`,
		`INSERT INTO goose_db_version (version_id, is_applied) VALUES (0, 1), (1, 1)`,
		`INSERT INTO drawer (name, stuff, created_at) VALUES ('Lagoon', '{}', '2026-01-02')`,
	} {
		if _, err := db.Exec(q); err != nil {
			t.Fatal(err)
		}
	}
	if err := db.Close(); err != nil {
		t.Fatal(err)
	}
	s := open(t, dir)
	if got := must[[]store.Stuff](t)(s.Drawer(t.Context(), store.Cords)); len(got) != 1 || got[0].Name != "Lagoon" {
		t.Errorf("cords %+v", got)
	}
	if got := must[[]store.Stuff](t)(s.Drawer(t.Context(), store.Cores)); len(got) != 0 {
		t.Errorf("cores %+v", got)
	}
}

// Many change one setting at once: every change is made on what the one before
// it left, and one that fails leaves no trace.
func TestChangesOfASettingDoNotLoseOneAnother(t *testing.T) {
	ctx := t.Context()
	s := open(t, t.TempDir())
	var wg sync.WaitGroup
	for i := range 12 {
		wg.Go(func() {
			err := s.Change(ctx, "tally", "", func(old string) (string, error) {
				if i%3 == 0 {
					return old + "x", errors.New("no")
				}
				return old + "i", nil
			})
			if (err != nil) != (i%3 == 0) {
				t.Errorf("change %d: %v", i, err)
			}
		})
	}
	wg.Wait()
	if got := must[string](t)(s.Setting(ctx, "tally", "")); got != "iiiiiiii" {
		t.Errorf("8 of 12 changes left %q", got)
	}
}
