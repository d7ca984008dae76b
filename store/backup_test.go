package store_test

import (
	"bytes"
	"context"
	"errors"
	"fmt"
	"testing"

	"nimblebight/formats/archive"
	"nimblebight/store"
)

func backup(t testing.TB, s *store.Store) []byte {
	t.Helper()
	var b bytes.Buffer
	if err := s.Backup(context.Background(), &b, "test"); err != nil {
		t.Fatal(err)
	}
	return b.Bytes()
}

func restore(t testing.TB, s *store.Store, b []byte, how store.How, trial bool) store.Report {
	t.Helper()
	return must[store.Report](t)(s.Restore(context.Background(), bytes.NewReader(b), int64(len(b)), how, trial))
}

// content is all that a folder holds, as a backup without its dates of making.
func content(t testing.TB, s *store.Store) string {
	t.Helper()
	b := backup(t, s)
	a, err := archive.Open(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		t.Fatal(err)
	}
	out := ""
	for _, name := range a.Names() {
		text, err := a.Read(name)
		if err != nil {
			t.Fatal(err)
		}
		out += name + "\n" + string(text) + "\n"
	}
	return out
}

// filled is a folder with something of everything.
func filled(t testing.TB, dir string) (*store.Store, store.Piece) {
	t.Helper()
	ctx, get := context.Background(), must[store.Piece](t)
	s := open(t, dir)
	p := get(s.Create(ctx, []byte(`{"name":"a <b> & ü","n":0}`), store.Summary{}))
	for k := 1; k < 6; k++ {
		p = get(s.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(k)}))
	}
	p = get(s.Undo(ctx, p.ID, p.Revision, nil))
	if err := s.Name(ctx, p.ID, p.Revision, "the good one"); err != nil {
		t.Fatal(err)
	}
	must[store.Revision](t)(s.SetAside(ctx, p.ID, doc(77), store.Summary{}, "mine"))
	must[store.Log](t)(s.AddLog(ctx, store.Log{PieceID: p.ID, Minutes: ptr(12), Note: "first", Cords: []byte(`[{"id":"A"}]`), WidthMM: ptr(24), Tied: []byte(`[null,7]`), Counts: store.CountsAsked}))
	if _, _, err := s.Go(ctx, p.ID, store.Step{To: 3, Revision: p.Revision, Device: "tablet"}); err != nil {
		t.Fatal(err)
	}
	binned := get(s.Create(ctx, doc(50), store.Summary{}))
	if err := s.Bin(ctx, binned.ID, true); err != nil {
		t.Fatal(err)
	}
	must[store.Stuff](t)(s.PutIn(ctx, store.Cords, store.Stuff{Name: "Lagoon", What: []byte(`{"d":4}`)}))
	must[store.Stuff](t)(s.PutIn(ctx, store.Swatches, store.Stuff{Name: "kernmantle", What: []byte(`{"height_mm":115}`)}))
	must[store.Stuff](t)(s.PutIn(ctx, store.Cores, store.Stuff{Name: "bung", What: []byte(`{"d":22}`)}))
	if err := s.Change(ctx, "settings", "", to(`{"units":"inch"}`)); err != nil {
		t.Fatal(err)
	}
	return s, get(s.Piece(ctx, p.ID))
}

