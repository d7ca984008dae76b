package store

import (
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"strings"
	"time"

	"gorm.io/gorm"

	"nimblebight/formats/archive"
)

// A backup is an archive of one file a piece, with its whole history, its log
// and its place, and one each for the drawer and the settings.

// schema is of what the files of a backup hold. It grows when a field must be
// known to be understood.
const schema = 1

type pieceFile struct {
	UID       string         `json:"uid"`
	CreatedAt time.Time      `json:"created_at"`
	BinnedAt  *time.Time     `json:"binned_at,omitempty"`
	Current   int64          `json:"current"`
	Revisions []revisionFile `json:"revisions"` // parents before children
	Logs      []logFile      `json:"logs,omitempty"`
	Place     *placeFile     `json:"place,omitempty"`
}

type revisionFile struct {
	Number    int64           `json:"number"`
	Parent    int64           `json:"parent,omitempty"`
	CreatedAt time.Time       `json:"created_at"`
	Name      string          `json:"name,omitempty"`
	Aside     bool            `json:"aside,omitempty"`
	Document  json.RawMessage `json:"document"`
}

type logFile struct {
	Revision  int64           `json:"revision"`
	CreatedAt time.Time       `json:"created_at"`
	Minutes   *float64        `json:"minutes,omitempty"`
	LengthMM  *float64        `json:"length_mm,omitempty"`
	Note      string          `json:"note,omitempty"`
	Cords     json.RawMessage `json:"cords"`
	WidthMM   *float64        `json:"width_mm,omitempty"`
	Tied      json.RawMessage `json:"tied,omitempty"`
	// Counts is missing in backups of versions in which every log was alike.
	Counts *Counts `json:"counts,omitempty"`
}

type placeFile struct {
	Done     int       `json:"done"`
	Revision int64     `json:"revision"`
	Device   string    `json:"device,omitempty"`
	At       time.Time `json:"at"`
}

type stuffFile struct {
	Shelf     Shelf           `json:"shelf"`
	Name      string          `json:"name"`
	CreatedAt time.Time       `json:"created_at"`
	Stuff     json.RawMessage `json:"stuff"`
}

// Backup writes all of the folder as it stands at one moment; by is the program
// that does.
func (s *Store) Backup(ctx context.Context, w io.Writer, by string) error {
	err := s.read(ctx, func(tx *gorm.DB) error {
		out := archive.Write(w, archive.Manifest{MadeAt: time.Now().UTC().Truncate(time.Second), MadeBy: by, Identity: s.identity, Schema: schema})
		add := func(name string, v any) error {
			var b bytes.Buffer
			e := json.NewEncoder(&b)
			e.SetIndent("", " ")
			e.SetEscapeHTML(false) // documents come out to the letter
			if err := e.Encode(v); err != nil {
				return err
			}
			return out.Add(name, b.Bytes())
		}
		var pieces []pieceRow
		if err := tx.Order("id").Find(&pieces).Error; err != nil {
			return err
		}
		for _, p := range pieces {
			f, err := filed(tx, p)
			if err == nil {
				err = add("pieces/"+p.UID+".json", f)
			}
			if err != nil {
				return err
			}
		}
		var stuff []stuffRow
		if err := tx.Order("id").Find(&stuff).Error; err != nil {
			return err
		}
		drawer := []stuffFile{}
		for _, r := range stuff {
			drawer = append(drawer, stuffFile{r.Shelf, r.Name, r.CreatedAt, raw(r.Stuff)})
		}
		if err := add("drawer.json", drawer); err != nil {
			return err
		}
		var spells []spellRow
		if err := tx.Order("id").Find(&spells).Error; err != nil {
			return err
		}
		if len(spells) > 0 { // a program from before would not know the file
			if err := add("spells.json", spells); err != nil {
				return err
			}
		}
		var set []settingRow
		if err := tx.Find(&set).Error; err != nil {
			return err
		}
		settings := map[string]string{}
		for _, r := range set {
			settings[r.Key] = r.Value
		}
		if err := add("settings.json", settings); err != nil {
			return err
		}
		return out.Close()
	})
	if err != nil {
		return fmt.Errorf("writing a backup: %w", err)
	}
	return nil
}

// raw carries a stored text as JSON; one that is spoilt goes as a string, so
// that it does not cost the rest.
func raw(text string) json.RawMessage {
	if json.Valid([]byte(text)) {
		return json.RawMessage(text)
	}
	b, _ := json.Marshal(text) // a string always can
	return b
}

