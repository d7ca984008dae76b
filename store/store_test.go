package store_test

import (
	"context"
	"errors"
	"fmt"
	"os"
	"strings"
	"sync"
	"testing"

	"nimblebight/store"

	_ "github.com/glebarez/go-sqlite"
)

func open(t testing.TB, dir string) *store.Store {
	t.Helper()
	s, err := store.Open(context.Background(), dir)
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = s.Close() })
	return s
}

func must[T any](t testing.TB) func(v T, err error) T {
	return func(v T, err error) T {
		t.Helper()
		if err != nil {
			t.Fatal(err)
		}
		return v
	}
}

func doc(n int) []byte { return fmt.Appendf(nil, `{"n":%d}`, n) }

func TestRevisionsUndoAndRedoSurviveARestart(t *testing.T) {
	ctx, dir, get := context.Background(), t.TempDir(), must[store.Piece](t)
	s := open(t, dir)
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	if p.CanUndo || p.CanRedo {
		t.Errorf("a new piece can undo %v, redo %v", p.CanUndo, p.CanRedo)
	}
	for n := 1; n <= 3; n++ {
		p = get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(n)}))
	}
	p = get(s.Undo(ctx, p.ID, p.Revision, nil))
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	s = open(t, dir)
	p = get(s.Piece(ctx, p.ID))
	if string(p.Document) != `{"n":2}` || !p.CanUndo || !p.CanRedo {
		t.Errorf("after a restart: %s, undo %v, redo %v", p.Document, p.CanUndo, p.CanRedo)
	}
	if p = get(s.Redo(ctx, p.ID, p.Revision, nil)); string(p.Document) != `{"n":3}` || p.CanRedo {
		t.Errorf("redone to %s, redo %v", p.Document, p.CanRedo)
	}
	if p = get(s.Redo(ctx, p.ID, p.Revision, nil)); string(p.Document) != `{"n":3}` {
		t.Errorf("redone past the end to %s", p.Document)
	}
	for range 9 {
		p = get(s.Undo(ctx, p.ID, p.Revision, nil))
	}
	if string(p.Document) != `{"n":0}` || p.CanUndo {
		t.Errorf("undone to %s, undo %v", p.Document, p.CanUndo)
	}
	// A change after an undo begins a branch of its own; redo follows it.
	p = get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(9)}))
	p = get(s.Undo(ctx, p.ID, p.Revision, nil))
	if p = get(s.Redo(ctx, p.ID, p.Revision, nil)); string(p.Document) != `{"n":9}` {
		t.Errorf("redo went to %s", p.Document)
	}
}

func TestASaveFromAnOldRevisionIsRefusedAndChangesNothing(t *testing.T) {
	ctx, get := context.Background(), must[store.Piece](t)
	s := open(t, t.TempDir())
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	mine := get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(1)}))
	_, err := s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(2)})
	var c *store.Conflict
	if !errors.As(err, &c) || c.Current.Revision != mine.Revision || string(c.Current.Document) != `{"n":1}` {
		t.Fatalf("a late save: %v, %+v", err, c)
	}
	if now := get(s.Piece(ctx, p.ID)); now.Revision != mine.Revision {
		t.Errorf("the refused save moved the piece to revision %d", now.Revision)
	}
	if same := get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: mine.Revision, Document: doc(1)})); same.Revision != mine.Revision {
		t.Error("saving the same document made a revision")
	}
}

// Of many saves made at once from one revision exactly one is kept.
func TestOneOfManySavesIsKept(t *testing.T) {
	ctx, get := context.Background(), must[store.Piece](t)
	s := open(t, t.TempDir())
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	var wg sync.WaitGroup
	var lock sync.Mutex
	kept, refused := 0, 0
	for n := range 16 {
		wg.Go(func() {
			_, err := s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(n + 1)})
			var c *store.Conflict
			lock.Lock()
			defer lock.Unlock()
			switch {
			case err == nil:
				kept++
			case errors.As(err, &c):
				refused++
			default:
				t.Error(err)
			}
		})
	}
	wg.Wait()
	if kept != 1 || refused != 15 {
		t.Errorf("%d were kept and %d refused", kept, refused)
	}
}

func TestBin(t *testing.T) {
	ctx, get := context.Background(), must[store.Piece](t)
	s := open(t, t.TempDir())
	a, b := get(s.Create(ctx, doc(1), store.Summary{})), get(s.Create(ctx, doc(2), store.Summary{}))
	if err := s.Bin(ctx, a.ID, true); err != nil {
		t.Fatal(err)
	}
	list := func(binned bool) string {
		var out []string
		for _, tag := range must[[]store.Tag](t)(s.Tags(ctx, binned)) {
			out = append(out, string(get(s.Piece(ctx, tag.ID)).Document))
		}
		return strings.Join(out, " ")
	}
	if list(false) != `{"n":2}` || list(true) != `{"n":1}` {
		t.Errorf("rack %s, bin %s", list(false), list(true))
	}
	if err := s.Destroy(ctx, b.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a piece on the rack was thrown out: %v", err)
	}
	if err := s.Bin(ctx, a.ID, false); err != nil || list(false) != `{"n":1} {"n":2}` {
		t.Errorf("back on the rack: %s, %v", list(false), err)
	}
	if _, _, err := s.Go(ctx, a.ID, store.Step{To: 4, Revision: a.Revision}); err != nil {
		t.Fatal(err)
	}
	if err := errors.Join(s.Bin(ctx, a.ID, true), s.Destroy(ctx, a.ID)); err != nil {
		t.Fatal(err)
	}
	if _, err := s.Piece(ctx, a.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a destroyed piece: %v", err)
	}
	if logs := must[[]store.Log](t)(s.Logs(ctx, a.ID)); len(logs) != 0 {
		t.Errorf("its log stayed: %v", logs)
	}
}