func TestABackupPutIntoAnEmptyFolderIsTheSameFolder(t *testing.T) {
	ctx, get := context.Background(), must[store.Piece](t)
	from, p := filled(t, t.TempDir())
	b := backup(t, from)
	for _, how := range []store.How{store.Merge, store.Replace} {
		into := open(t, t.TempDir())
		said := restore(t, into, b, how, true)
		if tags := must[[]store.Tag](t)(into.Tags(ctx, false)); len(tags) != 0 {
			t.Fatalf("%s: a trial put %d pieces in", how, len(tags))
		}
		did := restore(t, into, b, how, false)
		if said != did || did.NewPieces != 2 || did.LogEntries != 1 || did.Drawer != 3 || !did.Settings || did.Same {
			t.Errorf("%s: it said %+v and did %+v", how, said, did)
		}
		tags := must[[]store.Tag](t)(into.Tags(ctx, false))
		if len(tags) != 1 {
			t.Fatalf("%s: %d pieces hang there", how, len(tags))
		}
		q := get(into.Piece(ctx, tags[0].ID))
		if string(q.Document) != string(p.Document) || q.UID != p.UID || !q.CanUndo || !q.CanRedo || q.Place.Done != 3 || q.Place.Revision != q.Revision || q.Logged != 1 {
			t.Errorf("%s: %+v became %+v", how, p, q)
		}
		if a, b := len(must[[]store.Revision](t)(from.Revisions(ctx, p.ID))), len(must[[]store.Revision](t)(into.Revisions(ctx, q.ID))); a != b {
			t.Errorf("%s: %d revisions became %d", how, a, b)
		}
		if l := must[[]store.Log](t)(into.Logs(ctx, q.ID))[0]; l.WidthMM == nil || *l.WidthMM != 24 || string(l.Tied) != `[null,7]` || l.Counts != store.CountsAsked {
			t.Errorf("%s: the log became %+v", how, l)
		}
		if sw := must[[]store.Stuff](t)(into.Drawer(ctx, store.Swatches)); len(sw) != 1 || string(sw[0].What) != `{"height_mm":115}` {
			t.Errorf("%s: the swatches became %+v", how, sw)
		}
		for at := q; at.CanUndo; {
			at = get(into.Undo(ctx, q.ID, at.Revision, nil))
			q = at
		}
		if want := `{"name":"a <b> & ü","n":0}`; string(q.Document) != want {
			t.Errorf("%s: the first revision is %s", how, q.Document)
		}
		// Put back again it changes nothing.
		before := content(t, into)
		if again := restore(t, into, b, store.Merge, false); again.NewPieces+again.Diverged+again.LogEntries+again.Drawer > 0 {
			t.Errorf("%s: again: %+v", how, again)
		}
		if how == store.Merge && content(t, into) != before {
			t.Error("put back again, the folder changed")
		}
	}
}

// Merging loses nothing of either side.
func TestMerging(t *testing.T) {
	ctx, get := context.Background(), must[store.Piece](t)
	for name, c := range map[string]struct {
		here, there bool // where the piece was changed after the backup's folder was copied
		want        store.Report
		docs        []string
	}{
		"neither":   {false, false, store.Report{Unchanged: 2}, []string{`{"n":4}`}},
		"only here": {true, false, store.Report{Unchanged: 2}, []string{`{"n":100}`}},
		"there":     {false, true, store.Report{Unchanged: 1, Updated: 1}, []string{`{"n":200}`}},
		"both":      {true, true, store.Report{Unchanged: 1, Diverged: 1}, []string{`{"n":100}`, `{"n":200}`}},
	} {
		here, p := filled(t, t.TempDir())
		there := open(t, t.TempDir())
		restore(t, there, backup(t, here), store.Replace, false)
		q := get(there.Piece(ctx, must[[]store.Tag](t)(there.Tags(ctx, false))[0].ID))
		if c.here {
			get(here.Save(ctx, store.Change{ID: p.ID, BasedOn: p.Revision, Document: doc(100)}))
		}
		if c.there {
			q = get(there.Save(ctx, store.Change{ID: q.ID, BasedOn: q.Revision, Document: doc(199)}))
			get(there.Save(ctx, store.Change{ID: q.ID, BasedOn: q.Revision, Document: doc(200)}))
		}
		b := backup(t, there)
		for round := range 2 { // the second time there is nothing left to do
			rep := restore(t, here, b, store.Merge, false)
			got := store.Report{NewPieces: rep.NewPieces, Updated: rep.Updated, Unchanged: rep.Unchanged, Diverged: rep.Diverged, Removed: rep.Removed}
			if round == 0 && got != c.want {
				t.Errorf("%s: %+v, want %+v", name, got, c.want)
			}
			if round == 1 && got.Unchanged != 2 {
				t.Errorf("%s, again: %+v", name, got)
			}
			var docs []string
			for _, tag := range must[[]store.Tag](t)(here.Tags(ctx, false)) {
				docs = append(docs, string(get(here.Piece(ctx, tag.ID)).Document))
			}
			if fmt.Sprint(docs) != fmt.Sprint(c.docs) {
				t.Errorf("%s: on the rack hang %s, want %s", name, docs, c.docs)
			}
		}
	}
}