func filed(tx *gorm.DB, p pieceRow) (pieceFile, error) {
	f := pieceFile{UID: p.UID, CreatedAt: p.CreatedAt, BinnedAt: p.BinnedAt, Current: *p.CurrentID}
	var rs []revisionRow
	if err := tx.Where("piece_id = ?", p.ID).Order("id").Find(&rs).Error; err != nil {
		return f, err
	}
	for _, r := range rs {
		rf := revisionFile{Number: r.ID, CreatedAt: r.CreatedAt, Name: r.Name, Aside: r.Aside, Document: raw(r.Document)}
		if r.ParentID != nil {
			rf.Parent = *r.ParentID
		}
		f.Revisions = append(f.Revisions, rf)
	}
	var ls []logRow
	if err := tx.Where("piece_id = ?", p.ID).Order("id").Find(&ls).Error; err != nil {
		return f, err
	}
	for _, l := range ls {
		counts := l.Counts
		e := logFile{Revision: l.RevisionID, CreatedAt: l.CreatedAt, Minutes: l.Minutes, LengthMM: l.LengthMM, Note: l.Note, Cords: raw(l.Cords), WidthMM: l.WidthMM, Counts: &counts}
		if l.Tied != "" {
			e.Tied = raw(l.Tied)
		}
		f.Logs = append(f.Logs, e)
	}
	var place placeRow
	if err := tx.Where("piece_id = ?", p.ID).Limit(1).Find(&place).Error; err != nil {
		return f, err
	}
	if place.PieceID != 0 {
		f.Place = &placeFile{place.Action, place.RevisionID, place.Device, place.UpdatedAt}
	}
	return f, nil
}

// How a backup is put back.
type How string

// Merge adds what the folder does not have and loses nothing; Replace makes the
// folder what the backup is.
const (
	Merge   How = "merge"
	Replace How = "replace"
)

// Report is what putting a backup back does.
type Report struct {
	How        How       `json:"how"`
	MadeAt     time.Time `json:"made_at"`
	Same       bool      `json:"same_folder"`      // the backup is of this very folder
	NewPieces  int       `json:"new_pieces"`       // were not there
	Updated    int       `json:"updated_pieces"`   // the backup's is the newer one
	Unchanged  int       `json:"unchanged_pieces"` // as in the backup, or newer
	Diverged   int       `json:"diverged_pieces"`  // changed on both sides: the backup's comes in as a second piece
	Removed    int       `json:"removed_pieces"`   // of the folder, by Replace
	LogEntries int       `json:"new_log_entries"`
	Drawer     int       `json:"new_in_drawer"`
	Settings   bool      `json:"settings_replaced"`
}

// errTrial undoes a trial run.
var errTrial = errors.New("only a trial")

// Restore puts a backup back, the whole of it or nothing. With trial set it
// changes nothing and tells what it would do. What is wrong with the archive
// comes back as an [archive.Refused].
func (s *Store) Restore(ctx context.Context, r io.ReaderAt, size int64, how How, trial bool) (Report, error) {
	a, err := archive.Open(r, size)
	if err != nil {
		return Report{}, err
	}
	if a.Manifest.Schema > schema {
		return Report{}, &archive.Refused{Why: "it was made by a newer Nimble Bight; use that one"}
	}
	rep := Report{How: how, MadeAt: a.Manifest.MadeAt, Same: a.Manifest.Identity == s.identity}
	err = s.write(ctx, func(tx *gorm.DB) error {
		if how == Replace {
			if err := rep.clear(tx); err != nil {
				return err
			}
		}
		for _, name := range a.Names() {
			b, err := a.Read(name)
			if err == nil {
				err = rep.take(tx, name, b)
			}
			if err != nil {
				return err
			}
		}
		if trial {
			return errTrial
		}
		return nil
	})
	if errors.Is(err, errTrial) {
		err = nil
	}
	var no *archive.Refused
	if err != nil && !errors.As(err, &no) {
		err = fmt.Errorf("putting a backup back: %w", err)
	}
	return rep, err
}

func (rep *Report) clear(tx *gorm.DB) error {
	var n int64
	if err := tx.Model(&pieceRow{}).Count(&n).Error; err != nil {
		return err
	}
	rep.Removed = int(n)
	for _, table := range []string{"pieces", "drawer", "settings", "spells"} { // the rest goes with its pieces
		if err := tx.Exec("DELETE FROM " + table).Error; err != nil {
			return err
		}
	}
	return nil
}

