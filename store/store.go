// Package store keeps pieces, the drawer of cords, the log and the settings in
// one SQLite file. It knows documents, not knots: what a piece means is for
// core to say.
//
// Every save is a revision of the whole piece document; a piece points at its
// current one. Undo and redo move the pointer, so they survive a restart.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"os"
	"path/filepath"

	"github.com/glebarez/sqlite"
	"github.com/pressly/goose/v3"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"

	_ "modernc.org/sqlite/lib" // a current engine under the dialect's driver
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database. It is safe for use by many goroutines.
type Store struct {
	db *gorm.DB
}

// ErrNotFound is wrapped by every error about something that is not there.
var ErrNotFound = errors.New("not found")

// FileName is the database's name in its folder.
const FileName = "nimble-bight.db"

// Open opens the database in dir, makes both if they are not there, and brings
// an older one up to date. A database of a newer version is refused.
func Open(ctx context.Context, dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o750); err != nil {
		return nil, fmt.Errorf("opening the data folder: %w", err)
	}
	// Immediate transactions queue for the writer instead of failing when a
	// reader turns writer; full sync keeps what was acknowledged over a crash.
	dsn := "file:" + filepath.ToSlash(filepath.Join(dir, FileName)) +
		"?_pragma=journal_mode(WAL)&_pragma=busy_timeout(5000)&_pragma=foreign_keys(1)&_pragma=synchronous(FULL)&_txlock=immediate"
	db, err := gorm.Open(sqlite.Open(dsn), &gorm.Config{TranslateError: true, Logger: logger.Default.LogMode(logger.Silent)})
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", FileName, err)
	}
	s := &Store{db: db}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(err, s.Close())
	}
	return s, nil
}

func (s *Store) sql() (*sql.DB, error) { return s.db.DB() }

func (s *Store) migrate(ctx context.Context) error {
	raw, err := s.sql()
	if err != nil {
		return err
	}
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, raw, files)
	if err != nil {
		return fmt.Errorf("reading the migrations: %w", err)
	}
	known := p.ListSources()[len(p.ListSources())-1].Version
	have, err := p.GetDBVersion(ctx)
	if err != nil {
		return fmt.Errorf("asking the database for its version: %w", err)
	}
	if have > known {
		return fmt.Errorf("the data was written by a newer Nimble Bight (version %d, this one knows %d): start that one, or point --data at another folder", have, known)
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("bringing the data up to date: %w", err)
	}
	return nil
}

// Close closes the database.
func (s *Store) Close() error {
	raw, err := s.sql()
	if err != nil {
		return err
	}
	return raw.Close()
}

func found(err error, what string, id any) error {
	if errors.Is(err, gorm.ErrRecordNotFound) {
		return fmt.Errorf("%s %v: %w", what, id, ErrNotFound)
	}
	return err
}