func TestForeignKeysHold(t *testing.T) {
	ctx := context.Background()
	s := open(t, t.TempDir())
	if _, _, err := s.Go(ctx, 77, store.Step{To: 3}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a place of a piece that is not there: %v", err)
	}
	if _, err := s.AddLog(ctx, store.Log{PieceID: 77, Cords: []byte("[]")}); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a log of a piece that is not there: %v", err)
	}
	if _, _, err := s.Go(ctx, 77, store.Step{To: -1001}); err == nil || errors.Is(err, store.ErrNotFound) {
		t.Errorf("a place far before the first move: %v", err)
	}
}

func ptr(v float64) *float64 { return &v }

// to is the change of a setting to a value, whatever it was.
func to(value string) func(string) (string, error) {
	return func(string) (string, error) { return value, nil }
}

func TestPlaceLogDrawerAndSettings(t *testing.T) {
	ctx, dir := context.Background(), t.TempDir()
	s := open(t, dir)
	p := must[store.Piece](t)(s.Create(ctx, doc(1), store.Summary{}))
	l := must[store.Log](t)(s.AddLog(ctx, store.Log{PieceID: p.ID, Minutes: ptr(12.5), Note: "tight", Cords: []byte(`[{"id":"A"}]`)}))
	spool := must[store.Stuff](t)(s.PutIn(ctx, store.Cords, store.Stuff{Name: "Lagoon", What: []byte(`{}`)}))
	for n := range 5 {
		if _, elsewhere, err := s.Go(ctx, p.ID, store.Step{From: n, To: n + 1, Revision: p.Revision, Device: "bench"}); err != nil || elsewhere {
			t.Fatal(elsewhere, err)
		}
	}
	if err := errors.Join(s.Change(ctx, "units", "", to("mm")), s.Change(ctx, "units", "", to("inch"))); err != nil {
		t.Fatal(err)
	}
	spool.Name = "Lagoon, weighed"
	must[store.Stuff](t)(s.PutIn(ctx, store.Cords, spool))
	if err := s.Close(); err != nil {
		t.Fatal(err)
	}
	s = open(t, dir)
	if p = must[store.Piece](t)(s.Piece(ctx, p.ID)); p.Place.Done != 5 || p.Place.Device != "bench" || p.Logged != 1 {
		t.Errorf("place %+v, %d entries", p.Place, p.Logged)
	}
	if got := must[[]store.Log](t)(s.Logs(ctx, p.ID)); len(got) != 1 || *got[0].Minutes != 12.5 || got[0].LengthMM != nil || got[0].Note != "tight" || got[0].Revision != p.Revision || string(got[0].Cords) != `[{"id":"A"}]` {
		t.Errorf("log %+v", got)
	}
	if got := must[[]store.Stuff](t)(s.Drawer(ctx, store.Cords)); len(got) != 1 || got[0].Name != "Lagoon, weighed" {
		t.Errorf("drawer %+v", got)
	}
	if v := must[string](t)(s.Setting(ctx, "units", "mm")); v != "inch" {
		t.Errorf("units %s", v)
	}
	if v := must[string](t)(s.Setting(ctx, "light", "auto")); v != "auto" {
		t.Errorf("a setting never set is %s", v)
	}
	if err := errors.Join(s.DropLog(ctx, p.ID, l.ID), s.TakeOut(ctx, store.Cords, spool.ID)); err != nil {
		t.Error(err)
	}
	if err := s.TakeOut(ctx, store.Cords, spool.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("dropped twice: %v", err)
	}
	if _, err := s.PutIn(ctx, store.Cords, spool); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("changed after it was dropped: %v", err)
	}
}

func Example() {
	dir, err := os.MkdirTemp("", "bight")
	if err != nil {
		fmt.Println(err)
		return
	}
	defer os.RemoveAll(dir)
	ctx := context.Background()
	s, err := store.Open(ctx, dir)
	if err != nil {
		fmt.Println(err)
		return
	}
	defer s.Close()
	p, _ := s.Create(ctx, []byte(`{"name":"fob"}`), store.Summary{})
	p, _ = s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: []byte(`{"name":"locker fob"}`)})
	p, _ = s.Undo(ctx, p.ID, p.Revision, nil)
	fmt.Println(string(p.Document), p.CanRedo)
	// Output: {"name":"fob"} true
}

func BenchmarkSave(b *testing.B) {
	ctx := context.Background()
	s := open(b, b.TempDir())
	p := must[store.Piece](b)(s.Create(ctx, doc(0), store.Summary{}))
	n := 0
	for b.Loop() {
		n++
		p = must[store.Piece](b)(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(n)}))
	}
}