// take takes one file of the archive.
func (rep *Report) take(tx *gorm.DB, name string, b []byte) error {
	bad := func(err error) error {
		return &archive.Refused{Why: fmt.Sprintf("%s does not hold what it should: %v", name, err)}
	}
	switch {
	case strings.HasPrefix(name, "pieces/"):
		var f pieceFile
		if err := json.Unmarshal(b, &f); err != nil {
			return bad(err)
		}
		if err := f.check(); err != nil {
			return bad(err)
		}
		return rep.piece(tx, f)
	case name == "drawer.json":
		var stuff []stuffFile
		if err := json.Unmarshal(b, &stuff); err != nil {
			return bad(err)
		}
		return rep.drawer(tx, stuff)
	case name == "spells.json":
		var spells []spellRow
		if err := json.Unmarshal(b, &spells); err != nil {
			return bad(err)
		}
		return takeSpells(tx, spells)
	case name == "settings.json":
		set := map[string]string{}
		if err := json.Unmarshal(b, &set); err != nil {
			return bad(err)
		}
		return rep.settings(tx, set)
	}
	return &archive.Refused{Why: fmt.Sprintf("it holds %s, which this version does not know", name)}
}

var uids = regexp.MustCompile(`^[0-9a-f]{32}$`)

// check refuses a piece whose history does not hang together.
func (f pieceFile) check() error {
	if !uids.MatchString(f.UID) {
		return fmt.Errorf("%q is no uid of a piece", f.UID)
	}
	seen := map[int64]bool{}
	for _, r := range f.Revisions {
		switch {
		case r.Number <= 0 || seen[r.Number]:
			return fmt.Errorf("revision %d stands there twice or is no number", r.Number)
		case r.Parent != 0 && !seen[r.Parent]:
			return fmt.Errorf("revision %d was made from %d, which does not stand before it", r.Number, r.Parent)
		case len(r.Document) == 0:
			return fmt.Errorf("revision %d is empty", r.Number)
		}
		seen[r.Number] = true
	}
	if !seen[f.Current] {
		return fmt.Errorf("its current revision %d is not among its revisions", f.Current)
	}
	for _, l := range f.Logs {
		if !seen[l.Revision] {
			return fmt.Errorf("a log entry is of revision %d, which is not there", l.Revision)
		}
	}
	if f.Place != nil && f.Place.Done < leastPlace {
		return fmt.Errorf("its place at the vise is %d", f.Place.Done)
	}
	return nil
}

// text is a stored text again.
func text(m json.RawMessage) string {
	var s string
	if len(m) > 0 && m[0] == '"' && json.Unmarshal(m, &s) == nil {
		return s
	}
	var b bytes.Buffer
	if err := json.Compact(&b, m); err != nil {
		return string(m)
	}
	return b.String()
}

func (f pieceFile) document() string {
	for _, r := range f.Revisions {
		if r.Number == f.Current {
			return text(r.Document)
		}
	}
	return ""
}

func (rep *Report) piece(tx *gorm.DB, f pieceFile) error {
	var have pieceRow
	find := func(uid string) error {
		have = pieceRow{}
		return tx.Where("uid = ?", uid).Limit(1).Find(&have).Error
	}
	if err := find(f.UID); err != nil {
		return err
	}
	if have.ID == 0 {
		rep.NewPieces++
		return rep.insert(tx, f)
	}
	var ours []revisionRow
	if err := tx.Where("piece_id = ?", have.ID).Order("id").Find(&ours).Error; err != nil {
		return err
	}
	theirs := f.document()
	current := ""
	for _, r := range ours {
		if r.ID == *have.CurrentID {
			current = r.Document
		}
	}
	for _, r := range ours {
		if r.Document == theirs { // as it was in the backup it stands in our history
			rep.Unchanged++
			return rep.logs(tx, have.ID, *have.CurrentID, f)
		}
	}
	for k, r := range f.Revisions {
		if !r.Aside && text(r.Document) == current { // ours stands in theirs
			rep.Updated++
			return rep.goOn(tx, have, f, f.Revisions[k].Number)
		}
	}
	// Changed on both sides. The second piece has a uid that follows from what it
	// holds, so that the same backup put back again finds it there.
	sum := sha256.Sum256([]byte(f.UID + theirs))
	f.UID = hex.EncodeToString(sum[:16])
	if err := find(f.UID); err != nil {
		return err
	}
	if have.ID != 0 {
		rep.Unchanged++
		return nil
	}
	rep.Diverged++
	return rep.insert(tx, f)
}