// Replacing makes the folder what the backup is, and what is damaged changes
// nothing at all.
func TestReplacingIsWholeOrNothing(t *testing.T) {
	ctx := context.Background()
	from, _ := filled(t, t.TempDir())
	b := backup(t, from)
	into, _ := filled(t, t.TempDir())
	before := content(t, into)
	for _, n := range []int{0, 100, len(b) / 2, len(b) - 1} {
		_, err := into.Restore(ctx, bytes.NewReader(b[:n]), int64(n), store.Replace, false)
		var no *archive.Refused
		if !errors.As(err, &no) {
			t.Errorf("%d bytes of %d: %v", n, len(b), err)
		}
	}
	// Whole, but one file does not hold what it should: the last in order, when
	// all others are in already.
	var bad bytes.Buffer
	w := archive.Write(&bad, archive.Manifest{Schema: 1})
	a, err := archive.Open(bytes.NewReader(b), int64(len(b)))
	if err != nil {
		t.Fatal(err)
	}
	for _, name := range a.Names() {
		text, _ := a.Read(name)
		if name == "settings.json" {
			text = []byte(`[1,2]`)
		}
		if err := w.Add(name, text); err != nil {
			t.Fatal(err)
		}
	}
	if err := w.Close(); err != nil {
		t.Fatal(err)
	}
	if _, err := into.Restore(ctx, bytes.NewReader(bad.Bytes()), int64(bad.Len()), store.Replace, false); err == nil {
		t.Error("settings that are a list were taken")
	}
	if content(t, into) != before {
		t.Error("a refused archive changed the folder")
	}
	if rep := restore(t, into, b, store.Replace, false); rep.Removed != 2 || rep.NewPieces != 2 {
		t.Errorf("replaced: %+v", rep)
	}
}

func TestHistoriesThatDoNotHangTogetherAreRefused(t *testing.T) {
	ctx := context.Background()
	uid := "0123456789abcdef0123456789abcdef"
	for name, text := range map[string]string{
		"no uid":       `{"uid":"../x","current":1,"revisions":[{"number":1,"document":{}}]}`,
		"no revisions": `{"uid":"` + uid + `","current":1,"revisions":[]}`,
		"no current":   `{"uid":"` + uid + `","current":2,"revisions":[{"number":1,"document":{}}]}`,
		"own parent":   `{"uid":"` + uid + `","current":1,"revisions":[{"number":1,"parent":1,"document":{}}]}`,
		"a ring":       `{"uid":"` + uid + `","current":1,"revisions":[{"number":1,"parent":2,"document":{}},{"number":2,"parent":1,"document":{}}]}`,
		"twice":        `{"uid":"` + uid + `","current":1,"revisions":[{"number":1,"document":{}},{"number":1,"document":{}}]}`,
		"no document":  `{"uid":"` + uid + `","current":1,"revisions":[{"number":1}]}`,
		"log of none":  `{"uid":"` + uid + `","current":1,"revisions":[{"number":1,"document":{}}],"logs":[{"revision":9,"cords":[]}]}`,
		"a far place":  `{"uid":"` + uid + `","current":1,"revisions":[{"number":1,"document":{}}],"place":{"done":-1001}}`,
		"a list":       `[]`,
	} {
		var b bytes.Buffer
		w := archive.Write(&b, archive.Manifest{Schema: 1})
		if err := errors.Join(w.Add("pieces/"+uid+".json", []byte(text)), w.Close()); err != nil {
			t.Fatal(err)
		}
		s := open(t, t.TempDir())
		_, err := s.Restore(ctx, bytes.NewReader(b.Bytes()), int64(b.Len()), store.Merge, false)
		var no *archive.Refused
		if !errors.As(err, &no) {
			t.Errorf("%s: %v", name, err)
		}
		if tags := must[[]store.Tag](t)(s.Tags(ctx, false)); len(tags) != 0 {
			t.Errorf("%s: %d pieces came in", name, len(tags))
		}
	}
}
