package store_test

import (
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"testing"
	"time"

	"nimblebight/store"
)

// What is asked twice because an answer was lost is done once; what is asked
// from elsewhere is a conflict and changes nothing.
func TestNothingIsDoneTwice(t *testing.T) {
	ctx, get := t.Context(), must[store.Piece](t)
	s := open(t, t.TempDir())
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	one := get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(1)}))
	if again := get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(1)})); again.Revision != one.Revision {
		t.Errorf("the same document sent twice made revision %d", again.Revision)
	}
	two := get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: one.Revision, Document: doc(2)}))
	back := get(s.Undo(ctx, p.ID, two.Revision, nil))
	if again := get(s.Undo(ctx, p.ID, two.Revision, nil)); back.Revision != one.Revision || again.Revision != one.Revision {
		t.Errorf("undone to %d, and asked again to %d; want %d", back.Revision, again.Revision, one.Revision)
	}
	on := get(s.Redo(ctx, p.ID, one.Revision, nil))
	if again := get(s.Redo(ctx, p.ID, one.Revision, nil)); on.Revision != two.Revision || again.Revision != two.Revision {
		t.Errorf("redone to %d, and asked again to %d", on.Revision, again.Revision)
	}
	for name, walk := range map[string]func() (store.Piece, error){
		"undo": func() (store.Piece, error) { return s.Undo(ctx, p.ID, p.Revision, nil) },
		"redo": func() (store.Piece, error) { return s.Redo(ctx, p.ID, 999, nil) },
	} {
		_, err := walk()
		var c *store.Conflict
		if !errors.As(err, &c) || c.Current.Revision != two.Revision {
			t.Errorf("%s from a revision that is not the current one: %v", name, err)
		}
	}
}

// A version set aside can be reached, keeps its name, and redo never leads to it.
func TestSetAside(t *testing.T) {
	ctx, get := t.Context(), must[store.Piece](t)
	s := open(t, t.TempDir())
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	mine := must[store.Revision](t)(s.SetAside(ctx, p.ID, doc(7), store.Summary{}, "mine"))
	if again := must[store.Revision](t)(s.SetAside(ctx, p.ID, doc(7), store.Summary{}, "mine")); again.ID != mine.ID {
		t.Error("set aside twice, it is there twice")
	}
	now := get(s.Piece(ctx, p.ID))
	if now.Revision != p.Revision || now.CanRedo {
		t.Errorf("the piece moved to %d, redo %v", now.Revision, now.CanRedo)
	}
	if to := get(s.Redo(ctx, p.ID, p.Revision, nil)); to.Revision != p.Revision {
		t.Errorf("redo led to %s", to.Document)
	}
	list := must[[]store.Revision](t)(s.Revisions(ctx, p.ID))
	if len(list) != 2 || list[0].Name != "mine" || !list[0].Aside || !list[1].Current {
		t.Errorf("history %+v", list)
	}
	if r := must[store.Revision](t)(s.Revision(ctx, p.ID, mine.ID)); string(r.Document) != string(doc(7)) {
		t.Errorf("set aside is %s", r.Document)
	}
	if err := s.Name(ctx, p.ID, 999, "x"); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("a revision that is not there was named: %v", err)
	}
}

// age moves all revisions of a folder into the past, one every so often, the
// last one at the time given.
func age(t *testing.T, dir string, last time.Time, every time.Duration) {
	t.Helper()
	raw, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	if err != nil {
		t.Fatal(err)
	}
	defer raw.Close()
	var n int
	if err := raw.QueryRow("SELECT max(id) FROM revisions").Scan(&n); err != nil {
		t.Fatal(err)
	}
	for id := 1; id <= n; id++ {
		at := last.Add(-time.Duration(n-id) * every)
		if _, err := raw.Exec("UPDATE revisions SET created_at = ? WHERE id = ?", at.UTC().Format("2006-01-02 15:04:05.999999999+00:00"), id); err != nil {
			t.Fatal(err)
		}
	}
}