// insert puts a piece in with all that belongs to it.
func (rep *Report) insert(tx *gorm.DB, f pieceFile) error {
	p := pieceRow{UID: f.UID, CreatedAt: f.CreatedAt, BinnedAt: f.BinnedAt}
	if err := tx.Create(&p).Error; err != nil {
		return err
	}
	now := map[int64]int64{}
	for _, r := range f.Revisions {
		row := revisionRow{PieceID: p.ID, CreatedAt: r.CreatedAt, Name: r.Name, Aside: r.Aside, Document: text(r.Document)}
		if r.Parent != 0 {
			parent := now[r.Parent]
			row.ParentID = &parent
		}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		now[r.Number] = row.ID
	}
	if err := tx.Model(&p).Update("current_id", now[f.Current]).Error; err != nil {
		return err
	}
	for i := range f.Logs {
		f.Logs[i].Revision = now[f.Logs[i].Revision]
	}
	if f.Place != nil {
		row := placeRow{PieceID: p.ID, Action: f.Place.Done, UpdatedAt: f.Place.At, RevisionID: now[f.Place.Revision], Device: f.Place.Device}
		if row.RevisionID == 0 {
			row.RevisionID = now[f.Current]
		}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
	}
	return rep.logs(tx, p.ID, 0, f)
}

// goOn adds to a piece the revisions by which the backup went on from one that
// is ours.
func (rep *Report) goOn(tx *gorm.DB, have pieceRow, f pieceFile, from int64) error {
	by := map[int64]revisionFile{}
	for _, r := range f.Revisions {
		by[r.Number] = r
	}
	var way []revisionFile
	for n := f.Current; n != 0 && n != from; n = by[n].Parent {
		way = append(way, by[n])
	}
	if n := len(way); n > 0 && way[n-1].Parent != from { // undone past it: the one that is current is enough
		way = way[:1]
	}
	parent := *have.CurrentID
	for k := len(way) - 1; k >= 0; k-- {
		at := parent
		row := revisionRow{PieceID: have.ID, ParentID: &at, CreatedAt: way[k].CreatedAt, Name: way[k].Name, Document: text(way[k].Document)}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		parent = row.ID
	}
	if err := tx.Model(&have).Update("current_id", parent).Error; err != nil {
		return err
	}
	return rep.logs(tx, have.ID, parent, f)
}

// logs adds the entries that a piece does not have. They count in the revision
// they name where at is 0, else in at.
func (rep *Report) logs(tx *gorm.DB, piece, at int64, f pieceFile) error {
	for _, l := range f.Logs {
		var n int64
		if err := tx.Model(&logRow{}).Where("piece_id = ? AND created_at = ? AND note = ?", piece, l.CreatedAt, l.Note).Count(&n).Error; err != nil {
			return err
		}
		if n > 0 {
			continue
		}
		row := logRow{PieceID: piece, RevisionID: l.Revision, CreatedAt: l.CreatedAt, Minutes: l.Minutes, LengthMM: l.LengthMM, Note: l.Note, Cords: text(l.Cords), WidthMM: l.WidthMM, Tied: text(l.Tied), Counts: CountsUnasked}
		if l.Counts != nil {
			row.Counts = *l.Counts
		}
		if at != 0 {
			row.RevisionID = at
		}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		rep.LogEntries++
	}
	return nil
}

func (rep *Report) drawer(tx *gorm.DB, stuff []stuffFile) error {
	for _, st := range stuff {
		if !slices.Contains(Shelves, st.Shelf) {
			return &archive.Refused{Why: fmt.Sprintf("its drawer has a shelf %q, which this version does not know", st.Shelf)}
		}
		row := stuffRow{Shelf: st.Shelf, Name: st.Name, Stuff: text(st.Stuff), CreatedAt: st.CreatedAt}
		var n int64
		if err := tx.Model(&stuffRow{}).Where("shelf = ? AND name = ? AND stuff = ?", row.Shelf, row.Name, row.Stuff).Count(&n).Error; err != nil {
			return err
		}
		if n > 0 {
			continue
		}
		if err := tx.Create(&row).Error; err != nil {
			return err
		}
		rep.Drawer++
	}
	return nil
}

// settings puts those back that are not set here.
func (rep *Report) settings(tx *gorm.DB, set map[string]string) error {
	for key, value := range set {
		old, err := setting(tx, key, "")
		if err != nil {
			return err
		}
		if old != "" || value == "" {
			continue
		}
		rep.Settings = true
		if err := tx.Save(&settingRow{key, value}).Error; err != nil {
			return err
		}
	}
	return nil
}
