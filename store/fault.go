package store

import (
	"errors"
	"fmt"
	"io/fs"
	"syscall"

	sqlitedriver "github.com/glebarez/go-sqlite"
	"github.com/glebarez/sqlite"
	"gorm.io/gorm"
	lib "modernc.org/sqlite/lib" // a current engine under the dialect's driver
)

// Trouble is what keeps a data folder from being read or written.
type Trouble string

// The troubles that a folder can have. Those that [Trouble.Passes] tells of go
// away by themselves or when something is done elsewhere; then the same call
// succeeds.
const (
	Full      Trouble = "full"      // no room on the disk
	ReadOnly  Trouble = "read-only" // the folder or the disk may only be read
	Locked    Trouble = "locked"    // another program holds the database
	Forbidden Trouble = "forbidden" // no permission
	Corrupt   Trouble = "corrupt"   // what is there is no database, or a damaged one
	Newer     Trouble = "newer"     // written by a newer version
	Unread    Trouble = "unread"    // the disk does not answer, or the folder is gone
)

// Passes tells whether it is worth trying again.
func (t Trouble) Passes() bool { return t != Corrupt && t != Newer }

// says is what is wrong and what to do, by trouble.
var says = map[Trouble]string{
	Full:      "the disk with the data folder is full; make room on it, and what is not saved yet will be saved",
	ReadOnly:  "the data folder can only be read, not written; make it writable (the folder, its files and the disk they are on)",
	Locked:    "another program holds the data; close it (a second Nimble Bight, a backup, a database viewer), and saving goes on by itself",
	Forbidden: "there is no permission for the data folder; give the user who runs Nimble Bight the right to read and write it",
	Corrupt:   "the data file is damaged or is no database of Nimble Bight; put a backup back with bight restore, into a new folder named with --data",
	Newer:     "the data was written by a newer Nimble Bight; start that one, or name another folder with --data",
	Unread:    "the data folder cannot be read; look whether it is still there and its disk is connected",
}

// Fault is the error of every call that failed because of the folder and not
// because of what was asked. Nothing was changed by such a call.
type Fault struct {
	Trouble Trouble
	Err     error
}

// Error says what is wrong and what to do.
func (f *Fault) Error() string { return says[f.Trouble] }
func (f *Fault) Unwrap() error { return f.Err }

// told turns an error of the database or the file system into a [*Fault] where
// it is one.
func told(err error) error {
	var already *Fault
	if err == nil || errors.As(err, &already) {
		return err
	}
	if t := troubleOf(err); t != "" {
		return &Fault{t, err}
	}
	return err
}

func troubleOf(err error) Trouble {
	var e *sqlitedriver.Error
	if errors.As(err, &e) {
		const kind = 0xff // the low byte; the rest says more closely what
		switch e.Code() {
		case lib.SQLITE_IOERR_WRITE, lib.SQLITE_IOERR_TRUNCATE, lib.SQLITE_IOERR_FSYNC, lib.SQLITE_IOERR_SHMSIZE:
			return Full // a size limit or a quota says so
		}
		switch e.Code() & kind {
		case lib.SQLITE_FULL:
			return Full
		case lib.SQLITE_READONLY:
			return ReadOnly
		case lib.SQLITE_BUSY, lib.SQLITE_LOCKED, lib.SQLITE_PROTOCOL:
			return Locked
		case lib.SQLITE_PERM, lib.SQLITE_AUTH:
			return Forbidden
		case lib.SQLITE_CORRUPT, lib.SQLITE_NOTADB:
			return Corrupt
		case lib.SQLITE_CANTOPEN, lib.SQLITE_IOERR:
			return Unread
		}
		return ""
	}
	switch {
	case errors.Is(err, syscall.ENOSPC), errors.Is(err, syscall.EDQUOT), errors.Is(err, syscall.EFBIG):
		return Full
	case errors.Is(err, syscall.EROFS):
		return ReadOnly
	case errors.Is(err, fs.ErrPermission):
		return Forbidden
	}
	return ""
}

// dialect is the database's dialect, which tells faults from other errors.
type dialect struct{ sqlite.Dialector }

// Translate is asked by gorm about every error.
func (d dialect) Translate(err error) error {
	if f := told(err); f != err {
		return f
	}
	return d.Dialector.Translate(err)
}

var _ gorm.ErrorTranslator = dialect{}

// newer is the fault of a folder that a later version wrote.
func newer(have, known int64) error {
	return &Fault{Newer, fmt.Errorf("the data is of version %d, this program knows %d", have, known)}
}