// Old revisions are thinned by the rule and no others; undo goes on over the
// gaps; named ones, those of the log and the current one stay; the file becomes
// smaller.
func TestThinning(t *testing.T) {
	ctx, dir, get := t.Context(), t.TempDir(), must[store.Piece](t)
	s := open(t, dir)
	big := func(n int) []byte { return fmt.Appendf(nil, `{"n":%d,"pad":%q}`, n, make([]byte, 4000)) }
	p := get(s.Create(ctx, big(0), store.Summary{}))
	var named, logged int64
	const each = 10 * time.Minute
	const n = 600
	for k := 1; k <= n; k++ {
		p = get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: big(k)}))
		switch k {
		case 41:
			named = p.Revision
			if err := s.Name(ctx, p.ID, named, "the good one"); err != nil {
				t.Fatal(err)
			}
		case 55:
			logged = p.Revision
			must[store.Log](t)(s.AddLog(ctx, store.Log{PieceID: p.ID, Cords: []byte("[]")}))
		}
	}
	now := time.Date(2026, 6, 1, 12, 5, 0, 0, time.UTC)
	// All of 100 hours, from 34 to 30 days old and a little newer.
	age(t, dir, now.Add(-store.All).Add(20*time.Hour), each)
	before := must[os.FileInfo](t)(os.Stat(filepath.Join(dir, store.FileName)))
	gone, err := s.Thin(ctx, now)
	if err != nil {
		t.Fatal(err)
	}
	list := must[[]store.Revision](t)(s.Revisions(ctx, p.ID))
	if gone+len(list) != n+1 {
		t.Errorf("%d went and %d are left of %d", gone, len(list), n+1)
	}
	hours, young := map[string]int{}, 0
	has := map[int64]bool{}
	for _, r := range list {
		has[r.ID] = true
		if now.Sub(r.CreatedAt) < store.All {
			young++
		} else if r.ID != named && r.ID != logged {
			hours[r.CreatedAt.Format("2006-01-02 15")]++
		}
	}
	if young != int(20*time.Hour/each) && young != int(20*time.Hour/each)+1 {
		t.Errorf("of the last thirty days %d are left", young)
	}
	for h, k := range hours {
		if k > 1 {
			t.Errorf("%d of the hour %s are left", k, h)
		}
	}
	if len(hours) < 78 {
		t.Errorf("only %d hours have one left", len(hours))
	}
	if !has[named] || !has[logged] || !has[p.Revision] {
		t.Error("a named one, one of the log or the current one went")
	}
	steps := 0
	for at := get(s.Piece(ctx, p.ID)); at.CanUndo; steps++ {
		at = get(s.Undo(ctx, p.ID, at.Revision, nil))
	}
	if steps != len(list)-1 {
		t.Errorf("undo goes back %d steps over %d revisions", steps, len(list))
	}
	if again := must[int](t)(s.Thin(ctx, now)); again > 1 { // the one that was current then
		t.Errorf("thinned again, %d more went", again)
	}
	if err := s.GiveBack(ctx); err != nil {
		t.Fatal(err)
	}
	if after := must[os.FileInfo](t)(os.Stat(filepath.Join(dir, store.FileName))); after.Size() > before.Size()/2 {
		t.Errorf("the file has %d bytes and had %d", after.Size(), before.Size())
	}
}

func TestOneADayAfterHalfAYear(t *testing.T) {
	ctx, dir, get := t.Context(), t.TempDir(), must[store.Piece](t)
	s := open(t, dir)
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	for k := 1; k < 60; k++ {
		p = get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(k)}))
	}
	now := time.Date(2026, 6, 1, 23, 30, 0, 0, time.UTC)
	age(t, dir, now.Add(-store.Hourly).Add(-time.Hour), 2*time.Hour) // five days
	if _, err := s.Thin(ctx, now); err != nil {
		t.Fatal(err)
	}
	days := map[string]int{}
	for _, r := range must[[]store.Revision](t)(s.Revisions(ctx, p.ID)) {
		if !r.Current { // kept beside the last of its day
			days[r.CreatedAt.Format("2006-01-02")]++
		}
	}
	for d, n := range days {
		if n != 1 {
			t.Errorf("of %s %d are left", d, n)
		}
	}
	if len(days) < 5 {
		t.Errorf("%d days are left", len(days))
	}
}

func TestTheBinIsEmptiedWhenAsked(t *testing.T) {
	ctx, get := t.Context(), must[store.Piece](t)
	s := open(t, t.TempDir())
	a, b := get(s.Create(ctx, doc(1), store.Summary{})), get(s.Create(ctx, doc(2), store.Summary{}))
	if err := s.Bin(ctx, a.ID, true); err != nil {
		t.Fatal(err)
	}
	if n := must[int](t)(s.EmptyBin(ctx)); n != 1 {
		t.Errorf("%d went", n)
	}
	if _, err := s.Piece(ctx, a.ID); !errors.Is(err, store.ErrNotFound) {
		t.Errorf("what was in the bin: %v", err)
	}
	get(s.Piece(ctx, b.ID))
}

