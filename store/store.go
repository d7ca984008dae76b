// Package store keeps pieces, the drawer, the log and the settings in one
// SQLite file. It knows documents, not knots: what a piece means is for core to
// say.
//
// Every save is a revision of the whole piece document; a piece points at its
// current one. Undo and redo move the pointer, so they survive a restart.
//
// Begin with [Open]. Calls that fail because of the folder (a full disk, a
// lock) give a [*Fault] and change nothing; a save that was made from a revision
// that is not the current one gives a [*Conflict].
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"embed"
	"encoding/hex"
	"errors"
	"fmt"
	"io/fs"
	"net/url"
	"os"
	"path/filepath"
	"strings"
	"sync"

	"github.com/glebarez/sqlite"
	"github.com/pressly/goose/v3"
	"gorm.io/gorm"
	"gorm.io/gorm/logger"
)

//go:embed migrations/*.sql
var migrations embed.FS

// Store is an open database. It is safe for use by many goroutines.
type Store struct {
	db       *gorm.DB
	identity string
	// writing queues this program's own writers, so that waiting for the
	// database always means waiting for another program.
	writing sync.Mutex
}

// ErrNotFound is wrapped by every error about something that is not there.
var ErrNotFound = errors.New("not found")

const (
	// FileName is the database's name in its folder.
	FileName = "nimble-bight.db"
	// markName is the file that says whose folder it is. Where the database was
	// copied by itself it is missing, or is another folder's.
	markName = "nimble-bight.folder"
	// waitMS is how long another program's lock is waited for.
	waitMS = 1000
)

// Open opens the database in dir, makes both if they are not there, and brings
// an older one up to date. What is wrong with the folder comes back as a
// [*Fault].
func Open(ctx context.Context, dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o750); err != nil {
		return nil, fmt.Errorf("opening the data folder %s: %w", dir, told(err))
	}
	file := filepath.Join(dir, FileName)
	if f, err := os.OpenFile(file, os.O_RDWR, 0); err == nil {
		_ = f.Close()
	} else if !errors.Is(err, fs.ErrNotExist) { // the engine would only say that it cannot open it
		return nil, fmt.Errorf("opening %s: %w", file, told(err))
	}
	// Immediate transactions queue for the writer instead of failing when a
	// reader turns writer; full sync keeps what was acknowledged over a crash.
	// The path is escaped, for a folder may have ?, # and % in its name.
	path, err := filepath.Abs(file)
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", file, err)
	}
	dsn := "file:" + (&url.URL{Path: filepath.ToSlash(path)}).EscapedPath() + fmt.Sprintf(
		"?_pragma=busy_timeout(%d)&_pragma=auto_vacuum(2)&_pragma=journal_mode(WAL)&_pragma=foreign_keys(1)&_pragma=synchronous(FULL)&_txlock=immediate", waitMS)
	db, err := gorm.Open(dialect{sqlite.Dialector{DSN: dsn}}, &gorm.Config{TranslateError: true, Logger: logger.Default.LogMode(logger.Silent)})
	if err != nil {
		return nil, fmt.Errorf("opening %s: %w", file, told(err))
	}
	s := &Store{db: db}
	if err := s.prepare(ctx, dir); err != nil {
		if troubleOf(err) == "" && s.damaged(ctx) {
			err = &Fault{Corrupt, err}
		}
		return nil, errors.Join(fmt.Errorf("opening %s: %w", file, told(err)), s.Close())
	}
	return s, nil
}

func (s *Store) prepare(ctx context.Context, dir string) error {
	if err := s.migrate(ctx); err != nil {
		return err
	}
	raw, err := s.sql()
	if err != nil {
		return err
	}
	var gives int
	if err := raw.QueryRowContext(ctx, "PRAGMA auto_vacuum").Scan(&gives); err != nil {
		return err
	}
	if gives != 2 { // a folder from before: rebuilt once, so that it can give space back
		if _, err := raw.ExecContext(ctx, "PRAGMA auto_vacuum=2"); err != nil {
			return err
		}
		if _, err := raw.ExecContext(ctx, "VACUUM"); err != nil {
			return err
		}
	}
	return s.identify(ctx, dir)
}

// damaged tells whether the engine finds the file damaged; what goes wrong on
// spoilt pages does not always say so.
func (s *Store) damaged(ctx context.Context) bool {
	raw, err := s.sql()
	if err != nil {
		return false
	}
	var says string
	err = raw.QueryRowContext(ctx, "PRAGMA quick_check(1)").Scan(&says)
	return troubleOf(err) == Corrupt || (err == nil && says != "ok")
}

func (s *Store) sql() (*sql.DB, error) { return s.db.DB() }

// write does a transaction of this program, one at a time.
func (s *Store) write(ctx context.Context, do func(tx *gorm.DB) error) error {
	s.writing.Lock()
	defer s.writing.Unlock()
	return told(s.db.WithContext(ctx).Transaction(do))
}

// read does reads that all see the data as it stands at one moment.
func (s *Store) read(ctx context.Context, do func(tx *gorm.DB) error) error {
	return told(s.db.WithContext(ctx).Transaction(do, &sql.TxOptions{ReadOnly: true}))
}

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
		return newer(have, known)
	}
	if _, err := p.Up(ctx); err != nil {
		return fmt.Errorf("bringing the data up to date: %w", err)
	}
	return nil
}

type folderRow struct {
	Key   string `gorm:"primaryKey"`
	Value string
}

func (folderRow) TableName() string { return "folder" }

// identify reads who this folder is, or makes it somebody, and looks whether
// the database was copied by itself.
func (s *Store) identify(ctx context.Context, dir string) error {
	mark := filepath.Join(dir, markName)
	return s.write(ctx, func(tx *gorm.DB) error {
		var row folderRow
		err := tx.Where("key = ?", "identity").Limit(1).Find(&row).Error
		if err != nil {
			return err
		}
		made := row.Value == ""
		if made {
			row = folderRow{"identity", random()}
			if err := tx.Create(&row).Error; err != nil {
				return err
			}
		}
		s.identity = row.Value
		b, err := os.ReadFile(mark)
		if err != nil && !errors.Is(err, fs.ErrNotExist) {
			return err
		}
		if strings.TrimSpace(string(b)) == s.identity {
			return nil
		}
		if !made { // it came here without the folder that it was in
			if err := tx.Save(&folderRow{"copied", "yes"}).Error; err != nil {
				return err
			}
		}
		return os.WriteFile(mark, []byte(s.identity+"\n"), 0o600)
	})
}

// Identity is the folder's own name, made once and kept in it: 32 hexadecimal
// digits. A page keeps by it what it could not send.
func (s *Store) Identity() string { return s.identity }

// CopiedAlone tells whether the database file came to this folder by itself:
// what was newest may have stayed behind. It is told until [Store.SeenCopied].
func (s *Store) CopiedAlone(ctx context.Context) (bool, error) {
	var n int64
	err := s.db.WithContext(ctx).Model(&folderRow{}).Where("key = ?", "copied").Count(&n).Error
	return n > 0, told(err)
}

// SeenCopied notes that the maker knows.
func (s *Store) SeenCopied(ctx context.Context) error {
	return s.write(ctx, func(tx *gorm.DB) error { return tx.Where("key = ?", "copied").Delete(&folderRow{}).Error })
}

// random is a name that nothing else has.
func random() string {
	b := make([]byte, 16)
	_, _ = rand.Read(b) // it does not fail
	return hex.EncodeToString(b)
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
