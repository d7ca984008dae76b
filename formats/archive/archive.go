// Package archive is the file that a data folder is carried in: a zip of plain
// files with a manifest that names each of them with its length and SHA-256. It
// knows files and nothing of what is in them.
//
// [Write] makes one, [Open] reads one. Open believes nothing: an archive is
// refused whole, before any of it is used, where it is cut off, changed, foreign,
// larger than it says, or has names that lead out of it. Version 1 of the
// manifest is read for as long as there are archives of it.
package archive

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"regexp"
	"slices"
	"time"
)

// Format and Version mark a manifest.
const (
	Format       = "nimble-bight.backup"
	Version      = 1
	manifestName = "manifest.json"
)

// The most that an archive may hold, so that a small file cannot fill a disk or
// a memory.
const (
	MostFiles = 100_000
	MostFile  = 64 << 20 // bytes of one file
	MostBytes = 1 << 30  // bytes of all
)

// Manifest is what an archive says of itself.
type Manifest struct {
	Format   string    `json:"format"`
	Version  int       `json:"version"`
	MadeAt   time.Time `json:"made_at"`
	MadeBy   string    `json:"made_by"`  // the program
	Identity string    `json:"identity"` // of the data folder
	Schema   int64     `json:"schema"`   // of what the files hold
	Files    []Entry   `json:"files"`
}

// Entry is one file of an archive.
type Entry struct {
	Name   string `json:"name"`
	Bytes  int64  `json:"bytes"`
	SHA256 string `json:"sha256"`
}

// Refused is the error for an archive that is not taken.
type Refused struct{ Why string }

func (r *Refused) Error() string { return "this archive is not taken: " + r.Why }

func refuse(format string, args ...any) error { return &Refused{fmt.Sprintf(format, args...)} }

// plain are the names that files may have: words with / between them, no dots
// but that of the ending.
var plain = regexp.MustCompile(`^([a-z0-9-]{1,64}/){0,4}[a-z0-9-]{1,64}\.[a-z]{1,8}$`)

// Writer adds files to an archive. Add and Close give the errors of what is
// written to.
type Writer struct {
	zip      *zip.Writer
	manifest Manifest
	total    int64
}

// Write begins an archive.
func Write(w io.Writer, m Manifest) *Writer {
	m.Format, m.Version, m.Files = Format, Version, nil
	return &Writer{zip: zip.NewWriter(w), manifest: m}
}

// Add adds a file.
func (w *Writer) Add(name string, content []byte) error {
	if !plain.MatchString(name) || name == manifestName {
		return fmt.Errorf("archive: %q is no name for a file in it", name)
	}
	if w.total += int64(len(content)); len(content) > MostFile || w.total > MostBytes || len(w.manifest.Files) == MostFiles {
		return fmt.Errorf("archive: with %s it would be larger than can be read again", name)
	}
	sum := sha256.Sum256(content)
	w.manifest.Files = append(w.manifest.Files, Entry{name, int64(len(content)), hex.EncodeToString(sum[:])})
	return w.put(name, content)
}

func (w *Writer) put(name string, content []byte) error {
	f, err := w.zip.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: w.manifest.MadeAt})
	if err == nil {
		_, err = f.Write(content)
	}
	return err
}

// Close writes the manifest and ends the archive.
func (w *Writer) Close() error {
	b, err := json.MarshalIndent(w.manifest, "", " ")
	if err == nil {
		err = w.put(manifestName, b)
	}
	if err != nil {
		return err
	}
	return w.zip.Close()
}

// Archive is an archive whose every byte has been checked against its manifest.
type Archive struct {
	Manifest Manifest
	files    map[string]*zip.File
}

// Open reads an archive of so many bytes and checks all of it. What is wrong
// with it comes back as a [*Refused].
func Open(r io.ReaderAt, size int64) (*Archive, error) {
	z, err := zip.NewReader(r, size)
	if err != nil {
		if errors.Is(err, zip.ErrFormat) || errors.Is(err, io.ErrUnexpectedEOF) || errors.Is(err, io.EOF) {
			return nil, refuse("it is no zip file, or its end is missing; was it copied whole?")
		}
		return nil, refuse("it cannot be read as a zip file: %v", err)
	}
	if len(z.File) > MostFiles+1 {
		return nil, refuse("it holds %d files; %d are the most", len(z.File), MostFiles)
	}
	a := &Archive{files: map[string]*zip.File{}}
	for _, f := range z.File {
		if f.Name != manifestName && !plain.MatchString(f.Name) {
			return nil, refuse("it holds a file named %q, which is none of ours", f.Name)
		}
		if a.files[f.Name] != nil {
			return nil, refuse("it holds %s twice", f.Name)
		}
		a.files[f.Name] = f
	}
	if a.files[manifestName] == nil {
		return nil, refuse("it has no %s, so it is not a backup of Nimble Bight", manifestName)
	}
	b, err := a.read(manifestName, MostFile)
	if err != nil {
		return nil, err
	}
	if err := json.Unmarshal(b, &a.Manifest); err != nil || a.Manifest.Format != Format {
		return nil, refuse("its %s is not one of a backup of Nimble Bight", manifestName)
	}
	if a.Manifest.Version != Version {
		return nil, refuse("it is of version %d and this program reads version %d; use a newer Nimble Bight", a.Manifest.Version, Version)
	}
	delete(a.files, manifestName)
	return a, a.check()
}

// check holds every file against the manifest.
func (a *Archive) check() error {
	if len(a.Manifest.Files) != len(a.files) {
		return refuse("it holds %d files and its manifest names %d", len(a.files), len(a.Manifest.Files))
	}
	total := int64(0)
	for _, e := range a.Manifest.Files {
		if a.files[e.Name] == nil {
			return refuse("%s is missing", e.Name)
		}
		if total += e.Bytes; e.Bytes < 0 || e.Bytes > MostFile || total > MostBytes {
			return refuse("unpacked it would be larger than %d MB, or one of its files than %d MB", MostBytes>>20, MostFile>>20)
		}
	}
	for _, e := range a.Manifest.Files {
		b, err := a.read(e.Name, e.Bytes)
		if err != nil {
			return err
		}
		if sum := sha256.Sum256(b); int64(len(b)) != e.Bytes || hex.EncodeToString(sum[:]) != e.SHA256 {
			return refuse("%s is not what was put into it; it was changed or damaged", e.Name)
		}
	}
	return nil
}

// read unpacks a file, never more than most bytes of it.
func (a *Archive) read(name string, most int64) ([]byte, error) {
	f, err := a.files[name].Open()
	if err != nil {
		return nil, refuse("%s cannot be unpacked: %v", name, err)
	}
	defer f.Close()
	var b bytes.Buffer
	n, err := io.Copy(&b, io.LimitReader(f, most+1))
	if err != nil {
		return nil, refuse("%s is damaged: %v", name, err)
	}
	if n > most {
		return nil, refuse("%s is larger than it says", name)
	}
	return b.Bytes(), nil
}

// Names are the files, in alphabetical order.
func (a *Archive) Names() []string {
	var out []string
	for _, e := range a.Manifest.Files {
		out = append(out, e.Name)
	}
	slices.Sort(out)
	return out
}

// Read unpacks a file that Names names.
func (a *Archive) Read(name string) ([]byte, error) {
	if a.files[name] == nil {
		return nil, refuse("%s is missing", name)
	}
	return a.read(name, MostFile)
}
