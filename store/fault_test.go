package store_test

import (
	"context"
	"database/sql"
	"errors"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"nimblebight/store"
)

func trouble(err error) store.Trouble {
	var f *store.Fault
	if errors.As(err, &f) {
		return f.Trouble
	}
	return ""
}

// While another program holds the database a save fails soon, says why and
// changes nothing; reads go on; when it lets go the same save succeeds.
func TestALockIsToldAndPasses(t *testing.T) {
	ctx, dir, get := t.Context(), t.TempDir(), must[store.Piece](t)
	s := open(t, dir)
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	other, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer other.Close()
	holds, err := other.Conn(ctx)
	if err != nil {
		t.Fatal(err)
	}
	if _, err := holds.ExecContext(ctx, "BEGIN IMMEDIATE"); err != nil {
		t.Fatal(err)
	}
	change := store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(1)}
	begun := time.Now()
	_, err = s.Save(ctx, change)
	if trouble(err) != store.Locked || !strings.Contains(err.Error(), "another program holds") {
		t.Errorf("a save under a lock: %v", err)
	}
	if !store.Locked.Passes() || store.Corrupt.Passes() {
		t.Error("a lock passes and damage does not")
	}
	t.Logf("told after %v", time.Since(begun))
	if now := get(s.Piece(ctx, p.ID)); now.Revision != p.Revision {
		t.Error("the failed save moved the piece")
	}
	if _, err := holds.ExecContext(ctx, "ROLLBACK"); err != nil {
		t.Fatal(err)
	}
	if now := get(s.Save(ctx, change)); string(now.Document) != string(doc(1)) {
		t.Errorf("after the lock: %s", now.Document)
	}
}

func TestADamagedFileIsTold(t *testing.T) {
	dir := t.TempDir()
	if err := os.WriteFile(filepath.Join(dir, store.FileName), []byte(strings.Repeat("this is a shopping list\n", 100)), 0o600); err != nil {
		t.Fatal(err)
	}
	_, err := store.Open(context.Background(), dir)
	if trouble(err) != store.Corrupt || !strings.Contains(err.Error(), "bight restore") {
		t.Errorf("a shopping list: %v", err)
	}
	if b, _ := os.ReadFile(filepath.Join(dir, store.FileName)); !strings.HasPrefix(string(b), "this is a shopping list") {
		t.Error("the refused file was written over")
	}
}

// A database whose pages were spoilt says so instead of answering wrongly.
func TestSpoiltPagesAreTold(t *testing.T) {
	ctx, dir := t.Context(), t.TempDir()
	s := open(t, dir)
	for k := range 200 {
		must[store.Piece](t)(s.Create(ctx, doc(k), store.Summary{}))
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	file := filepath.Join(dir, store.FileName)
	b, err := os.ReadFile(file)
	if err != nil {
		t.Fatal(err)
	}
	for i := 4096; i < len(b); i++ { // all but the first page
		b[i] = 0x5a
	}
	if err := os.WriteFile(file, b, 0o600); err != nil {
		t.Fatal(err)
	}
	s, err = store.Open(ctx, dir)
	if err == nil {
		_, err = s.Tags(ctx, false)
		_ = s.Close()
	}
	if trouble(err) != store.Corrupt {
		t.Errorf("spoilt pages: %v", err)
	}
}

func TestANewerFolderIsTold(t *testing.T) {
	ctx, dir := t.Context(), t.TempDir()
	if err := open(t, dir).Close(); err != nil {
		t.Fatal(err)
	}
	raw, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	if _, err := raw.Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (9999, 1)"); err != nil {
		t.Fatal(err)
	}
	if err := raw.Close(); err != nil {
		t.Fatal(err)
	}
	_, err = store.Open(ctx, dir)
	if trouble(err) != store.Newer || !strings.Contains(err.Error(), "newer Nimble Bight") || !strings.Contains(err.Error(), "--data") {
		t.Errorf("a newer database: %v", err)
	}
}

// Any name of a folder holds its own file.
func TestFoldersOfAnyName(t *testing.T) {
	ctx, base := t.Context(), t.TempDir()
	for k, name := range []string{"a#b", "a?b", "a%b", "a%20b", "a&b=c", "a b", "a+b", "ä€ö", "a;b", "a'b\"c", "file:x", "a?_pragma=foreign_keys(0)", "-x", "[x]", "a\\b"} {
		dir := filepath.Join(base, name)
		s := open(t, dir)
		p := must[store.Piece](t)(s.Create(ctx, doc(k), store.Summary{}))
		if err := s.Close(); err != nil {
			t.Fatal(err)
		}
		if _, err := os.Stat(filepath.Join(dir, store.FileName)); err != nil {
			t.Errorf("%q: %v", name, err)
		}
		s = open(t, dir)
		if again := must[store.Piece](t)(s.Piece(ctx, p.ID)); string(again.Document) != string(doc(k)) {
			t.Errorf("%q holds %s", name, again.Document)
		}
		if tags := must[[]store.Tag](t)(s.Tags(ctx, false)); len(tags) != 1 {
			t.Errorf("%q holds %d pieces", name, len(tags))
		}
		_ = s.Close()
	}
	entries, err := os.ReadDir(base)
	if err != nil || len(entries) != 15 {
		t.Errorf("%d folders, %v", len(entries), err)
	}
}

// A folder keeps its identity; a database file that was copied by itself is
// told until it is seen, a folder that was moved whole is not.
func TestIdentityAndACopyOfTheFileAlone(t *testing.T) {
	ctx, dir := t.Context(), t.TempDir()
	s := open(t, dir)
	who := s.Identity()
	if len(who) != 32 {
		t.Errorf("identity %q", who)
	}
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	moved, alone := filepath.Join(t.TempDir(), "moved"), t.TempDir()
	if err := os.CopyFS(moved, os.DirFS(dir)); err != nil {
		t.Fatal(err)
	}
	b, err := os.ReadFile(filepath.Join(dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	if err := os.WriteFile(filepath.Join(alone, store.FileName), b, 0o600); err != nil {
		t.Fatal(err)
	}
	for where, want := range map[string]bool{dir: false, moved: false, alone: true} {
		for range 2 { // told until it is seen
			s := open(t, where)
			if s.Identity() != who {
				t.Errorf("the identity became %q", s.Identity())
			}
			if got := must[bool](t)(s.CopiedAlone(ctx)); got != want {
				t.Errorf("copied alone: %v, want %v", got, want)
			}
			_ = s.Close()
		}
	}
	s = open(t, alone)
	if err := s.SeenCopied(ctx); err != nil {
		t.Fatal(err)
	}
	if must[bool](t)(s.CopiedAlone(ctx)) {
		t.Error("it is told again")
	}
	if open(t, t.TempDir()).Identity() == who {
		t.Error("two folders have one identity")
	}
}