// A step counts from where the piece is; of two devices the further one wins,
// and the other is told.
func TestStepsAtTheVise(t *testing.T) {
	ctx, get := t.Context(), must[store.Piece](t)
	s := open(t, t.TempDir())
	p := get(s.Create(ctx, doc(0), store.Summary{}))
	for _, c := range []struct {
		from, to, holds int
		elsewhere       bool
	}{
		{-4, -3, -3, false}, // not begun: it is where the window says
		{-3, 0, 0, false},
		{-4, -2, 0, true}, // another device still cuts
		{0, 3, 3, false},
		{3, 4, 4, false},
		{4, 2, 2, false}, // back
		{2, 5, 5, false},
		{2, 3, 5, true},  // a stale window, behind
		{3, 7, 7, true},  // a stale window, further
		{6, 7, 7, false}, // sent twice, or both came to the same
		{7, 8, 8, false},
	} {
		place, elsewhere, err := s.Go(ctx, p.ID, store.Step{From: c.from, To: c.to, Revision: p.Revision})
		if err != nil || place.Done != c.holds || elsewhere != c.elsewhere {
			t.Errorf("from %d to %d: %d, elsewhere %v, %v; want %d, %v", c.from, c.to, place.Done, elsewhere, err, c.holds, c.elsewhere)
		}
	}
	old := p.Revision
	moved := 11
	p = get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(1), Moved: &moved}))
	if p.Place.Done != 11 || p.Place.Revision != p.Revision {
		t.Errorf("carried over: %+v", p.Place)
	}
	if _, _, err := s.Go(ctx, p.ID, store.Step{From: 8, To: 9, Revision: old}); !errors.Is(err, store.ErrStale) {
		t.Errorf("a step in an old revision: %v", err)
	}
	// Undo carries it back by what it is told.
	back := get(s.Undo(ctx, p.ID, p.Revision, func(set store.Piece, to []byte) (int, bool) {
		if string(set.Document) != string(doc(1)) || string(to) != string(doc(0)) {
			t.Errorf("from %s to %s", set.Document, to)
		}
		return set.Place.Done - 3, true
	}))
	if back.Place.Done != 8 || back.Place.Revision != back.Revision {
		t.Errorf("undone: %+v", back.Place)
	}
}

// The rack is one question, whatever hangs there, and asks for no documents.
func TestTagsAreOneMoment(t *testing.T) {
	ctx, get := t.Context(), must[store.Piece](t)
	s := open(t, t.TempDir())
	var first store.Piece
	for k := range 5 {
		p := get(s.Create(ctx, doc(k), store.Summary{Text: fmt.Sprintf(`{"k":%d}`, k), By: "v1"}))
		if k == 0 {
			first = p
		}
	}
	if _, _, err := s.Go(ctx, first.ID, store.Step{To: 4, Revision: first.Revision}); err != nil {
		t.Fatal(err)
	}
	must[store.Log](t)(s.AddLog(ctx, store.Log{PieceID: first.ID, Cords: []byte("[]")}))
	tags := must[[]store.Tag](t)(s.Tags(ctx, false))
	if len(tags) != 5 || tags[0].Done != 4 || tags[0].Logged != 1 || tags[3].Summary.Text != `{"k":3}` || tags[0].UpdatedAt.IsZero() {
		t.Errorf("tags %+v", tags)
	}
	if left := must[[]store.Piece](t)(s.Unsummed(ctx, "v1", 0, 9)); len(left) != 0 {
		t.Errorf("%d are to be summed up again by the same program", len(left))
	}
	if left := must[[]store.Piece](t)(s.Unsummed(ctx, "v2", 0, 3)); len(left) != 3 {
		t.Errorf("a new program has %d of 3 to do", len(left))
	}
	if err := s.Sum(ctx, first.Revision, store.Summary{Text: "{}", By: "v2"}); err != nil {
		t.Fatal(err)
	}
	if left := must[[]store.Piece](t)(s.Unsummed(ctx, "v2", 0, 9)); len(left) != 4 {
		t.Errorf("then it has %d to do", len(left))
	}
}
